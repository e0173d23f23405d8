"""Reading lengths as people hold them.

Units understood: mm, cm, m, inches (`"`, `″`, `in`), feet (`'`, `′`, `ft`), mixed fractions (`70 3/4`, `70-3/4`,
`70¾`). A bare number is the household's small unit; a bare fraction is always inches. All arithmetic is exact
(`fractions.Fraction`, 1 in = 25.4 mm by definition, international yard and pound agreement of 1959) until the
last step. The echo of a parsed length says which unit was understood.
"""

import re
from fractions import Fraction
from math import floor
from typing import NamedTuple

from .base import LONGEST_MM
from .errors import LengthError
from .units import MM_PER_INCH, Units, format_length

MM_PER = {"mm": Fraction(1), "cm": Fraction(10), "m": Fraction(1000), "in": MM_PER_INCH, "ft": 12 * MM_PER_INCH}

_VULGAR = {
    "½": "1/2", "¼": "1/4", "¾": "3/4", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8", "⅓": "1/3", "⅔": "2/3",
    "⅙": "1/6", "⅚": "5/6", "⅕": "1/5", "⅖": "2/5", "⅗": "3/5", "⅘": "4/5",
}  # fmt: skip
_MARKS = str.maketrans({"′": "'", "’": "'", "‘": "'", "″": '"', "”": '"', "“": '"', "⁄": "/", "\u00a0": " ",
                        "\u202f": " ", "\u2009": " ", "–": "-", "−": "-"})  # fmt: skip

_NUMBER = r"\d+(?:[.,]\d+)?|\.\d+"
_FRACTION = r"\d+\s*/\s*\d+"
_INCH_MARK = r"(?:\"|''|inches\b|inch\b|in\b)"
_FEET_MARK = r"(?:'(?!')|feet\b|foot\b|ft\b)"
_LENGTH = re.compile(
    rf"""
    (?:(?P<feet>{_NUMBER})\s*{_FEET_MARK}
        (?:[\s-]*(?:(?P<f_frac>{_FRACTION})|(?P<f_whole>{_NUMBER})(?:[\s-]+(?P<f_part>{_FRACTION}))?)
           (?!\s*(?:mm|cm|m)\b)(?:\s*{_INCH_MARK})?)?
    |(?:(?P<frac>{_FRACTION})|(?P<whole>{_NUMBER})(?:[\s-]+(?P<part>{_FRACTION}))?)
        (?:\s*(?P<unit>mm\b|cm\b|m\b|{_INCH_MARK}))?
    )""",
    re.VERBOSE | re.IGNORECASE,
)


class Length(NamedTuple):
    """A length that was read: exact millimetres, and the unit that was understood."""

    exact_mm: Fraction
    unit: str
    text: str

    @property
    def mm(self) -> float:
        """Millimetres as the models keep them."""
        return float(self.exact_mm)

    @property
    def echo(self) -> str:
        """The reading said back, with the unit that was understood."""
        if self.unit in ("in", "ft"):
            return f"{format_length(self.mm, 'imperial')} ({_plain(self.exact_mm)} mm)"
        return f"{_plain(self.exact_mm)} mm"


def parse_length(text: str, units: Units = "metric") -> Length:
    """Read one length; raises `LengthError` when there is none, or when it could be two.

    >>> parse_length("70 3/4").mm
    1797.05
    >>> parse_length("1797").mm, parse_length("70.75", "imperial").mm
    (1797.0, 1797.05)
    """
    found = scan_lengths(text, units)
    if len(found) > 1:
        raise LengthError("length.two", text.strip())
    return found[0]


def scan_lengths(text: str, units: Units = "metric") -> list[Length]:
    """Read a row of lengths parted by spaces, commas or `x`: `1846 1849 1843`, `70 3/4 70 5/8`, `80 x 80`.

    A whole number followed by a fraction is one length. Raises `LengthError` at the first thing that is none.
    """
    clean = _normalise(text)
    if not clean:
        raise LengthError("length.none", text)
    if re.search(r"(?:^|[\s,;x])-\s*[\d.]", clean):
        raise LengthError("length.negative", text.strip())
    found: list[Length] = []
    at = 0
    while at < len(clean):
        match = _LENGTH.match(clean, at)
        if match is None:
            raise LengthError("length.unknown", text.strip(), rest=clean[at:].strip())
        found.append(_read(match, units))
        gap = re.compile(r"\s*(?:,\s+|[x×]\s*|\s)\s*|$", re.IGNORECASE).match(clean, match.end())
        if gap is None:
            raise LengthError("length.rest", text.strip(), rest=clean[match.end() :].strip())
        at = gap.end()
    return found


def _normalise(text: str) -> str:
    clean = text.translate(_MARKS).strip()
    for glyph, spelled in _VULGAR.items():
        clean = re.sub(rf"(?<=\d)\s*{glyph}", f" {spelled}", clean).replace(glyph, spelled)
    return clean


def _read(match: re.Match[str], units: Units) -> Length:
    text = match.group().strip()
    if match["feet"] is not None:
        feet = _number(match["feet"], text)
        inches = _mixed(match["f_whole"], match["f_part"] or match["f_frac"], text)
        if inches >= 12:
            raise LengthError(
                "length.whole-foot",
                text,
                inches=_plain(inches),
                feet=_plain(feet + floor(inches / 12)),
                rest=_plain(inches % 12),
            )
        if feet.denominator != 1 and inches:
            raise LengthError("length.part-of-a-foot", text)
        return _checked((12 * feet + inches) * MM_PER_INCH, "ft", text)
    fraction = match["part"] or match["frac"]
    value = _mixed(match["whole"], fraction, text)
    unit = (match["unit"] or "").lower()
    if unit in ("mm", "cm", "m"):
        if fraction:
            raise LengthError("length.fraction-of-metric", text, value=_plain(value), unit=unit)
        return _checked(value * MM_PER[unit], unit, text)
    inch = bool(unit) or fraction is not None or units == "imperial"
    return _checked(value * (MM_PER_INCH if inch else 1), "in" if inch else "mm", text)


def _mixed(whole: str | None, fraction: str | None, text: str) -> Fraction:
    value = _number(whole, text) if whole else Fraction(0)
    if fraction is None:
        return value
    above, below = (int(n) for n in fraction.split("/"))
    if below == 0:
        raise LengthError("length.over-nought", text)
    if above >= below:
        raise LengthError(
            "length.whole-inch",
            text,
            above=above,
            below=below,
            meant=format_length(float((value + Fraction(above, below)) * MM_PER_INCH), "imperial"),
        )
    if value.denominator != 1:
        raise LengthError("length.decimal-and-fraction", text)
    return value + Fraction(above, below)


def _number(text: str, whole: str) -> Fraction:
    if re.fullmatch(r"\d+,\d{3,}", text):
        raise LengthError("length.comma", whole, whole=text.replace(",", ""), decimal=text.replace(",", "."))
    if len(text) > 12:
        raise LengthError("length.long-number", whole)
    return Fraction(text.replace(",", "."))


def _checked(mm: Fraction, unit: str, text: str) -> Length:
    if mm > LONGEST_MM:
        raise LengthError("length.too-long", text)
    return Length(mm, unit, text)


def _plain(value: Fraction) -> str:
    return f"{float(value):.4f}".rstrip("0").rstrip(".")
