"""Keep: moving in, what lies where, and which labels were printed."""

from uuid import uuid4

from django.db import transaction
from django.utils import timezone

from pinakotheke.core.checks import Case
from pinakotheke.core.upkeep import planned
from pinakotheke.core.words.upkeep import place_named

from .. import models
from .base import Invalid, NotFound, User, free_key, log, own_design, own_place, own_space

MOST_PLACES, MOST_STAYS = 20_000, 40_000
"""Of a household: as many as its house file takes."""
MOST_PRINTED = 1000
"""So much is kept of what a label said, letters."""


@transaction.atomic
def move_in(user: User, case: Case, design_id: int) -> models.Design:
    """The places of a design become real, with what it gives a place there. Places of another design of this space go,
    with what was in them; those that somebody named stay.
    """
    row = own_design(user, design_id)
    space, household = row.space, row.space.household
    space.places.exclude(design="").delete()
    plan = planned(case.made, case.things)
    _room(household, len(plan), sum(len(p.holds) for p in plan))
    taken = set(household.place_set.values_list("key", flat=True))
    made = []
    for one in plan:
        name = place_named(case, one)
        key = free_key(taken, f"{space.key}-{name}")
        taken.add(key)
        made.append(models.Place(household=household, key=key, space=space, name=name[:120], design=row.key, part=one.part,
                                 box=one.box, height=one.height))  # fmt: skip
    places = models.Place.objects.bulk_create(made, batch_size=500)
    things = dict(household.thing_set.values_list("key", "pk"))
    models.Stay.objects.bulk_create(
        [models.Stay(household=household, key=uuid4().hex, place=place, thing_id=things[thing], count=count)
         for place, one in zip(places, plan, strict=True) for thing, count in one.holds if thing in things], batch_size=500,
    )  # fmt: skip
    log(household, user, "upkeep.move-in", space=space.key, design=row.key, places=len(places))
    return row


@transaction.atomic
def move_out(user: User, space_id: int) -> models.Space:
    """The places of a design are taken back, with what was said to lie in them."""
    space = own_space(user, space_id)
    space.places.exclude(design="").delete()
    log(space.household, user, "upkeep.move-out", space=space.key)
    return space


@transaction.atomic
def add_place(user: User, space_id: int, name: str) -> models.Place:
    """A place of a space as it is."""
    space = own_space(user, space_id)
    household = space.household
    _room(household, 1, 0)
    key = free_key(set(household.place_set.values_list("key", flat=True)), f"{space.key}-{name}")
    place = models.Place.objects.create(household=household, key=key, space=space, name=name)
    log(household, user, "upkeep.add-place", space=space.key, place=key, name=name)
    return place


@transaction.atomic
def rename_place(user: User, place_id: int, name: str) -> models.Place:
    """Call a place otherwise."""
    place = own_place(user, place_id)
    place.name = name
    place.save(update_fields=["name"])
    log(place.household, user, "upkeep.rename-place", space=place.space.key, place=place.key, name=name)
    return place


@transaction.atomic
def drop_place(user: User, place_id: int) -> models.Space:
    """Take a place away; what was in it has no place then."""
    place = own_place(user, place_id)
    space = place.space
    place.delete()
    log(space.household, user, "upkeep.drop-place", space=space.key, place=place.key, name=place.name)
    return space


@transaction.atomic
def put(user: User, place_id: int, thing_key: str, count: int) -> models.Space:
    """So many of a thing lie in a place; none takes it out. Nobody has more than there are: what is too much comes out of
    the other places, from the one that was filled last.
    """
    place = own_place(user, place_id)
    household = place.household
    thing = household.thing_set.filter(key=thing_key).first()
    if thing is None:
        raise NotFound("thing")
    if count > thing.count:
        raise Invalid("upkeep.too-many", name=thing.name, count=count, known=thing.count)
    stay = place.stays.filter(thing=thing).first()
    if count == 0 and stay:
        stay.delete()
    elif count and stay:
        stay.count = count
        stay.save(update_fields=["count"])
    elif count:
        _room(household, 0, 1)
        models.Stay.objects.create(household=household, key=uuid4().hex, place=place, thing=thing, count=count)
    take_out_too_many(thing, but=place)
    log(household, user, "upkeep.put", name=f"{thing.name} in {place.name}", space=place.space.key, place=place.key,
        thing=thing.key, count=count)  # fmt: skip
    return place.space


def take_out_too_many(thing: models.Thing, but: models.Place | None = None) -> dict[str, int]:
    """Nobody has more of a thing than there are: what is too much comes out of its places (`but` for one), from the one
    that was filled last. Returns how many came out, by place.
    """
    over = sum(s.count for s in thing.stays.all()) - thing.count
    out: dict[str, int] = {}
    for stay in thing.stays.exclude(place=but).select_related("place").order_by("-pk"):
        if over <= 0:
            break
        less = min(over, stay.count)
        over -= less
        out[stay.place.key] = less
        if less == stay.count:
            stay.delete()
        else:
            stay.count -= less
            stay.save(update_fields=["count"])
    return out


@transaction.atomic
def lend(user: User, place_id: int, thing_key: str, to: str) -> models.Space:
    """What lies in a place is lent to somebody, or back again where nobody is named."""
    place = own_place(user, place_id)
    stay = place.stays.select_related("thing").filter(thing__key=thing_key).first()
    if stay is None:
        raise NotFound("thing")
    stay.lent_to, stay.lent_on = to, timezone.localdate().isoformat() if to else ""
    stay.save(update_fields=["lent_to", "lent_on"])
    name = f"{stay.thing.name} to {to}" if to else f"{stay.thing.name} back in {place.name}"
    log(place.household, user, "upkeep.lend", name=name, space=place.space.key, place=place.key, thing=thing_key, to=to)
    return place.space


@transaction.atomic
def filled(user: User, place_id: int, done: bool) -> models.Place:
    """A place is filled, or is not after all; said twice it is kept once."""
    place = own_place(user, place_id)
    if bool(place.filled_on) != done:
        place.filled_on = timezone.localdate().isoformat() if done else ""
        place.save(update_fields=["filled_on"])
        log(place.household, user, "upkeep.filled", name=place.name, space=place.space.key, place=place.key)
    return place


@transaction.atomic
def printed(user: User, space_id: int, texts: dict[int, str]) -> models.Space:
    """Labels were printed: what each says is kept, so that one that is out of date is known."""
    space = own_space(user, space_id)
    today = timezone.localdate().isoformat()
    found = list(space.places.filter(pk__in=texts))
    for place in found:
        place.printed, place.printed_on = texts[place.pk][:MOST_PRINTED], today
    models.Place.objects.bulk_update(found, ["printed", "printed_on"], batch_size=500)
    log(space.household, user, "upkeep.printed", space=space.key, labels=len(found))
    return space


def _room(household: models.Household, places: int, stays: int) -> None:
    if household.place_set.count() + places > MOST_PLACES or household.stay_set.count() + stays > MOST_STAYS:
        raise Invalid("upkeep.too-many-places", places=MOST_PLACES, stays=MOST_STAYS)
