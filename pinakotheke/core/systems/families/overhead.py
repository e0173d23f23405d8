"""Ceiling rack: a platform hung from the joists, clear of a parked car, its doors and the overhead door."""

from collections.abc import Iterator

from ...survey import Envelope
from ..family import Extra, Family, Finish, Row, Shape, Table
from ..parts import Bay, OnPart, Part
from ..standing import free_stretches

STRUT = 30
SCREWS_PER_STRUT = 2


class OverheadTable(Table):
    """How far platforms hang from the ceiling, how low at the lowest, widths and depth, mm."""

    drops: tuple[int, ...]
    lowest: int
    bays: tuple[int, ...]
    depth: int


class Overhead(Family):
    """See the module."""

    id = "overhead"
    Numbers = OverheadTable
    table: OverheadTable
    companion = 2
    hangs_over = True

    @property
    def modules(self) -> tuple[int, ...]:
        return self.table.bays

    def shapes(self, envelope: Envelope, finish: Finish) -> tuple[Shape, ...]:
        depth = min(self.table.depth, envelope.y_to - envelope.y_from)
        return tuple(
            Shape(height=envelope.z_to, depth=depth, member=drop)
            for drop in self.table.drops if envelope.z_to - drop >= self.table.lowest
        )  # fmt: skip

    def _foot(self, shape: Shape) -> int:
        return shape.height - shape.member

    def stretches(self, envelope: Envelope, shape: Shape) -> tuple[tuple[int, int], ...]:
        start, end = envelope.span(self._foot(shape), shape.height)
        y0, y1 = envelope.y_from, envelope.y_from + shape.depth
        return free_stretches(start, end, [
            (c.x0, c.x1) for c in envelope.closed
            if c.z1 > self._foot(shape) and c.z0 < shape.height and c.y0 < y1 and y0 < c.y1
        ])  # fmt: skip

    def bays(self, envelope: Envelope, row: Row) -> tuple[Bay, ...]:
        found, x = [], row.x
        for n, w in enumerate(row.widths):
            found.append(
                Bay(index=n, section=envelope.section, family=self.id, x=x, w=w, y=envelope.y_from,
                    depth=row.shape.depth - STRUT, hang_depth=row.shape.depth,
                    z0=self._foot(row.shape), z1=row.shape.height, pitch=self.table.pitch, pulls=False,
                    has_base=False, last=n == len(row.widths) - 1)
            )  # fmt: skip
            x += w
        return tuple(found)

    def structure(self, envelope: Envelope, row: Row, bays: tuple[Bay, ...], finish: Finish) -> tuple[Part, ...]:
        y = envelope.y_from + row.shape.depth - STRUT
        z = self._foot(row.shape)
        at = [(f"hanger-{b.index + 1}", b.x) for b in bays]
        at.append((f"hanger-{bays[-1].index + 1}-end", bays[-1].x + bays[-1].w - STRUT))
        return tuple(
            Part(id=name, item=f"{self.id}.hanger", role="hanger", x=x, y=y, z=z, w=STRUT, d=STRUT, h=row.shape.member,
                 fixed_to="ceiling")
            for name, x in at
        )  # fmt: skip

    def carrier(self, bay: Bay) -> OnPart:
        return OnPart(part=f"hanger-{bay.index + 1}")

    def extras(self, parts: tuple[Part, ...]) -> Iterator[Extra]:
        screws = 2 * SCREWS_PER_STRUT * sum(p.role == "hanger" for p in parts)
        yield from self._packed("screws", "Lag screws", screws, "screw")
