"""Before and after: what was won by a space that was put in order, and a game of finding things against time."""

from collections.abc import Iterable, Sequence
from random import Random
from statistics import median
from typing import Annotated, Literal, NamedTuple

from pydantic import Field, StringConstraints

from ..base import AtMost, Frozen, Id, Name
from .restock import Day

Moment = Literal["before", "after"]
TO_FIND = 10
"""Things of a game."""
GIVEN_UP = 120.0
"""What nobody found within two minutes counts as so many seconds, common practice of search tasks, from memory."""


class Find(Frozen):
    """A thing that was looked for, and after how many seconds it was in the hand; None where it was given up."""

    thing: Annotated[str, StringConstraints(max_length=240)]
    seconds: Annotated[float, Field(ge=0, le=3600)] | None = None


class Hunt(Frozen):
    """A game of finding things in a space, before or after the work."""

    id: Id
    space: Id
    moment: Moment
    on: Day
    finds: Annotated[tuple[Find, ...], AtMost(50)] = ()


class Before(Frozen):
    """What somebody noted of a space before the work: pieces that were there, floor that was covered, m²; metres of rail
    and of shelf that it had.
    """

    id: Id
    space: Id
    pieces: Annotated[int, Field(ge=0, le=1_000_000)] | None = None
    floor: Annotated[float, Field(ge=0, le=10_000)] | None = None
    rail: Annotated[float, Field(ge=0, le=10_000)] | None = None
    shelf: Annotated[float, Field(ge=0, le=10_000)] | None = None


class Times(NamedTuple):
    """What a game says: the seconds in all, given up ones counted in full, the median of one, and how many were found."""

    total: float
    middle: float
    found: int
    of: int


def times(hunt: Hunt) -> Times | None:
    """A game in figures; None of an empty one. The median withstands one thing that nobody could find."""
    if not hunt.finds:
        return None
    took = [min(f.seconds, GIVEN_UP) if f.seconds is not None else GIVEN_UP for f in hunt.finds]
    found = sum(f.seconds is not None and f.seconds <= GIVEN_UP for f in hunt.finds)
    return Times(sum(took), float(median(took)), found, len(took))


def to_find(things: Sequence[Name], seed: int, number: int = TO_FIND) -> list[str]:
    """Things to look for, drawn at random by a seed, so that a game is another one each time and can be played again."""
    names = sorted(set(things))
    return Random(seed).sample(names, min(number, len(names)))


def last(hunts: Iterable[Hunt], moment: Moment) -> Times | None:
    """The last game of a moment."""
    played = [h for h in hunts if h.moment == moment and h.finds]
    return times(max(played, key=lambda h: h.on)) if played else None
