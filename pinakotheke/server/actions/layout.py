"""Searches for alternatives, relaxations, named versions, and hand edits of designs."""

from collections.abc import Callable
from decimal import Decimal
from typing import Any

from django.conf import settings
from django.db import transaction

from pinakotheke.core import layout as core
from pinakotheke.core.layout.edit.commands import Refound, SwapFamily
from pinakotheke.core.layout.goals import REASONS, TITLES
from pinakotheke.core.layout.placement.pool import offered
from pinakotheke.core.survey import envelope, envelopes, with_stacks

from .. import models, rows
from .base import Invalid, NotFound, Stale, User, bump, free_key, log, own_design, own_solve, own_space

OVER = [models.Solve.Status.DONE, models.Solve.Status.CANCELLED, models.Solve.Status.FAILED]
MOST_VERSIONS = 40
Edited = tuple[models.Design, core.History]
"""A design and its edits, as they were just carried out."""


@transaction.atomic
def ask(user: User, space_id: int, wishes: dict[str, Any] | None = None) -> models.Solve:
    """Ask for alternatives; a search of the same space that still runs is cancelled. Refused (by the core's own
    errors) while the survey gives no envelope.
    """
    from ..jobs import run_fairly

    space = own_space(user, space_id)
    survey, rules = rows.survey_of(space), rows.rules_of(space.household)
    if not envelopes(survey, rules):
        envelope(survey, rules)
    space.solves.exclude(status__in=OVER).update(cancel_requested=True, status=models.Solve.Status.CANCELLED)
    others = models.Solve.objects.filter(space__household=space.household).exclude(status__in=OVER).count()
    if others >= settings.MOST_SEARCHES:
        raise Invalid("search.too-many", most=settings.MOST_SEARCHES)
    solve = models.Solve.objects.create(space=space, message="waiting for a worker", ask=wishes or {})
    log(space.household, user, "layout.ask", space=space.key)
    transaction.on_commit(lambda: run_fairly(solve.pk, others))
    return solve


def finish_rest(user: User, design_id: int, version: int) -> models.Solve:
    """Find everything that is not locked anew, and keep it as one edit of the design."""
    row = own_design(user, design_id)
    if row.version != version:
        raise Stale("design", version, row.version)
    must_be_open(row)
    design = rows.history_of(row).current
    wishes = {"keep": row.pk, "version": version, "weights": design.weights.model_dump(), "finish":
              design.finish.model_dump()}  # fmt: skip
    return ask(user, row.space_id, wishes)


def cancel(user: User, solve_id: int) -> models.Solve:
    """Stop a search; what it found stays. It is over at once; the worker hears of it at its next look."""
    solve = own_solve(user, solve_id)
    stopped = models.Solve.objects.filter(pk=solve.pk).exclude(status__in=OVER)
    if stopped.update(cancel_requested=True, status=models.Solve.Status.CANCELLED, message="cancelled"):
        log(solve.space.household, user, "layout.cancel", space=solve.space.key)
    solve.refresh_from_db()
    return solve


