"""Buy: the list of any set of spaces on the page and in files, what is cut for drawers, what is sawn, the money."""

from decimal import Decimal
from typing import Annotated, Literal

from django.http import HttpResponse
from django.utils import timezone
from ninja import File, Form, Query, Router, Schema, UploadedFile
from pydantic import Field, StringConstraints

from pinakotheke.core.drawing import TEXT_MM
from pinakotheke.core.drawing.buying_list import CutLabel, buying_list, cut_labels
from pinakotheke.core.drawing.dxf import CutStrip, nests_dxf, to_dxf
from pinakotheke.core.drawing.pdf import Scale, to_pdf
from pinakotheke.core.drawing.template import insert_template
from pinakotheke.core.layout import Design
from pinakotheke.core.lengths import parse_length
from pinakotheke.core.materials import (
    OMISSIONS,
    PRICE_COLUMNS,
    Choice,
    Cutting,
    EntryKind,
    PriceColumn,
    StripLine,
    cut_sheets_of,
    cuts_of_drawers,
    guess_price_columns,
    pieces_of,
    printed_table,
    read_prices,
    table_of,
)
from pinakotheke.core.mechanics.materials import Grade
from pinakotheke.core.survey import Survey, envelopes
from pinakotheke.core.systems.supplier import money
from pinakotheke.core.units import MM_PER_INCH, Units, format_length
from pinakotheke.core.words import figures
from pinakotheke.core.words.buying import budget_in_words

from .. import rows
from ..actions import materials as actions
from ..actions.base import Invalid, own_design, own_household
from ..sheets import write_csv, write_xlsx
from . import rates
from .access import looking
from .common import MemberRequest, PathId, RowId, TypedName
from .lists import FaultView, ListPreview, Matching, PastedText, previewed, sent_table
from .materials_view import BuyingInWords, MoneyView, PricesTaken, PurchaseView, ShoppingView, VariantsView

router = Router(tags=["materials"])
XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"


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


class Asked(Schema):
    """Which designs are bought, and how; lengths as they are said."""

    designs: Annotated[list[RowId], Field(min_length=1, max_length=200)]
    cutting: Cutting = "measure"
    grade: Grade | None = None
    without: Annotated[list[str], Field(max_length=20)] = []
    kerf: Annotated[str, StringConstraints(max_length=40)] = ""
    longest: Annotated[str, StringConstraints(max_length=40)] = ""
    shown: RowId | None = None


class SawnData(Asked):
    """The sheet or board that is ticked off: the labels of its parts, as they stand on the plan."""

    labels: Annotated[list[str], Field(min_length=1, max_length=500)]


class SpoiltData(Schema):
    """The part that was spoiled."""

    part: Annotated[str, StringConstraints(max_length=400)]


class MoneyData(Schema):
    """Money ordered, received or returned."""

    space: Annotated[str, StringConstraints(max_length=64)]
    kind: EntryKind
    amount: Annotated[str, StringConstraints(min_length=1, max_length=40)]
    what: Annotated[str, StringConstraints(strip_whitespace=True, max_length=200)] = ""


def buying(request: MemberRequest, household_id: int, asked: Asked) -> BuyingInWords:
    """A purchase as it was asked for; every design is one of the household's."""
    household = own_household(request.user, household_id)
    chosen = [own_design(request.user, pk) for pk in dict.fromkeys(asked.designs)]
    designs = list({row.space_id: row for row in reversed(chosen)}.values())[::-1]  # one of a space: the first
    if not designs or any(d.space.household_id != household.pk for d in designs):
        raise Invalid("buying.no-design")
    known = [o.key for o in OMISSIONS]
    strange = next((key for key in asked.without if key not in known), None)
    if strange is not None:
        raise Invalid("buying.no-such-choice", key=strange, known=known)
    units: Units = household.units  # type: ignore[assignment]
    lengths = {
        name: round(parse_length(said, units).mm)
        for name in ("kerf", "longest") if (said := getattr(asked, name).strip())
    }  # fmt: skip
    choice = Choice.model_validate(
        {"cutting": asked.cutting, "grade": asked.grade, "without": frozenset(asked.without), **lengths}
    )
    return BuyingInWords(household, designs, choice, timezone.localdate())


@router.get("/households/{household_id}/purchase", response=PurchaseView, operation_id="materials_purchase")
def get_purchase(request: MemberRequest, household_id: PathId, asked: Query[Asked]) -> PurchaseView:
    """The list for some designs, its variants, cut plans and suppliers."""
    return buying(request, household_id, asked).view(asked.shown)


@router.get("/households/{household_id}/purchase/variants", response=VariantsView, operation_id="materials_variants")
def get_variants(request: MemberRequest, household_id: PathId, asked: Query[Asked]) -> VariantsView:
    """Other ways to buy the same, with what would change."""
    return buying(request, household_id, asked).variants()


