"""Keep: what is used up, what was taken of it, and what to buy."""

from typing import Annotated

from django.http import HttpResponse
from django.utils import timezone
from ninja import Router, Schema
from pydantic import Field, StringConstraints

from pinakotheke.core.base import Id
from pinakotheke.core.drawing.restock_list import restock_list
from pinakotheke.core.units import Units
from pinakotheke.core.upkeep.restock import Day, Did, MaybeDay

from ..actions import restock as actions
from ..actions.base import own_household
from .common import MemberRequest, PathId
from .restock_view import RestockView, restock_view

router = Router(tags=["upkeep"])


class SupplyData(Schema):
    """How much of a thing is kept, and where it is bought."""

    thing: Id
    lasting: bool = True
    spare: Annotated[int, Field(ge=0, le=1000)] = 1
    days: Annotated[int, Field(ge=1, le=730)] | None = None
    shop: Annotated[str, StringConstraints(strip_whitespace=True, max_length=80)] = ""
    pack: Annotated[int, Field(ge=1, le=1000)] = 1
    keeps: Annotated[int, Field(ge=0, le=3650)] | None = None


class MovementData(Schema):
    """Something was bought, opened, finished, thrown away or counted; the key is made by the device that says it."""

    key: Id
    did: Did
    count: Annotated[int, Field(ge=0, le=10_000)] = 1
    on: Day
    best_before: MaybeDay = ""


@router.get("/households/{household_id}/restock", response=RestockView, operation_id="upkeep_restock")
def restock(request: MemberRequest, household_id: PathId) -> RestockView:
    """What is used up, what runs out, and what to buy."""
    return restock_view(own_household(request.user, household_id), timezone.localdate())


@router.put("/households/{household_id}/supplies", response=RestockView, operation_id="upkeep_watch")
def watch(request: MemberRequest, household_id: PathId, data: SupplyData) -> RestockView:
    """Watch a thing, or change how much of it is kept."""
    household = actions.watch(request.user, household_id, data.thing, data.model_dump(exclude={"thing"}))
    return restock_view(household, timezone.localdate())


@router.delete("/households/{household_id}/supplies/{key}", response=RestockView, operation_id="upkeep_unwatch")
def unwatch(request: MemberRequest, household_id: PathId, key: Id) -> RestockView:
    """No longer watch a thing."""
    return restock_view(actions.unwatch(request.user, household_id, key), timezone.localdate())


@router.post("/households/{household_id}/supplies/{key}/movements", response=RestockView, operation_id="upkeep_moved")
def moved(request: MemberRequest, household_id: PathId, key: Id, data: MovementData) -> RestockView:
    """Something happened to a supply; sent twice it is kept once."""
    actions.move(request.user, household_id, key, data.key, data.model_dump(exclude={"key"}))
    return restock_view(own_household(request.user, household_id), timezone.localdate())


@router.delete("/households/{household_id}/movements/{key}", response=RestockView, operation_id="upkeep_unmoved")
def unmoved(request: MemberRequest, household_id: PathId, key: Id) -> RestockView:
    """It did not happen after all."""
    actions.take_back(request.user, household_id, key)
    return restock_view(own_household(request.user, household_id), timezone.localdate())


@router.get("/households/{household_id}/restock.pdf", operation_id="upkeep_restock_list")
def paper(request: MemberRequest, household_id: PathId) -> HttpResponse:
    """What to buy by shop, to take along, and lines to write on."""
    household = own_household(request.user, household_id)
    units: Units = household.units  # type: ignore[assignment]
    view = restock_view(household, timezone.localdate())
    data = restock_list(household.name, view.today, [(shop.shop, shop.lines) for shop in view.shops],
                        [s.name for s in view.supplies if not s.buy], units)  # fmt: skip
    response = HttpResponse(data, content_type="application/pdf")
    response["Content-Disposition"] = 'inline; filename="restock.pdf"'
    return response
