"""Undo and redo: the job's head moves along its chain of revisions; nothing is removed."""

from typing import Literal
from uuid import UUID

from studio.locking import changing, job_of, tell
from studio.models import Job
from studio.problems import Refusal
from studio.standing import look_later
from studio.state import head_of, ways_from


def move_head(job_id: UUID, version: int, way: Literal["undo", "redo"]) -> Job:
    """Move the head one revision back or on.

    Raises:
        Refusal: there is nothing to go to, or the job has moved on.
    """
    job = job_of(job_id)
    before = head_of(job)
    undo, redo = ways_from(job)
    target = undo if way == "undo" else redo
    if target is None:
        raise Refusal(
            409,
            f"nothing-to-{way}",
            f"There is nothing to {way}.",
            fix="What a muslin was cut from stays: switch a step off instead." if way == "undo" else "Go on from here.",
        )
    with changing(job, version):
        job.head = target
        job.sheet = target.sheet
        job.save(update_fields=["head", "sheet"])
        tell(job, way, f"{way}: {before.why if way == 'undo' else target.why}")
    look_later(job.pk)
    return job
