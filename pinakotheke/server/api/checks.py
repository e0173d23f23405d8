"""Check: what a design is asked and what was found, bay by bay; and the acts that would mend a finding."""

from typing import Annotated, Literal

from django.http import HttpResponse
from ninja import Router, Schema
from pydantic import Field

from pinakotheke.core.checks import (
    MENDABLE,
    SEVERITIES,
    Finding,
    Severity,
    kind_of,
    kinds,
    matrix,
    mended,
    mends,
    rules,
)
from pinakotheke.core.drawing import Asked, Said, check_report
from pinakotheke.core.layout import Command
from pinakotheke.core.materials import bill
from pinakotheke.core.saying import say, unsaid
from pinakotheke.core.tables import load
from pinakotheke.core.units import Units
from pinakotheke.core.words import BASES, DEFER, act_in_words, more_or_less, remedy_of
from pinakotheke.core.words.limits import limits_in_words

from .. import rows
from ..actions import work as actions
from ..actions.base import Stale, own_design
from .access import looking
from .common import FindingView, MemberRequest, PathId, finding_views
from .layout_view import Scene

router = Router(tags=["checks"])


class KindView(Schema):
    """A question a design is asked."""

    id: str
    name: str
    asks: str


class Asks(Schema):
    """A question that only a person can answer, and the answer there is."""

    question: str
    about: str
    says: Literal["yes", "no"] | None


class CheckedView(FindingView):
    """A finding with its number, the question it answers, and what can be done about it."""

    number: int
    kind: str
    unknown: bool
    """Not wrong for all that is known: what would tell was not read."""
    mendable: bool
    """Whether an act of the hand may mend it."""
    asks: Asks | None
    """Of what only a person can answer: which question, about what, and what was said."""


class CellView(Schema):
    """What was found for one question at one place: numbers of findings, and the worst of them."""

    kind: str
    findings: list[int]
    worst: Severity | None


class RowView(Schema):
    """A bay, or the space as a whole."""

    name: str
    bay: str | None
    """What the bay is called on the drawing."""
    cells: list[CellView]


class MendedView(Schema):
    """An act that was done and what it took away."""

    says: str
    took_away: list[str]


class ChecksView(Schema):
    """A design, question by question."""

    title: str
    version: int
    kinds: list[KindView]
    rows: list[RowView]
    findings: list[CheckedView]
    mended: list[MendedView]
    space_version: int
    """Of the space the design is of, for answers to what is asked."""


class AnswerData(Schema):
    """An answer on top of a version of the space; without *yes* or *no* the question is open again."""

    version: Annotated[int, Field(ge=0)]
    question: Annotated[str, Field(max_length=40)]
    about: Annotated[str, Field(max_length=80)] = ""
    says: Literal["yes", "no"] | None = None
    note: Annotated[str, Field(max_length=300)] = ""


class Answered(Schema):
    """The version that a space has now."""

    version: int


class Which(Schema):
    """A finding by its number in the list as it was shown, and the version it was shown of."""

    version: Annotated[int, Field(ge=0)]
    number: Annotated[int, Field(ge=0, le=10_000)]


class RuleView(Schema):
    """A check that is made: what it would say, the mend, and by whose rule."""

    kind: str
    code: str
    severity: Severity
    says: str
    remedy: str
    basis: str
    source: str


class Registry(Schema):
    """Every check that is made of a design and its survey, question by question."""

    kinds: list[KindView]
    rules: list[RuleView]


class MendView(Schema):
    """An act that mends a finding, what else it brings, and what it costs more."""

    says: str
    command: Annotated[Command, Field(discriminator="do")]
    brings: list[str]
    costs: str


class MendsView(Schema):
    """The few acts that would mend a finding, the least first."""

    each: list[MendView]


@router.get("/checks", response=Registry, operation_id="checks_registry")
def registry(request: MemberRequest, units: Units = "metric") -> Registry:
    """What is checked at all, with its sources; sizes in the household's units."""
    rows_ = sorted(rules().values(), key=lambda rule: [k.id for k in kinds()].index(kind_of(rule.code).id))
    return Registry(
        kinds=[KindView(id=k.id, name=k.name, asks=k.asks) for k in kinds()],
        rules=[
            RuleView(kind=kind_of(r.code).id, code=r.code, severity=r.severity, says=unsaid(r.says),
                     remedy=unsaid(remedy_of(r, units)), source=r.entry.source if r.rule else r.source,
                     basis=BASES.get(r.entry.basis if r.rule else r.basis, ""))
            for r in rows_
        ],
    )  # fmt: skip


