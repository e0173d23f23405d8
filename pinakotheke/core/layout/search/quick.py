"""A whole search in short: whether a changed task would hold everything, and what that would look like."""

from collections import Counter
from collections.abc import Sequence

from ...inventory.needs import ways
from ..insert.drawers import drawer_sections
from ..insert.fittings import fittings, inserts_of
from ..models import Goal
from ..packing.task import Task
from ..placement.candidates import Candidate
from ..placement.pool import candidates
from .furnish import Furnished, begin, heap_of, improve

LOOKED_AT = 60
"""Candidates furnished by best fit, those first that have a place for every group."""
SHORT = 0.5
"""Share of the usual effort for drawers."""
HEATS = ((6, 400), (2, 1500))
"""How many of them go on, and for how many moves."""


def takes_all(task: Task) -> bool:
    """Whether a short search finds everything a place; drawers first take what the house keeps in drawers."""
    if not drawer_sections(task) or not inserts_of(task):
        found = quick(task)
        return found is not None and not found.unplaced
    others = {s: e for s, e in task.envelopes.items() if s not in drawer_sections(task)}
    there = [t for t in task.things if t.stays and (not others or ways(t, task.rules)[0] == "drawer")]
    in_them = next(fittings(task.but(things=tuple(there), effort=task.effort * SHORT)), None)
    left = Counter(t.id for t in task.things if t.stays for _ in range(t.count))
    for _, cells in in_them.cells if in_them is not None else ():
        for c in cells:
            left[c.lot.thing.id if c.lot is not None else ""] -= c.lot.count if c.lot is not None else 0
    rest = tuple(t.model_copy(update={"count": left[t.id]}) for t in task.things if left[t.id] > 0)
    if not rest or not others:
        return not rest
    found = quick(task.but(envelopes=others, things=rest))
    return found is not None and not found.unplaced


def rank(furnished: Furnished) -> tuple[int, float]:
    """Pieces without a place before all, then the points."""
    return furnished.unplaced, furnished.score


def quick(task: Task, goal: Goal = "cheapest", tried: Sequence[Candidate] = ()) -> Furnished | None:
    """The best of a short search, among the candidates `tried` or all; None where nothing stands."""
    heap = heap_of(task)
    pool = sorted(tried or candidates(task), key=lambda c: len(heap.homeless(c.bays)))
    field = sorted((begin(task, goal, c) for c in pool[:LOOKED_AT]), key=rank)
    for size, moves in HEATS:
        task.watch.check()
        field = sorted((improve(task, f, moves, 11 + n) for n, f in enumerate(field[:size])), key=rank)
        if field and not field[0].unplaced:
            break
    return field[0] if field else None
