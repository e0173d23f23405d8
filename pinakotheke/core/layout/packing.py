"""One bay: options packed into compartments, compartments stacked in the best order.

Compartments of one role are filled first-fit by falling height, so the tall stand with the tall. Drawers form one
chest under a cover. The order from the floor up is exact (a dynamic programme over sets of compartments) up to
`EXACT` compartments and an order by liking above that; `stack(..., exact=True)` lifts the limit for the last word.
All heights are whole pitches above the bay's foot.
"""

from collections.abc import Sequence
from dataclasses import dataclass, field
from math import inf
from operator import attrgetter

from ..systems import Bay, Family, Role
from .lots import Option

_RANK = attrgetter("rank")
EXACT = 4
EXACT_LAST = 10


@dataclass(frozen=True, slots=True)
class Weights:
    """What the goal minimises: money, reach points, height used (per 0.01 m² of front)."""

    price: float
    reach: float
    front: float


@dataclass(slots=True)
class Slot:
    """A compartment, or a chest of drawers (several `drawers`, bottom first)."""

    role: Role
    units: int
    price: float
    room: float = 0.0
    load: float = 0.0
    options: list[Option] = field(default_factory=list)
    drawers: list["Slot"] = field(default_factory=list)

    def cost_at(self, base: int) -> float:
        """Reach points with its foot `base` pitches up."""
        if self.drawers:
            total = 0.0
            for drawer in self.drawers:
                total += drawer.cost_at(base)
                base += drawer.units
            return total
        total = 0.0
        for option in self.options:
            costs = option.costs
            total += costs[base] if base < len(costs) else costs[-1]
        return total

    @property
    def liked(self) -> int:
        """The foot that the tallest thing in it likes best."""
        return (self.drawers[0] if self.drawers else self).options[0].liked


@dataclass(slots=True)
class Stack:
    """Compartments in order with their feet, and what the bay costs; `cost` is inf when they do not fit."""

    cost: float
    slots: list[Slot]
    feet: list[int]
    top: int


EMPTY = Stack(0.0, [], [], 0)
NO_STACK = Stack(inf, [], [], 0)


class BayPacker:
    """Packs options into one bay, remembering every set it has seen."""

    def __init__(self, bay: Bay, family: Family, weights: Weights) -> None:
        self.bay, self.family, self.weights = bay, family, weights
        self.most = (bay.z1 - bay.z0) // bay.pitch
        self.blocked = sorted(
            (max(0, (low - bay.z0) // bay.pitch), -(-(high - bay.z0) // bay.pitch))
            for low, high in bay.blocked
            if high > bay.z0 and low < bay.z1
        )
        self._openings: dict[tuple[Role, int], tuple[float, float]] = {}
        self._ratings = {role: family.component(role, bay).rating for role in family.roles}
        self.shelf_price = float(family.component("shelf", bay).price)
        self.dm2 = bay.w * bay.pitch / 1e4
        self._seen: dict[int, float] = {0: 0.0}

    def cost(self, mask: int, options: Sequence[Option]) -> float:
        """Cost of holding exactly these options; `mask` names the set. inf when they do not fit."""
        known = self._seen.get(mask)
        if known is None:
            known = self._seen[mask] = self.stack(options).cost
        return known

    def stack(self, options: Sequence[Option], *, exact: bool = False) -> Stack:
        """Pack and order the options."""
        if not options:
            return EMPTY
        slots = self._pack(options)
        if slots is None:
            return NO_STACK
        price = sum(s.price for s in slots)
        limit = EXACT_LAST if exact else EXACT
        placed = self._best_order(slots) if len(slots) <= limit else self._liked_order(slots)
        if placed is None:
            return NO_STACK
        order, feet, reach = placed
        ordered = [slots[n] for n in order]
        if self.bay.has_base and ordered[0].role == "shelf" and feet[0] == 0:
            price -= self.shelf_price
        top = feet[-1] + ordered[-1].units
        w = self.weights
        used = sum(s.units for s in slots) * self.dm2
        return Stack(w.price * price + w.reach * reach + w.front * used, ordered, feet, top)

    def _pack(self, options: Sequence[Option]) -> list[Slot] | None:
        """Compartments, first-fit; None as soon as they are higher together than the bay."""
        slots: list[Slot] = []
        drawers: list[Slot] = []
        by_role: dict[Role, list[Slot]] = {}
        free = self.most
        for option in sorted(options, key=_RANK):
            asked, mass = option.asked, option.need.mass
            rows = by_role.get(option.role)
            if rows is None:
                rows = by_role[option.role] = []
            for slot in rows:
                if asked <= slot.room and mass <= slot.load:
                    break
            else:
                slot = self._open(option)
                rows.append(slot)
                free -= slot.units
                if free < 0:
                    return None
                (drawers if option.role == "drawer" else slots).append(slot)
            slot.room -= asked
            slot.load -= mass
            slot.options.append(option)
        if drawers:
            if free < 1:
                return None
            slots.append(
                Slot(
                    role="drawer",
                    units=sum(d.units for d in drawers) + 1,
                    price=sum(d.price for d in drawers) + self.shelf_price,
                    drawers=drawers,
                )
            )
        return slots

    def _open(self, option: Option) -> Slot:
        price, capacity = self.opening(option)
        return Slot(option.role, option.units, price, capacity, self._ratings[option.role])

    def opening(self, option: Option) -> tuple[float, float]:
        """Price and capacity of the compartment that is opened for an option."""
        known = self._openings.get((option.role, option.front))
        if known is None:
            component = self.family.component(option.role, self.bay, option.front)
            known = self._openings[option.role, option.front] = (float(component.price), component.capacity)
        return known

    def _foot(self, top: int, units: int) -> int:
        """Lowest foot at or above `top` where `units` pitches meet no blocked range; `most` + 1 when none."""
        for low, high in self.blocked:
            if top < high and low < top + units:
                top = high
        return top if top + units <= self.most else self.most + 1

    def _best_order(self, slots: list[Slot]) -> tuple[list[int], list[int], float] | None:
        """Least reach points over all orders: f(S ∪ {i}) = f(S) + cost of i on top of S. Exact without blocked
        ranges; with them the height of S depends on its order and the cheapest order of S is kept.
        """
        n = len(slots)
        full = (1 << n) - 1
        cost = [inf] * (full + 1)
        top = [0] * (full + 1)
        last = [-1] * (full + 1)
        foot = [0] * (full + 1)
        cost[0] = 0.0
        for held in range(full):
            if cost[held] == inf:
                continue
            for i in range(n):
                bit = 1 << i
                if held & bit:
                    continue
                at = self._foot(top[held], slots[i].units)
                if at > self.most:
                    continue
                total = cost[held] + slots[i].cost_at(at)
                both = held | bit
                if total < cost[both]:
                    cost[both], top[both], last[both], foot[both] = total, at + slots[i].units, i, at
        if cost[full] == inf:
            return None
        order: list[int] = []
        feet: list[int] = []
        held = full
        while held:
            order.append(last[held])
            feet.append(foot[held])
            held ^= 1 << last[held]
        return order[::-1], feet[::-1], cost[full]

    def _liked_order(self, slots: list[Slot]) -> tuple[list[int], list[int], float] | None:
        """Compartments by the height they like best, a quick stand-in for `_best_order`."""
        order = sorted(range(len(slots)), key=lambda n: slots[n].liked)
        feet, top, reach = [], 0, 0.0
        for i in order:
            at = self._foot(top, slots[i].units)
            if at > self.most:
                return None
            feet.append(at)
            reach += slots[i].cost_at(at)
            top = at + slots[i].units
        return order, feet, reach
