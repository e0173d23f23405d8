"""Hand edits: pure commands `Design → Design`, kept in order, so undo and history fall out of the list.

A command may make a design worse, never meaningless: the verifier and the checks show what it did. What cannot be
carried out at all (a part that is not there, past the end of its bay) is refused with the mend. Commands that stand
whole rows anew are carried out in `restand`.
"""

from collections.abc import Callable, Iterator
from functools import cached_property, reduce
from itertools import count
from typing import Annotated, Any

from ...base import AtMost, Frozen
from ...errors import EditRefused
from ...house.clients import MOST_REMARKS, Agreed, Remark
from ...systems import HOLDERS, INSIDE, PULL_OUTS, Bay, Family, Part
from ..build.boards import gables_to_size
from ..build.dividers import edge_moved, with_dividers
from ..models import Assignment, Design, Unplaced, fresh_ids
from ..packing.fits import position
from . import trays
from .commands import (
    AddPart,
    AssignGroup,
    Command,
    CopyBay,
    LockBay,
    LockPart,
    MakeShelf,
    MirrorRow,
    MoveEdge,
    MovePart,
    Refound,
    RemovePart,
    ReshapeRow,
    ResizePart,
    SetFinish,
    Several,
    ShiftTray,
    SwapFamily,
    SwapPart,
    TurnTray,
    WidenBay,
)
from .restand import finished, mirrored, reshaped, swapped_family, widened

MOVABLE = INSIDE - {"base", "floor"}
MOST_EDITS = 500


class History(Frozen):
    """A solved design, the commands since, and those undone that can be redone."""

    base: Design
    done: Annotated[tuple[Command, ...], AtMost(MOST_EDITS)] = ()
    undone: Annotated[tuple[Command, ...], AtMost(MOST_EDITS)] = ()
    kept: bool = False
    """A version that someone named: a new search leaves it."""
    chosen: Agreed | None = None
    """By a client, among the designs of its space."""
    signed: Agreed | None = None
    """By a client: the design stays as it is."""
    remarks: Annotated[tuple[Remark, ...], AtMost(MOST_REMARKS)] = ()
    """What clients said of it."""

    @cached_property
    def current(self) -> Design:
        """The design as it stands. Nothing before the last design found anew matters."""
        last = max((n for n, c in enumerate(self.done) if isinstance(c, Refound)), default=-1)
        found = self.done[last] if last >= 0 else None
        start = found.design if isinstance(found, Refound) else self.base
        return reduce(apply, self.done[last + 1 :], start)

    def after(self, command: Command) -> "History":
        """With one more command; what was undone is forgotten. Raises `EditRefused`."""
        if len(self.done) >= MOST_EDITS:
            raise EditRefused("edit.too-often")
        design = apply(self.current, command)
        after = self._with((*self.done, command), ())
        after.__dict__["current"] = design  # it was just carried out: it is not to be replayed
        return after

    def undo(self) -> "History":
        """Without the last command; raises `EditRefused` when there is none."""
        if not self.done:
            raise EditRefused("edit.nothing-to-undo")
        return self._with(self.done[:-1], (*self.undone, self.done[-1]))

    def redo(self) -> "History":
        """With the last undone command again; raises `EditRefused` when there is none."""
        if not self.undone:
            raise EditRefused("edit.nothing-to-redo")
        return self._with((*self.done, self.undone[-1]), self.undone[:-1])

    def _with(self, done: tuple[Command, ...], undone: tuple[Command, ...]) -> "History":
        marks = {name: getattr(self, name) for name in ("kept", "chosen", "signed", "remarks")}
        return History.model_construct(base=self.base, done=done, undone=undone, **marks)


def apply(design: Design, command: Command) -> Design:
    """The design after one command; raises `EditRefused`, never changes its argument."""
    return with_dividers(gables_to_size(_CARRIED_OUT[type(command)](design, command)))


def _movable(design: Design, part_id: str) -> tuple[Part, Bay, Family]:
    try:
        part = design.part(part_id)
    except KeyError:
        raise EditRefused("edit.no-part", part=part_id) from None
    if part.role not in MOVABLE or part.bay is None:
        raise EditRefused("edit.fixed", role=part.role)
    if part.locked or design.bays[part.bay].locked:
        raise EditRefused("edit.locked", role=part.role)
    return part, design.bays[part.bay], design.family_of(part)


