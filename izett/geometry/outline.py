"""Closed outlines: area, validity, parallel lines. Shapely does the work; this module is its only user for them."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
import shapely
import shapely.ops
from shapely import LineString, Polygon
from shapely import Point as ShapelyPoint
from shapely.validation import explain_validity

from izett.geometry.point import Point, add, cross, distance, meeting, right_of, scale, subtract, unit
from izett.geometry.tolerance import SAME_POINT, SHORTEST_CHORD

#: Prolonged lines that cross farther off than so many times what their ends lie apart have no corner there: they run on.
OF_CORNER = 3.0
#: Fewer corners enclose nothing.
LEAST_CORNERS = 3


def signed_area(points: Sequence[Point]) -> float:
    """Return the area in cm² of a closed polygon: positive where it runs counter-clockwise."""
    closed = [*points, points[0]]
    return sum(cross(a, b) for a, b in pairwise(closed)) / 2


def crossing(points: Sequence[Point]) -> Point | None:
    """Return a point where a closed outline crosses itself, or None where it is sound."""
    if bool(shapely.is_simple(shapely.linearrings(np.asarray(points)))):
        return None
    ring = without_repeats(points)
    while len(ring) > 1 and distance(ring[0], ring[-1]) <= SHORTEST_CHORD:
        ring.pop()
    if len(ring) < LEAST_CORNERS:
        return points[0]
    words = explain_validity(Polygon(ring))
    if "[" in words:
        x, y = words[words.index("[") + 1 : words.index("]")].split()[:2]
        return (float(x), float(y))
    return points[0]


def region(points: Sequence[Point]) -> Polygon:
    """Return what a closed outline encloses, to be asked more than once."""
    return shapely.polygons(np.asarray(points))


def contains(paper: Sequence[Point] | Polygon, point: Point) -> bool:
    """Return whether a point lies inside a closed outline, or the region that it encloses."""
    return bool(shapely.contains_xy(paper if isinstance(paper, Polygon) else region(paper), *point))


def covers(points: Sequence[Point], paper: Polygon) -> bool:
    """Return whether a closed outline holds a region, but for a hair along its edge."""
    outline = shapely.buffer(region(points), SAME_POINT, join_style="mitre")
    return bool(shapely.covers(outline, paper))


def runs_inside(points: Sequence[Point], line: Sequence[Point], *, clear: float) -> bool:
    """Return whether a line from edge to edge lies inside a closed outline, its middle `clear` cm away from it."""
    paper, drawn = Polygon(np.asarray(points)), _line(line)
    middle = shapely.ops.substring(drawn, 0.1, 0.9, normalized=True)
    inside = bool(shapely.covers(shapely.buffer(paper, clear / 10), drawn))
    return inside and float(shapely.distance(shapely.boundary(paper), middle)) >= clear


def runs_within(paper: Sequence[Point] | Polygon, line: Sequence[Point]) -> list[list[Point]]:
    """Return the parts of a polyline that lie inside a closed outline, or a region, in order along it."""
    whole = paper if isinstance(paper, shapely.Geometry) else Polygon(np.asarray(paper)).buffer(0)
    inside = shapely.intersection(whole, _line(line))
    merged = shapely.line_merge(inside)
    return [
        [(float(x), float(y)) for x, y in part.coords]
        for part in shapely.get_parts(merged)
        if isinstance(part, LineString) and part.length > SHORTEST_CHORD
    ]


def apart_from(ring: Sequence[Point], other: Sequence[Point]) -> list[list[Point]]:
    """Return the parts of a closed outline that do not lie on another one, in order along it."""
    there = _line([*other, other[0]]).buffer(SAME_POINT)
    left = shapely.line_merge(_line([*ring, ring[0]]).difference(there))
    return [
        [(float(x), float(y)) for x, y in part.coords]
        for part in shapely.get_parts(left)
        if isinstance(part, LineString) and part.length > SHORTEST_CHORD
    ]


def united(outlines: Sequence[Sequence[Point]]) -> list[Point]:
    """Return the outline around closed outlines that overlap, counter-clockwise; of separate parts the largest."""
    whole = shapely.union_all([Polygon(np.asarray(outline)).buffer(0) for outline in outlines])
    largest = max(getattr(whole, "geoms", [whole]), key=lambda part: part.area)
    return [(float(x), float(y)) for x, y in shapely.orient_polygons(largest).exterior.coords[:-1]]


def without_repeats(points: Sequence[Point]) -> list[Point]:
    """Return a line's points without neighbours that coincide."""
    kept: list[Point] = []
    for point in points:
        if not kept or distance(kept[-1], point) > SHORTEST_CHORD:
            kept.append(point)
    return kept


