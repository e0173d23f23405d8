"""A supplier's own list from a spreadsheet: articles by name and size with their prices, packs and stock, of one day."""

from collections.abc import Mapping, Sequence
from decimal import Decimal
from difflib import SequenceMatcher
from typing import Annotated, Literal, get_args

from pydantic import Field

from ..base import AtMost, Frozen, Id, Name
from ..errors import CallOutError
from ..inventory.columns import RowFault, guess_by_name, unguarded
from ..systems.supplier import each_row, money, side_of
from ..units import Units
from .purchase import PurchaseLine
from .suppliers import Market, Quote, Supplier

PriceColumn = Literal["article", "width", "depth", "height", "price", "pack", "stock"]
PRICE_COLUMNS: tuple[PriceColumn, ...] = get_args(PriceColumn)
_NAMES: dict[PriceColumn, tuple[str, ...]] = {
    "article": ("article", "item", "what", "name", "product", "description"),
    "width": ("width", "w", "wide", "length", "l"),
    "depth": ("depth", "d", "deep"),
    "height": ("height", "h", "high", "thickness"),
    "price": ("price", "each", "cost", "unit price", "price each", "net price"),
    "pack": ("pack", "in a pack", "pieces", "per pack", "pack size"),
    "stock": ("stock", "in stock", "available", "there"),
}
Cents = Annotated[int, Field(ge=1, le=100_000_000)]
Side = Annotated[int, Field(ge=0, le=100_000)]
PLENTY = 10_000
"""Packs there are where a list does not say."""
ALIKE = 0.85
"""How alike two names are that mean one article."""
NEAR = 2
"""Millimetres by which sizes of one article may differ, for lists round."""


class PriceRow(Frozen):
    """An article: cents a pack, pieces in one, packs there are; a side of 0 is not said, mm."""

    name: Name
    width: Side = 0
    depth: Side = 0
    height: Side = 0
    cents: Cents
    pack: Annotated[int, Field(ge=1, le=10_000)] = 1
    there: Annotated[int, Field(ge=0, le=PLENTY)] = PLENTY

    def means(self, line: PurchaseLine) -> bool:
        """Whether it is what a line of the list asks for: alike by name, and of the sizes that are said."""
        sides = ((self.width, line.width), (self.depth, line.depth), (self.height, line.height))
        if any(own and abs(own - asked) > NEAR for own, asked in sides):
            return False
        a, b = self.name.lower(), line.name.lower()
        return a == b or SequenceMatcher(None, a, b).ratio() >= ALIKE


class PriceList(Frozen):
    """A supplier's list of one day, and what it takes to bring things."""

    id: Id
    name: Name
    on: Annotated[str, Field(pattern=r"^\d{4}-\d\d-\d\d$")]
    delivery: Annotated[Decimal, Field(ge=0, le=100_000, decimal_places=2)] = Decimal(0)
    days: Annotated[int, Field(ge=0, le=365)] = 0
    rows: Annotated[tuple[PriceRow, ...], AtMost(5000)] = ()


class ReadPrices(Frozen):
    """Rows that a list gave, and those that it could not."""

    rows: tuple[PriceRow, ...]
    faults: tuple[RowFault, ...]


def guess_price_columns(header: Sequence[str]) -> dict[int, PriceColumn]:
    """Which column is what, by its name."""
    return guess_by_name(header, _NAMES)


def read_prices(rows: Sequence[Sequence[str]], columns: Mapping[int, PriceColumn], units: Units) -> ReadPrices:
    """Articles from rows of text."""

    def one(fields: Mapping[PriceColumn, str]) -> PriceRow:
        sides = {side: side_of(fields.get(side, ""), units) or 0 for side in ("width", "depth", "height")}
        return PriceRow.model_validate({
            "name": unguarded(fields.get("article", "")), **sides,
            "cents": round(money(fields.get("price", "")) * 100),
            "pack": _whole(fields.get("pack", "")) or 1,
            "there": PLENTY if not fields.get("stock") else min(PLENTY, _whole(fields["stock"])),
        })  # fmt: skip

    found, faults = each_row(rows, columns, one, units)
    return ReadPrices(rows=tuple(found), faults=tuple(faults))


def _whole(text: str) -> int:
    if text and not text.isdigit():
        raise CallOutError("list.no-number", text, said=text)
    return int(text or 0)


class WithLists:
    """A market, and the lists a household brought."""

    def __init__(self, market: Market, lists: Sequence[PriceList]) -> None:
        self.market, self.lists = market, {OWN + one.id: one for one in lists}

    def suppliers(self) -> tuple[Supplier, ...]:
        """See `Market`."""
        own = (
            Supplier(id=key, name=one.name, delivery=one.delivery, free_from=Decimal(10**9), days=one.days)
            for key, one in self.lists.items()
        )
        return (*self.market.suppliers(), *own)

    def quote(self, supplier: str, line: PurchaseLine) -> Quote | None:
        """See `Market`; of several rows that mean the line, the cheapest by the piece."""
        if supplier not in self.lists:
            return self.market.quote(supplier, line)
        found = [row for row in self.lists[supplier].rows if row.means(line)]
        best = min(found, key=lambda row: row.cents / row.pack, default=None)
        return None if best is None else Quote(best.cents, best.pack, best.there)


OWN = "own:"
"""What the id of a supplier begins with whose list the household brought."""
