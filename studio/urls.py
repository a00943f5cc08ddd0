"""Addresses: the API, and the one page that all others are."""

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.urls import path, re_path
from django.views.decorators.cache import never_cache
from django.views.decorators.csrf import ensure_csrf_cookie

from studio.api import api


@never_cache
@ensure_csrf_cookie
def page(request: HttpRequest) -> HttpResponse:
    """Return the page; the front end finds its way by the address."""
    index = settings.WEB / "index.html"
    if not index.exists():
        return HttpResponse("The front end is not built yet: run “make demo”.", status=503, content_type="text/plain")
    return HttpResponse(index.read_text(encoding="utf-8"))


urlpatterns = [
    path("api/", api.urls),
    re_path(r"^(?!api/|assets/|static/).*$", page),
]

handler404 = "studio.problems.not_there"
