"""Trolley: an open box on castors, rolled out whole; sized to the height at the far end of a sloping place.

What only asks to be reached may have a trolley before it, since it rolls away.
"""

from ...survey import Envelope
from ..family import Family, Finish, Row, Shape, Table
from ..parts import Bay, OnPart, Part
from ..standing import blocked_heights, comes_out


class TrolleyTable(Table):
    """Thickness of its boards, height of its castors, widths, mm."""

    board: int
    castor: int
    widths: tuple[int, ...]


class Trolley(Family):
    """See the module."""

    id = "trolley"
    Numbers = TrolleyTable
    table: TrolleyTable
    companion = 1
    tips = frozenset({"trolley"})
    places = frozenset({"run", "void"})
    drills = False
    stands = False
    """A floor kept clear may have what has wheels."""

    @property
    def modules(self) -> tuple[int, ...]:
        return self.table.widths

    def shapes(self, envelope: Envelope, finish: Finish) -> tuple[Shape, ...]:
        return self.standing_shapes(envelope)

    def _passes(self, loose: bool) -> bool:
        return loose

    def bays(self, envelope: Envelope, row: Row) -> tuple[Bay, ...]:
        found, t, x = [], self.table.board, row.x
        y = envelope.y_from + row.shape.setback
        for n, width in enumerate(row.widths):
            w = width - 2 * t
            found.append(
                Bay(index=n, section=envelope.section, family=self.id, x=x + t, w=w, y=y + t, depth=row.shape.depth - t,
                    hang_depth=row.shape.depth - t, z0=self.table.castor + t, z1=row.shape.height,
                    pitch=self.table.pitch, pulls=comes_out(envelope, x, x + width), has_base=True, loose=True,
                    last=n == len(row.widths) - 1,
                    blocked=tuple(b for b in blocked_heights(envelope, x, x + width, y, y + row.shape.depth)
                                  if not b.loose))
            )  # fmt: skip
            x += width
        return tuple(found)

    def structure(self, envelope: Envelope, row: Row, bays: tuple[Bay, ...], finish: Finish) -> tuple[Part, ...]:
        t, castor = self.table.board, self.table.castor
        return tuple(
            Part(id=f"trolley-{b.index + 1}", item=f"{self.id}.trolley", role="trolley", bay=b.index, x=b.x - t, y=b.y - t,
                 z=castor, w=b.w + 2 * t, d=row.shape.depth, h=row.shape.height - castor, fixed_to="floor")
            for b in bays
        )  # fmt: skip

    def carrier(self, bay: Bay) -> OnPart:
        return OnPart(part=f"trolley-{bay.index + 1}")
