"""Backups: a copy of the database that is whole at one moment, made while others work; and going back to one.

The copy is made by SQLite's own backup, read through once, and only then given its name: what has the name of a backup is
one. Photos lie in a folder beside it, which all backups there share: a photo is never changed. Going back keeps what was
there before, under a name of its own.
"""

import os
import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager, suppress
from datetime import datetime, timedelta
from pathlib import Path

from django.core.management import call_command
from django.core.management.base import CommandError
from django.db import DatabaseError, connection, connections
from django.utils import timezone

from studio.models import Backup, Wearer
from studio.storage import photos
from studio.storage.guard import FILE, FOLDER, changes_unknown, database, only_one

#: After so long without a backup the bench says so.
REMIND_AFTER = timedelta(days=7)
FOLDER_NAME = "backups"
PARTS = ("", "-wal", "-shm")


@contextmanager
def _opened(file: Path, *, to_write: bool = False) -> Iterator[sqlite3.Connection]:
    with closing(sqlite3.connect(file if to_write else f"file:{file}?mode=ro", uri=not to_write)) as opened:
        yield opened


def make_backup(to: Path | None = None) -> Path:
    """Make a backup while others work; every deed that was answered before it began is in it.

    Args:
        to: the file to write, or the folder to write it in; the folder of backups beside the database where left out.

    Returns:
        The file.

    Raises:
        CommandError: it cannot be written there; nothing half is left.
    """
    target = _named(to or database().parent / FOLDER_NAME)
    try:
        target.parent.mkdir(mode=FOLDER, parents=True, exist_ok=True)
        with _written_whole(target) as part:
            with _opened(database()) as work, _opened(part, to_write=True) as copy:
                work.backup(copy)
                # One file that is complete by itself, wherever it is copied.
                copy.execute("PRAGMA journal_mode=DELETE")
            _refuse_damaged(part)
            # Before the backup has its name: one that has it is whole.
            photos.copy_to(target.parent)
    except (OSError, sqlite3.Error) as error:
        raise CommandError(
            f"The backup could not be written to {target}: {error}. Your work is not touched by that. Free some space, or "
            "choose another place with --to."
        ) from error
    # The file is there, whatever becomes of the note of it.
    with suppress(DatabaseError):
        Backup.objects.create(name=target.name)
    return target


def restore_backup(backup: Path) -> Path | None:
    """Put a backup in the place of the database; what was there is kept beside the backups.

    Returns:
        Where the earlier work lies now; None where there was none.

    Raises:
        CommandError: it is none, damaged, or of a newer version; a server has the work open. Nothing is changed then.
    """
    if not backup.is_file():
        raise CommandError(f"There is no file {backup}.")
    _refuse_damaged(backup)
    _refuse_foreign(backup)
    lock = only_one(database().parent)
    connections.close_all()
    try:
        kept = _kept_aside()
        with (
            _written_whole(database()) as part,
            _opened(backup) as source,
            _opened(part, to_write=True) as copy,
        ):
            source.backup(copy)
        for leftover in PARTS[1:]:
            Path(f"{database()}{leftover}").unlink(missing_ok=True)
        photos.copy_from(backup.parent)
    except (OSError, sqlite3.Error) as error:
        raise CommandError(f"The backup could not be put in place: {error}. The work is as it was.") from error
    finally:
        if lock is not None:
            lock.close()
    call_command("migrate", verbosity=0)
    return kept


def reminder() -> str:
    """Return what to say of backups on the bench; empty where the last is not a week old."""
    last = Backup.objects.first()
    since = last.made if last else Wearer.objects.order_by("created").values_list("created", flat=True).first()
    if since is None or timezone.now() - since < REMIND_AFTER:
        return ""
    days = (timezone.now() - since).days
    return f"The last backup is {days} days old." if last else f"There is no backup of {days} days of work."


def _named(to: Path) -> Path:
    if to.suffix and not to.is_dir():
        return to
    stamp = datetime.now().astimezone().strftime("%Y-%m-%d-%H%M%S")
    found, number = to / f"izett-{stamp}.sqlite3", 2
    while found.exists():
        found, number = to / f"izett-{stamp}-{number}.sqlite3", number + 1
    return found


@contextmanager
def _written_whole(target: Path) -> Iterator[Path]:
    """Yield a file to write that takes its name, and its place on the disk, only once it is whole."""
    part = target.with_name(f".{target.name}.part")
    part.unlink(missing_ok=True)
    try:
        yield part
        part.chmod(FILE)
        with part.open("rb") as written:
            os.fsync(written.fileno())
        part.replace(target)
    finally:
        for leftover in (*PARTS, "-journal"):
            Path(f"{part}{leftover}").unlink(missing_ok=True)


def _refuse_damaged(file: Path) -> None:
    try:
        with _opened(file) as copy:
            found = copy.execute("PRAGMA integrity_check").fetchone()[0]
    except sqlite3.Error as error:
        found = str(error)
    if found != "ok":
        raise CommandError(f"{file} is damaged, or no backup: {found}. Choose another one; nothing was changed.")


def _refuse_foreign(file: Path) -> None:
    with _opened(file) as copy:
        tables = {name for (name,) in copy.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
        if not {"django_migrations", "studio_job", "studio_wearer"} <= tables:
            raise CommandError(f"{file} is no backup of Izett's work. Choose another one; nothing was changed.")
        applied = list(copy.execute("SELECT app, name FROM django_migrations"))
    if newer := changes_unknown(applied):
        raise CommandError(
            f"{file} was made with a newer version of Izett ({', '.join(newer)}). Use that version to restore it; nothing "
            "was changed."
        )


def _kept_aside() -> Path | None:
    """Copy the present database aside, whole, and return where it lies; as it is, where it is damaged."""
    if not database().exists():
        return None
    folder = database().parent / FOLDER_NAME
    folder.mkdir(mode=FOLDER, exist_ok=True)
    kept = _named(folder)
    kept = kept.with_name(kept.name.replace("izett-", "before-restore-"))
    photos.copy_to(folder)
    try:
        with (
            _written_whole(kept) as part,
            _opened(database()) as work,
            _opened(part, to_write=True) as copy,
        ):
            work.backup(copy)
    except sqlite3.Error:
        kept.write_bytes(database().read_bytes())
        kept.chmod(FILE)
    return kept


def fold_in() -> None:
    """Fold the log into the database's file, so that the single file is complete."""
    with connection.cursor() as cursor:
        cursor.execute("PRAGMA wal_checkpoint(TRUNCATE)")
