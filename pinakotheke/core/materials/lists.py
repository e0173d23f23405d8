"""The purchase as a table of texts: what CSV, XLSX and PDF are written from, so that they cannot disagree."""

from collections.abc import Callable
from decimal import Decimal

from ..inventory.columns import guarded
from ..saying import counted
from ..units import Units, format_length
from .purchase import Purchase, PurchaseLine

Money = Callable[[Decimal], str]


def size_of(line: PurchaseLine, units: Units) -> str:
    """An article's size in the household's units."""
    return " × ".join(format_length(mm, units) for mm in (line.width, line.depth, line.height) if mm)


def table_of(bought: Purchase, units: Units, currency: str) -> list[list[str]]:
    """A header, every line, the total: for spreadsheets, money as plain decimals."""
    unit = "mm" if units == "metric" else "in"
    head = ["item", "name", f"width {unit}", f"depth {unit}", f"height {unit}", "needed", "bought", "spare", "unit",
            f"price {currency}", f"total {currency}", "for"]  # fmt: skip
    rows = [
        [line.item, guarded(line.name), *_sides(line, units), str(line.needed), str(line.bought), str(line.spare),
         line.unit, str(line.each), str(line.total), guarded(", ".join(space for space, _ in line.by_space))]
        for line in bought.lines
    ]  # fmt: skip
    return [head, *rows, ["", "Total", *[""] * 8, str(bought.total), ""]]


def _sides(line: PurchaseLine, units: Units) -> list[str]:
    return [format_length(mm, units, mark=False) if mm else "" for mm in (line.width, line.depth, line.height)]


def printed_table(bought: Purchase, units: Units, currency: str, figures: Money) -> list[list[str]]:
    """The same for paper: fewer columns, money as it is written where the currency is at home."""
    head = ["Article", "Size", "Needed", "Buy", "Each", f"Total {currency}"]
    rows = [
        [line.name, size_of(line, units), str(line.needed), _pieces(line), figures(line.each), figures(line.total)]
        for line in bought.lines
    ]  # fmt: skip
    return [head, *rows, ["Total", "", "", "", "", figures(bought.total)]]


def _pieces(line: PurchaseLine) -> str:
    return f"{line.bought} {counted(line.bought, line.unit, line.unit + 's')}"
