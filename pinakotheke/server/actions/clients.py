"""An organizer's clients: links by which they look at designs; what they say, choose and sign off."""

from collections import defaultdict
from collections.abc import Iterable
from datetime import timedelta
from typing import Any, cast
from uuid import uuid4

from django.db import transaction
from django.db.models import Count, QuerySet
from django.utils import timezone

from pinakotheke.core.house.clients import MOST_REMARKS, Step, next_step
from pinakotheke.core.units import Units
from pinakotheke.core.words.acts import part_in_words

from .. import models, rows
from ..models import Role
from .access import digest_of, household_as, new_token
from .base import Invalid, NotFound, Stale, User, bump, log, own_design, own_household
from .layout import must_be_open

LASTS = timedelta(days=30)
MOST_LINKS = 50
SEEN_AGAIN = timedelta(minutes=5)
"""So seldom it is written down that a client looked."""


@transaction.atomic
def change_client(user: User, household_id: int, version: int, client: str) -> models.Household:
    """For whom the work is done."""
    household = household_as(user, household_id, Role.ORGANIZER)
    bump(household, version, "household")
    household.client = client
    household.save(update_fields=["client"])
    log(household, user, "household.change", fields=["client"])
    return household


@transaction.atomic
def show(user: User, household_id: int, note: str, days: int) -> tuple[models.Household, str]:
    """A link by which a client looks at the designs of a household; its token is told once."""
    household = household_as(user, household_id, Role.ORGANIZER)
    if household.showings.filter(expires__gt=timezone.now()).count() >= MOST_LINKS:
        raise Invalid("access.too-many", most=MOST_LINKS)
    token = new_token()
    models.Showing.objects.create(household=household, note=note, digest=digest_of(token), by_id=cast(int, user.pk),
                                  expires=timezone.now() + timedelta(days=days))  # fmt: skip
    log(household, user, "client.show", name=note)
    return household, token


@transaction.atomic
def unshow(user: User, household_id: int, showing_id: int) -> models.Household:
    """A link that shows nothing any more; what was said and signed by it stays."""
    household = household_as(user, household_id, Role.ORGANIZER)
    found = household.showings.filter(pk=showing_id).first()
    if found is None:
        raise NotFound("link")
    log(household, user, "client.unshow", name=found.note)
    found.delete()
    return household


@transaction.atomic
def settle(user: User, household_id: int, remark_id: int, settled: bool) -> models.Household:
    """What a client said is answered, or is not after all."""
    household = own_household(user, household_id)
    remark = household.remark_set.select_related("design__space").filter(pk=remark_id).first()
    if remark is None:
        raise NotFound("remark")
    remark.settled = settled
    remark.save(update_fields=["settled"])
    log(household, user, "client.settle", said=remark.text[:80], space=remark.design.space.key)
    return household


@transaction.atomic
def reopen(user: User, design_id: int) -> models.Design:
    """A design that was signed off may be changed again, and is signed off no more."""
    row = own_design(user, design_id)
    household_as(user, row.space.household_id, Role.ORGANIZER)
    if row.signed is None:
        raise Invalid("design.not-signed")
    log(row.space.household, user, "client.reopen", name=_title(row), space=row.space.key, was=row.signed)
    bump(row, row.version, "design")
    row.signed = None
    row.save(update_fields=["signed"])
    return row


def showing_at(token: str) -> models.Showing:
    """What a client's link shows, as long as it holds; that they looked is noted now and then."""
    now = timezone.now()
    live = models.Showing.objects.select_related("household", "by").filter(expires__gt=now)
    found = live.filter(digest=digest_of(token)).first()
    if found is None:
        raise Invalid("access.link-ended")
    if found.seen is None or found.seen < now - SEEN_AGAIN:
        models.Showing.objects.filter(pk=found.pk).update(seen=now)
    return found


def shown_design(showing: models.Showing, design_id: int) -> models.Design:
    """A design of the household that a link shows."""
    shown = models.Design.objects.select_related("space__household")
    row = shown.filter(pk=design_id, space__household=showing.household_id).first()
    if row is None:
        raise NotFound("design")
    return row


