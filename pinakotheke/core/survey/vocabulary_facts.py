"""Clauses that say what stands in a space rather than how long something is: doors, obstacles, the car, slopes."""

import re

from ..errors import CallOutError
from ..units import with_unit
from .ear import Clause, Ear
from .heard import CallOut
from .models import OBSTACLE_KINDS, Car, Door, OverheadDoor, Section
from .obstacles import OPTIONS, usual_obstacle
from .sections import section_kinds

_BY = r"[x×]"
OBSTACLES = frozenset(w for kind in OBSTACLE_KINDS for w in kind.split() if kind not in ("door", "skirting"))
"""Words that name an obstacle; a door says it by its place."""
HOLES = (5.0, 200.0)
"""Least and most that the holes of a movable shelf are apart, mm."""


def obstacle_kind(text: str) -> str | None:
    """The kind of obstacle a text names, the longest name first."""
    kinds = sorted(OBSTACLE_KINDS, key=len, reverse=True)
    return next((k for k in kinds if re.search(rf"\b{k}s?\b", text)), None)


def skirting(ear: Ear, clause: Clause) -> CallOut:
    if clause.words & {"no", "remove", "removed"}:
        return CallOut(said=clause.said, echo="no skirting, or it is taken away", facts=(("skirting", "remove"),))
    lengths = [n.mm for n in ear.lengths(clause)]
    if len(lengths) == 2 and not clause.words & {"height", "thickness"}:
        rows = [ear.reading(clause, "skirting height", lengths[0]),
                ear.reading(clause, "skirting thickness", lengths[1])]  # fmt: skip
    elif clause.words & {"height", "high"}:
        rows = [ear.reading(clause, "skirting height", n) for n in lengths]
    elif clause.words & {"thickness", "thick"}:
        rows = [ear.reading(clause, "skirting thickness", n) for n in lengths]
    else:
        raise CallOutError("call.skirting", clause.said)
    return ear.call(clause, rows)


def door(ear: Ear, clause: Clause) -> CallOut:
    if re.search(r"\bat\b.*\bup\b", clause.text):
        return obstacle(ear, clause)
    names = (("no", "none"), ("none", "none"), ("sliding", "sliding"), ("curtain", "curtain"),
             ("double", "double hinged"), ("hinged", "hinged"))  # fmt: skip
    kind = next((k for word, k in names if word in clause.words), None)
    if kind is None:
        raise CallOutError("call.which-door", clause.said)
    made = Door.model_validate(
        {"kind": kind, "hinge": "right" if "right" in clause.words else "left",
         "swings": "in" if "in" in clause.words else "out"}
    )  # fmt: skip
    hinge = f", hinged {made.hinge}, swings {made.swings}" if kind == "hinged" else ""
    return CallOut(said=clause.said, echo=f"door: {kind}{hinge}", door=made)


def obstacle(ear: Ear, clause: Clause) -> CallOut:
    kind = obstacle_kind(clause.text) or "box"
    sizes = r"(?P<{}>[\d\s./'\"¼½¾⅛⅜⅝⅞cm-]+?)"
    shape = re.search(
        rf"\bat\s+{sizes.format('x')}\s*,\s*{sizes.format('z')}\s*up\s*,\s*(?P<size>[^,]*{_BY}[^,]*)(?P<rest>,.*)?$",
        clause.text.rstrip(", "),
    )
    if shape is None:
        raise CallOutError("call.where", clause.said, kind=kind)
    size = ear.lengths(clause, shape["size"])
    if len(size) != 2:
        raise CallOutError("call.obstacle-size", clause.said, kind=kind)
    sides = {"x": ear.lengths(clause, shape["x"])[0].mm, "z": ear.lengths(clause, shape["z"])[0].mm,
             "width": size[0].mm, "height": size[1].mm}  # fmt: skip
    for word, key in OPTIONS.items():
        given = re.search(rf"\b{word}\s+([^,]+)", shape["rest"] or "")
        if given:
            sides[key] = ear.lengths(clause, given[1])[0].mm
    made = usual_obstacle(kind, next(ear.obstacle_ids), clause.section, clause.label, sides)
    show = [with_unit(mm, ear.units) for mm in (made.x, made.z, made.width, made.height)]
    more = [f"{word} {with_unit(getattr(made, key), ear.units)}" for word, key in OPTIONS.items() if getattr(made, key)]
    echo = f"{made.name} {show[0]} from the left, {show[1]} up, {show[2]} wide, {show[3]} high"
    return CallOut(said=clause.said, echo=", ".join([echo, *more]), obstacles=(made,))


def car(ear: Ear, clause: Clause) -> CallOut:
    shape = re.search(
        rf"\bcar\s+(?P<size>[^,]*{_BY}[^,]*{_BY}[^,]*?)\s+at\s+(?P<x>[^,]+),\s*(?P<gap>[^,]+?)\s*(?:from\s+the\s+back)"
        r"(?:,\s*doors\s+(?P<doors>[^,]+))?$", clause.text,
    )  # fmt: skip
    if shape is None:
        raise CallOutError("call.car-where", clause.said)  # fmt: skip
    size = ear.lengths(clause, shape["size"])
    if len(size) != 3:
        raise CallOutError("call.car-size", clause.said)
    made = Car(
        length=size[0].mm, width=size[1].mm, height=size[2].mm, x=ear.lengths(clause, shape["x"])[0].mm,
        gap=ear.lengths(clause, shape["gap"])[0].mm,
        **({"doors": ear.lengths(clause, shape["doors"])[0].mm} if shape["doors"] else {}),
    )  # fmt: skip
    show = [with_unit(mm, ear.units) for mm in (made.length, made.width, made.height, made.x, made.gap, made.doors)]
    echo = (f"car {show[0]} long, {show[1]} wide, {show[2]} high, {show[3]} from the left wall, {show[4]} from the "
            f"back, doors open by {show[5]}")  # fmt: skip
    return CallOut(said=clause.said, echo=echo, car=made)


