"""Where a drill may meet what nobody sees: zones straight from every socket and switch, around what is seen of pipes and
cables, and the bands in which installers run them. It warns; a detector and a licensed electrician decide.
"""

from collections.abc import Iterable, Iterator
from typing import Literal

from ..base import Frozen
from ..survey import Obstacle, Section, Survey
from ..tables import load
from .choice import Strayed
from .levels import work

STRAIGHT = frozenset({"socket", "switch", "light", "panel"})
"""From these a cable runs straight up, down or sideways."""
THERE = frozenset({"pipe", "soil pipe", "cable", "valve", "meter", "radiator", "boiler", "water heater", "heater"})
"""These are there themselves, or what feeds them is."""
Why = Literal[
    "itself",
    "above or below",
    "beside",
    "around",
    "under the ceiling",
    "over the floor",
    "beside the corner",
    "strayed",
]


class Zone(Frozen):
    """A stretch of wall, mm. One that `bars` a hole comes from something that was read; the others ask for a detector."""

    x0: float
    x1: float
    z0: float
    z1: float
    why: Why
    of: str = ""
    bars: bool = True

    def holds(self, x: float, z: float) -> bool:
        """Whether a point lies in it; on its edge does not count."""
        return self.x0 < x < self.x1 and self.z0 < z < self.z1


def _size(key: str) -> float:
    return float(load("installing")["zones"][key]["value"])


def zones(survey: Survey, section: Section, width: float, height: float) -> tuple[Zone, ...]:
    """Every zone of a wall `width` by `height` mm, those that bar a hole first."""
    here = [o for o in survey.obstacles if o.section == section.id]
    barring = [zone for o in here for zone in _of(o, width, height)]
    return (*barring, *_bands(section, width, height))


def strayed_zones(strayed: Iterable[Strayed], section: str) -> tuple[Zone, ...]:
    """Round each hole of a section that is where none should be: a screw beside it would break into it."""
    far = work("stray_apart")
    return tuple(
        Zone(x0=s.along - far, x1=s.along + far, z0=s.height - far, z1=s.height + far, why="strayed", of="strayed hole")
        for s in strayed
        if s.section == section
    )


def services_read(survey: Survey, section: Section) -> bool:
    """Whether anything of the services of a wall was read: where nothing was, they are not known, not absent."""
    return any(o.section == section.id and o.kind in STRAIGHT | THERE for o in survey.obstacles)


def _of(o: Obstacle, width: float, height: float) -> Iterator[Zone]:
    if o.kind in STRAIGHT:
        x, z, half = o.x + o.width / 2, o.z + o.height / 2, max(_size("beside"), o.width / 2, o.height / 2)
        yield Zone(x0=x - half, x1=x + half, z0=0, z1=height, why="above or below", of=o.name)
        yield Zone(x0=0, x1=width, z0=z - half, z1=z + half, why="beside", of=o.name)
    elif o.kind in THERE:
        out = _size("around")
        yield Zone(x0=o.x - out, x1=o.x + o.width + out, z0=o.z - out, z1=o.z + o.height + out, why="around", of=o.name)


def _bands(section: Section, width: float, height: float) -> Iterator[Zone]:
    low, high = _size("floor_from"), _size("floor_to")
    yield Zone(x0=0, x1=width, z0=low, z1=high, why="over the floor", bars=False)
    yield Zone(x0=0, x1=width, z0=height - _size("ceiling_to"), z1=height - _size("ceiling_from"),
               why="under the ceiling", bars=False)  # fmt: skip
    near, far = _size("corner_from"), _size("corner_to")
    if section.left == "wall":
        yield Zone(x0=near, x1=far, z0=0, z1=height, why="beside the corner", bars=False)
    if section.right == "wall":
        yield Zone(x0=width - far, x1=width - near, z0=0, z1=height, why="beside the corner", bars=False)
