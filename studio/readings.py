"""Readings between the wire, the core and the database."""

from collections.abc import Mapping
from datetime import date

from izett.measuring.measure import read_measure
from izett.measuring.sheet import Sheet
from izett.measuring.taking import Taken
from izett.units import stated_length
from studio.models import MeasureSheet, Reading
from studio.schemas import LengthIn, SheetIn, TakenIn


def taken_of(key: str, entry: TakenIn) -> Taken | None:
    """Return a measure as it was taken; None where nothing is typed.

    Raises:
        UnknownName, UnreadableMeasure: a reading is not one.
    """
    texts = [one for one in (entry, *entry.again) if one.text.strip()]
    return Taken(key, tuple(read_measure(key, one.text, unit=one.unit) for one in texts)) if texts else None


def all_taken(readings: Mapping[str, TakenIn]) -> dict[str, Taken]:
    """Return every measure that has something typed in it.

    Raises:
        UnknownName, UnreadableMeasure: a reading is not one.
    """
    found = {key: taken_of(key, entry) for key, entry in readings.items()}
    return {key: taken for key, taken in found.items() if taken is not None}


def write_readings(sheet: MeasureSheet, taken: Mapping[str, Taken]) -> None:
    """Write measures as they were taken to a new sheet."""
    Reading.objects.bulk_create(
        Reading(
            sheet=sheet,
            symbol=key,
            text=entry.readings[0].text,
            unit=entry.readings[0].unit.value,
            again=[{"text": more.text, "unit": more.unit.value} for more in entry.readings[1:]],
            cm=entry.cm,
        )
        for key, entry in taken.items()
    )


def as_typed(sheet: Sheet) -> dict[str, TakenIn]:
    """Return a core sheet's readings as they would be typed, each stating its unit."""
    typed: dict[str, TakenIn] = {}
    for key, taken in sheet.taken.items():
        first, *more = [LengthIn(text=stated_length(r), unit=r.unit) for r in taken.readings]
        typed[key] = TakenIn(text=first.text, unit=first.unit, again=more)
    return typed


def sheet_in(sheet: Sheet, *, today: date) -> SheetIn:
    """Return a core sheet as one that is to be kept."""
    return SheetIn(taken_on=sheet.taken_on or today, taken_by=sheet.taken_by, worn=sheet.worn, readings=as_typed(sheet))
