"""Who lives where: every lot to a spot, and every bay's compartments in order.

Fills the plain arrays that `kernel` works on, calls it in pieces so that a search can be cancelled, and reads the
answer back as compartments. Stops by count of moves, so the same seed gives the same answer; the clock is only asked
by the caller.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from typing import Any, get_args

import numpy as np

from ..house import HouseRules
from ..systems import FRONTS, Bay, Holder
from ..tables import value
from . import columns
from .lots import Lot, Spot
from .models import Weights
from .task import Household

UNPLACED = 10_000.0
"""Cost of a lot without a place in an answer: more than any layout is worth."""
EXACT, EXACT_LAST = 5, 12
"""Compartments of a bay ordered exactly during the search, and in the last word."""
HOT, COLD = 120.0, 1.0
CHUNK = 1500
"""Moves between two looks whether the asker withdrew."""
ROLES: tuple[Holder, ...] = get_args(Holder)
CODE: dict[str, int] = {role: n for n, role in enumerate(ROLES)}

Check = Callable[[], None]
"""Called now and then; raises `Cancelled` when the asker withdrew."""
Choice = tuple[int, ...]
"""For every lot the number of its spot, −1 for none."""


@dataclass(slots=True)
class Compartment:
    """A compartment in its bay: the spots in it, and how many pitches up its foot stands."""

    role: Holder
    foot: int
    units: int
    spots: list[tuple[Lot, Spot]]
    chest: bool = False
    """A drawer that stands on another one of the same chest."""
    covered: bool = False
    """The top drawer of a chest whose cover is its own board."""


@dataclass(slots=True)
class Interior:
    """A complete assignment and its cost."""

    cost: float
    choices: Choice
    stacks: list[list[Compartment]]
    unplaced: int
    moves: int


@dataclass(frozen=True, slots=True)
class Scale:
    """Points a unit of each thing costs under the weights of a goal."""

    money: float
    front: float
    reach: float
    part: float
    hour: float
    reuse: float

    @classmethod
    def of(cls, weights: Weights) -> "Scale":
        """5 is one point for a unit of money; the others are in proportion to what they usually weigh against it."""
        return cls(money=weights.money / 5, front=weights.room / 10, reach=weights.reach / 2,
                   part=weights.parts / 5 * value("design.part_points"),
                   hour=weights.hours / 5 * value("design.hour_points"), reuse=weights.reuse / 5)  # fmt: skip


@dataclass(slots=True)
class Problem:
    """Lots and bays as arrays."""

    lots: Sequence[Lot]
    bays: Sequence[Bay]
    scale: Scale
    home: Household
    starts: Any = None
    spots: list[tuple[int, Spot]] = field(default_factory=list)
    arrays: tuple[Any, ...] = ()

    def __post_init__(self) -> None:
        n = len(self.lots)
        self.starts = np.zeros(n + 1, np.int64)
        for lot in self.lots:
            self.spots += [(lot.index, s) for s in lot.spots]
            self.starts[lot.index + 1] = len(self.spots)
        self.arrays = (*self._spot_tables(), *self._bay_tables(), *self._labels())

    def _spot_tables(self) -> tuple[Any, Any, Any]:
        families, component = self.home.families, self.home.cache.component
        m = max(1, len(self.spots))
        spot_i, spot_f = np.zeros((m, 8), np.int64), np.zeros((m, 6))
        rows: dict[tuple[float, ...], int] = {}
        ranks = sorted(range(len(self.spots)), key=lambda k: (-self.spots[k][1].units, -self.spots[k][1].asked, k))
        for rank, k in enumerate(ranks):
            spot_i[k, columns.RANK] = rank
        for k, (_, spot) in enumerate(self.spots):
            bay = self.bays[spot.bay]
            family = families.of(bay)
            price, capacity, rating, hours, _ = component(family, spot.role, bay, spot.front)
            role = "shelf" if spot.role == "base" else spot.role
            if spot.role == "base" and "shelf" in family.specs:
                # The credit for a base is a shelf's price, so a base is reckoned as one first.
                price = component(family, "shelf", bay, 0).price
            spot_i[k, : columns.RANK] = (
                spot.bay, CODE[role], spot.units, spot.lowest, spot.highest,
                rows.setdefault(spot.troubles, len(rows)),
            )  # fmt: skip
            spot_i[k, columns.FLOOR] = int(spot.highest == 0 and spot.way == "floor")
            opening = self.scale.money * price + self.scale.part + self.scale.hour * hours
            extra = self.scale.money * spot.extra - (self.scale.reuse * 5 if spot.at_hand else 0)
            spot_f[k] = (spot.asked, spot.mass, capacity, rating, opening, extra)
        pitches = max((b.pitches for b in self.bays), default=0)
        troubles = np.zeros((max(1, len(rows)), pitches + 1))
        for points, row in rows.items():
            troubles[row, : len(points)] = np.asarray(points) * self.scale.reach
            troubles[row, len(points) :] = points[-1] * self.scale.reach
        return spot_i, spot_f, troubles

    def _bay_tables(self) -> tuple[Any, Any, Any, Any]:
        n = max(1, len(self.bays))
        bay_i, bay_f = np.zeros((n, 3), np.int64), np.zeros((n, 3))
        most = max((len(b.blocked) for b in self.bays), default=0)
        blocked, n_blocked = np.zeros((n, max(1, most), 3), np.int64), np.zeros(n, np.int64)
        for k, bay in enumerate(self.bays):
            family = self.home.families.of(bay)
            bay_i[k] = (0 if bay.locked else bay.pitches, int(bay.has_base), int(bay.loose))
            shelf = self.home.cache.component(family, "shelf", bay, 0).price if "shelf" in family.specs else 0.0
            shelf_points = self.scale.money * shelf + self.scale.part
            across = bay.w if bay.axis != "x" else bay.depth
            bay_f[k] = (self.scale.front * across * bay.pitch / 1e4, shelf_points, shelf_points)
            ranges = sorted(
                (max(0, (b.low - bay.z0) // bay.pitch), -(-(b.high - bay.z0) // bay.pitch), int(b.loose))
                for b in bay.blocked if b.high > bay.z0 and b.low < bay.z1
            )  # fmt: skip
            n_blocked[k] = len(ranges)
            for j, row in enumerate(ranges):
                blocked[k, j] = row
        return bay_i, bay_f, blocked, n_blocked

    def _labels(self) -> tuple[Any, ...]:
        """Which lots are of one thing, and which are used together; the counts of each by bay start at zero."""
        things: dict[str, int] = {}
        words: dict[str, int] = {}
        thing, group = np.full(len(self.lots), -1, np.int64), np.full(len(self.lots), -1, np.int64)
        for lot in self.lots:
            thing[lot.index] = things.setdefault(lot.thing.id, len(things))
            if lot.thing.together:
                group[lot.index] = words.setdefault(lot.thing.together, len(words))
        shape = (max(1, len(self.bays)),)
        return (thing, np.zeros((max(1, len(things)), *shape), np.int64), group,
                np.zeros((max(1, len(words)), *shape), np.int64))  # fmt: skip


def search(problem: Problem, *, moves: int, seed: int, check: Check, start: Choice | None = None) -> Interior:
    """Greedy insertion, or an assignment to start from, then annealing in pieces; exact order last. The moves go by a
    quick order, so what they end with is held against what they began with.
    """
    choice = np.asarray(start if start is not None else (-1,) * len(problem.lots), np.int64)
    state, done, begun = seed % (columns.MODULUS - 1) + 1, 0, None
    state, _ = _run(problem, choice, 0, state, HOT, HOT, begun=0)
    check()
    begun = read(problem, tuple(int(c) for c in choice))
    while done < moves:
        chunk = min(CHUNK, moves - done)
        hot = HOT * (COLD / HOT) ** (done / moves)
        cold = HOT * (COLD / HOT) ** ((done + chunk) / moves)
        state, _ = _run(problem, choice, chunk, state, hot, cold, begun=1)
        done += chunk
        check()
    ended = read(problem, tuple(int(c) for c in choice)) if done else begun
    best = ended if (ended.unplaced, ended.cost) <= (begun.unplaced, begun.cost) else begun
    best.moves = done
    return best


def _run(
    problem: Problem, choice: Any, moves: int, state: int, hot: float, cold: float, *, begun: int
) -> tuple[int, float]:
    from . import kernel  # numba takes half a second to import, and only a search needs it

    spot_i, spot_f, troubles, bay_i, bay_f, blocked, n_blocked, thing, things, group, groups = problem.arrays
    things[:], groups[:] = 0, 0
    state, best, _, _ = kernel.anneal(
        choice, problem.starts, spot_i, spot_f, troubles, bay_i, bay_f, blocked, n_blocked, thing, things, group,
        groups, value("design.split"), value("design.apart"), np.array([CODE["drawer"], CODE["shelf"]]), moves,
        hot, cold, state, begun, EXACT,
    )  # fmt: skip
    return int(state), float(best)


def read(problem: Problem, choices: Choice) -> Interior:
    """Every bay's compartments in their exact best order, and what it all costs."""
    spot_i, _spot_f, _troubles, _bay_i, _bay_f, _blocked, _n_blocked, *_ = problem.arrays
    chest, shelf = CODE["drawer"], CODE["shelf"]
    held: list[list[int]] = [[] for _ in problem.bays]
    bays_of: dict[str, set[int]] = {}
    words: dict[str, set[int]] = {}
    for lot in problem.lots:
        spot = choices[lot.index]
        if spot >= 0:
            bay = int(spot_i[spot, columns.BAY])
            held[bay].append(spot)
            bays_of.setdefault(lot.thing.id, set()).add(bay)
            if lot.thing.together:
                words.setdefault(lot.thing.together, set()).add(bay)
    out = sum(c < 0 for c in choices)
    cost = UNPLACED * out
    cost += value("design.split") * sum(len(b) - 1 for b in bays_of.values())
    cost += value("design.apart") * sum(len(b) - 1 for b in words.values())
    stacks: list[list[Compartment]] = []
    for bay, spots in enumerate(held):
        points, stack = _stack(problem, bay, spots, chest, shelf)
        cost += points
        stacks.append(stack)
    return Interior(cost, choices, stacks, out, 0)