@router.get("/households/{household_id}/purchase/shops", response=ShoppingView, operation_id="materials_shops")
def get_shops(request: MemberRequest, household_id: PathId, asked: Query[Asked]) -> ShoppingView:
    """Where to buy it, by the prices of today."""
    return buying(request, household_id, asked).shopping()


def _file(data: str | bytes, kind: str, name: str, *, inline: bool = False) -> HttpResponse:
    response = HttpResponse(data, content_type=kind)
    response["Content-Disposition"] = f'{"inline" if inline else "attachment"}; filename="{name}"'
    return response


@router.get("/households/{household_id}/purchase.csv", operation_id="materials_purchase_csv")
def purchase_csv(request: MemberRequest, household_id: PathId, asked: Query[Asked]) -> HttpResponse:
    """The list as CSV."""
    one = buying(request, household_id, asked)
    return _file(write_csv(table_of(one.bought, one.units, one.currency)), "text/csv; charset=utf-8", "to-buy.csv")


@router.get("/households/{household_id}/purchase.xlsx", operation_id="materials_purchase_xlsx")
def purchase_xlsx(request: MemberRequest, household_id: PathId, asked: Query[Asked]) -> HttpResponse:
    """The list as XLSX."""
    one = buying(request, household_id, asked)
    return _file(write_xlsx(table_of(one.bought, one.units, one.currency)), XLSX, "to-buy.xlsx")


@router.get("/households/{household_id}/purchase.pdf", operation_id="materials_purchase_pdf")
def purchase_pdf(request: MemberRequest, household_id: PathId, asked: Query[Asked]) -> HttpResponse:
    """The list on paper."""
    one = buying(request, household_id, asked)
    table = printed_table(one.bought, one.units, one.currency, lambda amount: figures(amount, one.currency))
    title = "To buy: " + ", ".join(name for name, _ in one.named)
    notes = [f"{name}: {figures(share, one.currency)} {one.currency}" for name, share in one.bought.by_space]
    budget = budget_in_words(one.bought.total, rows.rules_of(one.household).budget, one.currency)
    data = buying_list(title, one.day.isoformat(), table, [*notes, *([budget] if budget else [])], one.units)
    return _file(data, "application/pdf", "to-buy.pdf", inline=True)


@router.get("/households/{household_id}/cuts.pdf", operation_id="materials_cuts_pdf")
def cuts_pdf(request: MemberRequest, household_id: PathId, asked: Query[Asked]) -> HttpResponse:
    """Every sheet to scale with its parts and numbered cuts, one a page; boards together."""
    one = buying(request, household_id, asked)
    scales: list[Scale] = []
    drawings = []
    for n, plan in enumerate(one.bought.plans):
        scale: Scale = (10 if plan.sheets else 20) if one.units == "metric" else (12 if plan.sheets else 24)
        found = one.diagrams(plan, 1 + 100 * n, TEXT_MM * scale)
        drawings += found
        scales += [scale] * len(found)
    if not drawings:
        raise Invalid("buying.nothing-cut")
    return _file(to_pdf(drawings, scales, one.units), "application/pdf", "to-cut.pdf", inline=True)


@router.get("/households/{household_id}/cuts.dxf", operation_id="materials_cuts_dxf")
def cuts_dxf(request: MemberRequest, household_id: PathId, asked: Query[Asked]) -> HttpResponse:
    """Every sheet with its parts where they lie."""
    one = buying(request, household_id, asked)
    sheets = [(f"{plan.stuff.said(one.units)}, sheet {n}", sheet)
              for n, (plan, sheet) in enumerate(cut_sheets_of(one.bought.plans), 1)]  # fmt: skip
    if not sheets:
        raise Invalid("buying.nothing-cut")
    return _file(nests_dxf(sheets), "image/vnd.dxf", "sheets.dxf")


@router.get("/households/{household_id}/labels.pdf", operation_id="materials_labels_pdf")
def labels_pdf(request: MemberRequest, household_id: PathId, asked: Query[Asked]) -> HttpResponse:
    """A label for everything that is cut, each with a code."""
    one = buying(request, household_id, asked)
    parts = [one.part_view(p) for plan in one.bought.plans for p in plan.parts]
    if not parts:
        raise Invalid("buying.nothing-cut")
    labels = [
        CutLabel(p.label, (p.name, p.finished, p.space), f"{p.label}; {p.name}; {p.finished}; {p.space}") for p in parts
    ]
    return _file(cut_labels(labels, one.units), "application/pdf", "labels.pdf", inline=True)


