"""It is not as drawn: a stud that stands elsewhere, and what that changes on a wall on which something hangs already."""

from collections.abc import Collection

from ..base import Frozen
from ..errors import Refusal
from ..survey import Reading, Survey
from .holes import DrillingMap


class HolesChanged(Frozen):
    """The holes of a part that is not up yet: how many go elsewhere, and how many get something else."""

    part: str
    elsewhere: int
    otherwise: int


def stud_moved(survey: Survey, section: str, number: int, at: float, reading: Reading) -> tuple[Survey, float]:
    """A survey in which the `number`-th stud of a section, counted from the left, was read anew at `at` mm by `reading`,
    and where it was thought to be. Raises `Refusal` for a stud that was never read.
    """
    studs = sorted((r for r in survey.readings if r.what == "stud" and r.section == section), key=lambda r: r.value)
    if not 1 <= number <= len(studs):
        raise Refusal("install.no-stud", number=number, known=len(studs))
    old = studs[number - 1]
    kept = tuple(reading if r.id == old.id else r for r in survey.readings)
    return survey.model_copy(update={"readings": kept}), old.value


def holes_changed(before: DrillingMap, after: DrillingMap, up: Collection[str]) -> tuple[HolesChanged, ...]:
    """What is otherwise on a new map of a wall, part by part; what is `up` already hangs as it was drilled."""
    found = []
    for part in dict.fromkeys(h.part for h in (*before.holes, *after.holes)):
        if part in up:
            continue
        was = [(h.surface, round(h.along, 1), h.height, h.into) for h in before.holes if h.part == part]
        now = [(h.surface, round(h.along, 1), h.height, h.into) for h in after.holes if h.part == part]
        places = {(s, x, z) for s, x, z, _ in was}
        elsewhere = sum((s, x, z) not in places for s, x, z, _ in now)
        otherwise = sum(row not in was for row in now) - elsewhere
        if elsewhere or otherwise or len(was) != len(now):
            found.append(HolesChanged(part=part, elsewhere=elsewhere, otherwise=otherwise))
    return tuple(found)
