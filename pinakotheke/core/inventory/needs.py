"""What a number of pieces asks of a compartment, way by way."""

from math import ceil, floor
from typing import Literal, get_args

from ..base import Frozen
from ..errors import Refusal
from ..house import HouseRules
from ..tables import value
from .kinds import Way
from .things import Thing

Storage = Literal["hanging", "folded", "drawers", "shoes", "containers", "hooks", "floor", "overhead"]
STORAGE_OF: dict[Way, Storage] = {
    "hang": "hanging", "shelf": "folded", "drawer": "drawers", "shoe": "shoes", "box": "containers", "hook": "hooks",
    "floor": "floor", "overhead": "overhead",
}  # fmt: skip
STORAGES: tuple[Storage, ...] = get_args(Storage)


class Need(Frozen):
    """What `count` pieces ask, stored one way.

    `amount` is mm of rail (hang), mm of shelf (shelf, shoe, box), mm² of drawer floor (drawer), hooks (hook), mm along
    the floor (floor) or litres (overhead). `clear` is the
    height in mm they take in their compartment with the room to get them out; `depth` how far out they reach;
    `piece_width` the widest rigid piece, which must pass between the sides.
    """

    way: Way
    count: int
    amount: float
    clear: float
    depth: float
    piece_width: float
    mass: float
    per_stack: int = 1

    @property
    def storage(self) -> Storage:
        """The ledger line it belongs to."""
        return STORAGE_OF[self.way]


def needs(thing: Thing, rules: HouseRules, count: int | None = None) -> tuple[Need, ...]:
    """Every way `thing` may be stored under the house rules, preferred first; `count` pieces, or all of them."""
    return tuple(need(thing, way, rules, count) for way in ways(thing, rules))


def preferred(thing: Thing, rules: HouseRules, count: int | None = None) -> Need:
    """The first of its needs: stored the way it is best stored."""
    return need(thing, ways(thing, rules)[0], rules, count)


def ways(thing: Thing, rules: HouseRules) -> tuple[Way, ...]:
    """The ways in order of preference. A stated wish is the only one. What creases is hung; what else can hang is
    hung when the house hangs all that can be hung, and only then.
    """
    if thing.way is not None:
        return (thing.way,)
    row = thing.row
    if "hang" not in row.ways:
        return row.ways
    if row.creases:
        return row.ways if row.ways[0] == "hang" else ("hang", *(w for w in row.ways if w != "hang"))
    if rules.hang == "all-that-can":
        return ("hang", *(w for w in row.ways if w != "hang"))
    return tuple(w for w in row.ways if w != "hang") or row.ways


def need(thing: Thing, way: Way, rules: HouseRules, count: int | None = None, turned: bool = False) -> Need:
    """The need of `count` pieces (all when None) of `thing` stored in `way`; `turned` as `posed` says.

    hang:  amount = count × rail length × hanger factor; clear = hem room + drop + room above the rail.
    shelf: stacks of at most 300 mm, one row; amount = stacks × (width + finger room).
    shoe, box: side by side, one row; small boxes stack when the house is dense.
    hook: one each. floor: side by side with finger room. overhead: its outside volume.
    drawer: stacks as high as the shallowest drawer that takes one piece; amount = stacks × width × depth ÷ fill.
    """
    pieces = thing.count if count is None else count
    mass = pieces * thing.piece_mass
    if way == "hang":
        row = thing.row
        return Need(
            way=way,
            count=pieces,
            amount=pieces * row.rail * value(f"hang.{rules.hangers}"),
            clear=value("hang.below_hem") + row.drop + value("hang.above_rail"),
            depth=value("hang.depth_child" if row.child else "hang.depth"),
            piece_width=0,
            mass=mass,
        )
    width, depth, height = posed(thing, way, turned)
    if way in ("hook", "floor", "overhead"):
        each = {"hook": 1.0, "floor": width + value("fold.between"), "overhead": width * depth * height / 1e6}[way]
        return Need(
            way=way, count=pieces, amount=pieces * each, clear=height + value("fold.over_box"), depth=depth,
            piece_width=width, mass=mass,
        )  # fmt: skip
    if way == "drawer":
        per_stack = max(1, floor(drawer_inside(height) / height))
        stacks = ceil(pieces / per_stack)
        return Need(
            way=way, count=pieces, amount=stacks * width * depth / value("fold.drawer_fill"),
            clear=height, depth=depth, piece_width=width, mass=mass, per_stack=per_stack,
        )  # fmt: skip
    if way == "shelf":
        alone = thing.row.single or thing.row.upright
        per_stack = 1 if alone else max(1, floor(value("fold.stack") / height))
        over, beside = value("fold.over"), 0.0 if thing.row.upright else value("fold.between")
    elif way == "shoe":
        per_stack, over, beside = 1, value("fold.over_shoes"), 0.0
    else:
        per_stack = layers(thing, rules)
        over, beside = value("fold.over_box"), value("fold.beside_box")
    stacks = ceil(pieces / per_stack)
    return Need(
        way=way,
        count=pieces,
        amount=stacks * (width + beside),
        clear=min(per_stack, pieces) * height + over,
        depth=depth,
        piece_width=width,
        mass=mass,
        per_stack=per_stack,
    )


