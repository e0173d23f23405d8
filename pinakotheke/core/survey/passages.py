"""The room left to walk and stand in front of storage."""

from ..base import Frozen
from .closed import car_zone
from .models import Survey
from .square import fitted_depth, frames


class Passage(Frozen):
    """Width in mm left in front of a wall, and what is on its other side."""

    section: str
    before: str
    width: float


def passages(survey: Survey) -> tuple[Passage, ...]:
    """Passages of a walk-in, a shed or a bay as planned: between facing runs, to a parked car's open doors.

    Only what was read is said: a run across an unread width has no passage yet.
    """
    placed, runs = frames(survey), survey.runs
    deep = {r.id: fitted_depth(survey, r.id) or 0.0 for r in runs}
    found = []
    if len(runs) == 3 and survey.values("width", section=runs[1].id):
        between = (survey.least("width", section=runs[1].id) or 0) - deep[runs[0].id] - deep[runs[2].id]
        if survey.car is None:
            found.append(Passage(section=runs[0].id, before=runs[2].label, width=between))
    if len(runs) == 2:
        for run, other in ((runs[0], runs[1]), (runs[1], runs[0])):
            across = survey.least("width", section=other.id)
            if across is not None:
                found.append(Passage(section=run.id, before="the wall across", width=across - deep[run.id]))
    if survey.car and placed:
        _, (y0, _) = car_zone(survey.car)
        main = survey.main
        found.append(Passage(section=main.id, before="the car", width=y0 - deep[main.id]))
        if len(runs) == 3:
            wide = next(f.length for f in placed if f.section == main.id)
            left, right = survey.car.x, wide - survey.car.x - survey.car.width
            found.append(Passage(section=runs[0].id, before="the car", width=left - deep[runs[0].id]))
            found.append(Passage(section=runs[2].id, before="the car", width=right - deep[runs[2].id]))
    return tuple(found)