@transaction.atomic
def relax(user: User, solve_id: int, index: int, design_id: int | None = None) -> models.Solve:
    """Carry out one of the changes that would let everything fit, and ask again. Pieces that are to leave are those
    without a place in the design in hand, or in the best one when none is named.
    """
    solve = own_solve(user, solve_id)
    blocked = core.Blocked.model_validate(solve.blocked) if solve.blocked else None
    if blocked is None or index >= len(blocked.relaxations):
        raise NotFound("change")
    change = blocked.relaxations[index]
    if not change.applies:
        raise Invalid("design.at-the-wall")
    household, wishes = solve.space.household, dict(solve.ask)
    if change.kind == "spares":
        _part_with(solve.space, {change.things[0]: round(change.value)}, _moves_out, "away")
    elif change.kind in ("fewer", "move out", "elsewhere"):
        row = solve.space.designs.filter(pk=design_id).first() if design_id is not None else None
        if design_id is not None and row is None:
            raise NotFound("design")
        if change.kind == "elsewhere":
            _move_there(solve.space, change, row)
        else:
            _send_away(solve.space, "move" if change.kind == "move out" else "give away", row)
    elif change.kind == "lock":
        space = solve.space
        space.use = {**space.use, "locked": True}
        bump(space, space.version, "space")
        space.save(update_fields=["use"])
    elif change.kind == "fold":
        wishes["folds"] = True
    elif change.kind == "families":
        wishes["families"] = list(offered(rows.rules_of(household), rows.ranges_of(household)))
    else:
        rules = rows.rules_of(household).model_copy(update=_rule(change))
        household.rules = rules.model_dump(mode="json")
        bump(household, household.version, "household")
        household.save(update_fields=["rules"])
    log(household, user, "layout.relax", space=solve.space.key, kind=change.kind, value=change.value)
    return ask(user, solve.space_id, wishes)


def _rule(change: core.Relaxation) -> dict[str, Any]:
    """The house rule a relaxation changes."""
    rules: dict[str, dict[str, Any]] = {
        "reserve": {"reserve": change.value},
        "hangers": {"hangers": "slim"},
        "floor": {"floor": "purposeful"},
        "access": {"access": "dense"},
        "drill": {"drill": "anywhere"},
        "budget": {"budget": Decimal(str(round(change.value + 0.5)))},
    }
    return rules[change.kind]


def _send_away(space: models.Space, decision: str, row: models.Design | None) -> None:
    """The pieces without a place leave the demand."""

    def leave(thing: models.Thing) -> None:
        thing.decision = decision

    _part_with(space, _without_place(space, row), leave, "away")


def _moves_out(thing: models.Thing) -> None:
    thing.decision = "move"


def _move_there(space: models.Space, change: core.Relaxation, row: models.Design | None) -> None:
    """The pieces without a place go to the spaces that have room for them."""
    rooms = {key: space.household.space_set.get(key=key) for key in {s for _, s in change.moves}}
    where = dict(change.moves)

    def move(thing: models.Thing) -> None:
        thing.space = rooms[where.get(thing.key, change.moves[0][1])]

    _part_with(space, _without_place(space, row), move, "there")


def _without_place(space: models.Space, row: models.Design | None) -> dict[str, int]:
    """The pieces without a place in a design, or in the best one found, by thing."""
    designs = [rows.history_of(d).current for d in ([row] if row else space.designs.order_by("pk"))]
    if not designs:
        raise Invalid("design.search-gone")
    return {u.thing: u.count for u in min(designs, key=lambda d: sum(u.count for u in d.unplaced)).unplaced}


def _part_with(space: models.Space, pieces: dict[str, int], do: Callable[[models.Thing], None], said: str) -> None:
    """Do something with so many pieces of some things: to whole groups, and of others to a group of their own."""
    taken = set(space.household.thing_set.values_list("key", flat=True))
    for key, count in pieces.items():
        thing = space.household.thing_set.filter(key=key).first()
        if thing is None:
            continue
        if count >= thing.count:
            do(thing)
        else:
            thing.count -= count
            apart = models.Thing.objects.get(pk=thing.pk)
            apart.pk, apart.count = None, count
            do(apart)
            apart.key = free_key(taken, f"{thing.key}-{said}")
            taken.add(apart.key)
            apart._state.adding = True
            apart.save()
        bump(thing, thing.version, "thing")
        thing.save(update_fields=["decision", "count", "space"])


