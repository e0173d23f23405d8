"""The made-up family itself: one module, one table, nothing else."""

import tomllib
from pathlib import Path

from pinakotheke.core.survey import Envelope
from pinakotheke.core.systems import Bay, Family, Finish, OnPart, Part, Row, Shape
from pinakotheke.core.systems.family import Table
from pinakotheke.core.systems.standing import blocked_heights, comes_out


class LadderTable(Table):
    """Width of a stile, widths, depth and height, mm."""

    stile: int
    widths: tuple[int, ...]
    depth: int
    height: int


class Ladder(Family):
    """See the module."""

    Numbers = LadderTable
    table: LadderTable
    id = "ladder"
    stands = True
    drills = False

    def __init__(self) -> None:
        super().__init__(tomllib.loads(Path(__file__).with_suffix(".toml").read_text("utf-8")))

    @property
    def modules(self) -> tuple[int, ...]:
        return self.table.widths

    def shapes(self, envelope: Envelope, finish: Finish) -> tuple[Shape, ...]:
        height, depth = self.table.height, self.table.depth
        fits = height <= envelope.z_to and depth <= envelope.y_to - envelope.y_from
        return (Shape(height=height, depth=depth, member=height),) if fits else ()

    def bays(self, envelope: Envelope, row: Row) -> tuple[Bay, ...]:
        t, found, x = self.table.stile, [], row.x
        for n, width in enumerate(row.widths):
            found.append(
                Bay(index=n, section=envelope.section, family=self.id, x=x + t, w=width - 2 * t, y=envelope.y_from,
                    depth=row.shape.depth, hang_depth=row.shape.depth, z0=0, z1=row.shape.height, first=200,
                    pitch=self.table.pitch, pulls=comes_out(envelope, x, x + width), has_base=False,
                    blocked=blocked_heights(envelope, x, x + width, envelope.y_from, envelope.y_from + row.shape.depth))
            )  # fmt: skip
            x += width
        return tuple(found)

    def structure(self, envelope: Envelope, row: Row, bays: tuple[Bay, ...], finish: Finish) -> tuple[Part, ...]:
        t = self.table.stile
        return tuple(
            Part(id=f"post-{b.index + 1}{side}", item="ladder.post", role="post", x=x, y=b.y, z=0, w=t, d=b.depth,
                 h=row.shape.height, fixed_to="floor")
            for b in bays for side, x in (("", b.x - t), ("-end", b.x + b.w))
        )  # fmt: skip

    def carrier(self, bay: Bay) -> OnPart:
        return OnPart(part=f"post-{bay.index + 1}")
