"""Designs of a space that has nothing but drawers: its floors parted by dividers, or set with trays.

Which group goes into which drawer comes first (`chest`), then every floor by itself (`plan`); what has no place in its
own drawer is offered to the others. Then a general solver tries for less, within an effort, and says what is proven. Every
design goes through the verifier.
"""

from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import count, islice

from ...inventory import Thing
from ...systems import Bay, OnPart, Part
from ...systems.families.insert import Dividers, OfCells, TraySet
from ...tables import load
from ..build.dividers import with_dividers
from ..goals import WEIGHTS
from ..models import Assignment, Design, Goal, Outcome, Unplaced, fresh_ids
from ..packing.task import Task
from ..placement.candidates import Candidate
from ..verify.verifier import verify
from . import exact
from .chest import Lot, lots_of, shared_out
from .drawers import Drawer, drawers_of, stood
from .partition import MOVES, Column, Lane, Partition
from .plan import Parted, Placed, choices_of, parted, trayed
from .skyline import MOVES as ORDERS
from .spread import School

SCHOOLS: tuple[School, ...] = ("even", "grow", "fewest")
QUICK = 8_000
"""Moves for the first answer of a drawer; all of them come after."""
MOST_PROVEN = 26
"""Groups of a drawer up to which the general solver is asked."""
WITHIN = 0.05
"""A gap up to which an answer is called near its bound."""


@dataclass(frozen=True, slots=True)
class Laid:
    """Drawers with their compartments, what is left out, and what is taken of their depths against its bound, mm."""

    cells: tuple[tuple[Drawer, tuple[Placed, ...]], ...]
    left_out: tuple[Lot, ...]
    used: float
    bound: float | None
    method: str


@dataclass(frozen=True, slots=True)
class _Kept:
    """What stays of a design that is found anew: the bays of which something is locked, with all that is in them; and the
    ids of compartments that there were, which no other one gets.
    """

    bays: frozenset[int]
    parts: tuple[Part, ...] = ()
    assignments: tuple[Assignment, ...] = ()
    spent: frozenset[str] = frozenset()

    @classmethod
    def of(cls, task: Task) -> "_Kept":
        """Those of the design that a task keeps."""
        keep = task.keep
        if keep is None:
            return cls(frozenset())
        bays = frozenset({p.bay for p in keep.parts if p.locked and p.bay is not None}
                         | {b.index for b in keep.bays if b.locked})  # fmt: skip
        parts = tuple(p for p in keep.parts if p.bay in bays)
        held = {p.id for p in parts}
        were = {p.id for p in keep.parts if p.role == "compartment"} | {*keep.spent}
        return cls(bays, parts, tuple(a for a in keep.assignments if a.part in held), frozenset(were))

    def without(self, drawers: Sequence[Drawer]) -> tuple[Drawer, ...]:
        """The drawers that are laid out anew."""
        return tuple(d for d in drawers if d.bay not in self.bays)

    def rest(self, things: Sequence[Thing]) -> tuple[Thing, ...]:
        """What does not lie in the others."""
        there = Counter[str]()
        for a in self.assignments:
            there[a.thing] += a.count
        return tuple(t if not there[t.id] else t.model_copy(update={"count": t.count - there[t.id]})
                     for t in things if t.count > there[t.id])  # fmt: skip


def designs_of_drawers(task: Task) -> Iterator[tuple[str, Design]]:
    """Every way to fit the drawers out, under a name of its own; the first as soon as it is there. A drawer of which
    something is locked stays as it is.
    """
    catalogue = task.catalogue
    dividers, trays = catalogue[Dividers.id], catalogue[TraySet.id]
    assert isinstance(dividers, Dividers)
    assert isinstance(trays, TraySet)
    again = {b.family for b in task.keep.bays} if task.keep is not None else {dividers.id, trays.id}
    if dividers.id in again:
        yield from _between_dividers(task, dividers)
    set_out = stood(task, trays) if trays.id in again else None
    if set_out is not None:
        task.watch.progress(0.8, "setting trays")
        drawers = _Kept.of(task).without(drawers_of(task, set_out))
        yield "bought", _design(task, set_out, trays, _with_trays(task, drawers, trays), "bought")


