"""What can go wrong with the database, in words: what is wrong, what is safe, what to do."""

from django.db import DatabaseError

from studio.problems import Refusal

#: Seconds after which it is worth trying again when somebody else is writing.
TRY_AGAIN = 2
SAFE = "Nothing that was saved is lost, and what you entered is still on this page."


def told(error: DatabaseError) -> Refusal:
    """Return a fault of the storage as a refusal: 507 where it is full, 503 where it can be tried again."""
    words = str(error).lower()
    if "full" in words or "disk i/o" in words:
        return Refusal(
            507,
            "disk-full",
            f"The disk is full, or cannot be written: this was not saved. {SAFE}",
            fix="Free some space, then do it again.",
        )
    if "locked" in words or "busy" in words:
        return Refusal(
            503,
            "busy",
            f"Another program holds the database: this was not saved. {SAFE}",
            fix="Do it again in a moment. If it stays so, close what else has the database open.",
            retry_after=TRY_AGAIN,
        )
    if "readonly" in words or "read-only" in words or "unable to open" in words:
        return Refusal(
            503,
            "read-only",
            f"The folder of your work can only be read: this was not saved. {SAFE}",
            fix="Make the folder writable, then do it again. Until then all can be looked at.",
        )
    if "malformed" in words or "not a database" in words:
        return Refusal(
            500,
            "database-damaged",
            "The database is damaged.",
            fix="Stop the program, keep the file, and restore the last backup with “manage.py restore”.",
        )
    return Refusal(
        500,
        "database",
        f"The database refused this ({type(error).__name__}). {SAFE}",
        fix="Load the page again and try once more; if it stays so, please report it.",
    )
