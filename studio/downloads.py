"""Files that the browser saves: their names, and answers that carry them."""

from django.http import HttpResponse


def filename(text: str) -> str:
    """Return a text as a plain file name."""
    return "".join(c if c.isalnum() else "-" for c in text.lower()).strip("-") or "job"


def attachment(content: str | bytes, media: str, name: str) -> HttpResponse:
    """Return a file to save under a name."""
    response = HttpResponse(content, content_type=media)
    response["Content-Disposition"] = f'attachment; filename="{name}"'
    return response
