"""The single reading that would remove most doubt, or unblock a check, and why."""

from collections import Counter
from typing import Literal

from ..base import Frozen
from .doubts import doubts
from .models import Survey, What
from .slots import Slot, Uncertain, missing, slots, uncertain

Reason = Literal["unblocks", "doubted", "uncertain", "needed", "level", "square", "fixing", "useful"]

_WORTH: dict[Reason, float] = {
    "unblocks": 1000, "doubted": 500, "uncertain": 100, "needed": 80, "level": 40, "square": 30, "fixing": 20,
    "useful": 1,
}  # fmt: skip
"""Order of reasons; within one, millimetres of doubt removed decide. Common practice: what stops the work first."""

ENOUGH = 3
"""Readings of one place after which nobody is sent back to it; common practice: read a third time."""


class NextReading(Frozen):
    """What to read now, what for, and how many needed readings are left (this one among them)."""

    slot: Slot
    reason: Reason
    left: int


def next_reading(survey: Survey, section_id: str | None = None) -> NextReading | None:
    """The most valuable reading still to take; None when all is read and nothing contradicts itself."""
    absent = missing(survey, section_id)
    loose = {section: uncertain(survey, section) for section in {s.section for s in absent}}
    read = {(r.section, r.what) for r in survey.readings}
    ranked = [(_worth(s, survey, loose[s.section], read), -n, s) for n, s in enumerate(absent)]
    doubted = {d.place for d in doubts(survey, section_id) if d.place}
    times = Counter(r.place for r in survey.readings)
    # Read a third time, a doubt is settled as far as reading can: all stay, and the least rules.
    again = [s for s in slots(survey, section_id) if s.place in doubted and times[s.place] < ENOUGH]
    if again and not any(reason == "unblocks" for (reason, _), _, _ in ranked):
        return _next(again[0], "doubted", absent)
    if not ranked:
        return None
    (reason, _), _, slot = max(ranked, key=lambda row: (_WORTH[row[0][0]] + row[0][1], row[1]))
    return _next(slot, reason, absent)


def _next(slot: Slot, reason: Reason, absent: tuple[Slot, ...]) -> NextReading:
    return NextReading(slot=slot, reason=reason, left=sum(s.needed for s in absent))


def _worth(slot: Slot, survey: Survey, loose: Uncertain, read: set[tuple[str, What]]) -> tuple[Reason, float]:
    """Why a slot is worth reading, and by how many millimetres of doubt."""
    if slot.needed and slot.what in ("width", "height", "depth", "ceiling"):
        if (slot.section, slot.what) not in read:
            return "unblocks", 0
        return "uncertain", {"width": loose.width, "depth": loose.depth}.get(slot.what, loose.height)
    if slot.needed:
        return "needed", 0
    if slot.what == "fall":
        return "level", 0
    if slot.what in ("diagonal", "corner diagonal"):
        return "square", 0
    if slot.what == "stud" and survey.lining != "masonry":
        return "fixing", 0
    return "useful", 0
