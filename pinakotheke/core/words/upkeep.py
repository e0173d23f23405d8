"""What is said of places and of what lies in them."""

from ..checks import Case
from ..inventory import Thing
from ..units import Units, with_unit
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


def stick_in_words(front: tuple[float, float], label: tuple[float, float], units: Units) -> str:
    """Where a label goes, centred and level, from the edges of what is seen; width and height in mm."""
    left, top = (front[0] - label[0]) / 2, (front[1] - label[1]) / 2
    if left >= 0 and top >= 0:
        return f"level, {with_unit(left, units)} from either side, {with_unit(top, units)} from the top"
    if left < 0:
        return f"too wide for its front of {with_unit(front[0], units)}: use a smaller sheet, or tape"
    middle = with_unit(front[0] / 2, units)
    return f"higher than its edge of {with_unit(front[1], units)}: use tape, its middle {middle} from either side"


def difference_in_words(one: Difference, place: str, thing: Thing) -> str:
    """Where what lies there is not what was planned."""
    if one.found == 0:
        return f"{place}: {counted_things(one.planned, thing.name)} planned, none there"
    if one.planned == 0:
        return f"{place}: {counted_things(one.found, thing.name)} there, none planned"
    return f"{place}: {thing.name}, {one.found} there, {one.planned} planned"
