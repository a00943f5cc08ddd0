"""The worksheet: every sum of a draft, worked out when it is asked for and written down as on paper."""

from collections import ChainMap
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from enum import StrEnum
from math import sqrt

from izett.rules.formula import Formula
from izett.rules.sheet import MEASURES, Rule, RuleSheet, Way


class State(StrEnum):
    """Where a value comes from."""

    TAKEN = "taken"
    ESTIMATED = "estimated"
    COMPUTED = "computed"
    FOUND = "found"
    CHOSEN = "chosen"
    OVERRIDDEN = "overridden"
    HOUSE = "house"
    USUAL = "usual"


@dataclass(frozen=True, slots=True)
class SumLine:
    """One line of the worksheet.

    Attributes:
        symbol, label, group, unit: what it is.
        state: where the value comes from.
        value: in `unit`.
        formula, written: the rule's text, and as one writes it on paper; empty for what was taken or chosen.
        worked: the formula with the numbers put in.
        condition: for a found value, what it was found to meet.
        residual: by how much the condition is missed, in `unit`.
        reason: why the rule or the choice is so.
        source: where the rule comes from.
        uses: the symbols that the line reads.
        draws: the lines, points and darts of the draft that it moves.
        spread: for an estimate, how far it may be off, in `unit`: for two people of three within it.
    """

    symbol: str
    label: str
    group: str
    unit: str
    state: State
    value: float
    formula: str = ""
    written: str = ""
    worked: str = ""
    condition: str = ""
    residual: float = 0.0
    reason: str = ""
    source: str = ""
    uses: tuple[str, ...] = ()
    draws: tuple[str, ...] = ()
    spread: float = 0.0


