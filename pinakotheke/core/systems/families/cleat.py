"""Cleated shelf: a board on cleats screwed to the back wall and both sides, cut to the wall and around a pipe.

Where a run is wider than a board carries, a gable stands on the floor against the wall. Where a side is missing, shallow
boards lie on a bracket there, and deep ones on a gable. Under a ceiling that falls along the wall, boards in storeys are
each as long as the slope lets them, their ends cut to it.
"""

from collections.abc import Iterator
from itertools import islice, product
from typing import Literal

from ...mechanics.beam import Support
from ...mechanics.shelves import Sag, board_sag, cleated_sag
from ...survey import Envelope
from ..family import Extra, Family, Finish, Row, Shape, Table
from ..family.basis import CUT
from ..parts import Bay, Part, Surface
from ..roles import INSIDE, Role
from ..slopes import Falls, Tier, falls, pitch_of, steps, tiers
from ..standing import comes_out, cut_around, setback_for

SCREWS_PER_CLEAT = 3
NEARLY = 30
"""A usual depth that wants so little of the whole is as good, mm."""


class CleatTable(Table):
    """Boards, gables, cleats and brackets; the heights of storeys under a slope, mm."""

    board: int
    gable: int
    cleat_height: int
    cleat_depth: int
    first: int
    storeys: tuple[int, ...]
    bracket_deepest: int
    bracket_height: int
    bracket_rating: float
    """Kilograms that one bracket carries."""
    widest: int
    narrowest: int
    heights: tuple[int, ...]


UNEQUAL = ((1 / 3, 2 / 3), (2 / 3, 1 / 3), (0.25, 0.45, 0.3), (0.4, 0.3, 0.3))
"""A narrow part for what is tall beside wide shelves: shares of the wall."""


