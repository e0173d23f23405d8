"""Walls, floors, ceilings and what stands at them, as seen from the front and from above."""

from collections.abc import Iterable
from math import cos, radians, sin

from ..survey import Obstacle, Section, Survey
from ..survey.closed import ceiling_points
from ..survey.square import Frame, fitted_depth, frames, outline
from .canvas import Canvas
from .models import Point

NOMINAL = {"width": 1800.0, "height": 2400.0, "depth": 600.0, "return": 300.0, "head": 2030.0}
"""Sizes drawn for what has not been read, mm."""
WALL = 60.0
"""Thickness a wall is drawn with, mm."""
EYE_CUT = 2100.0
"""A plan shows what stands lower than this, mm."""


def run_sizes(survey: Survey, section: Section) -> tuple[float, float]:
    """Width and height to draw a run with, nominal where nothing was read."""
    one = survey.only(section.id)
    sloped = [h for _, h in ceiling_points(survey, section)] if section.slope != "none" else []
    height = max([*one.values("height"), *sloped], default=NOMINAL["height"])
    return one.least("width") or NOMINAL["width"], height


def shell(sheet: Canvas, survey: Survey, section: Section) -> tuple[float, float]:
    """A run from the front: walls, floor and ceiling in section, skirting, studs and obstacles. Returns its sizes."""
    one = survey.only(section.id)
    width, height = run_sizes(survey, section)
    sheet.rect("wall", -WALL, -WALL, width + 2 * WALL, WALL, weight="heavy", cut=True)
    left_top, right_top = _ceiling(sheet, survey, section, width, height)
    for x, top, has in ((-WALL, left_top, section.left == "wall"), (width, right_top, section.right == "wall")):
        if has:
            sheet.rect("wall", x, 0, WALL, top, weight="heavy", cut=True)
        else:
            edge = x + WALL if x < 0 else x
            sheet.line("wall", (edge, 0), (edge, top), dashed=True)
    skirting = max(one.values("skirting height"), default=0)
    if skirting and survey.skirting != "remove":
        sheet.line("wall", (0, skirting), (width, skirting))
    for stud in one.studs:
        if stud < width:
            sheet.line("stud", (stud, 0), (stud, height), of="stud", dashed=True)
    _corner_zones(sheet, survey, section, width, height)
    for o in one.obstacles:
        obstacle_front(sheet, o, height)
    return width, height


def _ceiling(sheet: Canvas, survey: Survey, section: Section, width: float, height: float) -> tuple[float, float]:
    """The ceiling, level or sloping; returns its height at the left and at the right end."""
    points = ceiling_points(survey, section)
    if section.slope == "along" and points:
        line = [(0.0, points[0][1]), *((p, h) for p, h in points if 0 < p < width), (width, points[-1][1])]
        above = [(x, h + WALL) for x, h in reversed(line)]
        sheet.face("wall", *line, *above, weight="heavy", cut=True)
        return line[0][1], line[-1][1]
    sheet.rect("wall", -WALL, height, width + 2 * WALL, WALL, weight="heavy", cut=True)
    if section.slope == "toward back" and points:
        knee = points[0][1]
        sheet.line("wall", (0, knee), (width, knee), weight="medium")
        sheet.note("note", width / 2, knee + sheet.text * 0.3, "the ceiling rises toward the room", halo=True)
    return height, height


def _corner_zones(sheet: Canvas, survey: Survey, section: Section, width: float, height: float) -> None:
    """What a neighbouring run takes of this wall where they meet."""
    runs = survey.runs
    if section not in runs:
        return
    at = runs.index(section)
    before = runs[at - 1] if at else None
    after = runs[at + 1] if at + 1 < len(runs) else None
    if before and before.corner == "mine":
        deep = fitted_depth(survey, before.id) or 0
        sheet.rect("access", 0, 0, min(deep, width), height, of="corner", weight="fine", dashed=True)
    if after and section.corner == "theirs":
        deep = min(fitted_depth(survey, after.id) or 0, width)
        sheet.rect("access", width - deep, 0, deep, height, of="corner", weight="fine", dashed=True)


