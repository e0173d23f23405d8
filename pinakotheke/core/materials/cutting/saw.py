"""The list packer behind `sheets`: parts in an order, each into the best free rectangle by two guillotine cuts, and the
annealing that looks for a better order.

Lengths are whole millimetres. With a kerf of k every part and every sheet comes in k longer and wider than it is, so that
cuts take nothing. A free rectangle knows by which stage of cuts it was made (cuts of one direction in a row are one
stage), and a part is placed only where it comes off within the stages allowed, or with one more to trim it.
"""

from typing import Any

import numpy as np
from numba import njit

HOW: Any = {"nogil": True, "cache": True}
ACROSS, ALONG = 1, 2
"""Which way a cut runs: across the sheet's length (it parts x), or along it (it parts y)."""
X, Y, W, H, SHEET, STAGE, WAY = range(7)
"""Columns of a free rectangle."""
AT_SHEET, AT_X, AT_Y, TURNED, FIRST = range(5)
"""Columns of a placed part; `FIRST` is the way of the cut that freed it first."""
WARM, COLD = 0.08, 0.0008
"""Temperatures of the annealing at its start and its end, in sheets."""


@njit(**HOW)
def decoded(order, split, opens, size, turns, stock, left, stages, rip, placed, free, sheets):  # type: ignore[no-untyped-def]
    """Place all parts in their order. `size` (n, 2) and whether each `turns`; `split` how it is cut free: across first,
    along first, or (0) so that the larger rest stays larger; `rip`: a sheet's first cut runs along it; `opens` which kind
    of sheet it opens where no rectangle takes it. `stock` (kinds, 4): length, width, price, 1 where it lies open from the
    beginning; `left` how many there are of each. Fills `placed`, the free rectangles and the kinds of the sheets opened;
    the numbers of both, of parts without a place, and the price.
    """
    count, opened, missing, price = 0, 0, 0, 0.0
    kinds = stock.shape[0]
    there = left.copy()
    for k in range(kinds):
        if stock[k, 3] == 1:
            while there[k] > 0:
                there[k] -= 1
                _open(free, sheets, count, opened, stock, k)
                count, opened = count + 1, opened + 1
    for i in order:
        best, at, turned, first = np.int64(1) << 60, -1, 0, 0
        for turn in range(2 if turns[i] else 1):
            w, h = size[i, turn], size[i, 1 - turn]
            for r in range(count):
                fw, fh = free[r, W] - w, free[r, H] - h
                if fw < 0 or fh < 0:
                    continue
                way = _way(free, r, w, h, split[i], stages, rip)
                if way == 0:
                    continue
                score = min(fw, fh) * 100_000 + max(fw, fh)
                if score < best:
                    best, at, turned, first = score, r, turn, way
        if at < 0:
            kind = _kind(opens[i], size, i, turns[i], stock, there)
            if kind < 0:
                missing += 1
                placed[i, AT_SHEET] = -1
                continue
            there[kind] -= 1
            price += stock[kind, 2]
            _open(free, sheets, count, opened, stock, kind)
            at, count, opened = count, count + 1, opened + 1
            for turn in range(2 if turns[i] else 1):
                w, h = size[i, turn], size[i, 1 - turn]
                fw, fh = free[at, W] - w, free[at, H] - h
                if fw >= 0 and fh >= 0:
                    score = min(fw, fh) * 100_000 + max(fw, fh)
                    if score < best:
                        best, turned = score, turn
            first = _way(free, at, size[i, turned], size[i, 1 - turned], split[i], stages, rip)
        placed[i, AT_SHEET], placed[i, TURNED], placed[i, FIRST] = free[at, SHEET], turned, first
        placed[i, AT_X], placed[i, AT_Y] = free[at, X], free[at, Y]
        count = _cut(free, count, at, size[i, turned], size[i, 1 - turned], first, stages)
    return count, opened, missing, price


@njit(**HOW)
def _open(free, sheets, count, opened, stock, kind):  # type: ignore[no-untyped-def]
    free[count, X], free[count, Y], free[count, W], free[count, H] = 0, 0, stock[kind, 0], stock[kind, 1]
    free[count, SHEET], free[count, STAGE], free[count, WAY] = opened, 0, 0
    sheets[opened] = kind


@njit(**HOW)
def _kind(wish, size, i, turns, stock, there):  # type: ignore[no-untyped-def]
    """The kind of sheet wished for if there is one that the part comes off, or the next that does; -1: none does."""
    kinds = stock.shape[0]
    for n in range(kinds):
        k = (wish + n) % kinds
        if there[k] <= 0:
            continue
        for turn in range(2 if turns else 1):
            if size[i, turn] <= stock[k, 0] and size[i, 1 - turn] <= stock[k, 1]:
                return k
    return -1


@njit(**HOW)
def _stage(stage, way, cut):  # type: ignore[no-untyped-def]
    return stage if way == cut else stage + 1


@njit(**HOW)
def _last(free, r, w, h, first):  # type: ignore[no-untyped-def]
    """The stage of the last cut that a part needs to come off a rectangle when the `first` cut runs so."""
    stage, way = free[r, STAGE], free[r, WAY]
    second = ALONG if first == ACROSS else ACROSS
    for cut in (first, second):
        needed = free[r, W] > w if cut == ACROSS else free[r, H] > h
        if needed:
            stage, way = _stage(stage, way, cut), cut
    return stage


