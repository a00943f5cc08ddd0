"""Put a cloth on the shelf, change it there, take it away: the shelf is shared by all jobs."""

from uuid import UUID

from django.db import transaction

from izett.cutting.cloth import Cloth
from studio.limits import MOST_CLOTHS, refuse_more
from studio.models import Cloth as OnShelf
from studio.problems import not_found


def shelve(cloth: Cloth, cloth_id: UUID | None = None) -> OnShelf:
    """Put a cloth on the shelf, or in the place of one that lies there.

    Raises:
        Refusal: there is no such cloth, or no room for more.
    """
    document = cloth.model_dump(mode="json")
    with transaction.atomic():
        if cloth_id is None:
            refuse_more(OnShelf.objects.count() + 1, MOST_CLOTHS, "cloths on the shelf")
            return OnShelf.objects.create(document=document)
        found = OnShelf.objects.filter(id=cloth_id).first()
        if found is None:
            raise not_found("cloth")
        found.document = document
        found.save(update_fields=["document"])
        return found


def put_away(cloth_id: UUID) -> None:
    """Take a cloth off the shelf; one that is not there is away already."""
    OnShelf.objects.filter(id=cloth_id).delete()
