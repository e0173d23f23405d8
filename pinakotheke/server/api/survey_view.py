"""A space as measured, in the household's units: what was read, what it means, what comes next, its drawings."""

from typing import Literal

from django.utils import timezone
from ninja import Schema

from pinakotheke.core.checks import check_survey
from pinakotheke.core.drawing import Drawing, numbered, survey_elevation, survey_plan
from pinakotheke.core.errors import Refusal
from pinakotheke.core.survey import (
    Envelope,
    NextReading,
    Obstacle,
    Reading,
    Section,
    SpaceKind,
    Survey,
    doubts,
    envelope,
    envelopes,
    examples_for,
    missing,
    next_reading,
    slots,
)
from pinakotheke.core.survey.carry import highest_tilted
from pinakotheke.core.survey.drawers import drawer_sizes
from pinakotheke.core.survey.instruments import KINDS, StandIn
from pinakotheke.core.survey.level import level_base
from pinakotheke.core.survey.models import Instrument
from pinakotheke.core.survey.passages import passages
from pinakotheke.core.survey.practice import true_room
from pinakotheke.core.survey.slots import SlotRef
from pinakotheke.core.tables import load
from pinakotheke.core.units import Units, with_unit, with_units
from pinakotheke.core.words import NEXT, closed_in_words, doubt_in_words

from .. import models, rows
from .common import FindingView, SlipView, finding_views, slip_view


class ReadingView(Schema):
    """A reading in the household's units."""

    id: str
    text: str
    called: str
    by: str


class SlotView(Schema):
    """A place for a reading, with what was read there and how far the readings spread."""

    slot: SlotRef
    label: str
    how: str
    needed: bool
    readings: list[ReadingView]
    spread: str


class ClearView(Schema):
    """The clear sizes derived, in words, and why."""

    width: str
    depth: str
    height: str
    opening: str
    uncertain: str
    why: SlipView


class ClosedView(Schema):
    """A region closed to fixed parts, in words, and the id of what closes it."""

    of: str
    why: str
    where: str
    loose: bool


class SectionView(Schema):
    """One section: its drawings, what is clear, and what the level says."""

    id: str
    label: str
    kind: str
    at_wall: bool
    elevation: Drawing
    plan: Drawing
    clear: ClearView | None
    problem: str
    closed: list[ClosedView]
    means: list[tuple[str, str]]
    """What follows from the readings: a name and its value in words."""
    movable: bool
    """Of a level: whether its shelf lies on pins."""
    holes: str
    """How far the holes are apart, when it was said."""


class ObstacleView(Schema):
    """An obstacle in words."""

    id: str
    section: str
    name: str
    text: str


class NextView(Schema):
    """The reading to take now, and what for."""

    slot: SlotRef
    label: str
    how: str
    says: str
    left: int


class NumberedView(Schema):
    """A numbered place of the field sheet."""

    number: int
    slot: SlotRef
    label: str
    needed: bool
    read: str


class InstrumentView(Schema):
    """An instrument that can be used here."""

    kind: Instrument
    name: str
    about: str


class PracticeView(Schema):
    """A practice room: what is seen in it, and whether its truth has been shown."""

    difficulty: str
    shown: bool
    seen: list[str]
    instruments: list[InstrumentView]


class PhotoView(Schema):
    """A photograph kept with the space."""

    id: int
    url: str
    note: str
    moment: str
    thing: str
    """Key of the group it shows, if it shows one."""
    taken: str


class SpaceView(Schema):
    """A space as measured."""

    id: int
    household: int
    version: int
    key: str
    name: str
    kind: SpaceKind
    units: Units
    survey: Survey
    sections: list[SectionView]
    main: str
    slots: list[SlotView]
    studs: list[ReadingView]
    obstacles: list[ObstacleView]
    facts: list[tuple[str, str]]
    corners: list[tuple[str, Literal["none", "mine", "theirs"]]]
    """Of each wall, who fills the corner at its right end."""
    next: NextView | None
    missing: int
    doubts: list[str]
    field_sheet: list[NumberedView]
    practice: PracticeView | None
    photos: list[PhotoView]
    findings: list[FindingView]
    examples: list[str]


