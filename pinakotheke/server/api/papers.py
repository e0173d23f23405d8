"""Photographs of a space, its blank field sheet, and its drawings to scale as PDF."""

from typing import Annotated, Literal, cast

from django.http import FileResponse, HttpResponse
from django.utils import timezone
from ninja import File, Form, Query, Router, Schema, UploadedFile
from pydantic import StringConstraints

from pinakotheke.core.drawing import SCALES, TEXT_MM, field_sheet, survey_elevation, survey_plan, to_pdf
from pinakotheke.core.drawing.pdf import Scale
from pinakotheke.core.drawing.template import floor_template
from pinakotheke.core.survey import envelopes
from pinakotheke.core.units import Units

from .. import rows
from ..actions import photos as actions
from ..actions.base import Invalid, own_space
from . import rates
from .common import MemberRequest, PathId, RowId
from .survey_view import PhotoView, photo_view

router = Router(tags=["survey"])


class PhotoNote(Schema):
    """What the photo shows."""

    note: Annotated[str, StringConstraints(max_length=200)] = ""
    moment: Literal["survey", "before", "after", "thing", "step"] = "survey"
    thing: RowId | None = None
    step: Annotated[str, StringConstraints(max_length=120)] = ""
    design: RowId | None = None
    """Of a photo of the work: the step, and the design it is of."""
    key: Annotated[str, StringConstraints(max_length=64)] = ""
    """Made by the device that sends it."""


@router.post(
    "/spaces/{space_id}/photos", response={201: PhotoView}, operation_id="survey_photo_add", throttle=rates.uploads
)
def add_photo(
    request: MemberRequest, space_id: PathId, file: File[UploadedFile], data: Form[PhotoNote]
) -> tuple[int, PhotoView]:
    """Keep a photo with a space."""
    if (file.size or 0) > actions.MOST_BYTES:
        raise Invalid("photo.too-large")
    photo = actions.add_photo(
        request.user,
        space_id,
        file.read(),
        data.note,
        data.moment,
        data.thing,
        design=data.design,
        step=data.step,
        key=data.key,
    )
    return 201, photo_view(photo)


@router.get("/photos/{photo_id}/file", operation_id="survey_photo_file")
def photo_file(request: MemberRequest, photo_id: PathId) -> FileResponse:
    """The picture itself."""
    photo = actions.own_photo(request.user, photo_id)
    response = FileResponse(photo.file.open("rb"), content_type="image/jpeg")
    response["Cache-Control"] = "private, max-age=86400, immutable"
    return response


@router.delete("/photos/{photo_id}", response={204: None}, operation_id="survey_photo_remove")
def remove_photo(request: MemberRequest, photo_id: PathId) -> tuple[int, None]:
    """Take a photo away."""
    actions.remove_photo(request.user, photo_id)
    return 204, None


def _pdf(data: bytes, name: str) -> HttpResponse:
    response = HttpResponse(data, content_type="application/pdf")
    response["Content-Disposition"] = f'inline; filename="{name}.pdf"'
    return response


@router.get("/spaces/{space_id}/field-sheet.pdf", operation_id="survey_field_sheet")
def blank_sheet(request: MemberRequest, space_id: PathId) -> HttpResponse:
    """The blank sheet for this kind of space, with numbered places."""
    row = own_space(request.user, space_id)
    units: Units = row.household.units  # type: ignore[assignment]
    return _pdf(field_sheet(rows.survey_of(row), units, row.name), f"{row.key}-field-sheet")


@router.get("/spaces/{space_id}/drawing.pdf", operation_id="survey_drawing")
def drawing(request: MemberRequest, space_id: PathId, scale: Query[int] = 20) -> HttpResponse:
    """The measured elevations and plan to scale: 10, 12, 20 or 24."""
    if scale not in SCALES:
        raise Invalid("paper.no-scale", scales=SCALES.values())
    row = own_space(request.user, space_id)
    units: Units = row.household.units  # type: ignore[assignment]
    survey, today, text = rows.survey_of(row), timezone.localdate().isoformat(), TEXT_MM * scale
    shown = survey.runs or (survey.main,)
    views = [survey_elevation(survey, units, row.name, today, text, s.id) for s in shown]
    views.append(survey_plan(survey, units, row.name, today, text))
    return _pdf(to_pdf(views, cast(Scale, scale), units), f"{row.key}-1-{scale}")


@router.get("/spaces/{space_id}/floors.pdf", operation_id="survey_floors")
def floors(request: MemberRequest, space_id: PathId) -> HttpResponse:
    """The floor of every drawer, full size: to cut out and lay in before anything is bought."""
    row = own_space(request.user, space_id)
    units: Units = row.household.units  # type: ignore[assignment]
    survey, today = rows.survey_of(row), timezone.localdate().isoformat()
    clear = envelopes(survey, rows.rules_of(row.household))
    drawers = [s for s in survey.parts if s.traits.from_above and s.id in clear]
    if not drawers:
        raise Invalid("paper.no-drawer")
    views = [floor_template(clear[s.id], s, units, row.name, today) for s in drawers]
    return _pdf(to_pdf(views, 1, units), f"{row.key}-floors")
