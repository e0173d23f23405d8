"""Keep: reviews of a space, what leaves, and what children grow into."""

from collections.abc import Iterator
from datetime import date
from typing import Annotated

from django.utils import timezone
from ninja import Query, Router, Schema
from pydantic import Field, StringConstraints

from pinakotheke.core.base import Id
from pinakotheke.core.inventory import STAYING
from pinakotheke.core.tables import load
from pinakotheke.core.units import Units
from pinakotheke.core.upkeep.dates import Occasion
from pinakotheke.core.upkeep.growing import growing
from pinakotheke.core.upkeep.restock import MaybeDay
from pinakotheke.core.upkeep.review import Answer, School, due, held_in, leaving, relief, to_look_at
from pinakotheke.core.words.review import answer_in_words, growing_in_words, look_in_words, relief_in_words

from .. import models, rows
from ..actions import reviewing as actions
from ..actions.base import must_be_day, own_household, own_space
from .common import MemberRequest, PathId
from .rooms import Lying
from .upkeep_view import Keeping

router = Router(tags=["upkeep"])
LATEST = 12


class ReviewData(Schema):
    """What was seen at a look, and when the next one is; the key is made by the device that says it."""

    key: Id
    answers: Annotated[list[Answer], Field(max_length=500)] = []
    next_on: MaybeDay = ""


class LeavingData(Schema):
    """Where something goes, and by when."""

    to: Annotated[str, StringConstraints(strip_whitespace=True, max_length=200)] = ""
    by: MaybeDay = ""


class LookView(Schema):
    """Something to look at."""

    says: str
    place: str
    thing: str


class PastReview(Schema):
    """A look that was had."""

    key: str
    on: str
    says: list[str]


class LeavingView(Schema):
    """Something that leaves."""

    id: int
    key: str
    name: str
    count: int
    decision: str
    to: str
    by: str
    late: bool


class SpaceReview(Schema):
    """When a space is looked at, what to look at, what was seen, and what leaves."""

    due: str
    """Empty where nobody moved in yet."""
    overdue: bool
    school: School
    schools: list[tuple[str, str]]
    looks: list[LookView]
    past: list[PastReview]
    relief: list[str]
    """Where what overflowed at the last look would have room."""
    leaving: list[LeavingView]
    growing: list[str]
    decisions: list[str]


class ReviewQuery(Schema):
    """By which school the first looks are due."""

    school: School = "fortnight"


def _moved_in(space: models.Space) -> date | None:
    """The day on which somebody moved in; of places that were named by hand, the day of the first."""
    entries = space.household.log.filter(detail__space=space.key)
    entry = entries.filter(action="upkeep.move-in").order_by("-pk").first()
    entry = entry or entries.filter(action="upkeep.add-place").order_by("pk").first()
    return timezone.localtime(entry.at).date() if entry and space.places.exists() else None


def _last_moved(space: models.Space, moved_in: date) -> dict[str, date]:
    """When each thing of a space was last put anywhere: by the log, else when somebody moved in."""
    things = models.Stay.objects.filter(place__space=space).values_list("thing__key", flat=True)
    found = dict.fromkeys(things, moved_in)
    for thing, at in space.household.log.filter(action="upkeep.put").order_by("pk").values_list("detail__thing", "at"):
        if thing in found:
            found[thing] = max(found[thing], timezone.localtime(at).date())
    return found


def _view(space: models.Space, school: School) -> SpaceReview:
    one, today = Keeping(space), timezone.localdate()
    units: Units = one.household.units  # type: ignore[assignment]
    reviews = [rows.review_of(r) for r in space.reviews.select_related("space").order_by("on", "pk")]
    moved_in = _moved_in(space)
    names = {p.id: p.name for p in one.places}
    looks: list[LookView] = []
    room: list[str] = []
    lying = Lying(one.household, one.rows, one.stays, one.things)
    held = held_in(one.stays)
    rooms = lying.rooms(held)
    if moved_in is not None:
        found = to_look_at(one.places, one.stays, rooms, _last_moved(space, moved_in), today)
        looks = [LookView(says=look_in_words(x, names, one.things), place=x.place, thing=x.thing) for x in found]
    for answer in reviews[-1].answers if reviews else ():
        if answer.seen == "overflows":
            for thing in held.get(answer.place, {}):
                there = relief(one.places, held, rooms, thing, 1, out_of=answer.place)
                if there is not None:
                    room.append(relief_in_words(one.things[thing].name, names[answer.place], names[there]))
    when = due(moved_in, reviews, school) if moved_in else None
    grown = growing(one.people, one.places, one.stays, one.things, locked=rows.use_of(space).locked)
    people = {p.id: p.name for p in one.people}
    return SpaceReview(
        due=when.isoformat() if when else "", overdue=bool(when and when <= today), school=school, looks=looks,
        schools=[(key, row["name"]) for key, row in load("review")["schools"].items()], relief=list(dict.fromkeys(room)),
        past=[PastReview(key=r.id, on=r.on, says=[answer_in_words(a, names, one.things) for a in r.answers])
              for r in reversed(reviews[-LATEST:])],
        leaving=[_leaving(t, today) for t in _leaves(space.household, space)],
        growing=[growing_in_words(g, names, one.things, people, units, today.year) for g in grown],
        decisions=[d for d in load("review")["leaves"] if d != "move"],
    )  # fmt: skip


