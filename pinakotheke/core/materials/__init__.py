"""Buy: the priced list of what a design is made of, and how long it takes."""

from .bill import Bill, BillLine, bill, bill_csv
from .hours import Hours, hours
from .inserts import DrawerCuts, StripLine, cuts_of_drawers, pieces_of

__all__ = [
    "Bill",
    "BillLine",
    "DrawerCuts",
    "Hours",
    "StripLine",
    "bill",
    "bill_csv",
    "cuts_of_drawers",
    "hours",
    "pieces_of",
]
