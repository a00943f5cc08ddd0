"""The woven fitted bodice, front and back, to the waist.

The draft is worked as a hand would: widths at the bust, neck, front with its bust dart, shoulders by triangle,
armholes, then the waist with its darts. What must fit together (side seam shift, neck depth, waist curve) is found,
and each found value says by how much it misses its condition. Where the arm needs more room than the measures
leave, ease is given up in a stated order and the maker is told.

Sources stand with each rule in bodice.toml; the order of work is common practice.
"""

from collections.abc import Callable
from dataclasses import dataclass
from math import asin, atan2, cos, degrees, hypot, radians, sin
from pathlib import Path
from types import MappingProxyType

from scipy.optimize import brentq

from izett.drafting import armhole as armholes
from izett.drafting import neckline as necklines
from izett.drafting.method import Method, Notice
from izett.drafting.shoulder import slope_by_diagonal
from izett.drafting.waistline import WaistDart, intakes, waist_panels
from izett.errors import DraftRefused
from izett.geometry.curve import Curve, straight
from izett.geometry.motion import Motion
from izett.geometry.outline import crossing
from izett.geometry.point import Point, Vector, add, between, left_of, unit
from izett.measuring.measure import HERE as MEASURING
from izett.pattern.document import (
    Edge,
    Intake,
    Intent,
    LevelLine,
    Notch,
    NotchKind,
    Pattern,
    Piece,
    Role,
    Seam,
    Span,
    legs,
)
from izett.rules.formula import clamp
from izett.rules.sheet import load_sheet
from izett.rules.worksheet import Worksheet

Tell = Callable[[Notice], None]

#: Degrees. A smaller bust dart is not worth sewing; a larger one no cloth takes in one place.
SMALLEST_DART, LARGEST_DART = 2.0, 40.0
#: Degrees. A larger bust dart is split in two, and the mouths of the two lie this far apart (cm).
SPLIT_FROM, SPLIT_APART = 26.0, 4.0
#: How far the implied balance may leave its formula before the dart is worked out from the lengths (cm).
BALANCE_SLACK = 1.5
#: Degrees. Valid shoulder slopes, and how much steeper the front may be than the back.
SLOPES = (8.0, 34.0)
FRONT_STEEPER = (-4.0, 10.0)
#: Front neck depth as a share of the front neck width.
NECK_DEPTHS = (0.75, 1.9)
#: The front waist point may leave the waist line by this much (cm) where the neck pit to waist was taken.
FRONT_WAIST = (-2.0, 1.2)
#: The across lines stay this far inside the shoulder tip (cm).
BACK_INSIDE_TIP, FRONT_INSIDE_TIP = 0.4, 0.9
#: The front's share of the armhole width, and how much longer the back armhole may be (cm).
FRONT_SHARE = (0.42, 0.58)
BACK_LONGER = (-0.8, 4.0)
LARGEST_SHIFT = 4.0
#: Armhole length as a share of the bust of the frame: where the drop is changed, and beyond which is no armhole.
ARMHOLE_AIM = (0.385, 0.56)
ARMHOLE_VALID = (0.38, 0.57)
DROP_STEP, DROPS = 0.5, (0.0, 4.5)
#: cm. A panel of the waist line between two darts is at least this wide.
NARROWEST_PANEL = 0.8
#: cm. The side seam's shift above which the maker is told.
TELL_SHIFT = 2.5


@dataclass(frozen=True, slots=True)
class _Half:
    """The upper part of a front or a back half."""

    neck_point: Point
    tip: Point
    slope: float
    underarm: Point
    across: float
    across_moved: float
    armhole: Curve

    @property
    def below_shoulder(self) -> Vector:
        return _square_to_shoulder(self.slope)


@dataclass(frozen=True, slots=True)
class _Frame:
    """Front and back above the waist, for one set of widths."""

    front: _Half
    back: _Half
    angle: float
    closed_underarm: Point
    notices: tuple[Notice, ...]

    @property
    def front_room(self) -> float:
        return self.front.underarm[0] - self.front.across

    @property
    def back_room(self) -> float:
        return self.back.underarm[0] - self.back.across

    @property
    def room(self) -> float:
        return self.front_room + self.back_room

    @property
    def front_share(self) -> float:
        return self.front_room / self.room

    @property
    def back_longer(self) -> float:
        return self.back.armhole.length - self.front.armhole.length

    @property
    def armhole(self) -> float:
        return self.back.armhole.length + self.front.armhole.length


