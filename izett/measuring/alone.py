"""Measuring alone: which measures are less certain then, and the allowances that are offered for it."""

import tomllib
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from pathlib import Path

from izett.measuring.measure import measures

ALONE = "alone"


@dataclass(frozen=True, slots=True)
class Offer:
    """An allowance that makes up for measuring alone; never set by itself.

    Attributes:
        allowance: the draft's allowance that it sets.
        measure: the measure that comes out wrong.
        usual, low, high: its usual amount and range, in cm.
        says: why, in words.
    """

    allowance: str
    measure: str
    usual: float
    low: float
    high: float
    says: str


@cache
def offers() -> tuple[Offer, ...]:
    """Return the allowances of `alone.toml`."""
    data = tomllib.loads(Path(__file__).with_suffix(".toml").read_text(encoding="utf-8"))
    return tuple(Offer(**entry) for entry in data["offer"])


def less_certain(taken: Mapping[str, float], *, taken_by: str) -> tuple[str, ...]:
    """Return the taken measures that are less certain for how they were taken: those that need a helper."""
    if taken_by != ALONE:
        return ()
    return tuple(symbol for symbol, what in measures().items() if what.needs_help and symbol in taken)


def offered(taken: Mapping[str, float], *, taken_by: str) -> tuple[Offer, ...]:
    """Return the allowances that are offered for measures taken so."""
    return tuple(offer for offer in offers() if taken_by == ALONE and offer.measure in taken)
