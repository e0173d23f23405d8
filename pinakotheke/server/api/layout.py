"""Design: searches, the gallery of alternatives, hand edits with their consequences, and the ledger."""

from collections import Counter
from collections.abc import Sequence
from decimal import Decimal
from typing import Annotated, Any

from django.utils import timezone
from ninja import Router, Schema
from pydantic import Field

from pinakotheke.core.checks import Severity, check_design, check_survey
from pinakotheke.core.drawing import Drawing, design_elevation, design_plan
from pinakotheke.core.errors import PinakothekeError
from pinakotheke.core.inventory.kinds import Way
from pinakotheke.core.inventory.needs import ways
from pinakotheke.core.layout import Blocked, Command, Design, ledger
from pinakotheke.core.layout.edits import MOVABLE
from pinakotheke.core.layout.lots import ROLES_FOR
from pinakotheke.core.lengths import Units, with_unit
from pinakotheke.core.materials import bill, hours
from pinakotheke.core.survey import doubts, envelope, missing
from pinakotheke.core.systems import FAMILIES, HOLDERS, Part

from .. import models, rows
from ..actions import layout as actions
from ..actions.base import own_design, own_solve, own_space
from .common import (
    FindingView,
    LedgerView,
    MemberRequest,
    PathId,
    RowId,
    Version,
    finding_views,
    ledger_lines,
    slip_view,
)
from .materials import BillView, bill_view

router = Router(tags=["layout"])


class RelaxationView(Schema):
    """A change that would let everything fit."""

    kind: str
    sentence: str


class BlockedView(Schema):
    """Why not everything fits."""

    sentence: str
    relaxations: list[RelaxationView]


class SolveView(Schema):
    """A search as it stands."""

    id: int
    status: str
    progress: float
    message: str
    problem: str
    blocked: BlockedView | None


class Card(Schema):
    """An alternative in the gallery, with its label."""

    id: int
    version: int
    key: str
    title: str
    reason: str
    family: str
    holds: str
    left: str
    cost: str
    hours: float
    worst: FindingView | None
    stops: int
    edits: int
    elevation: Drawing


class Gallery(Schema):
    """All alternatives of a space and the last search for them."""

    currency: str
    solve: SolveView | None
    designs: list[Card]


class PartView(Schema):
    """A part in words, for the list beside the drawing and for the keyboard."""

    id: str
    role: str
    bay: int | None
    name: str
    size: str
    height: str
    movable: bool
    takes: list[Way]
    """Ways of storing that belong in it."""
    holds: list["HeldView"]


class HeldView(Schema):
    """Something that lives in a part, or has no place; `ways` it may be stored, the present or preferred one first."""

    thing: str
    name: str
    ways: list[Way]
    count: int


class DesignView(Schema):
    """A design whole: drawings, parts, ledger, findings and bill."""

    id: int
    version: int
    key: str
    title: str
    reason: str
    family: str
    run: str
    outcome: str
    elevation: Drawing
    plan: Drawing
    parts: list[PartView]
    unplaced: list[HeldView]
    bays: int
    addable: list[str]
    can_undo: bool
    can_redo: bool
    edits: int
    ledger: LedgerView
    bill: BillView


class EditAt(Schema):
    """An edit on top of a version."""

    version: Version
    command: Annotated[Command, Field(discriminator="do")]


class At(Schema):
    """The version something is based on."""

    version: Version