def draft(sums: Worksheet, tell: Tell) -> Pattern:
    """Work the sums into a front and a back.

    Raises:
        DraftRefused: the measures do not make a bodice; the error names those to retake.
    """
    for symbol in ("side_shift", "bust_dart_angle"):
        sums.settle(symbol, 0.0)
    _refuse_impossible(sums)
    frame = _relaxed(sums, tell)
    for notice in frame.notices:
        tell(notice)
    _tell_about(sums, frame, tell)
    pit, neck_front, neck_back = _necklines(sums, frame, tell)
    front_waist = (0.0, _front_waist_y(sums, pit))
    waist = _waist(sums, frame, front_waist, tell)
    front = _front(sums, frame, pit, neck_front, front_waist, waist)
    back = _back(sums, frame, neck_back, waist)
    for piece in (front, back):
        if (spot := crossing(piece.outline())) is not None:
            raise DraftRefused(
                f"{piece.title}: the outline crosses itself near {spot[0]:.1f}, {spot[1]:.1f} cm.",
                mend="Retake the bust, waist, armhole depth and front length; one of them does not belong to this body.",
                where=("front_length", "armhole_depth", "bust_girth", "waist_girth"),
            )
    return Pattern((front, back), _seams(sums), _intent(sums))


def _refuse_impossible(sums: Worksheet) -> None:
    reach = sums["neck_to_apex"] - abs(sums["apex_x"] - sums["front_neck_width"])
    if reach <= 1:
        raise DraftRefused(
            f"From the neck point to the bust point ({sums['neck_to_apex']:.1f} cm) does not reach a bust point "
            f"{sums['apex_x']:.1f} cm from the centre.",
            mend="Retake neck point to bust point and the bust point span.",
            where=("neck_to_apex", "apex_span"),
        )
    if sums["front_radius"] < 2:
        raise DraftRefused(
            f"The bust points lie {sums['apex_span']:.1f} cm apart: wider than the front of the bust allows.",
            mend="Retake the bust point span and the front bust arc.",
            where=("apex_span", "front_bust_arc"),
        )


# ---------------------------------------------------------------- the frame: front, back, armholes


def _frame(sums: Worksheet) -> _Frame:
    notices: list[Notice] = []
    angle = _settle_bust_dart(sums, notices)
    apex = (sums["apex_x"], sums["apex_level"])
    if not 4 <= apex[1] <= sums["back_waist_length"] - 4:
        raise DraftRefused(
            f"The bust point comes to lie {apex[1]:.1f} cm above the waist.",
            mend="Retake the front length and neck point to bust point.",
            where=("front_length", "neck_to_apex", "back_waist_length"),
        )
    front_neck = (sums["front_neck_width"], sums["front_neck_level"])
    back_neck = (sums["back_neck_width"], sums["back_waist_length"] + sums["back_neck_rise"])
    front_slope, back_slope = _slopes(sums, front_neck, back_neck, notices)
    level, low = sums["bust_line_level"], sums["underarm_level"]
    take = sums["side_take"]
    rise = take * (low - level) / level
    up_side = unit((take, level))
    inwards = left_of(up_side)
    closed = (sums["front_width"] + rise, low)
    opening = Motion.turning(radians(angle), about=apex)
    front = _half(
        front_neck,
        front_slope,
        sums["shoulder_length"],
        opening(closed),
        opening.direction(inwards),
        sums["across_front_line"],
        FRONT_INSIDE_TIP,
        armholes.FRONT,
    )
    back = _half(
        back_neck,
        back_slope,
        sums["back_shoulder"],
        (sums["back_width"] + sums["centre_back_at_bust"] + rise, low),
        inwards,
        sums["across_back_line"],
        BACK_INSIDE_TIP,
        armholes.BACK,
    )
    return _Frame(front, back, angle, closed, tuple(notices))


def _half(
    neck_point: Point,
    slope: float,
    shoulder: float,
    underarm: Point,
    inwards: Vector,
    across: float,
    inside: float,
    scoop: armholes.Scoop,
) -> _Half:
    down = radians(slope)
    tip = add(neck_point, (shoulder * cos(down), -shoulder * sin(down)))
    held = min(across, tip[0] - inside)
    if tip[1] - underarm[1] < 6 or underarm[0] - held < 1:
        raise DraftRefused(
            f"The shoulder tip lies only {tip[1] - underarm[1]:.1f} cm above the underarm and the armhole "
            f"{underarm[0] - held:.1f} cm wide: there is no armhole between them.",
            mend="Retake the armhole depth, the front length and the across widths.",
            where=("armhole_depth", "front_length", "across_front", "across_back"),
        )
    curve = armholes.armhole(tip, _square_to_shoulder(slope), underarm, inwards, held, scoop)
    return _Half(neck_point, tip, slope, underarm, held, across - held, curve)


