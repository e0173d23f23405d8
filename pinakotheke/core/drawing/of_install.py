"""The work on the wall as drawings: the drilling map of a wall, and full-size strips to tape on it and drill through."""

from collections.abc import Sequence

from ..install import BasePlan, DrillingMap, Hole, LevelLine
from ..layout import Design
from ..survey import Section, Survey
from ..units import Units, format_length
from .canvas import Canvas
from .models import Drawing, TitleBlock
from .of_survey import text_height
from .walls import shell

RADIUS = 12.0
"""Of a hole as it is drawn on a map, at least, mm of the wall."""
STRIP_TEXT = 4.0
STRIP_HIGH = 44.0
"""Height of a full-size strip, mm."""
CROSS = 8.0


def drilling_drawing(design: Design, survey: Survey, section: Section, found: DrillingMap, line: LevelLine, units: Units,
                     space: str, date: str = "", text: float = 0) -> Drawing:  # fmt: skip
    """A wall from the front with the level line, every hole numbered, its studs, and where one must not drill."""
    canvas = Canvas(text or text_height(survey), units)
    width, height = shell(canvas, survey, section)
    for zone in found.zones:
        if zone.bars:
            x0, x1, z0, z1 = max(zone.x0, 0), min(zone.x1, width), max(zone.z0, 0), min(zone.z1, height)
            canvas.rect("closed", x0, z0, x1 - x0, z1 - z0, dashed=True, weight="fine", of=zone.of)
    screwed = {h.part for h in found.holes}
    for part in design.parts:
        if part.id in screwed and part.section in ("", section.id):
            canvas.rect("part", part.x, part.z, part.w, part.h, of=part.id, weight="fine", role=part.role)
    canvas.line("note", (-60, line.height), (width + 60, line.height), weight="medium", dashed=True)
    canvas.note("note", width - canvas.text * 5, line.height + canvas.text * 0.3, "level line", halo=True)
    rows: dict[float, list[Hole]] = {}
    for hole in found.holes:
        if hole.surface != "back":
            continue
        rows.setdefault(hole.height, []).append(hole)
        _mark(canvas, hole)
    _heights(canvas, sorted(rows, reverse=True), line, units)
    canvas.upright(width + canvas.text * 2.4, 0, line.height, line.height, "level line above the floor's highest point")
    last = 0.0
    for stud in survey.only(section.id).studs:
        canvas.across(last, stud, -canvas.text * 3, stud - last, "to the stud")
        last = stud
    title = _title(f"Drilling map, {section.label}", "", units, space, date)
    return canvas.drawing("elevation", title)


def _heights(canvas: Canvas, heights: Sequence[float], line: LevelLine, units: Units) -> None:
    """Every height at which there are holes, told from the line, beside the wall; those too close have a second column."""
    above = float("inf")
    for z in heights:
        close = above - z < canvas.text * 1.1
        far = canvas.text * (4.2 if close else 1.0)
        away = line.from_line(z)
        said = f"{'+' if away >= 0 else '−'}{format_length(abs(away), units)}"
        canvas.line("dimension", (-far, z), (0, z), weight="fine")
        canvas.note("dimension", -far - canvas.text * 0.2, z - canvas.text * 0.35, said, anchor="end")
        above = float("inf") if close else z


def _mark(canvas: Canvas, hole: Hole) -> None:
    x, z, radius = hole.along, hole.height, max(RADIUS, canvas.text * 0.25)
    if hole.refused:
        canvas.line(
            "note", (x - radius, z - radius), (x + radius, z + radius), of=f"hole-{hole.number}", weight="heavy"
        )
        canvas.line(
            "note", (x - radius, z + radius), (x + radius, z - radius), of=f"hole-{hole.number}", weight="heavy"
        )
    else:
        canvas.arc("note", (x, z), radius, 0, 360, of=f"hole-{hole.number}")
    canvas.note(
        "note", x, z + radius + canvas.text * 0.25, str(hole.number), of=f"hole-{hole.number}", size=0.9, halo=True
    )


def drilling_strips(design: Design, section: Section, found: DrillingMap, line: LevelLine, units: Units, space: str,
                    date: str = "") -> list[Drawing]:  # fmt: skip
    """Strips at full size, one for each part that is screwed along the wall, from the top: its ends, every hole with its
    number, and how far its middle is from the level line.
    """
    strips = []
    by_part: dict[str, list[Hole]] = {}
    for hole in found.holes:
        if hole.surface == "back":
            by_part.setdefault(hole.part, []).append(hole)
    for part in sorted((p for p in design.parts if p.id in by_part), key=lambda p: -p.z):
        holes = sorted(by_part[part.id], key=lambda h: h.along)
        if len({h.height for h in holes}) > 1:
            continue  # upright parts are marked from the line, hole by hole
        strips.append(
            _strip(design.family_of(part).named(part), part.x, part.w, holes, section, line, units, space, date)
        )
    return strips


def _strip(name: str, x0: int, long: int, holes: Sequence[Hole], section: Section, line: LevelLine, units: Units,
           space: str, date: str) -> Drawing:  # fmt: skip
    canvas, middle = Canvas(STRIP_TEXT, units), STRIP_HIGH / 2
    canvas.rect("part", 0, 0, long, STRIP_HIGH, weight="fine")
    canvas.line("note", (0, middle), (long, middle), weight="fine", dashed=True)
    for hole in holes:
        x = hole.along - x0
        canvas.line("note", (x - CROSS, middle), (x + CROSS, middle), weight="medium")
        canvas.line("note", (x, middle - CROSS), (x, middle + CROSS), weight="medium")
        canvas.note("note", x, middle + CROSS + 2, str(hole.number), halo=True)
        canvas.note("note", x, middle - CROSS - STRIP_TEXT, format_length(hole.along, units), size=0.8, halo=True)
    away = line.from_line(holes[0].height)
    far = f"{format_length(abs(away), units)} {'above' if away >= 0 else 'below'} the level line"
    start = f"left end {format_length(x0, units)} from the left end of the wall"
    canvas.note("note", 2, STRIP_HIGH + 3, f"{name}, {section.label}: middle {far}; {start}", anchor="start")
    title = _title(f"Strip for {name}", "1:1", units, space, date)
    return canvas.drawing("elevation", title)


def scribe_strip(plan: BasePlan, section: Section, units: Units, space: str, date: str = "") -> Drawing | None:
    """The line to scribe a plinth to, full size: lay its straight edge on the plinth's lower edge, and cut along the curve;
    None where nothing is cut off.
    """
    if not any(s.off for s in plan.scribe):
        return None
    canvas = Canvas(STRIP_TEXT, units)
    start = plan.scribe[0].at
    canvas.line("note", (0, 0), (plan.end - start, 0), weight="medium")
    canvas.line("part", *((s.at - start, s.off) for s in plan.scribe), weight="heavy")
    for s in plan.scribe:
        canvas.line("note", (s.at - start, 0), (s.at - start, s.off), weight="fine", dashed=True)
        canvas.note("note", s.at - start, s.off + 2, format_length(s.off, units), size=0.8, halo=True)
    title = _title(f"Scribe line of the plinth, {section.label}", "1:1", units, space, date)
    return canvas.drawing("elevation", title)


def _title(shows: str, scale: str, units: Units, space: str, date: str) -> TitleBlock:
    said = "inches" if units == "imperial" else "mm"
    return TitleBlock(space=space, shows=shows, scale=scale, units=said, date=date)
