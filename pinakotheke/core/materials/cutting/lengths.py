"""Lengths cut from boards and strips at the least price: the one-dimensional cutting stock problem with several stock
lengths, prices and limited offcuts.

Column generation (Gilmore and Gomory 1961, from memory): a linear program over cutting patterns, priced by one knapsack
for all stock lengths; what it costs is a bound. Then pieces are fixed by diving, every step priced anew, and a general
solver (CP-SAT) chooses whole numbers of all the patterns that came up. With a kerf of k every piece takes its length and
k, and every board has k more than its length, for the last piece needs no cut behind it.
"""

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import reduce
from math import ceil, gcd
from typing import Any, NamedTuple

import numpy as np
from numba import njit
from numpy.typing import NDArray

HOW: Any = {"nogil": True, "cache": True}
SAME = 1e-6
ROUNDS, DIVING = 600, 40
"""Rounds of pricing at most, at first and at every step of a dive; a run that is broken off has a weaker bound."""
CLOSE = 1e-4
"""Where so small a share lies between the program and what it proves, it is priced no further."""
STEADY = 0.7
"""How far the prices of a round stay with the best known."""
NEARLY = 0.3
"""A share that is less short of a whole number is taken for it in a dive."""
EFFORT = 0.6
"""The general solver's deterministic time."""


@dataclass(frozen=True, slots=True)
class Stock:
    """Boards of one length, mm, to cut from: what one costs in cents, and how many there are (None: as many as one buys).
    An offcut that is in hand costs nothing, and there is one of it.
    """

    key: str
    length: int
    price: int
    count: int | None = None


@dataclass(frozen=True, slots=True)
class Piece:
    """So many pieces of one finished length, mm."""

    key: str
    length: int
    count: int


class Board(NamedTuple):
    """One board with the pieces cut from it in their order, the longest first, and what is left of it, mm."""

    stock: Stock
    pieces: tuple[Piece, ...]
    rest: int


class NotEnough(ValueError):
    """There is no stock that a piece can be cut from, or too little of it."""

    def __init__(self, key: str) -> None:
        super().__init__(key)
        self.key = key


@dataclass(frozen=True, slots=True)
class CutPlan:
    """Boards with their cuts; `cost` and the proven least cost, `bound`, in cents."""

    boards: tuple[Board, ...]
    cost: int
    bound: int

    @property
    def is_proven(self) -> bool:
        """Whether nothing cheaper is possible."""
        return self.cost == self.bound

    @property
    def gap(self) -> float:
        """By what share it may cost more than need be."""
        return (self.cost - self.bound) / self.cost if self.cost else 0.0


def cut_lengths(pieces: Sequence[Piece], stock: Sequence[Stock], *, kerf: int = 0, trim: int = 0,
                effort: float = EFFORT) -> CutPlan:  # fmt: skip
    """The cheapest way that was found to cut all pieces; `kerf` is the saw's, `trim` what is cut off either end of a board
    first, mm. Raises `NotEnough` where that cannot be. The same request gives the same answer.
    """
    wanted = [p for p in pieces if p.count > 0]
    if not wanted:
        return CutPlan((), 0, 0)
    there = [s for s in stock if s.count is None or s.count > 0]
    room = np.array([max(0, s.length - 2 * trim + kerf) for s in there], np.int64)
    size = np.array([p.length + kerf for p in wanted], np.int64)
    for p, asked in zip(wanted, size, strict=True):
        if not len(room) or asked > room.max():
            raise NotEnough(p.key)
    model = _Model(size, np.array([p.count for p in wanted], np.int64), room, there)
    bound, dived = model.solved()
    chosen = model.whole(dived, bound, effort)
    if chosen is None:
        raise NotEnough(max(wanted, key=lambda p: p.length).key)
    boards = _boards(chosen, wanted, there, kerf, trim)
    return CutPlan(boards, sum(b.stock.price for b in boards), bound)


Pattern = tuple[int, tuple[int, ...]]
"""The number of a stock length, and how many of each piece are cut from one board of it."""


