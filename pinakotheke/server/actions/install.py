"""Install: how a space is installed, and what was done at the wall."""

from typing import Any

from django.db import transaction
from django.utils import timezone

from pinakotheke.core.install import InstallChoice, Tick

from .. import models, rows
from .base import Invalid, NotFound, User, bump, log, own_design, own_space

MOST_TICKS = 5000


@transaction.atomic
def choose(user: User, space_id: int, version: int, choice: InstallChoice) -> models.Space:
    """What is there now, who helps, and when there is time."""
    row = own_space(user, space_id)
    bump(row, version, "space")
    row.install = choice.model_dump(mode="json")
    row.save(update_fields=["install"])
    log(row.household, user, "install.choose", key=row.key)
    return row


@transaction.atomic
def tick(user: User, design_id: int, key: str, fields: dict[str, Any]) -> Tick:
    """A step is done, or not as drawn. Sent again by the same key it is as it was kept first: a telephone that lost its
    connection sends until it hears an answer.
    """
    design = own_design(user, design_id)
    household = design.space.household
    there = models.Tick.objects.select_related("space").filter(household=household, key=key).first()
    if there is not None:
        return rows.tick_of(there)
    if household.tick_set.count() >= MOST_TICKS:
        raise Invalid("install.too-many", most=MOST_TICKS)
    found = Tick.model_validate({"id": key, "space": design.space.key, "design": design.key, "by": user.get_username(),
                                 "on": timezone.now().isoformat(timespec="minutes"), **fields})  # fmt: skip
    models.Tick.objects.create(household=household, key=key, space=design.space,
                               **found.model_dump(exclude={"id", "space"}))  # fmt: skip
    log(household, user, "install.tick", key=key, step=found.step)
    return found


@transaction.atomic
def untick(user: User, design_id: int, key: str) -> None:
    """It was not done after all."""
    design = own_design(user, design_id)
    if not models.Tick.objects.filter(household=design.space.household, key=key, space=design.space).delete()[0]:
        raise NotFound("tick")
    log(design.space.household, user, "install.untick", key=key)
