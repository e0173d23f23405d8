"""Containers, furniture and boards a household has already: they are stock, and offered first."""

from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from ..base import Frozen, Id, Name, PositiveMm
from ..errors import CallOutError
from ..lengths import scan_lengths
from ..mechanics.materials import Grade
from ..tables import value
from ..units import Units
from .things import Thing

Lid = Literal["none", "lift", "screw", "flap"]
OwnedKind = Literal["container", "furniture", "board"]


class Owned(Frozen):
    """So many like containers, pieces of furniture or boards. `size` is outside (of a board its length, width and
    thickness), `inside` what they hold: mm. A board is of a `grade`.
    """

    id: Id
    name: Name
    kind: OwnedKind = "container"
    count: Annotated[int, Field(ge=1, le=1000)] = 1
    size: tuple[PositiveMm, PositiveMm, PositiveMm]
    lid: Lid = "none"
    space: str = ""
    grade: Grade = "particleboard"
    note: Annotated[str, StringConstraints(max_length=200)] = ""

    @property
    def inside(self) -> tuple[float, float, float]:
        """What it holds: its walls taken off."""
        wall = value("inventory.container_wall")
        width, depth, height = self.size
        return (max(width - 2 * wall, 1), max(depth - 2 * wall, 1), max(height - wall, 1))

    @property
    def litres(self) -> float:
        """Inside volume of one."""
        width, depth, height = self.inside
        return width * depth * height / 1e6


def read_size(text: str, units: Units) -> tuple[float, float, float]:
    """An outside size as it is said, *320 x 380 x 220*: width, depth, height in mm; raises `CallOutError`."""
    sides = [length.mm for length in scan_lengths(text, units)]
    if len(sides) != 3:
        raise CallOutError("size.three", text)
    return sides[0], sides[1], sides[2]


class Offer(Frozen):
    """An owned container that a group could go into: so many of them take it all."""

    thing: str
    owned: str
    wanted: int
    free: int


def offers(things: tuple[Thing, ...], stock: tuple[Owned, ...]) -> tuple[Offer, ...]:
    """For each group of small things without a container, the owned one that takes it in the fewest and fullest.

    A piece must lie in the container; pieces fill its volume to the share `inventory.container_fill`. What is in
    use already is not offered again.
    """
    used: dict[str, int] = {}
    for t in things:
        if t.container and t.stays:
            used[t.container] = used.get(t.container, 0) + 1
    free = {o.id: o.count - used.get(o.id, 0) for o in stock if o.kind == "container"}
    found = []
    for thing in things:
        size = thing.size or thing.row.size
        if (
            not thing.stays
            or thing.container
            or size is None
            or "box" in thing.row.ways[:1]
            or thing.row.ways[0] == "hang"
        ):
            continue
        volume = size[0] * size[1] * size[2] * thing.count / 1e6
        fitting = []
        for owned in stock:
            if free.get(owned.id, 0) <= 0 or not _lies_in(size, owned.inside):
                continue
            wanted = max(1, -int(-volume // (owned.litres * value("inventory.container_fill"))))
            if wanted <= free[owned.id]:
                fitting.append((wanted, owned.litres * wanted - volume, owned))
        if fitting:
            wanted, _, owned = min(fitting, key=lambda row: (row[0], row[1]))
            found.append(Offer(thing=thing.id, owned=owned.id, wanted=wanted, free=free[owned.id]))
    return tuple(found)


def _lies_in(size: tuple[float, float, float], inside: tuple[float, float, float]) -> bool:
    """Whether a piece goes in, turned as may be."""
    return all(a <= b for a, b in zip(sorted(size), sorted(inside), strict=True))
