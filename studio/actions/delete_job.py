"""Delete a job with its revisions, muslins and story, for good; also one that cannot be read any more."""

from uuid import UUID

from django.db import transaction

from studio.locking import job_of
from studio.storage.erasing import erased


def delete_job(job_id: UUID) -> None:
    """Delete everything of a job; its wearer, and the sheets that it was drafted from, stay.

    Raises:
        Refusal: there is no such job.
    """
    with erased(), transaction.atomic():
        job = job_of(job_id)
        # Rounds hold on to the revisions they were cut from: they go first.
        job.rounds.all().delete()
        job.delete()
