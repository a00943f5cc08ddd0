"""A plan: where every piece lies, how much cloth that takes, and which piece decides it."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from izett.cutting.cloth import Cloth, Fold
from izett.cutting.lay.bed import Bed
from izett.cutting.lay.columns import Ground, Spot, length_of
from izett.cutting.lay.cutouts import Outline, Section


@dataclass(frozen=True, eq=False)
class Placed:
    """A cutout on the cloth as it lies there, outlines in the bed's frame with its section's start added.

    Attributes:
        spot: the spot that it is.
        section: the number of its section.
        turn, flipped: how it lies, as seen on the cloth.
        outline: as cut, cm.
    """

    spot: Spot
    section: int
    turn: float
    flipped: bool
    outline: Outline


@dataclass(frozen=True, eq=False)
class Laid:
    """A section with everything laid on it: `start` is where it begins along the cloth as it lies, cm."""

    section: Section
    spots: tuple[Spot, ...]
    start: float = 0.0

    @property
    def length(self) -> float:
        """How long it lies, cm."""
        return length_of(self.spots)

    @property
    def cloth(self) -> float:
        """How much cloth it takes, cm: more than it lies long, where the cloth is folded across."""
        return self.length * self.section.bed.lengths


@dataclass(frozen=True, eq=False)
class Plan:
    """A plan of a cloth.

    Attributes:
        cloth: which it is.
        fold: how it is folded, where it can be.
        laid: its sections, in order along the cloth.
    """

    cloth: Cloth
    fold: Fold
    laid: tuple[Laid, ...]

    @property
    def length(self) -> float:
        """How much cloth is cut into, cm."""
        return sum(laid.cloth for laid in self.laid)

    @property
    def bought(self) -> float:
        """How much of it is bought for that, before it is rounded to what is sold, cm."""
        return self.cloth.to_buy(self.length)

    @property
    def utilisation(self) -> float:
        """What share of the cloth becomes pieces."""
        area = sum(spot.cutout.area * spot.cutout.layers for laid in self.laid for spot in laid.spots)
        whole = self.length * self.cloth.left_of_width
        return area / whole if whole else 0.0

    @cached_property
    def placed(self) -> tuple[Placed, ...]:
        """Every cutout as it lies on the cloth."""
        return tuple(one for number, laid in enumerate(self.laid) for one in _all_placed(number, laid))

    @property
    def decides(self) -> Spot | None:
        """What decides the length: of what reaches to the end of the longest section, the largest; None of nothing."""
        longest = max(self.laid, key=lambda laid: laid.cloth, default=None)
        if longest is None or not longest.spots:
            return None
        last = [spot for spot in longest.spots if spot.top > longest.length - AT_END]
        return max(last, key=lambda spot: spot.cutout.area)


#: cm. What ends so near to the end of a plan decides its length.
AT_END = 1.0


def in_order(sections: Sequence[tuple[Section, Sequence[Spot]]]) -> tuple[Laid, ...]:
    """Return sections one after another along the cloth."""
    found: list[Laid] = []
    start = 0.0
    for section, spots in sections:
        found.append(Laid(section, tuple(spots), start))
        start += found[-1].length
    return tuple(found)


def grounds_of(bed: Bed, cloth: Cloth) -> tuple[Ground, ...]:
    """Return the strips of a bed as what an engine lays on: each with its fold, where it has one, at x = 0.

    A stripe's middle lies on the fold, or in the middle of cloth that has none.
    """
    return tuple(
        Ground(strip.width, cloth.gap, cloth.repeat, 0.0 if strip.fold is not None else bed.width / 2 - strip.left)
        for strip in bed.strips
    )


def _all_placed(number: int, laid: Laid) -> Iterator[Placed]:
    for spot in laid.spots:
        strip = laid.section.bed.strips[spot.strip]
        outline = np.add(spot.pose.outline, (spot.x, spot.y + laid.start))
        turn, flipped = spot.pose.turn, spot.pose.flipped
        if strip.fold == strip.right:
            # Its own frame is seen from its fold, on the right.
            outline = (outline * (-1.0, 1.0) + (strip.right, 0.0))[::-1]
            turn, flipped = (-turn) % 360, not flipped
        else:
            outline = np.add(outline, (strip.left, 0.0))
        yield Placed(spot, number, turn, flipped, np.asarray(outline))
