"""How much trouble it is to take a thing out where it lives: points for reach, for danger and for storing it against
the rule. The same points steer the search and are shown as *reach* of a design.
"""

from collections.abc import Sequence
from math import sqrt

import numpy as np
from numpy.typing import NDArray

from ...house import Person, ReachZone, reach_zone, shared_zone
from ...inventory import Thing, uses_a_month
from ...systems import FRONTS, HANGING, Bay, Family, Role
from ...systems.roles import REACHED_OVER
from ...tables import value

Heights = NDArray[np.float64]
DRAWER_HIGH = 200
"""A drawer more than this over what wants to stand low is looked into from below, mm; common practice."""


BLIND = 0.6
"""Trouble of reaching into the hidden part of a corner; common practice."""


def zone_of(thing: Thing, people: tuple[Person, ...], role: Role, bay: Bay, family: Family) -> ReachZone:
    """The reach of whoever takes this thing out of a compartment of this role. What stands on the floor by its nature is
    taken by its handle; a long thing on a hook is held by its middle.
    """
    depth = family.clear_depth(role, bay) if role in REACHED_OVER else 0
    owner = next((p for p in people if p.id == thing.owner), None)
    zone = reach_zone(owner, depth) if owner else shared_zone(people, depth)
    if role == "floor" and "floor" in thing.row.ways:
        return zone.model_copy(update={"low": 0, "easy_low": 0})
    if role == "hooks" and thing.row.long:
        return zone.model_copy(update={"high": zone.high + max(thing.size or thing.row.size or (0,)) / 2})
    return zone


def often(thing: Thing) -> float:
    """Weight of how often it is taken out: the square root of its uses a month, so that a daily thing outweighs
    thirty monthly ones but not all.
    """
    return sqrt(uses_a_month(thing.frequency))


def reach_trouble(zone: ReachZone, hands: Heights, thing: Thing, role: Role, ease: float) -> Heights:
    """Trouble of taking a thing out at each height of the hand, mm: 0 in the easy zone, up to 1 within reach,
    `design.beyond` and more beyond it. `ease` is the share of it left for what comes out to the hand.
    """
    beyond, low_top = value("design.beyond"), value("design.low_top")
    found: Heights = np.select(
        [hands > zone.high, hands > zone.easy_high, hands < zone.low, hands < zone.easy_low],
        [beyond + (hands - zone.high) / 100,
         0.2 + 0.8 * (hands - zone.easy_high) / max(zone.high - zone.easy_high, 1),
         beyond + (zone.low - hands) / 100,
         (0.2 + 0.8 * (zone.easy_low - hands) / max(zone.easy_low - zone.low, 1)) * ease],
    )  # fmt: skip
    if thing.row.low:
        found = found + np.where(hands > low_top, 0.5 + (hands - low_top) / 400, 0.0)
    if role in FRONTS:
        found = found + np.where(hands > low_top + DRAWER_HIGH, 1 + (hands - low_top - DRAWER_HIGH) / 100, 0.0)
    return found


def in_drawer_trouble(share: float) -> float:
    """Trouble of a row in a drawer whose front edge lies so far back (0 at the hand, 1 at the back)."""
    return 0.1 + share


def danger(thing: Thing, people: tuple[Person, ...], hands: Heights) -> Heights:
    """Points at each height of the hand for what can hurt someone within the reach of one it is kept from."""
    kept = {h for p in people for h in p.may_not_reach}
    unsafe = value("design.unsafe") if kept & set(thing.hazards) else 0.0
    return np.where(hands >= value("reach.locked_above"), 0.0, unsafe)


def far_from_power(thing: Thing, bay: Bay, sockets: tuple[tuple[str, float], ...]) -> float:
    """Points for what needs a socket in a bay that has none within a cord's length."""
    if "power" not in thing.row.needs or not sockets:
        return 0.0
    return 0.0 if near_power(bay, sockets) else value("design.unsafe")


def near_power(bay: Bay, sockets: tuple[tuple[str, float], ...]) -> bool:
    """Whether a cord reaches from a bay to a socket of its wall."""
    middle, cord = bay.x + bay.w / 2, value("design.socket_within") + bay.w / 2
    return any(section == bay.section and abs(at - middle) <= cord for section, at in sockets)


def hand_height(role: Role, at: float, height: float, bay: Bay) -> float:
    """Height above the floor of the hand that takes something out of a part `height` high whose foot is at `at`."""
    return bay.foot + (at if role in HANGING else at + height)


def trouble(thing: Thing, role: Role, at: float, height: float, bay: Bay, family: Family, people: tuple[Person, ...],
            sockets: tuple[tuple[str, float], ...] = ()) -> float:  # fmt: skip
    """All points of one thing in a part of this role whose foot stands at `at` on its bay's axis."""
    return troubles(thing, role, (at,), height, bay, family, people, sockets)[0]


def troubles(thing: Thing, role: Role, places: Sequence[float], height: float, bay: Bay, family: Family,
             people: tuple[Person, ...], sockets: tuple[tuple[str, float], ...] = ()) -> list[float]:  # fmt: skip
    """The same at several places at once."""
    frequent = often(thing)
    seldom = 1 / max(frequent, 0.1)
    fixed = far_from_power(thing, bay, sockets) * seldom + (BLIND if bay.blind else 0.0)
    if bay.drawer is not None:
        long = max(bay.z1 - bay.z0, 1)
        return [(fixed + in_drawer_trouble(1 - (at - bay.z0) / long)) * frequent for at in places]
    zone = zone_of(thing, people, role, bay, family)
    hands = np.array([hand_height(role, at, height, bay) for at in places], float)
    points = reach_trouble(zone, hands, thing, role, family.spec(role).ease) + danger(thing, people, hands) * seldom
    found: list[float] = ((fixed + points) * frequent).tolist()
    return found
