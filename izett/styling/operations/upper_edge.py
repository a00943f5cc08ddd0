"""Draw the upper edge: a garment without straps, cut off along one line over all its panels.

Its heights are given over the bust line at the centre front, over the bust points and at the centre back, and below the
underarm at the sides.
It meets each seam squarely, so that it runs on smoothly from panel to panel; a sweetheart edge dips to a point in the
centre front. What lies above, neck, shoulders and armholes, is left off. Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from enum import StrEnum
from itertools import pairwise
from math import cos, radians, sin

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.blend import with_handles
from izett.geometry.curve import Curve, joined
from izett.geometry.fit import through
from izett.geometry.motion import Motion
from izett.geometry.outline import along_line, crossing_of, gap
from izett.geometry.point import Point, Vector, add, distance, left_of, negated, right_of, scale, subtract, turn
from izett.geometry.tolerance import SAME_POINT
from izett.pattern.document import Accepted
from izett.pattern.facts import CENTRES, Region, Role, Zone
from izett.pattern.halves import marked
from izett.pattern.levels import AROUND, without_level
from izett.pattern.paper import Gate, Label, cut, parted_at
from izett.pattern.piece import Edge, Piece
from izett.pattern.working import Readable, Working
from izett.pattern.worn import is_sleeve, on_body
from izett.styling.operation import Context, Group, Keeps, Offer, Operation, Outcome, Sum, length
from izett.styling.parting import left_off
from izett.styling.references import Params
from izett.styling.rims import RimPart, rims
from izett.styling.subject import Kind, Subject
from izett.styling.uprights import Upright, upright_from
from izett.styling.words import dart_words
from izett.wording import cm, named

#: cm. A level ends on a seam if it ends so near to it.
ON_SEAM = 0.05
#: cm. So much of a seam is left above the edge at least, so that there is something to cut off.
LEAST_OFF = 0.1
#: cm. A bust point so near to a seam lies on it: that seam has the peak.
NEAR_SEAM = 2.5
#: cm. Rounding of a length.
HAIR = 1e-6
#: How far the edge's handles reach towards the other seam; in the dip of a sweetheart edge they reach further.
REACH, LOBE_REACH = 0.36, 0.5
#: °. A sweetheart edge rises so steeply out of the centre front.
LOBE = 62.0
#: °. Any point is what a sweetheart edge is meant to have.
ANY_POINT = 90.0


class Shape(StrEnum):
    """How the edge runs through the centre front."""

    PLAIN = "plain"
    SWEETHEART = "sweetheart"


class UpperEdge(Params):
    """How high the edge lies over the bust line."""

    front: float = length(4.0, low=-10, high=20, meaning="over the bust line at the centre front")
    peak: float = length(6.5, low=-2, high=20, meaning="over the bust line above the bust points")
    side: float = length(0.5, low=LEAST_OFF, high=14, meaning="below the underarm at the sides")
    back: float = length(0.0, low=-14, high=16, meaning="over the bust line at the centre back")
    shape: Shape = Field(Shape.PLAIN, description="how it runs through the centre front")


@dataclass(frozen=True, slots=True)
class _Place:
    """Where the edge meets a line that runs up: the line, and how far up it, cm."""

    up: Upright
    along: float

    @property
    def spot(self) -> Point:
        """The place on the paper."""
        edge, along = self.up.at(self.along)
        return edge.curve.at_distance(along)

    @property
    def direction(self) -> Vector:
        """The direction of the line there, in ring order."""
        edge, along = self.up.at(self.along)
        before, after = edge.curve.split(along)
        return after.start_direction if after.length > SAME_POINT else before.end_direction


@dataclass(frozen=True, slots=True)
class _Stretch:
    """What a panel has of the edge, from seam to seam in the order of the rim."""

    piece: Piece
    ends: tuple[_Place, _Place]

    @property
    def in_ring_order(self) -> tuple[_Place, _Place]:
        """The line that runs up from the lower edge, and the one that runs down to it."""
        return self.ends if self.ends[0].up.forward else (self.ends[1], self.ends[0])


def apply(params: UpperEdge, context: Context) -> Outcome:
    """Cut each panel off along its stretch of the edge."""
    pattern = context.garment
    told: list[Sum] = []
    made: list[str] = []
    accepted = list(pattern.accepted)
    for rim in _around(pattern):
        heights = _heights(params, pattern, rim)
        stretches = [
            _stretch(pattern.piece(part.piece), part, between)
            for part, between in zip(rim, pairwise(heights), strict=True)
        ]
        leans = [0.0, *(_lean(one, other) for one, other in pairwise(stretches)), 0.0]
        if params.shape is Shape.SWEETHEART:
            # The lobe is round: over its peak it lies square to the seam.
            leans[1] = 0.0
        for stretch, lean in zip(stretches, pairwise(leans), strict=True):
            piece = stretch.piece
            pattern, edge = _cut_off(context, pattern, stretch, _drawn(stretch, lean, params))
            told.append(Sum(f"edge of the {context.called(piece.name)}", edge.curve.length))
            made.append(edge.lineage)
            centre = next((one.up.lineage for one in stretch.ends if one.up.edges[0].role in CENTRES), None)
            if centre is not None and params.shape is Shape.SWEETHEART and piece.zone is Zone.FRONT:
                accepted.append(
                    Accepted("square_at_centre", (edge.lineage, centre), ANY_POINT, "the sweetheart edge points down")
                )
    if not told:
        raise StepRefused(
            "There is no bodice to draw an upper edge on.",
            fix="Choose a bodice or a torso with its bust line.",
            where=("bust",),
        )
    whole = sum(one.value for one in told)
    pattern = _without_parted_levels(pattern, frozenset(made)).with_accepted(tuple(accepted))
    return Outcome(pattern, (*told, Sum("edge, around", 2 * whole, both=True)), tuple(made))


def _without_parted_levels(pattern: Working, edges: frozenset[str]) -> Working:
    """Return the garment without the levels that run off at the edge: they do not go around the body any more."""
    gone = {
        line.level
        for piece in pattern.pieces
        for edge in piece.edges
        if edge.lineage in edges
        for line in piece.lines
        if line.level in AROUND
        for end in (line.points[0], line.points[-1])
        if gap(edge.curve.flattened(), end) <= ON_SEAM
        and min(distance(end, edge.curve.start), distance(end, edge.curve.end)) > ON_SEAM
    }
    for level in sorted(gone):
        pattern = pattern.with_pieces(*(without_level(piece, level) for piece in pattern.with_level(level)))
    return pattern


def _around(pattern: Readable) -> Iterator[tuple[RimPart, ...]]:
    """Yield the lower edge of the garment's upper part over all panels that have the bust line."""
    for role in (Role.WAIST, Role.HEM):
        pieces = tuple(p for p in pattern.with_role(role) if _is_bodice(p))
        if pieces:
            yield from rims(pattern, role, pieces)
            return


