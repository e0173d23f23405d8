"""A supplier's list from a spreadsheet: articles of a range, or containers; each row read or refused with its mend."""

import re
from collections.abc import Callable, Mapping, Sequence
from difflib import get_close_matches
from typing import Literal, TypeVar, get_args

from ..base import Frozen
from ..errors import CallOutError
from ..inventory.columns import RowFault, guarded, guess_by_name, row_fault, unguarded
from ..inventory.containers import Container
from ..inventory.owned import Lid
from ..lengths import parse_length
from ..masses import parse_mass
from ..tables import value
from ..units import KG_PER_POUND, Units, format_length
from .ranges import SHIPPED, Article, articles_of

ListColumn = Literal["article", "width", "depth", "height", "price", "rating", "code", "lid", "wall", "material"]
LIST_COLUMNS: tuple[ListColumn, ...] = get_args(ListColumn)
_NAMES: dict[ListColumn, tuple[str, ...]] = {
    "article": ("article", "item", "what", "name", "product", "description", "container"),
    "width": ("width", "w", "wide", "length", "l"),
    "depth": ("depth", "d", "deep"),
    "height": ("height", "h", "high", "tall"),
    "price": ("price", "each", "cost", "unit price", "price each", "net price"),
    "rating": ("rating", "carries", "load", "capacity", "max load", "kg"),
    "code": ("code", "number", "article number", "sku", "order number"),
    "lid": ("lid", "cover", "closure"),
    "wall": ("wall", "wall thickness"),
    "material": ("material", "made of"),
}
LIDS: tuple[Lid, ...] = get_args(Lid)
Row = TypeVar("Row")
Meaning = TypeVar("Meaning", bound=str)
_MONEY = re.compile(r"\d[\d., ]*")


class ReadArticles(Frozen):
    """Articles of a range that a list gave, and the rows that it could not."""

    articles: tuple[Article, ...]
    faults: tuple[RowFault, ...]


class ReadContainers(Frozen):
    """Containers that a list gave, and the rows that it could not."""

    containers: tuple[Container, ...]
    faults: tuple[RowFault, ...]


def guess_list_columns(header: Sequence[str]) -> dict[int, ListColumn]:
    """Which column is what, by its name; each meaning at most once."""
    return guess_by_name(header, _NAMES)


def read_articles(rows: Sequence[Sequence[str]], columns: Mapping[int, ListColumn], family: str, units: Units,
                  ) -> ReadArticles:  # fmt: skip
    """Articles of a family from rows of text; `KeyError` for a family that does not ship."""
    words = article_words(family)

    def one(fields: Mapping[ListColumn, str]) -> Article:
        return Article(
            kind=_kind(fields.get("article", ""), words), price=money(fields.get("price", "")),
            width=side_of(fields.get("width", ""), units), depth=side_of(fields.get("depth", ""), units),
            height=side_of(fields.get("height", ""), units), code=unguarded(fields.get("code", ""))[:40],
            rating=round(parse_mass(fields["rating"], units), 3) if fields.get("rating") else None,
        )  # fmt: skip

    found, faults = each_row(rows, columns, one, units)
    return ReadArticles(articles=tuple(found), faults=tuple(faults))