def _square_to_shoulder(slope: float) -> Vector:
    return (-sin(radians(slope)), -cos(radians(slope)))


def _settle_bust_dart(sums: Worksheet, notices: list[Notice]) -> float:
    """Find the bust dart's angle by the school that the taken measures allow; return it in degrees."""
    by_length = sums.has("front_length") and sums.has("back_waist_length")
    if by_length:
        angle = _angle_by_length(sums, sums["balance"])
    else:
        angle = sums["dart_by_cup"] if sums.has("high_bust_girth") else sums["dart_by_proportion"]
        if sums.has("front_length"):
            implied = _rise(sums, angle) - _front_longer(sums)
            held = clamp(implied, sums["balance"] - BALANCE_SLACK, sums["balance"] + BALANCE_SLACK)
            if held != implied:
                angle = _angle_by_length(sums, held)
    if by_length and sums.has("high_bust_girth") and abs(angle - sums["dart_by_cup"]) > 9:
        notices.append(
            Notice(
                "dart-schools-differ",
                f"The lengths ask for a bust dart of {max(angle, 0):.0f}°, the cup for {sums['dart_by_cup']:.0f}°: "
                "retake front length, nape to waist and upper chest.",
                ("front_length", "back_waist_length", "high_bust_girth"),
            )
        )
    if angle <= 0:
        notices.append(
            Notice(
                "no-bust-dart",
                "No bust dart is needed, or the front length was taken too short.",
                ("front_length",),
            )
        )
    if angle > LARGEST_DART:
        notices.append(
            Notice(
                "bust-dart-limited",
                f"The bust dart would be {angle:.0f}°; it is drawn with {LARGEST_DART:.0f}°: panels suit this shape better.",
                ("front_length", "high_bust_girth", "bust_girth"),
            )
        )
    drawn = 0.0 if angle < SMALLEST_DART else min(angle, LARGEST_DART)
    sums.settle("bust_dart_angle", drawn)
    return sums["bust_dart_angle"]


def _front_longer(sums: Worksheet) -> float:
    return sums["front_neck_level"] - sums["back_waist_length"] - sums["back_neck_rise"]


def _rise(sums: Worksheet, angle: float) -> float:
    r, q = sums["front_radius"], sums["underarm_level"] - sums["apex_level"]
    return r * sin(radians(angle)) + q * (cos(radians(angle)) - 1)


def _angle_by_length(sums: Worksheet, balance: float) -> float:
    """Return the angle in degrees by which the side must turn so that front and back agree in length."""
    r, q = sums["front_radius"], sums["underarm_level"] - sums["apex_level"]
    rise = _front_longer(sums) + balance
    reach = hypot(r, q)
    if abs(rise + q) >= reach:
        return LARGEST_DART + 1 if rise + q > 0 else -1.0
    return degrees(asin((rise + q) / reach) - atan2(q, r))


def _slopes(sums: Worksheet, front_neck: Point, back_neck: Point, notices: list[Notice]) -> tuple[float, float]:
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
                        f"The {side} shoulder diagonal of {sums[symbol]:.1f} cm gives "
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
    for symbol, slope in (("front_slope", front), ("back_slope", back)):
        sums.settle(symbol, slope)
    return sums["front_slope"], sums["back_slope"]


def _relaxed(sums: Worksheet, tell: Tell) -> _Frame:
    """Return the frame after giving the arm its room, sharing the armhole, and setting its depth, in that order."""
    for _ in range(12):
        frame = _shared(sums, _with_room(sums, tell))
        ratio = frame.armhole / sums["frame_bust"]
        step = DROP_STEP if ratio < ARMHOLE_AIM[0] else -DROP_STEP if ratio > ARMHOLE_AIM[1] else 0.0
        drop = sums["underarm_drop"] + step
        if step == 0.0 or not DROPS[0] <= drop <= DROPS[1] or "underarm_drop" in sums.overrides:
            break
        before = sums["underarm_level"]
        sums.choose("underarm_drop", drop, reason="changed so that the armhole suits the bust of the frame")
        if sums["underarm_level"] == before:
            break
    if not ARMHOLE_VALID[0] <= ratio <= ARMHOLE_VALID[1]:
        raise DraftRefused(
            f"The armhole would measure {frame.armhole:.1f} cm on a frame bust of {sums['frame_bust']:.1f} cm: "
            f"too {'small' if ratio < ARMHOLE_VALID[0] else 'large'}.",
            mend="Retake the armhole depth, the upper chest, the across widths and the shoulder length.",
            where=("armhole_depth", "high_bust_girth", "across_back", "across_front", "shoulder_length"),
        )
    return frame


