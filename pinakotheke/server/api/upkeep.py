"""Keep: what lies where, labels, and where is it."""

import csv
from collections import defaultdict
from io import StringIO
from typing import Annotated

from django.http import HttpResponse
from django.utils import timezone
from ninja import Query, Router, Schema
from pydantic import Field, StringConstraints

from pinakotheke.core.base import Id
from pinakotheke.core.drawing.inside_door import Row, map_pdf
from pinakotheke.core.drawing.labels import labels_pdf
from pinakotheke.core.drawing.strips import cut_svg, strip, tapes
from pinakotheke.core.units import Units, format_length, with_unit
from pinakotheke.core.upkeep import sheets
from pinakotheke.core.words.upkeep import counted_things

from .. import models
from ..actions import upkeep as actions
from ..actions.base import Invalid, own_design, own_household, own_place, own_space
from ..devices import print_strips
from .common import MemberRequest, PathId, RowId, TypedName
from .find import find
from .install_view import Installing
from .upkeep_view import FLOOR, FoundView, Keeping, UpkeepView, found_views, upkeep_view

router = Router(tags=["upkeep"])
MOST_FOUND = 20


class PlaceData(Schema):
    """What a place is called."""

    name: TypedName


class FilledData(Schema):
    """Whether everything was put into a place."""

    filled: bool


class StayData(Schema):
    """So many of a thing in a place; none takes it out."""

    thing: Id
    count: Annotated[int, Field(ge=0, le=10_000)]


class LentData(Schema):
    """Whom something is lent to; empty when it is back."""

    thing: Id
    to: Annotated[str, StringConstraints(strip_whitespace=True, max_length=120)] = ""


class PrintedData(Schema):
    """The places whose labels were printed."""

    places: Annotated[list[RowId], Field(min_length=1, max_length=1000)]


class LabelsQuery(Schema):
    """Labels of which places, on which sheet, from which label on."""

    places: Annotated[list[RowId], Field(max_length=1000)] = []
    sheet: Annotated[str, StringConstraints(max_length=40)] = "a4-3x7"
    first: Annotated[int, Field(ge=0, le=100)] = 0
    pictured: bool = False


class StripsData(Schema):
    """Strips of which places, on which tape."""

    places: Annotated[list[RowId], Field(min_length=1, max_length=200)]
    tape: Annotated[str, StringConstraints(max_length=40)] = "tape-12"


class StripView(Schema):
    """A strip that was printed."""

    name: str
    length: str
    left_out: str


class StripsView(Schema):
    """What the label printer printed, and into which folder."""

    folder: str
    strips: list[StripView]


class CutQuery(Schema):
    """Letters to cut: of which places, how high their capitals are in mm, and whether mirrored."""

    places: Annotated[list[RowId], Field(max_length=200)] = []
    capitals: Annotated[float, Field(ge=3, le=200)] = 15
    mirrored: bool = False


class PlaceLink(Schema):
    """Where a place is, for whoever reads its code."""

    household: int
    space: int
    place: int
    name: str


def _view(request: MemberRequest, space: models.Space, sheet: str = "", pictured: bool = False) -> UpkeepView:
    return upkeep_view(Keeping(space), _origin(request), sheet, pictured)


def _origin(request: MemberRequest) -> str:
    return request.build_absolute_uri("/").rstrip("/")


@router.get("/spaces/{space_id}/places", response=UpkeepView, operation_id="upkeep_places")
def places(
    request: MemberRequest, space_id: PathId, sheet: Annotated[str, Query(max_length=40)] = "", pictured: bool = False
) -> UpkeepView:
    """What lies where in a space; with a sheet, what does not go onto its labels."""
    return _view(request, own_space(request.user, space_id), sheet, pictured)


@router.post("/designs/{design_id}/move-in", response=UpkeepView, operation_id="upkeep_move_in")
def move_in(request: MemberRequest, design_id: PathId) -> UpkeepView:
    """The places of a design become real."""
    row = own_design(request.user, design_id)
    return _view(request, actions.move_in(request.user, Installing(row).case, design_id).space)


