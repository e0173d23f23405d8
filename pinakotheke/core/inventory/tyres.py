"""Tyre size codes: `205/55 R16` is 205 mm wide, its side wall 55 % of that, on a rim of 16 inches.

Outside diameter = rim × 25.4 + 2 × width × aspect ÷ 100 (derived from the code's meaning, ISO 4000-1).
"""

import re

from ..base import Frozen

_CODE = re.compile(r"\b(?P<width>\d{3})\s*/\s*(?P<aspect>\d{2})\s*Z?R\s*(?P<rim>\d{2})\b", re.IGNORECASE)


class Tyre(Frozen):
    """Width and outside diameter in mm."""

    code: str
    width: float
    diameter: float

    @property
    def size(self) -> tuple[float, float, float]:
        """Width, depth and height of a standing tyre seen along the wall, mm."""
        return (self.width, self.diameter, self.diameter)


def read_tyre(text: str) -> Tyre | None:
    """The first tyre code in a text, or None.

    >>> read_tyre("4 tyres 205/55 R16").diameter, read_tyre("4 tyres")
    (631.9, None)
    """
    match = _CODE.search(text)
    if match is None:
        return None
    width, aspect, rim = (int(match[name]) for name in ("width", "aspect", "rim"))
    diameter = round(rim * 25.4 + 2 * width * aspect / 100, 1)
    return Tyre(code=f"{width}/{aspect} R{rim}", width=width, diameter=diameter)
