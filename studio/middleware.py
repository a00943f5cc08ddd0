"""What every answer carries: everything comes from this server, and nothing of anybody's is kept by the browser."""

from collections.abc import Callable

from django.db import DatabaseError
from django.http import HttpRequest, HttpResponse

from studio.problems import fault, refused
from studio.storage.faults import told

POLICY = (
    "default-src 'self'; img-src 'self' data: blob:; style-src 'self' 'unsafe-inline'; font-src 'self' data:; "
    "connect-src 'self'; object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'"
)
API = "/api/"


def guarded(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Send the policy with every answer, and no answer of the API to be stored."""

    def answer(request: HttpRequest) -> HttpResponse:
        response = get_response(request)
        response.headers.setdefault("Content-Security-Policy", POLICY)
        if request.path.startswith(API):
            response.headers.setdefault("Cache-Control", "no-store")
        return response

    def process_exception(_request: HttpRequest, error: Exception) -> HttpResponse:
        return refused(told(error)) if isinstance(error, DatabaseError) else fault(error)

    answer.process_exception = process_exception  # type: ignore[attr-defined]  # Django looks for it there
    return answer
