"""What a household says of the work before it is planned: what hangs there now, who helps, and when there is time."""

from datetime import date
from typing import Annotated, Literal

from pydantic import Field

from ..base import Frozen

Old = Literal["nothing", "shelves", "rails", "tracks"]
Aim = Literal["soonest", "fewest days"]


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
    share: Annotated[float, Field(ge=0.2, le=5)] = 1.0
    """The household's own times over those of the table."""
