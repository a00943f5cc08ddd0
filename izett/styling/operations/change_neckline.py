"""Draw the neckline: wider, deeper, in another shape.

The neck point slides along the shoulder on both pieces, so the shoulder seam stays equal; the centre slides down the
centre line. A round, scoop, boat or low neckline stays square at the centre; a V and a sweetheart point down there, which
is meant. A wider or lower neckline loses its hold on the body: take the gap out afterwards. Common practice, no single
source.
"""

from collections.abc import Iterator
from dataclasses import replace
from enum import StrEnum
from math import pi

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.curve import Curve, straight
from izett.geometry.motion import Motion
from izett.geometry.point import Point, Vector, add, between, distance, left_of, right_of, scale, turn, unit
from izett.pattern.document import Accepted
from izett.pattern.facts import CENTRE_LINES, Role, Zone
from izett.pattern.naming import readable
from izett.pattern.paper import shortened
from izett.pattern.piece import Edge, Piece
from izett.pattern.sewn import span_length
from izett.pattern.working import Readable
from izett.pattern.worn import on_body
from izett.styling.operation import SHAPES, Context, Group, Keeps, Offer, Operation, Outcome, Sum, as_ease, length
from izett.styling.references import Params
from izett.styling.subject import Kind, Subject, run_of
from izett.styling.words import signed
from izett.wording import cm

#: cm. A narrower shoulder carries nothing.
LEAST_SHOULDER = 2.0
#: The angle that a meant point at the centre may have, in degrees.
ANY_POINT = 90.0


class Shape(StrEnum):
    """How a neckline runs from the shoulder to the centre."""

    ROUND = "round"
    SCOOP = "scoop"
    V = "v"
    SQUARE = "square"
    BOAT = "boat"
    SWEETHEART = "sweetheart"


#: Handles as shares: along the shoulder's square from the neck point, and along the centre's square, of the box between.
HANDLES = {Shape.ROUND: (0.55, 0.6), Shape.SCOOP: (0.85, 0.75), Shape.BOAT: (0.2, 0.75)}


class ChangeNeckline(Params):
    """How the neckline changes."""

    wider: float = length(0.0, low=-2, high=12, meaning="wider at each shoulder, front and back (−: narrower)")
    front: float = length(0.0, low=-3, high=30, meaning="deeper at the centre front (−: higher)")
    back: float = length(0.0, low=-2, high=40, meaning="deeper at the centre back (−: higher)")
    shape: Shape = Field(Shape.ROUND, description="how the front runs to the centre")
    back_shape: Shape = Field(Shape.ROUND, description="how the back runs to the centre")


def apply(params: ChangeNeckline, context: Context) -> Outcome:
    """Slide the ends of the neckline and draw it."""
    pattern = context.garment
    sums: list[Sum] = []
    accepted = list(pattern.accepted)
    leans: list[float] = []
    for piece in context.garment.with_role(Role.NECK):
        if not on_body(piece):
            continue
        necks = [edge for edge in piece.edges if edge.role is Role.NECK]
        front = piece.zone is Zone.FRONT
        shape = params.shape if front else params.back_shape
        lineage = necks[0].lineage
        span = run_of(pattern, piece, lineage)
        if span is None or len(necks) != 1:
            raise StepRefused(
                f"The neckline of {piece.title.lower()} is parted by a dart or a style line.",
                fix="Draw the neckline before that step.",
                where=(lineage,),
            )
        at_back = not front and bool(leans)
        before = span_length(piece, span)
        deeper = params.front if front else params.back
        new, centre, lean = _drawn(piece, necks[0], params.wider, deeper, shape, context, leans[0] if at_back else None)
        leans.append(lean)
        pattern = pattern.with_pieces(new)
        after = sum(edge.curve.length for edge in new.edges if edge.role is Role.NECK)
        sums += [Sum(f"neckline of the {piece.title.lower()} before", before), Sum("now", after)]
        if shape in (Shape.V, Shape.SWEETHEART):
            accepted.append(
                Accepted("square_at_centre", (lineage, centre), ANY_POINT, f"the {shape.value} points down")
            )
    if not sums:
        raise StepRefused("The pattern has no neckline.", fix="Add a bodice or a top.", where=("neck",))
    return Outcome(pattern.with_accepted(tuple(accepted)), tuple(sums))


def _drawn(
    piece: Piece, neck: Edge, wider: float, deeper: float, shape: Shape, context: Context, other: float | None
) -> tuple[Piece, str, float]:
    """Return the piece with its neckline drawn, the lineage of its centre, and the angle at the neck point.

    `other` is that angle on the piece drawn before: with it the two add to half a turn, so that the line runs on.
    """
    index = piece.edges.index(neck)
    before, after = piece.edges[index - 1], piece.edges[(index + 1) % len(piece.edges)]
    at_start = before.role not in CENTRE_LINES
    shoulder, centre = (before, after) if at_start else (after, before)
    neck_point, middle = (neck.start, neck.end) if at_start else (neck.end, neck.start)
    down_centre = sum(e.curve.length for e in piece.edges if e.lineage == centre.lineage)
    for edge, long, amount in ((shoulder, shoulder.curve.length, wider), (centre, down_centre, deeper)):
        if edge.is_leg or long - amount < LEAST_SHOULDER:
            raise StepRefused(
                f"{piece.title}: that leaves less than {cm(LEAST_SHOULDER, 2)} of {readable(edge.lineage)}.",
                fix="Widen or deepen the neckline less.",
                where=(edge.lineage,),
            )
    moved = shortened(shortened(piece, neck_point, shoulder.lineage, wider), middle, centre.lineage, deeper)
    spots = {e.start: e.curve.start for e in moved.edges if e.start != neck.start}
    spots |= {e.end: e.curve.end for e in moved.edges if e.start != neck.start}
    point, foot = spots[neck_point], spots[middle]
    out = _leaving(moved, neck_point, shoulder.lineage)
    down = _leaving(moved, middle, centre.lineage)
    square = right_of(out) if right_of(out)[1] < 0 else left_of(out)
    if other is not None:
        square = min(
            (Motion.turning(sign * (pi / 2 - other), about=(0.0, 0.0)).direction(square) for sign in (1, -1)),
            key=lambda way: abs(abs(turn(out, way)) - (pi - other)),
        )
    aside = left_of(down) if left_of(down)[0] * (point[0] - foot[0]) > 0 else right_of(down)
    curves = _curves(point, square, foot, aside, shape)
    lean = abs(turn(out, curves[0].start_direction))
    if not at_start:
        curves = [curve.reversed() for curve in reversed(curves)]
    names = [neck.start, *(context.named(f"{piece.zone}_corner{i}") for i in range(len(curves) - 1)), neck.end]
    edges = [replace(neck, start=names[i], end=names[i + 1], curve=curve) for i, curve in enumerate(curves)]
    ring = [e for old in moved.edges for e in (edges if old.start == neck.start else [old])]
    return replace(moved, edges=tuple(ring)), centre.lineage, lean


