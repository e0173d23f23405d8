"""Design: searches, the gallery of alternatives, hand edits with their consequences, drawings, and the ledger."""

from typing import Annotated, Literal

from django.http import HttpResponse
from ninja import Query, Router, Schema
from pydantic import Field

from pinakotheke.core.checks import consequences
from pinakotheke.core.drawing import (
    SCALES,
    TEXT_MM,
    Drawing,
    design_elevation,
    design_plan,
    design_section,
    to_pdf,
    walkround,
)
from pinakotheke.core.drawing.pdf import Scale
from pinakotheke.core.layout import Command, Weights
from pinakotheke.core.layout.placement.pool import offered
from pinakotheke.core.layout.report.compare import home_differences, part_differences
from pinakotheke.core.materials import bill
from pinakotheke.core.systems import FAMILIES, Finish
from pinakotheke.core.systems.families.insert import Dividers
from pinakotheke.core.units import with_unit, with_units
from pinakotheke.core.words import States, agreed_in_words, home_in_words, more_or_less, states_in_words

from .. import models, rows
from ..actions import layout as actions
from ..actions.base import Invalid, own_design, own_solve, own_space
from ..memo import remembered
from . import rates
from .access import looking
from .common import LedgerView, MemberRequest, PathId, RowId, TypedName, Version, finding_views
from .layout_view import Card, DesignView, DrawingOptions, FamilyView, Gallery, Scene, SolveView

router = Router(tags=["layout"])


class Ask(Schema):
    """What to search for: the usual goals, and a person's own weights beside them when given."""

    weights: Weights | None = None
    finish: Finish | None = None
    within_budget: bool = False
    families: Annotated[list[str], Field(max_length=40)] = []
    folds: bool = False
    """Whether what creases may be laid away where the rails are full."""


class EditAt(Schema):
    """An edit on top of a version."""

    version: Version
    command: Annotated[Command, Field(discriminator="do")]


class Tried(Schema):
    """Edits that are asked about, none of them made."""

    commands: Annotated[list[Annotated[Command, Field(discriminator="do")]], Field(min_length=1, max_length=60)]


class ConsequenceView(Schema):
    """What an edit would bring: sentences of what is wrong afterwards and what no longer is, and what it costs more."""

    refused: str
    stops: int
    brings: list[str]
    mends: list[str]
    costs: str
    """More (+) or less (−) money, with its currency; empty where it costs the same."""


class Consequences(Schema):
    """What each of some edits would bring, in their order."""

    each: list[ConsequenceView]


class At(Schema):
    """The version something is based on."""

    version: Version


class Named(Schema):
    """A name for a version."""

    name: TypedName


class PartDifferenceView(Schema):
    """So many of an article in each of two designs."""

    name: str
    size: str
    here: int
    there: int


class HomeDifferenceView(Schema):
    """Where a thing lives in each of two designs."""

    name: str
    here: str
    there: str


class Comparison(Schema):
    """Two designs part by part."""

    here: str
    there: str
    facts: list[tuple[str, str, str]]
    parts: list[PartDifferenceView]
    homes: list[HomeDifferenceView]


@router.get("/spaces/{space_id}/designs", response=Gallery, operation_id="layout_gallery")
def gallery(request: MemberRequest, space_id: PathId) -> HttpResponse:
    """The alternatives of a space."""
    space = own_space(request.user, space_id)
    return remembered(request, space.household, lambda: _gallery(space))


def _gallery(space: models.Space) -> Gallery:
    scene = Scene(space)
    last, whole = scene.space.solves.order_by("-pk").first(), list(scene.space.designs.order_by("pk"))
    kinds = {s.kind for s in scene.survey.parts}
    families = [scene.catalogue[f] for f in offered(scene.rules, scene.ranges)]
    return Gallery(
        currency=scene.household.currency,
        solve=scene.solve(last) if last else None,
        designs=[card for row in whole if (card := scene.card(row)) is not None],
        aside=[aside for row in whole if (aside := scene.aside(row)) is not None],
        families=[FamilyView(id=f.id, name=f.name, about=f.about, in_drawers=f.laid_out_apart)
                  for f in families if f.places & kinds],
        strips=[(mm, with_unit(mm, scene.units)) for f in families if isinstance(f, Dividers) and f.places & kinds
                for mm in f.table.thicknesses],
        usual_finish=Finish.of_house(scene.rules),
    )  # fmt: skip