def _with_room(sums: Worksheet, tell: Tell) -> _Frame:
    """Give the arm its room: first across ease, then narrower across lines, then more bust ease."""
    frame = _frame(sums)
    reason = "changed so that the armhole is wide enough for the arm"
    limits = (
        ("across_front_ease", 0.0, 1.0),
        ("across_back_ease", 0.0, 1.0),
        ("across_narrowing", 0.03, 0.0),
    )
    for symbol, limit, _ in limits:
        missing = sums["armhole_width_needed"] - frame.room
        if missing <= 0:
            return frame
        if symbol in sums.overrides:
            continue
        if symbol == "across_narrowing":
            share = missing / ((sums["across_back"] + sums["across_front"]) / 2)
            value = min(sums[symbol] + share, limit)
        else:
            value = max(sums[symbol] - missing, limit)
        sums.choose(symbol, value, reason=reason)
        frame = _frame(sums)
    if frame.room < sums["armhole_width_needed"] and "bust_ease" not in sums.overrides:
        # Twice around: a turned underarm gains less than half of the ease that is added.
        for _ in range(4):
            missing = sums["armhole_width_needed"] - frame.room
            if missing <= 1e-3:
                break
            sums.choose("bust_ease", min(sums["bust_ease"] + 2 * missing, 12.0), reason=reason)
            frame = _frame(sums)
        tell(
            Notice(
                "bust-ease-raised",
                f"The bust ease was raised to {sums['bust_ease']:.1f} cm so that the armhole is wide enough for the arm.",
                ("bust_ease", "across_back", "across_front", "bicep_girth"),
            )
        )
    return frame


def _shared(sums: Worksheet, frame: _Frame) -> _Frame:
    """Shift the side seam by the least that shares the armhole well between front and back."""
    if "side_shift" in sums.overrides:
        sums.settle("side_shift", 0.0, residual=_share_missed(frame))
        return frame

    def at(shift: float) -> _Frame:
        sums.settle("side_shift", shift)
        return _frame(sums)

    start = sums["side_shift"]
    # Shifting towards the front (−) widens the front: each bound gives a one-sided limit of the shift.
    bounds: tuple[tuple[Callable[[_Frame], float], float], ...] = (
        (lambda f: f.front_share - FRONT_SHARE[0], -1),
        (lambda f: FRONT_SHARE[1] - f.front_share, 1),
        (lambda f: f.back_longer - BACK_LONGER[0], 1),
        (lambda f: BACK_LONGER[1] - f.back_longer, -1),
    )
    for slack, way in bounds:
        if slack(frame) >= 0:
            continue
        far = way * LARGEST_SHIFT
        if slack(at(far)) < 0:
            start = far
        else:
            # Solved a hair inside the bound, so that the result keeps it.
            start = float(brentq(lambda s, slack=slack: slack(at(s)) - 1e-6, start, far, xtol=1e-9))
        frame = at(start)
    sums.settle("side_shift", start, residual=_share_missed(frame))
    return frame


def _share_missed(frame: _Frame) -> float:
    wide = frame.front_room - clamp(frame.front_share, *FRONT_SHARE) * frame.room
    longer = frame.back_longer - clamp(frame.back_longer, *BACK_LONGER)
    return max(abs(wide), abs(longer))


