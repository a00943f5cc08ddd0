"""Files that the browser saves: their names, answers that carry them, and how the API describes those."""

import re
import unicodedata
from typing import Any
from urllib.parse import quote

from django.http import HttpResponse

#: Characters of a file's name, without its ending.
LONGEST = 80
#: How the API describes what is in a file.
DOCUMENT, BINARY = {"type": "object"}, {"type": "string", "format": "binary"}


def filename(text: str) -> str:
    """Return a text as a plain file name in its own script: letters, digits and hyphens.

    >>> filename("Black recital bodice"), filename("旗袍"), filename("../..")
    ('black-recital-bodice', '旗袍', 'job')
    """
    words = unicodedata.normalize("NFC", text.lower())
    plain = "".join(c if c.isalnum() or unicodedata.combining(c) else "-" for c in words)
    return re.sub("-+", "-", plain).strip("-")[:LONGEST] or "job"


def attachment(content: str | bytes, media: str, name: str) -> HttpResponse:
    """Return a file to save under a name, after RFC 6266 and RFC 8187: in any script, with an ASCII name beside it.

    It is never opened within the page: an SVG file or a JSON text is somebody's, and could hold anything.
    """
    plain = unicodedata.normalize("NFKD", name).encode("ascii", "ignore").decode().lstrip("-.") or "job"
    response = HttpResponse(content, content_type=media)
    response["Content-Disposition"] = f"attachment; filename=\"{plain}\"; filename*=UTF-8''{quote(name)}"
    response["Content-Security-Policy"] = "default-src 'none'; sandbox"
    return response


def paper_of(content: bytes, name: str) -> HttpResponse:
    """Return a printed sheet to save, called after what it is."""
    return attachment(content, "application/pdf", f"{filename(name)}.pdf")


def files(*media: str) -> dict[str, Any]:
    """Return how the API describes an answer that is a file of one of some kinds."""
    content = {kind: {"schema": DOCUMENT if kind == "application/json" else BINARY} for kind in media}
    return {"responses": {200: {"description": "The file", "content": content}}}