def parallel(points: Sequence[Point], offset: float) -> list[Point]:
    """Return the polyline `offset` cm to the right of `points` (outside of a counter-clockwise ring).

    Its ends lie square to the ends of the given line.
    """
    if abs(offset) <= SHORTEST_CHORD:
        return list(points)
    if len(points) == 2:
        aside = scale(right_of(unit(subtract(points[1], points[0]))), offset)
        return [add(points[0], aside), add(points[1], aside)]
    line = _line(points)
    moved = line.offset_curve(-offset, join_style="mitre", mitre_limit=4.0)

    def along(spot: Point) -> float:
        return float(line.project(ShapelyPoint(spot)))

    # A hair of an inner corner (a closed dart's mouth) parts the parallel line in two, and a part may come back walked
    # the other way: the parts are put in the order of the given line.
    parts = [[(float(x), float(y)) for x, y in part.coords] for part in getattr(moved, "geoms", [moved])]
    ordered = [part if along(part[0]) <= along(part[-1]) else part[::-1] for part in parts if part]
    ordered.sort(key=lambda part: along(part[0]))
    return [spot for part in ordered for spot in part]


@dataclass(frozen=True, slots=True)
class CornerCut:
    """How two lines meet at a corner: `before` ends and `after` begins so far (cm) along, with `points` between them."""

    before: float
    after: float
    points: tuple[Point, ...]


def corner_between(before: Sequence[Point], after: Sequence[Point], *, limit: float) -> CornerCut:
    """Return how two lines meet at their clean corner.

    Both are prolonged straight by up to `limit` cm; they are cut where the prolonged lines cross nearest to the
    corner. Lines that do not cross within the limit are joined square, so that no spike arises; and so are those that
    run on with another allowance, which step there.
    """
    one, other = _line(before), _line(after)
    end, start = before[-1], after[0]
    if distance(end, start) <= SHORTEST_CHORD:
        return CornerCut(one.length, 0.0, ())
    leaving, arriving = unit(subtract(end, before[-2])), unit(subtract(start, after[1]))
    met = meeting(end, leaving, start, arriving)
    if met is not None and min(met) >= 0 and max(met) <= limit:
        return CornerCut(one.length, 0.0, (add(end, scale(leaving, met[0])),))
    # An inner corner, or lines that pass each other: cut where the prolonged lines cross.
    ahead, behind = add(end, scale(leaving, limit)), add(start, scale(arriving, limit))
    crossed = _line([*before, ahead]).intersection(_line([behind, *after]))
    spots = [(float(x), float(y)) for part in getattr(crossed, "geoms", [crossed]) for x, y in part.coords]
    cut = min(spots, key=lambda spot: distance(spot, end) + distance(spot, start), default=None)
    if cut is None or max(distance(cut, end), distance(cut, start)) > OF_CORNER * distance(end, start):
        return CornerCut(one.length, 0.0, ())
    return CornerCut(one.project(ShapelyPoint(cut)), other.project(ShapelyPoint(cut)), (cut,))


def stretch(points: Sequence[Point], start: float, end: float) -> list[Point]:
    """Return the part of a polyline between two distances (cm) along it."""
    part = shapely.ops.substring(_line(points), start, end)
    return [(float(x), float(y)) for x, y in part.coords]


def farthest_apart(a: Sequence[Sequence[Point]], b: Sequence[Sequence[Point]]) -> float:
    """Return the largest distance in cm from any point of one set of polylines to the other set (Hausdorff)."""
    one, other = (shapely.multilinestrings([_line(points) for points in lines]) for lines in (a, b))
    return float(shapely.hausdorff_distance(one, other))


def crossing_of(one: Sequence[Point], other: Sequence[Point]) -> Point | None:
    """Return where two polylines cross or touch, the first such place of the one; None where they do not."""
    met = _line(one).intersection(_line(other))
    spots = [(float(x), float(y)) for part in getattr(met, "geoms", [met]) for x, y in part.coords]
    return min(spots, key=lambda spot: along_line(one, spot)) if spots else None


def along_line(points: Sequence[Point], spot: Point) -> float:
    """Return how far (cm) along a polyline the place nearest to a spot lies."""
    return float(_line(points).project(ShapelyPoint(spot)))


