"""The long work: solves, run by a worker through Django's tasks interface.

`manage.py worker` carries them out; another backend is a setting. A worker that dies leaves the solve *running* and
silent; any worker that looks hands it on (`pick_up_again`), and nothing found so far is lost.
"""

import logging
from datetime import timedelta
from time import monotonic
from typing import Any, cast

from django.conf import settings
from django.db import transaction
from django.db.models import Q
from django.utils import timezone
from django_tasks import task

from pinakotheke.core.errors import Cancelled, HouseFileError, Refusal
from pinakotheke.core.housefile import load_house
from pinakotheke.core.layout import Design, Task, Watch, Weights, design_space
from pinakotheke.core.survey import envelopes, with_stacks
from pinakotheke.core.systems import FAMILIES, Finish, Range
from pinakotheke.core.units import Units

from . import models, rows
from .actions.base import Invalid, Stale
from .actions.house import import_house
from .actions.layout import keep_found

logger = logging.getLogger(__name__)
ASK_EVERY_S = 0.1
"""How often a running search looks whether it was cancelled."""
BEAT_EVERY_S, SILENT_AFTER = 2.0, timedelta(seconds=20)
"""How often a running search says that it lives, and after which silence its worker is taken for dead."""
LOST_AFTER = timedelta(minutes=5)
"""A search that waits so long is handed to the queue once more: the task that stood for it may have died unseen."""


LEAST_PRIORITY = -100


def run_fairly(solve_id: int, others: int) -> None:
    """Put a search into the queue: a household's second one comes after everybody's first. `others` is how many of the
    same household wait or run.
    """
    run_solve.using(priority=max(-others, LEAST_PRIORITY)).enqueue(solve_id)


@task()
def run_solve(solve_id: int) -> None:
    """Search alternatives for a solve's space and keep them as they are found."""
    waiting = models.Solve.objects.filter(pk=solve_id, status=models.Solve.Status.QUEUED)
    if not waiting.update(status=models.Solve.Status.RUNNING, heard=timezone.now()):
        return  # cancelled, or another worker has it
    solve = models.Solve.objects.select_related("space__household").get(pk=solve_id)
    _tell(solve, message="reading the space and the things")
    try:
        _search(solve)
    except Cancelled:
        _tell(solve, status=models.Solve.Status.CANCELLED, message="cancelled")
    except Stale:
        _tell(solve, status=models.Solve.Status.FAILED, problem=str(Invalid("search.stale")))
    except Refusal as error:
        units = cast(Units, solve.space.household.units)
        _tell(solve, status=models.Solve.Status.FAILED, problem=error.said_in(units))
    except Exception:
        logger.exception("solve %s failed", solve_id)
        _tell(solve, status=models.Solve.Status.FAILED, problem=str(Invalid("search.broke-off")))


def task_of(solve: models.Solve) -> Task:
    """The core's task for a search, from the rows as they stand."""
    space, wishes = solve.space, solve.ask
    household = space.household
    rules = rows.rules_of(household)
    kept = models.Design.objects.filter(pk=wishes.get("keep") or 0, space=space).first()
    keep = rows.history_of(kept).current if kept else None
    ranges = rows.ranges_of(household)
    return _plain_task(space).but(
        folds=bool(wishes.get("folds")),
        others=lambda: [_plain_task(s) for s in household.space_set.exclude(pk=space.pk)],
        finish=Finish.model_validate(wishes["finish"]) if wishes.get("finish") else Finish.of_house(rules),
        weights=Weights.model_validate(wishes["weights"]) if wishes.get("weights") else None,
        budget=rules.budget if wishes.get("within_budget") else None, families=_families(wishes, ranges), keep=keep,
    )  # fmt: skip


def _plain_task(space: models.Space) -> Task:
    """A space with what lives in it, before anybody wished for anything."""
    household = space.household
    rules, survey = rows.rules_of(household), with_stacks(rows.survey_of(space))
    return Task(
        space=space.key, survey=survey, envelopes=envelopes(survey, rules), things=rows.things_of(space),
        people=rows.people_of(household), rules=rules, stock=rows.stock_of(household), use=rows.use_of(space),
        ranges=rows.ranges_of(household), containers=rows.containers_of(household), effort=settings.SOLVE_EFFORT,
    )  # fmt: skip


def _families(wishes: dict[str, Any], ranges: tuple[Range, ...]) -> tuple[str, ...] | None:
    """Families that were asked for by name, as far as they are still there: a changed range is another family."""
    known = {*FAMILIES, *(r.family_id for r in ranges)}
    return tuple(f for f in wishes.get("families") or () if f in known) or None