@router.post("/households/{household_id}/sawn", response=PurchaseView, operation_id="materials_sawn")
def sawn(request: MemberRequest, household_id: PathId, data: SawnData) -> PurchaseView:
    """Tick off a sheet or board of the plan that was shown."""
    one = buying(request, household_id, data)
    wanted = sorted(data.labels)
    there = next((found for _, found in one.planned() if sorted(p.label for p in found.parts) == wanted), None)
    if there is None:
        raise Invalid("buying.not-so")
    actions.tick_off(request.user, household_id, there)
    return buying(request, household_id, data).view(data.shown)


@router.delete("/households/{household_id}/sawn/{key}", response={204: None}, operation_id="materials_unsawn")
def unsawn(request: MemberRequest, household_id: PathId, key: str) -> tuple[int, None]:
    """It was not sawn after all."""
    actions.untick(request.user, household_id, key)
    return 204, None


@router.post("/households/{household_id}/spoilt", response={204: None}, operation_id="materials_spoilt")
def spoilt(request: MemberRequest, household_id: PathId, data: SpoiltData) -> tuple[int, None]:
    """A part is spoiled: it is planned anew from what is left."""
    actions.spoil_part(request.user, household_id, data.part)
    return 204, None


class PricesMatching(Matching):
    """Which column is what, and whose list it is."""

    name: TypedName
    delivery: Annotated[str, StringConstraints(max_length=40)] = ""
    days: Annotated[int, Field(ge=0, le=365)] = 0


@router.post(
    "/households/{household_id}/prices/look",
    response=ListPreview,
    operation_id="materials_preview_prices",
    throttle=rates.uploads,
    auth=looking,
)
def preview_prices(request: MemberRequest, household_id: PathId, data: Form[PastedText],
                   file: File[UploadedFile | None] = None) -> ListPreview:  # fmt: skip
    """What the columns of a supplier's list seem to be; nothing is kept."""
    own_household(request.user, household_id)
    table = sent_table(file, data.text)
    return previewed(table, guess_price_columns(table[0]), PRICE_COLUMNS)


@router.post(
    "/households/{household_id}/prices",
    response=PricesTaken,
    operation_id="materials_take_prices",
    throttle=rates.uploads,
)
def take_prices(request: MemberRequest, household_id: PathId, data: Form[PricesMatching],
                file: File[UploadedFile | None] = None) -> PricesTaken:  # fmt: skip
    """A supplier's list with the prices of today; rows that cannot be read are named and left out."""
    units: Units = own_household(request.user, household_id).units  # type: ignore[assignment]
    columns: dict[int, PriceColumn] = {n: c for n, c in enumerate(data.columns.split(",")) if c in PRICE_COLUMNS}
    if "article" not in columns.values():
        raise Invalid("list.no-article")
    if "price" not in columns.values():
        raise Invalid("list.no-price")
    read = read_prices(sent_table(file, data.text)[1:], columns, units)
    delivery = Decimal(str(money(data.delivery))).quantize(Decimal("0.01")) if data.delivery.strip() else Decimal(0)
    fields = {"name": data.name, "days": data.days, "delivery": delivery, "on": timezone.localdate().isoformat()}
    if read.rows:
        actions.bring_prices(request.user, household_id, fields, read.rows)
    faults = [FaultView(row=f.row, problem=f.problem, mend=f.mend) for f in read.faults]
    return PricesTaken(added=len(read.rows), faults=faults)


@router.delete("/households/{household_id}/prices/{key}", response={204: None}, operation_id="materials_drop_prices")
def drop_prices(request: MemberRequest, household_id: PathId, key: str) -> tuple[int, None]:
    """Take a supplier's list away."""
    actions.drop_prices(request.user, household_id, key)
    return 204, None


@router.get("/households/{household_id}/money", response=MoneyView, operation_id="materials_money")
def get_money(request: MemberRequest, household_id: PathId, asked: Query[Asked]) -> MoneyView:
    """The ledger of money."""
    return buying(request, household_id, asked).money()


@router.post("/households/{household_id}/money", response={204: None}, operation_id="materials_write_down")
def write_down(request: MemberRequest, household_id: PathId, data: MoneyData) -> tuple[int, None]:
    """Write down what was ordered, received or returned."""
    amount = Decimal(str(money(data.amount))).quantize(Decimal("0.01"))
    fields = {**data.model_dump(exclude={"amount"}), "amount": amount, "on": timezone.localdate().isoformat()}
    actions.write_down(request.user, household_id, fields)
    return 204, None


@router.delete("/households/{household_id}/money/{key}", response={204: None}, operation_id="materials_strike_out")
def strike_out(request: MemberRequest, household_id: PathId, key: str) -> tuple[int, None]:
    """Take an entry out."""
    actions.strike_out(request.user, household_id, key)
    return 204, None
