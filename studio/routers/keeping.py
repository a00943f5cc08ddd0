"""Keeping the work: backups, and everything as open JSON."""

from django.conf import settings
from django.core.management.base import CommandError
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Router, Status

from studio.carrying.out import as_text, everything
from studio.downloads import attachment, files
from studio.lanes import printing
from studio.models import Backup
from studio.problems import Refusal
from studio.schemas import BackupOut, KeepingOut
from studio.storage.backups import make_backup, reminder

router = Router(tags=["keeping"])


@router.get("/keeping", response=KeepingOut)
def keeping(request: HttpRequest) -> KeepingOut:
    """Tell whether the work can be kept, and how long ago it was copied."""
    last = Backup.objects.first()
    return KeepingOut(read_only=settings.READ_ONLY, last=last.made if last else None, remind=reminder())


@router.post("/backups", response={201: BackupOut})
def back_up(request: HttpRequest) -> Status[BackupOut]:
    """Make a backup in the folder of backups beside the database."""
    with printing():
        try:
            file = make_backup()
        except CommandError as error:
            raise Refusal(507, "backup-failed", str(error), fix="Free some space, then do it again.") from error
    return Status(201, BackupOut(name=file.name, folder=file.parent.name))


@router.get("/everything", openapi_extra=files("application/json"))
def all_of_it(request: HttpRequest) -> HttpResponse:
    """Return everything as one open JSON file."""
    with printing():
        content = as_text(everything())
    return attachment(content, "application/json", f"izett-{timezone.localdate()}.izett-studio.json")
