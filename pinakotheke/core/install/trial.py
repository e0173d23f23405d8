"""The trial before drilling: how far each height that is tried may still go up or down, so that who stands before it knows
by how much to change it.
"""

from math import inf

from ..base import Frozen
from ..checks import Case
from ..layout.packing.trouble import hand_height, zone_of
from ..layout.report.ledger import ask_of
from ..layout.report.trial import TrialMark, trial_marks
from ..systems import HOLDERS, Part


class TrialRoom(Frozen):
    """How far a height may go `up` before who takes things there no longer `reaches` them, or there is no room above, and
    `down` before what stands or hangs there meets what is below, mm. Below 0 it is out of reach already. None where
    nothing limits it.
    """

    mark: TrialMark
    up: float | None
    down: float | None
    reaches: bool
    """Whether it is the reach that limits `up`, and not what is above."""


def trial_rooms(case: Case) -> tuple[TrialRoom, ...]:
    """Of every mark of the trial (`trial_marks`)."""
    return tuple(_room(case, mark) for mark in trial_marks(case.made))


def _room(case: Case, mark: TrialMark) -> TrialRoom:
    part = case.parts[mark.part]
    if part.bay is None:
        return TrialRoom(mark=mark, up=None, down=None, reaches=False)
    bay, family = case.made.bay_of(part), case.made.family_of(part)
    hand = hand_height(part.role, part.z, part.h, bay)
    held = [case.by_id[a.thing] for a in case.made.held_by(part.id) if a.thing in case.by_id]
    reach = min((zone_of(t, case.people, part.role, bay, family).high - hand for t in held), default=inf)
    low, high = _takes(case, part)
    others = [_takes(case, p) for p in case.made.parts if p.bay == part.bay and p.id != part.id
              and (p.role in HOLDERS or p.role == "cover")]  # fmt: skip
    above = min((z for z, _ in others if z >= high), default=inf) - high
    below = low - max((z for _, z in others if z <= low), default=-inf)
    up = min(reach, above)
    return TrialRoom(
        mark=mark, up=None if up == inf else up, down=None if below == inf else below, reaches=reach < above
    )


def _takes(case: Case, part: Part) -> tuple[float, float]:
    """From which height to which a part and what is in it take of their bay, mm."""
    if part.role == "cover":
        return float(part.z), float(part.z + part.h)
    held = [a for a in case.made.held_by(part.id) if a.thing in case.by_id]
    clear = max((ask_of(case.made, part, a, case.by_id).clear for a in held), default=0.0)
    return case.made.family_of(part).takes(part, clear)
