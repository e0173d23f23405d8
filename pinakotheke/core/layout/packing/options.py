"""Every way a group may be kept in a bay of a kind: what the search chooses from.

An option says how pieces stand (role, way, turned, in what container), how many share one column of a compartment and
how wide that is, and between which feet its compartment may stand. What must never be (a hazard in a child's grip, a
daily thing out of reach, a heavy one above the elbow, what comes out higher than the door) is not an option at all, so
no price buys it. Everything comes from `fits`, `trouble` and `limits`, which the verifier and the checks use as well.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import partial
from math import ceil, floor, inf

from ...inventory import Thing, uses_a_month
from ...inventory.containers import Container, boxes_for, containers, is_loose
from ...inventory.kinds import Way
from ...inventory.needs import ways
from ...systems import FRONTS, HANGING, Bay, Family, Holder, Part
from ...tables import value
from .fits import Ask, ask, front_for, in_column, misfit, position
from .limits import Limits
from .task import Household
from .trouble import near_power, troubles, zone_of

WIDE = 20_000
"""Wider than any bay, mm."""
TURNABLE: frozenset[Way] = frozenset({"box", "floor", "hook", "shelf", "drawer"})
SAME = 1e-6


@dataclass
class Option:
    """One way to keep pieces of one group in a bay of one kind. It is never changed once it is made; it is not frozen
    because a search makes ten thousand of them, and a frozen one takes five times as long.
    """

    role: Holder
    way: Way
    turned: bool
    container: str
    each: int
    """Pieces that share one column: a stack, rows one behind the other, a box."""
    step: float
    """Width of a column in the compartment's own unit, mm or mm² of a drawer's floor."""
    mass: float
    """Kilograms a piece."""
    tare: float
    """Kilograms of the containers of one column."""
    above: int
    """Pitches from the part up to the top of what its compartment takes."""
    below: int
    """For what hangs: pitches from the compartment's foot to the part."""
    front: int
    height: int
    """Of the part itself, mm."""
    lowest: int
    highest: int
    """Feet, in pitches above the bay's, between which its compartment may stand; `highest` is no less than the bay's
    height where nothing but that limits it."""
    near: int
    far: int
    """Feet between which whoever takes it out often reaches it."""
    put_by: float
    """How much it belongs over what is taken out daily, from 0 to 1; `up` is the foot from which it is."""
    up: int
    on_top: bool
    """Whether it lies on a top."""
    troubles: tuple[float, ...]
    """Points when the compartment stands so many pitches up."""
    rank: int
    """0 for the way the house keeps such things, 1 for the next best, and so on."""
    wide: float
    """The widest rigid piece, mm."""
    one: float
    """Kilograms of one piece, with its container."""
    capacity: float = 0.0
    rating: float = 0.0
    price: float = 0.0
    hours: float = 0.0
    """What a compartment of a bay so wide is: see `fitted`."""
    deep: int = 0
    """Of a board that is cut as deep as it needs be, how deep that is; 0 for all others."""
    extra: float = 0.0
    """Money for the container of a column."""
    at_hand: bool = False
    """Its containers are the household's own."""

    def but(self, **changes: object) -> "Option":
        """The same with some changes: as `dataclasses.replace`, in a tenth of its time."""
        other = object.__new__(Option)
        other.__dict__ = self.__dict__ | changes
        return other

    def is_like(self, other: "Option") -> bool:
        """Whether it keeps things as another one does, in a bay of another size."""
        mine, theirs = ((o.role, o.way, o.turned, o.container, o.deep > 0) for o in (self, other))
        return mine == theirs


def kind_of_bay(bay: Bay, sockets: tuple[tuple[str, float], ...]) -> tuple[object, ...]:
    """What of a bay decides its options: all but where it stands, how high and how wide it is. Where something wants a
    socket, it is also whether one is near; `sockets` are empty where nothing does.
    """
    return (bay.family, bay.depth, bay.hang_depth, bay.z0, bay.pitch, bay.pulls, bay.has_base, bay.first,
            bay.blind > 0, bay.loose, bay.foot, bay.trim, bay.fronts, bay.free_end,
            bay.runs_to, bay.open_boards, bay.sloped, bay.board, near_power(bay, sockets) if sockets else None)  # fmt: skip


def size_of_bay(bay: Bay) -> tuple[object, ...]:
    """What else of a bay decides what its compartments take, carry and cost."""
    return bay.w, bay.blind, tuple((a - bay.x, b - bay.x, c, d) for a, b, c, d in bay.cuts)


