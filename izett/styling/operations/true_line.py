"""True a line: smooth it, straighten it, make it square at the centre, or let it run on across a seam.

What a check finds of a line is fixed here: only directions at the ends and the run between change, the corners stay.
Common practice, no single source.
"""

from collections.abc import Callable, Iterator
from dataclasses import replace
from enum import StrEnum
from math import asin, degrees, pi

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.blend import refitted
from izett.geometry.curve import Curve, joined, straight
from izett.geometry.fit import displaced
from izett.geometry.motion import Motion
from izett.geometry.outline import gap
from izett.geometry.point import Vector, between, dot, turn
from izett.pattern.document import Seam
from izett.pattern.facts import Role, SeamKind
from izett.pattern.naming import readable
from izett.pattern.piece import Edge, Piece, in_ring_order
from izett.pattern.sewn import holding, seam_lengths, walk
from izett.pattern.working import Readable, Working
from izett.styling.operation import SHAPES, Context, Group, Keeps, Offer, Operation, Outcome, Sum, Width
from izett.styling.parting import seam_named
from izett.styling.references import AnyRef, Params
from izett.styling.subject import Kind, Subject, seam_at
from izett.styling.words import line_words

CENTRES = (Role.CENTRE_FRONT, Role.CENTRE_BACK)
#: rad. A corner larger than this is a shape that was meant, not a slip of the pencil.
MOST_TURNED = 0.7

#: Lines that are round: straightened they are no such line any more.
ROUND = (Role.NECK, Role.ARMHOLE, Role.CAP, Role.CROTCH)

#: cm. Two sides of a seam that differ by no more are equally long.
SAME_LENGTH = 0.01


class How(StrEnum):
    """What is done with the line."""

    SMOOTH = "smooth"
    STRAIGHT = "straight"
    SQUARE = "square"
    ACROSS = "across"


class TrueLine(Params):
    """Which line, or which seam's end, and what is done."""

    how: How = Field(How.SMOOTH, description="smooth, straight, square at the centre, or across a seam")
    line: AnyRef = Field(description="the line; for across, the seam")
    at_start: bool = Field(True, description="across a seam: at its start")
    whole: bool = Field(True, description="straight: from end to end, and what is sewn to it as well")


def apply(params: TrueLine, context: Context) -> Outcome:
    """Draw the line anew between its corners."""
    if params.how is How.ACROSS:
        return _across(params, context)
    if params.how is How.STRAIGHT and params.whole:
        return _straightened(params, context)
    pattern = context.garment
    off = 0.0
    met = False
    for piece in context.garment.with_lineage(params.line):
        edges = [edge for edge in piece.edges if edge.lineage == params.line]
        if not edges:
            continue
        met = True
        new = piece
        for edge in edges:
            curve, change = _redrawn(piece, edge, params.how)
            off = max(off, change)
            new = replace(new, edges=tuple(replace(e, curve=curve) if e == edge else e for e in new.edges))
        pattern = pattern.with_pieces(new)
    if not met:
        raise StepRefused(
            f"The {readable(params.line)} line is gone.", fix="Point at the line again.", where=(params.line,)
        )
    return Outcome(pattern, (Sum("turned at most", off, "°"),))


def _straightened(params: TrueLine, context: Context) -> Outcome:
    """Draw a line straight from end to end, and what is sewn to it as well; the lines across its ends run on again."""
    pattern = context.garment
    pieces = pattern.with_lineage(params.line)
    if not pieces:
        raise StepRefused(
            f"The {readable(params.line)} line is gone.", fix="Point at the line again.", where=(params.line,)
        )
    seam = seam_at(pattern, pieces[0], params.line)
    upright = seam is not None and seam.kind in (SeamKind.SIDE, SeamKind.UNDERARM, SeamKind.INSEAM)
    partners = [span.along for side in seam.sides for span in side] if upright and seam is not None else []
    off = 0.0
    for line in dict.fromkeys((params.line, *partners)):
        for piece in pattern.with_lineage(line):
            drawn, moved = _straight_on(piece, line)
            off = max(off, moved)
            pattern = pattern.with_pieces(drawn)
    if upright and seam is not None:
        pattern = _as_long(context.on(pattern), seam)
        for at_start in (True, False):
            across = TrueLine(how=How.ACROSS, line=AnyRef(seam.name), at_start=at_start)
            pattern = _across(across, context.on(pattern)).garment
    return Outcome(pattern, (Sum("moved at most", off),))


