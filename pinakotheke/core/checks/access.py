"""Whether everyone reaches what is theirs, and can lift it."""

from collections import defaultdict
from collections.abc import Iterator

from ..house.lifting import LOAD_CONSTANT_KG, Coupling, shelf_lift
from ..inventory import Thing, uses_a_month
from ..inventory.containers import boxes_for
from ..layout import Assignment
from ..layout.packing.trouble import hand_height, zone_of
from ..systems import HANGING, Part
from ..tables import value
from .check import Case, of_section
from .findings import Finding

NAMED = 3
"""So many things of a place are named; the others are counted."""
STOOL = "ladder-step"


@of_section("reach.high", "reach.low", "reach.stool", "reach.zone")
def reach(case: Case) -> Iterator[Finding]:
    """Each owner against the height their things are taken from. Often used and out of reach: fix, thing by thing; else
    mind, place by place. Then whether the house has a stool where one is needed, and what is daily and lies badly.
    """
    design, names = case.made, {p.id: p.name for p in case.people}
    seldom: dict[tuple[str, str, str], list[tuple[Thing, Finding]]] = defaultdict(list)
    awkward: dict[tuple[str, str], list[tuple[Thing, Finding]]] = defaultdict(list)
    high: list[str] = []
    for a in design.assignments:
        thing, part = case.by_id.get(a.thing), case.parts.get(a.part)
        if thing is None or part is None or part.bay is None or design.bay_of(part).drawer is not None:
            continue
        bay = design.bay_of(part)
        zone = zone_of(thing, case.people, part.role, bay, design.family_of(part))
        hand = hand_height(part.role, part.z, part.h, bay)
        person = names.get(thing.owner, "every adult")
        facts = {"where": (part.id,), "place": case.place(part), "person": person, "measured": hand,
                 "basis": zone.basis, "source": zone.source, "subject": thing.name, "detail": thing.frequency}  # fmt: skip
        if zone.low <= hand <= zone.high:
            if thing.frequency == "daily" and not zone.easy_low <= hand <= zone.easy_high and not thing.row.low:
                limit = zone.easy_high if hand > zone.easy_high else zone.easy_low
                awkward[part.id, person].append((thing, case.found("reach.zone", **{**facts, "limit": limit})))
            continue
        code, limit = ("reach.high", zone.high) if hand > zone.high else ("reach.low", zone.low)
        if code == "reach.high":
            high.append(part.id)
        if uses_a_month(thing.frequency) >= uses_a_month("weekly"):
            yield case.found(code, **{**facts, "severity": "fix", "limit": limit})
        else:
            one = case.found(code, **{**facts, "severity": "mind", "limit": limit})
            seldom[code, part.id, person].append((thing, one))
    yield from (_together(rows) for rows in (*seldom.values(), *awkward.values()))
    if high and not any(t.kind == STOOL and t.stays for t in case.things):
        yield case.found("reach.stool", where=tuple(dict.fromkeys(high)), measured=len(set(high)),
                         place=case.place(high[0]))  # fmt: skip


def _together(rows: list[tuple[Thing, Finding]]) -> Finding:
    """Findings of several things in one place as one."""
    names = [thing.name for thing, _ in rows]
    more = len(names) - NAMED
    subject = ", ".join(names[:NAMED]) + (f" and {more} more" if more > 0 else "")
    often = max((thing for thing, _ in rows), key=lambda t: uses_a_month(t.frequency)).frequency
    return rows[0][1].model_copy(update={"subject": subject, "detail": often})


@of_section("reach.lift")
def lifts(case: Case) -> Iterator[Finding]:
    """What is lifted off its place and back by one person: pieces, or boxes with what is in them, at either end of the
    lift. A box is held by its edges; what hangs or is loose as well.
    """
    design, share = case.made, case.goes_by.lift / LOAD_CONSTANT_KG
    for part_id, held in case.held.items():
        part = case.parts[part_id]
        if part.bay is None or part.role == "platform":
            continue
        for a, mass in held:
            thing = case.by_id[a.thing]
            lifted, depth, high = _lifted(case, a, mass, thing)
            if lifted < value("inventory.light") or thing.row.wheels:
                continue
            hand = hand_height(part.role, part.z, part.h, design.bay_of(part)) + (
                0 if part.role in HANGING else high / 2
            )
            most = share * shelf_lift(depth / 10, hand / 10, _coupling(part))
            index = lifted / most if most else float("inf")
            if index > 1:
                yield case.found("reach.lift", severity="fix" if index > value("lift.most_index") else "mind",
                                 where=(part.id,), place=case.place(part), subject=thing.name, measured=lifted, limit=most,
                                 facts=(("hand", hand),))  # fmt: skip


def _lifted(case: Case, a: Assignment, mass: float, thing: Thing) -> tuple[float, float, float]:
    """Kilograms, depth and height in mm of what is taken out at once: one box, or one piece by its narrow side."""
    box = case.made.box(a.container) if a.container else None
    if box is not None:
        return mass / max(boxes_for(thing, box, a.count) or 1, 1), box.depth, box.height
    size = thing.size or thing.row.size or (0.0, 0.0, 0.0)
    return thing.piece_mass, min(size[:2]), size[2]


def _coupling(part: Part) -> Coupling:
    return "good" if part.role in HANGING else "fair"


CHECKS = (reach, lifts)
