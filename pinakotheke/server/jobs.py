"""The long work: solves, run by a worker through Django's tasks interface.

`manage.py db_worker` carries them out; another backend is a setting. A worker that dies leaves the solve *running*;
`forget_the_dead` marks it failed at the next start, and nothing found so far is lost.
"""

import logging
from time import monotonic

from django.conf import settings
from django.db import transaction
from django_tasks import task

from pinakotheke.core.errors import Cancelled, PinakothekeError
from pinakotheke.core.layout import Design, design_space
from pinakotheke.core.layout.solve import Watch
from pinakotheke.core.survey import envelope

from . import models, rows

logger = logging.getLogger(__name__)
ASK_EVERY_S = 0.25
"""How often a running search looks whether it was cancelled."""


@task()
def run_solve(solve_id: int) -> None:
    """Search alternatives for a solve's space and keep them as they are found."""
    solve = models.Solve.objects.select_related("space__household").filter(pk=solve_id).first()
    if solve is None or solve.status != models.Solve.Status.QUEUED:
        return
    _tell(solve, status=models.Solve.Status.RUNNING, message="reading the space and the things")
    try:
        _search(solve)
    except Cancelled:
        _tell(solve, status=models.Solve.Status.CANCELLED, message="cancelled")
    except PinakothekeError as error:
        _tell(solve, status=models.Solve.Status.FAILED, problem=str(error))
    except Exception:
        logger.exception("solve %s failed", solve_id)
        _tell(solve, status=models.Solve.Status.FAILED, problem="The search broke off. Ask again; it was reported.")


def _search(solve: models.Solve) -> None:
    space = solve.space
    household = space.household
    rules = rows.rules_of(household)
    region = envelope(rows.survey_of(space), rules)
    keeper = _Keeper(solve)
    watch = Watch(check=keeper.check, progress=keeper.progress, found=keeper.found)
    solution = design_space(
        space.key, region, rows.things_of(space), rows.people_of(household), rules,
        effort=settings.SOLVE_EFFORT, watch=watch,
    )  # fmt: skip
    with transaction.atomic():
        for design in solution.alternatives:
            keeper.found(design)
        _drop_old(solve, {d.id for d in solution.alternatives})
        blocked = solution.blocked.model_dump(mode="json") if solution.blocked else None
        _tell(solve, status=models.Solve.Status.DONE, progress=1.0, message="done", blocked=blocked)


class _Keeper:
    """Writes what a search tells into its row."""

    def __init__(self, solve: models.Solve) -> None:
        self.solve, self._asked = solve, 0.0

    def check(self) -> None:
        now = monotonic()
        if now - self._asked < ASK_EVERY_S:
            return
        self._asked = now
        if models.Solve.objects.filter(pk=self.solve.pk, cancel_requested=True).exists():
            raise Cancelled

    def progress(self, share: float, what: str) -> None:
        _tell(self.solve, progress=share, message=what[:200])

    def found(self, design: Design) -> None:
        """A new alternative under its own key; one of that key that was edited by hand makes way under another."""
        with transaction.atomic():
            old = models.Design.objects.filter(space=self.solve.space, key=design.id).first()
            if old is not None and (old.done or old.undone):
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
    """Alternatives of earlier searches go, but for those edited by hand."""
    solve.space.designs.exclude(key__in=kept).filter(done=[], undone=[]).delete()


def _tell(solve: models.Solve, **fields: object) -> None:
    for name, value in fields.items():
        setattr(solve, name, value)
    solve.save(update_fields=[*fields, "heard"])


def forget_the_dead() -> int:
    """Solves that a stopped worker left running: failed, with what they found."""
    return models.Solve.objects.filter(status=models.Solve.Status.RUNNING).update(
        status=models.Solve.Status.FAILED, problem="The worker stopped. What was found is kept; ask again."
    )