def _leaving(piece: Piece, corner: str, lineage: str) -> Vector:
    """Return the direction in which a line leaves a corner."""
    for edge in piece.edges:
        if edge.lineage == lineage and edge.start == corner:
            return edge.curve.start_direction
        if edge.lineage == lineage and edge.end == corner:
            return scale(edge.curve.end_direction, -1.0)
    raise AssertionError("the corner lies on the line")


def _curves(point: Point, square: Vector, middle: Point, aside: Vector, shape: Shape) -> list[Curve]:
    """Return the neckline from the neck point to the centre: one curve, or two where it has a corner."""
    wide, deep = abs(point[0] - middle[0]), abs(point[1] - middle[1])
    if shape is Shape.V:
        # Bulging out by a little it lies straight on a curved neck.
        bulge = scale(unit(square), 0.02 * distance(point, middle))
        return [
            Curve((point, add(between(point, middle, 1 / 3), bulge), add(between(point, middle, 2 / 3), bulge), middle))
        ]
    if shape is Shape.SQUARE:
        corner = add(middle, scale(aside, wide * 0.92))
        return [straight(point, corner), straight(corner, middle)]
    if shape is Shape.SWEETHEART:
        crest = add(middle, add(scale(aside, wide * 0.55), (0.0, deep * 0.28)))
        over = unit((crest[0] - middle[0], 0.0))
        return [
            Curve(
                (
                    point,
                    add(point, scale(square, distance(point, crest) * 0.4)),
                    add(crest, scale(over, wide * 0.22)),
                    crest,
                    add(crest, scale(over, -wide * 0.25)),
                    add(middle, (wide * 0.12 * (1 if over[0] > 0 else -1), deep * 0.16)),
                    middle,
                )
            )
        ]
    first, second = HANDLES[shape]
    if shape is Shape.BOAT:
        leave = unit(between(square, (middle[0] - point[0], middle[1] - point[1]), 0.12))
        return [
            Curve((point, add(point, scale(leave, deep * first)), add(middle, scale(aside, wide * second)), middle))
        ]
    return [Curve((point, add(point, scale(square, deep * first)), add(middle, scale(aside, wide * second)), middle))]


def describe(params: ChangeNeckline) -> str:
    """Return the step in the maker's words."""
    parts = []
    if params.wider:
        parts.append(f"{signed(params.wider, 'wider by', 'narrower by')} at each shoulder")
    for where, by in (("front", params.front), ("back", params.back)):
        if by:
            parts.append(f"{signed(by, 'deeper by', 'higher by')} at the centre {where}")
    shape = {Shape.V: "V", Shape.ROUND: "Round"}.get(params.shape, params.shape.value.capitalize())
    return f"{shape} neckline{': ' if parts else ''}{', '.join(parts)}"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer every shape where a neckline is pointed at."""
    if subject.kind is Kind.LINE and subject.role is Role.NECK:
        for shape, words in (
            (Shape.ROUND, "Wider or deeper, round"),
            (Shape.SCOOP, "Scoop neckline"),
            (Shape.V, "V neckline"),
            (Shape.SQUARE, "Square neckline"),
            (Shape.BOAT, "Boat neckline"),
            (Shape.SWEETHEART, "Sweetheart neckline"),
        ):
            wider, front = (5.0, -1.0) if shape is Shape.BOAT else (2.0, 6.0)
            yield Offer(words, {"wider": wider, "front": front, "back": 0.0, "shape": shape.value})
        yield Offer("Low back", {"wider": 2.0, "back": 16.0, "back_shape": "scoop"})


OPERATION = Operation(
    key="change_neckline",
    title="Draw the neckline",
    params=ChangeNeckline,
    apply=apply,
    describe=describe,
    width=as_ease,
    sections=SHAPES,
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.NECK,
    offers=offers,
    examples=(
        {"wider": 2.0, "front": 4.0, "back": 1.0, "shape": "round"},
        {"wider": 1.0, "front": 10.0, "shape": "v"},
        {"wider": 3.0, "front": 7.0, "shape": "square"},
        {"wider": 5.0, "front": -1.0, "shape": "boat"},
        {"wider": 3.0, "front": 9.0, "shape": "sweetheart"},
        {"wider": 2.0, "front": 6.0, "shape": "scoop", "back": 16.0, "back_shape": "scoop"},
    ),
)