def fitted(options: list[Option], bay: Bay, home: Household, alike: object) -> list[Option]:
    """Those of a kind's options that a bay of this width has, with what its compartments take, carry and cost; but for
    those that another one of the same compartment beats. `alike` is what bays share that have the same ones.
    """
    family, found = home.families.of(bay), []
    component = partial(home.cache.component, family, alike=alike)
    for o in options:
        spec = family.spec(o.role)
        if bay.w < spec.least_width or o.wide > family.clear_width(o.role, bay) - bay.blind * 0.5:
            continue
        price, capacity, rating, hours, _ = component(o.role, bay, o.front)
        if o.role == "base" and "shelf" in family.specs:
            price = component("shelf", bay, 0).price  # a base is reckoned as a shelf that is there
        boards = [(0, price, rating)]
        if o.deep:
            cut = component(o.role, bay, o.front, depth=o.deep)
            # A board that is cut may carry less; what is heavy then lies on one that is not.
            heaviest = capacity // o.step * (o.each * o.mass + o.tare)
            boards = [(o.deep, cut.price, min(cut.rating, rating)), *(boards if cut.rating < heaviest else ())]
        found += [
            o.but(deep=deep, capacity=capacity, rating=bears, price=costs, hours=hours)
            for deep, costs, bears in boards if o.step <= capacity and o.one <= bears
        ]  # fmt: skip
    return [o for o in found if not any(_beats(p, o) for p in found if p is not o)]


def options(thing: Thing, bay: Bay, home: Household, limits: Limits) -> list[Option]:
    """All options of a thing in a bay of this kind, however wide it is."""
    wide = bay.model_copy(update={"w": WIDE, "cuts": (), "blind": min(bay.blind, 1)})
    family = home.families.of(bay)
    found: list[Option] = []
    for rank, way, container in _ways(thing, home):
        for role in _roles(family, way, bay, home, _is_for_base(thing, family)):
            for turned in (False, True) if way in TURNABLE and not thing.row.upright else (False,):
                one = _option(thing, rank, way, role, family, wide, home, limits, turned, container)
                if one is not None:
                    found.append(one.but(troubles=_troubles(thing, one, family, bay, home)))
    return found


def _beats(one: Option, other: Option) -> bool:
    """Whether an option of the same compartment is nowhere worse, and somewhere better."""
    if (one.role, one.container) != (other.role, other.container):
        return False
    if (one.deep > 0) != (other.deep > 0):
        return False
    mine = (one.rank, one.step / one.each, one.step, one.above + one.below, one.front)
    theirs = (other.rank, other.step / other.each, other.step, other.above + other.below, other.front)
    return mine != theirs and all(a <= b for a, b in zip(mine, theirs, strict=True))


def _ways(thing: Thing, home: Household) -> Iterator[tuple[int, Way, Container | None]]:
    """Ways to keep a thing with their rank, and in which container. What the house hangs is hung: other ways are no
    options unless a person folds it, or the household lets it.
    """
    wanted = ways(thing, home.rules)
    if wanted[0] == "hang" and not home.folds:
        wanted = ("hang",)
    for rank, way in enumerate(wanted):
        yield rank, way, None
    if is_loose(thing) and thing.way in (None, "shelf", "box") and (wanted[0] != "hang" or home.folds):
        here = [c for t, c in home.owned if t == thing.id]
        range_ = sorted(home.to_buy or containers().values(), key=lambda c: _waste(thing, c))[:2]
        for box in (*here, *range_):
            if boxes_for(thing, box, thing.count) is not None:
                yield (0 if wanted[0] in ("shelf", "box") else len(wanted)), "box", box


def _waste(thing: Thing, container: Container) -> float:
    """Price and empty room of the containers a thing would take: the fitting ones first."""
    number = boxes_for(thing, container, thing.count)
    if number is None:
        return inf
    w, d, h = container.inside
    return number * (container.price + w * d * h / 1e6)


def _roles(family: Family, way: Way, bay: Bay, home: Household, bases: bool) -> Iterator[Holder]:
    """Compartments that take a way of storing; a base is a shelf at the foot, and stands for itself where it takes what
    a shelf does not, or where `bases` are asked for by themselves.
    """
    shelf = family.specs.get("shelf")
    for role, spec in family.specs.items():
        if way not in spec.ways:
            continue
        if spec.on_floor and bay.z0 > 0:
            continue  # a storey has no floor of its own
        if role == "floor" and way != "floor" and (home.damp or home.rules.floor == "clear"):
            continue
        if role == "base" and (not bay.has_base or (shelf is not None and way in shelf.ways and not bases)):
            continue
        yield role


def _is_for_base(thing: Thing, family: Family) -> bool:
    """Whether a group is worth an option on the base by itself: where that carries more than an added shelf, and all of
    it is heavy for one, or the base is a shelf that is there anyhow.
    """
    base, shelf = family.specs.get("base"), family.specs.get("shelf")
    if base is None or shelf is None or base.rating <= shelf.rating:
        return False
    return family.on_what_is_there or thing.count * thing.piece_mass > shelf.rating / 2


