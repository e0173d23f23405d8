"""Rigid rectangles on the floor of a drawer: a compiled skyline, and a search over the order in which they are set.

The skyline is what has been covered, seen from the back. At its lowest stretch the piece is set that closes most sides
of the gap; of equal ones the first of the order. Where none fits the stretch is given up as waste. The order is then
improved by exchanging two pieces, and kept where no less is placed. After Burke, Kendall and Whitwell 2004 (best fit)
and Wei, Oon, Zhu and Lim 2011 (closed sides, search over orders), both from memory.
"""

from collections.abc import Sequence
from typing import Any, NamedTuple

import numpy as np
from numba import njit

from ..packing.columns import MODULUS, MULTIPLIER

HOW: Any = {"nogil": True, "error_model": "numpy", "cache": True}
MOVES = 6_000
"""Orders that are tried at most."""
CLOSING, TIGHT, HOLE = 4, 8, -6
"""Worth of a side that is closed, of a width filled to the millimetre, and of a gap left that nothing fits."""


class Rect(NamedTuple):
    """A piece: its width, its depth, and whether it may be turned; mm."""

    w: int
    d: int
    turns: bool = True


class Spot(NamedTuple):
    """Where a rectangle lies: its left, back corner and its size as it lies there; mm."""

    x: int
    y: int
    w: int
    d: int

    def meets(self, other: "Spot") -> bool:
        """Whether two share area; touching does not count."""
        return (
            self.x < other.x + other.w and other.x < self.x + self.w
            and self.y < other.y + other.d and other.y < self.y + self.d
        )  # fmt: skip

    def lies_in(self, other: "Spot") -> bool:
        """Whether all of it lies within another one."""
        return (
            other.x <= self.x and self.x + self.w <= other.x + other.w
            and other.y <= self.y and self.y + self.d <= other.y + other.d
        )  # fmt: skip


def pack(rects: Sequence[Rect], floor: tuple[int, int], closed: Sequence[Spot] = (), *, worth: Sequence[float] = (),
         moves: int = MOVES, seed: int = 1) -> list[Spot | None]:  # fmt: skip
    """Where each piece lies on a floor of (width, depth), None for what found no place; `closed` is kept free. What is
    left out is worth as little as could be found: `worth` of each, its area where nothing is said. The same pieces,
    moves and seed give the same answer. That a piece is left out proves nothing: see `bounds.impossible`.
    """
    if not rects:
        return []
    sizes = np.array([(r.w, r.d, r.turns) for r in rects], dtype=np.int64)
    values = np.array(worth or [r.w * r.d for r in rects], dtype=np.float64)
    shut = np.array([tuple(c) for c in closed], dtype=np.int64).reshape(-1, 4)
    spots = np.zeros((len(rects), 4), dtype=np.int64)
    _search(sizes, values, shut, floor[0], floor[1], moves, seed, spots)
    return [Spot(*map(int, s)) if s[2] else None for s in spots]


@njit(**HOW)
def _search(sizes, worth, shut, width, depth, moves, seed, best):  # type: ignore[no-untyped-def]
    """Try orders; the best placing is left in `best`, rows of zeros for what is left out. Returns its worth."""
    n = len(sizes)
    whole = worth.sum()
    sky, spots = np.empty((2 * n + 2 * len(shut) + 4, 3), np.int64), np.zeros((n, 4), np.int64)
    key, order, trial = np.empty(n), np.empty(n, np.int64), np.empty(n, np.int64)
    found, state, begun = -1.0, seed, 5
    for k in range(begun):
        for i in range(n):
            w, d = max(sizes[i, 0], sizes[i, 1]), min(sizes[i, 0], sizes[i, 1])
            key[i] = -(w * d if k == 0 else w if k == 1 else d if k == 2 else sizes[i, 0] if k == 3 else sizes[i, 1])
        trial[:] = np.argsort(key, kind="mergesort")
        got = _set(trial, sizes, worth, shut, width, depth, sky, spots)
        if got > found:
            found, order[:], best[:] = got, trial, spots
        if found >= whole - 1e-9:
            return found
    now, since = found, 0
    for _ in range(moves):
        trial[:] = order
        state = (state * MULTIPLIER) % MODULUS
        times = 1 + state % 2 if since < 400 else 3
        for _t in range(times):
            state = (state * MULTIPLIER) % MODULUS
            a = state % n
            state = (state * MULTIPLIER) % MODULUS
            b = state % n
            trial[a], trial[b] = trial[b], trial[a]
        got = _set(trial, sizes, worth, shut, width, depth, sky, spots)
        since += 1
        if got >= now or since > 900:
            since = 0 if got > now or since > 900 else since
            now = got
            order[:] = trial
        if got > found:
            found, best[:] = got, spots
            if found >= whole - 1e-9:
                break
    return found