class Worksheet(dict[str, float]):
    """Values by symbol, pulled through the rules on demand.

    Setting a found value forgets whatever was worked out from the old one, so that every line that is read
    afterwards agrees with every other.
    """

    def __init__(
        self,
        sheet: RuleSheet,
        *,
        taken: Mapping[str, float],
        overrides: Mapping[str, float],
        measure_symbols: frozenset[str],
        house: Mapping[str, float] | None = None,
        schools: Mapping[str, str] | None = None,
        why: Mapping[str, str] | None = None,
    ) -> None:
        super().__init__()
        self.sheet = sheet
        self.taken = dict(taken)
        self.house = dict(house or {})
        self.overrides = {**self.house, **overrides}
        self._set_here = frozenset(overrides)
        self._schools = dict(schools or {})
        self._why = dict(why or {})
        self._measures = measure_symbols
        self._residuals: dict[str, float] = {}
        self._conditions: dict[str, str] = {}
        self._spreads: dict[str, float] = {}
        self.reasons: dict[str, str] = {}
        self._fixed: dict[str, float] = {
            **{symbol: allowance.default for symbol, allowance in sheet.allowances.items()},
            **self.taken,
            **self.overrides,
        }

    def __missing__(self, symbol: str) -> float:
        value = self._fixed.get(symbol)
        if value is None:
            value = self.sheet.rules[symbol].way(self.taken).formula.evaluate(self)
        self[symbol] = value
        return value

    def settle(self, symbol: str, value: float, *, residual: float = 0.0, condition: str = "") -> None:
        """Write down a found value (an overridden one stays; only its residual is recorded).

        Args:
            symbol, value: what was found.
            residual: by how much its condition is missed.
            condition: which condition, where the sheet's depends on what was taken.
        """
        self._residuals[symbol] = residual
        self.reasons.pop(symbol, None)
        if condition:
            self._conditions[symbol] = condition
        if symbol not in self.overrides:
            self._put(symbol, value)

    def choose(self, symbol: str, value: float, *, reason: str) -> None:
        """Write down a value that the draft chose in place of its rule or default, and why; an override stays."""
        if symbol not in self.overrides:
            self.reasons[symbol] = reason
            self._put(symbol, value)

    def _put(self, symbol: str, value: float) -> None:
        self[symbol] = value
        self._fixed[symbol] = value
        self._spreads.clear()
        for follower in self.sheet.dependants.get(symbol, ()):
            self.pop(follower, None)

    def school(self, key: str) -> str:
        """Return the way that is followed where makers differ."""
        return self._schools.get(key) or self.sheet.school(key).usual

    def has(self, symbol: str) -> bool:
        """Return whether the measure was taken."""
        return symbol in self.taken

    def state(self, symbol: str) -> State:
        """Return where the value of `symbol` comes from."""
        if symbol in self.overrides:
            return State.OVERRIDDEN if symbol in self._set_here else State.HOUSE
        if symbol in self.reasons:
            return State.CHOSEN
        if symbol in self.taken:
            return State.TAKEN
        if symbol in self.sheet.found:
            return State.FOUND
        if symbol in self.sheet.allowances:
            return State.CHOSEN
        return State.ESTIMATED if symbol in self._measures else State.COMPUTED

    def spread(self, symbol: str) -> float:
        """Return how far a value may be off because it or what it is worked out from was estimated, in its unit.

        Independent errors add by their squares; a rule passes on what it reads as steeply as it reads it.
        """
        if symbol in self.overrides or symbol in self.taken or symbol not in self.sheet.rules:
            return 0.0
        if symbol not in self._spreads:
            self._spreads[symbol] = self._spread_of(self.sheet.rules[symbol].way(self.taken))
        return self._spreads[symbol]

    def _spread_of(self, way: Way) -> float:
        total = way.spread * way.spread
        for used in way.formula.uses:
            if off := self.spread(used):
                value = self[used]
                up, down = (way.formula.evaluate(ChainMap({used: v}, self)) for v in (value + off, value - off))
                total += (up - down) ** 2 / 4
        return sqrt(total)

    def allowance_state(self, symbol: str) -> State:
        """Return whether an allowance is the usual one, overridden for this job, or chosen by the draft."""
        state = self.state(symbol)
        return State.USUAL if state is State.CHOSEN and symbol not in self.reasons else state

    def reason(self, symbol: str, usual: str) -> str:
        """Return why a value is so: the maker's reason, the draft's where it chose, else the usual one."""
        if symbol in self.overrides:
            return self._why.get(symbol) or usual
        return self.reasons.get(symbol, usual)

    def lines(self) -> Iterator[SumLine]:
        """Yield the lines in the order of work: what was taken, then rules and found values."""
        listed = set(self.sheet.order)
        for symbol in self.taken:
            if symbol not in listed:
                lines = tuple(sorted(self.sheet.lines_of(symbol)))
                yield SumLine(symbol, symbol.replace("_", " "), MEASURES, "cm", State.TAKEN, self[symbol], draws=lines)
        for symbol in self.sheet.order:
            if symbol in self.sheet.found:
                if symbol in self._residuals or symbol in self.overrides or symbol in self.reasons:
                    yield self._found_line(symbol)
            elif self.knows(symbol):
                yield self._rule_line(self.sheet.rules[symbol])

    def knows(self, symbol: str) -> bool:
        """Return whether a value is there or can be worked: an estimate may lack the measure that it is made from."""
        if symbol in self:
            return True
        try:
            self[symbol]
        except (NameError, KeyError):
            return False
        return True

    def lengths_of(self, formula: Formula) -> frozenset[str]:
        """Return which symbols of a formula are lengths."""
        return frozenset(symbol for symbol in formula.uses if self._unit(symbol) == "cm")

    def _unit(self, symbol: str) -> str:
        shelf = (self.sheet.allowances, self.sheet.rules, self.sheet.found)
        return next((entries[symbol].unit for entries in shelf if symbol in entries), "cm")

    def _found_line(self, symbol: str) -> SumLine:
        found = self.sheet.found[symbol]
        state = self.state(symbol)
        chosen = state is State.CHOSEN
        return SumLine(
            symbol,
            found.label,
            found.group,
            found.unit,
            state,
            self[symbol],
            condition="" if chosen else self._conditions.get(symbol, found.condition),
            residual=self._residuals.get(symbol, 0.0),
            reason=self.reason(symbol, found.reason),
            source=found.source,
            uses=found.uses,
            draws=found.draws,
        )

    def _rule_line(self, rule: Rule) -> SumLine:
        state = self.state(rule.symbol)
        way = rule.way(self.taken)
        by_rule = state in (State.ESTIMATED, State.COMPUTED)
        lengths, length = self.lengths_of(way.formula), rule.unit == "cm"
        return SumLine(
            rule.symbol,
            rule.label,
            rule.group,
            rule.unit,
            state,
            self[rule.symbol],
            formula=way.formula.text if state is not State.TAKEN else "",
            written=way.formula.in_words(lengths, length=length) if state is not State.TAKEN else "",
            worked=way.formula.worked(self, lengths=lengths, length=length) if by_rule else "",
            reason=self.reason(rule.symbol, rule.reason),
            source=rule.source,
            uses=way.formula.uses if by_rule else (),
            draws=tuple(sorted(self.sheet.lines_of(rule.symbol))) if rule.group == MEASURES else rule.draws,
            spread=self.spread(rule.symbol) if state is State.ESTIMATED else 0.0,
        )