@router.delete("/spaces/{space_id}/places", response=UpkeepView, operation_id="upkeep_move_out")
def move_out(request: MemberRequest, space_id: PathId) -> UpkeepView:
    """The places of a design are taken back."""
    return _view(request, actions.move_out(request.user, space_id))


@router.post("/spaces/{space_id}/places", response={201: UpkeepView}, operation_id="upkeep_add_place")
def add_place(request: MemberRequest, space_id: PathId, data: PlaceData) -> tuple[int, UpkeepView]:
    """A place of a space as it is."""
    return 201, _view(request, actions.add_place(request.user, space_id, data.name).space)


@router.get("/places/{place_id}", response=PlaceLink, operation_id="upkeep_place")
def place(request: MemberRequest, place_id: PathId) -> PlaceLink:
    """Where a place is."""
    row = own_place(request.user, place_id)
    return PlaceLink(household=row.household_id, space=row.space_id, place=row.pk, name=row.name)


@router.put("/places/{place_id}", response=UpkeepView, operation_id="upkeep_rename_place")
def rename_place(request: MemberRequest, place_id: PathId, data: PlaceData) -> UpkeepView:
    """Call a place otherwise."""
    return _view(request, actions.rename_place(request.user, place_id, data.name).space)


@router.delete("/places/{place_id}", response=UpkeepView, operation_id="upkeep_drop_place")
def drop_place(request: MemberRequest, place_id: PathId) -> UpkeepView:
    """Take a place away."""
    return _view(request, actions.drop_place(request.user, place_id))


@router.put("/places/{place_id}/stays", response=UpkeepView, operation_id="upkeep_put")
def put(request: MemberRequest, place_id: PathId, data: StayData) -> UpkeepView:
    """So many of a thing lie in a place."""
    return _view(request, actions.put(request.user, place_id, data.thing, data.count))


@router.put("/places/{place_id}/filled", response={204: None}, operation_id="upkeep_filled")
def filled(request: MemberRequest, place_id: PathId, data: FilledData) -> tuple[int, None]:
    """Everything was put into a place, or not after all; sent twice it is kept once."""
    actions.filled(request.user, place_id, data.filled)
    return 204, None


@router.put("/places/{place_id}/lent", response=UpkeepView, operation_id="upkeep_lend")
def lend(request: MemberRequest, place_id: PathId, data: LentData) -> UpkeepView:
    """What lies in a place is lent, or back."""
    return _view(request, actions.lend(request.user, place_id, data.thing, data.to))


@router.get("/spaces/{space_id}/labels.pdf", operation_id="upkeep_labels")
def labels(request: MemberRequest, space_id: PathId, query: Query[LabelsQuery]) -> HttpResponse:
    """Labels on sheets as they are sold."""
    one = Keeping(own_space(request.user, space_id))
    sheet = sheets().get(query.sheet)
    if sheet is None:
        raise Invalid("upkeep.no-sheet", sheet=query.sheet)
    chosen = one.labels(_origin(request), timezone.localdate().isoformat(), query.places, pictured=query.pictured)
    if not chosen:
        raise Invalid("upkeep.no-labels")
    data, _ = labels_pdf([label for _, label in chosen], sheet, min(query.first, sheet.count - 1))
    response = HttpResponse(data, content_type="application/pdf")
    response["Content-Disposition"] = f'inline; filename="{one.space.key}-labels.pdf"'
    return response


@router.post("/spaces/{space_id}/printed", response=UpkeepView, operation_id="upkeep_printed")
def printed(request: MemberRequest, space_id: PathId, data: PrintedData) -> UpkeepView:
    """Labels were printed: what they say is kept, so that one that is out of date is known."""
    one = Keeping(own_space(request.user, space_id))
    texts = {row.pk: label.text for row, label in one.labels(only=data.places)}
    return _view(request, actions.printed(request.user, space_id, texts))


