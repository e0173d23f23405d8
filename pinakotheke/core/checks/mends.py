"""Hand edits that mend a finding: each is tried on the design, and offered only where the finding goes and nothing worse
comes.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from decimal import Decimal

from ..inventory import Thing
from ..inventory.kinds import Way
from ..inventory.needs import ways
from ..layout import Command, Design
from ..layout.edit.commands import AssignGroup, MakeShelf, MovePart, RemovePart, SetFinish, Several, SwapPart, WidenBay
from ..mechanics.materials import Grade, boards
from ..mechanics.shelves import ShelfMake
from ..systems import HOLDERS, Holder, Part
from .consequence import Consequence, about, consequences
from .findings import Finding

MOST_TRIED, OFFERED = 48, 3
STEPS = 10
"""Pitches that a part is moved at most."""
SENT_AWAY = frozenset({"reach.high", "reach.low", "reach.zone", "reach.lift", "safety.limit", "home.child", "home.damp",
                       "strength.rating", "strength.sag", "strength.stress", "strength.support", "strength.runner",
                       "fit.capacity", "fit.size", "fit.headroom"})  # fmt: skip
"""Mended by keeping what is there in another part."""
MOVED = frozenset({"reach.high", "reach.low", "reach.zone", "safety.limit", "home.child"})
"""Mended by moving the part toward its limit: down or up."""
RAISED = frozenset({"fit.headroom"})
"""Mended by moving the part up."""
MADE = frozenset({"strength.sag", "strength.stress"})
"""Mended by another board, or a lipping."""
NARROWED = frozenset({"strength.sag", "strength.stress", "strength.rail", "strength.rail-support"})
SWAPPED = frozenset({"pull-out.return", "pull-out.stand", "pull-out.meets", "doors.straddle"})
HUNG_OTHERWISE = {"doors.straddle": ("hinged",), "doors.swing": ("sliding", "curtain", "none"),
                  "doors.meets": ("sliding", "curtain", "none")}  # fmt: skip
"""Mended by other doors."""
TAKEN_OUT = frozenset({"sense.empties"})
MENDABLE = frozenset({*SENT_AWAY, *MOVED, *RAISED, *MADE, *NARROWED, *SWAPPED, *HUNG_OTHERWISE, *TAKEN_OUT})
"""Codes for which there may be an act; of others a person has to read, buy or decide something."""


@dataclass(frozen=True, slots=True)
class Mend:
    """An edit that mends a finding, and all that it brings."""

    command: Command
    brings: Consequence


def mends(design: Design, finding: Finding, things: tuple[Thing, ...], check: Callable[[Design], tuple[Finding, ...]],
          price: Callable[[Design], Decimal]) -> list[Mend]:  # fmt: skip
    """The few edits that mend a finding and bring nothing that must be fixed: those that bring least first, and of these
    the cheapest.
    """
    commands = list(_worth_trying(design, finding, things))[:MOST_TRIED]
    found: list[tuple[tuple[int, Decimal, int], Mend]] = []
    for n, (command, told) in enumerate(zip(commands, consequences(design, commands, check), strict=True)):
        if told.after is None or about(finding) not in {about(f) for f in told.mends}:
            continue
        if not any(f.severity in ("stop", "fix") for f in told.brings):
            found.append(((len(told.brings), price(told.after), n), Mend(command, told)))
    return [mend for _, mend in sorted(found, key=lambda row: row[0])[:OFFERED]]


def _worth_trying(design: Design, finding: Finding, things: tuple[Thing, ...]) -> Iterator[Command]:
    """Edits that might do it, the least first."""
    by_id = {part.id: part for part in design.parts}
    code, parts = finding.code, [by_id[id_] for id_ in finding.where if id_ in by_id]
    for part in parts[:1]:
        family = design.family_of(part)
        if code in MOVED | RAISED:
            up = 1 if code in RAISED or finding.limit > finding.measured else -1
            yield from (MovePart(part=part.id, steps=up * n) for n in range(1, STEPS + 1))
        if code in SWAPPED:
            yield from (SwapPart(part=part.id, role=role, ways=_kept_in(role, design, part, things))
                        for role in family.specs if role != part.role and role not in ("floor", "base"))  # fmt: skip
            if family.makes("shelf"):
                shelf = SwapPart(part=part.id, role="shelf", ways=_kept_in("shelf", design, part, things))
                yield from (Several(commands=(shelf, MovePart(part=part.id, steps=-n))) for n in range(1, STEPS + 1))
            yield from _emptied(design, finding, part, things)
        if code in MADE and part.bay is not None and family.is_cut(part.role, design.bay_of(part)):
            yield from (MakeShelf(part=part.id, make=make) for make in _stiffer(family.make(part, design.bay_of(part))))
        yield from (SetFinish(finish=design.finish.model_copy(update={"doors": doors}))
                    for doors in HUNG_OTHERWISE.get(code, ()) if doors != design.finish.doors)  # fmt: skip
        if code in NARROWED and part.bay is not None:
            yield from (WidenBay(bay=part.bay, steps=-n) for n in (1, 2))
        if code in TAKEN_OUT:
            yield RemovePart(part=part.id)
        if code in SENT_AWAY:
            yield from _sent_away(design, finding, part, things)


def _emptied(design: Design, finding: Finding, part: Part, things: tuple[Thing, ...]) -> Iterator[Several]:
    """A part taken out, and all that is in it sent to one other."""
    sent = list(_sent_away(design, finding, part, things))
    held = design.held_by(part.id)
    for target in dict.fromkeys(c.target for c in sent):
        here = [c for c in sent if c.target == target]
        if len({c.thing for c in here}) == len(held):
            yield Several(commands=(*here, RemovePart(part=part.id)))


def _kept_in(role: Holder, design: Design, part: Part, things: tuple[Thing, ...]) -> tuple[tuple[str, Way], ...]:
    """How what is in a part would be kept where that is a part of another role: as it wants to be kept there."""
    by_id, there = {t.id: t for t in things}, design.family_of(part).spec(role).ways
    wanted = {a.thing: next((w for w in ways(by_id[a.thing], design.rules) if w in there), None)
              for a in design.held_by(part.id) if a.thing in by_id and a.way not in there}  # fmt: skip
    return tuple((thing, way) for thing, way in wanted.items() if way is not None)


def _stiffer(make: ShelfMake) -> list[ShelfMake]:
    """Other boards than a shelf's, with and without a lipping, the cheapest first."""
    found = [
        ShelfMake(grade=grade, thickness=thick, lipped=lipped, shows=make.shows)
        for grade, board in boards().items() for thick in board.thicknesses for lipped in (False, True)
        if thick >= make.thickness and (lipped or not make.lipped) and (grade == make.grade or grade in STIFF)
    ]  # fmt: skip
    others = [
        one for one in found if (one.grade, one.thickness, one.lipped) != (make.grade, make.thickness, make.lipped)
    ]
    return sorted(others, key=lambda one: (one.price(one.thickness) + LIP_COSTS * one.lipped, one.grade))[:MOST_MAKES]


