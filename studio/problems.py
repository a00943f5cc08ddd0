"""Problem details (RFC 9457): one form for every error, with what to do about it."""

import logging
from collections.abc import Sequence
from typing import Any

from django.http import HttpRequest, HttpResponse, JsonResponse
from pydantic import BaseModel

from izett.errors import place_of


class ProblemOut(BaseModel):
    """What went wrong, where, and what to do about it; further members where there is more to say."""

    type: str
    title: str
    status: int
    detail: str
    fix: str
    where: list[str]


class Refusal(Exception):
    """A deed that the studio refuses.

    Attributes:
        status: the HTTP status.
        code: stable, for programs.
        message, fix: for people.
        extra: further members of the problem, such as both sides of a conflict.
        retry_after: seconds after which it is worth trying again; None where that alone helps nothing.
    """

    def __init__(
        self,
        status: int,
        code: str,
        message: str,
        *,
        fix: str,
        extra: dict[str, Any] | None = None,
        retry_after: int | None = None,
    ) -> None:
        super().__init__(message)
        self.status, self.code, self.message, self.fix = status, code, message, fix
        self.extra = extra or {}
        self.retry_after = retry_after


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


def refused(refusal: Refusal) -> HttpResponse:
    """Return a refusal as an answer."""
    answer = problem(refusal.status, refusal.code, refusal.message, fix=refusal.fix, extra=refusal.extra)
    if refusal.retry_after is not None:
        answer["Retry-After"] = str(refusal.retry_after)
    return answer


def fault(error: Exception) -> HttpResponse:
    """Return a fault of the program as an answer; it is logged without a word of what was sent."""
    logging.getLogger(__name__).error("%s", place_of(error))
    return problem(
        500,
        "fault",
        f"This is a fault in the program ({type(error).__name__}). Nothing that was saved is lost.",
        fix="Load the page again; if it stays so, please report it.",
    )


def csrf_failure(request: HttpRequest, reason: str = "") -> HttpResponse:
    """Answer a change that comes without the page's token."""
    return problem(
        403,
        "token-missing",
        "The change does not carry the token of this page: the browser has lost its cookie.",
        fix="Load the page again, then do it again; nothing was changed.",
    )


def not_there(request: HttpRequest, exception: Exception | None = None) -> HttpResponse:
    """Answer an address that does not exist."""
    return problem(404, "not-found", "There is nothing at this address.", fix="Go back to the bench.")
