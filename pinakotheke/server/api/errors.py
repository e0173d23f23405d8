"""One place that turns errors into `application/problem+json` (RFC 9457)."""

import json
import logging
from collections.abc import Callable
from math import ceil
from typing import Any

from django.conf import settings
from django.core.exceptions import RequestDataTooBig, SuspiciousOperation
from django.db import OperationalError
from django.http import Http404, HttpRequest, HttpResponse, UnreadablePostError
from django.http.response import HttpResponseBase
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, AuthorizationError, HttpError, Throttled, ValidationError
from pydantic import ValidationError as CoreValidationError

from pinakotheke.core.errors import HouseFileError, PinakothekeError, Refusal, faults_told
from pinakotheke.core.units import Units

from .. import models
from ..actions.base import Invalid, NotAllowed, NotFound, Stale
from .access import HOUSEHOLDS

logger = logging.getLogger(__name__)


def problem(status: int, kind: str, title: str, detail: str = "", mend: str = "", **more: Any) -> HttpResponse:
    """A problem document; `kind` is the stable code, `mend` what would put it right."""
    body = {"type": f"about:pinakotheke/{kind}", "title": title, "status": status, "detail": detail, "mend": mend}
    return HttpResponse(json.dumps({**body, **more}), status=status, content_type="application/problem+json")


def _units(request: HttpRequest) -> Units:
    """Those of the household that the request was about."""
    named = request.resolver_match.kwargs if request.resolver_match else {}
    for name, path in HOUSEHOLDS.items():
        if name in named:
            household = models.Household.objects.filter(**{path or "pk": named[name]}).only("units").first()
            return household.units if household else "metric"  # type: ignore[return-value]
    return "metric"


def refused(status: int, kind: str, refusal: Refusal, units: Units = "metric", **more: Any) -> HttpResponse:
    """A refusal as a problem document, in the household's units."""
    if refusal.text:
        return problem(status, kind, f"“{refusal.text}”: {refusal.problem_in(units)}.", mend=refusal.mend_in(units))
    return problem(status, kind, refusal.problem_in(units), mend=refusal.mend_in(units), **more)


REFUSALS = {403: ("not-allowed", "request.not-allowed"), 405: ("no-method", "request.no-method")}
"""What Django itself answers, before any handler sees the request."""


def problems_only(answer: Callable[[HttpRequest], HttpResponseBase]) -> Callable[[HttpRequest], HttpResponseBase]:
    """A middleware: what the API refuses before its own handlers is a problem document too; nothing it says is stored
    on the way, but what says that it may be.
    """

    def middleware(request: HttpRequest) -> HttpResponseBase:
        response = answer(request)
        if request.path.startswith("/api/"):
            response.headers.setdefault("Cache-Control", "no-store")
        said = response.headers.get("Content-Type", "")
        if request.path.startswith("/api/") and response.status_code in REFUSALS and "json" not in said:
            kind, code = REFUSALS[response.status_code]
            return refused(response.status_code, kind, Invalid(code))
        return response

    return middleware


def locked_out(request: HttpRequest, response: HttpResponse, credentials: dict[str, Any]) -> HttpResponse:
    """What is answered after too many wrong passwords, whatever the password."""
    answer = refused(429, "locked", Invalid("session.locked"))
    answer["Retry-After"] = str(round(settings.AXES_COOLOFF_TIME.total_seconds()))
    return answer


