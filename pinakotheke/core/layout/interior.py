"""Who lives where: every lot to a bay and a way, by greedy insertion and annealing.

The state is one option per lot, or none. Moves: send a lot elsewhere or another way, swap two lots, take a lot out
to let another in. Each bay's cost comes from `packing`, remembered by the set it holds, so most moves cost two
look-ups. Stops by count of moves, so the same seed gives the same answer; the clock is only asked by the caller.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from math import exp, inf
from random import Random

from .lots import Lot, Option
from .packing import BayPacker, Stack

UNPLACED = 10_000.0
"""Cost of a lot without a place in an answer: more than any layout is worth."""
OUT = 160.0
"""Cost of a lot without a place during annealing: low enough that one may wait outside while others move."""
SPLIT = 3.0
"""Cost of one thing living in one more bay."""
HOT, COLD = 20.0, 0.3

Choice = tuple[int, int] | None
"""(bay, option index) of a lot, or None."""
Check = Callable[[], None]
"""Called now and then; raises `Cancelled` when the asker withdrew."""


@dataclass(slots=True)
class Interior:
    """A complete assignment and its cost."""

    cost: float
    choices: list[Choice]
    stacks: list[Stack]
    unplaced: int
    moves: int


class Search:
    """State of the assignment and the moves on it."""

    def __init__(self, lots: Sequence[Lot], packers: Sequence[BayPacker], seed: int) -> None:
        self.lots, self.packers, self.random = lots, packers, Random(seed)
        self.moves = 0
        self._bits: list[list[int]] = []
        bit = 1
        for lot in lots:
            row = []
            for _ in lot.options:
                row.append(bit)
                bit <<= 1
            self._bits.append(row)
        self.spots: list[list[tuple[int, int]]] = [
            [(b, k) for k, option in enumerate(lot.options) for b in sorted(option.bays)] for lot in lots
        ]
        self.choices: list[Choice] = [None] * len(lots)
        self._masks = [0] * len(packers)
        self._held: list[dict[int, Option]] = [{} for _ in packers]
        self._costs = [0.0] * len(packers)
        self._thing_bays: dict[str, dict[int, int]] = {}
        self.total = OUT * len(lots)
        self.out = len(lots)

    # -- one lot in or out, with the bay's cost looked up --

    def _bay_with(self, bay: int, index: int, k: int) -> float:
        held = self._held[bay]
        return self.packers[bay].cost(
            self._masks[bay] | self._bits[index][k], [*held.values(), self.lots[index].options[k]]
        )

    def _put(self, index: int, bay: int, k: int, cost: float) -> None:
        self.total += cost - self._costs[bay] - OUT
        self.out -= 1
        self._costs[bay] = cost
        self._masks[bay] |= self._bits[index][k]
        self._held[bay][index] = self.lots[index].options[k]
        self.choices[index] = (bay, k)
        counts = self._thing_bays.setdefault(self.lots[index].thing.id, {})
        if counts and bay not in counts:
            self.total += SPLIT
        counts[bay] = counts.get(bay, 0) + 1

    def _take(self, index: int) -> None:
        choice = self.choices[index]
        if choice is None:
            return
        bay, k = choice
        self._masks[bay] ^= self._bits[index][k]
        del self._held[bay][index]
        cost = self.packers[bay].cost(self._masks[bay], list(self._held[bay].values()))
        self.total += cost - self._costs[bay] + OUT
        self.out += 1
        self._costs[bay] = cost
        self.choices[index] = None
        counts = self._thing_bays[self.lots[index].thing.id]
        counts[bay] -= 1
        if not counts[bay]:
            del counts[bay]
            if counts:
                self.total -= SPLIT

    def _insert_best(self, index: int) -> bool:
        """Put a free lot where it costs least; False when no spot takes it."""
        best, where = inf, None
        counts = self._thing_bays.get(self.lots[index].thing.id, {})
        for bay, k in self.spots[index]:
            cost = self._bay_with(bay, index, k)
            extra = cost - self._costs[bay] + (SPLIT if counts and bay not in counts else 0)
            if extra < best:
                best, where = extra, (bay, k, cost)
        if where is None:
            return False
        self._put(index, *where)
        return True

    # -- search --

    def greedy(self) -> None:
        """Insert all lots, the hardest to place first."""
        hardest = sorted(
            range(len(self.lots)),
            key=lambda n: (len(self.spots[n]), -max((o.units * o.asked for o in self.lots[n].options), default=0)),
        )
        for index in hardest:
            if self.choices[index] is None:
                self._insert_best(index)

    def start_from(self, choices: Sequence[Choice]) -> None:
        """Take over an assignment found before for the same lots and bays."""
        self._restore(dict(enumerate(choices)))

    def anneal(self, moves: int, check: Check) -> None:
        """`moves` random moves from hot to cold, keeping the best state seen."""
        movable = [n for n in range(len(self.lots)) if self.spots[n]]
        if not movable:
            return
        best, best_choices = (self.out, self.total), list(self.choices)
        ratio = COLD / HOT
        for step in range(moves):
            if step % 64 == 0:
                check()
            heat = HOT * ratio ** (step / moves)
            before = self.total
            undo = self._random_move(movable)
            if undo is None:
                continue
            self.moves += 1
            rise = self.total - before
            if rise > 0 and self.random.random() >= exp(-rise / heat):
                self._restore(undo)
            elif (self.out, self.total) < best:
                best, best_choices = (self.out, self.total), list(self.choices)
        self._restore({n: c for n, c in enumerate(best_choices) if c != self.choices[n]})

    def _random_move(self, movable: list[int]) -> dict[int, Choice] | None:
        """Change the state; returns what to restore, or None when nothing could change."""
        index = movable[int(self.random.random() * len(movable))]
        spots = self.spots[index]
        spot = spots[int(self.random.random() * len(spots))]
        if spot == self.choices[index]:
            return None
        undo: dict[int, Choice] = {index: self.choices[index]}
        bay, k = spot
        self._take(index)
        cost = self._bay_with(bay, index, k)
        if cost < inf:
            self._put(index, bay, k, cost)
            return undo
        # No room there: someone of that bay leaves, finds the best other place, or stays out for now.
        others = [n for n in self._held[bay] if n != index]
        if others:
            other = others[int(self.random.random() * len(others))]
            undo[other] = self.choices[other]
            self._take(other)
            cost = self._bay_with(bay, index, k)
            if cost < inf:
                self._put(index, bay, k, cost)
                self._insert_best(other)
                return undo
        self._restore(undo)
        return None

    def _restore(self, choices: dict[int, Choice]) -> None:
        for index in choices:
            self._take(index)
        for index, choice in choices.items():
            if choice is not None:
                bay, k = choice
                self._put(index, bay, k, self._bay_with(bay, index, k))

    def result(self) -> Interior:
        """The state with every bay's compartments in their exact best order."""
        stacks = [p.stack(list(h.values()), exact=True) for p, h in zip(self.packers, self._held, strict=True)]
        gained = sum(self._costs) - sum(s.cost for s in stacks)
        total = self.total - gained + (UNPLACED - OUT) * self.out
        return Interior(total, list(self.choices), stacks, self.out, self.moves)


def search(lots: Sequence[Lot], packers: Sequence[BayPacker], *, moves: int, seed: int, check: Check,
           start: Sequence[Choice] | None = None) -> Interior:  # fmt: skip
    """Greedy insertion, or an assignment to start from, then annealing; exact order last. The moves go by a quick
    order, so what they end with is held against what they began with.
    """
    state = Search(lots, packers, seed)
    if start is not None:
        state.start_from(start)
    state.greedy()
    begun = state.result()
    state.anneal(moves, check)
    ended = state.result()
    better = (ended.unplaced, ended.cost) <= (begun.unplaced, begun.cost)
    return ended if better else replace(begun, moves=state.moves)
