"""Where readings belong in a reach-in space, which are missing, and which are doubted."""

from collections import defaultdict
from itertools import pairwise
from typing import Literal

from ..base import Frozen, Why
from ..lengths import Units, with_unit
from ..tables import Entry, entry
from .models import Face, Level, Reading, Side, Survey, What


class Slot(Frozen):
    """A place for a reading; `needed` when no design can be called proven without it."""

    what: What
    level: Level | None = None
    face: Face | None = None
    side: Side | None = None
    label: str
    how: str
    needed: bool = True

    @property
    def place(self) -> tuple[str | None, ...]:
        """As `Reading.place`."""
        return (self.what, self.level, self.face, self.side)


class Doubt(Frozen):
    """Readings that contradict each other: `subject` was read as `one` and as `other`, both in mm."""

    code: Literal["repeat", "neighbour", "sum"]
    readings: tuple[str, ...]
    subject: str
    one: float
    other: float
    why: Why

    def sentence(self, units: Units) -> str:
        """The doubt in words, and the mend."""
        one, other = with_unit(self.one, units), with_unit(self.other, units)
        apart = with_unit(abs(self.one - self.other), units)
        return {
            "repeat": f"{self.subject} was read as {one} and {other}, {apart} apart: read it once more.",
            "neighbour": f"{self.subject} reads {one} here and {other} there, {apart} apart: one may be misread.",
            "sum": f"{self.subject} add up to {one}, the width is {other}: one of them may be misread.",
        }[self.code]


_ACROSS: tuple[What, ...] = ("left return", "opening width", "right return")
_WALL = "Tape hook against one wall, read into the other corner; do not bend the tape."


def slots(survey: Survey) -> tuple[Slot, ...]:
    """The readings a reach-in space wants, in the order a person with a tape takes them."""
    back = tuple(
        Slot(what="width", level=level, face="back", label=f"width, {level}, at the back", how=f"{_WALL} {where}")
        for level, where in (
            ("low", "About 100 mm above the skirting."),
            ("middle", "At half height."),
            ("high", "About 100 mm under the ceiling."),
        )
    )
    front = tuple(
        Slot(what="width", level=level, face="front", label=f"width, {level}, at the front", how=_WALL, needed=False)
        for level in ("low", "middle", "high")
    )
    heights = tuple(
        Slot(what="height", side=side, label=f"height, {side}", how="Floor to ceiling at the back wall, tape upright.")
        for side in ("left", "middle", "right")
    )
    depths = tuple(
        Slot(what="depth", side=side, label=f"depth, {side}", how="Back wall to the inner face of the return or door.")
        for side in ("left", "right")
    )
    has_opening = survey.door.kind != "none" or bool(survey.values("opening width"))
    opening = (
        Slot(what="opening width", label="opening, width", how="Clear between the linings, least of three heights."),
        Slot(what="opening height", label="opening, height", how="Floor to the underside of the head."),
        Slot(what="left return", label="left return", how="Left wall inside to the edge of the opening."),
        Slot(what="right return", label="right return", how="Edge of the opening to the right wall inside."),
    )
    skirting = (
        Slot(what="skirting height", label="skirting, height", how="0 is not read: say no skirting.", needed=False),
        Slot(what="skirting thickness", label="skirting, thickness", how="At its thickest, the foot.", needed=False),
        Slot(what="stud", label="a stud", how="Centre of a stud, from the left wall inside.", needed=False),
    )
    return back + heights + depths + (opening if has_opening else ()) + front + skirting


def missing(survey: Survey) -> tuple[Slot, ...]:
    """Slots without a reading: needed ones first, each in the order of taking. The first is the next reading."""
    read = {r.place for r in survey.readings}
    empty = [s for s in slots(survey) if s.place not in read]
    return tuple(sorted(empty, key=lambda s: not s.needed))


def doubts(survey: Survey) -> tuple[Doubt, ...]:
    """Readings that contradict each other; all stay in the survey, the least still rules."""
    return (*_repeats(survey), *_neighbours(survey), *_sum_of_opening(survey))


def _doubt(code: Literal["repeat", "neighbour", "sum"], rows: list[Reading], subject: str, one: float, other: float,
           rule: str, limit: Entry) -> Doubt:  # fmt: skip
    return Doubt(
        code=code,
        readings=tuple(r.id for r in rows),
        subject=subject,
        one=one,
        other=other,
        why=Why(
            rule=rule,
            values=(("one", one, "mm"), ("other", other, "mm"), ("limit", limit.value, "mm")),
            basis=limit.basis,
            source=limit.source,
        ),
    )


def _repeats(survey: Survey) -> list[Doubt]:
    limit = entry("fit.repeat_within")
    by_place: dict[tuple[str | None, ...], list[Reading]] = defaultdict(list)
    for reading in survey.readings:
        if reading.what != "stud":
            by_place[reading.place].append(reading)
    found = []
    for place, rows in by_place.items():
        least, most = min(r.value for r in rows), max(r.value for r in rows)
        if most - least > limit.value:
            name = " ".join(p for p in (*place[1:], place[0]) if p)
            found.append(_doubt("repeat", rows, name, least, most, "repeat readings agree within the limit", limit))
    return found


def _neighbours(survey: Survey) -> list[Doubt]:
    limit = entry("fit.neighbour_within")
    rule = "neighbouring readings of one wall differ by less than the limit"
    found = []
    for what in ("width", "height", "depth"):
        rows = sorted((r for r in survey.readings if r.what == what), key=lambda r: r.value)
        for low, high in pairwise(rows):
            if high.value - low.value > limit.value:
                found.append(_doubt("neighbour", [low, high], what, low.value, high.value, rule, limit))
    return found


def _sum_of_opening(survey: Survey) -> list[Doubt]:
    parts = [survey.least(what) for what in _ACROSS]
    front = survey.values("width", face="front") or survey.values("width")
    if None in parts or not front:
        return []
    limit = entry("fit.sum_within")
    total = sum(p for p in parts if p is not None)
    nearest = min(front, key=lambda w: abs(w - total))
    if abs(nearest - total) <= limit.value:
        return []
    rows = [r for r in survey.readings if r.what in _ACROSS]
    rule = "left return + opening + right return = width"
    return [_doubt("sum", rows, "returns and opening", total, nearest, rule, limit)]


def add_readings(survey: Survey, new: tuple[Reading, ...]) -> Survey:
    """The survey with more readings; each keeps the place it was called for."""
    return Survey.model_validate({**survey.model_dump(), "readings": [*survey.readings, *new]})
