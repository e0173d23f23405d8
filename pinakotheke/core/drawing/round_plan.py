"""The walls of a room laid out round its plan: each folded down outward from where it stands, its floor at the plan, as
drafting has it for the inside of a room (a developed surface drawing; common practice).
"""

from collections.abc import Callable
from typing import Literal

from ..inventory import Thing
from ..layout import Design
from ..survey import Survey
from ..survey.square import Frame
from ..units import Units
from .canvas import Canvas
from .models import Drawing, Point
from .of_design import Inside, parts_above, section_front, title_block
from .of_survey import plan_text
from .walls import WALL, down, plan_walls, reach_in_walls

FROM_PLAN = 2 * WALL + 120
"""Between the plan and what is laid round it, mm."""
SQUARE = 1e-6
"""Degrees off a right angle that are none."""


def design_round(design: Design, survey: Survey, things: tuple[Thing, ...], units: Units, space: str, date: str = "",
                 *, inside: Inside = "hatch", doors: Literal["open", "shut"] = "open") -> Drawing:  # fmt: skip
    """The plan with every wall that is fitted folded down outward from its place. Words stay upright; there are no sizes,
    which each wall has when it is shown by itself.
    """
    names = {t.id: t for t in things}
    canvas = Canvas(plan_text(survey), units)
    placed = plan_walls(canvas, survey)
    if not survey.is_open_fronted:
        one = survey.only()
        reach_in_walls(canvas, survey, one.least("width") or placed[0].length, max(one.values("depth"), default=600.0))
    parts_above(canvas, design, {f.section: f for f in placed}, doors)
    for frame in placed:
        if frame.section not in design.sections:
            continue
        wall, section = Canvas(canvas.text, units), survey.section(frame.section)
        width, height = section_front(wall, design, survey, section, names, inside=inside, doors=doors)
        wall.note("note", width / 2, height + canvas.text * 1.6, section.label, caption=True)
        off = abs(frame.turn) % 90
        canvas.take_turned(wall, _folded(frame), min(off, 90 - off) < SQUARE)
    return canvas.drawing("elevation", title_block(design, "Walls round the plan", units, space, date))


def _folded(frame: Frame) -> Callable[[Point], Point]:
    """Where a point of a wall (along, up) lies when the wall is folded down outward."""
    return lambda point: down(frame.to_plan(point[0], -FROM_PLAN - point[1]))
