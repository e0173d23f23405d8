"""Why not everything fits: what is short, and what would have to give."""

from collections.abc import Iterable, Mapping
from decimal import Decimal
from typing import Literal

from ...base import Frozen
from ...inventory import Thing
from ...survey import Envelope, Survey
from ...systems import Catalogue, Finish
from ..models import Design
from ..packing.task import Task
from ..placement.candidates import Candidate
from ..placement.fills import fills_of
from .ladder import Relaxation, ladder
from .noplace import NoPlace, why_no_place

MOST_GROUPS = 400


class Blocked(Frozen):
    """Why not everything fits: which size or which demand, how much is short, why, and what would do."""

    kind: Literal["size", "demand", "too many", "rules", "budget"]
    subject: str
    short: float
    unit: str
    things: tuple[str, ...] = ()
    refused: tuple[NoPlace, ...] = ()
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
    """Which things are left out of the best layout found and why, and the changes that would take them in."""
    task.watch.progress(0.9, "looking for what would do")
    by_id = {t.id: t for t in task.things}
    left = {u.thing: u.count for u in best.unplaced}
    bays = [*best.bays, *(b for c in tried for b in c.bays)]
    refused = tuple(why_no_place(by_id[t], count, bays, task.home) for t, count in left.items())
    return Blocked(kind="demand", subject="places", short=sum(left.values()), unit="pieces", things=tuple(left),
                   refused=refused, relaxations=ladder(task, best, tried))  # fmt: skip