class _Scene:
    """A space with all that a design is judged by, read once for a request."""

    def __init__(self, space: models.Space) -> None:
        self.space, self.household = space, space.household
        self.units: Units = self.household.units  # type: ignore[assignment]
        self.rules = rows.rules_of(self.household)
        self.people = rows.people_of(self.household)
        self.survey = rows.survey_of(space)
        self.things = rows.things_of(space)

    def findings(self, design: Design | None) -> list[FindingView]:
        try:
            region = envelope(self.survey, self.rules)
        except PinakothekeError:
            return []
        if design is None:
            return finding_views(check_survey(self.survey, region), self.units)
        return finding_views(check_design(design, self.survey, region, self.things, self.people), self.units)

    def ledger(self, row: models.Design | None, design: Design | None, cost: Decimal | None) -> LedgerView:
        sums = ledger(self.things, self.rules, design)
        took = hours(design) if design else None
        return LedgerView(
            design=row.pk if row else None, design_title=design.title if design else "",
            lines=ledger_lines(sums, self.units), unplaced=sums.unplaced,
            cost=None if cost is None else f"{cost:.2f}",
            budget=None if self.rules.budget is None else f"{self.rules.budget:.2f}",
            currency=self.household.currency, hours=took.hours if took else None,
            hours_why=slip_view(took.why, self.units) if took else None, findings=self.findings(design),
        )  # fmt: skip

    def design(self, row: models.Design) -> DesignView:
        history = rows.history_of(row)
        design = history.current
        family = FAMILIES[design.family]
        the_bill = bill(design)
        today = timezone.localdate().isoformat()
        name = self.space.name
        return DesignView(
            id=row.pk, version=row.version, key=row.key, title=design.title, reason=design.reason, family=family.name,
            run=design.outcome.run, outcome=_outcome(design),
            elevation=design_elevation(design, self.survey, self.things, self.units, name, today),
            plan=design_plan(design, self.survey, self.units, name, today),
            parts=[self._part(design, p) for p in design.parts if p.role in HOLDERS or p.role in MOVABLE],
            unplaced=[self._held(u.thing, u.count) for u in design.unplaced],
            bays=len(design.bays), addable=sorted(family.roles - {"base"}), can_undo=bool(history.done),
            can_redo=bool(history.undone), edits=len(history.done), ledger=self.ledger(row, design, the_bill.total),
            bill=bill_view(the_bill, self.units, self.household.currency),
        )  # fmt: skip

    def _held(self, thing_id: str, count: int, way: Way | None = None) -> HeldView:
        thing = next((t for t in self.things if t.id == thing_id), None)
        others = [w for w in ways(thing, self.rules) if w != way] if thing else []
        return HeldView(thing=thing_id, name=thing.name if thing else thing_id,
                        ways=[way, *others] if way else others, count=count)  # fmt: skip

    def _part(self, design: Design, part: Part) -> PartView:
        size = " × ".join(with_unit(mm, self.units) for mm in (part.w, part.d, part.h))
        counts: Counter[tuple[str, Way]] = Counter()
        for a in design.held_by(part.id):
            counts[a.thing, a.way] += a.count
        held = [self._held(thing, count, way) for (thing, way), count in counts.items()]
        role = "shelf" if part.role == "base" else part.role
        where = f"bay {part.bay + 1}" if part.bay is not None else ""
        return PartView(id=part.id, role=part.role, bay=part.bay, name=f"{part.role}, {where}", size=size,
                        height=with_unit(part.z, self.units), movable=part.role in MOVABLE,
                        takes=[w for w, roles in ROLES_FOR.items() if role in roles], holds=held)  # fmt: skip

    def card(self, row: models.Design) -> Card:
        history = rows.history_of(row)
        design = history.current
        findings = [f for f in self.findings(design) if not f.code.startswith("survey.")]
        sums = ledger(self.things, self.rules, design)
        placed = sums.pieces - sums.unplaced
        free = [((line.spare or 0) / line.given, line.storage) for line in sums.lines if line.given]
        return Card(
            id=row.pk, version=row.version, key=row.key, title=design.title, reason=design.reason,
            family=FAMILIES[design.family].name, holds=f"{placed} of {sums.pieces} pieces",
            left=_free(free), cost=f"{bill(design).total:.2f}", hours=hours(design).hours,
            worst=findings[0] if findings else None, stops=sum(f.severity == "stop" for f in findings),
            edits=len(history.done),
            elevation=design_elevation(design, self.survey, self.things, self.units, self.space.name,
                                       dimensioned=False),
        )  # fmt: skip


def _free(shares: Sequence[tuple[float, str]]) -> str:
    """How much is left over: the least and the most, and of what."""
    if not shares:
        return ""
    (least, scarce), (most, ample) = min(shares), max(shares)
    return f"free: {least:.0%} of {scarce}" + (f" to {most:.0%} of {ample}" if len(shares) > 1 else "")


def _outcome(design: Design) -> str:
    """What the search can say of its answer, never as one figure *% optimal*."""
    o = design.outcome
    said = {
        "proven": "Proven best for these bays.",
        "within": f"Within {o.gap:.0%} of the bound for these bays.",
        "best found": f"Best found; the bound proves no better than {o.gap:.0%} away.",
    }[o.status]
    return f"{said} Objective {o.objective:.0f}, bound {o.bound:.0f} points; {o.method}."


def _blocked(raw: dict[str, Any] | None, scene: _Scene) -> BlockedView | None:
    if raw is None:
        return None
    blocked = Blocked.model_validate(raw)
    names = {t.id: t.name for t in scene.things}
    if blocked.kind == "size":
        short = with_unit(blocked.short, scene.units)
        said = f"No part fits: the clear {blocked.subject} is {short} too small for the smallest part."
    elif blocked.kind == "rules":
        said = "By the house rules nothing may stand on the floor and nothing may be drilled into a wall."
    elif blocked.kind == "too many":
        said = (
            f"There are {blocked.short:.0f} more {blocked.subject} than one space is searched for; join like with like."
        )
    else:
        listed = ", ".join(dict.fromkeys(names.get(t, t) for t in blocked.things[:6]))
        said = f"Not everything has a place: {blocked.short:.4g} {blocked.unit} too much ({listed})."
    return BlockedView(
        sentence=said,
        relaxations=[RelaxationView(kind=r.kind, sentence=_relaxation(r.kind, r.value, r.things, names, scene.units))
                     for r in blocked.relaxations],
    )  # fmt: skip


def _relaxation(kind: str, value: float, things: tuple[str, ...], names: dict[str, str], units: Units) -> str:
    listed = ", ".join(dict.fromkeys(names.get(t, t) for t in things[:6]))
    return {
        "reserve": f"A growth reserve of {value:.0%} would do.",
        "floor": "Letting parts stand on the floor would do.",
        "hangers": "Slim hangers would do.",
        "move out": f"Moving {value:.0f} pieces elsewhere would do: {listed}.",
        "size": f"{with_unit(value, units)} more would do.",
    }[kind]