def obstacle_front(sheet: Canvas, o: Obstacle, height: float) -> None:
    """An obstacle from the front: its box crossed, its margin dashed, its name above."""
    sheet.rect("obstacle", o.x, o.z, o.width, o.height, of=o.id, weight="medium")
    sheet.line("obstacle", (o.x, o.z), (o.x + o.width, o.z + o.height), of=o.id)
    if o.keep_out or o.access:
        out = o.keep_out
        sheet.rect("access", o.x - out, max(o.z - out, 0), o.width + 2 * out, o.height + out + min(out, o.z), of=o.id,
                   weight="fine", dashed=True)  # fmt: skip
    above = o.z + o.height + sheet.text * 0.3
    at = above if above + sheet.text < height else o.z - sheet.text * 1.1
    sheet.note("note", o.x + o.width / 2, at, o.name, of=o.id, halo=True)


def opening(sheet: Canvas, survey: Survey, width: float, height: float) -> None:
    """The opening seen through: its outline dashed, with the head's height."""
    left = survey.least("left return")
    clear = survey.least("opening width")
    head = survey.least("opening height")
    if left is None or clear is None:
        return
    sheet.rect("opening", left, 0, min(clear, width - left), min(head or height, height), of="opening", weight="fine",
               dashed=True)  # fmt: skip


# -- from above: y runs out from the main wall, so it is drawn downward --


def down(point: Point) -> Point:
    """A point of the plan on the paper: the main wall at the top, the room below it."""
    return (point[0], -point[1])


def plan_walls(sheet: Canvas, survey: Survey) -> tuple[Frame, ...]:
    """The walls of every run, what stands at them, the depth kept for storage, the car. Returns the runs' frames."""
    placed = frames(survey)
    for frame in placed:
        section = survey.section(frame.section)
        strip = [(0.0, 0.0), (frame.length, 0.0), (frame.length, -WALL), (0.0, -WALL)]
        sheet.face("wall", *_on_paper(frame, strip), weight="heavy", cut=True)
        deep = fitted_depth(survey, section.id)
        if deep and survey.is_open_fronted:
            edge = _on_paper(frame, [(0.0, deep), (frame.length, deep)])
            sheet.line("access", *edge, dashed=True)
        for stud in survey.values("stud", section=section.id):
            if stud < frame.length:
                sheet.line("stud", *_on_paper(frame, [(stud, 0.0), (stud, -WALL)]), of="stud")
        for o in survey.obstacles:
            if o.section == section.id and o.z < EYE_CUT:
                _obstacle_above(sheet, frame, o, deep or NOMINAL["depth"])
    if placed and survey.is_open_fronted:
        _free_ends(sheet, survey, placed)
    if survey.car and placed:
        car, main = survey.car, next(f for f in placed if f.section == survey.main.id)
        for grow, dashed in ((0.0, False), (car.doors, True)):
            box = [(car.x - grow, car.gap), (car.x + car.width + grow, car.gap),
                   (car.x + car.width + grow, car.gap + car.length), (car.x - grow, car.gap + car.length)]  # fmt: skip
            sheet.face("access" if dashed else "obstacle", *_on_paper(main, box), of="car", dashed=dashed)
        middle = down(main.to_plan(car.x + car.width / 2, car.gap + car.length / 2))
        sheet.note("note", *middle, "car", of="car", halo=True)
    return placed


def _on_paper(frame: Frame, points: Iterable[Point]) -> list[Point]:
    return [down(frame.to_plan(x, y)) for x, y in points]


def _free_ends(sheet: Canvas, survey: Survey, placed: tuple[Frame, ...]) -> None:
    """Side walls at the ends of the first and the last run, as deep as storage goes."""
    for frame, x, side, way in ((placed[0], 0.0, "left", -WALL), (placed[-1], placed[-1].length, "right", WALL)):
        section = survey.section(frame.section)
        if getattr(section, side) == "wall":
            deep = (fitted_depth(survey, section.id) or NOMINAL["depth"]) * 1.15
            strip = [(x, -WALL), (x, deep), (x + way, deep), (x + way, -WALL)]
            sheet.face("wall", *_on_paper(frame, strip), weight="heavy", cut=True)


