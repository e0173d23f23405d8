"""What a household says of the work before it is planned: what hangs there now, who helps, and when there is time."""

from datetime import date
from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from ..base import Frozen, Id

Old = Literal["nothing", "shelves", "rails", "tracks"]
Aim = Literal["soonest", "fewest days"]


class Strayed(Frozen):
    """A hole that is in a wall where none should be: from the left end of the wall and above the highest point of the
    floor, mm.
    """

    section: Id
    along: Annotated[float, Field(ge=-10_000, le=100_000)]
    height: Annotated[float, Field(ge=-10_000, le=100_000)]


class Again(Frozen):
    """A part that is cut or bought anew, and the day on which it is there."""

    part: Id
    there: date


Said = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=80)]


class InstallChoice(Frozen):
    """How a space is installed. Times of day in minutes; a `share` above 1 is a household that takes longer than usual."""

    start: date
    """The first day."""
    old: Old = "nothing"
    """What is taken out first."""
    paint: bool = False
    people: Annotated[int, Field(ge=1, le=4)] = 2
    evening: Annotated[int, Field(ge=0, le=360)] = 120
    """Minutes on a weekday evening, from six; 0 for none."""
    weekend: Annotated[int, Field(ge=0, le=720)] = 360
    """Minutes on a Saturday and on a Sunday, from nine; 0 for none."""
    aim: Aim = "soonest"
    delivered: date | None = None
    """The day on which what is bought is there: no part is put up before it. None where all is there."""
    waits_at: Annotated[str, StringConstraints(strip_whitespace=True, max_length=200)] = ""
    """Where what is emptied waits, in the household's words."""
    has: Annotated[tuple[Said, ...], Field(max_length=200)] = ()
    """Tools and small things that are in the house already, by their names on the list."""
    strayed: Annotated[tuple[Strayed, ...], Field(max_length=200)] = ()
    again: Annotated[tuple[Again, ...], Field(max_length=200)] = ()
    share: Annotated[float, Field(ge=0.2, le=5)] = 1.0
    """The household's own times over those of the table."""
