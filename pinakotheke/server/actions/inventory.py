"""Things: added by the line, changed in the table, taken out and put back."""

from collections.abc import Sequence
from itertools import count
from typing import Any

from django.db import transaction
from django.db.models import F

from pinakotheke.core.inventory import Thing, quick_add
from pinakotheke.core.inventory.kinds import CUSTOM
from pinakotheke.core.inventory.parse import NoteRow, named, read_note, word_of
from pinakotheke.core.inventory.things import Band
from pinakotheke.core.units import Units

from .. import models, rows
from .base import Invalid, NotFound, User, bump, log, own_household, own_space, own_thing

MOST_THINGS = 5000
MOST_WORDS = 2000
CHUNK = 500
"""Rows named in one statement."""


@transaction.atomic
def add_things(user: User, space_id: int, line: str) -> list[models.Thing]:
    """Things from a quick-add line, all of them or none."""
    space = own_space(user, space_id)
    household = space.household
    taken = frozenset(household.thing_set.values_list("key", flat=True))
    units: Units = household.units  # type: ignore[assignment]
    house = rows.words_of(household)
    things = quick_add(line, rows.people_of(household), units, space=space.key, taken=taken, house=house)
    _learn(household, [t for t in things if t.kind == CUSTOM.id and not t.unsure])
    return [_create(user, space, thing) for thing in things]


def note_read(user: User, space_id: int, text: str) -> tuple[models.Space, tuple[NoteRow, ...]]:
    """What a pasted note says; nothing is kept."""
    space = own_space(user, space_id)
    household = space.household
    taken = frozenset(household.thing_set.values_list("key", flat=True))
    units: Units = household.units  # type: ignore[assignment]
    return space, read_note(text, rows.people_of(household), units, space=space.key, taken=taken,
                            house=rows.words_of(household))  # fmt: skip


@transaction.atomic
def add_note(user: User, space_id: int, things: tuple[Thing, ...]) -> int:
    """The things of a note as somebody put them right, under ids that are free; what was put right is learned."""
    space = own_space(user, space_id)
    household = space.household
    people = {p.id for p in rows.people_of(household)}
    stranger = next((t.owner for t in things if t.owner and t.owner not in people), None)
    if stranger is not None:
        raise Invalid("things.nobody", owner=stranger)
    taken = set(household.thing_set.values_list("key", flat=True))
    ids = (key for n in count(1) if (key := f"t{n}") not in taken)
    made = tuple(t.model_copy(update={"id": next(ids), "space": space.key}) for t in things)
    _learn(household, [t for t in made if not t.unsure])
    return add_rows(user, space_id, made)


@transaction.atomic
def put_back(user: User, space_id: int, thing: Thing) -> models.Thing:
    """A thing that was taken out, as undo puts it back."""
    space = own_space(user, space_id)
    if space.household.thing_set.filter(key=thing.id).exists():
        raise Invalid("house.there-already")
    return _create(user, space, thing)


def _create(user: User, space: models.Space, thing: Thing) -> models.Thing:
    household = space.household
    if household.thing_set.count() >= MOST_THINGS:
        raise Invalid("things.too-many", most=MOST_THINGS)
    row = models.Thing.objects.create(household=household, key=thing.id, space=space, **rows.thing_fields(thing))
    log(household, user, "thing.add", space=space.key, key=thing.id, name=thing.name)
    return row


@transaction.atomic
def change_thing(user: User, thing_id: int, version: int, changes: dict[str, Any]) -> models.Thing:
    """Some fields of a thing; the whole is checked again."""
    row = own_thing(user, thing_id)
    before = rows.thing_of(row)
    thing = Thing.model_validate({**before.model_dump(), **_settled(before, changes)})
    if thing.owner and not row.household.person_set.filter(key=thing.owner).exists():
        raise Invalid("things.nobody", owner=thing.owner)
    bump(row, version, "thing")
    for field, value in rows.thing_fields(thing).items():
        setattr(row, field, value)
    row.save()
    if {"kind", "size", "unsure"} & set(changes):
        _learn(row.household, [thing])
    log(row.household, user, "thing.change", space=row.space.key if row.space else "", name=row.name, key=row.key,
        fields=sorted(changes))  # fmt: skip
    return row


SETTLES = {"kind": ("kind", "size"), "size": ("size",), "count": ("count",), "owner": ("owner",)}
"""What a person's word on a field puts an end to."""


def _settled(thing: Thing, changes: dict[str, Any]) -> dict[str, Any]:
    """The changes, and that what they say is no guess any more. A size that was a guess goes with it."""
    if "unsure" in changes or not any(thing.unsure in SETTLES.get(field, ()) for field in changes):
        return changes
    guessed = {"size": None, "mass": None} if thing.unsure == "size" and "size" not in changes else {}
    if changes.get("kind") == "custom":
        guessed = {}
    return {**guessed, **changes, "unsure": ""}


