"""Carcase: free-standing frames on a plinth, bored on the 32 mm system.

Two sides, top, bottom and back. Obstacles part the run, but for a hatch, a valve or a meter that lies within a frame: its
back is cut out there, and a divider keeps what is stored off it. A wide frame made for the corner reaches behind the
front of the neighbouring run.
"""

from collections import Counter
from collections.abc import Iterator
from decimal import Decimal
from itertools import accumulate
from math import ceil, radians, sin

from ...survey import Envelope
from ...survey.closed import ClosedRegion
from ...tables import value
from ..family import CENT, Extra, Family, Finish, OnTwoSides, Row, Shape, Table
from ..parts import Bay, Blocked, OnPart, Part
from ..roles import Role
from ..standing import blocked_heights, comes_out, free_stretches, setback_for

ANCHORS_PER_FRAME = 2
CABLES = ("short", "medium", "long")
PINS_AN_END = 2
LEAST_BESIDE = 250
"""Beside what must stay reachable a frame is used from so much on, mm; common practice."""


class CarcaseTable(Table):
    """Sizes of frames: `heights` above the floor, plinth and all; `board` and `back` their thickness, mm."""

    board: int
    plinth: int
    back: int
    widths: tuple[int, ...]
    corner_widths: tuple[int, ...]
    corner_board: int
    front_inset: int
    filler_widest: int
    door: int
    sliding_doors: int
    door_widest: int
    curtain: int
    shoe_slope: int
    shoe_depth: int
    crown: int
    lights_a_driver: int
    cable_over: int
    """Of a cable, over its route: both ends and a loop, mm."""


