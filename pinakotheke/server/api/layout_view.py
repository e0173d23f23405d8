"""What the page is shown of searches and designs: cards, drawings, parts in words, findings, the ledger."""

from collections import Counter
from decimal import Decimal
from functools import cached_property
from typing import Any, Literal

from django.utils import timezone
from ninja import Schema
from pydantic import ValidationError

from pinakotheke.core.checks import Finding, Memory, check_design, check_survey
from pinakotheke.core.drawing import Drawing, design_elevation, design_plan, design_round
from pinakotheke.core.drawing.of_design import Inside
from pinakotheke.core.house import Person, eye_height, reach_zone
from pinakotheke.core.inventory.kinds import Way
from pinakotheke.core.inventory.needs import ways
from pinakotheke.core.layout import Blocked, Design, History, Ledger, Limits, Relaxation, Sensitivity, Weights, ledger
from pinakotheke.core.layout.edit.edits import MOVABLE
from pinakotheke.core.layout.edit.replay import replayed
from pinakotheke.core.layout.report.because import Reasons
from pinakotheke.core.layout.report.leftover import room_for
from pinakotheke.core.layout.report.merits import Merits, merits
from pinakotheke.core.layout.report.sense import sense
from pinakotheke.core.layout.report.trial import trial_marks
from pinakotheke.core.materials import bill, hours
from pinakotheke.core.survey import envelopes, with_stacks
from pinakotheke.core.systems import HOLDERS, Catalogue, Finish, Part
from pinakotheke.core.systems.families.insert import TraySet
from pinakotheke.core.units import Units, with_unit, with_units
from pinakotheke.core.words import (
    Speech,
    agreed_in_words,
    because_in_words,
    blocked_in_words,
    family_names,
    figures,
    free_in_words,
    glance_in_words,
    holds_in_words,
    method_in_words,
    money,
    no_place_in_words,
    outcome_in_words,
    relaxation_in_words,
    sensitivity_in_words,
)

from .. import models, rows
from ..actions.base import Invalid
from ..jobs import worker_is_there
from .common import FindingView, LedgerView, finding_views, ledger_lines, slip_view

PIECES: tuple[Literal["fewer", "move out"], ...] = ("fewer", "move out")
"""Changes that are about the pieces without a place, which each design has its own of."""


class RelaxationView(Schema):
    """A change that would let everything fit; `applies` when the tool can carry it out."""

    index: int
    kind: str
    sentence: str
    applies: bool
    pieces: bool = False
    """Whether it is about the pieces without a place, which each design has its own of."""


class BlockedView(Schema):
    """Why not everything fits."""

    sentence: str
    reasons: list[str]
    """Of each thing that is left over, why: the size and by how much it misses."""
    relaxations: list[RelaxationView]


class PointView(Schema):
    """A design on the frontier: cost, share of room left, trouble of reaching."""

    index: int
    cost: float
    room: float
    reach: float
    name: str
    """Cost and family in words."""


class CardVersion(Schema):
    """Which version of an alternative there is: what a page has of an older one, it fetches anew."""

    id: int
    version: int


class SolveView(Schema):
    """A search as it stands, and what it was asked."""

    id: int
    status: str
    progress: float
    message: str
    problem: str
    blocked: BlockedView | None
    points: list[PointView]
    told: list[str]
    """What one more or one less would change, in sentences."""
    weights: Weights | None
    finish: Finish
    within_budget: bool
    families: list[str]
    folds: bool
    around: int | None
    """The design whose locked parts stay."""
    cards: list[CardVersion]
    """The alternatives there are, each with its version."""


class FamilyView(Schema):
    """A family that can be asked for; `in_drawers` whether it fits out drawers, and is no row of parts."""

    id: str
    name: str
    about: str
    in_drawers: bool


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
    glance: str
    """What a practitioner would mind at a glance."""
    worst: FindingView | None
    stops: int
    edits: int
    kept: bool
    agreed: str
    """Who chose it or signed it off, and when."""
    signed: bool
    """Nobody changes it."""
    merits: Merits
    """Points against it for every unit of weight, by what a person may care for; less is better."""
    elevation: Drawing


