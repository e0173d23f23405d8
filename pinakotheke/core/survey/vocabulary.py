"""Clauses that say how long something is: one small reader for each word of the trade."""

import re
from itertools import pairwise

from ..errors import CallOutError
from .ear import Clause, Ear, Reader
from .heard import CallOut
from .models import Level, Section, Side, What
from .slots import LEVELS, SIDES, slots

MOST_STUDS = 200


def plain(what: What) -> Reader:
    def read(ear: Ear, clause: Clause) -> CallOut:
        return ear.call(clause, [ear.reading(clause, what, n.mm) for n in ear.lengths(clause)])

    return read


def _is_run(ear: Ear, clause: Clause) -> bool:
    return ear.survey.section(clause.section).at_wall


def width(ear: Ear, clause: Clause) -> CallOut:
    level: Level | None = next((lv for lv in LEVELS if lv in clause.words), None)
    lengths = [n.mm for n in ear.lengths(clause)]
    face = "front" if "front" in clause.words else "back"
    if not _is_run(ear, clause):
        if len(lengths) == 2 and not clause.words & {"front", "back"}:
            rows = [ear.reading(clause, "width", n, face=f) for f, n in zip(("back", "front"), lengths, strict=True)]
            return ear.call(clause, rows)
        known = face if clause.words & {"front", "back"} else None
        if known is None and any(row.face for row in ear.survey.section(clause.section).traits.readings):
            known = "back"
        return ear.call(clause, [ear.reading(clause, "width", n, face=known) for n in lengths])
    if level is None and len(lengths) == 1 and ear.survey.section(clause.section).slope != "none":
        level = "low"  # under a slope there is no other
    if level is None and len(lengths) == 3:
        rows = [ear.reading(clause, "width", n, level=lv, face=face) for lv, n in zip(LEVELS, lengths, strict=True)]
    elif level is None and len(lengths) == 2:
        raise CallOutError("call.two-widths", clause.said)
    else:
        rows = [ear.reading(clause, "width", n, level=level, face=face) for n in lengths]
    return ear.call(clause, rows)


def height(ear: Ear, clause: Clause) -> CallOut:
    side: Side | None = next((s for s in SIDES if s in clause.words), None)
    lengths = [n.mm for n in ear.lengths(clause)]
    if side is None and len(lengths) == 3:
        rows = [ear.reading(clause, "height", n, side=s) for s, n in zip(SIDES, lengths, strict=True)]
    elif side is None and len(lengths) == 2 and _is_run(ear, clause):
        raise CallOutError("call.two-heights", clause.said)
    elif side is None and len(lengths) == 2:
        rows = [ear.reading(clause, "height", n, side=s) for s, n in zip(("left", "right"), lengths, strict=True)]
    else:
        rows = [ear.reading(clause, "height", n, side=side) for n in lengths]
    return ear.call(clause, rows)


def depth(ear: Ear, clause: Clause) -> CallOut:
    side = clause.pick(("left", "right"))
    lengths = [n.mm for n in ear.lengths(clause)]
    if side is None and len(lengths) == 2:
        rows = [ear.reading(clause, "depth", n, side=s) for s, n in zip(("left", "right"), lengths, strict=True)]
    else:
        rows = [ear.reading(clause, "depth", n, side=side) for n in lengths]
    return ear.call(clause, rows)


def opening(ear: Ear, clause: Clause) -> CallOut:
    lengths = [n.mm for n in ear.lengths(clause)]
    if clause.words & {"height", "high"}:
        rows = [ear.reading(clause, "opening height", n) for n in lengths]
    elif re.search(r"[\d\"'¼½¾]\s*[x×]\s*\d", clause.text):
        if len(lengths) != 2:
            raise CallOutError("call.width-by-height", clause.said)
        rows = [ear.reading(clause, "opening width", lengths[0]), ear.reading(clause, "opening height", lengths[1])]
    else:
        rows = [ear.reading(clause, "opening width", n) for n in lengths]
    return ear.call(clause, rows)


def returns(ear: Ear, clause: Clause) -> CallOut:
    lengths = [n.mm for n in ear.lengths(clause)]
    side = clause.pick(("left", "right"))
    if side:
        what: What = "left return" if side == "left" else "right return"
        return ear.call(clause, [ear.reading(clause, what, n) for n in lengths])
    if len(lengths) != 2:
        raise CallOutError("call.which-return", clause.said)
    return ear.call(
        clause, [ear.reading(clause, "left return", lengths[0]), ear.reading(clause, "right return", lengths[1])]
    )


def diagonal(ear: Ear, clause: Clause) -> CallOut:
    lengths = [n.mm for n in ear.lengths(clause)]
    side = clause.pick(("left", "right"))
    if side is None and len(lengths) != 2:
        raise CallOutError("call.which-diagonal", clause.said)
    sides = (side,) * len(lengths) if side else ("left", "right")
    return ear.call(clause, [ear.reading(clause, "diagonal", n, side=s) for s, n in zip(sides, lengths, strict=True)])


