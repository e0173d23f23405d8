"""What else could be had: the frontier of cost, room and reach, and what one more or one less would change."""

from collections.abc import Mapping
from concurrent.futures import ThreadPoolExecutor
from decimal import Decimal
from typing import Any, Literal

from ...base import Frozen
from ...errors import PinakothekeError
from ...inventory import Thing
from ...inventory.needs import ways
from ...survey import envelopes as envelopes_of
from ...tables import value
from ..models import Design, Goal
from ..packing.task import Task
from ..placement.pool import candidates
from ..report.costing import cost_of
from ..report.merits import reach_of, room_of
from .furnish import Furnished, begin, design_of, furnish

MOST_POINTS = 12
TRIAL_MOVES = 250
FEWER_SHARE = 0.3
WIDER_MM, MORE_MONEY = 100, 50


class Point(Frozen):
    """One design on the frontier. `room` is the empty share of everything it holds, `reach` points of trouble (less is
    better); `design` is the id of the alternative it is, or the design itself where it hangs in no gallery yet.
    """

    cost: Decimal
    room: float
    reach: float
    families: tuple[str, ...]
    bays: int
    hangs: str = ""
    design: Design | None = None


class Sensitivity(Frozen):
    """What a change would do to the cheapest complete design: change of cost, of reach, and pieces left out."""

    kind: Literal["fewer", "wider", "stool", "budget", "cheaper", "more"]
    subject: str
    amount: float
    cost: float
    room: float = 0.0
    reach: float = 0.0
    fits: bool = True


def point_of(task: Task, design: Design) -> Point:
    """Where a design lies."""
    things = {t.id: t for t in task.things}
    return Point(cost=cost_of(design).total, room=room_of(design, things),
                 reach=reach_of(design, task.things, task.people, task.survey), families=design.families,
                 bays=len(design.bays), hangs=design.id)  # fmt: skip


def as_point(task: Task, design: Design, number: int) -> Point:
    """A design that hangs in no gallery yet as the point where it lies."""
    named = design.model_copy(update={"id": f"front-{number}"})
    return point_of(task, design).model_copy(update={"hangs": "", "design": named})


def frontier_of(task: Task, complete: list[Furnished]) -> tuple[Point, ...]:
    """The designs that no other beats in cost, room and reach at once, cheapest first."""
    points: list[Point] = []
    for n, furnished in enumerate(complete):
        task.watch.check()
        points.append(as_point(task, design_of(task, furnished), n + 1))
    kept = [p for p in points if not any(_beats(q, p) for q in points)]
    unique = {(p.cost, round(p.room, 3), round(p.reach, 1)): p for p in kept}
    return tuple(sorted(unique.values(), key=lambda p: p.cost)[:MOST_POINTS])


def _beats(one: Point, other: Point) -> bool:
    no_worse = one.cost <= other.cost and one.room >= other.room and one.reach <= other.reach
    return no_worse and (one.cost < other.cost or one.room > other.room or one.reach < other.reach)


# -- what one more or one less would change --


def sensitivities(task: Task, best: Mapping[Goal, Furnished], complete: list[Design], points: tuple[Point, ...],
                  ) -> tuple[Sensitivity, ...]:  # fmt: skip
    """Short searches of the cheapest answer's own candidate under small changes."""
    base_design = min(complete, key=lambda d: cost_of(d).total)
    base = point_of(task, base_design)
    task.watch.progress(0.97, "what one more or one less would change")
    told: list[Sensitivity] = []
    cheaper = [p for p in points if p.cost < base.cost]
    if cheaper:
        step = max(cheaper, key=lambda p: p.cost)
        told.append(Sensitivity(kind="cheaper", subject=", ".join(step.families), amount=0,
                                cost=float(step.cost - base.cost), room=step.room - base.room,
                                reach=step.reach - base.reach))  # fmt: skip
    dearer = [p for p in points if base.cost < p.cost <= base.cost + MORE_MONEY]
    if dearer:
        most = max(dearer, key=lambda p: p.room)
        told.append(Sensitivity(kind="budget", subject=", ".join(most.families), amount=MORE_MONEY,
                                cost=float(most.cost - base.cost), room=most.room - base.room,
                                reach=most.reach - base.reach))  # fmt: skip
    furnished = best.get("cheapest")
    if furnished is not None and not furnished.unplaced:
        told += _fewer_and_more(task, furnished, base)
        told += _with_stool(task, furnished, base)
    told += _wider(task, base)
    return tuple(told)


