"""What stays of drawers that are found anew: those that are locked, and in the others the compartments that are."""

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from ...inventory import Thing
from ...systems import Part
from ..models import Assignment, Design
from ..packing.task import Task
from .drawers import Drawer
from .skyline import Spot


@dataclass(frozen=True, slots=True)
class Kept:
    """Sections that stay as they are, compartments that stay with what is in them, and the ids of those that there were,
    which no other one gets.
    """

    shut: frozenset[str] = frozenset()
    parts: tuple[Part, ...] = ()
    assignments: tuple[Assignment, ...] = ()
    spent: frozenset[str] = frozenset()

    @classmethod
    def of(cls, task: Task) -> "Kept":
        """Those of the design that a task keeps."""
        design = task.keep
        if design is None:
            return cls()
        shut = frozenset(b.section for b in design.bays if b.locked and design.family_of(b).laid_out_apart)
        cells = [p for p in design.parts if p.role == "compartment"]
        parts = tuple(
            p for section in dict.fromkeys(p.section for p in cells)
            for p in ([q for q in cells if q.section == section] if section in shut else _held_fast(design, section))
        )  # fmt: skip
        held = {p.id for p in parts}
        were = {p.id for p in cells} | {*design.spent}
        return cls(shut, parts, tuple(a for a in design.assignments if a.part in held), frozenset(were))

    def floors(self, drawers: Iterable[Drawer], strip: int) -> tuple[Drawer, ...]:
        """What is laid out anew: every drawer that does not stay; of one in which compartments stay what is around them."""
        found: list[Drawer] = []
        for d in drawers:
            box = _around([p for p in self.parts if p.section == d.section])
            if d.section not in self.shut:
                found += [d] if box is None else d.around(box, strip)
        return tuple(found)

    def rest(self, things: Sequence[Thing]) -> tuple[Thing, ...]:
        """What does not lie in those that stay."""
        there = Counter[str]()
        for a in self.assignments:
            there[a.thing] += a.count
        return tuple(t if not there[t.id] else t.model_copy(update={"count": t.count - there[t.id]})
                     for t in things if t.count > there[t.id])  # fmt: skip


def _held_fast(design: Design, section: str) -> list[Part]:
    """The locked compartments of a section, those that lie between them, and what stands in or on any of them."""
    cells = [p for p in design.parts if p.role == "compartment" and p.section == section]
    by_id = {p.id: p for p in cells}

    def foot(p: Part) -> Part:
        while p.carrier in by_id:
            p = by_id[p.carrier]
        return p

    box = _around([foot(p) for p in cells if p.locked])
    if box is None:
        return []
    return [p for p in cells if _spot(foot(p)).lies_in(box)]


def _around(parts: Sequence[Part]) -> Spot | None:
    """The least rectangle of a floor around some parts."""
    if not parts:
        return None
    x0, y0 = min(p.x for p in parts), min(p.y for p in parts)
    return Spot(x0, y0, max(p.x + p.w for p in parts) - x0, max(p.y + p.d for p in parts) - y0)


def _spot(p: Part) -> Spot:
    return Spot(p.x, p.y, p.w, p.d)