@router.get("/designs/{design_id}/checks", response=ChecksView, operation_id="checks_of")
def checks(request: MemberRequest, design_id: PathId) -> ChecksView:
    """What was found in a design, worst first, and where."""
    row = own_design(request.user, design_id)
    scene, history = Scene(row.space), rows.history_of(row)
    design = history.current
    found, names = scene.findings(design), {t.id: t.name for t in scene.things}
    return ChecksView(
        title=design.title, version=row.version,
        kinds=[KindView(id=k.id, name=k.name, asks=k.asks) for k in kinds()],
        rows=[
            RowView(name="the space" if r.bay is None else f"bay {r.bay + 1}",
                    bay=None if r.bay is None else f"bay-{r.bay}",
                    cells=[_cell(k.id, r.found.get(k.id, ()), found) for k in kinds()])
            for r in matrix(design, found)
        ],
        findings=[
            CheckedView(**view.model_dump(), number=n, kind=kind_of(f.code).id, unknown=f.unknown,
                        mendable=f.code in MENDABLE, asks=_asks(f))
            for n, (f, view) in enumerate(zip(found, finding_views(found, scene.units), strict=True))
        ],
        mended=[
            MendedView(says=act_in_words(d.command, d.before, names, scene.units),
                       took_away=[v.sentence for v in finding_views(d.mends, scene.units)])
            for d in mended(history, scene.findings, MOST_MENDED)
        ],
        space_version=row.space.version,
    )  # fmt: skip


MOST_MENDED = 8
"""So many of the last acts are looked at for what they mended."""


def _asks(finding: Finding) -> Asks | None:
    facts = dict(finding.facts)
    if "ask" not in facts:
        return None
    says = finding.code.partition(".")[2]
    return Asks(question=str(facts["ask"]), about=str(facts["about"]),
                says=says if says in ("yes", "no") else None)  # type: ignore[arg-type]  # fmt: skip


@router.post("/spaces/{space_id}/answers", response=Answered, operation_id="checks_answer")
def answer(request: MemberRequest, space_id: PathId, data: AnswerData) -> Answered:
    """Keep what a member answers to a question that only a person can, with the member's name and the day."""
    said = actions.Said(data.question, data.about, data.says, data.note)
    return Answered(version=actions.answer(request.user, space_id, data.version, said).version)


def _cell(kind: str, numbers: tuple[int, ...], found: tuple[Finding, ...]) -> CellView:
    severities = [found[n].severity for n in numbers]
    return CellView(kind=kind, findings=list(numbers), worst=min(severities, key=SEVERITIES.index, default=None))


@router.post("/designs/{design_id}/mends", response=MendsView, operation_id="checks_mends", auth=looking)
def mends_of(request: MemberRequest, design_id: PathId, data: Which) -> MendsView:
    """The few acts that would mend a finding; none where it takes a reading, a purchase or a decision."""
    row = own_design(request.user, design_id)
    scene, design = Scene(row.space), rows.history_of(row).current
    found = scene.findings(design)
    if data.version != row.version or data.number >= len(found):
        raise Stale("design", data.version, row.version)
    cost, names = bill(design).total, {t.id: t.name for t in scene.things}

    return MendsView(each=[
        MendView(says=act_in_words(m.command, design, names, scene.units), command=m.command,
                 brings=[f.sentence for f in finding_views(m.brings.brings, scene.units)],
                 costs=more_or_less(bill(m.brings.after).total - cost, scene.household.currency) if m.brings.after else "")
        for m in mends(design, found[data.number], scene.things, scene.findings, lambda one: bill(one).total)
    ])  # fmt: skip


@router.get("/designs/{design_id}/checks.pdf", operation_id="checks_report")
def report(request: MemberRequest, design_id: PathId) -> HttpResponse:
    """The check report, to be printed: with what it was reckoned, what was found, by whose rule, and what is not known."""
    row = own_design(request.user, design_id)
    scene, design = Scene(row.space), rows.history_of(row).current
    found = scene.findings(design)
    said = [
        (kind_of(f.code).id, Said(severity=v.severity, sentence=v.sentence, remedy=v.remedy,
                                  source=f"{BASES.get(v.basis, v.basis)}: {v.source}", unknown=f.unknown))
        for f, v in zip(found, finding_views(found, scene.units), strict=True)
    ]  # fmt: skip
    here = [t for t in scene.things if t.stays]
    reckoned = {
        "readings": len(scene.survey.readings), "parts": len(design.parts), "bays": len(design.bays),
        "groups": len(here), "pieces": sum(t.count for t in here), "people": len(scene.people),
    }  # fmt: skip
    inputs = [say(load("check_report")["inputs"], reckoned, scene.units),
              limits_in_words(scene.rules.limits, scene.units)]  # fmt: skip
    asked = [Asked(name=k.name, asks=k.asks, found=tuple(s for kind, s in said if kind == k.id)) for k in kinds()]
    data = check_report(scene.space.name, design.title, scene.today, inputs, asked, DEFER, scene.units)
    response = HttpResponse(data, content_type="application/pdf")
    response["Content-Disposition"] = f'inline; filename="{row.space.key}-{row.key}-checks.pdf"'
    return response
