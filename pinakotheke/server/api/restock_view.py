"""Restock in words: what is there of what is used up, when it runs out, and the shopping list."""

from collections import defaultdict
from datetime import date
from typing import NamedTuple

from django.db.models import QuerySet
from ninja import Schema

from pinakotheke.core.inventory import STAYING, Thing
from pinakotheke.core.saying import counted
from pinakotheke.core.upkeep import Movement, Supply
from pinakotheke.core.upkeep.restock import Stock, kinds_used_up, par, run_out, stock_of, to_buy, use_by, used_at_once
from pinakotheke.core.words.restock import cautions, movement_in_words, run_out_in_words, stock_in_words

from .. import models, rows

MOST_OFFERED = 1000
LATEST = 12
"""So many of the last movements are shown of a supply."""


class MovementView(Schema):
    """What happened to a supply."""

    key: str
    did: str
    count: int
    on: str
    best_before: str
    says: str


class SupplyView(Schema):
    """A thing that is used up: what is there, when it runs out, what to buy."""

    key: str
    thing: str
    name: str
    space: int | None
    place: str
    """Where it lies."""
    lasting: bool
    spare: int
    days: int | None
    shop: str
    pack: int
    keeps: int | None
    unopened: int
    in_use: bool
    says: str
    runs_out: str
    soonest: str
    """The first day on which it may be used up; empty where nobody knows."""
    cautions: list[str]
    by: str
    """The day by which what is open is used."""
    first: str
    """The day on what is taken first."""
    par: int
    buy: int
    """Packs to buy."""
    movements: list[MovementView]


class WatchableView(Schema):
    """A thing that could be watched."""

    thing: str
    name: str
    space: int | None
    lasting: bool


class ShopView(Schema):
    """What to buy in a shop: names with how many pieces, or packs of how many."""

    shop: str
    lines: list[str]


class RestockView(Schema):
    """What is used up in a household."""

    today: str
    supplies: list[SupplyView]
    shops: list[ShopView]
    could: list[WatchableView]


class _Known(NamedTuple):
    """A supply with its thing and what happened to it, read once."""

    supply: Supply
    row: models.Supply
    thing: Thing
    stock: Stock
    movements: list[Movement]


def _known(supplies: QuerySet[models.Supply]) -> list[_Known]:
    moved: dict[str, list[Movement]] = defaultdict(list)
    for movement in rows.movements_of(models.Movement.objects.filter(supply__in=supplies)):
        moved[movement.supply].append(movement)
    found = []
    for one in supplies.select_related("thing__space").order_by("thing__name"):
        supply = rows.supply_of(one)
        stock = stock_of(supply, moved[one.key])
        found.append(_Known(supply, one, rows.thing_of(one.thing), stock, moved[one.key]))
    return found


def open_days(space: models.Space) -> dict[str, str]:
    """The day by which what is open of a thing in a space is used, by its key: it goes onto the label of its jar."""
    here = models.Supply.objects.filter(thing__stays__place__space=space).distinct()
    return {k.thing.id: day for k in _known(here) if (day := use_by(k.supply, k.stock, k.thing.kind))}


def restock_view(household: models.Household, today: date) -> RestockView:
    """All that is used up in a household, what runs out first at the top, and what to buy by shop."""
    known = _known(household.supply_set.all())
    lies = dict(household.stay_set.filter(thing__supply__isnull=False).order_by("-pk")
                .values_list("thing__key", "place__name"))  # fmt: skip
    found = [_supply(k, lies.get(k.thing.id, ""), today) for k in known]
    found.sort(key=lambda s: (s.buy == 0, s.soonest or "9999", s.name))
    shops: dict[str, list[str]] = defaultdict(list)
    for s in found:
        if s.buy:
            packs = f" {counted(s.buy, 'pack', 'packs')} of {s.pack}" if s.pack > 1 else ""
            shops[s.shop].append(f"{s.name}: {s.buy}{packs}")
    could = household.thing_set.filter(supply=None, kind__in=kinds_used_up(), decision__in=STAYING).order_by("name")
    return RestockView(today=today.isoformat(), supplies=found,
                       could=[_watchable(t) for t in could[:MOST_OFFERED]],
                       shops=[ShopView(shop=shop, lines=lines) for shop, lines in sorted(shops.items())])  # fmt: skip


def _watchable(row: models.Thing) -> WatchableView:
    return WatchableView(thing=row.key, name=row.name, space=row.space_id, lasting=not used_at_once(row.kind))


def _supply(k: _Known, place: str, today: date) -> SupplyView:
    out = run_out(k.supply, k.stock, today)
    in_use = bool(k.supply.lasting and k.stock.open_since)
    return SupplyView(
        key=k.supply.id, name=k.thing.name, space=k.row.thing.space_id, place=place, unopened=k.stock.unopened,
        in_use=in_use,
        says=stock_in_words(k.supply, k.stock), runs_out=run_out_in_words(out, k.stock, k.stock.unopened + in_use),
        soonest=out.earliest if out else "" if k.stock.unopened + in_use else today.isoformat(),
        cautions=cautions(k.supply, k.stock, k.thing, today), par=par(k.supply, k.stock, today),
        buy=to_buy(k.supply, k.stock, today), by=use_by(k.supply, k.stock, k.thing.kind), first=k.stock.first,
        movements=[MovementView(key=m.id, did=m.did, count=m.count, on=m.on, best_before=m.best_before,
                                says=movement_in_words(k.supply, m))
                   for m in reversed(sorted(k.movements, key=lambda m: m.on)[-LATEST:])],
        **k.supply.model_dump(exclude={"id"}),
    )  # fmt: skip