STIFF: tuple[Grade, ...] = ("spruce-plywood", "birch-plywood")
"""Grades that are offered beside the shelf's own."""
LIP_COSTS, MOST_MAKES = 0.5, 8
"""What a lipping adds, as a share of a usual shelf; only so many makes are tried."""


def _sent_away(design: Design, finding: Finding, part: Part, things: tuple[Thing, ...]) -> Iterator[AssignGroup]:
    """What is in the part to each other part that takes it, the nearest to the limit first; whole, and of a heavy load
    half.
    """
    by_id = {t.id: t for t in things}
    held = [(by_id[a.thing], a) for a in design.held_by(part.id) if a.thing in by_id]
    named = [row for row in held if row[0].name == finding.subject] or held
    others = sorted((p for p in design.parts if p.role in HOLDERS and p.id != part.id),
                    key=lambda p: abs(p.z - finding.limit) if finding.unit == "mm" else abs(p.z - part.z))  # fmt: skip
    for thing, a in sorted(named, key=lambda row: row[0].piece_mass * row[1].count):
        wanted: tuple[Way, ...] = ways(thing, design.rules)
        for other in others:
            way = next((w for w in wanted if w in design.family_of(other).spec(other.role).ways), None)
            if way is None:
                continue
            yield AssignGroup(thing=thing.id, way=way, count=a.count, source=part.id, target=other.id)
            if finding.unit == "kg" and a.count > 1:
                yield AssignGroup(thing=thing.id, way=way, count=a.count // 2, source=part.id, target=other.id)