def _bay(design: Design, index: int) -> Bay:
    if index >= len(design.bays):
        raise EditRefused("edit.no-bay", bay=index + 1, bays=len(design.bays))
    return design.bays[index]


def _replaced(design: Design, old: Part, new: Part | None) -> Design:
    """The design with one part, and what comes with it (brackets, cleats, containers on it), replaced or gone."""
    dropped = {b.id for b in design.family_of(old).brackets(old, design.bay_of(old))}
    fresh = {b.id: b for b in design.family_of(new).brackets(new, design.bay_of(new))} if new is not None else {}
    parts: list[Part] = []
    for part in design.parts:
        if part.id == old.id:
            if new is not None:
                parts.append(new)
        elif part.id in fresh:
            parts.append(fresh.pop(part.id))
        elif part.role == "container" and part.belongs_to == old.id:
            if new is not None:
                shift = new.z + new.h - old.z - old.h
                parts.append(part.model_copy(update={"z": part.z + shift}))
        elif part.id not in dropped:
            parts.append(part)
    spent = design.spent if new is not None else (*design.spent, old.id)
    return design.model_copy(update={"parts": (*parts, *fresh.values()), "spent": spent})


def _too_high(at: int, bay: Bay) -> bool:
    """Whether there is nothing left to fix a part to at a height."""
    return bool(bay.highest) and at > bay.highest


def _move(design: Design, command: MovePart) -> Design:
    part, bay, _ = _movable(design, command.part)
    if part.role == "compartment":
        raise EditRefused("edit.by-its-edge")
    at = position(part, bay) + command.steps * bay.pitch
    if at < bay.z0 or at + part.h > bay.z1 or _too_high(at, bay):
        raise EditRefused("edit.leaves-bay", role=part.role)
    return _replaced(design, part, part.model_copy(update={bay.axis: at}))


def _move_edge(design: Design, command: MoveEdge) -> Design:
    part, bay, _ = _movable(design, command.part)
    if part.role != "compartment":
        raise EditRefused("edit.no-edge", role=part.role)
    return design.model_copy(update={"parts": edge_moved(design, part, command.side, command.steps * bay.pitch)})


def _turn_tray(design: Design, command: TurnTray) -> Design:
    part, _, _ = _movable(design, command.part)
    return _with(design, trays.turned(design, part))


def _shift_tray(design: Design, command: ShiftTray) -> Design:
    part, bay, _ = _movable(design, command.part)
    return _with(design, trays.shifted(design, part, command.right * bay.pitch, command.front * bay.pitch))


def _with(design: Design, changed: dict[str, Part]) -> Design:
    return design.model_copy(update={"parts": tuple(changed.get(p.id, p) for p in design.parts)})


def _resize(design: Design, command: ResizePart) -> Design:
    part, bay, family = _movable(design, command.part)
    fronts = family.spec(part.role).fronts
    if not fronts:
        raise EditRefused("edit.one-size", role=part.role)
    wanted = fronts.index(part.h) + command.steps if part.h in fronts else 0
    if not 0 <= wanted < len(fronts):
        raise EditRefused("edit.no-front", fronts=fronts)
    if part.z + fronts[wanted] > bay.z1:
        raise EditRefused("edit.leaves-bay-above", role=part.role)
    return _replaced(design, part, part.model_copy(update={"h": fronts[wanted]}))


def _make(design: Design, command: MakeShelf) -> Design:
    part, bay, family = _movable(design, command.part)
    if not family.is_cut(part.role, bay):
        raise EditRefused("edit.not-cut", role=part.role)
    make = command.make.model_copy(update={"shows": bay.shelves.shows})
    thick = part.h if make.thickness == part.h else make.thickness
    if part.z + thick > bay.z1:
        raise EditRefused("edit.leaves-bay-above", role=part.role)
    return _replaced(design, part, part.model_copy(update={"h": thick, "make": None if make.is_usual else make}))


