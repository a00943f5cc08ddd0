"""The as-sewn reading of a ring: walking along a seam with the darts on the way shut."""

from dataclasses import dataclass

from izett.errors import ReferenceLost
from izett.geometry.curve import Curve
from izett.geometry.motion import STILL, Motion
from izett.pattern.document import Pattern, Seam
from izett.pattern.naming import readable
from izett.pattern.piece import Edge, Intake, Piece, Span, dart_angle
from izett.pattern.remembered import Remembered
from izett.pattern.working import Readable

#: A line that cuts parted is walked over so many parts at most.
MOST_PARTS = 64
#: What helps where a line is not what a step named any more.
CHANGED_BEFORE = "An earlier step changed it: choose the line again, or switch that step off."
#: How many walks are remembered: some hundreds a garment.
WALKS_REMEMBERED = 4096


@dataclass(frozen=True, slots=True)
class Stretch:
    """One edge met on a walk.

    Attributes:
        edge: the edge.
        forward: whether it is walked in ring order.
        closing: the rigid move that shuts the darts met before it.
    """

    edge: Edge
    forward: bool
    closing: Motion

    @property
    def open_curve(self) -> Curve:
        """The edge as it lies on the paper, in walking direction."""
        return self.edge.curve if self.forward else self.edge.curve.reversed()

    @property
    def curve(self) -> Curve:
        """The edge as sewn, in walking direction."""
        return self.open_curve.mapped(self.closing)


def walk(piece: Piece, span: Span) -> tuple[Stretch, ...]:
    """Return the edges along a span, in walking order, darts shut.

    Raises:
        ReferenceLost: the piece has no such run of edges.
    """
    start, end = (piece.aliases.get(name, name) for name in (span.start, span.end))
    for forward in (True, False):
        found = _run(piece, start, end, span.along, forward=forward)
        if found is not None:
            return found
    raise ReferenceLost(
        f"On {piece.title.lower()} the {readable(span.along)} line no longer runs from {readable(span.start)} "
        f"to {readable(span.end)}.",
        fix=CHANGED_BEFORE,
        where=(span.start, span.end),
    )


#: Checks and steps walk the same lines of the same pieces again and again.
_runs: Remembered[tuple[Stretch, ...] | None] = Remembered(WALKS_REMEMBERED)
_lengths: Remembered[float] = Remembered(WALKS_REMEMBERED)
_ends: Remembered[str | None] = Remembered(WALKS_REMEMBERED)


def _run(piece: Piece, start: str, end: str, along: str, *, forward: bool) -> tuple[Stretch, ...] | None:
    return _runs.of(piece, (start, end, along, forward), lambda: _run_walked(piece, start, end, along, forward=forward))


def _run_walked(piece: Piece, start: str, end: str, along: str, *, forward: bool) -> tuple[Stretch, ...] | None:
    edges = piece.edges if forward else piece.edges[::-1]
    leaving = [edge.start if forward else edge.end for edge in edges]
    if start not in leaving or start == end:
        return None
    first = leaving.index(start)
    closing = STILL
    found: list[Stretch] = []
    crossing: Intake | None = None
    for offset in range(len(edges)):
        edge = edges[(first + offset) % len(edges)]
        if edge.is_leg:
            dart = piece.dart(edge.lineage)
            if crossing is dart:
                closing = shutting(piece, dart, forward=forward).then(closing)
                crossing = None
            else:
                crossing = dart
            continue
        if edge.lineage != along:
            return None
        found.append(Stretch(edge, forward, closing))
        if (edge.end if forward else edge.start) == end:
            return tuple(found)
    return None


def resolved(pattern: Readable, span: Span) -> tuple[Span, ...]:
    """Return a span as a chain of spans that each lie on one piece: where a cut parted the paper it goes on behind it.

    Raises:
        ReferenceLost: the pattern has no such line.
    """
    piece = holding(pattern, span.start)
    for forward in (True, False):
        found: list[Span] = []
        on, at = piece, span.start
        for _ in range(MOST_PARTS):
            begin, end = (on.aliases.get(name, name) for name in (at, span.end))
            if on.holds(span.end) and _run(on, begin, end, span.along, forward=forward) is not None:
                return (*found, Span(at, span.end, span.along))
            far = _farthest(on, begin, span.along, forward=forward)
            onwards = pattern.link(far) if far is not None else None
            if far is None or onwards is None:
                break
            found.append(Span(at, far, span.along))
            at = onwards
            on = holding(pattern, at)
    raise ReferenceLost(
        f"The {readable(span.along)} line no longer runs from {readable(span.start)} to {readable(span.end)}.",
        fix=CHANGED_BEFORE,
        where=(span.start, span.end),
    )


