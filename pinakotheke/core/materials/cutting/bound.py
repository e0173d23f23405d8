"""What sheets must cost at least: dual-feasible functions, area first among them, over every kind of sheet.

A function u from [0, 1] to [0, 1] that is superadditive and does not fall is dual-feasible: lengths that fit side by side
into a length still do when u is applied to all (Lueker 1983). Parts whose lengths and widths are stretched so still go
on the sheet stretched so (Fekete and Schepers 2001), so their areas together are no more than the sheets'. Each pair of
functions is one row of a covering program over how many sheets of each kind are bought. All from memory.
"""

from collections.abc import Sequence
from fractions import Fraction
from functools import reduce
from math import ceil, gcd

import numpy as np
from numpy.typing import NDArray

SAME = 1e-6
MOST = 40
"""Pairs of functions, the strongest first, that go into the program."""
STEPS = (2, 3, 4, 5, 6, 7)

Array = NDArray[np.float64]


def least_cost(size: NDArray[np.int64], turns: NDArray[np.bool_], stock: Sequence[tuple[int, int, int, int | None]],
               *, only_area: bool = False) -> int:  # fmt: skip
    """The least price in cents of sheets for parts of `size` (n, 2) along and across the sheet, mm, some of which may be
    `turned`. `stock`: length, width, price, number (None: as many as one buys). Sizes come with the kerf added to both.
    """
    if not len(size):
        return 0
    long, wide = max(s[0] for s in stock), max(s[1] for s in stock)
    rows = [_identity] if only_area else [_identity, *_functions(size, long, wide)]
    sides = [(size[:, 0] / long, size[:, 1] / wide), (size[:, 1] / long, size[:, 0] / wide)]
    asked, given = [], []
    for along in rows:
        a, c = along(sides[0][0]), along(sides[1][0])
        for across in rows:
            straight, turned = a * across(sides[0][1]), c * across(sides[1][1])
            fits = (sides[1][0] <= 1 + SAME) & (sides[1][1] <= 1 + SAME)
            asked.append(float(np.where(turns & fits, np.minimum(straight, turned), straight).sum()))
            given.append([float(along(np.array([s[0] / long]))[0] * across(np.array([s[1] / wide]))[0]) for s in stock])
    best = sorted(range(len(asked)), key=lambda k: -asked[k])[:MOST]
    keep = sorted({0, *best})
    value = _covered([asked[k] for k in keep], [given[k] for k in keep], stock)
    step = reduce(gcd, (s[2] for s in stock), 0) or 1
    return step * ceil(value / step - SAME)


def _covered(asked: Sequence[float], given: Sequence[Sequence[float]],
             stock: Sequence[tuple[int, int, int, int | None]]) -> float:  # fmt: skip
    """The least price at which the sheets give what every row asks; of one kind that is a division."""
    if len(stock) == 1 and stock[0][3] is None:
        number = max(ceil(a / g[0] - SAME) for a, g in zip(asked, given, strict=True) if g[0] > 0)
        return float(number * stock[0][2])
    from ortools.sat.python import cp_model

    model = cp_model.CpModel()
    most = max(1, int(max(asked)) * 50 + 50)
    x = [model.new_int_var(0, most if s[3] is None else s[3], "") for s in stock]
    for a, row in zip(asked, given, strict=True):
        # Whole numbers: what is given rounded up, what is asked rounded down, so that the program asks no more.
        model.add(sum(ceil(g * 1e6) * v for g, v in zip(row, x, strict=True)) >= int(a * 1e6 - 1))
    model.minimize(sum(s[2] * v for s, v in zip(stock, x, strict=True)))
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.max_deterministic_time = 0.2
    solver.solve(model)
    return max(0.0, solver.best_objective_bound)


def _identity(x: Array) -> Array:
    return x


def _functions(size: NDArray[np.int64], long: int, wide: int) -> list:  # type: ignore[type-arg]
    """Functions that may be stronger than area: steps, and small lengths left out in favour of large ones, at the lengths
    that there are.
    """
    at = sorted({Fraction(int(v), side) for column in (0, 1) for v in size[:, column] for side in (long, wide)
                 if 2 * v <= side})  # fmt: skip
    thin = at[:: max(1, len(at) // 12)]
    return [
        *(_stepped(k) for k in STEPS),
        *(_without(float(e)) for e in thin),
        *(_rounded(float(e)) for e in thin if e),
    ]


def _stepped(k: int):  # type: ignore[no-untyped-def]
    """Fekete and Schepers' u^(k): (k + 1) x rounded down over k, and x where (k + 1) x is whole."""

    def u(x: Array) -> Array:
        much = (k + 1) * x
        whole = np.abs(much - np.round(much)) < SAME
        return np.where(whole, x, np.floor(much + SAME) / k)

    return u


def _without(least: float):  # type: ignore[no-untyped-def]
    """Fekete and Schepers' U^(e): lengths under e count nothing, lengths over 1 - e count all."""

    def u(x: Array) -> Array:
        return np.where(x > 1 - least + SAME, 1.0, np.where(x < least - SAME, 0.0, x))

    return u


def _rounded(least: float):  # type: ignore[no-untyped-def]
    """Carlier, Clautiaux and Moukrim's: in units of e, rounded down under the half, and what is over it fills up."""
    whole = np.floor(1 / least + SAME)

    def u(x: Array) -> Array:
        low, high = np.floor(x / least + SAME), np.floor((1 - x) / least + SAME)
        half = np.abs(x - 0.5) < SAME
        return np.where(half, 0.5, np.where(x < 0.5, low / whole, 1 - high / whole))

    return u
