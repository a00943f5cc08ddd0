"""Small worksheets of the cutting table: a few numbers in, the sums with those numbers in them, and what comes of them.

Each is a rule sheet in `sums/`, worked by the same evaluator as a draft: one file is one place to add. A result may be a
parameter of a step (`[[use]]`), so that a measured fullness goes straight into the ruffle.
"""

import tomllib
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from types import MappingProxyType

from izett.errors import UnknownName, ValueOutOfRange
from izett.rules.sheet import RuleSheet, load_sheet
from izett.rules.worksheet import SumLine, Worksheet

FOLDER = Path(__file__).parent / "sums"


#: What a cloth's numbers are called where a result is one of them: shares, given in per cent.
CLOTH = "cloth"
OF_CLOTH = ("stretch_warp", "stretch_weft", "recovery", "shrinkage_warp", "shrinkage_weft")


@dataclass(frozen=True, slots=True)
class Use:
    """Where a result is needed: a parameter of a step, or a number of a cloth.

    Attributes:
        kind: of the step, or `cloth`.
        param, symbol: what the result becomes; which result.
        of: which kind of such a step, where it has several (a ruffle among bands); empty for any.
    """

    kind: str
    param: str
    symbol: str
    of: str = ""


@dataclass(frozen=True, slots=True)
class Sum:
    """A worksheet: what it is called and says, its rule sheet, what comes of it, and where that is used."""

    key: str
    title: str
    says: str
    sheet: RuleSheet
    gives: tuple[str, ...]
    uses: tuple[Use, ...]


@cache
def sums() -> Mapping[str, Sum]:
    """Return the worksheets by key."""
    return MappingProxyType({path.stem: _sum(path) for path in sorted(FOLDER.glob("*.toml"))})


def _sum(path: Path) -> Sum:
    data = tomllib.loads(path.read_text(encoding="utf-8"))
    uses = tuple(Use(**use) for use in data.get("use", ()))
    return Sum(path.stem, data["title"], data["says"], load_sheet(path), tuple(data["gives"]), uses)


def summed(key: str, values: Mapping[str, float]) -> list[SumLine]:
    """Return a worksheet's lines for some numbers: what was given, then every sum.

    Args:
        key: of the worksheet.
        values: its numbers by symbol, in their units; what is left out is the usual.

    Raises:
        UnknownName: there is no such worksheet, or no such number in it.
        ValueOutOfRange: a number is none that makes sense there, or the sums have no result for them.
    """
    found = sums().get(key)
    if found is None:
        raise UnknownName(f"There is no worksheet “{key}”.", fix=f"There are {', '.join(sums())}.", where=(key,))
    for symbol, value in values.items():
        allowance = found.sheet.allowances.get(symbol)
        if allowance is None:
            raise UnknownName(
                f"“{found.title}” asks for no “{symbol}”.",
                fix=f"It asks for {', '.join(found.sheet.allowances)}.",
                where=(symbol,),
            )
        allowance.checked(value)
    worked = Worksheet(found.sheet, taken={}, overrides=dict(values), measure_symbols=frozenset())
    try:
        return list(worked.lines())
    except (ZeroDivisionError, ValueError) as error:
        raise ValueOutOfRange(
            f"“{found.title}” has no result for these numbers.",
            fix="Look at them again: one of them leaves nothing to divide by.",
            where=(key,),
        ) from error


def results(key: str, values: Mapping[str, float]) -> dict[str, float]:
    """Return what comes of a worksheet, by symbol.

    Raises:
        UnknownName, ValueOutOfRange: as of `summed`.
    """
    gives = sums()[key].gives if key in sums() else ()
    return {line.symbol: line.value for line in summed(key, values) if line.symbol in gives}
