"""Drawer inserts: a drawer's floor parted into rows by strips or trays.

A row is a compartment like any other, only that rows stand one behind the other: what is a height in a wardrobe is
here a depth (dividers across, trays) or a width (dividers along).
"""

from collections.abc import Iterator
from typing import Literal

from ...survey import Envelope
from ..family import Family, Finish, Row, Shape, Table
from ..parts import Bay, Blocked, DrawerFloor, Part, Surface
from ..roles import Role


class InsertTable(Table):
    """Thickness of a strip, mm."""

    strip: int


class Insert(Family):
    """What the three kinds of insert have in common."""

    Numbers = InsertTable
    table: InsertTable
    places = frozenset({"drawer"})
    drills = False
    axis: Literal["y", "x"] = "y"

    @property
    def modules(self) -> tuple[int, ...]:
        return (1,)

    def fillings(self, length: int) -> Iterator[tuple[int, ...]]:
        yield (length,)

    def shapes(self, envelope: Envelope, finish: Finish) -> tuple[Shape, ...]:
        return (Shape(height=envelope.z_to, depth=envelope.y_to - envelope.y_from, member=envelope.z_to),)

    def stretches(self, envelope: Envelope, shape: Shape) -> tuple[tuple[int, int], ...]:
        return (envelope.span(0, shape.height),)

    def allows(self, envelope: Envelope, row: Row) -> bool:
        return True

    def bays(self, envelope: Envelope, row: Row) -> tuple[Bay, ...]:
        (w,) = row.widths
        y, depth = envelope.y_from, row.shape.depth
        along, across = (depth, w) if self.axis == "y" else (w, depth)
        start = y if self.axis == "y" else row.x
        return (
            Bay(section=envelope.section, family=self.id, x=row.x, w=across if self.axis == "y" else w, y=y,
                depth=depth, hang_depth=depth, z0=start, z1=start + along, pitch=self.table.pitch, pulls=True,
                has_base=False, drawer=DrawerFloor(axis=self.axis, clear=row.shape.height),
                blocked=self._corners(envelope)),
        )  # fmt: skip

    def _corners(self, envelope: Envelope) -> tuple[Blocked, ...]:
        """What stands in the drawer, such as a lock's case, closes its rows."""
        if self.axis == "y":
            return tuple(Blocked(low=c.y0, high=c.y1) for c in envelope.closed)
        return tuple(Blocked(low=c.x0, high=c.x1) for c in envelope.closed)

    def structure(self, envelope: Envelope, row: Row, bays: tuple[Bay, ...], finish: Finish) -> tuple[Part, ...]:
        return ()

    def capacity(self, role: Role, bay: Bay) -> float:
        return float(bay.w if self.axis == "y" else bay.depth)

    def carrier(self, bay: Bay) -> Surface:
        return "drawer"

    def placed(self, bay: Bay, part_id: str, role: Role, z: int, height: int = 0) -> Part:
        t = self.table.strip
        box = {"x": bay.x, "y": z, "w": bay.w, "d": t} if self.axis == "y" else {
            "x": z, "y": bay.y, "w": t, "d": bay.depth}  # fmt: skip
        clear = bay.drawer.clear if bay.drawer else 0
        return Part(id=part_id, item=f"{self.id}.strip", role="strip", section=bay.section, bay=bay.index, z=0,
                    h=max(1, min(clear - 1, 80)), fixed_to=self.carrier(bay), **box)  # fmt: skip

    def meets_sides(self, part: Part, bay: Bay) -> bool:
        if self.axis == "y":
            return super().meets_sides(part, bay)
        return part.y == bay.y and part.d == bay.depth

    def takes(self, part: Part, clear: float) -> tuple[float, float]:
        foot = part.y if self.axis == "y" else part.x
        return float(foot), foot + self.table.strip + clear


class Strips(Insert):
    """Dividers across the drawer."""

    id = "strips"


class Lanes(Insert):
    """Dividers from front to back."""

    id = "lanes"
    axis = "x"


class Trays(Insert):
    """Bought trays in rows on a coarse pitch."""

    id = "trays"
