"""Problem details (RFC 9457): one form for every error, with what to do about it."""

from collections.abc import Sequence
from typing import Any

from django.http import HttpRequest, HttpResponse, JsonResponse
from ninja import NinjaAPI
from ninja.errors import ValidationError as RequestError

from izett.errors import IzettError, UnknownName


class Refusal(Exception):
    """A deed that the studio refuses.

    Attributes:
        status: the HTTP status.
        code: stable, for programs.
        message, fix: for people.
        extra: further members of the problem, such as both sides of a conflict.
    """

    def __init__(self, status: int, code: str, message: str, *, fix: str, extra: dict[str, Any] | None = None) -> None:
        super().__init__(message)
        self.status, self.code, self.message, self.fix = status, code, message, fix
        self.extra = extra or {}


def not_found(what: str) -> Refusal:
    """Return the refusal for something that is not there."""
    return Refusal(404, "not-found", f"There is no such {what}.", fix="It may have been deleted: go back to the bench.")


def problem(
    status: int, code: str, message: str, *, fix: str, where: Sequence[str] = (), extra: dict[str, Any] | None = None
) -> HttpResponse:
    """Return a problem as an answer."""
    body = {
        "type": f"urn:izett:problem:{code}",
        "title": code.replace("-", " "),
        "status": status,
        "detail": message,
        "fix": fix,
        "where": list(where),
        **(extra or {}),
    }
    return JsonResponse(body, status=status, content_type="application/problem+json")


def install(api: NinjaAPI) -> None:
    """Answer every error of the core and the studio with problem details."""

    @api.exception_handler(IzettError)
    def core(request: HttpRequest, error: IzettError) -> HttpResponse:
        status = 404 if isinstance(error, UnknownName) else 422
        return problem(status, error.code, error.message, fix=error.fix, where=error.where)

    @api.exception_handler(Refusal)
    def refusal(request: HttpRequest, error: Refusal) -> HttpResponse:
        return problem(error.status, error.code, error.message, fix=error.fix, extra=error.extra)

    @api.exception_handler(RequestError)
    def request_error(request: HttpRequest, error: RequestError) -> HttpResponse:
        first = error.errors[0]
        place = [str(part) for part in first["loc"]]
        return problem(
            422,
            "invalid-request",
            f"{' → '.join(place)}: {first['msg']}.",
            fix="Correct it and send it again.",
            where=place,
        )
