"""Sliding outlines together: how far one can go before it meets another, and plans slid together until nothing gives.

Distances are exact for the outlines' corners and sides: a slide ends where a corner of one meets a side of the other.
"""

from collections.abc import Mapping, Sequence
from dataclasses import replace
from functools import lru_cache
from math import floor, inf

import numpy as np
import shapely

from izett.cutting.lay.columns import HAIR, Ground, Spot, grown
from izett.cutting.lay.cutouts import Outline, Pose

#: cm. By how much an outline that an engine works with is larger than the piece: what simplifying may take off it.
LARGER = 0.06
#: cm. By how much an outline that slides is taken to be thinner at either side.
THINNER = 1e-5
#: Slides are repeated until the plan gets no shorter, and no more often than this.
MOST_SLIDES = 6


@lru_cache(maxsize=4096)
def roomy(pose: Pose, gap: float) -> Outline:
    """Return a pose's outline with half a gap around it, in as few corners as its engine needs."""
    plain = shapely.simplify(shapely.polygons(grown(pose, gap / 2 + LARGER)), LARGER, preserve_topology=True)
    ring = shapely.orient_polygons(plain).exterior
    return np.array(ring.coords)[:-1]


def slide(moving: Outline, *fixed: Outline) -> float:
    """Return how far an outline slides against y until it meets one of the fixed ones; it overlaps none; inf if it never does."""
    left, right = float(moving[:, 0].min()), float(moving[:, 0].max())
    met = [one for one in fixed if one[:, 0].min() + THINNER < right and left < one[:, 0].max() - THINNER]
    if not met:
        return inf
    # A hair thinner, so that no corner stands just over another one, and what it only touches at its side lets it pass.
    middle = (left + right) / 2
    thin = (moving - (middle, 0.0)) * (1 - 2 * THINNER / (right - left), 1.0) + (middle, 0.0)
    return min(_drop([thin], met), _drop([one * (1.0, -1.0) for one in met], [thin * (1.0, -1.0)]))


def _drop(above: Sequence[Outline], below: Sequence[Outline]) -> float:
    """Return the least height of corners over the sides beneath them."""
    ax, ay = np.concatenate(below).T
    bx, by = np.concatenate([part for one in below for part in (one[1:], one[:1])]).T
    corners = np.concatenate(above)
    x, y = corners[:, 0][:, None], corners[:, 1][:, None]
    upright = np.abs(bx - ax) < HAIR
    over = (x > np.minimum(ax, bx) + HAIR) & (x < np.maximum(ax, bx) - HAIR) & ~upright
    with np.errstate(divide="ignore", invalid="ignore"):
        height = y - (ay + (x - ax) / (bx - ax) * (by - ay))
    # A rounding error beneath a side is on it.
    beneath = over & (height > -LARGER)
    return max(float(height[beneath].min()), 0.0) if beneath.any() else inf


def settled(spots: Sequence[Spot], grounds: Mapping[int, Ground]) -> list[Spot]:
    """Return spots slid together, towards the beginning of the cloth and towards its left, until it gets no shorter."""
    now = list(spots)
    for _ in range(MOST_SLIDES):
        before = [(spot.x, spot.y) for spot in now]
        for number, ground in grounds.items():
            own = [i for i, spot in enumerate(now) if spot.strip == number]
            _all_slid(now, own, ground, along=True)
            _all_slid(now, own, ground, along=False)
        if all(abs(s.x - x) + abs(s.y - y) < LARGER for s, (x, y) in zip(now, before, strict=True)):
            break
    return now


def _all_slid(spots: list[Spot], own: Sequence[int], ground: Ground, *, along: bool) -> None:
    """Slide each spot of a strip in turn, those first that lie nearest to where they slide."""
    laid = {i: _laid(spots[i], ground.gap, along=along) for i in own}
    for i in sorted(own, key=lambda i: spots[i].y if along else spots[i].x):
        spot = spots[i]
        if not along and spot.cutout.on_fold:
            continue
        room = min(spot.y if along else spot.x, slide(laid[i], *(laid[j] for j in own if j != i)))
        by = _allowed(spot, ground, room, along=along)
        if by > HAIR:
            spots[i] = replace(spot, y=spot.y - by) if along else replace(spot, x=spot.x - by)
            laid[i] = laid[i] - (0.0, by)


def _laid(spot: Spot, gap: float, *, along: bool) -> Outline:
    """Return where a spot's outline lies, the way that it slides as its second axis."""
    outline = np.add(roomy(spot.pose, gap), (spot.x, spot.y))
    return outline if along else outline[:, ::-1]


def _allowed(spot: Spot, ground: Ground, by: float, *, along: bool) -> float:
    """Return how far a spot may slide of `by` cm: by whole repeats where it is matched."""
    repeat = ground.repeat[1 if along else 0]
    matched = spot.pose.level if along else spot.pose.upright
    return floor(by / repeat + HAIR) * repeat if repeat and matched is not None else max(by, 0.0)
