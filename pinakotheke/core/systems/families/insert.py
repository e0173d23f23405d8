"""Drawer inserts. Rows: a drawer's floor parted by strips or rows of trays, each a compartment like any other, only that
what is a height in a wardrobe is here a depth (dividers across, trays) or a width (dividers along). Cells: compartments
that lie freely on the floor, between dividers that cross, or trays of fixed sizes.
"""

from collections import Counter
from collections.abc import Iterator
from decimal import Decimal
from typing import ClassVar, Literal

from ...survey import Envelope
from ..family import CENT, Extra, Family, Finish, Row, Shape, Table
from ..parts import Bay, Blocked, DrawerFloor, Part, Surface
from ..roles import Role


class InsertTable(Table):
    """Thickness of a strip, mm."""

    strip: int


class Insert(Family):
    """What the three kinds of insert have in common."""

    Numbers: ClassVar[type[Table]] = InsertTable
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
        if part.role == "compartment":
            return bay.x <= part.x and part.x + part.w <= bay.x + bay.w
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


class OfCells(Insert):
    """Compartments that lie freely on the floor: another search lays them out."""

    laid_out_apart = True

    def capacity(self, role: Role, bay: Bay) -> float:
        return self.clear_width(role, bay)

    def placed(self, bay: Bay, part_id: str, role: Role, z: int, height: int = 0) -> Part:
        """A compartment of the whole floor; `cell` makes smaller ones."""
        clear = bay.drawer.clear if bay.drawer else 1
        return self.cell(bay, part_id, bay.x, bay.y, bay.w, bay.depth, height or clear)

    def cell(self, bay: Bay, part_id: str, x: int, y: int, w: int, d: int, h: int) -> Part:
        """A compartment of a size at a place on the floor of a drawer."""
        return Part(id=part_id, item=f"{self.id}.cell", role="compartment", section=bay.section, bay=bay.index, x=x, y=y,
                    z=0, w=w, d=d, h=h, fixed_to="drawer")  # fmt: skip


class DividerTable(InsertTable):
    """Greatest height of a strip; how much wider than it is thick a slot is cut; the least wood between two slots; mm."""

    strip_height: int
    slot_play: float
    slot_web: float


class Dividers(OfCells):
    """Compartments between strips that are cut to measure and halved where they cross: what is clear between them."""

    Numbers = DividerTable
    table: DividerTable
    id = "dividers"

    def height_in(self, bay: Bay) -> int:
        """How high its strips are in a drawer: lower than it by a hair, and no higher than holds things apart."""
        return max(1, min((bay.drawer.clear if bay.drawer else 1) - 1, self.table.strip_height))

    def divider(self, bay: Bay, part_id: str, x: int, y: int, w: int, d: int) -> Part:
        """A strip between cells."""
        return Part(id=part_id, item=f"{self.id}.divider", role="divider", section=bay.section, bay=bay.index, x=x, y=y,
                    z=0, w=w, d=d, h=self.height_in(bay), fixed_to="drawer")  # fmt: skip


class TrayTable(InsertTable):
    """`wall` is the thickness of a tray's sides; `pack` how many of a size are sold together."""

    wall: int
    pack: int


class TraySet(OfCells):
    """Trays of fixed sizes, set freely, either way round: a cell is a tray from outside to outside."""

    Numbers = TrayTable
    table: TrayTable
    id = "tray-set"
    by_length = frozenset({"compartment"})

    @property
    def sizes(self) -> tuple[tuple[int, int, int, float], ...]:
        """Width, depth, height and price of every size, the smallest first."""
        return tuple(sorted(self.table.listed["cell"], key=lambda s: (s[0] * s[1], s[2])))

    def extras(self, parts: tuple[Part, ...]) -> Iterator[Extra]:
        """Trays, size by size, in whole packs."""
        found = Counter((max(p.w, p.d), min(p.w, p.d), p.h) for p in parts if p.role == "compartment")
        prices = {(max(w, d), min(w, d), h): price for w, d, h, price in self.sizes}
        for (w, d, h), needed in sorted(found.items()):
            price = Decimal(str(prices.get((w, d, h), 0.0) * self.table.pack)).quantize(CENT)
            name = f"{self.table.names['cell']} {w} × {d} × {h}"
            yield Extra(
                f"cell-{w}x{d}x{h}", f"{name}, pack of {self.table.pack}", needed, self.table.pack, price, "piece"
            )
