"""Taking a measure: read twice, a third time where the two disagree, left and right apart where they differ.

The median counts: of two readings their middle, of three the middle one, so that one slip of the tape is outvoted.
Tolerances after ISO 20685's permitted differences, from memory; reading twice is common practice.
"""

import itertools
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from statistics import median

from izett.measuring.measure import SIDES, measure, symbol_of
from izett.units import Reading

#: More readings of one measure than this settle nothing more.
MOST_READINGS = 5


@dataclass(frozen=True, slots=True)
class Taken:
    """A measure as it was taken: its readings in the order in which they were read."""

    key: str
    readings: tuple[Reading, ...]

    @property
    def cm(self) -> float:
        """What counts, in cm: the median of the readings."""
        return median(reading.cm for reading in self.readings)

    @property
    def apart(self) -> float:
        """How far the two nearest readings lie apart, in cm; 0 for a single one."""
        lengths = sorted(reading.cm for reading in self.readings)
        return min((b - a for a, b in itertools.pairwise(lengths)), default=0.0)

    @property
    def asks_again(self) -> bool:
        """Whether another reading is wanted: no two agree within the measure's tolerance."""
        return self.apart > measure(symbol_of(self.key)).tolerance and len(self.readings) < MOST_READINGS


@dataclass(frozen=True, slots=True)
class Uneven:
    """A measure whose left and right differ by more than its tolerance; the draft takes their mean on both halves."""

    symbol: str
    left: float
    right: float


def settled(cm: Mapping[str, float]) -> dict[str, float]:
    """Return one length a measure, in cm by symbol: where the sides were taken apart, their mean.

    Args:
        cm: lengths by key: `arm_length`, or `arm_length.left` and `.right`. A side that is missing is as the measure
            without a side, or else as the other one.
    """
    whole: dict[str, float] = {}
    for key in cm:
        symbol = symbol_of(key)
        if symbol not in whole:
            whole[symbol] = _both_sides(cm, symbol)
    return whole


def taken_apart(cm: Mapping[str, float]) -> dict[str, tuple[float, float]]:
    """Return left and right, in cm by symbol, of the measures of which both sides were taken."""
    found: dict[str, tuple[float, float]] = {}
    for symbol in dict.fromkeys(symbol_of(key) for key in cm):
        keys = [f"{symbol}.{side}" for side in SIDES]
        if all(key in cm for key in keys):
            found[symbol] = (cm[keys[0]], cm[keys[1]])
    return found


def _both_sides(cm: Mapping[str, float], symbol: str) -> float:
    sides = [cm.get(f"{symbol}.{side}", cm.get(symbol)) for side in SIDES]
    known = [side for side in sides if side is not None]
    return sum(known) / len(known)


def uneven(cm: Mapping[str, float]) -> Sequence[Uneven]:
    """Return the measures whose sides differ by more than their tolerance."""
    found: list[Uneven] = []
    for symbol in dict.fromkeys(symbol_of(key) for key in cm):
        left, right = (cm.get(f"{symbol}.{side}", cm.get(symbol)) for side in SIDES)
        if left is not None and right is not None and abs(left - right) > measure(symbol).tolerance:
            found.append(Uneven(symbol, left, right))
    return found
