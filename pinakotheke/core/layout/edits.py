"""Hand edits: pure commands `Design → Design`, kept in order, so undo and history fall out of the list.

A command may make a design worse, never meaningless: the verifier and the checks show what it did. What cannot be
carried out at all (a part that is not there, past the end of its bay) is refused with the mend.
"""

from functools import reduce
from itertools import count
from typing import Annotated, Literal

from pydantic import Field

from ..base import Frozen, Id
from ..errors import EditRefused
from ..inventory.kinds import Way
from ..systems import FAMILIES, HOLDERS, Bay, Family, Part
from .build import placed
from .models import Assignment, Design, Unplaced

MOVABLE = frozenset({"shelf", "rail", "drawer", "tray", "cover"})
MOST_EDITS = 500


class MovePart(Frozen):
    """Move a part up (positive) or down so many pitches."""

    do: Literal["move"] = "move"
    part: Id
    steps: Annotated[int, Field(ge=-200, le=200)]


class ResizePart(Frozen):
    """Give a drawer the next higher (positive) or lower front of its range."""

    do: Literal["resize"] = "resize"
    part: Id
    steps: Annotated[int, Field(ge=-10, le=10)]


class AddPart(Frozen):
    """Add an empty part to a bay at the pitch nearest to z."""

    do: Literal["add"] = "add"
    role: Literal["shelf", "rail", "drawer", "tray"]
    bay: Annotated[int, Field(ge=0, le=200)]
    z: Annotated[int, Field(ge=0, le=100_000)]


class RemovePart(Frozen):
    """Take a part out; what lived in it has no place for now."""

    do: Literal["remove"] = "remove"
    part: Id


class AssignGroup(Frozen):
    """Send so many pieces of a thing from a part (or from those without a place) to another (or to none)."""

    do: Literal["assign"] = "assign"
    thing: Id
    way: Way
    count: Annotated[int, Field(ge=1, le=10_000)]
    source: Id | None = None
    target: Id | None = None


Command = Annotated[MovePart | ResizePart | AddPart | RemovePart | AssignGroup, Field(discriminator="do")]


class History(Frozen):
    """A solved design, the commands since, and those undone that can be redone."""

    base: Design
    done: Annotated[tuple[Command, ...], Field(max_length=MOST_EDITS)] = ()
    undone: tuple[Command, ...] = ()

    @property
    def current(self) -> Design:
        """The design as it stands."""
        return reduce(apply, self.done, self.base)

    def after(self, command: Command) -> "History":
        """With one more command; what was undone is forgotten. Raises `EditRefused`."""
        if len(self.done) >= MOST_EDITS:
            raise EditRefused("This design has been edited too often.", "Ask for new alternatives.")
        apply(self.current, command)
        return History(base=self.base, done=(*self.done, command))

    def undo(self) -> "History":
        """Without the last command; raises `EditRefused` when there is none."""
        if not self.done:
            raise EditRefused("There is nothing to undo.", "The design is as it was found.")
        return History(base=self.base, done=self.done[:-1], undone=(*self.undone, self.done[-1]))

    def redo(self) -> "History":
        """With the last undone command again; raises `EditRefused` when there is none."""
        if not self.undone:
            raise EditRefused("There is nothing to redo.", "Nothing was undone since the last edit.")
        return History(base=self.base, done=(*self.done, self.undone[-1]), undone=self.undone[:-1])


def apply(design: Design, command: Command) -> Design:
    """The design after one command; raises `EditRefused`, never changes its argument."""
    match command:
        case MovePart():
            return _move(design, command)
        case ResizePart():
            return _resize(design, command)
        case AddPart():
            return _add(design, command)
        case RemovePart():
            return _remove(design, command)
        case AssignGroup():
            return _assign(design, command)


def _movable(design: Design, part_id: str) -> tuple[Part, Bay, Family]:
    try:
        part = design.part(part_id)
    except KeyError:
        raise EditRefused(f"There is no part {part_id}.", "Choose one on the drawing.") from None
    if part.role not in MOVABLE or part.bay is None:
        raise EditRefused(f"The {part.role} stands fixed.", "Shelves, rails, drawers and trays can be changed.")
    return part, design.bays[part.bay], FAMILIES[design.family]


def _replaced(design: Design, old: Part, new: Part | None) -> Design:
    """The design with one part, and the brackets that come with it, replaced or gone; order is kept."""
    family = FAMILIES[design.family]
    dropped = {b.id for b in family.brackets(old, design.bays[old.bay or 0])}
    parts: list[Part] = []
    for part in design.parts:
        if part.id == old.id:
            if new is not None:
                parts.append(new)
        elif part.id not in dropped:
            parts.append(part)
        elif new is not None:
            fresh = {b.id: b for b in family.brackets(new, design.bays[new.bay or 0])}
            parts.append(fresh[part.id])
    return design.model_copy(update={"parts": tuple(parts)})


