"""Containers set on their shelves, and where everything lies in its compartment.

One arrangement for all who need it: the design places its containers by it, the drawing and the walk-round view show
the things by it.
"""

from collections.abc import Iterator, Mapping

from ...base import Frozen
from ...house import HouseRules
from ...inventory import Thing
from ...inventory.containers import boxes_for, stacked
from ...inventory.needs import need, posed
from ...systems import HANGING, Bay, Family, OnPart, Part
from ..models import Assignment, Design
from .fits import ask, on_hook, overhang, rows_in
from .lying import bed


class Lying(Frozen):
    """One stack, garment, box or piece where it is: its left, back, lower corner and size, mm."""

    thing: str
    way: str
    x: float
    y: float
    z: float
    w: float
    d: float
    h: float
    count: int = 1


def containers_on(design: Design, things: Mapping[str, Thing]) -> Design:
    """The design with its containers as parts, each on its shelf; those it had before are set anew."""
    parts = [p for p in design.parts if p.role != "container"]
    for part in tuple(parts):
        for n, (a, box) in enumerate(_boxes(design, part, things)):
            row = design.box(a.container)
            if row is not None:
                parts.append(
                    Part(id=f"{part.id}-box{n + 1}", item=f"{part.family}.container", role="container",
                         section=part.section, bay=part.bay, x=int(box.x), y=int(box.y), z=int(box.z), w=int(box.w),
                         d=int(box.d), h=int(box.h), fixed_to=OnPart(part=part.id), belongs_to=part.id,
                         container=row.id)
                )  # fmt: skip
    return design.model_copy(update={"parts": tuple(parts)})


def _boxes(design: Design, part: Part, things: Mapping[str, Thing]) -> Iterator[tuple[Assignment, Lying]]:
    held = design.held_by(part.id)
    if not any(a.container for a in held):
        return
    by_key = {(a.thing, a.container): a for a in held}
    for lying, a_key in _lie(design, part, held, things):
        a = by_key.get(a_key)
        if a is not None and a.container:
            yield a, lying


def lying(design: Design, part: Part, things: Mapping[str, Thing]) -> list[Lying]:
    """Everything in a compartment where it lies, hangs or stands."""
    return [one for one, _ in _lie(design, part, design.held_by(part.id), things)]


def _lie(design: Design, part: Part, held: tuple[Assignment, ...], things: Mapping[str, Thing],
         ) -> Iterator[tuple[Lying, tuple[str, str]]]:  # fmt: skip
    bay, family = design.bay_of(part), design.family_of(part)
    side = family.spec(part.role).sides / 2
    if part.role == "floor":
        side = max(0.0, side - (part.x - bay.x))  # what a skirting takes of it already
    at = part.x + side
    for a in held:
        thing = things.get(a.thing)
        if thing is None:
            continue
        asked = ask(thing, a.way, part.role, family, bay, design.rules, a.count, turned=a.turned,
                    container=design.box(a.container) if a.container else None)  # fmt: skip
        taken = asked.amount
        if family.spec(part.role).capacity == "area":
            taken = asked.amount / max(family.clear_depth(part.role, bay), 1)
        for one in _pieces(design.rules, part, bay, thing, a, at, taken, design):
            yield one, (a.thing, a.container)
        at += taken


def _pieces(rules: HouseRules, part: Part, bay: Bay, thing: Thing, a: Assignment, at: float, taken: float,
            design: Design) -> Iterator[Lying]:  # fmt: skip
    """One assignment's garments, stacks, boxes or pieces, side by side over the length they take."""
    common = {"thing": a.thing, "way": a.way}
    # Before what takes depth at the back, as a cleat of the board above does.
    back = design.family_of(part).spec(part.role).back
    box = design.box(a.container) if a.container else None
    if box is not None:
        number = boxes_for(thing, box, a.count) or 1
        w, d = (box.depth, box.width) if a.turned else (box.width, box.depth)
        y = part.y + back + max(0, (part.d - back - d) // 2)
        over_each = min(stacked(thing, box, rules), number)
        across = -(-number // over_each)
        for k in range(number):
            left, level = at + k // over_each * taken / across, part.z + part.h + k % over_each * box.height
            yield Lying(**common, x=left, y=y, z=level, w=w, d=d, h=box.height)
        return
    n = need(thing, a.way, rules, a.count, a.turned)
    if a.way == "hang":
        drop = thing.row.drop
        depth = n.depth if part.role == "rail" else taken
        y = part.y + part.d / 2 - depth / 2 if part.role == "rail" else part.y
        pieces = max(1, a.count)
        step = taken / pieces if part.role == "rail" else part.w
        for k in range(pieces if part.role == "rail" else 1):
            yield Lying(**common, x=at + k * step, y=y, z=part.z - drop, w=max(step * 0.8, 4), d=depth, h=drop)
        return
    width, deep, high = posed(thing, a.way, a.turned)
    if part.role in HANGING:
        room = design.family_of(part).clear_depth(part.role, bay) + overhang(a.way, part.role)
        width, deep, high = on_hook(thing, a.turned, room)
        for k in range(a.count):
            step = taken / a.count
            yield Lying(**common, x=at + k * step, y=part.y, z=_hung_from(design, part) - high, w=width, d=deep, h=high)
        return
    if part.role == "compartment":
        yield from _in_cell(part, bay, design.family_of(part), thing, a, at)
        return
    if part.role in ("drawer", "basket"):
        yield Lying(
            **common,
            x=at,
            y=part.y + back,
            z=part.z + 12,
            w=max(taken - 6, 4),
            d=part.d - back,
            h=part.h - 24,
            count=a.count,
        )
        return
    stacks = -(-a.count // n.per_stack)
    rows = rows_in(thing, a.way, part.role, design.family_of(part), bay, n.depth)
    across = -(-stacks // rows)
    for k in range(stacks):
        in_stack = min(n.per_stack, a.count - k * n.per_stack)
        foot = part.z if part.role in ("floor", "hamper") else part.z + part.h
        column, row = k % across, k // across
        yield Lying(**common, x=at + column * taken / across, y=part.y + back + row * deep, z=foot, w=width, d=deep,
                    h=in_stack * high, count=in_stack)  # fmt: skip


def _hung_from(design: Design, part: Part) -> float:
    return design.family_of(part).peg(part) if part.role == "hooks" else part.z


def _in_cell(part: Part, bay: Bay, family: Family, thing: Thing, a: Assignment, at: float) -> Iterator[Lying]:
    """Piles in a compartment on a drawer's floor, as they lie in the least of its width, from its front."""
    spec = family.spec(part.role)
    lie = bed(thing, a.count, bay.depth - spec.back, bay.drawer.clear if bay.drawer else part.h)
    if lie is None:
        return
    pose, left = lie.pose, a.count
    for k in range(lie.across * lie.rows):
        number = min(lie.layers, left)
        if number <= 0:
            return
        left -= number
        column, row = k % lie.across, k // lie.across
        x = at + lie.margin + column * (pose.w + lie.between)
        y = part.y + part.d - spec.back / 2 - lie.front - (row + 1) * pose.d - row * lie.between
        yield Lying(thing=a.thing, way=a.way, x=x, y=y, z=part.z, w=pose.w, d=pose.d, h=max(number * pose.h, 1),
                    count=number)  # fmt: skip
