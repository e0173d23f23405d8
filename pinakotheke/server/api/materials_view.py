"""The purchase in words: the list, its variants, cut plans with their diagrams, where to buy, and the money."""

from decimal import Decimal
from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field

from pinakotheke.core.drawing import Drawing
from pinakotheke.core.materials import (
    OFFCUT,
    Account,
    CutPart,
    EntryKind,
    PurchaseLine,
    Sawn,
    StuffPlan,
    accounts,
    leave_out_first,
    size_of,
    variants,
)
from pinakotheke.core.mechanics.materials import Grade
from pinakotheke.core.saying import counted
from pinakotheke.core.units import format_length
from pinakotheke.core.words import figures, more_or_less
from pinakotheke.core.words.buying import (
    budget_in_words,
    leave_out_in_words,
    order_in_words,
    plan_in_words,
    rests_in_words,
)

from .. import rows
from .buying import Buying, designs_to_buy
from .lists import FaultView


class BoughtSpaceView(Schema):
    """A space that has a design, and whether it is on the list."""

    space: int
    key: str
    name: str
    design: int
    title: str
    chosen: bool
    share: str
    """What it takes of the list."""


class PurchaseLineView(Schema):
    """A line of the list in the household's units; `parts` are those of the design that is shown."""

    item: str
    name: str
    size: str
    needed: int
    bought: int
    spare: int
    unit: str
    each: str
    total: str
    spaces: list[str]
    parts: list[str]


class VariantView(Schema):
    """Another way to buy the same: what changes."""

    key: str
    name: str
    look: str
    money: str
    hours: str
    chosen: bool
    cutting: Literal["measure", "stock", "make"]
    without: list[str]
    grade: Grade | None


class CutPartView(Schema):
    """A line of the cut list."""

    id: str
    label: str
    name: str
    space: str
    finished: str
    cut: str
    bands: int
    turns: bool
    shaped: bool


class DiagramView(Schema):
    """A sheet, or all boards of one stuff, as they are sawn; `sheets` are the sheets or boards on it, by their labels."""

    drawing: Drawing
    labels: list[list[str]]
    stock: list[str]


class PlanView(Schema):
    """How one stuff is cut."""

    name: str
    kind: Literal["sheet", "board"]
    bought: str
    says: str
    rests: str
    parts: list[CutPartView]
    diagrams: list[DiagramView]


class SawnPartView(Schema):
    """A part that came off the saw."""

    id: str
    label: str
    size: str
    spoiled: bool


class SawnView(Schema):
    """A sheet or board that is sawn."""

    key: str
    name: str
    size: str
    parts: list[SawnPartView]


class OrderLineView(Schema):
    """So much from one supplier."""

    name: str
    size: str
    pieces: str
    total: str


class BasketView(Schema):
    """What one supplier brings."""

    name: str
    lines: list[OrderLineView]
    total: str
    days: int


class AloneView(Schema):
    """Everything from one supplier."""

    name: str
    says: str
    lacks: int
    more: str


class PriceListView(Schema):
    """A supplier's list that was brought."""

    key: str
    name: str
    on: str
    rows: int


class PricesTaken(Schema):
    """What a supplier's list gave, and what it did not."""

    added: int
    faults: Annotated[list[FaultView], Field(max_length=5000)]


class ShoppingView(Schema):
    """Where to buy, by the prices of a day."""

    day: str
    says: str
    baskets: list[BasketView]
    lacking: list[str]
    alone: list[AloneView]
    lists: list[PriceListView]


class LeaveOutView(Schema):
    """What to leave out first when the list is over the budget."""

    says: str
    keys: list[str]


class PurchaseView(Schema):
    """See the module."""

    spaces: list[BoughtSpaceView]
    lines: list[PurchaseLineView]
    total: str
    currency: str
    hours: float
    budget: str
    over: bool
    leave_out: LeaveOutView | None
    uncut: list[str]
    plans: list[PlanView]
    sawn: list[SawnView]
    kerf: str
    longest: str


class VariantsView(Schema):
    """Other ways to buy what is on the list."""

    variants: list[VariantView]


class AccountView(Schema):
    """One space's money; the last is everybody's."""

    space: str
    name: str
    estimate: str
    ordered: str
    received: str
    returned: str
    trips: int
    spent: str
    due: str


