"""Settings of the studio: one person, one machine, the loopback address, SQLite in a file.

Opened to a network it would need accounts, which this version does not have: other hosts are refused at start.
"""

import os
from pathlib import Path

from django.core.exceptions import ImproperlyConfigured

ROOT = Path(__file__).resolve().parent.parent
VAR = Path(os.environ.get("IZETT_DATA", ROOT / "var"))
VAR.mkdir(parents=True, exist_ok=True)

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
        path.write_text(os.urandom(48).hex(), encoding="ascii")
        path.chmod(0o600)
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
    "studio.middleware.content_security_policy",
]
ROOT_URLCONF = "studio.urls"
WSGI_APPLICATION = "studio.wsgi.application"
CSRF_COOKIE_HTTPONLY = False  # the page reads it to send it back on every change
CSRF_COOKIE_SAMESITE = "Strict"
SECURE_CROSS_ORIGIN_OPENER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"
DATA_UPLOAD_MAX_MEMORY_SIZE = 20 * 1024 * 1024

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": VAR / "studio.sqlite3",
        "ATOMIC_REQUESTS": False,
        "CONN_MAX_AGE": None,
        "OPTIONS": {
            "transaction_mode": "IMMEDIATE",
            "timeout": 20,
            # FULL: what the screen calls saved is on the disk, whatever happens to the program next.
            "init_command": (
                "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA foreign_keys=ON; "
                "PRAGMA temp_store=MEMORY; PRAGMA journal_size_limit=16777216;"
            ),
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
STATIC_ROOT.mkdir(exist_ok=True)

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
}
