"""A front band: around the neck and down both fronts, which are cut back by half of it so that it laps over the centre.

The centre stays marked beyond the edge, and levels reach it: what is read around is the closed garment. Common practice,
no single source.
"""

from collections.abc import Iterator, Sequence
from dataclasses import replace
from itertools import pairwise

from izett.errors import StepRefused
from izett.geometry.curve import Curve, straight
from izett.geometry.outline import gap
from izett.geometry.point import Point, add, cross, distance, left_of, scale, subtract, unit
from izett.geometry.tolerance import FLATNESS
from izett.pattern.document import Closure, Opening
from izett.pattern.facts import CENTRE_CORNERS, Role
from izett.pattern.levels import CENTRE
from izett.pattern.paper import shortened
from izett.pattern.piece import Edge, LevelLine, Piece, Span, in_ring_order
from izett.pattern.working import Readable, Working
from izett.pattern.worn import on_body
from izett.styling.operation import Context
from izett.styling.references import SpanRef
from izett.styling.subject import Subject, run_of
from izett.styling.words import line_words
from izett.wording import cm

#: cm. Of a line that a front band is cut back along so much must be left.
LEAST_LEFT = 2.0


def cut_back(context: Context, edges: Sequence[SpanRef], height: float) -> Working:
    """Return the garment with its fronts opened and cut back by half the band, their centre marked where it laps."""
    pattern = context.garment
    half = height / 2
    opened = 0
    for line in edges:
        for span in context.on(pattern).chain(line.span):
            piece = pattern.holding(span.start)
            run = [e for e in piece.edges if e.lineage == span.along]
            if not run or run[0].role is not Role.CENTRE_FRONT:
                continue
            if not _one_line(run):
                raise StepRefused(
                    f"{line_words(span.along, begins=True)} is not one straight line.",
                    fix="Add the front band before that line is changed.",
                    where=(span.along,),
                )
            pattern = pattern.with_pieces(_centre_cut_back(piece, in_ring_order(run), half))
            opening = Opening(context.named("front"), Closure.BUTTONS, span, sum(e.curve.length for e in run))
            pattern = pattern.adding(openings=(opening,))
            opened += 1
    if not opened:
        raise StepRefused(
            "A front band runs down the centre front, and none of these lines does.",
            fix="Begin with the centre front line.",
            where=tuple(line.along for line in edges),
        )
    return pattern


def _one_line(run: Sequence[Edge]) -> bool:
    """Return whether edges lie in one straight line."""
    ordered = in_ring_order(run)
    start, end = ordered[0].curve.start, ordered[-1].curve.end
    return all(e.curve.is_straight and gap((start, end), e.curve.end) <= FLATNESS for e in ordered)


def _centre_cut_back(piece: Piece, run: Sequence[Edge], by: float) -> Piece:
    """Return a front whose centre edge lies `by` cm further in; the centre itself stays marked, levels reach it."""
    first, last = run[0], run[-1]
    before = piece.edges[piece.edges.index(first) - 1]
    after = piece.edges[(piece.edges.index(last) + 1) % len(piece.edges)]
    for edge in (before, after):
        if edge.curve.length < by + LEAST_LEFT:
            raise StepRefused(
                f"{piece.title}: {line_words(edge.lineage)} is too short for half a band of {cm(by)}.",
                fix="Make the band narrower.",
                where=(edge.lineage,),
            )
    centre = (first.curve.start, last.curve.end)
    cut = shortened(piece, first.start, before.lineage, _until(before.curve.reversed(), centre, by))
    cut = shortened(cut, last.end, after.lineage, _until(after.curve, centre, by))
    inwards = scale(left_of(unit(subtract(last.curve.end, first.curve.start))), by)
    spots = {edge.end: add(edge.curve.end, inwards) for edge in run}
    spots[first.start] = next(e.curve.end for e in cut.edges if e.end == first.start)
    spots[last.end] = next(e.curve.start for e in cut.edges if e.start == last.end)
    ring = tuple(
        replace(e, curve=straight(spots[e.start], spots[e.end])) if any(e.start == own.start for own in run) else e
        for e in cut.edges
    )
    return replace(
        cut,
        edges=ring,
        on_fold=None,
        cut=2 if piece.on_fold else piece.cut,
        lines=(*cut.lines, LevelLine(CENTRE, centre)),
    )


def _until(line: Curve, centre: tuple[Point, Point], by: float) -> float:
    """Return how far along a line from the centre it comes to lie `by` cm off it."""
    along = unit(subtract(centre[1], centre[0]))
    gone = 0.0
    for a, b in pairwise(line.flattened()):
        near, far = (abs(cross(along, subtract(spot, centre[0]))) for spot in (a, b))
        if far >= by:
            return gone + distance(a, b) * (by - near) / (far - near)
        gone += distance(a, b)
    return by


def down_the_front(pattern: Readable, subject: Subject) -> Iterator[dict[str, str]]:
    """Yield the lines of a front band from the centre back: around the neck, and down the front that is pointed at."""
    assert subject.span is not None and subject.piece is not None
    top = subject.span.start if _is_higher(subject.piece, subject.span) else subject.span.end
    bottom = subject.span.end if top == subject.span.start else subject.span.start
    necks = [span for piece in pattern.with_role(Role.NECK) if on_body(piece) for span in _necks(pattern, piece)]
    if not any(top in (span.start, span.end) for span in necks):
        return
    # From the back's centre to the front's: each line runs on where the one before it ended.
    for span in sorted(necks, key=lambda span: top in (span.start, span.end)):
        front = top in (span.start, span.end)
        end = top if front else next((n for n in (span.start, span.end) if not _at_centre(pattern, n)), span.end)
        start = span.start if end == span.end else span.end
        yield {"start": start, "end": end, "along": span.along}
    yield {"start": top, "end": bottom, "along": subject.span.along}


def _necks(pattern: Readable, piece: Piece) -> Iterator[Span]:
    for lineage in dict.fromkeys(e.lineage for e in piece.edges if e.role is Role.NECK):
        span = run_of(pattern, piece, lineage)
        if span is not None:
            yield span


def _is_higher(piece: Piece, span: Span) -> bool:
    return piece.holds(span.start) and piece.holds(span.end) and piece.vertex(span.start)[1] > piece.vertex(span.end)[1]


def _at_centre(pattern: Readable, vertex: str) -> bool:
    piece = pattern.find(vertex)
    return piece is not None and piece.corner_at(vertex) in CENTRE_CORNERS
