"""The ledger: for each kind of storage what is asked, what the design gives, and what is spare."""

from collections import defaultdict
from typing import cast

from ...base import Frozen, Why
from ...house import HouseRules
from ...inventory import Thing, demand, needs
from ...inventory.demand import UNIT_OF, litres
from ...inventory.needs import STORAGE_OF, STORAGES, Storage
from ...systems import HOLDERS, Part
from ...systems.roles import EMPTY_IS
from ..models import Assignment, Design
from ..packing.fits import Ask, ask


class LedgerLine(Frozen):
    """One kind of storage. `given` and `spare` are None while there is no design; all in `unit`."""

    storage: Storage
    unit: str
    asked: float
    given: float | None
    spare: float | None
    why: Why


class Ledger(Frozen):
    """All lines that are asked for or given, in their fixed order."""

    lines: tuple[LedgerLine, ...]
    pieces: int
    unplaced: int


def ledger(things: tuple[Thing, ...], rules: HouseRules, design: Design | None = None) -> Ledger:
    """Asked, given and spare. Asked is what the things take as they are stored in the design (or would best be
    stored, without one); the growth reserve is in what is spare.
    """
    if design is None:
        wanted = demand(things, rules)
        lines = tuple(
            _line(s, sum(line.bare for line in wanted.lines if line.storage == s), None)
            for s in STORAGES if any(line.storage == s for line in wanted.lines)
        )  # fmt: skip
        return Ledger(lines=lines, pieces=wanted.pieces, unplaced=0)
    asked, given = _sums(things, design)
    lines = tuple(_line(s, asked[s], given[s]) for s in STORAGES if asked[s] or given[s])
    return Ledger(
        lines=lines,
        pieces=sum(t.count for t in things if t.stays),
        unplaced=sum(u.count for u in design.unplaced),
    )


def _sums(things: tuple[Thing, ...], design: Design) -> tuple[dict[Storage, float], dict[Storage, float]]:
    by_id = {t.id: t for t in things if t.stays}  # what leaves asks for nothing, also where a design still holds it
    asked: dict[Storage, float] = defaultdict(float)
    given: dict[Storage, float] = defaultdict(float)
    carriers = {p.carrier for p in design.parts if p.role == "compartment"}  # what a tray stands in or on is not free
    for part in design.parts:
        if part.role not in HOLDERS or part.bay is None:
            continue
        held = [(a, ask_of(design, part, a, by_id)) for a in design.held_by(part.id) if a.thing in by_id]
        room = capacity(design, part)
        total = sum(n.amount for _, n in held)
        for a, n in held:
            storage = STORAGE_OF[a.way] if part.role != "compartment" else "drawers"
            asked[storage] += in_unit(design, part, n.amount, storage)
            given[storage] += in_unit(design, part, room * n.amount / total if total else 0.0, storage)
        if not held and part.role in EMPTY_IS and part.id not in carriers:
            storage = cast(Storage, EMPTY_IS[part.role])
            given[storage] += in_unit(design, part, room, storage)
    for left in design.unplaced:
        if left.thing in by_id:
            out = needs(by_id[left.thing], design.rules, left.count)[0]
            asked[out.storage] += litres(out) if out.way == "drawer" else out.amount
    return asked, given


HOOK_EVERY = 120.0
"""Width that one hook is reckoned to give, mm; common practice."""
PLATFORM_CLEAR = 450.0
"""Height over a platform by which its width is reckoned in litres, mm; common practice."""


def ask_of(design: Design, part: Part, a: Assignment, things: dict[str, Thing]) -> Ask:
    """What one assignment asks of its part."""
    box = design.box(a.container) if a.container else None
    return ask(things[a.thing], a.way, part.role, design.family_of(part), design.bay_of(part), design.rules, a.count,
               turned=a.turned, container=box)  # fmt: skip


def capacity(design: Design, part: Part) -> float:
    """What a holding part gives, in its own unit: mm, or mm² of a drawer."""
    return design.family_of(part).capacity(part.role, design.bay_of(part))


def in_unit(design: Design, part: Part, amount: float, storage: Storage) -> float:
    """An amount of a part in the unit of its ledger line: mm, litres of drawer or platform, or hooks."""
    spec, unit = design.family_of(part).spec(part.role), UNIT_OF[storage]
    bay = design.bay_of(part)
    if unit == "litres":
        if spec.capacity == "area":
            return amount * (part.h - spec.lost_height) / 1e6
        high = bay.drawer.clear if bay.drawer is not None else PLATFORM_CLEAR
        return amount * bay.depth * high / 1e6
    return amount / HOOK_EVERY if storage == "hooks" else amount


def _line(storage: Storage, asked: float, given: float | None) -> LedgerLine:
    unit = UNIT_OF[storage]
    return LedgerLine(
        storage=storage,
        unit=unit,
        asked=asked,
        given=given,
        spare=None if given is None else given - asked,
        why=Why(
            rule="asked" if given is None else "asked and given",
            values=(("asked", asked, unit), *((("given", given, unit),) if given is not None else ())),
            basis="D",
            source="inventory tables and the parts' clear sizes",
        ),
    )  # fmt: skip
