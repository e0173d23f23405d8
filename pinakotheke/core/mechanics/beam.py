"""A straight beam of one section on any supports under any loads, solved by the stiffness method.

Each stretch between two stations (supports, ends of loads, ends of the beam) is one element of Timoshenko's beam, exact
for uniform load (Przemieniecki, *Theory of Matrix Structural Analysis*, ch. 5, from memory); without a shear stiffness it
is Euler and Bernoulli's. Deflections are downward, moments positive where the beam sags.
"""

from collections.abc import Sequence
from functools import lru_cache
from itertools import pairwise
from math import inf
from typing import NamedTuple

import numpy as np
import numpy.typing as npt

SAMPLES = 33
"""Of each element; the greatest of them is refined by a parabola through it and its neighbours."""
NEAR = 1e-6
"""mm between two stations that are one."""


class Support(NamedTuple):
    """What holds the beam at a place: it rests there, or is `held` so that it cannot turn."""

    at: float
    held: bool = False


class Load(NamedTuple):
    """A load of `total` N, spread evenly from `start` to `end`; where the two are one, it is a point load."""

    start: float
    end: float
    total: float


class Bent(NamedTuple):
    """What a beam does: its greatest deflection down and where, its greatest moments where it sags and over supports
    (both positive), its greatest shear, and what each support bears.
    """

    sag: float
    at: float
    sagging: float
    hogging: float
    shear: float
    reactions: tuple[float, ...]

    @property
    def moment(self) -> float:
        """The greatest moment either way."""
        return max(self.sagging, self.hogging)


@lru_cache(maxsize=4096)
def bend(length: float, supports: tuple[Support, ...], loads: tuple[Load, ...], stiffness: float,
         shear: float = inf) -> Bent:  # fmt: skip
    """The beam from 0 to `length` with EI = `stiffness` (N·mm²) and κGA = `shear` (N). Raises `ValueError` for a beam that
    is a mechanism (fewer than two rests and none held) or without stiffness.
    """
    if stiffness <= 0 or shear <= 0 or length <= 0:
        raise ValueError(f"length and stiffness must be positive, got {length}, {stiffness} and {shear}")
    if len({s.at for s in supports}) < 2 and not any(s.held for s in supports):
        raise ValueError("a beam on fewer than two supports is held by one of them, or falls")
    stations = _stations(length, supports, loads)
    spread = [_uniform(a, b, loads) for a, b in pairwise(stations)]
    turned, force = _solve(stations, spread, supports, loads, stiffness, shear)
    return _greatest(stations, spread, turned, force, supports, stiffness, shear)


def _stations(length: float, supports: Sequence[Support], loads: Sequence[Load]) -> list[float]:
    """Where elements meet, in order."""
    found: list[float] = []
    marks = (0.0, length, *(s.at for s in supports), *(x for load in loads for x in (load.start, load.end)))
    for x in sorted(min(max(float(mark), 0.0), length) for mark in marks):
        if not found or x - found[-1] > NEAR:
            found.append(x)
    return found


def _uniform(a: float, b: float, loads: Sequence[Load]) -> float:
    """N/mm over one element."""
    middle = (a + b) / 2
    return sum(load.total / (load.end - load.start) for load in loads
               if load.end - load.start > NEAR and load.start < middle < load.end)  # fmt: skip


def _element(long: float, stiffness: float, shear: float) -> npt.NDArray[np.float64]:
    """Stiffness of one element over (deflection, turn) of its two ends; Φ = 12EI/κGAL² is what shear adds."""
    phi = 12 * stiffness / (shear * long**2)
    k = stiffness / (long**3 * (1 + phi))
    side, cross, own, far = 6 * long, 6 * long, (4 + phi) * long**2, (2 - phi) * long**2
    return k * np.array([[12, side, -12, cross], [side, own, -side, far],
                         [-12, -side, 12, -cross], [cross, far, -cross, own]])  # fmt: skip


