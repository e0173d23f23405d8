"""Install: from a list of parts to a wall that is level.

Glossary. *Level line*: the datum of a wall, struck once. *Hole*: where a screw goes, told from the line and from the left
end of the wall. *Turn*: a place in the order of work. *Step*: parts of one turn put up together, or work on the whole
space. *Packing*: shims under a base. *Scribe*: what is cut off a plinth so that it follows the floor.
"""

from .base import BasePlan, base_plan
from .choice import InstallChoice
from .holes import DrillingMap, Hole, drilling_map
from .levels import LevelLine, level_line
from .log import OwnTimes, Tick, own_times
from .plan import InstallPlan, install_plan
from .replay import faults
from .schedule import Booked, Schedule, faults_of_schedule, schedule, when
from .services import Zone, zones
from .steps import Step, order_of_work
from .tools import ToolList, tool_list

__all__ = [
    "BasePlan",
    "Booked",
    "DrillingMap",
    "Hole",
    "InstallChoice",
    "InstallPlan",
    "LevelLine",
    "OwnTimes",
    "Schedule",
    "Step",
    "Tick",
    "ToolList",
    "Zone",
    "base_plan",
    "drilling_map",
    "faults",
    "faults_of_schedule",
    "install_plan",
    "level_line",
    "order_of_work",
    "own_times",
    "schedule",
    "tool_list",
    "when",
    "zones",
]
