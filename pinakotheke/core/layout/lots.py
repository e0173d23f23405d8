"""Things cut into lots, and every spot each lot may take.

A lot is so many pieces that are placed whole; it asks for no more than the widest bay gives. A spot is one way to keep
a lot in one bay: a role, turned or not, in a container or not, with what it asks there including the growth reserve,
the heights at which it may stand, and its trouble at each of them. Everything comes from `fits` and `trouble`, which
the verifier and the checks use as well.
"""

from collections.abc import Iterator
from dataclasses import dataclass, field
from math import ceil, inf

from ..inventory import Thing
from ..inventory.containers import Container, boxes_for, containers, is_loose
from ..inventory.kinds import Way
from ..inventory.needs import ways
from ..systems import FRONTS, HANGING, Bay, Family, Holder, Part
from ..tables import value
from .fits import Ask, ask, front_for, misfit, position
from .task import Household
from .trouble import troubles

TURNABLE: frozenset[Way] = frozenset({"box", "floor", "hook", "shelf", "drawer"})
MOST_SPLITS = 60


@dataclass(frozen=True, slots=True)
class Spot:
    """One way to keep one lot in one bay."""

    bay: int
    role: Holder
    way: Way
    turned: bool
    container: str
    asked: float
    """Of the compartment's capacity, the growth reserve included."""
    mass: float
    units: int
    """Pitches its compartment takes when it is the tallest thing in it."""
    below: int
    """For what hangs: pitches from the compartment's foot to the part."""
    front: int
    lowest: int
    highest: int
    """Feet, in pitches above the bay's, between which its compartment may stand."""
    troubles: tuple[float, ...]
    """Points when the compartment stands so many pitches up."""
    extra: float = 0.0
    """Money for containers."""
    at_hand: bool = False
    """Its containers are the household's own."""


@dataclass(slots=True)
class Lot:
    """So many pieces of one thing."""

    index: int
    thing: Thing
    count: int
    spots: list[Spot] = field(default_factory=list)


def cut(things: tuple[Thing, ...], bays: tuple[Bay, ...], home: Household) -> tuple[Lot, ...]:
    """Lots of every thing that stays. A thing that fits nowhere becomes lots without spots."""
    lots: list[Lot] = []
    open_bays = [b for b in bays if not b.locked]
    for thing in things:
        if not thing.stays:
            continue
        for count in _counts(thing, open_bays, home):
            lot = Lot(len(lots), thing, count)
            lot.spots = list(_spots(thing, count, open_bays, home))
            lots.append(lot)
    return tuple(lots)


def takes_one(thing: Thing, bay: Bay, home: Household) -> bool:
    """Whether one piece goes into some compartment of a bay."""
    family = home.families.of(bay)
    for way in ways(thing, home.rules):
        for role in _roles(family, way, bay):
            for turned in (False, True) if way in TURNABLE else (False,):
                a = ask(thing, way, role, family, bay, home.rules, 1, turned=turned)
                if misfit(thing, way, role, a, family, bay) is None and a.amount <= family.capacity(role, bay):
                    part = family.placed(bay, "x", role, bay.z0, front_for(family, role, a))
                    units, below = heights(family, part, bay, a)
                    lowest, highest, on_floor = feet(family, role, bay, units, below)
                    if has_foot(bay, units, lowest, highest, loose=bay.loose or (on_floor and way == "floor")):
                        return True
    return False


