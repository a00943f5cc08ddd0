"""Delete a wearer with all sheets, jobs, rounds and logs, for good."""

from uuid import UUID

from django.db import transaction

from studio.locking import wearer_of
from studio.storage.erasing import erased


def delete_wearer(wearer_id: UUID) -> None:
    """Delete everything that belongs to the wearer.

    Raises:
        Refusal: there is no such wearer.
    """
    with erased(), transaction.atomic():
        wearer = wearer_of(wearer_id)
        for job in wearer.jobs.all():
            # Rounds hold on to the revisions they were cut from: they go first.
            job.rounds.all().delete()
        wearer.delete()
