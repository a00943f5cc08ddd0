"""Settings of the studio: one person, one machine, the loopback address, SQLite in a file.

Opened to a network it would need accounts, which this version does not have: other hosts are refused at start.
"""

import os
from pathlib import Path
from tempfile import TemporaryFile

from django.core.exceptions import ImproperlyConfigured

ROOT = Path(__file__).resolve().parent.parent
VAR = Path(os.environ.get("IZETT_DATA", ROOT / "var"))
# What is made here is its owner's alone.
os.umask(0o077)

#: Bytes. A database needs so much room for its log to begin with.
ROOM = 64 * 1024


def _writable(folder: Path) -> bool:
    """Return whether there is a folder in which a file can be written."""
    try:
        folder.mkdir(parents=True, exist_ok=True)
        with TemporaryFile(dir=folder) as probe:
            probe.write(bytes(ROOM))
            probe.flush()
    except OSError:
        return False
    return True


#: Whether the work can only be looked at: its folder is write-protected, or the disk is full.
READ_ONLY = not _writable(VAR)

LOOPBACK = ["127.0.0.1", "localhost", "[::1]"]
HOST = os.environ.get("IZETT_HOST", "127.0.0.1")
if HOST not in (*LOOPBACK, "::1"):
    raise ImproperlyConfigured(
        f"IZETT_HOST={HOST}: this version has no accounts and serves the loopback address only. Use 127.0.0.1."
    )


def _secret() -> str:
    """Return this installation's own key, made at the first start and kept beside its data."""
    path = VAR / "secret.key"
    if not path.exists():
        made = os.urandom(48).hex()
        if READ_ONLY:
            return made
        path.write_text(made, encoding="ascii")
    return path.read_text(encoding="ascii")


SECRET_KEY = _secret()
DEBUG = False
ALLOWED_HOSTS = LOOPBACK
INSTALLED_APPS = ["studio"]
MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "studio.middleware.guarded",
]
ROOT_URLCONF = "studio.urls"
WSGI_APPLICATION = "studio.wsgi.application"
CSRF_COOKIE_HTTPONLY = False  # the page reads it to send it back on every change
CSRF_COOKIE_SAMESITE = "Strict"
SECURE_CROSS_ORIGIN_OPENER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"
CSRF_FAILURE_VIEW = "studio.problems.csrf_failure"
#: Bytes of a request's body, and of a file that is uploaded: what a job's file has at most, and its wrapping.
DATA_UPLOAD_MAX_MEMORY_SIZE = 8 * 1024 * 1024
LARGEST_UPLOAD = 66 * 1024 * 1024

DATABASE_FILE = VAR / "studio.sqlite3"
LOG_FILE = VAR / "studio.sqlite3-wal"


def _database() -> tuple[str, str]:
    """Return how the database is opened, and what is said to it first."""
    always = "PRAGMA foreign_keys=ON; PRAGMA temp_store=MEMORY; "
    if READ_ONLY and DATABASE_FILE.exists():
        # Without a log the file is complete, and can be read where no log can be made.
        complete = not LOG_FILE.exists() or LOG_FILE.stat().st_size == 0
        return f"file:{DATABASE_FILE}?{'immutable=1' if complete else 'mode=ro'}", always
    # FULL: what the screen calls saved is on the disk, whatever happens to the program next. What is deleted is
    # overwritten.
    return str(DATABASE_FILE), (
        f"PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA secure_delete=ON; {always}"
        "PRAGMA journal_size_limit=16777216; PRAGMA cache_size=-16384;"
    )


DATABASE_NAME, FIRST_SAID = _database()

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": DATABASE_NAME,
        "ATOMIC_REQUESTS": False,
        "CONN_MAX_AGE": None,
        "OPTIONS": {
            "transaction_mode": "IMMEDIATE",
            # Seconds to wait for another program; whoever waits for a turn meanwhile waits with it.
            "timeout": 5,
            "init_command": FIRST_SAID,
        },
        "TEST": {"NAME": VAR / "test.sqlite3"},
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"
USE_TZ = True
TIME_ZONE = "UTC"

#: Whether long work is done where it is asked for, not in the process beside the server: for tests.
LONG_WORK_HERE = False

WEB = ROOT / "web" / "dist"
WHITENOISE_ROOT = WEB if WEB.exists() else None
WHITENOISE_INDEX_FILE = False
STATIC_URL = "static/"
STATIC_ROOT = VAR / "static"
if not READ_ONLY:
    STATIC_ROOT.mkdir(exist_ok=True)

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
    # A refusal is an answer, told on the page: it is nothing for the log.
    "loggers": {name: {"level": "ERROR"} for name in ("django.request", "django.security")},
}