def feet(family: Family, role: Holder, bay: Bay, units: int, below: int) -> tuple[int, int, bool]:
    """Least and greatest foot of a compartment in a bay, in pitches, and whether it stands on the floor."""
    on_floor = family.spec(role).on_floor or role == "base"
    # A grid of holes may begin below the board that stays; what hangs hangs no lower than that.
    bottom = 1 if bay.z0 < 0 < below else 0
    lowest = 0 if on_floor or bay.drawer is not None else max(bottom, ceil(bay.first / bay.pitch) - below)
    highest = bay.pitches - units
    if bay.highest:
        highest = min(highest, (bay.highest - bay.z0) // bay.pitch - below)
    return lowest, 0 if on_floor else highest, on_floor


def has_foot(bay: Bay, units: int, lowest: int, highest: int, *, loose: bool) -> bool:
    """Whether a compartment so high stands anywhere in a bay between what closes it."""
    at = lowest
    for closed in sorted(bay.blocked, key=lambda b: b.low):
        if closed.loose and loose:
            continue
        low, high = (closed.low - bay.z0) // bay.pitch, -(-(closed.high - bay.z0) // bay.pitch)
        if at < high and low < at + units:
            at = high
    return at <= highest


def _ways(thing: Thing, home: Household) -> list[tuple[Way, Container | None, float]]:
    """Ways to keep a thing, in which container, and the points for keeping it against the house's wish."""
    wanted = ways(thing, home.rules)
    found: list[tuple[Way, Container | None, float]] = [
        (way, None, value("design.against") if wanted[0] == "hang" != way else 0.0) for way in wanted
    ]
    if is_loose(thing) and thing.way in (None, "shelf", "box"):
        here = [c for t, c in home.owned if t == thing.id]
        range_ = sorted(home.to_buy or containers().values(), key=lambda c: _waste(thing, c))[:2]
        found += [("box", c, 0.0) for c in (*here, *range_) if boxes_for(thing, c, thing.count) is not None]
    return found


def _waste(thing: Thing, container: Container) -> float:
    """Price and empty room of the containers a thing would take: the fitting ones first."""
    number = boxes_for(thing, container, thing.count)
    if number is None:
        return inf
    w, d, h = container.inside
    return number * (container.price + w * d * h / 1e6)


def _counts(thing: Thing, bays: list[Bay], home: Household) -> list[int]:
    """Pieces per lot, as even as they go: each lot's first possible way stays within the roomiest bay's capacity."""
    for way, container, _ in _ways(thing, home):
        if container:
            continue
        for turned in (False, True):
            rooms = _rooms(thing, way, turned, bays, home)
            if not rooms:
                continue
            reserve = 1 - home.rules.reserve
            for lots in range(1, min(thing.count, MOST_SPLITS) + 1):
                most = ceil(thing.count / lots)
                if most == 1 or any(_holds(thing, way, turned, most, r, reserve, home) for r in rooms):
                    small, over = divmod(thing.count, lots)
                    return [small + 1] * over + [small] * (lots - over)
    return [thing.count]


_Room = tuple[Bay, Holder, float, float]


def _rooms(thing: Thing, way: Way, turned: bool, bays: list[Bay], home: Household) -> list[_Room]:
    """Compartments of every size and strength that take one piece, with their capacity and rating."""
    best: dict[tuple[str, Holder, float, float], _Room] = {}
    for bay in bays:
        family = home.families.of(bay)
        for role in _roles(family, way, bay):
            a = ask(thing, way, role, family, bay, home.rules, 1, turned=turned)
            if misfit(thing, way, role, a, family, bay) is None:
                c = home.cache.component(family, role, bay, front_for(family, role, a))
                best.setdefault((bay.family, role, c.capacity, c.rating), (bay, role, c.capacity, c.rating))
    return list(best.values())


def _holds(thing: Thing, way: Way, turned: bool, count: int, room: _Room, reserve: float, home: Household) -> bool:
    bay, role, capacity, rating = room
    a = ask(thing, way, role, home.families.of(bay), bay, home.rules, count, turned=turned)
    return a.amount <= capacity * reserve * home.handy and a.mass <= rating


def _roles(family: Family, way: Way, bay: Bay, bases: bool = False) -> Iterator[Holder]:
    """Compartments that take a way of storing; a base is a shelf at the foot, and stands for itself where it takes what
    a shelf does not, or where `bases` are asked for by themselves.
    """
    shelf = family.specs.get("shelf")
    for role, spec in family.specs.items():
        if way not in spec.ways:
            continue
        if spec.on_floor and bay.drawer is None and bay.z0 > 0:
            continue  # a storey has no floor of its own
        if role == "base" and (not bay.has_base or (shelf is not None and way in shelf.ways and not bases)):
            continue
        yield role


def _spots(thing: Thing, count: int, bays: list[Bay], home: Household) -> Iterator[Spot]:
    for bay in bays:
        family = home.families.of(bay)
        for way, container, against in _ways(thing, home):
            for role in _roles(family, way, bay, _is_for_base(thing, count, family)):
                straight = _spot(thing, count, way, role, family, bay, home, False, container, against)
                if straight:
                    yield straight
                if way in TURNABLE and (straight is None or way in ("box", "floor")):
                    turned = _spot(thing, count, way, role, family, bay, home, True, container, against)
                    if turned and (straight is None or _better(turned, straight)):
                        yield turned


def _is_for_base(thing: Thing, count: int, family: Family) -> bool:
    """Whether a lot is worth a spot on the base by itself: where that carries more than an added shelf, and the lot is
    heavy for one, or the base is a shelf that is there anyhow.
    """
    base, shelf = family.specs.get("base"), family.specs.get("shelf")
    if base is None or shelf is None or base.rating <= shelf.rating:
        return False
    return family.on_what_is_there or count * thing.piece_mass > shelf.rating / 2


def _better(one: Spot, other: Spot) -> bool:
    return one.asked < other.asked or one.units < other.units


def _spot(thing: Thing, count: int, way: Way, role: Holder, family: Family, bay: Bay, home: Household, turned: bool,
          container: Container | None, against: float) -> Spot | None:  # fmt: skip
    if container is not None and bay.drawer is not None:
        return None
    a = ask(thing, way, role, family, bay, home.rules, count, turned=turned, container=container)
    if misfit(thing, way, role, a, family, bay) is not None:
        return None
    front = front_for(family, role, a)
    _, capacity, rating, _, part = home.cache.component(family, role, bay, front)
    asked = a.amount / (1 - home.rules.reserve)
    if asked > capacity >= a.amount:
        # A single wide piece may use its compartment whole: the reserve then has to come from elsewhere.
        asked = a.amount
    if asked > capacity or a.mass > rating:
        return None
    units, below = heights(family, part, bay, a)
    if units > bay.pitches:
        return None
    lowest, highest, on_floor = feet(family, role, bay, units, below)
    if not has_foot(bay, units, lowest, highest, loose=bay.loose or (on_floor and way == "floor")):
        return None
    money = 0.0
    if container is not None:
        money = container.price * (boxes_for(thing, container, count) or 0)
    return Spot(bay=bay.index, role=role, way=way, turned=turned, container=container.id if container else "",
                asked=asked, mass=a.mass, units=units, below=below, front=front, lowest=lowest, highest=highest,
                troubles=_troubles(thing, role, family, bay, home, below, front, against), extra=money,
                at_hand=container is not None and container.at_hand)  # fmt: skip


def _troubles(thing: Thing, role: Holder, family: Family, bay: Bay, home: Household, below: int, front: int,
              against: float) -> tuple[float, ...]:  # fmt: skip
    """Trouble at every foot; remembered for the search by all that decides it within one household and survey, since
    things of one owner and use share it.
    """
    powered = bool(home.sockets) and "power" in thing.row.needs
    key = (
        thing.owner, thing.frequency, thing.row.low, thing.hazards, role, family.id, below, front, against, bay.z0, bay.z1,
        bay.pitch, bay.depth, bay.hang_depth, bay.foot, bay.axis, bay.blind > 0,
        (bay.section, bay.x, bay.w) if powered else (),
    )  # fmt: skip
    known = home.cache.troubles.get(key)
    if known is None:
        spec = family.spec(role)
        height = front or (spec.fronts[0] if spec.fronts else spec.height)
        places = [bay.z0 + (foot + below) * bay.pitch for foot in range(bay.pitches + 1)]
        points = troubles(thing, role, places, height, bay, family, home.people, home.sockets)
        known = home.cache.troubles[key] = tuple(against + p for p in points)
    return known


def heights(family: Family, part: Part, bay: Bay, a: Ask) -> tuple[int, int]:
    """(pitches in all, pitches below the part) of a compartment that holds just this."""
    low, high = family.takes(part, 0 if part.role in FRONTS else a.clear)
    at = position(part, bay)
    below = ceil((at - low) / bay.pitch) if part.role in HANGING else 0
    return below + ceil((high - at) / bay.pitch), below
