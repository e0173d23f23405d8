"""A home for each group: which space and which height, with the reasons, and what is wrong with it.

Homes are given one after the other: first those a person pinned, then what can hurt, then by how often it is used.
Each takes the place of least cost that still has room; costs are points, and every point has its reason. Pinning one
thing takes room from the others, so the rest flows on by itself.
"""

from functools import lru_cache
from typing import Literal

from ..base import Frozen
from ..house import Person, ReachZone, reach_zone
from ..house.lifting import HIGHEST_CM, lifting_index
from ..tables import value
from .places import Place, band_heights, house_zone
from .things import BANDS, Band, Thing, uses_a_month

ReasonCode = Literal[
    "pinned", "zone", "often", "seldom", "low", "heavy", "hazard", "own reach", "power", "dry", "together", "door",
    "here", "outdoors", "wide",
]  # fmt: skip
ConflictCode = Literal["fuel", "child", "damp", "heavy", "wide high", "out of reach", "no socket", "no room"]


class Reason(Frozen):
    """Why it lives there: a code, and the number or name it rests on."""

    code: ReasonCode
    detail: str = ""
    amount: float = 0
    """Of what is heavy: kilograms a piece."""


class Home(Frozen):
    """Where a group is to live. `current` is the space it is in now."""

    thing: str
    space: str
    band: Band
    current: str
    pinned: bool
    reasons: tuple[Reason, ...]


class Conflict(Frozen):
    """What is wrong with a home: measured against a limit, by whose rule."""

    code: ConflictCode
    thing: str
    space: str
    measured: float = 0
    limit: float = 0
    detail: str = ""


class Homes(Frozen):
    """All homes, and the conflicts that stay."""

    homes: tuple[Home, ...]
    conflicts: tuple[Conflict, ...]
    left: dict[str, dict[Band, float]]
    """Litres left in each space at each height."""


FORBIDDEN = 1000.0
UNFIT = 11.0
"""A home that costs more is none: a lawn mower does not go among the linen for want of a shed."""
ROUGH = {"garden", "garage", "outdoors", "tools"}
"""Zones of dirty, oily or outdoor things: clean things live apart from them (handbook section 4)."""
OFTEN_COST: dict[Band, float] = {"easy": 0, "low": 1.0, "high": 2.0, "top": 6.0}
SELDOM_COST: dict[Band, float] = {"top": 0, "high": 0.3, "low": 1.0, "easy": 1.6}
MONTHLY_COST: dict[Band, float] = {"easy": 0.4, "low": 0.5, "high": 0.5, "top": 3.0}
"""Points for living at a height, by how often a thing is used: daily between knee and eye, seasonal high (handbook
section 4, common practice; the weights are this project's own)."""


def volume(thing: Thing) -> float:
    """Litres a group takes, outside."""
    if thing.row.ways[0] == "hang" and thing.row.rail:
        return thing.row.rail * 560 * thing.row.drop * thing.count / 1e6
    size = thing.size or thing.row.size or (300.0, 300.0, 300.0)
    return size[0] * size[1] * size[2] * thing.count / 1e6


class _Reach:
    """Each owner's reach, worked out once."""

    def __init__(self, people: tuple[Person, ...]) -> None:
        self.people = {p.id: p for p in people}
        self._zones: dict[str, ReachZone] = {p.id: reach_zone(p) for p in people}
        self._shared = house_zone(people)
        self.kept = {h: p.name for p in people for h in p.may_not_reach}

    def of(self, thing: Thing) -> ReachZone:
        return self._zones.get(thing.owner, self._shared)


def homes(things: tuple[Thing, ...], places: tuple[Place, ...], people: tuple[Person, ...]) -> Homes:
    """A home for every group that stays."""
    reach = _Reach(people)
    left = {p.id: dict(p.room) for p in places}
    by_id = {p.id: p for p in places}
    settled: dict[str, str] = {}  # word of those used together → space
    found: list[Home] = []
    conflicts: list[Conflict] = []
    for thing in sorted((t for t in things if t.stays), key=_priority):
        litres = volume(thing)
        options = _options(thing, litres, places, by_id, left, reach, settled)
        if not options:
            conflicts.append(Conflict(code="no room", thing=thing.id, space=thing.space, measured=litres))
            continue
        cost, place, band, reasons = min(options, key=lambda row: row[0])
        if (cost >= FORBIDDEN and not thing.pin_space) or (cost >= UNFIT and not (thing.pin_space or thing.pin_band)):
            conflicts.append(Conflict(code="no room", thing=thing.id, space=thing.space, measured=litres))
            continue
        left[place.id][band] -= litres
        if thing.together:
            settled.setdefault(thing.together.lower(), place.id)
        pinned = bool(thing.pin_space or thing.pin_band)
        found.append(Home(thing=thing.id, space=place.id, band=band, current=thing.space, pinned=pinned,
                          reasons=reasons))  # fmt: skip
        conflicts += _conflicts(thing, place, band, reach)
    return Homes(homes=tuple(found), conflicts=tuple(conflicts), left=left)


