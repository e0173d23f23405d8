"""What the demand would be otherwise: under the other schools, after one more purge, without too much back stock."""

from collections import defaultdict

from ..base import Frozen
from ..house import HouseRules
from ..tables import value
from .demand import UNIT_OF, Demand, demand, litres, with_reserve
from .needs import STORAGES, Storage, preferred
from .things import Decision, Thing


class Change(Frozen):
    """How much more (+) or less (−) of one kind of storage, in its unit."""

    storage: Storage
    unit: str
    by: float


class School(Frozen):
    """A rule set otherwise, and what that changes."""

    rule: str
    choice: str
    changes: tuple[Change, ...]


class Purge(Frozen):
    """So many pieces fewer of a group, and the storage that frees."""

    thing: str
    pieces: int
    freed: tuple[Change, ...]


class Pile(Frozen):
    """What was decided alike: groups, pieces, and the storage that leaves with them (or stays)."""

    decision: Decision
    groups: int
    pieces: int
    storage: tuple[Change, ...]


class OverStock(Frozen):
    """More of a consumable than one in use and one spare."""

    thing: str
    name: str
    count: int
    over: int


OTHERWISE: tuple[tuple[str, object], ...] = (
    ("hang", "what-creases"), ("hang", "all-that-can"), ("reserve", 0.0), ("reserve", 0.1), ("reserve", 0.2),
    ("hangers", "slim"), ("hangers", "ordinary"), ("hangers", "padded"),
    ("access", "single-touch"), ("access", "dense"),
)  # fmt: skip


def other_schools(things: tuple[Thing, ...], rules: HouseRules) -> tuple[School, ...]:
    """Every other choice of the schools that changes what is asked."""
    now = demand(things, rules)
    found = []
    for rule, choice in OTHERWISE:
        if getattr(rules, rule) == choice:
            continue
        changes = difference(now, demand(things, rules.model_copy(update={rule: choice})))
        if changes:
            found.append(School(rule=rule, choice=str(choice), changes=changes))
    return tuple(found)


def difference(now: Demand, then: Demand) -> tuple[Change, ...]:
    """Storage asked by `then` less that asked by `now`, kind by kind; what stays the same is left out."""
    changes = []
    for storage in STORAGES:
        by = then.asked(storage) - now.asked(storage)
        if abs(by) > 1e-6:
            changes.append(Change(storage=storage, unit=UNIT_OF[storage], by=by))
    return tuple(changes)


def _asked(thing: Thing, rules: HouseRules, count: int) -> tuple[Storage, float]:
    need = preferred(thing, rules, count)
    return need.storage, with_reserve(litres(need) if need.way == "drawer" else need.amount, rules.reserve)


def purge_steps(things: tuple[Thing, ...], rules: HouseRules, most: int = 5) -> tuple[Purge, ...]:
    """The next steps worth taking: half of each of the groups that ask most of the storage asked most of."""
    sums: dict[Storage, float] = defaultdict(float)
    rows = []
    for thing in things:
        if not thing.stays or thing.count < 2:
            continue
        storage, amount = _asked(thing, rules, thing.count)
        sums[storage] += amount
        rows.append((thing, storage, amount))
    rows.sort(key=lambda row: -row[2] / sums[row[1]])
    found = []
    for thing, storage, amount in rows[:most]:
        pieces = thing.count // 2
        _, left = _asked(thing, rules, thing.count - pieces)
        freed = Change(storage=storage, unit=UNIT_OF[storage], by=left - amount)
        found.append(Purge(thing=thing.id, pieces=pieces, freed=(freed,)))
    return tuple(found)


def piles(things: tuple[Thing, ...], rules: HouseRules) -> tuple[Pile, ...]:
    """Groups by what was decided about them, in the order of the decisions, each with the storage it takes or frees."""
    by: dict[Decision, list[Thing]] = defaultdict(list)
    for thing in things:
        by[thing.decision].append(thing)
    found = []
    for decision, group in by.items():
        sums: dict[Storage, float] = defaultdict(float)
        for thing in group:
            storage, amount = _asked(thing, rules, thing.count)
            sums[storage] += amount
        changes = tuple(Change(storage=s, unit=UNIT_OF[s], by=sums[s]) for s in STORAGES if sums[s])
        found.append(Pile(decision=decision, groups=len(group), pieces=sum(t.count for t in group), storage=changes))
    return tuple(found)


def over_stock(things: tuple[Thing, ...]) -> tuple[OverStock, ...]:
    """Consumables beyond one in use and one spare."""
    usual = int(value("inventory.back_stock"))
    return tuple(
        OverStock(thing=t.id, name=t.name, count=t.count, over=t.count - usual)
        for t in things
        if t.stays and t.row.is_consumed and t.count > usual and t.kind != "jar-dry"
    )


def sockets_wanted(things: tuple[Thing, ...]) -> int:
    """Groups that charge or run where they stand: each wants a socket within reach."""
    return sum(t.stays and "power" in t.row.needs for t in things)
