"""The quick-add line of Sort: `14 shirts, hers, daily`.

Count and kind first (either order; no count means one), then, parted by commas, in any order: how often, whose (a
name, or *hers*, *his*), a decision, a way of storing, a size such as `300 x 200 x 150` (which may also follow the
name: `box 45 x 32 x 28`), and a word for what it is for, such as *Christmas*. Tyres take their code, `4 tyres 205/55
R16`; dry goods their mass, `3 kg rice`, which is decanted into jars. Several groups are parted by `;`.
"""

import re
from collections.abc import Callable
from difflib import get_close_matches
from functools import cache
from itertools import count

from pydantic import ValidationError

from ..errors import CallOutError, told
from ..house import Person
from ..lengths import Length, scan_lengths
from ..units import Units
from .decant import decant, dry_good
from .kinds import KINDS, Kind
from .things import DECISIONS, FREQUENCIES, Thing
from .tyres import read_tyre

_OFTEN = {"often": "daily", "every day": "daily", "every week": "weekly", "every month": "monthly",
          "off-season": "seasonal", "in season": "seasonal", "winter": "seasonal", "summer": "seasonal",
          "rare": "rarely", "hardly ever": "rarely", "yearly": "rarely"}  # fmt: skip
_DECIDED = {"give": "give away", "charity": "give away", "donate": "give away", "sell": "sell", "bin": "bin",
            "throw": "bin", "move": "move", "keep": "keep"}  # fmt: skip
_WAYS = {"hang": "hang", "hung": "hang", "fold": "shelf", "folded": "shelf", "shelf": "shelf", "drawer": "drawer",
         "drawers": "drawer", "hook": "hook", "hooks": "hook", "floor": "floor", "overhead": "overhead"}  # fmt: skip
_PRONOUNS = {"hers": "her", "her": "her", "his": "his", "theirs": "their"}
_MEASURE_WORDS = re.compile(r"^(?:pairs?|sets?|boxes|box|bottles?|packs?|bags?|bins?|rolls?|cans?|tins?|jars?) of ")
"""`pairs of trousers`, `bottles of bleach`: the words before *of* only count."""
_SIDE = r"\d[\d\s.,/'\"¼½¾⅛⅜⅝⅞]*(?:[cm]?m\b|in\b)?\s*"
_SIZE = re.compile(rf"\s(?P<size>{_SIDE}[x×]\s*{_SIDE}[x×]\s*{_SIDE})$", re.IGNORECASE)
_MASS = re.compile(r"^(?P<kg>\d+(?:[.,]\d+)?)\s*(?P<unit>kg|g)\s+(?P<good>\D+)$", re.IGNORECASE)
SMALLEST_BOX_MM = 120.0
"""A box smaller than this all round is none: its numbers were centimetres."""


@cache
def vocabulary() -> dict[str, Kind]:
    """Every word for every kind."""
    words: dict[str, Kind] = {}
    for kind in KINDS.values():
        for word in (kind.id, kind.one, kind.many, *kind.words):
            words.setdefault(word.lower(), kind)
    return words


def _stem(word: str) -> str:
    """A word as people shorten it: no hyphens, no *box of*, one for many.

    >>> _stem("boxes of tea"), _stem("tea boxes"), _stem("drain-cleaner")
    ('tea', 'tea box', 'drain cleaner')
    """
    short = _MEASURE_WORDS.sub("", word.lower().replace("-", " ")).strip()
    return re.sub(r"(?<=x|s|h)es$|(?<=[^s])s$", "", short)


@cache
def _stems() -> dict[str, Kind]:
    stems: dict[str, Kind] = {}
    for word, kind in vocabulary().items():
        stems.setdefault(_stem(word), kind)
    return stems


def kind_named(name: str) -> Kind | None:
    """The kind that people call so; a kind's own words go before shortened ones."""
    return vocabulary().get(name.lower()) or _stems().get(_stem(name))


@cache
def _fact_words() -> tuple[str, ...]:
    return (*FREQUENCIES, *_OFTEN, *DECISIONS, *_DECIDED, *_WAYS, *_PRONOUNS)


def quick_add(line: str, people: tuple[Person, ...], units: Units, *, space: str = "",
              taken: frozenset[str] = frozenset()) -> tuple[Thing, ...]:  # fmt: skip
    """Read a quick-add line into things with new ids; raises `CallOutError` at what is not understood."""
    ids = (f"t{n}" for n in count(1) if f"t{n}" not in taken)
    groups = [g.strip() for g in re.split(r"[;\n]", line) if g.strip()]
    if not groups:
        raise CallOutError("quick.nothing", line)
    return tuple(_group(g, people, units, space, next(ids)) for g in groups)


def _group(text: str, people: tuple[Person, ...], units: Units, space: str, new_id: str) -> Thing:
    # A comma parts, but not the decimals of a mass: 1,5 kg rice.
    first, *rest = (part.strip() for part in re.split(r",(?!\d+\s*k?g\b)", text))
    facts: dict[str, object] = {"id": new_id, "space": space}
    decanted = _decanted(text, first)
    if decanted:
        name, kind = str(decanted.pop("name")), KINDS["jar-dry"]
        facts |= decanted
    else:
        first = _own_size(first, facts, units)
        number, name = _count(first)
        facts["count"] = number
    for part in filter(None, rest):
        facts |= _fact(part, people, units)
    if not decanted:
        kind = _kind(text, name, facts)
    way = facts.get("way")
    if way is not None and way not in kind.ways:
        raise CallOutError("quick.not-stored-so", text, many=kind.many, ways=kind.ways)
    facts.setdefault("frequency", kind.frequency if kind.id != "custom" else "weekly")
    facts["size"] = _sensible(facts.get("size"), kind)
    try:
        return Thing.model_validate({"name": name[:1].upper() + name[1:], "kind": kind.id, **facts})
    except ValidationError as error:
        raise CallOutError("quick.no-thing", text, fault=told(error, units)[0]) from None


