"""Obstacles as they are said or typed: what is usual of their kind, and what was measured instead."""

from collections.abc import Mapping

from ..errors import CallOutError, LengthError
from ..lengths import parse_length
from ..tables import load
from ..units import Units
from .models import Obstacle, Survey

OPTIONS = {"out": "projection", "off": "y", "access": "access", "clear": "keep_out", "swing": "swing"}
"""What may be said beside place and size, by the word for it."""
ASKED = {"x": "From the left", "z": "Up from the floor", "width": "Width", "height": "Height"}


def usual_obstacle(kind: str, new_id: str, section: str, label: str, sides: Mapping[str, float]) -> Obstacle:
    """An obstacle of a kind, with what is usual of it where nothing else was measured; lengths in mm."""
    row = load("obstacles")[kind]
    usual = {key: row[key] for key in ("projection", "access", "keep_out", "loose")}
    return Obstacle.model_validate({"id": new_id, "section": section, "kind": kind, "label": label, **usual, **sides})


def typed_obstacle(survey: Survey, section: str, kind: str, typed: Mapping[str, str], label: str,
                   units: Units) -> Obstacle:  # fmt: skip
    """An obstacle from a form's fields, each a length as people write it; an empty option is as usual. Raises
    `CallOutError` that names the field.
    """
    sides: dict[str, float] = {}
    for field, name in (*((f, f) for f in ASKED), *OPTIONS.items()):
        text = typed.get(field, "").strip()
        if not text and field in OPTIONS:
            continue
        said = ASKED.get(field, field)
        try:
            sides[name] = parse_length(text, units).mm
        except LengthError as error:
            raise CallOutError("obstacle.field", text, field=said, problem=error.problem, mend=error.mend) from None
        if sides[name] <= 0 and field in ("width", "height"):
            raise CallOutError("obstacle.no-size", text, said=said)
    used = {o.id for o in survey.obstacles} | {r.id for r in survey.readings}
    new_id = next(f"o{n}" for n in range(1, len(used) + 2) if f"o{n}" not in used)
    return usual_obstacle(kind, new_id, section, label.strip(), sides)
