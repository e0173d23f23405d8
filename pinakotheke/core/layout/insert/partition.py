"""A floor parted by dividers: strips across from wall to wall make rows, shorter ones part a row into columns, and a
column may be parted once more, one compartment behind the other. Where strips run from front to back the same is done
with width and depth exchanged.

Rows and choices are found by annealing (compiled). The order of rows, of columns in a row and of compartments in a
column is free, so it is set afterwards (`spread`), and what is left over is spread in closed form.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import ceil
from typing import Any, NamedTuple

import numpy as np
from numba import njit

from ..packing.columns import MODULUS, MULTIPLIER

HOW: Any = {"nogil": True, "error_model": "numpy", "cache": True}
MOVES = 30_000
ROWS = 9
"""Rows that are tried at most; the last index beyond them is *left out*."""
HOT, COLD = 200, 1
"""Temperatures, in mm of the cost."""
OVER, OUT, STRIP = 4.0, 2_000.0, 0.01
"""Cost of a millimetre too much, of a group left out besides its worth, and of a millimetre of strip."""


class Choice(NamedTuple):
    """One way to keep a group: clear width and depth of its compartment, and what that way costs, mm."""

    w: int
    d: int
    cost: int = 0


@dataclass(frozen=True, slots=True)
class Column:
    """Compartments one behind the other: so wide, each (group, choice, depth)."""

    w: int
    cells: tuple[tuple[int, int, int], ...]

    def depth(self, strip: int) -> int:
        """What it takes from front to back, strips between included."""
        return sum(c[2] for c in self.cells) + strip * (len(self.cells) - 1)


@dataclass(frozen=True, slots=True)
class Lane:
    """A row of columns: as deep as its deepest column."""

    d: int
    columns: tuple[Column, ...]

    def width(self, strip: int) -> int:
        """What it takes from side to side, strips between included."""
        return sum(c.w for c in self.columns) + strip * (len(self.columns) - 1)


@dataclass(frozen=True, slots=True)
class Partition:
    """Rows that hold the groups, and the groups left out; `used` is the depth they take, strips between included, and
    `bound` what no partition of this kind goes under.
    """

    lanes: tuple[Lane, ...]
    left_out: tuple[int, ...]
    used: int
    bound: int

    @property
    def gap(self) -> float:
        """(used − bound) ÷ used; 0 with nothing placed."""
        return (self.used - self.bound) / self.used if self.used else 0.0


def part(groups: Sequence[Sequence[Choice]], width: int, depth: int, strip: int, *, worth: Sequence[float] = (),
         moves: int = MOVES, seed: int = 1) -> Partition:  # fmt: skip
    """Part a floor so that every group has a compartment no smaller than one of its choices, in as little depth as could
    be found; what is `worth` least is left out first. The same groups, moves and seed give the same answer.
    """
    usable = [[k for k, c in enumerate(g) if c.w <= width and c.d <= depth] for g in groups]
    kept = [n for n, k in enumerate(usable) if k]
    never = tuple(n for n, k in enumerate(usable) if not k)
    if not kept:
        return Partition((), never, 0, 0)
    flat = np.array([groups[n][k] for n in kept for k in usable[n]], dtype=np.int64)
    ends = np.cumsum([len(usable[n]) for n in kept])
    starts = np.concatenate(([0], ends)).astype(np.int64)
    values = np.array([OUT + (worth[n] if worth else 0.0) for n in kept])
    rows, chosen = np.zeros(len(kept), np.int64), starts[:-1].copy()
    _anneal(flat, starts, values, width, depth, strip, moves, seed, rows, chosen)
    rows = _made_to_fit(flat, values, rows, chosen, width, depth, strip)
    lanes, out = [], list(never)
    for row in range(ROWS):
        inside = [n for n in range(len(kept)) if rows[n] == row]
        if inside:
            lanes.append(
                _lane([(kept[n], usable[kept[n]][chosen[n] - starts[n]], flat[chosen[n]]) for n in inside], strip)
            )
    out += [kept[n] for n in range(len(kept)) if rows[n] == ROWS]
    used = sum(lane.d for lane in lanes) + strip * max(0, len(lanes) - 1)
    placed = [[groups[n][k] for k in usable[n]] for n in kept if n not in out]
    return Partition(tuple(lanes), tuple(sorted(out)), used, bound(placed, width, strip))


def bound(groups: Sequence[Sequence[Choice]], width: int, strip: int) -> int:
    """Depth that no partition goes under: the deepest of the groups, and their area with a strip at two sides of each
    over the width, whichever is more. (Σ (w + t)(d + t) ≤ (width + t)(depth + t) for any parting of the floor.)
    """
    if not groups:
        return 0
    deepest = max(min(c.d for c in g) for g in groups)
    area = sum(min((c.w + strip) * (c.d + strip) for c in g) for g in groups)
    return max(deepest, ceil(area / (width + strip)) - strip)


def _lane(items: Sequence[tuple[int, int, Any]], strip: int) -> Lane:
    """Columns of a row as the kernel makes them: the deepest first, each into the narrowest column that takes it."""
    columns: list[list[tuple[int, int, int, int]]] = []
    order = sorted(items, key=lambda i: (-int(i[2][1]), -int(i[2][0]), i[0]))
    deep = int(order[0][2][1])
    for n, k, c in order:
        w, d = int(c[0]), int(c[1])
        room = [
            col for col in columns
            if col[0][2] >= w and sum(cell[3] for cell in col) + strip * len(col) + d <= deep
        ]  # fmt: skip
        if room:
            min(room, key=lambda col: col[0][2]).append((n, k, w, d))
        else:
            columns.append([(n, k, w, d)])
    return Lane(deep, tuple(Column(col[0][2], tuple((n, k, d) for n, k, _, d in col)) for col in columns))


def _made_to_fit(flat: Any, worth: Any, rows: Any, chosen: Any, width: int, depth: int, strip: int) -> Any:
    """Leave out what is worth least where a row is too wide, or all rows are too deep."""
    rows = rows.copy()
    order = np.empty(len(rows), np.int64)
    sizes = np.zeros((ROWS, 2), np.int64)
    while True:
        _measure(flat, rows, chosen, strip, order, sizes)
        wide = [r for r in range(ROWS) if sizes[r, 0] > width]
        used = [r for r in range(ROWS) if sizes[r, 1] > 0]
        deep = int(sizes[:, 1].sum()) + strip * (len(used) - 1)
        if not wide and deep <= depth:
            return rows
        among = [n for n in range(len(rows)) if (rows[n] in wide if wide else rows[n] < ROWS)]
        rows[min(among, key=lambda n: (worth[n], n))] = ROWS


@njit(**HOW)
def _anneal(flat, starts, worth, width, depth, strip, moves, seed, rows, chosen):  # type: ignore[no-untyped-def]
    """Anneal rows and choices in place."""
    n, state = len(rows), seed
    order, sizes = np.empty(n, np.int64), np.zeros((ROWS, 2), np.int64)
    for i in range(n):
        rows[i] = i % min(3, n)
    best_rows, best_chosen = rows.copy(), chosen.copy()
    now = _cost(flat, worth, rows, chosen, width, depth, strip, order, sizes)
    best = now
    cooling = (COLD / HOT) ** (1.0 / max(1, moves))
    heat = HOT
    for _ in range(moves):
        heat *= cooling
        state = (state * MULTIPLIER) % MODULUS
        a = state % n
        state = (state * MULTIPLIER) % MODULUS
        kind = state % 8
        state = (state * MULTIPLIER) % MODULUS
        b = state % n
        was_a, was_b, chose = rows[a], rows[b], chosen[a]
        if kind < 3:
            rows[a] = rows[b]
        elif kind == 3:
            state = (state * MULTIPLIER) % MODULUS
            rows[a] = state % (ROWS + 1)
        elif kind < 6:
            rows[a], rows[b] = was_b, was_a
        if kind >= 6 or kind == 0:
            span = starts[a + 1] - starts[a]
            state = (state * MULTIPLIER) % MODULUS
            chosen[a] = starts[a] + state % span
        then = _cost(flat, worth, rows, chosen, width, depth, strip, order, sizes)
        state = (state * MULTIPLIER) % MODULUS
        if then <= now or np.exp((now - then) / heat) > state / MODULUS:
            now = then
            if now < best:
                best = now
                best_rows[:], best_chosen[:] = rows, chosen
        else:
            rows[b] = was_b
            rows[a] = was_a
            chosen[a] = chose
    rows[:], chosen[:] = best_rows, best_chosen
    return best


@njit(**HOW)
def _cost(flat, worth, rows, chosen, width, depth, strip, order, sizes):  # type: ignore[no-untyped-def]
    """Depth used, what is over, what is left out, strip and choices, in mm."""
    short = _measure(flat, rows, chosen, strip, order, sizes)
    used, over, lanes, out = 0, 0, 0, 0.0
    for r in range(ROWS):
        if sizes[r, 1] > 0:
            used += sizes[r, 1]
            lanes += 1
            over += max(0, sizes[r, 0] - width)
    used += strip * max(0, lanes - 1)
    over += max(0, used - depth)
    for i in range(len(rows)):
        if rows[i] == ROWS:
            out += worth[i]
        else:
            out += flat[chosen[i], 2]
    return used + OVER * over + out + STRIP * (short + width * max(0, lanes - 1))


@njit(**HOW)
def _measure(flat, rows, chosen, strip, order, sizes):  # type: ignore[no-untyped-def]
    """Width and depth of each row, in `sizes`; returns the length of all shorter strips."""
    n, short = len(rows), 0
    for i in range(n):
        k = i
        while k > 0:
            p = order[k - 1]
            before, mine = flat[chosen[p]], flat[chosen[i]]
            if before[1] > mine[1] or (before[1] == mine[1] and before[0] >= mine[0]):
                break
            order[k] = p
            k -= 1
        order[k] = i
    left, deep = np.empty(n, np.int64), np.empty(n, np.int64)
    for r in range(ROWS):
        sizes[r, 0], sizes[r, 1] = 0, 0
        columns = 0
        for k in range(n):
            i = order[k]
            if rows[i] != r:
                continue
            w, d = flat[chosen[i], 0], flat[chosen[i], 1]
            if columns == 0:
                sizes[r, 1] = d
            into, narrowest = -1, 1 << 40
            for c in range(columns):
                if left[c] >= d + strip and w <= deep[c] < narrowest:
                    into, narrowest = c, deep[c]
            if into >= 0:
                left[into] -= d + strip
                short += deep[into]
            else:
                left[columns], deep[columns] = sizes[r, 1] - d, w
                sizes[r, 0] += w + (strip if columns else 0)
                short += sizes[r, 1] if columns else 0
                columns += 1
    return short
