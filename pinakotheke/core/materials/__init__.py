"""Buy: the priced list of what a design is made of, and how long it takes."""

from .bill import Bill, BillLine, bill, bill_csv
from .hours import Hours, hours

__all__ = ["Bill", "BillLine", "Hours", "bill", "bill_csv", "hours"]
