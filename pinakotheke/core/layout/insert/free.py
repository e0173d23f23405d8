"""Compartments that make no rows: where rows and columns leave something out, a general solver (CP-SAT) asks for a place
for every lot in any of the drawers at once, and what it finds is grown until strips close every compartment.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import combinations
from math import ceil
from random import Random

from shapely import Polygon, box, unary_union

from ..build.dividers import strips
from .chest import Lot, Placed
from .drawers import Drawer
from .skyline import Spot
from .spread import School

MOST = 60
"""Lots up to which all drawers are asked for at once."""
EFFORT = 4.0
"""The solver's deterministic time."""
ORDERS = 12
"""Orders at random in which they are grown, besides as they were found and row by row."""
SIDES = ("left", "right", "back", "front")
CLOSED = 0.5
"""mm² up to which nothing is open: sizes are whole millimetres."""
SHARES = (0.5, 1.0)
"""A compartment grows by so much of what is free beside it, in turns, so that not all of it goes to the first."""


@dataclass(frozen=True, slots=True)
class Free:
    """A drawer with its compartments where they lie; `None` for those in which nothing lies."""

    drawer: Drawer
    spots: tuple[tuple[Lot | None, Spot], ...]
    strip: int

    @property
    def lots(self) -> tuple[Lot, ...]:
        """What lies in its compartments."""
        return tuple(lot for lot, _ in self.spots if lot is not None)

    @property
    def left_out(self) -> tuple[Lot, ...]:
        """Nothing."""
        return ()

    def without_left_out(self) -> "Free":
        """The same."""
        return self

    @property
    def share(self) -> float:
        """All of it is taken."""
        return 1.0

    @property
    def used(self) -> int:
        """All of its depth, mm."""
        return self.drawer.floor.d

    @property
    def bound(self) -> int:
        """The depth that its compartments would take were they sand: area with dividers over width, mm."""
        area = sum(a for lot in self.lots if (a := lot.areas(self.drawer, self.strip)) is not None)
        return max(0, round(area / (self.drawer.floor.w + self.strip)) - self.strip)

    def cells(self, strip: int, school: School) -> list[Placed]:
        """Its compartments: there is nothing left over to share out."""
        return [Placed(lot, spot, 0, self.drawer.clear) for lot, spot in self.spots]


def freely(lots: Sequence[Lot], drawers: Sequence[Drawer], strip: int, *, effort: float = EFFORT,
           ) -> list[Free] | bool | None:  # fmt: skip
    """All lots in compartments between strips, drawer by drawer; False when it is proven that these lots cannot lie so,
    whatever the compartments' arrangement; None when neither was found in the `effort`.
    """
    found: list[list[tuple[Lot, Spot]]] | bool | None = None
    for grid in (3 * strip, 2 * strip, strip, 1):
        found = _lying(lots, drawers, strip, grid, effort / 4)
        if isinstance(found, list):
            closed = [_closed(d, some, strip, grid) for d, some in zip(drawers, found, strict=True)]
            if all(closed):
                return [c for c in closed if c is not None]
    return found if found is False else None


def _lying(lots: Sequence[Lot], drawers: Sequence[Drawer], strip: int, grid: int, effort: float,
           ) -> list[list[tuple[Lot, Spot]]] | bool | None:  # fmt: skip
    """A drawer, a shape and a place for every lot, a strip between each two; all lines are so many mm apart, so that no two
    of a coarse `grid` lie half in each other.
    """
    from ortools.sat.python import cp_model

    model = cp_model.CpModel()
    made = []
    for n, d in enumerate(drawers):
        across, along, area = [], [], []
        width, depth = (d.floor.w + strip) // grid, (d.floor.d + strip) // grid
        if d.shut is not None:
            start, end = d.shut.x // grid, ceil((d.shut.x + d.shut.w + strip) / grid)
            across.append(model.new_fixed_size_interval_var(start, end - start, ""))
            along.append(model.new_fixed_size_interval_var(0, ceil((d.shut.d + strip) / grid), ""))
        for i, lot in enumerate(lots):
            for w, deep in lot.shapes(d):
                across_, along_ = ceil((w + strip) / grid), ceil((deep + strip) / grid)
                if across_ > width or along_ > depth:
                    continue
                chosen = model.new_bool_var("")
                x, y = model.new_int_var(0, width - across_, ""), model.new_int_var(0, depth - along_, "")
                across.append(model.new_optional_fixed_size_interval_var(x, across_, chosen, ""))
                along.append(model.new_optional_fixed_size_interval_var(y, along_, chosen, ""))
                area.append(across_ * along_ * chosen)
                made.append((i, n, chosen, x, y, w, deep))
        model.add_no_overlap_2d(across, along)
        model.add(sum(area) <= width * depth)
    for i in range(len(lots)):
        model.add_exactly_one(m[2] for m in made if m[0] == i)
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.linearization_level = 0
    solver.parameters.use_energetic_reasoning_in_no_overlap_2d = True
    solver.parameters.max_deterministic_time = effort
    status = solver.solve(model)
    if status == cp_model.INFEASIBLE:
        return False
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return None
    placed: list[list[tuple[Lot, Spot]]] = [[] for _ in drawers]
    for i, n, chosen, x, y, w, deep in made:
        if solver.value(chosen):
            placed[n].append((lots[i], Spot(grid * solver.value(x), grid * solver.value(y), w, deep)))
    return placed


