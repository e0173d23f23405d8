"""One place that turns errors into `application/problem+json` (RFC 9457)."""

import json
import logging
from collections.abc import Callable
from typing import Any

from django.conf import settings
from django.core.exceptions import RequestDataTooBig, SuspiciousOperation
from django.db import OperationalError
from django.http import Http404, HttpRequest, HttpResponse, UnreadablePostError
from django.http.response import HttpResponseBase
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, AuthorizationError, HttpError, ValidationError
from pydantic import ValidationError as CoreValidationError

from pinakotheke.core.errors import HouseFileError, PinakothekeError

from ..actions.base import Invalid, NotFound, Stale

logger = logging.getLogger(__name__)


def problem(status: int, kind: str, title: str, detail: str = "", mend: str = "", **more: Any) -> HttpResponse:
    """A problem document; `kind` is the stable code, `mend` what would put it right."""
    body = {"type": f"about:pinakotheke/{kind}", "title": title, "status": status, "detail": detail, "mend": mend}
    return HttpResponse(json.dumps({**body, **more}), status=status, content_type="application/problem+json")


REFUSALS = {403: ("not-allowed", "This request is not allowed."), 405: ("no-method", "That cannot be done here.")}
"""What Django itself answers, before any handler sees the request."""


def problems_only(answer: Callable[[HttpRequest], HttpResponseBase]) -> Callable[[HttpRequest], HttpResponseBase]:
    """A middleware: what the API refuses before its own handlers is a problem document too."""

    def middleware(request: HttpRequest) -> HttpResponseBase:
        response = answer(request)
        said = response.headers.get("Content-Type", "")
        if request.path.startswith("/api/") and response.status_code in REFUSALS and "json" not in said:
            kind, title = REFUSALS[response.status_code]
            return problem(response.status_code, kind, title, mend="Reload the page, then do it again.")
        return response

    return middleware


def add_handlers(api: NinjaAPI) -> None:
    """Register every handler."""

    @api.exception_handler(NotFound)
    def not_found(request: HttpRequest, error: NotFound) -> HttpResponse:
        return problem(404, "not-found", f"There is no such {error.what}.", mend="Go back and choose another.")

    @api.exception_handler(Http404)
    def no_page(request: HttpRequest, error: Http404) -> HttpResponse:
        return problem(404, "not-found", "There is nothing at this address.")

    @api.exception_handler(Stale)
    def stale(request: HttpRequest, error: Stale) -> HttpResponse:
        return problem(
            409, "stale", f"This {error.what} was changed meanwhile.",
            f"Your change is based on version {error.based_on}; the {error.what} is at version {error.current}.",
            "Look at what changed, then make your change again. What you typed is kept.",
            based_on=error.based_on, current=error.current,
        )  # fmt: skip

    @api.exception_handler(Invalid)
    def invalid(request: HttpRequest, error: Invalid) -> HttpResponse:
        return problem(422, "invalid", error.problem, mend=error.mend)

    @api.exception_handler(HouseFileError)
    def house_file(request: HttpRequest, error: HouseFileError) -> HttpResponse:
        return problem(
            422, "house-file", "This is no house file.", error.lines()[0], "Mend the file and choose it again.",
            faults=error.lines(),
        )  # fmt: skip

    @api.exception_handler(PinakothekeError)
    def refused(request: HttpRequest, error: PinakothekeError) -> HttpResponse:
        said = str(error).removesuffix(error.mend).strip() if error.mend else str(error)
        return problem(422, type(error).__name__, said, mend=error.mend)

    @api.exception_handler(CoreValidationError)
    def not_valid(request: HttpRequest, error: CoreValidationError) -> HttpResponse:
        faults = [f"{'.'.join(map(str, e['loc']))}: {e['msg']}".removeprefix(": ") for e in error.errors()[:20]]
        return problem(422, "invalid", faults[0].replace("Value error, ", ""), faults=faults)

    @api.exception_handler(ValidationError)
    def bad_request(request: HttpRequest, error: ValidationError) -> HttpResponse:
        faults = [f"{'.'.join(map(str, e['loc']))}: {e['msg']}" for e in error.errors[:20]]
        return problem(422, "invalid", "The request is not as the API expects it.", faults[0], faults=faults)

    @api.exception_handler(AuthenticationError)
    def not_signed_in(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
        return problem(401, "not-signed-in", "You are not signed in.", mend="Sign in, then go on where you were.")

    @api.exception_handler(AuthorizationError)
    def not_allowed(request: HttpRequest, error: AuthorizationError) -> HttpResponse:
        return problem(403, "not-allowed", "This is not yours to see or change.")

    @api.exception_handler(RequestDataTooBig)
    def too_big(request: HttpRequest, error: RequestDataTooBig) -> HttpResponse:
        most = settings.DATA_UPLOAD_MAX_MEMORY_SIZE // 1_000_000
        return problem(413, "too-large", f"A request has at most {most} MB.", mend="Send it in parts.")

    @api.exception_handler(SuspiciousOperation)
    def suspicious(request: HttpRequest, error: SuspiciousOperation) -> HttpResponse:
        return problem(400, "invalid", "The request cannot be read.", mend="Send it again as the API expects it.")

    @api.exception_handler(UnreadablePostError)
    def broken_off(request: HttpRequest, error: UnreadablePostError) -> HttpResponse:
        return problem(400, "invalid", "The request broke off.", mend="Send it again.")

    @api.exception_handler(OperationalError)
    def busy(request: HttpRequest, error: OperationalError) -> HttpResponse:
        logger.warning("the database did not answer", exc_info=error)
        answer = problem(
            503, "busy", "The house is being written to.", mend="Try again in a moment; what you typed is kept."
        )
        answer["Retry-After"] = "2"
        return answer

    @api.exception_handler(Exception)
    def broken(request: HttpRequest, error: Exception) -> HttpResponse:
        logger.exception("%s %s failed", request.method, request.path)
        return problem(500, "broken", "Something broke here.", mend="Try again; it was reported.")

    @api.exception_handler(HttpError)
    def http_error(request: HttpRequest, error: HttpError) -> HttpResponse:
        return problem(error.status_code, "http", str(error))
