"""A measuring sheet as open JSON: `izett-measures`, version 1. Readings are numbers in the document's unit, or texts."""

import json
from datetime import date
from types import MappingProxyType
from typing import Any

from izett.errors import UnreadableFile, UnstatedUnit
from izett.files.reading import read_json
from izett.measuring.measure import read_measure
from izett.measuring.sheet import TAKERS, Sheet
from izett.measuring.taking import MOST_READINGS, Taken
from izett.units import Unit, stated_length

FORMAT = "izett-measures"
VERSION = 1


def write_measures(sheet: Sheet) -> str:
    """Return the sheet as JSON; every reading states its unit, so that it comes back exactly."""
    document: dict[str, Any] = {"format": FORMAT, "version": VERSION}
    if sheet.wearer:
        document["wearer"] = sheet.wearer
    if sheet.taken_on:
        document["taken_on"] = sheet.taken_on.isoformat()
    document |= {"taken_by": sheet.taken_by, "worn": sheet.worn, "unit": Unit.CM.value, "readings": {}}
    for key, taken in sheet.taken.items():
        texts = [stated_length(reading) for reading in taken.readings]
        document["readings"][key] = texts[0] if len(texts) == 1 else texts
    return json.dumps(document, ensure_ascii=False, indent=1)


def read_measures(text: str, *, unit: Unit | None = None) -> Sheet:
    """Read an `izett-measures` document.

    Args:
        text: the document.
        unit: what numbers without a unit are in, where the document does not say so.

    Raises:
        UnreadableFile: it is not such a document.
        UnstatedUnit: neither the document nor `unit` says what its numbers are in.
        UnknownName, UnreadableMeasure: a reading in it is not one.
    """
    data = read_json(text)
    if not isinstance(data, dict) or data.get("format") != FORMAT:
        raise UnreadableFile(
            f"This is not a measures file: it does not say “format”: “{FORMAT}”.",
            fix="Choose a file that was written by Izett, or add that line.",
        )
    if data.get("version") != VERSION:
        raise UnreadableFile(
            f"The measures file has version {data.get('version')!r}; this program reads version {VERSION}.",
            fix="Use a newer version of the program.",
        )
    readings = data.get("readings")
    if not isinstance(readings, dict):
        raise UnreadableFile("The measures file has no “readings”.", fix="Add them, by symbol.")
    stated = data.get("unit", unit)
    if stated not in ("cm", "in"):
        raise UnstatedUnit("The measures file does not state its unit.", fix="Say whether it is in cm or inches.")
    return Sheet(
        MappingProxyType({key: _taken(key, value, Unit(stated)) for key, value in readings.items()}),
        taken_on=_day(data.get("taken_on")),
        taken_by=data["taken_by"] if data.get("taken_by") in TAKERS else "helper",
        worn=str(data.get("worn", ""))[:200],
        wearer=str(data.get("wearer", ""))[:120],
    )


def _taken(key: str, value: Any, unit: Unit) -> Taken:
    values = value if isinstance(value, list) else [value]
    if not 0 < len(values) <= MOST_READINGS:
        raise UnreadableFile(f"{key} has {len(values)} readings.", fix=f"Write 1 to {MOST_READINGS} of them.")
    return Taken(key, tuple(read_measure(key, _as_text(key, entry), unit=unit) for entry in values))


def _day(text: Any) -> date | None:
    try:
        return date.fromisoformat(text) if isinstance(text, str) else None
    except ValueError as error:
        raise UnreadableFile(f"“{text}” is not a day.", fix="Write it as 2026-03-09.") from error


def _as_text(key: str, value: Any) -> str:
    if isinstance(value, bool) or not isinstance(value, int | float | str):
        raise UnreadableFile(f"The reading of {key} is {value!r}, not a length.", fix="Write a number.")
    return value if isinstance(value, str) else repr(value)
