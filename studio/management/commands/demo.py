"""`manage.py demo`: fill an empty studio with the invented scenario."""

from typing import Any

from django.core.management.base import BaseCommand

from studio.demo import load
from studio.models import Job
from studio.standing import look_at
from studio.storage.guard import refuse_newer_work


class Command(BaseCommand):
    """Fill an empty studio with the demo."""

    help = "Fill an empty studio with the demo scenario; a studio in use is left alone."

    def handle(self, *args: Any, **options: Any) -> None:
        """Load the demo."""
        refuse_newer_work()
        load()
        for job in Job.objects.all():
            look_at(job.pk)
