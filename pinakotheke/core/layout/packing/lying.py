"""How pieces lie in a compartment of a drawer: in what pose, how many on each other, in how many rows.

The rule for the search, the verifier and the drawing alike. Numbers in `tables/lying.toml`.
"""

from collections.abc import Iterator
from functools import cache
from math import ceil, floor
from typing import Any, NamedTuple

from ...inventory import Thing
from ...inventory.needs import posed
from ...tables import load

MOST_CHOICES = 8
"""Shapes of compartment that are offered for a group."""
WASTE = 1.25
"""A shape that takes more than so many times the least area is not offered."""


class Pose(NamedTuple):
    """A piece as it lies: width, depth, height in mm, and how many may lie on each other."""

    w: float
    d: float
    h: float
    layers: int


class Bed(NamedTuple):
    """How a group lies: its pose, stacks side by side, rows one behind the other, and pieces on each other."""

    pose: Pose
    across: int
    rows: int
    layers: int

    @property
    def width(self) -> float:
        """mm from side to side, finger room included."""
        room = _room()
        return self.across * (self.pose.w + room["between"]) - room["between"] + room["beside"]

    @property
    def depth(self) -> float:
        """mm from front to back, finger room included."""
        room = _room()
        return self.rows * (self.pose.d + room["between"]) - room["between"] + room["before"]

    @property
    def between(self) -> float:
        """mm between two pieces."""
        return _room()["between"]

    @property
    def margin(self) -> float:
        """mm free at the left of all of them."""
        return _room()["beside"] / 2

    @property
    def front(self) -> float:
        """mm free before all of them."""
        return _room()["before"] / 2

    @property
    def height(self) -> float:
        """mm from the floor to the top of the highest pile."""
        return self.layers * self.pose.h


def _room() -> dict[str, float]:
    rows: dict[str, float] = load("lying")["room"]
    return rows


def poses(thing: Thing, clear: float) -> tuple[Pose, ...]:
    """Every way a piece may lie in a compartment so many mm high: flat, or on its edge where its kind stands upright, its
    length along or across. None where it is too high for all.
    """
    w, d, h = posed(thing, "drawer")
    flat = [(w, d, h)]
    if thing.row.upright:
        thin, middle, long = sorted((w, d, h))
        flat = [(thin, long, middle), (middle, long, thin)]  # filed on edge, or laid where the drawer is too low
    found: list[Pose] = []
    for wide, deep, high in flat:
        layers = min(floor((clear - _room()["over"]) / max(high, 0.1)), _layers(thing, high, on_edge=wide < high))
        if layers >= 1:
            found += [Pose(wide, deep, high, layers)]
            if wide != deep:
                found += [Pose(deep, wide, high, layers)]
            if thing.row.upright:
                break
    return tuple(found)


def over_height(thing: Thing) -> float:
    """The least height of a drawer in which one piece lies, room over it included, mm."""
    sizes = posed(thing, "drawer")
    return (sorted(sizes)[1] if thing.row.upright else sizes[2]) + _room()["over"]


def _layers(thing: Thing, high: float, *, on_edge: bool) -> int:
    """How many may lie on each other, whatever the drawer."""
    rows = load("lying")
    one = rows["one_layer"]
    lies_alone = thing.row.single or on_edge or thing.kind in one["kinds"] or thing.row.group in one["groups"]
    if lies_alone or any(h in one["hazards"] for h in thing.hazards):
        return 1
    piled: dict[str, Any] = rows["piled"]
    alike = thing.row.alike or thing.row.group in piled["groups"]
    most = float(piled["alike" if alike else "mixed"])
    return max(1, floor(most / max(high, 0.1)))


def beds(thing: Thing, count: int, clear: float) -> Iterator[Bed]:
    """Every way `count` pieces may lie together."""
    for pose in poses(thing, clear):
        layers = min(pose.layers, count)
        stacks = ceil(count / layers)
        for across in range(1, stacks + 1):
            rows = ceil(stacks / across)
            if ceil(stacks / rows) == across:
                yield Bed(pose, across, rows, layers)


@cache
def bed(thing: Thing, count: int, depth: float, clear: float) -> Bed | None:
    """How so many pieces lie in the least width of a compartment so deep and high; None where they do not go in."""
    fitting = [b for b in beds(thing, count, clear) if b.depth <= depth]
    return min(fitting, key=lambda b: (b.width, b.depth), default=None)


@cache
def shapes(thing: Thing, count: int, width: float, depth: float, clear: float) -> tuple[tuple[int, int], ...]:
    """Clear widths and depths of the compartments that hold so many pieces on a floor of this size, the smallest first;
    none where no compartment does.
    """
    sizes = {(ceil(b.width), ceil(b.depth)) for b in beds(thing, count, clear) if b.width <= width and b.depth <= depth}
    best = [s for s in sizes if not any(o != s and o[0] <= s[0] and o[1] <= s[1] for o in sizes)]
    best.sort(key=lambda s: (s[0] * s[1], s))
    return tuple(s for s in best if s[0] * s[1] <= WASTE * best[0][0] * best[0][1])[:MOST_CHOICES]
