"""Deflection and bending moment of shelves and rails.

Sources: *Roark's Formulas for Stress and Strain*, table of beam formulas (from memory); any handbook of mechanics.
Units throughout: N, mm, N/mm²; so w is N/mm, I is mm⁴, moments are N·mm and deflections mm. All arguments are
positive; a span or stiffness of zero raises `ValueError`.
"""

from collections.abc import Callable
from math import pi
from typing import NamedTuple

from ..tables import value


class Sag(NamedTuple):
    """What a board bends in years, and what begins to show, mm; `how` it is held, for whoever wants to know why."""

    sag: float
    limit: float
    how: str

    @property
    def shows(self) -> float:
        """Share of the visible limit: over 1 it shows."""
        return self.sag / self.limit


def second_moment_board(width: float, thickness: float) -> float:
    """I = b·t³/12 of a rectangular board, mm⁴."""
    return width * thickness**3 / 12


def second_moment_tube(outside: float, wall: float) -> float:
    """I = π(D⁴ − d⁴)/64 of a round tube, mm⁴."""
    return pi * (outside**4 - (outside - 2 * wall) ** 4) / 64


def sag_simple(load: float, span: float, modulus: float, inertia: float) -> float:
    """δ = 5wL⁴/(384EI): both ends resting, uniform load."""
    return 5 * load * span**4 / (384 * _stiffness(modulus, inertia))


def sag_fixed(load: float, span: float, modulus: float, inertia: float) -> float:
    """δ = wL⁴/(384EI): both ends held, uniform load."""
    return load * span**4 / (384 * _stiffness(modulus, inertia))


def sag_point(force: float, span: float, modulus: float, inertia: float) -> float:
    """δ = PL³/(48EI): both ends resting, load at midspan."""
    return force * span**3 / (48 * _stiffness(modulus, inertia))


def sag_cantilever(load: float, reach: float, modulus: float, inertia: float) -> float:
    """δ = wa⁴/(8EI) at the free end of a cantilever under uniform load."""
    return load * reach**4 / (8 * _stiffness(modulus, inertia))


def moment_simple(load: float, span: float) -> float:
    """M = wL²/8 at midspan, both ends resting."""
    return load * span**2 / 8


def moment_fixed(load: float, span: float) -> float:
    """M = wL²/12 at the held ends (hogging)."""
    return load * span**2 / 12


def long_term(sag: float, k_def: float) -> float:
    """δ·(1 + k_def): the sag after years of load (EN 1995-1-1, 2.2.3)."""
    return sag * (1 + k_def)


def _stiffness(modulus: float, inertia: float) -> float:
    if modulus <= 0 or inertia <= 0:
        raise ValueError(f"modulus and second moment must be positive, got {modulus} and {inertia}")
    return modulus * inertia


def shelf_sag(width: float, depth: float, thickness: float, mass: float) -> float:
    """Long-term midspan sag in mm of a particleboard shelf resting at both ends under `mass` kg spread evenly and
    its own weight.
    """
    modulus, k_def = value("board.particleboard.modulus"), value("board.particleboard.creep")
    load = (mass + shelf_mass(width, depth, thickness)) * value("strength.gravity") / width
    return long_term(sag_simple(load, width, modulus, second_moment_board(depth, thickness)), k_def)


def shelf_mass(width: float, depth: float, thickness: float) -> float:
    """Kilograms of a particleboard shelf."""
    return width * depth * thickness / 1e9 * value("board.particleboard.density")


def board_sag(width: float, depth: float, thickness: float, mass: float) -> Sag:
    """A particleboard shelf that rests at both ends, `mass` kg spread evenly."""
    return Sag(shelf_sag(width, depth, thickness, mass), width / value("strength.sag"), "resting at both ends")


def cantilever_sag(width: float, reach: float, thickness: float, mass: float) -> Sag:
    """Long-term sag in mm of the front edge of a particleboard shelf `width` mm long that only its back edge holds, as
    a cantilever `reach` mm out from there, under `mass` kg spread evenly and its own weight: δ = wa⁴/(8EI).
    """
    modulus, k_def = value("board.particleboard.modulus"), value("board.particleboard.creep")
    load = (mass + shelf_mass(width, reach, thickness)) * value("strength.gravity") / reach
    sag = sag_cantilever(load, reach, modulus, second_moment_board(width, thickness))
    return Sag(long_term(sag, k_def), reach / value("strength.sag"), "held along its back")


def carries(sags: Callable[[float], tuple[Sag, ...]]) -> float:
    """Kilograms on a shelf before it shows, by the best of the ways in which it is held: each is proportional to the
    load, so one kilogram's sag gives the limit. 0 when its own weight shows already.
    """
    return max(max(0.0, (none.limit - none.sag) / (one.sag - none.sag))
               for none, one in zip(sags(0), sags(1), strict=True))  # fmt: skip


def rail_sag(width: float, mass: float) -> float:
    """Midspan sag in mm of the steel tube resting at both ends, `mass` kg spread evenly."""
    inertia = second_moment_tube(value("rail.outside"), value("rail.wall"))
    return sag_simple(mass * value("strength.gravity") / width, width, value("rail.modulus"), inertia)