def _move(design: Design, command: MovePart) -> Design:
    part, bay, _ = _movable(design, command.part)
    z = part.z + command.steps * bay.pitch
    if z < bay.z0 or z + part.h > bay.z1:
        raise EditRefused(f"The {part.role} would leave its bay.", "Move it less far, or to another bay.")
    return _replaced(design, part, part.model_copy(update={"z": z}))


def _resize(design: Design, command: ResizePart) -> Design:
    part, bay, family = _movable(design, command.part)
    if part.role != "drawer":
        raise EditRefused(f"The {part.role} has one size in this bay.", "Drawers have several fronts.")
    fronts = family.table["drawer_fronts"]
    wanted = fronts.index(part.h) + command.steps if part.h in fronts else 0
    if not 0 <= wanted < len(fronts):
        raise EditRefused("There is no such drawer front.", f"Fronts are {', '.join(map(str, fronts))} mm.")
    if part.z + fronts[wanted] > bay.z1:
        raise EditRefused("The drawer would leave its bay.", "Move it down first.")
    return _replaced(design, part, part.model_copy(update={"h": fronts[wanted]}))


def _add(design: Design, command: AddPart) -> Design:
    family = FAMILIES[design.family]
    if command.role not in family.roles:
        raise EditRefused(f"{family.name} has no {command.role}.", f"It has: {', '.join(sorted(family.roles))}.")
    if command.bay >= len(design.bays):
        raise EditRefused(f"There is no bay {command.bay + 1}.", f"The design has {len(design.bays)}.")
    bay = design.bays[command.bay]
    if command.role in ("drawer", "tray") and not bay.pulls:
        raise EditRefused("Nothing that slides comes out of this bay.", "A return or the door stands in its way.")
    used = {p.id for p in design.parts}
    new_id = next(name for n in count(1) if (name := f"b{bay.index + 1}-{command.role}-{n}") not in used)
    steps = max(0, round((command.z - bay.z0) / bay.pitch))
    part = placed(family, bay, new_id, command.role, bay.z0 + steps * bay.pitch)
    if part.z + part.h > bay.z1:
        raise EditRefused(f"A {command.role} there would leave the bay.", "Choose a lower place.")
    return design.model_copy(update={"parts": (*design.parts, part, *family.brackets(part, bay))})


def _remove(design: Design, command: RemovePart) -> Design:
    part, _, _ = _movable(design, command.part)
    homeless = design.held_by(part.id)
    kept = tuple(a for a in design.assignments if a.part != part.id)
    left = design.unplaced
    for a in homeless:
        left = _shifted(left, a.thing, a.count)
    return _replaced(design, part, None).model_copy(update={"assignments": kept, "unplaced": left})


def _shifted(unplaced: tuple[Unplaced, ...], thing: str, by: int) -> tuple[Unplaced, ...]:
    """Unplaced pieces of one thing changed by a number; a thing without any is left out."""
    counts = {u.thing: u.count for u in unplaced}
    counts[thing] = counts.get(thing, 0) + by
    return tuple(Unplaced(thing=t, count=c) for t, c in counts.items() if c > 0)


def _assign(design: Design, command: AssignGroup) -> Design:
    if command.source == command.target:
        raise EditRefused("It lives there already.", "Choose another compartment.")
    if command.source is None:
        have = next((u.count for u in design.unplaced if u.thing == command.thing), 0)
    else:
        have = sum(a.count for a in design.held_by(command.source) if a.thing == command.thing)
    if have < command.count:
        raise EditRefused(f"Only {have} of them are there.", "Choose a smaller count.")
    left = design.unplaced
    rows = list(design.assignments)
    if command.source is None:
        left = _shifted(left, command.thing, -command.count)
    else:
        rows = _taken(rows, command.thing, command.source, command.count)
    if command.target is None:
        left = _shifted(left, command.thing, command.count)
    else:
        target = next((p for p in design.parts if p.id == command.target), None)
        if target is None or target.role not in HOLDERS:
            raise EditRefused("Nothing is kept there.", "Choose a shelf, rail, drawer or tray.")
        rows = _given(rows, command, target.id)
    return design.model_copy(update={"assignments": tuple(rows), "unplaced": left})


def _taken(rows: list[Assignment], thing: str, part: str, number: int) -> list[Assignment]:
    kept = []
    for row in rows:
        if row.thing == thing and row.part == part and number:
            away = min(number, row.count)
            number -= away
            if row.count > away:
                kept.append(row.model_copy(update={"count": row.count - away}))
        else:
            kept.append(row)
    return kept


def _given(rows: list[Assignment], command: AssignGroup, part: str) -> list[Assignment]:
    for n, row in enumerate(rows):
        if (row.thing, row.part, row.way) == (command.thing, part, command.way):
            return [*rows[:n], row.model_copy(update={"count": row.count + command.count}), *rows[n + 1 :]]
    return [*rows, Assignment(thing=command.thing, part=part, way=command.way, count=command.count)]
