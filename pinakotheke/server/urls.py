"""`/api/` is the API; everything else is the page, which finds its own way."""

from django.conf import settings
from django.http import FileResponse, HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.urls import path, re_path
from django.views.decorators.http import require_safe

from .api import api


@require_safe
def page(request: HttpRequest) -> HttpResponseBase:
    """The single page, for every address it routes itself."""
    index = settings.WEB_DIR / "index.html"
    if not index.exists():
        return HttpResponse("The web pages are not built. Run: make web", status=503, content_type="text/plain")
    return FileResponse(index.open("rb"), content_type="text/html; charset=utf-8")


urlpatterns = [path("api/", api.urls), re_path(r"^(?!api/|static/|assets/).*$", page)]