class Aside(Schema):
    """A design that cannot be carried out any more, and why: it is set aside, and the others hang on."""

    id: int
    title: str
    problem: str


class Gallery(Schema):
    """All alternatives of a space and the last search for them."""

    currency: str
    solve: SolveView | None
    designs: list[Card]
    aside: list[Aside]
    families: list[FamilyView]
    strips: list[tuple[int, str]]
    """Thicknesses of strip that a drawer can be parted with, mm, each in words; none where there is no drawer."""
    usual_finish: Finish
    """As the household finishes its spaces where nobody says otherwise."""


class HeldView(Schema):
    """Something that lives in a part, or has no place; `ways` it may be stored, the present or preferred one first."""

    thing: str
    name: str
    ways: list[Way]
    count: int


class PartView(Schema):
    """A part in words, for the list beside the drawing and for the keyboard."""

    id: str
    role: str
    bay: int | None
    name: str
    size: str
    height: str
    movable: bool
    locked: bool
    resizable: bool
    becomes: list[str]
    """Roles it can be swapped for."""
    takes: list[Way]
    """Ways of storing that belong in it."""
    pitch: float
    step: int
    """Of what lies on a drawer's floor: mm of a step by hand; 0 for all others."""
    tray: bool
    """Whether it is a tray, which can be turned and shifted; other compartments change by their dividers."""
    z: int
    holds: list[HeldView]
    room_for: str
    """Of a compartment left free in a drawer: what would lie there; empty for all others."""
    because: list[str]
    """Why it is where it is, and holds what it holds: a sentence a rule."""


class BayView(Schema):
    """A bay in words: what can be added, and whether it is locked."""

    index: int
    name: str
    family: str
    locked: bool
    widens: bool
    """Whether its module comes in other widths; what is cut to the wall does not."""
    addable: list[str]
    low: int
    high: int


class MarkView(Schema):
    """A height to tape on the wall first."""

    where: str
    height: str
    what: str


class EyesView(Schema):
    """Somebody who looks at a design: how high the eyes are, and between which heights the hands reach, mm."""

    name: str
    eye: float
    low: float
    easy_low: float
    easy_high: float
    high: float
    reach: str
    """The reach in words."""


class DesignView(Schema):
    """A design whole: drawings, parts, ledger and findings."""

    id: int
    version: int
    key: str
    title: str
    reason: str
    family: str
    run: str
    outcome: str
    asked: str
    """Asked against capacity, for the line under the outcome."""
    elevation: Drawing
    plan: Drawing
    parts: list[PartView]
    bays: list[BayView]
    eyes: list[EyesView]
    """Everybody of the house, as they stand or sit before it."""
    flat: bool
    """Drawers and levels: the elevation shows all that a plan would."""
    room: bool
    """Several walls of one room, which may be laid out round their plan."""
    unplaced: list[HeldView]
    without: dict[str, str]
    """What would have to leave for what has no place in this design, by kind of change."""
    finish: Finish
    weights: Weights
    marks: list[MarkView]
    can_undo: bool
    can_redo: bool
    edits: int
    kept: bool
    agreed: str
    """Who chose it or signed it off, and when."""
    signed: bool
    ledger: LedgerView


class DrawingOptions(Schema):
    """How a design is drawn."""

    inside: Inside = "hatch"
    doors: Literal["open", "shut"] = "open"
    dimensions: bool = True
    marks: bool = False
    walls: Literal["unfolded", "round the plan"] = "unfolded"