def _between_dividers(task: Task, family: Dividers) -> Iterator[tuple[str, Design]]:
    candidate = stood(task, family)
    if candidate is None:
        return
    drawers = _Kept.of(task).without(drawers_of(task, candidate))
    strip = family.table.strip
    plans, left = _parted(task, drawers, strip, QUICK)
    yield "even", _design(task, candidate, family, _laid(plans, left, strip, "even"), "even")
    task.watch.progress(0.2, "parting the drawers")
    plans, left = min((plans, left), _parted(task, drawers, strip, MOVES), key=_rank)
    effort = exact.EFFORT * min(1.0, task.effort) / max(1, len(plans))
    plans = [_tightened(task, p, strip, effort) for p in plans]
    for school in SCHOOLS:
        yield school, _design(task, candidate, family, _laid(plans, left, strip, school), school)


def _parted(task: Task, drawers: Sequence[Drawer], strip: int, moves: int) -> tuple[list[Parted], list[Lot]]:
    """Every drawer parted, and what has no place in any: what found none in its own is tried in the others, the emptiest
    first, and by halves.
    """
    lots = lots_of(_Kept.of(task).rest(task.things), drawers)
    home = shared_out(lots, drawers, strip)
    moves = max(1, int(moves * task.effort))

    def plan(n: int, inside: Sequence[Lot]) -> Parted:
        task.watch.check()
        return parted(inside, drawers[n], strip, moves=moves, seed=task.seed)

    plans = [plan(n, [lot for lot, d in zip(lots, home, strict=True) if d == n]) for n in range(len(drawers))]
    homeless = [
        *(lot for lot, d in zip(lots, home, strict=True) if d is None),
        *(lot for p in plans for lot in p.left_out),
    ]
    plans = [p.without_left_out() for p in plans]
    nowhere: list[Lot] = []
    while homeless:
        lot = homeless.pop(0)
        for n in sorted(range(len(drawers)), key=lambda n: plans[n].share):
            with_it = plan(n, [*plans[n].lots, lot]) if lot.shapes(drawers[n]) else None
            if with_it is not None and not with_it.left_out:
                plans[n] = with_it
                break
        else:
            if lot.count > 1:  # some of it here, some of it there
                homeless[:0] = lot.halves()
            else:
                nowhere.append(lot)
    return plans, nowhere


def _tightened(task: Task, p: Parted, strip: int, effort: float) -> Parted:
    """The same, or rows in less depth where the general solver finds them, of those whose columns are not parted again."""
    if p.left_out or p.corner is not None or not 1 < len(p.lots) <= MOST_PROVEN or task.watch.time_is_up:
        return p
    choices = [choices_of(lot, p.drawer, p.turned) for lot in p.lots]
    floor = p.drawer.floor
    width, depth = (floor.d, floor.w) if p.turned else (floor.w, floor.d)
    task.watch.check()
    found = exact.rows(choices, width, strip, within=depth, effort=effort)
    if found.used is None or found.used >= p.plan.used:
        return p
    lanes = []
    for r in sorted(set(found.rows)):
        inside = [(n, found.chosen[n]) for n in range(len(choices)) if found.rows[n] == r]
        deep = max(choices[n][k].d for n, k in inside)
        lanes.append(Lane(deep, tuple(Column(choices[n][k].w, ((n, k, choices[n][k].d),)) for n, k in inside)))
    return Parted(p.drawer, p.lots, Partition(tuple(lanes), (), found.used, p.plan.bound), p.turned, p.corner)


def _rank(answer: tuple[list[Parted], list[Lot]]) -> tuple[int, float]:
    """Less is better: pieces without a place, then what is taken of the floors."""
    plans, left = answer
    return sum(lot.count for lot in left), sum(p.share for p in plans)


METHOD = "rows and columns by annealing, then by a general solver; bound: area with dividers, or the deepest"


