"""Curves drawn to meet given ends: square to a seam, through a point, smooth where they join."""

from collections.abc import Callable

from izett.geometry.curve import Cubic, Curve
from izett.geometry.point import Point, Vector, add, between, distance, meeting, scale, subtract, unit


def towards_meeting(
    start: Point,
    leaving: Vector,
    end: Point,
    arriving: Vector,
    *,
    start_fraction: float,
    end_fraction: float,
    least: float = 0.0,
) -> Cubic | None:
    """Return the cubic whose handles point at the meeting of its two end tangents.

    Handles are fractions (0…1) of the way to that meeting point, so that no loop or kink can arise.

    Args:
        start: first point.
        leaving: direction out of the start.
        end: last point.
        arriving: direction out of the end, looking back along its tangent (towards the meeting point).
        start_fraction: share of the way from the start to the meeting point.
        end_fraction: share of the way from the end to the meeting point.
        least: how far ahead (cm) of each end the meeting point must lie.

    Returns:
        The cubic, or None where the tangents do not meet ahead of both ends.
    """
    found = meeting(start, leaving, end, arriving)
    if found is None or min(found) <= least:
        return None
    corner = add(start, scale(leaving, found[0]))
    return (start, between(start, corner, start_fraction), between(end, corner, end_fraction), end)


def with_handles(
    start: Point, leaving: Vector, end: Point, arriving: Vector, *, start_handle: float, end_handle: float
) -> Cubic:
    """Return the cubic with handles of given lengths in cm; `arriving` looks back from the end."""
    return (
        start,
        add(start, scale(unit(leaving), start_handle)),
        add(end, scale(unit(arriving), end_handle)),
        end,
    )


def refitted(
    curve: Curve,
    *,
    start: Point | None = None,
    end: Point | None = None,
    turn_start: Callable[[Vector], Vector] | None = None,
    turn_end: Callable[[Vector], Vector] | None = None,
) -> Curve:
    """Return the curve with an end moved and its tangent turned; the rest of a joined curve stays as it is.

    Only the first or last cubic changes. Its handles grow with its chord, so the character of the line is kept and
    the joints inside the curve stay smooth. A straight line stays straight.

    Args:
        curve: the line as it was.
        start: new first point, or None to keep it.
        end: new last point, or None to keep it.
        turn_start: how the handle at the start turns (a rigid move's `direction`).
        turn_end: the same for the handle at the end.
    """
    if curve.is_straight:
        return Curve((start or curve.start, end or curve.end))
    if start is not None or turn_start is not None:
        curve = _refit_start(curve, start or curve.start, turn_start)
    if end is not None or turn_end is not None:
        curve = _refit_start(curve.reversed(), end or curve.end, turn_end).reversed()
    return curve


def _refit_start(curve: Curve, start: Point, turned: Callable[[Vector], Vector] | None) -> Curve:
    a, b, c, d = curve.points[:4]
    before = distance(a, d)
    growth = distance(start, d) / before if before > 0 else 1.0
    handle = subtract(b, a)
    first = add(start, scale(turned(handle) if turned else handle, growth))
    # The far handle keeps its direction, so that the joint stays smooth; only its length follows the chord.
    second = add(d, scale(subtract(c, d), growth))
    return Curve((start, first, second, *curve.points[3:]))
