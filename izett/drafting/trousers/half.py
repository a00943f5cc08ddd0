"""Half a leg of the trousers: fork, crotch, crease, inseam, side and waist, for one set of sums (y growing downwards)."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import atan2, cos, sin

from izett.drafting.hip import DrawnWaist, drawn_waist, hip_curve, lean_of, to_measure, wide_at, x_at
from izett.drafting.trousers.crotch import Corner, crotch_curve
from izett.drafting.waistline import WaistDart
from izett.geometry.blend import with_handles
from izett.geometry.curve import Curve, joined, straight
from izett.geometry.motion import Motion
from izett.geometry.point import (
    Point,
    Vector,
    add,
    between,
    distance,
    left_of,
    meeting,
    right_of,
    scale,
    subtract,
    unit,
)
from izett.geometry.tolerance import SAME_POINT
from izett.rules.worksheet import Worksheet

#: Handles of inseam and side between crotch and knee, as shares of the way: tuned by eye.
AT_FORK, AT_KNEE, BELOW_HIP = 0.33, 0.50, 0.40
#: By what share of its turn to the knee the inseam leans more at the fork: tuned by eye.
HOLLOW = 0.1
#: A crotch curve starts at the hip line, but at most this many times the fork above the crotch level.
HIGHEST_START = 1.5
#: It may leave the centre seam higher up by so much of the way to the waist, where it would turn sharply otherwise.
HIGHER = 0.18
#: The centre seam is moved in by what the curve adds at the hip in so many rounds at most.
MOST_ROUNDS = 24


@dataclass(frozen=True, slots=True)
class Leg:
    """Crotch and leg of a half, without its waist.

    Attributes:
        part: `front` or `back`.
        hip: width on the hip line, from x = 0.
        centre: the centre seam from the waist to where the crotch curve starts.
        crotch: from there to the fork.
        inseam: from the fork to the knee; `below` from the knee to the hem.
        side: from the hip to the knee; `side_below` from the knee to the hem.
        hem: from inseam to side.
        crease: x of the crease.
        corner: of centre seam and crotch level.
    """

    part: str
    hip: float
    centre: Curve
    crotch: Curve
    inseam: Curve
    below: Curve
    side: Curve
    side_below: Curve
    hem: Curve
    crease: float
    corner: Corner

    @property
    def fork(self) -> Point:
        """The end of the crotch seam."""
        return self.crotch.end

    @property
    def crotch_seam(self) -> float:
        """The crotch seam from the waist to the fork, cm."""
        return self.centre.length + self.crotch.length

    @property
    def square_to_centre(self) -> Vector:
        """The direction in which the waist leaves the centre."""
        return left_of(self.corner.up)


@dataclass(frozen=True, slots=True)
class Inseam:
    """The line from the fork to the knee, with what it runs between.

    Attributes:
        curve: from the fork to the knee.
        lean: at the fork, radians off the plumb line.
        crease: x of the crease.
    """

    curve: Curve
    lean: float
    crease: float


def inseam(sums: Worksheet, part: str, drop: float) -> Inseam:
    """Return the inseam of a half, its fork `drop` cm below the crotch level."""
    fork = (-sums[f"trouser_{part}_fork"], sums["trouser_crotch_level"] + drop)
    crease = (fork[0] + sums[f"trouser_{part}_hip"]) / 2
    knee = (crease - sums[f"trouser_{part}_knee"] / 2, sums["trouser_knee_level"])
    hem = (crease - sums[f"trouser_{part}_hem"] / 2, sums["trouser_length"])
    start = _into_inseam(fork, knee, hem)
    return Inseam(_run(fork, start, knee, hem, AT_FORK), atan2(start[0], start[1]), crease)


def leg(sums: Worksheet, part: str, inner: Inseam, slope: float) -> Leg:
    """Return the leg of a half.

    Args:
        sums: the worksheet.
        part: `front` or `back`.
        inner: its inseam.
        slope: how steeply the crotch curve rises out of the fork, radians.
    """
    depth, level = sums["waist_to_hip"], sums["trouser_crotch_level"]
    hip, knee_at, hem_at = sums[f"trouser_{part}_hip"], sums["trouser_knee_level"], sums["trouser_length"]
    fork, crease = inner.curve.start, inner.crease
    if part == "front":
        waist = (sums["trouser_centre_take"], 0.0)
    else:
        rise = sums["trouser_back_rise"]
        waist = (sums["trouser_slant"] * (depth + rise) / depth, -rise)
    up = unit(subtract(waist, (0.0, depth)))
    knee, hem = sums[f"trouser_{part}_knee"] / 2, sums[f"trouser_{part}_hem"] / 2
    knee_in, knee_out = (crease - knee, knee_at), (crease + knee, knee_at)
    hem_in, hem_out = (crease - hem, hem_at), (crease + hem, hem_at)

    def seam_from(inwards: float) -> tuple[Point, Corner, Curve]:
        """Return the waist's end, the corner and the crotch curve of a centre seam that passes the hip line at `inwards`."""
        hip_at, waist_at = (inwards, depth), (waist[0] + inwards, waist[1])
        corner = _corner(hip_at, up, level)
        top = _crotch_top(hip_at, up, level, -fork[0])
        tops = (top, between(top, waist_at, HIGHER))
        into = (cos(slope), -sin(slope))
        return waist_at, corner, crotch_curve(tops, fork, into, corner, sums[f"{part}_crotch_scoop"])

    # A curve that begins above the hip is wider there than its seam: the seam moves in, so that the hip is as reckoned.
    inwards = 0.0
    waist_at, corner, crotch = seam_from(inwards)
    for _ in range(MOST_ROUNDS):
        off = hip_inside(crotch, depth)
        if abs(off) <= SAME_POINT:
            break
        inwards -= off
        waist_at, corner, crotch = seam_from(inwards)
    return Leg(
        part,
        hip,
        straight(waist_at, crotch.start),
        crotch,
        inner.curve,
        straight(knee_in, hem_in),
        _run((hip, depth), (0.0, 1.0), knee_out, hem_out, BELOW_HIP),
        straight(knee_out, hem_out),
        _hem(hem_in, knee_in, hem_out, knee_out),
        crease,
        corner,
    )


