"""`manage.py restore`: put a backup in the place of the work; what was there is kept."""

from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandParser

from studio.storage.backups import restore_backup


class Command(BaseCommand):
    """Go back to a backup."""

    help = (
        "Put a backup in the place of the work. What was there is kept in the folder of backups. Stop the server first."
    )

    def add_arguments(self, parser: CommandParser) -> None:
        """Take the backup."""
        parser.add_argument("backup", type=Path, help="the file of the backup")

    def handle(self, *args: Any, **options: Any) -> None:
        """Go back."""
        kept = restore_backup(options["backup"])
        self.stdout.write(f"Restored from {options['backup']}.")
        if kept is not None:
            self.stdout.write(f"What was there before is kept as {kept}.")
