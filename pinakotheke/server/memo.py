"""What was answered is remembered as long as nothing of its household has changed, whichever process is asked."""

import hashlib
from collections.abc import Callable

from django.core.cache import caches
from django.db.models import Count, Max, Sum
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from pydantic import BaseModel

from . import models


def revision(household: models.Household) -> str:
    """Changes with every change: each act of a person writes its line into the log in the same transaction; what a search
    finds, and what a device only counted, raises the designs' versions or the searches' last word.
    """
    log = models.LogEntry.objects.filter(household=household).order_by("-pk").values_list("pk", flat=True)[:1]
    of_it = {"space__household": household}
    designs = models.Design.objects.filter(**of_it).aggregate(Max("pk"), Sum("version"), Count("pk"))
    solves = models.Solve.objects.filter(**of_it).aggregate(Max("pk"), Max("heard"))
    seen = (household.version, *log, *designs.values(), *solves.values(), timezone.localdate())
    return ".".join(map(str, seen))


def remembered(request: HttpRequest, household: models.Household, make: Callable[[], BaseModel | str]) -> HttpResponse:
    """The answer to a request that only reads, made or remembered. Members of a household are answered the same."""
    asked = f"{request.get_full_path()} {revision(household)}"
    cache, key = caches["answers"], hashlib.sha256(asked.encode()).hexdigest()
    said = cache.get(key)
    if said is None:
        made = make()
        said = made if isinstance(made, str) else made.model_dump_json(by_alias=True)
        cache.set(key, said)
    return HttpResponse(said, content_type="application/json; charset=utf-8")
