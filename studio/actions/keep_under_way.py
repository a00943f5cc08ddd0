"""Keep a sheet that is being taken, whatever stands on it, so that it can be gone on with after days."""

from uuid import UUID

from studio.locking import wearer_of
from studio.models import SheetUnderWay
from studio.schemas import UnderWayIn


def keep_under_way(wearer_id: UUID, data: UnderWayIn) -> SheetUnderWay:
    """Keep the sheet under way in place of the one before; nothing in it is judged yet.

    Raises:
        Refusal: there is no such wearer.
    """
    wearer = wearer_of(wearer_id)
    kept, _ = SheetUnderWay.objects.update_or_create(wearer=wearer, defaults={"document": data.model_dump(mode="json")})
    return kept


def drop_under_way(wearer_id: UUID) -> None:
    """Drop a wearer's sheet under way; nothing happens where there is none."""
    SheetUnderWay.objects.filter(wearer_id=wearer_id).delete()