@router.post("/spaces/{space_id}/solves", response={202: SolveView}, operation_id="layout_ask", throttle=rates.searches)
def ask(request: MemberRequest, space_id: PathId, data: Ask | None = None) -> tuple[int, SolveView]:
    """Ask for alternatives."""
    wishes = data.model_dump(mode="json", exclude_none=True) if data else {}
    household = own_space(request.user, space_id).household
    known = [*FAMILIES, *(r.family_id for r in rows.ranges_of(household))]
    unknown = [f for f in wishes.get("families", ()) if f not in known]
    if unknown:
        raise Invalid("design.no-family", family=unknown[0], known=known)
    solve = actions.ask(request.user, space_id, wishes)
    return 202, Scene(solve.space).solve(solve)


@router.get("/solves/{solve_id}", response=SolveView, operation_id="layout_solve")
def get_solve(request: MemberRequest, solve_id: PathId) -> SolveView:
    """A search as it stands."""
    solve = own_solve(request.user, solve_id)
    return Scene(solve.space).solve(solve)


@router.post("/solves/{solve_id}/cancel", response=SolveView, operation_id="layout_cancel")
def cancel(request: MemberRequest, solve_id: PathId) -> SolveView:
    """Stop a search; what it found stays."""
    solve = actions.cancel(request.user, solve_id)
    return Scene(solve.space).solve(solve)


@router.post(
    "/solves/{solve_id}/relax/{index}", response={202: SolveView}, operation_id="layout_relax", throttle=rates.searches
)
def relax(
    request: MemberRequest, solve_id: PathId, index: Annotated[int, Field(ge=0, le=100)], design: RowId | None = None
) -> tuple[int, SolveView]:
    """Carry out a change that would let everything fit, by the design in hand, and search again."""
    solve = actions.relax(request.user, solve_id, index, design)
    return 202, Scene(solve.space).solve(solve)


@router.post("/solves/{solve_id}/hang/{index}", response={201: Card}, operation_id="layout_hang")
def hang(request: MemberRequest, solve_id: PathId, index: Annotated[int, Field(ge=0, le=100)]) -> tuple[int, Card]:
    """Hang a design of the frontier in the gallery."""
    row = actions.hang(request.user, solve_id, index)
    return 201, Scene(row.space).card_or_refuse(row)


@router.get("/designs/{design_id}", response=DesignView, operation_id="layout_get")
def get(request: MemberRequest, design_id: PathId) -> DesignView:
    """A design whole."""
    row = own_design(request.user, design_id)
    return Scene(row.space).design(row)


@router.get("/designs/{design_id}/card", response=Card, operation_id="layout_card")
def card(request: MemberRequest, design_id: PathId) -> Card:
    """One alternative as it hangs in the gallery; which of them are new, the search itself says."""
    row = own_design(request.user, design_id)
    return Scene(row.space).card_or_refuse(row)


@router.delete("/designs/{design_id}", response={204: None}, operation_id="layout_take_down")
def take_down(request: MemberRequest, design_id: PathId) -> tuple[int, None]:
    """Take a design out of the gallery."""
    actions.take_down(request.user, design_id)
    return 204, None


@router.post("/designs/{design_id}/edits", response=DesignView, operation_id="layout_edit")
def edit(request: MemberRequest, design_id: PathId, data: EditAt) -> DesignView:
    """One hand edit; the answer carries all its consequences."""
    row, history = actions.edit(request.user, design_id, data.version, data.command)
    return Scene(row.space).design(row, history)