def _nearest(stations: Sequence[float], at: float) -> int:
    return min(range(len(stations)), key=lambda n: abs(stations[n] - at))


def _solve(stations: Sequence[float], spread: Sequence[float], supports: Sequence[Support], loads: Sequence[Load],
           stiffness: float, shear: float) -> tuple[npt.NDArray[np.float64], npt.NDArray[np.float64]]:  # fmt: skip
    """Deflection and turn at every station, and the force and moment that the supports put in there."""
    size = 2 * len(stations)
    whole, load = np.zeros((size, size)), np.zeros(size)
    for n, (a, b) in enumerate(pairwise(stations)):
        long, at = b - a, slice(2 * n, 2 * n + 4)
        whole[at, at] += _element(long, stiffness, shear)
        load[at] += spread[n] * np.array([long / 2, long**2 / 12, long / 2, -(long**2) / 12])
    for one in loads:
        if one.end - one.start <= NEAR:
            load[2 * _nearest(stations, one.start)] += one.total
    fixed = {2 * _nearest(stations, s.at) for s in supports}
    fixed |= {2 * _nearest(stations, s.at) + 1 for s in supports if s.held}
    free = [n for n in range(size) if n not in fixed]
    moved = np.zeros(size)
    moved[free] = np.linalg.solve(whole[np.ix_(free, free)], load[free])
    return moved, whole @ moved - load


def _greatest(stations: Sequence[float], spread: Sequence[float], moved: npt.NDArray[np.float64],
              force: npt.NDArray[np.float64], supports: Sequence[Support], stiffness: float, shear: float,
              ) -> Bent:  # fmt: skip
    """Along each element: V = V₀ − qx, M = M₀ + V₀x − qx²/2, from which turn and deflection follow by integration."""
    sag = at = sagging = hogging = most = 0.0
    for n, (a, b) in enumerate(pairwise(stations)):
        long, q = b - a, spread[n]
        ends = _element(long, stiffness, shear) @ moved[2 * n : 2 * n + 4]
        ends -= q * np.array([long / 2, long**2 / 12, long / 2, -(long**2) / 12])
        # Deflection counts down, and so do the forces at the ends: the left support pushes up where its force is negative.
        v0, m0 = -ends[0], ends[1]
        x = np.linspace(0, long, SAMPLES)
        moment = m0 + v0 * x - q * x**2 / 2
        # EIθ' = −M and κGA(w' − θ) = V, with w and θ given at the left end.
        bow = moved[2 * n] + moved[2 * n + 1] * x - (m0 * x**2 / 2 + v0 * x**3 / 6 - q * x**4 / 24) / stiffness
        bow = bow + (v0 * x - q * x**2 / 2) / shear
        (down, dip), (up, lift) = _peak(x, bow), _peak(x, -bow)
        where, peak = (down, dip) if dip >= lift else (up, -lift)
        if abs(peak) > abs(sag):
            sag, at = peak, a + where
        sagging, hogging = max(sagging, _peak(x, moment)[1]), max(hogging, _peak(x, -moment)[1])
        most = max(most, abs(v0), abs(v0 - q * long))
    reactions = tuple(float(-force[2 * _nearest(stations, s.at)]) for s in supports)
    return Bent(float(sag), float(at), float(sagging), float(hogging), float(most), reactions)


def _peak(x: npt.NDArray[np.float64], y: npt.NDArray[np.float64]) -> tuple[float, float]:
    """Where y is greatest and what it is there, by a parabola through the samples about it."""
    n = int(np.argmax(y))
    if n in (0, len(x) - 1):
        return float(x[n]), float(y[n])
    left, middle, right = float(y[n - 1]), float(y[n]), float(y[n + 1])
    bow = left - 2 * middle + right
    if bow == 0:
        return float(x[n]), middle
    off = (left - right) / (2 * bow)
    return float(x[n]) + off * float(x[1] - x[0]), middle - (left - right) * off / 4
