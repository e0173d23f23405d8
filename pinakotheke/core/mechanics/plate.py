"""A board that rests on three of its edges."""

from functools import lru_cache
from math import cosh, pi, sinh

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
    stiffness = modulus * thickness**3 / 12 / (1 - poisson**2)
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