def overhead(ear: Ear, clause: Clause) -> CallOut:
    track, reach = (re.search(rf"\b{word}\s+([^,]+)", clause.text) for word in ("track", "reach"))
    kind = "sectional" if "sectional" in clause.words else "up-and-over" if "over" in clause.words else None
    if kind is None or track is None or reach is None:
        raise CallOutError("call.which-overhead-door", clause.said)  # fmt: skip
    made = OverheadDoor.model_validate(
        {"kind": kind, "track": ear.lengths(clause, track[1])[0].mm, "reach": ear.lengths(clause, reach[1])[0].mm}
    )
    echo = f"{kind} door overhead, {with_unit(made.track, ear.units)} up, {with_unit(made.reach, ear.units)} in"
    return CallOut(said=clause.said, echo=echo, overhead=made)


def slope(ear: Ear, clause: Clause) -> CallOut:
    way = {"along": "along", "back": "toward back", "no": "none", "none": "none"}.get(
        clause.pick(("along", "back", "no", "none")) or ""
    )
    if way is None:
        raise CallOutError("call.which-slope", clause.said)
    changed = _with(ear, clause, slope=way)
    return CallOut(said=clause.said, echo=f"slope: {way}", sections=changed)


def corner_owner(ear: Ear, clause: Clause) -> CallOut:
    """Who fills the corner at the right end of the wall spoken of."""
    section = ear.survey.section(clause.section)
    if section.corner == "none":
        raise CallOutError("call.no-corner", clause.said, label=section.label)  # fmt: skip
    owner = "mine" if clause.words & {"mine", "owns"} else "theirs"
    echo = f"the corner right of {section.label} is filled by {'it' if owner == 'mine' else 'the next wall'}"
    return CallOut(said=clause.said, echo=echo, sections=_with(ear, clause, corner=owner))


def end(ear: Ear, clause: Clause) -> CallOut:
    """Whether a run ends at a wall, or freely before a switch or a door."""
    side = clause.pick(("left", "right"))
    to = "open" if clause.words & {"open", "free"} else "wall" if "wall" in clause.words else None
    if side is None or to is None:
        raise CallOutError("call.which-end", clause.said)
    label = ear.survey.section(clause.section).label
    return CallOut(said=clause.said, echo=f"{label}: {side} end {to}", sections=_with(ear, clause, **{side: to}))


def shelf(ear: Ear, clause: Clause) -> CallOut:
    section = ear.survey.section(clause.section)
    if not section.traits.asks("shelf height"):
        raise CallOutError("call.no-level", clause.said, label=section.label)
    if clause.words & {"movable", "fixed"}:
        movable = "movable" in clause.words
        after = re.split(r"\bevery\b", clause.text)[1:]
        holes = ear.lengths(clause, after[0])[0].mm if movable and after else None
        if holes is not None and not HOLES[0] <= holes <= HOLES[1]:
            raise CallOutError("call.holes-apart", clause.said, least=HOLES[0], most=HOLES[1])
        echo = f"{section.label}: {'movable on its pins' if movable else 'fixed'}"
        echo += f", holes every {with_unit(holes, ear.units)}" if holes else ""
        return CallOut(said=clause.said, echo=echo, sections=_with(ear, clause, movable=movable, holes=holes))
    heights = ear.lengths(clause, re.sub(r"\b(up|at)\b", " ", clause.text))
    return ear.call(clause, [ear.reading(clause, "shelf height", n.mm) for n in heights])


def damp(ear: Ear, clause: Clause) -> CallOut:
    wet = "damp" in clause.words
    return CallOut(said=clause.said, echo="damp" if wet else "dry", facts=(("damp", "yes" if wet else "no"),))


def lining(ear: Ear, clause: Clause) -> CallOut:
    name = clause.pick(("masonry", "plasterboard", "timber")) or "unknown"
    return CallOut(said=clause.said, echo=f"wall behind: {name}", facts=(("lining", name),))


def new_section(ear: Ear, clause: Clause) -> CallOut:
    names = {word: kind for kind, traits in section_kinds().items() for word in traits.said}
    word = clause.pick(tuple(names))
    if word is None:
        known = [f"new {traits.called}" for traits in section_kinds().values() if traits.said]
        raise CallOutError("call.what-is-new", clause.said, known=known)
    kind, taken = names[word], {s.id for s in ear.survey.parts}
    if section_kinds()[kind].at_wall:
        fresh = next(c for c in "ABCDEFGH" if c not in taken)
    else:
        stem = kind.replace(" ", "-")
        fresh = next(f"{stem}-{n}" for n in range(1, 50) if f"{stem}-{n}" not in taken)
    parts = list(ear.survey.parts)
    if section_kinds()[kind].at_wall:
        # The new wall goes on clockwise from the last one: they meet in a corner.
        last = max(n for n, s in enumerate(parts) if s.at_wall) if ear.survey.runs else -1
        if last >= 0:
            parts[last] = parts[last].model_copy(update={"corner": "mine", "right": "wall"})
        parts.insert(last + 1, Section(id=fresh, right="open"))
    else:
        parts.append(Section.model_validate({"id": fresh, "kind": kind}))
    ear.section = fresh
    made = next(s for s in parts if s.id == fresh)
    return CallOut(said=clause.said, echo=f"new: {made.label}", sections=tuple(parts))


def _with(ear: Ear, clause: Clause, **change: object) -> tuple[Section, ...]:
    return tuple(
        Section.model_validate({**s.model_dump(), **change}) if s.id == clause.section else s for s in ear.survey.parts
    )