STACKED = frozenset({"boxes", "garage", "seasonal", "toys", "craft", "keepsakes"})
"""Groups of kinds whose boxes carry each other: lidded, alike."""
LIGHT_BOX_KG = 8.0
"""A box no heavier stands on another; common practice."""
DEEP = frozenset({"pantry", "cleaning", "bath", "medicine", "paper", "pets", "wrap"})
"""Groups of kinds that are alike piece by piece: the front one serves for those behind it."""


def layers(thing: Thing, rules: HouseRules) -> int:
    """How many boxes of a thing may stand on each other: two, where they are light and asked for monthly or less, or a
    dense house seldom asks for them.
    """
    if rules.access == "dense" and thing.frequency in ("seasonal", "rarely"):
        return 2
    alike = thing.row.group in STACKED and not thing.row.single and thing.piece_mass <= LIGHT_BOX_KG
    return 2 if alike and thing.frequency in ("monthly", "seasonal", "rarely") else 1


def rows_deep(thing: Thing, way: Way, depth: float, room: float) -> int:
    """How many rows of a thing, each so deep, stand one behind the other in a depth: of what is alike, as many as go in;
    of all else one. Books and folders, clothes and shoes never stand in two rows.
    """
    alike = thing.row.alike or thing.row.group in DEEP
    if way not in ("shelf", "box") or not alike or thing.row.upright:
        return 1
    return max(1, int(room // depth))


def drawer_inside(height: float) -> float:
    """Inside height, mm, of the shallowest usual drawer that takes a piece of `height`; the deepest when none does."""
    inside = [value(f"drawer.{name}") for name in ("shallow", "middle", "deep")]
    return float(next((h for h in inside if h >= height), inside[-1]))


def posed(thing: Thing, way: Way, turned: bool = False) -> tuple[float, float, float]:
    """Width along the wall, depth and height of a piece as it is stored. Overhead it lies flat along the wall; a long
    thing stands on end on the floor. On a hook its narrow side goes along the wall; turned it hangs lengthwise, flat
    against it. Turned elsewhere its side comes to the front.
    """
    width, depth, height = _size(thing)
    low, middle, long = sorted((width, depth, height))
    if way == "overhead":
        return long, middle, low
    if way == "floor" and thing.row.long and width == long:
        width, height = height, width  # it stands on end
    if way == "hook":
        return (long, low, middle) if turned else (min(width, depth), max(width, depth), height)
    return (depth, width, height) if turned else (width, depth, height)


def _size(thing: Thing) -> tuple[float, float, float]:
    size = thing.size or thing.row.size
    if size is None:
        raise Refusal("thing.without-size", name=thing.name)
    return size
