"""What is said of a thing beside its name: how often, whose, what was decided, how it is stored, how big."""

import re
from collections.abc import Callable
from difflib import get_close_matches

from ...house import Person
from ...lengths import scan_lengths
from ...units import Units
from ..things import DECISIONS, FREQUENCIES
from .amounts import read_amount

Facts = dict[str, object]

_OFTEN = {"often": "daily", "every day": "daily", "everyday": "daily", "every week": "weekly", "every month": "monthly",
          "off-season": "seasonal", "in season": "seasonal", "winter": "seasonal", "summer": "seasonal",
          "rare": "rarely", "hardly ever": "rarely", "yearly": "rarely", "once a year": "rarely", "sometimes": "monthly",
          "occasionally": "monthly", "seldom": "rarely", "never": "rarely"}  # fmt: skip
_DECIDED = {"give": "give away", "give away": "give away", "charity": "give away", "donate": "give away", "sell": "sell",
            "bin": "bin", "throw": "bin", "throw away": "bin", "throw out": "bin", "move": "move", "keep": "keep",
            "mend": "repair"}  # fmt: skip
_WAYS = {"hang": "hang", "hung": "hang", "hanging": "hang", "fold": "shelf", "folded": "shelf", "shelf": "shelf",
         "drawer": "drawer", "drawers": "drawer", "in a drawer": "drawer", "on a shelf": "shelf", "hook": "hook",
         "hooks": "hook", "on a hook": "hook", "floor": "floor", "on the floor": "floor",
         "overhead": "overhead"}  # fmt: skip
_PRONOUNS = {"hers": "her", "her": "her", "his": "his", "theirs": "their", "their": "their", "him": "his"}
_TO_DECIDE = re.compile(
    r"\s+(?:to|for)\s+(donate|give away|sell|bin|throw away|throw out|recycle|repair|mend|charity|keep)$", re.IGNORECASE
)
_OF_NOBODY = re.compile(r"^(?:my|our|the|some|your)\s+", re.IGNORECASE)


def read_fact(part: str, people: tuple[Person, ...], units: Units) -> Facts | None:
    """What a part of a line says of the thing before it; None when it is no such word."""
    low = part.lower().strip(" .!")
    for read in _FACTS:
        found = read(low)
        if found:
            return found
    whose = owner_in(part, people)
    if whose:
        return whose
    if re.fullmatch(r"\d+\s*(?:x|×|pcs|pieces)?", low):
        return {"count": int(re.sub(r"\D", "", low))}
    if re.search(r"\d\s*[\"']?\s*[x×]\s*\d", low):
        sizes = scan_lengths(part, units)
        if len(sizes) == 3:
            return {"size": tuple(s.mm for s in sizes)}
    close = get_close_matches(low, _WORDS, n=1, cutoff=0.86) if len(low) > 4 else []
    return read_fact(close[0], people, units) if close and close[0] != low else None


def owner_in(text: str, people: tuple[Person, ...]) -> Facts:
    """Whose it is, by a name or a word for one of them; empty when it says nothing of the kind."""
    low = re.sub(r"^for\s+", "", text.lower().strip())
    low = re.sub(r"['’]s?$", "", low)
    named = [p for p in people if p.name.lower() == low or p.name.lower().split()[0] == low]
    if not named and low in _PRONOUNS:
        named = [p for p in people if p.pronoun == _PRONOUNS[low]]
        if len(named) != 1:
            return {"unsure": "owner"}  # there are several, or none: somebody has to say
    return {"owner": named[0].id} if len(named) == 1 else {}


def without_owner(name: str, people: tuple[Person, ...]) -> tuple[str, Facts]:
    """A name without whose it is: *Bruno's ties*, *14 of Ada's blouses*, *his golf clubs*, *jumpers for Ada*."""
    name = _OF_NOBODY.sub("", name.strip())
    words = name.split()
    before = [w.lower() for w in words[:2]]
    if len(words) > 1 and (re.search(r"['’]s?$", words[0]) or before[0] in ("his", "her", "their")):
        whose = owner_in(words[0], people)
        if whose or before[0] in ("his", "her", "their"):
            return " ".join(words[1:]), whose
    count = read_amount(name, "metric")
    middle = count.rest.split()
    if count.count is not None and len(middle) > 1 and re.search(r"['’]s?$", middle[0]):
        whose = owner_in(middle[0], people)
        if whose:
            return f"{count.count} {' '.join(middle[1:])}", whose
    if len(words) > 2 and words[-2].lower() == "for":
        whose = owner_in(words[-1], people)
        if whose:
            return " ".join(words[:-2]), whose
    if len(words) > 1 and words[-1].lower() not in ("her", "his", "their"):
        whose = owner_in(words[-1], people)
        if whose and words[-1][:1].isupper():
            return " ".join(words[:-1]), whose
    return name, {}


def without_trailing_fact(name: str) -> tuple[str, Facts]:
    """*14 shirts daily*: how often, said without a comma."""
    before, _, last = name.rpartition(" ")
    if before and last.lower() in FREQUENCIES:
        return before, {"frequency": last.lower()}
    return name, {}


def without_decision(name: str) -> tuple[str, Facts]:
    """*2 bags of clothes to donate*: what was decided, said without a comma."""
    match = _TO_DECIDE.search(name)
    if match is None:
        return name, {}
    word = match[1].lower()
    return name[: match.start()], {"decision": _DECIDED.get(word, word)}


_FACTS: tuple[Callable[[str], Facts], ...] = (
    lambda low: {"frequency": _OFTEN.get(low, low)} if low in FREQUENCIES or low in _OFTEN else {},
    lambda low: {"decision": _DECIDED.get(low, low)} if low in DECISIONS or low in _DECIDED else {},
    lambda low: {"decision": _DECIDED[low.split()[0]]} if low.split() and low.split()[0] in ("donate", "sell") else {},
    lambda low: {"way": _WAYS[low]} if low in _WAYS else {},
)  # fmt: skip
_WORDS = (*FREQUENCIES, *_OFTEN, *DECISIONS, *_DECIDED, *_WAYS)
