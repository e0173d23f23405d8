"""Install: the plan at the wall, ticks, and what is carried there on paper."""

import csv
from datetime import date
from io import StringIO
from typing import Annotated

from django.db import transaction
from django.http import HttpResponse
from django.utils import timezone
from ninja import Router
from pydantic import Field, StringConstraints

from pinakotheke.core.base import Id
from pinakotheke.core.drawing import TEXT_MM, to_pdf
from pinakotheke.core.drawing.booklet import BookStep, BookWall, booklet
from pinakotheke.core.drawing.dxf import holes_dxf
from pinakotheke.core.drawing.of_install import drilling_strips, scribe_strip
from pinakotheke.core.install import InstallChoice
from pinakotheke.core.install.calendar import calendar
from pinakotheke.core.saying import say
from pinakotheke.core.tables import load
from pinakotheke.core.words.installing import map_cautions, step_said

from .. import models
from ..actions import install as actions
from ..actions.base import Invalid, own_design
from .common import MemberRequest, PathId, Version
from .install_view import (
    ChoiceData,
    Installing,
    InstallView,
    TickView,
    hole_views,
    install_view,
    rows_of_holes,
    tick_view,
)
from .not_as_drawn import NotAsDrawn, not_as_drawn

router = Router(tags=["install"])


class ChoiceChange(ChoiceData):
    """How a space is installed, over the version it was read at."""

    version: Version


class TickData(NotAsDrawn):
    """A step done, or not as drawn; `key` is made by the device that sends it."""

    key: Id
    step: Annotated[str, StringConstraints(min_length=1, max_length=120)]
    minutes: Annotated[float, Field(gt=0, le=2000)] | None = None
    amiss: bool = False


@router.get("/designs/{design_id}/install", response=InstallView, operation_id="install_read")
def read(request: MemberRequest, design_id: PathId) -> InstallView:
    """Line, map, base, steps and their times."""
    return install_view(Installing(own_design(request.user, design_id)))


@router.put("/designs/{design_id}/install", response=InstallView, operation_id="install_choose")
def choose(request: MemberRequest, design_id: PathId, data: ChoiceChange) -> InstallView:
    """Say what is there now, who helps and when there is time."""
    design = own_design(request.user, design_id)
    for day in (data.start, data.delivered, *(a.there for a in data.again)):
        try:
            date.fromisoformat(day or data.start)
        except ValueError:
            raise Invalid("install.no-day", day=day) from None
    choice = InstallChoice.model_validate(data.model_dump(exclude={"version"}))
    actions.choose(request.user, design.space_id, data.version, choice)
    return install_view(Installing(own_design(request.user, design_id)))


@router.post("/designs/{design_id}/ticks", response=TickView, operation_id="install_tick")
def tick(request: MemberRequest, design_id: PathId, data: TickData) -> TickView:
    """Keep that a step is done; sent twice by one key it is kept once."""
    one = Installing(own_design(request.user, design_id))
    step = next((s for s in one.plan.steps if s.id == data.step), None)
    if step is None:
        raise Invalid("install.no-step", step=data.step)
    said = data.model_dump(include={"step", "minutes", "note", "amiss"})
    fields = said | {"estimate": round(step.minutes / one.choice.share, 1)}
    # All of it or nothing: what is sent again after a fault finds the stud where it was.
    with transaction.atomic():
        if data.amiss and not models.Tick.objects.filter(household=one.row.space.household, key=data.key).exists():
            fields["note"] = not_as_drawn(request.user, one, data)
        return tick_view(actions.tick(request.user, design_id, data.key, fields))


@router.delete("/designs/{design_id}/ticks/{key}", response={204: None}, operation_id="install_untick")
def untick(request: MemberRequest, design_id: PathId, key: str) -> tuple[int, None]:
    """It was not done after all."""
    actions.untick(request.user, design_id, key)
    return 204, None


def _file(data: bytes | str, kind: str, one: Installing, name: str, *, inline: bool = True) -> HttpResponse:
    response = HttpResponse(data, content_type=kind)
    how = "inline" if inline else "attachment"
    response["Content-Disposition"] = f'{how}; filename="{one.row.space.key}-{name}"'
    return response


