"""Rule sheets: the numbers of a draft as data, read from TOML beside the method.

A sheet lists *allowances* (the maker's choices, each with default, range and reason), *rules* (a symbol, its
formula, label, reason and source; several ways where it depends on what was taken), *found* values (which the
method searches for, with bounds and the condition they meet) and *schools*: where makers differ, each way a layer
over the sheet that lays measures aside or puts other rules in place.
"""

import tomllib
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property
from pathlib import Path
from types import MappingProxyType
from typing import Any, NamedTuple

from izett.errors import UnknownName, ValueOutOfRange
from izett.rules.formula import Formula

#: The group of measures in the order of work.
MEASURES = "Measures"


class Range(NamedTuple):
    """From where to where a number can lie, and why no further."""

    low: float
    high: float
    reason: str


#: What a rule or a found value can be set to by hand, by its unit. Common practice, no single source.
SETTABLE: Mapping[str, Range] = {
    "cm": Range(-100.0, 300.0, "no line of a garment is longer than 3 m"),
    "°": Range(-90.0, 90.0, "paper turns by a right angle at most"),
    "%": Range(0.0, 300.0, "no cloth stretches to more than four times its length"),
    "": Range(-10.0, 10.0, "no share or ratio of a draft is larger than ten"),
}


def _within(entry: "Allowance | Rule | Found", value: float, low: float, high: float, why: str) -> float:
    if not low <= value <= high:
        given, ends = f"{value:g} {entry.unit}".rstrip(), f"{low:g} to {high:g} {entry.unit}".rstrip()
        raise ValueOutOfRange(
            f"{entry.label} of {given} is outside {ends}.",
            fix=f"Choose a value in that range; {why}.",
            where=(entry.symbol,),
        )
    return value


@dataclass(frozen=True, slots=True)
class Allowance:
    """A choice of the maker's: its default, the range that makes sense, and why.

    Attributes:
        symbol, label, unit, reason, source: what it is and why.
        default: in `unit`.
        low, high: the range that makes sense at all.
        usual: the range that is usual for the fit and cloth; None where that is the same.
        draws: the lines, points and darts that it moves.
        uses: nothing; as a rule's.
        handle: for a shape, where its curve can be taken hold of: (line, share of the line's length from its start,
            cm by which the line moves outwards there for one unit more).
    """

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
    usual: tuple[float, float] | None = None
    handle: tuple[str, float, float] | None = None

    def checked(self, value: float) -> float:
        """Return `value`.

        Raises:
            ValueOutOfRange: it lies outside the allowance's range.
        """
        return _within(self, value, self.low, self.high, f"the usual one is {self.default:g} {self.unit}".rstrip())


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
    """A symbol with the ways to work it out, the first that applies counting.

    `draws` are the lines, points and darts that it moves; `reads` what they depend on beside it, of the same drawing.
    """

    symbol: str
    label: str
    group: str
    unit: str
    ways: tuple[Way, ...]
    reason: str = ""
    source: str = ""
    draws: tuple[str, ...] = ()
    reads: tuple[str, ...] = ()

    def way(self, taken: Iterable[str]) -> Way:
        """Return the first way whose needs were all taken."""
        have = set(taken)
        for way in self.ways:
            if have.issuperset(way.needs):
                return way
        raise ValueError(f"rule {self.symbol} has no way without needs")

    def checked(self, value: float) -> float:
        """Return a value that is set in place of this.

        Raises:
            ValueOutOfRange: no draft can have it.
        """
        settable = SETTABLE[self.unit]
        return _within(self, value, settable.low, settable.high, settable.reason)


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

    def checked(self, value: float) -> float:
        """Return a value that is set in place of this.

        Raises:
            ValueOutOfRange: no draft can have it.
        """
        settable = SETTABLE[self.unit]
        return _within(self, value, settable.low, settable.high, settable.reason)


@dataclass(frozen=True, slots=True)
class SchoolWay:
    """One way of a school, as a layer over the sheet.

    Attributes:
        key, title, reason, source: what it is and who works so.
        needs: the measures without which it cannot be chosen.
        uses: the only measures that it uses; None for all.
        lays_aside: measures that it does not use.
        rules: the rules that it puts in place of the sheet's, by symbol.
    """

    key: str
    title: str
    reason: str = ""
    source: str = "common practice, no single source"
    needs: tuple[str, ...] = ()
    uses: frozenset[str] | None = None
    lays_aside: frozenset[str] = frozenset()
    rules: Mapping[str, Rule] = field(default_factory=lambda: MappingProxyType({}))

    def admits(self, symbol: str) -> bool:
        """Return whether this way uses a measure that was taken."""
        return (self.uses is None or symbol in self.uses) and symbol not in self.lays_aside


