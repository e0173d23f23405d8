"""It is not as drawn: what is found at the wall, and what that changes while something hangs already.

A stud that stands elsewhere and a wall that bows are readings: the survey is read anew. A hole that strayed and a part
that is cut anew are of the work: they go into what is said of it. The map and the times are then made again from both.
"""

from collections.abc import Collection
from datetime import date, timedelta
from typing import Literal

from ..base import Frozen
from ..errors import Refusal
from ..layout import Design
from ..survey import Reading, Survey
from ..systems import Part
from .choice import Again, InstallChoice, Strayed
from .holes import DrillingMap, Hole
from .levels import work

Way = Literal["", "left", "right", "up", "down", "out", "in"]
"""Where something strayed to; a wall's middle stands `out` into the room, or `in`."""
Verdict = Literal["use", "centre", "anew"]
"""Of a part that is short: as it is; half the gap at each end; it is cut or bought anew."""


class HolesChanged(Frozen):
    """The holes of a part that is not up yet: how many go elsewhere, how many get something else, how many are packed."""

    part: str
    elsewhere: int
    otherwise: int
    packed: int = 0


def stud_moved(survey: Survey, section: str, number: int, at: float, reading: Reading) -> tuple[Survey, float]:
    """A survey in which the `number`-th stud of a section, counted from the left, was read anew at `at` mm by `reading`,
    and where it was thought to be. Raises `Refusal` for a stud that was never read.
    """
    studs = sorted((r for r in survey.readings if r.what == "stud" and r.section == section), key=lambda r: r.value)
    if not 1 <= number <= len(studs):
        raise Refusal("install.no-stud", number=number, known=len(studs))
    old = studs[number - 1]
    kept = tuple(reading if r.id == old.id else r for r in survey.readings)
    return survey.model_copy(update={"readings": kept}), old.value


def wall_bows(survey: Survey, reading: Reading) -> Survey:
    """A survey in which a bow was read in the place of what was read of it before."""
    kept = [r for r in survey.readings if (r.section, r.what) != (reading.section, "bow")]
    return survey.model_copy(update={"readings": (*kept, reading)})


def hole_strayed(
    choice: InstallChoice, found: DrillingMap, number: int, off: float, way: Way
) -> tuple[Hole, InstallChoice]:
    """The hole a map calls `number`, and what is said of the work with where it was drilled instead, `off` mm to one side.
    Within the play of its screw nothing is changed. Raises `Refusal` for a hole that is not on the map or goes nowhere.
    """
    hole = next((h for h in found.holes if h.number == number), None)
    if hole is None or hole.surface != "back":
        raise Refusal("install.no-hole", number=number, known=len(found.holes))
    if way not in ("left", "right", "up", "down"):
        raise Refusal("install.no-way")
    if off <= work("stray_play"):
        return hole, choice
    across, up = {"left": (-off, 0.0), "right": (off, 0.0), "up": (0.0, off), "down": (0.0, -off)}[way]
    there = Strayed(section=found.section, along=hole.along + across, height=hole.height + up)
    return hole, choice.model_copy(update={"strayed": (*choice.strayed, there)})


def short_part(design: Design, part: Part, by: float) -> tuple[Verdict, float]:
    """What becomes of a part that is `by` mm shorter than drawn, and on how much each of its ends then lies, mm.

    It is used as it is within `short_play`; laid in the middle where each end keeps `bearing` on the cleats or brackets
    under it; cut or bought anew otherwise, and wherever its ends lie on nothing that is a part of its own.
    """
    if by <= work("short_play"):
        return "use", 0.0
    # What runs along the back carries no end.
    under = [p for p in design.parts if p.belongs_to == part.id and p.role != "container" and p.w <= p.d]
    if len(under) < 2:
        return "anew", 0.0
    x0, x1 = part.x + by / 2, part.x + part.w - by / 2
    first, last = min(under, key=lambda p: p.x), max(under, key=lambda p: p.x + p.w)
    bears = min(first.x + first.w - max(first.x, x0), min(last.x + last.w, x1) - last.x)
    return ("centre", bears) if bears >= work("bearing") else ("anew", 0.0)


def cut_anew(choice: InstallChoice, part: str, today: date, there: date | None) -> InstallChoice:
    """What is said of the work, with a part that is there again on a day: the usual days from today, unless it is said."""
    on = there or today + timedelta(days=int(work("anew")))
    rest = tuple(a for a in choice.again if a.part != part)
    return choice.model_copy(update={"again": (*rest, Again(part=part, there=on))})


def holes_changed(before: DrillingMap, after: DrillingMap, up: Collection[str]) -> tuple[HolesChanged, ...]:
    """What is otherwise on a new map of a wall, part by part; what is `up` already hangs as it was drilled."""
    found = []
    for part in dict.fromkeys(h.part for h in (*before.holes, *after.holes)):
        if part in up:
            continue
        was, now = ([_as_drilled(h) for h in one.holes if h.part == part] for one in (before, after))
        places = {row[:3] for row in was}
        elsewhere = sum(row[:3] not in places for row in now)
        packings = {row[:3]: row[4] for row in was}
        packed = sum(row[4] > 0 and packings.get(row[:3]) != row[4] for row in now)
        otherwise = sum(row not in was and row[:3] in places and packings[row[:3]] == row[4] for row in now)
        if elsewhere or otherwise or packed or len(was) != len(now):
            found.append(HolesChanged(part=part, elsewhere=elsewhere, otherwise=otherwise, packed=packed))
    return tuple(found)


def _as_drilled(hole: Hole) -> tuple[str, float, float, str, float]:
    return hole.surface, round(hole.along, 1), hole.height, hole.into, round(hole.packing, 1)
