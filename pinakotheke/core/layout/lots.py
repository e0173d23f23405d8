"""Things cut into lots: the pieces that the search places whole.

A lot asks for no more than the widest bay gives, so that every lot fits some compartment. Its options are the ways
it may be stored in this family, each with what it asks, including the growth reserve.
"""

from dataclasses import dataclass
from functools import lru_cache
from math import ceil, sqrt

from ..house import HouseRules, Person, ReachZone, reach_zone, shared_zone
from ..inventory import Need, Thing, uses_a_month
from ..inventory.kinds import Way
from ..inventory.needs import need, needs
from ..inventory.things import Frequency
from ..systems import Bay, Component, Family, Role
from ..tables import value

ROLES_FOR: dict[Way, tuple[Role, ...]] = {
    "hang": ("rail",), "shelf": ("shelf",), "shoe": ("shelf", "tray"), "box": ("shelf",), "drawer": ("drawer",),
    "hook": (), "floor": (), "overhead": (),
}  # fmt: skip
LOW_TOP = 900.0
"""What wants to stand low should be taken out below this height, mm; common practice."""
DRAWER_TOP_SHARE = 0.5
"""Out-of-sight weight of a drawer whose top is above the easy zone."""
BEYOND = 8.0
"""Points of what is out of reach, before its distance: eight times the worst place within reach."""
AGAINST = 12.0
"""Points of a lot that the house would hang and that is laid away instead: about a shelf's price."""
BRACKET = 12
"""Height of a bracket under the board above, mm (track and standard); in a carcase it is spare."""


@dataclass(frozen=True, slots=True)
class Option:
    """One way to store one lot."""

    lot: int
    role: Role
    need: Need
    asked: float
    units: int
    """Pitches its compartment takes if it is the tallest thing in it."""
    below: int
    """For a rail: pitches from the compartment's foot to the rail."""
    front: int
    """For a drawer: its front height, mm."""
    bays: frozenset[int]
    """Bays it fits into, by width, depth and pull-out."""
    costs: tuple[float, ...]
    """Points when the compartment stands so many pitches above the bay's foot: reach, and storing against the rule."""
    liked: int
    """The foot with the fewest reach points."""
    rank: tuple[float, float]
    """Falling height, then falling amount: the order in which compartments are filled."""


@dataclass(frozen=True, slots=True)
class Lot:
    """So many pieces of one thing."""

    index: int
    thing: Thing
    count: int
    options: tuple[Option, ...]


def component_units(role: Role, need_: Need, part_height: int, pitch: int) -> tuple[int, int]:
    """(pitches in all, pitches below the rail) of a compartment that holds just this need."""
    if role == "rail":
        above = value("hang.above_rail")
        below = ceil((need_.clear - above) / pitch)
        return below + ceil((part_height + above) / pitch), below
    if role == "drawer":
        return ceil(part_height / pitch), 0
    return ceil((part_height + need_.clear + BRACKET) / pitch), 0


def drawer_front(family: Family, need_: Need) -> int:
    """The shallowest drawer front that takes the need's pieces; 0 when none does."""
    lost = family.table["drawer_lost_height"]
    return int(next((f for f in family.table["drawer_fronts"] if f - lost >= need_.clear), 0))


def fits(family: Family, role: Role, need_: Need, bay: Bay) -> bool:
    """Whether a need's pieces pass into a compartment of this role in this bay at all."""
    slack = value("fold.overhang") if need_.way in ("shelf", "shoe") and role == "shelf" else 0
    if need_.depth > family.clear_depth(role, bay) + slack or need_.piece_width > family.clear_width(role, bay):
        return False
    return bay.pulls or role not in ("drawer", "tray")


def zone_of(thing: Thing, people: tuple[Person, ...], depth: float) -> ReachZone:
    """The reach of whoever takes this thing out."""
    owner = next((p for p in people if p.id == thing.owner), None)
    return reach_zone(owner, depth) if owner else shared_zone(people, depth)


def reach_points(zone: ReachZone, hand: float, frequency: Frequency, low: bool, role: Role) -> float:
    """Trouble of taking a thing out at a height: 0 in the easy zone, up to 1 within reach, 3 and more beyond it,
    times the square root of its uses a month, so that a daily thing outweighs thirty monthly ones but not all.
    """
    if hand > zone.high:
        trouble = BEYOND + (hand - zone.high) / 100
    elif hand > zone.easy_high:
        trouble = 0.2 + 0.8 * (hand - zone.easy_high) / max(zone.high - zone.easy_high, 1)
    elif hand < zone.low:
        trouble = BEYOND + (zone.low - hand) / 100
    elif hand < zone.easy_low:
        trouble = 0.2 + 0.8 * (zone.easy_low - hand) / max(zone.easy_low - zone.low, 1)
        if role in ("drawer", "tray"):
            trouble *= DRAWER_TOP_SHARE
    else:
        trouble = 0.0
    if low and hand > LOW_TOP:
        trouble += 0.5 + (hand - LOW_TOP) / 400
    if role == "drawer" and hand > LOW_TOP + 200:
        trouble += 1 + (hand - LOW_TOP - 200) / 100
    return trouble * sqrt(uses_a_month(frequency))


