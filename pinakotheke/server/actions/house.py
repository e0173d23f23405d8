"""Households, people, rules, and the house file."""

from typing import Any, cast

from django.core.files import File
from django.db import transaction
from django.db.models import F

from pinakotheke.core import house as core
from pinakotheke.core.base import Frozen
from pinakotheke.core.housefile import House

from .. import models, rows
from .base import Invalid, NotFound, User, bump, free_key, log, own_household
from .inventory import CHUNK


def _let_in(row: models.Household, user: User) -> None:
    models.Membership.objects.create(household=row, user_id=cast(int, user.pk), role=models.Role.OWNER)


@transaction.atomic
def create_household(user: User, name: str, units: str, currency: str) -> models.Household:
    """An empty household with this user as its member."""
    checked = House.model_validate({"name": name, "units": units, "currency": currency})
    row = models.Household.objects.create(
        name=checked.name, units=checked.units, currency=checked.currency, rules=checked.rules.model_dump(mode="json")
    )
    _let_in(row, user)
    log(row, user, "household.create", name=checked.name)
    return row


@transaction.atomic
def change_household(user: User, household_id: int, version: int, changes: dict[str, Any]) -> models.Household:
    """Name, units, currency or rules."""
    row = own_household(user, household_id)
    bump(row, version, "household")
    checked = House.model_validate(
        {"name": row.name, "units": row.units, "currency": row.currency, "rules": row.rules, **changes}
    )
    row.name, row.units, row.currency = checked.name, checked.units, checked.currency
    row.rules = checked.rules.model_dump(mode="json")
    row.save(update_fields=["name", "units", "currency", "rules"])
    log(row, user, "household.change", fields=sorted(changes))
    return row


@transaction.atomic
def put_person(user: User, household_id: int, data: dict[str, Any], key: str | None = None) -> models.Person:
    """Add a person, or change the one with this key."""
    household = own_household(user, household_id)
    taken = set(household.person_set.values_list("key", flat=True))
    if key is not None and key not in taken:
        raise NotFound("person")
    person = core.Person.model_validate({**data, "id": key or free_key(taken, str(data.get("name", "")))})
    row, _ = models.Person.objects.update_or_create(
        household=household, key=person.id, defaults=person.model_dump(exclude={"id"})
    )
    log(household, user, "person.put", key=person.id)
    return row


@transaction.atomic
def remove_person(user: User, household_id: int, key: str) -> tuple[core.Person, list[str]]:
    """Take a person out; their things then belong to the house. What was taken out, and the keys of those things."""
    household = own_household(user, household_id)
    row = household.person_set.filter(key=key).first()
    if row is None:
        raise NotFound("person")
    person, theirs = rows.person_of(row), household.thing_set.filter(owner=key)
    things = list(theirs.values_list("key", flat=True))
    theirs.update(owner="", version=F("version") + 1)
    row.delete()
    log(household, user, "person.remove", key=key)
    return person, things


@transaction.atomic
def put_back_person(user: User, household_id: int, person: core.Person, things: list[str]) -> None:
    """A person who was taken out, as undo puts them back, with those of their things that still are the house's."""
    household = own_household(user, household_id)
    if household.person_set.filter(key=person.id).exists():
        raise Invalid("house.person-there", person=person.name)
    models.Person.objects.create(household=household, key=person.id, **person.model_dump(exclude={"id"}))
    for n in range(0, len(things), CHUNK):
        theirs = household.thing_set.filter(key__in=things[n : n + CHUNK], owner="")
        theirs.update(owner=person.id, version=F("version") + 1)
    log(household, user, "person.back", key=person.id)