class Scene:
    """A space with all that a design is judged by, read once for a request."""

    def __init__(self, space: models.Space) -> None:
        self.space, self.household = space, space.household
        self.units: Units = self.household.units  # type: ignore[assignment]
        self.rules = rows.rules_of(self.household)
        self.ranges = rows.ranges_of(self.household)
        self.catalogue = Catalogue(self.ranges)
        self.people = rows.people_of(self.household)
        self.survey = with_stacks(rows.survey_of(space))
        self.things = rows.things_of(space)
        self.regions = envelopes(self.survey, self.rules)
        self.today = timezone.localdate().isoformat()
        self._checked = Memory()

    @cached_property
    def speech(self) -> Speech:
        """How the household speaks of its things and spaces."""
        spaces = dict(self.household.space_set.values_list("key", "name"))
        return Speech({t.id: t.name for t in self.things}, self.units, self.household.currency, spaces)

    @cached_property
    def limits(self) -> Limits:
        """What must never be in this space."""
        return Limits.in_space(self.people, self.survey, self.regions, rows.use_of(self.space))

    def findings(self, design: Design | None) -> tuple[Finding, ...]:
        """What is wrong with a design, or with the survey while there is none; worst first."""
        if not self.regions:
            return ()
        if design is None:
            return check_survey(self.survey, self.regions)
        return check_design(
            design, self.survey, self.regions, self.things, self.people, limits=self.limits,
            use=rows.use_of(self.space), house=self.rules,
            memory=self._checked,
        )  # fmt: skip

    def ledger(self, row: models.Design | None, design: Design | None, cost: Decimal | None,
               sums: Ledger | None = None) -> LedgerView:  # fmt: skip
        """The ledger in words; `sums` where they are reckoned."""
        sums = sums or ledger(self.things, self.rules, design)
        took, currency = hours(design) if design else None, self.household.currency
        return LedgerView(
            design=row.pk if row else None, design_title=design.title if design else "",
            lines=ledger_lines(sums, self.units), unplaced=sums.unplaced,
            cost=None if cost is None else figures(cost, currency),
            budget=None if self.rules.budget is None else figures(self.rules.budget, currency),
            currency=currency, hours=took.hours if took else None,
            hours_why=slip_view(took.why, self.units) if took else None,
            findings=finding_views(tuple(f for f in self.findings(design) if f.code != "ask.open"), self.units),
        )  # fmt: skip

    def elevation(self, design: Design, options: DrawingOptions) -> Drawing:
        if options.walls == "round the plan" and self.survey.main.at_wall:
            return design_round(design, self.survey, self.things, self.units, self.space.name, self.today,
                                inside=options.inside, doors=options.doors)  # fmt: skip
        marks = trial_marks(design) if options.marks else ()
        return design_elevation(design, self.survey, self.things, self.units, self.space.name, self.today,
                                dimensioned=options.dimensions, inside=options.inside, doors=options.doors,
                                marks=marks)  # fmt: skip

    def design(self, row: models.Design, history: History | None = None) -> DesignView:
        """A design with all its consequences; `history` where it is at hand."""
        history = history or rows.history_of(row)
        design = history.current
        the_bill = bill(design)
        sums = ledger(self.things, self.rules, design)
        reasons = Reasons(design, self.things, self.people, self.limits)
        agreed = agreed_in_words(*rows.agreed_of(row))
        elevation = self.elevation(design, DrawingOptions())
        return DesignView(
            id=row.pk, version=row.version, key=row.key, title=design.title, reason=design.reason,
            family=families_of(design), run=method_in_words(design.outcome.run, self.units),
            outcome=outcome_in_words(design, self.units),
            asked="; ".join(f"{line.storage} {line.asked / line.given:.0%} full" for line in sums.lines if line.given),
            elevation=elevation.model_copy(
                update={"title": elevation.title.model_copy(update={"agreed": agreed})}
            ),
            plan=design_plan(design, self.survey, self.units, self.space.name, self.today),
            parts=[self._part(design, p, reasons) for p in design.parts if p.role in HOLDERS or p.role in MOVABLE],
            bays=[self._bay(design, n) for n in range(len(design.bays))],
            eyes=[self._eyes(p) for p in self.people],
            flat=not any(s.at_wall for s in self.survey.parts), room=len(self.survey.runs) > 1,
            unplaced=[self._held(u.thing, u.count) for u in design.unplaced], without=self._without(design),
            finish=design.finish,
            weights=design.weights,
            marks=[MarkView(where=self.survey.section(m.section).label, height=with_unit(m.z, self.units), what=m.what)
                   for m in trial_marks(design)],
            can_undo=bool(history.done), can_redo=bool(history.undone), edits=len(history.done), kept=row.kept,
            agreed=agreed, signed=row.signed is not None,
            ledger=self.ledger(row, design, the_bill.total, sums),
        )  # fmt: skip

    def _without(self, design: Design) -> dict[str, str]:
        left = tuple(u.thing for u in design.unplaced)
        pieces = sum(u.count for u in design.unplaced)
        changes = (Relaxation(kind=kind, value=pieces, things=left) for kind in PIECES) if pieces else ()
        return {c.kind: relaxation_in_words(c, self.speech) for c in changes}

    def _held(self, thing_id: str, count: int, way: Way | None = None) -> HeldView:
        thing = next((t for t in self.things if t.id == thing_id), None)
        others = [w for w in ways(thing, self.rules) if w != way] if thing else []
        return HeldView(thing=thing_id, name=thing.name if thing else thing_id,
                        ways=[way, *others] if way else others, count=count)  # fmt: skip

    def _part(self, design: Design, part: Part, reasons: Reasons) -> PartView:
        size = with_units((part.w, part.d, part.h), self.units)
        counts: Counter[tuple[str, Way]] = Counter()
        for a in design.held_by(part.id):
            counts[a.thing, a.way] += a.count
        held = [self._held(thing, count, way) for (thing, way), count in counts.items()]
        family, bay = design.family_of(part), design.bay_of(part)
        movable, is_tray = part.role in MOVABLE, isinstance(family, TraySet)
        where = self.survey.section(part.section).label if bay.drawer else f"bay {(part.bay or 0) + 1}"
        spec = family.spec("shelf" if part.role == "cover" else part.role)
        return PartView(
            id=part.id, role=part.role, bay=part.bay, name=f"{'tray' if is_tray else part.role}, {where}", size=size,
            height=with_unit(part.z + bay.foot, self.units), movable=movable, locked=part.locked,
            resizable=bool(spec.fronts), becomes=sorted(family.roles - {part.role, "floor"}) if movable else [],
            takes=[w for w in spec.ways if part.role != "cover"],
            pitch=bay.pitch if bay.drawer is None else 0, step=bay.pitch if bay.drawer is not None else 0,
            tray=is_tray, z=part.z, holds=held,
            room_for=", ".join(f"{count} {self.speech.names.get(thing, thing)}"
                               for thing, count in room_for(design, part, self.things)),
            because=because_in_words(reasons.of(part), self.units),
        )  # fmt: skip

    def _eyes(self, person: Person) -> EyesView:
        zone = reach_zone(person)
        return EyesView(
            name=person.name, eye=eye_height(person), low=zone.low, easy_low=zone.easy_low, easy_high=zone.easy_high,
            high=zone.high, reach=f"{with_unit(zone.low, self.units)} to {with_unit(zone.high, self.units)}",
        )  # fmt: skip

    def _bay(self, design: Design, index: int) -> BayView:
        bay = design.bays[index]
        family = design.family_of(bay)
        label = self.survey.section(bay.section).label
        where = f", {label}" if len(design.sections) > 1 else ""
        addable = frozenset() if family.laid_out_apart else family.roles - {"floor"}
        return BayView(
            index=index, name=label if bay.drawer else f"bay {index + 1}{where}", family=family.name, locked=bay.locked,
            widens=len(family.modules) > 1 and family.fillings(bay.w) is None, addable=sorted(addable),
            low=bay.z0, high=bay.z1,
        )  # fmt: skip

    def aside(self, row: models.Design) -> Aside | None:
        """Why a design cannot be carried out; None when it can."""
        try:
            wrong = next(replayed(rows.history_of(row)), None)
        except ValidationError as error:
            first = error.errors()[0]
            wrong = (".".join(map(str, first["loc"])), "", first["msg"])
        if wrong is None:
            return None
        path, found, expected = wrong
        title = str(row.base.get("title") or row.key)
        return Aside(id=row.pk, title=title, problem=f"{path}: found {found or 'something else'}; expected {expected}.")

    def card_or_refuse(self, row: models.Design) -> Card:
        """The card of one design; refused when it cannot be carried out."""
        card = self.card(row)
        if card is None:
            aside = self.aside(row)
            raise Invalid("design.set-aside", problem=aside.problem if aside else "")
        return card

    def card(self, row: models.Design) -> Card | None:
        """An alternative as it hangs; None for one that is set aside."""
        if self.aside(row) is not None:
            return None
        history = rows.history_of(row)
        design = history.current
        findings = [f for f in self.findings(design) if not f.code.startswith("survey.")]
        sums = ledger(self.things, self.rules, design)
        worst, took = finding_views(tuple(findings[:1]), self.units), hours(design).hours
        return Card(
            id=row.pk, version=row.version, key=row.key, title=design.title, reason=design.reason,
            family=families_of(design), holds=holds_in_words(sums), left=free_in_words(sums),
            cost=figures(bill(design).total, self.household.currency), hours=took,
            glance=glance_in_words(sense(design, self.things, self.people)),
            worst=worst[0] if worst else None,
            stops=sum(f.severity == "stop" for f in findings), edits=len(history.done), kept=row.kept,
            agreed=agreed_in_words(history.chosen, history.signed), signed=history.signed is not None,
            merits=merits(design, took, self.things, self.people, self.survey),
            elevation=self.elevation(design, DrawingOptions(dimensions=False)),
        )  # fmt: skip

    def solve(self, solve: models.Solve) -> SolveView:
        """A search in words."""
        wishes = solve.ask
        told = [Sensitivity.model_validate(s) for s in solve.sensitivities]
        return SolveView(
            id=solve.pk, status=solve.status, progress=solve.progress, message=_message(solve), problem=solve.problem,
            blocked=self._blocked(solve.blocked),
            points=[_point(n, p, self.catalogue, self.household.currency) for n, p in enumerate(solve.frontier)],
            told=[sensitivity_in_words(s, self.units, self.household.currency, self.catalogue) for s in told],
            weights=Weights.model_validate(wishes["weights"]) if wishes.get("weights") else None,
            finish=Finish.model_validate(wishes["finish"]) if wishes.get("finish") else Finish.of_house(self.rules),
            within_budget=bool(wishes.get("within_budget")), families=list(wishes.get("families") or []),
            folds=bool(wishes.get("folds")),
            around=wishes.get("keep"),
            cards=[CardVersion(id=pk, version=version)
                   for pk, version in solve.space.designs.order_by("pk").values_list("pk", "version")],
        )  # fmt: skip

    def _blocked(self, raw: dict[str, Any] | None) -> BlockedView | None:
        if raw is None:
            return None
        blocked, speech = Blocked.model_validate(raw), self.speech
        return BlockedView(
            sentence=blocked_in_words(blocked, speech),
            reasons=[no_place_in_words(r, speech) for r in blocked.refused],
            relaxations=[
                RelaxationView(index=n, kind=r.kind, applies=r.applies, pieces=r.kind in PIECES,
                               sentence=relaxation_in_words(r, speech))
                for n, r in enumerate(blocked.relaxations)
            ],
        )  # fmt: skip


def _point(n: int, raw: dict[str, Any], catalogue: Catalogue, currency: str) -> PointView:
    cost, families = float(raw["cost"]), family_names(raw["families"], catalogue, " and ")
    said = f"{money(cost, currency, whole=True)}, {raw['room']:.0%} room, reach {raw['reach']:.0f}"
    return PointView(index=n, cost=cost, room=raw["room"], reach=raw["reach"],
                     name=f"{said}: {raw['bays']} bays of {families}")  # fmt: skip


def families_of(design: Design) -> str:
    """Names of the families it is built of."""
    built = {p.family for p in design.parts}
    return ", ".join(design.catalogue[f].name for f in dict.fromkeys((*design.families, *sorted(built))) if f in built)


def _message(solve: models.Solve) -> str:
    """How far a search is; of one that waits, also that nobody is there to carry it out."""
    if solve.status == models.Solve.Status.QUEUED and not worker_is_there():
        return str(Invalid("search.no-worker"))
    return solve.message
