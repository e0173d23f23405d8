"""Track and standard: a level top track screwed to the studs, slotted standards hung from it, brackets in the slots.

A bay is the room between two standards; neighbours share the standard between them. The floor stays free. An
obstacle behind a bay closes only its own height range; a standard may not stand on one.
"""

from decimal import Decimal
from itertools import accumulate

from ..survey import Envelope
from ..tables import value
from .beams import shelf_carries
from .family import CENT, Component, Family, Shape, blocked_heights, comes_out
from .parts import Bay, Part, Role

TRACK_HEIGHT = 30
"""Height of the top track, mm; invented."""


class Track(Family):
    """See the module."""

    id = "track"
    stands = False
    roles = frozenset({"shelf", "rail"})

    @property
    def modules(self) -> tuple[int, ...]:
        return tuple(self.table["bays"])

    @property
    def ends(self) -> int:
        return int(self.table["standard_width"])

    def shapes(self, envelope: Envelope) -> tuple[Shape, ...]:
        table, room = self.table, envelope.y_to - envelope.y_from
        top = envelope.z_to - table["top_gap"]
        found = []
        for length in sorted(table["standards"], reverse=True):
            if length + table["foot_gap"] > top:
                continue
            # The run hangs from as high as it must to clear the foot gap, not from the ceiling: reach rules.
            found += [
                Shape(height=length + table["foot_gap"], depth=depth, member=length)
                for depth in sorted(table["depths"], reverse=True)
                if depth <= room
            ]
        return tuple(found)

    def stretches(self, envelope: Envelope, shape: Shape) -> tuple[tuple[int, int], ...]:
        return (envelope.span(0, shape.height),)

    def allows(self, envelope: Envelope, shape: Shape, x: int, widths: tuple[int, ...]) -> bool:
        start, end = envelope.span(0, shape.height)
        if x < start or x + sum(widths) + self.ends > end:
            return False
        foot, depth, y = self.table["foot_gap"], self.table["standard_depth"], envelope.y_from
        top = shape.height + TRACK_HEIGHT
        return not any(
            region.meets(x, x + sum(widths) + self.ends, y, y + depth, shape.height, top)
            or any(
                region.meets(at, at + self.ends, y, y + depth, foot, shape.height)
                for at in accumulate(widths, initial=x)
            )
            for region in envelope.closed
        )

    def bays(self, envelope: Envelope, shape: Shape, rows: tuple[tuple[int, tuple[int, ...]], ...]) -> tuple[Bay, ...]:
        found: list[Bay] = []
        for start, widths in rows:
            x = start + self.ends // 2
            for width in widths:
                found.append(
                    Bay(
                        index=len(found),
                        x=x,
                        w=width,
                        y=envelope.y_from + self.table["standard_depth"],
                        depth=shape.depth - self.table["standard_depth"],
                        hang_depth=envelope.y_to - envelope.y_from,
                        z0=self.table["foot_gap"] + self.table["pitch"],
                        z1=shape.height,
                        pitch=self.table["pitch"],
                        pulls=comes_out(envelope, x, x + width),
                        has_base=False,
                        blocked=blocked_heights(envelope, x, x + width, envelope.y_from + shape.depth),
                    )
                )
                x += width
        return tuple(found)

    def structure(self, envelope: Envelope, shape: Shape, bays: tuple[Bay, ...]) -> tuple[Part, ...]:
        if not bays:
            return ()
        table, y, half = self.table, envelope.y_from, self.ends // 2
        x0, x1 = bays[0].x - half, bays[-1].x + bays[-1].w + half
        parts = [
            Part(
                id="track-1", item="track.track", role="track", x=x0, y=y, z=shape.height, w=x1 - x0,
                d=table["standard_depth"], h=TRACK_HEIGHT, fixed_to="wall",
            )
        ]  # fmt: skip
        for n, at in enumerate((*(b.x for b in bays), bays[-1].x + bays[-1].w)):
            parts.append(
                Part(
                    id=f"standard-{n + 1}", item="track.standard", role="standard", x=at - half, y=y,
                    z=table["foot_gap"], w=self.ends, d=table["standard_depth"], h=shape.member, fixed_to="track-1",
                )
            )  # fmt: skip
        return tuple(parts)

    def component(self, role: Role, bay: Bay, drawer_front: int = 0) -> Component:
        table = self.table
        two_brackets = 2 * self._bracket_price(bay.depth + table["standard_depth"])
        if role == "rail":
            height, rating = int(value("rail.outside")), table["rating"]["rail_per_m"] * bay.w / 1000
            price = self.priced("rail", length_mm=bay.w) + two_brackets
        else:
            height = table["board"]
            rating = min(table["rating"]["shelf"], shelf_carries(bay.w, bay.depth, height))
            price = self.priced("shelf", area_mm2=bay.w * bay.depth) + two_brackets
        return Component(role=role, item=f"track.{role}", height=height, price=price,
                         rating=min(rating, 2 * table["rating"]["bracket"]), capacity=bay.w)  # fmt: skip

    def brackets(self, part: Part, bay: Bay) -> tuple[Part, ...]:
        if part.role not in ("shelf", "rail", "cover"):
            return ()
        # Under a shelf, over a rail: the rail hangs from its brackets. Each bay has its own pair, side by side
        # in the shared standard's two slot rows.
        z = part.z - 12 if part.role != "rail" else part.z + part.h
        return tuple(
            Part(
                id=f"{part.id}-b{n}", item="track.bracket", role="bracket", bay=bay.index, x=x, y=bay.y, z=z, w=10,
                d=bay.depth, h=12, fixed_to=f"standard-{bay.index + n}",
            )
            for n, x in ((1, bay.x), (2, bay.x + bay.w - 10))
        )  # fmt: skip

    def price(self, part: Part) -> Decimal:
        table = self.table
        if part.role == "track":
            return sum((Decimal(str(table["price"]["track"][str(n)])) for n in self.track_pieces(part.w)), Decimal(0))
        if part.role == "standard":
            return self.priced("standard", length_mm=part.h)
        if part.role == "bracket":
            return self._bracket_price(part.d + table["standard_depth"])
        if part.role in ("shelf", "cover"):
            return self.priced("shelf", area_mm2=part.w * part.d)
        if part.role == "rail":
            return self.priced("rail", length_mm=part.w)
        return Decimal(0)

    def track_pieces(self, length: int) -> tuple[int, ...]:
        """Lengths of track to buy for a run: whole longest pieces, then the shortest that covers the rest."""
        lengths: list[int] = sorted(self.table["track_lengths"])
        whole, rest = divmod(length, lengths[-1])
        return (lengths[-1],) * whole + ((next(n for n in lengths if n >= rest),) if rest else ())

    def _bracket_price(self, depth: int) -> Decimal:
        prices = self.table["price"]["bracket"]
        fits = next((key for key in sorted(prices, key=int) if int(key) >= depth), max(prices, key=int))
        return Decimal(str(prices[fits])).quantize(CENT)
