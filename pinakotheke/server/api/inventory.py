"""Sort: the things of a space and what they ask for."""

from typing import Annotated, Any, Literal, get_args

from ninja import Query, Router, Schema
from pydantic import Field, StringConstraints

from pinakotheke.core.house import Hazard, HouseRules
from pinakotheke.core.house.people import KEPT_FROM_CHILDREN
from pinakotheke.core.inventory import DECISIONS, FREQUENCIES, KINDS, Demand, Thing, demand
from pinakotheke.core.inventory.kinds import ZONES, Way
from pinakotheke.core.inventory.owned import offers, read_size
from pinakotheke.core.inventory.parse import guesses
from pinakotheke.core.inventory.things import BANDS, Decision, Frequency, ways_of
from pinakotheke.core.inventory.variants import (
    other_schools,
    over_stock,
    piles,
    purge_steps,
    sockets_wanted,
)
from pinakotheke.core.tables import load
from pinakotheke.core.units import Units, about, with_units
from pinakotheke.core.words import (
    amount,
    changes_in_words,
    class_in_words,
    offer_in_words,
    over_stock_in_words,
    purge_in_words,
)

from .. import models, rows
from ..actions import inventory as actions
from ..actions.base import own_household, own_space, own_thing
from .common import Line, MemberRequest, PathId, QueryVersion, RowId, SlipView, TypedName, Version, slip_view

router = Router(tags=["inventory"])


class ThingView(Schema):
    """A thing with its row's id and version."""

    id: int
    version: int
    thing: Thing
    kind_name: str
    size: str
    ways: list[Way]
    others: list["KindLine"]
    """Other kinds it may be, where its kind was guessed or is not known."""


class DemandView(Schema):
    """One class of storage asked for, in words."""

    storage: str
    label: str
    bare: str
    asked: str
    pieces: int
    why: SlipView


class PileView(Schema):
    """What was decided alike, and the storage it takes or frees."""

    decision: Decision
    groups: int
    pieces: int
    storage: str


class SchoolView(Schema):
    """A house rule set otherwise, and what that would change."""

    rule: str
    choice: str
    changes: str


class PurgeView(Schema):
    """So many pieces of a group fewer, and what that frees."""

    thing: str
    says: str


class ThingsView(Schema):
    """All the things of a space and what they ask for."""

    things: list[ThingView]
    demand: list[DemandView]
    by_owner: list[tuple[str, list[DemandView]]]
    by_zone: list[tuple[str, list[DemandView]]]
    piles: list[PileView]
    schools: list[SchoolView]
    purge: list[PurgeView]
    over_stock: list[str]
    offers: list[str]
    sockets: int
    pieces: int
    undecided: int
    leaving: int


class ThingChange(Schema):
    """What may be changed; what is left out stays, None clears `way`. A size is as people write it, `300 x 200 x 150`; an
    `unsure` of nothing says that the guess is right.
    """

    version: Version
    name: TypedName | None = None
    kind: Annotated[str, StringConstraints(max_length=40)] | None = None
    count: Annotated[int, Field(ge=1, le=10_000)] | None = None
    owner: Annotated[str, StringConstraints(max_length=64)] | None = None
    frequency: Frequency | None = None
    decision: Decision | None = None
    way: Way | None = None
    label: Annotated[str, StringConstraints(max_length=80)] | None = None
    together: Annotated[str, StringConstraints(max_length=40)] | None = None
    container: Annotated[str, StringConstraints(max_length=64)] | None = None
    note: Annotated[str, StringConstraints(max_length=500)] | None = None
    size: Annotated[str, StringConstraints(max_length=80)] | None = None
    unsure: Literal[""] | None = None


class QuickLine(Schema):
    """A quick-add line."""

    line: Line


class KindLine(Schema):
    """A kind of thing."""

    id: str
    name: str


class SchoolWords(Schema):
    """A school of the trade: its choices, and in a line what each changes."""

    rule: str
    label: str
    about: str
    choices: list[tuple[str, str]]


