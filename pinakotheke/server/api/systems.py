"""Design: what can be bought. The household's own ranges of parts, its containers, and suppliers' lists of both."""

from collections.abc import Mapping
from decimal import Decimal
from typing import Annotated, Literal

from django.http import HttpResponse
from ninja import File, Form, Router, Schema, UploadedFile
from pydantic import Field, StringConstraints

from pinakotheke.core import systems as core
from pinakotheke.core.inventory.columns import RowFault
from pinakotheke.core.inventory.containers import Container
from pinakotheke.core.inventory.owned import Lid
from pinakotheke.core.lengths import parse_length
from pinakotheke.core.systems.ranges import reckoned, sizes_of, table_of
from pinakotheke.core.systems.supplier import (
    LIST_COLUMNS,
    ListColumn,
    guess_list_columns,
    read_articles,
    read_containers,
    write_articles,
)
from pinakotheke.core.units import KG_PER_POUND, Units, format_length, format_volume, with_units

from .. import models, rows
from ..actions import systems as actions
from ..actions.base import Invalid, own_household
from ..sheets import write_csv
from . import rates
from .access import looking
from .common import MemberRequest, PathId, TypedName, Version
from .lists import FaultView, ListPreview, Matching, PastedText, previewed, sent_table

router = Router(tags=["systems"])
Typed = Annotated[str, StringConstraints(max_length=400)]


class SizeView(Schema):
    """A size of a family that a range may have otherwise."""

    name: str
    label: str
    usual: str
    """As it ships."""
    own: str
    """As the range says; empty where it says nothing."""


class PriceView(Schema):
    """An article that is cut to size or sold by the piece, and its price."""

    kind: str
    name: str
    usual: core.Rate | None
    """As it ships; None for what is sold in lengths."""
    own: core.Rate | None
    listed: int
    """Lines of the supplier's list."""


class RatingView(Schema):
    """What a compartment carries, in the range's `mass_unit` (a metre where `a_metre`)."""

    role: str
    a_metre: bool
    usual: float
    own: float | None


class RangeView(Schema):
    """A range of the household's own."""

    key: str
    version: int
    name: str
    family: str
    family_name: str
    about: str
    usual_about: str
    pitch: str
    usual_pitch: str
    sizes: list[SizeView]
    prices: list[PriceView]
    ratings: list[RatingView]
    mass_unit: Literal["kg", "lb"]
    listed: int
    summary: str
    """Its sizes in a line."""
    reckoned: list[str]
    """Articles without a price of its own."""
    whole: core.Range
    """All of it, so that undo can put it back."""


class ContainerView(Schema):
    """A container that can be bought, in words."""

    key: str
    name: str
    size: str
    litres: str
    price: str
    lid: Lid


class FamilyLine(Schema):
    """A family of which a range can be made."""

    id: str
    name: str


class CatalogueView(Schema):
    """What can be bought."""

    currency: str
    families: list[FamilyLine]
    ranges: list[RangeView]
    containers: list[ContainerView]


class NewRange(Schema):
    """A new range of a family, or one that was taken out, `whole`."""

    family: Annotated[str, StringConstraints(max_length=40)]
    name: TypedName
    whole: core.Range | None = None


class RangeChange(Schema):
    """What a range has otherwise; sizes as they are typed, in the household's units. With `whole` that instead."""

    version: Version
    name: TypedName = "range"
    about: Annotated[str, StringConstraints(strip_whitespace=True, max_length=300)] = ""
    pitch: Annotated[str, StringConstraints(max_length=20)] = ""
    sizes: dict[str, Typed] = {}
    rates: dict[str, core.Rate] = {}
    ratings: dict[str, float] = {}
    whole: core.Range | None = None


class NewContainer(Schema):
    """A container that can be bought; its outside size as it is said."""

    name: TypedName
    size: Annotated[str, StringConstraints(min_length=1, max_length=60)]
    price: Annotated[Decimal, Field(ge=0, le=1_000_000, max_digits=12)]
    lid: Lid = "none"


class Listed(Schema):
    """What a supplier's list gave, and what it did not."""

    added: int
    faults: Annotated[list[FaultView], Field(max_length=5000)]
    catalogue: CatalogueView


