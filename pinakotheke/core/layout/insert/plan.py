"""One drawer laid out: parted by dividers, across or from front to back, or set with trays."""

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass, replace

from ...systems.families.insert import TraySet
from ..packing.lying import bed
from . import exact
from .chest import Lot
from .drawers import Drawer
from .partition import Choice, Column, Lane, Partition, part
from .skyline import Rect, Spot
from .spread import School, spread

BEYOND = 3.0
"""What a millimetre beyond the reach counts more than one within it."""
TURNED_COST = 12
"""mm of depth that a less handy shape of a compartment costs."""


@dataclass(frozen=True, slots=True)
class Placed:
    """A lot in its compartment (None: a free one): where it lies, and its foot and height, mm; `on` is the place in the
    list of the one it stands on.
    """

    lot: Lot | None
    spot: Spot
    z: int
    h: int
    on: int | None = None


@dataclass(frozen=True, slots=True)
class Parted:
    """A drawer parted by dividers, before what is left over is shared out."""

    drawer: Drawer
    lots: tuple[Lot, ...]
    plan: Partition
    turned: bool
    corner: int | None

    @property
    def left_out(self) -> tuple[Lot, ...]:
        """Lots without a compartment."""
        return tuple(self.lots[n] for n in self.plan.left_out if n != self.corner)

    def without_left_out(self) -> "Parted":
        """The same of only those lots that have a compartment."""
        kept = [n for n in range(len(self.lots)) if n not in self.plan.left_out]
        at = {n: k for k, n in enumerate(kept)}
        corner = None if self.corner is None else len(kept)
        if self.corner is not None:
            at[self.corner] = len(kept)
        lanes = tuple(
            Lane(lane.d, tuple(Column(c.w, tuple((at[g], k, d) for g, k, d in c.cells)) for c in lane.columns))
            for lane in self.plan.lanes
        )
        plan = Partition(lanes, (), self.plan.used, self.plan.bound)
        return Parted(self.drawer, tuple(self.lots[n] for n in kept), plan, self.turned, corner)

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
        uses = [lot.uses for lot in self.lots] + [0.0]
        grows = [float(min((w * h for w, h in lot.shapes(d)), default=0)) for lot in self.lots] + [0.0]
        found = []
        for c in spread(self.plan, floor, strip, uses=uses, grows=grows, school=school, turned=self.turned,
                        at_back=self.corner):  # fmt: skip
            if c.group is not None and c.group == self.corner:
                continue
            x = d.floor.w - c.spot.x - c.spot.w if d.mirrored else c.spot.x
            spot = Spot(d.floor.x + x, d.floor.y + c.spot.y, c.spot.w, c.spot.d)
            found.append(Placed(self.lots[c.group] if c.group is not None else None, spot, 0, d.clear))
        return found


