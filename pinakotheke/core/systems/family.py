"""What every family of parts can be asked."""

from abc import ABC, abstractmethod
from decimal import Decimal
from typing import Any

from ..base import Frozen
from ..survey import Envelope
from ..tables import load
from .parts import Bay, Part, Role

CENT = Decimal("0.01")


class Shape(Frozen):
    """Height and depth chosen for a run; `height` is the top above the floor, mm."""

    height: int
    depth: int
    member: int
    """What is bought: the carcase's height, or the standard's length."""


class Component(Frozen):
    """What one compartment of a role costs and carries in a given bay."""

    role: Role
    item: str
    height: int
    """Thickness of the part itself, mm."""
    price: Decimal
    rating: float
    """Kilograms, everything in or on it together."""
    capacity: float
    """mm of rail or shelf, or mm² of drawer floor."""


class Family(ABC):
    """A family of parts; its numbers stand in `tables/<id>.toml`."""

    id: str
    roles: frozenset[Role]
    """Compartments it can make."""
    stands: bool
    """Whether it stands on the floor; a household that keeps its floor clear has none of it."""

    @property
    def table(self) -> dict[str, Any]:
        """Its table."""
        return load(self.id)

    @property
    def name(self) -> str:
        """Its name for people."""
        return str(self.table["name"])

    @property
    @abstractmethod
    def modules(self) -> tuple[int, ...]:
        """Widths a bay can have along the run, ascending."""

    @property
    @abstractmethod
    def ends(self) -> int:
        """Run length taken beside the modules themselves, mm."""

    @abstractmethod
    def shapes(self, envelope: Envelope) -> tuple[Shape, ...]:
        """Heights and depths that stand in the envelope, tallest and deepest first; empty when none does."""

    @abstractmethod
    def stretches(self, envelope: Envelope, shape: Shape) -> tuple[tuple[int, int], ...]:
        """x ranges in which modules may stand side by side."""

    @abstractmethod
    def allows(self, envelope: Envelope, shape: Shape, x: int, widths: tuple[int, ...]) -> bool:
        """Whether a row of modules may begin at x in its stretch."""

    @abstractmethod
    def bays(self, envelope: Envelope, shape: Shape, rows: tuple[tuple[int, tuple[int, ...]], ...]) -> tuple[Bay, ...]:
        """The bays of rows of modules, each row a start x and its widths."""

    @abstractmethod
    def structure(self, envelope: Envelope, shape: Shape, bays: tuple[Bay, ...]) -> tuple[Part, ...]:
        """The parts that stand whatever is stored: frames, plinths, fillers, track, standards."""

    @abstractmethod
    def component(self, role: Role, bay: Bay, drawer_front: int = 0) -> Component:
        """What a compartment of this role is in this bay."""

    @abstractmethod
    def brackets(self, part: Part, bay: Bay) -> tuple[Part, ...]:
        """Parts that come with a placed compartment, such as the brackets under a shelf."""

    @abstractmethod
    def price(self, part: Part) -> Decimal:
        """Price of one placed part; zero for what comes with another."""

    def smallest(self) -> int:
        """Least run length in which one module stands."""
        return self.modules[0] + self.ends

    def clear_width(self, role: Role, bay: Bay) -> float:
        """Width in mm that things have inside a compartment of this role."""
        return bay.w - 2 * self.table["runner_side"] if role in ("drawer", "tray") else bay.w

    def clear_depth(self, role: Role, bay: Bay) -> float:
        """Depth in mm that things have in a compartment of this role."""
        if role == "rail":
            return bay.hang_depth
        return bay.depth - self.table["drawer_back_gap"] if role in ("drawer", "tray") else bay.depth

    def priced(self, key: str, *, area_mm2: float = 0, length_mm: float = 0) -> Decimal:
        """Fixed price plus price per m² or per m from the table, to the cent."""
        row = self.table["price"][key]
        total = row.get("fixed", 0) + row.get("per_m2", 0) * area_mm2 / 1e6 + row.get("per_m", 0) * length_mm / 1e3
        return Decimal(str(total)).quantize(CENT)


def blocked_heights(envelope: Envelope, x0: int, x1: int, y1: int) -> tuple[tuple[int, int], ...]:
    """Height ranges closed to a bay over x0..x1 reaching from the back of the clear space to y1."""
    return tuple(
        sorted((c.z0, c.z1) for c in envelope.closed
               if c.x0 < x1 and x0 < c.x1 and c.y0 < y1 and envelope.y_from < c.y1)
    )  # fmt: skip


def comes_out(envelope: Envelope, x0: int, x1: int) -> bool:
    """Whether something x0..x1 wide slides out clear of returns and an open door."""
    return envelope.pull_from <= x0 and x1 <= envelope.pull_to