@dataclass(frozen=True, slots=True)
class School:
    """A question on which makers differ, with their ways by key; the first is the usual one here."""

    key: str
    label: str
    ways: Mapping[str, SchoolWay]

    @property
    def usual(self) -> str:
        """The key of the way that is taken where none is chosen."""
        return next(iter(self.ways))

    def way(self, key: str) -> SchoolWay:
        """Return a way.

        Raises:
            UnknownName: there is none of that name.
        """
        if key not in self.ways:
            raise UnknownName(
                f"{self.label}: there is no way “{key}”.", fix=f"Choose {' or '.join(self.ways)}.", where=(self.key,)
            )
        return self.ways[key]


@dataclass(frozen=True)
class RuleSheet:
    """A rule sheet with its parts by symbol, in the order of work."""

    title: str
    allowances: Mapping[str, Allowance]
    rules: Mapping[str, Rule]
    found: Mapping[str, Found]
    schools: Mapping[str, School]
    order: tuple[str, ...]

    def has(self, symbol: str) -> bool:
        """Return whether an allowance, a rule in force or a found value has that name."""
        return symbol in self.allowances or symbol in self.rules or symbol in self.found

    def entry(self, symbol: str) -> "Allowance | Rule | Found | None":
        """Return what the sheet has by that name, a rule of a school's too; None where there is nothing."""
        return (
            self.allowances.get(symbol)
            or self.rules.get(symbol)
            or self.found.get(symbol)
            or next((rule for rule in self.all_rules if rule.symbol == symbol), None)
        )

    @property
    def all_rules(self) -> tuple[Rule, ...]:
        """The sheet's rules, and those that ways of its schools put in their place."""
        ways = (way for school in self.schools.values() for way in school.ways.values())
        return (*self.rules.values(), *(rule for way in ways for rule in way.rules.values()))

    def layered(self, chosen: Mapping[str, str]) -> "RuleSheet":
        """Return the sheet with the rules of the chosen ways in place, by the school's key.

        Raises:
            UnknownName: there is no such school or way.
        """
        rules = dict(self.rules)
        for key, way in chosen.items():
            rules.update(self.school(key).way(way).rules)
        new = tuple(symbol for symbol in rules if symbol not in self.rules)
        return replace(self, rules=rules, order=(*self.order, *new))

    def school(self, key: str) -> School:
        """Return a school.

        Raises:
            UnknownName: makers do not differ on that here.
        """
        if key not in self.schools:
            raise UnknownName(
                f"There is no school “{key}” here.", fix=f"Available: {', '.join(self.schools)}.", where=(key,)
            )
        return self.schools[key]

    def lines_of(self, symbol: str) -> frozenset[str]:
        """Return the lines, points and darts that depend on a symbol, through whatever rules and searches read it."""
        reached = {symbol, *self._readers.get(symbol, ())}
        parts: tuple[Mapping[str, Allowance] | Mapping[str, Rule] | Mapping[str, Found], ...]
        parts = (self.allowances, self.rules, self.found)
        return frozenset(line for s in reached for part in parts if s in part for line in part[s].draws)

    @cached_property
    def _readers(self) -> Mapping[str, tuple[str, ...]]:
        direct: dict[str, set[str]] = {}
        for rule in self.rules.values():
            for way in rule.ways:
                for used in (*way.formula.uses, *way.needs, *rule.reads):
                    direct.setdefault(used, set()).add(rule.symbol)
        for found in self.found.values():
            for used in found.uses:
                direct.setdefault(used, set()).add(found.symbol)
        return _closed(direct)

    @cached_property
    def dependants(self) -> Mapping[str, tuple[str, ...]]:
        """For each symbol, all rules that read it, at any remove."""
        direct: dict[str, set[str]] = {}
        for rule in self.rules.values():
            for way in rule.ways:
                for used in way.formula.uses:
                    direct.setdefault(used, set()).add(rule.symbol)
        return _closed(direct)

    def allowance(self, symbol: str) -> Allowance:
        """Return an allowance by its symbol.

        Raises:
            UnknownName: the sheet has none of that name.
        """
        if symbol not in self.allowances:
            raise UnknownName(
                f"There is no allowance “{symbol}”.",
                fix=f"Available: {', '.join(self.allowances)}.",
                where=(symbol,),
            )
        return self.allowances[symbol]


def _closed(direct: Mapping[str, set[str]]) -> Mapping[str, tuple[str, ...]]:
    """Return for each symbol what reads it at any remove, from what reads it at once."""
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