class Cleat(Family):
    """See the module."""

    id = "cleat"
    Numbers = CleatTable
    table: CleatTable
    tips = tilts = frozenset()
    screwed = frozenset({"cleat", "hooks"})
    cuts_shelves = True
    scribed = INSIDE | {"cleat"}

    @property
    def modules(self) -> tuple[int, ...]:
        return (self.table.narrowest, self.table.widest)

    @property
    def ends(self) -> int:
        """The gable at its right end, where no wall is; kept free in any case."""
        return self.table.gable

    def fillings(self, length: int) -> Iterator[tuple[int, ...]]:
        """Equal boards over the whole stretch, and one fewer, which leaves room for something else beside them."""
        gable, widest, narrowest = self.table.gable, self.table.widest, self.table.narrowest
        for n in range(1, 9):
            width = length // n
            if narrowest + gable <= width <= widest + gable:
                yield (width,) * n
                if 1 < n <= 4:
                    yield (width,) * (n - 1)
        for shares in UNEQUAL:
            parts = tuple(int(length * share) for share in shares)
            if all(narrowest + gable <= w <= widest + gable for w in parts):
                yield parts

    def storeys(self, envelope: Envelope) -> Iterator[tuple[Row, ...]]:
        """Storeys of boards on one grid of gables, each with as many whole widths as the slope lets it and a narrower
        one at its end; with and without one full-height row where the ceiling is highest.
        """
        way = falls(envelope)
        depth = max((s.depth for s in self.shapes(envelope, Finish())), default=0)
        if way is None or not depth:
            return
        start, end = envelope.span(0, envelope.z_to)
        for every in self.table.storeys:
            floors = tiers(envelope, every, self.smallest())
            grids = dict.fromkeys(widths[0] for widths in self.fillings(end - start - self.ends))
            for width, tall in product(islice(grids, 2), (0, 1)):
                rows = self._on_grid(envelope, floors, width, tall, way, depth)
                if len(rows) > 1 + tall:
                    yield rows

    def _on_grid(self, envelope: Envelope, floors: list[Tier], width: int, tall: int, way: Falls, depth: int,
                 ) -> tuple[Row, ...]:  # fmt: skip
        rows: list[Row] = []
        taken = 0
        if tall:
            start, end = envelope.span(0, envelope.z_to)
            taken = width + self.ends
            x = start if way == "right" else end - taken
            top = min([envelope.z_to, *(c.z0 for c in steps(envelope) if c.x0 < x + taken and x < c.x1)])
            rows.append(Row(shape=Shape(height=top, depth=depth, member=top, cut="level"), x=x, widths=(width,)))
        for n, floor in enumerate(floors):
            length = floor.x1 - floor.x0 - self.ends - taken
            whole, rest = divmod(max(length, 0), width)
            widths = (width,) * whole + ((rest,) if rest >= self.smallest() else ())
            if not widths:
                break
            # Under the storey above its cleats need their height.
            usable = floor.top - (self.table.cleat_height if n + 1 < len(floors) else 0)
            cut = way if floor.is_cut else "level"
            shape = Shape(height=floor.top, depth=depth, member=usable, foot=floor.foot, cut=cut)
            x = floor.x0 + taken if way == "right" else floor.x1 - taken - self.ends - sum(widths)
            row = Row(shape=shape, x=x, widths=widths if way == "right" else widths[::-1])
            if not self.allows(envelope, row):
                break  # a gable would stand where something must stay clear
            rows.append(row)
        return tuple(rows)

    def shapes(self, envelope: Envelope, finish: Finish) -> tuple[Shape, ...]:
        room = envelope.y_to - envelope.y_from - envelope.door_gap
        found = []
        for height in sorted({min(envelope.z_to, h) for h in self.table.heights}, reverse=True):
            for depth in sorted(self._depths(room, bool(envelope.door_gap)), reverse=True):
                setback = setback_for(envelope, height, depth)
                if setback == 0:
                    found.append(Shape(height=height, depth=depth, member=height))
        return tuple(found)

    def _depths(self, room: int, closed: bool) -> set[int]:
        """The depths of the table, and all there is; not where a door closes and the table comes near it."""
        usual = {d for d in self.table.depths if d <= room}
        whole = min(room, self.table.depths[-1])
        return usual | ({whole} if not closed or whole - max(usual, default=0) > NEARLY else set())

    def stretches(self, envelope: Envelope, shape: Shape) -> tuple[tuple[int, int], ...]:
        """The clear width: what stands in it is cut around or closes its own heights."""
        return (envelope.span(0, shape.height),)

    def barred(self, envelope: Envelope, shape: Shape) -> tuple[tuple[int, int], ...]:
        """Where a gable may not stand; a pipe that boards are cut around is in a gable's way too."""
        y, gable = envelope.y_from, self.ends
        start, end = envelope.span(0, shape.height)
        # At a wall there is no gable, so nothing is in its way.
        low = start + gable if envelope.left_allowance > 0 else start - 1
        high = end - 2 * gable if envelope.right_allowance > 0 else end
        ranges = [
            (max(c.x0 - gable, low - 1), min(c.x1, high + 1)) for c in envelope.closed
            if c.y0 < y + shape.depth and y < c.y1 and c.z0 < (shape.member if shape.is_storey else shape.height)
            and c.z1 > shape.foot
        ]  # fmt: skip
        return tuple((a, b) for a, b in ranges if a < b)

    def bays(self, envelope: Envelope, row: Row) -> tuple[Bay, ...]:
        found: list[Bay] = []
        gable, y, depth = self.ends, envelope.y_from, row.shape.depth
        x, shape = row.x, row.shape
        end = {"left": 0, "right": len(row.widths) - 1}.get(shape.cut)
        free = self._free_ends(envelope, row)
        first, last = self._outer_edges(envelope, row)
        for n, width in enumerate(row.widths):
            left = first if n == 0 else x + gable
            w = (last if n == len(row.widths) - 1 else x + width) - left
            x = left
            cuts, blocked = cut_around(envelope, x, x + w, y, y + depth, row.shape.height, self.table.cleat_height)
            found.append(
                Bay(index=n, section=envelope.section, family=self.id, x=x, w=w, y=y, depth=depth,
                    hang_depth=envelope.y_to - y, z0=shape.foot, z1=shape.member, pitch=self.table.pitch,
                    pulls=comes_out(envelope, x, x + w), has_base=False,
                    first=0 if shape.foot else self.table.first, last=n == len(row.widths) - 1, cuts=cuts,
                    free_end=free.get(n, ""), skirting=envelope.skirting_thickness, blocked=blocked,
                    mitre=pitch_of(envelope) if n == end else 0,
                    runs_to=_runs_to(envelope, shape, x, x + w) if n == end else ())
            )  # fmt: skip
            x += w
        return tuple(found)

    def _outer_edges(self, envelope: Envelope, row: Row) -> tuple[int, int]:
        """Where the first board of a row begins and the last one ends: at the wall, to which they are cut, or at the
        gable or bracket that stands there.
        """
        shape, (left, right) = row.shape, self._walls(envelope, row)
        a, b = envelope.walls(max(shape.foot, self.table.first), shape.height)
        first = a if left and shape.cut != "left" else row.x + self.ends
        return first, b if right and shape.cut != "right" else row.end

    def _walls(self, envelope: Envelope, row: Row) -> tuple[bool, bool]:
        """Whether a wall or the ceiling carries the cleats at the left and at the right end of a row."""
        gable, (start, end) = self.ends, envelope.span(0, row.shape.height)
        left = row.shape.cut == "left" or (envelope.left_allowance > 0 and row.x - start < gable)
        right = row.shape.cut == "right" or (envelope.right_allowance > 0 and end - row.end < 2 * gable)
        return left, right

    def _free_ends(self, envelope: Envelope, row: Row) -> dict[int, Literal["left", "right"]]:
        """Of the first and the last module of a row, the side where a bracket carries the boards: one side is enough
        to hold a board, two are not.
        """
        left, right = self._walls(envelope, row)
        if row.shape.depth > self.table.bracket_deepest or (len(row.widths) == 1 and not (left or right)):
            return {}
        found: dict[int, Literal["left", "right"]] = {}
        if not left:
            found[0] = "left"
        if not right:
            found[len(row.widths) - 1] = "right"
        return found

    def ends_on_brackets(self, envelope: Envelope, row: Row) -> bool:
        return bool(self._free_ends(envelope, row))

    def structure(self, envelope: Envelope, row: Row, bays: tuple[Bay, ...], finish: Finish) -> tuple[Part, ...]:
        """Gables between bays, and at an end where no wall carries the cleats."""
        gable, y = self.ends, envelope.y_from
        left_wall, right_wall = self._walls(envelope, row)
        free = self._free_ends(envelope, row).values()
        left_wall, right_wall = left_wall or "left" in free, right_wall or "right" in free
        at = [(f"panel-{bays[0].index + 1}", row.x, left_wall)]
        at += [(f"panel-{b.index + 1}", b.x - gable, False) for b in bays[1:]]
        at.append((f"panel-{bays[-1].index + 1}-end", bays[-1].x + bays[-1].w, right_wall))
        return tuple(
            Part(id=name, item=f"{self.id}.panel", role="panel", x=x, y=y, z=row.shape.foot, w=gable,
                 d=row.shape.depth, h=row.shape.member - row.shape.foot, fixed_to="wall")
            for name, x, wall in at if not wall
        )  # fmt: skip

    def carrier(self, bay: Bay) -> Surface:
        return "wall"

    def placed(self, bay: Bay, part_id: str, role: Role, z: int, height: int = 0) -> Part:
        part = super().placed(bay, part_id, role, z, height)
        if role == "hooks":
            return part.model_copy(update={"d": self.table.cleat_depth})
        if bay.runs_to and role in ("shelf", "cover"):
            return _cut_to_slope(part, bay)
        if role != "floor":
            return part
        x, w = part.x + bay.skirting, part.w - 2 * bay.skirting
        return part.model_copy(update={"fixed_to": "floor", "x": x, "w": w})

    def clear_width(self, role: Role, bay: Bay) -> float:
        # What stands on the floor clears the skirting as it clears the cleats.
        return super().clear_width(role, bay) - (
            max(0, 2 * bay.skirting - self.spec(role).sides) if role == "floor" else 0
        )

    def brackets(self, part: Part, bay: Bay) -> tuple[Part, ...]:
        if part.role not in ("shelf", "cover"):
            return ()
        t, h = self.table.cleat_depth, self.table.cleat_height
        common = {"item": f"{self.id}.cleat", "role": "cleat", "section": bay.section, "bay": bay.index, "z": part.z - h,
                  "h": h, "fixed_to": "wall", "belongs_to": part.id}  # fmt: skip
        rows = [
            (f"back{n or ''}", lo, bay.y, hi - lo, t)
            for n, (lo, hi) in enumerate(
                _beside([(c[0], c[1]) for c in bay.cuts if c[2] < bay.y + t], part.x, part.x + part.w)
            )
        ]
        for name, x in (("left", part.x), ("right", part.x + part.w - t)):
            if name == bay.free_end:
                continue
            y = max((c[3] for c in bay.cuts if c[0] < x + t and x < c[1]), default=bay.y + t)
            rows.append((name, x, max(y, bay.y + t), t, bay.y + bay.depth - max(y, bay.y + t)))
        carried = [
            Part.model_validate({**common, "id": f"{part.id}-{name}", "x": x, "y": y, "w": w, "d": d})
            for name, x, y, w, d in rows if w > 0 and d > 0
        ]  # fmt: skip
        if bay.free_end:
            x, high = part.x if bay.free_end == "left" else part.x + part.w - t, self.table.bracket_height
            carried.append(
                Part(id=f"{part.id}-bracket", item=f"{self.id}.bracket", role="bracket", section=bay.section,
                     bay=bay.index, x=x, y=bay.y + t, z=part.z - high, w=t, d=bay.depth - t - 20, h=high,
                     fixed_to="wall", belongs_to=part.id)
            )  # fmt: skip
        return tuple(carried)

    def meets_sides(self, part: Part, bay: Bay) -> bool:
        if part.role == "floor":
            return part.x == bay.x + bay.skirting and part.w == bay.w - 2 * bay.skirting
        if not bay.runs_to:
            return super().meets_sides(part, bay)
        return part.x <= bay.x and bay.x + bay.w <= part.x + part.w

    def named(self, part: Part) -> str:
        return super().named(part) + (f", an end cut to {part.mitre}°" if part.mitre else "")

    def takes(self, part: Part, clear: float) -> tuple[float, float]:
        low, high = super().takes(part, clear)
        # The cleats of the next board hang below it, or its bracket where boards so deep lie on one.
        table = self.table
        below = table.bracket_height if part.d <= table.bracket_deepest else table.cleat_height
        return low, max(high, part.z + part.h + below) if part.role == "shelf" else high

    def sags(self, part: Part, bay: Bay, mass: float) -> tuple[Sag, ...]:
        """A plate that rests on three edges, or on its two ends where something parts the cleat at the back."""
        if part.role != "shelf":
            return ()
        make = self.make(part, bay)
        across = board_sag(make, part.w, bay.depth, part.h, mass)
        if not self._has_back(bay):
            return (across,)
        held = cleated_sag(make, part.w, bay.depth, part.h, mass)
        return (held, across) if make.lipped else (held,)

    def _has_back(self, bay: Bay) -> bool:
        """Whether the cleat at the back runs through."""
        return not any(c[2] < bay.y + self.table.cleat_depth for c in bay.cuts)

    def supports(self, part: Part, bay: Bay) -> tuple[Support, ...]:
        """Its two ends, where no cleat at the back carries it as well: then it is a plate, not a beam."""
        return (Support(0), Support(part.w)) if part.role in CUT and not self._has_back(bay) else ()

    def board_depths(self, bay: Bay) -> tuple[int, ...]:
        """Any depth of the table; not where a board is cut around something, or to a slope, and in deep rows none so
        shallow that a bracket would be thought to carry it.
        """
        if bay.cuts or bay.mitre:
            return ()
        least = self.table.bracket_deepest if bay.depth > self.table.bracket_deepest else 0
        return tuple(d for d in self.table.depths if least < d < bay.depth)

    def rating(self, part: Part, bay: Bay) -> float:
        usual = super().rating(part, bay)
        if bay.free_end and part.role == "shelf":
            usual = min(usual, self.table.bracket_rating)
        return self._carries(part, bay, usual)

    def extras(self, parts: tuple[Part, ...]) -> Iterator[Extra]:
        screws = SCREWS_PER_CLEAT * sum(p.role in ("cleat", "hooks", "panel") for p in parts)
        yield from self._packed("screws", "Wall screws", screws, "screw")


