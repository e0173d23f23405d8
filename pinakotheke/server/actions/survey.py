"""Spaces and what is read in them."""

from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any, cast

from django.db import transaction

from pinakotheke.core.errors import told
from pinakotheke.core.housefile import Space
from pinakotheke.core.lengths import parse_length
from pinakotheke.core.survey import Heard, Reading, SpaceKind, Survey, add_readings, hear
from pinakotheke.core.survey.models import SIGNED, ZERO_ALLOWED
from pinakotheke.core.survey.obstacles import typed_obstacle
from pinakotheke.core.units import Units

from .. import models, rows
from .base import Invalid, NotFound, User, bump, free_key, log, own_household, own_space


@transaction.atomic
def add_space(user: User, household_id: int, name: str, kind: SpaceKind = "reach-in closet",
              practice: dict[str, Any] | None = None) -> models.Space:  # fmt: skip
    """An unmeasured space of a kind; a practice room carries the seed of its hidden truth."""
    household = own_household(user, household_id)
    taken = set(household.space_set.values_list("key", flat=True))
    fresh = {"kind": kind, "damp": kind == "shed"} | ({"door": {"kind": "sliding"}} if practice else {})
    space = Space.model_validate({"id": free_key(taken, name), "name": name, "survey": fresh})
    row = models.Space.objects.create(household=household, key=space.id, name=space.name, practice=practice)
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
    for photo in row.photos.all():
        photo.file.delete(save=False)
    row.delete()


def now() -> str:
    """The time of taking, for a reading."""
    return datetime.now(UTC).isoformat(timespec="seconds")


def listen(user: User, space_id: int, line: str, section: str = "", instrument: str = "tape") -> Heard:
    """What a call-out line would keep; nothing is kept."""
    return _hear(user, own_space(user, space_id), line, section, instrument, now())


def _hear(user: User, row: models.Space, line: str, section: str, instrument: str, taken: str) -> Heard:
    units: Units = row.household.units  # type: ignore[assignment]
    survey = rows.survey_of(row)
    if section and section not in {s.id for s in survey.parts}:
        raise NotFound("section")
    return hear(line, survey, units, section=section, hand=user.get_username(), taken=taken, instrument=instrument)


def _came_before(row: models.Space, key: str) -> bool:
    """Whether a device's message was carried out already; if not, it is noted as carried out now."""
    return bool(key) and not models.Arrival.objects.get_or_create(space=row, device_key=key)[1]


@transaction.atomic
def keep_call_out(user: User, space_id: int, version: int, line: str, section: str = "",
                  key: str = "") -> tuple[models.Space, Heard]:  # fmt: skip
    """Keep what is understood of a line; a line of which nothing is understood changes nothing."""
    row = own_space(user, space_id)
    heard = listen(user, space_id, line, section)
    if heard.understood and not _came_before(row, key):
        _keep(user, row, version, heard.kept_in(rows.survey_of(row)), "survey.call-out", said=line[:200])
    return row, heard


@transaction.atomic
def keep_reading(user: User, space_id: int, version: int, place: dict[str, Any], text: str,
                 key: str = "") -> models.Space:  # fmt: skip
    """One reading typed on a dimension line. It replaces nothing: all readings of a place are kept."""
    row = own_space(user, space_id)
    if _came_before(row, key):
        return row
    survey = rows.survey_of(row)
    reading = _typed(user, row, survey, place, text, "tape", now())
    _keep(user, row, version, add_readings(survey, (reading,)), "survey.reading", what=reading.what)
    return row


def _typed(user: User, row: models.Space, survey: Survey, place: dict[str, Any], text: str, instrument: str,
           taken: str) -> Reading:  # fmt: skip
    """A reading from what was typed at a place; a minus is taken where a wall may lean away."""
    units: Units = row.household.units  # type: ignore[assignment]
    signed, what = text.strip().startswith(("-", "−")), place.get("what")
    length = parse_length(text.strip().lstrip("-−").strip() if signed and what in SIGNED else text, units)
    if length.exact_mm == 0 and what not in ZERO_ALLOWED:
        raise Invalid("survey.nought")
    value = -length.mm if signed else length.mm
    return _reading(user, survey, place, value, text, instrument, taken)


def _reading(user: User, survey: Survey, place: dict[str, Any], value: float, called: str, instrument: str,
             taken: str) -> Reading:  # fmt: skip
    if place.get("section") not in {s.id for s in survey.parts}:
        raise NotFound("section")
    used = {r.id for r in survey.readings}
    key = next(f"r{n}" for n in range(1, len(used) + 2) if f"r{n}" not in used)
    return Reading.model_validate(
        {**place, "id": key, "value": value, "called": called, "hand": user.get_username(), "taken": taken,
         "instrument": instrument}
    )  # fmt: skip


