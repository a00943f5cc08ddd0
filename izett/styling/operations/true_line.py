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
from izett.geometry.point import Vector, dot, turn
from izett.pattern.facts import Role, SeamKind
from izett.pattern.naming import readable
from izett.pattern.piece import Edge, Piece
from izett.pattern.sewn import holding, walk
from izett.pattern.working import Readable
from izett.styling.operation import SHAPES, Context, Group, Keeps, Offer, Operation, Outcome, Sum
from izett.styling.parting import seam_named
from izett.styling.references import AnyRef, Params
from izett.styling.subject import Kind, Subject
from izett.styling.words import line_words

CENTRES = (Role.CENTRE_FRONT, Role.CENTRE_BACK)
#: rad. A corner larger than this is a shape that was meant, not a slip of the pencil.
MOST_TURNED = 0.7


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


def apply(params: TrueLine, context: Context) -> Outcome:
    """Draw the line anew between its corners."""
    if params.how is How.ACROSS:
        return _across(params, context)
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
    if subject.kind is Kind.LINE and subject.role not in CENTRES:
        yield Offer("Smooth this line", {"how": "smooth", "line": subject.name})
        yield Offer("Straighten this line", {"how": "straight", "line": subject.name})
        yield Offer("Square it at the centre", {"how": "square", "line": subject.name})


OPERATION = Operation(
    key="true_line",
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
    offers=offers,
    examples=(
        {"how": "smooth", "line": "front.armhole"},
        {"how": "square", "line": "back.waist"},
        {"how": "across", "line": "shoulder", "at_start": True},
    ),
)
