"""Buy: what designs are made of, priced and bought in whole packs, sheets and boards; cut plans; money and hours."""

from .bill import Bill, BillLine, bill
from .choice import OMISSIONS, Choice, Cutting, Omission
from .cutlist import CutPart, Stuff, cut_list
from .furniture import taken_apart
from .hours import Hours, hours
from .inserts import DrawerCuts, StripLine, cuts_of_drawers, pieces_of
from .ledger import Account, EntryKind, MoneyEntry, accounts
from .lists import printed_table, size_of, table_of
from .plans import OFFCUT, Offcut, StuffPlan, cut_sheets_of
from .pricelist import PRICE_COLUMNS, PriceColumn, PriceList, WithLists, guess_price_columns, read_prices
from .purchase import Named, Purchase, PurchaseLine, Variant, leave_out_first, purchase, variants
from .sawing import Sawing, Sawn, SawnPart, offcuts_in_hand, sawn_board, sawn_sheet, spoil, unsawn
from .suppliers import Market, Order, Shopping, StandIn, Supplier, shopping

__all__ = [
    "OFFCUT",
    "OMISSIONS",
    "PRICE_COLUMNS",
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
    "PriceColumn",
    "PriceList",
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
    "WithLists",
    "accounts",
    "bill",
    "cut_list",
    "cut_sheets_of",
    "cuts_of_drawers",
    "guess_price_columns",
    "hours",
    "leave_out_first",
    "offcuts_in_hand",
    "pieces_of",
    "printed_table",
    "purchase",
    "read_prices",
    "sawn_board",
    "sawn_sheet",
    "shopping",
    "size_of",
    "spoil",
    "table_of",
    "taken_apart",
    "unsawn",
    "variants",
]
