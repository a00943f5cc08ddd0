"""Work that takes long: looked at while it goes on, and stopped."""

from django.http import HttpRequest
from ninja import Router

from studio.long_work import desk
from studio.long_work.schemas import WorkOut

router = Router(tags=["long work"])


@router.get("/long-work/{uid}", response=WorkOut)
def look(request: HttpRequest, uid: str) -> WorkOut:
    """Return how far work has come, with its result once there is one."""
    return WorkOut.model_validate(desk.found(uid))


@router.post("/long-work/{uid}/stop", response=WorkOut)
def stop(request: HttpRequest, uid: str) -> WorkOut:
    """Stop work that is under way."""
    return WorkOut.model_validate(desk.stop(uid))
