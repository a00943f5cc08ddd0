"""Keep a sheet that is being taken, whatever stands on it, so that it can be gone on with after days."""

from uuid import UUID

from django.db import transaction

from studio.locking import wearer_of
from studio.models import SheetUnderWay
from studio.problems import Refusal
from studio.schemas import UnderWayIn
from studio.state import under_way_out


def keep_under_way(wearer_id: UUID, data: UnderWayIn) -> SheetUnderWay:
    """Keep the sheet under way in place of the one before; nothing in it is judged yet.

    Raises:
        Refusal: there is no such wearer; or the sheet was gone on with elsewhere, with what stands on it there.
    """
    wearer = wearer_of(wearer_id)
    with transaction.atomic():
        kept = SheetUnderWay.objects.filter(wearer=wearer).first()
        if kept is not None and data.version is not None and data.version != kept.version:
            raise Refusal(
                412,
                "sheet-changed",
                "This sheet was gone on with elsewhere, in another window or on another device.",
                fix="Look at what stands there, and take over what is newer here; nothing of either was lost.",
                extra={"under_way": under_way_out(kept).model_dump(mode="json")},
            )
        version = (kept.version if kept is not None else 0) + 1
        document = data.model_dump(mode="json", exclude={"version"})
        kept, _ = SheetUnderWay.objects.update_or_create(
            wearer=wearer, defaults={"document": document, "version": version}
        )
    return kept


def drop_under_way(wearer_id: UUID) -> None:
    """Drop a wearer's sheet under way; nothing happens where there is none."""
    SheetUnderWay.objects.filter(wearer_id=wearer_id).delete()
