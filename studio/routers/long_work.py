"""Work that takes long: looked at while it goes on, and stopped."""

from django.http import HttpRequest, HttpResponse
from ninja import Router

from studio.long_work import desk
from studio.long_work.schemas import WorkOut
from studio.models import Work

router = Router(tags=["long work"])


@router.get("/long-work/{uid}", response={200: WorkOut, 204: None})
def look(request: HttpRequest, uid: str) -> WorkOut | HttpResponse:
    """Return how far work has come, with its result once there is one; nothing where it was deleted meanwhile.

    Work is deleted with the wearer whom it was for, while pages may still be asking for it.
    """
    return _told(desk.found(uid))


@router.post("/long-work/{uid}/stop", response={200: WorkOut, 204: None})
def stop(request: HttpRequest, uid: str) -> WorkOut | HttpResponse:
    """Stop work that is under way; nothing where it was deleted meanwhile."""
    return _told(desk.stop(uid))


def _told(work: Work | None) -> WorkOut | HttpResponse:
    return HttpResponse(status=204) if work is None else WorkOut.model_validate(work)
