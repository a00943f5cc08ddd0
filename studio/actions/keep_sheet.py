"""Keep a sheet of measures. A new sheet never overwrites an old one."""

from uuid import UUID

from django.db import transaction

from izett.errors import UnreadableMeasure
from izett.measuring.measure import read_measure
from studio.models import MeasureSheet, Reading, Wearer
from studio.problems import not_found
from studio.schemas import SheetIn
from studio.workroom import measures_of


def keep_sheet(wearer_id: UUID, data: SheetIn) -> MeasureSheet:
    """Keep the readings as typed beside their lengths.

    Sending the same sheet twice keeps it once.

    Raises:
        UnknownName, UnreadableMeasure: a reading is not one; nothing is kept then.
        Refusal: there is no such wearer.
    """
    read = {
        symbol: read_measure(symbol, entry.text, unit=entry.unit)
        for symbol, entry in data.readings.items()
        if entry.text.strip()
    }
    if not read:
        raise UnreadableMeasure("The sheet is empty.", mend="Enter at least one measure.")
    wearer = Wearer.objects.filter(id=wearer_id).first()
    if wearer is None:
        raise not_found("wearer")
    with transaction.atomic():
        newest = wearer.sheets.order_by("-number").first()
        if newest is not None and _same(newest, data, {symbol: r.cm for symbol, r in read.items()}):
            return newest
        sheet = MeasureSheet.objects.create(
            wearer=wearer,
            number=(newest.number if newest else 0) + 1,
            taken_on=data.taken_on,
            taken_by=data.taken_by,
            worn=data.worn,
        )
        Reading.objects.bulk_create(
            Reading(sheet=sheet, symbol=symbol, text=r.text, unit=r.unit.value, cm=r.cm) for symbol, r in read.items()
        )
    return sheet


def _same(newest: MeasureSheet, data: SheetIn, cm: dict[str, float]) -> bool:
    return (
        measures_of(newest) == cm
        and newest.taken_on == data.taken_on
        and newest.taken_by == data.taken_by
        and newest.worn == data.worn
    )
