"""A wrap: the body wrapped in film and tape, its seam lines drawn on, cut off, cut into panels that lie flat.

What was drawn on the body is the body's own shape, without ease: so its panels must add up to the girths that were taken
before it was wrapped. They do not where it was pulled tight, where it slipped, or where a panel was traced or cut wrongly. The
waist is drawn around the whole wrap before it is cut, so every panel has it: the panels are matched there. Common practice, no
single source.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType

from izett.draping.panel import Given, Source
from izett.draping.ring import Query, Wrong
from izett.pattern.document import Intent, Pattern, Seam
from izett.pattern.levels import width_at
from izett.pattern.piece import Piece, Span
from izett.pattern.worn import across, is_body, width

#: The girth of the body at each level.
GIRTHS: Mapping[str, str] = MappingProxyType(
    {"bust": "bust_girth", "underbust": "underbust_girth", "waist": "waist_girth", "hip": "hip_girth"}
)
#: cm. Film, tape and tracing together are off by no more, around the body.
OFF = 1.0
#: A level is whole that is at least so long as a share of what the piece has so many cm above or below it.
WHOLE, BESIDE = 0.85, 1.0
#: The level at which all panels of a wrap are matched.
MATCHED = "waist"


@dataclass(frozen=True, slots=True)
class LevelSum:
    """What the panels add up to around the body at a level, and the girth that was taken there, cm."""

    level: str
    around: float
    girth: float

    @property
    def off(self) -> float:
        """How much more the panels have, cm."""
        return self.around - self.girth

    @property
    def agrees(self) -> bool:
        """Whether that is within what film, tape and tracing are off."""
        return abs(self.off) <= OFF


def level_sums(
    pieces: Sequence[Piece],
    seams: Sequence[Seam],
    along: Mapping[str, tuple[Span, ...]],
    body: Mapping[str, float],
) -> tuple[LevelSum, ...]:
    """Return what given pieces add up to at each level that they have and the body was measured at.

    Args:
        pieces, seams: as trued.
        along: levels that are an edge of the pieces: the spans of the half body.
        body: the body's measures, cm by symbol.
    """
    pattern = Pattern(tuple(pieces), tuple(seams), Intent(along=along))
    found = []
    for level, girth in GIRTHS.items():
        around = width(pattern, level)
        if around > 0 and girth in body and _goes_around(pieces, level):
            found.append(LevelSum(level, around, body[girth]))
    return tuple(found)


def _goes_around(pieces: Sequence[Piece], level: str) -> bool:
    """Return whether a level goes around the body: measured along an edge, or drawn on every piece, each time whole."""
    body = [piece for piece in pieces if is_body(piece)]
    drawn = [piece for piece in body if any(line.level == level for line in piece.lines)]
    return not drawn or (len(drawn) == len(body) and all(_is_whole(piece, level) for piece in drawn))


def _is_whole(piece: Piece, level: str) -> bool:
    """Return whether a level runs over the whole of a piece: at a hem, it may run on and off the cloth."""
    heights = [line.points[0][1] for line in piece.lines if line.level == level]
    near = max(across(piece, heights[0] + by) for by in (-BESIDE, BESIDE))
    return width_at(piece, level) >= WHOLE * near


def unmatched(given: Given, pieces: Sequence[Piece]) -> Iterator[Query]:
    """Yield the query of each panel of a wrap whose waist was not marked: it cannot be matched with the others."""
    if given.source is not Source.WRAP:
        return
    made = {piece.name: piece for piece in pieces}
    for panel in given.panels:
        piece = made.get(panel.name)
        has = MATCHED in {**given.levels, **panel.levels} or (
            piece is not None and any(edge.role.value == MATCHED for edge in piece.edges)
        )
        if not has:
            yield Query(
                Wrong.NO_WAIST,
                panel.name,
                f"The waist is not marked on the {panel.called.lower()}: it cannot be matched with the other panels.",
                "Draw the waist around the whole wrap before it is cut, and say how high it lies on each panel.",
            )
