"""Carrying in and standing up: does a frame turn through door and passage, and tilt up under the ceiling?"""

from math import hypot, sqrt

from ..tables import value
from .envelope import Envelope


def tilt_height(height: float, depth: float) -> float:
    """Ceiling height in mm that a frame built flat needs to be tilted up: √(h² + d²).

    >>> tilt_height(2200, 584) > 2200, tilt_height(400, 300)
    (True, 500.0)
    """
    return hypot(height, depth)


def highest_tilted(envelope: Envelope, depth: float, x0: float, x1: float) -> float:
    """The highest frame of a depth that can be tilted up over x0..x1, mm.

    Whatever hangs from the ceiling over the place or in front of it lowers the ceiling along the arc; the slack is
    the rule `fit.diagonal_room`.
    """
    overhead = [c.z0 for c in envelope.closed if c.x0 < x1 and x0 < c.x1 and c.z1 >= envelope.z_to]
    ceiling = min([envelope.z_to, *overhead]) - value("fit.diagonal_room")
    return sqrt(max(ceiling * ceiling - depth * depth, 0.0))


def passes(width: float, depth: float, door: float, passage: float | None) -> bool:
    """Whether a frame carried upright goes through a door and turns in the passage before it.

    Through the door goes its lesser side; in the passage its base turns about itself, so the diagonal must pass. A
    passage that was not read is not held against it.
    """
    return min(width, depth) <= door and (passage is None or hypot(width, depth) <= passage)
