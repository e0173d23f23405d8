"""What of a room moves, as sweeps: the leaves of its door, windows that swing in, the doors of a parked car, an overhead
door. Beds that fold down are none of the things one measures here yet.
"""

from ..geometry.sweeps import Sweep
from ..tables import value
from .models import Car, Obstacle, OverheadDoor, Section, Survey


def door_leaves(survey: Survey, section: Section, depth: float, height: float) -> tuple[Sweep, ...]:
    """The leaves of a door that swings into the space, hung in its front: one, or the two of a pair; mm."""
    one, door = survey.only(section.id), survey.door
    opening = one.least("opening width")
    if opening is None or door.swings != "in" or door.kind not in ("hinged", "double hinged"):
        return ()
    left, top = max(one.values("left return"), default=0.0), one.least("opening height") or height
    pair = door.kind == "double hinged"
    leaf = opening / 2 if pair else opening
    hung = ("left", "right") if pair else (door.hinge,)
    return tuple(_leaf(section.id, left + (opening - leaf if side == "right" and pair else 0.0), leaf, depth, top, side)
                 for side in hung)  # fmt: skip


def _leaf(section: str, x: float, wide: float, front: float, top: float, side: str) -> Sweep:
    hinge = (x if side == "left" else x + wide, front)
    return Sweep(part="door", section=section, kind="swings", x0=x, x1=x + wide, y0=max(front - wide, 0.0), y1=front,
                 z0=0.0, z1=top, hinge=hinge)  # fmt: skip


def window_leaf(o: Obstacle) -> Sweep | None:
    """The way of a leaf that swings into the space, with room to let go of it; where it hangs was not read."""
    if not o.swing:
        return None
    out = max(o.swing + value("passage.door_leaf"), o.y + o.projection + o.keep_out)
    return Sweep(part=o.id, section=o.section, kind="swings", x0=o.x - o.keep_out, x1=o.x + o.width + o.keep_out,
                 y0=max(o.y - o.keep_out, 0.0), y1=out, z0=o.z - o.keep_out, z1=o.z + o.height + o.keep_out)  # fmt: skip


def car_doors(car: Car) -> tuple[Sweep, Sweep]:
    """The ways of a parked car's doors at its two sides, along its whole length."""
    sides = ((car.x - car.doors, car.x), (car.x + car.width, car.x + car.width + car.doors))
    left, right = (
        Sweep(part="car", kind="swings", x0=x0, x1=x1, y0=car.gap, y1=car.gap + car.length, z0=0.0, z1=car.height)
        for x0, x1 in sides
    )
    return left, right


def overhead_leaf(door: OverheadDoor, width: float, room: float, height: float) -> Sweep:
    """What an overhead door takes under the ceiling, from the opening into the bay; `room` is how deep the bay is."""
    return Sweep(part="overhead door", kind="slides along", x0=0.0, x1=width, y0=max(room - door.reach, 0.0),
                 y1=max(room, door.reach), z0=door.track, z1=max(height, door.track))  # fmt: skip
