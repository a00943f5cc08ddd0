"""What is deleted is gone: overwritten in the database, folded out of its log, and forgotten in memory.

The database overwrites what it deletes (`secure_delete`). Here its log is emptied after that, and whatever this process, and
the one beside it, remember is let go. A backup that was made before still has it: who deletes is told so.
"""

import gc
import logging
from collections.abc import Iterator
from contextlib import contextmanager
from time import monotonic, sleep

from django.db import connection

from izett.draping import given
from izett.geometry import curve, dots
from izett.pattern import remembered, walking
from studio import advising, muslins
from studio.long_work.desk import WORKER
from studio.storage import incoming
from studio.workroom import evaluator

#: Seconds that are given to whoever still reads the database's log, and between two tries.
PATIENCE, PAUSE = 3.0, 0.05


@contextmanager
def erased() -> Iterator[None]:
    """See to it that nothing of what is deleted meanwhile is left behind."""
    yield
    # Whose pictures are being traced nobody notes: all of them go, and can be sent again.
    incoming.clear()
    forget()
    fold_log()


def forget() -> None:
    """Forget all that was worked out: none of it is needed, and nobody need know whose it was."""
    for one in (evaluator(), advising.trying()):
        one.forget()
    remembered.forget_all()
    muslins.forget()
    curve.forget()
    walking.forget()
    given.forget()
    dots.forget()
    # What long work was asked about lives on in its process: a new one begins without.
    WORKER.renew()
    gc.collect()


def fold_log() -> bool:
    """Fold the database's log into its file and empty it; return whether nobody was in the way."""
    if connection.in_atomic_block:
        return False
    until = monotonic() + PATIENCE
    while True:
        with connection.cursor() as cursor:
            busy = cursor.execute("PRAGMA wal_checkpoint(TRUNCATE)").fetchone()[0]
        if not busy:
            return True
        if monotonic() > until:
            logging.getLogger(__name__).warning("the log of the database could not be emptied: it is being read")
            return False
        sleep(PAUSE)
