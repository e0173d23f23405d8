"""Sentences that stand in tables, with numbers put in as the household speaks.

A field of a sentence is `{name}` or `{name:form}`:

    mm, abs, fine      a length; without its sign; with a digit more than a tape has
    nominal            a length of the trade, as a level is sold: in inches the nearest 4
    mms                several lengths, the unit said once
    stress             a stress, from N/mm²
    kg, litres, n, g   a mass, a volume, a whole number, a number without its noughts
    list, words        several words, parted by commas; by spaces
    and, or            several words: `one, two and three`; with *or*
    low                with a small first letter
    ?one|many          the first for 1, else the second
    +over|under        the first for a number above 0, else the second
"""

import re
import string
from collections.abc import Callable, Iterable, Mapping
from itertools import pairwise
from typing import Any

from .units import MM_PER_INCH, Units, format_length, format_mass, format_stress, format_volume, with_unit


def say(sentence: str, facts: Mapping[str, Any], units: Units) -> str:
    """A sentence of a table with its facts."""
    return _Say(units).vformat(sentence, (), facts)


def unsaid(sentence: str) -> str:
    """A sentence of a table before its facts are known: a dash for each, the first form of each choice.

    >>> unsaid("{measured:n} {measured:?bay is|bays are} narrower than {limit:mm}."), unsaid("{part} {detail}.")
    ('… bays are narrower than ….', 'A part ….')
    """
    known = {
        "part": "a part", "person": "somebody", "would": "more of the board", "kind": "screw", "in_bay": "", "note": "",
        "text": "a question that only a person can answer", "by": "somebody", "on": "a day", "mend": "Mend it.",
    }  # fmt: skip

    def shown(name: str, form: str) -> str:
        return form[1:].split("|")[-1] if form.startswith(("?", "+")) else known.get(name, "…")

    parts = string.Formatter().parse(sentence)
    said = "".join(text + (shown(name, form or "") if name is not None else "") for text, name, form, _ in parts)
    return said[:1].upper() + said[1:]


def decimal_length(mm: float, units: Units) -> str:
    """A small length with a digit more than a tape has: `3.2 mm` or `0.13"`."""
    return f"{mm:.1f} mm" if units == "metric" else f'{mm / float(MM_PER_INCH):.2f}"'


def nominal(mm: float, units: Units) -> str:
    """A length as a tool is sold by it: whole millimetres, or the nearest 4 inches.

    >>> nominal(1200, "metric"), nominal(1200, "imperial"), nominal(100, "imperial")
    ('1200 mm', '48"', '4"')
    """
    return f"{mm:.0f} mm" if units == "metric" else f'{round(mm / float(4 * MM_PER_INCH)) * 4}"'


def counted(number: float, one: str, many: str) -> str:
    """The word for one, or for several: none and half are several."""
    return one if round(number) == 1 else many


def lengths_in_words(lengths: Iterable[float], units: Units) -> str:
    """Several lengths in a row: `400, 600 mm`, or each with its inch mark."""
    words = ", ".join(format_length(mm, units) for mm in lengths)
    return f"{words} mm" if units == "metric" else words


_BARE = re.compile(r"(?<![\w./'\"])(\d+)(?![\w/:.]|\s*[/\"'])")
_RUN = re.compile(rf"{_BARE.pattern}(?: {_BARE.pattern})*")
_SIZE = re.compile(r"\d+ x \d+ x \d+")


def in_inches(example: str) -> str:
    """An example whose bare numbers are millimetres, as an inch household would write it: in whole feet and their parts
    where it is one of those, else to the nearest 1/8.

    >>> in_inches("studs 112 then every 600"), in_inches("level 2: width 780"), in_inches("plumb left 4")
    ('studs 4 3/8 then every 24', 'level 2: width 30 3/4', 'plumb left 1/8')
    >>> in_inches("floor 0 4 9 17")
    'floor 0, 1/8, 3/8, 5/8'
    """
    return _RUN.sub(_row_in_inches, example)


def sizes_in_inches(text: str) -> str:
    """The same for sizes alone: other numbers of the text are no lengths."""
    return _SIZE.sub(lambda found: in_inches(found[0]), text)


def _row_in_inches(found: re.Match[str]) -> str:
    """Numbers in a row; commas part them where a fraction would be read as that of the number before."""
    inches = [_inches(int(mm)) for mm in found[0].split()]
    unclear = any(" " not in one and "/" not in one and other[0] in "1357" and "/" in other.partition(" ")[0]
                  for one, other in pairwise(inches))  # fmt: skip
    return (", " if unclear else " ").join(inches)


def _inches(mm: int) -> str:
    if mm and mm % 300 == 0:
        return str(mm // 25)
    eighths = round(mm / float(MM_PER_INCH) * 8)
    return format_length(eighths * float(MM_PER_INCH) / 8, "imperial", mark=False)


def _series(words: Iterable[object], last: str) -> str:
    """Words in a row, the last parted by its own word: `one, two and three`."""
    *most, end = [*map(str, words)] or [""]
    return f"{', '.join(most)}{last}{end}" if most else end


class _Say(string.Formatter):
    def __init__(self, units: Units) -> None:
        self.units = units

    def format_field(self, value: Any, format_spec: str) -> str:
        if format_spec.startswith("?"):
            return counted(value, *format_spec[1:].split("|"))
        if format_spec.startswith("+"):
            over, under = format_spec[1:].split("|")
            return over if value > 0 else under
        forms: dict[str, Callable[[], str]] = {
            "mm": lambda: with_unit(value, self.units), "abs": lambda: with_unit(abs(value), self.units),
            "nominal": lambda: nominal(value, self.units),
            "mms": lambda: lengths_in_words(value, self.units), "fine": lambda: decimal_length(value, self.units),
            "kg": lambda: format_mass(value, self.units), "litres": lambda: format_volume(value, self.units),
            "stress": lambda: format_stress(value, self.units), "n": lambda: f"{value:.0f}", "g": lambda: f"{value:g}",
            "list": lambda: ", ".join(map(str, value)), "words": lambda: " ".join(map(str, value)),
            "and": lambda: _series(value, " and "),
            "or": lambda: _series(value, " or "),
            "low": lambda: str(value[:1].lower() + value[1:]),
        }  # fmt: skip
        return forms[format_spec]() if format_spec in forms else str(format(value, format_spec))