def _priority(thing: Thing) -> tuple[bool, bool, float, float]:
    dangerous = bool(set(thing.hazards) & {"fuel", "gas", "poison", "medicine"})
    return (not (thing.pin_space or thing.pin_band), not dangerous, -uses_a_month(thing.frequency), -volume(thing))


Option = tuple[float, Place, Band, tuple[Reason, ...]]


def _options(thing: Thing, litres: float, places: tuple[Place, ...], by_id: dict[str, Place],
             left: dict[str, dict[Band, float]], reach: _Reach, settled: dict[str, str]) -> list[Option]:  # fmt: skip
    wanted = (by_id[thing.pin_space],) if thing.pin_space in by_id else places
    bands = (thing.pin_band,) if thing.pin_band else BANDS
    forced = thing.pin_space in by_id
    found = []
    for place in wanted:
        space_cost, space_reasons = _space_cost(thing, place, settled)
        for band in bands:
            if left[place.id][band] < litres and not (forced and thing.pin_band):
                continue
            band_cost, band_reasons = _band_cost(thing, place, band, reach)
            pinned = (Reason(code="pinned"),) if forced or thing.pin_band else ()
            found.append((space_cost + band_cost, place, band, (*pinned, *space_reasons, *band_reasons)))
    if not found and forced:
        # No room where it was pinned: it goes there all the same, at the height with most room left.
        place = wanted[0]
        band = max(bands, key=lambda b: left[place.id][b])
        found.append((0.0, place, band, (Reason(code="pinned"),)))
    return found


def _space_cost(thing: Thing, place: Place, settled: dict[str, str]) -> tuple[float, tuple[Reason, ...]]:
    cost, reasons = 0.0, []
    if thing.zone is None:
        cost += 1.5
    elif thing.zone in place.zones:
        reasons.append(Reason(code="zone", detail=thing.zone))
    else:
        cost += 4.0 if (thing.zone in ROUGH) == bool(ROUGH & set(place.zones)) else 10.0
    if "poison" in thing.hazards and "kitchen" in place.zones and thing.zone != "kitchen":
        cost += 20.0
    if set(thing.hazards) & {"fuel", "gas"}:
        if place.where != "outdoors":
            return FORBIDDEN, ()
        reasons.append(Reason(code="outdoors"))
    if "dry" in thing.row.needs or thing.row.group in ("boxes", "paper", "books"):
        cost += 6.0 if place.damp else 0.0
        if not place.damp and place.where == "indoors" and thing.row.group in ("paper", "books", "keepsakes"):
            reasons.append(Reason(code="dry"))
    if "power" in thing.row.needs:
        cost += 0.0 if place.sockets else 3.0
        if place.sockets:
            reasons.append(Reason(code="power"))
    partner = settled.get(thing.together.lower()) if thing.together else None
    if partner is not None:
        cost += -3.0 if partner == place.id else 3.0
        if partner == place.id:
            reasons.append(Reason(code="together", detail=thing.together))
    if thing.zone in ("entrance", "garage", "garden"):
        cost += place.from_door / 1000 * 0.05 * min(uses_a_month(thing.frequency), 30) / 10
        if place.from_door <= value("inventory.near_door") and uses_a_month(thing.frequency) >= 4:
            reasons.append(Reason(code="door"))
    if thing.space == place.id:
        cost -= 1.2
        reasons.append(Reason(code="here"))
    return cost, tuple(reasons)


