"""The bust dart's angle, by the school that the taken measures allow: length, cup, or proportion."""

from math import asin, atan2, cos, degrees, hypot, radians, sin

from izett.drafting.method import Notice
from izett.rules.formula import clamp
from izett.rules.worksheet import Worksheet

#: Degrees. A smaller bust dart is not worth sewing; a larger one no cloth takes in one place.
SMALLEST_DART, LARGEST_DART = 2.0, 40.0
#: Degrees. A larger bust dart is split in two, and the mouths of the two lie this far apart (cm).
SPLIT_FROM, SPLIT_APART = 26.0, 4.0
#: How far the implied balance may leave its formula before the dart is worked out from the lengths (cm).
BALANCE_SLACK = 1.5


def settle_bust_dart(sums: Worksheet, notices: list[Notice]) -> float:
    """Find the bust dart's angle by the school that the taken measures allow; return it in degrees."""
    way = sums.school("bust_dart")
    both_lengths = sums.has("front_length") and sums.has("back_waist_length")
    by_length = way == "length" or (way == "taken" and both_lengths)
    if by_length:
        angle = _angle_by_length(sums, sums["balance"])
        school = "front and back agree in length with the dart shut"
    else:
        by_cup = way == "cup" or (way == "taken" and sums.has("high_bust_girth"))
        angle = sums["dart_by_cup"] if by_cup else sums["dart_by_proportion"]
        school = f"it is the dart by the {'cup difference' if by_cup else 'proportion'}"
        if sums.has("front_length"):
            implied = _rise(sums, angle) - _front_longer(sums)
            held = clamp(implied, sums["balance"] - BALANCE_SLACK, sums["balance"] + BALANCE_SLACK)
            if held != implied:
                angle = _angle_by_length(sums, held)
                school += ", held to the front length"
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
    sums.settle("bust_dart_angle", drawn, condition=school)
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


def bust_mouths(sums: Worksheet, angle: float) -> tuple[float, ...]:
    """Return the heights of the bust dart mouths on the shut side seam, from below."""
    if angle == 0.0:
        return (sums["underarm_level"],)
    top = sums["underarm_level"] - 3.5
    middle = clamp(sums["apex_level"] - 2, 4, top)
    if angle <= SPLIT_FROM:
        return (middle,)
    upper = min(middle + SPLIT_APART / 2, top + 2)
    return (max(upper - SPLIT_APART, 2.0), upper)
