"""`/api/` is the API; everything else is the page, which finds its own way."""

from django.conf import settings
from django.http import FileResponse, HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.urls import path, re_path
from django.views.decorators.http import require_safe

from .api import api
from .api.errors import problem


@require_safe
def page(request: HttpRequest) -> HttpResponseBase:
    """The single page, for every address it routes itself."""
    index = settings.WEB_DIR / "index.html"
    if not index.exists():
        return HttpResponse("The web pages are not built. Run: make web", status=503, content_type="text/plain")
    return FileResponse(index.open("rb"), content_type="text/html; charset=utf-8")


def not_found(request: HttpRequest, exception: Exception) -> HttpResponse:
    """An address that is none: of the API as a problem document."""
    if request.path.startswith("/api/"):
        return problem(404, "not-found", "There is nothing at this address.")
    return HttpResponse("There is nothing at this address.", status=404, content_type="text/plain")


def bad_request(request: HttpRequest, exception: Exception) -> HttpResponse:
    """A request that Django refuses before the API sees it."""
    return problem(400, "invalid", "The request cannot be read.", mend="Send it again as the API expects it.")


def broken(request: HttpRequest) -> HttpResponse:
    """What went wrong outside the API's own handlers."""
    return problem(500, "broken", "Something broke here.", mend="Try again; it was reported.")


handler404, handler400, handler500 = not_found, bad_request, broken
urlpatterns = [path("api/", api.urls), re_path(r"^(?!api/|static/|assets/).*$", page)]
