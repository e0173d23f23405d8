"""Cross-sections: second moments of area and section moduli."""

from math import pi
from typing import NamedTuple


def second_moment_board(width: float, thickness: float) -> float:
    """I = b·t³/12 of a rectangular board lying flat, mm⁴."""
    return width * thickness**3 / 12


def second_moment_tube(outside: float, wall: float) -> float:
    """I = π(D⁴ − d⁴)/64 of a round tube, mm⁴."""
    return pi * (outside**4 - (outside - 2 * wall) ** 4) / 64


class Lipped(NamedTuple):
    """A board with a lipping: EI in N·mm², and how far its neutral axis lies below its upper face, mm."""

    stiffness: float
    axis: float


def lipped(width: float, thickness: float, modulus: float, lip: float, high: float, lip_modulus: float) -> Lipped:
    """A board with a lipping `lip` thick and `high` glued along its front edge, upper faces flush: the
    transformed section with Steiner's terms (any handbook of mechanics). The lipping stands before the board, so the
    two bend together about their common neutral axis.
    """
    a1, a2 = modulus * width * thickness, lip_modulus * lip * high
    y1, y2 = thickness / 2, high / 2
    axis = (a1 * y1 + a2 * y2) / (a1 + a2)
    own = modulus * second_moment_board(width, thickness) + lip_modulus * second_moment_board(lip, high)
    return Lipped(own + a1 * (y1 - axis) ** 2 + a2 * (y2 - axis) ** 2, axis)
