"""The units a household speaks in, and numbers written in them. Exact: 1 in = 25.4 mm, 1 lb = 0.45359237 kg (international
yard and pound agreement of 1959), 1 US liquid quart = 57.75 in³ (from memory).
"""

from collections.abc import Iterable
from fractions import Fraction
from typing import Literal

Units = Literal["metric", "imperial"]

MM_PER_INCH = Fraction(254, 10)
SIXTEENTHS = 16
"""Inches are shown to the nearest 1/16."""

LITRES_PER_CUBIC_FOOT = 0.3048**3 * 1000
LITRES_PER_QUART = 57.75 * 0.254**3
KG_PER_POUND = 0.45359237
SMALL_LITRES = 4.0
"""Less than this is said in quarts."""


def format_length(mm: float, units: Units, *, mark: bool = True) -> str:
    """Write a length in the household's units: `1797` or `70 3/4"` (nearest 1/16 in).

    >>> format_length(1797.05, "imperial"), format_length(1797.05, "metric"), format_length(3.175, "imperial")
    ('70 3/4"', '1797', '1/8"')
    """
    if units == "metric":
        return f"{mm:.0f}" if abs(mm - round(mm)) < 0.05 or abs(mm) >= 100 else f"{mm:.1f}"
    sixteenths = round(Fraction(mm) / MM_PER_INCH * SIXTEENTHS)
    sign, sixteenths = ("-" if sixteenths < 0 else ""), abs(sixteenths)
    whole, rest = divmod(sixteenths, SIXTEENTHS)
    fraction = Fraction(rest, SIXTEENTHS)
    words = [str(whole)] if whole or not rest else []
    if rest:
        words.append(f"{fraction.numerator}/{fraction.denominator}")
    return sign + " ".join(words) + ('"' if mark else "")


def with_units(sides: Iterable[float], units: Units) -> str:
    """Sides of a thing for a line: `320 × 380 × 220 mm`, or each with its inch mark."""
    return " × ".join(format_length(mm, units) for mm in sides) + (" mm" if units == "metric" else "")


def about(sides: Iterable[float], units: Units) -> str:
    """Sides that nobody measured, in round numbers: to 10 mm, or to the inch.

    >>> about((250, 200, 150), "metric"), about((250, 200, 150), "imperial")
    ('250 × 200 × 150 mm', '10" × 8" × 6"')
    """
    step = 10.0 if units == "metric" else float(MM_PER_INCH)
    return with_units((max(1, round(mm / step)) * step for mm in sides), units)


def with_unit(mm: float, units: Units) -> str:
    """A length for a sentence: `1797 mm` or `70 3/4"`."""
    return format_length(mm, units) + (" mm" if units == "metric" else "")


def format_volume(litres: float, units: Units) -> str:
    """`81 litres`, `2.9 cu ft` or `1.1 qt`.

    >>> format_volume(81.4, "metric"), format_volume(81.4, "imperial"), format_volume(1.0, "imperial")
    ('81 litres', '2.9 cu ft', '1.1 qt')
    """
    if units == "metric":
        return f"{litres:.0f} litre{'' if round(litres) == 1 else 's'}"
    if abs(litres) < SMALL_LITRES:
        return f"{litres / LITRES_PER_QUART:.1f} qt"
    return f"{litres / LITRES_PER_CUBIC_FOOT:.1f} cu ft"


def format_mass(kg: float, units: Units) -> str:
    """`31.5 kg` or `69.4 lb`.

    >>> format_mass(31.5, "metric"), format_mass(31.5, "imperial")
    ('31.5 kg', '69.4 lb')
    """
    return f"{kg:.1f} kg" if units == "metric" else f"{kg / KG_PER_POUND:.1f} lb"


PSI_PER_MPA = 145.0377
"""Pounds per square inch of 1 N/mm²: 4.448222 N a pound, 645.16 mm² a square inch."""


def format_stress(mpa: float, units: Units) -> str:
    """A stress of so many N/mm²: `3.0 N/mm²` or `435 psi`."""
    return f"{mpa:.1f} N/mm²" if units == "metric" else f"{mpa * PSI_PER_MPA:.0f} psi"
