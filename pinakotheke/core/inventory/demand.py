"""What all the things of a space ask of storage, by kind of storage, with the growth reserve."""

from collections import defaultdict

from ..base import Frozen, Why
from ..house import HouseRules
from .needs import STORAGES, Need, Storage, drawer_inside, preferred
from .things import Thing

DROP_CLASSES = (("short", 700.0), ("shirt", 1050.0), ("knee", 1300.0), ("long", 1500.0), ("full", 10_000.0))
"""Names of hanging lengths by the greatest drop below the rail; common practice."""
SHELF_DEPTHS = (330.0, 420.0, 600.0, 100_000.0)
SHELF_HEIGHTS = (220.0, 360.0, 100_000.0)
"""Classes of shelf by depth and by clear height, mm; the last takes whatever is deeper or higher."""

UNIT_OF: dict[Storage, str] = {
    "hanging": "mm of rail", "folded": "mm of shelf", "drawers": "litres", "shoes": "mm of shelf",
    "containers": "mm of shelf", "hooks": "hooks", "floor": "mm of floor", "overhead": "litres",
}  # fmt: skip


class DemandLine(Frozen):
    """One class of storage: `bare` is what the things take, `asked` the same with the reserve, in `unit`."""

    storage: Storage
    label: str
    unit: str
    bare: float
    asked: float
    pieces: int
    mass: float
    things: tuple[str, ...]
    why: Why


class Demand(Frozen):
    """All lines, in the order of the ledger."""

    lines: tuple[DemandLine, ...]
    pieces: int
    groups: int

    def asked(self, storage: Storage) -> float:
        """Asked of one kind of storage, all its classes together."""
        return sum(line.asked for line in self.lines if line.storage == storage)


def with_reserve(bare: float, reserve: float) -> float:
    """Room to provide so that the share `reserve` of it stays empty: bare ÷ (1 − reserve)."""
    return bare / (1 - reserve)


def demand(things: tuple[Thing, ...], rules: HouseRules) -> Demand:
    """What the things that stay ask for, each stored its preferred way."""
    staying = [t for t in things if t.stays]
    rows: dict[tuple[int, str], list[tuple[Thing, Need]]] = defaultdict(list)
    for thing in staying:
        need = preferred(thing, rules)
        rows[(STORAGES.index(need.storage), _class(thing, need))].append((thing, need))
    lines = tuple(_line(STORAGES[rank], label, members, rules) for (rank, label), members in sorted(rows.items()))
    return Demand(lines=lines, pieces=sum(t.count for t in staying), groups=len(staying))


def litres(need: Need) -> float:
    """Volume of a drawer need: its floor area × the inside height of the drawer it lies in."""
    return need.amount * drawer_inside(need.clear) / 1e6


def _class(thing: Thing, need: Need) -> str:
    if need.way == "hang":
        return next(name for name, most in DROP_CLASSES if thing.row.drop <= most)
    if need.way in ("drawer", "hook", "floor", "overhead"):
        return ""
    deepest = next(d for d in SHELF_DEPTHS if need.depth <= d)
    tallest = next(h for h in SHELF_HEIGHTS if need.clear <= h)
    return f"{deepest:.0f} {tallest:.0f}"


def _line(storage: Storage, label: str, members: list[tuple[Thing, Need]], rules: HouseRules) -> DemandLine:
    bare = sum(litres(n) if storage == "drawers" else n.amount for _, n in members)
    unit = {"drawers": "l", "overhead": "l", "hooks": "hooks"}.get(storage, "mm")
    values = tuple((f"{n.count} × {t.name}", round(litres(n) if storage == "drawers" else n.amount, 1), unit)
                   for t, n in members)  # fmt: skip
    return DemandLine(
        storage=storage,
        label=label,
        unit=UNIT_OF[storage],
        bare=bare,
        asked=with_reserve(bare, rules.reserve),
        pieces=sum(n.count for _, n in members),
        mass=sum(n.mass for _, n in members),
        things=tuple(t.id for t, _ in members),
        why=Why(
            rule="demand",
            values=(*values, ("growth reserve", rules.reserve, "")),
            basis="C",
            source="; ".join(sorted({t.row.source for t, _ in members})),
        ),
    )
