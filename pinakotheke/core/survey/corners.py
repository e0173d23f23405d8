"""Corners of a room of several runs: which run fills one, and what of it the next run's front hides."""

from ..tables import value
from .models import Survey
from .square import fitted_depth


def blind_zones(survey: Survey) -> dict[str, list[tuple[float, float]]]:
    """x ranges of the runs that own a corner which the neighbouring run's front hides."""
    found: dict[str, list[tuple[float, float]]] = {}
    runs = survey.runs
    for n, run in enumerate(runs):
        width = survey.least("width", section=run.id)
        if width is None:
            continue
        for owns, neighbour, right in (
            (run.corner == "mine", runs[n + 1] if n + 1 < len(runs) else None, True),
            (n > 0 and runs[n - 1].corner == "theirs", runs[n - 1] if n else None, False),
        ):
            if owns and neighbour is not None:
                hidden = (fitted_depth(survey, neighbour.id) or 0) + value("survey.corner_filler")
                found.setdefault(run.id, []).append((width - hidden, width) if right else (0.0, hidden))
    return found


def hidden(zones: list[tuple[float, float]], x0: float, x1: float) -> int:
    """How much of a stretch of wall lies in such zones, mm."""
    return int(sum(max(0.0, min(b, x1) - max(a, x0)) for a, b in zones))
