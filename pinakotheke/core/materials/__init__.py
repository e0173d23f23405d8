"""Buy: what designs are made of, priced and bought in whole packs, sheets and boards; cut plans; money and hours."""

from .bill import Bill, BillLine, bill
from .choice import OMISSIONS, Choice, Cutting, Omission
from .cutlist import CutPart, Stuff, cut_list
from .hours import Hours, hours
from .inserts import DrawerCuts, StripLine, cuts_of_drawers, pieces_of
from .ledger import Account, EntryKind, MoneyEntry, accounts
from .lists import printed_table, size_of, table_of
from .plans import Offcut, StuffPlan, cut_sheets_of
from .purchase import Named, Purchase, PurchaseLine, Variant, leave_out_first, purchase, variants
from .sawing import Sawing, Sawn, SawnPart, offcuts_in_hand, sawn_board, sawn_sheet, spoil, unsawn
from .suppliers import Market, Order, Shopping, StandIn, Supplier, shopping

__all__ = [
    "OMISSIONS",
    "Account",
    "Bill",
    "BillLine",
    "Choice",
    "CutPart",
    "Cutting",
    "DrawerCuts",
    "EntryKind",
    "Hours",
    "Market",
    "MoneyEntry",
    "Named",
    "Offcut",
    "Omission",
    "Order",
    "Purchase",
    "PurchaseLine",
    "Sawing",
    "Sawn",
    "SawnPart",
    "Shopping",
    "StandIn",
    "StripLine",
    "Stuff",
    "StuffPlan",
    "Supplier",
    "Variant",
    "accounts",
    "bill",
    "cut_list",
    "cut_sheets_of",
    "cuts_of_drawers",
    "hours",
    "leave_out_first",
    "offcuts_in_hand",
    "pieces_of",
    "printed_table",
    "purchase",
    "sawn_board",
    "sawn_sheet",
    "shopping",
    "size_of",
    "spoil",
    "table_of",
    "unsawn",
    "variants",
]
