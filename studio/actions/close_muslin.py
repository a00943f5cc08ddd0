"""Close a round: what was seen and changed in it stays as it is."""

from uuid import UUID

from django.utils import timezone

from studio.locking import changing, job_of, round_of, tell
from studio.models import Job, Round
from studio.problems import Refusal
from studio.schemas import CloseIn
from studio.state import head_of


def close_muslin(job_id: UUID, version: int, number: int, data: CloseIn) -> Job:
    """Close the open round at the job's present revision.

    Raises:
        Refusal: it is closed already or missing, not all pins are out again, or the job has moved on.
    """
    job = job_of(job_id)
    round_ = round_of(job, number, to_change=True)
    missing = _pins_missing(round_)
    if missing and not data.pin_lost:
        raise missing
    with changing(job, version):
        round_.closed = timezone.now()
        round_.closed_at = head_of(job)
        round_.note = data.note
        round_.save(update_fields=["closed", "closed_at", "note"])
        lost = " although not all pins were found" if missing else ""
        tell(job, "close", f"Muslin {number} closed{lost}" + (f": {data.note}" if data.note else ""))
    return job


def _pins_missing(round_: Round) -> Refusal | None:
    """Return why a muslin should not be put away yet: pins were counted in, and not as many out."""
    if round_.pins_in is None or round_.pins_in == round_.pins_out:
        return None
    out = "none were counted out" if round_.pins_out is None else f"{round_.pins_out} came out"
    return Refusal(
        409,
        "pins-missing",
        f"{round_.pins_in} pins went into muslin {round_.number}, {out}.",
        fix="Look in the seams and on the floor, count again and set the count right. If a pin stays lost, say so when you close.",
    )
