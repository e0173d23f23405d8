"""Keep: swaps by the season, and the calendar of keeping."""

from typing import Annotated

from django.db.models import Q
from django.http import HttpResponse
from django.utils import timezone
from ninja import Query, Router, Schema
from pydantic import Field

from pinakotheke.core.base import Id
from pinakotheke.core.tables import load
from pinakotheke.core.upkeep import Swap
from pinakotheke.core.upkeep.dates import Occasion, calendar_of
from pinakotheke.core.upkeep.review import held_in
from pinakotheke.core.upkeep.seasons import (
    FULL,
    MonthDay,
    State,
    SwapRow,
    after_moves,
    moves_of,
    next_day,
    order_of_moves,
    other,
)
from pinakotheke.core.words.seasons import move_in_words, overfull_in_words, unmeasured_in_words

from .. import models, rows
from ..actions import seasons as actions
from ..actions.base import own_household
from .common import MemberRequest, PathId, RowId, TypedName
from .reviewing import review_occasions
from .rooms import Lying

router = Router(tags=["upkeep"])
MOST_OFFERED = 2000
"""Things that are offered for a swap: a select of more helps nobody."""
WHEN = {"during": "in the season", "after": "out of the season"}


class SwapData(Schema):
    """A swap as it is planned; `now` counts for a new one only."""

    name: TypedName
    begins: MonthDay
    ends: MonthDay
    rows: Annotated[list[SwapRow], Field(max_length=200)] = []
    now: State = "after"


class SwapRowView(Schema):
    """So many of a thing, and where they are in which state."""

    thing: str
    name: str
    count: int
    during: str
    after: str


class SwapView(Schema):
    """A swap: when, what, where it does not fit, and the moves in their order."""

    key: str
    name: str
    begins: str
    ends: str
    now: State
    next_on: str
    rows: list[SwapRowView]
    moves: list[str]
    aside: int
    fewest: bool
    """Whether it is proven that no order lays fewer aside."""
    wrong: list[str]
    note: str


class OfferedView(Schema):
    """Something to choose: a place, a thing, or a swap that households plan."""

    key: str
    name: str
    count: int = 0
    at: str = ""
    """Of a thing: the place where it lies."""


class UsualSwap(Schema):
    """A swap that households plan, with the things here that belong to it."""

    name: str
    begins: str
    ends: str
    things: list[str]


class SeasonsView(Schema):
    """Swaps of a household, and what to choose from."""

    swaps: list[SwapView]
    places: list[OfferedView]
    things: list[OfferedView]
    usual: list[UsualSwap]


class SeasonsQuery(Schema):
    """Things of which space are offered."""

    space: RowId | None = None


def _swap_views(household: models.Household) -> list[SwapView]:
    swaps = [rows.swap_of(s) for s in household.swap_set.order_by("begins", "pk")]
    keys = {p for s in swaps for r in s.rows for p in (r.during, r.after) if p}
    named = {r.thing for s in swaps for r in s.rows}
    # All of a space that has a part in it: what shares a compartment with what comes counts there too.
    place_rows = household.place_set.filter(space__places__key__in=keys).distinct().select_related("space")
    found = household.stay_set.filter(Q(place__in=place_rows) | Q(thing__key__in=named))
    stay_rows = list(found.select_related("place__space", "thing__space").order_by("pk"))
    things = {t.key: rows.thing_of(t) for t in household.thing_set.filter(key__in=named).select_related("space")}
    things |= {s.thing.key: rows.thing_of(s.thing) for s in stay_rows}
    lying = Lying(household, [*place_rows, *(s.place for s in stay_rows)], [rows.stay_of(s) for s in stay_rows], things)
    return [_swap_view(swap, lying) for swap in swaps]


def _swap_view(swap: Swap, lying: Lying) -> SwapView:
    known = tuple(r for r in swap.rows if r.thing in lying.things and {r.during, r.after} <= {*lying.places, ""})
    swap = swap.model_copy(update={"rows": known})
    moves = moves_of(swap, lying.stays, {key: t.count for key, t in lying.things.items()})
    now, then = held_in(lying.stays), after_moves(lying.stays, moves)
    rooms = lying.rooms(now, then)
    own = {p for r in swap.rows for p in (r.during, r.after) if p}
    wrong = []
    for state, held in ((swap.now, now), (other(swap.now), then)):
        shares = {p: rooms.full(p, held.get(p, {})) for p in own}
        wrong += [overfull_in_words(lying.named(p), share, WHEN[state]) for p, share in sorted(shares.items())
                  if share > FULL]  # fmt: skip
        said = lying.wrong(rooms, {p: held[p] for p in held if p in lying.places})
        wrong += [f"{line} ({WHEN[state]})" for line in said]
    order = order_of_moves(moves, now, rooms.full)
    unmeasured = sorted(lying.named(p) for p in own if rooms.part(p) is None)
    return SwapView(
        key=swap.id, name=swap.name, begins=swap.begins, ends=swap.ends, now=swap.now,
        next_on=next_day(swap, timezone.localdate()).isoformat(), fewest=order.fewest, wrong=list(dict.fromkeys(wrong)),
        moves=[move_in_words(m, lying.things, lying.named) for m in order.moves],
        aside=len(order.moves) - len(moves), note=unmeasured_in_words(unmeasured) if unmeasured else "",
        rows=[SwapRowView(name=lying.things[r.thing].name, **r.model_dump()) for r in swap.rows],
    )  # fmt: skip


