"""A design from the front, from above and cut through: walls unfolded side by side, drawers seen from above.

What lives in a compartment is shown as hatched boxes, as silhouettes piece by piece, or not at all; doors shut hide it,
open they stand aside.
"""

from collections import Counter
from collections.abc import Iterator, Mapping
from math import radians, tan
from typing import Literal

from ..inventory import Thing
from ..inventory.needs import STORAGE_OF
from ..layout import Design
from ..layout.models import Assignment
from ..layout.packing.contain import lying
from ..layout.report.ledger import ask_of
from ..layout.report.trial import TrialMark
from ..layout.verify.motion import door_swing, sweeps_of
from ..survey import Section, Survey
from ..survey.square import Frame
from ..systems import FRONTS, HANGING, HOLDERS, Bay, Part
from ..systems.roles import EMPTY_IS, ENCLOSING, HIDING, SUPPORTS
from ..tables import value
from ..units import Units
from .canvas import GLYPH, Canvas
from .models import Area, Drawing, Label, TitleBlock
from .of_survey import plan_text, text_height
from .walls import NOMINAL, down, obstacle_front, opening, plan_walls, reach_in_walls, shell

Inside = Literal["hatch", "silhouettes", "bare"]
GAP = 420.0
"""Between walls that are unfolded side by side, mm on the drawing."""
BOARD, FEW_DRAWERS = 18.0, 4
"""Thickness of what is drawn around a level or a drawer, mm; drawers of which two stand side by side, else three."""


def design_elevation(design: Design, survey: Survey, things: tuple[Thing, ...], units: Units, space: str,
                     date: str = "", text: float = 0, dimensioned: bool = True, *, inside: Inside = "hatch",
                     doors: Literal["open", "shut"] = "open", marks: tuple[TrialMark, ...] = ()) -> Drawing:  # fmt: skip
    """Parts and their contents from the front: every wall that is fitted, unfolded side by side; drawers as they lie
    open, from above.
    """
    names = {t.id: t for t in things}
    sections = [s for s in survey.parts if s.id in design.sections] or [survey.main]
    size = text or text_height(survey) * max(1.0, len([s for s in sections if not s.traits.shelf]) ** 0.6)
    drawn: list[tuple[Section, float, float]] = []
    canvases: list[Canvas] = []
    for n, section in enumerate(sections):
        one = Canvas(size, units)
        flat = section.traits.from_above
        width, height = section_front(one, design, survey, section, names, inside=inside, doors=doors)
        upon = section.traits.shelf and n > 0 and sections[n - 1].traits.shelf
        piled = upon or (section.traits.shelf and n + 1 < len(sections) and sections[n + 1].traits.shelf)
        if dimensioned:
            _dimensions(one, design, section, width, height, flat=flat, upon=upon)
        for mark in marks:
            if mark.section == section.id and not flat:
                one.line("note", (-60, mark.z), (width + 60, mark.z), weight="medium", dashed=True)
        if piled:
            one.note("note", width + BOARD + size * 0.6, height / 2 - size / 2, section.label, caption=True,
                     anchor="start")  # fmt: skip
        elif len(sections) > 1:
            one.note("note", width / 2, height + size * 1.6, section.label, caption=True, size=1.15)
        drawn.append((section, width, height))
        canvases.append(one)
    whole = Canvas(size, units)
    for one, (x, z) in zip(canvases, _places(drawn, size), strict=True):
        whole.take(one, x, z)
    if len(drawn) > 1:
        whole.walls = [
            Label(x=x, y=z, w=width, h=height, items=(section.label,), of=section.id)
            for (section, width, height), (x, z) in zip(drawn, _places(drawn, size), strict=True)
        ]
    shows = "Elevation" if len(sections) == 1 else "Elevation, unfolded"
    return whole.drawing("elevation", title_block(design, shows, units, space, date))