def add_handlers(api: NinjaAPI) -> None:
    """Register every handler."""

    @api.exception_handler(NotFound)
    def not_found(request: HttpRequest, error: NotFound) -> HttpResponse:
        return refused(404, "not-found", Invalid("request.not-found", what=error.what))

    @api.exception_handler(Http404)
    def no_page(request: HttpRequest, error: Http404) -> HttpResponse:
        return refused(404, "not-found", Invalid("request.no-address"))

    @api.exception_handler(Stale)
    def stale(request: HttpRequest, error: Stale) -> HttpResponse:
        facts: dict[str, Any] = {"what": error.what, "based_on": error.based_on, "current": error.current}
        refusal, detail = Invalid("request.stale", **facts), Invalid("request.stale-versions", **facts)
        return problem(409, "stale", refusal.problem, detail.problem, refusal.mend, based_on=error.based_on,
                       current=error.current)  # fmt: skip

    @api.exception_handler(HouseFileError)
    def house_file(request: HttpRequest, error: HouseFileError) -> HttpResponse:
        refusal = Invalid("house.no-file")
        return problem(422, "house-file", refusal.problem, error.lines()[0], refusal.mend, faults=error.lines())

    @api.exception_handler(PinakothekeError)
    def not_possible(request: HttpRequest, error: PinakothekeError) -> HttpResponse:
        if not isinstance(error, Refusal):
            return problem(422, "invalid", str(error))
        if isinstance(error, NotAllowed):
            return refused(403, "not-allowed", error, _units(request))
        kind = "invalid" if isinstance(error, Invalid) else type(error).__name__
        return refused(422, kind, error, _units(request))

    @api.exception_handler(CoreValidationError)
    def not_valid(request: HttpRequest, error: CoreValidationError) -> HttpResponse:
        units = _units(request)
        faults = [f"{'.'.join(map(str, loc))}: {said}".removeprefix(": ") for loc, said, _ in faults_told(error, units)]
        return problem(422, "invalid", faults[0], faults=faults[:20])

    @api.exception_handler(ValidationError)
    def bad_request(request: HttpRequest, error: ValidationError) -> HttpResponse:
        faults = [f"{'.'.join(map(str, e['loc']))}: {e['msg']}" for e in error.errors[:20]]
        return problem(422, "invalid", Invalid("request.not-as-expected").problem, faults[0], faults=faults)

    @api.exception_handler(AuthenticationError)
    def not_signed_in(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
        return refused(401, "not-signed-in", Invalid("session.not-signed-in"))

    @api.exception_handler(AuthorizationError)
    def not_allowed(request: HttpRequest, error: AuthorizationError) -> HttpResponse:
        return refused(403, "not-allowed", Invalid("request.not-yours"))

    @api.exception_handler(RequestDataTooBig)
    def too_big(request: HttpRequest, error: RequestDataTooBig) -> HttpResponse:
        most = settings.DATA_UPLOAD_MAX_MEMORY_SIZE // 1_000_000
        return refused(413, "too-large", Invalid("request.too-large", most=most))

    @api.exception_handler(SuspiciousOperation)
    def suspicious(request: HttpRequest, error: SuspiciousOperation) -> HttpResponse:
        return refused(400, "invalid", Invalid("request.unreadable"))

    @api.exception_handler(UnreadablePostError)
    def broken_off(request: HttpRequest, error: UnreadablePostError) -> HttpResponse:
        return refused(400, "invalid", Invalid("request.broke-off"))

    @api.exception_handler(OperationalError)
    def busy(request: HttpRequest, error: OperationalError) -> HttpResponse:
        logger.warning("the database did not answer", exc_info=error)
        answer = refused(503, "busy", Invalid("request.busy"))
        answer["Retry-After"] = "2"
        return answer

    @api.exception_handler(Exception)
    def broken(request: HttpRequest, error: Exception) -> HttpResponse:
        logger.exception("%s %s failed", request.method, request.path)
        return refused(500, "broken", Invalid("request.broken"))

    @api.exception_handler(Throttled)
    def too_often(request: HttpRequest, error: Throttled) -> HttpResponse:
        wait = max(1, ceil(error.wait or 60))
        answer = refused(429, "too-often", Invalid("request.too-often", wait=wait))
        answer["Retry-After"] = str(wait)
        return answer

    @api.exception_handler(HttpError)
    def http_error(request: HttpRequest, error: HttpError) -> HttpResponse:
        return problem(error.status_code, "http", str(error))
