"""Every error of the core, the storage and the wire, answered with problem details."""

from django.core.exceptions import RequestDataTooBig, SuspiciousOperation
from django.db import DatabaseError
from django.http import Http404, HttpRequest, HttpResponse, UnreadablePostError
from ninja import NinjaAPI
from ninja.errors import HttpError
from ninja.errors import ValidationError as RequestError

from izett.errors import IzettError, UnknownName
from studio.problems import Refusal, fault, not_there, problem, refused
from studio.storage.faults import told

#: How the framework calls the parts of a request.
WRAPPING = ("body", "data", "path", "query", "header", "file")
AGAIN = "Correct it and send it again."


def install(api: NinjaAPI) -> None:
    """Answer every error of the core and the studio with problem details."""

    @api.exception_handler(IzettError)
    def core(request: HttpRequest, error: IzettError) -> HttpResponse:
        status = 404 if isinstance(error, UnknownName) else 422
        return problem(status, error.code, error.message, fix=error.fix, where=error.where)

    @api.exception_handler(Refusal)
    def refusal(request: HttpRequest, error: Refusal) -> HttpResponse:
        return refused(error)

    @api.exception_handler(RequestError)
    def request_error(request: HttpRequest, error: RequestError) -> HttpResponse:
        first = error.errors[0]
        # Where it came in is the framework's business: a reader looks for the entry.
        place = [str(part) for part in first["loc"] if part not in WRAPPING]
        words = str(first["msg"]).removeprefix("Value error, ")
        return problem(422, "invalid-request", f"{' → '.join(place)}: {words}.", fix=AGAIN, where=place)

    @api.exception_handler(HttpError)
    def unreadable(request: HttpRequest, error: HttpError) -> HttpResponse:
        cause = error.__cause__
        why = cause.message if isinstance(cause, IzettError) else f"The request cannot be read: {error}."
        return problem(error.status_code, "unreadable-request", why, fix=AGAIN)

    @api.exception_handler(Http404)
    def no_such_thing(request: HttpRequest, error: Http404) -> HttpResponse:
        return not_there(request)

    @api.exception_handler(RequestDataTooBig)
    def too_big(request: HttpRequest, error: RequestDataTooBig) -> HttpResponse:
        return problem(413, "too-large", "This is more than can be sent at once.", fix="Send less at once.")

    @api.exception_handler(SuspiciousOperation)
    @api.exception_handler(UnreadablePostError)
    def broken_off(request: HttpRequest, error: Exception) -> HttpResponse:
        return problem(400, "unreadable-request", "The request cannot be read.", fix=AGAIN)

    @api.exception_handler(DatabaseError)
    def storage(request: HttpRequest, error: DatabaseError) -> HttpResponse:
        return refused(told(error))

    @api.exception_handler(Exception)
    def unforeseen(request: HttpRequest, error: Exception) -> HttpResponse:
        return fault(error)
