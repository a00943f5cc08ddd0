"""Walking a seam: one edge is rolled along the other, from its start; notches and where the shapes part are read off.

Both sides are laid at the place reached, their directions together, as a hand does with a pencil point for an axle.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise

from izett.geometry.motion import Motion
from izett.geometry.point import Point, distance, subtract, turn
from izett.pattern.document import Seam
from izett.pattern.piece import Notch, NotchKind, Piece, Span
from izett.pattern.sewn import Stretch, holding, seam_lengths, span_length, walk
from izett.pattern.working import Readable

#: cm. Both sides are read at least so often.
STEP = 1.0
#: Steps of a walk, at least and at most.
LEAST_STEPS, MOST_STEPS = 8, 120


@dataclass(frozen=True, slots=True)
class Met:
    """A notch met on a walk, with its distance (cm) from the seam's start as sewn."""

    along: float
    kind: NotchKind


@dataclass(frozen=True, slots=True)
class Step:
    """One moment of a walk.

    Attributes:
        along: how far the first side was walked, cm.
        other: how far the second side was walked, cm.
        first, second: the pieces that touch there.
        at: the place on the first piece.
        turned, shifted: the move (radians, cm) that lays the second piece to the first there; `over` where it is turned
            over first, about the upright through its frame's origin.
        gap: how far the edges lie apart a step further on, cm: where the shapes part.
    """

    along: float
    other: float
    first: str
    second: str
    at: Point
    turned: float
    shifted: Point
    over: bool
    gap: float


@dataclass(frozen=True, slots=True)
class Walk:
    """A seam walked from end to end."""

    seam: str
    lengths: tuple[float, float]
    steps: tuple[Step, ...]
    notches: tuple[tuple[Met, ...], tuple[Met, ...]]


def notches_on(pattern: Readable, chain: Sequence[Span]) -> tuple[Met, ...]:
    """Return the notches along a chain of spans, by their distance from its start as sewn."""
    found: list[Met] = []
    gone = 0.0
    for span in chain:
        piece = holding(pattern, span.start)
        long = span_length(piece, span)
        for notch in piece.notches:
            along = _along(piece, notch, span, long)
            if along is not None and -1e-6 <= along <= long + 1e-6:
                found.append(Met(gone + along, notch.kind))
        gone += long
    return tuple(sorted(found, key=lambda met: met.along))


def _along(piece: Piece, notch: Notch, span: Span, long: float) -> float | None:
    if notch.span.along != span.along:
        return None
    names = tuple(piece.aliases.get(n, n) for n in (span.start, span.end, notch.span.start, notch.span.end))
    if names[2:] == names[:2]:
        return notch.distance
    if names[2:] == names[1::-1]:
        return long - notch.distance
    # A notch on a shorter or longer run of the same line: measured from the end that both have.
    if names[2] == names[0]:
        return notch.distance
    if names[2] == names[1]:
        return long - notch.distance
    return None


def walked(pattern: Readable, seam: Seam) -> Walk:
    """Walk a seam; between two pairs of notches (or an end) the second side is read at the same share.

    So what is eased lies where it is sewn: where the notches meet, both sides were walked alike.

    Raises:
        ReferenceLost: the seam has lost one of its ends.
    """
    lengths = seam_lengths(pattern, seam)
    sides = [_stretches(pattern, side) for side in seam.sides]
    first, second = (notches_on(pattern, side) for side in seam.sides)
    known = [(0.0, 0.0), *_pairs(first, second, lengths), lengths]
    count = min(max(round(max(lengths) / STEP), LEAST_STEPS), MOST_STEPS)
    steps: list[Step] = []
    for i in range(count + 1):
        along = lengths[0] * i / count
        other = _other(known, along)
        piece, spot, way, edge = _at(sides[0], along)
        partner, place, path, beside_edge = _at(sides[1], other)
        # Drawn the same way round, one of the two lies with its wrong side up.
        over = edge.forward == beside_edge.forward
        if over:
            place, path = (-place[0], place[1]), (-path[0], path[1])
        turned = turn(path, way)
        motion = Motion.turning(turned, about=(0.0, 0.0))
        shifted = subtract(spot, motion(place))
        gap = 0.0
        if i < count:
            ahead = _at(sides[0], min(along + lengths[0] / count, lengths[0]))
            beside = _at(sides[1], _other(known, min(along + lengths[0] / count, lengths[0])))
            # Over a dart's mouth the paper lies open: there is nothing to compare until it is shut.
            if ahead[3] is edge and beside[3] is beside_edge:
                far = (-beside[1][0], beside[1][1]) if over else beside[1]
                laid = motion(far)
                gap = distance(ahead[1], (laid[0] + shifted[0], laid[1] + shifted[1]))
        steps.append(Step(along, other, piece.name, partner.name, spot, turned, shifted, over, gap))
    return Walk(seam.name, lengths, tuple(steps), (first, second))


def _pairs(first: Sequence[Met], second: Sequence[Met], lengths: tuple[float, float]) -> list[tuple[float, float]]:
    """Return the places of notches that are pairs; none where one side has more of them than the other."""
    if len(first) != len(second):
        return []
    inside = [
        (a.along, b.along)
        for a, b in zip(first, second, strict=True)
        if 0 < a.along < lengths[0] and 0 < b.along < lengths[1]
    ]
    return inside if all(a[0] < b[0] and a[1] < b[1] for a, b in pairwise(inside)) else []


def _other(known: Sequence[tuple[float, float]], along: float) -> float:
    """Return how far the second side is walked where the first is walked so far."""
    for (a, b), (c, d) in pairwise(known):
        if along <= c:
            return b + (d - b) * (along - a) / (c - a) if c > a else d
    return known[-1][1]


def _stretches(pattern: Readable, chain: Sequence[Span]) -> list[tuple[Piece, Stretch]]:
    found = []
    for span in chain:
        piece = holding(pattern, span.start)
        found += [(piece, stretch) for stretch in walk(piece, span)]
    return found


def _at(side: list[tuple[Piece, Stretch]], along: float) -> tuple[Piece, Point, Point, Stretch]:
    """Return piece, place, direction and edge at a distance along a side, on the paper as it lies."""
    for piece, stretch in side:
        length = stretch.edge.curve.length
        if along <= length + 1e-9 or (piece, stretch) is side[-1]:
            at = min(max(along, 0.0), length)
            spot, way = _spot(stretch, at)
            return piece, spot, way, stretch
        along -= length
    piece, stretch = side[-1]
    spot, way = _spot(stretch, stretch.edge.curve.length)
    return piece, spot, way, stretch


@lru_cache(maxsize=4096)
def _spot(stretch: Stretch, at: float) -> tuple[Point, Point]:
    curve = stretch.open_curve
    before, after = curve.split(at)
    if at <= 0:
        return curve.start, curve.start_direction
    if at >= curve.length:
        return curve.end, curve.end_direction
    return before.end, after.start_direction


def forget() -> None:
    """Forget every place on a seam."""
    _spot.cache_clear()
