"""Which group goes into which drawer of a chest: shallow things into shallow drawers, what is daily into the upper ones,
what is heavy low, one owner's things together.

Groups are set one by one, the largest first, into the drawer where they cost least; then moved and exchanged while that
helps. A drawer counts as full at a share of its floor, for compartments never tile it. What does not go into the drawer it
was given is offered to the others when the floors are parted.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Protocol

from ...inventory import Thing, uses_a_month
from ..packing.lying import bed, shapes
from .drawers import Drawer
from .skyline import Spot

FULL = 0.78
"""Share of a floor up to which it is filled without a cost; common practice: packed things take a fifth more than their
area.
"""
LOW, OFTEN, HEAVY, MIXED, OVER = 0.6, 1.0, 0.5, 0.4, 40.0
"""Costs: height wasted over what lies there, daily things a drawer lower, heavy ones a drawer higher, two owners in a
drawer, and floor beyond what it has.
"""
ROUNDS = 6
SURE = 1e6
"""What a lot is worth that is placed before all others."""


@dataclass(frozen=True, slots=True)
class Lot:
    """So many pieces of a thing that share one compartment."""

    thing: Thing
    count: int

    @property
    def lots(self) -> tuple["Lot", ...]:
        """Itself."""
        return (self,)

    @property
    def uses(self) -> float:
        """How often it is taken out in a month."""
        return uses_a_month(self.thing.frequency)

    def halves(self) -> tuple["Lot", "Lot"]:
        """The same in two compartments."""
        half = self.count // 2
        return Lot(self.thing, self.count - half), Lot(self.thing, half)

    def areas(self, drawer: Drawer, strip: int) -> float | None:
        """The least floor it takes there with a strip at two sides, mm²; None where it does not go in."""
        size = self.shapes(drawer)
        return min((w + strip) * (d + strip) for w, d in size) if size else None

    def shapes(self, drawer: Drawer) -> tuple[tuple[int, int], ...]:
        """Clear widths and depths of compartments for it in a drawer."""
        if self.count * self.thing.piece_mass > drawer.rating:
            return ()
        return shapes(self.thing, self.count, drawer.floor.w, drawer.floor.d, drawer.clear)

    def placed(self, spot: Spot, drawer: Drawer, at: int) -> "list[Placed]":
        """Itself in its compartment."""
        return [Placed(self, spot, 0, drawer.clear)]


@dataclass(frozen=True, slots=True)
class Placed:
    """A lot in its compartment (None: a free one, or one for trays): where it lies, and its foot and height, mm; `on` is
    the place in the list of the one that it stands on or in; `tray` whether it is a tray.
    """

    lot: Lot | None
    spot: Spot
    z: int
    h: int
    on: int | None = None
    tray: bool = False


class Holds(Protocol):
    """What takes one compartment: a lot by itself, or a pile of trays with what lies in them."""

    @property
    def lots(self) -> tuple[Lot, ...]:
        """What lies in it."""

    @property
    def uses(self) -> float:
        """How often it is reached into in a month."""

    def shapes(self, drawer: Drawer) -> tuple[tuple[int, int], ...]:
        """Clear widths and depths of compartments for it in a drawer."""

    def placed(self, spot: Spot, drawer: Drawer, at: int) -> list[Placed]:
        """The compartment and what stands in it, where it is the `at`th of a list."""


def lots_of(things: Sequence[Thing], drawers: Sequence[Drawer]) -> list[Lot]:
    """The groups that stay; one that no drawer takes whole is halved until one does, or until it is one piece."""
    waiting = [Lot(t, t.count) for t in things if t.stays]
    found = []
    while waiting:
        lot = waiting.pop(0)
        if lot.count == 1 or any(lot.shapes(d) for d in drawers):
            found.append(lot)
        else:
            waiting[:0] = lot.halves()
    return found


def shared_out(lots: Sequence[Lot], drawers: Sequence[Drawer], strip: int) -> list[int | None]:
    """The number of the drawer for each lot; None for what no drawer takes."""
    sizes = [[lot.areas(d, strip) for d in drawers] for lot in lots]
    lowest = max((d.turn for d in drawers), default=0)
    costs = [[_cost(lot, d, lowest) if a is not None else 0.0 for d, a in zip(drawers, row, strict=True)]
             for lot, row in zip(lots, sizes, strict=True)]  # fmt: skip
    room = [(d.floor.w + strip) * (d.floor.d + strip) for d in drawers]
    home: list[int | None] = [None] * len(lots)
    filled = [0.0] * len(drawers)
    held: list[dict[str, int]] = [{} for _ in drawers]

    def price(n: int, d: int) -> float:
        area = sizes[n][d] or 0.0
        before, after = (max(0.0, filled[d] / room[d] - FULL), max(0.0, (filled[d] + area) / room[d] - FULL))
        owner = lots[n].thing.owner
        others = sum(k for o, k in held[d].items() if o != owner)
        return costs[n][d] + OVER * (after - before) + MIXED * (others > 0)

    def put(n: int, d: int | None, sign: int = 1) -> None:
        if d is None:
            return
        filled[d] += sign * (sizes[n][d] or 0.0)
        owner = lots[n].thing.owner
        held[d][owner] = held[d].get(owner, 0) + sign

    def exchanged(a: int, b: int) -> bool:
        """Exchange the drawers of two lots where that costs less."""
        one, other = home[a], home[b]
        if one is None or other is None or one == other or sizes[a][other] is None or sizes[b][one] is None:
            return False
        put(a, one, -1)
        put(b, other, -1)
        before = price(a, one) + price(b, other)
        after = price(a, other) + price(b, one)
        helps = after < before - 1e-9
        home[a], home[b] = (other, one) if helps else (one, other)
        put(a, home[a])
        put(b, home[b])
        return helps

    order = sorted(range(len(lots)), key=lambda n: -max((a for a in sizes[n] if a is not None), default=0.0))
    for _ in range(ROUNDS):
        moved = False
        for n in order:
            put(n, home[n], -1)
            able = [d for d in range(len(drawers)) if sizes[n][d] is not None]
            best = min(able, key=lambda d: (price(n, d), d), default=None)
            moved |= best != home[n]
            home[n] = best
            put(n, best)
        moved |= sum(exchanged(a, b) for a in order for b in order if a < b) > 0
        if not moved:
            break
    return home


def _cost(lot: Lot, drawer: Drawer, lowest: int) -> float:
    """What a lot costs in a drawer, whatever else is there; from 0 to about 2."""
    lie = bed(lot.thing, lot.count, drawer.floor.d, drawer.clear)
    wasted = 1 - (lie.height / max(drawer.clear, 1)) if lie is not None else 1.0
    share = drawer.turn / max(1, lowest)
    daily = min(1.0, lot.uses / uses_a_month("daily"))
    mass = min(1.0, lot.count * lot.thing.piece_mass / 5)
    return LOW * wasted + OFTEN * daily * share + HEAVY * mass * (1 - share)
