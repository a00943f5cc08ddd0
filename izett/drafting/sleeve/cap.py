"""The sleeve cap: each half two cubics from the crown to the underarm, through the place where the cap is fullest.

It is level at the crown and square to the underarm seam at its end; in between it runs steeper than the straight line
from crown to underarm. Fractions are shares of the way to where the tangents meet, so that no loop or kink can arise.
The back is fuller above and the front more scooped below: common practice; the figures are tuned by eye.
"""

from dataclasses import dataclass
from math import atan2, cos, degrees, radians, sin

from izett.geometry.blend import towards_meeting, with_handles
from izett.geometry.curve import Cubic, Curve, joined
from izett.geometry.point import Point, Vector, between, distance

#: Degrees. How steep the cap may run at its fullest place, and the share of the way to upright that it may take.
STEEPEST, TOWARDS_UPRIGHT = 80.0, 0.6


@dataclass(frozen=True, slots=True)
class CapShape:
    """How a half of a cap is drawn.

    Attributes:
        fullest: where the cap is fullest, as a share of the way from the crown to the underarm.
        steeper: by how much it runs steeper there than that way, degrees.
        upper: share of the way to the tangents' meeting, above that place (both handles).
        lower: the same below it, at that place and at the underarm.
    """

    fullest: float
    steeper: float
    upper: float
    lower: tuple[float, float]


def cap_half(height: float, width: float, into_end: Vector, shape: CapShape) -> Curve:
    """Return half a cap, from the crown at (0, height) to the underarm at (width, 0); the other half is its mirror.

    Args:
        height: of the crown over the underarm, cm.
        width: of the half at the underarm, cm.
        into_end: direction square to the underarm seam at the end, into the sleeve.
        shape: how it is drawn.
    """
    crown, end = (0.0, height), (width, 0.0)
    fullest = between(crown, end, shape.fullest)
    straight = degrees(atan2(height, width))
    steep = radians(min(straight + shape.steeper, STEEPEST, straight + TOWARDS_UPRIGHT * (90 - straight)))
    down = (cos(steep), -sin(steep))
    up = (-down[0], -down[1])
    upper = towards_meeting(
        crown, (1.0, 0.0), fullest, up, start_fraction=shape.upper, end_fraction=shape.upper
    ) or _arc(crown, (1.0, 0.0), fullest, up)
    lower = towards_meeting(
        fullest, down, end, into_end, start_fraction=shape.lower[0], end_fraction=shape.lower[1]
    ) or _arc(fullest, down, end, into_end)
    return joined([upper, lower])


def _arc(start: Point, leaving: Vector, end: Point, arriving: Vector) -> Cubic:
    third = distance(start, end) / 3
    return with_handles(start, leaving, end, arriving, start_handle=third, end_handle=third)
