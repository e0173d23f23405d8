"""Two designs part by part: what only one has, what stands elsewhere, and who lives elsewhere."""

from collections import Counter

from ...base import Frozen
from ...systems import HOLDERS, Part
from ...systems.roles import COMES_WITH
from ..models import Design

PartLine = tuple[str, str, int, int, int]


class PartDifference(Frozen):
    """So many of one article in each of two designs; sizes in mm."""

    name: str
    w: int
    d: int
    h: int
    here: int
    there: int


class Home(Frozen):
    """Where something lives: the role of the part, and its height above the floor of its section, mm."""

    role: str
    height: int


class HomeDifference(Frozen):
    """Where a thing lives in each of two designs; nowhere when empty."""

    thing: str
    here: tuple[Home, ...]
    there: tuple[Home, ...]


def part_differences(one: Design, other: Design) -> tuple[PartDifference, ...]:
    """Articles of which the two have different numbers, the greatest difference first."""
    a, b = _counted(one), _counted(other)
    rows = [
        PartDifference(name=key[1], w=key[2], d=key[3], h=key[4], here=a[key], there=b[key])
        for key in sorted({*a, *b}) if a[key] != b[key]
    ]  # fmt: skip
    return tuple(sorted(rows, key=lambda r: -abs(r.here - r.there)))


def _counted(design: Design) -> Counter[PartLine]:
    found: Counter[PartLine] = Counter()
    for part in design.parts:
        if part.role not in COMES_WITH:
            found[part.item, design.family_of(part).named(part), part.w, part.d, part.h] += 1
    return found


def home_differences(one: Design, other: Design) -> tuple[HomeDifference, ...]:
    """Things that live in another kind of compartment, or at another height by more than a hand's breadth."""
    a, b = _homes(one), _homes(other)
    found = []
    for thing in sorted({*a, *b}):
        here, there = a.get(thing, []), b.get(thing, [])
        if [_coarse(p) for p in here] != [_coarse(p) for p in there]:
            found.append(HomeDifference(thing=thing, here=_as_homes(one, here), there=_as_homes(other, there)))
    return tuple(found)


def _homes(design: Design) -> dict[str, list[Part]]:
    homes: dict[str, list[Part]] = {}
    for a in design.assignments:
        part = design.part(a.part)
        if part.role in HOLDERS and part not in homes.setdefault(a.thing, []):
            homes[a.thing].append(part)
    return homes


def _coarse(part: Part) -> tuple[str, int]:
    return part.role, round(part.z / 100)


def _as_homes(design: Design, parts: list[Part]) -> tuple[Home, ...]:
    return tuple(Home(role=p.role, height=p.z + design.bay_of(p).foot) for p in parts)
