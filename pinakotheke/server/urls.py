"""`/api/` is the API; everything else is the page, which finds its own way."""

from django.conf import settings
from django.http import FileResponse, HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.urls import path, re_path
from django.views.decorators.http import require_safe

from .actions.base import Invalid
from .api import api
from .api.errors import refused
from .health import health, metrics


@require_safe
def page(request: HttpRequest) -> HttpResponseBase:
    """The single page, for every address it routes itself."""
    index = settings.WEB_DIR / "index.html"
    if not index.exists():
        return HttpResponse("The web pages are not built. Run: make web", status=503, content_type="text/plain")
    return FileResponse(index.open("rb"), content_type="text/html; charset=utf-8")


def not_found(request: HttpRequest, exception: Exception) -> HttpResponse:
    """An address that is none: of the API as a problem document."""
    refusal = Invalid("request.no-address")
    if request.path.startswith("/api/"):
        return refused(404, "not-found", refusal)
    return HttpResponse(refusal.problem, status=404, content_type="text/plain")


def bad_request(request: HttpRequest, exception: Exception) -> HttpResponse:
    """A request that Django refuses before the API sees it."""
    return refused(400, "invalid", Invalid("request.unreadable"))


def broken(request: HttpRequest) -> HttpResponse:
    """What went wrong outside the API's own handlers."""
    return refused(500, "broken", Invalid("request.broken"))


handler404, handler400, handler500 = not_found, bad_request, broken
urlpatterns = [path("api/", api.urls), path("health", health)]
if settings.METRICS:
    urlpatterns.append(path("metrics", metrics))
urlpatterns.append(re_path(r"^(?!api/|static/|assets/|metrics$).*$", page))