@router.get("/designs/{design_id}/install.pdf", operation_id="install_booklet")
def paper(request: MemberRequest, design_id: PathId) -> HttpResponse:
    """The booklet for the wall."""
    one = Installing(own_design(request.user, design_id))
    view, found, words = install_view(one), one.plan, load("installing")["booklet"]
    header = ("no.", "part", "from the left", "from the line", "into", "bit", "depth")
    walls = [
        BookWall(
            name=one.named(section),
            says=(*map_cautions(mapped), wall.instrument, say(words["measure"], {"check": wall.check}, one.units)),
            drawing=one.drawing(section, TEXT_MM * 20),
            holes=(header, *((str(h.number), h.part_name, h.along, h.from_line, h.says, h.bit, h.depth)
                             for h in hole_views(one, mapped, found.lines[section]))),
        )
        for (section, mapped), wall in zip(found.maps.items(), view.walls, strict=True)
    ]  # fmt: skip
    steps = [BookStep(number=s.number, title=s.title, how=tuple(s.how), said=step_said(s.minutes, s.hands, s.tools))
             for s in view.steps]  # fmt: skip
    title = say(words["title"], {"space": one.scene.space.name}, one.units)
    data = booklet(title, f"{one.design.title}, {one.scene.today}", [view.times, *words["cautions"]], walls, steps,
                   [*(f"{row} (in the house)" if row in view.choice.has else row
                      for row in (*view.tools, *view.bits, *view.small)), *view.lights], one.units)  # fmt: skip
    return _file(data, "application/pdf", one, "at-the-wall.pdf")


@router.get("/designs/{design_id}/strips.pdf", operation_id="install_strips")
def strips(request: MemberRequest, design_id: PathId) -> HttpResponse:
    """Strips at full size, to tape on the wall and drill through, and the scribe line of each plinth."""
    one = Installing(own_design(request.user, design_id))
    found, scene = one.plan, one.scene
    drawings = []
    for section, mapped in found.maps.items():
        where = scene.survey.section(section)
        drawings += drilling_strips(
            one.design, where, mapped, found.lines[section], one.units, scene.space.name, scene.today
        )
    for section, base in found.bases.items():
        scribe = scribe_strip(base, scene.survey.section(section), one.units, scene.space.name, scene.today)
        drawings += [scribe] if scribe else []
    if not drawings:
        raise Invalid("install.no-strips")
    return _file(to_pdf(drawings, 1, one.units), "application/pdf", one, "strips.pdf")


@router.get("/designs/{design_id}/holes.csv", operation_id="install_holes")
def holes(request: MemberRequest, design_id: PathId) -> HttpResponse:
    """Every hole as a table."""
    one = Installing(own_design(request.user, design_id))
    out = StringIO()
    csv.writer(out).writerows(rows_of_holes(one))
    return _file(out.getvalue(), "text/csv; charset=utf-8", one, "holes.csv", inline=False)


@router.get("/designs/{design_id}/holes.dxf", operation_id="install_dxf")
def drawn_holes(request: MemberRequest, design_id: PathId) -> HttpResponse:
    """Every hole as a circle of its bit, in mm."""
    one = Installing(own_design(request.user, design_id))
    walls = [(one.named(s), found, one.plan.lines[s]) for s, found in one.plan.maps.items()]
    return _file(holes_dxf(walls), "image/vnd.dxf", one, "holes.dxf", inline=False)


@router.get("/designs/{design_id}/install.ics", operation_id="install_calendar")
def dates(request: MemberRequest, design_id: PathId) -> HttpResponse:
    """The days of work as iCalendar."""
    one = Installing(own_design(request.user, design_id))
    if one.plan.times is None:
        raise Invalid("install.no-time")
    titles = {s.id: one.told(s)[0] for s in one.plan.steps}
    key = f"{one.row.space.pk}-{one.row.pk}"
    data = calendar(one.plan.times, one.choice, one.scene.space.name, key, titles.__getitem__, timezone.now())
    return _file(data, "text/calendar; charset=utf-8", one, "work.ics", inline=False)
