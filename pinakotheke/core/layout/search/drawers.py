"""Spaces that have drawers: those are fitted out by a search of their own (`layout/insert`), and what else there is, as the
levels of a dresser, by the common one, which gets what has no place in a drawer.
"""

from collections import Counter
from collections.abc import Callable, Sequence
from dataclasses import replace
from decimal import Decimal

from ...inventory import Thing
from ...inventory.needs import ways
from ..insert.chest import Lot
from ..insert.designs import design_with, without_drawers
from ..insert.drawers import drawer_sections
from ..insert.fittings import Fitting, fittings, inserts_of, placeable, way_of
from ..insert.kept import Kept
from ..models import Design
from ..packing.task import Task, Watch
from ..report.costing import cost_of
from .blocked import blocked_by_budget, blocked_in_drawers
from .frontier import as_point
from .furnish import kept_assignments
from .gallery import distinct
from .solution import Solution

SHOWN = 3
"""Alternatives shown when none holds everything."""


def in_drawers(task: Task) -> Solution:
    """A space that has nothing but drawers: every way to fit them out that holds everything, or the fullest ones and what
    would do. Of a design that is found anew the same way again.
    """
    if task.keep is not None:
        again = _again(task)
        return Solution(alternatives=(again,) if again is not None else ())
    found: list[tuple[Fitting, Design]] = []
    for fitting in fittings(task):
        design = design_with(task, fitting)
        found.append((fitting, design))
        if not design.unplaced:
            task.watch.found(design)
    complete = distinct(task, [d for _, d in found if not d.unplaced])
    if complete:
        points = tuple(sorted((as_point(task, d, n) for n, d in enumerate(complete, 1)), key=lambda p: p.cost))
        task.watch.progress(1.0, "done")
        affordable = [d for d in complete if task.budget is None or _cost(d) <= task.budget]
        if not affordable:
            return Solution(alternatives=(min(complete, key=_cost),), frontier=points,
                            blocked=blocked_by_budget(task, [_cost(d) for d in complete]))  # fmt: skip
        return Solution(alternatives=tuple(affordable), frontier=points)
    fullest = sorted(found, key=lambda one: _pieces(one[0].left_out))[:SHOWN]
    blocked = blocked_in_drawers(task, *fullest[0]) if fullest else None
    task.watch.progress(1.0, "done")
    return Solution(alternatives=tuple(distinct(task, [d for _, d in fullest])), blocked=blocked)


def _again(task: Task) -> Design | None:
    """The drawers of a design that is kept fitted out anew in its own way; as they were where that would leave out more."""
    kept = task.keep
    assert kept is not None
    found = {f.named: f for f in fittings(task)}
    if not found:
        return None
    new = design_with(task, found.get(way_of(kept)) or list(found.values())[-1])
    if sum(u.count for u in new.unplaced) > sum(u.count for u in kept.unplaced):
        return kept
    return new.model_copy(update={"id": kept.id, "title": kept.title, "reason": kept.reason})


def beside_drawers(task: Task, common: Callable[[Task], Solution]) -> Solution:
    """A space that has drawers and other sections: what is kept in drawers by the house's rule goes there, the rest is
    found by the `common` search; what has no place there in the end is offered to the drawers once more.
    """
    wanting = tuple(t for t in _to_place(task) if ways(t, task.rules)[0] == "drawer")
    solution, left = _with(task, common, wanting)
    may = {t.id: t for t in _to_place(task)}
    more = tuple(may[t] for t in left if t in may and t not in {w.id for w in wanting})
    if more and task.keep is None:
        again, still = _with(task, common, (*wanting, *more))
        if sum(still.values()) < sum(left.values()):
            return again
    return solution


def _to_place(task: Task) -> tuple[Thing, ...]:
    """What may lie in the drawers, but for what stays elsewhere."""
    there = Counter[str]()
    for a in kept_assignments(without_drawers(task.keep, task)) if task.keep is not None else ():
        there[a.thing] += a.count
    things = (t.model_copy(update={"count": t.count - there[t.id]}) for t in task.things if t.count > there[t.id])
    return placeable(task.but(things=tuple(things)))


def _with(task: Task, common: Callable[[Task], Solution], wanting: Sequence[Thing]) -> tuple[Solution, dict[str, int]]:
    """Everything with these things in the drawers, and what has no place in the fullest design of it."""
    sections = drawer_sections(task)
    ways_out = _fitted(task, wanting)
    placed = _placed(task, ways_out[0]) if ways_out else Counter[str]()
    rest = tuple(
        t.model_copy(update={"count": t.count - placed[t.id]}) for t in task.things if t.count > placed[t.id] or not t.stays
    )  # fmt: skip

    def whole(design: Design) -> Design:
        return design_with(task, _for(design, ways_out), design) if ways_out else design

    inner = task.but(
        envelopes={s: e for s, e in task.envelopes.items() if s not in sections}, things=rest,
        families=None if task.families is None else tuple(f for f in task.families if f not in inserts_of(task)),
        budget=None if task.budget is None or not ways_out else task.budget - _cost(design_with(task, ways_out[0])),
        keep=without_drawers(task.keep, task) if task.keep is not None else None,
        watch=replace(task.watch, found=lambda design: task.watch.found(whole(design))),
    )  # fmt: skip
    got = common(inner)
    designs = tuple(whole(d) for d in got.alternatives)
    more = _cost(designs[0]) - _cost(got.alternatives[0]) if designs else Decimal(0)
    points = tuple(
        p if p.design is None else as_point(task, whole(p.design), n).model_copy(update={"design": whole(p.design)})
        for n, p in enumerate(got.frontier, 1)
    )  # fmt: skip
    fullest = min(designs, key=lambda d: sum(u.count for u in d.unplaced), default=None)
    left = {u.thing: u.count for u in fullest.unplaced} if fullest is not None else {}
    blocked = got.blocked.dearer_by(more) if got.blocked is not None else None
    return Solution(alternatives=designs, blocked=blocked, frontier=points, sensitivities=got.sensitivities), left


def _fitted(task: Task, things: Sequence[Thing]) -> list[Fitting]:
    """The drawers fitted out with some things: every way that leaves out the least; of a design that is found anew its
    own way.
    """
    quiet = Watch(check=task.watch.check, until=task.watch.until)
    found = list(fittings(task.but(things=tuple(things), watch=quiet)))
    if task.keep is not None and found:
        own = way_of(task.keep)
        found = [f for f in found if f.named == own] or found[:1]
    least = min((_pieces(f.left_out) for f in found), default=0)
    best = [f for f in found if _pieces(f.left_out) == least]
    # What is left out of all of them must be the same pieces, for the rest is found once.
    return best if least == 0 else best[:1]


def _for(design: Design, ways_out: Sequence[Fitting]) -> Fitting:
    """The fitting that goes with a design: what is soonest up gets trays, where there is room to grow what grows gets more
    of it, and all others have no strip too many.
    """
    wanted = {"quickest": "bought", "roomiest": "grow"}.get(design.goal, "even")
    return next((f for f in ways_out if f.named == wanted), ways_out[0])


def _placed(task: Task, fitting: Fitting) -> Counter[str]:
    """Pieces that lie in the drawers, those that stay there as well."""
    found = Counter[str]()
    for _, cells in fitting.cells:
        for c in cells:
            if c.lot is not None:
                found[c.lot.thing.id] += c.lot.count
    for a in Kept.of(task).assignments:
        found[a.thing] += a.count
    return found


def _pieces(lots: Sequence[Lot]) -> int:
    return sum(lot.count for lot in lots)


def _cost(design: Design) -> Decimal:
    return cost_of(design).total