def _is_bodice(piece: Piece) -> bool:
    return on_body(piece) and piece.region is Region.UPPER and not is_sleeve(piece)


def _heights(params: UpperEdge, pattern: Readable, rim: tuple[RimPart, ...]) -> list[float]:
    """Return the heights over the bust line at which the edge meets the lines that run up: from the first to the last."""
    zones = [pattern.piece(part.piece).zone for part in rim]
    fronts, backs = zones.count(Zone.FRONT), zones.count(Zone.BACK)
    before_side = fronts or backs
    side = _at_side(params, pattern, rim[before_side - 1])
    if not fronts:
        # A back that is sewn to no front: it runs from the centre back.
        return [params.back + (side - params.back) * seam / backs for seam in range(backs + 1)]
    front = [params.front, *(params.peak + (side - params.peak) * k / max(fronts - 1, 1) for k in range(fronts))]
    front[-1] = side
    return [*front, *(side + (params.back - side) * (k + 1) / backs for k in range(backs))]


def _at_side(params: UpperEdge, pattern: Readable, part: RimPart) -> float:
    """Return how high over the bust line the edge meets the side of the panel before it."""
    piece = pattern.piece(part.piece)
    up = upright_from(piece, part.end, frozenset(edge.lineage for edge in part.edges))
    bust = _bust_on(piece, up) if up is not None else None
    return up.length - params.side - bust if up is not None and bust is not None else 0.0


