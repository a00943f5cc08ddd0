"""`manage.py serve`: the studio on the loopback address, by a production server."""

import errno
import os
import signal
import sys
import threading
from typing import Any, NoReturn

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import DatabaseError, connection
from waitress.server import create_server

from izett.recipe.model import Recipe
from studio.collector import settle
from studio.long_work.desk import WORKER
from studio.standing import look_at_all
from studio.storage import incoming, photos
from studio.storage.backups import fold_in
from studio.storage.guard import keep_private, only_one, refuse_newer_work, say_where
from studio.workroom import evaluator
from studio.wsgi import application

#: Two cores and one person; most requests wait for their turn, and those that need none must find a thread.
THREADS = 32
#: Seconds after the start: the bench is asked for first, and need not wait for what is only likely to be wanted next.
WARM_AFTER = 1.0
#: Seconds after which a thread that works lets others go on.
SWITCH = 0.0005
#: Connections that may stand open, and seconds that one may stand idle.
CONNECTIONS, IDLE = 2000, 60


def _warm() -> None:
    """Draft once, look at what nothing is known of, and begin the process for long work."""
    evaluator().evaluate(Recipe("bodice", {"bust_girth": 92.0, "waist_girth": 74.0, "height": 168.0}))
    settle()
    WORKER.start()
    try:
        photos.sweep()
        incoming.sweep()
        look_at_all()
    finally:
        connection.close()


def _stopped(*_: Any) -> NoReturn:
    raise SystemExit(0)


class Command(BaseCommand):
    """Serve the studio."""

    help = "Serve the studio on the loopback address."

    def add_arguments(self, parser: CommandParser) -> None:
        """Take a port."""
        parser.add_argument("--port", type=int, default=8765)

    def handle(self, *args: Any, **options: Any) -> None:
        """Serve until stopped."""
        port, address = options["port"], f"http://{settings.HOST}:{options['port']}/"
        lock = only_one(settings.VAR)
        refuse_newer_work()
        keep_private(settings.VAR)
        try:
            server = create_server(
                application,
                host=settings.HOST,
                port=port,
                threads=THREADS,
                connection_limit=CONNECTIONS,
                channel_timeout=IDLE,
                cleanup_interval=IDLE // 2,
                asyncore_use_poll=True,
                max_request_body_size=settings.LARGEST_UPLOAD,
                ident=None,
            )
        except OSError as error:
            if error.errno != errno.EADDRINUSE:
                raise CommandError(f"{address} cannot be opened: {error.strerror}.") from error
            raise CommandError(
                f"Something else listens at port {port} already. Stop it, or choose another: “manage.py serve --port {port + 1}”."
            ) from error
        say_where(lock, address)
        signal.signal(signal.SIGTERM, _stopped)
        # A thread that asks the database gives way at every question: it must soon have its turn again.
        sys.setswitchinterval(SWITCH)
        # The first draft imports the solvers: done aside, so that the bench is open at once.
        warming = threading.Timer(WARM_AFTER, _warm)
        warming.daemon = True
        warming.start()
        self.stdout.write(f"Izett is open at {address}  (Ctrl-C closes it)")
        if settings.READ_ONLY:
            self.stdout.write(
                f"The folder {settings.VAR} cannot be written: everything can be looked at, nothing kept."
            )
        self.stdout.flush()
        server.run()
        self._close()
        self._leave()

    def _close(self) -> None:
        """Leave the work as one complete file."""
        try:
            fold_in()
        except DatabaseError as error:
            sys.stderr.write(
                f"The log of the database could not be folded in ({error}); it is read at the next start.\n"
            )

    @staticmethod
    def _leave() -> NoReturn:
        """End the process at once, everything having been kept.

        What goes on aside (warming up, looking at jobs) may be in a solver just now. Python's own end would stop such a
        thread in the middle of its C++, which that does not survive.
        """
        os._exit(0)
