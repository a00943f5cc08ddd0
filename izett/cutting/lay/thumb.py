"""The rule of thumb: what a cutter reckons without laying anything, to be held against the plan.

A skirt needs its length from waist to hem and 5 cm once, or twice where front and back cannot lie side by side: pieces
side by side count once, with the longest of them. Common practice, no single source.
"""

from collections.abc import Sequence
from dataclasses import dataclass

from izett.cutting.cloth import Cloth, Fold
from izett.cutting.lay.cutouts import Cutout, Wanted, sections
from izett.wording import cm

#: cm. What is added to every length.
ADDED = 5.0


@dataclass(frozen=True, slots=True)
class Row:
    """Pieces that lie side by side: their titles, and the longest of them, cm."""

    titles: tuple[str, ...]
    longest: float


@dataclass(frozen=True, slots=True)
class Thumb:
    """What is reckoned: the rows of pieces along the cloth."""

    rows: tuple[Row, ...]

    @property
    def length(self) -> float:
        """How much cloth that is, cm."""
        return sum(row.longest + ADDED for row in self.rows)

    @property
    def words(self) -> str:
        """The reckoning, as one says it."""
        lengths = " + ".join(cm(row.longest) for row in self.rows)
        return f"By the rule of thumb {cm(self.length)}: {lengths}, and {cm(ADDED)} each for what lies side by side."


def rule_of_thumb(wanted: Sequence[Wanted], cloth: Cloth, fold: Fold | None = None) -> Thumb:
    """Return what a cutter would reckon: the longest pieces first, beside each other while the cloth is wide enough.

    Raises:
        DoesNotFit: pieces are wider than the cloth as it lies.
    """
    rows: list[Row] = []
    for section in sections(wanted, cloth, fold):
        room = sum(strip.right - strip.left for strip in section.bed.strips)
        rows += _rows(section.cutouts, room, cloth.gap)
    return Thumb(tuple(rows))


def _rows(cutouts: Sequence[Cutout], room: float, gap: float) -> list[Row]:
    left: list[float] = []
    rows: list[list[Cutout]] = []
    for cutout in sorted(cutouts, key=lambda one: -one.narrowest.height):
        wide = cutout.narrowest.width + gap
        at = next((i for i, free in enumerate(left) if free >= wide - gap), None)
        if at is None:
            rows.append([])
            left.append(room)
            at = len(rows) - 1
        rows[at].append(cutout)
        left[at] -= wide
    return [Row(tuple(one.title for one in row), row[0].narrowest.height) for row in rows]