def section_front(canvas: Canvas, design: Design, survey: Survey, section: Section, things: dict[str, Thing], *,
                  inside: Inside, doors: Literal["open", "shut"]) -> tuple[float, float]:  # fmt: skip
    """One section from the front, without sizes: what stands around it, its parts and what is in them. Returns its width
    and height.
    """
    width, height = _wall(canvas, survey, section)
    parts, deep = design.in_section(section.id).parts, height if section.traits.from_above else None
    for bay in design.bays:
        if bay.section == section.id:
            up, high = (bay.z0, bay.z1 - bay.z0) if deep is None else (deep - bay.y - bay.depth, bay.depth)
            canvas.bays.append(Area(x=bay.x, y=up, w=bay.w, h=high, of=bay_id(bay.index)))
    for part in parts:
        if part.role not in HIDING:
            _part(canvas, part, deep)
    # Of what stands on each other one sees the topmost from above.
    under = {p.carrier for p in parts} if deep is not None else set()
    if doors == "open" or not any(p.role in HIDING for p in parts):
        for part in parts:
            if part.role in HOLDERS and inside != "bare" and part.id not in under:
                _contents(canvas, design, part, things, inside, deep)
    for part in parts:
        if part.role in HIDING:
            _door(canvas, part, doors)
    return width, height


def bay_id(index: int) -> str:
    """What a bay is called on a drawing."""
    return f"bay-{index}"


def _places(drawn: list[tuple[Section, float, float]], size: float) -> Iterator[tuple[float, float]]:
    """Where each section goes, of which width and height are known: walls side by side, levels above each other,
    drawers in rows of a few.
    """
    x = z = first = right = 0.0
    drawers, flat = 0, sum(s.traits.from_above for s, _, _ in drawn)
    abreast = 2 if flat <= FEW_DRAWERS else 3
    for n, (section, width, height) in enumerate(drawn):
        before, before_width, before_height = drawn[n - 1] if n else (None, 0.0, 0.0)
        beside = section.traits.from_above and before is not None and before.traits.from_above
        label = 0.0
        if section.traits.shelf and before is not None and before.traits.shelf:
            z += before_height + BOARD
        elif beside and drawers % abreast:
            x += before_width + size * 7
        elif beside:
            x, z = first, z - height - size * 7
        else:
            x, z, drawers = (right + GAP + size * 2 if n else 0.0), 0.0, 0
            first = x
        drawers += 1
        if section.traits.shelf:
            label = size * GLYPH * len(section.label)
        right = max(right, x + width + label)
        yield x, z


def _wall(canvas: Canvas, survey: Survey, section: Section) -> tuple[float, float]:
    """What stands around a section: a wall with floor and ceiling, or the box of a level or a drawer."""
    if section.at_wall:
        width, height = shell(canvas, survey, section)
        if section.id == survey.main.id:
            opening(canvas, survey.only(), width, height)
        return width, height
    one = survey.only(section.id)
    width = one.least("width") or 600.0
    height = (one.least("depth") if section.traits.from_above else one.least("height")) or 300.0
    for x, y, w, h in ((-BOARD, -BOARD, width + 2 * BOARD, BOARD), (-BOARD, 0, BOARD, height),
                       (width, 0, BOARD, height), (-BOARD, height, width + 2 * BOARD, BOARD)):  # fmt: skip
        canvas.rect("wall", x, y, w, h, weight="medium", cut=True)
    for o in one.obstacles:
        if section.traits.from_above:
            canvas.rect("obstacle", o.x, height - o.y - o.projection, o.width, o.projection, of=o.id)
        else:
            obstacle_front(canvas, o, height)
    return width, height


def design_plan(design: Design, survey: Survey, units: Units, space: str, date: str = "", text: float = 0,
                doors: Literal["open", "shut"] = "open", *, ways: bool = False) -> Drawing:  # fmt: skip
    """Parts from above, with the runs' bays and depth; open doors with what they sweep. With `ways` where everything goes
    that slides or swings out, and where one stands to open it.
    """
    canvas = Canvas(text or plan_text(survey), units)
    one = survey.only()
    width = one.least("width") or NOMINAL["width"]
    depth = max(one.values("depth"), default=NOMINAL["depth"])
    if not survey.main.at_wall:
        return _flat_plan(design, survey, units, space, date, canvas)
    placed = {f.section: f for f in plan_walls(canvas, survey)}
    front = -depth if survey.is_open_fronted else reach_in_walls(canvas, survey, width, depth)[2]
    parts_above(canvas, design, placed, doors)
    if ways:
        _ways(canvas, design, placed)
    for section in design.sections:
        parts = [p for p in design.parts if p.section == section]
        if section == survey.main.id and parts:
            deepest = max(p.y + p.d for p in parts)
            canvas.upright(width * 0.5, -deepest, 0, deepest, "depth taken")
    for bay in _lowest([b for b in design.bays if b.section == survey.main.id]):
        if bay.z0 < 1800:
            canvas.across(bay.x, bay.x + bay.w, front - canvas.text * 2.2, bay.w, f"bay {bay.index + 1}, inside")
    return canvas.drawing("plan", title_block(design, "Plan", units, space, date))


