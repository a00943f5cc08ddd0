"""`manage.py backup`: copy the work as it is at this moment, while the server runs."""

from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandParser

from studio.storage.backups import make_backup
from studio.storage.guard import refuse_newer_work


class Command(BaseCommand):
    """Make a backup."""

    help = "Copy the work, whole, to the folder of backups or another place; the server may go on meanwhile."

    def add_arguments(self, parser: CommandParser) -> None:
        """Take another place."""
        parser.add_argument("--to", type=Path, help="the file to write, or the folder to write it in")

    def handle(self, *args: Any, **options: Any) -> None:
        """Make it."""
        refuse_newer_work()
        self.stdout.write(f"Backup written: {make_backup(options['to'])}")