class _Model:
    """The linear program over the patterns of one request: it grows by patterns, and what is asked for may change."""

    def __init__(self, size: NDArray[np.int64], demand: NDArray[np.int64], room: NDArray[np.int64],
                 stock: Sequence[Stock]) -> None:  # fmt: skip
        from ortools.linear_solver import pywraplp

        self.size, self.demand, self.room, self.stock = size, demand, room, stock
        self.program = pywraplp.Solver.CreateSolver("GLOP")
        endless = self.program.infinity()
        self.rows = [self.program.Constraint(float(d), endless) for d in demand]
        self.limits = {n: self.program.Constraint(-endless, float(s.count))
                       for n, s in enumerate(stock) if s.count is not None}  # fmt: skip
        self.objective = self.program.Objective()
        self.objective.SetMinimization()
        self.missing = [self.program.NumVar(0, endless, "") for _ in self.rows]
        for row, one in zip(self.rows, self.missing, strict=True):  # what cannot be cut at all costs far too much
            row.SetCoefficient(one, 1)
            self.objective.SetCoefficient(one, MUCH * max(1.0, *(float(s.price) for s in stock)))
        self.patterns: dict[Pattern, Any] = {}
        for s in range(len(stock)):  # something of every length, so that the first program has an answer
            for counts in self._first_fit(int(room[s]), demand):
                self._add((s, counts))

    def _add(self, pattern: Pattern) -> None:
        s, counts = pattern
        x = self.program.NumVar(0, self.program.infinity(), "")
        self.objective.SetCoefficient(x, float(self.stock[s].price))
        for n, k in enumerate(counts):
            if k:
                self.rows[n].SetCoefficient(x, k)
        if s in self.limits:
            self.limits[s].SetCoefficient(x, 1)
        self.patterns[pattern] = x

    def _first_fit(self, room: int, demand: NDArray[np.int64]) -> Counter[tuple[int, ...]]:
        """The longest piece first into the first board that takes it: patterns to begin with, and how often each."""
        open_: list[tuple[int, list[int]]] = []
        for n in sorted(range(len(demand)), key=lambda n: -int(self.size[n])):
            for _ in range(int(demand[n])):
                if self.size[n] > room:
                    break
                at = next((k for k, (free, _) in enumerate(open_) if free >= self.size[n]), None)
                if at is None:
                    open_.append((room, [0] * len(demand)))
                    at = len(open_) - 1
                free, counts = open_[at]
                counts[n] += 1
                open_[at] = (free - int(self.size[n]), counts)
        return Counter(tuple(counts) for _, counts in open_)

    def solved(self) -> tuple[int, Counter[Pattern] | None]:
        """The least cost as far as it is proven, in cents, and whole numbers of patterns found by diving."""
        proven, shares = self._generated(self.demand, Counter(), ROUNDS)
        self.duals = np.array([max(0.0, row.dual_value()) for row in self.rows])
        self.held = {n: limit.dual_value() for n, limit in self.limits.items()}
        step = reduce(gcd, (s.price for s in self.stock), 0) or 1
        bound = step * ceil(proven / step - SAME)
        return max(0, bound), self._dived(shares) if not self._lacks() else None

    def _generated(self, demand: NDArray[np.int64], used: Counter[int], rounds: int,
                   ) -> tuple[float, dict[Pattern, float]]:  # fmt: skip
        """The linear program over patterns for a demand, of a stock of which some is `used`: what of its value is
        proven, and how much of each pattern it takes, after so many rounds of pricing at most.
        """
        there = [None if s.count is None else max(0, s.count - used[n]) for n, s in enumerate(self.stock)]
        for row, d in zip(self.rows, demand, strict=True):
            row.SetLb(float(d))
        for n, limit in self.limits.items():
            limit.SetUb(float(there[n] or 0))
        proven, centre = 0.0, None
        for turn in range(rounds + 1):
            if self.program.Solve() != self.program.OPTIMAL:
                self.program.Reset()  # it stumbled over its own basis: from the beginning
                self.program.Solve()
            duals = np.array([max(0.0, row.dual_value()) for row in self.rows])
            value = self.objective.Value()
            if turn == rounds or value - proven <= CLOSE * value:
                break
            fresh: list[Pattern] = []
            # Prices between the program's and the best known swing less; where they bring nothing, the program's own do.
            for prices in (duals,) if centre is None else (STEADY * centre + (1 - STEADY) * duals, duals):
                fresh, bound = self._priced(prices, duals, demand, there)
                if bound > proven:
                    proven, centre = bound, prices
                if fresh:
                    break
            if not fresh:
                break
            for pattern in fresh:
                self._add(pattern)
        shares = {p: v for p, x in self.patterns.items() if (v := x.solution_value()) > SAME}
        return proven, shares

    def _lacks(self) -> bool:
        """Whether the program leaves something uncut."""
        return any(x.solution_value() > SAME for x in self.missing)

    def _priced(self, prices: NDArray[np.float64], duals: NDArray[np.float64], demand: NDArray[np.int64],
                there: Sequence[int | None]) -> tuple[list[Pattern], float]:  # fmt: skip
        """The patterns of every stock length that are worth most at some prices, as far as they are new and better the
        program, and the bound those prices prove.
        """
        worth, taken = _knapsack(prices, self.size, demand, int(self.room.max()))
        most = [float(worth[r]) for r in self.room]
        fresh = []
        for s, one in enumerate(self.stock):
            if there[s] == 0:
                continue
            counts = _taken(self.size, taken, int(self.room[s]))
            held = self.limits[s].dual_value() if s in self.limits else 0.0
            pattern = (s, tuple(int(k) for k in counts))
            if one.price - held - float(duals @ counts) < -SAME * max(1, one.price) and pattern not in self.patterns:
                fresh.append(pattern)
        return fresh, self._lagrangian(float(prices @ demand), most, there)

    def _lagrangian(self, worth: float, most: Sequence[float], there: Sequence[int | None]) -> float:
        """What must be paid at least, by prices of pieces that are `worth` so much together and `most` in a board of each
        length: scaled so that no board one buys gives more than it costs (Farley 1990, from memory), less what those
        that there are few of give.
        """
        scale = min([1.0, *(s.price / m for s, m, k in zip(self.stock, most, there, strict=True)
                            if k is None and m > s.price)])  # fmt: skip
        few = sum(k * min(0.0, s.price - scale * m)
                  for s, m, k in zip(self.stock, most, there, strict=True) if k is not None)  # fmt: skip
        return scale * worth + few

    def _dived(self, shares: dict[Pattern, float]) -> Counter[Pattern] | None:
        """Whole numbers of patterns: those that the program takes whole or nearly so, or the one that is nearest, and the
        rest priced anew, until nothing is asked for.
        """
        left, used, found = self.demand.copy(), Counter[int](), Counter[Pattern]()
        while left.any():
            whole = {p: int(x + NEARLY) for p, x in shares.items() if x + NEARLY >= 1}
            if not whole:
                if not shares:
                    return self._finished(found, left)
                whole = {max(shares, key=lambda p: (shares[p], float(np.minimum(p[1], left) @ self.size))): 1}
            for pattern in sorted(whole, key=lambda p: -shares[p]):
                for _ in range(whole[pattern]):
                    given, limit = np.minimum(pattern[1], left), self.stock[pattern[0]].count
                    if not given.any() or (limit is not None and used[pattern[0]] >= limit):
                        break
                    left -= given
                    used[pattern[0]] += 1
                    found[pattern] += 1
            if left.any():
                _, shares = self._generated(left, used, DIVING)
                if self._lacks():
                    return self._finished(found, left)
        return found

    def _finished(self, found: Counter[Pattern], left: NDArray[np.int64]) -> Counter[Pattern] | None:
        """A dive that got stuck, with the rest cut from whichever endless stock takes it at the least price."""
        ways = []
        for s, one in enumerate(self.stock):
            if one.count is None:
                boards = self._first_fit(int(self.room[s]), left)
                given = sum((times * np.array(counts) for counts, times in boards.items()), np.zeros(len(left)))
                if (given == left).all():
                    ways.append((one.price * boards.total(), s, boards))
        if not ways:
            return None
        _, s, boards = min(ways, key=lambda way: way[:2])
        return found + Counter({(s, counts): times for counts, times in boards.items()})

    def _promising(self, cost: int | None, bound: int) -> list[Pattern]:
        """The patterns that can be part of something cheaper: whose reduced cost is less than what may be saved."""
        if cost is None:
            return list(self.patterns)
        return [
            (s, counts) for s, counts in self.patterns
            if self.stock[s].price - self.held.get(s, 0.0) - float(self.duals @ counts) <= cost - bound
        ]  # fmt: skip

    def whole(self, dived: Counter[Pattern] | None, bound: int, effort: float) -> Counter[Pattern] | None:
        """The cheapest whole numbers of all patterns known that the general solver finds in the effort, or those of the
        dive; None where there are none at all.
        """
        if dived is not None and self._cost(dived) == bound:
            return dived
        from ortools.sat.python import cp_model

        model = cp_model.CpModel()
        most = int(self.demand.sum())
        there = self._promising(None if dived is None else self._cost(dived), bound)
        x = {p: model.new_int_var(0, most, "") for p in dict.fromkeys([*there, *(dived or ())])}
        for n, d in enumerate(self.demand):
            model.add(sum(p[1][n] * v for p, v in x.items() if p[1][n]) >= int(d))
        for s, one in enumerate(self.stock):
            if one.count is not None:
                model.add(sum(v for p, v in x.items() if p[0] == s) <= one.count)
        cost = sum(self.stock[p[0]].price * v for p, v in x.items())
        model.add(cost >= bound)
        model.minimize(cost)
        for p, v in x.items() if dived is not None else ():
            model.add_hint(v, dived[p] if dived is not None else 0)
        solver = cp_model.CpSolver()
        solver.parameters.num_workers = 1
        solver.parameters.max_deterministic_time = effort
        if solver.solve(model) not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
            return dived
        found = Counter({p: int(solver.value(v)) for p, v in x.items() if solver.value(v)})
        return found if dived is None or self._cost(found) < self._cost(dived) else dived

    def _cost(self, chosen: Mapping[Pattern, int]) -> int:
        return sum(self.stock[s].price * times for (s, _), times in chosen.items())


