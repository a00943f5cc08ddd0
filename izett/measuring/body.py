"""A body in numbers: the measures that were taken, read from the open file that carries them."""

import json
from collections.abc import Mapping
from dataclasses import dataclass
from types import MappingProxyType
from typing import Any

from izett.errors import UnreadableFile
from izett.measuring.measure import check_length, measure, read_measure
from izett.units import Unit

FORMAT = "izett-measures"
VERSION = 1


@dataclass(frozen=True, slots=True)
class Body:
    """The taken measures in cm by symbol."""

    taken: Mapping[str, float]


def body_of(taken: Mapping[str, float]) -> Body:
    """Return a body from measures in cm.

    Raises:
        UnknownName: a symbol is not in the catalogue.
        UnreadableMeasure: a value cannot be a length on a body.
    """
    for symbol, cm in taken.items():
        check_length(measure(symbol), cm)
    return Body(MappingProxyType(dict(taken)))


def read_body(text: str) -> Body:
    """Read an `izett-measures` document.

    Readings are numbers in the document's unit, or texts with units of their own.

    Raises:
        UnreadableFile: it is not such a document; units must be stated.
        UnknownName, UnreadableMeasure: a reading in it is not one.
    """
    try:
        data: Any = json.loads(text)
    except ValueError as error:
        raise UnreadableFile(f"The measures are not valid JSON: {error}.", mend="Check the file.") from error
    if not isinstance(data, dict) or data.get("format") != FORMAT:
        raise UnreadableFile(
            f"This is not a measures file: it does not say “format”: “{FORMAT}”.",
            mend="Choose a file that was written by Izett, or add that line.",
        )
    if data.get("version") != VERSION:
        raise UnreadableFile(
            f"The measures file has version {data.get('version')!r}; this program reads version {VERSION}.",
            mend="Use a newer version of the program.",
        )
    if data.get("unit") not in ("cm", "in"):
        raise UnreadableFile("The measures file does not state its unit.", mend="Add “unit”: “cm” or “unit”: “in”.")
    unit = Unit(data["unit"])
    readings = data.get("readings")
    if not isinstance(readings, dict):
        raise UnreadableFile("The measures file has no “readings”.", mend="Add them, by symbol.")
    return Body(
        MappingProxyType(
            {symbol: read_measure(symbol, _as_text(symbol, value), unit=unit).cm for symbol, value in readings.items()}
        )
    )


def _as_text(symbol: str, value: Any) -> str:
    if isinstance(value, bool) or not isinstance(value, int | float | str):
        raise UnreadableFile(f"The reading of {symbol} is {value!r}, not a length.", mend="Write a number.")
    return value if isinstance(value, str) else repr(value)
