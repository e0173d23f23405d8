"""Keep: where everything was put, what its label says, and how it is found again.

Glossary. *Place*: a shelf, a rail, a drawer or a box that things are put back into. *Stay*: so many of a thing in a place.
*Label*: what stands on a place. *Sheet*: labels as they are sold, in a grid. *Supply*: a thing that is used up and bought
again. *Movement*: what was bought, opened or taken of it. *Swap*: things that take turns by the season.
"""

from .before_after import Before, Hunt
from .find import Answer, Entry, Index
from .labels import Label, LabelSheet, label_of, sheets
from .places import Place, Planned, Stay, differences, filling_order, planned
from .restock import Movement, Supply
from .review import Leaving, Review
from .seasons import Swap

__all__ = [
    "Answer",
    "Before",
    "Entry",
    "Hunt",
    "Index",
    "Label",
    "LabelSheet",
    "Leaving",
    "Movement",
    "Place",
    "Planned",
    "Review",
    "Stay",
    "Supply",
    "Swap",
    "differences",
    "filling_order",
    "label_of",
    "planned",
    "sheets",
]
