"""Who may open the folder of the work: one server at a time, and no program older than what lies there."""

import fcntl
from collections.abc import Iterable
from contextlib import suppress
from pathlib import Path
from typing import IO

from django.conf import settings
from django.core.management.base import CommandError
from django.db import DatabaseError, connection
from django.db.migrations.loader import MigrationLoader

#: Only the owner of the folder reads what is in it.
FOLDER, FILE = 0o700, 0o600


def database() -> Path:
    """Return the file of the database."""
    name = str(connection.settings_dict["NAME"])
    return Path(name.removeprefix("file:").partition("?")[0])


def keep_private(folder: Path) -> None:
    """Make a folder, and what is in it, readable by its owner alone; what cannot be changed stays as it is."""
    for path, mode in ((folder, FOLDER), *((file, FILE) for file in folder.glob("*") if file.is_file())):
        try:
            if path.stat().st_mode & 0o777 != mode:
                path.chmod(mode)
        except OSError:
            # Somebody else's folder, or one that can only be read: it can be looked at all the same.
            continue


def refuse_newer_work() -> None:
    """Let pass a database that this program knows.

    Raises:
        CommandError: a newer version of the program has changed it, or it cannot be read at all.
    """
    try:
        loader = MigrationLoader(connection)
    except DatabaseError as error:
        raise CommandError(
            f"The database in {settings.VAR} cannot be read ({error}). Keep the file, and restore the last backup with "
            "“manage.py restore”."
        ) from error
    if found := changes_unknown(loader.applied_migrations):
        raise CommandError(
            f"The work in {settings.VAR} was last opened with a newer version of Izett ({', '.join(found)}). This older "
            "version would damage it, so it does not open it. Start the newer version, or restore a backup that was made "
            "with this one."
        )


def changes_unknown(applied: Iterable[tuple[str, str]]) -> list[str]:
    """Return those of the changes made to a database that this program does not know, by name."""
    known = MigrationLoader(None).disk_migrations
    return sorted(name for app, name in applied if app == "studio" and (app, name) not in known)


def only_one(folder: Path) -> IO[str] | None:
    """Take the folder for one server, until the program ends; None where it can only be read.

    Raises:
        CommandError: another server has it.
    """
    try:
        lock = (folder / "server.lock").open("a+", encoding="utf-8")
    except OSError:
        return None
    try:
        fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except OSError:
        lock.seek(0)
        where = lock.read().strip()
        raise CommandError(
            f"Another Izett has this work open already{f', at {where}' if where else ''}. Nothing is lost: use that one, or "
            "stop it first. For other work, set IZETT_DATA to another folder."
        ) from None
    return lock


def say_where(lock: IO[str] | None, address: str) -> None:
    """Write into the lock where the server is found, for whoever comes second."""
    if lock is not None:
        # On a full disk the lock holds all the same.
        with suppress(OSError):
            lock.seek(0)
            lock.truncate()
            lock.write(address)
            lock.flush()