def _learn(household: models.Household, things: Sequence[Thing]) -> None:
    """What somebody said a name means is known from then on in this household; of one name the last word holds."""
    said: dict[str, models.Word] = {}
    for thing in things:
        word, known = word_of(thing.name), named(thing.name)
        if thing.size is not None or known is None or known.guess or known.kind.id != thing.kind:
            size = list(thing.size) if thing.size else None
            said[word] = models.Word(household=household, word=word, kind=thing.kind, size=size, mass=thing.mass)
    room = MOST_WORDS - household.word_set.count() if said else 0
    models.Word.objects.bulk_create(
        list(said.values())[: max(0, room)], update_conflicts=True, unique_fields=["household", "word"],
        update_fields=["kind", "size", "mass"],
    )  # fmt: skip


@transaction.atomic
def forget_word(user: User, household_id: int, word: str) -> None:
    """A word of the house means what it means everywhere again."""
    household = own_household(user, household_id)
    if not household.word_set.filter(word=word).delete()[0]:
        raise NotFound("word")
    log(household, user, "word.forget", word=word)


@transaction.atomic
def change_many(user: User, household_id: int, ids: list[int], changes: dict[str, Any]) -> int:
    """The same change for many things at once, all of them or none, in a few statements."""
    household = own_household(user, household_id)
    wanted = sorted(set(ids))
    chunks = [wanted[n : n + CHUNK] for n in range(0, len(wanted), CHUNK)]
    found = [row for chunk in chunks for row in household.thing_set.select_related("space").filter(pk__in=chunk)]
    if len(found) != len(wanted):
        raise NotFound("thing")
    owner = changes.get("owner")
    if owner and not household.person_set.filter(key=owner).exists():
        raise Invalid("things.nobody", owner=owner)
    columns: dict[str, Any] = {}
    for row in found:
        fields = rows.thing_fields(Thing.model_validate({**rows.thing_of(row).model_dump(), **changes}))
        columns = {name: fields[name] for name in changes}
    for chunk in chunks:
        household.thing_set.filter(pk__in=chunk).update(**columns, version=F("version") + 1)
    log(household, user, "thing.change-many", keys=[row.key for row in found], fields=sorted(changes))
    return len(found)


@transaction.atomic
def duplicate(user: User, thing_id: int) -> models.Thing:
    """The same group once more, as a start for one like it."""
    row = own_thing(user, thing_id)
    if row.space is None:
        raise Invalid("things.no-space")
    taken = set(row.household.thing_set.values_list("key", flat=True))
    key = next(f"t{n}" for n in range(1, len(taken) + 2) if f"t{n}" not in taken)
    return _create(user, row.space, rows.thing_of(row).model_copy(update={"id": key}))


@transaction.atomic
def pin(user: User, thing_id: int, version: int, space: str, band: Band | None) -> models.Thing:
    """Where a person wants it, over the suggestion; empty and None leave it to the suggestion again."""
    row = own_thing(user, thing_id)
    if space and not row.household.space_set.filter(key=space).exists():
        raise NotFound("space")
    return change_thing(user, thing_id, version, {"pin_space": space, "pin_band": band})


@transaction.atomic
def go_there(user: User, thing_id: int, version: int, space: str) -> models.Thing:
    """A thing moves to another space of the house."""
    row = own_thing(user, thing_id)
    there = row.household.space_set.filter(key=space).first()
    if there is None:
        raise NotFound("space")
    bump(row, version, "thing")
    row.space = there
    row.save(update_fields=["space"])
    log(row.household, user, "thing.move", key=row.key, space=space)
    return row


@transaction.atomic
def add_rows(user: User, space_id: int, things: tuple[Thing, ...]) -> int:
    """Things from a spreadsheet, all of them or none."""
    space = own_space(user, space_id)
    household = space.household
    if household.thing_set.count() + len(things) > MOST_THINGS:
        raise Invalid("things.too-many-rows", most=MOST_THINGS)
    models.Thing.objects.bulk_create(
        [models.Thing(household=household, key=t.id, space=space, **rows.thing_fields(t)) for t in things],
        batch_size=500,
    )
    log(household, user, "thing.import", count=len(things), space=space.key)
    return len(things)


@transaction.atomic
def remove_thing(user: User, thing_id: int, version: int) -> None:
    """Take a thing out of the list."""
    row = own_thing(user, thing_id)
    bump(row, version, "thing")
    log(row.household, user, "thing.remove", space=row.space.key if row.space else "", key=row.key, name=row.name)
    row.delete()