def _stack(problem: Problem, bay: int, spots: list[int], chest: int, shelf: int) -> tuple[float, list[Compartment]]:
    spot_i, spot_f, troubles, bay_i, bay_f, blocked, n_blocked, *_ = problem.arrays
    if not spots:
        return 0.0, []
    from . import kernel

    n = len(spots)
    held = np.array(spots, np.int64)
    slot_i, slot_f = np.empty((columns.MOST_SLOTS, 5), np.int64), np.empty((columns.MOST_SLOTS, 2))
    member = np.empty(n, np.int64)
    where, feet = np.empty(columns.MOST_SLOTS, np.int64), np.empty(columns.MOST_SLOTS, np.int64)
    slots, price = kernel.pack(held, n, spot_i, spot_f, chest, slot_i, slot_f, member, bay_f[bay, columns.COVER_COST],
                               bay_i[bay, columns.PITCHES])  # fmt: skip
    if slots < 0:
        raise RuntimeError("a bay of the answer does not hold what is in it")
    best = (columns.BIG, 0, 0)
    for exact in (EXACT_LAST, 0):
        if exact and slots > EXACT_LAST + 4:
            continue
        best = kernel.order(held, n, slots, spot_i, troubles, chest, slot_i, member, bay_i[bay], blocked[bay],
                            n_blocked[bay], exact, where, feet)  # fmt: skip
        if best[0] < columns.BIG:
            break
    points, used, blocks = best
    if points >= columns.BIG:
        raise RuntimeError("a bay of the answer does not stand")
    based = bool(bay_i[bay, columns.HAS_BASE]) and slot_i[where[0], 0] == shelf and feet[0] == 0
    cost = price - (bay_f[bay, columns.BASE_CREDIT] if based else 0) + points + used * bay_f[bay, columns.FRONT_COST]
    return float(cost), _compartments(problem, held, member, slot_i, where, feet, int(blocks), slots, chest, based)