def _laid(plans: Sequence[Parted], left: Sequence[Lot], strip: int, school: School) -> Laid:
    cells = tuple((p.drawer, tuple(p.cells(strip, school))) for p in plans)
    used, bound = sum(p.plan.used for p in plans), sum(p.plan.bound for p in plans)
    return Laid(cells, tuple(left), used, bound, METHOD)


def _with_trays(task: Task, drawers: Sequence[Drawer], family: TraySet) -> Laid:
    lots = lots_of(_Kept.of(task).rest(task.things), drawers)
    home = shared_out(lots, drawers, 2 * family.table.wall)
    moves = max(1, int(ORDERS * task.effort))
    cells, out = [], [lot for lot, d in zip(lots, home, strict=True) if d is None]
    for n, drawer in enumerate(drawers):
        task.watch.check()
        inside = [lot for lot, d in zip(lots, home, strict=True) if d == n]
        placed, left = trayed(inside, drawer, family, moves=moves, seed=task.seed)
        cells.append((drawer, tuple(placed)))
        out += left
    used = float(sum(p.spot.w * p.spot.d for _, some in cells for p in some if p.on is None))
    return Laid(tuple(cells), tuple(out), used, None, "trays set by a skyline, orders tried by exchange")


def _design(task: Task, candidate: Candidate, family: OfCells, laid: Laid, named: str) -> Design:
    kept = _Kept.of(task)
    parts, assignments = list(kept.parts), list(kept.assignments)
    ids = fresh_ids({a.id for a in assignments})
    for drawer, cells in laid.cells:
        bay = candidate.bays[drawer.bay]
        fresh = (name for n in count(1) if (name := f"b{bay.index + 1}-cell-{n}") not in kept.spent)
        names = list(islice(fresh, len(cells)))
        for name, c in zip(names, cells, strict=True):
            part = family.cell(bay, name, c.spot.x, c.spot.y, c.spot.w, c.spot.d, c.h)
            if c.on is not None:
                part = part.model_copy(update={"z": c.z, "fixed_to": OnPart(part=names[c.on])})
            parts.append(part)
            if c.lot is not None:
                thing = c.lot.thing
                way = next((w for w in (thing.way, *thing.row.ways) if w in family.spec("compartment").ways), "drawer")
                assignments.append(
                    Assignment(id=next(ids), thing=thing.id, part=name, way=way, count=c.lot.count)
                )  # fmt: skip
    placed = {t.id: 0 for t in task.things if t.stays}
    for a in assignments:
        placed[a.thing] += a.count
    left = tuple(Unplaced(thing=t.id, count=t.count - placed[t.id])
                 for t in task.things if t.stays and t.count > placed[t.id])  # fmt: skip
    said = load("goals")
    goal: Goal = "quickest" if named == "bought" else "tidiest"
    design = with_dividers(Design(
        id=named, space=task.space, goal=goal, title=said["title"][named],
        reason=said["reason"]["short" if left else named], rules=task.rules, weights=WEIGHTS[goal], finish=task.finish,
        spent=tuple(sorted(kept.spent - {p.id for p in parts})),
        rows=candidate.standing, regions=tuple(task.envelopes[b.section] for b in candidate.bays),
        bays=_bays(candidate, task, kept),
        parts=tuple(parts), assignments=tuple(assignments), unplaced=left,
        outcome=Outcome.of(laid.used, None if left else laid.bound, method=laid.method, run=candidate.run, within=WITHIN),
    ))  # fmt: skip
    faults = verify(design, task.envelopes, task.things, task.survey, task.limits)
    if faults:
        raise RuntimeError(f"the search made drawers that do not hold: {faults[0]}")
    return design


def _bays(candidate: Candidate, task: Task, kept: _Kept) -> tuple[Bay, ...]:
    """The bays, locked where they were."""
    locked = {b.index for b in task.keep.bays if b.locked} if task.keep is not None else set()
    return tuple(b.model_copy(update={"locked": True}) if b.index in locked & kept.bays else b for b in candidate.bays)