def _range(row: models.Range, units: Units) -> RangeView:
    own = rows.range_of(row)
    family, table = core.FAMILIES[own.family], table_of(own)
    usual = sizes_of(family.source)
    names = {kind: family.called(kind) for kind in family.table.price}

    def said(sizes: tuple[int, ...]) -> str:
        return ", ".join(format_length(mm, units) for mm in sizes)

    now = sizes_of(table)
    lines = [f"{_label(name)} {said(sizes)}" for name, sizes in now.items() if usual.get(name) != sizes]
    return RangeView(
        key=own.id, version=row.version, name=own.name, family=own.family, family_name=family.name, about=own.about,
        usual_about=family.about, pitch=said((own.pitch,)) if own.pitch else "",
        usual_pitch=said((family.table.pitch,)),
        sizes=[SizeView(name=name, label=_label(name), usual=said(sizes), own=said(own.sizes.get(name, ())))
               for name, sizes in usual.items()],
        prices=[
            PriceView(kind=kind, name=names[kind], own=own.rates.get(kind),
                      listed=sum(a.kind == kind for a in own.articles),
                      usual=rate if isinstance(rate, core.Rate) else None)
            for kind, rate in family.table.price.items()
        ],
        ratings=[
            RatingView(role=role, a_metre=bool(spec.rating_per_m),
                       usual=_shown_mass(spec.rating_per_m or spec.rating, units),
                       own=_shown_mass(own.ratings[role], units) if role in own.ratings else None)
            for role, spec in family.specs.items()
        ],
        mass_unit="kg" if units == "metric" else "lb",
        listed=len(own.articles), summary="; ".join(lines) or "sizes as they ship",
        reckoned=[names[kind] for kind in reckoned(own)], whole=own,
    )  # fmt: skip


def _shown_mass(kg: float, units: Units) -> float:
    """A rating as the household weighs."""
    return kg if units == "metric" else round(kg / KG_PER_POUND, 1)


def _label(name: str) -> str:
    return {"bays": "bay widths", "corner_widths": "corner widths"}.get(name, name.replace("_", " "))


def _volume(litres: float, units: Units) -> str:
    """What a box holds, to a digit more than a shelf's."""
    return f"{litres:.1f} litres" if units == "metric" else format_volume(litres, units)


def _container(box: Container, units: Units) -> ContainerView:
    sides = with_units((box.width, box.depth, box.height), units)
    w, d, h = box.inside
    return ContainerView(key=box.id, name=box.name, size=sides, litres=_volume(w * d * h / 1e6, units),
                         price=f"{box.price:.2f}", lid=box.lid)  # fmt: skip


def _view(household: models.Household) -> CatalogueView:
    units: Units = household.units  # type: ignore[assignment]
    return CatalogueView(
        currency=household.currency,
        families=[FamilyLine(id=f.id, name=f.name) for f in core.FAMILIES.values()],
        ranges=[_range(r, units) for r in household.range_set.order_by("pk")],
        containers=[_container(c, units) for c in rows.containers_of(household)],
    )  # fmt: skip


@router.get("/households/{household_id}/catalogue", response=CatalogueView, operation_id="systems_catalogue")
def get(request: MemberRequest, household_id: PathId) -> CatalogueView:
    """What can be bought: the household's own ranges and containers."""
    return _view(own_household(request.user, household_id))


@router.post("/households/{household_id}/ranges", response={201: CatalogueView}, operation_id="systems_make_range")
def make(request: MemberRequest, household_id: PathId, data: NewRange) -> tuple[int, CatalogueView]:
    """Make a range of a family."""
    if data.whole is not None:
        return 201, _view(actions.put_range_back(request.user, household_id, data.whole))
    return 201, _view(actions.make_range(request.user, household_id, data.family, data.name))


@router.put("/households/{household_id}/ranges/{key}", response=CatalogueView, operation_id="systems_change_range")
def change(request: MemberRequest, household_id: PathId, key: str, data: RangeChange) -> CatalogueView:
    """Change a range; designs made of it keep it as it was."""
    units: Units = own_household(request.user, household_id).units  # type: ignore[assignment]
    if data.whole is not None:
        changes = data.whole.model_dump(exclude={"id", "family"})
    else:
        pitch = round(parse_length(data.pitch, units).mm) if data.pitch.strip() else None
        each = 1.0 if units == "metric" else KG_PER_POUND
        changes = {**data.model_dump(include={"name", "about", "rates"}), "pitch": pitch,
                   "ratings": {role: round(mass * each, 3) for role, mass in data.ratings.items()},
                   "sizes": actions.read_sizes(data.sizes, units)}  # fmt: skip
    return _view(actions.change_range(request.user, household_id, key, data.version, changes))


