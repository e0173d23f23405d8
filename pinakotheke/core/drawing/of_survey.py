"""A survey as an elevation of each wall and as a plan; their dimension lines are the form to fill."""

from ..survey import Section, Slot, Survey
from ..survey.closed import ceiling_points
from ..survey.envelope import LEVEL_AT
from ..survey.slots import SlotRef
from ..survey.square import Frame, fitted_depth
from ..units import Units, format_length
from . import of_inside
from .models import Drawing, TitleBlock
from .survey_sheet import SurveySheet
from .walls import NOMINAL, WALL, down, opening, plan_walls, reach_in_walls, run_sizes, shell

TEXTS_HIGH, TEXTS_WIDE = 32, 26
"""Text height is the drawing's height (of a plan: its width) over this, so that it reads alike whatever the space."""


def text_height(survey: Survey, section_id: str = "") -> float:
    """Height of text in mm for the elevation of a section."""
    section = survey.section(section_id)
    if not section.at_wall:
        return of_inside.text_height(survey, section)
    width, height = run_sizes(survey, section)
    return max(height, width * 0.9) / TEXTS_HIGH


def plan_text(survey: Survey) -> float:
    """Height of text in mm for the plan of a space of runs."""
    widths = [run_sizes(survey, r)[0] for r in survey.runs]
    depth = max(survey.values("depth"), default=0)
    return max(*widths, depth * 1.6, 0) / TEXTS_WIDE


def _title(space: str, shows: str, units: Units, date: str) -> TitleBlock:
    return TitleBlock(space=space, shows=shows, scale="1:20", units="mm" if units == "metric" else "inches",
                      date=date, sheet="M1")  # fmt: skip


def survey_elevation(survey: Survey, units: Units, space: str, date: str = "", text: float = 0,
                     section_id: str = "") -> Drawing:  # fmt: skip
    """One wall from the front, or the levels and drawers of a piece of furniture."""
    section = survey.section(section_id)
    sheet = SurveySheet(survey, units, text or text_height(survey, section.id))
    if not section.at_wall:
        of_inside.elevation(sheet, section)
        return sheet.drawing("elevation", _title(space, "Elevation as measured", units, date))
    width, height = shell(sheet, survey, section)
    _heights(sheet, section, width, height)
    _widths(sheet, section, width, height)
    _ceilings(sheet, section, width)
    one = survey.only(section.id)
    opening(sheet, one, width, height)
    head = sheet.find(section, what="opening height")
    if head:
        _opening_height(sheet, one, head, width)
    _floor(sheet, section)
    _leans(sheet, section, width, height)
    shows = "Elevation as measured" if len(survey.parts) == 1 else f"Elevation of {section.label}"
    return sheet.drawing("elevation", _title(space, shows, units, date))


def _heights(sheet: SurveySheet, section: Section, width: float, height: float) -> None:
    for side, share in (("left", 0.07), ("middle", 0.66), ("right", 0.95)):
        slot = sheet.find(section, what="height", side=side)
        if slot:
            value, state = sheet.read(slot)
            at = max(width * share, sheet.text * 1.4)  # its text stays off the wall in a narrow space
            sheet.upright(at, 0, height, value, slot.label, at=0.74, state=state, slot=slot.ref)


def _widths(sheet: SurveySheet, section: Section, width: float, height: float) -> None:
    skirting = max(sheet.survey.values("skirting height", section=section.id), default=0)
    for level, share in LEVEL_AT.items():
        slot = sheet.find(section, what="width", level=level, face="back")
        if slot:
            value, state = sheet.read(slot)
            z = max(share * height, skirting + sheet.text * 0.8)
            sheet.across(0, width, z, value, slot.label, at=0.36, state=state, slot=slot.ref)


def _ceilings(sheet: SurveySheet, section: Section, width: float) -> None:
    """Heights of a slope where they were read and where they are wanted."""
    drawn: set[float] = set()
    along = section.slope == "along"
    for slot in sheet.slots:
        if slot.section != section.id or slot.what != "ceiling" or not sheet.shown(slot):
            continue
        reading = next((r for r in sheet.survey.readings if slot.filled_by(r)), None)
        place = (slot.at if along else slot.out) or 0.0
        height = reading.value if reading else NOMINAL["height"] * 0.6
        x = min(max(place if along else width * (0.25 if place == 0 else 0.75), sheet.text * 1.4), width - sheet.text)
        drawn.add(x)
        sheet.upright(x, 0, height, reading.value if reading else None, slot.label, at=0.6,
                      state="read" if reading else "missing", slot=slot.ref)  # fmt: skip
    if along:
        for place, height in ceiling_points(sheet.survey, section):
            if all(abs(place - x) > sheet.text * 3 for x in drawn):
                sheet.upright(place, 0, height, height, f"ceiling at {place:.0f}", at=0.6, state="read")


def _opening_height(sheet: SurveySheet, one: Survey, slot: Slot, width: float) -> None:
    left = one.least("left return") or NOMINAL["return"]
    clear = one.least("opening width") or width - 2 * left
    value, state = sheet.read(slot)
    head = value or NOMINAL["head"]
    sheet.upright(left + clear * 0.2, 0, head, value, "opening, height", at=0.3, state=state, slot=slot.ref)