def _into_inseam(fork: Point, knee: Point, hem: Point) -> Vector:
    """Return the direction in which the inseam leaves the fork: leaning a little more than its way, so that it is hollow."""
    chord, below = _unit_from(fork, knee), _unit_from(knee, hem)
    lean, end = atan2(chord[0], chord[1]), atan2(below[0], below[1])
    angle = lean + HOLLOW * (lean - end)
    return (sin(angle), cos(angle))


def _unit_from(a: Point, b: Point) -> Vector:
    return unit(subtract(b, a))


def _run(start: Point, leaving: Vector, knee: Point, hem: Point, at_start: float) -> Curve:
    """Return the line to the knee that runs on straight to the hem."""
    way = distance(start, knee)
    return joined(
        [
            with_handles(
                start,
                leaving,
                knee,
                _unit_from(hem, knee),
                start_handle=at_start * way,
                end_handle=AT_KNEE * way,
            )
        ]
    )


def _corner(hip: Point, up: Vector, level: float) -> Corner:
    ahead = meeting(hip, scale(up, -1.0), (0.0, level), (-1.0, 0.0))
    return Corner(add(hip, scale(up, -ahead[0])) if ahead else (0.0, level), up)


def _crotch_top(hip: Point, up: Vector, level: float, fork: float) -> Point:
    """Return where the crotch curve leaves the centre seam: at the hip, or lower where that is far above the fork."""
    over = (level - hip[1]) - HIGHEST_START * fork
    return hip if over <= 0 else add(hip, scale(up, -over / -up[1]))


def _hem(hem_in: Point, knee_in: Point, hem_out: Point, knee_out: Point) -> Curve:
    """Return the hem, square to both seams so that it runs on across them."""
    third = distance(hem_in, hem_out) / 3
    into_leg, back_into_leg = right_of(_unit_from(knee_in, hem_in)), left_of(_unit_from(knee_out, hem_out))
    return joined([with_handles(hem_in, into_leg, hem_out, back_into_leg, start_handle=third, end_handle=third)])


def waist_of(
    sums: Worksheet, drawn: Leg, rise: float, shares: Sequence[float], first: float | None
) -> tuple[DrawnWaist, float]:
    """Return the waist of a half and what its curve added to the darts.

    Args:
        sums: the worksheet.
        drawn: the half's leg.
        rise: by how much the side starts above the waist line, cm.
        shares: the intakes of its darts.
        first: how far from the centre the first dart stands; None to space the darts evenly.
    """
    part, depth = drawn.part, sums["waist_to_hip"]
    take = sums["trouser_side_take"]
    centre, side = drawn.centre.start, (drawn.hip - take, -rise)
    aim = sums[f"trouser_{part}_waist"]
    # The paper is turned so that centre and side lie level: then the darts stand square to the waist.
    chord = subtract(side, centre)
    turned = Motion.turning(-atan2(chord[1], chord[0]), about=centre)
    lean = turned.direction(lean_of(take, depth))
    length = sums[f"trouser_{part}_dart_length"]

    def at(extra: float) -> DrawnWaist:
        end = turned(side)
        if not shares:
            end = (end[0] - extra, end[1])
        grown = [share + extra / len(shares) for share in shares]
        start = first if first is not None else (end[0] - centre[0]) / (len(grown) + 1)
        step = (end[0] - centre[0] - start) / max(len(grown), 1) if first is not None else start
        darts = [WaistDart(centre[0] + start + i * step, centre[1] + length, share) for i, share in enumerate(grown)]
        return drawn_waist(centre, turned.direction(drawn.square_to_centre), end, lean, darts, turned.inverse())

    return to_measure(at, aim)


def hip_side(sums: Worksheet, drawn: Leg, waist: DrawnWaist) -> Curve:
    """Return the side from the waist to the hip."""
    return hip_curve(waist.side, (drawn.hip, sums["waist_to_hip"]), sums["trouser_side_take"], sums)


def high_hip(sums: Worksheet, drawn: Leg, waist: DrawnWaist) -> float:
    """Return the width of a half at the high hip, cm."""
    level = min(sums["waist_to_high_hip"], sums["waist_to_hip"])
    inwards = drawn.corner.up[0] / -drawn.corner.up[1] * (sums["waist_to_hip"] - level)
    return wide_at(hip_side(sums, drawn, waist), waist, level) - inwards


def hip_inside(crotch: Curve, depth: float) -> float:
    """Return where the hip line begins (x, cm): on the centre seam, or on a crotch curve that begins above it."""
    return x_at(crotch, depth) if crotch.start[1] < depth else 0.0


def at_crotch(drawn: Leg) -> float:
    """Return the width of a half from the fork to the side, cm."""
    return x_at(drawn.side, drawn.fork[1]) - drawn.fork[0]
