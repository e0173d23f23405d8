"""The quick-add line of Sort, as people speak: `14 shirts, hers, daily`, `2 coats and 3 hats`, `1.2 m of books`.

First how many of what; then, parted by commas, in any order: how often, whose, a decision, a way of storing, a size such
as `300 x 200 x 150` (which may also follow the name), and a word for what it is for, such as *Christmas*, which keeps its
pieces together as a word in brackets does, `2 shirts (work)`. No thing is refused: what is nearly known is taken as a
guess, what is not known gets the size that such things have, and both are marked.
"""

import re
from collections.abc import Iterator, Mapping
from itertools import count
from typing import cast

from pydantic import ValidationError

from ...errors import CallOutError, told
from ...house import Person
from ...lengths import scan_lengths
from ...units import Units
from ..decant import decant, dry_good
from ..kinds import CUSTOM, KINDS, Kind
from ..things import Thing, Unsure, ways_of
from ..tyres import read_tyre
from .amounts import MOST, Amount, pieces, read_amount, says_many
from .facts import Facts, owner_in, read_fact, without_decision, without_owner, without_trailing_fact
from .names import HouseWord, Named, named, unknown
from .text import names_something

_SIDE = r"\d[\d\s.,/'\"¼½¾⅛⅜⅝⅞]*(?:[cm]?m\b|in\b)?\s*"
_SIZE = re.compile(rf"\s(?P<size>{_SIDE}[x×]\s*{_SIDE}[x×]\s*{_SIDE})$", re.IGNORECASE)
_MASS = re.compile(r"^(?P<kg>\d+(?:[.,]\d+)?)\s*(?P<unit>kg|g)\s+(?:of\s+)?(?P<good>\D+)$", re.IGNORECASE)
_AND = re.compile(r"\s+(?:and|&|\+)\s+", re.IGNORECASE)
_BRACKETS = re.compile(r"\s*[(\[](?P<in>[^()\[\]]*)[)\]]")
SMALLEST_BOX_MM = 120.0
"""A box smaller than this all round is none: its numbers were centimetres."""
NEAREST_WAY = {"hang": ("hook",), "hook": ("hang",), "shelf": ("box", "shoe", "drawer"), "box": ("shelf", "floor"),
               "drawer": ("shelf", "box"), "overhead": ("shelf", "box", "hook"), "floor": ("box", "shelf")}  # fmt: skip
"""What is meant by a way that a kind is not stored in."""

House = Mapping[str, HouseWord]


def quick_add(line: str, people: tuple[Person, ...], units: Units, *, space: str = "",
              taken: frozenset[str] = frozenset(), house: House | None = None) -> tuple[Thing, ...]:  # fmt: skip
    """Read a line into things with new ids; `house` holds the household's own words. Raises `CallOutError` only for a line
    with nothing in it, and for an amount that cannot be.
    """
    ids = (f"t{n}" for n in count(1) if f"t{n}" not in taken)
    reader = _Reader(people, units, space, house or {}, ids)
    things = [t for group in re.split(r"[;\n]", line) if group.strip() for t in reader.group(group.strip())]
    if not things:
        raise CallOutError("quick.nothing", line)
    return tuple(things)


