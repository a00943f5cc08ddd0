"""`manage.py serve`: the studio on the loopback address, by a production server."""

from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandParser
from waitress import serve

from studio.wsgi import application


class Command(BaseCommand):
    """Serve the studio."""

    help = "Serve the studio on the loopback address."

    def add_arguments(self, parser: CommandParser) -> None:
        """Take a port."""
        parser.add_argument("--port", type=int, default=8765)

    def handle(self, *args: Any, **options: Any) -> None:
        """Serve until stopped."""
        self.stdout.write(f"Izett is open at http://{settings.HOST}:{options['port']}/  (Ctrl-C closes it)")
        self.stdout.flush()
        # Two cores and one person: a few threads let a preview overtake a print.
        serve(application, host=settings.HOST, port=options["port"], threads=4, ident=None)
