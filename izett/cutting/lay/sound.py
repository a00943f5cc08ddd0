"""Whether a plan can be cut: nothing on each other, nothing off the cloth, grain and nap obeyed, folds and repeats held.

Both engines and a hand can be wrong: every plan is read here, from its outlines, before it is shown.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from enum import StrEnum

import numpy as np
import shapely

from izett.cutting.lay.columns import Ground, Spot
from izett.wording import cm

#: cm. What is nearer than this touches; a rounding error of an outline.
TOUCH = 0.001
#: cm. A fold and a repeat are held to this.
HELD = 1e-4


class Fault(StrEnum):
    """What can be wrong with a plan."""

    OVER_EACH_OTHER = "over_each_other"
    TOO_NEAR = "too_near"
    OFF_THE_CLOTH = "off_the_cloth"
    OFF_THE_FOLD = "off_the_fold"
    OFF_THE_GRAIN = "off_the_grain"
    NOT_MATCHED = "not_matched"


@dataclass(frozen=True, slots=True)
class Wrong:
    """A fault, the numbers of the spots that it is about, and what is said of it."""

    fault: Fault
    spots: tuple[int, ...]
    words: str


def wrong_with(spots: Sequence[Spot], grounds: Sequence[Ground]) -> Iterator[Wrong]:
    """Yield what is wrong with a plan of strips that lie beside each other."""
    shapes = [shapely.polygons(np.add(spot.pose.outline, (spot.x, spot.y))) for spot in spots]
    for number, spot in enumerate(spots):
        yield from _alone(number, spot, grounds[spot.strip])
    for strip, ground in enumerate(grounds):
        own = [i for i, spot in enumerate(spots) if spot.strip == strip]
        tree = shapely.STRtree([shapes[i] for i in own])
        for at, i in enumerate(own):
            for other in tree.query(shapes[i], predicate="dwithin", distance=max(ground.gap - TOUCH, 0.0)):
                if other <= at:
                    continue
                yield from _pair(
                    (i, own[other]), (spots[i], spots[own[other]]), (shapes[i], shapes[own[other]]), ground
                )
    yield from _repeats(spots, grounds)


def _alone(number: int, spot: Spot, ground: Ground) -> Iterator[Wrong]:
    title = spot.cutout.title
    right = spot.x + spot.pose.width
    if spot.x < -TOUCH or spot.y < -TOUCH or right > ground.width + TOUCH:
        over = max(-spot.x, -spot.y, right - ground.width)
        yield Wrong(Fault.OFF_THE_CLOTH, (number,), f"{title} lies off the cloth by {cm(over, 2)}.")
    if spot.cutout.on_fold and abs(spot.x) > HELD:
        yield Wrong(Fault.OFF_THE_FOLD, (number,), f"{title} is cut on the fold and lies {cm(spot.x, 2)} beside it.")
    if (spot.pose.turn, spot.pose.flipped) not in spot.cutout.ways:
        how = "turned over" if spot.pose.turn == 0 else f"turned by {spot.pose.turn:g}°"
        yield Wrong(Fault.OFF_THE_GRAIN, (number,), f"{title} lies {how}: its grain, the nap or its pair forbids that.")


def _pair(
    numbers: tuple[int, int], spots: tuple[Spot, Spot], shapes: Sequence[object], ground: Ground
) -> Iterator[Wrong]:
    one, other = (spot.cutout.title for spot in spots)
    common = shapely.intersection(*shapes)
    # What touches has length, and no area.
    if float(shapely.area(common)) > TOUCH * max(float(shapely.length(common)), TOUCH):
        yield Wrong(Fault.OVER_EACH_OTHER, numbers, f"{one} and {other} lie over each other.")
    elif ground.gap and float(shapely.distance(*shapes)) < ground.gap - 2 * TOUCH:
        apart = float(shapely.distance(*shapes))
        yield Wrong(Fault.TOO_NEAR, numbers, f"{one} and {other} are {cm(apart, 2)} apart, not {cm(ground.gap, 2)}.")


def _repeats(spots: Sequence[Spot], grounds: Sequence[Ground]) -> Iterator[Wrong]:
    along = grounds[0].repeat[1]
    levels = [(i, s.y + s.pose.level) for i, s in enumerate(spots) if s.pose.level is not None]
    if along and levels:
        first = levels[0][1]
        for i, level in levels[1:]:
            if (off := _off(level - first, along)) > HELD:
                yield Wrong(Fault.NOT_MATCHED, (levels[0][0], i), _beside(spots[i], off, "along the cloth"))
    for i, spot in enumerate(spots):
        ground = grounds[spot.strip]
        if ground.repeat[0] and spot.pose.upright is not None:
            off = _off(spot.x + spot.pose.upright - ground.origin, ground.repeat[0])
            if off > HELD:
                yield Wrong(Fault.NOT_MATCHED, (i,), _beside(spot, off, "across it"))


def _beside(spot: Spot, off: float, way: str) -> str:
    return f"{spot.cutout.title} does not meet what repeats: it lies {cm(off, 2)} off {way}."


def _off(distance: float, repeat: float) -> float:
    return abs(float(np.remainder(distance + repeat / 2, repeat)) - repeat / 2)
