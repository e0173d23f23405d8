"""The household's own ranges of parts, and the containers it can buy."""

from decimal import Decimal
from typing import Any

from django.db import transaction

from pinakotheke.core import systems as core
from pinakotheke.core.inventory.containers import Container
from pinakotheke.core.inventory.owned import Lid, read_size
from pinakotheke.core.lengths import scan_lengths
from pinakotheke.core.tables import value
from pinakotheke.core.units import Units

from .. import models, rows
from .base import Invalid, NotFound, User, bump, free_key, log, own_household

MOST_RANGES, MOST_CONTAINERS = 40, 500


def own_range(user: User, household_id: int, key: str) -> models.Range:
    """A range of one of this member's households."""
    row = models.Range.objects.filter(household=own_household(user, household_id), key=key).first()
    if row is None:
        raise NotFound("range")
    return row


@transaction.atomic
def make_range(user: User, household_id: int, family: str, name: str) -> models.Household:
    """A range that is as yet the family that ships."""
    household = own_household(user, household_id)
    taken = set(household.range_set.values_list("key", flat=True))
    return _put_range(user, household, core.Range(id=free_key(taken, name), family=family, name=name))


@transaction.atomic
def put_range_back(user: User, household_id: int, own: core.Range) -> models.Household:
    """A range that was taken out, as undo puts it back."""
    household = own_household(user, household_id)
    if household.range_set.filter(key=own.id).exists():
        raise Invalid("house.there-already")
    return _put_range(user, household, own)


def _put_range(user: User, household: models.Household, own: core.Range) -> models.Household:
    if household.range_set.count() >= MOST_RANGES:
        raise Invalid("range.too-many", most=MOST_RANGES)
    models.Range.objects.create(household=household, key=own.id, data=own.model_dump(mode="json", exclude={"id"}))
    log(household, user, "range.add", key=own.id, family=own.family)
    return household


@transaction.atomic
def change_range(user: User, household_id: int, key: str, version: int, changes: dict[str, Any]) -> models.Household:
    """Some of a range; the whole is checked again. Designs that are made of it keep it as it was."""
    row = own_range(user, household_id, key)
    own = core.Range.model_validate({**rows.range_of(row).model_dump(), **changes})
    bump(row, version, "range")
    row.data = own.model_dump(mode="json", exclude={"id"})
    row.save(update_fields=["data"])
    log(row.household, user, "range.change", key=key, fields=sorted(changes))
    return row.household


@transaction.atomic
def remove_range(user: User, household_id: int, key: str) -> models.Household:
    """Take a range out; designs that are made of it keep it."""
    row = own_range(user, household_id, key)
    log(row.household, user, "range.remove", key=key)
    row.delete()
    return row.household


def read_sizes(texts: dict[str, str], units: Units) -> dict[str, tuple[int, ...]]:
    """Sizes as they are typed, *450, 600, 900*; a field left empty keeps those of the family."""
    return {
        name: tuple(sorted({round(length.mm) for length in scan_lengths(text, units)}))
        for name, text in texts.items() if text.strip()
    }  # fmt: skip


@transaction.atomic
def add_container(user: User, household_id: int, name: str, size: str, price: Decimal, lid: Lid) -> models.Household:
    """One container that can be bought; its outside size as it is said."""
    household = own_household(user, household_id)
    units: Units = household.units  # type: ignore[assignment]
    sides = read_size(size, units)
    taken = set(household.container_set.values_list("key", flat=True))
    key = next(f"c{n}" for n in range(1, len(taken) + 2) if f"c{n}" not in taken)
    box = Container(id=key, name=name, width=sides[0], depth=sides[1], height=sides[2], lid=lid, price=float(price),
                    wall=value("inventory.container_wall"))  # fmt: skip
    return add_containers(user, household_id, (box,))


@transaction.atomic
def add_containers(user: User, household_id: int, boxes: tuple[Container, ...]) -> models.Household:
    """Containers that can be bought, all of them or none."""
    household = own_household(user, household_id)
    if household.container_set.count() + len(boxes) > MOST_CONTAINERS:
        raise Invalid("range.too-many-containers", most=MOST_CONTAINERS)
    models.Container.objects.bulk_create(
        models.Container(household=household, key=c.id, data=c.model_dump(mode="json", exclude={"id"})) for c in boxes
    )
    log(household, user, "container.add", count=len(boxes))
    return household


@transaction.atomic
def remove_container(user: User, household_id: int, key: str) -> models.Household:
    """Take a container off the list; designs that use it keep it."""
    household = own_household(user, household_id)
    if not household.container_set.filter(key=key).delete()[0]:
        raise NotFound("container")
    log(household, user, "container.remove", key=key)
    return household
