"""Buy: the bill, on the page and as CSV."""

from django.http import HttpResponse
from ninja import Router, Schema

from pinakotheke.core.materials import Bill, bill, bill_csv
from pinakotheke.core.units import Units, format_length
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
