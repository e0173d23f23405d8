"""Why not everything fits: what is short, and what would have to give."""

from collections.abc import Iterable, Mapping
from decimal import Decimal
from typing import Literal

from ...base import Frozen
from ...inventory import Thing
from ...survey import Envelope, Survey
from ...systems import Catalogue, Finish
from ..insert.drawers import drawers_of
from ..insert.fittings import Fitting
from ..models import Design
from ..packing.task import Task
from ..placement.candidates import Candidate
from ..placement.fills import fills_of
from .ladder import Relaxation, ladder, ladder_in_drawers
from .noplace import NoPlace, why_no_place, why_not_in_drawers

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

    def dearer_by(self, more: Decimal) -> "Blocked":
        """The same where everything costs so much more, for what else there is."""
        rungs = (r if r.cost is None else r.model_copy(update={"cost": r.cost + more}) for r in self.relaxations)
        return self.model_copy(update={"relaxations": tuple(rungs)})


def without_families(families: tuple[str, ...]) -> Blocked | None:
    """No family at all that may be built of."""
    if families:
        return None
    return Blocked(kind="rules", subject="floor and wall", short=0, unit="",
                   relaxations=(Relaxation(kind="floor", value=0),))  # fmt: skip


def too_many(things: tuple[Thing, ...]) -> Blocked | None:
    """More groups than one space is searched for."""
    over = sum(t.stays for t in things) - MOST_GROUPS
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


def blocked_in_drawers(task: Task, fitting: Fitting, best: Design) -> Blocked:
    """Which things no drawer takes and why, and the changes that would take them in."""
    task.watch.progress(0.9, "looking for what would do")
    by_id = {t.id: t for t in task.things}
    left = {u.thing: u.count for u in best.unplaced}
    drawers = drawers_of(task, fitting.candidate)
    refused = tuple(why_not_in_drawers(by_id[t], count, drawers, task) for t, count in left.items())
    return Blocked(kind="demand", subject="places", short=sum(left.values()), unit="pieces", things=tuple(left),
                   refused=refused, relaxations=ladder_in_drawers(task, best))  # fmt: skip
