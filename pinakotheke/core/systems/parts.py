"""Placed parts and the bays they make."""

from typing import Annotated, Literal

from pydantic import Field

from ..base import Frozen, Id

Role = Literal[
    "frame", "plinth", "filler", "track", "standard", "bracket",
    "base", "shelf", "cover", "rail", "drawer", "tray",
]  # fmt: skip
HOLDERS: frozenset[Role] = frozenset({"base", "shelf", "rail", "drawer", "tray"})
"""Roles that things can be assigned to."""
PULL_OUTS: frozenset[Role] = frozenset({"drawer", "tray"})
"""Roles that slide out and must clear returns and doors."""

Coordinate = Annotated[int, Field(ge=-1000, le=100_000)]
Size = Annotated[int, Field(gt=0, le=100_000)]


class Part(Frozen):
    """A part where it stands: (x, y, z) is its left, back, lower corner; w along x, d along y, h along z; mm.

    `item` names the catalogue row (`carcase.shelf`), `bay` the bay it is in, `fixed_to` what carries it.
    """

    id: Id
    item: Id
    role: Role
    bay: Annotated[int, Field(ge=0, le=200)] | None = None
    x: Coordinate
    y: Coordinate
    z: Coordinate
    w: Size
    d: Size
    h: Size
    fixed_to: str

    def overlaps(self, other: "Part") -> bool:
        """Whether two boxes share volume; touching does not count."""
        return (
            self.x < other.x + other.w and other.x < self.x + self.w
            and self.y < other.y + other.d and other.y < self.y + self.d
            and self.z < other.z + other.h and other.z < self.z + self.h
        )  # fmt: skip


class Bay(Frozen):
    """Room for compartments: `x`..`x + w` inside, `z0`..`z1` clear height, `depth` of shelves, all mm.

    `hang_depth` is the clear depth hung garments may take; `pulls` whether drawers and trays come out here;
    `blocked` the height ranges an obstacle closes, each with its reason.
    """

    index: int
    x: int
    w: int
    y: int
    depth: int
    hang_depth: int
    z0: int
    z1: int
    pitch: int
    pulls: bool
    has_base: bool
    blocked: tuple[tuple[int, int], ...] = ()