def _band_cost(thing: Thing, place: Place, band: Band, reach: _Reach) -> tuple[float, tuple[Reason, ...]]:
    uses = uses_a_month(thing.frequency)
    table = OFTEN_COST if uses >= 4 else MONTHLY_COST if uses >= 1 else SELDOM_COST
    cost, reasons = table[band], []
    if uses >= 4 and band == "easy":
        reasons.append(Reason(code="often", detail=thing.frequency))
    if uses < 1 and band in ("high", "top"):
        reasons.append(Reason(code="seldom", detail=thing.frequency))
    if thing.row.low:
        cost += 0.0 if band == "low" else 5.0
        if band == "low":
            reasons.append(Reason(code="low"))
    index = _lift(thing, place, band, reach)
    if index > 1:
        cost += min(4 * (index - 1), 20)
    if thing.piece_mass >= value("inventory.heavy") and band == "low":
        reasons.append(Reason(code="heavy", amount=thing.piece_mass))
    kept = next((reach.kept[h] for h in thing.hazards if h in reach.kept), None)
    if kept and not place.locked:
        low = _heights(thing, place, reach)[band][0] < value("reach.locked_above")
        cost += 8.0 if low else 0.0
        if not low:
            reasons.append(Reason(code="hazard", detail=kept))
    owner = reach.people.get(thing.owner)
    if owner and (owner.age == "child" or owner.posture != "standing"):
        within = band in ("low", "easy")
        cost += 0.0 if within else 8.0
        if within:
            reasons.append(Reason(code="own reach", detail=owner.name))
    size = thing.size or thing.row.size
    if size and size[0] > value("inventory.wide_above") and band in ("high", "top"):
        cost += 2.0
    return cost, tuple(reasons)


def _heights(thing: Thing, place: Place, reach: _Reach) -> dict[Band, tuple[float, float]]:
    return band_heights(reach.of(thing), place.top)


def _lift(thing: Thing, place: Place, band: Band, reach: _Reach) -> float:
    """Lifting index of one piece at the middle of a band, from the middle of the body (75 cm). Higher than the
    equation goes counts as its highest; what is light is no lift.
    """
    if thing.piece_mass < value("inventory.light") or (thing.row.wheels and band == "low"):
        return 0.0
    low, high = _heights(thing, place, reach)[band]
    height = min((low + min(high, max(low, place.top))) / 20, HIGHEST_CM)
    return lifting_index(thing.piece_mass, value("inventory.hands_out"), height, abs(height - 75))


def conflicts_at(thing: Thing, place: Place, hand: float, people: tuple[Person, ...]) -> list[Conflict]:
    """The same of a thing where it has its place in a design, taken out at `hand` mm over the floor."""
    reach = _reach_of(people)
    zone = reach.of(thing)
    heights = band_heights(zone, max(place.top, hand + 1))
    band: Band = next((b for b, (low, high) in heights.items() if low <= hand < high), "low")
    return _conflicts(thing, place, band, reach, hand)


@lru_cache(maxsize=64)
def _reach_of(people: tuple[Person, ...]) -> _Reach:
    return _Reach(people)


def _conflicts(thing: Thing, place: Place, band: Band, reach: _Reach, hand: float | None = None) -> list[Conflict]:
    """What is wrong with a height band of a place, or with a `hand` at a height of its own."""
    found = []

    def add(code: ConflictCode, measured: float = 0, limit: float = 0, detail: str = "") -> None:
        found.append(Conflict(code=code, thing=thing.id, space=place.id, measured=measured, limit=limit, detail=detail))

    if set(thing.hazards) & {"fuel", "gas"} and place.where != "outdoors":
        add("fuel", detail=place.where)
    kept = next((reach.kept[h] for h in thing.hazards if h in reach.kept), None)
    foot = _heights(thing, place, reach)[band][0] if hand is None else hand
    if kept and not place.locked and foot < value("reach.locked_above"):
        add("child", foot, value("reach.locked_above"), kept)
    if place.damp and (thing.row.group == "boxes" or "dry" in thing.row.needs):
        add("damp")
    index = _lift(thing, place, band, reach)
    if index > 1:
        add("heavy", thing.piece_mass, thing.piece_mass / index if index != float("inf") else 0)
    size = thing.size or thing.row.size
    if size and size[0] > value("inventory.wide_above") and band in ("high", "top") and not thing.row.long:
        add("wide high", size[0], value("inventory.wide_above"))
    owner = reach.people.get(thing.owner)
    if owner and uses_a_month(thing.frequency) >= 4 and band == "top":
        add("out of reach", foot, reach.of(thing).high, owner.name)
    if "power" in thing.row.needs and not place.sockets and uses_a_month(thing.frequency) >= 4:
        add("no socket")
    return found