def _own_size(first: str, facts: dict[str, object], units: Units) -> str:
    """A size or a tyre's code after the name, taken off it."""
    tyre = read_tyre(first)
    if tyre:
        facts |= {"size": tuple(tyre.size), "note": tyre.code}
        return first[: tyre.start].strip()
    match = _SIZE.search(first)
    sizes = scan_lengths(match["size"], units) if match else []
    if match and len(sizes) == 3:
        facts["size"] = _mm(sizes)
        return first[: match.start()].strip()
    return first


def _mm(sizes: list[Length]) -> tuple[float, ...]:
    return tuple(s.mm for s in sizes)


def _sensible(size: object, kind: Kind) -> object:
    """Numbers that would make a box smaller than a fist were centimetres; the list shows what was understood."""
    boxy = kind.id == "custom" or kind.ways[0] in ("box", "shelf") or kind.group in ("boxes", "seasonal")
    if isinstance(size, tuple) and boxy and max(size) < SMALLEST_BOX_MM and kind.id != "jar-dry":
        return tuple(10 * side for side in size)
    return size


def _decanted(text: str, first: str) -> dict[str, object] | None:
    """`3 kg rice`: the jars that take it."""
    match = _MASS.match(first)
    if match is None or dry_good(match["good"]) is None:
        return None
    kg = float(match["kg"].replace(",", ".")) / (1000 if match["unit"].lower() == "g" else 1)
    if not 0 < kg <= 500:
        raise CallOutError("quick.no-decant", text, kg=kg)
    got = decant(match["good"], kg)
    return {
        "name": match["good"].strip(), "count": got.jars, "size": (got.jar.width, got.jar.depth, got.jar.height),
        "mass": max(round(kg / got.jars, 3), 0.001),
        "note": f"{kg:g} kg is {got.litres:.1f} l: {got.jars} × {got.jar.litres:g} l jar",
    }  # fmt: skip


def _kind(text: str, name: str, facts: dict[str, object]) -> Kind:
    kind = kind_named(name)
    if kind is None and "size" in facts:
        return KINDS["custom"]
    if kind is None:
        close = get_close_matches(name.lower(), vocabulary(), n=2, cutoff=0.6)
        code = "quick.nearly-a-kind" if close else "quick.no-kind"
        raise CallOutError(code, text, name=name, close=close)
    return kind


def _count(text: str) -> tuple[int, str]:
    match = re.fullmatch(r"(?:(?P<before>-?\d+)\s*[x×]?\s+)?(?P<name>.*?\D)(?:\s+[x×]?\s*(?P<after>\d+))?", text)
    if match is None or not match["name"].strip():
        raise CallOutError("quick.no-name", text)
    number = int(match["before"] or match["after"] or 1)
    if not 1 <= number <= 10_000:
        raise CallOutError("quick.no-count", text, number=number)
    return number, match["name"].strip()


def _owner(low: str, people: tuple[Person, ...]) -> dict[str, object]:
    named = [p for p in people if p.name.lower() == low or p.name.lower().split()[0] == low]
    if not named and low in _PRONOUNS:
        named = [p for p in people if p.pronoun == _PRONOUNS[low]]
        if len(named) != 1:
            names = ", ".join(p.name for p in people) or "nobody yet"
            raise CallOutError("quick.whose", low, said=low, many=len(named) or 'none', names=names)  # fmt: skip
    return {"owner": named[0].id} if len(named) == 1 else {}


_FACTS: tuple[Callable[[str], dict[str, object]], ...] = (
    lambda low: {"frequency": _OFTEN.get(low, low)} if low in FREQUENCIES or low in _OFTEN else {},
    lambda low: {"decision": low if low in DECISIONS else _DECIDED[low.split()[0]]}
    if low in DECISIONS or low.split()[0] in _DECIDED else {},
    lambda low: {"way": _WAYS[low]} if low in _WAYS else {},
)  # fmt: skip


def _fact(part: str, people: tuple[Person, ...], units: Units) -> dict[str, object]:
    low = part.lower()
    for read in _FACTS:
        found = read(low)
        if found:
            return found
    whose = _owner(low, people)
    if whose:
        return whose
    if re.search(r"\d\s*[\"']?\s*[x×]\s*\d", low):
        sizes = scan_lengths(part, units)
        if len(sizes) == 3:
            return {"size": _mm(sizes)}
    names = tuple(n for p in people for n in (p.name.lower(), p.name.lower().split()[0]))
    close = get_close_matches(low, (*_fact_words(), *names), n=1, cutoff=0.75)
    if not close and re.fullmatch(r"[^\W\d][\w' -]{2,39}", part):
        return {"label": part}
    if close:
        raise CallOutError("quick.nearly-a-fact", part, close=close)
    raise CallOutError("quick.no-fact", part, said=(*FREQUENCIES, *(p.name for p in people)))
