"""Brief: sessions of work, what each space is for, what the household owns to keep things in."""

from typing import Annotated

from ninja import Router, Schema
from pydantic import Field, StringConstraints

from pinakotheke.core.house import SpaceUse
from pinakotheke.core.inventory.owned import Lid, Owned, OwnedKind
from pinakotheke.core.mechanics.materials import Grade, boards
from pinakotheke.core.units import Units, format_volume, with_units

from .. import models, rows
from ..actions import work as actions
from ..actions.base import own_household
from .common import MemberRequest, PathId, TypedName, Version

router = Router(tags=["house"])


class WorkSessionView(Schema):
    """A session of work."""

    key: str
    space: str
    space_id: int
    space_name: str
    goal: str
    minutes: int
    done: bool
    spent: int | None


class OwnedView(Schema):
    """Something owned, in words."""

    key: str
    name: str
    count: int
    size: str
    litres: str
    kind: OwnedKind
    lid: str
    made_of: str
    """Of a board, its grade."""


class UseView(Schema):
    """What a space is for."""

    id: int
    version: int
    key: str
    name: str
    use: SpaceUse
    before: int | None
    """The photo taken before the work."""


class WorkView(Schema):
    """The plan of work, the spaces, what is owned."""

    sessions: list[WorkSessionView]
    owned: list[OwnedView]
    spaces: list[UseView]
    planned: int
    spent: int


class WorkSessionData(Schema):
    """A session as it is planned or done."""

    space: Annotated[str, StringConstraints(max_length=64)]
    goal: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=200)]
    minutes: Annotated[int, Field(ge=5, le=600)] = 90
    done: bool = False
    spent: Annotated[int, Field(ge=0, le=1440)] | None = None


class OwnedData(Schema):
    """Something owned; its size as it is said."""

    name: TypedName
    count: Annotated[int, Field(ge=1, le=1000)] = 1
    size: Annotated[str, StringConstraints(min_length=1, max_length=60)]
    kind: OwnedKind = "container"
    lid: Lid = "none"
    grade: Grade = "particleboard"


class ApartData(Schema):
    """What old furniture is made of; thickness as it is said."""

    shelves: Annotated[int, Field(ge=0, le=40)] = 0
    thickness: Annotated[str, StringConstraints(min_length=1, max_length=40)] = "18 mm"
    grade: Grade = "particleboard"


class UseData(Schema):
    """What a space is for, on top of a version."""

    version: Version
    use: SpaceUse


def _owned(owned: Owned, units: Units) -> OwnedView:
    size = with_units(owned.size, units)
    return OwnedView(key=owned.id, name=owned.name, count=owned.count, size=size, litres=format_volume(owned.litres, units),
                     kind=owned.kind, lid=owned.lid,
                     made_of=boards()[owned.grade].name if owned.kind == "board" else "")  # fmt: skip


def view(household: models.Household) -> WorkView:
    """The plan of work of a household."""
    units: Units = household.units  # type: ignore[assignment]
    sessions = [
        WorkSessionView(key=w.key, space=w.space.key, space_id=w.space_id, space_name=w.space.name, goal=w.goal,
                    minutes=w.minutes, done=w.done, spent=w.spent)
        for w in household.worksession_set.select_related("space").order_by("done", "pk")
    ]  # fmt: skip
    before = {p.space_id: p.pk for p in models.Photo.objects.filter(space__household=household, moment="before")}
    spaces = [UseView(id=s.pk, version=s.version, key=s.key, name=s.name, use=rows.use_of(s), before=before.get(s.pk))
              for s in household.space_set.order_by("pk") if s.practice is None]  # fmt: skip
    return WorkView(
        sessions=sessions, owned=[_owned(o, units) for o in rows.stock_of(household)], spaces=spaces,
        planned=sum(s.minutes for s in sessions if not s.done), spent=sum(s.spent or 0 for s in sessions),
    )  # fmt: skip


@router.get("/households/{household_id}/sessions", response=WorkView, operation_id="house_work")
def get(request: MemberRequest, household_id: PathId) -> WorkView:
    """The plan of work."""
    return view(own_household(request.user, household_id))


@router.post("/households/{household_id}/sessions", response={201: WorkView}, operation_id="house_plan_session")
def plan(request: MemberRequest, household_id: PathId, data: WorkSessionData) -> tuple[int, WorkView]:
    """Plan a session."""
    return 201, view(actions.plan_session(request.user, household_id, data.model_dump()))


@router.put("/households/{household_id}/sessions/{key}", response=WorkView, operation_id="house_change_session")
def change(request: MemberRequest, household_id: PathId, key: str, data: WorkSessionData) -> WorkView:
    """Change a session, or close it with what it took."""
    return view(actions.plan_session(request.user, household_id, data.model_dump(), key))


@router.delete("/households/{household_id}/sessions/{key}", response=WorkView, operation_id="house_drop_session")
def drop(request: MemberRequest, household_id: PathId, key: str) -> WorkView:
    """Take a session out of the plan."""
    return view(actions.drop_session(request.user, household_id, key))


@router.post("/households/{household_id}/owned", response={201: WorkView}, operation_id="house_own")
def own(request: MemberRequest, household_id: PathId, data: OwnedData) -> tuple[int, WorkView]:
    """List something the household has already."""
    return 201, view(actions.own(request.user, household_id, data.model_dump()))


@router.post("/households/{household_id}/owned/{key}/apart", response=WorkView, operation_id="house_take_apart")
def take_apart(request: MemberRequest, household_id: PathId, key: str, data: ApartData) -> WorkView:
    """A piece of furniture becomes the boards it is made of."""
    return view(actions.take_apart(request.user, household_id, key, data.shelves, data.thickness, data.grade))


@router.delete("/households/{household_id}/owned/{key}", response=WorkView, operation_id="house_disown")
def disown(request: MemberRequest, household_id: PathId, key: str) -> WorkView:
    """Take something owned off the list."""
    return view(actions.disown(request.user, household_id, key))


@router.put("/spaces/{space_id}/use", response=WorkView, operation_id="house_use")
def use(request: MemberRequest, space_id: PathId, data: UseData) -> WorkView:
    """Say what a space is for."""
    return view(actions.set_use(request.user, space_id, data.version, data.use).household)
