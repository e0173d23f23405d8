"""What was done at the wall: ticks with their own times, and what a household's times say of the table's."""

from collections.abc import Iterable
from typing import Annotated

from pydantic import Field, StringConstraints

from ..base import Frozen, Id

PRIOR = 240.0
"""So many minutes of work as the table has it are counted beside the household's own, common practice of shrinkage."""


class Tick(Frozen):
    """A step done, or found not to be as drawn (`amiss`). `minutes` is what it took, `estimate` what the table said."""

    id: Id
    space: Id
    design: Id
    step: Annotated[str, StringConstraints(max_length=120)]
    minutes: Annotated[float, Field(gt=0, le=2000)] | None = None
    estimate: Annotated[float, Field(ge=0, le=100_000)] = 0
    note: Annotated[str, StringConstraints(strip_whitespace=True, max_length=500)] = ""
    amiss: bool = False
    on: Annotated[str, StringConstraints(max_length=40)] = ""
    by: Annotated[str, StringConstraints(max_length=150)] = ""


class OwnTimes(Frozen):
    """The household's times over the table's: `share` of it, from so many steps that were timed."""

    share: float
    steps: int
    estimated: float
    took: float


def own_times(ticks: Iterable[Tick]) -> OwnTimes:
    """A shrinkage estimate: (prior + took) ÷ (prior + estimated), minutes; with no step timed it is 1.

    >>> own_times([Tick(id="a", space="s", design="d", step="x", minutes=90, estimate=60)]).share
    1.1
    """
    timed = [t for t in ticks if t.minutes is not None and t.estimate > 0 and not t.amiss]
    took, estimated = sum(t.minutes or 0 for t in timed), sum(t.estimate for t in timed)
    return OwnTimes(share=(PRIOR + took) / (PRIOR + estimated), steps=len(timed), estimated=estimated, took=took)
