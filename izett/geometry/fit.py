"""One smooth curve through marks, as a hip curve is laid along them, and what it leaves of the line it replaces.

The curve is a cubic spline (its bend changes without a jump) through points of the line; scipy does the work.
"""

from collections.abc import Callable, Collection, Sequence
from itertools import pairwise
from math import ceil, floor

import numpy as np
from numpy.typing import NDArray

from izett.geometry.curve import Cubic, Curve, straight
from izett.geometry.outline import farthest_apart
from izett.geometry.point import Point, Vector, add, cross, distance, scale, subtract, unit
from izett.geometry.tolerance import FLATNESS, SAME_POINT

#: cm. Marks on a line that is drawn anew lie about so far apart, and are at least and at most so many.
MARKS_APART = 4.0
LEAST_MARKS, MOST_MARKS = 3, 14
#: Where strips of paper were moved apart, about so many marks are taken on all of them.
MARKS_ON_STRIPS = 5

#: Numbers are counted up or down with this much to spare: halves of a line are equal, whatever their last digit says.
HAIR = 1e-9

#: A plain sweep: rounds in which its marks are assigned anew, places tried for each, and the bounds of its handles as
#: shares of its chord, within which it makes neither a corner nor a loop.
FAIR_ROUNDS, FAIR_STEPS = 6, 201
LEAST_HANDLE, MOST_HANDLE = 0.12, 0.75


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
    count = _marks_on(whole)
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
        count = max(1, floor(MARKS_ON_STRIPS * curve.length / whole + 0.5 + HAIR))
        marks += [curve.at_distance(curve.length * (i + 0.5) / count) for i in range(count)]
    new = through([*marks, end], leaving=curves[0].start_direction, arriving=curves[-1].end_direction)
    old = [point for curve in kept for point in curve.flattened()]
    return new, farthest_apart([old], [new.flattened()])


def fair(curves: Sequence[Curve], *, bridges: Collection[int]) -> tuple[Curve, float]:
    """Return curves that follow on each other as one plain sweep, and how far (cm) it leaves those that are kept.

    One cubic from end to end in the end directions, its two handles by least squares over marks on what is kept: it
    bends once, or turns once, and follows no dent between strips that were moved apart.

    Args:
        curves: the strips and what closes the gaps between them.
        bridges: the numbers of those that only close a gap.
    """
    kept = [curve for i, curve in enumerate(curves) if i not in bridges and curve.length > SAME_POINT]
    start, end = curves[0].start, curves[-1].end
    leaving, arriving = curves[0].start_direction, scale(curves[-1].end_direction, -1.0)
    marks = np.asarray(
        [c.at_distance(c.length * (i + 0.5) / MARKS_ON_STRIPS) for c in kept for i in range(MARKS_ON_STRIPS)]
    )
    chord = distance(start, end)
    handles = np.array([chord / 3, chord / 3])
    ends, ways = np.asarray([start, end]), np.asarray([leaving, arriving])
    for _ in range(FAIR_ROUNDS):
        t = _nearest(Curve(_swept(start, leaving, end, arriving, handles)), marks)
        weights = np.stack([(1 - t) ** 3, 3 * (1 - t) ** 2 * t, 3 * (1 - t) * t**2, t**3])
        fixed = np.outer(weights[0] + weights[1], ends[0]) + np.outer(weights[2] + weights[3], ends[1])
        system = np.stack([np.outer(weights[1], ways[0]).ravel(), np.outer(weights[2], ways[1]).ravel()], axis=1)
        solved, *_ = np.linalg.lstsq(system, (marks - fixed).ravel(), rcond=None)
        handles = np.clip(solved, LEAST_HANDLE * chord, MOST_HANDLE * chord)
    new = Curve(_swept(start, leaving, end, arriving, handles))
    old = [point for curve in kept for point in curve.flattened()]
    return new, farthest_apart([old], [new.flattened()])


def _swept(start: Point, leaving: Vector, end: Point, arriving: Vector, handles: NDArray[np.float64]) -> Cubic:
    return (start, add(start, scale(leaving, float(handles[0]))), add(end, scale(arriving, float(handles[1]))), end)


def _nearest(curve: Curve, marks: NDArray[np.float64]) -> NDArray[np.float64]:
    """Return for each mark the parameter at which a plain cubic is nearest to it."""
    a, b, c, d = (np.asarray(point) for point in curve.points)
    t = np.linspace(0.0, 1.0, FAIR_STEPS)[:, None]
    on = (1 - t) ** 3 * a + 3 * (1 - t) ** 2 * t * b + 3 * (1 - t) * t**2 * c + t**3 * d
    nearest = np.argmin(np.hypot(on[None, :, 0] - marks[:, None, 0], on[None, :, 1] - marks[:, None, 1]), axis=1)
    return np.asarray(t[nearest, 0])


def displaced(curve: Curve, shift: Callable[[float], Vector]) -> Curve:
    """Return the curve with its marks shifted, drawn smooth again; its end directions are kept.

    Args:
        curve: the line.
        shift: where a mark at a share (0…1) of the length is shifted to, as a displacement.
    """
    whole = curve.length
    count = _marks_on(whole)
    shares = [i / (count + 1) for i in range(count + 2)]
    spots = [curve.start, *(curve.at_distance(whole * share) for share in shares[1:-1]), curve.end]
    marks = [add(spot, shift(share)) for spot, share in zip(spots, shares, strict=True)]
    return through(marks, leaving=curve.start_direction, arriving=curve.end_direction)


def _marks_on(length: float) -> int:
    return min(max(ceil(length / MARKS_APART - HAIR), LEAST_MARKS), MOST_MARKS)


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
