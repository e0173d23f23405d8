"""Parts cut from sheets at the least price, on a panel saw: the two-dimensional guillotine cutting stock problem with
several kinds of sheet, offcuts, kerf, trims, grain and stages.

A list packer (`saw`) under an annealing of the order finds the plan; `bound` says what no plan can be cheaper than. The
cuts are told as a tree, for a saw parts one panel into two and never stops half way.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal, NamedTuple

import numpy as np

from .bound import least_cost
from .lengths import NotEnough
from .saw import ACROSS, AT_SHEET, AT_X, AT_Y, FIRST, TURNED, annealed, decoded

Way = Literal["crosscut", "rip"]
MOVES = 30_000
"""Moves of the annealing for a usual request."""
ANY_STAGES = 99


@dataclass(frozen=True, slots=True)
class Sheet:
    """Sheets of one size, mm: `length` along the grain, what one costs in cents, and how many there are (None: as many as
    one buys). An offcut in hand costs nothing and lies ready.
    """

    key: str
    length: int
    width: int
    price: int
    count: int | None = None


@dataclass(frozen=True, slots=True)
class Panel:
    """So many parts of one cut size, mm: `length` along the grain of the sheet, unless it `turns`."""

    key: str
    length: int
    width: int
    count: int = 1
    turns: bool = False


class Placed(NamedTuple):
    """One part on its sheet: its corner from the sheet's own, its sides along and across the sheet, mm."""

    panel: Panel
    x: int
    y: int
    w: int
    h: int

    @property
    def is_turned(self) -> bool:
        """Whether it lies across the grain."""
        return self.w != self.panel.length


class Cut(NamedTuple):
    """One pass of the saw over a panel (x, y, w, h): a crosscut at an x, or a rip at a y; the kerf lies behind `at`.
    `stage` counts the times the panel is turned.
    """

    way: Way
    at: int
    stage: int
    x: int
    y: int
    w: int
    h: int


class Rest(NamedTuple):
    """What stays of a sheet, from its corner, mm."""

    x: int
    y: int
    w: int
    h: int

    @property
    def area(self) -> int:
        """Square millimetres."""
        return self.w * self.h


@dataclass(frozen=True, slots=True)
class CutSheet:
    """One sheet: its parts, its cuts in the order in which they are made, and the rests."""

    sheet: Sheet
    parts: tuple[Placed, ...]
    cuts: tuple[Cut, ...]
    rests: tuple[Rest, ...]


@dataclass(frozen=True, slots=True)
class SheetPlan:
    """Sheets with their cuts; `cost`, the proven least cost `bound`, and that of the area alone, in cents."""

    sheets: tuple[CutSheet, ...]
    cost: int
    bound: int
    area_bound: int

    @property
    def is_proven(self) -> bool:
        """Whether nothing cheaper is possible."""
        return self.cost == self.bound

    @property
    def gap(self) -> float:
        """By what share it may cost more than need be."""
        return (self.cost - self.bound) / self.cost if self.cost else 0.0

    @property
    def waste(self) -> float:
        """The share of the sheets that becomes no part."""
        whole = sum(s.sheet.length * s.sheet.width for s in self.sheets)
        return 1 - sum(p.w * p.h for s in self.sheets for p in s.parts) / whole if whole else 0.0


def cut_sheets(panels: Sequence[Panel], stock: Sequence[Sheet], *, kerf: int = 0, trim: int = 0,
               stages: int = ANY_STAGES, rip: bool = False, moves: int = MOVES, seed: int = 1) -> SheetPlan:  # fmt: skip
    """The cheapest plan found for all parts: `kerf` is the saw's, `trim` what is cut off every edge of a sheet first, mm;
    `stages` how often a panel is turned, besides one last cut to trim a part; `rip`: a sheet's first cut runs along it,
    as a saw for long panels has it. The same request gives the same plan.
    Raises `NotEnough` with the key of a part that no sheet, or too few of them, can give.
    """
    single = [p for p in panels for _ in range(p.count)]
    if not single:
        return SheetPlan((), 0, 0, 0)
    there = [s for s in stock if s.count is None or s.count > 0]
    rooms = np.array(
        [(s.length - 2 * trim + kerf, s.width - 2 * trim + kerf, s.price, int(s.price == 0 and s.count is not None))
         for s in there], np.int64).reshape(-1, 4)  # fmt: skip
    size = np.array([(p.length + kerf, p.width + kerf) for p in single], np.int64)
    turns = np.array([p.turns for p in single])
    for p, (w, h) in zip(single, size, strict=True):
        fits = (w <= rooms[:, 0]) & (h <= rooms[:, 1]) | (p.turns & (h <= rooms[:, 0]) & (w <= rooms[:, 1]))
        if not fits.any():
            raise NotEnough(p.key)
    limits = [(int(r[0]), int(r[1]), s.price, s.count) for r, s in zip(rooms, there, strict=True)]
    bound = least_cost(size, turns, limits)
    area = least_cost(size, turns, limits, only_area=True)
    left = np.array([len(single) if s.count is None else s.count for s in there], np.int64)
    order, split, opens = _first(size, rooms)
    annealed(order, split, opens, size, turns, rooms, left, stages, rip, moves, seed, float(bound))
    most = len(single) + int(left[rooms[:, 3] == 1].sum()) + 1
    placed, kinds = np.zeros((len(single), 5), np.int64), np.zeros(most, np.int64)
    free = np.zeros((2 * len(single) + most + 2, 7), np.int64)
    _, opened, missing, _ = decoded(order, split, opens, size, turns, rooms, left, stages, rip, placed, free, kinds)
    if missing:
        raise NotEnough(next(single[i].key for i in order if placed[i, AT_SHEET] < 0))
    found = []
    for number in range(opened):
        on = [(single[i], placed[i]) for i in order if placed[i, AT_SHEET] == number]
        if on:
            found.append(_sawn(there[kinds[number]], on, kerf, trim))
    found.sort(key=lambda s: (s.sheet.price == 0, -s.sheet.length * s.sheet.width, -sum(p.w * p.h for p in s.parts)))
    return SheetPlan(tuple(found), sum(s.sheet.price for s in found), bound, area)