@transaction.atomic
def import_house(user: User | None, house: House, *, demo: bool = False) -> models.Household:
    """A household from a house file: always a new one, so that nothing is overwritten."""
    row = models.Household.objects.create(
        name=house.name, units=house.units, currency=house.currency, rules=house.rules.model_dump(mode="json"),
        is_demo=demo, sawing=[one.model_dump(mode="json") for one in house.sawing],
        price_lists=[one.model_dump(mode="json") for one in house.price_lists],
    )  # fmt: skip
    if user is not None:
        _let_in(row, user)
    models.Person.objects.bulk_create(
        models.Person(household=row, key=p.id, **p.model_dump(exclude={"id"})) for p in house.people
    )
    spaces: dict[str, models.Space] = {}
    for space in house.spaces:
        use = space.use.model_dump(mode="json")
        install = None if space.install is None else space.install.model_dump(mode="json")
        made = models.Space.objects.create(household=row, key=space.id, name=space.name, use=use, install=install)
        rows.keep_survey(made, space.survey)
        made.save()
        spaces[space.id] = made
    models.Thing.objects.bulk_create(
        (
            models.Thing(household=row, key=t.id, space=spaces.get(t.space), **rows.thing_fields(t))
            for t in house.things
        ),
        batch_size=500,
    )
    models.Stock.objects.bulk_create(
        models.Stock(household=row, key=o.id, **o.model_dump(mode="json", exclude={"id"})) for o in house.stock
    )
    models.MoneyEntry.objects.bulk_create(
        models.MoneyEntry(household=row, key=m.id, **m.model_dump(exclude={"id"})) for m in house.money
    )
    models.Range.objects.bulk_create(
        models.Range(household=row, key=r.id, data=r.model_dump(mode="json", exclude={"id"})) for r in house.ranges
    )
    models.Container.objects.bulk_create(
        models.Container(household=row, key=c.id, data=c.model_dump(mode="json", exclude={"id"}))
        for c in house.containers
    )
    models.Word.objects.bulk_create(models.Word(household=row, **w.model_dump(mode="json")) for w in house.words)
    models.WorkSession.objects.bulk_create(
        models.WorkSession(household=row, key=w.id, space=spaces[w.space], **w.model_dump(exclude={"id", "space"}))
        for w in house.work
    )
    models.Tick.objects.bulk_create(
        models.Tick(household=row, key=t.id, space=spaces[t.space], **t.model_dump(exclude={"id", "space"}))
        for t in house.ticks
    )
    _bring_places(row, spaces, house)
    _bring_supplies(row, house)
    _bring_keeping(row, spaces, house)
    used: dict[int, set[str]] = {}
    for history in house.designs:
        space_row = spaces[history.base.space]
        keys = used.setdefault(space_row.pk, set())
        key = free_key(keys, history.base.id)
        keys.add(key)
        design = models.Design.objects.create(
            space=space_row, key=key, **history.model_dump(mode="json", exclude={"remarks"})
        )
        models.Remark.objects.bulk_create(
            models.Remark(household=row, key=r.id, design=design, **r.model_dump(exclude={"id"}))
            for r in history.remarks
        )
    if user is not None:
        log(row, user, "house.import", things=len(house.things))
    return row


def _bring_supplies(row: models.Household, house: House) -> None:
    """What is used up, and what happened to it, from a house file."""
    things = dict(row.thing_set.values_list("key", "pk"))
    made = models.Supply.objects.bulk_create(
        [models.Supply(household=row, key=s.id, thing_id=things[s.thing], **s.model_dump(exclude={"id", "thing"}))
         for s in house.supplies], batch_size=500,
    )  # fmt: skip
    supplies = {s.key: s for s in made}
    models.Movement.objects.bulk_create(
        [models.Movement(household=row, key=m.id, supply=supplies[m.supply], **m.model_dump(exclude={"id", "supply"}))
         for m in house.movements], batch_size=500,
    )  # fmt: skip


def _bring_keeping(row: models.Household, spaces: dict[str, models.Space], house: House) -> None:
    """Swaps, reviews, what leaves, games and what was noted before, from a house file."""
    models.Swap.objects.bulk_create(
        models.Swap(household=row, key=s.id, **s.model_dump(mode="json", exclude={"id"})) for s in house.swaps
    )
    things = dict(row.thing_set.values_list("key", "pk"))
    models.Leaving.objects.bulk_create(
        models.Leaving(household=row, key=x.id, thing_id=things[x.thing], to=x.to, by=x.by) for x in house.leaving
    )
    models.Review.objects.bulk_create(
        models.Review(household=row, key=r.id, space=spaces[r.space], **_fields(r)) for r in house.reviews
    )
    models.Hunt.objects.bulk_create(
        models.Hunt(household=row, key=h.id, space=spaces[h.space], **_fields(h)) for h in house.hunts
    )
    models.Before.objects.bulk_create(
        models.Before(household=row, key=b.id, space=spaces[b.space], **_fields(b)) for b in house.before
    )


def _fields(one: Frozen) -> dict[str, Any]:
    """What a row of a space keeps of it."""
    fields: dict[str, Any] = one.model_dump(mode="json", exclude={"id", "space"})
    return fields


def own_import(user: User, import_id: int) -> models.HouseImport:
    """A house file that this member brought."""
    row = models.HouseImport.objects.filter(pk=import_id, user_id=cast(int, user.pk)).first()
    if row is None:
        raise NotFound("house file")
    return row


@transaction.atomic
def take_file(user: User, file: File[bytes]) -> models.HouseImport:
    """Keep a house file for a worker to read."""
    from ..jobs import read_house_file

    row = models.HouseImport(user_id=cast(int, user.pk))
    row.file.save("brought.house.json", file, save=False)
    row.save()
    transaction.on_commit(lambda: read_house_file.enqueue(row.pk))
    return row


def _bring_places(row: models.Household, spaces: dict[str, models.Space], house: House) -> None:
    """What lies where, from a house file."""
    made = models.Place.objects.bulk_create(
        [models.Place(household=row, key=p.id, space=spaces[p.space], **p.model_dump(exclude={"id", "space"}))
         for p in house.places], batch_size=500,
    )  # fmt: skip
    places = {p.key: p for p in made}
    things = dict(row.thing_set.values_list("key", "pk"))
    models.Stay.objects.bulk_create(
        [models.Stay(household=row, key=s.id, place=places[s.place], thing_id=things[s.thing],
                     **s.model_dump(exclude={"id", "place", "thing"})) for s in house.stays], batch_size=500,
    )  # fmt: skip
