"""Reviews and growth in words: what to look at, what was seen, what to move for children."""

from collections.abc import Mapping

from ..inventory import Thing
from ..units import Units, with_unit
from ..upkeep.growing import YEARS, Growing
from ..upkeep.review import Answer, Look


def look_in_words(look: Look, places: Mapping[str, str], things: Mapping[str, Thing]) -> str:
    """Something to look at: where, and why."""
    place = places.get(look.place, "")
    thing = things[look.thing].name if look.thing in things else ""
    if look.why == "full":
        how = f"{look.amount:.0%} of what it takes" if look.amount < 1e6 else "something that does not go in"
        return f"{place} holds {how}"
    if look.why == "empty":
        return f"{place} is empty"
    if look.why == "lent":
        return f"{thing}: lent for {look.amount:.0f} days"
    return f"{thing} in {place}: nobody moved it for {look.amount:.0f} days"


def answer_in_words(answer: Answer, places: Mapping[str, str], things: Mapping[str, Thing]) -> str:
    """What was seen at a look."""
    place = places.get(answer.place, "a place that is gone")
    thing = things[answer.thing].name if answer.thing in things else "something that is gone"
    return {
        "overflows": f"{place} overflows", "empty": f"{place} stays empty", "fine": f"{place} is fine",
        "unused": f"{thing}: not used, {answer.leaves or 'kept'}", "strays": f"{thing}: never goes back",
        "more": f"{thing}: {answer.count} of them now" + (", as many leave as came in" if answer.leaves else ""),
    }[answer.seen]  # fmt: skip


def relief_in_words(thing: str, out_of: str, into: str) -> str:
    """Where what overflows would have room as things lie now."""
    return f"{out_of} overflows: there is room for {thing} in {into}"


def growing_in_words(one: Growing, places: Mapping[str, str], things: Mapping[str, Thing], people: Mapping[str, str],
                     units: Units, year: int) -> str:  # fmt: skip
    """What to move for a child, and when."""
    thing, place, child = things[one.thing].name, places[one.place], people[one.child]
    at = f"{place}, {with_unit(one.height, units)} up"
    if one.way == "up":
        return f"By {year + one.years} {child} reaches {thing} in {at}: move it up or lock it before that."
    reach = f"{child} reaches {with_unit(one.reach, units)} today"
    if one.years > YEARS:
        return f"{thing} in {at}: {reach}; move it down."
    return f"{thing} in {at}: {reach}; move it down, or it is in reach from about {year + one.years}."
