"""Work that takes long: looked at while it goes on, and stopped."""

from django.http import HttpRequest
from ninja import Router

from studio.models import Work
from studio.work import desk
from studio.work.schemas import WorkOut

router = Router(tags=["work"])


def work_out(work: Work) -> WorkOut:
    """Return work as it is sent."""
    return WorkOut(**{name: getattr(work, name) for name in WorkOut.model_fields})


@router.get("/work/{uid}", response=WorkOut)
def look(request: HttpRequest, uid: str) -> WorkOut:
    """Return how far work has come, with its result once there is one."""
    return work_out(desk.found(uid))


@router.post("/work/{uid}/stop", response=WorkOut)
def stop(request: HttpRequest, uid: str) -> WorkOut:
    """Stop work that is under way."""
    return work_out(desk.stop(uid))
