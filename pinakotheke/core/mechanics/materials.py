"""What boards are made of: the rows of `tables/boards.toml`."""

from functools import cache
from typing import Literal, get_args

from ..base import Frozen
from ..tables import load

Grade = Literal["particleboard", "mdf", "spruce-plywood", "birch-plywood", "pine", "oak"]
GRADES: tuple[Grade, ...] = get_args(Grade)


class Board(Frozen):
    """One grade of board: moduli and permissible bending stress in N/mm², density in kg/m³."""

    name: str
    modulus: float
    shear: float
    bending: float
    density: float
    creep: float
    """k_def: years of load make so many times more of a deflection."""
    poisson: float
    thicknesses: tuple[int, ...]
    """Sold so thick, mm."""
    price: float
    """Times that of particleboard, of the same thickness."""
    basis: str
    source: str


@cache
def boards() -> dict[Grade, Board]:
    """Every grade."""
    return {grade: Board.model_validate(load("boards")[grade]) for grade in GRADES}
