"""What the fittings of several wearers keep changing the same way: offered as a house rule, never set by itself."""

from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from statistics import median

from izett.fitting.working_out import Seen, in_whole
from izett.pattern.facts import Half

#: One wearer is herself; of three that ask for the same, the rule is asked.
FEWEST_WEARERS = 3
#: The share of the fitted garments with that rule in which it was changed the same way.
SHARE = 0.6
#: cm. Less than this is within the pins.
SMALLEST = 0.2


@dataclass(frozen=True, slots=True)
class Fittings:
    """What the fittings of one garment proved: `has` are the rules that it is drafted by, `solved` what was seen and solved."""

    wearer: str
    garment: str
    has: frozenset[str]
    solved: tuple[Seen, ...]


@dataclass(frozen=True, slots=True)
class Lesson:
    """A rule that fittings keep changing the same way.

    Attributes:
        symbol: the rule or ease.
        by: by how much, the middle of what was changed, in the symbol's unit.
        garments, of: in how many garments, of how many that were fitted and have it.
        wearers: on how many wearers.
    """

    symbol: str
    by: float
    garments: int
    of: int
    wearers: int


def learned(fittings: Sequence[Fittings]) -> list[Lesson]:
    """Return what the fittings taught, the most often seen first. What was about one half is about that body: it teaches no rule."""
    changes: Mapping[str, list[tuple[str, float]]] = defaultdict(list)
    for one in fittings:
        for symbol, by in _changed(one.solved).items():
            if abs(by) >= SMALLEST and symbol in one.has:
                changes[symbol].append((one.wearer, by))
    found: list[Lesson] = []
    for symbol, changed in changes.items():
        had = sum(symbol in one.has for one in fittings)
        for sign in (1.0, -1.0):
            same = [(wearer, by) for wearer, by in changed if by * sign > 0]
            wearers = len({wearer for wearer, _ in same})
            if wearers >= FEWEST_WEARERS and len(same) >= SHARE * had:
                found.append(Lesson(symbol, median(by for _, by in same), len(same), had, wearers))
    return sorted(found, key=lambda lesson: (-lesson.garments, lesson.symbol))


def _changed(solved: Sequence[Seen]) -> dict[str, float]:
    """Return by how much each rule was off on one garment, all that was solved on it counted."""
    by: dict[str, float] = defaultdict(float)
    for seen in solved:
        if seen.half is Half.BOTH:
            amounts = {entry.symbol: in_whole(entry, seen) for entry in seen.kind.inputs}
            for rule in seen.kind.house:
                by[rule.symbol] += rule.by.evaluate(amounts)
    return by
