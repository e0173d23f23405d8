"""Under a ceiling that falls along the wall: how far each height goes, and the tiers that boards cut to it make.

Everything is read off the steps in which the slope is closed (`survey.closed`), so nothing here reaches further than
the verifier lets it.
"""

from math import atan, degrees
from typing import Literal, NamedTuple

from ..survey import ClosedRegion, Envelope

Falls = Literal["left", "right"]
FIRST = 500
"""A lowest tier as high as the ceiling is everywhere is worth it from so much on, mm; common practice."""


class Tier(NamedTuple):
    """A storey of boards: from `foot` to `top`, as far along the wall as the ceiling is at least so high; whether its
    low end is cut to the slope or meets the wall.
    """

    foot: int
    top: int
    x0: int
    x1: int
    is_cut: bool


def steps(envelope: Envelope) -> list[ClosedRegion]:
    """The steps of a slope along the wall, from the left; empty without one."""
    return sorted(
        (c for c in envelope.closed if c.obstacle == "slope" and c.x1 - c.x0 < envelope.width - 1), key=lambda c: c.x0
    )


def falls(envelope: Envelope) -> Falls | None:
    """To which side the ceiling comes down; None when it does to neither, or to both."""
    found = steps(envelope)
    heights = [c.z0 for c in found]
    if len(found) < 2 or heights[0] == heights[-1]:
        return None
    way: Falls = "right" if heights[-1] < heights[0] else "left"
    return way if heights == sorted(heights, reverse=way == "right") else None


def reach(envelope: Envelope, z: int, way: Falls) -> tuple[int, int]:
    """x range over which the ceiling is at least z high."""
    start, end = envelope.span(0, z)
    low = [c for c in steps(envelope) if c.z0 < z]
    if way == "right":
        return start, min([end, *(c.x0 for c in low)])
    return max([start, *(c.x1 for c in low)]), end


def tiers(envelope: Envelope, every: int, narrowest: int) -> list[Tier]:
    """Storeys `every` mm high, each as long as the ceiling lets it, while the topmost is not too narrow. The lowest is
    as high as the ceiling is everywhere, where that is worth a storey.
    """
    way = falls(envelope)
    if way is None:
        return []
    knee = min(c.z0 for c in steps(envelope))
    found: list[Tier] = []
    foot, top = 0, knee if knee >= FIRST else every
    while top <= envelope.z_to:
        x0, x1 = reach(envelope, top, way)
        if x1 - x0 < narrowest:
            break
        start, end = envelope.span(0, top)
        found.append(Tier(foot, top, x0, x1, (x0, x1) != (start, end)))
        foot, top = top, top + every
    return found


def pitch_of(envelope: Envelope) -> int:
    """How steep the slope is, in whole degrees from the level; 0 without one."""
    found = steps(envelope)
    if len(found) < 2 or found[0].x0 == found[-1].x0:
        return 0
    return round(degrees(atan(abs(found[-1].z0 - found[0].z0) / (found[-1].x0 - found[0].x0))))
