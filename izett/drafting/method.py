"""What a drafting method is, and drafting one block or several together on one worksheet.

Blocks drafted together share one sheet of sums: a sleeve reads the armhole of the bodice that was drafted before it. A
later block never alters an earlier one: where it needs another armhole it asks for an adjustment, and the whole draft
starts again from the beginning with that, so that no result depends on what was drafted before.
"""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property, lru_cache
from types import MappingProxyType

from izett.drafting.ease import FITTED, WOVEN, Cloth, eased, levels
from izett.errors import DraftRefused, IzettError, MissingMeasure
from izett.measuring.measure import measure, measures
from izett.pattern.document import Intent, Pattern
from izett.pattern.sound import fault_of
from izett.rules.sheet import RuleSheet, combined
from izett.rules.worksheet import State, SumLine, Worksheet

DIRECT = "direct"
#: The school that says which measures are used; it is asked of every block.
MEASURES_USED = "measures"
#: A draft starts again at most this often: each adjustment goes one way, so more would go in circles.
MOST_STARTS = 12


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


class Adjustment(Exception):
    """Asked of an earlier block by a later one: the draft starts again with an allowance at another value."""

    def __init__(self, symbol: str, value: float, *, reason: str, otherwise: DraftRefused) -> None:
        super().__init__(symbol)
        self.otherwise = otherwise
        self.symbol = symbol
        self.value = value
        self.reason = reason


@dataclass(frozen=True, eq=False)
class Method:
    """A block's drafting method.

    Attributes:
        key: the block's name: `bodice`.
        title: for people.
        sheet: its rule sheet.
        requires: groups of measures; of each group at least one must be taken.
        draft: works the values into a pattern upon what was drafted before it, telling notices; raises DraftRefused.
        stands_on: blocks of which one must be drafted before it, the usual one first; empty where it stands alone.
        joins: blocks that it is fitted to where they are drafted too.
        clothes: what of the body it clothes, `above` and `below` the waist: nothing is clothed twice by one garment.
    """

    key: str
    title: str
    sheet: RuleSheet
    requires: tuple[tuple[str, ...], ...]
    draft: Callable[[Worksheet, Tell, Pattern], Pattern]
    stands_on: tuple[str, ...] = ()
    joins: tuple[str, ...] = ()
    clothes: tuple[str, ...] = ()


@dataclass(frozen=True)
class Choices:
    """What the maker chose for a draft.

    Attributes:
        school: which measures are used: `direct` all that was taken, `proportional` only its own few.
        schools: the ways chosen where makers differ otherwise, by the school's key.
        fit, cloth: how close, in what.
        overrides: allowances and rules set for this job, by symbol, in the symbol's unit.
        house: the same, set by the maker's own house rules.
        why: the reasons of both, by symbol.
    """

    school: str = DIRECT
    schools: Mapping[str, str] = field(default_factory=lambda: MappingProxyType({}))
    fit: str = FITTED
    cloth: Cloth = WOVEN
    overrides: Mapping[str, float] = field(default_factory=lambda: MappingProxyType({}))
    house: Mapping[str, float] = field(default_factory=lambda: MappingProxyType({}))
    why: Mapping[str, str] = field(default_factory=lambda: MappingProxyType({}))

    def ways(self, sheet: RuleSheet) -> dict[str, str]:
        """Return the chosen ways of those schools that the sheet has."""
        return {k: way for k, way in {MEASURES_USED: self.school, **self.schools}.items() if k in sheet.schools}


