"""Draw the neckline: wider, deeper, in another shape.

The neck point slides along the shoulder on both pieces, so the shoulder seam stays equal; the centre slides down the
centre line. A round, scoop, boat or low neckline stays square at the centre; a V and a sweetheart point down there, which
is meant. A wider or lower neckline loses its hold on the body: take the gap out afterwards. Common practice, no single
source.
"""

from collections.abc import Iterator
from dataclasses import dataclass, replace
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
from izett.pattern.working import Readable, Working
from izett.pattern.worn import on_body
from izett.styling.laid import Laid, laid_together, run_in_zone, turned_round
from izett.styling.operation import SHAPES, Context, Group, Keeps, Offer, Operation, Outcome, Sum, as_ease, length
from izett.styling.references import Params
from izett.styling.rims import RimPart
from izett.styling.subject import Kind, Subject
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
    drawn: set[str] = set()
    for piece in context.garment.with_role(Role.NECK):
        if not on_body(piece) or piece.name in drawn:
            continue
        front = piece.zone is Zone.FRONT
        shape = params.shape if front else params.back_shape
        neck = _Neck.of(context.garment, piece)
        at_back = not front and bool(leans)
        deeper = params.front if front else params.back
        pieces, lean = neck.drawn(params.wider, deeper, shape, context, leans[0] if at_back else None)
        leans.append(lean)
        pattern = pattern.with_pieces(*pieces)
        drawn |= {each.name for each in pieces}
        whose = piece.title.lower() if len(pieces) == 1 else piece.zone.value
        after = sum(edge.curve.length for each in pieces for edge in each.edges if edge.role is Role.NECK)
        sums += [Sum(f"neckline of the {whose} before", neck.laid.line.length), Sum("now", after)]
        if shape in (Shape.V, Shape.SWEETHEART):
            lines = (neck.at_centre.edges[0].lineage, neck.centre)
            accepted.append(Accepted("square_at_centre", lines, ANY_POINT, f"the {shape.value} points down"))
    if not sums:
        raise StepRefused("The pattern has no neckline.", fix="Add a bodice or a top.", where=("neck",))
    return Outcome(pattern.with_accepted(tuple(accepted)), tuple(sums))


@dataclass(frozen=True)
class _Neck:
    """The neckline of a front or a back over all its panels, walked from the neck point to the centre."""

    laid: Laid
    shoulder: str
    centre: str

    @classmethod
    def of(cls, pattern: Working, piece: Piece) -> "_Neck":
        run = run_in_zone(pattern, piece, Role.NECK)
        if _beside(pattern, run[0], run[0].start).role in CENTRE_LINES:
            run = turned_round(run)
        laid = laid_together(pattern, run, still=len(run) - 1)
        ends = ((run[0], run[0].start), (run[-1], run[-1].end))
        shoulder, centre = (_beside(pattern, part, corner).lineage for part, corner in ends)
        return cls(laid, shoulder, centre)

    @property
    def at_centre(self) -> RimPart:
        """What the panel at the centre has of it."""
        return self.laid.parts[-1]

    def drawn(
        self, wider: float, deeper: float, shape: Shape, context: Context, other: float | None
    ) -> tuple[tuple[Piece, ...], float]:
        """Return the panels with the neckline drawn, and the angle at the neck point.

        `other` is that angle on the half drawn before: with it the two add to half a turn, so that the line runs on.
        """
        laid = self._slid(wider, deeper)
        first, last = laid.parts[0], laid.parts[-1]
        point, out = _end(laid.pieces[0], first.start, self.shoulder, laid.motions[0])
        foot, down = _end(laid.pieces[-1], last.end, self.centre, laid.motions[-1])
        square = right_of(out) if right_of(out)[1] < 0 else left_of(out)
        if other is not None:
            square = min(
                (Motion.turning(sign * (pi / 2 - other), about=(0.0, 0.0)).direction(square) for sign in (1, -1)),
                key=lambda way: abs(abs(turn(out, way)) - (pi - other)),
            )
        aside = left_of(down) if left_of(down)[0] * (point[0] - foot[0]) > 0 else right_of(down)
        curves = _curves(point, square, foot, aside, shape)
        lean = abs(turn(out, curves[0].start_direction))
        if len(laid.parts) == 1:
            return (_in_parts(laid.pieces[0], first, curves, context),), lean
        if len(curves) > 1:
            raise StepRefused(
                f"A {shape.value} neckline has a corner, and panels part this one.",
                fix="Draw it before that step, or choose another shape.",
                where=(first.edges[0].lineage,),
            )
        return laid.drawn(curves[0]), lean

    def _slid(self, wider: float, deeper: float) -> Laid:
        """Return the panels with the neck point and the centre slid along their lines."""
        laid = self.laid
        for number, corner, lineage, amount in (
            (0, laid.parts[0].start, self.shoulder, wider),
            (len(laid.parts) - 1, laid.parts[-1].end, self.centre, deeper),
        ):
            piece = laid.pieces[number]
            run = [edge for edge in piece.edges if edge.lineage == lineage]
            # A shoulder can be cut as far as to its dart, a centre over its corners.
            near = next(edge for edge in run if corner in (edge.start, edge.end))
            long = near.curve.length if lineage == self.shoulder else sum(edge.curve.length for edge in run)
            if near.is_leg or long - amount < LEAST_SHOULDER:
                raise StepRefused(
                    f"{piece.title}: that leaves less than {cm(LEAST_SHOULDER, 2)} of {readable(lineage)}.",
                    fix="Widen or deepen the neckline less.",
                    where=(lineage,),
                )
            laid = laid.with_piece(number, shortened(piece, corner, lineage, amount))
        return laid


def _beside(pattern: Working, part: RimPart, corner: str) -> Edge:
    """Return the line that the neckline meets at one of its ends."""
    lines = {edge.lineage for edge in part.edges}
    piece = pattern.piece(part.piece)
    return next(e for e in piece.edges if corner in (e.start, e.end) and e.lineage not in lines)


def _end(piece: Piece, corner: str, lineage: str, motion: Motion) -> tuple[Point, Vector]:
    """Return where a corner lies on the line that the neckline meets there, and how that line leaves it, as laid."""
    for edge in piece.edges:
        if edge.lineage == lineage and corner in (edge.start, edge.end):
            curve = edge.curve if edge.start == corner else edge.curve.reversed()
            return motion(curve.start), motion.direction(curve.start_direction)
    raise AssertionError("the corner lies on the line")


def _in_parts(piece: Piece, part: RimPart, curves: list[Curve], context: Context) -> Piece:
    """Return a piece with its neckline drawn, in two parts where it has a corner."""
    (neck,) = part.edges
    in_ring = curves if part.forward else [curve.reversed() for curve in reversed(curves)]
    names = [neck.start, *(context.named(f"{piece.zone}_corner{i}") for i in range(len(curves) - 1)), neck.end]
    edges = [replace(neck, start=names[i], end=names[i + 1], curve=curve) for i, curve in enumerate(in_ring)]
    ring = [e for old in piece.edges for e in (edges if old.start == neck.start else [old])]
    return replace(piece, edges=tuple(ring))


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