def _tell_about(sums: Worksheet, frame: _Frame, tell: Tell) -> None:
    for side, half in (("front", frame.front), ("back", frame.back)):
        if half.across_moved > 0.3:
            tell(
                Notice(
                    "across-past-tip",
                    f"The across-{side} line is wider than the shoulder allows: it is drawn {half.across_moved:.1f} cm narrower.",
                    (f"across_{side}", "shoulder_length"),
                )
            )
    if abs(sums["side_shift"]) > TELL_SHIFT:
        tell(
            Notice(
                "side-seam-moved",
                f"The side seam was moved {abs(sums['side_shift']):.1f} cm towards the "
                f"{'back' if sums['side_shift'] < 0 else 'front'} to share the armhole: check the front bust arc and the across widths.",
                ("front_bust_arc", "across_front", "across_back"),
            )
        )
    lean = degrees(atan2(abs(sums["side_take"]), sums["bust_line_level"]))
    if lean > 15:
        tell(
            Notice(
                "side-leans",
                f"The waist exceeds the bust by {-2 * sums['waist_shaping']:.1f} cm with its ease and the side seam leans "
                f"{lean:.0f}°: a straight or A-line block suits better.",
                ("waist_girth", "bust_girth"),
            )
        )


# ---------------------------------------------------------------- neck


def _necklines(sums: Worksheet, frame: _Frame, tell: Tell) -> tuple[float, Curve, Curve]:
    """Return the height of the neck pit and the two neck curves, from neck point to centre."""
    nape = (0.0, sums["back_waist_length"])
    back = necklines.neckline(frame.back.neck_point, frame.back.below_shoulder, nape, necklines.BACK)
    aim = sums["neck_girth"] / 2 + sums["neck_ease"]
    x, y = frame.front.neck_point

    def front(depth: float) -> Curve:
        return necklines.neckline((x, y), frame.front.below_shoulder, (0.0, y - depth), necklines.FRONT)

    def missed(depth: float) -> float:
        return front(depth).length + back.length - aim

    low, high = NECK_DEPTHS[0] * x, NECK_DEPTHS[1] * x
    if missed(low) > 0:
        depth = low
    elif missed(high) < 0:
        depth = high
    else:
        depth = float(brentq(missed, low, high, xtol=1e-10))
    sums.settle("neck_depth", depth)
    depth = sums["neck_depth"]
    residual = missed(depth)
    sums.settle("neck_depth", depth, residual=residual)
    if abs(residual) > 0.5:
        tell(
            Notice(
                "neck-misses-girth",
                f"The neckline measures {2 * (aim + residual):.1f} cm for a neck of {sums['neck_girth']:.1f} cm.",
                ("neck_girth",),
            )
        )
    return y - depth, front(depth), back


def _front_waist_y(sums: Worksheet, pit: float) -> float:
    if not sums.has("front_waist_length"):
        return 0.0
    return clamp(pit - sums["front_waist_length"], *FRONT_WAIST)


# ---------------------------------------------------------------- waist


@dataclass(frozen=True, slots=True)
class _Waist:
    """The waist of both halves: darts and panels from the centre to the side, and where the side begins."""

    front_darts: tuple[WaistDart, ...]
    back_darts: tuple[WaistDart, ...]
    front_panels: tuple[Curve, ...]
    back_panels: tuple[Curve, ...]
    front_side: Point
    back_side: Point


def _waist(sums: Worksheet, frame: _Frame, front_centre: Point, tell: Tell) -> _Waist:
    """Place the darts and draw the waist line so that it measures waist and ease as sewn.

    A curved line is longer than the straight one: its excess goes into the darts (or, where a piece has none, to the
    other piece's darts, and where there are none at all, to the side seams), until the sum is exact.
    """
    front_intakes, back_intakes = _share_darts(sums)
    level = sums["bust_line_level"]
    take = sums["side_take"]
    cb = sums["centre_back_take"]
    base_front = sums["front_width"] - sum(front_intakes)
    base_back = sums["back_width"] + sums["centre_back_at_bust"] - cb - sum(back_intakes)
    aims = (base_front - take, base_back - take)
    slant = 0.75 * sums["back_waist_length"]
    down_back = unit((-cb, slant))
    extra = [0.0, 0.0]
    sides = 0.0
    for _ in range(40):
        c = take + sides
        up_side = unit((c, level))
        front_side = (sums["front_width"] - c, 0.0)
        back_side = (sums["back_width"] + sums["centre_back_at_bust"] - c, 0.0)
        front_darts = _front_darts(sums, _grown(front_intakes, extra[0]), front_side[0], frame)
        back_darts = _back_darts(sums, _grown(back_intakes, extra[1]), back_side[0], cb)
        front = waist_panels(front_centre, (1.0, 0.0), front_side, up_side, front_darts)
        back = waist_panels((cb, 0.0), (down_back[1], -down_back[0]), back_side, up_side, back_darts)
        over_front = sum(panel.length for panel in front) - aims[0]
        over_back = sum(panel.length for panel in back) - aims[1]
        if front_darts and back_darts:
            extra = [extra[0] + over_front, extra[1] + over_back]
            missed = max(abs(over_front), abs(over_back))
        else:
            both = over_front + over_back
            missed = abs(both)
            if front_darts:
                extra[0] += both
            elif back_darts:
                extra[1] += both
            else:
                sides += both / 2
        if missed < 1e-9:
            break
    _refuse_crowded(sums, front, back)
    sums.settle("front_waist_curve", extra[0] if front_darts else sides, residual=over_front)
    sums.settle("back_waist_curve", extra[1] if back_darts else sides, residual=over_back)
    largest = max((dart.intake for dart in (*front_darts, *back_darts)), default=0.0)
    if largest > 5:
        tell(
            Notice(
                "too-much-shaping",
                f"A waist dart takes in {largest:.1f} cm: too much shaping for darts, panels would sit better.",
                ("waist_girth", "bust_girth"),
            )
        )
    return _Waist(tuple(front_darts), tuple(back_darts), tuple(front), tuple(back), front_side, back_side)