def _as_long(context: Context, seam: Seam) -> Working:
    """Return the garment with the second side of a straightened seam cut off or run on at its lower end to the first's length."""
    first, second = seam_lengths(context.garment, seam)
    if abs(second - first) <= SAME_LENGTH:
        return context.garment
    span = seam.sides[1][0]
    piece = holding(context.garment, span.start)
    at = piece.aliases.get(span.start, span.start)
    low = any(e.role in (Role.HEM, Role.WAIST) and at in (e.start, e.end) for e in piece.edges)
    trued = {"seam": seam.name, "takes": "second", "at_start": low}
    return context.work("true_seam", trued, on=context.garment, label="length").garment


def _meant(params: TrueLine, _level: str) -> Width:
    """Mean what a straightened side gives or takes."""
    return Width.EASE if params.how is How.STRAIGHT and params.whole else Width.NOTHING


def _straight_on(piece: Piece, line: str) -> tuple[Piece, float]:
    """Return a piece with a line straight from end to end, darts in it left where they are; and how far it moved, cm."""
    drawn: dict[str, Curve] = {}
    off = 0.0
    for run in _runs(piece, line):
        start, end = run[0].curve.start, run[-1].curve.end
        whole, gone = sum(edge.curve.length for edge in run), 0.0
        for edge in run:
            first, gone = gone / whole, gone + edge.curve.length
            drawn[edge.start] = straight(between(start, end, first), between(start, end, gone / whole))
            off = max(off, *(gap((start, end), spot) for spot in edge.curve.flattened()))
    ring = tuple(replace(e, curve=drawn[e.start]) if e.start in drawn else e for e in piece.edges)
    return replace(piece, edges=ring), off


def _runs(piece: Piece, line: str) -> list[list[Edge]]:
    """Return the edges of a line in runs that follow on each other: a dart parts them."""
    runs: list[list[Edge]] = []
    for edge in in_ring_order(e for e in piece.edges if e.lineage == line):
        if runs and runs[-1][-1].end == edge.start:
            runs[-1].append(edge)
        else:
            runs.append([edge])
    return runs


def _redrawn(piece: Piece, edge: Edge, how: How) -> tuple[Curve, float]:
    if how is How.STRAIGHT:
        return straight(edge.curve.start, edge.curve.end), 0.0
    if how is How.SMOOTH:
        return (edge.curve if edge.curve.is_straight else displaced(edge.curve, lambda _: (0.0, 0.0))), 0.0
    index = piece.edges.index(edge)
    before, after = piece.edges[index - 1], piece.edges[(index + 1) % len(piece.edges)]
    curve, most = edge.curve, 0.0
    if before.role in CENTRES:
        angle = _off_square(before.curve.end_direction, curve.start_direction)
        curve, most = _turned(curve, angle, at_start=True), max(most, abs(degrees(angle)))
    if after.role in CENTRES:
        angle = _off_square(curve.end_direction, after.curve.start_direction)
        curve, most = _turned(curve, -angle, at_start=False), max(most, abs(degrees(angle)))
    return curve, most


def _off_square(arriving: Vector, leaving: Vector) -> float:
    """Return the turn (rad) that makes `leaving` square to `arriving`, on the side on which it leaves already."""
    off = asin(max(-1.0, min(1.0, dot(arriving, leaving))))
    return off if turn(arriving, leaving) > 0 else -off


