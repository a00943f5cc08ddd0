"""Close a round: what was seen and changed in it stays as it is."""

from uuid import UUID

from django.utils import timezone

from studio.locking import changing, job_of, round_of, tell
from studio.models import Job
from studio.schemas import CloseIn
from studio.state import head_of


def close_muslin(job_id: UUID, version: int, number: int, data: CloseIn) -> Job:
    """Close the open round at the job's present revision.

    Raises:
        Refusal: it is closed already or missing, or the job has moved on.
    """
    job = job_of(job_id)
    round_ = round_of(job, number, to_change=True)
    with changing(job, version):
        round_.closed = timezone.now()
        round_.closed_at = head_of(job)
        round_.note = data.note
        round_.save(update_fields=["closed", "closed_at", "note"])
        tell(job, "close", f"Muslin {number} closed" + (f": {data.note}" if data.note else ""))
    return job