class Vocabulary(Schema):
    """What the table offers to choose from."""

    kinds: list[KindLine]
    bands: list[str]
    zones: list[str]
    schools: list["SchoolWords"]
    frequencies: list[str]
    decisions: list[str]
    hazards: list[str]
    kept_from_children: list[str]
    """What a child is kept from where the household says nothing else."""


def _thing(row: models.Thing, units: Units | None = None) -> ThingView:
    thing = rows.thing_of(row)
    shown: Units = units or row.household.units  # type: ignore[assignment]
    size = size_of(thing, shown)
    return ThingView(id=row.pk, version=row.version, thing=thing, kind_name=thing.row.many, size=size,
                     ways=list(ways_of(thing.kind)), others=others_of(thing))  # fmt: skip


def size_of(thing: Thing, units: Units) -> str:
    """The size of one, where it is its own; round where it was guessed."""
    if thing.size is None:
        return ""
    return (about if thing.unsure == "size" else with_units)(thing.size, units)


def others_of(thing: Thing) -> list[KindLine]:
    """What else it may be, for somebody to choose from."""
    if thing.unsure not in ("kind", "size"):
        return []
    return [KindLine(id=k.id, name=k.many) for k in guesses(thing.name, thing.kind)]


def _things(space: models.Space) -> ThingsView:
    household = space.household
    units: Units = household.units  # type: ignore[assignment]
    views = [_thing(t, units) for t in space.things.select_related("space").order_by("pk")]
    things = tuple(v.thing for v in views)
    rules = rows.rules_of(household)
    wanted = demand(things, rules)
    names = {t.id: t.name for t in things}
    owned = {o.id: o.name for o in rows.stock_of(household)}
    return ThingsView(
        things=views,
        demand=_demand(wanted, units),
        by_owner=_by_owner(things, household, units),
        by_zone=_by_zone(things, rules, units),
        piles=[
            PileView(decision=p.decision, groups=p.groups, pieces=p.pieces, storage=changes_in_words(p.storage, units))
            for p in piles(things, rules)
        ],
        schools=[
            SchoolView(rule=s.rule, choice=s.choice, changes=said)
            for s in other_schools(things, rules)
            if (said := changes_in_words(s.changes, units, signed=True))
        ],
        purge=[
            PurgeView(thing=p.thing, says=purge_in_words(p.pieces, names[p.thing], p.freed, units))
            for p in purge_steps(things, rules)
        ],
        over_stock=[over_stock_in_words(o) for o in over_stock(things)],
        offers=[
            offer_in_words(o, names[o.thing], owned[o.owned])
            for o in offers(things, rows.stock_of(household))
        ],
        sockets=sockets_wanted(things),
        pieces=wanted.pieces,
        undecided=sum(t.decision == "undecided" for t in things),
        leaving=sum(t.count for t in things if not t.stays),
    )  # fmt: skip


def _demand(wanted: Demand, units: Units) -> list[DemandView]:
    return [
        DemandView(storage=line.storage, label=class_in_words(line.storage, line.label, units),
                   bare=amount(line.bare, line.unit, units), asked=amount(line.asked, line.unit, units),
                   pieces=line.pieces, why=slip_view(line.why, units))
        for line in wanted.lines
    ]  # fmt: skip


def _by_owner(
    things: tuple[Thing, ...], household: models.Household, units: Units
) -> list[tuple[str, list[DemandView]]]:
    """The same demand, person by person, the house's own last."""
    people = {p.id: p.name for p in rows.people_of(household)}
    rules = rows.rules_of(household)
    owners = [*people, ""]
    return [
        (people.get(owner, "the house"), _demand(demand(mine, rules), units))
        for owner in owners
        if (mine := tuple(t for t in things if t.owner == owner and t.stays))
    ]