def _share_darts(sums: Worksheet) -> tuple[list[float], list[float]]:
    front, back = sums["front_dart_intake"], sums["back_dart_intake"]
    if sums["darts_together"] <= 1e-9 or sums["waist_shaping"] < 2:
        return [], []
    if front < sums["smallest_dart"]:
        front, back = 0.0, front + back
    elif back < sums["smallest_dart"]:
        front, back = front + back, 0.0
    # What the smallest dart hands over may still be too little for one dart: it is sewn all the same, since the
    # waist must be met.
    return (
        intakes(front, largest=sums["largest_front_dart"], smallest=1e-9),
        intakes(back, largest=sums["largest_back_dart"], smallest=1e-9),
    )


def _grown(shares: list[float], extra: float) -> list[float]:
    return [share + extra / len(shares) for share in shares]


def _front_darts(sums: Worksheet, shares: list[float], side_x: float, frame: _Frame) -> list[WaistDart]:
    first = sums["apex_x"]
    tip = sums["apex_level"] - sums["dart_set_back"]
    below_mouth = _bust_mouths(sums, frame.angle)[0] - 2
    step = (side_x - first) / len(shares) if shares else 0.0
    return [
        WaistDart(first + i * step, tip if i == 0 else min(tip, below_mouth), share) for i, share in enumerate(shares)
    ]


def _back_darts(sums: Worksheet, shares: list[float], side_x: float, cb: float) -> list[WaistDart]:
    tip = min(sums["bust_line_level"], sums["apex_level"] + 1)
    first = max(sums["across_back"] / 4, cb + (shares[0] if shares else 0.0) / 2 + NARROWEST_PANEL)
    step = (side_x - first) / len(shares) if shares else 0.0
    return [WaistDart(first + i * step, tip - 2 * i, share) for i, share in enumerate(shares)]


def _refuse_crowded(sums: Worksheet, front: list[Curve], back: list[Curve]) -> None:
    narrowest = min(panel.end[0] - panel.start[0] for panel in (*front, *back))
    if narrowest < NARROWEST_PANEL:
        raise DraftRefused(
            f"The waist darts leave a strip of only {narrowest:.1f} cm between them: the bust is "
            f"{sums['bust_girth'] - sums['waist_girth']:.1f} cm larger than the waist.",
            mend="Retake bust and waist; for such a shape use panels instead of darts.",
            where=("waist_girth", "bust_girth", "apex_span"),
        )


def _bust_mouths(sums: Worksheet, angle: float) -> tuple[float, ...]:
    """Return the heights of the bust dart mouths on the shut side seam, from below."""
    if angle == 0.0:
        return (sums["underarm_level"],)
    top = sums["underarm_level"] - 3.5
    middle = clamp(sums["apex_level"] - 2, 4, top)
    if angle <= SPLIT_FROM:
        return (middle,)
    upper = min(middle + SPLIT_APART / 2, top + 2)
    return (max(upper - SPLIT_APART, 2.0), upper)


# ---------------------------------------------------------------- pieces


