"""The frame of the bodice: front and back above the waist, for one set of widths."""

from dataclasses import dataclass
from math import cos, radians, sin

from izett.drafting import armhole as armholes
from izett.drafting.bodice.bust_dart import settle_bust_dart
from izett.drafting.bodice.shoulder_dart import ShoulderDart, shoulder_dart
from izett.drafting.method import Notice
from izett.drafting.shoulder import slope_by_diagonal
from izett.errors import DraftRefused
from izett.geometry.curve import Curve
from izett.geometry.motion import Motion
from izett.geometry.point import Point, Vector, add, left_of, unit
from izett.rules.formula import clamp
from izett.rules.worksheet import Worksheet
from izett.wording import cm

#: Degrees. Valid shoulder slopes, and how much steeper the front may be than the back.
SLOPES = (8.0, 34.0)
FRONT_STEEPER = (-4.0, 10.0)


#: The across lines stay this far inside the shoulder tip (cm).
BACK_INSIDE_TIP, FRONT_INSIDE_TIP = 0.4, 0.9

#: cm. Half an armhole is at least this wide.
NARROWEST_ARMHOLE = 1.0


@dataclass(frozen=True, slots=True)
class Half:
    """The upper part of a front or a back half.

    `slope` is the shoulder's in degrees; with a dart in it `dart` has the two slopes beside it.
    """

    neck_point: Point
    tip: Point
    slope: float
    underarm: Point
    across: float
    across_moved: float
    armhole: Curve
    dart: ShoulderDart | None = None

    @property
    def below_neck(self) -> Vector:
        """The direction square to the shoulder at the neck point, downwards."""
        return square_to_shoulder(self.dart.neck_slope if self.dart else self.slope)


@dataclass(frozen=True, slots=True)
class Frame:
    """Front and back above the waist, for one set of widths."""

    front: Half
    back: Half
    angle: float
    closed_underarm: Point
    notices: tuple[Notice, ...]

    @property
    def front_room(self) -> float:
        """The front's part of the armhole width, cm."""
        return self.front.underarm[0] - self.front.across

    @property
    def back_room(self) -> float:
        """The back's part of the armhole width, cm."""
        return self.back.underarm[0] - self.back.across

    @property
    def room(self) -> float:
        """The width that is left for the arm between the across lines, cm."""
        return self.front_room + self.back_room

    @property
    def front_share(self) -> float:
        """The front's share of that width."""
        return self.front_room / self.room

    @property
    def back_longer(self) -> float:
        """How much longer the back armhole is than the front one, cm."""
        return self.back.armhole.length - self.front.armhole.length

    @property
    def armhole(self) -> float:
        """The length of the whole armhole, cm."""
        return self.back.armhole.length + self.front.armhole.length


def frame_of(sums: Worksheet) -> Frame:
    """Return front and back above the waist for the worksheet's present values.

    Raises:
        DraftRefused: bust point or armhole have no place on this body.
    """
    notices: list[Notice] = []
    angle = settle_bust_dart(sums, notices)
    apex = (sums["apex_x"], sums["apex_level"])
    if not 4 <= apex[1] <= sums["back_waist_length"] - 4:
        raise DraftRefused(
            f"The bust point comes to lie {cm(apex[1])} above the waist.",
            fix="Retake the front length and neck point to bust point.",
            where=("front_length", "neck_to_apex", "back_waist_length"),
        )
    front_neck = (sums["front_neck_width"], sums["front_neck_level"])
    back_neck = (sums["back_neck_width"], sums["back_waist_length"] + sums["back_neck_rise"])
    front_slope, back_slope = slopes_of(sums, front_neck, back_neck, notices)
    level, low = sums["bust_line_level"], sums["underarm_level"]
    take = sums["side_take"]
    rise = take * (low - level) / level
    up_side = unit((take, level))
    inwards = left_of(up_side)
    closed = (sums["front_width"] + rise, low)
    opening = Motion.turning(radians(angle), about=apex)
    front = half_of(
        front_neck,
        front_slope,
        sums["front_shoulder"],
        opening(closed),
        opening.direction(inwards),
        sums["across_front_line"],
        FRONT_INSIDE_TIP,
        armholes.Scoop(armholes.FRONT_HEIGHT, sums["front_armhole_scoop"]),
    )
    back = half_of(
        back_neck,
        back_slope,
        sums["back_shoulder"],
        (sums["back_width"] + sums["centre_back_at_bust"] + rise, low),
        inwards,
        sums["across_back_line"],
        BACK_INSIDE_TIP,
        armholes.Scoop(armholes.BACK_HEIGHT, sums["back_armhole_scoop"]),
        shoulder_dart(sums, back_neck, back_slope) if sums.school("shoulder") == "dart" else None,
    )
    return Frame(front, back, angle, closed, tuple(notices))


