"""Readings that contradict each other, and the slip of the hand that would explain it.

Nothing is dropped: all readings stay, the least still rules, and the doubt says what to read again.
"""

from collections import defaultdict
from itertools import combinations, pairwise
from statistics import median
from typing import Literal

from ..base import Frozen, Why
from ..tables import Entry, entry, value
from ..units import MM_PER_INCH
from .models import Place, Reading, Survey, What
from .square import corner_angle

Code = Literal["repeat", "neighbour", "sum", "triangle", "outside"]
Slip = Literal["foot", "hundred", "thousand", "inches for centimetres", "digits swapped", "tape case", ""]

INCH = float(MM_PER_INCH)


class Doubt(Frozen):
    """Readings that contradict each other: `subject` was read as `one` and as `other`, both in mm."""

    code: Code
    readings: tuple[str, ...]
    place: Place | None = None
    """Where to read again."""
    subject: str
    one: float
    other: float
    slip: Slip = ""
    why: Why


def likely_slip(one: float, other: float) -> Slip:
    """The slip that turns one reading into the other, in mm, or "" when none comes near.

    >>> likely_slip(1846, 1864), likely_slip(1846, 2151), likely_slip(727, 1846.6), likely_slip(1846, 1774)
    ('digits swapped', 'foot', 'inches for centimetres', 'tape case')
    """
    low, high = sorted((one, other))
    apart, near = high - low, value("survey.slip_near")
    if low and abs(high / low - INCH / 10) < near / low:
        return "inches for centimetres"
    if _digits_swapped(low, high) and apart >= value("survey.swap_least"):
        return "digits swapped"
    if abs(apart - 12 * INCH) <= near:
        return "foot"
    if abs(apart - 1000) <= near:
        return "thousand"
    if abs(apart - 100) <= near:
        return "hundred"
    if value("survey.tape_case_low") <= apart <= value("survey.tape_case_high"):
        return "tape case"
    return ""


def _digits_swapped(one: float, other: float) -> bool:
    """Whether exchanging two neighbouring digits of one whole number gives the other."""
    a, b = f"{one:.0f}", f"{other:.0f}"
    if len(a) != len(b) or a == b:
        return False
    at = next(n for n in range(len(a)) if a[n] != b[n])
    return a[at : at + 2] == b[at : at + 2][::-1] and a[at + 2 :] == b[at + 2 :]


def doubts(survey: Survey, section_id: str | None = None) -> tuple[Doubt, ...]:
    """Readings that contradict each other, in one section or in all."""
    sections = survey.parts if section_id is None else (survey.section(section_id),)
    found: list[Doubt] = []
    for section in sections:
        one = survey.only(section.id)
        prefix = f"{section.label}: " if len(survey.parts) > 1 else ""
        here = (*_repeats(one), *_neighbours(one), *_sum_of_opening(one), *_triangles(one), *_outside(one))
        found += [d.model_copy(update={"subject": prefix + d.subject}) if prefix else d for d in here]
    return tuple(found)


def _doubt(code: Code, rows: list[Reading], subject: str, one: float, other: float, limit: Entry) -> Doubt:
    return Doubt(
        code=code, readings=tuple(r.id for r in rows), place=rows[0].place if rows else None, subject=subject, one=one,
        other=other, slip=likely_slip(one, other),
        why=Why(rule=code, values=(("one", one, "mm"), ("other", other, "mm"), ("limit", limit.value, "mm")),
                basis=limit.basis, source=limit.source),
    )  # fmt: skip


_SINGLE: frozenset[What] = frozenset({"stud"})


def _repeats(survey: Survey) -> list[Doubt]:
    limit = entry("fit.repeat_within")
    by_place: dict[Place, list[Reading]] = defaultdict(list)
    for reading in survey.readings:
        if reading.what not in _SINGLE:
            by_place[reading.place].append(reading)
    found = []
    for rows in by_place.values():
        least, most = min(r.value for r in rows), max(r.value for r in rows)
        if most - least > limit.value:
            first = rows[0]
            name = " ".join(p for p in (first.level, first.face, first.side, first.what) if p)
            at = "" if first.at is None else f" at {first.at:.0f}"
            found.append(_doubt("repeat", rows, name + at, least, most, limit))
    return found


MOST_COMPARED = 40
"""Readings of one size that are compared each with each for swapped digits; beyond it only with the nearest."""


def _neighbours(survey: Survey) -> list[Doubt]:
    """Readings of one wall that differ by more than walls wander, or by exactly what a swap of digits makes."""
    limit = entry("fit.neighbour_within")
    found = []
    whats: tuple[What, ...] = ("width", "height", "depth", "fall")
    for what in whats:
        rows = sorted((r for r in survey.readings if r.what == what), key=lambda r: r.value)
        pairs = list(pairwise(rows))
        if what != "fall" and len(rows) <= MOST_COMPARED:
            pairs += [(a, b) for a, b in combinations(rows, 2) if _digits_swapped(a.value, b.value)]
        for low, high in dict.fromkeys(pairs):
            if high.place == low.place:
                continue  # a repeat says it better
            swapped = what != "fall" and likely_slip(low.value, high.value) == "digits swapped"
            if high.value - low.value > limit.value or swapped:
                doubt = _doubt("neighbour", [low, high], what, low.value, high.value, limit)
                odd = max((low, high), key=lambda r: abs(r.value - median(row.value for row in rows)))
                found.append(doubt.model_copy(update={"place": odd.place}))
    return found


_ACROSS: tuple[What, ...] = ("left return", "opening width", "right return")


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
    return [_doubt("sum", rows, "returns and opening", total, nearest, limit)]


MOST_OUT = 12.0
"""Degrees a built corner is seldom out of square by more; beyond it the diagonal is doubted. Common practice."""


def _triangles(survey: Survey) -> list[Doubt]:
    """Diagonals that make no triangle with their sides, or a corner no house has."""
    limit = entry("survey.square_limit")
    found = []
    width = survey.least("width", face="back") or survey.least("width")
    for r in survey.readings:
        a: float | None = None
        b: float | None = None
        if r.what == "corner diagonal":
            a, b = r.at, r.out
        elif r.what == "diagonal":
            a, b = width, survey.least("depth", side="right" if r.side == "left" else "left") or survey.least("depth")
        if not a or not b:
            continue
        try:
            odd = abs(corner_angle(a, b, r.value) - 90) > MOST_OUT
        except ValueError:
            odd = True
        if odd:
            found.append(_doubt("triangle", [r], r.what, r.value, (a * a + b * b) ** 0.5, limit))
    return found


def _outside(survey: Survey) -> list[Doubt]:
    """Studs and obstacles beyond the end of their wall."""
    width = max(survey.values("width"), default=None)
    if width is None:
        return []
    limit = entry("fit.neighbour_within")
    beyond = width + limit.value
    found = [_doubt("outside", [r], "a stud", r.value, width, limit)
             for r in survey.readings if r.what == "stud" and r.value > beyond]  # fmt: skip
    for o in survey.obstacles:
        if o.x + o.width > beyond:
            doubt = _doubt("outside", [], o.name, o.x + o.width, width, limit)
            found.append(doubt.model_copy(update={"readings": (o.id,)}))
    return found