@transaction.atomic
def hang(user: User, solve_id: int, index: int) -> models.Design:
    """Hang a design of the frontier in the gallery."""
    solve = own_solve(user, solve_id)
    if index >= len(solve.frontier) or not solve.frontier[index].get("design"):
        raise NotFound("design")
    base = core.Design.model_validate(solve.frontier[index]["design"])
    regions = envelopes(with_stacks(rows.survey_of(solve.space)), rows.rules_of(solve.space.household))
    here = {s.section for s in base.rows}
    key = free_key(set(solve.space.designs.values_list("key", flat=True)), "frontier")
    base = base.model_copy(
        update={"id": key, "regions": tuple(r for name, r in regions.items() if name in here),
                "title": TITLES["frontier"].format(number=index + 1), "reason": REASONS["frontier"]}
    )  # fmt: skip
    log(solve.space.household, user, "layout.hang", space=solve.space.key, design=key)
    return models.Design.objects.create(space=solve.space, key=key, base=base.model_dump(mode="json"), kept=True,
                                        solve=solve)  # fmt: skip


@transaction.atomic
def keep_version(user: User, design_id: int, name: str) -> models.Design:
    """Keep the design as it stands under a name of its own."""
    row = own_design(user, design_id)
    if row.space.designs.filter(kept=True).count() >= MOST_VERSIONS:
        raise Invalid("design.too-many-versions")
    key = free_key(set(row.space.designs.values_list("key", flat=True)), name)
    base = rows.history_of(row).current
    base = base.model_copy(update={"id": key, "title": name, "reason": REASONS["kept"].format(title=base.title)})
    log(row.space.household, user, "layout.keep", space=row.space.key, design=row.key, name=name)
    return models.Design.objects.create(space=row.space, key=key, base=base.model_dump(mode="json"), kept=True)


@transaction.atomic
def take_down(user: User, design_id: int) -> None:
    """Take a design out of the gallery; not one that a client signed off."""
    row = own_design(user, design_id)
    must_be_open(row)
    log(row.space.household, user, "layout.take-down", space=row.space.key, design=row.key)
    row.delete()


@transaction.atomic
def edit(user: User, design_id: int, version: int, command: core.Command) -> Edited:
    """One hand edit."""
    row = own_design(user, design_id)
    if isinstance(command, Refound):
        raise Invalid("design.not-whole")
    if isinstance(command, SwapFamily):
        own = next((r for r in rows.ranges_of(row.space.household) if r.family_id == command.family), None)
        command = command.model_copy(update={"own": own})
    return _keep(user, row, version, rows.history_of(row).after(command), f"layout.{command.do}")


@transaction.atomic
def undo(user: User, design_id: int, version: int) -> Edited:
    """Take back the last edit."""
    row = own_design(user, design_id)
    return _keep(user, row, version, rows.history_of(row).undo(), "layout.undo")


@transaction.atomic
def redo(user: User, design_id: int, version: int) -> Edited:
    """Do again what was taken back."""
    row = own_design(user, design_id)
    return _keep(user, row, version, rows.history_of(row).redo(), "layout.redo")


@transaction.atomic
def keep_found(solve: models.Solve, design: core.Design) -> None:
    """What a search found around the locked parts, as one more edit of the design it was asked for."""
    row = models.Design.objects.select_related("space__household").get(pk=solve.ask["keep"])
    history = rows.history_of(row).after(Refound(design=design))
    _write(row, int(solve.ask["version"]), history)


def _keep(user: User, row: models.Design, version: int, history: core.History, action: str) -> Edited:
    _write(row, version, history)
    log(row.space.household, user, action[:40], space=row.space.key, design=row.key)
    return row, history


def must_be_open(row: models.Design) -> None:
    """Refuse to change a design that a client signed off."""
    if row.signed is not None:
        raise Invalid("design.signed", by=row.signed["by"], on=row.signed["on"])


def _write(row: models.Design, version: int, history: core.History) -> None:
    must_be_open(row)
    bump(row, version, "design")
    row.done = [c.model_dump(mode="json") for c in history.done]
    row.undone = [c.model_dump(mode="json") for c in history.undone]
    row.save(update_fields=["done", "undone"])
