"""Practice rooms, the simulated instruments in them, and what the truth says of the readings."""

from random import Random
from typing import Any

from django.db import transaction

from pinakotheke.core.survey import Obstacle, Slot, Survey, slots
from pinakotheke.core.survey.instruments import StandIn
from pinakotheke.core.survey.models import Instrument
from pinakotheke.core.survey.practice import Difficulty, Review, TrueRoom, review, true_room, truth

from .. import models, rows
from . import survey as surveys
from .base import Invalid, User, bump, log, own_space

SEEDS = 1_000_000


def start(user: User, household_id: int, difficulty: Difficulty, seed: int | None = None) -> models.Space:
    """A new practice room; its seed stays on the server until the truth is shown."""
    seed = Random().randrange(SEEDS) if seed is None else seed
    name = f"Practice room, {difficulty}"
    return surveys.add_space(
        user, household_id, name, practice={"seed": seed, "difficulty": difficulty, "shown": False}
    )


def room_of(row: models.Space) -> TrueRoom:
    """The truth about a practice room; refuses for a real space, which has no stand-in's truth."""
    if row.practice is None:
        raise Invalid("practice.no-practice-room")
    return true_room(row.practice["seed"], row.practice["difficulty"])


@transaction.atomic
def take(user: User, space_id: int, version: int, kind: Instrument, place: dict[str, Any] | None) -> models.Space:
    """One reading at a place with an instrument; the stud finder sweeps the whole wall."""
    row = own_space(user, space_id)
    room, survey, tool = room_of(row), rows.survey_of(row), StandIn(kind)
    rng = Random(f"{row.practice['seed']}:{kind}:{len(survey.readings)}:{place}")  # type: ignore[index]
    if kind == "stud finder":
        found = tool.sweep(room.studs, room.width, rng)
        taken = [({"section": survey.main.id, "what": "stud"}, t.value) for t in found]
        return surveys.add_taken(user, space_id, version, taken, kind)
    slot = _slot(survey, place or {})
    if not tool.can_read(slot.what):
        raise Invalid("practice.wrong-instrument", tool=tool.name, what=slot.what)
    true = truth(room, slot)
    if true is None:
        raise Invalid("practice.nothing-to-read", label=slot.label)
    return surveys.add_taken(user, space_id, version, [(place or {}, tool.take(slot.what, true, rng).value)], kind)


def _slot(survey: Survey, place: dict[str, Any]) -> Slot:
    wanted = {key: place.get(key) for key in ("section", "what", "level", "face", "side", "at", "out")}
    for slot in slots(survey):
        if all(getattr(slot, key) == value for key, value in wanted.items()):
            return slot
    raise Invalid("practice.no-place")


@transaction.atomic
def measure_obstacle(user: User, space_id: int, version: int, number: int) -> models.Space:
    """Measure one of the obstacles that are seen in the room, with a tape."""
    row = own_space(user, space_id)
    room, survey = room_of(row), rows.survey_of(row)
    if not 0 <= number < len(room.obstacles):
        raise Invalid("practice.no-obstacle")
    true, tape = room.obstacles[number], StandIn("tape")
    rng = Random(f"{row.practice['seed']}:obstacle:{number}")  # type: ignore[index]
    key = f"seen-{number}"
    if any(o.id == key for o in survey.obstacles):
        raise Invalid("practice.measured-already")
    read = {
        side: max(tape.take("width", getattr(true, side), rng).value, 0.0) for side in ("x", "z", "width", "height")
    }
    measured = Obstacle.model_validate({**true.model_dump(), **read, "id": key})
    new = survey.model_copy(update={"obstacles": (*survey.obstacles, measured)})
    return surveys.replace_survey(user, space_id, version, new)


@transaction.atomic
def show_truth(user: User, space_id: int, version: int) -> tuple[models.Space, Review]:
    """End the practice: the truth is shown, and what the readings would have cost."""
    row = own_space(user, space_id)
    found = review(room_of(row), rows.survey_of(row), rows.rules_of(row.household))
    bump(row, version, "space")
    row.practice = {**(row.practice or {}), "shown": True}
    row.save(update_fields=["practice"])
    log(row.household, user, "practice.show", key=row.key, score=found.score)
    return row, found
