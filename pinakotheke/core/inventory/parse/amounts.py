"""How many: a number in figures or words, and amounts that are said as a length or as places full."""

import re
from math import floor

from ...base import Frozen
from ...errors import LengthError
from ...lengths import scan_lengths
from ...tables import load
from ...units import Units
from ..kinds import Kind
from .text import singular

MOST = 10_000
_DIGITS = re.compile(r"^(?P<n>-?\d[\d,]*)\s*(?:x|×|pcs|pieces)?\s*(?=\s|$|[^\W\d])", re.IGNORECASE)
_BEHIND = re.compile(
    r"\s*(?:\((?P<a>\d+)\s*x?\)|[x×]\s*(?P<b>\d+)|[:=]\s*(?P<c>\d+)|\s[-–—]\s*(?P<d>\d+)|\s(?P<e>\d+)\s*[x×]?)\s*$",
    re.IGNORECASE,
)
_PLACE = re.compile(
    r"^(?P<n>.*?)\b(?P<place>rail|wardrobe|closet|shelf|shelve|drawer|box)(?P<ful>ful|full)?(?:e?s)?\s+"
    r"(?:(?P<full>full)\s+)?of\s+(?P<rest>.+)$",
    re.IGNORECASE,
)
_LENGTH = re.compile(
    r"^(?P<length>[\d.,½¼¾/'\" ]+\s*(?:mm|cm|m|metres?|meters?|ft|feet|foot|in|inch|inches|'|\"))\s+of\s+(?P<rest>.+)$",
    re.IGNORECASE,
)


class Amount(Frozen):
    """So many of what; None where nobody said how many. `said` is the length or the places it was reckoned from."""

    count: int | None
    rest: str
    length: float = 0
    place: str = ""
    places: float = 0
    said: str = ""


def read_amount(text: str, units: Units) -> Amount:
    """The number before or behind a name, taken off it.

    >>> read_amount("half a dozen towels", "metric").count, read_amount("scarves (8)", "metric").count
    (6, 8)
    """
    text = text.strip()
    by_length = _LENGTH.match(text)
    if by_length:
        found = _length(by_length["length"], units)
        if found:
            return Amount(count=None, rest=by_length["rest"], length=found, said=text)
    by_place = _PLACE.match(text)
    if by_place and (by_place["full"] or by_place["ful"] or by_place["place"].lower() in ("drawer", "shelf", "shelve")):
        number, left = _leading(by_place["n"].strip() or "1")
        if not left:
            place = "shelf" if by_place["place"].lower().startswith("shel") else by_place["place"].lower()
            return Amount(count=None, rest=by_place["rest"], place=place, places=number or 1, said=text)
    number, rest = _leading(text)
    behind = _BEHIND.search(rest)
    if behind and rest[: behind.start()].strip() and (number is None or number == 1):
        return Amount(count=int(next(g for g in behind.groups() if g)), rest=rest[: behind.start()].strip(" ,:-"))
    return Amount(count=number, rest=rest)


def _length(text: str, units: Units) -> float:
    spelled = re.sub(r"(?:metres?|meters?)$", "m", text.strip(), flags=re.IGNORECASE)
    try:
        return sum(one.mm for one in scan_lengths(spelled, units))
    except LengthError:
        return 0.0


def _leading(text: str) -> tuple[int | None, str]:
    """The number a text begins with, and the rest of it; None where it begins with none."""
    digits = _DIGITS.match(text)
    if digits:
        return int(digits["n"].replace(",", "")), _without_of(text[digits.end() :])
    words, total, used = text.split(), 0, 0
    numbers: dict[str, int] = load("speech")["numbers"]
    half = bool(words) and words[0].lower() == "half"
    for word in words[1 if half else 0 :]:
        parts = word.lower().split("-")
        if not all(p in numbers for p in parts):
            break
        value = sum(numbers[p] for p in parts)
        # *two dozen* and *two hundred* multiply; *a few* and *a dozen* are the number that follows.
        total = total * value if total and value in (12, 100) else value if total == 1 and value > 1 else total + value
        used += 1
    if not used:
        return None, text
    used += half
    return (max(1, total // 2) if half else total), _without_of(" ".join(words[used:]))


def _without_of(text: str) -> str:
    return re.sub(r"^\s*of\s+", "", text, flags=re.IGNORECASE).strip()


def pieces(amount: Amount, kind: Kind) -> int:
    """How many pieces of a kind so much length, or so many places full, are: at least one.

    length: as many as lie side by side, on the rail where the kind hangs. drawer, box: as many as lie in it in rows and
    layers.
    """
    places = load("speech")["places"]
    if amount.length:
        return _along(kind, amount.length)
    room = places[amount.place]
    if isinstance(room, list):
        return max(1, floor(_inside(kind, room) * amount.places))
    return _along(kind, room * amount.places)


def _along(kind: Kind, length: float) -> int:
    wide = kind.rail if "hang" in kind.ways and kind.rail else (kind.size or (kind.rail,))[0]
    return max(1, min(MOST, round(length / wide))) if wide else 1


def _inside(kind: Kind, room: list[float]) -> int:
    if kind.size is None:
        return 1
    sides = sorted(kind.size[:2])
    ways = (sides, sides[::-1])
    return max(1, max(int(room[0] // w) * int(room[1] // d) for w, d in ways) * max(1, int(room[2] // kind.size[2])))


def says_many(name: str) -> bool:
    """Whether the last word of a name is one of several."""
    last = name.lower().split()[-1:] or [""]
    return singular(last[0]) != last[0] and not last[0].endswith(("ie", "'s", "’s", "ss"))