@router.delete("/households/{household_id}/ranges/{key}", response=CatalogueView, operation_id="systems_remove_range")
def remove(request: MemberRequest, household_id: PathId, key: str) -> CatalogueView:
    """Take a range out; designs made of it keep it."""
    return _view(actions.remove_range(request.user, household_id, key))


@router.post(
    "/households/{household_id}/supplier-list",
    response=ListPreview,
    operation_id="systems_preview_list",
    throttle=rates.uploads,
    auth=looking,
)
def preview(request: MemberRequest, household_id: PathId, data: Form[PastedText],
            file: File[UploadedFile | None] = None) -> ListPreview:  # fmt: skip
    """What the columns of a supplier's list seem to be; nothing is kept."""
    own_household(request.user, household_id)
    table = sent_table(file, data.text)
    return previewed(table, guess_list_columns(table[0]), LIST_COLUMNS)


def _columns(chosen: str) -> dict[int, ListColumn]:
    columns: dict[int, ListColumn] = {n: c for n, c in enumerate(chosen.split(",")) if c in LIST_COLUMNS}
    for needed in ("article", "price"):
        if needed not in columns.values():
            raise Invalid(f"list.no-{needed}")
    return columns


def _faults(faults: tuple[RowFault, ...]) -> list[FaultView]:
    return [FaultView(row=f.row, problem=f.problem, mend=f.mend) for f in faults]


@router.post(
    "/households/{household_id}/ranges/{key}/list",
    response=Listed,
    operation_id="systems_take_articles",
    throttle=rates.uploads,
)
def take_articles(request: MemberRequest, household_id: PathId, key: str, data: Form[Matching],
                  file: File[UploadedFile | None] = None) -> Listed:  # fmt: skip
    """A supplier's list gives a range its articles, in the place of those it had."""
    row = actions.own_range(request.user, household_id, key)
    own, units = rows.range_of(row), _units(row.household)
    read = read_articles(sent_table(file, data.text)[1:], _columns(data.columns), own.family, units)
    household = row.household
    if read.articles:
        changes: Mapping[str, object] = {"articles": tuple(a.model_dump() for a in read.articles)}
        household = actions.change_range(request.user, household_id, key, row.version, dict(changes))
    return Listed(added=len(read.articles), faults=_faults(read.faults), catalogue=_view(household))


def _units(household: models.Household) -> Units:
    units: Units = household.units  # type: ignore[assignment]
    return units


@router.get("/households/{household_id}/ranges/{key}/articles.csv", operation_id="systems_articles_csv")
def articles_csv(request: MemberRequest, household_id: PathId, key: str) -> HttpResponse:
    """The listed articles of a range as CSV, as its list is taken in."""
    row = actions.own_range(request.user, household_id, key)
    table = write_articles(rows.range_of(row).articles, _units(row.household))
    response = HttpResponse(write_csv(table), content_type="text/csv; charset=utf-8")
    response["Content-Disposition"] = f'attachment; filename="{row.key}.csv"'
    return response


@router.post(
    "/households/{household_id}/containers", response={201: CatalogueView}, operation_id="systems_list_container"
)
def list_container(request: MemberRequest, household_id: PathId, data: NewContainer) -> tuple[int, CatalogueView]:
    """List a container that can be bought."""
    added = actions.add_container(request.user, household_id, data.name, data.size, data.price, data.lid)
    return 201, _view(added)


@router.post(
    "/households/{household_id}/containers/list",
    response=Listed,
    operation_id="systems_take_containers",
    throttle=rates.uploads,
)
def take_containers(request: MemberRequest, household_id: PathId, data: Form[Matching],
                    file: File[UploadedFile | None] = None) -> Listed:  # fmt: skip
    """A supplier's list of containers; rows that cannot be read are named and left out."""
    household = own_household(request.user, household_id)
    taken = frozenset(household.container_set.values_list("key", flat=True))
    table = sent_table(file, data.text)
    read = read_containers(table[1:], _columns(data.columns), _units(household), taken)
    actions.add_containers(request.user, household_id, read.containers)
    return Listed(added=len(read.containers), faults=_faults(read.faults), catalogue=_view(household))


@router.delete(
    "/households/{household_id}/containers/{key}", response=CatalogueView, operation_id="systems_drop_container"
)
def drop_container(request: MemberRequest, household_id: PathId, key: str) -> CatalogueView:
    """Take a container off the list; designs that use it keep it."""
    return _view(actions.remove_container(request.user, household_id, key))
