"""Practice rooms and the simulated instruments."""

from typing import Literal

from ninja import Router, Schema

from pinakotheke.core.survey.models import Instrument
from pinakotheke.core.survey.practice import Review
from pinakotheke.core.survey.slots import SlotRef
from pinakotheke.core.units import Units, with_unit

from ..actions import practice as actions
from . import rates
from .common import MemberRequest, PathId, Version
from .survey_view import SpaceView, view

router = Router(tags=["survey"])


class NewPractice(Schema):
    """How far out the hidden room is."""

    difficulty: Literal["gentle", "usual", "awkward"]


class Take(Schema):
    """Read a place with an instrument; the stud finder needs none."""

    version: Version
    slot: SlotRef | None = None


class SeenAt(Schema):
    """One of the obstacles that are seen, by its number."""

    version: Version
    number: int


class AtVersion(Schema):
    """The version acted on."""

    version: Version


class MissView(Schema):
    """A reading off the truth."""

    label: str
    read: str
    true: str
    off: str


class ReviewView(Schema):
    """What the readings would have led to."""

    score: int
    plan: str
    wasted: str
    unlevel: str
    misses: list[MissView]
    unread: list[str]
    overlooked: list[str]


class ReviewAndSpace(Schema):
    """The review, and the space after it."""

    review: ReviewView
    space: SpaceView


@router.post(
    "/households/{household_id}/practice",
    response={201: SpaceView},
    operation_id="survey_practice_start",
    throttle=rates.households,
)
def start(request: MemberRequest, household_id: PathId, data: NewPractice) -> tuple[int, SpaceView]:
    """A new practice room."""
    return 201, view(actions.start(request.user, household_id, data.difficulty))


@router.post("/spaces/{space_id}/instruments/{kind}", response=SpaceView, operation_id="survey_practice_take")
def take(request: MemberRequest, space_id: PathId, kind: Instrument, data: Take) -> SpaceView:
    """One reading with an instrument."""
    place = data.slot.model_dump() if data.slot else None
    return view(actions.take(request.user, space_id, data.version, kind, place))


@router.post("/spaces/{space_id}/seen", response=SpaceView, operation_id="survey_practice_measure_obstacle")
def measure_obstacle(request: MemberRequest, space_id: PathId, data: SeenAt) -> SpaceView:
    """Measure an obstacle that is seen."""
    return view(actions.measure_obstacle(request.user, space_id, data.version, data.number))


@router.post("/spaces/{space_id}/truth", response=ReviewAndSpace, operation_id="survey_practice_truth")
def show_truth(request: MemberRequest, space_id: PathId, data: AtVersion) -> ReviewAndSpace:
    """Show the truth and what the readings would have cost."""
    row, found = actions.show_truth(request.user, space_id, data.version)
    units: Units = row.household.units  # type: ignore[assignment]
    return ReviewAndSpace(review=_view(found, units), space=view(row))


def _view(found: Review, units: Units) -> ReviewView:
    def mm(value: float) -> str:
        return with_unit(round(value, 1), units)

    return ReviewView(
        score=found.score, plan=found.plan, unread=list(found.unread), overlooked=list(found.overlooked),
        wasted=mm(found.wasted) if found.wasted > 1 else "", unlevel=mm(found.unlevel) if found.unlevel > 1 else "",
        misses=[
            MissView(label=m.label, read=mm(m.read or 0), true=mm(m.true), off=("+" if m.off > 0 else "") + mm(m.off))
            for m in found.misses
        ],
    )  # fmt: skip
