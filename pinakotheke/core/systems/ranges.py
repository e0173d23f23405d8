"""A household's own ranges: a family that ships, in the sizes, ratings and prices of somebody who sells it.

A range says what is different from the family's table. Its articles are lines of a supplier's list, one article in one
size; where they are of the kind that gives the family its sizes (`made_by` in the table), the range has their sizes and
no others, and each width only at the heights and depths in which it is listed. Heights are without the plinth or the
castors below (`stands_on`). The id of the family it makes follows from its content, so a design that names it means the
same for good, and a changed range is another one.
"""

from collections.abc import Iterable, Mapping
from copy import deepcopy
from functools import cached_property, lru_cache
from hashlib import sha256
from typing import Annotated, Any, Self

from pydantic import Field, StringConstraints, model_validator

from ..base import AtMost, Frozen, Id, Name
from ..errors import Refusal
from .families import shipped
from .family import Family, Money, Rate

SIZES: dict[str, tuple[int, int]] = {
    "widths": (100, 3000), "corner_widths": (300, 3000), "bays": (100, 6000), "depths": (50, 1500), "depth": (50, 1500),
    "heights": (100, 4000), "standards": (200, 4000), "track_lengths": (200, 6000), "drops": (100, 1500),
}  # fmt: skip
"""Sizes of a table that a range may change, and between what they lie, mm."""
PITCH = (5, 200)
MOST_SIZES, MOST_ARTICLES = 24, 3000

SHIPPED: dict[str, Family] = shipped()
"""Every family that ships, by id."""

Length = Annotated[int, Field(gt=0, le=10_000)]
Kilograms = Annotated[float, Field(gt=0, le=2000)]
Code = Annotated[str, StringConstraints(max_length=40)]


class Article(Frozen):
    """A line of a supplier's list: an article of the family in one size (mm; a size it is cut to is left out)."""

    kind: Code
    price: Money
    width: Length | None = None
    depth: Length | None = None
    height: Length | None = None
    rating: Kilograms | None = None
    code: Code = ""
    """The supplier's own number."""


class Range(Frozen):
    """What a household's range has otherwise than the family that ships."""

    id: Id
    family: Annotated[str, StringConstraints(max_length=40)]
    name: Name
    about: Annotated[str, StringConstraints(strip_whitespace=True, max_length=300)] = ""
    pitch: Annotated[int, Field(ge=PITCH[0], le=PITCH[1])] | None = None
    sizes: dict[str, tuple[Length, ...]] = {}
    ratings: dict[str, Kilograms] = {}
    """By compartment; by compartment and metre where the family rates it so."""
    rates: dict[str, Rate] = {}
    articles: Annotated[tuple[Article, ...], AtMost(MOST_ARTICLES)] = ()

    @model_validator(mode="after")
    def _is_of_its_family(self) -> Self:
        if self.family not in SHIPPED:
            raise Refusal("range.no-family", family=self.family, known=SHIPPED)
        shipped_table = SHIPPED[self.family].source
        for name, sizes in self.sizes.items():
            if name not in SIZES or name not in shipped_table:
                raise Refusal("range.no-size", family=self.family, size=name, known=sizes_of(shipped_table))
            _in_range(name.replace("_", " "), sizes, SIZES[name])
        for article in {a.kind for a in self.articles} | set(self.rates):
            if article not in articles_of(shipped_table):
                raise Refusal("range.no-article", article=article, family=self.family, known=articles_of(shipped_table))
        for role in self.ratings:
            if role not in shipped_table["compartment"]:
                raise Refusal("range.no-compartment", role=role, family=self.family)
        table = table_of(self)
        for name, sizes in sizes_of(table).items():
            _in_range(name.replace("_", " "), sizes, SIZES[name])
        return self

    def __hash__(self) -> int:
        return hash(self.family_id)

    def model_copy(self, *, update: Mapping[str, Any] | None = None, deep: bool = False) -> Self:
        """A copy; its id follows from its own content."""
        copied = super().model_copy(update=update, deep=deep)
        copied.__dict__.pop("family_id", None)
        return copied

    @cached_property
    def family_id(self) -> str:
        """The id of the family it makes: the shipped one's and a digest of all that is said here."""
        return f"{self.family}-{sha256(self.model_dump_json().encode()).hexdigest()[:16]}"