def _solve_view(solve: models.Solve, scene: _Scene) -> SolveView:
    return SolveView(id=solve.pk, status=solve.status, progress=solve.progress, message=solve.message,
                     problem=solve.problem, blocked=_blocked(solve.blocked, scene))  # fmt: skip


@router.get("/spaces/{space_id}/designs", response=Gallery, operation_id="layout_gallery")
def gallery(request: MemberRequest, space_id: PathId) -> Gallery:
    """The alternatives of a space."""
    scene = _Scene(own_space(request.user, space_id))
    last = scene.space.solves.order_by("-pk").first()
    return Gallery(
        currency=scene.household.currency,
        solve=_solve_view(last, scene) if last else None,
        designs=[scene.card(row) for row in scene.space.designs.order_by("pk")],
    )


@router.post("/spaces/{space_id}/solves", response={202: SolveView}, operation_id="layout_ask")
def ask(request: MemberRequest, space_id: PathId) -> tuple[int, SolveView]:
    """Ask for alternatives."""
    solve = actions.ask(request.user, space_id)
    return 202, _solve_view(solve, _Scene(solve.space))


@router.get("/solves/{solve_id}", response=SolveView, operation_id="layout_solve")
def get_solve(request: MemberRequest, solve_id: PathId) -> SolveView:
    """A search as it stands."""
    solve = own_solve(request.user, solve_id)
    return _solve_view(solve, _Scene(solve.space))


@router.post("/solves/{solve_id}/cancel", response=SolveView, operation_id="layout_cancel")
def cancel(request: MemberRequest, solve_id: PathId) -> SolveView:
    """Stop a search; what it found stays."""
    solve = actions.cancel(request.user, solve_id)
    return _solve_view(solve, _Scene(solve.space))


@router.get("/designs/{design_id}", response=DesignView, operation_id="layout_get")
def get(request: MemberRequest, design_id: PathId) -> DesignView:
    """A design whole."""
    row = own_design(request.user, design_id)
    return _Scene(row.space).design(row)


@router.post("/designs/{design_id}/edits", response=DesignView, operation_id="layout_edit")
def edit(request: MemberRequest, design_id: PathId, data: EditAt) -> DesignView:
    """One hand edit; the answer carries all its consequences."""
    row = actions.edit(request.user, design_id, data.version, data.command)
    return _Scene(row.space).design(row)


@router.post("/designs/{design_id}/undo", response=DesignView, operation_id="layout_undo")
def undo(request: MemberRequest, design_id: PathId, data: At) -> DesignView:
    """Take back the last edit."""
    row = actions.undo(request.user, design_id, data.version)
    return _Scene(row.space).design(row)


@router.post("/designs/{design_id}/redo", response=DesignView, operation_id="layout_redo")
def redo(request: MemberRequest, design_id: PathId, data: At) -> DesignView:
    """Do again what was taken back."""
    row = actions.redo(request.user, design_id, data.version)
    return _Scene(row.space).design(row)


class States(Schema):
    """The state of each stage in a few words, for the spine."""

    survey: str
    inventory: str
    layout: str
    materials: str
    worst: Severity | None


class SpaceLedger(Schema):
    """The ledger of a space, and the spine's words."""

    ledger: LedgerView
    states: States


@router.get("/spaces/{space_id}/ledger", response=SpaceLedger, operation_id="layout_ledger")
def get_ledger(request: MemberRequest, space_id: PathId, design: RowId | None = None) -> SpaceLedger:
    """The ledger against a design of the space (the first one when none is named)."""
    scene = _Scene(own_space(request.user, space_id))
    rows_ = scene.space.designs.order_by("pk")
    row = (rows_.filter(pk=design).first() if design else None) or rows_.first()
    current = rows.history_of(row).current if row else None
    cost = bill(current).total if current else None
    view = scene.ledger(row, current, cost)
    return SpaceLedger(ledger=view, states=_states(scene, rows_.count(), view))


def _states(scene: _Scene, designs: int, view: LedgerView) -> States:
    absent, doubted = sum(s.needed for s in missing(scene.survey)), len(doubts(scene.survey))
    undecided = sum(t.decision == "undecided" for t in scene.things)
    stops = sum(f.severity == "stop" for f in view.findings)
    survey = f"{absent} reading{'s' if absent != 1 else ''} missing" if absent else "complete"
    if doubted:
        survey += f", {doubted} doubted"
    things = f"{len(scene.things)} things" if scene.things else "nothing yet"
    layout = f"{designs} alternative{'s' if designs != 1 else ''}" if designs else "not asked yet"
    if stops:
        layout += f", {stops} stop{'s' if stops != 1 else ''}"
    return States(
        survey=survey, inventory=things + (f", {undecided} undecided" if undecided else ""), layout=layout,
        materials=f"{view.cost} {view.currency}" if view.cost else "no design yet",
        worst=view.findings[0].severity if view.findings else None,
    )  # fmt: skip
