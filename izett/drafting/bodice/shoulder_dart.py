"""The back shoulder dart: short, aimed at the waist dart below it, the shoulder straight with the dart shut."""

from dataclasses import dataclass
from math import atan2, cos, degrees, radians, sin

from izett.geometry.motion import Motion
from izett.geometry.point import Point, add, distance, right_of, scale, subtract, turn, unit
from izett.geometry.root import roots
from izett.rules.worksheet import Worksheet

#: Where on the shoulder it stands, as a share of its length from the neck; its length in cm. Common practice.
PLACE = 0.4
LENGTH = 7.5


@dataclass(frozen=True, slots=True)
class ShoulderDart:
    """A dart in the back shoulder.

    Attributes:
        inner, outer: its mouth, towards the neck and towards the tip.
        pivot: where it ends.
        neck_slope, tip_slope: the slope of the shoulder on either side of it, in degrees.
    """

    inner: Point
    outer: Point
    pivot: Point
    neck_slope: float
    tip_slope: float


def shoulder_dart(sums: Worksheet, neck: Point, slope: float) -> ShoulderDart:
    """Return the dart such that the shoulder, shut, is one straight line of the shoulder's length.

    Args:
        sums: the worksheet.
        neck: the neck point.
        slope: of the line from the neck point to the tip, dart open, in degrees.
    """
    along = (cos(radians(slope)), -sin(radians(slope)))
    across = (-along[1], along[0])
    tip = add(neck, scale(along, sums["back_shoulder"]))
    sewn = sums["back_shoulder"] - sums["shoulder_dart"]
    at = add(neck, scale(along, PLACE * sewn + sums["shoulder_dart"] / 2))
    target = (sums["across_back"] / 4, sums["bust_line_level"])
    axis = unit(subtract(target, at))
    aside = right_of(axis) if axis[1] > 0 else (-axis[1], axis[0])

    def mouth(raised: float, half: float) -> tuple[Point, Point, Point]:
        middle = add(at, scale(across, raised))
        return add(middle, scale(aside, -half)), add(middle, scale(aside, half)), add(middle, scale(axis, LENGTH))

    def missed(raised: float, half: float) -> tuple[float, float]:
        inner, outer, pivot = mouth(raised, half)
        angle = turn(subtract(outer, pivot), subtract(inner, pivot))
        shut = Motion.turning(angle, about=pivot)(tip)
        bend = turn(subtract(inner, neck), subtract(shut, inner))
        return bend, distance(neck, inner) + distance(outer, tip) - sewn

    raised, half = roots(missed, (0.3, sums["shoulder_dart"] / 2))
    inner, outer, pivot = mouth(raised, half)
    return ShoulderDart(inner, outer, pivot, _slope(neck, inner), _slope(outer, tip))


def _slope(a: Point, b: Point) -> float:
    return -degrees(atan2(b[1] - a[1], b[0] - a[0]))