@router.post("/spaces/{space_id}/strips", response=StripsView, operation_id="upkeep_strips")
def strips(request: MemberRequest, space_id: PathId, data: StripsData) -> StripsView:
    """Print labels on tape; the printer is a stand-in, which prints into a folder."""
    one = Keeping(own_space(request.user, space_id))
    units: Units = one.household.units  # type: ignore[assignment]
    tape = tapes().get(data.tape)
    if tape is None:
        raise Invalid("upkeep.no-sheet", sheet=data.tape)
    made = [(row, label, strip(label, tape)) for row, label in one.labels(only=data.places)]
    folder = print_strips(((row.key, found.png) for row, _, found in made), timezone.localtime())
    actions.printed(request.user, space_id, {row.pk: label.text for row, label, _ in made})
    return StripsView(folder=folder.name, strips=[
        StripView(name=label.title, length=with_unit(found.length, units), left_out=", ".join(found.left_out))
        for _, label, found in made
    ])  # fmt: skip


@router.get("/spaces/{space_id}/labels.svg", operation_id="upkeep_cut")
def cut(request: MemberRequest, space_id: PathId, query: Query[CutQuery]) -> HttpResponse:
    """Titles of labels as outlines to cut."""
    one = Keeping(own_space(request.user, space_id))
    titles = [label.title for row, label in one.labels(only=query.places)]
    if not titles:
        raise Invalid("upkeep.no-labels")
    response = HttpResponse(cut_svg(titles, query.capitals, query.mirrored), content_type="image/svg+xml")
    response["Content-Disposition"] = f'attachment; filename="{one.space.key}-letters.svg"'
    return response


@router.get("/spaces/{space_id}/map.pdf", operation_id="upkeep_map_paper")
def map_paper(request: MemberRequest, space_id: PathId) -> HttpResponse:
    """What is where, to hang inside a door."""
    one = Keeping(own_space(request.user, space_id))
    units: Units = one.household.units  # type: ignore[assignment]
    held: dict[str, list[str]] = defaultdict(list)
    for stay in one.stays:
        held[stay.place].append(counted_things(stay.count, one.things[stay.thing].name))
    rows = [Row(p.name, format_length(p.height, units) if p.height and p.height > FLOOR else "", "; ".join(held[p.id]))
            for p in one.places]  # fmt: skip
    data = map_pdf(one.space.name, timezone.localdate().isoformat(), one.picture(), rows, units)
    response = HttpResponse(data, content_type="application/pdf")
    response["Content-Disposition"] = f'inline; filename="{one.space.key}-map.pdf"'
    return response


@router.get("/spaces/{space_id}/map.csv", operation_id="upkeep_map")
def where_is_what(request: MemberRequest, space_id: PathId) -> HttpResponse:
    """What is where, as a table."""
    space = own_space(request.user, space_id)
    view = upkeep_view(Keeping(space), "")
    out = StringIO()
    table = csv.writer(out)
    table.writerow(("space", "place", "height", "thing", "count", "whose", "lent to"))
    for one in view.places:
        for stay in one.stays:
            table.writerow((space.name, one.name, one.height, stay.name, stay.count, stay.owner, stay.lent_to))
    response = HttpResponse(out.getvalue(), content_type="text/csv; charset=utf-8")
    response["Content-Disposition"] = f'attachment; filename="{space.key}-map.csv"'
    return response


@router.get("/households/{household_id}/find", response=list[FoundView], operation_id="upkeep_find")
def where_is_it(
    request: MemberRequest, household_id: PathId, q: Annotated[str, Query(min_length=1, max_length=200)]
) -> list[FoundView]:
    """Where is it: things, places and spaces that answer a question."""
    household = own_household(request.user, household_id)
    return found_views(household, [a.key for a in find(household.pk, q, MOST_FOUND)])