def _runs_to(envelope: Envelope, shape: Shape, x0: int, x1: int) -> tuple[tuple[int, int], ...]:
    """Where the ceiling beyond a storey's cut end begins to be how high, as far as its boards may run."""
    if shape.cut == "right":
        return tuple((c.x0, c.z0) for c in steps(envelope) if c.x0 >= x1 and c.z0 > shape.foot)
    return tuple((c.x1, c.z0) for c in steps(envelope) if c.x1 <= x0 and c.z0 > shape.foot)


def _cut_to_slope(part: Part, bay: Bay) -> Part:
    """A board that runs on from its bay to where the ceiling meets its upper edge, and is cut to it there; one that
    meets the wall first ends square.
    """
    met = [x for x, z in bay.runs_to if z < part.z + part.h]
    mitre = bay.mitre if met else 0
    right = bay.runs_to[0][0] >= bay.x + bay.w
    if right:
        end = min(met, default=max(x for x, _ in bay.runs_to))
        return part.model_copy(
            update={"w": max(end - part.x, part.w), "mitre": mitre, "cut_end": "right" if mitre else ""}
        )
    start = max(met, default=min(x for x, _ in bay.runs_to))
    x = min(start, part.x)
    return part.model_copy(
        update={"x": x, "w": part.x + part.w - x, "mitre": mitre, "cut_end": "left" if mitre else ""}
    )


def _beside(cuts: list[tuple[int, int]], start: int, end: int) -> Iterator[tuple[int, int]]:
    """What is left of a length between its notches."""
    at = start
    for a, b in sorted(cuts):
        if a > at:
            yield at, min(a, end)
        at = max(at, b)
    if at < end:
        yield at, end