@njit(**HOW)
def _set(order, sizes, worth, shut, width, depth, sky, spots):  # type: ignore[no-untyped-def]
    """Set pieces in an order; `sky` holds stretches (x, y, width) from the left. Returns the worth of what is placed."""
    n, got = len(order), 0.0
    left = n
    spots[:] = 0
    sky[0, 0], sky[0, 1], sky[0, 2] = 0, 0, width
    stretches = 1
    while left > 0:
        low = 0
        for k in range(1, stretches):
            if sky[k, 1] < sky[low, 1]:
                low = k
        x, y, s = sky[low, 0], sky[low, 1], sky[low, 2]
        if y >= depth:
            break
        before = sky[low - 1, 1] if low > 0 else depth
        after = sky[low + 1, 1] if low + 1 < stretches else depth
        least = width + depth
        for k in range(n):
            i = order[k]
            if spots[i, 2] == 0:
                least = min(least, sizes[i, 0], sizes[i, 1] if sizes[i, 2] else sizes[i, 0])
        best, take, w_best, d_best, x_best = -100, -1, 0, 0, 0
        for k in range(n):
            i = order[k]
            if spots[i, 2] != 0:
                continue
            for turn in range(2 if sizes[i, 2] and sizes[i, 0] != sizes[i, 1] else 1):
                w, d = (sizes[i, 0], sizes[i, 1]) if turn == 0 else (sizes[i, 1], sizes[i, 0])
                if w > s or y + d > depth:
                    continue
                gap = s - w
                score = TIGHT if gap == 0 else HOLE if gap < least else 0
                at_left, at_right = y + d == before, y + d == after
                if gap == 0:
                    score += CLOSING * (int(at_left) + int(at_right))
                elif at_left or at_right:
                    score += CLOSING
                if score <= best:
                    continue
                at = x
                if gap and (at_right or before < after) and not (at_left and before >= after):
                    at = x + gap
                if _is_shut(at, y, w, d, shut):
                    at = x if at != x else x + gap
                    if _is_shut(at, y, w, d, shut):
                        continue
                best, take, w_best, d_best, x_best = score, i, w, d, at
        if take < 0:
            stretches = _raise(sky, stretches, low, min(before, after))
            continue
        spots[take, 0], spots[take, 1], spots[take, 2], spots[take, 3] = x_best, y, w_best, d_best
        got += worth[take]
        left -= 1
        stretches = _cover(sky, stretches, low, x_best, w_best, y + d_best)
    return got


@njit(**HOW)
def _is_shut(x, y, w, d, shut):  # type: ignore[no-untyped-def]
    for k in range(len(shut)):
        if x < shut[k, 0] + shut[k, 2] and shut[k, 0] < x + w and y < shut[k, 1] + shut[k, 3] and shut[k, 1] < y + d:
            return True
    return False


@njit(**HOW)
def _cover(sky, stretches, low, x, w, top):  # type: ignore[no-untyped-def]
    """Cover part of a stretch up to `top`: its left or its right end, or all of it."""
    x0, y0, s = sky[low, 0], sky[low, 1], sky[low, 2]
    if w == s:
        return _raise(sky, stretches, low, top)
    for k in range(stretches, low + 1, -1):
        sky[k, 0], sky[k, 1], sky[k, 2] = sky[k - 1, 0], sky[k - 1, 1], sky[k - 1, 2]
    if x == x0:
        sky[low, 0], sky[low, 1], sky[low, 2] = x, top, w
        sky[low + 1, 0], sky[low + 1, 1], sky[low + 1, 2] = x + w, y0, s - w
        return _merge(sky, stretches + 1, low)
    sky[low, 0], sky[low, 1], sky[low, 2] = x0, y0, s - w
    sky[low + 1, 0], sky[low + 1, 1], sky[low + 1, 2] = x, top, w
    return _merge(sky, stretches + 1, low + 1)


@njit(**HOW)
def _raise(sky, stretches, low, top):  # type: ignore[no-untyped-def]
    """Raise a whole stretch to `top`."""
    sky[low, 1] = top
    return _merge(sky, stretches, low)


@njit(**HOW)
def _merge(sky, stretches, at):  # type: ignore[no-untyped-def]
    """Join a stretch with neighbours as high as it. Returns how many stretches there are."""
    if at + 1 < stretches and sky[at + 1, 1] == sky[at, 1]:
        sky[at, 2] += sky[at + 1, 2]
        for k in range(at + 1, stretches - 1):
            sky[k, 0], sky[k, 1], sky[k, 2] = sky[k + 1, 0], sky[k + 1, 1], sky[k + 1, 2]
        stretches -= 1
    if at > 0 and sky[at - 1, 1] == sky[at, 1]:
        sky[at - 1, 2] += sky[at, 2]
        for k in range(at, stretches - 1):
            sky[k, 0], sky[k, 1], sky[k, 2] = sky[k + 1, 0], sky[k + 1, 1], sky[k + 1, 2]
        stretches -= 1
    return stretches