class _Reader:
    def __init__(self, people: tuple[Person, ...], units: Units, space: str, house: House, ids: Iterator[str]) -> None:
        self.people, self.units, self.space, self.house, self.ids = people, units, space, house, ids

    def group(self, text: str) -> Iterator[Thing]:
        """The things of what stands between two semicolons; a fact is of all things before it since the last fact."""
        # A comma parts, but not the decimals of a mass: 1,5 kg rice.
        first, *rest = (part.strip() for part in re.split(r",(?!\d+\s*k?g\b)(?!\d{3}\b)", text))
        names: list[tuple[str, Facts]] = [(one, {}) for one in self.apart(first)]
        open_from, closed = 0, False
        for part in filter(None, rest):
            fact = read_fact(part, self.people, self.units)
            if fact is None and (len(self.apart(part)) > 1 or self.is_thing(part)):
                if closed:
                    open_from, closed = len(names), False
                names += [(one, {}) for one in self.apart(part)]
                continue
            closed = True
            for _, facts in names[open_from:]:
                facts |= {"label": part[:80], "together": part[:40]} if fact is None else fact
        for name, facts in names:
            yield self.thing(text, name, facts)

    def apart(self, text: str) -> list[str]:
        """One thing, or several that an *and* parts: where every side is one or a later one is counted."""
        sides = [side.strip() for side in _AND.split(re.sub(r"^(?:and|&)\s+", "", text)) if side.strip()]
        if len(sides) < 2:
            return sides or [text]
        whole = named(read_amount(text, self.units).rest, self.house)
        if whole is not None and not whole.guess:
            return [text]
        counted = any(read_amount(side, self.units).count is not None for side in sides[1:])
        return sides if counted or all(self.is_thing(side) for side in sides) else [text]

    def is_thing(self, text: str) -> bool:
        """Whether a part of a line names a thing of its own: it is known, it begins with a number, or it is several of what
        is nearly known. Any other word is what the thing before it is for.
        """
        bare = _BRACKETS.sub("", text)
        bare, _ = without_owner(_SIZE.sub("", bare), self.people)
        amount = read_amount(bare, self.units)
        found = named(amount.rest, self.house) if amount.rest else None
        if amount.count is not None or amount.said:
            return names_something(amount.rest)
        return found is not None and (not found.guess or says_many(amount.rest))

    def thing(self, text: str, name: str, later: Facts) -> Thing:
        """One thing of its own words and the facts after it."""
        facts: Facts = {}
        jars = _decanted(text, name)
        if jars:
            return self.made(text, str(jars.pop("name")), KINDS["jar-dry"], "", {**jars, **later})
        for inside in _BRACKETS.findall(name):
            facts |= _in_brackets(inside, self.people, self.units)
        name = _BRACKETS.sub(" ", name).strip() or name
        name = self.own_size(name, facts)
        name, whose = without_owner(name, self.people)
        name, when = without_trailing_fact(name)
        name, decided = without_decision(name)
        facts |= {**whose, **when, **decided}
        amount = read_amount(name, self.units)
        rest, more = without_owner(amount.rest, self.people)
        facts |= more
        if not names_something(rest):
            raise CallOutError("quick.no-name", text)
        number = facts.pop("count", None) or later.pop("count", None) or amount.count
        if number is not None and not 1 <= int(str(number)) <= MOST:
            raise CallOutError("quick.no-count", text, number=number)
        found = named(rest, self.house) or (
            Named(kind=CUSTOM, size=None) if "size" in {**facts, **later} else unknown(rest)
        )
        return self.made(text, rest, found.kind, self.unsure(found, number, amount, rest),
                         {**self.of_kind(found), **facts, **later, "count": self.number(found.kind, number, amount),
                          **({"note": amount.said} if amount.said else {})})  # fmt: skip

    @staticmethod
    def number(kind: Kind, number: object, amount: Amount) -> int:
        if number is not None:
            return int(str(number))
        return pieces(amount, kind) if amount.said else 1

    @staticmethod
    def unsure(found: Named, number: object, amount: Amount, name: str) -> Unsure:
        if found.kind is CUSTOM and found.guess:
            return "size"
        if found.guess:
            return "kind"
        return "count" if number is None and (amount.said or says_many(name)) else ""

    @staticmethod
    def of_kind(found: Named) -> Facts:
        facts: Facts = {"frequency": found.kind.frequency if found.kind is not CUSTOM else "weekly"}
        if found.seasonal:
            facts["frequency"] = "seasonal"
        if found.size is not None:
            facts |= {"size": found.size, "mass": found.mass}
        return facts

    def own_size(self, name: str, facts: Facts) -> str:
        """A size or a tyre's code after the name, taken off it."""
        tyre = read_tyre(name)
        if tyre:
            facts |= {"size": tuple(tyre.size), "note": tyre.code}
            return name[: tyre.start].strip()
        match = _SIZE.search(name)
        sizes = scan_lengths(match["size"], self.units) if match else []
        if match and len(sizes) == 3:
            facts["size"] = tuple(s.mm for s in sizes)
            return name[: match.start()].strip()
        return name

    def made(self, text: str, name: str, kind: Kind, unsure: Unsure, facts: Facts) -> Thing:
        facts = {"frequency": kind.frequency, **facts}
        facts["size"] = _sensible(facts.get("size"), kind)
        if "size" in facts and facts["size"] is not None and unsure == "size":
            unsure = "size" if kind is CUSTOM and facts["size"] == unknown(name).size else ""
        way = facts.get("way")
        if way is not None and way not in ways_of(kind.id):
            facts["way"] = next((w for w in NEAREST_WAY.get(str(way), ()) if w in ways_of(kind.id)), None)
        unsure = unsure or cast(Unsure, facts.pop("unsure", ""))
        facts.pop("unsure", None)
        named_so = (name[:1].upper() + name[1:])[:240]
        whole = {
            "id": next(self.ids),
            "space": self.space,
            "name": named_so,
            "kind": kind.id,
            "unsure": unsure,
            **facts,
        }
        try:
            return Thing.model_validate(whole)
        except ValidationError as error:
            raise CallOutError("quick.no-thing", text, fault=told(error, self.units)[0]) from None


def _sensible(size: object, kind: Kind) -> object:
    """Numbers that would make a box smaller than a fist were centimetres; the list shows what was understood."""
    boxy = kind is CUSTOM or kind.ways[0] in ("box", "shelf") or kind.group in ("boxes", "seasonal")
    if isinstance(size, tuple) and boxy and max(size) < SMALLEST_BOX_MM and kind.id != "jar-dry":
        return tuple(10 * side for side in size)
    return size


def _in_brackets(inside: str, people: tuple[Person, ...], units: Units) -> Facts:
    """*(8)* counts, *(hers)* says whose; any other word keeps its pieces together."""
    number = re.fullmatch(r"\s*[x×]?\s*(\d+)\s*[x×]?\s*", inside)
    if number:
        return {"count": int(number[1])}
    return read_fact(inside.strip(), people, units) or owner_in(inside, people) or {"together": inside.strip()[:40]}


def _decanted(text: str, first: str) -> Facts | None:
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