def _in_range(what: str, sizes: Iterable[int], limits: tuple[int, int]) -> None:
    found = sorted(sizes)
    if not found:
        raise Refusal("range.without-sizes", what=what)
    if len(found) > MOST_SIZES:
        raise Refusal("range.too-many-sizes", what=what, number=len(found), most=MOST_SIZES)
    for size in found:
        if not limits[0] <= size <= limits[1]:
            raise Refusal("range.out-of-range", what=what, size=size, least=limits[0], most=limits[1])


def sizes_of(table: dict[str, Any]) -> dict[str, tuple[int, ...]]:
    """The sizes of a table that a range may change."""
    return {
        name: tuple(table[name]) if isinstance(table[name], list) else (int(table[name]),)
        for name in SIZES if table.get(name)
    }  # fmt: skip


def articles_of(table: dict[str, Any]) -> tuple[str, ...]:
    """The articles that a range may price: those with a rate, and those that are listed size by size."""
    return tuple(dict.fromkeys((*table["price"], *table.get("listed", {}))))


def table_of(own: Range) -> dict[str, Any]:
    """The family's table with what the range has otherwise."""
    table = deepcopy(SHIPPED[own.family].source)
    table["name"] = own.name
    table["about"] = own.about or table["about"]
    if own.pitch:
        table["pitch"] = own.pitch
    for name, sizes in own.sizes.items():
        table[name] = sorted(set(sizes)) if isinstance(table[name], list) else sizes[0]
    for role, rating in own.ratings.items():
        row = table["compartment"][role]
        row["rating_per_m" if "rating_per_m" in row else "rating"] = rating
    for kind, rate in own.rates.items():
        given = rate.model_dump(exclude_defaults=True)
        # What is sold by the piece (screws, clips) keeps its pack where none is said.
        pack = {k: v for k, v in table["price"][kind].items() if k == "pack"}
        table["price"][kind] = {**pack, **given} or {"fixed": 0}
    _list_articles(table, own.articles)
    return table


def _list_articles(table: dict[str, Any], articles: tuple[Article, ...]) -> None:
    by_kind: dict[str, list[Article]] = {}
    for article in articles:
        by_kind.setdefault(article.kind, []).append(article)
    for kind, rows in by_kind.items():
        _give_sizes(table, kind, rows)
        role = table["compartment"].get(kind.replace("-", " "))
        rated = [a.rating for a in rows if a.rating is not None]
        if role is not None and rated:
            role.pop("rating_per_m", None)
            role["rating"] = min(rated)
        fronts = sorted({a.height for a in rows if a.height})
        if role is not None and role.get("fronts") and fronts:
            role["fronts"] = fronts
    table["listed"] = table.get("listed", {}) | {
        kind: sorted((a.width or 0, a.depth or 0, a.height or 0, a.price) for a in rows)
        for kind, rows in by_kind.items() if kind not in table.get("sold_by", {})
    }  # fmt: skip


def _give_sizes(table: dict[str, Any], kind: str, rows: list[Article]) -> None:
    """What the articles of a kind say of the sizes of the range, and the prices of what is sold in lengths."""
    for side, name in table.get("made_by", {}).get(kind, {}).items():
        under = table[table["stands_on"][kind]] if side == "height" and kind in table.get("stands_on", {}) else 0
        sizes = sorted({getattr(a, side) + under for a in rows if getattr(a, side)})
        if sizes:
            table[name] = sizes
            if name == "widths" and "corner_widths" in table:
                table["corner_widths"] = []
    if kind in table.get("sold_by", {}):
        side = table["sold_by"][kind]
        table["price"][kind] = {str(getattr(a, side)): a.price for a in rows if getattr(a, side)}


@lru_cache(maxsize=256)
def family_of_range(own: Range) -> Family:
    """The family a range makes. Remembered by content: the same range makes the same family."""
    return type(SHIPPED[own.family])(table_of(own), own.family_id)


def reckoned(own: Range) -> tuple[str, ...]:
    """Articles the range names no price for: those are reckoned as in the family that ships."""
    given = {a.kind for a in own.articles} | set(own.rates)
    return tuple(kind for kind in SHIPPED[own.family].table.price if kind not in given)