def _first(size: np.ndarray, rooms: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """The order to begin with, the largest part first, and for each the sheet that costs least for its area."""
    order = np.argsort(-(size[:, 0] * size[:, 1]), kind="stable").astype(np.int64)
    cheap = int(np.argmin(np.where(rooms[:, 3] == 1, np.inf, rooms[:, 2] / (rooms[:, 0] * rooms[:, 1]))))
    return order, np.zeros(len(size), np.int64), np.full(len(size), cheap, np.int64)


class _Node:
    """A panel on its way through the saw, in lengths with the kerf added."""

    def __init__(self, x: int, y: int, w: int, h: int, stage: int = 0, way: int = 0) -> None:
        self.x, self.y, self.w, self.h, self.stage, self.way = x, y, w, h, stage, way
        self.cut: tuple[int, int, int] | None = None
        """Way, at, stage."""
        self.halves: tuple[_Node, _Node] | None = None
        self.part: Panel | None = None

    def sawn(self, way: int, at: int) -> "_Node":
        """Cut it; the half in which the part lies."""
        stage = self.stage if self.way == way else self.stage + 1
        x, y, w, h = self.x, self.y, self.w, self.h
        across = way == ACROSS
        near = _Node(x, y, at if across else w, h if across else at, stage, way)
        far = _Node(x + at, y, w - at, h, stage, way) if across else _Node(x, y + at, w, h - at, stage, way)
        self.cut, self.halves = (way, (x if across else y) + at, stage), (near, far)
        return near

    def walked(self) -> "Iterator[_Node]":
        """It and all that come of it, the near half first."""
        yield self
        for half in self.halves or ():
            yield from half.walked()


def _sawn(sheet: Sheet, on: list[tuple[Panel, np.ndarray]], kerf: int, trim: int) -> CutSheet:
    """The tree of cuts from the parts in the order in which they were placed, told in millimetres of the sheet."""
    root = _Node(0, 0, sheet.length - 2 * trim + kerf, sheet.width - 2 * trim + kerf)
    parts = []
    for panel, row in on:
        w, h = panel.length + kerf, panel.width + kerf
        if row[TURNED]:
            w, h = h, w
        x, y = int(row[AT_X]), int(row[AT_Y])
        node = next(n for n in root.walked() if n.cut is None and n.part is None and (n.x, n.y) == (x, y))
        for way in (int(row[FIRST]), 3 - int(row[FIRST])):
            at = w if way == ACROSS else h
            if at < (node.w if way == ACROSS else node.h):
                node = node.sawn(way, at)
        node.part = panel
        parts.append(Placed(panel, x + trim, y + trim, w - kerf, h - kerf))
    cuts = [
        Cut("crosscut" if n.cut[0] == ACROSS else "rip", n.cut[1] - kerf + trim, n.cut[2], n.x + trim, n.y + trim,
            n.w - kerf, n.h - kerf)
        for n in root.walked() if n.cut is not None
    ]  # fmt: skip
    rests = [
        Rest(n.x + trim, n.y + trim, n.w - kerf, n.h - kerf) for n in root.walked()
        if n.cut is None and n.part is None and n.w > kerf and n.h > kerf
    ]  # fmt: skip
    return CutSheet(sheet, tuple(parts), (*_trims(sheet, trim), *cuts), tuple(rests))


def _trims(sheet: Sheet, trim: int) -> Iterator[Cut]:
    """The four cuts that take the factory edges off."""
    edges: tuple[tuple[Way, int], ...] = (
        ("rip", trim), ("rip", sheet.width - trim), ("crosscut", trim), ("crosscut", sheet.length - trim),
    )  # fmt: skip
    for way, at in edges if trim else ():
        yield Cut(way, at, 0, 0, 0, sheet.length, sheet.width)
