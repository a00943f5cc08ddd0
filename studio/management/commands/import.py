"""`manage.py import`: fill an empty studio with everything that was exported from another."""  # noqa: N999 - it is what a person calls it

from pathlib import Path
from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError, CommandParser

from izett.errors import IzettError
from studio.carrying.refill import import_everything
from studio.models import Job, Wearer
from studio.storage.guard import refuse_newer_work


class Command(BaseCommand):
    """Read everything back in."""

    help = "Fill an empty studio with a file that “manage.py export” wrote."

    def add_arguments(self, parser: CommandParser) -> None:
        """Take the file."""
        parser.add_argument("file", type=Path, help="the file to read")

    def handle(self, *args: Any, **options: Any) -> None:
        """Read it."""
        refuse_newer_work()
        # The folder may be new: nobody need know that a database is made first.
        call_command("migrate", verbosity=0)
        file: Path = options["file"]
        try:
            left_out = import_everything(file.read_bytes())
        except OSError as error:
            raise CommandError(f"{file} could not be read: {error.strerror}.") from error
        except IzettError as error:
            raise CommandError(f"{error.message} {error.fix}") from error
        for words in left_out:
            self.stderr.write(words)
        self.stdout.write(f"Read from {file}: wearers {Wearer.objects.count()}, jobs {Job.objects.count()}.")