def parts_above(canvas: Canvas, design: Design, placed: Mapping[str, Frame], doors: Literal["open", "shut"]) -> None:
    """The parts of every wall that has its place in the plan, from above."""
    seen: set[tuple[str, int, int, int, int]] = set()
    for part in design.parts:
        footprint = (part.section, part.x, part.y, part.w, part.d)
        frame = placed.get(part.section)
        if frame is None or part.role in SUPPORTS or part.role == "container" or footprint in seen:
            continue
        seen.add(footprint)
        if part.role == "door" and doors == "open":
            _swing(canvas, design, part, frame)
        else:
            _from_above(canvas, part, frame)


def _ways(canvas: Canvas, design: Design, placed: Mapping[str, Frame]) -> None:
    """What slides out where it ends, with room to stand before it; the quarter circles of leaves. One of each place: what
    lies one above the other goes the same way.
    """
    stand = value("clear.pull_stand")
    seen: set[tuple[object, ...]] = set()
    for sweep in sweeps_of(design):
        frame, key = placed.get(sweep.section), (sweep.section, sweep.kind, sweep.x0, sweep.x1, sweep.y1)
        if frame is None or key in seen or sweep.kind == "slides along":
            continue
        seen.add(key)
        if sweep.hinge is not None:
            canvas.line("access", *(down(frame.to_plan(*p)) for p in sweep.arc), of=sweep.part, dashed=True)
            continue
        for y0, y1 in ((sweep.y0, sweep.y1), (sweep.y1, sweep.y1 + stand)):
            corners = ((sweep.x0, y0), (sweep.x0, y1), (sweep.x1, y1), (sweep.x1, y0))
            canvas.line("access", *(down(frame.to_plan(*c)) for c in corners), of=sweep.part, dashed=True)


def _flat_plan(design: Design, survey: Survey, units: Units, space: str, date: str, canvas: Canvas) -> Drawing:
    """Levels, drawers and door backs from above, side by side."""
    at = 0.0
    for section in (s for s in survey.parts if s.id in design.sections):
        one = Canvas(canvas.text, units)
        own = survey.only(section.id)
        w, d = own.least("width") or 600.0, own.least("depth") or 400.0
        one.rect("wall", -BOARD, 0, w + 2 * BOARD, BOARD, weight="medium", cut=True)
        for x in (-BOARD, w):
            one.rect("wall", x, -d, BOARD, d, weight="medium", cut=True)
        for part in design.parts:
            if part.section == section.id and part.role not in SUPPORTS:
                one.rect("part", part.x, -part.y - part.d, part.w, part.d, of=part.id, role=part.role, weight="fine")
        one.note("note", w / 2, canvas.text * 1.4, section.label)
        canvas.take(one, at, 0)
        at += w + GAP / 2
    return canvas.drawing("plan", title_block(design, "Plan", units, space, date))


def _from_above(canvas: Canvas, part: Part, frame: Frame) -> None:
    weight: Literal["medium", "fine"] = "medium" if part.role in ENCLOSING else "fine"
    dashed = part.role in HANGING or part.role in ("platform", "floor")
    if abs(frame.turn) < 1e-9:
        x, y = down(frame.to_plan(part.x, part.y + part.d))
        canvas.rect("part", x, y, part.w, part.d, of=part.id, role=part.role, weight=weight, dashed=dashed)
        return
    corners = [
        (part.x, part.y),
        (part.x + part.w, part.y),
        (part.x + part.w, part.y + part.d),
        (part.x, part.y + part.d),
    ]
    canvas.face("part", *(down(frame.to_plan(*c)) for c in corners), of=part.id, weight=weight, dashed=dashed)


def _swing(canvas: Canvas, design: Design, door: Part, frame: Frame) -> None:
    """A hinged leaf standing open at right angles, and the arc it sweeps; the second leaf of a pair hangs right."""
    if door.bay is None:
        _from_above(canvas, door, frame)
        return
    sweep = door_swing(door)
    assert sweep.hinge is not None
    tip = (sweep.hinge[0], sweep.y1)
    canvas.line("part", down(frame.to_plan(*sweep.hinge)), down(frame.to_plan(*tip)), of=door.id, weight="medium")
    canvas.line("access", *(down(frame.to_plan(*p)) for p in sweep.arc), of=door.id, dashed=True)


