"""A whole search in short: whether a changed task would hold everything, and what that would look like."""

from collections.abc import Sequence

from ..models import Goal
from ..packing.task import Task
from ..placement.candidates import Candidate
from ..placement.pool import candidates
from .furnish import Furnished, begin, heap_of, improve

LOOKED_AT = 60
"""Candidates furnished by best fit, those first that have a place for every group."""
HEATS = ((6, 400), (2, 1500))
"""How many of them go on, and for how many moves."""


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
