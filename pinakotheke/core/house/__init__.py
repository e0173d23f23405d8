"""Brief: who lives here and the rules they choose."""

from .people import Person, ReachZone, reach_zone, shared_zone
from .rules import HouseRules

__all__ = ["HouseRules", "Person", "ReachZone", "reach_zone", "shared_zone"]
