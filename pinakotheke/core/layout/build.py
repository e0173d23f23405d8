"""From an interior to placed parts and assignments."""

from collections.abc import Sequence
from dataclasses import dataclass, field

from ..systems import Bay, Family, Part
from ..tables import value
from .interior import Interior
from .models import Assignment
from .packing import Slot

SPARE_LEAST = 290
"""Slack above the last compartment, mm, from which another shelf is worth its price."""
SPARE_EVERY = 364
"""Height of a spare shelf's compartment, mm."""


@dataclass(slots=True)
class Built:
    """Parts inside the bays, and who lives in them."""

    parts: list[Part] = field(default_factory=list)
    assignments: list[Assignment] = field(default_factory=list)


def build(interior: Interior, bays: Sequence[Bay], family: Family, *, spare_shelves: bool) -> Built:
    """Place every compartment of every bay; slack at the top becomes spare shelves when asked for."""
    built = Built()
    for bay, stack in zip(bays, interior.stacks, strict=True):
        _Builder(bay, family, built).stack(stack.slots, stack.feet, stack.top, spare_shelves)
    built.parts += [b for part in built.parts for b in family.brackets(part, bays[part.bay or 0])]
    return built


class _Builder:
    """Numbers and places the parts of one bay."""

    def __init__(self, bay: Bay, family: Family, built: Built) -> None:
        self.bay, self.family, self.built = bay, family, built
        self._count = 0

    def stack(self, slots: list[Slot], feet: list[int], top: int, spare_shelves: bool) -> None:
        for n, (slot, foot) in enumerate(zip(slots, feet, strict=True)):
            z = self.bay.z0 + foot * self.bay.pitch
            if slot.drawers:
                self._chest(slot, z, covered_by_next=n + 1 < len(slots) and self._sits_on(slots, feet, n))
            elif slot.role == "rail":
                self._place("rail", z + max(o.below for o in slot.options) * self.bay.pitch, slot)
            elif slot.role == "shelf" and foot == 0 and self.bay.has_base:
                self._place("base", z - self.family.table["board"], slot)
            else:
                self._place(slot.role, z, slot)
        if self.bay.has_base and not (slots and slots[0].role == "shelf" and feet[0] == 0):
            # Every carcase has its bottom, whether or not anything stands on it.
            self._part("base", self.bay.z0 - self.family.table["board"])
        if spare_shelves:
            self._spares(self.bay.z0 + top * self.bay.pitch, roofed=bool(slots) and slots[-1].role == "drawer")

    @staticmethod
    def _sits_on(slots: list[Slot], feet: list[int], n: int) -> bool:
        """Whether the next compartment's own board closes the chest below it."""
        return slots[n + 1].role == "shelf" and feet[n + 1] == feet[n] + slots[n].units

    def _chest(self, slot: Slot, z: int, *, covered_by_next: bool) -> None:
        for drawer in slot.drawers:
            self._place("drawer", z, drawer, height=drawer.options[0].front)
            z += drawer.units * self.bay.pitch
        if not covered_by_next:
            self._part("cover", z)

    def _spares(self, z: int, *, roofed: bool) -> None:
        if roofed:
            z += SPARE_EVERY // self.bay.pitch * self.bay.pitch
        while self.bay.z1 - z >= SPARE_LEAST:
            for low, high in self.bay.blocked:
                if z < high and low < z + SPARE_LEAST:
                    z = self.bay.z0 - (self.bay.z0 - high) // self.bay.pitch * self.bay.pitch
            if self.bay.z1 - z < SPARE_LEAST:
                return
            self._part("shelf", z)
            z += SPARE_EVERY // self.bay.pitch * self.bay.pitch

    def _place(self, role: str, z: int, slot: Slot, height: int = 0) -> None:
        part = self._part(role, z, height)
        for option in sorted(slot.options, key=lambda o: o.lot):
            self.built.assignments.append(
                Assignment(thing=str(option.lot), part=part.id, way=option.need.way, count=option.need.count)
            )

    def _part(self, role: str, z: int, height: int = 0) -> Part:
        self._count += 1
        part = placed(self.family, self.bay, f"b{self.bay.index + 1}-{role}-{self._count}", role, z, height)
        self.built.parts.append(part)
        return part


def placed(family: Family, bay: Bay, part_id: str, role: str, z: int, height: int = 0) -> Part:
    """A holding part (or a cover) standing in a bay at z, sized by its family."""
    thickness = {"base": family.table["board"], "cover": family.table["board"]}.get(role)
    h = height or thickness or family.component(role, bay).height  # type: ignore[arg-type]
    y, d = bay.y, bay.depth
    if role == "rail":
        # The tube alone: its centre stands at the hanging distance from the wall.
        y, d = bay.y + rail_distance(bay) - h // 2, h
    return Part.model_validate(
        {"id": part_id, "item": f"{family.id}.{'shelf' if role == 'cover' else role}", "role": role,
         "bay": bay.index, "x": bay.x, "y": y, "z": z, "w": bay.w, "d": d, "h": h,
         "fixed_to": f"frame-{bay.index + 1}" if bay.has_base else f"standard-{bay.index + 1}"}
    )  # fmt: skip


def rail_distance(bay: Bay) -> int:
    """Distance of a rail's centre from the bay's back, mm: the usual one, or the middle of a shallow bay."""
    return min(int(value("hang.rail_from_back")), bay.hang_depth // 2)