@dataclass(frozen=True)
class Message:
    """Something a device said, at once or when its connection came back: a call-out line, or a text at a place."""

    key: str
    line: str = ""
    section: str = ""
    place: dict[str, Any] | None = None
    text: str = ""
    taken: str = ""
    instrument: str = "tape"


@dataclass(frozen=True)
class Refused:
    """A message that could not be kept, and the mend."""

    key: str
    problem: str
    mend: str


@transaction.atomic
def arrive(user: User, space_id: int, messages: list[Message]) -> tuple[models.Space, list[Refused]]:
    """Carry out messages of a device, each once, however often it comes.

    Readings are only ever added, so they need no version: those of another hand stay beside them.
    """
    row = own_space(user, space_id)
    known = set(row.arrivals.filter(device_key__in=[m.key for m in messages]).values_list("device_key", flat=True))
    refused, survey, before = [], rows.survey_of(row), rows.survey_of(row)
    for message in messages:
        if message.key in known:
            continue
        try:
            survey = _arrived(user, row, survey, message)
        except (NotFound, KeyError):
            gone = Invalid("survey.section-gone")
            refused.append(Refused(message.key, gone.problem, gone.mend))
            continue
        except ValueError as error:
            other, (problem, mend) = Invalid("survey.not-kept"), told(error, cast(Units, row.household.units))
            refused.append(Refused(message.key, problem or other.problem, mend or other.mend))
            continue
        known.add(message.key)
        _came_before(row, message.key)
    if survey != before:
        _keep(user, row, row.version, survey, "survey.arrive", count=len(messages))
    return row, refused


@transaction.atomic
def add_obstacle(user: User, space_id: int, version: int, section: str, kind: str, typed: dict[str, str],
                 label: str) -> models.Space:  # fmt: skip
    """An obstacle from the form's fields."""
    row = own_space(user, space_id)
    survey, units = rows.survey_of(row), cast(Units, row.household.units)
    here = section or survey.main.id
    if here not in {s.id for s in survey.parts}:
        raise NotFound("section")
    made = typed_obstacle(survey, here, kind, typed, label, units)
    new = Survey.model_validate({**survey.model_dump(), "obstacles": (*survey.obstacles, made)})
    _keep(user, row, version, new, "survey.obstacle", kind=kind)
    return row


def _arrived(user: User, row: models.Space, survey: Survey, message: Message) -> Survey:
    taken = message.taken or now()
    if message.place is not None:
        reading = _typed(user, row, survey, message.place, message.text, message.instrument, taken)
        return add_readings(survey, (reading,))
    units: Units = row.household.units  # type: ignore[assignment]
    heard = hear(message.line, survey, units, section=message.section, hand=user.get_username(), taken=taken)
    if heard.misheard:
        first = heard.misheard[0]
        raise Invalid("survey.misheard", said=first.said, problem=first.problem, mend=first.mend)
    return heard.kept_in(survey)


@transaction.atomic
def add_taken(user: User, space_id: int, version: int, taken: list[tuple[dict[str, Any], float]],
              instrument: str) -> models.Space:  # fmt: skip
    """Readings an instrument sent, each at its place."""
    row = own_space(user, space_id)
    survey = rows.survey_of(row)
    for place, value in taken:
        reading = _reading(user, survey, place, value, f"{instrument} {value:g}", instrument, now())
        survey = add_readings(survey, (reading,))
    _keep(user, row, version, survey, "survey.instrument", instrument=instrument)
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
    """A whole survey, as undo puts it back. A reading that is known is kept as it was read: another value under its id is
    refused, and nothing is changed.
    """
    row = own_space(user, space_id)
    known = {r.id: r for r in rows.survey_of(row).readings}
    for reading in survey.readings:
        old = known.get(reading.id, reading)
        if (old.place, old.value) != (reading.place, reading.value):
            raise Invalid("survey.known-reading", id=reading.id, was=old.value)
    _keep(user, row, version, survey, "survey.replace")
    return row


def _keep(user: User, row: models.Space, version: int, survey: Survey, action: str, **detail: Any) -> None:
    bump(row, version, "space")
    rows.keep_survey(row, survey)
    row.save(update_fields=["facts"])
    log(row.household, user, action, space=row.key, **detail)