@njit(**HOW)
def _way(free, r, w, h, wish, stages, rip):  # type: ignore[no-untyped-def]
    """Which way the first cut runs; 0 where the part cannot come off within the stages and one to trim it."""
    across, along = _last(free, r, w, h, ACROSS) <= stages + 1, _last(free, r, w, h, ALONG) <= stages + 1
    if rip and free[r, STAGE] == 0 and free[r, H] > h:
        across = False
    if not across or not along:
        return ACROSS if across else ALONG if along else 0
    if wish:
        return wish
    fw, fh = free[r, W], free[r, H]
    return ACROSS if max((fw - w) * fh, w * (fh - h)) >= max((fw - w) * h, fw * (fh - h)) else ALONG


@njit(**HOW)
def _cut(free, count, r, w, h, first, stages):  # type: ignore[no-untyped-def]
    """Cut a part off the corner of a rectangle; what stays of it takes its place. The new number of rectangles."""
    x, y, fw, fh = free[r, X], free[r, Y], free[r, W], free[r, H]
    sheet, stage, way = free[r, SHEET], free[r, STAGE], free[r, WAY]
    count -= 1
    for c in range(7):
        free[r, c] = free[count, c]
    second = ALONG if first == ACROSS else ACROSS
    for cut in (first, second):
        if cut == ACROSS and fw > w:
            stage, way = _stage(stage, way, cut), cut
            if stage <= stages:
                free[count, X], free[count, Y], free[count, W], free[count, H] = x + w, y, fw - w, fh
                free[count, SHEET], free[count, STAGE], free[count, WAY] = sheet, stage, way
                count += 1
            fw = w
        elif cut == ALONG and fh > h:
            stage, way = _stage(stage, way, cut), cut
            if stage <= stages:
                free[count, X], free[count, Y], free[count, W], free[count, H] = x, y + h, fw, fh - h
                free[count, SHEET], free[count, STAGE], free[count, WAY] = sheet, stage, way
                count += 1
            fh = h
    return count


@njit(**HOW)
def _energy(price, missing, free, count, largest, dear, area):  # type: ignore[no-untyped-def]
    """The price in sheets; less where what is left lies together: the square of the largest rest of each sheet."""
    largest[:] = 0.0
    for r in range(count):
        rest = free[r, W] * free[r, H] / area
        largest[free[r, SHEET]] = max(largest[free[r, SHEET]], rest)
    together = 0.0
    for one in largest:
        together += one * one
    return price / dear + 10.0 * missing - 0.4 * together


@njit(**HOW)
def annealed(order, split, opens, size, turns, stock, left, stages, rip, moves, seed, enough):  # type: ignore[no-untyped-def]
    """The best order, splits and kinds of sheets after so many moves, or when the price is `enough`; changes the three
    arrays it is given to the best.
    """
    np.random.seed(seed)
    n, kinds = len(order), stock.shape[0]
    most = n + int(left[stock[:, 3] == 1].sum()) + 1
    placed, free = np.zeros((n, 5), np.int64), np.zeros((2 * n + most + 2, 7), np.int64)
    sheets, largest = np.zeros(most, np.int64), np.zeros(most)
    dear, area = max(1.0, stock[:, 2].max()), float((stock[:, 0] * stock[:, 1]).max())
    count, _, missing, price = decoded(order, split, opens, size, turns, stock, left, stages, rip, placed, free, sheets)
    now = _energy(price, missing, free, count, largest, dear, area)
    best, at_best = now, price if missing == 0 else np.inf
    best_order, best_split, best_opens = order.copy(), split.copy(), opens.copy()
    for move in range(moves):
        if at_best <= enough or (n < 2 and kinds < 2):
            break
        heat = WARM * (COLD / WARM) ** (move / moves)
        kind, a, b = np.random.random(), np.random.randint(n), np.random.randint(n)
        was_split, was_opens = split[a], opens[a]
        if kind < 0.45:
            order[a], order[b] = order[b], order[a]
        elif kind < 0.8:
            _moved(order, a, b)
        elif kind < 0.95 or kinds == 1:
            split[a] = np.random.randint(3)
        else:
            opens[a] = np.random.randint(kinds)
        count, _, missing, price = decoded(
            order, split, opens, size, turns, stock, left, stages, rip, placed, free, sheets
        )
        new = _energy(price, missing, free, count, largest, dear, area)
        if new <= now or np.random.random() < np.exp((now - new) / heat):
            now = new
            if new < best:
                best, at_best = new, price if missing == 0 else np.inf
                best_order[:], best_split[:], best_opens[:] = order, split, opens
        elif kind < 0.45:
            order[a], order[b] = order[b], order[a]
        elif kind < 0.8:
            _moved(order, b, a)
        else:
            split[a], opens[a] = was_split, was_opens
    order[:], split[:], opens[:] = best_order, best_split, best_opens


@njit(**HOW)
def _moved(order, a, b):  # type: ignore[no-untyped-def]
    """Take what stands at `a` and put it in at `b`."""
    one = order[a]
    if a < b:
        order[a:b] = order[a + 1 : b + 1].copy()
    else:
        order[b + 1 : a + 1] = order[b:a].copy()
    order[b] = one
