"""Spaces and what is read in them."""

from datetime import UTC, datetime
from typing import Any

from django.db import transaction

from pinakotheke.core.housefile import Space
from pinakotheke.core.lengths import Units, parse_length
from pinakotheke.core.survey import Heard, Reading, Survey, add_readings, hear

from .. import models, rows
from .base import Invalid, NotFound, User, bump, free_key, log, own_household, own_space


@transaction.atomic
def add_space(user: User, household_id: int, name: str) -> models.Space:
    """An unmeasured space."""
    household = own_household(user, household_id)
    taken = set(household.space_set.values_list("key", flat=True))
    space = Space.model_validate({"id": free_key(taken, name), "name": name})
    row = models.Space.objects.create(household=household, key=space.id, name=space.name, kind=space.kind)
    rows.keep_survey(row, space.survey)
    row.save()
    log(household, user, "space.add", key=space.id)
    return row


@transaction.atomic
def rename_space(user: User, space_id: int, version: int, name: str) -> models.Space:
    """Another name; the key stays."""
    row = own_space(user, space_id)
    bump(row, version, "space")
    row.name = Space.model_validate({"id": row.key, "name": name}).name
    row.save(update_fields=["name"])
    log(row.household, user, "space.rename", key=row.key)
    return row


@transaction.atomic
def remove_space(user: User, space_id: int, version: int) -> None:
    """Take a space away; its things stay in the house, without a space."""
    row = own_space(user, space_id)
    bump(row, version, "space")
    log(row.household, user, "space.remove", key=row.key)
    row.delete()


def now() -> str:
    """The time of taking, for a reading."""
    return datetime.now(UTC).isoformat(timespec="seconds")


def listen(user: User, space_id: int, line: str) -> Heard:
    """What a call-out line would keep; nothing is kept."""
    row = own_space(user, space_id)
    units: Units = row.household.units  # type: ignore[assignment]
    return hear(line, rows.survey_of(row), units, hand=user.get_username(), taken=now())


@transaction.atomic
def keep_call_out(user: User, space_id: int, version: int, line: str) -> tuple[models.Space, Heard]:
    """Keep what is understood of a line; a line of which nothing is understood changes nothing."""
    row = own_space(user, space_id)
    heard = listen(user, space_id, line)
    if heard.understood:
        _keep(user, row, version, heard.kept_in(rows.survey_of(row)), "survey.call-out", said=line[:200])
    return row, heard


@transaction.atomic
def keep_reading(user: User, space_id: int, version: int, place: dict[str, Any], text: str) -> models.Space:
    """One reading typed on a dimension line. It replaces nothing: all readings of a place are kept."""
    row = own_space(user, space_id)
    units: Units = row.household.units  # type: ignore[assignment]
    length = parse_length(text, units)
    if length.exact_mm == 0:
        raise Invalid("A reading cannot be 0.", "Leave it unread, or write what the tape says.")
    survey = rows.survey_of(row)
    taken = {r.id for r in survey.readings}
    key = next(f"r{n}" for n in range(1, len(taken) + 2) if f"r{n}" not in taken)
    reading = Reading.model_validate(
        {**place, "id": key, "value": length.mm, "called": text, "hand": user.get_username(), "taken": now()}
    )
    _keep(user, row, version, add_readings(survey, (reading,)), "survey.reading", what=reading.what)
    return row


@transaction.atomic
def remove_reading(user: User, space_id: int, version: int, key: str) -> models.Space:
    """Take back a reading, or an obstacle."""
    row = own_space(user, space_id)
    old = rows.survey_of(row)
    new = old.model_copy(
        update={
            "readings": tuple(r for r in old.readings if r.id != key),
            "obstacles": tuple(o for o in old.obstacles if o.id != key),
        }
    )
    if new == old:
        raise NotFound("reading")
    _keep(user, row, version, new, "survey.remove", key=key)
    return row


@transaction.atomic
def replace_survey(user: User, space_id: int, version: int, survey: Survey) -> models.Space:
    """A whole survey, as undo puts it back."""
    row = own_space(user, space_id)
    _keep(user, row, version, survey, "survey.replace")
    return row


def _keep(user: User, row: models.Space, version: int, survey: Survey, action: str, **detail: Any) -> None:
    bump(row, version, "space")
    rows.keep_survey(row, survey)
    row.save(update_fields=["facts"])
    log(row.household, user, action, space=row.key, **detail)
