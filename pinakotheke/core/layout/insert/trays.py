"""One drawer set with trays of fixed sizes, and trays that stand on each other in a compartment between dividers."""

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass

from ...systems.families.insert import TraySet
from ..packing.lying import bed
from . import exact
from .chest import SURE, Holds, Lot, Placed
from .drawers import Drawer
from .skyline import Rect, Spot, pack

PLAY = 2
"""mm that a compartment is wider and deeper than the tray that stands in it, so that it lifts out."""


@dataclass(frozen=True, slots=True)
class Tray:
    """A lot in a tray of a size."""

    lot: Lot
    w: int
    d: int
    h: int


@dataclass(frozen=True, slots=True)
class Pile:
    """Trays of one floor on each other, from the bottom; between dividers they share a compartment."""

    trays: tuple[Tray, ...]

    @property
    def lots(self) -> tuple[Lot, ...]:
        """What lies in them."""
        return tuple(t.lot for t in self.trays)

    @property
    def uses(self) -> float:
        """How often it is reached into in a month."""
        return sum(t.lot.uses for t in self.trays)

    def shapes(self, drawer: Drawer) -> tuple[tuple[int, int], ...]:
        """Clear widths and depths of the compartment that it stands in, either way round."""
        w, d = self.trays[0].w + PLAY, self.trays[0].d + PLAY
        either = dict.fromkeys(((w, d), (d, w)))
        return tuple(s for s in either if s[0] <= drawer.floor.w and s[1] <= drawer.floor.d)

    def placed(self, spot: Spot, drawer: Drawer, at: int) -> list[Placed]:
        """The compartment, and the trays in its middle at the front."""
        w, d = self.trays[0].w, self.trays[0].d
        if w + PLAY > spot.w or d + PLAY > spot.d:
            w, d = d, w
        there = Spot(spot.x + (spot.w - w) // 2, spot.y + spot.d - d - PLAY // 2, w, d)
        return [Placed(None, spot, 0, drawer.clear), *self.stacked(there, at, at + 1)]

    def stacked(self, spot: Spot, on: int | None, at: int) -> list[Placed]:
        """The trays where they stand, the first of them the `at`th of a list."""
        found, z = [], 0
        for n, tray in enumerate(self.trays):
            found.append(Placed(tray.lot, spot, z, tray.h, on, tray=True))
            z, on = z + tray.h, at + n
        return found


@dataclass(frozen=True, slots=True)
class Trays:
    """A drawer set with trays."""

    drawer: Drawer
    placed: tuple[Placed, ...]
    left_out: tuple[Lot, ...] = ()

    @property
    def lots(self) -> tuple[Lot, ...]:
        """What lies in its trays."""
        return tuple(p.lot for p in self.placed if p.lot is not None)

    def without_left_out(self) -> "Trays":
        """The same, and nothing is left out."""
        return Trays(self.drawer, self.placed)

    @property
    def used(self) -> int:
        """mm² of the floor on which trays stand."""
        return sum(p.spot.w * p.spot.d for p in self.placed if p.on is None)

    @property
    def share(self) -> float:
        """Share of the floor on which trays stand."""
        return self.used / max(1, self.drawer.floor.w * self.drawer.floor.d)


def trayed(lots: Sequence[Lot], drawer: Drawer, family: TraySet, *, moves: int, seed: int, sure: Lot | None = None,
           ) -> Trays:  # fmt: skip
    """Lots in trays where they lie. Trays of one floor stand on each other where the drawer is deep enough; what is taken
    out most is on top. `sure` is placed before all others.
    """
    piles, out = piles_of(lots, drawer, family)
    floor = drawer.floor
    closed = [drawer.shut._replace(y=floor.d - drawer.shut.d)] if drawer.shut is not None else []
    worth = [sum(1 + t.lot.uses for t in pile.trays) + SURE * (sure in pile.lots) for pile in piles]
    # They are set from the front, where the hand is: the floor is turned about for the skyline.
    rects = [Rect(p.trays[0].w, p.trays[0].d) for p in piles]
    settle = exact.settle if sure is None else pack  # a proof takes too long to be asked for at every link of a chain
    spots = settle(rects, (floor.w, floor.d), closed, worth=worth, moves=moves, seed=seed)
    placed: list[Placed] = []
    for pile, spot in zip(piles, _often_in_front(piles, spots), strict=True):
        if spot is None:
            out += pile.lots
            continue
        there = Spot(floor.x + spot.x, floor.y + floor.d - spot.y - spot.d, spot.w, spot.d)
        placed += pile.stacked(there, None, len(placed))
    return Trays(drawer, tuple(placed), tuple(out))


def piles_of(lots: Sequence[Lot], drawer: Drawer, family: TraySet) -> tuple[list[Pile], list[Lot]]:
    """Lots in trays, those of one floor on each other, and what goes into none; what no tray takes whole is halved."""
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
    return _piled(trays, drawer.clear), out


def worth_their_floor(lots: Sequence[Lot], drawer: Drawer, family: TraySet, strip: int) -> list[Holds]:
    """The lots of a drawer, those in piles of trays that take less of its floor so than side by side between strips."""
    piles, _ = piles_of([lot for lot in lots if _tray(lot, drawer, family)], drawer, family)
    good: list[Holds] = []
    for pile in piles:
        own = [lot.areas(drawer, strip) for lot in pile.lots]
        each = [(w + strip) * (d + strip) for w, d in pile.shapes(drawer)]
        if each and all(own) and min(each) < sum(a or 0.0 for a in own):
            good.append(pile)
    piled = {id(lot) for pile in good for lot in pile.lots}
    return [*good, *(lot for lot in lots if id(lot) not in piled)]


def _often_in_front(piles: Sequence[Pile], spots: Sequence[Spot | None]) -> list[Spot | None]:
    """Piles on one floor exchanged, so that what is taken out most stands nearest to the front."""
    found = list(spots)
    by_floor: dict[tuple[int, int], list[int]] = defaultdict(list)
    for n, pile in enumerate(piles):
        if spots[n] is not None:
            by_floor[pile.trays[0].w, pile.trays[0].d].append(n)
    for same in by_floor.values():
        places = sorted((s for n in same if (s := spots[n]) is not None), key=lambda s: s.y)
        often = sorted(same, key=lambda n: -piles[n].uses)
        for n, place in zip(often, places, strict=True):
            found[n] = place
    return found


def _tray(lot: Lot, drawer: Drawer, family: TraySet) -> Tray | None:
    """The tray of least floor, and then the lowest, that holds a lot."""
    wall = 2 * family.table.wall
    if lot.count * lot.thing.piece_mass > family.spec("compartment").rating:
        return None
    for w, d, h, _ in family.sizes:
        if h <= drawer.clear and max(w, d) <= max(drawer.floor.w, drawer.floor.d):
            for across, deep in {(w, d), (d, w)}:
                lie = bed(lot.thing, lot.count, deep - wall, h)
                if lie is not None and lie.width <= across - wall:
                    return Tray(lot, w, d, h)
    return None


def _piled(trays: Sequence[Tray], clear: int) -> list[Pile]:
    """Trays of one floor on each other as far as the drawer is high, from the bottom."""
    by_floor: dict[tuple[int, int], list[Tray]] = defaultdict(list)
    for tray in trays:
        by_floor[tray.w, tray.d].append(tray)
    piles = []
    for same in by_floor.values():
        open_piles: list[list[Tray]] = []
        # What is seldom wanted first, so that it lies below.
        for tray in sorted(same, key=lambda t: (t.lot.uses, -t.h)):
            pile = next((p for p in open_piles if sum(t.h for t in p) + tray.h <= clear), None)
            if pile is None:
                open_piles.append(pile := [])
            pile.append(tray)
        piles += [Pile(tuple(p)) for p in open_piles]
    return piles
