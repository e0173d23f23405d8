"""Brief: households, people, rules, the house file."""

from typing import Annotated, Literal

from django.http import HttpResponse
from ninja import File, Router, Schema
from ninja.files import UploadedFile
from pydantic import StringConstraints

from pinakotheke.core.base import AtMost, Id
from pinakotheke.core.house import Hazard, HouseRules
from pinakotheke.core.house import Person as CorePerson
from pinakotheke.core.housefile import MOST_BYTES, dump_house
from pinakotheke.core.lengths import parse_length
from pinakotheke.core.units import Units
from pinakotheke.core.words.limits import LimitRow, limit_rows, usual_text

from .. import models, rows
from ..actions import house as actions
from ..actions.base import Invalid, own_household
from ..memo import remembered
from . import rates
from .common import MemberRequest, PathId, TypedName, Version

router = Router(tags=["house"])


class SpaceLine(Schema):
    """A space in the list of spaces."""

    id: int
    key: str
    name: str


class HouseView(Schema):
    """A household."""

    id: int
    version: int
    name: str
    units: Units
    currency: str
    is_demo: bool
    rules: HouseRules
    people: list[CorePerson]
    spaces: list[SpaceLine]


class NewHousehold(Schema):
    """What a household starts from."""

    name: TypedName
    units: Units = "metric"
    currency: Annotated[str, StringConstraints(pattern=r"^[A-Z]{3}$")] = "EUR"


class HouseChange(Schema):
    """What may be changed; what is left out stays."""

    version: Version
    name: TypedName | None = None
    units: Units | None = None
    currency: Annotated[str, StringConstraints(pattern=r"^[A-Z]{3}$")] | None = None
    rules: HouseRules | None = None


class PersonData(Schema):
    """A person; the stature as it is said, in any unit."""

    name: TypedName
    stature: Annotated[str, StringConstraints(max_length=40)] = "1700 mm"
    posture: Annotated[str, StringConstraints(pattern="^(standing|seated|both)$")] = "standing"
    age: Annotated[str, StringConstraints(pattern="^(child|adult|older)$")] = "adult"
    hand: Annotated[str, StringConstraints(pattern="^(right|left)$")] = "right"
    pronoun: Annotated[str, StringConstraints(pattern="^(|her|his|their)$")] = ""
    kept_from: list[Hazard] | None = None


def _view(row: models.Household) -> HouseView:
    spaces = [SpaceLine(id=s.pk, key=s.key, name=s.name) for s in row.space_set.order_by("pk")]
    units: Units = row.units  # type: ignore[assignment]
    return HouseView(id=row.pk, version=row.version, name=row.name, units=units, currency=row.currency,
                     is_demo=row.is_demo, rules=rows.rules_of(row), people=list(rows.people_of(row)),
                     spaces=spaces)  # fmt: skip


@router.post("/households", response={201: HouseView}, operation_id="house_create", throttle=rates.households)
def create(request: MemberRequest, data: NewHousehold) -> tuple[int, HouseView]:
    """A new, empty household."""
    return 201, _view(actions.create_household(request.user, data.name, data.units, data.currency))


@router.get("/households/{household_id}", response=HouseView, operation_id="house_get")
def get(request: MemberRequest, household_id: PathId) -> HouseView:
    """A household with its people, rules and spaces."""
    return _view(own_household(request.user, household_id))


@router.patch("/households/{household_id}", response=HouseView, operation_id="house_change")
def change(request: MemberRequest, household_id: PathId, data: HouseChange) -> HouseView:
    """Change name, units, currency or rules."""
    changes = data.model_dump(mode="json", exclude_none=True, exclude={"version"})
    return _view(actions.change_household(request.user, household_id, data.version, changes))


class LimitData(Schema):
    """One limit as a person writes it, on top of a version; empty for the usual one."""

    version: Version
    name: Annotated[str, StringConstraints(max_length=40)]
    text: Annotated[str, StringConstraints(strip_whitespace=True, max_length=80)] = ""


class LimitsView(Schema):
    """What a household goes by where the trade leaves a choice."""

    each: list[LimitRow]


@router.get("/households/{household_id}/limits", response=LimitsView, operation_id="house_limits")
def limits(request: MemberRequest, household_id: PathId) -> LimitsView:
    """Every limit beside its usual value."""
    row = own_household(request.user, household_id)
    return LimitsView(each=list(limit_rows(rows.rules_of(row).limits, row.units)))  # type: ignore[arg-type]