def _obstacle_above(sheet: Canvas, frame: Frame, o: Obstacle, deep: float) -> None:
    box = [(o.x, o.y), (o.x + o.width, o.y), (o.x + o.width, o.y + o.projection), (o.x, o.y + o.projection)]
    sheet.face("obstacle", *_on_paper(frame, box), of=o.id)
    if o.access > o.projection:
        reach = min(o.y + o.access, max(deep, o.y + o.projection))
        zone = [(o.x, o.y), (o.x + o.width, o.y), (o.x + o.width, reach), (o.x, reach)]
        sheet.face("access", *_on_paper(frame, zone), of=o.id, weight="fine", dashed=True)


def reach_in_walls(sheet: Canvas, survey: Survey, width: float, depth: float) -> tuple[float, float, float]:
    """Side walls, returns and door of a space one reaches into; the sides stand at the angles that were read.

    Returns the opening's left and right edge, and the outer face's y on the paper.
    """
    front_left, _, _, front_right = outline(survey)
    for corner, foot, way in (((0.0, 0.0), front_left, -WALL), ((width, 0.0), front_right, WALL)):
        far = _stretched(corner, foot, depth + WALL)
        strip = [corner, far, (far[0] + way, far[1]), (corner[0] + way, -WALL), (corner[0], -WALL)]
        sheet.face("wall", *(down(p) for p in strip), weight="heavy", cut=True)
    if not survey.has_opening:
        return 0.0, width, -depth
    left = survey.least("left return")
    clear = survey.least("opening width")
    left = NOMINAL["return"] if left is None and survey.door.kind != "none" else left or 0.0
    right = min(left + clear, width) if clear else width - (survey.least("right return") or left)
    front = -depth - WALL
    if left > 0:
        sheet.rect("wall", 0, front, left, WALL, weight="heavy", cut=True)
    if right < width:
        sheet.rect("wall", right, front, width - right, WALL, weight="heavy", cut=True)
    _door(sheet, survey, left, right, front)
    return left, right, front


def _stretched(a: Point, b: Point, depth: float) -> Point:
    """The point on the line a→b that lies `depth` out from the wall."""
    share = depth / b[1] if b[1] else 1.0
    return (a[0] + (b[0] - a[0]) * share, depth)


def _door(sheet: Canvas, survey: Survey, left: float, right: float, front: float) -> None:
    door = survey.door
    leaf = right - left
    turn = -1 if door.swings == "out" else 1
    if door.kind == "hinged":
        hinge, free = (left, right) if door.hinge == "left" else (right, left)
        _leaf(sheet, hinge, 1 if free > hinge else -1, leaf, front, turn)
    elif door.kind == "double hinged":
        _leaf(sheet, left, 1, leaf / 2, front, turn)
        _leaf(sheet, right, -1, leaf / 2, front, turn)
    elif door.kind == "sliding":
        sheet.rect("opening", left, front + 8, leaf * 0.53, 18, of="door", weight="fine")
        sheet.rect("opening", right - leaf * 0.53, front + 32, leaf * 0.53, 18, of="door", weight="fine")
    elif door.kind == "curtain":
        points = tuple((left + leaf * n / 16, front + WALL / 2 + (14 if n % 2 else -14)) for n in range(17))
        sheet.line("opening", *points, of="door")


LEAF_OPENED = 28.0
"""Degrees a door leaf is drawn opened, so that the swing does not fill the sheet; the arc says the sense."""


def _leaf(sheet: Canvas, hinge: float, way: int, leaf: float, front: float, turn: int) -> None:
    start = 0.0 if way > 0 else 180.0
    end = start + turn * way * LEAF_OPENED
    sheet.arc("opening", (hinge, front + WALL / 2), leaf, start, end, of="door")
    tip = (hinge + leaf * cos(radians(end)), front + WALL / 2 + leaf * sin(radians(end)))
    sheet.line("opening", (hinge, front + WALL / 2), tip, of="door", weight="medium")
