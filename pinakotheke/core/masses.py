"""Reading masses as people write them."""

import re

from .errors import CallOutError
from .units import KG_PER_POUND, Units

_MASS = re.compile(
    r"^(?P<number>\d+(?:[.,]\d+)?|\.\d+)\s*(?P<unit>kg|kilos?|g|grams?|lbs?|pounds?|oz|ounces?)?"
    r"(?:\s+(?P<ounces>\d+(?:[.,]\d+)?)\s*(?:oz|ounces?))?$",
    re.IGNORECASE,
)
_KG = {"k": 1.0, "g": 0.001, "l": KG_PER_POUND, "p": KG_PER_POUND, "o": KG_PER_POUND / 16}


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
        raise CallOutError("mass.none", text, said=text.strip())
    kg = float(match["number"].replace(",", ".")) * _KG[unit]
    return kg + (float(match["ounces"].replace(",", ".")) * _KG["o"] if match["ounces"] else 0.0)
