"""Why not everything fits, and what would have to give: relaxations, each with how little of it would do."""

from collections.abc import Iterable, Mapping
from decimal import Decimal
from typing import Literal

from ..base import Frozen
from ..house import HouseRules
from ..inventory import Thing
from ..survey import Envelope, Survey
from ..systems import Catalogue, Finish
from .candidates import Candidate, fills_of
from .furnish import furnish
from .models import Design
from .pool import allowed, candidates
from .task import Task

MOST_GROUPS = 400
TRIAL_MOVES = 300


class Relaxation(Frozen):
    """The smallest change of one kind that would let everything fit; `value` is what it would have to be. Those that
    can be carried out by themselves are `applies`.
    """

    kind: Literal["reserve", "hangers", "floor", "access", "drill", "move out", "size", "budget", "fewer"]
    value: float
    things: tuple[str, ...] = ()

    @property
    def applies(self) -> bool:
        """Whether the tool can carry it out: a rule can be changed, a wall cannot."""
        return self.kind != "size"


class Blocked(Frozen):
    """Why not everything fits: which size or which demand, how much is short, and what would do."""

    kind: Literal["size", "demand", "too many", "rules", "budget"]
    subject: str
    short: float
    unit: str
    things: tuple[str, ...] = ()
    relaxations: tuple[Relaxation, ...] = ()


def too_big_a_task(things: tuple[Thing, ...], families: tuple[str, ...]) -> Blocked | None:
    """More groups than one space is searched for, or no family at all."""
    if not families:
        return Blocked(kind="rules", subject="floor and wall", short=0, unit="",
                       relaxations=(Relaxation(kind="floor", value=0),))  # fmt: skip
    over = len(things) - MOST_GROUPS
    return Blocked(kind="too many", subject="groups", short=over, unit="groups") if over > 0 else None


def too_small(
    survey: Survey, envelopes: Mapping[str, Envelope], families: Iterable[str], finish: Finish, catalogue: Catalogue
) -> Blocked | None:
    """Whether no family stands anywhere: by how much the smallest misses, in its most lacking size."""
    shortest: tuple[float, str] | None = None
    for section in survey.parts:
        envelope = envelopes.get(section.id)
        for f in families if envelope is not None else ():
            family = catalogue[f]
            if not family.suits(section) or envelope is None:
                continue
            if fills_of(family, section, envelope, finish, []):
                return None
            for lack, subject in family.lacks(envelope):
                if lack > 0 and (shortest is None or lack < shortest[0]):
                    shortest = (lack, subject)
    if shortest is None:
        return Blocked(kind="size", subject="free wall between obstacles", short=0, unit="mm")
    short, subject = shortest
    return Blocked(kind="size", subject=subject, short=short, unit="mm",
                   relaxations=(Relaxation(kind="size", value=short),))  # fmt: skip


def blocked_by_budget(task: Task, costs: list[Decimal]) -> Blocked:
    """Everything fits, but not for the money."""
    cheapest = min(costs)
    over = float(cheapest - (task.budget or Decimal(0)))
    return Blocked(kind="budget", subject="budget", short=over, unit="", relaxations=(
        Relaxation(kind="budget", value=float(cheapest)),))  # fmt: skip


def blocked_by_demand(task: Task, best: Design, tried: list[Candidate]) -> Blocked:
    """Which things are left out of the best layout found, and the gentlest changes that would take them in, the
    gentlest first.
    """
    left = tuple(dict.fromkeys(u.thing for u in best.unplaced))
    pieces = sum(u.count for u in best.unplaced)
    task.watch.progress(0.95, "looking for the smallest change that would do")
    found: list[Relaxation] = []
    if task.rules.reserve > 0 and _would_fit(task, tried, {"reserve": 0.0}):
        found.append(Relaxation(kind="reserve", value=_largest_reserve(task, tried)))
    for kind, change, amount in (
        ("hangers", {"hangers": "slim"}, 0.75), ("access", {"access": "dense"}, 0.0),
        ("floor", {"floor": "purposeful"}, 0.0), ("drill", {"drill": "anywhere"}, 0.0),
    ):  # fmt: skip
        if any(getattr(task.rules, key) != wanted for key, wanted in change.items()) and _would_fit(
            task, tried, change
        ):
            found.append(Relaxation(kind=kind, value=amount))
    found.append(Relaxation(kind="fewer", value=pieces, things=left))
    found.append(Relaxation(kind="move out", value=pieces, things=left))
    return Blocked(kind="demand", subject="places", short=pieces, unit="pieces", things=left, relaxations=tuple(found))


def _largest_reserve(task: Task, tried: list[Candidate]) -> float:
    """The largest growth reserve, in whole hundredths, with which everything is found a place."""
    low, high = 0, round(task.rules.reserve * 100)
    while high - low > 2:
        middle = (low + high) // 2
        if _would_fit(task, tried, {"reserve": middle / 100}):
            low = middle
        else:
            high = middle
    return low / 100


def _would_fit(task: Task, tried: list[Candidate], change: Mapping[str, object]) -> bool:
    """Whether a short search finds everything a place under other rules (same space, same envelopes)."""
    task.watch.check()
    rules: HouseRules = task.rules.model_copy(update=dict(change))
    trial = task.but(rules=rules)
    if set(allowed(rules, task.ranges)) != set(allowed(task.rules, task.ranges)):
        pool = candidates(trial)
        tried = sorted(pool, key=lambda c: -c.front())[:3]
    return any(furnish(trial, "roomiest", c, TRIAL_MOVES).unplaced == 0 for c in tried[:2])
