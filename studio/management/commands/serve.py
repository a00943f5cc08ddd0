"""`manage.py serve`: the studio on the loopback address, by a production server."""

import threading
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandParser
from waitress import serve

from izett.recipe.model import Recipe
from studio.collector import settle
from studio.long_work.desk import WORKER
from studio.workroom import evaluator
from studio.wsgi import application


def _warm() -> None:
    """Draft once, and begin the process for long work."""
    evaluator().evaluate(Recipe("bodice", {"bust_girth": 92.0, "waist_girth": 74.0, "height": 168.0}))
    settle()
    WORKER.start()


class Command(BaseCommand):
    """Serve the studio."""

    help = "Serve the studio on the loopback address."

    def add_arguments(self, parser: CommandParser) -> None:
        """Take a port."""
        parser.add_argument("--port", type=int, default=8765)

    def handle(self, *args: Any, **options: Any) -> None:
        """Serve until stopped."""
        # The first draft imports the solvers: done aside, so that the bench is open at once.
        threading.Thread(target=_warm, daemon=True).start()
        self.stdout.write(f"Izett is open at http://{settings.HOST}:{options['port']}/  (Ctrl-C closes it)")
        self.stdout.flush()
        # Two cores and one person: a few threads let a preview overtake a print.
        serve(application, host=settings.HOST, port=options["port"], threads=4, ident=None)