def load_sheet(*paths: Path) -> RuleSheet:
    """Read a rule sheet from TOML files, later ones following the earlier in the order of work.

    Raises:
        ValueError: the files are not a rule sheet (a programmer's mistake: they ship with the method).
    """
    allowances: dict[str, Allowance] = {}
    rules: dict[str, Rule] = {}
    found: dict[str, Found] = {}
    schools: dict[str, School] = {}
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
        for key, school in data.get("school", {}).items():
            label = school.pop("label")
            schools[key] = School(key, label, {name: _school_way(name, entry) for name, entry in school.items()})
    if len(order) != len(set(order)):
        raise ValueError(f"a symbol stands twice in {paths}")
    return RuleSheet(title, allowances, rules, found, schools, tuple(order))


def combined(sheets: Sequence[RuleSheet]) -> RuleSheet:
    """Return one sheet for blocks that are drafted together: measures first, then block by block.

    Raises:
        ValueError: two blocks mean different things by one symbol (a programmer's mistake).
    """
    if len(sheets) == 1:
        return sheets[0]
    parts: dict[str, dict[str, Any]] = {name: {} for name in ("allowances", "rules", "found", "schools")}
    for sheet in sheets:
        for name, part in parts.items():
            for symbol, entry in getattr(sheet, name).items():
                if part.setdefault(symbol, entry) != entry:
                    raise ValueError(f"{symbol} means two things in {' and '.join(s.title for s in sheets)}")
    order = dict.fromkeys(symbol for sheet in sheets for symbol in sheet.order)
    known = {**parts["rules"], **parts["found"]}
    first = [symbol for symbol in order if known[symbol].group == MEASURES]
    rest = [symbol for symbol in order if known[symbol].group != MEASURES]
    return RuleSheet(" + ".join(sheet.title for sheet in sheets), **parts, order=(*first, *rest))


def borrow(sheet: RuleSheet, lender: RuleSheet, *, also: Iterable[str] = (), never: Iterable[str] = ()) -> RuleSheet:
    """Return the sheet with those rules of the lender that its own rules read, the lender's first in the order of work.

    A symbol that a way reads only where it was taken needs no rule; nor do those in `never`, which are always taken.
    `also` are symbols that the draft itself reads.
    """
    wanted: set[str] = set()
    waiting = [*also, *(symbol for rule in sheet.all_rules for symbol in _read_untaken(rule))]
    while waiting:
        symbol = waiting.pop()
        if symbol in lender.rules and symbol not in wanted and symbol not in sheet.rules and symbol not in never:
            wanted.add(symbol)
            waiting.extend(_read_untaken(lender.rules[symbol]))
    lent = {symbol: rule for symbol, rule in lender.rules.items() if symbol in wanted}
    return replace(sheet, rules={**lent, **sheet.rules}, order=(*lent, *sheet.order))


def sharing(sheet: RuleSheet, lender: RuleSheet, symbols: Iterable[str]) -> RuleSheet:
    """Return the sheet with entries of another block's sheet, the lender's first in the order of work.

    Raises:
        ValueError: the lender has no such entry, or the sheet has its own (a programmer's mistake).
    """
    wanted = set(symbols)
    parts: dict[str, dict[str, Any]] = {}
    for name in ("allowances", "rules", "found"):
        lent = {symbol: entry for symbol, entry in getattr(lender, name).items() if symbol in wanted}
        own = getattr(sheet, name)
        wanted -= lent.keys() - own.keys()
        parts[name] = {**lent, **own}
    if wanted:
        raise ValueError(f"{lender.title} cannot lend {', '.join(sorted(wanted))}")
    order = [symbol for symbol in lender.order if symbol in {*parts["rules"], *parts["found"]} - set(sheet.order)]
    return replace(
        sheet,
        allowances=parts["allowances"],
        rules=parts["rules"],
        found=parts["found"],
        order=(*order, *sheet.order),
    )


def _read_untaken(rule: Rule) -> Iterable[str]:
    return (symbol for way in rule.ways for symbol in way.formula.uses if symbol not in way.needs)


def _school_way(key: str, entry: dict[str, Any]) -> SchoolWay:
    rules = {line["symbol"]: _rule(line) for line in entry.pop("line", ())}
    return SchoolWay(
        key,
        entry["title"],
        entry.get("reason", ""),
        entry.get("source", "common practice, no single source"),
        tuple(entry.get("needs", ())),
        frozenset(entry["uses"]) if "uses" in entry else None,
        frozenset(entry.get("lays_aside", ())),
        rules,
    )


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
