"""Children's growth: what comes into their reach in which year, to be moved up or down."""

from collections.abc import Iterable, Mapping, Sequence
from typing import Literal, NamedTuple

from ..house import Person, reach_zone
from ..house.growth import stature_after, usual_stature
from ..inventory import Thing
from .places import Place, Stay

YEARS = 6
"""So many years are looked ahead."""
OLDEST = 16


class Growing(NamedTuple):
    """A place and a child: `down`, its own things lie above its reach until so many years from now (0: move them down
    today); `up`, what is kept from it comes into its reach in so many years. `height` of the place and `reach` then, mm.
    """

    way: Literal["down", "up"]
    place: str
    thing: str
    child: str
    years: int
    height: float
    reach: float


def usual_years(stature: float) -> float:
    """The age of a child that is halfway among those of its age, by its stature in mm; within 2 to 16 years.

    >>> round(usual_years(usual_stature(7.5)), 2), usual_years(400), usual_years(2000)
    (7.5, 2.0, 16.0)
    """
    low, high = 2.0, float(OLDEST)
    if stature <= usual_stature(low):
        return low
    if stature >= usual_stature(high):
        return high
    for _ in range(40):
        middle = (low + high) / 2
        low, high = (middle, high) if usual_stature(middle) < stature else (low, middle)
    return (low + high) / 2


def reach_in(child: Person, years: float) -> float:
    """How high a child reaches some years from now, mm: it keeps its place among those of its age."""
    now = usual_years(child.stature)
    stature = max(child.stature, stature_after(child.stature, now, years))
    return reach_zone(child.model_copy(update={"stature": stature})).high


def growing(people: Iterable[Person], places: Sequence[Place], stays: Iterable[Stay], things: Mapping[str, Thing], *,
            locked: bool) -> list[Growing]:  # fmt: skip
    """What to move for children in the years to come: their own things that they do not reach yet, and what is kept from
    them that they will reach, unless the space is locked. What they reach today is for Check to say.
    """
    heights = {p.id: p.height for p in places if p.height is not None}
    lying = [(s.place, things[s.thing]) for s in stays if s.place in heights and s.thing in things]
    found = []
    for child in people:
        if child.age != "child":
            continue
        reaches = [reach_in(child, n) for n in range(YEARS + 1)]
        for place, thing in lying:
            height = heights[place]
            years = next((n for n, reach in enumerate(reaches) if reach >= height), None)
            if thing.owner == child.id and reaches[0] < height:
                at = years if years is not None else YEARS + 1
                found.append(Growing("down", place, thing.id, child.id, at, height, reaches[0]))
            elif not locked and years and set(thing.hazards) & child.never_reaches:
                found.append(Growing("up", place, thing.id, child.id, years, height, reaches[years]))
    return sorted(found, key=lambda g: (g.years, g.child, g.place))