def view(row: models.Space) -> SpaceView:
    """A space in the household's units, with its drawings."""
    household = row.household
    units: Units = household.units  # type: ignore[assignment]
    survey, rules = rows.survey_of(row), rows.rules_of(household)
    found = envelopes(survey, rules)
    here = found.get(survey.main.id)
    photos = row.photos.filter(design=None).select_related("thing").order_by("pk")
    return SpaceView(
        id=row.pk, household=household.pk, version=row.version, key=row.key, name=row.name, kind=survey.kind,
        units=units, survey=survey, main=survey.main.id,
        sections=[_section(row, survey, s, found.get(s.id), units) for s in survey.parts],
        slots=_slots(survey, units), studs=[_reading(r, survey, units) for r in survey.readings if r.what == "stud"],
        obstacles=[_obstacle(o, survey, units) for o in survey.obstacles], facts=_facts(survey, units),
        corners=[(r.id, r.corner) for r in survey.runs],
        next=_next(next_reading(survey), units), missing=sum(s.needed for s in missing(survey)),
        doubts=[doubt_in_words(d, units) for d in doubts(survey)], field_sheet=_numbered(survey, units),
        practice=_practice(row), photos=[photo_view(p) for p in photos],
        findings=finding_views(check_survey(survey, found), units) if here else [],
        examples=list(examples_for(survey, units)),
    )  # fmt: skip


def _section(row: models.Space, survey: Survey, section: Section, region: Envelope | None, units: Units) -> SectionView:
    today, problem = timezone.localdate().isoformat(), ""
    if region is None:
        try:
            envelope(survey, rows.rules_of(row.household), section.id)
        except Refusal as error:
            problem = error.said_in(units)
    return SectionView(
        id=section.id, label=section.label, kind=section.kind, at_wall=section.at_wall,
        elevation=survey_elevation(survey, units, row.name, today, section_id=section.id),
        plan=survey_plan(survey, units, row.name, today, section_id=section.id),
        clear=_clear(region, units) if region else None, problem=problem,
        closed=_closed(region, units) if region else [], means=_means(survey, section, region, units),
        movable=section.movable, holes=with_unit(section.holes, units) if section.holes else "",
    )  # fmt: skip


def _clear(region: Envelope, units: Units) -> ClearView:
    loose = region.uncertain
    doubtful = [f"{name} {with_unit(mm, units)}" for name, mm in
                (("width", loose.width), ("depth", loose.depth), ("height", loose.height)) if mm]  # fmt: skip
    return ClearView(
        width=with_unit(region.x_to - region.x_from, units), depth=with_unit(region.y_to - region.y_from, units),
        height=with_unit(region.z_to, units), opening=with_unit(region.pull_to - region.pull_from, units),
        uncertain=", ".join(doubtful), why=slip_view(region.why_width, units),
    )  # fmt: skip


def _closed(region: Envelope, units: Units) -> list[ClosedView]:
    """Each reason once, with where it closes; the steps of a slope are one reason."""
    seen: dict[str, ClosedView] = {}
    for c in region.closed:
        if c.obstacle == "slope":
            lowest = min(r.z0 for r in region.closed if r.obstacle == "slope")
            seen.setdefault("slope", ClosedView(of="slope", why="the ceiling slopes", loose=False,
                                                where=f"down to {with_unit(lowest, units)}"))  # fmt: skip
            continue
        x0, x1, z0, z1 = (with_unit(mm, units) for mm in (max(c.x0, 0), c.x1, max(c.z0, 0), c.z1))
        deep = with_unit(c.y1, units)
        where = f"{x0} to {x1} along, {z0} to {z1} up, {deep} out"
        why = closed_in_words(c, units)
        seen.setdefault(f"{c.obstacle}:{why}", ClosedView(of=c.obstacle, why=why, where=where, loose=c.loose))
    return list(seen.values())


