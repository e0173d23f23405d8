"""What the server tells those who run it: one line of JSON a request, without anybody's name, address or words."""

import logging
import time
from collections.abc import Callable

from django.http import HttpRequest
from django.http.response import HttpResponseBase

logger = logging.getLogger("pinakotheke.requests")
SLOW_MS = 1000


def told(answer: Callable[[HttpRequest], HttpResponseBase]) -> Callable[[HttpRequest], HttpResponseBase]:
    """A middleware: the method, the kind of address (not the address), the status and how long it took; the request's id
    is put beside it by the log's filter, and given back as `X-Request-ID`.
    """

    def middleware(request: HttpRequest) -> HttpResponseBase:
        began = time.perf_counter()
        response = answer(request)
        took = round((time.perf_counter() - began) * 1000, 1)
        match = request.resolver_match
        facts = {"method": request.method, "route": match.route if match else "file", "status": response.status_code,
                 "ms": took}  # fmt: skip
        level = logging.WARNING if response.status_code >= 500 or took > SLOW_MS else logging.INFO
        logger.log(level, "request", extra=facts)
        return response

    return middleware