def _search(solve: models.Solve) -> None:
    keeper = _Keeper(solve)
    plain = task_of(solve)
    around = plain.keep is not None
    task = plain.but(
        watch=Watch(check=keeper.check, progress=keeper.progress, found=keeper.found if not around else _ignore)
    )
    solution = design_space(task)
    with transaction.atomic():
        if around:
            keep_found(solve, solution.alternatives[0])
            _tell(solve, status=models.Solve.Status.DONE, progress=1.0, message="done")
            return
        for design in solution.alternatives:
            keeper.found(design)
        _drop_old(solve, {d.id for d in solution.alternatives})
        blocked = solution.blocked.model_dump(mode="json") if solution.blocked else None
        points = [p.model_dump(mode="json") for p in solution.frontier]
        for point in points:
            point["design"]["regions"] = []  # the space's own are put back when it is hung
        _tell(solve, status=models.Solve.Status.DONE, progress=1.0, message="done", blocked=blocked, frontier=points,
              sensitivities=[s.model_dump(mode="json") for s in solution.sensitivities])  # fmt: skip


def _ignore(design: Design) -> None:
    """A first design around locked parts is not shown: it would take the place of the person's own."""


class _Keeper:
    """Writes what a search tells into its row."""

    def __init__(self, solve: models.Solve) -> None:
        self.solve, self._asked, self._beat = solve, 0.0, monotonic()

    def check(self) -> None:
        now = monotonic()
        if now - self._asked < ASK_EVERY_S:
            return
        self._asked = now
        if models.Solve.objects.filter(pk=self.solve.pk, cancel_requested=True).exists():
            raise Cancelled
        if now - self._beat > BEAT_EVERY_S:
            self._beat = now
            _tell(self.solve)

    def progress(self, share: float, what: str) -> None:
        _tell(self.solve, progress=share, message=what[:200])

    def found(self, design: Design) -> None:
        """A new alternative under its own key; one of that key that was edited by hand makes way under another."""
        with transaction.atomic():
            old = models.Design.objects.filter(space=self.solve.space, key=design.id).first()
            if old is not None and (old.done or old.undone or old.kept):
                taken = set(self.solve.space.designs.values_list("key", flat=True))
                old.key = next(k for n in range(1, 1000) if (k := f"{design.id}-edited-{n}") not in taken)
                old.save(update_fields=["key"])
                old = None
            fields = {"base": design.model_dump(mode="json"), "solve": self.solve}
            if old is None:
                models.Design.objects.create(space=self.solve.space, key=design.id, **fields)
            elif old.base != fields["base"]:
                models.Design.objects.filter(pk=old.pk).update(**fields, version=old.version + 1)
            else:
                models.Design.objects.filter(pk=old.pk).update(solve=self.solve)


def _drop_old(solve: models.Solve, kept: set[str]) -> None:
    """Alternatives of earlier searches go, but for those edited by hand or named."""
    solve.space.designs.exclude(key__in=kept).filter(done=[], undone=[], kept=False).delete()


def _tell(solve: models.Solve, **fields: object) -> None:
    """Write what is new of a search; one that was cancelled meanwhile stays so."""
    for name, value in fields.items():
        setattr(solve, name, value)
    live = models.Solve.objects.filter(pk=solve.pk).exclude(status=models.Solve.Status.CANCELLED)
    live.update(**fields, heard=timezone.now())


@task()
def read_house_file(import_id: int) -> None:
    """Make a household of a house file that was brought; the file goes, whatever came of it."""
    row = models.HouseImport.objects.select_related("user").filter(pk=import_id, status="waiting").first()
    if row is None:
        return
    try:
        with row.file.open("rb") as file:
            house = load_house(file.read())
        row.household = import_house(row.user, house)
        row.status = "done"
    except HouseFileError as error:
        row.status, row.problem, row.faults = "refused", Invalid("house.no-file").problem, list(error.lines())
    except Exception:
        logger.exception("house file %s failed", import_id)
        row.status, row.problem = "refused", str(Invalid("house.file-broke-off"))
    row.file.delete(save=False)
    row.save()


def pick_up_again() -> int:
    """Searches whose worker fell silent, or that the queue lost, go back into it; how many. Any worker may look at any
    time: each is handed on once, and carried out by whoever claims it first.
    """
    now, Status = timezone.now(), models.Solve.Status  # noqa: N806
    left = list(
        models.Solve.objects.filter(
            Q(status=Status.RUNNING, heard__lt=now - SILENT_AFTER) | Q(status=Status.QUEUED, heard__lt=now - LOST_AFTER)
        ).values_list("pk", "heard")
    )  # fmt: skip
    taken = 0
    for pk, heard in left:
        mine = models.Solve.objects.filter(pk=pk, heard=heard)
        if mine.update(status=Status.QUEUED, message="taken up again", heard=now):
            run_solve.enqueue(pk)
            taken += 1
    return taken


def beat(name: str) -> None:
    """A worker says that it is there."""
    models.Worker.objects.update_or_create(name=name, defaults={"heard": timezone.now()})


GONE_AFTER = timedelta(seconds=45)
"""A worker that was not heard of for so long is taken for none."""


def worker_is_there() -> bool:
    """Whether any worker was heard of lately; where tasks run at once, there is no need of one."""
    if "ImmediateBackend" in settings.TASKS["default"]["BACKEND"]:
        return True
    return models.Worker.objects.filter(heard__gt=timezone.now() - GONE_AFTER).exists()
