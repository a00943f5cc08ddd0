"""Wearers and their sheets."""

from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Router, Status

from studio.actions.delete_wearer import delete_wearer
from studio.limits import MOST_WEARERS, refuse_more
from studio.locking import wearer_of
from studio.models import Wearer
from studio.schemas import WearerIn, WearerOut
from studio.state import wearer_state

router = Router(tags=["people"])


@router.get("/wearers", response=list[WearerOut])
def wearers(request: HttpRequest) -> list[WearerOut]:
    """List the wearers by name."""
    return [wearer_state(wearer) for wearer in Wearer.objects.order_by("name")]


@router.post("/wearers", response={201: WearerOut})
def add_wearer(request: HttpRequest, data: WearerIn) -> Status[WearerOut]:
    """Add a wearer."""
    refuse_more(Wearer.objects.count() + 1, MOST_WEARERS, "wearers")
    return Status(201, wearer_state(Wearer.objects.create(name=data.name.strip(), note=data.note)))


@router.get("/wearers/{wearer_id}", response=WearerOut)
def wearer(request: HttpRequest, wearer_id: UUID) -> WearerOut:
    """Return a wearer with the newest sheet."""
    return wearer_state(wearer_of(wearer_id))


@router.delete("/wearers/{wearer_id}", response={204: None})
def remove_wearer(request: HttpRequest, wearer_id: UUID) -> HttpResponse:
    """Delete a wearer and all that belongs to them, for good."""
    delete_wearer(wearer_id)
    return HttpResponse(status=204)