def _means(survey: Survey, section: Section, region: Envelope | None, units: Units) -> list[tuple[str, str]]:
    """Squareness, level, passages, what can be tilted up, what a drawer gives."""

    def mm(value: float) -> str:
        return with_unit(value, units)

    found: list[tuple[str, str]] = []
    if region:
        for side, angle, comes_in in (("left", region.square.left, region.square.left_lean),
                                      ("right", region.square.right, region.square.right_lean)):  # fmt: skip
            if angle is not None:
                way = "comes in" if comes_in > 0 else "goes out"
                found.append((f"{side} corner", f"{angle:.2f}°, the side {way} {mm(abs(comes_in))} over the depth"))
        if section.at_wall and section.slope == "none":
            deep = region.y_to - region.y_from
            tall = highest_tilted(region, min(deep, 584), region.x_from, region.x_to)
            found.append(("can be tilted up", f"{mm(tall)} high at {mm(min(deep, 584))} deep"))
    base = level_base(survey, section.id)
    if base:
        shims = ", ".join(f"{mm(s.height)} at {mm(s.at)}" for s in base.shims)
        found.append(("shims", shims))
        if base.across:
            lower = "front" if base.across > 0 else "back"
            found.append(("level across", f"the {lower} lies {mm(abs(base.across))} lower"))
        if base.plinth:
            found.append(("levelled plinth", f"out by {mm(base.out_by)}: {' + '.join(mm(n) for n in base.plinth)}"))
    way_in = survey.least("passage")
    if way_in is not None and section.at_wall:
        found.append(("turns in", f"a base up to {mm(way_in)} from corner to corner"))
    sizes = drawer_sizes(survey, section.id) if section.traits.lined else None
    if sizes:
        found += [("inside depth", mm(sizes.inside)), ("reachable depth", mm(sizes.reachable)),
                  ("for an insert", f"{mm(sizes.usable_width)} wide, {mm(sizes.usable_height)} high")]  # fmt: skip
    found += [(f"passage to {p.before}", mm(p.width)) for p in passages(survey) if p.section == section.id]
    return found


def _slots(survey: Survey, units: Units) -> list[SlotView]:
    """Every place that is asked for, then those that were read though nothing asked."""
    found, shown = [], set()
    for slot in slots(survey):
        if slot.what == "stud":
            continue
        here = [r for r in survey.readings if slot.filled_by(r) and r.id not in shown]
        shown |= {r.id for r in here}
        found.append(_slot(slot.ref, slot.label_in(units), slot.how_in(units), slot.needed, here, survey, units))
    rest = [r for r in survey.readings if r.what != "stud" and r.id not in shown]
    for place in dict.fromkeys(r.place for r in rest):
        section, what, level, face, side, at, out = place
        ref = SlotRef.model_validate({"section": section, "what": what, "level": level, "face": face, "side": side,
                                      "at": at, "out": out})  # fmt: skip
        said = ", ".join(p for p in (what, level, side, face and f"at the {face}") if p)
        if at is None and out is None:
            said += " (place not said)"
        elif what != "corner diagonal":
            said += f" at {with_unit(at if at is not None else out or 0, units)}"
        many = f"{survey.section(section).label}: " if len(survey.parts) > 1 else ""
        found.append(_slot(ref, many + said, "", False, [r for r in rest if r.place == place], survey, units))
    return found


def _slot(ref: SlotRef, label: str, how: str, needed: bool, readings: list[Reading], survey: Survey,
          units: Units) -> SlotView:  # fmt: skip
    values = [r.value for r in readings]
    spread = ""
    if len(values) > 1 and len({r.place for r in readings}) == 1:
        mean = sum(values) / len(values)
        spread = f"mean {with_unit(mean, units)}, spread {with_unit(max(values) - min(values), units)}"
    return SlotView(slot=ref, label=label, how=how, needed=needed, spread=spread,
                    readings=[_reading(r, survey, units) for r in readings])  # fmt: skip