def _stretch(piece: Piece, part: RimPart, heights: tuple[float, float]) -> _Stretch:
    """Return where a panel's stretch of the edge begins and ends, in the order of the rim."""
    around = frozenset(edge.lineage for edge in part.edges)
    found = []
    for corner, height in zip((part.start, part.end), heights, strict=True):
        up = upright_from(piece, corner, around)
        if up is None:
            raise StepRefused(
                f"{piece.title}: its lower edge ends in a dart.", fix="True the dart first.", where=(piece.name,)
            )
        found.append(_place(piece, up, height))
    return _Stretch(piece, (found[0], found[1]))


def _lean(one: _Stretch, other: _Stretch) -> float:
    """Return how far (rad) the edge rises off the square of a seam, so that it runs on as straight as it can across it.

    Counted in the direction of the rim, on both panels alike: the two angles still add to half a turn.
    """
    before = _off_square(one.ends[1], one.ends[0].spot)
    after = _off_square(other.ends[0], other.ends[1].spot)
    return (after - before) / 2


def _off_square(place: _Place, far: Point) -> float:
    """Return by how much (rad) the way to the far end of a stretch rises over the square of the line at a place."""
    rise = turn(left_of(place.direction), subtract(far, place.spot))
    # Where the line runs up in ring order the inside lies to the left: what turns on to the left there falls.
    return -rise if place.up.forward else rise


def _cut_off(context: Context, pattern: Working, stretch: _Stretch, line: Curve) -> tuple[Working, Edge]:
    """Return the garment with a panel cut off along its stretch of the edge, and that stretch."""
    piece = stretch.piece
    names = [context.named(f"{piece.name}_{label}") for label in ("rising", "falling")]
    ring: list[Edge] = list(piece.edges)
    for place, name in zip(stretch.in_ring_order, names, strict=True):
        edge, along = place.up.at(place.along)
        # The lower part keeps the plain name, what is left off has the other.
        ring = parted_at(ring, edge, along, (name, f"{name}_off") if place.up.forward else (f"{name}_off", name))
    gates = (Gate(names[0], f"{names[0]}_off"), Gate(f"{names[1]}_off", names[1]))
    _refuse_darts(piece, line)
    lineage = context.named(f"{piece.name}_edge")
    labels = (
        Label(context.named(f"{piece.name}_off"), piece.title, context.named(f"{piece.name}_off_edge")),
        Label(piece.name, piece.title, lineage),
    )
    pattern = cut(pattern, piece, ring, gates, (line.reversed(), line), labels, role=Role.NECK)
    pattern = left_off(pattern, pattern.piece(labels[0].name))
    kept = pattern.piece(piece.name)
    return pattern, next(e for e in kept.edges if e.lineage == lineage)


def _place(piece: Piece, up: Upright, height: float) -> _Place:
    """Return the place `height` cm over the bust line on a line that runs up."""
    bust = _bust_on(piece, up)
    if bust is None:
        raise StepRefused(
            f"{piece.title}: the bust line does not come to {named(up.lineage)}.",
            fix="Draw the upper edge before that seam is moved off the bust line.",
            where=(up.lineage,),
        )
    along = bust + height
    if along > up.length - LEAST_OFF + HAIR or along < LEAST_OFF:
        raise StepRefused(
            f"{piece.title}: {cm(height, 2)} over the bust line lies beyond the end of {named(up.lineage)}.",
            fix=f"Use {cm(LEAST_OFF - bust)} to {cm(up.length - bust - LEAST_OFF)} there.",
            where=(up.lineage,),
        )
    return _Place(up, along)


def _bust_on(piece: Piece, up: Upright) -> float | None:
    """Return how far up a line the bust line meets it, darts on the way shut; None where it does not."""
    ends = [p for line in piece.lines if line.level == "bust" for p in (line.points[0], line.points[-1])]
    gone = 0.0
    for edge in up.edges:
        points = up.curve(edge).flattened()
        on = next((spot for spot in ends if gap(points, spot) <= ON_SEAM), None)
        if on is not None:
            return gone + along_line(points, on)
        gone += edge.curve.length
    return None