MUCH = 20.0
"""Boards that a piece costs which cannot be cut."""


def _boards(chosen: Counter[Pattern], wanted: Sequence[Piece], stock: Sequence[Stock], kerf: int, trim: int,
            ) -> tuple[Board, ...]:  # fmt: skip
    """The boards of whole numbers of patterns; of what they would give too much the last pieces are not cut, and a board
    from which nothing is cut is not bought.
    """
    left = [p.count for p in wanted]
    boards = []
    for (s, counts), times in sorted(chosen.items(), key=lambda row: (-stock[row[0][0]].length, row[0])):
        for _ in range(times):
            cut: list[Piece] = []
            for n, k in enumerate(counts):
                given = min(k, left[n])
                left[n] -= given
                cut += [replace(wanted[n], count=1)] * given
            if cut:
                cut.sort(key=lambda p: -p.length)
                taken = sum(p.length for p in cut) + kerf * len(cut)
                rest = stock[s].length - 2 * trim - taken
                boards.append(Board(stock[s], tuple(cut), max(0, rest)))
    return tuple(boards)


@njit(**HOW)
def _knapsack(values, sizes, demand, room):  # type: ignore[no-untyped-def]
    """The most value in every room up to `room`, of no piece more than is asked for; and for every piece and room how many
    of it that takes, of the pieces up to it.
    """
    best = np.zeros(room + 1)
    taken = np.zeros((len(sizes), room + 1), np.int32)
    for n in range(len(sizes)):
        if demand[n] <= 0 or values[n] <= 0.0:
            continue
        size, value = sizes[n], values[n]
        before = best.copy()
        for at in range(size, room + 1):
            top = min(demand[n], at // size)
            for k in range(1, top + 1):
                one = before[at - k * size] + k * value
                if one > best[at]:
                    best[at] = one
                    taken[n, at] = k
    return best, taken


@njit(**HOW)
def _taken(sizes, taken, room):  # type: ignore[no-untyped-def]
    """How many of each piece make the most value in a room."""
    counts = np.zeros(len(sizes), np.int64)
    at = room
    for n in range(len(sizes) - 1, -1, -1):
        counts[n] = taken[n, at]
        at -= counts[n] * sizes[n]
    return counts
