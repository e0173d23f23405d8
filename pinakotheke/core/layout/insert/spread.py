"""From rows and columns to compartments where they lie: in what order, and who gets what is left over.

The order of rows is free, so what is wanted often comes to the front: by Smith's rule (weight ÷ length, descending; Smith
1956, from memory) the sum of use times way is least. What is left over is shared out in whole millimetres, in closed form.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from .partition import Column, Lane, Partition
from .skyline import Spot

School = Literal["fewest", "even", "grow"]
"""Who gets what is left over: one free compartment; everybody alike; what grows."""
FREE_FROM = 40
"""mm: a rest narrower than that is no compartment, and goes to the last one before it."""


@dataclass(frozen=True, slots=True)
class Cell:
    """A compartment: whose it is (None: free), and where it lies on the floor."""

    group: int | None
    spot: Spot


def spread(plan: Partition, floor: Spot, strip: int, *, uses: Sequence[float], grows: Sequence[float],
           school: School = "even", turned: bool = False, at_back: int | None = None) -> tuple[Cell, ...]:  # fmt: skip
    """The compartments of a partition on a floor, whose y grows toward the front. `uses` is how often each group is taken
    out, `grows` how much of what is left over it asks for; `turned` where rows run from front to back (the plan was made
    with width and depth exchanged); `at_back` a group that stays in the back right corner, as what is closed there.
    """
    if not plan.lanes:
        return ()
    width, depth = (floor.d, floor.w) if turned else (floor.w, floor.d)

    def weight(lane: Lane) -> float:
        return sum(uses[g] for c in lane.columns for g, _, _ in c.cells)

    def is_last(lane: Lane) -> bool:
        return any(g == at_back for c in lane.columns for g, _, _ in c.cells)

    lanes = sorted(plan.lanes, key=lambda lane: (is_last(lane) == turned, weight(lane) / (lane.d + strip)))
    deep, rest = _shared([lane.d for lane in lanes], depth, strip, school,
                         [sum(grows[g] for c in lane.columns for g, _, _ in c.cells) for lane in lanes])  # fmt: skip
    cells: list[Cell] = []
    y = 0
    # What is free lies at the back, or at the right; where a corner stands there, at the other end.
    free_first = turned == any(map(is_last, lanes))
    if rest and free_first:
        cells.append(Cell(None, Spot(0, 0, width, rest)))
        y = rest + strip
    for lane, d in zip(lanes, deep, strict=True):
        cells += _lane(lane, d, y, width, strip, uses, grows, school, turned, at_back)
        y += d + strip
    if rest and not free_first:
        cells.append(Cell(None, Spot(0, y, width, rest)))
    return tuple(_set(c, floor, turned) for c in cells)


def _lane(lane: Lane, deep: int, y: int, width: int, strip: int, uses: Sequence[float], grows: Sequence[float],
          school: School, turned: bool, at_back: int | None) -> list[Cell]:  # fmt: skip
    """The columns of a row. Where rows run across, their order along it is free; where they run from front to back, what
    is wanted often comes last, that is to the front.
    """

    def key(c: Column) -> tuple[bool, float]:
        corner = any(g == at_back for g, _, _ in c.cells)
        return (corner != turned, sum(uses[g] for g, _, _ in c.cells) / (c.w + strip) if turned else -c.w)

    columns = sorted(lane.columns, key=key)
    wide, rest = _shared([c.w for c in columns], width, strip, school,
                         [sum(grows[g] for g, _, _ in c.cells) for c in columns])  # fmt: skip
    cells: list[Cell] = []
    x = 0
    free_first = turned != any(g == at_back for c in columns for g, _, _ in c.cells)
    if rest and free_first:
        cells.append(Cell(None, Spot(0, y, rest, deep)))
        x = rest + strip
    for column, w in zip(columns, wide, strict=True):
        inside = sorted(column.cells, key=lambda c: ((c[0] == at_back) == turned, uses[c[0]] / (c[2] + strip)))
        depths, left = _shared([c[2] for c in inside], deep, strip, "even" if school == "fewest" else school,
                               [grows[c[0]] for c in inside])  # fmt: skip
        at = y
        for (group, _, _), d in zip(inside, depths, strict=True):
            cells.append(Cell(group, Spot(x, at, w, d)))
            at += d + strip
        assert not left
        x += w + strip
    if rest and not free_first:
        cells.append(Cell(None, Spot(x, y, rest, deep)))
    return cells


def _shared(sizes: Sequence[int], whole: int, strip: int, school: School, grows: Sequence[float],
            ) -> tuple[list[int], int]:  # fmt: skip
    """Sizes in a row that fill the whole, strips between, and the size of a free compartment after them (0: none)."""
    slack = whole - sum(sizes) - strip * (len(sizes) - 1)
    if school == "fewest" and slack - strip >= FREE_FROM:
        return list(sizes), slack - strip
    shares = list(grows) if school == "grow" and sum(grows) > 0 else [1.0] * len(sizes)
    total, given, sofar, out = sum(shares), 0, 0.0, []
    for size, share in zip(sizes, shares, strict=True):
        sofar += share
        upto = round(slack * sofar / total)
        out.append(size + upto - given)
        given = upto
    return out, 0


def _set(cell: Cell, floor: Spot, turned: bool) -> Cell:
    s = cell.spot
    s = Spot(s.y, s.x, s.d, s.w) if turned else s
    return Cell(cell.group, Spot(floor.x + s.x, floor.y + s.y, s.w, s.d))
