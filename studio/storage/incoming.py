"""Pictures that are being traced: kept as they were sent until they are read, and for a day at most.

A picture is measured in at full size, so it is not made small first. It lies in a folder of its own beside the database; no
backup takes it along, and nothing of it is served.
"""

import re
from pathlib import Path
from time import time
from uuid import UUID

from studio.problems import not_found
from studio.storage.guard import FILE, FOLDER, database

FOLDER_NAME = "incoming"
#: Seconds that a picture is kept; how many are kept at once.
KEPT_FOR, MOST_KEPT = 24 * 60 * 60, 20
_NAME = re.compile(r"[0-9a-f-]{36}")


def folder() -> Path:
    """Return the folder, beside the database."""
    return database().parent / FOLDER_NAME


def keep(uid: UUID, sent: bytes) -> None:
    """Keep a picture for a while; the oldest go where there are many."""
    folder().mkdir(mode=FOLDER, exist_ok=True)
    sweep()
    path = _path(uid)
    path.write_bytes(sent)
    path.chmod(FILE)


def read(uid: UUID) -> bytes:
    """Return a picture.

    Raises:
        Refusal: it was not sent, or is not kept any more.
    """
    try:
        return _path(uid).read_bytes()
    except OSError as error:
        raise not_found("picture") from error


def sweep() -> None:
    """Delete pictures that are old, and the oldest of too many."""
    paths = sorted(
        (path for path in folder().glob("*") if _NAME.match(path.name)), key=lambda path: path.stat().st_mtime
    )
    for i, path in enumerate(paths):
        if time() - path.stat().st_mtime > KEPT_FOR or i < len(paths) - MOST_KEPT:
            path.unlink(missing_ok=True)


def clear() -> None:
    """Delete all of them."""
    for path in folder().glob("*"):
        if _NAME.match(path.name):
            path.unlink(missing_ok=True)


def _path(uid: UUID) -> Path:
    return folder() / str(uid)
