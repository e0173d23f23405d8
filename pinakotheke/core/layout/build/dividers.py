"""Dividers of a drawer: which strips its compartments ask for. They are never placed by hand: whatever moves a
compartment, the strips follow.
"""

from collections import defaultdict
from collections.abc import Iterable, Sequence
from typing import Literal, NamedTuple

from ...errors import EditRefused
from ...systems import Bay, Part
from ...systems.families.insert import Dividers
from ..models import Design


class Strip(NamedTuple):
    """A strip on a drawer's floor: along x (side to side) it lies from `start` to `end` at y = `at`; along y at x = `at`;
    mm.
    """

    along: Literal["x", "y"]
    at: int
    start: int
    end: int

    @property
    def length(self) -> int:
        """From end to end between what it meets, without tongues."""
        return self.end - self.start


def strips(
    floor: tuple[int, int, int, int], cells: Iterable[tuple[int, int, int, int]], thick: int
) -> tuple[Strip, ...]:
    """The strips between compartments (x, y, w, d) on a floor (x, y, w, d): one at every side of a compartment that is no
    wall of the drawer; those in one line are one strip, also where another one crosses between them.
    """
    x0, y0, x1, y1 = floor[0], floor[1], floor[0] + floor[2], floor[1] + floor[3]
    lines: dict[tuple[Literal["x", "y"], int], list[tuple[int, int]]] = defaultdict(list)
    for x, y, w, d in cells:
        for at in (x - thick, x + w):
            if x0 <= at and at + thick <= x1:
                lines["y", at].append((y, y + d))
        for at in (y - thick, y + d):
            if y0 <= at and at + thick <= y1:
                lines["x", at].append((x, x + w))
    found = []
    for (along, at), spans in lines.items():
        start, end = sorted(spans)[0]
        for a, b in sorted(spans)[1:]:
            if a <= end + thick:
                end = max(end, b)
            else:
                found.append(Strip(along, at, start, end))
                start, end = a, b
        found.append(Strip(along, at, start, end))
    return tuple(sorted(found))


def strips_of(design: Design, bay: Bay) -> tuple[Strip, ...]:
    """The strips in one drawer of a design; none where nothing is divided."""
    family = design.family_of(bay)
    if not isinstance(family, Dividers):
        return ()
    cells = [(p.x, p.y, p.w, p.d) for p in cells_in(design, bay.index, family.id)]
    return strips((bay.x, bay.y, bay.w, bay.depth), cells, design.finish.strip)


def cells_in(design: Design, bay: int, family: str) -> list[Part]:
    """The compartments of one family in a bay."""
    return [p for p in design.parts if p.bay == bay and p.role == "compartment" and p.family == family]


LEAST = 20
"""A compartment is made no smaller by hand, mm."""
SIDES: dict[str, tuple[Literal["x", "y"], int]] = {"left": ("x", -1), "right": ("x", 1), "back": ("y", -1),
                                                   "front": ("y", 1)}  # fmt: skip


def edge_moved(design: Design, part: Part, side: str, by: int) -> tuple[Part, ...]:
    """The parts with the divider at a side of a compartment moved so many mm away from it: every compartment along that
    divider grows or shrinks. Raises `EditRefused` where there is none, or one would become too small.
    """
    axis, sign = SIDES[side]
    size, other = ("w", "d") if axis == "x" else ("d", "w")
    along = "y" if axis == "x" else "x"
    family, bay = design.family_of(part), design.bays[part.bay or 0]
    if not isinstance(family, Dividers):
        raise EditRefused("edit.no-divider", side=side)
    thick = design.finish.strip
    at = getattr(part, axis) + getattr(part, size) if sign > 0 else getattr(part, axis) - thick
    run = next(
        (s for s in strips_of(design, bay)
         if s.along == along and s.at == at and s.start <= getattr(part, along) < s.end), None)  # fmt: skip
    if run is None:
        raise EditRefused("edit.no-divider", side=side)
    moved, shift = [], by * sign
    for p in design.parts:
        changes: dict[str, int] = {}
        beside = p.role == "compartment" and p.bay == bay.index and p.family == family.id
        if beside and getattr(p, along) < run.end and run.start < getattr(p, along) + getattr(p, other):
            if getattr(p, axis) + getattr(p, size) == at:
                changes = {size: getattr(p, size) + shift}
            elif getattr(p, axis) == at + thick:
                changes = {axis: getattr(p, axis) + shift, size: getattr(p, size) - shift}
        if changes and changes[size] < LEAST:
            raise EditRefused("edit.too-narrow", least=LEAST)
        moved.append(p.model_copy(update=changes) if changes else p)
    return _with_their_trays(design, moved)


def _with_their_trays(design: Design, moved: list[Part]) -> tuple[Part, ...]:
    """The trays that stand in compartments go where those go; raises `EditRefused` where one would leave its own."""
    was, new = {p.id: p for p in design.parts}, {p.id: p for p in moved}
    for p in sorted(moved, key=lambda p: p.z):
        if p.role == "compartment" and p.carrier in new:
            cell, before = new[p.carrier], was[p.carrier]
            there = p.model_copy(update={"x": p.x + cell.x - before.x, "y": p.y + cell.y - before.y})
            if there.x + there.w > cell.x + cell.w or there.y + there.d > cell.y + cell.d:
                raise EditRefused("edit.tray-in-it")
            new[p.id] = there
    return tuple(new[p.id] for p in moved)


def with_dividers(design: Design) -> Design:
    """The design with the strips that its compartments ask for, in every drawer."""
    drawers = [b for b in design.bays if isinstance(design.family_of(b), Dividers)]
    if not drawers:
        return design
    parts = [p for p in design.parts if not (p.role == "divider" and p.fixed_to == "drawer")]
    for bay in drawers:
        parts += _placed(design, bay, strips_of(design, bay))
    return design.model_copy(update={"parts": tuple(parts)})


def _placed(design: Design, bay: Bay, some: Sequence[Strip]) -> list[Part]:
    family = design.family_of(bay)
    assert isinstance(family, Dividers)
    t, placed = design.finish.strip, []
    for n, s in enumerate(some, 1):
        x, y, w, d = (s.start, s.at, s.length, t) if s.along == "x" else (s.at, s.start, t, s.length)
        placed.append(family.divider(bay, f"b{bay.index + 1}-divider-{n}", x, y, w, d))
    return placed
