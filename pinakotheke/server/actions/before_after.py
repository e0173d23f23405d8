"""Before and after: what was there before is noted, and games of finding things are kept."""

from typing import Any
from uuid import uuid4

from django.db import transaction
from django.utils import timezone

from pinakotheke.core.upkeep import Before, Hunt

from .. import models
from .base import Invalid, NotFound, User, log, own_household, own_space

MOST_GAMES = 2000


@transaction.atomic
def note(user: User, space_id: int, fields: dict[str, Any]) -> models.Space:
    """What was there before the work; said again, it is changed."""
    space = own_space(user, space_id)
    found = Before.model_validate({"id": uuid4().hex, "space": space.key, **fields})
    data = found.model_dump(exclude={"id", "space"})
    models.Before.objects.update_or_create(
        space=space, defaults=data, create_defaults={**data, "household": space.household, "key": found.id}
    )
    log(space.household, user, "upkeep.before", space=space.key)
    return space


@transaction.atomic
def hunted(user: User, space_id: int, key: str, fields: dict[str, Any]) -> models.Space:
    """A game was played; sent twice it is kept once."""
    space = own_space(user, space_id)
    household = space.household
    if household.hunt_set.filter(key=key).exists():
        return space
    if household.hunt_set.count() >= MOST_GAMES:
        raise Invalid("upkeep.too-many-games", most=MOST_GAMES)
    found = Hunt.model_validate({"id": key, "space": space.key, "on": timezone.localdate().isoformat(), **fields})
    models.Hunt.objects.create(household=household, space=space, key=key,
                               **found.model_dump(mode="json", exclude={"id", "space"}))  # fmt: skip
    log(household, user, "upkeep.hunt", space=space.key, count=len(found.finds))
    return space


@transaction.atomic
def forget(user: User, household_id: int, key: str) -> models.Space:
    """A game does not count."""
    household = own_household(user, household_id)
    row = household.hunt_set.select_related("space__household").filter(key=key).first()
    if row is None:
        raise NotFound("game")
    row.delete()
    log(household, user, "upkeep.unhunt", space=row.space.key)
    return row.space
