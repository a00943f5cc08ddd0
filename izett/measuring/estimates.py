"""Estimates: what a measure would be, going by what was taken, and how far that may be off.

The rules stand in `estimate_rules/*.toml`, each with its spread: where openintro bdims has the measure, the error on people
on whom the rule was not fitted; elsewhere judged.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from pathlib import Path

from izett.measuring.measure import measures
from izett.rules.sheet import RuleSheet, load_sheet
from izett.rules.worksheet import Worksheet

RULES = Path(__file__).parent / "estimate_rules"
#: In the order of work: what stands first in the sums.
PARTS = ("trunk", "limbs", "below_waist")


@dataclass(frozen=True, slots=True)
class Estimate:
    """A measure that was not taken, worked out from others.

    Attributes:
        symbol: the measure.
        cm: the estimate, in cm.
        spread: how far it may be off, in cm: for two people of three within it.
        formula: the rule.
        worked: the rule with the numbers put in.
        source: where the rule comes from.
    """

    symbol: str
    cm: float
    spread: float
    formula: str
    worked: str
    source: str


@cache
def estimates() -> RuleSheet:
    """Return the rules for all measures of the body."""
    return load_sheet(*(RULES / f"{part}.toml" for part in PARTS))


def worked_out(taken: Mapping[str, float]) -> Worksheet:
    """Return a worksheet from which every measure of the body can be read, taken or estimated, in cm."""
    return Worksheet(estimates(), taken=taken, overrides={}, measure_symbols=frozenset(measures()))


def missing_measures(taken: Mapping[str, float]) -> dict[str, Estimate]:
    """Return an estimate for each measure of the body that was not taken, in the order of taking."""
    sums = worked_out(taken)
    found: dict[str, Estimate] = {}
    for symbol, what in measures().items():
        if what.body and symbol not in taken:
            rule = estimates().rules[symbol]
            formula = rule.way(taken).formula
            worked = formula.worked(sums, lengths=sums.lengths_of(formula), length=True)
            found[symbol] = Estimate(symbol, sums[symbol], sums.spread(symbol), formula.text, worked, rule.source)
    return found


def whole_body(taken: Mapping[str, float]) -> dict[str, float]:
    """Return every measure of the body in cm: what was taken, the rest estimated."""
    sums = worked_out(taken)
    return {symbol: sums[symbol] for symbol, what in measures().items() if what.body or symbol in taken}