def _reading(reading: Reading, survey: Survey, units: Units) -> ReadingView:
    by = ", ".join(p for p in (reading.hand, reading.instrument, reading.taken[:10]) if p)
    many = f"{survey.section(reading.section).label}: " if reading.what == "stud" and len(survey.runs) > 1 else ""
    return ReadingView(id=reading.id, text=many + with_unit(reading.value, units), called=reading.called, by=by)


def _obstacle(o: Obstacle, survey: Survey, units: Units) -> ObstacleView:
    x, z, w, h = (with_unit(mm, units) for mm in (o.x, o.z, o.width, o.height))
    many = f"{survey.section(o.section).label}: " if len(survey.parts) > 1 else ""
    return ObstacleView(id=o.id, section=o.section, name=o.name, text=f"{many}{x} from the left, {z} up, {w} × {h}")


def _facts(survey: Survey, units: Units) -> list[tuple[str, str]]:
    """What was said of the space in words rather than numbers."""
    found = []
    if survey.has_opening:
        hinge = f", hinge {survey.door.hinge}" if survey.door.kind == "hinged" else ""
        found.append(("door", survey.door.kind + hinge))
    if survey.runs:
        found.append(("wall behind", survey.lining))
    if survey.damp:
        found.append(("air", "damp"))
    found += [(f"slope, {s.label}", s.slope) for s in survey.runs if s.slope != "none"]
    if survey.car:
        c = survey.car
        size = with_units((c.length, c.width, c.height), units)
        found.append(("car", f"{size}, doors open by {with_unit(c.doors, units)}"))
    if survey.overhead:
        o = survey.overhead
        found.append(("door overhead", f"{o.kind}, {with_unit(o.track, units)} up, {with_unit(o.reach, units)} in"))
    return found


def _next(upcoming: NextReading | None, units: Units) -> NextView | None:
    if upcoming is None:
        return None
    slot = upcoming.slot
    return NextView(slot=slot.ref, label=slot.label_in(units), how=slot.how_in(units), says=NEXT[upcoming.reason],
                    left=upcoming.left)  # fmt: skip


def _numbered(survey: Survey, units: Units) -> list[NumberedView]:
    found = []
    for row in numbered(survey):
        values = [r.value for r in survey.readings if row.slot.filled_by(r)]
        read = with_unit(min(values), units) if values else ""
        found.append(NumberedView(number=row.number, slot=row.slot.ref, label=row.slot.label_in(units),
                                  needed=row.slot.needed, read=read))  # fmt: skip
    return found


def _practice(row: models.Space) -> PracticeView | None:
    if row.practice is None:
        return None
    room = true_room(row.practice["seed"], row.practice["difficulty"])
    tools = [InstrumentView(kind=k, name=StandIn(k).name, about=StandIn(k).about) for k in KINDS]
    return PracticeView(difficulty=row.practice["difficulty"], shown=row.practice["shown"], instruments=tools,
                        seen=[o.name for o in room.obstacles])  # fmt: skip


def photo_view(photo: models.Photo) -> PhotoView:
    """A photo with the address of its file."""
    return PhotoView(id=photo.pk, url=f"/api/photos/{photo.pk}/file", note=photo.note, moment=photo.moment,
                     thing=photo.thing.key if photo.thing else "", taken=photo.taken.isoformat())  # fmt: skip


class SpaceKindView(Schema):
    """A kind of space, in a line."""

    kind: SpaceKind
    about: str


def kind_views() -> list[SpaceKindView]:
    """The kinds of space there are."""
    return [SpaceKindView.model_validate({"kind": k, "about": row["about"]}) for k, row in load("spaces").items()]