def _compartments(problem: Problem, held: Any, member: Any, slot_i: Any, where: Any, feet: Any, blocks: int, slots: int,
                  chest: int, based: bool) -> list[Compartment]:  # fmt: skip
    inside: list[list[tuple[Lot, Spot]]] = [[] for _ in range(slots)]
    for k, spot in enumerate(held):
        lot, one = problem.spots[int(spot)]
        inside[int(member[k])].append((problem.lots[lot], one))
    drawers = [c for c in range(slots) if slot_i[c, 0] == chest]
    stack: list[Compartment] = []
    for k in range(blocks):
        c, foot = int(where[k]), int(feet[k])
        if slot_i[c, 0] == chest:
            for d in drawers:
                stack.append(Compartment("drawer", foot, int(slot_i[d, 1]), inside[d], chest=d != drawers[0]))
                foot += int(slot_i[d, 1])
            next_foot = int(feet[k + 1]) if k + 1 < blocks else -1
            closed = next_foot == foot and ROLES[int(slot_i[int(where[k + 1]), 0])] == "shelf"
            stack[-1].covered = not closed
        else:
            role: Holder = ROLES[int(slot_i[c, 0])]
            if k == 0 and based and role == "shelf":
                role = "base"
            stack.append(Compartment(role, foot, int(slot_i[c, 1]), inside[c]))
    return stack


def fronts_of(compartment: Compartment) -> int:
    """The height of a drawer's or basket's front: that of the tallest thing in it; 0 for what has none."""
    return max((s.front for _, s in compartment.spots), default=0) if compartment.role in FRONTS else 0


def prime() -> None:
    """Compile the kernel, or fetch it from where an earlier run kept it, so that nobody waits for it later."""
    search(Problem([], [], Scale.of(Weights()), Household(HouseRules(), ())), moves=0, seed=1, check=lambda: None)
