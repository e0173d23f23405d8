"""Measure: a space's readings, what follows from them, and its drawings."""

from typing import Annotated

from django.utils import timezone
from ninja import Router, Schema
from pydantic import StringConstraints

from pinakotheke.core.checks import check_survey
from pinakotheke.core.drawing import Drawing, SlotRef, survey_elevation, survey_plan
from pinakotheke.core.errors import PinakothekeError
from pinakotheke.core.lengths import Units, with_unit
from pinakotheke.core.survey import (
    Envelope,
    Heard,
    Obstacle,
    Reading,
    Slot,
    Survey,
    doubts,
    envelope,
    missing,
    slots,
)
from pinakotheke.core.survey.callout import EXAMPLES

from .. import models, rows
from ..actions import survey as actions
from ..actions.base import own_space
from .common import (
    FindingView,
    Line,
    MemberRequest,
    PathId,
    QueryVersion,
    SlipView,
    TypedName,
    Version,
    finding_views,
    slip_view,
)

router = Router(tags=["survey"])


class SlotView(Schema):
    """A place for a reading, with what was read there."""

    slot: SlotRef
    label: str
    how: str
    needed: bool
    readings: list["ReadingView"]


class ReadingView(Schema):
    """A reading in the household's units."""

    id: str
    text: str
    called: str
    by: str


class ClearView(Schema):
    """The clear sizes derived, in words, and why."""

    width: str
    depth: str
    height: str
    opening: str
    why: SlipView


class ObstacleView(Schema):
    """An obstacle in words."""

    id: str
    name: str
    text: str


class SpaceView(Schema):
    """A space as measured."""

    id: int
    household: int
    version: int
    key: str
    name: str
    units: Units
    survey: Survey
    slots: list[SlotView]
    studs: list[ReadingView]
    obstacles: list[ObstacleView]
    door: str
    next: Slot | None
    missing: int
    doubts: list[str]
    clear: ClearView | None
    problem: str
    elevation: Drawing
    plan: Drawing
    findings: list[FindingView]
    examples: list[str]


class NewSpace(Schema):
    """A space to be measured."""

    name: TypedName


class Said(Schema):
    """A call-out line."""

    line: Line


class SaidAt(Said):
    """A call-out line to be kept on top of a version."""

    version: Version


class TypedReading(Schema):
    """A reading typed on a dimension line."""

    version: Version
    slot: SlotRef
    text: Annotated[str, StringConstraints(min_length=1, max_length=40)]


class WholeSurvey(Schema):
    """A survey that replaces the present one, as undo does."""

    version: Version
    survey: Survey


class HeardAndSpace(Schema):
    """What was understood, and the space after it."""

    heard: Heard
    space: SpaceView


def view(row: models.Space) -> SpaceView:
    """A space in the household's units, with its drawings."""
    household = row.household
    units: Units = household.units  # type: ignore[assignment]
    survey = rows.survey_of(row)
    clear, problem, findings = None, "", []
    try:
        region = envelope(survey, rows.rules_of(household))
        clear = _clear(region, units)
        findings = finding_views(check_survey(survey, region), units)
    except PinakothekeError as error:
        problem = str(error)
    absent = missing(survey)
    today = timezone.localdate().isoformat()
    return SpaceView(
        id=row.pk, household=household.pk, version=row.version, key=row.key, name=row.name, units=units, survey=survey,
        slots=[*(_slot(s, survey, units) for s in slots(survey) if s.what != "stud"), *_elsewhere(survey, units)],
        studs=[_reading(r, units) for r in survey.readings if r.what == "stud"],
        obstacles=[_obstacle(o, units) for o in survey.obstacles],
        door=f"{survey.door.kind}" + (f", hinge {survey.door.hinge}" if survey.door.kind == "hinged" else ""),
        next=absent[0] if absent else None, missing=sum(s.needed for s in absent),
        doubts=[d.sentence(units) for d in doubts(survey)], clear=clear, problem=problem,
        elevation=survey_elevation(survey, units, row.name, today), plan=survey_plan(survey, units, row.name, today),
        findings=findings, examples=list(EXAMPLES),
    )  # fmt: skip


def _clear(region: Envelope, units: Units) -> ClearView:
    return ClearView(
        width=with_unit(region.x_to - region.x_from, units), depth=with_unit(region.y_to - region.y_from, units),
        height=with_unit(region.z_to, units), opening=with_unit(region.pull_to - region.pull_from, units),
        why=slip_view(region.why_width, units),
    )  # fmt: skip


