"""Install: how a space is installed, and what was done at the wall."""

from collections.abc import Callable
from typing import Any

from django.db import transaction
from django.utils import timezone

from pinakotheke.core.install import InstallChoice, Tick
from pinakotheke.core.install.amiss import stud_moved, wall_bows
from pinakotheke.core.layout.edit.commands import MOST_AT_ONCE, LockPart, Several
from pinakotheke.core.survey import Reading, Survey
from pinakotheke.core.systems import HOLDERS

from .. import models, rows
from . import layout
from .base import Invalid, NotFound, User, bump, log, own_design, own_space
from .survey import now

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
    log(household, user, "install.tick", space=design.space.key, key=key, step=found.step)
    return found


@transaction.atomic
def stud_elsewhere(user: User, design: models.Design, section: str, number: int, at: float, called: str) -> float:
    """A stud was found elsewhere than it was read, at `at` mm: its reading is replaced. Returns where it was thought
    to be, mm.
    """
    space = models.Space.objects.select_for_update().get(pk=design.space_id)
    survey = rows.survey_of(space)
    reading = Reading(id=free_reading(survey), section=section, what="stud", value=at, called=called[:200],
                      hand=user.get_username(), taken=now(), instrument="tape")  # fmt: skip
    moved, was = stud_moved(survey, section, number, at, reading)
    _keep_reading(user, space, moved, "install.stud", was=was, now=at)
    return was


@transaction.atomic
def wall_bowed(user: User, design: models.Design, section: str, bow: float, called: str) -> None:
    """How far the middle of a wall stands out (or in, negative), mm, in the place of what was read of it before."""
    space = models.Space.objects.select_for_update().get(pk=design.space_id)
    survey = rows.survey_of(space)
    reading = Reading(id=free_reading(survey), section=section, what="bow", side="middle", value=bow, called=called[:200],
                      hand=user.get_username(), taken=now(), instrument="level")  # fmt: skip
    _keep_reading(user, space, wall_bows(survey, reading), "install.bow", now=bow)


def _keep_reading(user: User, space: models.Space, survey: Survey, action: str, **said: float) -> None:
    rows.keep_survey(space, survey)
    space.version += 1
    space.save(update_fields=["facts", "version"])
    log(space.household, user, action, space=space.key, **said)


@transaction.atomic
def set_aside(user: User, design: models.Design, change: Callable[[InstallChoice], InstallChoice]) -> None:
    """Keep with what is said of the work what strayed, or is cut anew: `change` makes it from what was said before."""
    space = models.Space.objects.select_for_update().get(pk=design.space_id)
    said = rows.choice_of(space) or InstallChoice(start=timezone.localdate())
    space.install = change(said).model_dump(mode="json")
    space.version += 1
    space.save(update_fields=["install", "version"])
    log(space.household, user, "install.aside", space=space.key)


@transaction.atomic
def lock_what_hangs(user: User, design_id: int, parts: tuple[str, ...]) -> None:
    """What is up already stays where it is when the rest is found anew; one act, to be taken back as one."""
    row = own_design(user, design_id)
    history = rows.history_of(row)
    free = [p.id for p in history.current.parts if p.id in parts and p.role in HOLDERS and not p.locked]
    if free:
        lock = Several(commands=tuple(LockPart(part=name) for name in free[:MOST_AT_ONCE]))
        layout.edit(user, design_id, row.version, lock)


def free_reading(survey: Survey) -> str:
    """An id that no reading of a survey has."""
    used = {r.id for r in survey.readings} | {o.id for o in survey.obstacles}
    return next(f"r{n}" for n in range(1, len(used) + 2) if f"r{n}" not in used)


@transaction.atomic
def untick(user: User, design_id: int, key: str) -> None:
    """It was not done after all."""
    design = own_design(user, design_id)
    if not models.Tick.objects.filter(household=design.space.household, key=key, space=design.space).delete()[0]:
        raise NotFound("tick")
    log(design.space.household, user, "install.untick", space=design.space.key, key=key)