def _view(household: models.Household, space: int | None) -> SeasonsView:
    usual = load("seasons")["swaps"].values()
    kinds = {k for row in usual for k in row["kinds"]}
    offered = household.thing_set.filter(Q(kind__in=kinds) | Q(frequency="seasonal") | Q(space=space))
    lies = dict(household.stay_set.filter(thing__in=offered).order_by("-pk").values_list("thing__key", "place__key"))
    things = list(offered.order_by("name")[:MOST_OFFERED])
    return SeasonsView(
        swaps=_swap_views(household),
        places=[OfferedView(key=p.key, name=f"{p.name} ({p.space.name})")
                for p in household.place_set.select_related("space").order_by("space__name", "pk")],
        things=[OfferedView(key=t.key, name=t.name, count=t.count, at=lies.get(t.key, "")) for t in things],
        usual=[UsualSwap(name=row["name"], begins=row["begins"], ends=row["ends"], things=found)
               for row in usual if (found := [t.key for t in things if t.kind in row["kinds"]])],
    )  # fmt: skip


@router.get("/households/{household_id}/seasons", response=SeasonsView, operation_id="upkeep_seasons")
def seasons(request: MemberRequest, household_id: PathId, query: Query[SeasonsQuery]) -> SeasonsView:
    """Swaps by the season: whether both states fit, and the moves in their order."""
    return _view(own_household(request.user, household_id), query.space)


@router.post("/households/{household_id}/swaps", response={204: None}, operation_id="upkeep_plan_swap")
def plan(request: MemberRequest, household_id: PathId, data: SwapData) -> tuple[int, None]:
    """Plan a swap."""
    actions.plan(request.user, household_id, "", _fields(data))
    return 204, None


@router.put("/households/{household_id}/swaps/{key}", response={204: None}, operation_id="upkeep_change_swap")
def change(request: MemberRequest, household_id: PathId, key: Id, data: SwapData) -> tuple[int, None]:
    """Plan a swap otherwise."""
    actions.plan(request.user, household_id, key, _fields(data))
    return 204, None


@router.delete("/households/{household_id}/swaps/{key}", response={204: None}, operation_id="upkeep_drop_swap")
def drop(request: MemberRequest, household_id: PathId, key: Id) -> tuple[int, None]:
    """A swap is planned no longer."""
    actions.drop(request.user, household_id, key)
    return 204, None


@router.post("/households/{household_id}/swaps/{key}/done", response={204: None}, operation_id="upkeep_swap")
def done(request: MemberRequest, household_id: PathId, key: Id) -> tuple[int, None]:
    """The things changed their places; done once more, it is as it was."""
    actions.swap_now(request.user, household_id, key)
    return 204, None


def _fields(data: SwapData) -> dict[str, object]:
    return {**data.model_dump(exclude={"rows"}), "rows": [r.model_dump() for r in data.rows]}


@router.get("/households/{household_id}/keeping.ics", operation_id="upkeep_calendar")
def calendar(request: MemberRequest, household_id: PathId) -> HttpResponse:
    """Swaps, reviews and what leaves, as iCalendar."""
    household = own_household(request.user, household_id)
    today = timezone.localdate()
    occasions = []
    for view, row in zip(_swap_views(household), household.swap_set.order_by("begins", "pk"), strict=True):
        swap = rows.swap_of(row)
        for state in ("after", "during"):
            day = next_day(swap.model_copy(update={"now": state}), today)
            text = "\n".join(view.moves) if state == swap.now else ""
            title = f"{swap.name}: {'out' if state == 'after' else 'away'}"
            occasions.append(Occasion(f"swap-{swap.id}-{state}", day, title, text, yearly=True))
    data = calendar_of([*occasions, *review_occasions(household, today)], timezone.now())
    response = HttpResponse(data, content_type="text/calendar; charset=utf-8")
    response["Content-Disposition"] = 'attachment; filename="keeping.ics"'
    return response
