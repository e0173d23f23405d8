"""A design cut through: a bay from its right, a drawer along a line from back to front."""

from typing import Literal

from ..inventory import Thing
from ..inventory.needs import STORAGE_OF
from ..layout import Design
from ..layout.packing.contain import lying
from ..survey import Survey
from ..systems import HOLDERS, Bay
from ..systems.families.insert import TraySet
from ..systems.roles import ENCLOSING
from ..units import Units
from .canvas import Canvas
from .models import Drawing
from .of_design import BOARD, title_block
from .of_survey import text_height
from .walls import NOMINAL


def design_section(design: Design, survey: Survey, things: tuple[Thing, ...], units: Units, space: str, bay_index: int,
                   date: str = "", text: float = 0) -> Drawing:  # fmt: skip
    """One bay cut through from front to back, seen from its right: depths, heights, what hangs and stands in it; a drawer
    where most is cut.
    """
    bay = design.bays[bay_index]
    if bay.drawer is not None:
        return _drawer_section(design, survey, things, units, space, bay, date, text)
    section = survey.section(bay.section)
    canvas = Canvas(text or text_height(survey), units)
    one = survey.only(section.id)
    height = one.least("height") or NOMINAL["height"]
    deep = max([*one.values("depth"), float(max((p.y + p.d for p in design.parts), default=0))])
    canvas.rect("wall", -60, -60, deep + 180, 60, weight="heavy", cut=True)
    canvas.rect("wall", -60, 0, 60, height, weight="heavy", cut=True)
    names = {t.id: t for t in things}
    for part in design.parts:
        if part.bay == bay.index and part.section == bay.section:
            weight: Literal["heavy", "medium"] = "heavy" if part.role in ENCLOSING else "medium"
            canvas.rect("part", part.y, part.z, part.d, part.h, of=part.id, role=part.role, weight=weight)
            if part.role in HOLDERS:
                for piece in lying(design, part, names):
                    canvas.rect("content", piece.y, piece.z, piece.d, piece.h, of=piece.thing, weight="fine",
                                hatch=STORAGE_OF[piece.way])  # type: ignore[index]  # fmt: skip
    top = max((p.z + p.h for p in design.parts if p.bay == bay.index), default=0)
    canvas.across(bay.y, bay.y + bay.depth, -60 - canvas.text * 1.9, bay.depth, "clear depth", from_y=-60)
    canvas.upright(-60 - canvas.text * 1.4, 0, top, top, "height of the parts", from_x=-60)
    return canvas.drawing("section", title_block(design, f"Section through bay {bay.index + 1}", units, space, date))


def _drawer_section(design: Design, survey: Survey, things: tuple[Thing, ...], units: Units, space: str, bay: Bay,
                    date: str, text: float) -> Drawing:  # fmt: skip
    """A drawer cut through from back to front where it cuts trays on each other, or else the most of what lies in it, and
    what is left free over that.
    """
    section = survey.section(bay.section)
    one, clear = survey.only(section.id), float(bay.drawer.clear if bay.drawer is not None else bay.hang_depth)
    deep = one.least("depth") or float(bay.y + bay.depth)
    canvas = Canvas(text or text_height(one) * 0.7, units)
    names = {t.id: t for t in things}
    parts = [p for p in design.parts if p.bay == bay.index]
    inside = {p.id: lying(design, p, names) for p in parts if p.role in HOLDERS}
    pieces = [piece for some in inside.values() for piece in some]
    middles = [bay.x + bay.w / 2, *(p.x + p.w / 2 for p in pieces)]

    def cut_at(x: float) -> tuple[int, float]:
        """How many trays on others are cut there, and how much of what lies in the drawer."""
        lifted = sum(p.z > 0 and p.x <= x < p.x + p.w for p in parts)
        return lifted, sum((p.z + p.h) * p.d for p in pieces if p.x <= x < p.x + p.w)

    at = max(middles, key=cut_at)
    for x, y, w, h in ((-BOARD, -BOARD, deep + 2 * BOARD, BOARD), (-BOARD, 0, BOARD, clear), (deep, 0, BOARD, clear)):
        canvas.rect("wall", x, y, w, h, weight="medium", cut=True)
    canvas.line("note", (0, clear), (deep, clear), dashed=True)
    for part in parts:
        if part.x <= at < part.x + part.w or (part.role == "divider" and part.x < at < part.x + part.w):
            if part.role == "divider" and part.d > part.w:
                continue  # seen along its length it would hide what lies behind it
            stands = part.role == "divider" or isinstance(design.family_of(part), TraySet)
            canvas.rect("part", part.y, part.z, part.d, part.h, of=part.id, role=part.role,
                        weight="medium" if stands else "fine", dashed=not stands)  # fmt: skip
    highest = 0.0
    for of, some in inside.items():
        cut = [p for p in some if p.x <= at < p.x + p.w]
        for piece in cut:
            canvas.rect("content", piece.y, piece.z, piece.d, piece.h, of=piece.thing, weight="fine", hatch="drawers")
        if cut:
            back, low, top = min(p.y for p in cut), min(p.z for p in cut), max(p.z + p.h for p in cut)
            label = list(dict.fromkeys(names[p.thing].name for p in cut))
            canvas.label_in(back, low, max(p.y + p.d for p in cut) - back, top - low, label, of)
            highest = max(highest, top)
    step = canvas.text * 1.9
    canvas.across(bay.y, bay.y + bay.depth, -BOARD - step, bay.depth, "clear depth", from_y=-BOARD)
    canvas.upright(-BOARD - step * 0.8, 0, clear, clear, "clear height", from_x=-BOARD)
    if highest:
        canvas.upright(deep + BOARD + step * 0.8, 0, highest, highest, "what lies highest", from_x=deep + BOARD)
    canvas.note("note", 0, clear + canvas.text * 0.8, "back", caption=True, anchor="start")
    canvas.note("note", deep, clear + canvas.text * 0.8, "front", caption=True, anchor="end")
    shows = f"Section through {section.label}" if len(design.sections) > 1 else "Section through the drawer"
    return canvas.drawing("section", title_block(design, shows, units, space, date))
