"""How much shelves and rails bend, by what they are made of and how they are held.

Deflection and stress by `mechanics`; units N, mm, N/mm²; masses kg. Long-term deflection is δ·(1 + k_def),
EN 1995-1-1, 2.2.3.
"""

from collections.abc import Callable
from typing import NamedTuple

from pydantic import Field, model_validator

from ..base import Frozen
from ..errors import Refusal
from ..tables import value
from .beam import Bent, Load, Support, bend
from .materials import Board, Grade, boards
from .plate import sag_on_three_edges
from .sections import Lipped, lipped, second_moment_board, second_moment_tube

LIP, LIP_HIGH = 18, 32
"""A lipping along a shelf's front edge: a strip of pine so thick and so high, mm; common practice."""
SHEAR_FACTOR = 5 / 6
"""κ of a rectangle."""


class ShelfMake(Frozen):
    """What shelves are made of: grade and thickness in mm, whether a lipping stiffens their front; and from which share of
    the span on (span ÷ `shows`) a sag shows.
    """

    grade: Grade = "particleboard"
    thickness: int = Field(18, ge=10, le=60)
    lipped: bool = False
    shows: int = Field(int(value("strength.sag")), ge=100, le=1000)

    @model_validator(mode="after")
    def _is_sold(self) -> "ShelfMake":
        if self.thickness not in self.board.thicknesses:
            raise Refusal("shelf.not-sold", grade=self.board.name, sizes=list(self.board.thicknesses))
        return self

    @property
    def board(self) -> Board:
        """The properties of its grade."""
        return boards()[self.grade]

    @property
    def is_usual(self) -> bool:
        """Whether it is what every family comes with."""
        return (self.grade, self.thickness, self.lipped) == ("particleboard", 18, False)

    def stiffness(self, depth: float, thickness: float) -> float:
        """EI of a shelf so deep and thick, N·mm²."""
        if not self.lipped:
            return self.board.modulus * second_moment_board(depth, thickness)
        return self._with_lip(depth, thickness).stiffness

    def stress(self, moment: float, depth: float, thickness: float) -> float:
        """Bending stress in N/mm² at the farther face of the board under a moment in N·mm: 6M/bd², or EMy/ΣEI."""
        if not self.lipped:
            return 6 * moment / (depth * thickness**2)
        stiffness, axis = self._with_lip(depth, thickness)
        return self.board.modulus * moment * max(axis, abs(thickness - axis)) / stiffness

    def _with_lip(self, depth: float, thickness: float) -> Lipped:
        return lipped(depth - LIP, thickness, self.board.modulus, LIP, LIP_HIGH, boards()["pine"].modulus)

    def mass(self, width: float, depth: float, thickness: float) -> float:
        """Kilograms of a shelf, its lipping with it."""
        lip = width * LIP * (LIP_HIGH - thickness) / 1e9 * boards()["pine"].density if self.lipped else 0.0
        return width * depth * thickness / 1e9 * self.board.density + lip

    def price(self, thickness: float) -> float:
        """What it costs, times a shelf of the usual board, without its lipping."""
        return self.board.price * thickness / USUAL_THICKNESS


USUAL_THICKNESS = 18
USUAL = ShelfMake()


class Sag(NamedTuple):
    """What a board bends in years, and what begins to show, mm; `how` it is held, for whoever wants to know why."""

    sag: float
    limit: float
    how: str

    @property
    def shows(self) -> float:
        """Share of the visible limit: over 1 it shows."""
        return self.sag / self.limit


def long_term(sag: float, k_def: float) -> float:
    """δ·(1 + k_def): the sag after years of load (EN 1995-1-1, 2.2.3)."""
    return sag * (1 + k_def)


def shelf_bent(make: ShelfMake, width: float, depth: float, thickness: float, supports: tuple[Support, ...],
               loads: tuple[Load, ...]) -> Bent:  # fmt: skip
    """What a shelf does at once under its own weight and `loads` in N, held as it is, shear with it."""
    own = Load(0, width, make.mass(width, depth, thickness) * value("strength.gravity"))
    shear = SHEAR_FACTOR * make.board.shear * depth * thickness
    return bend(width, supports, (own, *loads), make.stiffness(depth, thickness), shear)


def board_sag(make: ShelfMake, width: float, depth: float, thickness: float, mass: float) -> Sag:
    """A shelf that rests at both ends, `mass` kg spread evenly, in years: δ = 5wL⁴/384EI, and wL²/8κGA of shear."""
    load = (mass + make.mass(width, depth, thickness)) * value("strength.gravity") / width
    sag = 5 * load * width**4 / (384 * make.stiffness(depth, thickness))
    sag += load * width**2 / (8 * SHEAR_FACTOR * make.board.shear * depth * thickness)
    return Sag(long_term(sag, make.board.creep), width / make.shows, "resting at both ends")


def cleated_sag(make: ShelfMake, width: float, depth: float, thickness: float, mass: float) -> Sag:
    """A shelf on cleats at its back and both ends, `mass` kg spread evenly. That the cleats are screwed on makes it
    stiffer than this; what a lipping adds is not counted.
    """
    board = make.board
    load = (mass + make.mass(width, depth, thickness)) * value("strength.gravity") / (width * depth)
    sag = sag_on_three_edges(load, width, depth, board.modulus, thickness, board.poisson)
    return Sag(long_term(sag, board.creep), width / make.shows, "resting on three sides")


def carries(sags: Callable[[float], tuple[Sag, ...]]) -> float:
    """Kilograms on a shelf before it shows, by the best of the ways in which it is held: each is proportional to the
    load, so one kilogram's sag gives the limit. 0 when its own weight shows already.
    """
    return max(max(0.0, (none.limit - none.sag) / (one.sag - none.sag))
               for none, one in zip(sags(0), sags(1), strict=True))  # fmt: skip


def rail_sag(width: float, mass: float) -> float:
    """Midspan sag in mm of the steel tube resting at both ends, `mass` kg spread evenly."""
    inertia = second_moment_tube(value("rail.outside"), value("rail.wall"))
    load = mass * value("strength.gravity") / width
    return 5 * load * width**4 / (384 * value("rail.modulus") * inertia)
