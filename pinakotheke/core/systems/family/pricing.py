"""What a family costs: each part by its size, and what is bought beside the parts."""

from collections.abc import Callable, Iterator
from decimal import Decimal
from typing import NamedTuple

from ...mechanics.shelves import ShelfMake
from ...tables import value
from ..parts import Part
from ..roles import Role
from .basis import Basis

CENT = Decimal("0.01")


class Extra(NamedTuple):
    """Something bought beside the parts: how many are needed, how many are in a pack, what a pack costs."""

    article: str
    name: str
    needed: int
    pack: int
    each: Decimal
    unit: str


def _floor(part: Part) -> float:
    return float(part.w * part.d)


def _face(part: Part) -> float:
    """Its greatest face: of a board, whichever way it stands."""
    _, middle, longest = sorted((part.w, part.d, part.h))
    return float(middle * longest)


AREAS: dict[Role, Callable[[Part], float]] = {
    "frame": lambda p: 2 * p.h * p.d + 2 * p.w * p.d + p.w * p.h,
    "trolley": lambda p: 2 * p.h * p.d + 2 * p.w * p.d,
    "door": _face,
    "panel": _face,
    "curtain": _face,
    "divider": _face,
    "drawer": lambda p: p.w * (p.h + p.d),
    "basket": lambda p: p.w * (p.h + p.d),
    "hamper": lambda p: p.w * (p.h + p.d),
}
"""Area by which a part is priced, mm², where it is not its floor."""


class Pricing(Basis):
    """Prices, to the cent, in the household's currency."""

    by_length: frozenset[Role] = frozenset()
    """Roles of parts that are bought as lengths, which `extras` lists."""

    def price(self, part: Part) -> Decimal:
        """Price of one placed part; zero for what comes with another."""
        if part.article not in self.table.price:
            return Decimal(0)
        listed = self._listed_price(part)
        if listed is not None:
            return listed
        area = AREAS.get(part.role, _floor)(part)
        plain = self.priced(part.article, area_mm2=area, length_mm=max(part.w, part.d, part.h))
        return plain if part.make is None else plain + self._made(part.make, part.article, area, part)

    def _made(self, make: ShelfMake, article: str, area: float, part: Part) -> Decimal:
        """What another board, and a lipping, costs more than the usual one."""
        board = self.table.rate(article).per_m2 * area / 1e6 * (make.price(part.h) - 1)
        lip = value("board.lip_price") * part.w / 1000 if make.lipped else 0.0
        return Decimal(str(board + lip)).quantize(CENT)

    def _listed_price(self, part: Part) -> Decimal | None:
        """The price of the smallest listed article that is at least so wide, deep and high (a size that is not listed
        is cut to measure); None when the list has none.
        """
        best: tuple[int, float] | None = None
        for w, d, h, price in self.table.listed.get(part.article, ()):
            if all(not size or size >= asked for size, asked in ((w, part.w), (d, part.d), (h, part.h))):
                rank = (max(w, 1) * max(d, 1) * max(h, 1), price)
                best = rank if best is None else min(best, rank)
        return None if best is None else Decimal(str(best[1])).quantize(CENT)

    def priced(self, article: str, *, area_mm2: float = 0, length_mm: float = 0) -> Decimal:
        """Fixed price plus price per m² or per m from the table, to the cent."""
        row = self.table.rate(article)
        total = row.fixed + row.per_m2 * area_mm2 / 1e6 + row.per_m * length_mm / 1e3
        return Decimal(str(total)).quantize(CENT)

    def extras(self, parts: tuple[Part, ...]) -> Iterator[Extra]:
        """What is bought beside the parts."""
        return iter(())

    def _packed(self, article: str, name: str, needed: int, unit: str) -> Iterator[Extra]:
        """Something sold in whole packs, when any is needed."""
        pack = self.table.rate(article).pack or 1
        if needed:
            said = f"{name}, pack of {pack}" if pack > 1 else name
            yield Extra(article, said, needed, pack, self.priced(article), unit)