@router.post("/designs/{design_id}/tries", response=Consequences, operation_id="layout_try", auth=looking)
def tries(request: MemberRequest, design_id: PathId, data: Tried) -> Consequences:
    """What each of some edits would bring, each by itself; nothing is kept."""
    row = own_design(request.user, design_id)
    scene, design = Scene(row.space), rows.history_of(row).current
    cost = bill(design).total
    return Consequences(each=[
        ConsequenceView(
            refused=c.refused.said_in(scene.units) if c.refused else "", stops=c.stops,
            brings=[f.sentence for f in finding_views(c.brings, scene.units)],
            mends=[f.sentence for f in finding_views(c.mends, scene.units)],
            costs=more_or_less(bill(c.after).total - cost, scene.household.currency) if c.after else "",
        )
        for c in consequences(design, data.commands, scene.findings)
    ])  # fmt: skip


@router.post("/designs/{design_id}/undo", response=DesignView, operation_id="layout_undo")
def undo(request: MemberRequest, design_id: PathId, data: At) -> DesignView:
    """Take back the last edit."""
    row, history = actions.undo(request.user, design_id, data.version)
    return Scene(row.space).design(row, history)


@router.post("/designs/{design_id}/redo", response=DesignView, operation_id="layout_redo")
def redo(request: MemberRequest, design_id: PathId, data: At) -> DesignView:
    """Do again what was taken back."""
    row, history = actions.redo(request.user, design_id, data.version)
    return Scene(row.space).design(row, history)


@router.post(
    "/designs/{design_id}/rest", response={202: SolveView}, operation_id="layout_rest", throttle=rates.searches
)
def finish_rest(request: MemberRequest, design_id: PathId, data: At) -> tuple[int, SolveView]:
    """Find everything that is not locked anew."""
    solve = actions.finish_rest(request.user, design_id, data.version)
    return 202, Scene(solve.space).solve(solve)


@router.post("/designs/{design_id}/versions", response={201: Card}, operation_id="layout_keep")
def keep_version(request: MemberRequest, design_id: PathId, data: Named) -> tuple[int, Card]:
    """Keep the design as it stands under a name."""
    row = actions.keep_version(request.user, design_id, data.name)
    return 201, Scene(row.space).card_or_refuse(row)


@router.get("/designs/{design_id}/compare/{other_id}", response=Comparison, operation_id="layout_compare")
def compare(request: MemberRequest, design_id: PathId, other_id: PathId) -> Comparison:
    """Two designs of a space, part by part."""
    row, other_row = own_design(request.user, design_id), own_design(request.user, other_id)
    if row.space_id != other_row.space_id:
        raise Invalid("design.two-spaces")
    scene = Scene(row.space)
    here, there = rows.history_of(row).current, rows.history_of(other_row).current
    one, two = scene.card_or_refuse(row), scene.card_or_refuse(other_row)
    names = {t.id: t.name for t in scene.things}
    facts = [
        ("cost", f"{one.cost} {scene.household.currency}", f"{two.cost} {scene.household.currency}"),
        ("hours", f"{one.hours:.1f}", f"{two.hours:.1f}"), ("built of", one.family, two.family),
        ("holds", one.holds, two.holds), ("room", one.left, two.left), ("stops", str(one.stops), str(two.stops)),
    ]  # fmt: skip
    return Comparison(
        here=here.title, there=there.title, facts=facts,
        parts=[PartDifferenceView(name=p.name, size=with_units((p.w, p.d, p.h), scene.units), here=p.here, there=p.there)
               for p in part_differences(here, there)],
        homes=[HomeDifferenceView(name=names.get(h.thing, h.thing), here=home_in_words(h.here, scene.units),
                                  there=home_in_words(h.there, scene.units))
               for h in home_differences(here, there)],
    )  # fmt: skip


@router.get("/designs/{design_id}/drawing", response=Drawing, operation_id="layout_drawing")
def drawing(request: MemberRequest, design_id: PathId, options: Query[DrawingOptions]) -> Drawing:
    """The elevation as asked: with hatches, silhouettes or bare, doors open or shut, with or without dimensions."""
    row = own_design(request.user, design_id)
    return Scene(row.space).elevation(rows.history_of(row).current, options)


@router.get("/designs/{design_id}/plan", response=Drawing, operation_id="layout_plan")
def plan(request: MemberRequest, design_id: PathId, ways: Query[bool] = True) -> Drawing:
    """The plan with the ways of whatever slides or swings out."""
    row = own_design(request.user, design_id)
    scene = Scene(row.space)
    return design_plan(
        rows.history_of(row).current, scene.survey, scene.units, scene.space.name, scene.today, ways=ways
    )


