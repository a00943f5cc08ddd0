"""The bust dart that each source would give, side by side: the cup, the bust difference, the lengths, the proportion.

Each is worked by the block's own rules, with the other sources laid aside.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from math import radians, tan

from izett.drafting.method import draft
from izett.drafting.methods.bodice import METHOD
from izett.errors import IzettError


@dataclass(frozen=True, slots=True)
class DartSource:
    """A source of the bust dart.

    Attributes:
        key: stable name.
        name: for people.
        needs: the measures that it needs.
        aside: the measures that would otherwise win over it.
    """

    key: str
    name: str
    needs: tuple[str, ...]
    aside: tuple[str, ...]


_LENGTHS = ("front_length",)
_BUST = ("high_bust_girth",)
SOURCES = (
    DartSource("lengths", "Front and back length", ("front_length", "back_waist_length"), ()),
    DartSource("bust_difference", "Bust less upper chest", ("high_bust_girth", "bust_girth"), _LENGTHS),
    DartSource("cup", "Bra cup", ("cup",), (*_LENGTHS, *_BUST, "underbust_girth", "front_bust_arc")),
    DartSource(
        "proportion",
        "From the bust alone",
        ("bust_girth",),
        (*_LENGTHS, *_BUST, "underbust_girth", "front_bust_arc", "cup"),
    ),
)


@dataclass(frozen=True, slots=True)
class DartBySource:
    """The bust dart by one source.

    Attributes:
        source: where it comes from.
        degrees: its angle; None where a measure is missing, or there is no draft by it.
        mouth: about how wide it opens on the side seam, in cm.
        counts: whether it is the one that the draft takes.
        missing: the measures that are missing for it.
    """

    source: DartSource
    degrees: float | None
    mouth: float
    counts: bool
    missing: tuple[str, ...] = ()


def darts_by_source(taken: Mapping[str, float]) -> list[DartBySource]:
    """Return the bust dart by each source, in the order in which they win over each other."""
    found: list[DartBySource] = []
    for source in SOURCES:
        missing = tuple(symbol for symbol in source.needs if symbol not in taken)
        worked = None if missing else _worked(taken, source)
        counts = worked is not None and not any(dart.counts for dart in found)
        degrees, mouth = worked or (None, 0.0)
        found.append(DartBySource(source, degrees, mouth, counts, missing))
    return found


def _worked(taken: Mapping[str, float], source: DartSource) -> tuple[float, float] | None:
    try:
        values = draft(METHOD, _without(taken, source.aside)).values
    except IzettError:
        return None
    if source.key == "cup":
        degrees = values["dart_by_cup"]
    elif source.key == "proportion":
        degrees = values["dart_by_proportion"]
    else:
        degrees = values["bust_dart_angle"]
    return degrees, 2 * values["front_radius"] * tan(radians(degrees) / 2)


def _without(taken: Mapping[str, float], aside: Iterable[str]) -> dict[str, float]:
    return {symbol: cm for symbol, cm in taken.items() if symbol not in set(aside)}