def _slot(slot: Slot, survey: Survey, units: Units) -> SlotView:
    readings = [_reading(r, units) for r in survey.readings if r.place == slot.place]
    ref = SlotRef(what=slot.what, level=slot.level, face=slot.face, side=slot.side)
    return SlotView(slot=ref, label=slot.label, how=slot.how, needed=slot.needed, readings=readings)


def _elsewhere(survey: Survey, units: Units) -> list[SlotView]:
    """Readings called without their place, or at one that is not asked for: they count, so they are shown."""
    known = {s.place for s in slots(survey)}
    places = dict.fromkeys(r.place for r in survey.readings if r.what != "stud" and r.place not in known)
    rows = []
    for what, level, face, side in places:
        ref = SlotRef.model_validate({"what": what, "level": level, "face": face, "side": side})
        said = ", ".join(p for p in (what, level, side, face and f"at the {face}") if p)
        here = [_reading(r, units) for r in survey.readings if r.place == (what, level, face, side)]
        rows.append(SlotView(slot=ref, label=f"{said} (place not said)", how="", needed=False, readings=here))
    return rows


def _reading(reading: Reading, units: Units) -> ReadingView:
    by = ", ".join(p for p in (reading.hand, reading.instrument, reading.taken[:10]) if p)
    return ReadingView(id=reading.id, text=with_unit(reading.value, units), called=reading.called, by=by)


def _obstacle(o: Obstacle, units: Units) -> ObstacleView:
    x, z, w, h = (with_unit(mm, units) for mm in (o.x, o.z, o.width, o.height))
    return ObstacleView(id=o.id, name=o.name, text=f"{x} from the left, {z} up, {w} × {h}")


@router.post("/households/{household_id}/spaces", response={201: SpaceView}, operation_id="survey_add_space")
def add_space(request: MemberRequest, household_id: PathId, data: NewSpace) -> tuple[int, SpaceView]:
    """A new space, unmeasured."""
    return 201, view(actions.add_space(request.user, household_id, data.name))


@router.get("/spaces/{space_id}", response=SpaceView, operation_id="survey_get")
def get(request: MemberRequest, space_id: PathId) -> SpaceView:
    """A space as measured."""
    return view(own_space(request.user, space_id))


@router.patch("/spaces/{space_id}", response=SpaceView, operation_id="survey_rename_space")
def rename(request: MemberRequest, space_id: PathId, version: QueryVersion, data: NewSpace) -> SpaceView:
    """Rename a space."""
    return view(actions.rename_space(request.user, space_id, version, data.name))


@router.delete("/spaces/{space_id}", response={204: None}, operation_id="survey_remove_space")
def remove_space(request: MemberRequest, space_id: PathId, version: QueryVersion) -> tuple[int, None]:
    """Take a space away."""
    actions.remove_space(request.user, space_id, version)
    return 204, None


@router.post("/spaces/{space_id}/call-out/hear", response=Heard, operation_id="survey_hear")
def hear_call_out(request: MemberRequest, space_id: PathId, data: Said) -> Heard:
    """What a line would keep; nothing is kept."""
    return actions.listen(request.user, space_id, data.line)


@router.post("/spaces/{space_id}/call-out", response=HeardAndSpace, operation_id="survey_call_out")
def call_out(request: MemberRequest, space_id: PathId, data: SaidAt) -> HeardAndSpace:
    """Keep what is understood of a line."""
    row, heard = actions.keep_call_out(request.user, space_id, data.version, data.line)
    return HeardAndSpace(heard=heard, space=view(row))


@router.post("/spaces/{space_id}/readings", response=SpaceView, operation_id="survey_read")
def read(request: MemberRequest, space_id: PathId, data: TypedReading) -> SpaceView:
    """Keep one reading."""
    place = data.slot.model_dump()
    return view(actions.keep_reading(request.user, space_id, data.version, place, data.text))


@router.delete("/spaces/{space_id}/readings/{key}", response=SpaceView, operation_id="survey_remove_reading")
def remove_reading(request: MemberRequest, space_id: PathId, key: str, version: QueryVersion) -> SpaceView:
    """Take back a reading or an obstacle."""
    return view(actions.remove_reading(request.user, space_id, version, key))


@router.put("/spaces/{space_id}/survey", response=SpaceView, operation_id="survey_replace")
def replace(request: MemberRequest, space_id: PathId, data: WholeSurvey) -> SpaceView:
    """Put a whole survey in place of the present one."""
    return view(actions.replace_survey(request.user, space_id, data.version, data.survey))
