"""Keep a sheet of measures. A new sheet never overwrites an old one."""

from uuid import UUID

from django.db import transaction

from izett.errors import UnreadableMeasure
from izett.measuring.taking import Taken
from studio.limits import MOST_SHEETS, refuse_more
from studio.locking import wearer_of
from studio.models import MeasureSheet, SheetUnderWay
from studio.readings import all_taken, write_readings
from studio.schemas import SheetIn
from studio.state import core_sheet


def keep_sheet(wearer_id: UUID, data: SheetIn) -> MeasureSheet:
    """Keep the readings as typed beside their lengths.

    Sending the same sheet twice keeps it once.

    Raises:
        UnknownName, UnreadableMeasure: a reading is not one; nothing is kept then.
        Refusal: there is no such wearer.
    """
    read = all_taken(data.readings)
    if not read:
        raise UnreadableMeasure("The sheet is empty.", fix="Enter at least one measure.")
    wearer = wearer_of(wearer_id)
    with transaction.atomic():
        SheetUnderWay.objects.filter(wearer=wearer).delete()
        newest = wearer.sheets.order_by("-number").first()
        if newest is not None and _same(newest, data, read):
            return newest
        refuse_more((newest.number if newest else 0) + 1, MOST_SHEETS, "sheets of one wearer")
        sheet = MeasureSheet.objects.create(
            wearer=wearer,
            number=(newest.number if newest else 0) + 1,
            taken_on=data.taken_on,
            taken_by=data.taken_by,
            worn=data.worn,
        )
        write_readings(sheet, read)
    return sheet


def _same(newest: MeasureSheet, data: SheetIn, read: dict[str, Taken]) -> bool:
    return (
        core_sheet(newest).taken == read
        and newest.taken_on == data.taken_on
        and newest.taken_by == data.taken_by
        and newest.worn == data.worn
    )
