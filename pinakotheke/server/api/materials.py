"""Buy: the bill, on the page and as CSV."""

from typing import Literal

from django.http import HttpResponse
from django.utils import timezone
from ninja import Query, Router, Schema

from pinakotheke.core.drawing.dxf import CutStrip, to_dxf
from pinakotheke.core.drawing.pdf import to_pdf
from pinakotheke.core.drawing.template import insert_template
from pinakotheke.core.layout import Design
from pinakotheke.core.materials import Bill, StripLine, bill, bill_csv, cuts_of_drawers, pieces_of
from pinakotheke.core.survey import Survey, envelopes
from pinakotheke.core.units import MM_PER_INCH, Units, format_length
from pinakotheke.core.words import figures

from .. import rows
from ..actions.base import own_design
from .common import MemberRequest, PathId

router = Router(tags=["materials"])


class BillLineView(Schema):
    """A line of the bill in the household's units."""

    item: str
    name: str
    size: str
    needed: int
    bought: int
    unit: str
    each: str
    total: str
    parts: list[str]


class BillView(Schema):
    """The bill."""

    lines: list[BillLineView]
    total: str
    currency: str


def bill_view(the_bill: Bill, units: Units, currency: str) -> BillView:
    """A bill in words."""
    lines = []
    for line in the_bill.lines:
        sizes = [format_length(mm, units) for mm in (line.width, line.depth, line.height) if mm]
        lines.append(
            BillLineView(item=line.item, name=line.name, size=" × ".join(sizes), needed=line.needed,
                         bought=line.bought, unit=line.unit, each=figures(line.each, currency),
                         total=figures(line.total, currency), parts=list(line.parts))
        )  # fmt: skip
    return BillView(lines=lines, total=figures(the_bill.total, currency), currency=currency)


@router.get("/designs/{design_id}/bill.csv", operation_id="materials_bill_csv")
def csv_file(request: MemberRequest, design_id: PathId) -> HttpResponse:
    """The bill as CSV."""
    row = own_design(request.user, design_id)
    household = row.space.household
    units: Units = household.units  # type: ignore[assignment]
    text = bill_csv(bill(rows.history_of(row).current), units, household.currency)
    response = HttpResponse(text, content_type="text/csv; charset=utf-8")
    response["Content-Disposition"] = f'attachment; filename="{row.space.key}-{row.key}.csv"'
    return response


class StripLineView(Schema):
    """So many strips cut alike, in the household's units: slots one after the other from the left end."""

    count: int
    size: str
    above: list[str]
    below: list[str]
    butts: int


class DrawerCutsView(Schema):
    """What is cut for one drawer."""

    section: str
    name: str
    strips: list[StripLineView]
    liner: str
    slot: str
    """Width and depth of every slot."""


class CutsView(Schema):
    """What is cut for the drawers of a design; `drawers` is empty where nothing is."""

    drawers: list[DrawerCutsView]
    in_drawers: bool
    """Whether there are compartments in drawers at all: trays are set by the map and cut nowhere."""


def cuts_view(design: Design, survey: Survey, units: Units) -> CutsView:
    """The cut list of the drawers."""

    def said(mm: float) -> str:
        return format_length(mm, units)

    def slot(mm: float) -> str:
        """Finer than a tape reads: a slot a sixteenth off does not go together."""
        return f"{mm:.1f}" if units == "metric" else f'{mm / MM_PER_INCH:.2f}"'

    def line(strip: StripLine) -> StripLineView:
        at = {edge: [slot(max(a, 0)) for a, _, _, e in strip.slots if e == edge] for edge in ("top", "bottom")}
        size = " × ".join(said(mm) for mm in (strip.length, strip.height, strip.thickness))
        return StripLineView(count=strip.count, size=size, above=at["top"], below=at["bottom"], butts=strip.butts)

    rows_ = [
        DrawerCutsView(
            section=cut.section, name=survey.section(cut.section).label, strips=[line(s) for s in cut.strips],
            liner=" × ".join(said(mm) for mm in cut.liner),
            slot=next((f"{slot(w)} × {slot(d)}" for s in cut.strips for _, w, d, _ in s.slots), ""),
        )
        for cut in cuts_of_drawers(design) if cut.strips
    ]  # fmt: skip
    return CutsView(drawers=rows_, in_drawers=any(p.role == "compartment" for p in design.parts))


@router.get("/designs/{design_id}/cuts", response=CutsView, operation_id="materials_cuts")
def cuts(request: MemberRequest, design_id: PathId) -> CutsView:
    """What is cut for the drawers: strips with their slots, liners."""
    row = own_design(request.user, design_id)
    units: Units = row.space.household.units  # type: ignore[assignment]
    return cuts_view(rows.history_of(row).current, rows.survey_of(row.space), units)


@router.get("/designs/{design_id}/strips.dxf", operation_id="materials_strips_dxf")
def strips_dxf(request: MemberRequest, design_id: PathId) -> HttpResponse:
    """Every strip flat, for a laser or a router."""
    row = own_design(request.user, design_id)
    survey = rows.survey_of(row.space)
    cut = [
        CutStrip(piece, high, f"{survey.section(section).label}, strip {n}")
        for n, (section, piece, high) in enumerate(pieces_of(rows.history_of(row).current), 1)
    ]
    response = HttpResponse(to_dxf(cut), content_type="image/vnd.dxf")
    response["Content-Disposition"] = f'attachment; filename="{row.space.key}-{row.key}-strips.dxf"'
    return response


@router.get("/designs/{design_id}/drawers.pdf", operation_id="materials_drawers_pdf")
def drawers_pdf(
    request: MemberRequest, design_id: PathId, size: Query[Literal["full", "map"]] = "full"
) -> HttpResponse:
    """The drawers from above: full size over as many sheets as it takes, to cut and set by; or small, a map of what lies
    where, for the inside of the front.
    """
    row = own_design(request.user, design_id)
    household, design, survey = row.space.household, rows.history_of(row).current, rows.survey_of(row.space)
    units: Units = household.units  # type: ignore[assignment]
    things = {t.id: t for t in rows.things_of(row.space)}
    clear = envelopes(survey, design.rules)
    scale: Literal[1, 5] = 1 if size == "full" else 5
    views = [
        insert_template(design, clear[s.id], s, things, units, row.space.name, timezone.localdate().isoformat(), scale)
        for s in survey.parts if s.id in clear and any(p.role == "compartment" and p.section == s.id for p in design.parts)
    ]  # fmt: skip
    response = HttpResponse(to_pdf(views, scale, units), content_type="application/pdf")
    response["Content-Disposition"] = f'inline; filename="{row.space.key}-{row.key}-{size}.pdf"'
    return response
