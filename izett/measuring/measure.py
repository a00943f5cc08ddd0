"""The catalogue of measures, and readings judged against it: what cannot be a length, and what looks odd."""

import tomllib
from collections.abc import Mapping
from dataclasses import dataclass
from difflib import get_close_matches
from enum import StrEnum
from functools import cache
from pathlib import Path

from izett.errors import UnknownName, UnreadableMeasure
from izett.units import CM_PER_INCH, Reading, Unit, UnreadableLength, read_length, show_length

HERE = Path(__file__).parent

#: cm. No measure of a person is longer; a larger number is a slip of the hand, not an unusual body.
LONGEST = 300.0

#: Permitted difference between two readings by kind, cm. After ISO 20685's permitted differences, from memory.
TOLERANCE = {"large_girth": 0.9, "small_girth": 0.4, "length": 0.5, "height": 0.4, "width": 0.4}


@dataclass(frozen=True, slots=True)
class Measure:
    """A measure of the catalogue; `low` and `high` bound what is plausible for adults, in cm."""

    symbol: str
    name: str
    kind: str
    low: float
    high: float
    how: str

    @property
    def tolerance(self) -> float:
        """How far two readings may differ, in cm."""
        return TOLERANCE[self.kind]


@cache
def measures() -> Mapping[str, Measure]:
    """Return the catalogue by symbol."""
    data = tomllib.loads((HERE / "catalogue.toml").read_text(encoding="utf-8"))
    return {entry["symbol"]: Measure(**entry) for entry in data["measure"]}


def measure(symbol: str) -> Measure:
    """Return a measure by symbol.

    Raises:
        UnknownName: the catalogue has none of that name; the message offers the nearest.
    """
    found = measures().get(symbol)
    if found is None:
        near = get_close_matches(symbol, measures(), n=1)
        raise UnknownName(
            f"There is no measure “{symbol}”.",
            mend=f"Did you mean {near[0]}?" if near else "The measuring sheet lists the measures that there are.",
            where=(symbol,),
        )
    return found


class Concern(StrEnum):
    """What is odd about a reading."""

    IMPLAUSIBLE = "implausible"
    OTHER_UNIT = "other_unit"


@dataclass(frozen=True, slots=True)
class Remark:
    """A question about one reading. Nothing is refused by it.

    Attributes:
        symbol: the measure.
        concern: what is odd.
        message: the question, in words.
        suggestion: a text to put in its place, where there is one.
    """

    symbol: str
    concern: Concern
    message: str
    suggestion: str = ""


def read_measure(symbol: str, text: str, *, unit: Unit) -> Reading:
    """Read a typed measure.

    Raises:
        UnknownName: there is no such measure.
        UnreadableMeasure: the text is not a length, not above 0, or above 300 cm.
    """
    what = measure(symbol)
    try:
        reading = read_length(text, unit=unit)
    except UnreadableLength as error:
        raise UnreadableMeasure(
            f"{what.name}: {error}.",
            mend="Type it again.",
            where=(symbol,),
        ) from error
    check_length(what, reading.cm)
    return reading


def check_length(what: Measure, cm: float) -> None:
    """Let pass what can be a length on a body.

    Raises:
        UnreadableMeasure: it is not above 0, above 300 cm, or not a number.
    """
    if not 0 < cm <= LONGEST:
        raise UnreadableMeasure(
            f"{what.name}: {cm:g} cm cannot be a measure of a person.",
            mend=f"It must be above 0 and at most {LONGEST:g} cm ({LONGEST / float(CM_PER_INCH):.0f} in).",
            where=(what.symbol,),
        )


def remark_on(symbol: str, reading: Reading) -> Remark | None:
    """Return what to ask about a reading, or None where it is plausible."""
    what = measure(symbol)
    if what.low <= reading.cm <= what.high:
        return None
    other = Unit.INCH if reading.unit is Unit.CM else Unit.CM
    factor = float(CM_PER_INCH) if other is Unit.INCH else 1 / float(CM_PER_INCH)
    in_other = reading.cm * factor
    shown = show_length(reading.cm, unit=reading.unit)
    if what.low <= in_other <= what.high:
        bare = show_length(reading.cm, unit=reading.unit, with_unit=False)
        return Remark(
            symbol,
            Concern.OTHER_UNIT,
            f"{what.name} of {shown}: was that {'inches' if other is Unit.INCH else 'centimetres'}?",
            suggestion=f"{bare} {other.value}",
        )
    low = show_length(what.low, unit=reading.unit, with_unit=False)
    high = show_length(what.high, unit=reading.unit)
    return Remark(
        symbol,
        Concern.IMPLAUSIBLE,
        f"{what.name} of {shown} is unusual: most adults lie between {low} and {high}.",
    )
