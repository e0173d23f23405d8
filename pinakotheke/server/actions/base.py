"""What every action does: find the row among the member's own, hold the version, write the log."""

import tomllib
from datetime import date
from functools import cache
from pathlib import Path
from typing import Any, TypeVar

from django.contrib.auth.models import AbstractBaseUser, AnonymousUser
from django.db.models import Model as DjangoModel
from django.db.models import QuerySet

from pinakotheke.core.errors import Refusal

from .. import models

User = AbstractBaseUser | AnonymousUser
Model = TypeVar("Model", bound=DjangoModel)
Row = TypeVar("Row", models.Household, models.Space, models.Thing, models.Design, models.Range)


class NotFound(Exception):
    """No such row among those this member may see."""

    def __init__(self, what: str) -> None:
        super().__init__(what)
        self.what = what


class Stale(Exception):
    """The row was saved by someone else since it was read."""

    def __init__(self, what: str, based_on: int, current: int) -> None:
        super().__init__(what, based_on, current)
        self.what, self.based_on, self.current = what, based_on, current


class Invalid(Refusal):
    """Understood, and not possible; the codes are those of `server/refusals.toml`."""

    def words(self) -> dict[str, str]:
        """Its row of the server's own table."""
        return _words(self.code)


class NotAllowed(Invalid):
    """Understood, possible, and not for this member."""


@cache
def _words(code: str) -> dict[str, str]:
    topic, _, name = code.partition(".")
    table = tomllib.loads((Path(__file__).parents[1] / "refusals.toml").read_text("utf-8"))
    row: dict[str, str] = table[topic][name]
    return row


def own_household(user: User, household_id: int) -> models.Household:
    """A household of this member; `NotFound` for any other."""
    return _get(models.Household.objects.filter(members=user.pk), "household", household_id)


def own_space(user: User, space_id: int) -> models.Space:
    """A space of one of this member's households."""
    rows = models.Space.objects.select_related("household").filter(household__members=user.pk)
    return _get(rows, "space", space_id)


def own_thing(user: User, thing_id: int) -> models.Thing:
    """A thing of one of this member's households."""
    rows = models.Thing.objects.select_related("household", "space").filter(household__members=user.pk)
    return _get(rows, "thing", thing_id)


def own_design(user: User, design_id: int) -> models.Design:
    """A design of one of this member's households."""
    rows = models.Design.objects.select_related("space__household").filter(space__household__members=user.pk)
    return _get(rows, "design", design_id)


def own_solve(user: User, solve_id: int) -> models.Solve:
    """A search of one of this member's households."""
    rows = models.Solve.objects.select_related("space").filter(space__household__members=user.pk)
    return _get(rows, "search", solve_id)


def own_place(user: User, place_id: int) -> models.Place:
    """A place of one of this member's households."""
    rows = models.Place.objects.select_related("household", "space__household").filter(household__members=user.pk)
    return _get(rows, "place", place_id)


def _get(rows: QuerySet[Model], what: str, pk: int) -> Model:
    row = rows.filter(pk=pk).first()
    if row is None:
        raise NotFound(what)
    return row


def bump(row: Row, based_on: int, what: str) -> None:
    """Raise the row's version by one in the database, if it still is the one the change was based on."""
    updated = type(row).objects.filter(pk=row.pk, version=based_on).update(version=based_on + 1)
    if not updated:
        current = type(row).objects.values_list("version", flat=True).get(pk=row.pk)
        raise Stale(what, based_on, current)
    row.version = based_on + 1


def log(household: models.Household, user: User | None, action: str, **detail: Any) -> None:
    """One line of the household's log; what a client did by a link has no user, and notes the client's name."""
    pk = None if user is None else user.pk
    models.LogEntry.objects.create(household=household, user_id=pk, action=action, detail=detail)


def must_be_day(day: str) -> None:
    """Refuse a day that no calendar has; none at all is well."""
    try:
        if day:
            date.fromisoformat(day)
    except ValueError:
        raise Invalid("install.no-day", day=day) from None


def free_key(taken: set[str], name: str) -> str:
    """A key made from a name, with a number when it is taken."""
    from django.utils.text import slugify

    stem = slugify(name)[:48] or "x"
    number = 1
    key = stem
    while key in taken:
        number += 1
        key = f"{stem}-{number}"
    return key
