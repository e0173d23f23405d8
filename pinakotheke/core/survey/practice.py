"""Practice: a hidden true room, the readings it would give, and what a person's readings of it would have cost.

The room is a reach-in closet made from a seed: a quadrilateral plan with its own corner angles, walls that lean, a
floor that falls. Every true value follows from that one geometry, so true diagonals and widths agree exactly.
"""

from math import cos, hypot, radians, sin
from random import Random
from typing import Literal

from ..base import Frozen
from ..errors import SpaceTooSmall, SurveyIncomplete
from ..house import HouseRules
from .envelope import LEVEL_AT, envelope
from .level import level_base
from .models import Door, Obstacle, Reading, Survey
from .slots import Slot, add_readings, slots

Difficulty = Literal["gentle", "usual", "awkward"]

_OUT: dict[Difficulty, tuple[float, float, float]] = {
    "gentle": (0.3, 3, 4),
    "usual": (0.8, 6, 10),
    "awkward": (1.8, 12, 24),
}
"""How far a room may be out: degrees at a corner, mm of lean, mm of fall over its length. This project's own."""


class TrueRoom(Frozen):
    """The truth about a practice room, mm and degrees."""

    width: float
    depth: float
    height: float
    left_angle: float
    right_angle: float
    narrows: float
    """By how much the width is less under the ceiling than at the floor."""
    ceiling_falls: float
    floor_falls: float
    plumb_back: float
    opening_width: float
    opening_height: float
    left_return: float
    skirting: tuple[float, float]
    studs: tuple[float, ...]
    obstacles: tuple[Obstacle, ...]


