"""Corners of a room of several runs: which run fills one, and what of it the next run's front hides."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

from ..tables import value
from .models import Section, Survey
from .square import fitted_depth

Span = tuple[float, float]
Stands = Mapping[str, Sequence[Span]]
"""Of each section that is built on, where its rows begin and end."""


@dataclass(frozen=True, slots=True)
class Corner:
    """A corner that one run fills: what of it the neighbour's front hides, unless the neighbour keeps clear of it.

    Common practice: who leaves 600 mm free before the fronts of the run that has the corner takes everything out of it
    straight, and none of it is hidden.
    """

    owner: str
    hidden: Span
    neighbour: str
    near: Span
    """Where on its own wall the neighbour stands in the way."""

    def is_clear(self, standing: Stands) -> bool:
        """Whether the neighbour is built on, and all of it keeps clear."""
        rows = standing.get(self.neighbour)
        return rows is not None and not any(x0 < self.near[1] and self.near[0] < x1 for x0, x1 in rows)


def corners(survey: Survey) -> list[Corner]:
    """The corners of a room that a run fills."""
    runs = survey.runs
    return [
        corner
        for n, run in enumerate(runs)
        for owns, other, right in (
            (run.corner == "mine", n + 1, True),
            (n > 0 and runs[n - 1].corner == "theirs", n - 1, False),
        )
        if owns and 0 <= other < len(runs) and (corner := _corner(survey, run, runs[other], right)) is not None
    ]  # fmt: skip


def _corner(survey: Survey, run: Section, other: Section, right: bool) -> Corner | None:
    width, next_width = (survey.least("width", section=r.id) for r in (run, other))
    if width is None:
        return None
    deep = (fitted_depth(survey, other.id) or 0) + value("survey.corner_filler")
    before = (fitted_depth(survey, run.id) or 0) + value("survey.corner_clear")
    hidden_part = (width - deep, width) if right else (0.0, deep)
    near = (0.0, before) if right else ((next_width or 0) - before, float(next_width or 0))
    return Corner(run.id, hidden_part, other.id, near)


def blind_zones(found: Iterable[Corner], standing: Stands | None = None) -> dict[str, list[Span]]:
    """x ranges of the runs that own a corner which the neighbouring run's front hides: all, or those that what is
    `standing` there hides.
    """
    zones: dict[str, list[Span]] = {}
    for corner in found:
        if standing is None or not corner.is_clear(standing):
            zones.setdefault(corner.owner, []).append(corner.hidden)
    return zones


def hidden(zones: list[Span], x0: float, x1: float) -> int:
    """How much of a stretch of wall lies in such zones, mm."""
    return int(sum(max(0.0, min(b, x1) - max(a, x0)) for a, b in zones))
