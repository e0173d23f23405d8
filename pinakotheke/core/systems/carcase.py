"""Carcase: free-standing frames on a plinth, bored on the 32 mm system.

Two sides, top, bottom and back; inside: shelf, rail, drawer, pull-out tray. A frame over an obstacle that must stay
reachable, or that stands out further than the gap behind it, is not possible: such obstacles part the run.
"""

from decimal import Decimal
from math import hypot

from ..survey import Envelope
from ..tables import value
from .beams import shelf_carries
from .family import Component, Family, Shape, blocked_heights, comes_out
from .parts import Bay, Part, Role


class Carcase(Family):
    """See the module."""

    id = "carcase"
    stands = True
    roles = frozenset({"base", "shelf", "rail", "drawer", "tray"})

    @property
    def modules(self) -> tuple[int, ...]:
        return tuple(self.table["widths"])

    @property
    def ends(self) -> int:
        return 0

    def shapes(self, envelope: Envelope) -> tuple[Shape, ...]:
        room = envelope.y_to - envelope.y_from
        return tuple(
            Shape(height=h, depth=d, member=h)
            for h in sorted(self.table["heights"], reverse=True)
            for d in sorted(self.table["depths"], reverse=True)
            if h <= envelope.z_to and d <= room
        )

    def tilts_up(self, shape: Shape, ceiling: float) -> bool:
        """Whether the frame, built lying down without its plinth, can be tilted up under the ceiling (D)."""
        return hypot(shape.height - self.table["plinth"], shape.depth) + value("fit.diagonal_room") <= ceiling

    def stretches(self, envelope: Envelope, shape: Shape) -> tuple[tuple[int, int], ...]:
        start, end = envelope.span(0, shape.height)
        cuts = sorted(
            (c.x0, c.x1) for c in envelope.closed
            if c.z0 < shape.height and c.y1 > envelope.y_from and c.y0 < envelope.y_from + shape.depth
        )  # fmt: skip
        free, at = [], start
        for x0, x1 in cuts:
            if x0 > at:
                free.append((at, min(x0, end)))
            at = max(at, x1)
        if at < end:
            free.append((at, end))
        return tuple(free)

    def allows(self, envelope: Envelope, shape: Shape, x: int, widths: tuple[int, ...]) -> bool:
        return any(a <= x and x + sum(widths) <= b for a, b in self.stretches(envelope, shape))

    def bays(self, envelope: Envelope, shape: Shape, rows: tuple[tuple[int, tuple[int, ...]], ...]) -> tuple[Bay, ...]:
        t, plinth = self.table["board"], self.table["plinth"]
        found: list[Bay] = []
        for start, widths in rows:
            x = start
            for width in widths:
                inner, clear = x + t, width - 2 * t
                found.append(
                    Bay(
                        index=len(found),
                        x=inner,
                        w=clear,
                        y=envelope.y_from + self.table["back"],
                        depth=shape.depth - self.table["back"] - self.table["front_inset"],
                        hang_depth=shape.depth - self.table["back"],
                        z0=plinth + t,
                        z1=shape.height - t,
                        pitch=self.table["pitch"],
                        pulls=comes_out(envelope, inner, inner + clear),
                        has_base=True,
                        blocked=blocked_heights(envelope, x, x + width, envelope.y_from + shape.depth),
                    )
                )
                x += width
        return tuple(found)

    def structure(self, envelope: Envelope, shape: Shape, bays: tuple[Bay, ...]) -> tuple[Part, ...]:
        t, plinth = self.table["board"], self.table["plinth"]
        parts: list[Part] = []
        for bay in bays:
            name = f"frame-{bay.index + 1}"
            x, w = bay.x - t, bay.w + 2 * t
            parts.append(
                Part(
                    id=name, item="carcase.frame", role="frame", bay=bay.index, x=x, y=envelope.y_from, z=plinth,
                    w=w, d=shape.depth, h=shape.height - plinth, fixed_to="wall",
                )
            )  # fmt: skip
            parts.append(
                Part(
                    id=f"plinth-{bay.index + 1}", item="carcase.plinth", role="plinth", bay=bay.index, x=x,
                    y=envelope.y_from, z=0, w=w, d=shape.depth - 40, h=plinth, fixed_to="floor",
                )
            )  # fmt: skip
        parts += self._fillers(envelope, shape, bays)
        return tuple(parts)

    def _fillers(self, envelope: Envelope, shape: Shape, bays: tuple[Bay, ...]) -> list[Part]:
        """Strips that close the slack at the two ends, where it is narrow enough and nothing needs the place."""
        t, widest = self.table["board"], self.table["filler_widest"]
        if not bays:
            return []
        left, right = bays[0].x - t, bays[-1].x + bays[-1].w + t
        wall_right = int(envelope.clear_width(0, shape.height))
        strips = []
        for name, x, w in (("left", 0, left), ("right", right, wall_right - right)):
            y = envelope.y_from + shape.depth - t
            free = not any(c.meets(x, x + w, y, y + t, 0, shape.height) for c in envelope.closed)
            if 3 <= w <= widest and free:
                strips.append(
                    Part(
                        id=f"filler-{name}", item="carcase.filler", role="filler", x=x, y=y, z=0, w=w, d=t,
                        h=shape.height, fixed_to=f"frame {name}",
                    )
                )  # fmt: skip
        return strips

    def component(self, role: Role, bay: Bay, drawer_front: int = 0) -> Component:
        table = self.table
        rating, height = table["rating"].get(role, 0), table["board"]
        capacity: float = bay.w
        if role == "rail":
            height, rating = int(value("rail.outside")), table["rating"]["rail_per_m"] * bay.w / 1000
        elif role == "drawer":
            height = drawer_front or table["drawer_fronts"][0]
            capacity = self.clear_width(role, bay) * self.clear_depth(role, bay)
        elif role == "tray":
            height, capacity = table["tray_height"], self.clear_width(role, bay)
        elif role == "shelf":
            # The least of what the maker states and what it carries without a visible sag.
            rating = min(rating, shelf_carries(bay.w, bay.depth, height))
        part = self._sized(role, bay, height)
        return Component(
            role=role, item=f"carcase.{role}", height=height, price=self.price(part), rating=rating, capacity=capacity
        )

    def _sized(self, role: Role, bay: Bay, height: int) -> Part:
        return Part(id="x", item=f"carcase.{role}", role=role, bay=bay.index, x=bay.x, y=bay.y, z=bay.z0, w=bay.w,
                    d=bay.depth, h=height, fixed_to="")  # fmt: skip

    def brackets(self, part: Part, bay: Bay) -> tuple[Part, ...]:
        return ()

    def price(self, part: Part) -> Decimal:
        if part.role == "frame":
            w, d, h = part.w, part.d, part.h
            return self.priced("frame", area_mm2=2 * h * d + 2 * w * d + w * h)
        if part.role in ("shelf", "cover"):
            return self.priced("shelf", area_mm2=part.w * part.d)
        if part.role in ("rail", "plinth"):
            return self.priced(part.role, length_mm=part.w)
        if part.role == "filler":
            return self.priced("filler", length_mm=part.h)
        if part.role == "drawer":
            return self.priced("drawer", area_mm2=part.w * (part.h + part.d))
        if part.role == "tray":
            return self.priced("tray", area_mm2=part.w * part.d)
        return Decimal(0)
