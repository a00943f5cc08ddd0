"""`manage.py export`: everything as open JSON in one file."""

from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser

from studio.carrying.out import as_text, everything
from studio.storage.guard import FILE, refuse_newer_work


class Command(BaseCommand):
    """Write everything as JSON."""

    help = "Write wearers, sheets, jobs, house rules and size charts as one open JSON file."

    def add_arguments(self, parser: CommandParser) -> None:
        """Take the file."""
        parser.add_argument("file", type=Path, help="the file to write")

    def handle(self, *args: Any, **options: Any) -> None:
        """Write it."""
        refuse_newer_work()
        file: Path = options["file"]
        try:
            file.touch(mode=FILE)
            file.write_text(as_text(everything()), encoding="utf-8")
        except OSError as error:
            raise CommandError(f"{file} could not be written: {error.strerror}.") from error
        self.stdout.write(f"Everything written: {file}")
