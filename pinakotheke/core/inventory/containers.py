"""Bins, baskets, boxes and jars for what is small and loose.

A container is as wide, deep and high outside as its row says; inside it is less by its walls. Loose things fill it to
a share of its volume. It asks its shelf for its outside size, finger room, and the room its lid wants.
"""

from functools import cache
from math import ceil
from typing import Annotated, Self

from pydantic import Field, StringConstraints, model_validator

from ..base import Frozen, Id, Mm, Name, PositiveMm
from ..errors import Refusal
from ..house import HouseRules
from ..tables import rows, value
from .needs import Need, layers
from .owned import Lid, Owned
from .things import Thing

OWN = "own-"
"""How the id of a household's own container begins."""
LOOSE_LITRES, LOOSE_MM = 2.5, 240
"""A piece no bigger than this, and no longer on any side, is small and loose; this project's own."""
GROUPS_ALONE = frozenset({"shoes", "books", "tableware"})
"""Kinds that stand on a shelf by themselves though they are small."""


class Container(Frozen):
    """One row of `tables/containers.csv` or of a supplier's list; outside sizes in mm, `price` in the household's
    currency.
    """

    id: Id
    name: Name
    width: PositiveMm
    depth: PositiveMm
    height: PositiveMm
    wall: Mm
    lid: Lid = "none"
    handle: bool = False
    material: Annotated[str, StringConstraints(max_length=40)] = ""
    see_through: bool = False
    price: Annotated[float, Field(ge=0, le=1_000_000)]
    at_hand: bool = False
    """The household has it already."""

    @model_validator(mode="after")
    def _holds_something(self) -> Self:
        if min(self.inside) <= 0:
            raise Refusal("container.nothing-inside", name=self.name, wall=self.wall)
        return self

    @property
    def inside(self) -> tuple[float, float, float]:
        """Width, depth and height inside, mm."""
        return self.width - 2 * self.wall, self.depth - 2 * self.wall, self.height - self.wall

    @property
    def room_above(self) -> float:
        """Free height it wants above itself: to tilt it out, or its own height again for a lid that lifts off."""
        over = value("fold.over_box")
        return over + (self.height * value("fold.lid_lift") if self.lid == "screw" else 0.0)


@cache
def containers() -> dict[str, Container]:
    """Every container that ships, by id."""
    found = {}
    for row in rows("containers"):
        flags = {key: row[key] == "yes" for key in ("handle", "see_through")}
        found[row["id"]] = Container.model_validate({**{k: v for k, v in row.items() if k != "basis"}, **flags})
    return found


def owned_container(owned: Owned) -> Container:
    """A container the household has already; it costs nothing."""
    width, depth, height = owned.size
    return Container(at_hand=True, id=OWN + owned.id, name=owned.name, width=width, depth=depth, height=height,
                     wall=value("inventory.container_wall"), lid=owned.lid, handle=False, material="own",
                     see_through=False, price=0)  # fmt: skip


def is_loose(thing: Thing) -> bool:
    """Whether a thing is better kept in a container than by itself on a shelf: several small pieces that do not
    stand, break or hang.
    """
    size = thing.size or thing.row.size
    if size is None or thing.count < 3 or thing.row.group in GROUPS_ALONE or thing.row.upright:
        return False
    if not {"shelf", "box"} & set(thing.row.ways) or "breaks" in thing.row.hazards:
        return False
    return max(size) <= LOOSE_MM and size[0] * size[1] * size[2] / 1e6 <= LOOSE_LITRES


def boxes_for(thing: Thing, container: Container, count: int) -> int | None:
    """How many containers take so many pieces; None when a piece does not lie in it."""
    each = in_one(thing, container)
    return ceil(count / each) if each else None


def in_one(thing: Thing, container: Container) -> int:
    """How many pieces one container takes; 0 when a piece does not lie in it."""
    size = thing.size or thing.row.size
    if size is None or any(a > b for a, b in zip(sorted(size), sorted(container.inside), strict=True)):
        return 0
    w, d, h = container.inside
    return int(w * d * h * value("design.box_walls") / max(size[0] * size[1] * size[2], 1.0))


def stacked(thing: Thing, container: Container, rules: HouseRules) -> int:
    """How many of a container stand on each other: what has no lid to stand on stands alone."""
    return layers(thing, rules) if container.lid != "none" else 1


def boxed(thing: Thing, container: Container, count: int, rules: HouseRules, turned: bool = False) -> Need | None:
    """The need of so many pieces kept in containers side by side, on each other where the house allows it; None when
    they do not go in.
    """
    number = boxes_for(thing, container, count)
    if number is None:
        return None
    width, depth = (container.depth, container.width) if turned else (container.width, container.depth)
    high = min(stacked(thing, container, rules), number)
    return Need(
        way="box", count=count, amount=ceil(number / high) * (width + value("fold.beside_box")),
        clear=high * container.height + container.room_above, depth=depth, piece_width=width,
        mass=count * thing.piece_mass + number * 0.3, per_stack=high,
    )  # fmt: skip