def hand_height(role: Role, below: float, part_height: float) -> float:
    """Height of the hand that takes something out of a compartment, above the compartment's foot."""
    return below if role == "rail" else part_height


def cut(things: tuple[Thing, ...], bays: tuple[Bay, ...], family: Family, rules: HouseRules,
        people: tuple[Person, ...]) -> tuple[Lot, ...]:  # fmt: skip
    """Lots of every thing that stays. A thing that fits nowhere becomes lots without options."""
    components = {(role, b.index): family.component(role, b) for role in family.roles for b in bays}
    lots: list[Lot] = []
    for thing in things:
        if not thing.stays:
            continue
        for count in _counts(thing, bays, components, family, rules):
            options: list[Option] = []
            wanted = needs(thing, rules, count)
            for need_ in wanted:
                against = AGAINST if wanted[0].way == "hang" != need_.way else 0.0
                for role in ROLES_FOR[need_.way]:
                    if role in family.roles:
                        option = _option(
                            len(lots), thing, need_, role, against, bays, components, family, rules, people
                        )
                        if option is not None:
                            options.append(option)
            lots.append(Lot(index=len(lots), thing=thing, count=count, options=tuple(options)))
    return tuple(lots)


def _counts(thing: Thing, bays: tuple[Bay, ...], components: dict[tuple[Role, int], Component], family: Family,
            rules: HouseRules) -> list[int]:  # fmt: skip
    """Pieces per lot, as even as they go: each lot's first possible way stays within the widest bay's capacity."""
    for need_ in needs(thing, rules):
        for role in ROLES_FOR[need_.way]:
            holds = [components[role, b.index] for b in bays if role in family.roles and fits(family, role, need_, b)]
            if not holds:
                continue
            room = max(c.capacity for c in holds) * (1 - rules.reserve)
            load = max(c.rating for c in holds)
            fewest = max(1, min(thing.count, int(need_.amount / room / 2)))
            for lots in range(fewest, thing.count + 1):
                most = ceil(thing.count / lots)
                part = need(thing, need_.way, rules, most)
                if (part.amount <= room and part.mass <= load) or most == 1:
                    small, over = divmod(thing.count, lots)
                    return [small + 1] * over + [small] * (lots - over)
    return [thing.count]


def _option(lot: int, thing: Thing, need_: Need, role: Role, against: float, bays: tuple[Bay, ...],
            components: dict[tuple[Role, int], Component], family: Family, rules: HouseRules,
            people: tuple[Person, ...]) -> Option | None:  # fmt: skip
    front = drawer_front(family, need_) if role == "drawer" else 0
    if role == "drawer" and not front:
        return None
    room = max((components[role, b.index].capacity for b in bays if fits(family, role, need_, b)), default=0)
    asked = need_.amount / (1 - rules.reserve)
    if asked > room >= need_.amount:
        # A single wide piece may use its compartment whole: the reserve then has to come from elsewhere.
        asked = need_.amount
    inside = frozenset(
        b.index for b in bays
        if fits(family, role, need_, b) and asked <= components[role, b.index].capacity
        and need_.mass <= components[role, b.index].rating
    )  # fmt: skip
    if not inside:
        return None
    bay = bays[0]
    height = front or components[role, bay.index].height
    units, below = component_units(role, need_, height, bay.pitch)
    zone = zone_of(thing, people, family.clear_depth(role, bay) if role == "shelf" else 0)
    most = (bay.z1 - bay.z0) // bay.pitch
    if units > most:
        return None
    costs = _costs(zone, thing.frequency, thing.row.low, role, bay.z0 + hand_height(role, below * bay.pitch, height),
                   bay.pitch, most, against)  # fmt: skip
    return Option(lot=lot, role=role, need=need_, asked=asked, units=units, below=below, front=front, bays=inside,
                  costs=costs, liked=min(range(len(costs)), key=costs.__getitem__),
                  rank=(-units, -asked))  # fmt: skip


@lru_cache(maxsize=4096)
def _costs(zone: ReachZone, frequency: Frequency, low: bool, role: Role, first: float, pitch: int,
           most: int, against: float) -> tuple[float, ...]:  # fmt: skip
    return tuple(against + reach_points(zone, first + n * pitch, frequency, low, role) for n in range(most + 1))
