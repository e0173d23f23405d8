"""Levels, drawers, voids and door backs: a stack seen from the front, one of them seen from above."""

from ..survey import Section, Survey
from ..survey.drawers import drawer_sizes
from .survey_sheet import SurveySheet
from .walls import obstacle_front

NOMINAL = {"width": 450.0, "depth": 480.0}
"""Sizes drawn for what has not been read, mm."""
BOARD = 18.0
TEXTS_HIGH = 20


def _sizes(survey: Survey, section: Section) -> tuple[float, float, float]:
    one = survey.only(section.id)
    return (one.least("width") or NOMINAL["width"], one.least("height") or section.traits.usual_height,
            one.least("depth") or NOMINAL["depth"])  # fmt: skip


def _stack(survey: Survey, section: Section) -> tuple[Section, ...]:
    """What is drawn with a section: the drawers of a chest, the levels of a cabinet; a void stands alone."""
    if section.traits.pile:
        return tuple(s for s in survey.parts if s.kind == section.kind)
    return (section,)


def text_height(survey: Survey, section: Section) -> float:
    """Height of text in mm, for the stack's elevation and the plan alike."""
    rows = [_sizes(survey, s) for s in _stack(survey, section)]
    return max(sum(h + BOARD for _, h, _ in rows) * 0.75, max(w for w, _, _ in rows), rows[0][2]) / TEXTS_HIGH


def elevation(sheet: SurveySheet, section: Section) -> None:
    """The stack from the front, each section with its width and height: drawers from the top, levels from below."""
    survey = sheet.survey
    rows = _stack(survey, section)
    if section.traits.pile == "down":
        rows = rows[::-1]  # they are counted from the top
    z = 0.0
    for row in rows:
        width, height, _ = _sizes(survey, row)
        shown = row.id == section.id
        sheet.rect("wall", -BOARD, z - BOARD, width + 2 * BOARD, BOARD, weight="medium", cut=True)
        for x in (-BOARD, width):
            sheet.rect("wall", x, z, BOARD, height, weight="medium", cut=True)
        name = row.label + (", movable" if row.movable else "")
        sheet.note("note", width * 0.66, z + height / 2 - sheet.text * 0.35, name, halo=True, of=row.id)
        _dimensions(sheet, row, width, height, z)
        if shown and len(rows) > 1:
            sheet.rect("access", 0, z, width, height, of=row.id, weight="heavy")
        for o in survey.only(row.id).obstacles:
            obstacle_front(sheet, o.model_copy(update={"z": o.z + z}), z + height)
        z += height + BOARD
    top = _sizes(survey, rows[-1])[0]
    sheet.rect("wall", -BOARD, z - BOARD, top + 2 * BOARD, BOARD, weight="medium", cut=True)


def _dimensions(sheet: SurveySheet, row: Section, width: float, height: float, z: float) -> None:
    """Width at the front and heights of one of the stack."""
    slot = sheet.find(row, what="width", face="front") or sheet.find(row, what="width")
    if slot:
        value, state = sheet.read(slot)
        low = z + min(height * 0.3, sheet.text * 1.2)
        sheet.across(0, width, low, value, slot.label, state=state, slot=slot.ref, at=0.36)
    for side, share in (("left", 0.12), ("right", 0.94), (None, 0.12)):
        slot = sheet.find(row, what="height", side=side)
        if slot:
            value, state = sheet.read(slot)
            sheet.upright(width * share, z, z + height, value, slot.label, state=state, slot=slot.ref)


def plan(sheet: SurveySheet, section: Section) -> None:
    """One section from above, its front below: widths back and front, depths, how far it can be reached into."""
    width, _, depth = _sizes(sheet.survey, section)
    sheet.rect("wall", -BOARD, 0, width + 2 * BOARD, BOARD, weight="medium", cut=True)
    for x in (-BOARD, width):
        sheet.rect("wall", x, -depth, BOARD, depth, weight="medium", cut=True)
    sheet.rect("wall", -BOARD, -depth - BOARD, width + 2 * BOARD, BOARD, weight="medium", cut=section.traits.from_above)
    for o in sheet.survey.only(section.id).obstacles:
        sheet.rect("obstacle", o.x, -o.y - o.projection, o.width, o.projection, of=o.id)
    for face, y in (("back", -depth * 0.36), ("front", -depth * 0.88), (None, -depth * 0.5)):
        slot = sheet.find(section, what="width", face=face)
        if slot:
            value, state = sheet.read(slot)
            sheet.across(0, width, y, value, slot.label, state=state, slot=slot.ref, at=0.55)
    for side, share in (("left", 0.16), ("right", 0.9), (None, 0.3)):
        slot = sheet.find(section, what="depth", side=side)
        if slot:
            value, state = sheet.read(slot)
            sheet.upright(width * share, -depth, 0, value, slot.label, state=state, slot=slot.ref, at=0.42)
    slot = sheet.find(section, what="opens")
    if slot:
        _reach(sheet, section, width, depth)
        value, state = sheet.read(slot)
        sheet.upright(width + BOARD + sheet.text * 1.8, -depth - (value or depth * 0.8), -depth, value, slot.label,
                      state=state, slot=slot.ref)  # fmt: skip


def _reach(sheet: SurveySheet, section: Section, width: float, depth: float) -> None:
    """What lies behind the reach when the drawer is out."""
    sizes = drawer_sizes(sheet.survey, section.id)
    if sizes and sizes.reachable < sizes.inside - 1:
        hidden = sizes.inside - sizes.reachable
        sheet.rect("access", 0, -hidden, width, hidden, of="reach", weight="fine", dashed=True)
        sheet.note("note", width / 2, -max(hidden, sheet.text) - sheet.text * 1.2, "beyond the line: out of reach",
                   halo=True)  # fmt: skip