def parted(lots: Sequence[Lot], drawer: Drawer, strip: int, *, moves: int, seed: int) -> Parted:
    """The best of rows across and rows from front to back, of two starts each; where a corner is closed also with all of
    the back left away.
    """
    floors = [drawer]
    if drawer.corner is not None:
        off = drawer.corner.d + strip
        f = drawer.floor
        floors.append(replace(drawer, floor=Spot(f.x, f.y + off, f.w, f.d - off), corner=None))
    tried = (_parted(lots, d, strip, turned, moves // 2, seed + n) for d in floors for turned in (False, True)
             for n in (0, 1))  # fmt: skip
    return min(tried, key=lambda p: p.rank(strip))


def _parted(lots: Sequence[Lot], drawer: Drawer, strip: int, turned: bool, moves: int, seed: int) -> Parted:
    choices = [choices_of(lot, drawer, turned) for lot in lots]
    corner = None
    if drawer.corner is not None:
        corner = len(choices)
        choices.append([_seen(Choice(drawer.corner.w, drawer.corner.d), turned)])
    width, depth = (drawer.floor.d, drawer.floor.w) if turned else (drawer.floor.w, drawer.floor.d)
    worth = [lot.uses for lot in lots] + [1e9] * (corner is not None)
    plan = part(choices, width, depth, strip, worth=worth, moves=moves, seed=seed)
    return Parted(drawer, tuple(lots), plan, turned, corner)


def choices_of(lot: Lot, drawer: Drawer, turned: bool) -> list[Choice]:
    """The shapes of a lot's compartment, the handiest at no cost."""
    return [_seen(Choice(w, d, TURNED_COST * (n > 0)), turned) for n, (w, d) in enumerate(lot.shapes(drawer))]


def _seen(c: Choice, turned: bool) -> Choice:
    return Choice(c.d, c.w, c.cost) if turned else c


# -- trays --


@dataclass(frozen=True, slots=True)
class Tray:
    """A lot in a tray of a size."""

    lot: Lot
    w: int
    d: int
    h: int


def trayed(lots: Sequence[Lot], drawer: Drawer, family: TraySet, *, moves: int, seed: int,
           ) -> tuple[list[Placed], list[Lot]]:  # fmt: skip
    """Lots in trays where they lie, and those that found no place. Trays of one size stand on each other where the drawer
    is deep enough; what is taken out most is on top.
    """
    trays: list[Tray] = []
    out: list[Lot] = []
    waiting = list(lots)
    while waiting:
        lot = waiting.pop(0)
        tray = _tray(lot, drawer, family)
        if tray is not None:
            trays.append(tray)
        elif lot.count > 1:
            waiting[:0] = lot.halves()
        else:
            out.append(lot)
    piles = _piled(trays, drawer.clear)
    floor, closed = drawer.floor, []
    if drawer.corner is not None:
        x = 0 if drawer.mirrored else floor.w - drawer.corner.w
        closed = [Spot(x, floor.d - drawer.corner.d, drawer.corner.w, drawer.corner.d)]
    worth = [sum(1 + t.lot.uses for t in pile) for pile in piles]
    # They are set from the front, where the hand is: the floor is turned about for the skyline.
    spots = _often_in_front(piles, exact.settle([Rect(p[0].w, p[0].d) for p in piles], (floor.w, floor.d), closed,
                                                worth=worth, moves=moves, seed=seed))  # fmt: skip
    placed: list[Placed] = []
    for pile, spot in zip(piles, spots, strict=True):
        if spot is None:
            out += [t.lot for t in pile]
            continue
        z, on = 0, None
        for tray in pile:
            there = Spot(floor.x + spot.x, floor.y + floor.d - spot.y - spot.d, spot.w, spot.d)
            placed.append(Placed(tray.lot, there, z, tray.h, on))
            z, on = z + tray.h, len(placed) - 1
    return placed, out


def _often_in_front(piles: Sequence[Sequence[Tray]], spots: Sequence[Spot | None]) -> list[Spot | None]:
    """Piles on one floor exchanged, so that what is taken out most stands nearest to the front."""
    found = list(spots)
    by_floor: dict[tuple[int, int], list[int]] = defaultdict(list)
    for n, pile in enumerate(piles):
        if spots[n] is not None:
            by_floor[pile[0].w, pile[0].d].append(n)
    for same in by_floor.values():
        places = sorted((s for n in same if (s := spots[n]) is not None), key=lambda s: s.y)
        often = sorted(same, key=lambda n: -sum(t.lot.uses for t in piles[n]))
        for n, place in zip(often, places, strict=True):
            found[n] = place
    return found


def _tray(lot: Lot, drawer: Drawer, family: TraySet) -> Tray | None:
    """The tray of least floor, and then the lowest, that holds a lot."""
    wall = 2 * family.table.wall
    for w, d, h, _ in family.sizes:
        if h <= drawer.clear and max(w, d) <= max(drawer.floor.w, drawer.floor.d):
            for across, deep in {(w, d), (d, w)}:
                lie = bed(lot.thing, lot.count, deep - wall, h)
                if lie is not None and lie.width <= across - wall:
                    return Tray(lot, w, d, h)
    return None


def _piled(trays: Sequence[Tray], clear: int) -> list[list[Tray]]:
    """Trays of one floor on each other as far as the drawer is high, from the bottom."""
    by_floor: dict[tuple[int, int], list[Tray]] = defaultdict(list)
    for tray in trays:
        by_floor[tray.w, tray.d].append(tray)
    piles = []
    for same in by_floor.values():
        open_piles: list[list[Tray]] = []
        for tray in sorted(
            same, key=lambda t: (t.lot.uses, -t.h)
        ):  # what is seldom wanted first, so that it lies below
            pile = next((p for p in open_piles if sum(t.h for t in p) + tray.h <= clear), None)
            if pile is None:
                open_piles.append(pile := [])
            pile.append(tray)
        piles += open_piles
    return piles
