"""Reviews: what was seen changes how many there are, how often they are used and what leaves; and all of it goes back."""

from collections.abc import Sequence
from typing import Any
from uuid import uuid4

from django.db import transaction
from django.utils import timezone

from pinakotheke.core.inventory import Thing
from pinakotheke.core.upkeep import Leaving, Review
from pinakotheke.core.upkeep.review import Answer, sooner

from .. import models, rows
from .base import Invalid, NotFound, User, free_key, log, own_household, own_space, own_thing
from .seasons import change_stay
from .upkeep import take_out_too_many

MOST_REVIEWS = 5000
KEPT = ("count", "decision", "frequency")
"""What a review changes of a thing."""


@transaction.atomic
def review(user: User, space_id: int, key: str, answers: Sequence[Answer], next_on: str) -> models.Space:
    """A space was looked at. What was seen changes what its things ask for; sent twice it is kept once."""
    space = own_space(user, space_id)
    household = space.household
    if household.review_set.filter(key=key).exists():
        return space
    if household.review_set.count() >= MOST_REVIEWS:
        raise Invalid("upkeep.too-many-reviews", most=MOST_REVIEWS)
    found = Review(
        id=key, space=space.key, on=timezone.localdate().isoformat(), next_on=next_on, answers=tuple(answers)
    )
    was: list[dict[str, Any]] = []
    for answer in found.answers:
        if answer.thing:
            _change(household, answer, was)
    models.Review.objects.create(household=household, space=space, key=key, on=found.on, next_on=next_on, was=was,
                                 answers=[a.model_dump(mode="json") for a in found.answers])  # fmt: skip
    log(household, user, "upkeep.review", space=space.key, key=key, count=len(found.answers))
    return space


def _change(household: models.Household, answer: Answer, was: list[dict[str, Any]]) -> None:
    thing = household.thing_set.select_related("space").filter(key=answer.thing).first()
    if thing is None:
        raise NotFound("thing")
    before = {"key": thing.key, **{f: getattr(thing, f) for f in KEPT}}
    if answer.seen == "more" and answer.count:
        came = answer.count - thing.count
        if came > 0 and answer.leaves:
            _apart(household, thing, came, answer.leaves, was)  # one in, one out: as many leave as came
        else:
            thing.count = answer.count
    elif answer.seen == "unused" and answer.leaves:
        out = min(answer.count or thing.count, thing.count)
        if out < thing.count:
            thing.count -= out
            _apart(household, thing, out, answer.leaves, was)
        else:
            thing.decision = answer.leaves
    elif answer.seen == "strays":
        thing.frequency = sooner(rows.thing_of(thing).frequency)
    else:
        return
    Thing.model_validate(rows.thing_of(thing).model_dump())
    thing.version += 1
    thing.save(update_fields=[*KEPT, "version"])
    was.append({**before, "now": {f: getattr(thing, f) for f in KEPT}, "out": take_out_too_many(thing)})


def _apart(
    household: models.Household, thing: models.Thing, count: int, decision: str, was: list[dict[str, Any]]
) -> None:
    """So many of a thing become a group of their own, with what becomes of them."""
    apart = models.Thing.objects.get(pk=thing.pk)
    taken = set(household.thing_set.values_list("key", flat=True))
    apart.pk, apart.count, apart.decision = None, count, decision
    apart.key = free_key(taken, f"{thing.key}-out")
    apart._state.adding = True
    apart.save()
    was.append({"key": apart.key, "made": True})


@transaction.atomic
def take_back(user: User, household_id: int, key: str) -> models.Space:
    """A review was not so: what it changed is as it was, where nobody has changed it again."""
    household = own_household(user, household_id)
    row = household.review_set.select_related("space__household").filter(key=key).first()
    if row is None:
        raise NotFound("review")
    for one in reversed(row.was):
        thing = household.thing_set.filter(key=one["key"]).first()
        if thing is None:
            continue
        if one.get("made"):
            thing.delete()
            continue
        for field in KEPT:
            if getattr(thing, field) == one["now"][field]:
                setattr(thing, field, one[field])
        for place in household.place_set.filter(key__in=one["out"]):
            change_stay(household, place, thing, one["out"][place.key])
        thing.version += 1
        thing.save(update_fields=[*KEPT, "version"])
    row.delete()
    log(household, user, "upkeep.unreview", space=row.space.key, key=key)
    return row.space


@transaction.atomic
def lead_out(user: User, thing_id: int, to: str, by: str) -> models.Thing:
    """Where a thing that leaves goes, and by when."""
    row = own_thing(user, thing_id)
    if rows.thing_of(row).stays:
        raise Invalid("upkeep.stays", name=row.name)
    said = Leaving(id=uuid4().hex, thing=row.key, to=to, by=by)
    models.Leaving.objects.update_or_create(
        thing=row,
        defaults={"to": said.to, "by": said.by},
        create_defaults={"household": row.household, "key": said.id, "to": said.to, "by": said.by},
    )
    log(row.household, user, "upkeep.leaves", thing=row.key, name=row.name)
    return row


@transaction.atomic
def gone(user: User, thing_id: int) -> None:
    """A thing that leaves is gone: it is no longer on the list, and counts among the pieces that went out."""
    row = own_thing(user, thing_id)
    if rows.thing_of(row).stays:
        raise Invalid("upkeep.stays", name=row.name)
    space = row.space.key if row.space else ""
    log(row.household, user, "upkeep.gone", key=row.key, name=row.name, count=row.count, space=space)
    row.delete()