@transaction.atomic
def remark(showing: models.Showing, design_id: int, text: str, part: str) -> models.Design:
    """A client says something of a design, or of a part of it; from then on a new search leaves it. The same said again
    is kept once: a page sends again what it had no answer to.
    """
    row = shown_design(showing, design_id)
    if row.remarks.filter(text=text, part=part, by=showing.note).exists():
        return row
    if row.remarks.count() >= MOST_REMARKS:
        raise Invalid("design.too-many-remarks", most=MOST_REMARKS)
    design, units = rows.history_of(row).current, cast(Units, showing.household.units)
    found = next((p for p in design.parts if p.id == part), None)
    if part and found is None:
        raise NotFound("part")
    models.Remark.objects.create(
        household=showing.household, key=f"remark-{uuid4().hex[:12]}", design=row, by=showing.note, text=text,
        on=timezone.localdate().isoformat(), part=part,
        about=part_in_words(found, design, units)[:160] if found else "",
    )  # fmt: skip
    row.kept = True
    row.save(update_fields=["kept"])
    log(showing.household, None, "client.remark", said=text[:80], space=row.space.key, client=showing.note)
    return row


@transaction.atomic
def choose(showing: models.Showing, design_id: int, by: str) -> models.Design:
    """A client chooses one of a space's designs; whatever was chosen there before is so no longer."""
    row = shown_design(showing, design_id)
    signed = row.space.designs.exclude(signed=None).first()
    if signed is not None:
        must_be_open(signed)
    row.space.designs.exclude(pk=row.pk).update(chosen=None)
    row.chosen, row.kept = _agreed(by), True
    row.save(update_fields=["chosen", "kept"])
    log(showing.household, None, "client.choose", name=_title(row), space=row.space.key, client=by)
    return row


@transaction.atomic
def sign_off(showing: models.Showing, design_id: int, by: str, version: int) -> models.Design:
    """A client signs a version of a design off: it is chosen, and nobody changes it until it is opened again."""
    row = choose(showing, design_id, by)
    if row.version != version:
        raise Stale("design", version, row.version)
    bump(row, version, "design")
    row.signed = _agreed(by)
    row.save(update_fields=["signed"])
    log(showing.household, None, "client.sign", name=_title(row), space=row.space.key, client=by, version=version)
    return row


def _agreed(by: str) -> dict[str, str]:
    return {"by": by, "on": timezone.localdate().isoformat()}


def _title(row: models.Design) -> str:
    return str(row.base.get("title") or row.key)


def steps_of(households: Iterable[int]) -> dict[int, dict[str, Step]]:
    """What is to be done next in every space of some households, by the space's name."""
    spaces = models.Space.objects.filter(household__in=list(households)).select_related("household").order_by("pk")
    done: dict[int, set[Step]] = defaultdict(set)

    def are(step: Step, found: QuerySet[Any], space: str = "space") -> None:
        for pk in set(found.filter(**{f"{space}__household__in": {s.household_id for s in spaces}})
                      .values_list(f"{space}_id", flat=True)):  # fmt: skip
            done[pk].add(step)

    are("measure", models.Reading.objects.all())
    are("sort", models.Thing.objects.all())
    are("design", models.Design.objects.all())
    are("choose", models.Design.objects.exclude(chosen=None))
    are("sign", models.Design.objects.exclude(signed=None))
    are("buy", models.Tick.objects.filter(amiss=False))
    are("install", models.Place.objects.exclude(design=""))
    bought = set(models.MoneyEntry.objects.filter(household__in={s.household_id for s in spaces})
                 .values_list("household_id", "space"))  # fmt: skip
    steps: dict[int, dict[str, Step]] = defaultdict(dict)
    for space in spaces:
        if (space.household_id, space.key) in bought:
            done[space.pk].add("buy")
        steps[space.household_id][space.name] = next_step(
            frozenset(done[space.pk]), for_client=bool(space.household.client)
        )
    return steps


def waiting_in(households: Iterable[int]) -> dict[int, int]:
    """How many remarks of clients wait for an answer, by household."""
    waiting = models.Remark.objects.filter(household__in=list(households), settled=False)
    return dict(waiting.values_list("household_id").annotate(n=Count("pk")).order_by())
