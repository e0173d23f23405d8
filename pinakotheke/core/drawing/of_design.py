"""A design as an elevation with what lives where, and as a plan."""

from collections import Counter

from ..inventory import Thing
from ..inventory.needs import need
from ..layout import Design
from ..layout.ledger import EMPTY_IS
from ..lengths import Units
from ..survey import Survey
from ..systems import HOLDERS, Part
from ..tables import value
from .canvas import Canvas
from .models import Drawing, TitleBlock
from .of_survey import plan_text, text_height
from .walls import NOMINAL, opening, plan_walls, reach_in_walls, shell


def design_elevation(design: Design, survey: Survey, things: tuple[Thing, ...], units: Units, space: str,
                     date: str = "", text: float = 0, dimensioned: bool = True) -> Drawing:  # fmt: skip
    """Parts and their contents from the front, with bay widths and heights."""
    canvas = Canvas(text or text_height(survey), units)
    width, height = shell(canvas, survey, survey.main)
    opening(canvas, survey.only(), width, height)
    for part in design.parts:
        _part(canvas, part)
    names = {t.id: t for t in things}
    for part in design.parts:
        if part.role in HOLDERS:
            _contents(canvas, design, part, names)
    if dimensioned:
        _dimensions(canvas, design, width, height)
    return canvas.drawing("elevation", _title(design, "Elevation", units, space, date))


def design_plan(design: Design, survey: Survey, units: Units, space: str, date: str = "", text: float = 0) -> Drawing:
    """Parts from above, with the run's bays and depth."""
    canvas = Canvas(text or plan_text(survey), units)
    one = survey.only()
    width = one.least("width") or NOMINAL["width"]
    depth = max(one.values("depth"), default=NOMINAL["depth"])
    plan_walls(canvas, survey)
    front = -depth if survey.is_open_fronted else reach_in_walls(canvas, survey, width, depth)[2]
    seen: set[tuple[int, int, int, int]] = set()
    for part in design.parts:
        footprint = (part.x, part.y, part.w, part.d)
        if part.role in ("frame", "shelf", "track", "standard", "rail", "filler") and footprint not in seen:
            seen.add(footprint)
            canvas.rect("part", part.x, -part.y - part.d, part.w, part.d, of=part.id, role=part.role,
                        weight="medium" if part.role == "frame" else "fine", dashed=part.role == "rail")  # fmt: skip
    deepest = max((p.y + p.d for p in design.parts), default=0)
    canvas.upright(width * 0.5, -deepest, 0, deepest, "depth taken")
    for bay in design.bays:
        canvas.across(bay.x, bay.x + bay.w, front - canvas.text * 2.2, bay.w, f"bay {bay.index + 1}, inside")
    return canvas.drawing("plan", _title(design, "Plan", units, space, date))


def _title(design: Design, shows: str, units: Units, space: str, date: str) -> TitleBlock:
    return TitleBlock(space=space, shows=f"{shows}: {design.title}", scale="1:20",
                      units="mm" if units == "metric" else "inches", date=date, sheet="D1")  # fmt: skip


def _part(canvas: Canvas, part: Part) -> None:
    weight = "heavy" if part.role in ("frame", "track") else "fine" if part.role == "bracket" else "medium"
    canvas.rect("part", part.x, part.z, part.w, part.h, of=part.id, role=part.role, weight=weight)  # type: ignore[arg-type]
    if part.role == "drawer":
        middle, y = part.x + part.w / 2, part.z + part.h * 0.86
        canvas.line("part", (middle - 45, y), (middle + 45, y), of=part.id, weight="medium")


def content_box(design: Design, part: Part, things: dict[str, Thing]) -> tuple[float, float]:
    """Heights from..to of what is in a part, as it is drawn."""
    needs = [need(things[a.thing], a.way, design.rules, a.count) for a in design.held_by(part.id) if a.thing in things]
    clear = max((n.clear for n in needs), default=0.0)
    if part.role == "rail":
        above = value("hang.above_rail")
        return part.z - clear + above + value("hang.below_hem"), float(part.z)
    if part.role == "drawer":
        return float(part.z), float(part.z + part.h)
    return float(part.z + part.h), float(part.z + part.h + clear)


def _contents(canvas: Canvas, design: Design, part: Part, things: dict[str, Thing]) -> None:
    """Each thing as a hatched box as wide as its share; one label for the compartment."""
    held = [a for a in design.held_by(part.id) if a.thing in things]
    if not held:
        if part.role in ("shelf", "rail", "drawer"):
            said = f"free for {EMPTY_IS[part.role]}"
            room = canvas.text * 1.4
            canvas.label_in(
                part.x, part.z + part.h, part.w, room, [said if canvas.holds(said, part.w) else "free"], part.id
            )
        return
    low, high = content_box(design, part, things)
    x = float(part.x)
    inset = 14.0
    room = part.w - 2 * inset
    x += inset
    rows = [(a, need(things[a.thing], a.way, design.rules, a.count)) for a in held]
    whole = max(room, sum(n.amount for _, n in rows)) if part.role != "drawer" else sum(n.amount for _, n in rows)
    for a, n in rows:
        w = room * n.amount / whole
        own = n.clear - value("hang.above_rail") - value("hang.below_hem") if part.role == "rail" else n.clear
        top = high if part.role in ("rail", "drawer") else low + max(own - value("fold.over"), 40)
        foot = high - own if part.role == "rail" else low
        canvas.rect("content", x, foot, max(w - 10, 6), top - foot, of=a.thing, weight="fine", hatch=n.storage)
        x += w
    counts: Counter[str] = Counter()
    for a in held:
        counts[a.thing] += a.count
    label = [f"{count} {things[of].name}" for of, count in counts.items()]
    box = (low, high - low)
    if part.role == "rail":
        box = (max(low, high - 420), min(high - low, 420))
    canvas.label_in(part.x + inset, box[0], room, box[1], label, part.id)


def _dimensions(canvas: Canvas, design: Design, width: float, height: float) -> None:
    step = canvas.text * 1.9
    frames = [p for p in design.parts if p.role == "frame"]
    spans = [(p.x, p.x + p.w) for p in frames] or [(b.x, b.x + b.w) for b in design.bays]
    for n, (x0, x1) in enumerate(spans):
        canvas.across(x0, x1, -60 - step, x1 - x0, f"bay {n + 1}", from_y=-60)
    if spans:
        canvas.across(0, width, -60 - 2 * step, width, "least width", from_y=-60)
    top = max((p.z + p.h for p in design.parts if p.role in ("frame", "standard", "track")), default=0)
    canvas.upright(-60 - step * 0.7, 0, top, top, "height of the parts", from_x=-60)
    canvas.upright(width + 60 + step, 0, height, height, "ceiling", from_x=width + 60)