def half_of(
    neck_point: Point,
    slope: float,
    shoulder: float,
    underarm: Point,
    inwards: Vector,
    across: float,
    inside: float,
    scoop: armholes.Scoop,
    dart: ShoulderDart | None = None,
) -> Half:
    """Return a half above the waist.

    Args:
        neck_point, slope, shoulder: where its shoulder starts, how it slopes (degrees), how long it is.
        underarm, inwards: where the armhole ends, and the direction square to the side there, into the half.
        across, inside: the across line, and how far inside the shoulder tip it stays.
        scoop: how the armhole is drawn.
        dart: in the shoulder, if any.

    Raises:
        DraftRefused: there is no armhole between tip and underarm.
    """
    down = radians(slope)
    tip = add(neck_point, (shoulder * cos(down), -shoulder * sin(down)))
    # An armhole narrower than that is drawn all the same: the room for the arm is looked after later.
    held = min(across, tip[0] - inside, underarm[0] - NARROWEST_ARMHOLE)
    if tip[1] - underarm[1] < 6 or held < 1:
        raise DraftRefused(
            f"The shoulder tip lies only {cm(tip[1] - underarm[1])} above the underarm, {cm(held)} from the centre: "
            "there is no armhole between them.",
            fix="Retake the armhole depth, the front length and the across widths.",
            where=("armhole_depth", "front_length", "across_front", "across_back"),
        )
    out_of_tip = square_to_shoulder(dart.tip_slope if dart else slope)
    curve = armholes.armhole(tip, out_of_tip, underarm, inwards, held, scoop)
    return Half(neck_point, tip, slope, underarm, held, across - held, curve, dart)


def square_to_shoulder(slope: float) -> Vector:
    """Return the direction square to a shoulder of that slope (degrees), downwards."""
    return (-sin(radians(slope)), -cos(radians(slope)))


def slopes_of(sums: Worksheet, front_neck: Point, back_neck: Point, notices: list[Notice]) -> tuple[float, float]:
    """Return the front and back shoulder slopes in degrees, by triangle where a diagonal was taken."""
    found: list[float] = []
    for side, neck_point in (("front", front_neck), ("back", back_neck)):
        symbol = f"{side}_shoulder_slope_length"
        slope = sums[f"default_{side}_slope"]
        if sums.has(symbol):
            measured = slope_by_diagonal(neck_point, (0.0, 0.0), sums["shoulder_length"], sums[symbol])
            if measured is not None and SLOPES[0] <= measured <= SLOPES[1]:
                slope = measured
            else:
                notices.append(
                    Notice(
                        "shoulder-diagonal-odd",
                        f"The {side} shoulder diagonal of {cm(sums[symbol])} gives "
                        + (f"a slope of {measured:.0f}°" if measured is not None else "no shoulder at all")
                        + f"; {slope:.0f}° is drawn. Retake the diagonal and the shoulder length.",
                        (symbol, "shoulder_length"),
                    )
                )
        found.append(slope)
    front, back = found
    steeper = clamp(front - back, *FRONT_STEEPER)
    if steeper != front - back:
        mean = (front + back) / 2
        notices.append(
            Notice(
                "shoulder-slopes-apart",
                f"Front and back shoulders slope {front:.0f}° and {back:.0f}°: they are drawn closer together.",
                ("front_shoulder_slope_length", "back_shoulder_slope_length"),
            )
        )
        front, back = mean + steeper / 2, mean - steeper / 2
    for side, slope in (("front", front), ("back", back)):
        if slope == sums[f"default_{side}_slope"]:
            sums.choose(f"{side}_slope", slope, reason="the usual slope, since no diagonal gives another")
        else:
            sums.settle(f"{side}_slope", slope)
    return sums["front_slope"], sums["back_slope"]
