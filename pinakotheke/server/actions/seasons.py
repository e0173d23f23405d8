"""Seasons: swaps are planned, and carried out."""

from typing import Any
from uuid import uuid4

from django.db import transaction

from pinakotheke.core.upkeep import Swap
from pinakotheke.core.upkeep.seasons import moves_of, on, other

from .. import models, rows
from .base import Invalid, NotFound, User, log, own_household

MOST_SWAPS = 200
LEAP = 2028


def _checked(household: models.Household, key: str, fields: dict[str, Any]) -> Swap:
    """A swap whose days are days, and whose things and places are here."""
    for day in (fields["begins"], fields["ends"]):
        try:
            on(LEAP, day)
        except ValueError:
            raise Invalid("upkeep.no-season-day", day=day) from None
    swap = Swap.model_validate({"id": key, **fields})
    things = set(household.thing_set.filter(key__in=[r.thing for r in swap.rows]).values_list("key", flat=True))
    wanted = {key for r in swap.rows for key in (r.during, r.after) if key}
    places = set(household.place_set.filter(key__in=wanted).values_list("key", flat=True))
    if {r.thing for r in swap.rows} - things:
        raise NotFound("thing")
    if wanted - places:
        raise NotFound("place")
    return swap


@transaction.atomic
def plan(user: User, household_id: int, key: str, fields: dict[str, Any]) -> None:
    """A new swap (without a key), or one that is planned otherwise."""
    household = own_household(user, household_id)
    row = household.swap_set.filter(key=key).first() if key else None
    if key and row is None:
        raise NotFound("swap")
    if row is None and household.swap_set.count() >= MOST_SWAPS:
        raise Invalid("upkeep.too-many-swaps", most=MOST_SWAPS)
    swap = _checked(household, key or uuid4().hex, {**fields, "now": row.now if row else fields["now"]})
    data = swap.model_dump(mode="json", exclude={"id"})
    models.Swap.objects.update_or_create(household=household, key=swap.id, defaults=data)
    log(household, user, "upkeep.plan-swap", name=swap.name)


@transaction.atomic
def drop(user: User, household_id: int, key: str) -> None:
    """A swap is planned no longer; everything stays where it is."""
    household = own_household(user, household_id)
    row = household.swap_set.filter(key=key).first()
    if row is None:
        raise NotFound("swap")
    row.delete()
    log(household, user, "upkeep.drop-swap", name=row.name)


@transaction.atomic
def swap_now(user: User, household_id: int, key: str) -> None:
    """The things changed their places: what lay in one lies in the other. Done once more, it is as it was."""
    household = own_household(user, household_id)
    row = household.swap_set.select_for_update().filter(key=key).first()
    if row is None:
        raise NotFound("swap")
    swap = rows.swap_of(row)
    things = {t.key: t for t in household.thing_set.filter(key__in=[r.thing for r in swap.rows])}
    stays = household.stay_set.filter(thing__in=things.values()).select_related("place", "thing").order_by("pk")
    places = {p.key: p for p in household.place_set.filter(key__in={p for r in swap.rows for p in (r.during, r.after)})}
    moves = moves_of(swap, [rows.stay_of(s) for s in stays], {key: t.count for key, t in things.items()})
    moves = tuple(m for m in moves if m.thing in things and {m.source, m.target} <= {*places, ""})
    for move in moves:
        if move.source:
            change_stay(household, places[move.source], things[move.thing], -move.count)
    for move in moves:
        if move.target:
            change_stay(household, places[move.target], things[move.thing], move.count)
    row.now = other(swap.now)
    row.save(update_fields=["now"])
    log(household, user, "upkeep.swap", name=row.name, count=sum(m.count for m in moves))


def change_stay(household: models.Household, place: models.Place, thing: models.Thing, by: int) -> None:
    """So many more (or fewer) of a thing in a place."""
    stay = models.Stay.objects.filter(place=place, thing=thing).first()
    if stay is None:
        models.Stay.objects.create(household=household, key=uuid4().hex, place=place, thing=thing, count=by)
    elif stay.count + by <= 0:
        stay.delete()
    else:
        stay.count += by
        stay.save(update_fields=["count"])