def _leaves(household: models.Household, space: models.Space | None = None) -> list[models.Thing]:
    found = household.thing_set.exclude(decision__in=STAYING).select_related("space", "leaving").order_by("name")
    return list(found.filter(space=space) if space else found)


def _leaving(row: models.Thing, today: date) -> LeavingView:
    said = rows.leaving_of(row.leaving) if hasattr(row, "leaving") else None
    to, by = leaving(rows.thing_of(row), today, said)
    return LeavingView(id=row.pk, key=row.key, name=row.name, count=row.count, decision=row.decision, to=to,
                       by=by.isoformat(), late=by < today)  # fmt: skip


def review_occasions(household: models.Household, today: date) -> Iterator[Occasion]:
    """Looks that are due, and days by which something leaves."""
    for space in household.space_set.filter(places__isnull=False).distinct():
        moved_in = _moved_in(space)
        if moved_in is not None:
            reviews = [rows.review_of(r) for r in space.reviews.select_related("space").order_by("on", "pk")]
            yield Occasion(f"review-{space.pk}", due(moved_in, reviews, "fortnight"), f"{space.name}: look again")
    for row in _leaves(household):
        if hasattr(row, "leaving") and row.leaving.by:
            one = _leaving(row, today)
            yield Occasion(f"leaves-{row.pk}", date.fromisoformat(one.by), f"{row.name}: {row.decision}", one.to)


@router.get("/spaces/{space_id}/review", response=SpaceReview, operation_id="upkeep_review")
def review(request: MemberRequest, space_id: PathId, query: Query[ReviewQuery]) -> SpaceReview:
    """When a space is looked at, what to look at, and what leaves."""
    return _view(own_space(request.user, space_id), query.school)


@router.post("/spaces/{space_id}/reviews", response=SpaceReview, operation_id="upkeep_reviewed")
def reviewed(request: MemberRequest, space_id: PathId, data: ReviewData) -> SpaceReview:
    """A space was looked at; sent twice it is kept once."""
    must_be_day(data.next_on)
    return _view(actions.review(request.user, space_id, data.key, data.answers, data.next_on), "fortnight")


@router.delete("/households/{household_id}/reviews/{key}", response=SpaceReview, operation_id="upkeep_unreviewed")
def unreviewed(request: MemberRequest, household_id: PathId, key: Id) -> SpaceReview:
    """A look was not so: what it changed is as it was."""
    return _view(actions.take_back(request.user, household_id, key), "fortnight")


@router.put("/things/{thing_id}/leaving", response=LeavingView, operation_id="upkeep_leaves")
def leaves(request: MemberRequest, thing_id: PathId, data: LeavingData) -> LeavingView:
    """Where something that leaves goes, and by when."""
    must_be_day(data.by)
    return _leaving(actions.lead_out(request.user, thing_id, data.to, data.by), timezone.localdate())


@router.post("/things/{thing_id}/gone", response={204: None}, operation_id="upkeep_gone")
def gone(request: MemberRequest, thing_id: PathId) -> tuple[int, None]:
    """Something that leaves is gone."""
    actions.gone(request.user, thing_id)
    return 204, None


@router.get("/households/{household_id}/leaving", response=list[LeavingView], operation_id="upkeep_leaving")
def queue(request: MemberRequest, household_id: PathId) -> list[LeavingView]:
    """All that leaves the house, what is due first at the top."""
    today = timezone.localdate()
    return sorted((_leaving(t, today) for t in _leaves(own_household(request.user, household_id))), key=lambda x: x.by)
