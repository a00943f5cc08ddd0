"""In which order pieces are cut, and how: the largest first, straight-cut ones by a pulled thread.

While the cloth is whole, a mistake in a large piece can still be mended; small ones come out of what is left. A piece whose
edges all run with the grain or across it is cut along a thread that was pulled out, in strips across the whole width.
Common practice, no single source.
"""

from collections.abc import Sequence
from dataclasses import dataclass

from izett.cutting.lay.cutouts import Wanted
from izett.geometry.outline import signed_area
from izett.pattern.facts import Role
from izett.pattern.piece import Piece


@dataclass(frozen=True, slots=True)
class ToCut:
    """A row of the cutting list.

    Attributes:
        piece, title: which piece; number: how many of it.
        on_fold: whether it is cut on the fold.
        straight: whether it is cut by a pulled thread.
        area: of one as drawn, cm²; says: words of the maker.
        label: which piece of the garment it is, as its label says.
    """

    piece: str
    title: str
    number: int
    on_fold: bool
    straight: bool
    area: float
    says: str
    label: str

    @property
    def how(self) -> str:
        """How many are cut, and how."""
        way = ", on the fold" if self.on_fold else ""
        return f"cut {self.number}{way}{', by a pulled thread' if self.straight else ''}"


def cutting_order(wanted: Sequence[Wanted]) -> list[ToCut]:
    """Return the pieces in the order in which they are cut."""
    rows = [
        ToCut(
            one.name,
            one.title,
            one.number,
            one.sheet.fold is not None,
            is_straight_cut(one.sheet.piece),
            abs(signed_area(one.sheet.cutting)) * (2 if one.sheet.fold is not None else 1),
            one.sheet.ready.says,
            label_of(one),
        )
        for one in wanted
    ]
    return sorted(rows, key=lambda row: (not row.straight, -row.area))


def label_of(one: Wanted) -> str:
    """Return which piece of the garment one is, and of which size where several are laid."""
    number, of = one.sheet.place
    return f"{number} of {of}{f', size {one.size}' if one.size else ''}"


def is_straight_cut(piece: Piece) -> bool:
    """Return whether all of a piece is cut straight, as it is drawn."""
    return all(edge.role in (Role.CUT_EDGE, Role.FOLD) or edge.is_leg for edge in piece.edges)
