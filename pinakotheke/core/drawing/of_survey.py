"""A survey as an elevation of the back wall and as a plan; its dimension lines are the form to fill."""

from ..lengths import Units
from ..survey import Survey
from ..survey.envelope import LEVEL_AT
from ..survey.models import Level, Side
from ..survey.slots import doubts
from .canvas import Canvas
from .models import DimensionState, Drawing, SlotRef, TitleBlock

NOMINAL = {"width": 1800.0, "height": 2400.0, "depth": 600.0, "return": 300.0, "head": 2030.0}
"""Sizes drawn for what has not been read, mm."""
WALL = 60.0
"""Thickness a wall is drawn with, mm."""
TEXTS_HIGH, TEXTS_HIGH_PLAN = 32, 22
"""Text height is the drawing's height over this, so that it reads at the same size whatever the space; a plan hangs
smaller than the elevation beside it."""


def text_height(survey: Survey, share: float = TEXTS_HIGH) -> float:
    """Height of text in mm for both drawings of a space."""
    height = survey.least("height") or NOMINAL["height"]
    width = survey.least("width") or NOMINAL["width"]
    return max(height, width * 0.9) / share


def _title(space: str, shows: str, units: Units, date: str) -> TitleBlock:
    return TitleBlock(space=space, shows=shows, scale="1:20", units="mm" if units == "metric" else "inches",
                      date=date, sheet="M1")  # fmt: skip


class _Sheet(Canvas):
    """A canvas that knows which readings are there, and which are doubted."""

    def __init__(self, survey: Survey, units: Units, text: float) -> None:
        super().__init__(text, units)
        self.survey = survey
        self.doubted = {
            r.place for d in doubts(survey) for r in survey.readings if r.id in d.readings and d.code != "sum"
        }

    def read(self, slot: SlotRef) -> tuple[float | None, DimensionState]:
        """The ruling (least) value at a slot and how it stands."""
        place = (slot.what, slot.level, slot.face, slot.side)
        found = [r.value for r in self.survey.readings if r.place == place]
        if not found:
            return None, "missing"
        return min(found), "doubted" if place in self.doubted else "read"


def survey_elevation(survey: Survey, units: Units, space: str, date: str = "", text: float = 0) -> Drawing:
    """The back wall from the front: widths at three heights, heights at three places, obstacles, studs, skirting."""
    size = text or text_height(survey)
    sheet = _Sheet(survey, units, size)
    width = survey.least("width") or NOMINAL["width"]
    height = max(survey.values("height"), default=NOMINAL["height"])
    shell(sheet, survey, width, height)
    sides: tuple[tuple[Side, float], ...] = (("left", 0.07), ("middle", 0.66), ("right", 0.95))
    for side, share in sides:
        slot = SlotRef(what="height", side=side)
        value, state = sheet.read(slot)
        at = max(width * share, size * 1.4)  # its text stays off the wall in a narrow space
        sheet.upright(at, 0, height, value, f"height, {side}", at=0.74, state=state, slot=slot)
    levels: tuple[Level, ...] = ("low", "middle", "high")
    for level in levels:
        slot = SlotRef(what="width", level=level, face="back")
        value, state = sheet.read(slot)
        z = _clear_of_skirting(survey, LEVEL_AT[level] * height, size)
        sheet.across(0, width, z, value, f"width, {level}, at the back", at=0.36, state=state, slot=slot)
    opening(sheet, survey, width, height)
    if survey.door.kind != "none" or survey.values("opening width"):
        _opening_height(sheet, width)
    return sheet.drawing("elevation", _title(space, "Elevation as measured", units, date))


def _opening_height(sheet: _Sheet, width: float) -> None:
    left = sheet.survey.least("left return") or NOMINAL["return"]
    clear = sheet.survey.least("opening width") or width - 2 * left
    slot = SlotRef(what="opening height")
    value, state = sheet.read(slot)
    head = value or NOMINAL["head"]
    sheet.upright(left + clear * 0.2, 0, head, value, "opening, height", at=0.3, state=state, slot=slot)


def _clear_of_skirting(survey: Survey, z: float, size: float) -> float:
    skirting = max(survey.values("skirting height"), default=0)
    return max(z, skirting + size * 0.8)


