"""The neckline: one cubic, square to the centre and to the shoulder."""

from izett.geometry.blend import towards_meeting, with_handles
from izett.geometry.curve import Curve, joined
from izett.geometry.point import Point, Vector

#: Shares of the way from the centre and from the neck point to where the tangents meet. Tuned by eye.
BACK = (0.62, 0.55)
#: The front's share at the neck point; the one at the centre is an allowance.
FRONT_AT_NECK = 0.55

#: The tangents must meet at least this share of the width away from the centre, else the curve would hook.
_CLEAR_OF_CENTRE = 0.12


def neckline(neck_point: Point, out_of_shoulder: Vector, centre: Point, fractions: tuple[float, float]) -> Curve:
    """Return the neckline from the neck point to the centre.

    Args:
        neck_point: where it leaves the shoulder.
        out_of_shoulder: direction square to the shoulder, downwards.
        centre: the pit of the neck or the nape, on the centre line.
        fractions: shares of the way to the meeting of the tangents, at the centre and at the neck point.
    """
    at_centre, at_neck = fractions
    curve = towards_meeting(
        neck_point, out_of_shoulder, centre, (1.0, 0.0), start_fraction=at_neck, end_fraction=at_centre,
        least=_CLEAR_OF_CENTRE * (neck_point[0] - centre[0]),
    )  # fmt: skip
    if curve is None:
        width, depth = neck_point[0] - centre[0], neck_point[1] - centre[1]
        curve = with_handles(
            neck_point, out_of_shoulder, centre, (1.0, 0.0), start_handle=0.5 * depth, end_handle=0.5 * width
        )
    return joined([curve])