def _swap(design: Design, command: SwapPart) -> Design:
    part, bay, family = _movable(design, command.part)
    if command.role not in family.roles:
        raise EditRefused("edit.no-role", family=family.name, role=command.role, roles=sorted(family.roles))
    new = family.placed(bay, part.id, command.role, position(part, bay))
    if new.z + new.h > bay.z1 or _too_high(new.z, bay):
        raise EditRefused("edit.no-room-below", role=command.role)
    ways = dict(command.ways)
    kept = tuple(
        a.model_copy(update={"way": ways[a.thing]}) if a.part == part.id and a.thing in ways else a
        for a in design.assignments
    )
    return _replaced(design.model_copy(update={"assignments": kept}), part, new)


def _add(design: Design, command: AddPart) -> Design:
    bay = _bay(design, command.bay)
    family = design.family_of(bay)
    if bay.locked:
        raise EditRefused("edit.bay-locked")
    if command.role not in family.roles or family.laid_out_apart:
        raise EditRefused("edit.no-role", family=family.name, role=command.role, roles=sorted(family.roles))
    if command.role in PULL_OUTS and not bay.pulls:
        raise EditRefused("edit.nothing-slides")
    used = {p.id for p in design.parts} | {*design.spent}
    stem = f"b{bay.index + 1}-{command.role.replace(' ', '-')}"
    new_id = next(name for n in count(1) if (name := f"{stem}-{n}") not in used)
    steps = max(0, round((command.z - bay.z0) / bay.pitch))
    part = family.placed(bay, new_id, command.role, bay.z0 + steps * bay.pitch)
    if position(part, bay) + part.h > bay.z1 or _too_high(position(part, bay), bay):
        raise EditRefused("edit.no-room-above", role=command.role)
    return design.model_copy(update={"parts": (*design.parts, part, *family.brackets(part, bay))})


def _remove(design: Design, command: RemovePart) -> Design:
    part, _, _ = _movable(design, command.part)
    if part.role == "compartment":
        left = trays.taken_out(design, part)
        gone = {p.id for p in design.parts} - {p.id for p in left}
        return emptied(design, gone).model_copy(update={"parts": left, "spent": (*design.spent, *sorted(gone))})
    return _replaced(emptied(design, {part.id}), part, None)


def emptied(design: Design, parts: set[str]) -> Design:
    """The design with what lives in some parts left without a place."""
    left = design.unplaced
    for a in design.assignments:
        if a.part in parts:
            left = _shifted(left, a.thing, a.count)
    kept = tuple(a for a in design.assignments if a.part not in parts)
    return design.model_copy(update={"assignments": kept, "unplaced": left})


def _shifted(unplaced: tuple[Unplaced, ...], thing: str, by: int) -> tuple[Unplaced, ...]:
    """Unplaced pieces of one thing changed by a number; a thing without any is left out."""
    counts = {u.thing: u.count for u in unplaced}
    counts[thing] = counts.get(thing, 0) + by
    return tuple(Unplaced(thing=t, count=c) for t, c in counts.items() if c > 0)


def _assign(design: Design, command: AssignGroup) -> Design:
    if command.source == command.target:
        raise EditRefused("edit.lives-there")
    if command.source is None:
        have = next((u.count for u in design.unplaced if u.thing == command.thing), 0)
    else:
        have = sum(a.count for a in design.held_by(command.source) if a.thing == command.thing)
    if have < command.count:
        raise EditRefused("edit.too-few", have=have)
    left = design.unplaced
    rows = list(design.assignments)
    if command.target is not None and not _holds(design, command.target):
        raise EditRefused("edit.nothing-kept")
    whole = _whole(rows, command)
    if whole is not None:
        return design.model_copy(update={"assignments": tuple(whole)})
    if command.source is None:
        left = _shifted(left, command.thing, -command.count)
    else:
        rows = _taken(rows, command.thing, command.source, command.count)
    if command.target is None:
        left = _shifted(left, command.thing, command.count)
    else:
        rows = _given(rows, command, command.target, fresh_ids({a.id for a in design.assignments}))
    return design.model_copy(update={"assignments": tuple(rows), "unplaced": left})


def _several(design: Design, command: Several) -> Design:
    return reduce(lambda d, c: _CARRIED_OUT[type(c)](d, c), command.commands, design)


def _holds(design: Design, part_id: str) -> bool:
    return any(p.id == part_id and p.role in HOLDERS for p in design.parts)


