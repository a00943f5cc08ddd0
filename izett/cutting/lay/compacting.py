"""Pressing a plan together: all pieces at once, as far as they give without turning or passing each other.

Pieces are parted into convex parts. Between two parts that are near each other lies a line that parts them; as long as
both stay on their sides of it, they cannot meet. All moves that keep to that are sought at once, the ones that make the
plan shortest (a linear program), and the lines are drawn anew, until nothing gives. The result is as sound as what it
began with, and the same each time.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from math import inf, sqrt

import numpy as np
import shapely
from numpy.typing import NDArray

from izett.cutting.lay.columns import Ground, Spot, grown, length_of
from izett.cutting.lay.cutouts import Outline, Pose

Array = NDArray[np.float64]

#: cm. What simplifying may take off an outline that is pressed; how far a piece moves at most at a time.
TIGHT, FARTHEST = 0.012, 2.0
#: cm. Parts nearer than this touch; a plan that is shorter by less gives no more.
TOUCH, GIVES = 1e-5, 0.02
#: Times that the lines are drawn anew at most.
ROUNDS = 12
#: Of a length, what a piece's own place counts: those that do not decide it move back as well.
OWN_PLACE = 1e-4
#: Corners of a convex part at most; cm² of a part that is one.
MOST_CORNERS, LEAST_PART = 24, 1e-9
#: Decimals of a centimetre in which corners are the same.
SAME = 9


def compacted(spots: Sequence[Spot], ground: Ground) -> list[Spot]:
    """Return the spots of one strip pressed together; those that lie as they did, where nothing gives."""
    now = list(spots)
    for _ in range(ROUNDS):
        after = _pressed(now, ground)
        if after is None or length_of(after) > length_of(now) - GIVES:
            break
        now = after
    return now


def _pressed(spots: Sequence[Spot], ground: Ground) -> list[Spot] | None:
    """Return the spots after the moves that shorten the plan most; None where there are none."""
    # Loading it takes longer than many a command, and few of them lay anything.
    from scipy.optimize import linprog  # noqa: PLC0415
    from scipy.sparse import coo_matrix  # noqa: PLC0415  (as above)

    parts = _Parts.of(spots, ground)
    places = np.array([(spot.x, spot.y) for spot in spots])
    heights = np.array([spot.pose.height for spot in spots])
    number = len(spots)
    first, second, normals, apart = parts.parted(2 * sqrt(2) * FARTHEST)
    i, j = parts.owner[first], parts.owner[second]
    # Both stay on their sides: what the second moves along the normal, less what the first does, uses up no more than
    # lies between them. Then: no piece ends beyond the length, which is the last unknown.
    pairs = np.arange(len(first))
    ends = len(first) + np.arange(number)
    rows = np.concatenate([pairs, pairs, pairs, pairs, ends, ends])
    columns = np.concatenate(
        [2 * i, 2 * i + 1, 2 * j, 2 * j + 1, 2 * np.arange(number) + 1, np.full(number, 2 * number)]
    )
    one = np.ones(number)
    values = np.concatenate([normals[:, 0], normals[:, 1], -normals[:, 0], -normals[:, 1], one, -one])
    limits = np.concatenate([np.maximum(apart, 0.0), -(places[:, 1] + heights)])
    matrix = coo_matrix((values, (rows, columns)), shape=(len(limits), 2 * number + 1)).tocsr()
    cost = np.zeros(2 * number + 1)
    cost[1:-1:2], cost[-1] = OWN_PLACE, 1.0
    low, high = _reach(spots, places, ground)
    bounds = [*zip(low.ravel(), high.ravel(), strict=True), (0.0, inf)]
    found = linprog(cost, A_ub=matrix, b_ub=limits, bounds=bounds, method="highs")
    if found.status != 0:
        return None
    moved = places + found.x[:-1].reshape(number, 2)
    return [replace(spot, x=float(x), y=float(y)) for spot, (x, y) in zip(spots, moved, strict=True)]


def _reach(spots: Sequence[Spot], places: Array, ground: Ground) -> tuple[Array, Array]:
    """Return how far each spot may move: not off the cloth, nor off its fold."""
    low, high = np.full(places.shape, -FARTHEST), np.full(places.shape, FARTHEST)
    rooms = ground.width - np.array([spot.pose.width for spot in spots]) - places[:, 0]
    low[:, 0], high[:, 0] = np.maximum(low[:, 0], -places[:, 0]), np.minimum(high[:, 0], rooms)
    low[:, 1] = np.maximum(low[:, 1], -places[:, 1])
    high = np.maximum(high, low)
    on_fold = np.array([spot.cutout.on_fold for spot in spots])
    low[on_fold, 0] = high[on_fold, 0] = 0.0
    return low, high


@dataclass(frozen=True)
class _Parts:
    """The convex parts of all spots as they lie: whose each is, and its corners, the last one repeated."""

    owner: NDArray[np.int64]
    corners: Array

    @classmethod
    def of(cls, spots: Sequence[Spot], ground: Ground) -> "_Parts":
        owner, corners = [], []
        for number, spot in enumerate(spots):
            for part in _convex_parts(spot.pose, ground.gap):
                owner.append(number)
                corners.append(np.add(part, (spot.x, spot.y)))
        most = max(len(part) for part in corners)
        padded = [np.vstack([part, np.repeat(part[-1:], most - len(part), axis=0)]) for part in corners]
        return cls(np.array(owner), np.array(padded))

    def parted(self, near: float) -> tuple[NDArray[np.int64], NDArray[np.int64], Array, Array]:
        """Return pairs of parts nearer than that: both, the normal of the line between them, and how far apart they lie."""
        shapes = shapely.polygons(list(self.corners))
        low, high = self.corners.min(1) - near, self.corners.max(1) + near
        first, second = shapely.STRtree(shapes).query(shapely.box(low[:, 0], low[:, 1], high[:, 0], high[:, 1]))
        others = self.owner[first] < self.owner[second]
        first, second = first[others], second[others]
        within = shapely.dwithin(shapes[first], shapes[second], near)
        first, second = first[within], second[within]
        between = shapely.get_coordinates(shapely.shortest_line(shapes[first], shapes[second])).reshape(-1, 2, 2)
        ways = between[:, 1] - between[:, 0]
        far = np.hypot(ways[:, 0], ways[:, 1])
        normals = ways / np.maximum(far, TOUCH)[:, None]
        for k in np.flatnonzero(far <= TOUCH):
            normals[k] = _side_between(self.corners[first[k]], self.corners[second[k]])
        a, b = self.corners[first], self.corners[second]
        apart = (b * normals[:, None, :]).sum(2).min(1) - (a * normals[:, None, :]).sum(2).max(1)
        return first, second, normals, apart


def _side_between(one: Outline, other: Outline) -> Array:
    """Return the normal, from one to the other, of the side that parts two convex outlines best."""
    found: list[tuple[float, Array]] = []
    for from_part, to_part, way in ((one, other, 1.0), (other, one, -1.0)):
        sides = np.roll(from_part, -1, axis=0) - from_part
        long = np.hypot(sides[:, 0], sides[:, 1])
        real = long > TOUCH
        outward = np.stack([sides[real, 1], -sides[real, 0]], axis=1) / long[real][:, None]
        apart = (to_part @ outward.T).min(0) - (from_part @ outward.T).max(0)
        best = int(apart.argmax())
        found.append((float(apart[best]), outward[best] * way))
    return max(found, key=lambda pair: pair[0])[1]


@lru_cache(maxsize=4096)
def _convex_parts(pose: Pose, gap: float) -> tuple[Outline, ...]:
    """Return a pose's outline with half a gap around it in convex parts, counter-clockwise."""
    plain = shapely.simplify(shapely.polygons(grown(pose, gap / 2 + TIGHT)), TIGHT, preserve_topology=True)
    triangles = shapely.get_parts(shapely.constrained_delaunay_triangles(plain))
    parts = [
        [(round(x, SAME), round(y, SAME)) for x, y in shapely.orient_polygons(one).exterior.coords[:-1]]
        for one in triangles
        if one.area > LEAST_PART
    ]
    while (both := _joined(parts)) is not None:
        parts = both
    return tuple(np.array(part) for part in parts)


def _joined(parts: list[list[tuple[float, float]]]) -> list[list[tuple[float, float]]] | None:
    """Return parts with two of them made one that is convex still; None where there are none."""
    sides = {
        (a, b): number for number, part in enumerate(parts) for a, b in zip(part, [*part[1:], part[0]], strict=True)
    }
    for (a, b), number in sides.items():
        other = sides.get((b, a))
        if other is None or other == number:
            continue
        # Each walked from where the side ends to where it begins.
        mine, theirs = _from(parts[number], b), _from(parts[other], a)
        whole = [*mine, *theirs[1:-1]]
        if len(whole) <= MOST_CORNERS and _is_convex(np.array(whole)):
            return [part for i, part in enumerate(parts) if i not in (number, other)] + [whole]
    return None


def _from(part: list[tuple[float, float]], corner: tuple[float, float]) -> list[tuple[float, float]]:
    at = part.index(corner)
    return [*part[at:], *part[:at]]


def _is_convex(ring: Outline) -> bool:
    along = np.roll(ring, -1, axis=0) - ring
    after = np.roll(along, -1, axis=0)
    return bool((along[:, 0] * after[:, 1] - along[:, 1] * after[:, 0] >= -LEAST_PART).all())
