"""Restock: what is used up is watched, and what was bought, opened and taken is kept."""

from datetime import date
from typing import Any
from uuid import uuid4

from django.db import transaction
from django.utils import timezone

from pinakotheke.core.upkeep import Movement

from .. import models, rows
from .base import Invalid, NotFound, User, log, must_be_day, own_household

MOST_SUPPLIES, MOST_MOVEMENTS = 2000, 50_000
"""Of a household: as many as its house file takes."""
ACTS = {"bought": "upkeep.bought", "opened": "upkeep.opened", "finished": "upkeep.finished", "thrown": "upkeep.thrown",
        "counted": "upkeep.counted"}  # fmt: skip


@transaction.atomic
def watch(user: User, household_id: int, thing_key: str, fields: dict[str, Any]) -> models.Household:
    """A thing is used up and bought again: how much of it is kept, where it is bought. Said again, it is changed."""
    household = own_household(user, household_id)
    thing = household.thing_set.filter(key=thing_key).first()
    if thing is None:
        raise NotFound("thing")
    if not household.supply_set.filter(thing=thing).exists() and household.supply_set.count() >= MOST_SUPPLIES:
        raise Invalid("upkeep.too-many-supplies", supplies=MOST_SUPPLIES, movements=MOST_MOVEMENTS)
    models.Supply.objects.update_or_create(
        thing=thing, defaults=fields, create_defaults={**fields, "household": household, "key": uuid4().hex}
    )
    log(household, user, "upkeep.watch", thing=thing.key, name=thing.name)
    return household


@transaction.atomic
def unwatch(user: User, household_id: int, supply_key: str) -> models.Household:
    """A thing is no longer watched; what happened to it is forgotten."""
    household = own_household(user, household_id)
    supply = _own_supply(household, supply_key)
    name = supply.thing.name
    supply.delete()
    log(household, user, "upkeep.unwatch", name=name)
    return household


@transaction.atomic
def move(user: User, household_id: int, supply_key: str, key: str, fields: dict[str, Any]) -> Movement:
    """Something was bought, opened, finished, thrown away or counted. Sent again by the same key it is as it was kept
    first: a telephone that lost its connection sends until it hears an answer.
    """
    household = own_household(user, household_id)
    there = household.movement_set.select_related("supply").filter(key=key).first()
    if there is not None:
        return rows.movement_of(there)
    supply = _own_supply(household, supply_key)
    if household.movement_set.count() >= MOST_MOVEMENTS:
        raise Invalid("upkeep.too-many-supplies", supplies=MOST_SUPPLIES, movements=MOST_MOVEMENTS)
    for day in (fields["on"], fields["best_before"]):
        must_be_day(day)
    # A day of grace: the device may be ahead of the server's clock or zone.
    if (date.fromisoformat(fields["on"]) - timezone.localdate()).days > 1:
        raise Invalid("upkeep.day-ahead", day=fields["on"])
    found = Movement.model_validate({"id": key, "supply": supply.key, **fields})
    models.Movement.objects.create(household=household, key=key, supply=supply,
                                   **found.model_dump(exclude={"id", "supply"}))  # fmt: skip
    log(household, user, ACTS[found.did], key=key, name=supply.thing.name, count=found.count)
    return found


@transaction.atomic
def take_back(user: User, household_id: int, key: str) -> None:
    """What was said to have happened did not; what is not there is not there."""
    household = own_household(user, household_id)
    row = household.movement_set.select_related("supply__thing").filter(key=key).first()
    if row is not None:
        row.delete()
        log(household, user, "upkeep.untold", name=row.supply.thing.name, count=row.count)


def _own_supply(household: models.Household, key: str) -> models.Supply:
    row = household.supply_set.select_related("thing").filter(key=key).first()
    if row is None:
        raise NotFound("supply")
    return row
