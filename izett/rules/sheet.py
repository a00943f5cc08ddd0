"""Rule sheets: the numbers of a draft as data, read from TOML beside the method.

A sheet lists *allowances* (the maker's choices, each with default, range and reason), *rules* (a symbol, its
formula, label, reason and source; several ways where it depends on what was taken), *found* values (which the
method searches for, with bounds and the condition they meet) and *schools* (which measures a school uses).
"""

import tomllib
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from functools import cached_property
from pathlib import Path
from types import MappingProxyType
from typing import Any

from izett.errors import UnknownName, ValueOutOfRange
from izett.rules.formula import Formula


@dataclass(frozen=True, slots=True)
class Allowance:
    """A choice of the maker's: its default, the range that makes sense, and why."""

    symbol: str
    label: str
    default: float
    low: float
    high: float
    unit: str
    reason: str
    source: str = "common practice, no single source"
    draws: tuple[str, ...] = ()
    uses: tuple[str, ...] = ()

    def checked(self, value: float) -> float:
        """Return `value`.

        Raises:
            ValueOutOfRange: it lies outside the allowance's range.
        """
        if not self.low <= value <= self.high:
            raise ValueOutOfRange(
                f"{self.label} of {value:g} {self.unit} is outside {self.low:g} to {self.high:g} {self.unit}.",
                mend=f"Choose a value in that range; the usual one is {self.default:g} {self.unit}.",
                where=(self.symbol,),
            )
        return value


@dataclass(frozen=True, slots=True)
class Way:
    """One formula for a symbol, used where all the measures in `needs` were taken.

    `spread` is how far people lie from it, in the symbol's unit: two of three within it. 0 where it is no estimate.
    """

    formula: Formula
    needs: tuple[str, ...] = ()
    spread: float = 0.0


@dataclass(frozen=True, slots=True)
class Rule:
    """A symbol with the ways to work it out, the first that applies counting."""

    symbol: str
    label: str
    group: str
    unit: str
    ways: tuple[Way, ...]
    reason: str = ""
    source: str = ""
    draws: tuple[str, ...] = ()

    def way(self, taken: Iterable[str]) -> Way:
        """Return the first way whose needs were all taken."""
        have = set(taken)
        for way in self.ways:
            if have.issuperset(way.needs):
                return way
        raise ValueError(f"rule {self.symbol} has no way without needs")


@dataclass(frozen=True, slots=True)
class Found:
    """A value that is searched for: its bounds and the condition that it meets."""

    symbol: str
    label: str
    group: str
    unit: str
    low: float
    high: float
    condition: str
    reason: str = ""
    source: str = ""
    draws: tuple[str, ...] = ()
    uses: tuple[str, ...] = ()


@dataclass(frozen=True)
class RuleSheet:
    """A rule sheet with its parts by symbol, in the order of work."""

    title: str
    allowances: Mapping[str, Allowance]
    rules: Mapping[str, Rule]
    found: Mapping[str, Found]
    schools: Mapping[str, frozenset[str] | None]
    order: tuple[str, ...]

    @cached_property
    def dependants(self) -> Mapping[str, tuple[str, ...]]:
        """For each symbol, all rules that read it, at any remove."""
        direct: dict[str, set[str]] = {}
        for rule in self.rules.values():
            for way in rule.ways:
                for used in way.formula.uses:
                    direct.setdefault(used, set()).add(rule.symbol)
        closed: dict[str, tuple[str, ...]] = {}
        for symbol in direct:
            seen: set[str] = set()
            waiting = [symbol]
            while waiting:
                for follower in direct.get(waiting.pop(), ()):
                    if follower not in seen:
                        seen.add(follower)
                        waiting.append(follower)
            closed[symbol] = tuple(seen)
        return MappingProxyType(closed)

    def allowance(self, symbol: str) -> Allowance:
        """Return an allowance by its symbol.

        Raises:
            UnknownName: the sheet has none of that name.
        """
        if symbol not in self.allowances:
            raise UnknownName(
                f"There is no allowance “{symbol}”.",
                mend=f"Those of this block are: {', '.join(self.allowances)}.",
                where=(symbol,),
            )
        return self.allowances[symbol]


def load_sheet(*paths: Path) -> RuleSheet:
    """Read a rule sheet from TOML files, later ones following the earlier in the order of work.

    Raises:
        ValueError: the files are not a rule sheet (a programmer's mistake: they ship with the method).
    """
    allowances: dict[str, Allowance] = {}
    rules: dict[str, Rule] = {}
    found: dict[str, Found] = {}
    schools: dict[str, frozenset[str] | None] = {}
    order: list[str] = []
    title = ""
    for path in paths:
        data = tomllib.loads(path.read_text(encoding="utf-8"))
        title = data.get("title", title)
        for entry in data.get("allowance", ()):
            allowances[entry["symbol"]] = Allowance(**_tuples(entry))
        for entry in data.get("line", ()):
            order.append(entry["symbol"])
            if "condition" in entry:
                found[entry["symbol"]] = Found(**_tuples(entry))
            else:
                rules[entry["symbol"]] = _rule(entry)
        for name, school in data.get("school", {}).items():
            schools[name] = frozenset(school["uses"]) if "uses" in school else None
    if len(order) != len(set(order)):
        raise ValueError(f"a symbol stands twice in {paths}")
    return RuleSheet(title, allowances, rules, found, schools, tuple(order))


def borrow(sheet: RuleSheet, lender: RuleSheet, *, never: Iterable[str] = ()) -> RuleSheet:
    """Return the sheet with those rules of the lender that its own rules read, the lender's first in the order of work.

    A symbol that a way reads only where it was taken needs no rule; nor do those in `never`, which are always taken.
    """
    wanted: set[str] = set()
    waiting = [symbol for rule in sheet.rules.values() for symbol in _read_untaken(rule)]
    while waiting:
        symbol = waiting.pop()
        if symbol in lender.rules and symbol not in wanted and symbol not in sheet.rules and symbol not in never:
            wanted.add(symbol)
            waiting.extend(_read_untaken(lender.rules[symbol]))
    lent = {symbol: rule for symbol, rule in lender.rules.items() if symbol in wanted}
    return replace(sheet, rules={**lent, **sheet.rules}, order=(*lent, *sheet.order))


def _read_untaken(rule: Rule) -> Iterable[str]:
    return (symbol for way in rule.ways for symbol in way.formula.uses if symbol not in way.needs)


def _rule(entry: dict[str, Any]) -> Rule:
    spread = entry.pop("spread", 0.0)
    ways = entry.pop("ways", None) or [{"formula": entry.pop("formula"), "spread": spread}]
    return Rule(
        **_tuples(entry),
        ways=tuple(
            Way(Formula.parse(way["formula"]), tuple(way.get("needs", ())), way.get("spread", 0.0)) for way in ways
        ),
    )


def _tuples(entry: dict[str, Any]) -> dict[str, Any]:
    return {key: tuple(value) if isinstance(value, list) else value for key, value in entry.items()}
