"""Keep: the log, all that happened in a household."""

import csv
import json
from datetime import date, datetime, time, timedelta
from io import StringIO
from typing import Annotated

from django.db.models import Q, QuerySet, TextField
from django.db.models.functions import Cast
from django.http import HttpResponse
from django.utils import timezone
from ninja import Query, Router, Schema
from pydantic import Field, StringConstraints

from pinakotheke.core.words.log import act_in_words, acts_of, acts_saying, kind_of_act, kinds

from .. import models
from ..actions.base import Invalid, own_household
from .common import MemberRequest, PathId

router = Router(tags=["upkeep"])
PAGE = 100
MOST_EXPORTED = 50_000
Day = Annotated[str, StringConstraints(pattern=r"^(\d{4}-\d{2}-\d{2})?$")]


class LogQuery(Schema):
    """Which part of the log: of a kind, member or space, between two days, with a word in it, older than an entry."""

    kind: Annotated[str, StringConstraints(max_length=20)] = ""
    by: Annotated[str, StringConstraints(max_length=150)] = ""
    space: Annotated[str, StringConstraints(max_length=64)] = ""
    since: Day = ""
    until: Day = ""
    q: Annotated[str, StringConstraints(strip_whitespace=True, max_length=100)] = ""
    before: Annotated[int, Field(ge=0, le=2**53)] = 0


class LogLine(Schema):
    """Something that was done."""

    id: int
    at: str
    by: str
    kind: str
    says: str


class LogView(Schema):
    """A page of the log, the newest first; `more` where there are older ones."""

    lines: list[LogLine]
    more: bool
    kinds: list[tuple[str, str]]
    people: list[str]
    spaces: list[tuple[str, str]]


def _asked(household: models.Household, query: LogQuery) -> QuerySet[models.LogEntry]:
    rows = household.log.select_related("user").order_by("-pk")
    if query.kind:
        if query.kind not in kinds():
            raise Invalid("upkeep.no-kind", kind=query.kind)
        names = Q()
        for name in acts_of(query.kind):
            names |= Q(action__startswith=name) if name.endswith(".") else Q(action=name)
        rows = rows.filter(names)
    if query.by:
        rows = rows.filter(user__username=query.by)
    if query.space:
        # Of a space itself the acts note its key as what they were about.
        rows = rows.filter(Q(detail__space=query.space) | Q(detail__key=query.space))
    if query.q:
        # As it is written in the rows: JSON, with what is not of the alphabet escaped.
        written = json.dumps(query.q)[1:-1]
        rows = rows.annotate(said=Cast("detail", TextField())).filter(
            Q(said__icontains=written) | Q(action__in=acts_saying(query.q))
        )
    if query.since:
        rows = rows.filter(at__gte=_midnight(query.since))
    if query.until:
        rows = rows.filter(at__lt=_midnight(query.until) + timedelta(days=1))
    return rows.filter(pk__lt=query.before) if query.before else rows


def _midnight(day: str) -> datetime:
    try:
        return timezone.make_aware(datetime.combine(date.fromisoformat(day), time()))
    except ValueError:
        raise Invalid("install.no-day", day=day) from None


def _line(entry: models.LogEntry) -> LogLine:
    who = entry.user.get_username() if entry.user else str(entry.detail.get("client", ""))
    return LogLine(id=entry.pk, at=timezone.localtime(entry.at).isoformat(sep=" ", timespec="minutes")[:16],
                   by=who, kind=kinds()[kind_of_act(entry.action)],
                   says=act_in_words(entry.action, entry.detail))  # fmt: skip


@router.get("/households/{household_id}/log", response=LogView, operation_id="upkeep_log")
def page(request: MemberRequest, household_id: PathId, query: Query[LogQuery]) -> LogView:
    """A page of the log."""
    household = own_household(request.user, household_id)
    found = list(_asked(household, query)[: PAGE + 1])
    people = list(household.members.order_by("username").values_list("username", flat=True))
    return LogView(lines=[_line(e) for e in found[:PAGE]], more=len(found) > PAGE, kinds=list(kinds().items()),
                   people=people, spaces=list(household.space_set.order_by("pk").values_list("key", "name")))  # fmt: skip


@router.get("/households/{household_id}/log.csv", operation_id="upkeep_log_export")
def export(request: MemberRequest, household_id: PathId, query: Query[LogQuery]) -> HttpResponse:
    """The log as a table."""
    household = own_household(request.user, household_id)
    out = StringIO()
    table = csv.writer(out)
    table.writerow(("when", "who", "kind", "what"))
    for entry in _asked(household, query)[:MOST_EXPORTED].iterator(chunk_size=2000):
        line = _line(entry)
        table.writerow((line.at, line.by, line.kind, line.says))
    response = HttpResponse(out.getvalue(), content_type="text/csv; charset=utf-8")
    response["Content-Disposition"] = 'attachment; filename="log.csv"'
    return response
