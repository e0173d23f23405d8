"""Sort: the things to be kept, and what they ask of storage.

Glossary. *Thing*: a group of like things with a count. *Kind*: its row in the table of kinds. *Way*: how it may be
stored: `hang` on a rail, `shelf` folded in stacks, `shoe` or `box` side by side on a shelf or tray, `drawer` laid in
a drawer. *Need*: what one way asks of a compartment: a length of rail or shelf, or an area of drawer floor.
"""

from .demand import Demand, DemandLine, demand
from .kinds import KINDS, Kind, kind_of
from .needs import Need, needs
from .parse import quick_add
from .things import DECISIONS, FREQUENCIES, STAYING, Thing, uses_a_month

__all__ = [
    "DECISIONS",
    "FREQUENCIES",
    "KINDS",
    "STAYING",
    "Demand",
    "DemandLine",
    "Kind",
    "Need",
    "Thing",
    "demand",
    "kind_of",
    "needs",
    "quick_add",
    "uses_a_month",
]
