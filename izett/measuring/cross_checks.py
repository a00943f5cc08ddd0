"""Cross-checks: measures of one body that cannot all be right, and by how much they miss each other.

Limits stand in `cross_checks.toml`. Only what was taken is compared; a body that is merely unusual is not remarked on.
"""

import tomllib
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import cache
from pathlib import Path

from izett.rules.formula import Formula
from izett.wording import cm

Body = Mapping[str, float]


@dataclass(frozen=True, slots=True)
class CrossCheck:
    """A relation that the measures of one body keep.

    Attributes:
        key: stable name.
        says: what is said where it is missed, in words without lengths.
        value: what is looked at, in cm.
        low, high: its limits, in cm; None where there is none on that side.
    """

    key: str
    says: str
    value: Formula
    low: Formula | None
    high: Formula | None

    @property
    def symbols(self) -> tuple[str, ...]:
        """The measures that it needs."""
        parts = (self.value, self.low, self.high)
        return tuple(dict.fromkeys(symbol for part in parts if part for symbol in part.uses))

    def excess(self, body: Body) -> float:
        """Return by how much the value lies outside its limits, in cm; 0 or less within them."""
        value = self.value.evaluate(body)
        below = self.low.evaluate(body) - value if self.low else -1.0
        above = value - self.high.evaluate(body) if self.high else -1.0
        return max(below, above)

    def told(self, body: Body) -> str:
        """Return what the measures come to and what is usual, as a sentence."""
        value = self.value.evaluate(body)
        low, high = (limit.evaluate(body) if limit else None for limit in (self.low, self.high))
        if low is not None and low <= 0 and high is None:
            # One is larger than the other, which it cannot be but for the tape.
            return f"By {cm(-value)}; up to {cm(-low)} is usual." if low else f"By {cm(-value)}."
        if low is None or high is None:
            limit = f"at most {cm(high)}" if high is not None else f"at least {cm(low or 0.0)}"
            return f"It comes to {cm(value)}; {limit} is usual."
        if self.low and self.low.uses:
            off, room = abs(value - (low + high) / 2), (high - low) / 2
            return f"They miss each other by {cm(off)}; up to {cm(room)} is usual."
        return f"It comes to {cm(value)}; {cm(low)} to {cm(high)} is usual."


@cache
def cross_checks() -> tuple[CrossCheck, ...]:
    """Return the cross-checks of `cross_checks.toml`."""
    data = tomllib.loads(Path(__file__).with_suffix(".toml").read_text(encoding="utf-8"))
    return tuple(
        CrossCheck(
            entry["key"],
            entry["says"],
            Formula.parse(entry["value"]),
            Formula.parse(entry["low"]) if "low" in entry else None,
            Formula.parse(entry["high"]) if "high" in entry else None,
        )
        for entry in data["check"]
    )


def missed(body: Body) -> Iterator[tuple[CrossCheck, float]]:
    """Yield the cross-checks that the taken measures (cm) miss, each with its excess in cm."""
    for check in cross_checks():
        if all(symbol in body for symbol in check.symbols) and (excess := check.excess(body)) > 0:
            yield check, excess
