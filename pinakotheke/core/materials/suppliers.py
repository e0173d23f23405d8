"""Where to buy: the cheapest way to get a whole list from one supplier or several, with what one-stop shopping costs more.

Suppliers are reached through `Market`; the one that ships is a stand-in that knows invented shops: prices change from day
to day, articles run out, packs differ, delivery has a price and takes days.
"""

from collections.abc import Sequence
from datetime import date
from decimal import Decimal
from hashlib import blake2b
from typing import NamedTuple, Protocol

from ..base import Frozen
from ..tables import load
from .purchase import PurchaseLine


class Supplier(Frozen):
    """A shop: what delivery costs, from what sum on it is free, how many days it takes."""

    id: str
    name: str
    delivery: Decimal
    free_from: Decimal
    days: int


class Quote(NamedTuple):
    """What a supplier asks for an article on a day: cents a pack, pieces in it, and how many packs there are."""

    cents: int
    pack: int
    there: int


class Market(Protocol):
    """Suppliers and their prices."""

    def suppliers(self) -> tuple[Supplier, ...]:
        """All of them."""
        ...

    def quote(self, supplier: str, line: PurchaseLine) -> Quote | None:
        """A supplier's price for an article; None where it does not have it."""
        ...


class StandIn:
    """The simulated market of one day."""

    def __init__(self, day: date) -> None:
        self.day = day
        self._rows = {row["id"]: row for row in load("suppliers")["supplier"]}

    def suppliers(self) -> tuple[Supplier, ...]:
        """See `Market`."""
        return tuple(
            Supplier.model_validate({k: str(v) if isinstance(v, float) else v for k, v in row.items()
                                     if k in Supplier.model_fields})
            for row in self._rows.values()
        )  # fmt: skip

    def quote(self, supplier: str, line: PurchaseLine) -> Quote | None:
        """See `Market`."""
        row = self._rows[supplier]
        if not any(line.item.startswith(what) for what in row["sells"]):
            return None
        pack = max(1, round(line.bought / _packs(line)))
        times = row["packs"] if pack > 1 else 1
        stray = 1 + row["scatter"] * (2 * self._chance(supplier, line, "price") - 1)
        cents = round(float(line.each) * row["factor"] * stray * (times * 100 if times == 1 else times * 96))
        out = self._chance(supplier, line, "out") < row["out"]
        few = 2 + int(60 * self._chance(supplier, line, "there"))
        return Quote(max(1, cents), pack * times, 0 if out else max(few, line.needed) if few > 4 else few)

    def _chance(self, supplier: str, line: PurchaseLine, what: str) -> float:
        """A number from 0 to 1, the same whenever it is asked for on the day."""
        of = f"{self.day.isoformat()}|{supplier}|{what}|{line.item}|{line.width}|{line.depth}|{line.height}"
        return int.from_bytes(blake2b(of.encode(), digest_size=6).digest()) / 2**48


def _packs(line: PurchaseLine) -> int:
    return max(1, round(line.total / line.each)) if line.each else 1


class Ordered(NamedTuple):
    """So many packs of a line from one supplier."""

    supplier: str
    line: int
    packs: int
    pieces: int
    cents: int


class Order(Frozen):
    """A way to buy the list: what comes from whom; goods, delivery and sum in cents; `lacking` lines nobody has enough
    of, by their number.
    """

    ordered: tuple[Ordered, ...]
    goods: int
    delivery: int
    lacking: tuple[int, ...]
    days: int

    @property
    def cents(self) -> int:
        """All of it."""
        return self.goods + self.delivery


class Shopping(Frozen):
    """The cheapest way, and each supplier alone."""

    day: date
    best: Order
    alone: tuple[tuple[str, Order], ...]


def shopping(lines: Sequence[PurchaseLine], market: Market, day: date) -> Shopping:
    """The cheapest way to buy every line that somebody has enough of, and what each supplier alone would cost."""
    everyone = market.suppliers()
    alone = [(s.id, _order(lines, market, [s])) for s in everyone]
    return Shopping(day=day, best=_order(lines, market, everyone), alone=tuple(alone))


def _order(lines: Sequence[PurchaseLine], market: Market, suppliers: Sequence[Supplier]) -> Order:
    """A facility location program: packs of every line from every supplier, and whose delivery is paid."""
    from ortools.sat.python import cp_model

    model = cp_model.CpModel()
    quotes = {
        (n, s.id): quote for n, line in enumerate(lines) for s in suppliers
        if line.each and (quote := market.quote(s.id, line)) is not None and quote.there
    }  # fmt: skip
    x, lacking = {}, []
    for n, line in enumerate(lines):
        if not line.each:
            continue  # the household has it
        own = {who: q for (m, who), q in quotes.items() if m == n}
        if sum(q.pack * q.there for q in own.values()) < line.needed:
            lacking.append(n)
            continue
        for who, quote in own.items():
            x[n, who] = model.new_int_var(0, min(quote.there, -(-line.needed // quote.pack)), "")
        model.add(sum(quotes[n, who].pack * x[n, who] for who in own) >= line.needed)
    fees = []
    goods = {s.id: sum(quotes[k].cents * v for k, v in x.items() if k[1] == s.id) for s in suppliers}
    for s in suppliers:
        mine = [(k, v) for k, v in x.items() if k[1] == s.id]
        if not mine:
            continue
        pays, free = model.new_bool_var(""), model.new_bool_var("")
        for _, v in mine:
            model.add(v == 0).only_enforce_if(~pays, ~free)
        model.add(goods[s.id] >= round(s.free_from * 100)).only_enforce_if(free)
        model.add_implication(free, ~pays)
        fees.append(round(s.delivery * 100) * pays)
    model.minimize(sum(goods.values()) + sum(fees))
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.max_deterministic_time = 2.0
    solver.solve(model)
    ordered = tuple(
        Ordered(who, n, count, count * quotes[n, who].pack, count * quotes[n, who].cents)
        for (n, who), v in x.items() if (count := solver.value(v))
    )  # fmt: skip
    used = {o.supplier for o in ordered}
    paid = {s.id: sum(o.cents for o in ordered if o.supplier == s.id) for s in suppliers}
    delivery = sum(round(s.delivery * 100) for s in suppliers if s.id in used and paid[s.id] < round(s.free_from * 100))
    return Order(ordered=ordered, goods=sum(paid.values()), delivery=delivery, lacking=tuple(lacking),
                 days=max((s.days for s in suppliers if s.id in used), default=0))  # fmt: skip
