"""What lies on the paper while a part of it turns: level lines are parted at the slashes and carried by their part."""

from collections.abc import Iterable
from dataclasses import replace
from itertools import pairwise

from izett.geometry.motion import Motion
from izett.geometry.outline import contains
from izett.geometry.point import Point, between, distance, meeting, subtract
from izett.geometry.tolerance import PARALLEL, SAME_POINT
from izett.pattern.piece import Edge, LevelLine


def region_of(pivot: Point, edges: Iterable[Edge]) -> list[Point]:
    """Return the outline of the paper between a pivot and a run of edges."""
    return [pivot, *(point for edge in edges for point in edge.curve.flattened())]


def carried(
    line: LevelLine, slashes: tuple[tuple[Point, Point], ...], region: list[Point], motion: Motion
) -> list[LevelLine]:
    """Return a level line parted where the slashes cross it, each part carried by the paper that it is drawn on."""
    parts: list[list[Point]] = [[line.points[0]]]
    for a, b in pairwise(line.points):
        for cut in _crossings(a, b, slashes):
            spot = between(a, b, cut)
            parts[-1].append(spot)
            parts.append([spot])
        if parts[-1][-1] != b:
            parts[-1].append(b)
    carried: list[LevelLine] = []
    for part in parts:
        if len(part) < 2:
            continue  # a slash that ends on the line's own end parts nothing off
        moves = contains(region, between(part[0], part[1], 0.5))
        points = tuple(motion(p) if moves else p for p in part)
        if carried and distance(carried[-1].points[-1], points[0]) <= SAME_POINT:
            points = (*carried.pop().points, *points[1:])
        carried.append(replace(line, points=points))
    return carried


def _crossings(a: Point, b: Point, slashes: tuple[tuple[Point, Point], ...]) -> list[float]:
    found: list[float] = []
    for start, end in slashes:
        met = meeting(a, subtract(b, a), start, subtract(end, start))
        if met is not None and PARALLEL < met[0] < 1 - PARALLEL and -PARALLEL <= met[1] <= 1:
            found.append(met[0])
        # A line that has the pivot as its corner is parted there, since its two halves may part.
        elif distance(start, b) == 0.0 and not found:
            found.append(1.0)
    return sorted(set(found))