def title_block(design: Design, shows: str, units: Units, space: str, date: str) -> TitleBlock:
    """What the paper says of a view of a design."""
    return TitleBlock(space=space, shows=f"{shows}: {design.title}", scale="1:20",
                      units="mm" if units == "metric" else "inches", date=date, sheet="D1")  # fmt: skip


def _part(canvas: Canvas, part: Part, deep: float | None) -> None:
    """A part from the front; from above in a drawer so `deep`, whose front is below on the paper."""
    flat = deep is not None
    y, h = (part.z, part.h) if deep is None else (deep - part.y - part.d, part.d)
    weight: Literal["heavy", "medium", "fine"] = "medium"
    if part.role in ENCLOSING | {"track"}:
        weight = "heavy"
    elif part.role in SUPPORTS or part.role in ("floor", "light"):
        weight = "fine"
    canvas.rect("part", part.x, y, part.w, max(h, 4), of=part.id, role=part.role, weight=weight,
                dashed=part.role == "floor")  # fmt: skip
    if part.mitre and not flat:
        _cut_end(canvas, part)
    if part.role in FRONTS and not flat:
        middle, grip = part.x + part.w / 2, part.z + part.h * 0.86
        canvas.line("part", (middle - 45, grip), (middle + 45, grip), of=part.id, weight="medium")
    if part.role == "hooks" and not flat:
        for n in range(max(1, part.w // 120)):
            x = part.x + (n + 0.5) * part.w / max(1, part.w // 120)
            canvas.line("part", (x, part.z + part.h * 0.7), (x, part.z + part.h * 0.25), (x + 14, part.z + part.h * 0.4),
                        of=part.id, weight="medium")  # fmt: skip


def _cut_end(canvas: Canvas, part: Part) -> None:
    """The end of a board that is cut to a sloping ceiling, beyond its upper edge."""
    beyond = part.h / tan(radians(part.mitre))
    end, tip = (part.x + part.w, part.x + part.w + beyond) if part.cut_end == "right" else (part.x, part.x - beyond)
    canvas.line("part", (end, part.z + part.h), (tip, part.z), (end, part.z), of=part.id, weight="medium")


def _door(canvas: Canvas, part: Part, doors: str) -> None:
    """Shut: the leaf, and the strokes that meet at its hinge. Open: only its outline."""
    shut = doors == "shut"
    canvas.rect("part", part.x, part.z, part.w, part.h, of=part.id, role=part.role,
                weight="medium" if shut else "fine", dashed=not shut)  # fmt: skip
    if shut and part.role == "door" and part.bay is not None:
        right = part.hinge == "right"
        hinge, far = (part.x + part.w, part.x) if right else (part.x, part.x + part.w)
        canvas.line(
            "part", (far, part.z), (hinge, part.z + part.h / 2), (far, part.z + part.h), of=part.id, dashed=True
        )


def content_box(design: Design, part: Part, things: dict[str, Thing]) -> tuple[float, float]:
    """Heights from..to of what is in a part, as it is drawn."""
    asked = [ask_of(design, part, a, things) for a in design.held_by(part.id) if a.thing in things]
    clear = max((n.clear for n in asked), default=0.0)
    if part.role in HANGING:
        above = value("hang.above_rail")
        return part.z - clear + above + value("hang.below_hem"), float(part.z)
    if part.role in FRONTS:
        return float(part.z), float(part.z + part.h)
    return float(part.z + part.h), float(part.z + part.h + clear)


def _contents(canvas: Canvas, design: Design, part: Part, things: dict[str, Thing], inside: Inside,
              deep: float | None) -> None:  # fmt: skip
    """What lives in a part, and one label for the compartment."""
    flat = deep is not None
    held = [a for a in design.held_by(part.id) if a.thing in things]
    if not held:
        if part.role in EMPTY_IS and part.role != "base":
            if deep is not None:
                canvas.label_in(part.x, deep - part.y - part.d, part.w, part.d, ["free"], part.id)
                return
            said = f"free for {EMPTY_IS[part.role]}"
            canvas.label_in(part.x, part.z + part.h, part.w, canvas.text * 1.4,
                            [said if canvas.holds(said, part.w) else "free"], part.id)  # fmt: skip
        return
    pieces = lying(design, part, things)
    if deep is not None:
        pieces = [p.model_copy(update={"y": deep - p.y - p.d}) for p in pieces]
    if flat or inside == "silhouettes":
        for p in pieces:
            y, h = (p.y, p.d) if flat else (p.z, p.h)
            hatch = STORAGE_OF[p.way] if deep is None else "drawers"  # type: ignore[index]
            if p.way == "hang" and not flat:
                shoulder = min(70.0, h / 4)
                canvas.face("content", (p.x, y), (p.x + p.w, y), (p.x + p.w, y + h - shoulder), (p.x + p.w / 2, y + h),
                            (p.x, y + h - shoulder), of=p.thing, weight="fine")  # fmt: skip
            else:
                canvas.rect("content", p.x, y, max(p.w - 2, 3), h, of=p.thing, weight="fine", hatch=hatch,
                            lies_in=part.id)  # fmt: skip
    else:
        for thing, way in dict.fromkeys((p.thing, p.way) for p in pieces):
            own = [p for p in pieces if (p.thing, p.way) == (thing, way)]
            x0, x1 = min(p.x for p in own), max(p.x + p.w for p in own)
            z0, z1 = min(p.z for p in own), max(p.z + p.h for p in own)
            canvas.rect("content", x0, z0, max(x1 - x0, 6), max(z1 - z0, 8), of=thing, weight="fine",
                        hatch=STORAGE_OF[way], lies_in=part.id)  # type: ignore[index]  # fmt: skip
    counts: Counter[str] = Counter()
    for a in held:
        counts[a.thing] += a.count
    label = [f"{count} {things[of].name}" for of, count in counts.items()]
    label += [f"over {a.count} {things[a.thing].name}" for a in below(design, part) if a.thing in things]
    if deep is not None:
        # What no longer goes into its compartment is named in it all the same.
        x0, x1 = min((p.x for p in pieces), default=part.x), max((p.x + p.w for p in pieces), default=part.x + part.w)
        low = min((p.y for p in pieces), default=deep - part.y - part.d)
        high = max((p.y + p.d for p in pieces), default=deep - part.y)
        canvas.label_in(x0, low, x1 - x0, high - low, label, part.id)
        return
    low, high = content_box(design, part, things)
    if part.role in HANGING:
        low = max(low, high - 420)
    canvas.label_in(part.x + 14, low, part.w - 28, high - low, label, part.id)


def below(design: Design, part: Part) -> Iterator[Assignment]:
    """What is in the trays under a tray of a drawer, the nearest first."""
    parts = {p.id: p for p in design.parts if p.role == "compartment"}
    while part.carrier in parts:
        part = parts[part.carrier]
        yield from design.held_by(part.id)


def _lowest(bays: list[Bay]) -> list[Bay]:
    """Those of some bays that stand over no other one."""
    return [
        b for b in bays
        if not any(o.z0 < b.z0 and o.x < b.x + b.w and b.x < o.x + o.w for o in bays if o.drawer is b.drawer is None)
    ]  # fmt: skip


def _dimensions(canvas: Canvas, design: Design, section: Section, width: float, height: float, *, flat: bool,
                upon: bool) -> None:  # fmt: skip
    """Widths of the bays below, heights at the sides; a section piled `upon` another has no widths of its own."""
    step = canvas.text * 1.9
    if flat:
        for bay in (b for b in design.bays if b.section == section.id):
            canvas.across(bay.x, bay.x + bay.w, -BOARD - step, bay.w, "width inside", from_y=-BOARD)
            canvas.upright(width + BOARD + step * 0.8, 0, height, bay.depth, "depth inside", from_x=width + BOARD)
        return
    bays = _lowest([b for b in design.bays if b.section == section.id and b.z0 < 1800])
    parts = [p for p in design.parts if p.section == section.id]
    frames = [p for p in parts if p.role == "frame"]
    spans = [(p.x, p.x + p.w, (p.bay or 0) + 1) for p in frames] or [(b.x, b.x + b.w, b.index + 1) for b in bays]
    if upon:
        spans = []
    for x0, x1, n in spans:
        canvas.across(x0, x1, -60 - step, x1 - x0, f"bay {n}", from_y=-60)
    if spans:
        canvas.across(0, width, -60 - 2 * step, width, "least width", from_y=-60)
    top = max((p.z + p.h for p in parts if not design.family_of(p).hangs_over), default=0)
    if top > BOARD:
        canvas.upright(-60 - step * 0.7, 0, top, top, "height of the parts", from_x=-60)
    if section.at_wall:
        canvas.upright(width + 60 + step, 0, height, height, "ceiling", from_x=width + 60)
