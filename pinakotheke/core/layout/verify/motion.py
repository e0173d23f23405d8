"""What of a design moves: doors that swing or slide, drawers and trays that come out."""

from collections.abc import Iterator

from ...geometry.sweeps import Sweep, swing
from ...systems import PULL_OUTS, Part
from ..models import Design


def sweeps_of(design: Design) -> tuple[Sweep, ...]:
    """Every sweep of a design's own parts, each in the coordinates of its section."""
    return tuple(sweep for part in design.parts for sweep in _sweeps(part))


def _sweeps(part: Part) -> Iterator[Sweep]:
    box = {"x0": part.x, "x1": part.x + part.w, "z0": part.z, "z1": part.z + part.h}
    if part.role == "door" and part.hinge:
        yield door_swing(part)
    elif part.role == "door":
        yield Sweep(part=part.id, section=part.section, kind="slides along", y0=part.y, y1=part.y + part.d, **box)
    elif part.role in PULL_OUTS:
        front = part.y + part.d
        yield Sweep(part=part.id, section=part.section, kind="slides out", y0=front, y1=front + part.d, **box)


def door_swing(door: Part) -> Sweep:
    """The quarter circle of a hinged leaf."""
    right = door.hinge == "right"
    hinge = (door.x + door.w if right else door.x, door.y)
    return swing(door.id, door.section, hinge, door.w, door.z, door.z + door.h, right=right)
