"""Tyre size codes: `205/55 R16` is 205 mm wide, its side wall 55 % of that, on a rim of 16 inches.

Outside diameter = rim × 25.4 + 2 × width × aspect ÷ 100 (derived from the code's meaning, ISO 4000-1). Light trucks
and vans write a `C` behind it or `LT` before it; behind the rim stand load and speed, `91V`; a code without a ratio, as
`185 R14`, has side walls of 82 % (from memory, ETRTO Standards Manual, full-profile tyres).
"""

import re

from ..base import Frozen

FULL_PROFILE = 82
_CODE = re.compile(
    r"(?<!\d)(?P<use>LT|P)?\s*(?P<width>\d{3})\s*(?:/\s*(?P<aspect>\d{2})\s*)?(?P<build>Z?R|-)\s*(?P<rim>\d{2})"
    r"\s*(?P<truck>C|LT)?(?:\s*\d{2,3}(?:\s*/\s*\d{2,3})?\s*[A-Z])?(?![\w/])",
    re.IGNORECASE,
)
"""Use, width, ratio, build, rim, van or light truck, then load index and speed symbol."""


class Tyre(Frozen):
    """Width and outside diameter in mm."""

    code: str
    width: float
    diameter: float
    start: int = 0
    """Where in the text the code begins."""

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
    width, rim = int(match["width"]), int(match["rim"])
    aspect = int(match["aspect"]) if match["aspect"] else FULL_PROFILE
    diameter = round(rim * 25.4 + 2 * width * aspect / 100, 1)
    ratio = f"/{match['aspect']}" if match["aspect"] else ""
    code = f"{(match['use'] or '').upper()}{width}{ratio} R{rim}{(match['truck'] or '').upper()}"
    return Tyre(code=code, width=width, diameter=diameter, start=match.start())