def true_room(seed: int, difficulty: Difficulty) -> TrueRoom:
    """The room of a seed; the same seed and difficulty give the same room."""
    rng = Random(f"{seed}:{difficulty}")
    degrees, lean, fall = _OUT[difficulty]
    width = rng.uniform(1300, 2600)
    left = rng.uniform(120, width * 0.22)
    first = rng.uniform(90, 380)
    spacing = rng.choice((400, 600))
    studs = tuple(round(first + n * spacing + rng.uniform(-6, 6)) for n in range(int((width - first) // spacing) + 1))
    obstacles = [Obstacle(id="true-socket", kind="socket", x=round(rng.uniform(200, width - 300)), z=300, width=80,
                          height=80, projection=12, access=150)]  # fmt: skip
    if difficulty != "gentle":
        obstacles.append(Obstacle(id="true-pipe", kind="pipe", x=round(rng.choice((30.0, width - 110))), z=0, width=70,
                                  height=2300, projection=75))  # fmt: skip
    return TrueRoom(
        width=width,
        depth=rng.uniform(560, 760),
        height=rng.uniform(2300, 2650),
        left_angle=90 + rng.uniform(-degrees, degrees),
        right_angle=90 + rng.uniform(-degrees, degrees),
        narrows=rng.uniform(-lean, lean),
        ceiling_falls=rng.uniform(0, lean),
        floor_falls=rng.uniform(fall * 0.4, fall),
        plumb_back=rng.uniform(-lean, lean) / 2,
        opening_width=width - left - rng.uniform(120, width * 0.22),
        opening_height=rng.uniform(1980, 2060),
        left_return=left,
        skirting=(rng.choice((70.0, 90.0, 120.0)), rng.choice((12.0, 15.0, 18.0))),
        studs=studs,
        obstacles=tuple(obstacles),
    )


def truth(room: TrueRoom, slot: Slot) -> float | None:
    """What an instrument without error would read at a slot; None for what the room has none of."""
    share = LEVEL_AT.get(slot.level or "middle", 0.5)
    width = room.width - room.narrows * share
    left_front = (room.depth * cos(radians(room.left_angle)), room.depth * sin(radians(room.left_angle)))
    right_front = (width - room.depth * cos(radians(room.right_angle)), room.depth * sin(radians(room.right_angle)))
    low = room.width - room.narrows * LEVEL_AT["low"]
    low_front = (low - room.depth * cos(radians(room.right_angle)), right_front[1])
    values: dict[str, float | None] = {
        "width": right_front[0] - left_front[0] if slot.face == "front" else width,
        "height": room.height
        - room.ceiling_falls * {"left": 0.0, "middle": 0.5, "right": 1.0}.get(slot.side or "", 0.5),
        "depth": room.depth,
        "diagonal": hypot(*low_front) if slot.side == "left" else hypot(low - left_front[0], left_front[1]),
        "opening width": room.opening_width,
        "opening height": room.opening_height,
        "left return": room.left_return,
        "right return": right_front[0] - left_front[0] - room.left_return - room.opening_width,
        "skirting height": room.skirting[0],
        "skirting thickness": room.skirting[1],
        "fall": room.floor_falls * (slot.at or 0) / room.width,
        "plumb": room.plumb_back if slot.side == "middle" else max(room.narrows, 0.0) / 2,
        "bow": 0.0,
    }
    return values.get(slot.what)


def true_survey(room: TrueRoom) -> Survey:
    """The room read without error at every place."""
    low = room.width - room.narrows * LEVEL_AT["low"]
    survey = Survey(door=Door(kind="sliding"), obstacles=room.obstacles)
    survey = add_readings(survey, (Reading(id="w", what="width", level="low", face="back", value=low),
                                   Reading(id="o", what="opening width", value=room.opening_width)))  # fmt: skip
    rows = []
    for n, slot in enumerate(slots(survey)):
        value = truth(room, slot)
        if value is not None and not (value == 0 and slot.what not in ("fall", "plumb", "bow")):
            rows.append(Reading(id=f"t{n}", value=value, what=slot.what, level=slot.level, face=slot.face,
                                side=slot.side, at=slot.at))  # fmt: skip
    rows += [Reading(id=f"s{n}", what="stud", value=stud) for n, stud in enumerate(room.studs)]
    return survey.model_copy(update={"readings": tuple(rows)})


class Miss(Frozen):
    """A reading that is off the truth, or a place never read that mattered. `off` in mm, + reads too long."""

    label: str
    read: float | None
    true: float
    off: float


class Review(Frozen):
    """What a person's readings would have led to in the true room."""

    score: int
    """Share of needed places read within the agreement of repeats, in per cent."""
    misses: tuple[Miss, ...]
    unread: tuple[str, ...]
    overlooked: tuple[str, ...]
    """Obstacles that were never called out."""
    too_wide: float
    """By how much the widest full-height part planned from the readings is wider than what fits, mm; 0 or less fits."""
    wasted: float
    unlevel: float
    """How far the run is out over its length while no level was read, mm; 0 when it was read."""
    plan: str


WITHIN = 3.0
"""Repeat readings agree within 3 mm (1/8 in); common practice."""


def review(room: TrueRoom, survey: Survey, rules: HouseRules) -> Review:
    """Compare what was read with the truth, and follow it to the part that does or does not fit."""
    misses, unread, good, needed = [], [], 0, 0
    for slot in slots(survey):
        value = truth(room, slot)
        if value is None or not (slot.needed or slot.what in ("fall", "diagonal")):
            continue
        read = [r.value for r in survey.readings if slot.filled_by(r)]
        needed += slot.needed
        if not read:
            unread.append(slot.label)
            continue
        ruling = min(read)
        if abs(ruling - value) > WITHIN:
            misses.append(Miss(label=slot.label, read=ruling, true=value, off=ruling - value))
        elif slot.needed:
            good += 1
    seen = {o.kind for o in survey.obstacles}
    overlooked = tuple(o.name for o in room.obstacles if o.kind not in seen)
    right = envelope(true_survey(room), rules)
    too_wide, wasted, plan = 0.0, 0.0, "no part can be planned from these readings yet"
    try:
        mine = envelope(survey, rules)
    except (SurveyIncomplete, SpaceTooSmall):
        pass
    else:
        planned, clear = mine.x_to - mine.x_from, right.x_to - right.x_from + 2 * right.allowance
        too_wide = max(planned - clear, 0.0)
        wasted = max((right.x_to - right.x_from) - planned, 0.0)
        plan = (f"a part {planned} mm wide does not pass: {clear:.0f} mm are clear" if too_wide
                else f"a part {planned} mm wide fits")  # fmt: skip
    base = level_base(true_survey(room))
    unlevel = base.out_by if base and level_base(survey) is None else 0.0
    return Review(score=round(100 * good / needed) if needed else 0, misses=tuple(misses), unread=tuple(unread),
                  overlooked=overlooked, too_wide=too_wide, wasted=wasted, unlevel=unlevel, plan=plan)  # fmt: skip