def shell(sheet: Canvas, survey: Survey, width: float, height: float) -> None:
    """Walls, floor and ceiling in section, skirting, studs and obstacles."""
    sheet.rect("wall", -WALL, -WALL, width + 2 * WALL, WALL, weight="heavy", cut=True)
    sheet.rect("wall", -WALL, height, width + 2 * WALL, WALL, weight="heavy", cut=True)
    sheet.rect("wall", -WALL, 0, WALL, height, weight="heavy", cut=True)
    sheet.rect("wall", width, 0, WALL, height, weight="heavy", cut=True)
    skirting = max(survey.values("skirting height"), default=0)
    if skirting and survey.skirting != "remove":
        sheet.line("wall", (0, skirting), (width, skirting))
    for stud in survey.studs:
        if stud < width:
            sheet.line("stud", (stud, 0), (stud, height), of="stud", dashed=True)
    for o in survey.obstacles:
        sheet.rect("obstacle", o.x, o.z, o.width, o.height, of=o.id, weight="medium")
        sheet.line("obstacle", (o.x, o.z), (o.x + o.width, o.z + o.height), of=o.id)
        if o.keep_out or o.access:
            out = o.keep_out
            sheet.rect("access", o.x - out, o.z - out, o.width + 2 * out, o.height + 2 * out, of=o.id, weight="fine",
                       dashed=True)  # fmt: skip
        above = o.z + o.height + o.keep_out + sheet.text * 0.3
        at = above if above + sheet.text < height else o.z - o.keep_out - sheet.text
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


def survey_plan(survey: Survey, units: Units, space: str, date: str = "", text: float = 0) -> Drawing:
    """Seen from above, the back wall at the top: depths, returns, opening and door."""
    size = text or text_height(survey, TEXTS_HIGH_PLAN)
    sheet = _Sheet(survey, units, size)
    width = survey.least("width") or NOMINAL["width"]
    depth = max(survey.values("depth"), default=NOMINAL["depth"])
    room = plan_shell(sheet, survey, width, depth)
    for side, share in (("left", 0.12), ("right", 0.9)):
        slot = SlotRef.model_validate({"what": "depth", "side": side})
        value, state = sheet.read(slot)
        sheet.upright(width * share, -depth, 0, value, f"depth, {side}", state=state, slot=slot)
    slot = SlotRef(what="width", level="middle", face="front")
    value, state = sheet.read(slot)
    sheet.across(0, width, -depth + size * 0.8, value, "width, middle, at the front", at=0.5, state=state, slot=slot)
    if survey.door.kind != "none" or survey.values("opening width"):
        _returns_and_opening(sheet, width, room)
    return sheet.drawing("plan", _title(space, "Plan as measured", units, date))


def _returns_and_opening(sheet: _Sheet, width: float, room: tuple[float, float, float]) -> None:
    left, right, front = room
    y = front - sheet.text * 1.9
    for what, x0, x1 in (("left return", 0.0, left), ("opening width", left, right), ("right return", right, width)):
        slot = SlotRef.model_validate({"what": what})
        value, state = sheet.read(slot)
        sheet.across(x0, x1, y, value, what.replace(" width", ", width"), state=state, slot=slot, from_y=front)


def plan_shell(sheet: Canvas, survey: Survey, width: float, depth: float) -> tuple[float, float, float]:
    """Walls, returns, door and obstacles from above; returns opening left, opening right, and the outer face's y."""
    left = survey.least("left return")
    clear = survey.least("opening width")
    left = NOMINAL["return"] if left is None and survey.door.kind != "none" else left or 0.0
    right = min(left + clear, width) if clear else width - (survey.least("right return") or left)
    front = -depth - WALL
    sheet.rect("wall", -WALL, 0, width + 2 * WALL, WALL, weight="heavy", cut=True)
    sheet.rect("wall", -WALL, front, WALL, depth + WALL, weight="heavy", cut=True)
    sheet.rect("wall", width, front, WALL, depth + WALL, weight="heavy", cut=True)
    if left > 0:
        sheet.rect("wall", 0, front, left, WALL, weight="heavy", cut=True)
    if right < width:
        sheet.rect("wall", right, front, width - right, WALL, weight="heavy", cut=True)
    _door(sheet, survey, left, right, front)
    for stud in survey.studs:
        if stud < width:
            sheet.line("stud", (stud, 0), (stud, WALL), of="stud")
    for o in survey.obstacles:
        if o.z < 2100:
            sheet.rect("obstacle", o.x, -o.projection, o.width, o.projection, of=o.id)
            if o.access > o.projection:
                reach = min(o.access, depth)
                sheet.rect("access", o.x, -reach, o.width, reach, of=o.id, weight="fine", dashed=True)
    return left, right, front


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
    last = sheet.lines[-1].points[-1]
    sheet.line("opening", (hinge, front + WALL / 2), last, of="door", weight="medium")
