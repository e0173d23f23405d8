"""Designs as they hang side by side: each under its right name, each of them once."""

from collections.abc import Callable
from math import inf

from ..goals import REASONS, TITLES
from ..models import Design, Goal
from ..packing.task import Task
from .frontier import Point, point_of


def rightly_named(task: Task, designs: dict[str, Design]) -> list[Design]:
    """What is called cheapest is the cheapest of all that hold everything, and so for the easiest to reach: where
    another way to build it came out better, the two change names.
    """
    named = dict(designs)
    measures: tuple[tuple[Goal, Callable[[Point], float]], ...] = (
        ("cheapest", lambda p: float(p.cost)), ("reach", lambda p: p.reach),
    )  # fmt: skip
    for goal, measure in measures:
        complete = {key: measure(point_of(task, d)) for key, d in named.items() if not d.unplaced}
        if not complete:
            continue
        best = min(complete, key=complete.__getitem__)
        if best == goal or complete[best] >= complete.get(goal, inf) - 1e-9:
            continue
        winner, loser = named[best], named.get(goal)
        named[goal] = winner.model_copy(
            update={
                "id": goal,
                "goal": goal,
                "title": TITLES[goal],
                "reason": REASONS[goal],
            }
        )
        if best not in _ORDER:
            del named[best]
        # A goal that wins another one's name as well keeps its own; the two become one card.
        if loser is not None and (best not in _ORDER or all(loser.families != d.families for d in named.values())):
            named[f"was-{goal}"] = _in_family(loser, f"was-{goal}")
    return list(named.values())


def _in_family(design: Design, key: str) -> Design:
    """A design under the name of its main family."""
    names = [b.family for b in design.bays]
    family = design.catalogue[max(dict.fromkeys(names), key=names.count)]
    return design.model_copy(
        update={"id": key, "title": TITLES["family"].format(family=family.spoken),
                "reason": REASONS["family"].format(about=family.about)}
    )  # fmt: skip


def distinct(task: Task, designs: list[Design]) -> list[Design]:
    """One of each that a person would call the same: a goal whose answer is another goal's, or all but that, is said in
    that one's reason.
    """
    kept: list[Design] = []
    at = {d.id: point_of(task, d) for d in designs}
    for design in sorted(designs, key=lambda d: _ORDER.index(d.id) if d.id in _ORDER else len(_ORDER)):
        twin = next((n for n, d in enumerate(kept)
                     if shape_of(d) == shape_of(design) or _alike(d, at[d.id], design, at[design.id])), None)  # fmt: skip
        if twin is None:
            kept.append(design)
        elif design.id in _ORDER and kept[twin].id in _ORDER and design.reason not in kept[twin].reason:
            reason = f"{kept[twin].reason} {design.reason}"
            kept[twin] = kept[twin].model_copy(update={"reason": reason[:1000]})
    return kept


ALIKE = 0.03
"""Designs of one make that differ by no more in cost, in reach (of the greater) and in room (of all there is) are shown
once.
"""


def _alike(one: Design, here: Point, other: Design, there: Point) -> bool:
    if set(one.families) != set(other.families) or one.unplaced != other.unplaced:
        return False
    shares = ((float(here.cost), float(there.cost)), (here.reach, there.reach))
    return abs(here.room - there.room) <= ALIKE and all(abs(a - b) <= ALIKE * max(a, b) for a, b in shares)


_ORDER = ("yours", "cheapest", "tidiest", "roomiest", "reach", "quickest")


def shape_of(design: Design) -> object:
    """What makes two designs the same to look at."""
    return [(p.item, p.section, p.x, p.y, p.z, p.w, p.d, p.h) for p in design.parts]