def _by_zone(things: tuple[Thing, ...], rules: HouseRules, units: Units) -> list[tuple[str, list[DemandView]]]:
    """The same demand by the zone where such things usually live."""
    zones: dict[str, list[Thing]] = {}
    for t in things:
        if t.stays:
            zones.setdefault(t.zone or "anywhere", []).append(t)
    return [(zone, _demand(demand(tuple(here), rules), units)) for zone, here in sorted(zones.items())]


@router.get("/vocabulary", response=Vocabulary, operation_id="inventory_vocabulary")
def vocabulary(request: MemberRequest) -> Vocabulary:
    """Kinds, frequencies and decisions."""
    kinds = [KindLine(id=k.id, name=k.many) for k in KINDS.values()]
    schools = [
        SchoolWords(rule=rule, label=row["label"], about=row["about"], choices=[tuple(c) for c in row["choices"]])
        for rule, row in load("schools")["school"].items()
    ]
    return Vocabulary(
        kinds=kinds,
        bands=list(BANDS),
        zones=list(ZONES),
        schools=schools,
        frequencies=list(FREQUENCIES),
        decisions=list(DECISIONS),
        hazards=list(get_args(Hazard)),
        kept_from_children=list(KEPT_FROM_CHILDREN),
    )


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
    if "size" in changes:
        units: Units = own_thing(request.user, thing_id).household.units  # type: ignore[assignment]
        changes["size"] = read_size(changes["size"], units)
    return _thing(actions.change_thing(request.user, thing_id, data.version, changes))


class HouseWordView(Schema):
    """A word of the house and what it means."""

    word: str
    kind_name: str
    size: str


class HouseWords(Schema):
    """What a house calls its things."""

    words: list[HouseWordView]


@router.get("/households/{household_id}/words", response=HouseWords, operation_id="inventory_words")
def words(request: MemberRequest, household_id: PathId) -> HouseWords:
    """What this house calls its things."""
    household = own_household(request.user, household_id)
    units: Units = household.units  # type: ignore[assignment]
    return HouseWords(words=[
        HouseWordView(word=w.word, kind_name=KINDS[w.kind].many, size=with_units(w.size, units) if w.size else "")
        for w in rows.words_of(household).values()
    ])  # fmt: skip


@router.delete("/households/{household_id}/words", response={204: None}, operation_id="inventory_forget_word")
def forget_word(request: MemberRequest, household_id: PathId, word: Query[Line]) -> tuple[int, None]:
    """A word of the house means what it means everywhere again."""
    actions.forget_word(request.user, household_id, word)
    return 204, None


class ManyChanges(Schema):
    """The same change for many things."""

    ids: Annotated[list[RowId], Field(min_length=1, max_length=5000)]
    frequency: Frequency | None = None
    decision: Decision | None = None
    owner: Annotated[str, StringConstraints(max_length=64)] | None = None
    label: Annotated[str, StringConstraints(max_length=80)] | None = None


class Changed(Schema):
    """How many were changed."""

    changed: int


@router.post("/households/{household_id}/things/change", response=Changed, operation_id="inventory_change_many")
def change_many(request: MemberRequest, household_id: PathId, data: ManyChanges) -> Changed:
    """Change many things at once."""
    changes = data.model_dump(exclude_none=True, exclude={"ids"})
    return Changed(changed=actions.change_many(request.user, household_id, data.ids, changes))


@router.post("/things/{thing_id}/duplicate", response={201: ThingView}, operation_id="inventory_duplicate")
def duplicate(request: MemberRequest, thing_id: PathId) -> tuple[int, ThingView]:
    """The same group once more."""
    return 201, _thing(actions.duplicate(request.user, thing_id))


@router.delete("/things/{thing_id}", response={204: None}, operation_id="inventory_remove")
def remove(request: MemberRequest, thing_id: PathId, version: QueryVersion) -> tuple[int, None]:
    """Take a thing out of the list."""
    actions.remove_thing(request.user, thing_id, version)
    return 204, None
