"""Pegs and hooks: boards with hooks on a wall or the inside of a door, narrow shelves between them."""

from collections.abc import Iterator
from itertools import pairwise

from ...survey import Envelope
from ..family import Extra, Family, Finish, Row, Shape, Table
from ..parts import Bay, Part, Surface
from ..roles import Role
from ..standing import comes_out, cut_around, setback_for

SCREWS_PER_BOARD = 4
BOARD_DEPTH = 30
TALL = 450
"""What stands out of the wall over so much of its height parts the boards, mm."""


class PegsTable(Table):
    """Widths of boards from `narrowest` to `widest` by `step`, the lowest board, mm."""

    first: int
    narrowest: int
    widest: int
    step: int
    shelf_depth: int


class Pegs(Family):
    """See the module."""

    id = "pegs"
    Numbers = PegsTable
    table: PegsTable
    companion = 3
    screwed = frozenset({"hooks", "shelf"})
    places = frozenset({"run", "door back"})

    @property
    def modules(self) -> tuple[int, ...]:
        return (self.table.narrowest, self.table.widest)

    def fillings(self, length: int) -> Iterator[tuple[int, ...]]:
        """Boards as wide as the stretch; of a long one also two or three of equal width."""
        step, narrowest, widest = self.table.step, self.table.narrowest, self.table.widest
        for n in range(1, 6):
            width = length // n // step * step if n > 1 or length > widest else length
            if narrowest <= width <= widest:
                yield (width,) * n

    def shapes(self, envelope: Envelope, finish: Finish) -> tuple[Shape, ...]:
        room = envelope.y_to - envelope.y_from
        heights = {min(h, envelope.z_to) for h in self.table.heights}
        depth = min(room, self.table.shelf_depth)
        return tuple(
            Shape(height=h, depth=depth, member=h)
            for h in sorted(heights, reverse=True)
            if depth > BOARD_DEPTH and setback_for(envelope, h, depth) == 0
        )

    def stretches(self, envelope: Envelope, shape: Shape) -> tuple[tuple[int, int], ...]:
        """The wall, parted at the edges of whatever is tall; over and under it boards still go where they can."""
        start, end = envelope.span(0, shape.height)
        tall = [
            c for c in envelope.closed
            if c.z0 < shape.height and min(c.z1, shape.height) - max(c.z0, 0) >= TALL and c.y0 < envelope.y_to
            and c.x0 < end and start < c.x1
        ]  # fmt: skip
        edges = sorted({start, end, *(x for c in tall for x in (c.x0, c.x1) if start < x < end)})
        first = self.table.first
        return tuple(
            (a, b) for a, b in pairwise(edges)
            if not any(c.x0 <= a and b <= c.x1 and c.z0 <= first and c.z1 >= shape.height - TALL for c in tall)
        )  # fmt: skip

    def allows(self, envelope: Envelope, row: Row) -> bool:
        return any(a <= row.x and row.end <= b for a, b in self.stretches(envelope, row.shape))

    def bays(self, envelope: Envelope, row: Row) -> tuple[Bay, ...]:
        found, x, y = [], row.x, envelope.y_from
        for n, w in enumerate(row.widths):
            cuts, blocked = cut_around(envelope, x, x + w, y, envelope.y_to, row.shape.height)
            found.append(
                Bay(index=n, section=envelope.section, family=self.id, x=x, w=w, y=y, depth=row.shape.depth,
                    hang_depth=envelope.y_to - y, z0=0, z1=row.shape.height, pitch=self.table.pitch,
                    pulls=comes_out(envelope, x, x + w), has_base=False, first=self.table.first,
                    last=n == len(row.widths) - 1, cuts=cuts, blocked=blocked)
            )  # fmt: skip
            x += w
        return tuple(found)

    def structure(self, envelope: Envelope, row: Row, bays: tuple[Bay, ...], finish: Finish) -> tuple[Part, ...]:
        return ()

    def carrier(self, bay: Bay) -> Surface:
        return "wall"

    def placed(self, bay: Bay, part_id: str, role: Role, z: int, height: int = 0) -> Part:
        part = super().placed(bay, part_id, role, z, height)
        if role == "floor":
            return part.model_copy(update={"fixed_to": "floor", "d": bay.hang_depth})
        return part.model_copy(update={"d": BOARD_DEPTH}) if role == "hooks" else part

    def clear_depth(self, role: Role, bay: Bay) -> float:
        return float(bay.hang_depth) if role in ("hooks", "floor") else super().clear_depth(role, bay)

    def extras(self, parts: tuple[Part, ...]) -> Iterator[Extra]:
        screws = SCREWS_PER_BOARD * sum(p.role in ("hooks", "shelf") for p in parts)
        yield from self._packed("screws", "Wall screws", screws, "screw")