def _front(sums: Worksheet, frame: _Frame, pit: float, neck: Curve, centre: Point, waist: _Waist) -> Piece:
    part = "front"
    apex = (sums["apex_x"], sums["apex_level"])
    edges: list[Edge] = [
        Edge(Role.CENTRE_FRONT, "front.centre", "front.neck_cf", "front.waist_cf", straight((0.0, pit), centre))
    ]
    set_back = sums["dart_set_back"]
    pivots = [apex if i == 0 else (dart.x, dart.tip) for i, dart in enumerate(waist.front_darts)]
    darts = _waist_edges(part, "waist_cf", edges, waist.front_panels, waist.front_darts, pivots, set_back)
    side = _front_side(sums, frame, waist, apex, set_back, edges)
    darts += side
    edges += [
        Edge(Role.ARMHOLE, "front.armhole", "front.underarm", "front.shoulder_tip", frame.front.armhole),
        Edge(
            Role.SHOULDER,
            "front.shoulder",
            "front.shoulder_tip",
            "front.neck_shoulder",
            straight(frame.front.tip, frame.front.neck_point),
        ),
        Edge(Role.NECK, "front.neck", "front.neck_shoulder", "front.neck_cf", neck),
    ]
    return Piece(
        name="bodice_front",
        title="Bodice front",
        part=part,
        cut=1,
        on_fold="front.centre",
        grain=((0.45 * apex[0], 0.15 * apex[1]), (0.45 * apex[0], pit - 3)),
        edges=tuple(edges),
        darts=tuple(darts),
        marks=MappingProxyType({"apex": apex}),
        lines=_front_bust_line(sums, frame, apex),
        notches=(
            Notch(
                Span("front.underarm", "front.shoulder_tip", "front.armhole"),
                0.36 * frame.front.armhole.length,
                NotchKind.SINGLE,
            ),
        ),
    )


def _waist_edges(
    part: str,
    centre: str,
    edges: list[Edge],
    panels: tuple[Curve, ...],
    placed: tuple[WaistDart, ...],
    pivots: list[Point],
    set_back: float,
) -> list[Intake]:
    """Add the waist panels with their darts' legs to the ring; return the darts."""
    darts: list[Intake] = []
    start = f"{part}.{centre}"
    for i, panel in enumerate(panels):
        if i == len(placed):
            edges.append(Edge(Role.WAIST, f"{part}.waist", start, f"{part}.waist_side", panel))
            break
        number = "" if i == 0 else str(i + 1)
        a, b, tip = (f"{part}.waist{number}_{end}" for end in ("a", "b", "tip"))
        edges.append(Edge(Role.WAIST, f"{part}.waist", start, a, panel))
        dart = Intake(
            name=f"{part}.waist_dart" + (f"_{number}" if number else ""),
            family="waist",
            pivot=pivots[i],
            set_back=pivots[i][1] - placed[i].tip,
            mouth=(a, b),
            tip=tip,
        )
        edges.extend(legs(dart, panel.end, panels[i + 1].start))
        darts.append(dart)
        start = b
    return darts


def _front_side(
    sums: Worksheet, frame: _Frame, waist: _Waist, apex: Point, set_back: float, edges: list[Edge]
) -> list[Intake]:
    """Add the side seam with the bust dart turned open in it; return the darts."""
    low, top = waist.front_side, frame.closed_underarm

    def on_side(y: float) -> Point:
        return between(low, top, (y - low[1]) / (top[1] - low[1]))

    if frame.angle == 0.0:
        edges.append(
            Edge(
                Role.SIDE,
                "front.side",
                "front.waist_side",
                "front.underarm",
                straight(low, frame.front.underarm),
            )
        )
        return []
    mouths = _bust_mouths(sums, frame.angle)
    turn_each = radians(frame.angle) / len(mouths)
    darts: list[Intake] = []
    start_name, start = "front.waist_side", low
    for i, y in enumerate(mouths):
        number = "" if i == 0 else str(i + 1)
        dart = Intake(
            name="front.bust_dart" + (f"_{number}" if number else ""),
            family="bust",
            pivot=apex,
            set_back=set_back,
            mouth=(f"front.bust{number}_a", f"front.bust{number}_b"),
            tip=f"front.bust{number}_tip",
        )
        a = Motion.turning(i * turn_each, about=apex)(on_side(y))
        b = Motion.turning((i + 1) * turn_each, about=apex)(on_side(y))
        edges.append(Edge(Role.SIDE, "front.side", start_name, dart.mouth[0], straight(start, a)))
        edges.extend(legs(dart, a, b))
        darts.append(dart)
        start_name, start = dart.mouth[1], b
    edges.append(Edge(Role.SIDE, "front.side", start_name, "front.underarm", straight(start, frame.front.underarm)))
    return darts