@router.get("/designs/{design_id}/section/{bay}", response=Drawing, operation_id="layout_section")
def section(request: MemberRequest, design_id: PathId, bay: Annotated[int, Field(ge=0, le=400)]) -> Drawing:
    """One bay cut through from front to back."""
    row = own_design(request.user, design_id)
    scene, design = Scene(row.space), rows.history_of(row).current
    if bay >= len(design.bays):
        raise Invalid("design.no-bay", bay=bay + 1, bays=len(design.bays))
    return design_section(design, scene.survey, scene.things, scene.units, scene.space.name, bay, scene.today)


@router.get("/designs/{design_id}/model.glb", operation_id="layout_model")
def model(request: MemberRequest, design_id: PathId) -> HttpResponse:
    """The design in three dimensions, as binary glTF."""
    row = own_design(request.user, design_id)
    scene = Scene(row.space)
    data = walkround(rows.history_of(row).current, scene.survey, scene.things)
    response = HttpResponse(data, content_type="model/gltf-binary")
    response["Content-Disposition"] = f'attachment; filename="{row.space.key}-{row.key}.glb"'
    return response


@router.get("/designs/{design_id}/sheet.pdf", operation_id="layout_sheet")
def sheet(request: MemberRequest, design_id: PathId, scale: Query[int] = 20,
          doors: Query[Literal["open", "shut"]] = "open") -> HttpResponse:  # fmt: skip
    """Elevation, plan and the section of every bay to scale: 10, 12, 20 or 24."""
    if scale not in SCALES:
        raise Invalid("paper.no-scale", scales=SCALES.values())
    return sheet_of(own_design(request.user, design_id), scale, doors)  # type: ignore[arg-type]


def sheet_of(row: models.Design, scale: Scale, doors: Literal["open", "shut"]) -> HttpResponse:
    """A design on paper; who chose it or signed it off stands in the title block."""
    scene, history = Scene(row.space), rows.history_of(row)
    design, text, name, day = history.current, TEXT_MM * scale, scene.space.name, scene.today
    agreed = agreed_in_words(history.chosen, history.signed)
    views = [design_elevation(design, scene.survey, scene.things, scene.units, name, day, text, doors=doors),
             design_plan(design, scene.survey, scene.units, name, day, text, doors)]  # fmt: skip
    views += [design_section(design, scene.survey, scene.things, scene.units, name, b.index, day, text)
              for b in design.bays][:6]  # fmt: skip
    views = [v.model_copy(update={"title": v.title.model_copy(update={"agreed": agreed})}) for v in views]
    response = HttpResponse(to_pdf(views, scale, scene.units), content_type="application/pdf")
    response["Content-Disposition"] = f'inline; filename="{row.space.key}-{row.key}.pdf"'
    return response


def _ticked(row: models.Design | None) -> int:
    """How many steps of a design were done at the wall."""
    return row.space.ticks.filter(design=row.key, amiss=False).count() if row else 0


class SpaceLedger(Schema):
    """The ledger of a space, and the spine's words."""

    ledger: LedgerView
    states: States


@router.get("/spaces/{space_id}/ledger", response=SpaceLedger, operation_id="layout_ledger")
def get_ledger(request: MemberRequest, space_id: PathId, design: RowId | None = None) -> SpaceLedger:
    """The ledger against a design of the space (the first one when none is named)."""
    scene = Scene(own_space(request.user, space_id))
    rows_ = scene.space.designs.order_by("pk")
    row = (rows_.filter(pk=design).first() if design else None) or rows_.first()
    current = rows.history_of(row).current if row else None
    cost = bill(current).total if current else None
    view = scene.ledger(row, current, cost)
    return SpaceLedger(
        ledger=view, states=states_in_words(scene.survey, scene.things, rows_.count(), scene.findings(current),
                                            view.cost, view.currency, _ticked(row), scene.space.places.count()),
    )  # fmt: skip