def _closed(drawer: Drawer, some: Sequence[tuple[Lot, Spot]], strip: int, grid: int) -> Free | None:
    """Compartments grown until they meet, in the first order in which strips close them all; None where none does."""
    rng = Random(1)
    orders = [list(some), sorted(some, key=lambda one: (one[1].y, one[1].x)), *(rng.sample(some, len(some))
              for _ in range(ORDERS))]  # fmt: skip
    found = (_grown_together(drawer, order, sides, strip, grid) for order in orders for sides in (SIDES, SIDES[::-1]))
    return next((plan for plan in found if plan is not None), None)


def _grown_together(drawer: Drawer, some: Sequence[tuple[Lot, Spot]], sides: Sequence[str], strip: int, grid: int,
                    ) -> Free | None:  # fmt: skip
    """Compartments grown one after the other, and free ones in the holes between; None where strips do not close them,
    or two of them would lie half in each other.
    """
    floor = drawer.floor
    spots = [spot for _, spot in some]
    shut = [drawer.shut] if drawer.shut is not None else []
    for share in SHARES:
        for n in range(len(spots)):
            for side in sides:
                others = [*spots[:n], *spots[n + 1 :], *shut]
                spots[n] = _grown(spots[n], side, others, floor.w, floor.d, (strip, grid), share)
    whole = box(0, 0, floor.w, floor.d)
    walled = unary_union([box(s.x - strip, s.y - strip, s.x + s.w + strip, s.y + s.d + strip) for s in (*spots, *shut)])
    rest = whole.difference(walled)
    holes: list[Spot] = []
    for hole in getattr(rest, "geoms", [rest]):
        if isinstance(hole, Polygon) and not hole.is_empty:
            x0, y0, x1, y1 = (round(v) for v in hole.bounds)
            holes.append(Spot(x0, y0, x1 - x0, y1 - y0))
    cells = [*spots, *holes]
    made = strips((0, 0, floor.w, floor.d), [(s.x, s.y, s.w, s.d) for s in (*cells, *shut)], strip)
    wood = [box(s.start, s.at, s.end, s.at + strip) if s.along == "x" else box(s.at, s.start, s.at + strip, s.end)
            for s in made]  # fmt: skip
    clear = [box(s.x, s.y, s.x + s.w, s.y + s.d) for s in (*cells, *shut)]
    open_ = (
        whole.difference(unary_union([*wood, *clear])).area + unary_union(wood).intersection(unary_union(clear)).area
    )
    beside = any(a.along == b.along and p.intersection(q).area
                 for (a, p), (b, q) in combinations(zip(made, wood, strict=True), 2))  # fmt: skip
    if open_ > CLOSED or beside:
        return None
    lots = [*(lot for lot, _ in some), *(None for _ in holes)]
    moved = [Spot(floor.x + s.x, floor.y + s.y, s.w, s.d) for s in cells]
    return _turned_about(Free(drawer, tuple(zip(lots, moved, strict=True)), strip))


def _grown(spot: Spot, side: str, others: Sequence[Spot], width: int, depth: int, gauge: tuple[int, int], share: float,
           ) -> Spot:  # fmt: skip
    """A compartment grown to one side by a share of what is free there, a strip to the next one, from line to line of the
    grid; `gauge` is the strip's thickness and the grid, mm.
    """
    s, (strip, grid) = spot, gauge
    if side in ("left", "right"):
        beside = [o for o in others if o.y < s.y + s.d + strip and s.y < o.y + o.d + strip]
        if side == "left":
            free = s.x - max([0, *(o.x + o.w + strip for o in beside if o.x < s.x)])
            by = int(free * share) // grid * grid
            return Spot(s.x - by, s.y, s.w + by, s.d)
        end = min([width, *(o.x - strip for o in beside if o.x > s.x)])
        return s._replace(w=_up_to(s.x + s.w, end, gauge, share) - s.x)
    beside = [o for o in others if o.x < s.x + s.w + strip and s.x < o.x + o.w + strip]
    if side == "back":
        free = s.y - max([0, *(o.y + o.d + strip for o in beside if o.y < s.y)])
        by = int(free * share) // grid * grid
        return Spot(s.x, s.y - by, s.w, s.d + by)
    end = min([depth, *(o.y - strip for o in beside if o.y > s.y)])
    return s._replace(d=_up_to(s.y + s.d, end, gauge, share) - s.y)


def _up_to(at: int, end: int, gauge: tuple[int, int], share: float) -> int:
    """A share of the way from `at` to `end`: where a strip after it begins on a line, or at the very end."""
    strip, grid = gauge
    if share == 1:
        return end
    return max(at, int(at + (end - at) * share + strip) // grid * grid - strip)


def _turned_about(plan: Free) -> Free:
    """The same, or with its front at the back where what is wanted often comes nearer so; not where a corner is closed."""
    floor = plan.drawer.floor
    other = replace(plan, spots=tuple(
        (lot, s._replace(y=2 * floor.y + floor.d - s.y - s.d)) for lot, s in plan.spots))  # fmt: skip

    def way(one: Free) -> float:
        return sum(lot.uses * (plan.drawer.front - s.y - s.d / 2) for lot, s in one.spots if lot is not None)

    return min((plan, other), key=way) if plan.drawer.corner is None else plan
