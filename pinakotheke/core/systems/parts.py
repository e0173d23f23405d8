"""Placed parts and the bays they make."""

from typing import Annotated, Literal, get_args

from pydantic import Field

from ..base import Frozen, Id
from ..mechanics.shelves import USUAL, ShelfMake
from .roles import Role

Surface = Literal["wall", "floor", "ceiling", "drawer", "shelf", "uprights"]
"""What of the house, or of the furniture that is there, may carry a part."""
SURFACES: frozenset[str] = frozenset(get_args(Surface))


class OnPart(Frozen):
    """Carried by another part."""

    part: Id


Coordinate = Annotated[int, Field(ge=-1000, le=100_000)]
Size = Annotated[int, Field(gt=0, le=100_000)]
Cut = tuple[int, int, int, int]
"""A notch in a board: x from, x to, y from, y to."""


class Part(Frozen):
    """A part where it stands in its section: (x, y, z) is its left, back, lower corner; w along x, d along y, h along
    z; mm.

    `item` names the family and the article (`carcase.shelf`), `bay` the bay it is in, `fixed_to` what carries it,
    `cuts` what is cut out of a board around a pipe or a tank.
    """

    id: Id
    item: Id
    role: Role
    section: str = ""
    bay: Annotated[int, Field(ge=0, le=400)] | None = None
    x: Coordinate
    y: Coordinate
    z: Coordinate
    w: Size
    d: Size
    h: Size
    fixed_to: Surface | OnPart
    belongs_to: str = ""
    """The holding part it comes and goes with: a bracket with its shelf, a container with what it stands on."""
    container: str = ""
    """Of a container: which, an id of the design's containers or of the range that ships."""
    hinge: Literal["", "left", "right"] = ""
    """Of a hinged leaf: at which side it hangs."""
    cuts: tuple[Cut, ...] = ()
    mitre: Annotated[int, Field(ge=0, le=89)] = 0
    """Of a board that runs to a sloping ceiling: how steep that is, degrees; its `cut_end` is cut to it."""
    cut_end: Literal["", "left", "right"] = ""
    make: ShelfMake | None = None
    """Of a shelf: what it is made of, where that is not the usual board."""
    locked: bool = False
    """A person fixed it: a new search leaves it and what is in it where it is."""

    @property
    def family(self) -> str:
        """The id of the family it belongs to."""
        return self.item.partition(".")[0]

    @property
    def article(self) -> str:
        """What it is bought as, within its family."""
        return self.item.partition(".")[2]

    @property
    def carrier(self) -> str:
        """The id of the part that carries it; empty when the house does."""
        return self.fixed_to.part if isinstance(self.fixed_to, OnPart) else ""

    def overlaps(self, other: "Part") -> bool:
        """Whether two boxes of one section share volume; touching does not count."""
        return (
            self.section == other.section
            and self.x < other.x + other.w and other.x < self.x + self.w
            and self.y < other.y + other.d and other.y < self.y + self.d
            and self.z < other.z + other.h and other.z < self.z + self.h
        )  # fmt: skip


class Blocked(Frozen):
    """Heights closed to a bay by an obstacle; what is `loose` may stand there all the same where it allows it."""

    low: int
    high: int
    loose: bool = False


class DrawerFloor(Frozen):
    """The floor of a drawer: what lies in its compartments may be `clear` high, mm."""

    clear: int


class Bay(Frozen):
    """Room for compartments: `x`..`x + w` inside, `z0`..`z1` clear height, `depth` of shelves, all mm.

    `hang_depth` is the clear depth hung garments may take; `pulls` whether drawers and trays come out here; `blocked`
    the height ranges an obstacle closes; `first` how far above `z0` the first bracket can stand (what stands on the
    floor stands at `z0`); `blind` how much of the width lies behind a neighbouring run's front. On the
    floor of a drawer `z0`..`z1` is its depth, from back to front.
    """

    index: int = 0
    section: str = ""
    family: str = ""
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
    first: int = 0
    blind: int = 0
    highest: int = 0
    """Of a bay that is open above: no board is fixed higher, and what stands on the highest goes up to `z1`. 0: none is."""
    loose: bool = False
    """On castors: it may stand before what only asks to be reached."""
    last: bool = True
    """Whether it is the last of its row: its right end is no neighbour's."""
    drawer: DrawerFloor | None = None
    """Of a bay that is the floor of a drawer; all others stack upward."""
    foot: int = 0
    """Height above the floor of whatever the section's own heights are counted from."""
    cuts: tuple[Cut, ...] = ()
    locked: bool = False
    trim: int = 0
    """What fascias take of the width of whatever slides out."""
    fronts: Literal["solid", "glass", "mesh"] = "solid"
    free_end: Literal["", "left", "right"] = ""
    """The side where there is neither a wall nor a gable: a bracket carries the boards there."""
    runs_to: tuple[tuple[int, int], ...] = ()
    """Where boards run on beyond the bay to a sloping ceiling: x, and how high the ceiling is from there on."""
    mitre: int = 0
    """How steep that ceiling is, degrees."""
    skirting: int = 0
    """Of boards cut to the wall above a skirting: how much it takes at each side of the floor below them."""
    board: int = 0
    """Thickness of the shelves that are there, and `at_hand` how many: they cost nothing."""
    at_hand: int = 0
    open_boards: bool = False
    """Wire or slats instead of boards, where the family has them."""
    sloped: bool = False
    """Shoe shelves that slope, where the family has them."""
    shelves: ShelfMake = USUAL
    """What its shelves are made of, where its family cuts them from boards."""
    blocked: tuple[Blocked, ...] = ()

    @property
    def axis(self) -> Literal["z", "y"]:
        """Along which its compartments follow each other: upward, or from the back of a drawer to its front."""
        return "z" if self.drawer is None else "y"

    def under(self, part: Part) -> "Bay":
        """As a part in it sees it: over a board that was cut shallower than the others it is no deeper than that; a
        compartment on a drawer's floor is a floor of its own.
        """
        if part.role == "compartment":
            own = DrawerFloor(clear=part.h)
            return self.model_copy(update={"x": part.x, "w": part.w, "y": part.y, "depth": part.d, "hang_depth": part.d,
                                            "z0": part.y, "z1": part.y + part.d, "drawer": own, "blocked": ()})  # fmt: skip
        shallower = part.role == "shelf" and part.d < self.depth and self.drawer is None
        return self.model_copy(update={"depth": part.d}) if shallower else self

    @property
    def pitches(self) -> int:
        """Whole pitches between its foot and its top."""
        return max(0, self.z1 - self.z0) // self.pitch