def _front_bust_line(sums: Worksheet, frame: _Frame, apex: Point) -> tuple[LevelLine, ...]:
    y = sums["bust_line_level"]
    end = (sums["front_width"], y)
    if frame.angle == 0.0:
        return (LevelLine("bust", ((0.0, y), end)),)
    opening = Motion.turning(radians(frame.angle), about=apex)
    if y == apex[1]:
        return (LevelLine("bust", ((0.0, y), apex, opening(end))),)
    # Off the bust point the line is in two parts: the outer one has turned with the side.
    middle = (apex[0], y)
    return (LevelLine("bust", ((0.0, y), middle)), LevelLine("bust", (opening(middle), opening(end))))


def _back(sums: Worksheet, frame: _Frame, neck: Curve, waist: _Waist) -> Piece:
    part = "back"
    nape, cb = sums["back_waist_length"], sums["centre_back_take"]
    centre_waist = (cb, 0.0)
    edges: list[Edge] = []
    if cb > 0:
        break_point = (0.0, 0.75 * nape)
        edges += [
            Edge(
                Role.CENTRE_BACK,
                "back.centre",
                "back.neck_cb",
                "back.across_cb",
                straight((0.0, nape), break_point),
            ),
            Edge(
                Role.CENTRE_BACK,
                "back.centre",
                "back.across_cb",
                "back.waist_cb",
                straight(break_point, centre_waist),
            ),
        ]
    else:
        edges.append(
            Edge(
                Role.CENTRE_BACK,
                "back.centre",
                "back.neck_cb",
                "back.waist_cb",
                straight((0.0, nape), centre_waist),
            )
        )
    pivots = [(dart.x, dart.tip) for dart in waist.back_darts]
    darts = _waist_edges(part, "waist_cb", edges, waist.back_panels, waist.back_darts, pivots, 0.0)
    half = frame.back
    edges += [
        Edge(
            Role.SIDE,
            "back.side",
            "back.waist_side",
            "back.underarm",
            straight(waist.back_side, half.underarm),
        ),
        Edge(Role.ARMHOLE, "back.armhole", "back.underarm", "back.shoulder_tip", half.armhole),
        Edge(
            Role.SHOULDER,
            "back.shoulder",
            "back.shoulder_tip",
            "back.neck_shoulder",
            straight(half.tip, half.neck_point),
        ),
        Edge(Role.NECK, "back.neck", "back.neck_shoulder", "back.neck_cb", neck),
    ]
    y = sums["bust_line_level"]
    given_back = sums["centre_back_at_bust"]
    return Piece(
        name="bodice_back",
        title="Bodice back",
        part=part,
        cut=2 if cb > 0 else 1,
        on_fold=None if cb > 0 else "back.centre",
        grain=((sums["across_back"] / 8, 0.1 * nape), (sums["across_back"] / 8, 0.7 * nape)),
        edges=tuple(edges),
        darts=tuple(darts),
        lines=(LevelLine("bust", ((given_back, y), (given_back + sums["back_width"], y))),),
        notches=(
            Notch(
                Span("back.underarm", "back.shoulder_tip", "back.armhole"),
                0.36 * half.armhole.length,
                NotchKind.DOUBLE,
            ),
        ),
    )


def _seams(sums: Worksheet) -> tuple[Seam, ...]:
    ease = sums["back_shoulder_ease"]
    return (
        Seam(
            "shoulder",
            (
                (Span("front.neck_shoulder", "front.shoulder_tip", "front.shoulder"),),
                (Span("back.neck_shoulder", "back.shoulder_tip", "back.shoulder"),),
            ),
            (ease, ease),
            "the back is eased in over the middle third",
        ),
        Seam(
            "side",
            (
                (Span("front.waist_side", "front.underarm", "front.side"),),
                (Span("back.waist_side", "back.underarm", "back.side"),),
            ),
            (0.0, 0.0),
        ),
    )


def _intent(sums: Worksheet) -> Intent:
    return Intent(ease=MappingProxyType({"bust": sums["bust_ease"], "waist": sums["waist_ease"]}))


METHOD = Method(
    key="bodice",
    title="Fitted bodice",
    sheet=load_sheet(MEASURING / "estimates.toml", Path(__file__).with_suffix(".toml")),
    requires=(("bust_girth",), ("waist_girth",), ("height", "back_waist_length")),
    draft=draft,
)