@dataclass(frozen=True)
class Draft:
    """Blocks drafted together, with all their sums.

    Attributes:
        pattern: the blocks.
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

    def eases(self) -> list["Ease"]:
        """Return the ease at each level that the blocks have."""
        found = []
        for level in levels().values():
            sheet = self.sums.sheet
            if level.shown and (level.symbol in sheet.allowances or level.symbol in sheet.rules):
                allowance = sheet.allowances.get(level.symbol)
                usual = allowance.usual if allowance and allowance.usual else (0.0, 0.0)
                found.append(
                    Ease(
                        level.key,
                        level.label,
                        level.symbol,
                        self.sums[level.symbol] * level.around,
                        level.around,
                        (usual[0] * level.around, usual[1] * level.around) if allowance else None,
                        self.sums.reason(level.symbol, level.reason),
                        self.sums.allowance_state(level.symbol),
                    )
                )
        return found


@dataclass(frozen=True, slots=True)
class Ease:
    """The ease at a level.

    Attributes:
        key, label, symbol: the level, and the allowance or rule that gives it.
        total: all around, in cm.
        around: how many times the allowance that is.
        usual: what is usual for the fit, all around; None for a knit, where it is a share of the girth.
        reason, state: why, and where the value comes from.
    """

    key: str
    label: str
    symbol: str
    total: float
    around: int
    usual: tuple[float, float] | None
    reason: str
    state: State


def draft(
    method: Method | None,
    taken: Mapping[str, float],
    *,
    also: Sequence[Method] = (),
    choices: Choices | None = None,
    school: str | None = None,
    overrides: Mapping[str, float] | None = None,
) -> Draft:
    """Draft a block, and others with it, in the order given.

    Args:
        method: the first block's method; None where a garment is made of given pieces alone.
        taken: measures in cm by symbol.
        also: further blocks; each must come after those that it stands on.
        choices: what the maker chose.
        school, overrides: for short, in place of those of `choices`.

    Raises:
        MissingMeasure: a measure that a block cannot do without was not taken.
        UnknownName: a school, fit, cloth or overridden symbol does not exist.
        ValueOutOfRange: an allowance lies outside its range.
        DraftRefused: the measures do not make these blocks.
    """
    choices = choices or Choices()
    methods = (*([method] if method is not None else []), *also)
    way = school or choices.school
    chosen = Choices(way, choices.schools, choices.fit, choices.cloth, overrides or choices.overrides, choices.house)
    sheet = sheet_for(methods, tuple(sorted(choices.schools.items())), chosen.fit, chosen.cloth)
    ways = chosen.ways(sheet)
    used = used_measures(sheet, taken, ways)
    for one in methods:
        for group in one.requires:
            if not any(symbol in used for symbol in group):
                names = " or ".join(measure(symbol).name.lower() for symbol in group)
                raise MissingMeasure(
                    f"The block “{one.title.lower()}” needs {names}.", fix="Take it first.", where=group
                )
    checked = {symbol: _checked(sheet, symbol, value) for symbol, value in chosen.overrides.items()}
    # A house rule of another block does not concern these.
    house = {symbol: _checked(sheet, symbol, value) for symbol, value in chosen.house.items() if sheet.has(symbol)}
    adjusted: dict[str, Adjustment] = {}
    asked_before: list[str] = []
    while True:
        sums = Worksheet(
            sheet,
            taken=used,
            overrides=checked,
            measure_symbols=frozenset(measures()),
            house=house,
            schools=ways,
            why=choices.why,
        )
        for asked in adjusted.values():
            sums.choose(asked.symbol, asked.value, reason=asked.reason)
        notices: list[Notice] = []
        try:
            pattern = Pattern((), (), Intent(chosen.fit, chosen.cloth.kind, stretch=chosen.cloth.stretch))
            for one in methods:
                pattern = one.draft(sums, notices.append, pattern)
        except Adjustment as asked:
            if asked.symbol in adjusted and adjusted[asked.symbol].value == asked.value:
                # The earlier block took it back: it cannot give what is asked.
                raise asked.otherwise from None
            if len(asked_before) >= MOST_STARTS:
                raise asked.otherwise from None
            asked_before.append(asked.symbol)
            adjusted[asked.symbol] = asked
            continue
        except IzettError:
            raise
        except Exception as fault:
            raise _undraftable(methods, {**house, **checked}, sheet) from fault
        if any(fault_of(piece) for piece in pattern):
            raise _undraftable(methods, {**house, **checked}, sheet)
        return Draft(pattern, sums, tuple(notices))


def _undraftable(methods: Sequence[Method], set_here: Mapping[str, float], sheet: RuleSheet) -> DraftRefused:
    """Return the refusal of values of which nothing can be drawn; what was set by hand is looked at first."""
    blocks = " and ".join(method.title.lower() for method in methods)
    if not set_here:
        return DraftRefused(f"These measures do not make the {blocks}.", fix="Take them again, the girths first.")
    named = ", ".join(entry.label.lower() for symbol in set_here if (entry := sheet.entry(symbol)) is not None)
    return DraftRefused(
        f"With what was set by hand nothing can be drawn of the {blocks}: {named}.",
        fix="Set it nearer to the usual value, or back to it.",
        where=tuple(set_here),
    )


@lru_cache(maxsize=256)
def sheet_for(methods: tuple[Method, ...], schools: tuple[tuple[str, str], ...], fit: str, cloth: Cloth) -> RuleSheet:
    """Return the rule sheet of blocks drafted together, with schools and ease laid over it.

    Raises:
        UnknownName: there is no such way, fit or cloth.
    """
    sheet = combined([method.sheet for method in methods])
    chosen = {key: way for key, way in schools if key in sheet.schools}
    return eased(sheet.layered(chosen), fit, cloth)


def used_measures(sheet: RuleSheet, taken: Mapping[str, float], ways: Mapping[str, str]) -> dict[str, float]:
    """Return those of the taken measures that the chosen ways use.

    Raises:
        UnknownName: there is no such way.
        MissingMeasure: a way was chosen that needs a measure which was not taken.
    """
    used = dict(taken)
    for key, chosen in ways.items():
        school = sheet.school(key)
        way = school.way(chosen)
        missing = [symbol for symbol in way.needs if symbol not in taken]
        if missing:
            names = " and ".join(measure(symbol).name.lower() for symbol in missing)
            raise MissingMeasure(
                f"{school.label} {way.title} needs {names}.",
                fix="Take it, or choose another way.",
                where=tuple(missing),
            )
        used = {symbol: cm for symbol, cm in used.items() if way.admits(symbol)}
    return used


def _checked(sheet: RuleSheet, symbol: str, value: float) -> float:
    entry = sheet.entry(symbol)
    if entry is not None:
        return entry.checked(value)
    if not sheet.has(symbol):
        sheet.allowance(symbol)  # raises UnknownName with the list of what there is
    return value


def measures_used(*methods: Method) -> tuple[str, ...]:
    """Return the measures that methods can use, in the catalogue's order: required, read by a rule, or a way's need."""
    read: set[str] = set()
    for method in methods:
        read |= {symbol for group in method.requires for symbol in group}
        for rule in method.sheet.all_rules:
            for way in rule.ways:
                read |= {*way.needs, *way.formula.uses}
        # What the code reads beside the rules: the `uses` of found values.
        read |= {symbol for found in method.sheet.found.values() for symbol in found.uses}
    return tuple(symbol for symbol in measures() if symbol in read)
