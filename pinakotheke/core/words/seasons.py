"""Swaps in words: their moves, and what does not go into its place."""

from collections.abc import Callable, Mapping

from ..inventory import Thing
from ..upkeep.seasons import ASIDE, IN_USE, Move
from .upkeep import counted_things


def move_in_words(move: Move, things: Mapping[str, Thing], place: Callable[[str], str]) -> str:
    """A move: `4 winter tyres: from the rack into use`; `place` says a place by its id."""
    what = counted_things(move.count, things[move.thing].name)
    if move.target == IN_USE:
        return f"{what}: out of {place(move.source)}, into use"
    if move.target == ASIDE:
        return f"{what}: out of {place(move.source)}, laid aside until there is room"
    if move.source == IN_USE:
        return f"{what}: put away into {place(move.target)}"
    if move.source == ASIDE:
        return f"{what}: what was laid aside, into {place(move.target)}"
    return f"{what}: from {place(move.source)} into {place(move.target)}"


def overfull_in_words(place: str, share: float, when: str) -> str:
    """A place that does not take what it is to hold."""
    if share > 1e6:
        return f"{place}, {when}: something does not go into it at all"
    return f"{place}, {when}: holds {share:.0%} of what it takes"


def unmeasured_in_words(places: list[str]) -> str:
    """Places of which nobody knows how much they take."""
    return f"Nobody measured {', '.join(places)}: held to take what lies there in either state, and no more."
