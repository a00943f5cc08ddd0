"""Places as a hand gives them: so far from a named end of a line."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import NamedTuple

from izett.errors import ReferenceLost
from izett.geometry.point import Point
from izett.pattern.ends import line_end_words
from izett.pattern.sewn import holding, resolved, span_length, walk
from izett.pattern.working import Readable
from izett.styling.references import Params, PointRef


class PartOfLine(NamedTuple):
    """What of a line lies on one piece between two darts: the points (cm) along it, in the piece's own frame."""

    piece: str
    points: tuple[Point, ...]


@dataclass(frozen=True, slots=True)
class LineOfPlace:
    """The line that a place lies on.

    Attributes:
        length: how long it is as sewn, cm.
        start, end: what its two ends are called in words.
        parts: where it runs on the paper, from its start to its end.
    """

    length: float
    start: str
    end: str
    parts: tuple[PartOfLine, ...]


def lines_of_places(params: Params, pattern: Readable) -> Mapping[str, LineOfPlace]:
    """Return the lines of a step's places, by the name of the parameter; those that are gone are left out."""
    found: dict[str, LineOfPlace] = {}
    for name in type(params).model_fields:
        place = getattr(params, name)
        if not isinstance(place, PointRef):
            continue
        try:
            chain = resolved(pattern, place.span)
        except ReferenceLost:
            continue
        length = sum(span_length(holding(pattern, part.start), part) for part in chain)
        ends = [line_end_words(pattern, vertex, place.along) for vertex in (place.start, place.end)]
        parts = tuple(
            PartOfLine(piece.name, tuple(stretch.open_curve.flattened()))
            for part in chain
            for piece in (holding(pattern, part.start),)
            for stretch in walk(piece, part)
        )
        found[name] = LineOfPlace(length, *_told_apart(ends[0], ends[1]), parts)
    return found


def _told_apart(start: str, end: str) -> tuple[str, str]:
    return (start, end) if start != end else (f"one end, at the {start}", f"the other end, at the {end}")
