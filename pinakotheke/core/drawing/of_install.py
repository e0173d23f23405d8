"""The work on the wall as drawings: the drilling map of a wall, and full-size strips to tape on it and drill through."""

from collections.abc import Sequence
from itertools import pairwise
from textwrap import wrap
from typing import NamedTuple

from ..install import BasePlan, DrillingMap, Hole, LevelLine
from ..layout import Design
from ..survey import Section, Survey
from ..systems import Part
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
SHEET_HIGH = 160.0
"""So much of a drawing goes on one sheet across its height, A4 or Letter on its side, mm."""


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


FAR_APART = 600
"""Between holes of an upright part a tape is as good as a strip over several sheets from here on, mm."""


class _Strip(NamedTuple):
    """A strip for parts that are alike: how long they are and where along them their holes are, mm; `standing` ones are
    held upright, their foot at the left end of the strip.
    """

    long: int
    holes: tuple[float, ...]
    standing: bool


def drilling_strips(design: Design, section: Section, found: DrillingMap, line: LevelLine, units: Units, space: str,
                    date: str = "") -> list[Drawing]:  # fmt: skip
    """Strips at full size for everything that is screwed along the wall, from the top: ends, every hole with its numbers,
    how far it is from the level line and from the left. Parts that are alike share a strip, and as many strips share a
    drawing as a sheet is high. An upright part with holes far apart has none: it is marked from the line, by the table.
    """
    by_part: dict[str, list[Hole]] = {}
    for hole in found.holes:
        if hole.surface == "back":
            by_part.setdefault(hole.part, []).append(hole)
    alike: dict[_Strip, list[tuple[Part, list[Hole]]]] = {}
    for part in sorted((p for p in design.parts if p.id in by_part), key=lambda p: (-p.z, p.x)):
        standing = len({h.height for h in by_part[part.id]}) > 1
        holes = sorted(by_part[part.id], key=lambda h: h.height if standing else h.along)
        if standing and any(b.height - a.height > FAR_APART for a, b in pairwise(holes)):
            continue
        at = tuple(round(h.height - part.z if standing else h.along - part.x, 1) for h in holes)
        alike.setdefault(_Strip(part.h if standing else part.w, at, standing), []).append((part, holes))
    drawings, canvas, top, names = [], Canvas(STRIP_TEXT, units), 0.0, dict[str, None]()

    def finish() -> Drawing:
        return canvas.drawing("elevation", _title(f"Strips: {', '.join(names)}", "1:1", units, space, date))

    for strip, rows in sorted(alike.items(), key=lambda one: -one[0].long):
        said = _strip_says(design, section, strip, rows, line, units)
        high = STRIP_HIGH + (len(said) + 1) * STRIP_TEXT * 1.4
        if names and top + high > SHEET_HIGH:
            drawings.append(finish())
            canvas, top, names = Canvas(STRIP_TEXT, units), 0.0, {}
        _strip(canvas, strip, rows, -top - STRIP_HIGH, units)
        for n, row in enumerate(said):
            canvas.note("note", 2, -top - STRIP_HIGH - (n + 1) * STRIP_TEXT * 1.4, row, anchor="start")
        names |= dict.fromkeys(design.family_of(part).named(part) for part, _ in rows)
        top += high
    return [*drawings, finish()] if names else drawings


def _strip_says(design: Design, section: Section, strip: _Strip, rows: Sequence[tuple[Part, list[Hole]]],
                line: LevelLine, units: Units) -> list[str]:  # fmt: skip
    """Where a strip is held for each of the parts that share it, in lines no longer than the strip."""

    def above(z: float) -> str:
        away = line.from_line(z)
        return f"{format_length(abs(away), units)} {'above' if away >= 0 else 'below'} the line"

    said = [
        f"{format_length(part.x + part.w / 2, units)} from the left, foot {above(part.z)}" if strip.standing
        else f"middle {above(holes[0].height)}, left end {format_length(part.x, units)} from the left"
        for part, holes in rows
    ]  # fmt: skip
    name = ", ".join(dict.fromkeys(design.family_of(part).named(part) for part, _ in rows))
    count = f"{len(rows)} × " if len(rows) > 1 else ""
    text = f"{count}{name}, {section.label}{', stood upright' if strip.standing else ''}: {'; '.join(said)}"
    return wrap(text, int(max(strip.long, SHEET_HIGH) / (STRIP_TEXT * 0.6)))


def _strip(canvas: Canvas, strip: _Strip, rows: Sequence[tuple[Part, list[Hole]]], foot: float, units: Units) -> None:
    middle = foot + STRIP_HIGH / 2
    canvas.rect("part", 0, foot, strip.long, STRIP_HIGH, weight="fine")
    canvas.line("note", (0, middle), (strip.long, middle), weight="fine", dashed=True)
    for n, x in enumerate(strip.holes):
        numbers = [str(holes[n].number) for _, holes in rows]
        canvas.line("note", (x - CROSS, middle), (x + CROSS, middle), weight="medium")
        canvas.line("note", (x, middle - CROSS), (x, middle + CROSS), weight="medium")
        shown = numbers if len(numbers) <= 4 else [*numbers[:3], "…"]
        canvas.note("note", x, middle + CROSS + 2, ", ".join(shown), halo=True)
        canvas.note("note", x, middle - CROSS - STRIP_TEXT, format_length(x, units), size=0.8, halo=True)


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