def _farthest(piece: Piece, start: str, along: str, *, forward: bool) -> str | None:
    """Return the last vertex that is reached from `start` along one lineage, darts shut; None where it does not lie on it."""
    return _ends.of(piece, (start, along, forward), lambda: _end_walked(piece, start, along, forward=forward))


def _end_walked(piece: Piece, start: str, along: str, *, forward: bool) -> str | None:
    edges = piece.edges if forward else piece.edges[::-1]
    first = next((i for i, edge in enumerate(edges) if (edge.start if forward else edge.end) == start), None)
    if first is None:
        return None
    last = None
    for offset in range(len(edges)):
        edge = edges[(first + offset) % len(edges)]
        if edge.is_leg:
            continue
        if edge.lineage != along:
            break
        last = edge.end if forward else edge.start
    return last


def shutting(piece: Piece, dart: Intake, *, forward: bool) -> Motion:
    """Return the turn that brings a dart's far leg onto its near one, as met when walking that way."""
    angle = dart_angle(piece, dart)
    return Motion.turning(-angle if forward else angle, about=dart.pivot)


def span_length(piece: Piece, span: Span) -> float:
    """Return a span's length as sewn, in cm."""
    return _lengths.of(piece, span, lambda: sum(stretch.edge.curve.length for stretch in walk(piece, span)))


def seam_lengths(pattern: Readable, seam: Seam) -> tuple[float, float]:
    """Return the lengths of a seam's two sides as sewn, in cm.

    Raises:
        ReferenceLost: a side has lost one of its ends.
    """
    first, second = (_side_length(pattern, side) for side in seam.sides)
    return (first, second)


def _side_length(pattern: Readable, side: tuple[Span, ...]) -> float:
    if isinstance(pattern, Pattern) or pattern.touches(name for span in side for name in (span.start, span.end)):
        return _long(pattern, side)
    # Only how long it is counts for who reads it, not how it came to be so.
    found: float | ReferenceLost = pattern.read(_long_or_lost, side)
    if isinstance(found, ReferenceLost):
        raise found
    return found


def _long(pattern: Readable, side: tuple[Span, ...]) -> float:
    return sum(span_length(holding(pattern, span.start), span) for span in side)


def _long_or_lost(pattern: Pattern, side: tuple[Span, ...]) -> float | ReferenceLost:
    try:
        return _long(pattern, side)
    except ReferenceLost as lost:
        return lost


def holding(pattern: Readable, vertex: str) -> Piece:
    """Return the piece that holds a vertex.

    Raises:
        ReferenceLost: no piece does.
    """
    piece = pattern.find(vertex)
    if piece is None:
        raise ReferenceLost(
            f"The point {readable(vertex)} is gone.",
            fix="An earlier step removed it: choose another point, or switch that step off.",
            where=(vertex,),
        )
    return piece


def beginning(pattern: Readable, line: Span) -> tuple[str, str]:
    """Return where a line begins, by names that both lines of a seam have alike."""
    for seam in pattern.seams_along(line.along):
        for side in seam.sides:
            ends = {side[0].start: "start", side[-1].end: "end"}
            if line.start in ends and any(span.along == line.along for span in side):
                return seam.name, ends[line.start]
    return line.along, line.start


def place_on(piece: Piece, span: Span, along: float) -> tuple[Stretch, float]:
    """Return the edge, and the distance along it in walking direction, that lies `along` cm as sewn from the start."""
    stretches = walk(piece, span)
    gone = 0.0
    for stretch in stretches:
        length = stretch.edge.curve.length
        if along <= gone + length or stretch is stretches[-1]:
            return stretch, min(max(along - gone, 0.0), length)
        gone += length
    raise AssertionError("a walk has at least one edge")
