"""What a drafting method is: a rule sheet and a function from its values to a pattern."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import cached_property

from izett.errors import MissingMeasure, UnknownName
from izett.measuring.measure import measure, measures
from izett.pattern.document import Pattern
from izett.rules.sheet import RuleSheet
from izett.rules.worksheet import SumLine, Worksheet

DIRECT = "direct"


@dataclass(frozen=True, slots=True)
class Notice:
    """Something that the draft has to tell the maker.

    Attributes:
        code: stable, for programs.
        message: in words, with the figures in cm.
        symbols: the measures and allowances concerned, the one to look at first.
    """

    code: str
    message: str
    symbols: tuple[str, ...] = ()


#: Where a draft tells its notices.
Tell = Callable[[Notice], None]


@dataclass(frozen=True, slots=True)
class Method:
    """A block's drafting method.

    Attributes:
        key: the block's name: `bodice`.
        title: for people.
        sheet: its rule sheet.
        requires: groups of measures; of each group at least one must be taken.
        draft: works the values into a pattern, telling notices; raises DraftRefused.
    """

    key: str
    title: str
    sheet: RuleSheet
    requires: tuple[tuple[str, ...], ...]
    draft: Callable[[Worksheet, Tell], Pattern]


@dataclass(frozen=True)
class Draft:
    """A drafted block with all its sums.

    Attributes:
        pattern: the block.
        sums: the worksheet, with every value by symbol.
        notices: what the draft tells the maker.
    """

    pattern: Pattern
    sums: Worksheet
    notices: tuple[Notice, ...]

    @property
    def values(self) -> Mapping[str, float]:
        """Every value by symbol."""
        return self.sums

    @cached_property
    def lines(self) -> tuple[SumLine, ...]:
        """The lines of the worksheet, written out when they are first looked at."""
        return tuple(self.sums.lines())


def draft(
    method: Method,
    taken: Mapping[str, float],
    *,
    school: str = DIRECT,
    overrides: Mapping[str, float] | None = None,
) -> Draft:
    """Draft a block.

    Args:
        method: the block's method.
        taken: measures in cm by symbol.
        school: `direct` uses all that was taken, `proportional` only its own few.
        overrides: allowances and rules set for this job, by symbol, in the symbol's unit.

    Raises:
        MissingMeasure: a measure that the block cannot do without was not taken.
        UnknownName: the school or an overridden symbol does not exist.
        ValueOutOfRange: an allowance lies outside its range.
        DraftRefused: the measures do not make this block.
    """
    sheet = method.sheet
    if school not in sheet.schools:
        raise UnknownName(
            f"There is no drafting school “{school}”.",
            mend=f"Choose {' or '.join(sheet.schools)}.",
            where=(school,),
        )
    uses = sheet.schools[school]
    used = {symbol: cm for symbol, cm in taken.items() if uses is None or symbol in uses}
    for group in method.requires:
        if not any(symbol in used for symbol in group):
            names = " or ".join(measure(symbol).name.lower() for symbol in group)
            raise MissingMeasure(f"The {method.title.lower()} needs {names}.", mend="Take it first.", where=group)
    checked = {symbol: _checked(sheet, symbol, value) for symbol, value in (overrides or {}).items()}
    worksheet = Worksheet(sheet, taken=used, overrides=checked, measure_symbols=frozenset(measures()))
    notices: list[Notice] = []
    pattern = method.draft(worksheet, notices.append)
    return Draft(pattern, worksheet, tuple(notices))


def _checked(sheet: RuleSheet, symbol: str, value: float) -> float:
    if symbol in sheet.allowances:
        return sheet.allowances[symbol].checked(value)
    if symbol in sheet.rules or symbol in sheet.found:
        return value
    sheet.allowance(symbol)  # raises UnknownName with the list of what there is
    raise AssertionError(symbol)


def measures_used(method: Method) -> tuple[str, ...]:
    """Return the measures that a method can use, in the catalogue's order: required, read by a rule, or a way's need."""
    sheet = method.sheet
    read = {symbol for group in method.requires for symbol in group}
    for rule in sheet.rules.values():
        for way in rule.ways:
            read |= {*way.needs, *way.formula.uses}
    read |= set(method_extras(method))
    return tuple(symbol for symbol in measures() if symbol in read)


def method_extras(method: Method) -> tuple[str, ...]:
    """Return the measures that the method's code reads beside its rules: the `uses` of its found values."""
    return tuple(symbol for found in method.sheet.found.values() for symbol in found.uses if symbol in measures())
