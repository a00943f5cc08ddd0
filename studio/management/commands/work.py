"""`manage.py work`: the process beside the server in which long work is done; the server begins and ends it."""

import os
import signal
import sys
from threading import Thread
from time import sleep
from typing import Any

from django.core.management.base import BaseCommand

from studio.long_work.desk import work_out

#: Seconds between two looks whether the server is still there.
LOOK_EVERY = 1.0


def _end_with(server: int) -> None:
    """End when the server has ended, whatever is being worked out."""
    while os.getppid() == server:
        sleep(LOOK_EVERY)
    os._exit(0)


class Command(BaseCommand):
    """Work out what is asked for, one name of work a line of the input."""

    help = "Work out what takes long. The server begins this by itself."

    def handle(self, *args: Any, **options: Any) -> None:
        """Work until the input ends."""
        # Ctrl-C is the server's: it ends this by ending its input.
        signal.signal(signal.SIGINT, signal.SIG_IGN)
        Thread(target=_end_with, args=(os.getppid(),), daemon=True).start()
        for line in sys.stdin:
            if uid := line.strip():
                work_out(uid)
                self.stdout.write(uid)
                self.stdout.flush()
