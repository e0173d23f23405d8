"""Lights: which bay has one, the driver that feeds it, its cable, the sockets that are asked for, and what they draw
against a strip of outlets. Fixed wiring is a licensed electrician's.
"""

from ..base import Frozen
from ..layout import Design
from ..systems import Part
from ..tables import load
from ..units import Units

ROUTE_OVER = 600
"""Of a cable over its route: 150 mm at each end and a loop of 300 (handbook section 12), mm."""


class BayLight(Frozen):
    """A light: its bay, how long it is, which driver feeds it, its cable and how many sides of carcases that passes, mm."""

    bay: int
    section: str
    length: float
    driver: int
    cable: float
    sides: int


class Lighting(Frozen):
    """All lights of a design. `rated` is what a strip of outlets carries for hours on end, W."""

    lights: tuple[BayLight, ...]
    drivers: int
    outlets: int
    watts: float
    rated: float


def lighting(design: Design, units: Units) -> Lighting | None:
    """The lights of a design; None where it has none. A driver stands with the middle one of those it feeds, in the order
    in which they stand along the wall, and asks for a socket.
    """
    numbers = load("installing")["lights"]
    lights = sorted((p for p in design.parts if p.role == "light"), key=lambda p: (p.section, p.x, p.z))
    if not lights:
        return None
    outlets = int(getattr(design.family_of(lights[0]).table, "lights_a_driver", 1))
    found: list[BayLight] = []
    for n in range(0, len(lights), outlets):
        fed = lights[n : n + outlets]
        middle = fed[len(fed) // 2]
        for light in fed:
            route = abs(_centre(light) - _centre(middle)) + abs(light.z - middle.z)
            found.append(BayLight(bay=light.bay or 0, section=light.section, length=light.w, driver=n // outlets + 1,
                                  cable=route + ROUTE_OVER, sides=abs((light.bay or 0) - (middle.bay or 0))))  # fmt: skip
    watts = sum(light.w for light in lights) / 1000 * float(numbers["watts"]["value"])
    rated = float(numbers["strip_imperial" if units == "imperial" else "strip"]["value"])
    return Lighting(lights=tuple(found), drivers=-(-len(lights) // outlets), outlets=outlets, watts=watts, rated=rated)


def _centre(part: Part) -> float:
    return part.x + part.w / 2
