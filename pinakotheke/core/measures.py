"""Volumes and masses in the units a household speaks in. Exact: 1 ft = 304.8 mm, 1 lb = 0.45359237 kg (international
yard and pound agreement of 1959), 1 US liquid quart = 57.75 in³ (from memory).
"""

import re

from .errors import CallOutError
from .lengths import Units

LITRES_PER_CUBIC_FOOT = 0.3048**3 * 1000
LITRES_PER_QUART = 57.75 * 0.254**3
KG_PER_POUND = 0.45359237
SMALL_LITRES = 4.0
"""Less than this is said in quarts."""

_MASS = re.compile(
    r"^(?P<number>\d+(?:[.,]\d+)?|\.\d+)\s*(?P<unit>kg|kilos?|g|grams?|lbs?|pounds?|oz|ounces?)?"
    r"(?:\s+(?P<ounces>\d+(?:[.,]\d+)?)\s*(?:oz|ounces?))?$",
    re.IGNORECASE,
)
_KG = {"k": 1.0, "g": 0.001, "l": KG_PER_POUND, "p": KG_PER_POUND, "o": KG_PER_POUND / 16}


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


def parse_mass(text: str, units: Units = "metric") -> float:
    """Kilograms of a mass as people write it; a bare number is kilograms, in an imperial household pounds. Raises
    `CallOutError` with the mend for what is none.

    >>> parse_mass("2 lb"), parse_mass("1,5"), parse_mass("1 lb 8 oz"), parse_mass("250 g")
    (0.90718474, 1.5, 0.680388555, 0.25)
    """
    match = _MASS.match(text.strip())
    bare = "k" if units == "metric" else "l"
    unit = ((match["unit"] if match else None) or bare)[0].lower()
    if match is None or (match["ounces"] and unit not in "lp"):
        raise CallOutError(text, f"“{text.strip()}” is no mass", "Write 2.5 kg, 250 g, 2 lb or 1 lb 8 oz.")
    kg = float(match["number"].replace(",", ".")) * _KG[unit]
    return kg + (float(match["ounces"].replace(",", ".")) * _KG["o"] if match["ounces"] else 0.0)
