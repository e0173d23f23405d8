"""Sweeps: the region through which something goes when it swings or slides.

In the coordinates of one section: x along the wall, y out from it, z up, mm. A leaf that swings keeps to a quarter of a
circle about its hinge; what slides out goes through the box before it. Touching is no meeting.
"""

from math import cos, radians, sin
from typing import Literal

from ..base import Frozen

STEP = 6
"""Degrees between two points of a drawn arc."""


class Sweep(Frozen):
    """What moves (`part`), how, and the box its motion keeps within; of a leaf also where it hangs and how wide it is."""

    part: str
    section: str = ""
    kind: Literal["swings", "slides out", "slides along"]
    x0: float
    x1: float
    y0: float
    y1: float
    z0: float
    z1: float
    hinge: tuple[float, float] | None = None
    """Of a leaf: the point it turns about; its far end sweeps toward greater x when the hinge is at x0."""

    def meets(self, x0: float, x1: float, y0: float, y1: float, z0: float, z1: float) -> bool:
        """Whether a box stands in the way: touching does not count. A swinging leaf leaves the far corner of its box.

        >>> door = swing("d", "", (0, 0), 600, 0, 2000, right=False)
        >>> door.meets(100, 200, 100, 200, 0, 100), door.meets(550, 600, 550, 600, 0, 100)
        (True, False)
        """
        if not (x0 < self.x1 and self.x0 < x1 and y0 < self.y1 and self.y0 < y1 and z0 < self.z1 and self.z0 < z1):
            return False
        if self.hinge is None:
            return True
        across, out = self.hinge
        near_x, near_y = min(max(across, x0), x1) - across, min(max(out, y0), y1) - out
        return near_x**2 + near_y**2 < (self.x1 - self.x0) ** 2

    @property
    def arc(self) -> tuple[tuple[float, float], ...]:
        """Of a leaf: where its far end goes, from open to shut, in x and y; empty for what slides."""
        if self.hinge is None:
            return ()
        (x, y), wide = self.hinge, self.x1 - self.x0
        way, out = -1 if x > self.x0 else 1, -1 if y > self.y0 else 1
        return tuple(
            (x + way * wide * cos(radians(a)), y + out * wide * sin(radians(a))) for a in range(0, 91, STEP)
        )  # fmt: skip


def swing(part: str, section: str, hinge: tuple[float, float], width: float, z0: float, z1: float, *,
          right: bool) -> Sweep:  # fmt: skip
    """A leaf that opens outward, hung at its left end, or at its `right`."""
    x, y = hinge
    return Sweep(part=part, section=section, kind="swings", x0=x - width if right else x, x1=x if right else x + width,
                 y0=y, y1=y + width, z0=z0, z1=z1, hinge=hinge)  # fmt: skip
