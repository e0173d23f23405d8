"""The whole of an installation: lines, maps, bases, steps and their times, from a design and what a household says."""

from collections.abc import Collection
from functools import lru_cache

from ..base import Frozen
from ..checks import Case
from ..layout import Design
from ..units import Units
from .base import BasePlan, base_plan
from .choice import InstallChoice
from .holes import DrillingMap, drilling_map
from .levels import LevelLine, level_line
from .lights import Lighting, lighting
from .schedule import NoTime, Schedule, schedule
from .steps import Step, order_of_work
from .tools import ToolList, tool_list
from .trial import TrialRoom, trial_rooms

SECONDS = 2.0
"""So long a schedule is bettered while somebody waits for the page."""


class InstallPlan(Frozen):
    """Sections without readings have no line, map or base. `times` is None where nobody has time: no evening and no
    weekend. `times` are of the steps that are still to be done.
    """

    steps: tuple[Step, ...]
    lines: dict[str, LevelLine]
    maps: dict[str, DrillingMap]
    bases: dict[str, BasePlan]
    times: Schedule | None
    tools: ToolList
    trial: tuple[TrialRoom, ...]
    lights: Lighting | None
    unread: tuple[str, ...]
    """Sections of which too little was read to plan anything on the wall."""

    @property
    def minutes(self) -> float:
        """Of one person, all steps."""
        return sum(s.minutes * s.hands for s in self.steps)


def install_plan(case: Case, choice: InstallChoice, done: Collection[str] = (), seconds: float = SECONDS,
                 units: Units = "metric") -> InstallPlan:  # fmt: skip
    """Plan a design; steps that are `done` are not timed again. `units` are of the house's mains, as far as they tell."""
    steps = order_of_work(case, choice)
    lines, maps, bases, unread = {}, {}, {}, []
    for name in case.made.sections:
        section = case.survey.section(name)
        region = case.envelopes.get(name)
        if region is None:
            unread.append(name)
        elif section.at_wall:
            found = drilling_map(case, section, region.width, region.height, choice.strayed)
            if found.holes or any(s.section == name and s.turn == "line" for s in steps):
                lines[name] = level_line(case.survey, section, region.width, region.height)
                maps[name] = found
            base = base_plan(case.made, case.survey, region, name)
            if base is not None:
                bases[name] = base
    lights = lighting(case.made, units)
    times = _times(tuple(s for s in steps if s.id not in done), choice, seconds)
    tools = tool_list(steps, maps.values(), bases.values(), lights, joints(case.made))
    return InstallPlan(steps=steps, lines=lines, maps=maps, bases=bases, unread=tuple(unread), times=times, tools=tools,
                       trial=trial_rooms(case), lights=lights)  # fmt: skip


def joints(design: Design) -> int:
    """How many frames stand against another at their right side, and are joined to it."""
    frames = [p for p in design.parts if p.role == "frame"]
    return sum(any(b.section == a.section and b.x == a.x + a.w and b.y == a.y for b in frames) for a in frames)


@lru_cache(maxsize=64)
def _times(steps: tuple[Step, ...], choice: InstallChoice, seconds: float) -> Schedule | None:
    try:
        return schedule(steps, choice, seconds)
    except NoTime:
        return None
