"""Rack: posts and shelves on clips; it stands on the floor, and neighbours share the posts between them."""

from collections.abc import Iterator
from decimal import Decimal

from ...survey import Envelope
from ..family import Family, Finish, Row, Shape
from ..parts import Bay, Part, Role
from ..standing import blocked_heights, comes_out

CLIPS_PER_SHELF = 4


class Rack(Family):
    """See the module."""

    id = "rack"
    stands = True
    drills = False
    places = frozenset({"run", "void"})

    @property
    def modules(self) -> tuple[int, ...]:
        return tuple(self.table["bays"])

    @property
    def ends(self) -> int:
        return int(self.table["post"])

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
                    hang_depth=row.shape.depth, z0=0, z1=row.shape.height, pitch=self.table["pitch"],
                    pulls=comes_out(envelope, x, x + w), has_base=False, first=self.table["first"],
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

    def carrier(self, bay: Bay) -> str:
        return f"post-{bay.index + 1}"

    def placed(self, bay: Bay, part_id: str, role: Role, z: int, height: int = 0) -> Part:
        part = super().placed(bay, part_id, role, z, height)
        if role == "floor":
            return part.model_copy(update={"fixed_to": "floor"})
        return part.model_copy(update={"d": 30}) if role == "hooks" else part

    def anchored(self, part: Part) -> bool:
        return part.role == "post"

    def extras(self, parts: tuple[Part, ...]) -> Iterator[tuple[str, str, int, int, Decimal, str]]:
        clips = CLIPS_PER_SHELF * sum(p.role == "shelf" for p in parts)
        if clips:
            pack = self.table["price"]["clips"]["pack"]
            yield ("clips", f"Shelf clips, bag of {pack}", clips, pack, self.priced("clips"), "clip")
        posts = sum(p.role == "post" for p in parts)
        if posts:
            yield ("anchor", "Wall anchor bracket", posts, 1, self.priced("anchor"), "piece")