def _turned(curve: Curve, angle: float, *, at_start: bool) -> Curve:
    if abs(angle) > MOST_TURNED:
        raise StepRefused(
            f"The line is {abs(degrees(angle)):.0f}° off: that is a shape, not a slip.",
            fix="Accept it with a reason, or draw the line anew.",
        )
    if curve.is_straight:
        curve = joined(list(curve.cubics()))
    way: Callable[[Vector], Vector] = Motion.turning(angle, about=(0.0, 0.0)).direction
    return refitted(curve, turn_start=way) if at_start else refitted(curve, turn_end=way)


def _across(params: TrueLine, context: Context) -> Outcome:
    """Turn both lines that meet a seam's end by half of their corner each."""
    seam = seam_named(context, params.line)
    corners = []
    for side in seam.sides:
        span = side[0 if params.at_start else -1]
        piece = holding(context.garment, span.start)
        stretch = walk(piece, span)[0 if params.at_start else -1]
        vertex = span.start if params.at_start else span.end
        vertex = piece.aliases.get(vertex, vertex)
        i = piece.edges.index(stretch.edge)
        starts = stretch.edge.start == vertex
        other = piece.edges[i - 1] if starts else piece.edges[(i + 1) % len(piece.edges)]
        inner = (
            pi - turn(other.curve.end_direction, stretch.edge.curve.start_direction)
            if starts
            else pi - turn(stretch.edge.curve.end_direction, other.curve.start_direction)
        )
        corners.append((piece, other, starts, inner))
    off = sum(inner for *_, inner in corners) - pi
    pattern = context.garment
    for piece, other, ends_here, _ in corners:
        # The line that arrives at the corner turns one way to widen it, the one that leaves it the other.
        curve = _turned(other.curve, -off / 2 if ends_here else off / 2, at_start=not ends_here)
        current = pattern.piece(piece.name)
        ring = tuple(replace(e, curve=curve) if e == other else e for e in current.edges)
        pattern = pattern.with_pieces(replace(current, edges=ring))
    return Outcome(pattern, (Sum("corner before", degrees(off), "°"),))


def describe(params: TrueLine) -> str:
    """Return the step in the maker's words."""
    if params.how is How.ACROSS:
        where = "start" if params.at_start else "end"
        return f"Let the lines run on across the {readable(params.line)} seam at its {where}"
    how = {How.SMOOTH: "Smooth", How.STRAIGHT: "Straighten", How.SQUARE: "Square at the centre:"}[params.how]
    return f"{how} {line_words(params.line)}"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer to smooth, straighten or square the line pointed at."""
    piece = subject.piece
    if subject.kind is not Kind.LINE or piece is None or subject.role in (*CENTRES, Role.CUT_EDGE) or not piece.region:
        return
    own = [edge for edge in piece.edges if edge.lineage == subject.name]
    if not all(edge.curve.is_straight for edge in own):
        yield Offer("Smooth this line", {"how": "smooth", "line": subject.name})
        if subject.role not in ROUND:
            yield Offer("Straighten this line", {"how": "straight", "line": subject.name})
    middle = {name for e in piece.edges if e.role in CENTRES for name in (e.start, e.end)}
    if any(edge.start in middle or edge.end in middle for edge in own):
        yield Offer("Square it at the centre", {"how": "square", "line": subject.name})


OPERATION = Operation(
    key="true_line",
    version=2,
    # Before, a line was straightened from corner to corner, and what is sewn to it was left.
    upgrades={1: lambda params: {**params, "whole": False}},
    title="True a line",
    params=TrueLine,
    apply=apply,
    describe=describe,
    sections=SHAPES,
    moves=(
        SeamKind.CAP,
        SeamKind.WAIST,
    ),
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.AGREE,
    width=_meant,
    offers=offers,
    examples=(
        {"how": "smooth", "line": "front.armhole"},
        {"how": "square", "line": "back.waist"},
        {"how": "across", "line": "shoulder", "at_start": True},
    ),
)