def _whole(rows: list[Assignment], command: AssignGroup) -> list[Assignment] | None:
    """The rows with one moved as it is, where all of it goes to a part that has none of its thing yet."""
    own = [n for n, row in enumerate(rows) if row.thing == command.thing and row.part == command.source]
    there = any(row.thing == command.thing and row.part == command.target for row in rows)
    if len(own) != 1 or there or command.target is None or rows[own[0]].count != command.count:
        return None
    moved = rows[own[0]].model_copy(
        update={"part": command.target, "way": command.way, "turned": False, "container": ""}
    )
    return [*rows[: own[0]], *rows[own[0] + 1 :], moved]


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


def _given(rows: list[Assignment], command: AssignGroup, part: str, ids: Iterator[str]) -> list[Assignment]:
    for n, row in enumerate(rows):
        if (row.thing, row.part, row.way, row.container) == (command.thing, part, command.way, ""):
            return [*rows[:n], row.model_copy(update={"count": row.count + command.count}), *rows[n + 1 :]]
    return [*rows, Assignment(id=next(ids), thing=command.thing, part=part, way=command.way, count=command.count)]


def _lock(design: Design, command: LockPart) -> Design:
    if command.part not in {p.id for p in design.parts}:
        raise EditRefused("edit.no-part", part=command.part)
    parts = tuple(p.model_copy(update={"locked": command.locked}) if p.id == command.part else p for p in design.parts)
    return design.model_copy(update={"parts": parts})


def _lock_bay(design: Design, command: LockBay) -> Design:
    _bay(design, command.bay)
    bays = tuple(b.model_copy(update={"locked": command.locked}) if b.index == command.bay else b for b in design.bays)
    return design.model_copy(update={"bays": bays})


def _copy_bay(design: Design, command: CopyBay) -> Design:
    source, target = _bay(design, command.bay), _bay(design, command.onto)
    if source.index == target.index:
        raise EditRefused("edit.same-bay")
    if source.family != target.family:
        raise EditRefused("edit.two-families")
    if target.locked:
        raise EditRefused("edit.bay-locked")
    family = design.family_of(target)
    inside = [p for p in design.parts if p.bay == target.index and p.role in MOVABLE]
    bare = emptied(design, {p.id for p in inside})
    for part in inside:
        bare = _replaced(bare, part, None)
    added: list[Part] = []
    names: dict[str, str] = {}
    used = {p.id for p in bare.parts} | {*bare.spent}
    for part in (p for p in design.parts if p.bay == source.index and p.role in MOVABLE):
        at = position(part, source) - source.z0 + target.z0
        stem = f"b{target.index + 1}-{part.role.replace(' ', '-')}"
        name = next(n for k in count(1) if (n := f"{stem}-{k}") not in used)
        used.add(name)
        names[part.id] = name
        if part.role == "compartment":
            same = {"id": name, "section": target.section, "bay": target.index}
            added += [part.model_copy(update=same)] if (source.w, source.depth) == (target.w, target.depth) else []
            continue
        copied = family.placed(target, name, part.role, at, part.h if family.spec_or_none(part.role) else 0)
        if at + copied.h <= target.z1 and not _too_high(at, target):
            added += [copied, *family.brackets(copied, target)]
    return bare.model_copy(update={"parts": (*bare.parts, *trays.renamed(added, names))})


def _found_anew(design: Design, command: Refound) -> Design:
    return command.design


_CARRIED_OUT: dict[type, Callable[[Design, Any], Design]] = {
    MovePart: _move, MoveEdge: _move_edge, TurnTray: _turn_tray, ShiftTray: _shift_tray,
    ResizePart: _resize, MakeShelf: _make, SwapPart: _swap, AddPart: _add,
    RemovePart: _remove,
    AssignGroup: _assign, Several: _several, LockPart: _lock, LockBay: _lock_bay, CopyBay: _copy_bay, Refound: _found_anew,
    WidenBay: lambda d, c: widened(d, _bay(d, c.bay), c.steps),
    ReshapeRow: lambda d, c: reshaped(d, _bay(d, c.bay), c.taller, c.deeper),
    MirrorRow: lambda d, c: mirrored(d, _bay(d, c.bay)),
    SwapFamily: lambda d, c: swapped_family(d, _bay(d, c.bay), c.family, c.own),
    SetFinish: lambda d, c: finished(d, c.finish),
}  # fmt: skip