def _floor(sheet: SurveySheet, section: Section) -> None:
    """Falls below the level line, written under the floor."""
    falls = [r for r in sheet.survey.points("fall") if r.section == section.id and r.face != "front"]
    for r in falls:
        place = SlotRef(section=section.id, what="fall", face="back", at=r.at)
        sheet.mark(
            r.at or 0,
            -WALL,
            r.value,
            f"floor below the level line at {format_length(r.at or 0, sheet.units)}",
            state="read",
            slot=place,
        )
    for slot in sheet.slots:
        wanted = slot.section == section.id and slot.what == "fall" and sheet.shown(slot)
        if wanted and slot.at is not None and not any(slot.filled_by(r) for r in falls):
            sheet.mark(slot.at, -WALL, None, slot.label_in(sheet.units), slot=slot.ref)
    if falls:
        sheet.note("note", (falls[-1].at or 0) / 2, -WALL - sheet.text * 2.9, "floor below the level line",
                   caption=True)  # fmt: skip


def _leans(sheet: SurveySheet, section: Section, width: float, height: float) -> None:
    """Plumb of each wall over the ceiling, at its place."""
    for side, x in (("left", sheet.text * 2), ("middle", width / 2), ("right", width - sheet.text * 2)):
        slot = sheet.find(section, what="plumb", side=side)
        if slot and sheet.shown(slot):
            value, state = sheet.read(slot)
            sheet.mark(x, height + WALL, value, slot.label, state=state, slot=slot.ref, down=False)
    slot = sheet.find(section, what="bow")
    if slot and sheet.shown(slot):
        value, state = sheet.read(slot)
        sheet.mark(width * 0.72, height + WALL, value, slot.label, state=state, slot=slot.ref, down=False)


def survey_plan(survey: Survey, units: Units, space: str, date: str = "", text: float = 0,
                section_id: str = "") -> Drawing:  # fmt: skip
    """Seen from above, the main wall at the top: every run, depths, returns, opening and door."""
    section = survey.section(section_id)
    if not section.at_wall:
        sheet = SurveySheet(survey, units, text or text_height(survey, section.id))
        of_inside.plan(sheet, section)
        return sheet.drawing("plan", _title(space, f"Plan of {section.label}", units, date))
    if survey.is_open_fronted:
        return _room_plan(survey, units, space, date, text)
    sheet = SurveySheet(survey, units, text or plan_text(survey))
    width = survey.only(section.id).least("width") or NOMINAL["width"]
    depth = max(survey.values("depth", section=section.id), default=NOMINAL["depth"])
    plan_walls(sheet, survey)
    left, right, front = reach_in_walls(sheet, survey, width, depth)
    for side, share in (("left", 0.12), ("right", 0.9)):
        slot = sheet.find(section, what="depth", side=side)
        if slot:
            value, state = sheet.read(slot)
            sheet.upright(width * share, -depth, 0, value, slot.label, state=state, slot=slot.ref)
    slot = sheet.find(section, what="width", level="middle", face="front")
    if slot:
        value, state = sheet.read(slot)
        sheet.across(0, width, -depth + sheet.text * 0.8, value, slot.label, state=state, slot=slot.ref)
    _diagonals(sheet, section, width, depth)
    y = front - sheet.text * 1.9
    for what, x0, x1 in (("left return", 0.0, left), ("opening width", left, right), ("right return", right, width)):
        slot = sheet.find(section, what=what)
        if slot:
            value, state = sheet.read(slot)
            sheet.across(x0, x1, y, value, slot.label, state=state, slot=slot.ref, from_y=front)
    return sheet.drawing("plan", _title(space, "Plan as measured", units, date))


def _diagonals(sheet: SurveySheet, section: Section, width: float, depth: float) -> None:
    for side, a, b in (("left", (0.0, 0.0), (width, -depth)), ("right", (width, 0.0), (0.0, -depth))):
        slot = sheet.find(section, what="diagonal", side=side)
        if slot and sheet.shown(slot):
            value, state = sheet.read(slot)
            sheet.between(a, b, value, slot.label, at=0.3, state=state, slot=slot.ref)


def _room_plan(survey: Survey, units: Units, space: str, date: str, text: float) -> Drawing:
    """A room one stands in: each wall's length inside it, the corners' diagonals, what storage leaves to walk."""
    sheet = SurveySheet(survey, units, text or plan_text(survey))
    for frame in plan_walls(sheet, survey):
        section = survey.section(frame.section)
        slot = sheet.find(section, what="width", level="low", face="back")
        if slot:
            found = survey.least("width", section=section.id)
            value, state = sheet.read(slot)
            off = _inside(survey, frame) * 0.55
            a, b = down(frame.to_plan(0, off)), down(frame.to_plan(frame.length, off))
            sheet.between(a, b, found if value is None else value, slot.label, at=0.42, slot=slot.ref,
                          state=state if value is not None or found is None else "read")  # fmt: skip
        if len(survey.runs) > 1:
            sheet.beside(down(frame.to_plan(frame.length / 2, -WALL * 1.6)), -frame.turn, section.label)
        _corner(sheet, section, frame)
    return sheet.drawing("plan", _title(space, "Plan as measured", units, date))


def _inside(survey: Survey, frame: Frame) -> float:
    return fitted_depth(survey, frame.section) or NOMINAL["depth"]


def _corner(sheet: SurveySheet, section: Section, frame: Frame) -> None:
    slot = sheet.find(section, what="corner diagonal")
    if slot is None or not sheet.shown(slot):
        return
    reading = next((r for r in sheet.survey.readings if slot.filled_by(r)), None)
    along, out = (reading.at or 900, reading.out or 1200) if reading else (900.0, 1200.0)
    a, b = down(frame.to_plan(frame.length - along, 0)), down(frame.to_plan(frame.length, out))
    sheet.between(a, b, reading.value if reading else None, slot.label, state="read" if reading else "missing",
                  slot=slot.ref)  # fmt: skip
