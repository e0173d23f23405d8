"""One drawer parted by dividers, across or from front to back."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from .chest import SURE, Holds, Lot, Placed
from .drawers import Drawer
from .partition import Choice, Column, Lane, Partition, part
from .skyline import Spot
from .spread import School, spread

BEYOND = 3.0
"""What a millimetre beyond the reach counts more than one within it."""
TURNED_COST = 12
"""mm of depth that a less handy shape of a compartment costs."""


@dataclass(frozen=True, slots=True)
class Parted:
    """A drawer parted by dividers, before what is left over is shared out."""

    drawer: Drawer
    inside: tuple[Holds, ...]
    plan: Partition
    turned: bool
    corner: int | None

    @property
    def lots(self) -> tuple[Lot, ...]:
        """What has a compartment, and what has none."""
        return tuple(lot for one in self.inside for lot in one.lots)

    @property
    def left_out(self) -> tuple[Lot, ...]:
        """Lots without a compartment."""
        return tuple(lot for n in self.plan.left_out if n != self.corner for lot in self.inside[n].lots)

    def without_left_out(self) -> "Parted":
        """The same of only those lots that have a compartment."""
        kept = [n for n in range(len(self.inside)) if n not in self.plan.left_out]
        at = {n: k for k, n in enumerate(kept)}
        corner = None if self.corner is None else len(kept)
        if self.corner is not None:
            at[self.corner] = len(kept)
        lanes = tuple(
            Lane(lane.d, tuple(Column(c.w, tuple((at[g], k, d) for g, k, d in c.cells)) for c in lane.columns))
            for lane in self.plan.lanes
        )
        plan = Partition(lanes, (), self.plan.used, self.plan.bound)
        return Parted(self.drawer, tuple(self.inside[n] for n in kept), plan, self.turned, corner)

    @property
    def used(self) -> int:
        """What is taken of the floor's depth (or width), mm."""
        return self.plan.used

    @property
    def bound(self) -> int:
        """What must be taken of it at least, mm."""
        return self.plan.bound

    @property
    def share(self) -> float:
        """Share of the floor's depth (or width) that is taken."""
        whole = self.drawer.floor.w if self.turned else self.drawer.floor.d
        return self.plan.used / max(1, whole)

    def rank(self, strip: int) -> tuple[float, float]:
        """Less is better: what is left out, then how far what is wanted often lies from the front, and how much farther
        than the drawer opens.
        """
        front = self.drawer.floor.y + self.drawer.floor.d
        way = 0.0
        for c in self.cells(strip, "even"):
            middle = front - c.spot.y - c.spot.d / 2
            beyond = max(0.0, middle - self.drawer.reachable)
            way += c.lot.uses * (middle + BEYOND * beyond) if c.lot is not None else 0.0
        return sum(1 + lot.uses for lot in self.left_out), way / max(1, self.drawer.floor.d)

    def cells(self, strip: int, school: School) -> list[Placed]:
        """Its compartments, with what is left over shared out."""
        d = self.drawer
        floor = Spot(0, 0, d.floor.w, d.floor.d)
        uses = [one.uses for one in self.inside] + [0.0]
        grows = [float(min((w * h for w, h in one.shapes(d)), default=0)) for one in self.inside] + [0.0]
        found: list[Placed] = []
        for c in spread(self.plan, floor, strip, uses=uses, grows=grows, school=school, turned=self.turned,
                        at_back=self.corner):  # fmt: skip
            if c.group is not None and c.group == self.corner:
                continue
            x = d.floor.w - c.spot.x - c.spot.w if d.mirrored else c.spot.x
            spot = Spot(d.floor.x + x, d.floor.y + c.spot.y, c.spot.w, c.spot.d)
            found += (self.inside[c.group].placed(spot, d, len(found)) if c.group is not None
                      else [Placed(None, spot, 0, d.clear)])  # fmt: skip
        return found


def parted(lots: Sequence[Holds], drawer: Drawer, strip: int, *, moves: int, seed: int, sure: Lot | None = None,
           ) -> Parted:  # fmt: skip
    """The best of rows across and rows from front to back, of two starts each; where a corner is closed also with all of
    the back left away. `sure` is left out last.
    """
    floors = [drawer]
    if drawer.corner is not None:
        off = drawer.corner.d + strip
        f = drawer.floor
        floors.append(replace(drawer, floor=Spot(f.x, f.y + off, f.w, f.d - off), corner=None))
    tried = (_parted(lots, d, strip, turned, moves // 2, seed + n, sure) for d in floors for turned in (False, True)
             for n in (0, 1))  # fmt: skip
    return min(tried, key=lambda p: p.rank(strip))


def _parted(lots: Sequence[Holds], drawer: Drawer, strip: int, turned: bool, moves: int, seed: int,
            sure: Lot | None) -> Parted:  # fmt: skip
    choices = [choices_of(lot, drawer, turned) for lot in lots]
    corner = None
    if drawer.corner is not None:
        corner = len(choices)
        choices.append([_seen(Choice(drawer.corner.w, drawer.corner.d), turned)])
    width, depth = (drawer.floor.d, drawer.floor.w) if turned else (drawer.floor.w, drawer.floor.d)
    worth = [lot.uses + SURE * (sure in lot.lots) for lot in lots] + [1e9] * (corner is not None)
    plan = part(choices, width, depth, strip, worth=worth, moves=moves, seed=seed)
    return Parted(drawer, tuple(lots), plan, turned, corner)


def choices_of(lot: Holds, drawer: Drawer, turned: bool) -> list[Choice]:
    """The shapes of a lot's compartment, the handiest at no cost."""
    return [_seen(Choice(w, d, TURNED_COST * (n > 0)), turned) for n, (w, d) in enumerate(lot.shapes(drawer))]


def _seen(c: Choice, turned: bool) -> Choice:
    return Choice(c.d, c.w, c.cost) if turned else c
