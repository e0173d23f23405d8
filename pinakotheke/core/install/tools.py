"""Tools and small things: what the steps ask for, bits by the holes, screws and anchors with spares, shims by the base."""

from collections import Counter
from collections.abc import Iterable, Sequence
from math import ceil

from ..base import Frozen
from .base import BasePlan
from .holes import DrillingMap, Fastener, Hole
from .levels import work
from .lights import Lighting
from .steps import Step

SPARE = 0.1
"""Of what breaks, strips or falls behind: a tenth more, one at least; common practice."""


class SmallThing(Frozen):
    """What goes into holes or under bases: how many, spares and all; `size` in mm where one is asked for."""

    what: Fastener | str
    count: int
    size: float = 0


class ToolList(Frozen):
    """Tools by the steps that need them, in their order; bits in mm; small things."""

    tools: tuple[tuple[str, int], ...]
    bits: tuple[float, ...]
    small: tuple[SmallThing, ...]


def tool_list(steps: Sequence[Step], maps: Iterable[DrillingMap], bases: Iterable[BasePlan],
              lights: Lighting | None = None, joints: int = 0) -> ToolList:  # fmt: skip
    """Everything to lay ready before the first step; `joints` are those between frames that stand side by side."""
    holes = [h for m in maps for h in m.holes if not h.refused]
    tools = Counter(tool for step in steps for tool in step.tools)
    small = [SmallThing(what=into, count=with_spares(n), size=_size(holes, into))
             for into, n in sorted(Counter(h.into for h in holes).items()) if into != "unknown"]  # fmt: skip
    shims = sum(2 for b in bases for p in b.packing if p.height > 0)
    if shims:
        small.append(SmallThing(what="shims", count=with_spares(shims)))
    if joints:
        small.append(SmallThing(what="joining", count=with_spares(joints * int(work("joining")))))
    bits = {h.bit for h in holes if h.bit}
    if lights and any(one.sides for one in lights.lights):
        bits.add(work("cable_bit"))
    return ToolList(tools=tuple(tools.items()), bits=tuple(sorted(bits)), small=tuple(small))


def with_spares(count: int) -> int:
    """A count with its spares.

    >>> with_spares(18), with_spares(4)
    (20, 5)
    """
    return count + max(1, ceil(count * SPARE))


def _size(holes: Sequence[Hole], into: Fastener) -> float:
    """How long a screw is: its thread and what it passes through, rounded up to 5 mm."""
    deep = max((h.depth for h in holes if h.into == into), default=0.0)
    return float(ceil(deep / 5) * 5)
