"""Brief: who lives here and the rules they choose."""

from .clients import Agreed, Remark
from .limits import HouseLimits
from .people import Hazard, Person, ReachZone, eye_height, reach_zone, shared_zone
from .rules import HouseRules
from .spaces import Answer, SpaceUse, WorkSession

__all__ = [
    "Agreed",
    "Answer",
    "Hazard",
    "HouseLimits",
    "HouseRules",
    "Person",
    "ReachZone",
    "Remark",
    "SpaceUse",
    "WorkSession",
    "eye_height",
    "reach_zone",
    "shared_zone",
]
