"""Rack: posts and shelves on clips; it stands on the floor, and neighbours share the posts between them."""

from collections.abc import Iterator

from ...survey import Envelope
from ..family import Extra, Family, Finish, Row, Shape, Table
from ..parts import Bay, OnPart, Part
from ..roles import Role
from ..standing import blocked_heights, comes_out

CLIPS_PER_SHELF = 4


class RackTable(Table):
    """Width of a post, the lowest shelf, widths between posts, mm."""

    post: int
    first: int
    bays: tuple[int, ...]


class Rack(Family):
    """See the module."""

    id = "rack"
    is_open_above = True
    Numbers = RackTable
    table: RackTable
    tips = frozenset({"post"})
    stands = True
    drills = False
    places = frozenset({"run", "void"})

    @property
    def modules(self) -> tuple[int, ...]:
        return self.table.bays

    @property
    def ends(self) -> int:
        return self.table.post

    def shapes(self, envelope: Envelope, finish: Finish) -> tuple[Shape, ...]:
        return self.standing_shapes(envelope)

    def stretches(self, envelope: Envelope, shape: Shape) -> tuple[tuple[int, int], ...]:
        """The clear width: it has no back, so what stands out of the wall closes only its own heights."""
        return (envelope.span(0, shape.height),)

    def barred(self, envelope: Envelope, shape: Shape) -> tuple[tuple[int, int], ...]:
        y = envelope.y_from + shape.setback
        return tuple(
            (c.x0 - self.ends, c.x1) for c in envelope.closed
            if c.y0 < y + shape.depth and y < c.y1 and c.z0 < shape.height and c.z1 > 0
        )  # fmt: skip

    def bays(self, envelope: Envelope, row: Row) -> tuple[Bay, ...]:
        found, post, y = [], self.ends, envelope.y_from + row.shape.setback
        x = row.x + post
        for n, width in enumerate(row.widths):
            w = width - post
            found.append(
                Bay(index=n, section=envelope.section, family=self.id, x=x, w=w, y=y, depth=row.shape.depth,
                    hang_depth=row.shape.depth, z0=0, z1=row.shape.height, pitch=self.table.pitch,
                    pulls=comes_out(envelope, x, x + w), has_base=False, first=self.table.first,
                    last=n == len(row.widths) - 1,
                    blocked=blocked_heights(envelope, x, x + w, y, y + row.shape.depth))
            )  # fmt: skip
            x += width
        return tuple(found)

    def structure(self, envelope: Envelope, row: Row, bays: tuple[Bay, ...], finish: Finish) -> tuple[Part, ...]:
        post, y = self.ends, envelope.y_from + row.shape.setback
        at = [(f"post-{b.index + 1}", b.x - post) for b in bays]
        at.append((f"post-{bays[-1].index + 1}-end", bays[-1].x + bays[-1].w))
        return tuple(
            Part(id=name, item=f"{self.id}.post", role="post", x=x, y=y, z=0, w=post, d=row.shape.depth, h=row.shape.height,
                 fixed_to="floor")
            for name, x in at
        )  # fmt: skip

    def carrier(self, bay: Bay) -> OnPart:
        return OnPart(part=f"post-{bay.index + 1}")

    def placed(self, bay: Bay, part_id: str, role: Role, z: int, height: int = 0) -> Part:
        part = super().placed(bay, part_id, role, z, height)
        if role == "floor":
            return part.model_copy(update={"fixed_to": "floor"})
        return part.model_copy(update={"d": 30}) if role == "hooks" else part

    def extras(self, parts: tuple[Part, ...]) -> Iterator[Extra]:
        shelves, posts = (sum(p.role == role for p in parts) for role in ("shelf", "post"))
        yield from self._packed("clips", "Shelf clips", CLIPS_PER_SHELF * shelves, "clip")
        yield from self._packed("anchor", "Wall anchor bracket", posts, "piece")
