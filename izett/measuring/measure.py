"""The catalogue of measures, and readings judged against it: what cannot be a length, and what looks odd."""

import re
import tomllib
from collections.abc import Mapping
from dataclasses import dataclass
from difflib import get_close_matches
from enum import StrEnum
from functools import cache
from pathlib import Path

from izett.errors import UnknownName, UnreadableMeasure
from izett.units import CM_PER_INCH, Reading, Unit, UnreadableLength, read_length, show_length
from izett.wording import cm as quantity

CATALOGUE = Path(__file__).parent / "catalogue"

#: cm. No measure of a person is longer; a larger number is a slip of the hand, not an unusual body.
LONGEST = 300.0

#: Permitted difference between two readings by kind, cm. After ISO 20685's permitted differences, from memory; a cup
#: letter stands for a range of 2 cm.
TOLERANCE = {"large_girth": 0.9, "small_girth": 0.4, "length": 0.5, "height": 0.4, "width": 0.4, "cup": 1.0}

#: A measure that may be taken left and right apart is written `arm_length.left` then.
SIDES = ("left", "right")


@dataclass(frozen=True, slots=True)
class Measure:
    """A measure of the catalogue.

    Attributes:
        symbol, name, kind: what it is; the kind gives its tolerance.
        station: where in the order of taking it stands.
        low, high: what is plausible for adults, in cm: a warning, never a refusal.
        how: how a helper takes it.
        alone: how one takes it alone, where that is done otherwise.
        term: the term of ISO 8559-1, from memory; empty where it has none that we know of.
        landmarks, tools: what must be found and at hand.
        drives: what depends on it, in words.
        schools: where the trade differs about it.
        tape: where the tape runs on the drawn figure (see `measuring.figure`).
        sides: whether left and right may be taken apart.
        needs_help: whether it is less certain when taken alone.
        body: whether it is of the body, and so can be estimated; a wished hem is not.
    """

    symbol: str
    name: str
    kind: str
    station: str
    low: float
    high: float
    how: str
    tape: str
    drives: str
    alone: str = ""
    term: str = ""
    landmarks: tuple[str, ...] = ()
    tools: tuple[str, ...] = ()
    schools: str = ""
    sides: bool = False
    needs_help: bool = False
    body: bool = True

    @property
    def tolerance(self) -> float:
        """How far two readings may differ, in cm."""
        return TOLERANCE[self.kind]


@dataclass(frozen=True, slots=True)
class Station:
    """A place in the order of taking: where the taker stands, so that the wearer moves little."""

    key: str
    title: str
    stand: str


@cache
def stations() -> tuple[Station, ...]:
    """Return the stations in the order of taking."""
    data = tomllib.loads((CATALOGUE / "stations.toml").read_text(encoding="utf-8"))
    return tuple(Station(**entry) for entry in data["station"])


@cache
def measures() -> Mapping[str, Measure]:
    """Return the catalogue by symbol, in the order of taking."""
    found: dict[str, Measure] = {}
    for station in stations():
        data = tomllib.loads((CATALOGUE / f"{station.key}.toml").read_text(encoding="utf-8"))
        for entry in data["measure"]:
            lists = {key: tuple(value) for key, value in entry.items() if isinstance(value, list)}
            found[entry["symbol"]] = Measure(**{**entry, **lists}, station=station.key)
    return found


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
            fix=f"Did you mean {near[0]}?" if near else "The measuring sheet lists the measures that there are.",
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


def symbol_of(key: str) -> str:
    """Return the symbol of a reading's key: `arm_length` of `arm_length.left`.

    Raises:
        UnknownName: there is no such measure, or it has no sides.
    """
    symbol, dot, side = key.partition(".")
    what = measure(symbol)
    if dot and (side not in SIDES or not what.sides):
        raise UnknownName(
            f"{what.name} has no side “{side}”.",
            fix=f"Write {symbol}." if not what.sides else f"Write {symbol}.left or {symbol}.right.",
            where=(key,),
        )
    return symbol


def read_measure(key: str, text: str, *, unit: Unit) -> Reading:
    """Read a typed measure: a length, or for the cup its letter or the bust's excess over the underbust.

    Args:
        key: the measure's symbol, with `.left` or `.right` where the sides were taken apart.
        text: what was typed.
        unit: what a number without a unit is taken to be.

    Raises:
        UnknownName: there is no such measure.
        UnreadableMeasure: the text is not a length, not above 0, or above 300 cm.
    """
    what = measure(symbol_of(key))
    if what.kind == "cup" and (cup := _read_cup(text)) is not None:
        return cup
    try:
        reading = read_length(text, unit=unit)
    except UnreadableLength as error:
        raise UnreadableMeasure(
            f"{what.name}: {error}.",
            fix="Type it again." if what.kind != "cup" else "Or type the letter on the bra: AA to K.",
            where=(key,),
        ) from error
    check_length(what, reading.cm)
    return reading


#: cm. The bust's excess over the underbust that a cup letter stands for: the middle of its 2 cm. EN 13402-3, from memory.
CUPS = {letter: 11.0 + 2 * number for number, letter in enumerate(("AA", "A", "B", "C", "D", "E", "F", "G", "H", "K"))}
#: The same letters as some makers write them.
_DOUBLED = re.compile(r"^([A-K])\1?$")


def _read_cup(text: str) -> Reading | None:
    letter = text.strip().upper()
    if letter not in CUPS and (doubled := _DOUBLED.match(letter)):
        letter = doubled[1]
    return Reading(text, Unit.CM, CUPS[letter]) if letter in CUPS else None


def check_length(what: Measure, cm: float) -> None:
    """Let pass what can be a length on a body.

    Raises:
        UnreadableMeasure: it is not above 0, above 300 cm, or not a number.
    """
    if not 0 < cm <= LONGEST:
        raise UnreadableMeasure(
            f"{what.name}: {quantity(cm, 2)} cannot be a measure of a person.",
            fix=f"It must be above 0 and at most {quantity(LONGEST, 2)} ({LONGEST / float(CM_PER_INCH):.0f} in).",
            where=(what.symbol,),
        )


def remark_on(key: str, reading: Reading) -> Remark | None:
    """Return what to ask about a reading, or None where it is plausible."""
    symbol = symbol_of(key)
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
