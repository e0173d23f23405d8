"""Sort: the things of a space and what they ask for."""

from typing import Annotated, Any

from ninja import Router, Schema
from pydantic import Field, StringConstraints

from pinakotheke.core.checks.wording import amount
from pinakotheke.core.inventory import DECISIONS, FREQUENCIES, KINDS, Thing, demand
from pinakotheke.core.inventory.kinds import Way
from pinakotheke.core.inventory.things import Decision, Frequency
from pinakotheke.core.lengths import Units

from .. import models, rows
from ..actions import inventory as actions
from ..actions.base import own_space
from .common import Line, MemberRequest, PathId, QueryVersion, SlipView, TypedName, Version, slip_view

router = Router(tags=["inventory"])


class ThingView(Schema):
    """A thing with its row's id and version."""

    id: int
    version: int
    thing: Thing
    kind_name: str
    ways: list[Way]


class DemandView(Schema):
    """One class of storage asked for, in words."""

    storage: str
    label: str
    bare: str
    asked: str
    pieces: int
    why: SlipView


class ThingsView(Schema):
    """All the things of a space and what they ask for."""

    things: list[ThingView]
    demand: list[DemandView]
    pieces: int
    undecided: int
    leaving: int


class ThingChange(Schema):
    """What may be changed; what is left out stays, None clears `way`, `size` or `mass`."""

    version: Version
    name: TypedName | None = None
    kind: Annotated[str, StringConstraints(max_length=40)] | None = None
    count: Annotated[int, Field(ge=1, le=10_000)] | None = None
    owner: Annotated[str, StringConstraints(max_length=64)] | None = None
    frequency: Frequency | None = None
    decision: Decision | None = None
    way: Way | None = None
    note: Annotated[str, StringConstraints(max_length=500)] | None = None


class QuickLine(Schema):
    """A quick-add line."""

    line: Line


class KindLine(Schema):
    """A kind of thing."""

    id: str
    name: str


class Vocabulary(Schema):
    """What the table offers to choose from."""

    kinds: list[KindLine]
    frequencies: list[str]
    decisions: list[str]


def _thing(row: models.Thing) -> ThingView:
    thing = rows.thing_of(row)
    return ThingView(id=row.pk, version=row.version, thing=thing, kind_name=thing.row.many, ways=list(thing.row.ways))


def _things(space: models.Space) -> ThingsView:
    household = space.household
    units: Units = household.units  # type: ignore[assignment]
    views = [_thing(t) for t in space.things.select_related("space").order_by("pk")]
    things = tuple(v.thing for v in views)
    wanted = demand(things, rows.rules_of(household))
    return ThingsView(
        things=views,
        demand=[
            DemandView(storage=line.storage, label=_label(line.storage, line.label, units),
                       bare=amount(line.bare, line.unit, units), asked=amount(line.asked, line.unit, units),
                       pieces=line.pieces, why=slip_view(line.why, units))
            for line in wanted.lines
        ],
        pieces=wanted.pieces,
        undecided=sum(t.decision == "undecided" for t in things),
        leaving=sum(t.count for t in things if not t.stays),
    )  # fmt: skip


def _label(storage: str, label: str, units: Units) -> str:
    """A demand line's name: hanging by drop, shelves by depth."""
    if storage == "hanging":
        return f"hanging, {label}"
    if label.isdigit():
        return f"{storage}, up to {amount(float(label), 'mm', units)} deep"
    return f"{storage}, {label}" if label else storage


@router.get("/vocabulary", response=Vocabulary, operation_id="inventory_vocabulary")
def vocabulary(request: MemberRequest) -> Vocabulary:
    """Kinds, frequencies and decisions."""
    kinds = [KindLine(id=k.id, name=k.many) for k in KINDS.values()]
    return Vocabulary(kinds=kinds, frequencies=list(FREQUENCIES), decisions=list(DECISIONS))


@router.get("/spaces/{space_id}/things", response=ThingsView, operation_id="inventory_get")
def get(request: MemberRequest, space_id: PathId) -> ThingsView:
    """The things of a space."""
    return _things(own_space(request.user, space_id))


@router.post("/spaces/{space_id}/things", response={201: ThingsView}, operation_id="inventory_add")
def add(request: MemberRequest, space_id: PathId, data: QuickLine) -> tuple[int, ThingsView]:
    """Add things by the quick-add line."""
    actions.add_things(request.user, space_id, data.line)
    return 201, get(request, space_id)


@router.post("/spaces/{space_id}/things/back", response={201: ThingsView}, operation_id="inventory_put_back")
def put_back(request: MemberRequest, space_id: PathId, data: Thing) -> tuple[int, ThingsView]:
    """Put back a thing that was taken out."""
    actions.put_back(request.user, space_id, data)
    return 201, get(request, space_id)


@router.patch("/things/{thing_id}", response=ThingView, operation_id="inventory_change")
def change(request: MemberRequest, thing_id: PathId, data: ThingChange) -> ThingView:
    """Change a thing."""
    changes: dict[str, Any] = {k: v for k, v in data.model_dump(exclude_unset=True).items() if k != "version"}
    changes = {k: v for k, v in changes.items() if v is not None or k == "way"}
    return _thing(actions.change_thing(request.user, thing_id, data.version, changes))


@router.delete("/things/{thing_id}", response={204: None}, operation_id="inventory_remove")
def remove(request: MemberRequest, thing_id: PathId, version: QueryVersion) -> tuple[int, None]:
    """Take a thing out of the list."""
    actions.remove_thing(request.user, thing_id, version)
    return 204, None