class Carcase(OnTwoSides, Family):
    """See the module."""

    id = "carcase"
    Numbers = CarcaseTable
    table: CarcaseTable
    stands = True
    drills = False

    @property
    def modules(self) -> tuple[int, ...]:
        return self.table.widths

    @property
    def corners(self) -> tuple[int, ...]:
        return self.table.corner_widths

    def shapes(self, envelope: Envelope, finish: Finish) -> tuple[Shape, ...]:
        front = {"hinged": self.table.door, "sliding": self.table.sliding_doors, "curtain": self.table.curtain}
        found = []
        for h in sorted(self.table.heights, reverse=True):
            for d in sorted(self.table.depths, reverse=True):
                if h + (self.table.crown if finish.crown else 0) > envelope.z_to:
                    continue
                setback = setback_for(envelope, h, d + front.get(finish.doors, 0))
                if setback is not None:
                    found.append(Shape(height=h, depth=d, member=h, setback=setback))
        return tuple(found)

    def _lies_within(self, c: ClosedRegion, shape: Shape) -> bool:
        """Whether a frame may stand round a region: between its bottom and its top, what must only be reached."""
        t = self.table.board
        return c.enclosed and self.table.plinth + t <= c.z0 and c.z1 <= shape.height - t

    def stretches(self, envelope: Envelope, shape: Shape) -> tuple[tuple[int, int], ...]:
        start, end = envelope.span(0, shape.height)
        return free_stretches(start, end, [
            (c.x0, c.x1) for c in _met(envelope, start, end, shape) if not self._lies_within(c, shape)
        ])  # fmt: skip

    def barred(self, envelope: Envelope, shape: Shape) -> tuple[tuple[int, int], ...]:
        """Where two frames may not meet: their sides would stand before what must stay reachable."""
        t = self.table.board
        met = _met(envelope, *envelope.span(0, shape.height), shape)
        return tuple((c.x0 - t, c.x1 + t) for c in met if self._lies_within(c, shape))

    def bays(self, envelope: Envelope, row: Row) -> tuple[Bay, ...]:
        t, plinth, shape = self.table.board, self.table.plinth, row.shape
        y = envelope.y_from + shape.setback
        found: list[Bay] = []
        x = row.x
        for width in row.widths:
            inner, clear = self._beside(envelope, x + t, x + width - t, shape)
            blocked = blocked_heights(envelope, inner - t, inner + clear + t, y, y + shape.depth)
            if clear < LEAST_BESIDE:
                # Hardly anything is left beside what must stay reachable: the frame stays empty.
                inner, clear, blocked = x + t, width - 2 * t, (Blocked(low=plinth + t, high=shape.height),)
            found.append(
                Bay(
                    index=len(found), section=envelope.section, family=self.id, x=inner, w=clear,
                    y=y + self.table.back, depth=shape.depth - self.table.back - self.table.front_inset,
                    hang_depth=shape.depth - self.table.back, z0=plinth + t, z1=shape.height - t,
                    pitch=self.table.pitch, pulls=comes_out(envelope, inner, inner + clear), has_base=True,
                    last=len(found) == len(row.widths) - 1, blocked=blocked,
                )
            )  # fmt: skip
            x += width
        return tuple(found)

    def _beside(self, envelope: Envelope, left: int, right: int, shape: Shape) -> tuple[int, int]:
        """x and width of what is left inside a frame beside what must stay reachable, the divider taken off."""
        kept = [c for c in _met(envelope, left, right, shape) if self._lies_within(c, shape)]
        if not kept:
            return left, right - left
        t = self.table.board
        before, after = min(c.x0 for c in kept) - t, max(c.x1 for c in kept) + t
        return (left, before - left) if before - left >= right - after else (after, right - after)

    def structure(self, envelope: Envelope, row: Row, bays: tuple[Bay, ...], finish: Finish) -> tuple[Part, ...]:
        return tuple(self._standing(envelope, row, bays, finish))

    def _standing(self, envelope: Envelope, row: Row, bays: tuple[Bay, ...], finish: Finish) -> Iterator[Part]:
        t, plinth, shape = self.table.board, self.table.plinth, row.shape
        y = envelope.y_from + shape.setback
        for bay, x, w in zip(bays, accumulate(row.widths[:-1], initial=row.x), row.widths, strict=True):
            name = f"frame-{bay.index + 1}"
            on = OnPart(part=name)
            yield Part(id=name, item=f"{self.id}.frame", role="frame", bay=bay.index, x=x, y=y, z=plinth, w=w,
                       d=shape.depth, h=shape.height - plinth, fixed_to="wall")  # fmt: skip
            yield Part(id=f"{finish.base}-{bay.index + 1}", item=f"{self.id}.{finish.base}", role=finish.base,
                       bay=bay.index, x=x, y=y, z=0, w=w, d=shape.depth - 40, h=plinth, fixed_to="floor")  # fmt: skip
            if bay.w < w - 2 * t:
                at = bay.x - t if bay.x > x + t else bay.x + bay.w
                yield Part(id=f"divider-{bay.index + 1}", item=f"{self.id}.divider", role="divider", bay=bay.index, x=at,
                           y=bay.y, z=plinth + t, w=t, d=bay.depth, h=shape.height - plinth - 2 * t,
                           fixed_to=on)  # fmt: skip
            if finish.lights:
                yield Part(id=f"light-{bay.index + 1}", item=f"{self.id}.light", role="light", bay=bay.index, x=bay.x + 10,
                           y=y + shape.depth - t - 30, z=bay.z1 - 12, w=bay.w - 20, d=14, h=12,
                           fixed_to=on)  # fmt: skip
            if finish.doors == "hinged" and not bay.blind:
                yield from self._hinged(bay, x, w, y + shape.depth, shape.height, finish)
        first, end = row.x, row.end
        n, front = bays[0].index + 1, y + shape.depth
        if finish.doors == "sliding" and end - first >= 2 * self.table.widths[0]:
            yield from self._sliding(first, end, front, shape.height, n)
        if finish.doors == "curtain":
            yield Part(id=f"curtain-{n}", item=f"{self.id}.curtain", role="curtain", x=first, y=front, z=40, w=end - first,
                       d=self.table.curtain, h=shape.height - 40, fixed_to=OnPart(part=f"frame-{n}"))  # fmt: skip
        if finish.crown:
            yield Part(id=f"crown-{n}", item=f"{self.id}.crown", role="crown", x=first, y=y, z=shape.height,
                       w=end - first, d=shape.depth, h=self.table.crown, fixed_to=OnPart(part=f"frame-{n}"))  # fmt: skip
        yield from self._fillers(envelope, row, first, end, n)

    def _hinged(self, bay: Bay, x: int, w: int, front: int, top: int, finish: Finish) -> Iterator[Part]:
        plinth = self.table.plinth
        leaves = 1 if w <= self.table.door_widest else 2
        article = "door" if finish.fronts == "solid" else f"{finish.fronts}-door"
        on = OnPart(part=f"frame-{bay.index + 1}")
        for n in range(leaves):
            yield Part(id=f"door-{bay.index + 1}-{n + 1}", item=f"{self.id}.{article}", role="door", bay=bay.index,
                       x=x + n * (w // leaves) + 1, y=front, z=plinth, w=w // leaves - 2, d=self.table.door,
                       h=top - plinth, hinge="right" if n == 1 else "left", fixed_to=on)  # fmt: skip

    def _sliding(self, first: int, end: int, front: int, top: int, n: int) -> Iterator[Part]:
        """Doors in two planes that overlap by 40 mm; half of what is behind them is in reach at a time."""
        leaves = max(2, ceil((end - first) / 1200))
        width = (end - first + 40 * (leaves - 1)) // leaves
        for leaf in range(leaves):
            x = min(first + leaf * (width - 40), end - width)
            yield Part(id=f"door-{n}-{leaf + 1}", item=f"{self.id}.sliding-door", role="door", x=x,
                       y=front + (leaf % 2) * 31, z=self.table.plinth, w=width, d=self.table.door,
                       h=top - self.table.plinth, fixed_to=OnPart(part=f"frame-{n}"))  # fmt: skip

    def _fillers(self, envelope: Envelope, row: Row, first: int, end: int, n: int) -> Iterator[Part]:
        """Strips that close the slack at the two ends, where it is narrow enough and nothing needs the place."""
        t, widest, height = self.table.board, self.table.filler_widest, row.shape.height
        wall_right = int(envelope.clear_width(0, height))
        y = envelope.y_from + row.shape.setback + row.shape.depth - t
        for side, x, w in (("left", 0, first), ("right", end, wall_right - end)):
            free = not any(c.meets(x, x + w, y, y + t, 0, height) for c in envelope.closed)
            if 3 <= w <= widest and free:
                yield Part(id=f"filler-{n}-{side}", item=f"{self.id}.filler", role="filler", x=x, y=y, z=0, w=w, d=t,
                           h=height, fixed_to="wall")  # fmt: skip

    def placed(self, bay: Bay, part_id: str, role: Role, z: int, height: int = 0) -> Part:
        part = super().placed(bay, part_id, role, z, height)
        if role == "shoe shelf" and bay.sloped:
            rise = round(min(bay.depth, self.table.shoe_depth) * sin(radians(self.table.shoe_slope)))
            return part.model_copy(update={"h": self.spec(role).height + rise})
        # A shelf through a corner is wide: it is cut from thicker board.
        thick = role in ("shelf", "cover") and bay.w > self.table.widths[-1]
        return part.model_copy(update={"h": max(part.h, self.table.corner_board)}) if thick else part

    def bears(self, part: Part, bay: Bay) -> float:
        """Two pins at each end."""
        return PINS_AN_END * value("strength.pin")

    def rating(self, part: Part, bay: Bay) -> float:
        return self._carries(part, bay, super().rating(part, bay))

    def price(self, part: Part) -> Decimal:
        if part.role == "base":
            return Decimal(0)  # comes with the frame
        return super().price(part)

    def extras(self, parts: tuple[Part, ...]) -> Iterator[Extra]:
        frames, lights = (sum(p.role == role for p in parts) for role in ("frame", "light"))
        yield from self._packed("anchor", "Wall anchor bracket", ANCHORS_PER_FRAME * frames, "piece")
        yield from self._packed("driver", "Driver for lights", ceil(lights / self.table.lights_a_driver), "piece")
        yield from self._cables([p for p in parts if p.role == "light"])

    def _cables(self, lights: list[Part]) -> Iterator[Extra]:
        """A cable from every light to its driver, which stands with the middle one of those it feeds; the shortest that is
        sold and reaches: the route along the carcases, what is over at both ends and a loop (handbook section 13).
        """
        sold = self.table.by_size("cable")
        wanted: Counter[int] = Counter()
        ordered = sorted(lights, key=lambda p: (p.section, p.x, p.z))
        for n in range(0, len(ordered), self.table.lights_a_driver):
            fed = ordered[n : n + self.table.lights_a_driver]
            middle = fed[len(fed) // 2]
            for light in fed:
                route = abs(light.x + light.w // 2 - middle.x - middle.w // 2) + abs(light.z - middle.z)
                needed = route + self.table.cable_over
                wanted[next((length for length in sold if length >= needed), max(sold))] += 1
        for length, number in sorted(wanted.items()):
            name = f"Cable for lights, {CABLES[min(list(sold).index(length), len(CABLES) - 1)]}"
            yield Extra(f"cable-{length}", name, number, 1, Decimal(str(sold[length])).quantize(CENT), "piece")


def _met(envelope: Envelope, x0: int, x1: int, shape: Shape) -> list[ClosedRegion]:
    """Regions that a frame of this shape over x0..x1 meets."""
    y = envelope.y_from + shape.setback
    return [c for c in envelope.closed if c.meets(x0, x1, y, y + shape.depth, -1, shape.height)]
