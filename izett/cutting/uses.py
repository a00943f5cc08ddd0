"""Which cloth of the garment each piece is cut from: by its layer, or as the maker says."""

from collections.abc import Mapping, Sequence

from izett.cutting.cloth import USES, Use
from izett.errors import UnknownName
from izett.finishing.sheet import SheetPiece
from izett.pattern.facts import Layer

#: Facings and what is sewn on are cut from the outer cloth. Common practice, no single source.
BY_LAYER: Mapping[Layer, Use] = {
    Layer.OUTER: Use.OUTER,
    Layer.FACING: Use.OUTER,
    Layer.APPLIED: Use.OUTER,
    Layer.LINING: Use.LINING,
    Layer.INTERFACING: Use.INTERFACING,
    Layer.STRENGTH: Use.STRENGTH,
}


def use_of(sheet: SheetPiece) -> Use:
    """Return which cloth a piece is cut from."""
    said = sheet.ready.cloth
    return Use(said) if said else BY_LAYER[sheet.piece.layer]


def cut_from(sheets: Sequence[SheetPiece], use: Use) -> list[SheetPiece]:
    """Return the pieces that are cut from a cloth; a muslin is cut of the outer pieces.

    Raises:
        UnknownName: there are none.
    """
    wanted = Use.OUTER if use is Use.MUSLIN else use
    found = [sheet for sheet in sheets if use_of(sheet) is wanted]
    if not found:
        raise UnknownName(
            f"No piece of this garment is cut from the {USES[use]}.",
            fix=f"It has pieces of {', '.join(dict.fromkeys(USES[use_of(sheet)] for sheet in sheets)) or 'nothing'}.",
            where=(use.value,),
        )
    return found
