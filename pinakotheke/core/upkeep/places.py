"""Places that things are put back into: those of a design that was put up, and in what order they are filled."""

from collections import Counter, defaultdict
from collections.abc import Iterable, Mapping, Sequence
from typing import Annotated

from pydantic import Field, StringConstraints

from ..base import Frozen, Id
from ..inventory import Thing
from ..layout import Design
from ..layout.packing.trouble import hand_height
from ..systems import HOLDERS, Part
from ..tables import load

Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]


class Place(Frozen):
    """A place of a space. `part` is that of the `design` it came from; `box` the container in it, where the place is a box.
    `height` is how high the hand that takes something out is above the floor, mm; None where nobody knows. `printed` is
    what its label said when it was last printed.
    """

    id: Id
    space: Id
    name: Name
    design: Annotated[str, StringConstraints(max_length=64)] = ""
    part: Annotated[str, StringConstraints(max_length=120)] = ""
    box: Annotated[str, StringConstraints(max_length=120)] = ""
    height: Annotated[float, Field(ge=-10_000, le=20_000)] | None = None
    printed: Annotated[str, StringConstraints(max_length=1000)] = ""
    printed_on: Annotated[str, StringConstraints(max_length=10)] = ""
    filled_on: Annotated[str, StringConstraints(max_length=10)] = ""
    """When somebody put everything in and ticked it."""


class Stay(Frozen):
    """So many of a thing in a place; `lent_to` whom they are with instead, since `lent_on`."""

    id: Id
    place: Id
    thing: Id
    count: Annotated[int, Field(ge=1, le=10_000)]
    lent_to: Annotated[str, StringConstraints(strip_whitespace=True, max_length=120)] = ""
    lent_on: Annotated[str, StringConstraints(max_length=10)] = ""


class Planned(Frozen):
    """A place that a design has, with what it gives a place there: thing and how many."""

    part: str
    box: str
    height: float | None
    holds: tuple[tuple[str, int], ...]


def planned(design: Design, things: Iterable[Thing]) -> tuple[Planned, ...]:
    """Every place of a design, empty ones too, from the left and from below: holding parts, and each box in them."""
    known = {t.id for t in things}
    held: dict[tuple[str, str], Counter[str]] = defaultdict(Counter)
    for a in design.assignments:
        if a.thing in known:
            held[a.part, a.container][a.thing] += a.count
    found = []
    for part in sorted((p for p in design.parts if p.role in HOLDERS and p.bay is not None), key=_along):
        boxes = [key for key in held if key[0] == part.id]
        bay = design.bay_of(part)
        height = hand_height(part.role, part.z, part.h, bay) if bay.drawer is None else None
        for key in sorted({(part.id, ""), *boxes}):
            rows = tuple(sorted(held.get(key, Counter()).items()))
            found.append(Planned(part=part.id, box=key[1], height=height, holds=rows))
    return tuple(found)


def _along(part: Part) -> tuple[str, int, int, str]:
    return part.section, part.bay or 0, part.z, part.id


def filling_order(places: Sequence[Place], stays: Iterable[Stay], things: Mapping[str, Thing]) -> list[Place]:
    """The places in the order in which they are filled: those with something heavy first, the lowest before the higher;
    then the others from below (common practice: the heavy and the low first, rails last).
    """
    heavy = float(load("upkeep")["filling"]["heavy"]["value"])
    heaviest: dict[str, float] = defaultdict(float)
    for stay in stays:
        if stay.thing in things:
            heaviest[stay.place] = max(heaviest[stay.place], things[stay.thing].piece_mass)
    return sorted(places, key=lambda p: (heaviest[p.id] < heavy, p.height is None, p.height or 0, p.name))


class Difference(Frozen):
    """A thing of which a place holds another number than was planned."""

    place: str
    thing: str
    planned: int
    found: int


def differences(design: Design, places: Iterable[Place], stays: Iterable[Stay],
                things: Iterable[Thing]) -> tuple[Difference, ...]:  # fmt: skip
    """Where what lies in the places is not what the design gave them."""
    at = {(p.part, p.box): p.id for p in places if p.part}
    wanted: Counter[tuple[str, str]] = Counter()
    for one in planned(design, things):
        place = at.get((one.part, one.box))
        if place is not None:
            wanted.update({(place, thing): count for thing, count in one.holds})
    there: Counter[tuple[str, str]] = Counter()
    for stay in stays:
        there[stay.place, stay.thing] += stay.count
    keys = dict.fromkeys((*wanted, *there))
    return tuple(Difference(place=p, thing=t, planned=wanted[p, t], found=there[p, t])
                 for p, t in keys if wanted[p, t] != there[p, t])  # fmt: skip
