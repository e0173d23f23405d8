"""Hand edits in words, as they are offered."""

from collections.abc import Mapping

from ..layout import Command, Design
from ..layout.edit.commands import AssignGroup, MakeShelf, MovePart, SetFinish, Several, WidenBay
from ..mechanics.shelves import ShelfMake
from ..saying import say
from ..systems import Part
from ..tables import load
from ..units import Units, with_unit


def act_in_words(command: Command, design: Design, things: Mapping[str, str], units: Units) -> str:
    """What an edit of a design would do; `things` are names by id. Several are said one after the other."""
    if isinstance(command, Several):
        first, *more = (act_in_words(one, design, things, units).rstrip(".") for one in command.commands)
        return "; ".join([first, *(one[:1].lower() + one[1:] for one in more)]) + "."
    parts = {part.id: part for part in design.parts}
    facts: dict[str, object] = {}
    named = getattr(command, "part", None)
    if named in parts:
        part = parts[named]
        facts["part"] = part_in_words(part, design, units)
        if isinstance(command, MovePart):
            bay = design.bay_of(part)
            facts |= {"steps": command.steps, "to": part.z + bay.foot + command.steps * bay.pitch}
        facts |= {"role": getattr(command, "role", ""), "side": getattr(command, "side", "")}
    if isinstance(command, MakeShelf):
        facts["make"] = make_in_words(command.make, units)
    if isinstance(command, WidenBay):
        facts["steps"] = command.steps
    if hasattr(command, "bay"):
        facts["bay"] = command.bay + 1
    if isinstance(command, SetFinish):
        facts["doors"] = load("acts")[command.finish.doors]
    facts.setdefault("part", "a part that is gone")
    facts.setdefault("role", getattr(command, "role", ""))
    if isinstance(command, AssignGroup) and command.target in parts:
        facts |= {"count": command.count, "thing": things.get(command.thing, command.thing),
                  "to": part_in_words(parts[command.target], design, units)}  # fmt: skip
    return say(load("acts")[command.do], facts, units)


def make_in_words(make: ShelfMake, units: Units) -> str:
    """What a shelf is made of: *22 mm particleboard, with a lipping along its front*."""
    acts = load("acts")
    said = say(acts["made"], {"thickness": make.thickness, "grade": make.board.name.lower()}, units)
    return said + (acts["lipped"] if make.lipped else "")


def part_in_words(part: Part, design: Design, units: Units) -> str:
    """A part as it is found: *the shelf in bay 2 at 900 mm*."""
    if part.role == "compartment":
        return f"the {part.role} at {with_unit(part.x, units)} from the left of {part.section.replace('-', ' ')}"
    height = with_unit(part.z + design.bay_of(part).foot, units)
    return f"the {part.role} in bay {(part.bay or 0) + 1} at {height}"
