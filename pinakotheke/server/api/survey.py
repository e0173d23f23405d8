"""Measure: a space's readings, from the hand, from a device that was offline, or from the call-out line."""

from typing import Annotated, Any, Literal, cast

from ninja import Router, Schema
from pydantic import Field, StringConstraints, ValidationError, ValidatorFunctionWrapHandler, WrapValidator

from pinakotheke.core.base import AtMost
from pinakotheke.core.survey import Heard, SpaceKind, Survey
from pinakotheke.core.survey.callout import GRAMMAR, GRAMMAR_IN_INCHES
from pinakotheke.core.survey.models import OBSTACLE_KINDS, ObstacleKind
from pinakotheke.core.survey.slots import SlotRef

from ..actions import survey as actions
from ..actions.base import Invalid, own_space
from .access import looking
from .common import Line, MemberRequest, PathId, QueryVersion, TypedName, Version
from .survey_view import SpaceKindView, SpaceView, kind_views, view

router = Router(tags=["survey"])


class NewSpace(Schema):
    """A space to be measured."""

    name: TypedName
    kind: SpaceKind = "reach-in closet"


class SpaceName(Schema):
    """Another name."""

    name: TypedName


SectionId = Annotated[str, StringConstraints(max_length=64)]


class Said(Schema):
    """A call-out line."""

    line: Line
    section: SectionId = ""


DeviceKey = Annotated[str, StringConstraints(pattern=r"^([A-Za-z0-9-]{8,64})?$")]
"""A device's own key for one message: sent again with the same key, it is passed over."""


class SaidAt(Said):
    """A call-out line to be kept on top of a version."""

    version: Version
    key: DeviceKey = ""


TypedLength = Annotated[str, StringConstraints(min_length=1, max_length=40)]
OptionalLength = Annotated[str, StringConstraints(max_length=40)]


class TypedReading(Schema):
    """A reading typed on a dimension line."""

    version: Version
    slot: SlotRef
    text: TypedLength
    key: DeviceKey = ""


class WholeSurvey(Schema):
    """A survey that replaces the present one, as undo does."""

    version: Version
    survey: Survey


class TypedObstacle(Schema):
    """An obstacle from the form's fields: lengths as people write them; an empty option is as usual for its kind."""

    version: Version
    section: SectionId = ""
    kind: ObstacleKind
    x: TypedLength
    z: TypedLength
    width: TypedLength
    height: TypedLength
    out: OptionalLength = ""
    off: OptionalLength = ""
    access: OptionalLength = ""
    clear: OptionalLength = ""
    swing: OptionalLength = ""
    called: Annotated[str, StringConstraints(max_length=80)] = ""


class DeviceMessage(Schema):
    """Something a device says: a call-out line, or a text at a place; `key` is the device's own for this message."""

    key: Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9-]{8,64}$")]
    line: Annotated[str, StringConstraints(max_length=4000)] = ""
    section: SectionId = ""
    slot: SlotRef | None = None
    text: Annotated[str, StringConstraints(max_length=40)] = ""
    taken: Annotated[str, StringConstraints(max_length=40)] = ""
    instrument: Literal["tape", "laser", "rule", "sheet"] = "tape"


class BadMessage(Schema):
    """A message that no device should have sent: it is refused by itself, and holds up no other."""

    key: str
    problem: str


def _by_itself(value: Any, handler: ValidatorFunctionWrapHandler) -> Any:
    try:
        return handler(value)
    except ValidationError as error:
        first = error.errors()[0]
        key = value.get("key") if isinstance(value, dict) else None
        return BadMessage(key=str(key)[:64], problem=f"{'.'.join(map(str, first['loc']))}: {first['msg']}")


class Messages(Schema):
    """What waited on a device, in the order it was said; each stands by itself."""

    messages: Annotated[list[Annotated[DeviceMessage, WrapValidator(_by_itself)]], AtMost(500), Field(min_length=1)]


class RefusedView(Schema):
    """A message that could not be kept, and the mend."""

    key: str
    problem: str
    mend: str


class ArrivedAndSpace(Schema):
    """The space after a device's messages, and those that could not be kept."""

    refused: list[RefusedView]
    space: SpaceView


class MeasureVocabulary(Schema):
    """The kinds of space and of obstacle there are, and the words of the call-out line."""

    spaces: list[SpaceKindView]
    obstacles: list[str]
    grammar: str
    grammar_in_inches: str


class HeardAndSpace(Schema):
    """What was understood, and the space after it."""

    heard: Heard
    space: SpaceView


