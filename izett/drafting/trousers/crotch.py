"""The crotch curve: from the centre seam into the fork, as deep in its corner as a maker checks it there.

The depth is read on the corner's bisector: 2.5 to 3.5 cm in front, 4 to 5 behind (common practice). The curve leaves
the centre seam along it and meets the inseam squarely, so that it runs on smoothly from front to back.
"""

from dataclasses import dataclass
from itertools import pairwise

from izett.geometry.blend import towards_meeting, with_handles
from izett.geometry.curve import Curve, joined
from izett.geometry.point import Point, Vector, add, between, cross, distance, dot, scale, subtract, unit
from izett.geometry.root import root

#: How far towards the meeting of its tangents the curve's handles may reach: flatter is no curve, fuller a corner.
HANDLES = (0.25, 0.95)
#: How far they reach where the curve is round all along.
ROUND = 0.4
#: Fineness of the search along the bisector, cm.
_FLAT = 0.005


@dataclass(frozen=True, slots=True)
class Corner:
    """The corner between centre seam and crotch level (y growing downwards).

    Attributes:
        at: where the two lines meet.
        up: direction up the centre seam.
    """

    at: Point
    up: Vector

    @property
    def bisector(self) -> Vector:
        """The direction into the corner's angle, towards the body."""
        return unit(add(self.up, (-1.0, 0.0)))


def crotch_curve(tops: tuple[Point, Point], fork: Point, into: Vector, corner: Corner, depth: float) -> Curve:
    """Return the curve from the centre seam to the fork, `depth` cm from the corner where that can be drawn.

    It leaves the seam as low as it may, unless it would be nearly straight there and turn sharply at both ends: then it
    leaves higher up.

    Args:
        tops: the lowest and the highest place where it may leave the centre seam.
        fork: where it ends.
        into: direction out of the fork, square to the inseam.
        corner: of centre seam and crotch level.
        depth: from the corner to the curve along the bisector, cm.
    """
    down = scale(corner.up, -1.0)

    def at(share: float, raised: float) -> Curve:
        top = between(*tops, raised)
        cubic = towards_meeting(top, down, fork, into, start_fraction=share, end_fraction=share)
        third = share * distance(top, fork) / 1.5
        return joined([cubic or with_handles(top, down, fork, into, start_handle=third, end_handle=third)])

    def missed(share: float, raised: float) -> float:
        return corner_depth(at(share, raised), corner) - depth

    raised = 0.0
    if missed(ROUND, 0.0) < 0:
        raised = 1.0 if missed(ROUND, 1.0) <= 0 else root(lambda by: missed(ROUND, by), 0.0, 1.0, within=1e-6)
    low, high = HANDLES
    if missed(low, raised) <= 0:
        return at(low, raised)
    if missed(high, raised) >= 0:
        return at(high, raised)
    return at(root(lambda share: missed(share, raised), low, high, within=1e-6), raised)


def corner_depth(curve: Curve, corner: Corner) -> float:
    """Return how far a crotch curve stays from its corner, read along the bisector, cm."""
    ray = corner.bisector
    for a, b in pairwise(curve.flattened(flatness=_FLAT)):
        side_a, side_b = cross(ray, subtract(a, corner.at)), cross(ray, subtract(b, corner.at))
        if side_a == side_b or side_a * side_b > 0:
            continue
        share = side_a / (side_a - side_b)
        return dot(ray, subtract(add(a, scale(subtract(b, a), share)), corner.at))
    return min(distance(point, corner.at) for point in curve.flattened())
