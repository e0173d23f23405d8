"""The ledger: for each kind of storage what is asked, what the design gives, and what is spare."""

from collections import defaultdict

from ..base import Frozen, Why
from ..house import HouseRules
from ..inventory import Need, Thing, demand, needs
from ..inventory.demand import UNIT_OF, litres
from ..inventory.needs import STORAGES, Storage, need
from ..systems import FAMILIES, HOLDERS, Part
from .models import Design


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
    for part in design.parts:
        if part.role not in HOLDERS or part.bay is None:
            continue
        held = [need(by_id[a.thing], a.way, design.rules, a.count) for a in design.held_by(part.id) if a.thing in by_id]
        room = capacity(design, part)
        total = sum(n.amount for n in held)
        for n in held:
            asked[n.storage] += amount(design, part, n)
            given[n.storage] += room * n.amount / total
        if not held:
            given[EMPTY_IS[part.role]] += room
    for left in design.unplaced:
        if left.thing in by_id:
            out = needs(by_id[left.thing], design.rules, left.count)[0]
            asked[out.storage] += litres(out) if out.way == "drawer" else out.amount
    return asked, given


EMPTY_IS: dict[str, Storage] = {
    "base": "shoes", "shelf": "folded", "tray": "shoes", "rail": "hanging", "drawer": "drawers",
}  # fmt: skip
"""The ledger line that an empty compartment counts for."""


def capacity(design: Design, part: Part) -> float:
    """What a holding part gives: mm of rail or shelf, or litres of drawer."""
    family, bay = FAMILIES[design.family], design.bays[part.bay or 0]
    role = "shelf" if part.role == "base" else part.role
    room = family.component(role, bay, part.h if role == "drawer" else 0).capacity
    return room * (part.h - family.table["drawer_lost_height"]) / 1e6 if role == "drawer" else room


def amount(design: Design, part: Part, n: Need) -> float:
    """What a need takes of a holding part, in the part's own unit."""
    if part.role != "drawer":
        return n.amount
    lost: float = FAMILIES[design.family].table["drawer_lost_height"]
    return n.amount * (part.h - lost) / 1e6


def _line(storage: Storage, asked: float, given: float | None) -> LedgerLine:
    unit = UNIT_OF[storage]
    return LedgerLine(
        storage=storage,
        unit=unit,
        asked=asked,
        given=given,
        spare=None if given is None else given - asked,
        why=Why(
            rule="asked = what the things take as they are stored; spare = given − asked" if given is not None
            else "asked = what the things take, each stored its preferred way",
            values=(("asked", asked, unit), *((("given", given, unit),) if given is not None else ())),
            basis="D",
            source="inventory tables and the parts' clear sizes",
        ),
    )  # fmt: skip