def gap(points: Sequence[Point], spot: Point) -> float:
    """Return how far (cm) a spot lies from a polyline."""
    return float(shapely.distance(_line(points), ShapelyPoint(spot)))


def _line(points: Sequence[Point]) -> LineString:
    # Through an array: shapely walks a list of pairs in Python, point by point.
    return shapely.linestrings(np.asarray(points))


def folded_back(
    cuts: tuple[Sequence[Point], Sequence[Point]],
    sewn: tuple[Sequence[Point], Sequence[Point]],
    *,
    of_first: bool,
    limit: float,
) -> CornerCut | None:
    """Return a corner at which the end of one line's allowance mirrors what it is turned up against.

    Args:
        cuts: the cutting lines before and after the corner, in ring order.
        sewn: the sewing lines that they run beside.
        of_first: whether the first is turned up, or the second.
        limit: how far (cm) a line is prolonged.

    Returns:
        The corner; None where the lines do not meet so.
    """
    if not of_first:
        turned = folded_back((cuts[1][::-1], cuts[0][::-1]), (sewn[1][::-1], sewn[0][::-1]), of_first=True, limit=limit)
        return None if turned is None else _walked_back(turned, cuts)
    hem, side = cuts
    corner, along = sewn[0][-1], unit(subtract(sewn[0][-1], sewn[0][-2]))
    fold = [add(corner, scale(along, -limit)), add(corner, scale(along, limit))]
    # The side's cut, run on towards the hem, comes to the fold; from there on its mirror image is cut.
    start = unit(subtract(side[0], side[1]))
    long_side = [add(side[0], scale(start, limit)), *side]
    at_fold = crossing_of(long_side, fold)
    if at_fold is None:
        return None
    at = along_line(long_side, at_fold)
    length = float(_line(long_side).length)
    above = stretch(long_side, at, min(at + limit, length))
    mirrored = [_mirrored(spot, corner, along) for spot in above]
    end = unit(subtract(hem[-1], hem[-2]))
    long_hem = [*hem, add(hem[-1], scale(end, limit))]
    met = crossing_of(mirrored, long_hem)
    if met is None:
        return None
    down = stretch(mirrored, 0.0, along_line(mirrored, met))
    before = min(along_line(hem, met), float(_line(hem).length))
    return CornerCut(before, max(at - limit, 0.0), (met, *down[-2::-1]))


def _mirrored(spot: Point, about: Point, along: Point) -> Point:
    offset = subtract(spot, about)
    share = 2 * (offset[0] * along[0] + offset[1] * along[1])
    return add(about, (share * along[0] - offset[0], share * along[1] - offset[1]))


def _walked_back(corner: CornerCut, cuts: tuple[Sequence[Point], Sequence[Point]]) -> CornerCut:
    """Return a corner that was built with both lines walked the other way."""
    first, second = (float(_line(line).length) for line in cuts)
    # A length less itself is nothing: a hair below would count from a line's other end.
    return CornerCut(max(first - corner.after, 0.0), max(second - corner.before, 0.0), corner.points[::-1])


def squared(
    cuts: tuple[Sequence[Point], Sequence[Point]],
    sewn: tuple[Sequence[Point], Sequence[Point]],
    *,
    of_first: bool,
    limit: float,
) -> CornerCut | None:
    """Return a corner at which one line's allowance ends square to it, where that line runs out at the other's cut.

    Args:
        cuts, sewn, of_first, limit: as of `folded_back`; the line meant is the one that is squared.

    Returns:
        The corner; None where the lines do not meet so.
    """
    if not of_first:
        turned = squared((cuts[1][::-1], cuts[0][::-1]), (sewn[1][::-1], sewn[0][::-1]), of_first=True, limit=limit)
        return None if turned is None else _walked_back(turned, cuts)
    own, other = cuts
    way = unit(subtract(sewn[0][-1], sewn[0][-2]))
    start = unit(subtract(other[0], other[1]))
    long_other = [add(other[0], scale(start, limit)), *other]
    run_out = [sewn[0][-1], add(sewn[0][-1], scale(way, limit))]
    met = crossing_of(run_out, long_other)
    if met is None:
        return None
    aside = subtract(own[-1], sewn[0][-1])
    beyond = add(met, aside)
    after = max(along_line(long_other, met) - limit, 0.0)
    return CornerCut(float(_line(own).length), after, (beyond, met))
