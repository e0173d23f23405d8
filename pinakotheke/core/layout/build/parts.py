"""From the stacks of a wall to placed parts and assignments."""

from collections.abc import Collection, Iterator, Sequence
from dataclasses import dataclass, field

from ...systems import Bay, Catalogue, Family, Part, Role
from ..models import Assignment, fresh_ids
from ..packing.arrays import Stacked

SPARE_LEAST = 290
"""Slack above the last compartment, mm, from which another shelf is worth its price."""
SPARE_EVERY = 364
"""Height of a spare shelf's compartment, mm."""


@dataclass(slots=True)
class Built:
    """Parts inside the bays, and who lives in them."""

    parts: list[Part] = field(default_factory=list)
    assignments: list[Assignment] = field(default_factory=list)
    numbers: Iterator[str] = field(default_factory=fresh_ids)
    """Ids for its assignments."""


def build(stacks: Sequence[Sequence[Stacked]], bays: Sequence[Bay], catalogue: Catalogue, *, spare_shelves: bool,
          taken: Collection[str] = ()) -> Built:  # fmt: skip
    """Place every compartment of every bay; slack at the top becomes spare shelves when asked for. Assignments get ids that
    are not `taken`.
    """
    built = Built(numbers=fresh_ids(taken))
    for bay, stack in zip(bays, stacks, strict=True):
        if not bay.locked:
            _Builder(bay, catalogue.of(bay), built).stack(stack, spare_shelves)
    for part in tuple(built.parts):
        bay = bays[part.bay or 0]
        built.parts += catalogue.of(bay).brackets(part, bay)
    return built


class _Builder:
    """Numbers and places the parts of one bay."""

    def __init__(self, bay: Bay, family: Family, built: Built) -> None:
        self.bay, self.family, self.built = bay, family, built
        self._count = 0

    def stack(self, stack: Sequence[Stacked], spare_shelves: bool) -> None:
        bay = self.bay
        top = bay.first
        for c in stack:
            at = bay.z0 + (c.foot + c.below) * bay.pitch
            if c.role == "base":
                self._place("base", at - self.family.spec("base").height, c)
            else:
                self._place(c.role, at, c, c.front)
            top = max(top, (c.foot + c.units) * bay.pitch)
            if c.covered:
                self._part("cover", bay.z0 + (c.foot + c.units) * bay.pitch)
                top += bay.pitch
        if bay.has_base and not any(c.role == "base" for c in stack):
            # It has its bottom, whether or not anything stands on it.
            self._part("base", bay.z0 - self.family.spec("base").height)
        if spare_shelves and stack and "shelf" in self.family.specs:
            self._spares(bay.z0 + -(-top // bay.pitch) * bay.pitch, roofed=bool(stack) and stack[-1].covered)

    def _spares(self, z: int, *, roofed: bool) -> None:
        bay, every = self.bay, SPARE_EVERY // self.bay.pitch * self.bay.pitch
        if roofed:
            z += every
        while bay.z1 - z >= SPARE_LEAST and (not bay.highest or z <= bay.highest):
            for closed in bay.blocked:
                if z < closed.high and closed.low < z + SPARE_LEAST:
                    z = bay.z0 - (bay.z0 - closed.high) // bay.pitch * bay.pitch
            if bay.z1 - z < SPARE_LEAST or (bay.highest and z > bay.highest):
                return
            self._part("shelf", z)
            return  # one free shelf is room to grow; a column of them is built for nothing

    def _place(self, role: Role, z: int, c: Stacked, height: int = 0) -> None:
        part = self._part(role, z, height)
        # Lots of one thing stay apart: two stacks side by side are not one twice as high.
        for lot in c.lots:
            one = lot.option
            self.built.assignments.append(
                Assignment(id=next(self.built.numbers), thing=lot.thing.id, part=part.id, way=one.way, count=lot.count,
                           turned=one.turned, container=one.container)
            )  # fmt: skip

    def _part(self, role: Role, z: int, height: int = 0) -> Part:
        self._count += 1
        name = f"b{self.bay.index + 1}-{role.replace(' ', '-')}-{self._count}"
        part = self.family.placed(self.bay, name, role, z, height)
        self.built.parts.append(part)
        return part