def _trial(task: Task, furnished: Furnished, **change: Any) -> Point | None:
    trial = task.but(**change)
    one = furnish(trial, "cheapest", furnished.candidate, TRIAL_MOVES)
    return None if one.unplaced else point_of(trial, design_of(trial, one))


def _fewer_and_more(task: Task, furnished: Furnished, base: Point) -> list[Sensitivity]:
    """The group that takes most rail or shelf: a third fewer of it, and a third more."""
    groups = [t for t in task.things if t.stays and t.count >= 3]
    if not groups:
        return []
    most = max(groups, key=lambda t: _size_asked(task, t))
    step = max(1, round(most.count * FEWER_SHARE))
    told = []
    kinds: tuple[tuple[Literal["fewer", "more"], int], ...] = (("fewer", -step), ("more", step))

    def with_more(by: int) -> Point | None:
        things = tuple(t.model_copy(update={"count": t.count + by}) if t.id == most.id else t for t in task.things)
        return _trial(task, furnished, things=things)

    with ThreadPoolExecutor(len(kinds)) as cores:
        points = list(cores.map(with_more, (by for _, by in kinds)))
    for (kind, _), point in zip(kinds, points, strict=True):
        told.append(
            Sensitivity(kind=kind, subject=most.name, amount=step, fits=point is not None,
                        cost=float(point.cost - base.cost) if point else 0,
                        room=point.room - base.room if point else 0, reach=point.reach - base.reach if point else 0)
        )  # fmt: skip
    return told


def _size_asked(task: Task, thing: Thing) -> float:
    from ...inventory.needs import need

    n = need(thing, ways(thing, task.rules)[0], task.rules)
    return n.clear * (n.amount if n.way not in ("drawer", "overhead", "hook") else n.piece_width * n.count)


def _with_stool(task: Task, furnished: Furnished, base: Point) -> list[Sensitivity]:
    """Everyone who stands reaches higher by a step stool."""
    people = tuple(
        p.model_copy(update={"stature": p.stature + value("reach.stool") / value("reach.grip")})
        if p.posture == "standing" else p for p in task.people
    )  # fmt: skip
    if people == task.people:
        return []
    point = _trial(task, furnished, people=people)
    if point is None:
        return []
    return [Sensitivity(kind="stool", subject="", amount=value("reach.stool"), cost=float(point.cost - base.cost),
                        room=point.room - base.room, reach=point.reach - base.reach)]  # fmt: skip


def _wider(task: Task, base: Point) -> list[Sensitivity]:
    """What taking the skirting off would give."""
    if task.survey.skirting == "remove" or not task.survey.values("skirting thickness"):
        return []
    survey = task.survey.model_copy(update={"skirting": "remove"})
    try:
        wider = envelopes_of(survey, task.rules)
    except PinakothekeError:
        return []
    gained = max((wider[s].x_to - wider[s].x_from - e.x_to + e.x_from for s, e in task.envelopes.items() if s in wider),
                 default=0)  # fmt: skip
    trial = task.but(survey=survey, envelopes=wider)
    pool = candidates(trial)
    pool = [c for c in pool if set(c.families) == set(base.families)] or pool
    pool.sort(key=lambda c: c.front())
    ones = [begin(trial, "cheapest", c) for c in pool[:: max(1, len(pool) // 6)]]
    fitting = [o for o in ones if not o.unplaced]
    if not fitting:
        return []
    point = point_of(trial, design_of(trial, min(fitting, key=lambda o: o.score)))
    return [Sensitivity(kind="wider", subject="skirting", amount=gained, cost=float(point.cost - base.cost),
                        room=point.room - base.room, reach=point.reach - base.reach)]  # fmt: skip
