"""Track and standard: a level top track screwed to the studs, slotted standards hung from it, brackets in the slots.

A bay is the room between two standards; neighbours share the standard between them. The floor stays free, and things
may stand on it. An obstacle behind a bay closes only its own height range; a standard may not stand on one.
"""

from collections import Counter
from collections.abc import Iterator
from decimal import Decimal
from math import ceil

from ...survey import Envelope
from ..family import CENT, Extra, Family, Finish, OnTwoSides, Row, Shape, Table
from ..parts import Bay, OnPart, Part
from ..roles import HANGING, Role
from ..standing import blocked_heights, comes_out, free_stretches, setback_for

SCREWS_PER_TRACK_METRE = 5
SCREWS_PER_STANDARD = 2
BRACKET = 12
"""Height of a bracket under its board, mm; invented."""


class TrackTable(Table):
    """Sizes of standards and their track, mm."""

    board: int
    standard_width: int
    standard_depth: int
    bays: tuple[int, ...]
    top_gap: int
    hung_at: tuple[int, ...]
    track_lengths: tuple[int, ...]
    track_height: int
    bracket_rating: float = 18
    """Kilograms that one bracket carries."""


class Track(OnTwoSides, Family):
    """See the module."""

    id = "track"
    is_open_above = True
    Numbers = TrackTable
    table: TrackTable
    screwed = frozenset({"track"})
    by_length = frozenset({"track"})
    stands = False

    @property
    def modules(self) -> tuple[int, ...]:
        return self.table.bays

    @property
    def ends(self) -> int:
        return self.table.standard_width

    def shapes(self, envelope: Envelope, finish: Finish) -> tuple[Shape, ...]:
        table = self.table
        top = envelope.z_to - table.top_gap
        found = []
        for length in sorted(table.standards, reverse=True):
            # It hangs from as high as it must to clear the foot gap, not from the ceiling: reach rules. Short
            # standards also hang over whatever stands below them.
            low = length + table.foot_gap
            higher = table.hung_at if low >= table.hung_at[0] else table.hung_at[:1]
            for height in sorted({low, *(max(low, h) for h in higher)}):
                # It hangs on the wall, so under a slope it is no higher than the wall behind it.
                found += [
                    Shape(height=height, depth=depth, member=length)
                    for depth in sorted(table.depths, reverse=True)
                    if height <= top and setback_for(envelope, height + table.track_height, depth) == 0
                ]
        return tuple(found)

    def highest(self, shape: Shape) -> int:
        return shape.height + self.table.track_height

    def stretches(self, envelope: Envelope, shape: Shape) -> tuple[tuple[int, int], ...]:
        """The clear width, parted where something stands in the way of the top track."""
        y, top = envelope.y_from, shape.height + self.table.track_height
        start, end = envelope.span(0, top)
        return free_stretches(start, end, [
            (c.x0, c.x1) for c in envelope.closed
            if c.y0 < y + self.table.standard_depth and y < c.y1 and c.z0 < top and shape.height < c.z1
        ])  # fmt: skip

    def barred(self, envelope: Envelope, shape: Shape) -> tuple[tuple[int, int], ...]:
        y, foot = envelope.y_from, shape.height - shape.member
        return tuple(
            (c.x0 - self.ends, c.x1) for c in envelope.closed
            if c.y0 < y + self.table.standard_depth and y < c.y1 and c.z0 < shape.height and foot < c.z1
        )  # fmt: skip

    def bays(self, envelope: Envelope, row: Row) -> tuple[Bay, ...]:
        found: list[Bay] = []
        x, y, shape = row.x + self.ends // 2, envelope.y_from, row.shape
        for width in row.widths:
            found.append(
                Bay(
                    index=len(found), section=envelope.section, family=self.id, x=x, w=width,
                    y=y + self.table.standard_depth, depth=shape.depth - self.table.standard_depth,
                    hang_depth=envelope.y_to - y, z0=0, first=shape.height - shape.member + self.table.pitch,
                    z1=shape.height, pitch=self.table.pitch, pulls=comes_out(envelope, x, x + width),
                    has_base=False, last=len(found) == len(row.widths) - 1,
                    blocked=blocked_heights(envelope, x, x + width, y, y + shape.depth),
                )
            )  # fmt: skip
            x += width
        return tuple(found)

    def structure(self, envelope: Envelope, row: Row, bays: tuple[Bay, ...], finish: Finish) -> tuple[Part, ...]:
        table, y, half, n = self.table, envelope.y_from, self.ends // 2, bays[0].index + 1
        parts = [
            Part(id=f"track-{n}", item=f"{self.id}.track", role="track", x=row.x, y=y, z=row.shape.height,
                 w=row.end + self.ends - row.x, d=table.standard_depth, h=table.track_height, fixed_to="wall")
        ]  # fmt: skip
        ends = [(f"standard-{b.index + 1}", b.x) for b in bays]
        ends.append((f"standard-{bays[-1].index + 1}-end", bays[-1].x + bays[-1].w))
        foot = row.shape.height - row.shape.member
        parts += [
            Part(id=name, item=f"{self.id}.standard", role="standard", x=at - half, y=y, z=foot, w=self.ends,
                 d=table.standard_depth, h=row.shape.member, fixed_to=OnPart(part=f"track-{n}"))
            for name, at in ends
        ]  # fmt: skip
        if finish.fascia:
            parts += [
                Part(id=f"fascia-{name.removeprefix('standard-')}", item=f"{self.id}.fascia", role="fascia",
                     x=at - half, y=y + row.shape.depth,
                     z=foot, w=self.ends, d=6, h=row.shape.member, fixed_to=OnPart(part=name))
                for name, at in ends
            ]  # fmt: skip
        return tuple(parts)

    def carrier(self, bay: Bay) -> OnPart:
        return OnPart(part=f"standard-{bay.index + 1}")

    def placed(self, bay: Bay, part_id: str, role: Role, z: int, height: int = 0) -> Part:
        part = super().placed(bay, part_id, role, z, height)
        if role == "floor":
            return part.model_copy(update={"fixed_to": "floor"})
        if role == "hooks":
            return part.model_copy(update={"d": 30})
        return part

    def brackets(self, part: Part, bay: Bay) -> tuple[Part, ...]:
        if part.role in ("floor", "hooks"):
            return ()
        # Under a shelf, over a rail: the rail hangs from its brackets. Each bay has its own pair, side by side
        # in the shared standard's two slot rows.
        z = part.z + part.h if part.role == "rail" else part.z - BRACKET
        right = f"standard-{bay.index + 1}-end" if bay.last else f"standard-{bay.index + 2}"
        return tuple(
            Part(id=f"{part.id}-b{n}", item=f"{self.id}.bracket", role="bracket", section=bay.section, bay=bay.index, x=x,
                 y=bay.y, z=z, w=10, d=bay.depth, h=12, fixed_to=on, belongs_to=part.id)
            for n, x, on in ((1, bay.x, self.carrier(bay)), (2, bay.x + bay.w - 10, OnPart(part=right)))
        )  # fmt: skip

    def takes(self, part: Part, clear: float) -> tuple[float, float]:
        low, high = super().takes(part, clear)
        # Room for the brackets of whatever is set above it.
        return low, high if part.role in HANGING else high + BRACKET

    def bears(self, part: Part, bay: Bay) -> float:
        return self.table.bracket_rating

    def rating(self, part: Part, bay: Bay) -> float:
        """Two brackets carry it, on two standards; a board carries what it can without a visible sag."""
        usual = super().rating(part, bay)
        if part.role == "floor":
            return usual
        return min(self._carries(part, bay, usual), 2 * self.table.bracket_rating)

    def price(self, part: Part) -> Decimal:
        if part.role == "track":
            prices = self.table.by_size("track")
            return sum((Decimal(str(prices[n])) for n in self.track_pieces(part.w)), Decimal(0))
        if part.role == "bracket":
            depth, prices = part.d + self.table.standard_depth, self.table.by_size("bracket")
            fits = next((size for size in prices if size >= depth), max(prices))
            return Decimal(str(prices[fits])).quantize(CENT)
        return super().price(part)

    def track_pieces(self, length: int) -> tuple[int, ...]:
        """Lengths of track to buy for a run: whole longest pieces, then the shortest that covers the rest."""
        lengths = sorted(self.table.track_lengths)
        whole, rest = divmod(length, lengths[-1])
        return (lengths[-1],) * whole + ((next(n for n in lengths if n >= rest),) if rest else ())

    def extras(self, parts: tuple[Part, ...]) -> Iterator[Extra]:
        tracks = [p for p in parts if p.role == "track"]
        for length, count in sorted(Counter(n for p in tracks for n in self.track_pieces(p.w)).items()):
            each = Decimal(str(self.table.by_size("track")[length]))
            yield Extra(f"track-{length}", "Top track, cut to length", count, 1, each, "length")
        screws = sum(ceil(SCREWS_PER_TRACK_METRE * p.w / 1000) for p in tracks)
        screws += SCREWS_PER_STANDARD * sum(p.role == "standard" for p in parts)
        yield from self._packed("screws", "Wall screws", screws, "screw")
