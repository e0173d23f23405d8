"""Hand edits in words, as they are offered."""

from collections.abc import Iterable, Mapping

from ..layout import Command, Design
from ..layout.edit.edits import AssignGroup, MovePart, WidenBay
from ..saying import say
from ..systems import Part
from ..tables import load
from ..units import Units, with_unit


def act_in_words(command: Command, design: Design, things: Mapping[str, str], units: Units) -> str:
    """What an edit of a design would do; `things` are names by id. Of what a bay shares the pitch is its own."""
    parts = {part.id: part for part in design.parts}
    facts: dict[str, object] = {}
    named = getattr(command, "part", None)
    if named in parts:
        part = parts[named]
        facts["part"] = part_in_words([part], design, units)
        if isinstance(command, MovePart):
            bay = design.bay_of(part)
            facts |= {"steps": command.steps, "to": part.z + bay.foot + command.steps * bay.pitch}
        facts["role"] = getattr(command, "role", "")
    if isinstance(command, WidenBay):
        facts["bay"] = command.bay + 1
    if isinstance(command, AssignGroup):
        to = [parts[command.target]] if command.target in parts else []
        facts |= {"count": command.count, "thing": things.get(command.thing, command.thing),
                  "to": part_in_words(to, design, units)}  # fmt: skip
    return say(load("acts")[command.do], facts, units)


def part_in_words(parts: Iterable[Part], design: Design, units: Units) -> str:
    """Parts as they are found: *the shelf in bay 2 at 900 mm*."""
    return ", ".join(
        f"the {p.role} in bay {(p.bay or 0) + 1} at {with_unit(p.z + design.bay_of(p).foot, units)}" for p in parts
    )
