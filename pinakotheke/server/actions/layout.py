"""Searches for alternatives, and hand edits of designs."""

from django.db import transaction

from pinakotheke.core import layout as core
from pinakotheke.core.survey import envelope

from .. import models, rows
from .base import User, bump, log, own_design, own_solve, own_space


@transaction.atomic
def ask(user: User, space_id: int) -> models.Solve:
    """Ask for alternatives; a search of the same space that still runs is cancelled. Refused (by the core's own
    errors) while the survey gives no envelope.
    """
    from ..jobs import run_solve

    space = own_space(user, space_id)
    envelope(rows.survey_of(space), rows.rules_of(space.household))
    running = [models.Solve.Status.QUEUED, models.Solve.Status.RUNNING]
    space.solves.filter(status__in=running).update(cancel_requested=True)
    solve = models.Solve.objects.create(space=space, message="waiting for a worker")
    log(space.household, user, "layout.ask", space=space.key)
    transaction.on_commit(lambda: run_solve.enqueue(solve.pk))
    return solve


def cancel(user: User, solve_id: int) -> models.Solve:
    """Stop a search; what it found stays."""
    solve = own_solve(user, solve_id)
    if not solve.is_over:
        models.Solve.objects.filter(pk=solve.pk).update(cancel_requested=True)
        # A search that no worker has begun is over at once.
        models.Solve.objects.filter(pk=solve.pk, status=models.Solve.Status.QUEUED).update(
            status=models.Solve.Status.CANCELLED
        )
        log(solve.space.household, user, "layout.cancel", space=solve.space.key)
    solve.refresh_from_db()
    return solve


@transaction.atomic
def edit(user: User, design_id: int, version: int, command: core.Command) -> models.Design:
    """One hand edit."""
    row = own_design(user, design_id)
    return _keep(user, row, version, rows.history_of(row).after(command), f"layout.{command.do}")


@transaction.atomic
def undo(user: User, design_id: int, version: int) -> models.Design:
    """Take back the last edit."""
    row = own_design(user, design_id)
    return _keep(user, row, version, rows.history_of(row).undo(), "layout.undo")


@transaction.atomic
def redo(user: User, design_id: int, version: int) -> models.Design:
    """Do again what was taken back."""
    row = own_design(user, design_id)
    return _keep(user, row, version, rows.history_of(row).redo(), "layout.redo")


def _keep(user: User, row: models.Design, version: int, history: core.History, action: str) -> models.Design:
    bump(row, version, "design")
    row.done = [c.model_dump(mode="json") for c in history.done]
    row.undone = [c.model_dump(mode="json") for c in history.undone]
    row.save(update_fields=["done", "undone"])
    log(row.space.household, user, action, design=row.key)
    return row