def _drawn(stretch: _Stretch, leans: tuple[float, float], params: UpperEdge) -> Curve:
    """Return the edge of a panel in ring order: as square to the lines that it meets as it leans there."""
    piece = stretch.piece
    rising, falling = stretch.in_ring_order
    first, last = leans if stretch.ends[0] is rising else leans[::-1]
    start, end = rising.spot, falling.spot
    # What rises in the order of the rim falls where the ring runs against it.
    way = -1.0 if stretch.ends[0] is rising else 1.0
    leaving = Motion.turning(way * first, about=(0.0, 0.0)).direction(left_of(rising.direction))
    arriving = Motion.turning(way * last, about=(0.0, 0.0)).direction(right_of(falling.direction))
    reach_start = reach_end = REACH * distance(start, end)
    if params.shape is Shape.SWEETHEART and piece.zone is Zone.FRONT:
        if falling.up.edges[0].role in CENTRES:
            arriving, reach_end = _lobe(falling.direction, rising=False), LOBE_REACH * distance(start, end)
        elif rising.up.edges[0].role in CENTRES:
            leaving, reach_start = _lobe(rising.direction, rising=True), LOBE_REACH * distance(start, end)
    over = _under_peak(piece, start, end)
    if over is None:
        return joined(
            [with_handles(start, leaving, end, negated(arriving), start_handle=reach_start, end_handle=reach_end)]
        )
    # A front in one piece has its peak over the bust point.
    return through([start, add(over, (0.0, params.peak)), end], leaving=leaving, arriving=arriving)


def _lobe(along: Vector, *, rising: bool) -> Vector:
    """Return the direction of a sweetheart edge at the centre front, where the centre line runs `along` in ring order."""
    up, inside = (along, left_of(along)) if rising else (negated(along), left_of(along))
    out = add(scale(inside, cos(radians(LOBE))), scale(up, sin(radians(LOBE))))
    return out if rising else negated(out)


def _under_peak(piece: Piece, start: Point, end: Point) -> Point | None:
    """Return the place on the bust line over which a front in one piece has its peak; None on a panel or a back."""
    if piece.zone is not Zone.FRONT:
        return None
    low, high = sorted((start[0], end[0]))
    apex = next((at for at in marked(piece, "apex") if low + NEAR_SEAM < at[0] < high - NEAR_SEAM), None)
    level = next((line.points[0][1] for line in piece.lines if line.level == "bust"), None)
    return (apex[0], level) if apex is not None and level is not None else None


def _refuse_darts(piece: Piece, line: Curve) -> None:
    edge = line.flattened()
    for dart in piece.darts:
        tip = piece.vertex(dart.tip)
        if any(crossing_of(edge, [piece.vertex(name), tip]) is not None for name in dart.mouth):
            raise StepRefused(
                f"The upper edge would cut through {dart_words(dart.name)}.",
                fix="Move that dart to the side or the waist first, or make it a panel seam.",
                where=(dart.name,),
            )


def describe(params: UpperEdge) -> str:
    """Return the step in the maker's words."""
    what = "Sweetheart edge" if params.shape is Shape.SWEETHEART else "Upper edge"
    return (
        f"{what} without straps: over the bust line {cm(params.front, 2)} at the centre front, "
        f"{cm(params.peak, 2)} at the peak, {cm(params.back, 2)} behind; {cm(params.side, 2)} below the underarm"
    )


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer an edge without straps where a neckline, a shoulder or an armhole of a bodice is pointed at."""
    piece = subject.piece
    if subject.kind is not Kind.LINE or piece is None or not _is_bodice(piece):
        return
    if subject.role in (Role.NECK, Role.SHOULDER, Role.ARMHOLE) and any(x.level == "bust" for x in piece.lines):
        yield Offer("Cut off the straps: one upper edge", {})
        yield Offer("Cut off the straps: sweetheart edge", {"shape": "sweetheart", "front": 2.0})


FRONT_ARMHOLE = {"start": "front.underarm", "end": "front.shoulder_tip", "along": "front.armhole", "fraction": 0.55}
BACK_ARMHOLE = {"start": "back.underarm", "end": "back.shoulder_tip", "along": "back.armhole", "fraction": 0.6}

OPERATION = Operation(
    key="upper_edge",
    title="Draw the upper edge without straps",
    params=UpperEdge,
    apply=apply,
    describe=describe,
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.NECK,
    offers=offers,
    before=(
        ("princess", {"start": FRONT_ARMHOLE, "bow": 1.2}),
        ("princess", {"start": BACK_ARMHOLE, "bow": 1.0}),
    ),
    examples=({"shape": "sweetheart", "front": 2.0}, {"front": 4.0, "peak": 5.0, "side": 0.3, "back": 1.0}),
)
