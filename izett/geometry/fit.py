"""One smooth curve through marks, as a hip curve is laid along them, and what it leaves of the line it replaces.

The curve is a cubic spline (its bend changes without a jump) through points of the line; scipy does the work.
"""

from collections.abc import Callable, Collection, Sequence
from itertools import pairwise
from math import ceil

import numpy as np

from izett.geometry.curve import Curve, straight
from izett.geometry.outline import farthest_apart
from izett.geometry.point import Point, Vector, add, between, cross, distance, scale, subtract, unit
from izett.geometry.tolerance import FLATNESS, SAME_POINT

#: cm. Marks on a line that is drawn anew lie about so far apart, and are at least and at most so many.
MARKS_APART = 4.0
LEAST_MARKS, MOST_MARKS = 3, 14
#: Where strips of paper were moved apart, about so many marks are taken on all of them.
MARKS_ON_STRIPS = 5


def through(points: Sequence[Point], *, leaving: Vector, arriving: Vector) -> Curve:
    """Return the smooth curve through points (each apart from the next), with given directions at its two ends."""
    # scipy takes long to import: only a program that joins curves waits for it.
    from scipy.interpolate import CubicSpline  # noqa: PLC0415

    gaps = [distance(a, b) for a, b in pairwise(points)]
    at = np.concatenate(([0.0], np.cumsum(gaps)))
    spline = CubicSpline(at, np.asarray(points), bc_type=((1, unit(leaving)), (1, unit(arriving))))
    speeds = spline(at, 1)
    controls: list[Point] = [points[0]]
    for i, gap in enumerate(gaps):
        a, b = ((float(x), float(y)) for x, y in (speeds[i], speeds[i + 1]))
        controls += [
            add(points[i], scale(a, gap / 3)),
            add(points[i + 1], scale(b, -gap / 3)),
            points[i + 1],
        ]
    return Curve(tuple(controls))


def smoothed(curves: Sequence[Curve], *, bridges: Collection[int] = ()) -> tuple[Curve, float]:
    """Return curves that follow on each other, drawn as one smooth line, and how far (cm) it leaves them at most.

    Both ends and their directions are kept; straight lines in one direction stay a straight line. Of `bridges` (the
    numbers of those curves that only close a gap) nothing is kept: the line is free to swing over them.
    """
    if bridges:
        return _swung(curves, bridges)
    parts = [curve for curve in curves if distance(curve.start, curve.end) > SAME_POINT]
    if len(parts) == 1:
        return parts[0], 0.0
    start, end = parts[0].start, parts[-1].end
    if _one_line(parts):
        return straight(start, end), 0.0
    lengths = [curve.length for curve in parts]
    whole = sum(lengths)
    count = min(max(ceil(whole / MARKS_APART), LEAST_MARKS), MOST_MARKS)
    marks = [start, *(_at(parts, lengths, whole * i / (count + 1)) for i in range(1, count + 1)), end]
    new = through(marks, leaving=parts[0].start_direction, arriving=parts[-1].end_direction)
    old = [point for curve in parts for point in curve.flattened()]
    return new, farthest_apart([old], [new.flattened()])


def _swung(curves: Sequence[Curve], bridges: Collection[int]) -> tuple[Curve, float]:
    kept = [curve for i, curve in enumerate(curves) if i not in bridges and curve.length > SAME_POINT]
    start, end = curves[0].start, curves[-1].end
    whole = sum(curve.length for curve in kept)
    marks = [start]
    for curve in kept:
        count = max(1, round(MARKS_ON_STRIPS * curve.length / whole))
        marks += [curve.at_distance(curve.length * (i + 0.5) / count) for i in range(count)]
    new = through([*marks, end], leaving=curves[0].start_direction, arriving=curves[-1].end_direction)
    old = [point for curve in kept for point in curve.flattened()]
    return new, farthest_apart([old], [new.flattened()])


def displaced(curve: Curve, shift: Callable[[float], Vector]) -> Curve:
    """Return the curve with its marks shifted, drawn smooth again; its end directions are kept.

    Args:
        curve: the line.
        shift: where a mark at a share (0…1) of the length is shifted to, as a displacement.
    """
    whole = curve.length
    count = min(max(ceil(whole / MARKS_APART), LEAST_MARKS), MOST_MARKS)
    shares = [i / (count + 1) for i in range(count + 2)]
    spots = [curve.start, *(curve.at_distance(whole * share) for share in shares[1:-1]), curve.end]
    marks = [add(spot, shift(share)) for spot, share in zip(spots, shares, strict=True)]
    return through(marks, leaving=curve.start_direction, arriving=curve.end_direction)


def _one_line(curves: Sequence[Curve]) -> bool:
    along = unit(subtract(curves[-1].end, curves[0].start))
    return all(
        curve.is_straight and abs(cross(along, subtract(curve.end, curves[0].start))) <= FLATNESS for curve in curves
    )


def _at(curves: Sequence[Curve], lengths: Sequence[float], along: float) -> Point:
    for curve, length in zip(curves, lengths, strict=True):
        if along <= length:
            return curve.at_distance(along)
        along -= length
    return curves[-1].end


def rounded(points: Sequence[Point], reach: float) -> Curve:
    """Return the line through points that runs smoothly through every inner corner.

    Args:
        points: corners; the line passes through all of them.
        reach: how far (cm) before and after a corner it may leave the straight; never more than 0.48 of a side.
    """
    if len(points) == 2:
        return straight(points[0], points[1])
    controls: list[Point] = [points[0]]
    for before, corner, after in zip(points, points[1:], points[2:], strict=False):
        arriving, leaving = unit(subtract(corner, before)), unit(subtract(after, corner))
        along = unit(add(arriving, leaving))
        room = min(reach, 0.48 * distance(before, corner), 0.48 * distance(corner, after))
        first, second = add(corner, scale(arriving, -room)), add(corner, scale(leaving, room))
        controls += [between(controls[-1], first, 1 / 3), between(controls[-1], first, 2 / 3), first]
        controls += [add(first, scale(arriving, room / 3)), add(corner, scale(along, -room / 3)), corner]
        controls += [add(corner, scale(along, room / 3)), add(second, scale(leaving, -room / 3)), second]
    controls += [between(controls[-1], points[-1], 1 / 3), between(controls[-1], points[-1], 2 / 3), points[-1]]
    return Curve(tuple(controls))