def corner(ear: Ear, clause: Clause) -> CallOut:
    lengths = [n.mm for n in ear.lengths(clause, re.sub(r"\b(diagonal|by|and)\b", " ", clause.text))]
    if len(lengths) != 3 and "diagonal" in clause.words:
        return diagonal(ear, clause)  # "diagonal from the left back corner 1952"
    if len(lengths) != 3:
        raise CallOutError("call.corner", clause.said)  # fmt: skip
    return ear.call(clause, [ear.reading(clause, "corner diagonal", lengths[2], at=lengths[0], out=lengths[1])])


def _places(ear: Ear, clause: Clause) -> list[tuple[float, float]] | None:
    """Pairs `value at place`, as in `9 at 1200, 12 at 1800`; None when no place is said."""
    if not re.search(r"\bat\b", clause.text):
        return None
    pairs = re.split(r"\bat\b|,\s*", clause.text)
    numbers = [ear.lengths(clause, p)[0].mm for p in pairs if re.search(r"\d", p)]
    if len(numbers) % 2:
        raise CallOutError("call.falls-without-places", clause.said)
    return [(a, b) for n, (a, b) in enumerate(pairwise(numbers)) if n % 2 == 0]


def floor(ear: Ear, clause: Clause) -> CallOut:
    face = "front" if "front" in clause.words else "back"
    pairs = _places(ear, clause)
    if pairs is None:
        values = [n.mm for n in ear.lengths(clause)]
        width = ear.survey.least("width", section=clause.section)
        if width is None:
            raise CallOutError("call.fall-where", clause.said)
        if len(values) == 1:
            raise CallOutError("call.one-fall", clause.said)
        places = [s.at for s in slots(ear.survey, clause.section) if s.what == "fall" and s.at is not None]
        if len(values) != len(places):
            places = [float(round(width * n / (len(values) - 1))) for n in range(len(values))]
        pairs = list(zip(values, places, strict=True))
    return ear.call(clause, [ear.reading(clause, "fall", fall, at=at, face=face) for fall, at in pairs])


def _signed(ear: Ear, clause: Clause) -> float:
    away = bool(clause.words & {"away", "hollow"}) or bool(re.search(r"(?<![\d\w])[-−]\s*\d", clause.text))
    size = ear.lengths(clause, re.sub(r"[-−+]\s*(?=\d)", " ", clause.text))[0].mm
    return -size if away else size


def plumb(ear: Ear, clause: Clause) -> CallOut:
    side = {"left": "left", "right": "right", "back": "middle", "middle": "middle"}.get(
        clause.pick(("left", "right", "back", "middle")) or ""
    )
    if side is None:
        raise CallOutError("call.which-plumb", clause.said)
    return ear.call(clause, [ear.reading(clause, "plumb", _signed(ear, clause), side=side)])


def bow(ear: Ear, clause: Clause) -> CallOut:
    return ear.call(clause, [ear.reading(clause, "bow", _signed(ear, clause), side="middle")])


def ceiling(ear: Ear, clause: Clause) -> CallOut:
    section: Section = ear.survey.section(clause.section)
    pairs = _places(ear, clause)
    if pairs is None:
        raise CallOutError("call.slope-without-places", clause.said)  # fmt: skip
    key = "out" if section.slope == "toward back" else "at"
    call = ear.call(clause, [ear.reading(clause, "ceiling", height, **{key: at}) for height, at in pairs])
    if section.slope != "none":
        return call
    sloped = section.model_copy(update={"slope": "along"})
    return call.model_copy(update={"sections": tuple(sloped if s.id == section.id else s for s in ear.survey.parts)})


def studs(ear: Ear, clause: Clause) -> CallOut:
    pattern = re.search(
        r"^(?P<first>.*?\d.*?)(?:,?\s*then)?\s+every\s+(?P<every>.+?)(?:\s+to\s+(?P<to>.+))?$", clause.text
    )
    if pattern is None:
        return ear.call(clause, [ear.reading(clause, "stud", n.mm) for n in ear.lengths(clause)])
    first = ear.lengths(clause, pattern["first"])
    every = ear.lengths(clause, pattern["every"])[0]
    width = ear.survey.least("width", section=clause.section)
    end = ear.lengths(clause, pattern["to"])[0].mm if pattern["to"] else width
    if end is None:
        raise CallOutError("call.studs-how-far", clause.said)
    if every.exact_mm == 0 or (end - first[-1].mm) / every.mm > MOST_STUDS:
        raise CallOutError("call.too-many-studs", clause.said)
    at = [n.exact_mm for n in first]
    while at[-1] + every.exact_mm < end:
        at.append(at[-1] + every.exact_mm)
    return ear.call(clause, [ear.reading(clause, "stud", float(n)) for n in at])