def read_containers(rows: Sequence[Sequence[str]], columns: Mapping[int, ListColumn], units: Units,
                    taken: frozenset[str]) -> ReadContainers:  # fmt: skip
    """Containers from rows of text, under ids that are not `taken`."""
    used = set(taken)

    def one(fields: Mapping[ListColumn, str]) -> Container:
        sides = {side: side_of(fields.get(side, ""), units) for side in ("width", "depth", "height")}
        lacking = [side for side, mm in sides.items() if mm is None]
        if lacking:
            raise CallOutError("list.no-side", sides=lacking)
        lid = fields.get("lid", "").lower() or "none"
        if lid not in LIDS:
            lid = "lift" if lid in ("yes", "with lid", "1", "true") else "none" if lid in ("no", "0", "false") else lid
        if lid not in LIDS:
            raise CallOutError("list.no-lid", lid, lids=LIDS)
        wall = parse_length(fields["wall"], units).mm if fields.get("wall") else value("inventory.container_wall")
        name = unguarded(fields.get("article", ""))
        new = next(f"c{n}" for n in range(1, len(used) + 2) if f"c{n}" not in used)
        box = Container.model_validate({"id": new, "name": name, **sides, "wall": wall, "lid": lid,
                                        "material": unguarded(fields.get("material", ""))[:40],
                                        "price": money(fields.get("price", ""))})  # fmt: skip
        used.add(new)
        return box

    found, faults = each_row(rows, columns, one, units)
    return ReadContainers(containers=tuple(found), faults=tuple(faults))


def each_row(rows: Sequence[Sequence[str]], columns: Mapping[int, Meaning],
             one: Callable[[Mapping[Meaning, str]], Row], units: Units) -> tuple[list[Row], list[RowFault]]:  # fmt: skip
    """Every row that can be read, and the faults of the others; empty rows are passed over."""
    found: list[Row] = []
    faults: list[RowFault] = []
    for number, cells in enumerate(rows, 2):
        fields = {column: cells[n].strip() for n, column in columns.items() if n < len(cells)}
        if not any(fields.values()):
            continue
        try:
            found.append(one(fields))
        except ValueError as error:
            faults.append(row_fault(number, error, units))
    return found, faults


def article_words(family: str) -> dict[str, str]:
    """What an article of a family may be called, and its name in the table."""
    made = SHIPPED[family]
    return {
        word.lower(): kind
        for kind in articles_of(made.source)
        for word in (kind, kind.replace("-", " "), made.called(kind))
    }


def _kind(text: str, words: Mapping[str, str]) -> str:
    said = unguarded(text).strip().lower()
    if not said:
        raise CallOutError("list.no-article")
    one = said if said in words else said.replace("shelves", "shelf").removesuffix("s")
    close = [one] if one in words else get_close_matches(one, words, n=1, cutoff=0.8)
    if not close:
        raise CallOutError("list.unknown-article", said, said=said, known=dict.fromkeys(words.values()))
    return words[close[0]]


def money(text: str) -> float:
    """An amount of money as lists have it: `12.50`, `12,50`, `1.234,50 EUR`, `€ 1,234.50`.

    >>> money("12,50"), money("€ 1,234.50"), money("1.234,50"), money("1,250")
    (12.5, 1234.5, 1234.5, 1250.0)
    """
    found = _MONEY.findall(text)
    if len(found) != 1 or "-" in text:
        raise CallOutError("list.no-price", text, said=text)
    number = found[0].strip(" .,").replace(" ", "")
    last = max(number.rfind("."), number.rfind(","))
    decimals = len(number) - last - 1
    both = "." in number and "," in number
    if last >= 0 and (both or decimals != 3) and number.count(number[last]) == 1:
        return float(re.sub(r"[.,]", "", number[:last]) + "." + number[last + 1 :])
    return float(re.sub(r"[.,]", "", number))


def side_of(text: str, units: Units) -> int | None:
    """A side as a list has it, mm; None for none."""
    return round(parse_length(text, units).mm) if text and text not in ("-", "–") else None


def _rating(kg: float | None, units: Units) -> str:
    if not kg:
        return ""
    return f"{kg:g}" if units == "metric" else f"{kg / KG_PER_POUND:.6g} lb"


def write_articles(articles: Sequence[Article], units: Units) -> list[list[str]]:
    """A header and one row an article, as `read_articles` takes them."""
    table: list[list[str]] = [["article", "width", "depth", "height", "price", "rating", "code"]]
    for a in articles:
        sides = [format_length(mm, units) if mm else "" for mm in (a.width, a.depth, a.height)]
        table.append([a.kind, *sides, f"{a.price:.2f}", _rating(a.rating, units), guarded(a.code)])
    return table
