"""What lies on the paper while a part of it turns: level lines are parted at the slashes and carried by their part."""

from collections.abc import Iterable
from dataclasses import replace
from itertools import pairwise

from izett.geometry.motion import Motion
from izett.geometry.outline import contains
from izett.geometry.point import Point, between, distance, meeting, subtract
from izett.geometry.tolerance import PARALLEL, SAME_POINT
from izett.pattern.piece import Edge, LevelLine

#: cm. Parts that end so near to each other meet: on the legs of a dart that was closed.
SAME_PLACE = 1e-3


def region_of(pivot: Point, edges: Iterable[Edge]) -> list[Point]:
    """Return the outline of the paper between a pivot and a run of edges."""
    return [pivot, *(point for edge in edges for point in edge.curve.flattened())]


def carried(
    lines: Iterable[LevelLine], slashes: tuple[tuple[Point, Point], ...], region: list[Point], motion: Motion
) -> tuple[LevelLine, ...]:
    """Return level lines parted where the slashes cross them, each part carried by the paper that it is drawn on.

    Parts of a level that meet on the moved paper are one again.
    """
    found: list[LevelLine] = []
    for line in lines:
        for part in _parted(line, slashes):
            moves = contains(region, between(part[0], part[1], 0.5))
            now = replace(line, points=tuple(motion(p) if moves else p for p in part))
            if found and found[-1].level == now.level and distance(found[-1].points[-1], now.points[0]) <= SAME_PLACE:
                now = replace(now, points=(*found.pop().points, *now.points[1:]))
            found.append(now)
    return tuple(found)


def _parted(line: LevelLine, slashes: tuple[tuple[Point, Point], ...]) -> list[list[Point]]:
    parts: list[list[Point]] = [[line.points[0]]]
    for a, b in pairwise(line.points):
        for cut in _crossings(a, b, slashes):
            spot = between(a, b, cut)
            parts[-1].append(spot)
            parts.append([spot])
        if parts[-1][-1] != b:
            parts[-1].append(b)
    # A slash that ends on the line's own end parts nothing off, and what lies in the bust point has no length.
    return [part for part in parts if len(part) > 1 and max(distance(part[0], spot) for spot in part) > SAME_PLACE]


def _crossings(a: Point, b: Point, slashes: tuple[tuple[Point, Point], ...]) -> list[float]:
    found: list[float] = []
    for start, end in slashes:
        met = meeting(a, subtract(b, a), start, subtract(end, start))
        if met is not None and PARALLEL < met[0] < 1 - PARALLEL and -PARALLEL <= met[1] <= 1:
            found.append(met[0])
        # A line that has the pivot as its corner is parted there, since its two halves may part.
        elif distance(start, b) <= SAME_POINT and not found:
            found.append(1.0)
    return sorted(set(found))
