"""Drawer inserts: compartments that lie freely on the floor of a drawer, between dividers that cross, or trays of fixed
sizes. Another search than that of walls lays them out.
"""

from collections import Counter
from collections.abc import Iterator
from decimal import Decimal
from typing import ClassVar

from ...survey import Envelope
from ..family import CENT, Extra, Family, Finish, Row, Shape, Table
from ..parts import Bay, DrawerFloor, Part, Surface
from ..roles import Role


class Insert(Family):
    """What dividers and trays have in common: one bay to a drawer, its whole floor."""

    places = frozenset({"drawer"})
    drills = False
    laid_out_apart = True

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
        return (
            Bay(section=envelope.section, family=self.id, x=row.x, w=w, y=y, depth=depth, hang_depth=depth, z0=y,
                z1=y + depth, pitch=self.table.pitch, pulls=True, has_base=False,
                drawer=DrawerFloor(clear=row.shape.height)),
        )  # fmt: skip

    def structure(self, envelope: Envelope, row: Row, bays: tuple[Bay, ...], finish: Finish) -> tuple[Part, ...]:
        return ()

    def capacity(self, role: Role, bay: Bay) -> float:
        return self.clear_width(role, bay)

    def carrier(self, bay: Bay) -> Surface:
        return "drawer"

    def meets_sides(self, part: Part, bay: Bay) -> bool:
        return bay.x <= part.x and part.x + part.w <= bay.x + bay.w

    def takes(self, part: Part, clear: float) -> tuple[float, float]:
        """Of the drawer's depth: what is before and behind the compartment."""
        return float(part.y), float(part.y + part.d)

    def placed(self, bay: Bay, part_id: str, role: Role, z: int, height: int = 0) -> Part:
        """A compartment of the whole floor; `cell` makes smaller ones."""
        clear = bay.drawer.clear if bay.drawer else 1
        return self.cell(bay, part_id, bay.x, bay.y, bay.w, bay.depth, height or clear)

    def cell(self, bay: Bay, part_id: str, x: int, y: int, w: int, d: int, h: int) -> Part:
        """A compartment of a size at a place on the floor of a drawer."""
        return Part(id=part_id, item=f"{self.id}.cell", role="compartment", section=bay.section, bay=bay.index, x=x, y=y,
                    z=0, w=w, d=d, h=h, fixed_to="drawer")  # fmt: skip


class DividerTable(Table):
    """Thicknesses in which strip is sold, and its greatest height; how much wider than it is thick a slot is cut; the least
    wood between two slots; mm.
    """

    thicknesses: tuple[int, ...]
    strip_height: int
    slot_play: float
    slot_web: float


class Dividers(Insert):
    """Compartments between strips that are cut to measure and halved where they cross: what is clear between them."""

    Numbers: ClassVar[type[Table]] = DividerTable
    table: DividerTable
    id = "dividers"

    def height_in(self, bay: Bay) -> int:
        """How high its strips are in a drawer: lower than it by a hair, and no higher than holds things apart."""
        return max(1, min((bay.drawer.clear if bay.drawer else 1) - 1, self.table.strip_height))

    def divider(self, bay: Bay, part_id: str, x: int, y: int, w: int, d: int) -> Part:
        """A strip between cells."""
        return Part(id=part_id, item=f"{self.id}.divider", role="divider", section=bay.section, bay=bay.index, x=x, y=y,
                    z=0, w=w, d=d, h=self.height_in(bay), fixed_to="drawer")  # fmt: skip


class TrayTable(Table):
    """`wall` is the thickness of a tray's sides; `pack` how many of a size are sold together."""

    wall: int
    pack: int


class TraySet(Insert):
    """Trays of fixed sizes, set freely, either way round: a cell is a tray from outside to outside."""

    Numbers: ClassVar[type[Table]] = TrayTable
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
