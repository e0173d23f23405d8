"""Every create takes an idempotency key: sent again under its key, a request is answered as it was, and done once."""

import hashlib
import zlib
from collections.abc import Callable
from datetime import timedelta
from functools import cache

from django.contrib.auth.models import AnonymousUser
from django.db import transaction
from django.http import HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.urls import Resolver404, resolve
from django.utils import timezone

from . import models
from .actions.base import Invalid
from .api import api
from .api.access import looking
from .api.errors import refused

HEADER = "Idempotency-Key"
KEPT_FOR = timedelta(days=1)
LONGEST = 64


def answered_once(answer: Callable[[HttpRequest], HttpResponseBase]) -> Callable[[HttpRequest], HttpResponseBase]:
    """A middleware: the answer is kept in the transaction of what was done, so that neither is there without the other."""

    def middleware(request: HttpRequest) -> HttpResponseBase:
        key = request.headers.get(HEADER, "")
        if not key or request.method != "POST" or isinstance(request.user, AnonymousUser) or not _creates(request):
            return answer(request)
        if len(key) > LONGEST or not key.isprintable():
            return refused(422, "invalid", Invalid("request.no-key", most=LONGEST))
        asked = _digest(request)
        with transaction.atomic():
            kept, first = models.Answered.objects.get_or_create(
                user_id=request.user.pk, key=key, defaults={"asked": asked}
            )
            if not first:
                return _again(kept, asked)
            response = answer(request)
            if response.status_code >= 400 or not isinstance(response, HttpResponse):
                transaction.set_rollback(True)
            else:
                # Not by saving the row: whoever deletes their account takes it along.
                said = {"status": response.status_code, "body": zlib.compress(response.content)}
                models.Answered.objects.filter(pk=kept.pk).update(**said)
        return response

    return middleware


def forget_answers() -> int:
    """Answers that nobody will ask for again; how many."""
    return models.Answered.objects.filter(at__lt=timezone.now() - KEPT_FOR).delete()[0]


@cache
def _creating() -> frozenset[str]:
    """The routes at which something is made."""
    return frozenset(
        "api" + path.replace("{", "<").replace("}", ">")
        for _, router in api._routers
        for path, view in router.path_operations.items()
        for one in view.operations
        if "POST" in one.methods and looking not in one.auth_callbacks
    )


def _creates(request: HttpRequest) -> bool:
    try:
        return resolve(request.path_info).route in _creating()
    except Resolver404:
        return False


def _digest(request: HttpRequest) -> str:
    """Of what was asked; a form with files is told by its address and length."""
    said = [request.get_full_path(), request.headers.get("Content-Length", "")]
    digest = hashlib.sha256("\n".join(said).encode())
    if request.content_type == "application/json" and int(request.headers.get("Content-Length") or 0) < 2_000_000:
        digest.update(request.body)
    return digest.hexdigest()


def _again(kept: models.Answered, asked: str) -> HttpResponse:
    if kept.asked != asked:
        return refused(422, "invalid", Invalid("request.other-key"))
    return HttpResponse(zlib.decompress(kept.body), status=kept.status, content_type="application/json; charset=utf-8")