class EntryView(Schema):
    """A line of the ledger of money."""

    key: str
    space: str
    kind: EntryKind
    amount: str
    what: str
    on: str


class MoneyView(Schema):
    """The ledger of money."""

    accounts: list[AccountView]
    entries: list[EntryView]
    currency: str


def _number(pieces: int, unit: str) -> str:
    return f"{pieces} {counted(pieces, unit, unit + 's')}"


class BuyingInWords(Buying):
    """A purchase as the page says it."""

    def view(self, shown: int | None) -> PurchaseView:
        """All of it; `shown` is the design whose parts can be pointed at."""
        budget = rows.rules_of(self.household).budget
        total = self.bought.total
        over = budget is not None and total > budget
        design = next((d.id for row, (_, d) in zip(self.designs, self.named, strict=True) if row.pk == shown), "")
        space = next((self.name_of(row) for row in self.designs if row.pk == shown), "")
        return PurchaseView(
            spaces=self._spaces(), lines=[self._line(line, design, space) for line in self.bought.lines],
            total=figures(total, self.currency), currency=self.currency, hours=round(self.bought.hours, 1),
            budget=budget_in_words(total, budget, self.currency), over=over,
            leave_out=self._leave_out(budget) if over and budget is not None else None,
            uncut=[f"{p.name}, {p.space}: {self._size(p.length, p.width)}" for p in self.bought.uncut],
            plans=[self._plan(n, plan) for n, plan in enumerate(self.bought.plans)],
            sawn=[self._sawn(one) for one in self.sawing],
            kerf=format_length(self.choice.kerf, self.units),
            longest=format_length(self.choice.longest, self.units) if self.choice.longest else "",
        )  # fmt: skip

    def _size(self, *sides: int) -> str:
        return " × ".join(format_length(mm, self.units) for mm in sides if mm)

    def _spaces(self) -> list[BoughtSpaceView]:
        chosen = {row.space_id: row for row in self.designs}
        shares = dict(self.bought.by_space)
        found = []
        for row in designs_to_buy(self.household):
            there = chosen.get(row.space_id)
            one = there or row
            share = figures(shares[self.name_of(one)], self.currency) if there else ""
            title = rows.history_of(one).current.title
            found.append(BoughtSpaceView(space=one.space_id, key=one.space.key, name=one.space.name, design=one.pk,
                                         title=title, chosen=there is not None, share=share))  # fmt: skip
        return found

    def _line(self, line: PurchaseLine, design: str, space: str) -> PurchaseLineView:
        parts = [part for of, part in line.parts if of == design and space in {s for s, _ in line.by_space}]
        return PurchaseLineView(
            item=line.item, name=line.name, size=size_of(line, self.units), needed=line.needed, bought=line.bought,
            spare=line.spare, unit=line.unit, each=figures(line.each, self.currency),
            total=figures(line.total, self.currency), spaces=[s for s, _ in line.by_space], parts=parts,
        )  # fmt: skip

    def variants(self) -> VariantsView:
        """Other ways to buy the same."""
        found = [
            VariantView(
                key=v.key, name=v.name, look=v.look, chosen=v.chosen, cutting=v.choice.cutting,
                without=sorted(v.choice.without), grade=v.choice.grade, money=more_or_less(v.money, self.currency),
                hours=f"{'+' if v.hours > 0 else '−'}{abs(v.hours):.1f} h" if abs(v.hours) >= 0.05 else "",
            )
            for v in variants(self.named, self.choice, self.offcuts, self.sawing)
        ]  # fmt: skip
        return VariantsView(variants=found)

    def _leave_out(self, budget: Decimal) -> LeaveOutView:
        taken, then = leave_out_first(self.named, self.choice, budget, self.offcuts, self.sawing)
        return LeaveOutView(says=leave_out_in_words(taken, then, budget, self.currency), keys=[o.key for o in taken])

    def part_view(self, part: CutPart) -> CutPartView:
        """A line of the cut list."""
        return CutPartView(id=part.id, label=part.label, name=part.name, space=part.space,
                           finished=self._size(part.length, part.width), cut=self._size(part.cut_length, part.cut_width),
                           bands=part.bands, turns=part.turns, shaped=part.shaped)  # fmt: skip

    def _plan(self, number: int, plan: StuffPlan) -> PlanView:
        drawings = self.diagrams(plan, 1 + 100 * number)
        if plan.sheets is not None:
            labels = [[[p.panel.key for p in s.parts]] for s in plan.sheets.sheets]
            stock = [[self._stock(s.sheet.key, s.sheet.length, s.sheet.width)] for s in plan.sheets.sheets]
        else:
            assert plan.lengths is not None
            labels = [[[p.key for p in b.pieces] for b in plan.lengths.boards]]
            stock = [[self._stock(b.stock.key, b.stock.length) for b in plan.lengths.boards]]
        bought = ", ".join(f"{n} of {self._size(length, width)}" for length, width, _, n in plan.bought)
        return PlanView(
            name=plan.stuff.said(self.units), kind=plan.stuff.kind, bought=bought, says=plan_in_words(plan, self.currency),
            rests=rests_in_words(plan, self.units), parts=[self.part_view(p) for p in plan.parts],
            diagrams=[
                DiagramView(drawing=d, labels=own, stock=of)
                for d, own, of in zip(drawings, labels, stock, strict=True)
            ],
        )  # fmt: skip

    def _stock(self, key: str, *sides: int) -> str:
        """The size of what is sawn, and which offcut it is."""
        return self._size(*sides) + (f", {key}" if key.startswith(OFFCUT) else "")

    def _sawn(self, one: Sawn) -> SawnView:
        parts = [
            SawnPartView(id=p.id, label=p.label, size=self._size(p.length, p.width), spoiled=p.spoiled)
            for p in one.parts
        ]
        return SawnView(
            key=one.id, name=one.stuff.said(self.units), size=self._size(one.length, one.width), parts=parts
        )

    def shopping(self) -> ShoppingView:
        """Where to buy it."""
        lines = self.bought.lines
        names = {s.id: s for s in self.market.suppliers()}
        best, baskets = self.shops.best, []
        for supplier in names.values():
            own = [o for o in best.ordered if o.supplier == supplier.id]
            if own:
                ordered = [
                    OrderLineView(name=lines[o.line].name, size=size_of(lines[o.line], self.units),
                                  pieces=_number(o.pieces, lines[o.line].unit), total=self._cents(o.cents))
                    for o in own
                ]  # fmt: skip
                baskets.append(BasketView(name=supplier.name, lines=ordered, total=self._cents(sum(o.cents for o in own)),
                                          days=supplier.days))  # fmt: skip
        alone = [
            AloneView(
                name=names[who].name, says=order_in_words(order, self.currency), lacks=len(order.lacking),
                more=more_or_less(Decimal(order.cents - best.cents) / 100, self.currency)
                if set(order.lacking) == set(best.lacking) else "",
            )
            for who, order in self.shops.alone
        ]  # fmt: skip
        return ShoppingView(day=self.day.isoformat(), says=order_in_words(best, self.currency), baskets=baskets,
                            lacking=[lines[n].name for n in best.lacking], alone=alone,
                            lists=[PriceListView(key=one.id, name=one.name, on=one.on, rows=len(one.rows))
                                   for one in rows.price_lists_of(self.household)])  # fmt: skip

    def _cents(self, cents: int) -> str:
        return figures(Decimal(cents) / 100, self.currency)

    def money(self) -> MoneyView:
        """The ledger of money of the whole household; estimates are of what is on the list."""
        spaces = {s.key: s.name for s in self.household.space_set.order_by("pk")}
        shares = dict(self.bought.by_space)
        estimates = {row.space.key: shares[self.name_of(row)] for row in self.designs}
        entries = rows.money_of(self.household)
        return MoneyView(
            accounts=[self._account(a, spaces) for a in accounts(estimates, entries)], currency=self.currency,
            entries=[EntryView(key=e.id, space=spaces.get(e.space, e.space), kind=e.kind, what=e.what, on=e.on,
                               amount=figures(e.amount, self.currency)) for e in entries],
        )  # fmt: skip

    def _account(self, one: Account, spaces: dict[str, str]) -> AccountView:
        sums = {k: figures(getattr(one, k), self.currency)
                for k in ("estimate", "ordered", "received", "returned", "spent", "due")}  # fmt: skip
        name = spaces.get(one.space, one.space) if one.space else "All"
        return AccountView(space=one.space, name=name, trips=one.trips, **sums)