def _option(thing: Thing, rank: int, way: Way, role: Holder, family: Family, bay: Bay, home: Household, limits: Limits,
            turned: bool, container: Container | None) -> Option | None:  # fmt: skip
    def asked(count: int) -> Ask:
        return ask(thing, way, role, family, bay, home.rules, count, turned=turned, container=container)

    one = asked(1)
    each = min(thing.count, in_column(thing, way, role, family, bay, home.rules, turned=turned, container=container))
    full = asked(each)
    tare = full.mass - each * thing.piece_mass if container is not None else 0.0
    if misfit(thing, way, role, full, family, bay) is not None:
        return None
    front = front_for(family, role, full)
    part = home.cache.component(family, role, bay, front).part
    units, below = heights(family, part, bay, full)
    lowest, highest = feet(family, role, bay, below)
    height = front or family.height(role, bay)
    at = _hand_at_zero(role, bay, height, below)
    near, far = 0, PITCHES
    for bound in limits.bounds(thing, role, bay, family, full):
        low, high = (min(max(mm, -NO_LIMIT), NO_LIMIT) for mm in (bound.low, bound.high))
        least, most = ceil((low - at) / bay.pitch - SAME), floor((high - at) / bay.pitch + SAME)
        if bound.is_never:
            lowest, highest = max(lowest, least), min(highest, most)
        else:
            near, far = max(near, least), min(far, most)
    if lowest > highest:
        return None
    put_by, up = _put_by(thing, role), 0
    if put_by:
        up = max(0, ceil((zone_of(thing, home.people, role, bay, family).easy_high - at) / bay.pitch - SAME))
    return Option(
        role=role, way=way, turned=turned, container=container.id if container else "", each=each, step=one.amount,
        mass=(full.mass - tare) / each, tare=tare, above=units - below, below=below, front=front, lowest=lowest,
        highest=highest, near=near, far=far, put_by=put_by, up=up, on_top=bool(family.lies_on), troubles=(),
        height=height, rank=rank, wide=full.width, one=one.mass, deep=_cut(family, role, bay, full),
        extra=container.price if container is not None else 0.0,
        at_hand=container is not None and container.at_hand,
    )  # fmt: skip


def _cut(family: Family, role: Holder, bay: Bay, full: Ask) -> int:
    """The least depth of a board under a full column of a thing; 0 where it is not cut, or not less."""
    if role != "shelf":
        return 0
    asked = full.depth + family.spec(role).back
    return next((d for d in family.board_depths(bay) if d >= asked), 0)


def _put_by(thing: Thing, role: Holder) -> float:
    """How much a thing belongs over what is taken out daily: what is seldom wanted, not heavy, and not hung."""
    if role in HANGING or thing.row.low or "floor" in thing.row.ways or thing.piece_mass >= value("design.heavy"):
        return 0.0
    uses = uses_a_month(thing.frequency)
    return 1.0 if uses < uses_a_month("monthly") else 0.5 if uses < uses_a_month("weekly") else 0.0


NO_LIMIT = 1e6
PITCHES = 160
"""More pitches than any bay is high."""


def _troubles(thing: Thing, o: Option, family: Family, bay: Bay, home: Household) -> tuple[float, ...]:
    """Trouble at every foot; remembered for the search by all that decides it, since things of one owner and use
    share it.
    """
    powered = bool(home.sockets) and "power" in thing.row.needs
    key = (thing.owner, thing.frequency, thing.row.low, thing.hazards, o.role, family.id, o.height, bay.z0, o.below,
           bay.pitch, bay.depth, bay.hang_depth, bay.foot, bay.blind > 0,
           near_power(bay, home.sockets) if powered else None)  # fmt: skip
    known = home.cache.troubles.get(key)
    if known is None:
        places = [bay.z0 + (foot + o.below) * bay.pitch for foot in range(PITCHES + 1)]
        points = troubles(thing, o.role, places, o.height, bay, family, home.people, home.sockets)
        known = home.cache.troubles[key] = tuple(points)
    return known


def _hand_at_zero(role: Holder, bay: Bay, height: int, below: int) -> float:
    """Height of the hand over the room's floor when the compartment's foot is the bay's own."""
    at = bay.z0 + below * bay.pitch
    return bay.foot + (at if role in HANGING else at + height)


def feet(family: Family, role: Holder, bay: Bay, below: int) -> tuple[int, int]:
    """Least and greatest foot of a compartment in a bay, in pitches; the bay's own height is left out."""
    on_floor = family.spec(role).on_floor or role == "base"
    # A grid of holes may begin below the board that stays; what hangs hangs no lower than that.
    bottom = 1 if bay.z0 < 0 < below else 0
    lowest = 0 if on_floor else max(bottom, ceil(bay.first / bay.pitch) - below)
    return lowest, 0 if on_floor else PITCHES


def heights(family: Family, part: Part, bay: Bay, a: Ask) -> tuple[int, int]:
    """(pitches in all, pitches below the part) of a compartment that holds just this."""
    low, high = family.takes(part, 0 if part.role in FRONTS else a.clear)
    at = position(part, bay)
    below = ceil((at - low) / bay.pitch) if part.role in HANGING else 0
    return below + ceil((high - at) / bay.pitch), below
