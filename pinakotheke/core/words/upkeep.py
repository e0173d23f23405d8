"""What is said of places and of what lies in them."""

from ..checks import Case
from ..inventory import Thing
from ..upkeep import Planned
from ..upkeep.places import Difference
from .installing import part_in_words


def place_named(case: Case, one: Planned) -> str:
    """What a place of a design is called: *Shelf 2 in bay 1*, *Medium box on shelf 2 in bay 1*."""
    part = part_in_words(case, one.part)
    box = case.made.box(one.box) if one.box else None
    if box is None:
        return f"{part[0].upper()}{part[1:]}"
    return f"{box.name[0].upper()}{box.name[1:]} on {part}"


def counted_things(count: int, name: str) -> str:
    """So many of a thing: `4 scarves`; the name alone where there is one."""
    return name if count == 1 else f"{count} {name}"


def difference_in_words(one: Difference, place: str, thing: Thing) -> str:
    """Where what lies there is not what was planned."""
    if one.found == 0:
        return f"{place}: {counted_things(one.planned, thing.name)} planned, none there"
    if one.planned == 0:
        return f"{place}: {counted_things(one.found, thing.name)} there, none planned"
    return f"{place}: {thing.name}, {one.found} there, {one.planned} planned"
