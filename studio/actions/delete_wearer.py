"""Delete a wearer with all sheets, jobs, rounds and logs, for good."""

from uuid import UUID

from django.db import transaction

from studio.models import Wearer
from studio.problems import not_found


def delete_wearer(wearer_id: UUID) -> None:
    """Delete everything that belongs to the wearer.

    Raises:
        Refusal: there is no such wearer.
    """
    with transaction.atomic():
        wearer = Wearer.objects.filter(id=wearer_id).first()
        if wearer is None:
            raise not_found("wearer")
        for job in wearer.jobs.all():
            # Rounds hold on to the revisions they were cut from: they go first.
            job.rounds.all().delete()
        wearer.delete()