@router.put("/households/{household_id}/limits", response=HouseView, operation_id="house_limit")
def limit(request: MemberRequest, household_id: PathId, data: LimitData) -> HouseView:
    """Say another limit, or go back to the usual one."""
    row = own_household(request.user, household_id)
    units: Units = row.units  # type: ignore[assignment]
    before = rows.rules_of(row)
    limits = before.limits.but(data.name, data.text or usual_text(data.name, units), units)
    changed = {"rules": before.model_copy(update={"limits": limits}).model_dump(mode="json")}
    return _view(actions.change_household(request.user, household_id, data.version, changed))


def _person(request: MemberRequest, household_id: int, data: PersonData, key: str | None) -> HouseView:
    household = own_household(request.user, household_id)
    units: Units = household.units  # type: ignore[assignment]
    fields = {**data.model_dump(), "stature": parse_length(data.stature, units).mm}
    actions.put_person(request.user, household_id, fields, key)
    return _view(household)


@router.post("/households/{household_id}/people", response={201: HouseView}, operation_id="house_add_person")
def add_person(request: MemberRequest, household_id: PathId, data: PersonData) -> tuple[int, HouseView]:
    """Add a person."""
    return 201, _person(request, household_id, data, None)


@router.put("/households/{household_id}/people/{key}", response=HouseView, operation_id="house_change_person")
def change_person(request: MemberRequest, household_id: PathId, key: str, data: PersonData) -> HouseView:
    """Change a person."""
    return _person(request, household_id, data, key)


class TakenOut(Schema):
    """A person who was taken out, and the things that were theirs: what puts them back."""

    person: CorePerson
    things: Annotated[list[Id], AtMost(20_000)]


class HouseWithout(Schema):
    """The household without someone, and what would put them back."""

    house: HouseView
    taken_out: TakenOut


@router.delete("/households/{household_id}/people/{key}", response=HouseWithout, operation_id="house_remove_person")
def remove_person(request: MemberRequest, household_id: PathId, key: str) -> HouseWithout:
    """Take a person out; their things then belong to the house."""
    person, things = actions.remove_person(request.user, household_id, key)
    return HouseWithout(house=get(request, household_id), taken_out=TakenOut(person=person, things=things))


@router.post("/households/{household_id}/people/{key}/back", response=HouseView, operation_id="house_put_back_person")
def put_back_person(request: MemberRequest, household_id: PathId, key: str, data: TakenOut) -> HouseView:
    """Put back a person who was taken out, with their things."""
    if data.person.id != key:
        raise Invalid("house.other-household", key=key)
    actions.put_back_person(request.user, household_id, data.person, data.things)
    return get(request, household_id)


@router.get("/households/{household_id}/house-file", operation_id="house_export", throttle=rates.exports)
def export(request: MemberRequest, household_id: PathId) -> HttpResponse:
    """The house file."""
    row = own_household(request.user, household_id)
    name = "".join(c if c.isalnum() else "-" for c in row.name.lower()).strip("-") or "house"
    response = remembered(request, row, lambda: dump_house(rows.house_of(row)))
    response["Content-Disposition"] = f'attachment; filename="{name}.house.json"'
    return response


class ImportView(Schema):
    """A house file on its way in: waiting, done (with the household it made), or refused with its faults."""

    id: int
    status: Literal["waiting", "done", "refused"]
    household: int | None
    problem: str
    faults: list[str]


def _import_view(row: models.HouseImport) -> ImportView:
    status: Literal["waiting", "done", "refused"] = row.status  # type: ignore[assignment]
    return ImportView(id=row.pk, status=status, household=row.household_id, problem=row.problem, faults=row.faults)


@router.post("/house-file", response={202: ImportView}, operation_id="house_import", throttle=rates.uploads)
def import_file(request: MemberRequest, file: File[UploadedFile]) -> tuple[int, ImportView]:
    """A new household from a house file; it is read by a worker, since it may be large."""
    if (file.size or 0) > MOST_BYTES:
        raise Invalid("house.file-too-large", most=MOST_BYTES // 1_000_000)
    return 202, _import_view(actions.take_file(request.user, file))


@router.get("/house-file/{import_id}", response=ImportView, operation_id="house_import_status")
def import_status(request: MemberRequest, import_id: PathId) -> ImportView:
    """How far a house file is."""
    return _import_view(actions.own_import(request.user, import_id))