@router.post("/households/{household_id}/spaces", response={201: SpaceView}, operation_id="survey_add_space")
def add_space(request: MemberRequest, household_id: PathId, data: NewSpace) -> tuple[int, SpaceView]:
    """A new space, unmeasured."""
    return 201, view(actions.add_space(request.user, household_id, data.name, data.kind))


@router.get("/spaces/{space_id}", response=SpaceView, operation_id="survey_get")
def get(request: MemberRequest, space_id: PathId) -> SpaceView:
    """A space as measured."""
    return view(own_space(request.user, space_id))


@router.patch("/spaces/{space_id}", response=SpaceView, operation_id="survey_rename_space")
def rename(request: MemberRequest, space_id: PathId, version: QueryVersion, data: SpaceName) -> SpaceView:
    """Rename a space."""
    return view(actions.rename_space(request.user, space_id, version, data.name))


@router.delete("/spaces/{space_id}", response={204: None}, operation_id="survey_remove_space")
def remove_space(request: MemberRequest, space_id: PathId, version: QueryVersion) -> tuple[int, None]:
    """Take a space away."""
    actions.remove_space(request.user, space_id, version)
    return 204, None


@router.post("/spaces/{space_id}/call-out/hear", response=Heard, operation_id="survey_hear", auth=looking)
def hear_call_out(request: MemberRequest, space_id: PathId, data: Said) -> Heard:
    """What a line would keep; nothing is kept."""
    return actions.listen(request.user, space_id, data.line, data.section)


@router.post("/spaces/{space_id}/call-out", response=HeardAndSpace, operation_id="survey_call_out")
def call_out(request: MemberRequest, space_id: PathId, data: SaidAt) -> HeardAndSpace:
    """Keep what is understood of a line."""
    row, heard = actions.keep_call_out(request.user, space_id, data.version, data.line, data.section, data.key)
    return HeardAndSpace(heard=heard, space=view(row))


@router.post("/spaces/{space_id}/readings", response=SpaceView, operation_id="survey_read")
def read(request: MemberRequest, space_id: PathId, data: TypedReading) -> SpaceView:
    """Keep one reading."""
    place = data.slot.model_dump()
    return view(actions.keep_reading(request.user, space_id, data.version, place, data.text, data.key))


@router.post("/spaces/{space_id}/obstacles", response=SpaceView, operation_id="survey_add_obstacle")
def add_obstacle(request: MemberRequest, space_id: PathId, data: TypedObstacle) -> SpaceView:
    """An obstacle as the form has it."""
    typed = data.model_dump(exclude={"version", "section", "kind", "called"})
    return view(actions.add_obstacle(request.user, space_id, data.version, data.section, data.kind, typed, data.called))


@router.post("/spaces/{space_id}/arrivals", response=ArrivedAndSpace, operation_id="survey_arrive")
def arrive(request: MemberRequest, space_id: PathId, data: Messages) -> ArrivedAndSpace:
    """Keep what waited on a device; a message that came before is passed over."""
    bad = [m for m in cast(list[DeviceMessage | BadMessage], data.messages) if isinstance(m, BadMessage)]
    messages = [
        actions.Message(key=m.key, line=m.line, section=m.section, place=m.slot.model_dump() if m.slot else None,
                        text=m.text, taken=m.taken, instrument=m.instrument)
        for m in data.messages if not isinstance(m, BadMessage)
    ]  # fmt: skip
    row, refused = actions.arrive(request.user, space_id, messages)
    shown = [RefusedView.model_validate(vars(r)) for r in refused]
    mend = Invalid("survey.not-sent", problem="").mend
    shown += [RefusedView(key=m.key, problem=m.problem, mend=mend) for m in bad]
    return ArrivedAndSpace(refused=shown, space=view(row))


@router.get("/measure", response=MeasureVocabulary, operation_id="survey_vocabulary")
def vocabulary(request: MemberRequest) -> MeasureVocabulary:
    """What may be measured, and how it is said."""
    return MeasureVocabulary(spaces=kind_views(), obstacles=list(OBSTACLE_KINDS), grammar=GRAMMAR,
                             grammar_in_inches=GRAMMAR_IN_INCHES)  # fmt: skip


@router.delete("/spaces/{space_id}/readings/{key}", response=SpaceView, operation_id="survey_remove_reading")
def remove_reading(request: MemberRequest, space_id: PathId, key: str, version: QueryVersion) -> SpaceView:
    """Take back a reading or an obstacle."""
    return view(actions.remove_reading(request.user, space_id, version, key))


@router.put("/spaces/{space_id}/survey", response=SpaceView, operation_id="survey_replace")
def replace(request: MemberRequest, space_id: PathId, data: WholeSurvey) -> SpaceView:
    """Put a whole survey in place of the present one."""
    return view(actions.replace_survey(request.user, space_id, data.version, data.survey))
