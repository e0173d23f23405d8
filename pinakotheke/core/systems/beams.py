"""Deflection and bending moment of shelves and rails.

Sources: *Roark's Formulas for Stress and Strain*, table of beam formulas (from memory); any handbook of mechanics.
Units throughout: N, mm, N/mm²; so w is N/mm, I is mm⁴, moments are N·mm and deflections mm. All arguments are
positive; a span or stiffness of zero raises `ValueError`.
"""

from collections.abc import Callable
from functools import lru_cache
from math import cosh, pi, sinh
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


PLATE_TERMS = (1, 3, 5, 7)
"""Of the series: they fall with the fifth power."""
LARGEST_ARGUMENT = 30.0


def sag_on_three_edges(
    load: float, width: float, depth: float, modulus: float, thickness: float, poisson: float
) -> float:
    """Sag in mm at the middle of the free front edge of a plate that rests on its back and both ends, under an even load
    in N/mm²: Levy's series, Timoshenko & Woinowsky-Krieger, *Theory of Plates and Shells*, art. 48 (from memory).

    With a = width, b = depth, D = Et³/12(1 − ν²), α = mπ/a: w = Σ Y(y) sin αx over odd m and
    Y = P + A cosh αy + B αy sinh αy + C sinh αy + E αy cosh αy, P = 4qa⁴/π⁵Dm⁵. The back rests (Y = 0, M = 0: A = −P,
    B = P/2); the front is free (M = 0 and V = 0), which gives C and E.
    """
    return load * _sag_of_one(width, depth, modulus, thickness, poisson)


@lru_cache(maxsize=4096)
def _sag_of_one(width: float, depth: float, modulus: float, thickness: float, poisson: float) -> float:
    """The series for 1 N/mm²: the boards of a design come in few sizes."""
    stiffness = _stiffness(modulus, thickness**3 / 12) / (1 - poisson**2)
    less, total = 1 - poisson, 0.0
    for m in PLATE_TERMS:
        t = m * pi * depth / width
        if t > LARGEST_ARGUMENT:
            break  # of a deep board the higher terms are nothing, and their cosh more than a float holds
        c, s = cosh(t), sinh(t)
        p = 4 * width**4 / (pi**5 * stiffness * m**5)
        # M = 0 and V = 0 at the front, as two equations in C and E.
        m_c, m_e, m_p = less * s, 2 * s + less * t * c, p * (poisson - poisson * c - less * t * s / 2)
        v_c, v_e = -less * c, (1 + poisson) * c - less * t * s
        v_p = -p * less * s - p / 2 * ((1 + poisson) * s - less * t * c)
        by = m_c * v_e - v_c * m_e
        big_c, big_e = (m_p * v_e - v_p * m_e) / by, (m_c * v_p - v_c * m_p) / by
        edge = p - p * c + p / 2 * t * s + big_c * s + big_e * t * c
        total += edge * (1 if m % 4 == 1 else -1)
    return total


def cleated_sag(width: float, depth: float, thickness: float, mass: float) -> Sag:
    """A particleboard shelf on cleats at its back and both ends, `mass` kg spread evenly. That the cleats are screwed
    on makes it stiffer than this.
    """
    modulus, k_def = value("board.particleboard.modulus"), value("board.particleboard.creep")
    load = (mass + shelf_mass(width, depth, thickness)) * value("strength.gravity") / (width * depth)
    sag = sag_on_three_edges(load, width, depth, modulus, thickness, value("board.particleboard.poisson"))
    return Sag(long_term(sag, k_def), width / value("strength.sag"), "resting on three sides")


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
