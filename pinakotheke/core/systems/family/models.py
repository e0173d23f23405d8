"""Values that families share: finish, shape, row, and the typed table that every family's numbers stand in."""

from decimal import Decimal
from typing import Annotated, Literal

from pydantic import Field

from ...base import Frozen
from ...errors import NotHere
from ...house import HouseRules
from ...inventory.kinds import Way
from ...mechanics.shelves import USUAL, ShelfMake
from ..roles import Holder

Money = Annotated[float, Field(ge=0, le=1_000_000)]


class Finish(Frozen):
    """How a design is finished: what a person chooses beside the storage itself."""

    doors: Literal["none", "hinged", "sliding", "curtain"] = "none"
    base: Literal["plinth", "legs"] = "plinth"
    fronts: Literal["solid", "glass", "mesh"] = "solid"
    crown: bool = False
    lights: bool = False
    fascia: bool = False
    """Strips over standards and shelf edges: they look rich and make drawers narrower."""
    ventilated: bool = False
    """Open wire or slats instead of boards."""
    sloped_shoes: bool = False
    """Shoe shelves that slope toward the hand instead of flat ones: the pairs are seen, and take more height."""
    shelves: ShelfMake = USUAL
    """What shelves are made of, where a family cuts them from boards."""
    strip: Annotated[int, Field(ge=2, le=20)] = 6
    """Thickness of the strips that part a drawer, mm."""

    @classmethod
    def of_house(cls, rules: HouseRules) -> "Finish":
        """As a household finishes its spaces where nobody says otherwise."""
        return cls(doors=rules.doors, shelves=rules.limits.shelves)


class Shape(Frozen):
    """Height and depth chosen for a row; `height` is the top above the floor, `setback` how far it stands out from the
    back of the clear space, mm. A row of boards cut to a slope may be one storey of several: it begins at `foot`, and
    the boards of its `cut` end run on until they meet the ceiling (*level*: the lowest storey, from wall to wall).
    """

    height: int
    depth: int
    member: int
    """What is bought: the carcase's height, or the standard's length; of a storey, to where things may reach."""
    setback: int = 0
    foot: int = 0
    cut: Literal["", "level", "left", "right"] = ""

    @property
    def is_storey(self) -> bool:
        """Whether it is one storey of boards under a slope."""
        return self.foot > 0 or self.cut != ""


class Row(Frozen):
    """Modules side by side: where the row begins and its widths."""

    shape: Shape
    x: int
    widths: tuple[int, ...]

    @property
    def end(self) -> int:
        """x where its last module ends."""
        return self.x + sum(self.widths)


class Spec(Frozen):
    """What a compartment of one role is in one family: a section of the family's table.

    `sides` and `back` are the mm of width and depth lost inside it; `above` what must stay free above it; `price`
    names the row of prices; `cover` whether a column of them needs a board above.
    """

    ways: tuple[Way, ...]
    height: int = 18
    rating: float = 0
    rating_per_m: float = 0
    capacity: Literal["width", "area", "depth"] = "width"
    sides: int = 0
    back: int = 0
    above: int = 0
    peg: int = 0
    """Of hooks: how far above the part's foot the pegs are on which things hang, mm."""
    fronts: tuple[int, ...] = ()
    lost_height: int = 0
    cover: bool = False
    on_floor: bool = False
    kinds: tuple[str, ...] = ()
    """Kinds of things it is made for; empty takes any."""
    ease: float = 1.0
    """Share of the trouble of reaching into it that is left: what comes out to the hand halves it."""
    least_width: int = 0
    least_depth: int = 0
    most_depth: int = 10_000
    hours: float = 0.1


class Component(Frozen):
    """What one compartment of a role costs and carries in a given bay."""

    role: Holder
    item: str
    height: int
    """Thickness of the part itself, or the height of its front, mm."""
    price: Decimal
    rating: float
    """Kilograms, everything in or on it together."""
    capacity: float
    """mm of rail or shelf, or mm² of drawer floor."""
    hours: float


class Rate(Frozen):
    """The price of an article that is cut to size: fixed, per m² and per m; a `pack` is sold whole."""

    fixed: Money = 0
    per_m2: Money = 0
    per_m: Money = 0
    pack: Annotated[int, Field(ge=1, le=10_000)] | None = None


Turn = Literal[
    "base", "hang", "upright", "support", "rail", "board", "insert", "trim", "pull-out", "door", "light", "fill"
]
"""When a part is put up: turns of the order of work that have parts, first to last."""
Screws = Literal["", "along", "upright", "top", "ceiling"]
"""Where screws hold a part to the house: along it, at its upper and lower end, by its top only, or over it; nowhere."""


class Work(Frozen):
    """How a part of one role is put up: its turn, minutes of one person, tools, and the screws it asks for."""

    turn: Turn
    minutes: float
    tools: tuple[str, ...] = ()
    holes: Screws = ""


class Table(Frozen):
    """The numbers of a family: what every family has; a family with more says so in a table of its own kind."""

    name: str
    about: str
    pitch: Annotated[int, Field(gt=0)]
    hours_a_module: float
    heights: tuple[int, ...] = ()
    depths: tuple[int, ...] = ()
    standards: tuple[int, ...] = ()
    foot_gap: int = 0
    fascia: int = 0
    names: dict[str, str] = {}
    compartment: dict[Holder, Spec]
    price: dict[str, Annotated[Rate | dict[str, Money], Field(union_mode="left_to_right")]]
    """By article; of what is sold in fixed sizes, by size."""
    mass: dict[str, float] = {}
    """Kilograms per metre of what is no board."""
    made_by: dict[str, dict[str, str]] = {}
    """Articles of a supplier's list that give a range its sizes."""
    stands_on: dict[str, str] = {}
    sold_by: dict[str, str] = {}
    install: dict[str, Work] = {}
    """How its parts are put up, by role."""
    listed: dict[str, tuple[tuple[int, int, int, float], ...]] = {}
    """Articles of a household's range: width, depth, height (0: cut to measure) and price."""

    def rate(self, article: str) -> Rate:
        """The price of an article that is cut to size; free where it is sold in fixed sizes or not at all."""
        row = self.price.get(article)
        return row if isinstance(row, Rate) else Rate()

    def by_size(self, article: str) -> dict[int, float]:
        """Prices of an article sold in fixed sizes, by size in mm, ascending."""
        row = self.price[article]
        return {} if isinstance(row, Rate) else {int(k): row[k] for k in sorted(row, key=int)}


class NoSuchFamily(NotHere):
    """A design names a family that is not here."""
