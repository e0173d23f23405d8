"""The quick-add line of Sort: `14 shirts, daily, Ottilie`.

Count and kind first (either order; no count means one), then, parted by commas, in any order: how often, whose, a
decision, `hang`, `fold` or `drawer`, a size such as `300 x 200 x 150`. Several groups are parted by `;`.
"""

import re
from difflib import get_close_matches
from itertools import count

from pydantic import ValidationError

from ..errors import CallOutError
from ..house import Person
from ..lengths import Units, scan_lengths
from .kinds import KINDS, Kind
from .things import DECISIONS, FREQUENCIES, Thing

_OFTEN = {"often": "daily", "every day": "daily", "every week": "weekly", "every month": "monthly",
          "off-season": "seasonal", "in season": "seasonal", "winter": "seasonal", "summer": "seasonal",
          "rare": "rarely", "hardly ever": "rarely", "yearly": "rarely"}  # fmt: skip
_DECIDED = {"give": "give away", "charity": "give away", "donate": "give away", "sell": "sell", "bin": "bin",
            "throw": "bin", "move": "move", "keep": "keep"}  # fmt: skip
_WAYS = {"hang": "hang", "hung": "hang", "fold": "shelf", "folded": "shelf", "shelf": "shelf", "drawer": "drawer",
         "drawers": "drawer"}  # fmt: skip


def _vocabulary() -> dict[str, Kind]:
    words: dict[str, Kind] = {}
    for kind in KINDS.values():
        for word in (kind.id, kind.one, kind.many, *kind.words):
            words.setdefault(word.lower(), kind)
    return words


VOCABULARY = _vocabulary()


def quick_add(
    line: str, people: tuple[Person, ...], units: Units, *, space: str = "", taken: frozenset[str] = frozenset()
) -> tuple[Thing, ...]:
    """Read a quick-add line into things with new ids; raises `CallOutError` at what is not understood."""
    ids = (f"t{n}" for n in count(1) if f"t{n}" not in taken)
    groups = [g.strip() for g in re.split(r"[;\n]", line) if g.strip()]
    if not groups:
        raise CallOutError(line, "nothing to add", "Say for instance: 14 shirts, daily.")
    return tuple(_group(g, people, units, space, next(ids)) for g in groups)


def _group(text: str, people: tuple[Person, ...], units: Units, space: str, new_id: str) -> Thing:
    first, *rest = (part.strip() for part in text.split(","))
    number, name = _count(first)
    facts: dict[str, object] = {"id": new_id, "count": number, "space": space}
    for part in filter(None, rest):
        facts |= _fact(part, people, units)
    kind = VOCABULARY.get(name.lower())
    if kind is None and "size" in facts:
        kind = KINDS["custom"]
    if kind is None:
        close = get_close_matches(name.lower(), VOCABULARY, n=2, cutoff=0.6)
        hint = (
            f"Did you mean {' or '.join(close)}?" if close else "Give it a size, such as “2 easels, 600 x 90 x 1100”."
        )
        raise CallOutError(text, f"“{name}” is no kind of thing known here", hint)
    way = facts.get("way")
    if way is not None and way not in kind.ways:
        raise CallOutError(text, f"{kind.many} are not stored that way", f"They go: {', '.join(kind.ways)}.")
    try:
        return Thing.model_validate({"name": name[:1].upper() + name[1:], "kind": kind.id, **facts})
    except ValidationError as error:
        fault = error.errors()[0]["msg"].removeprefix("Value error, ")
        raise CallOutError(text, fault[:1].lower() + fault[1:], "Say it like: 2 easels, 600 x 90 x 1100.") from None


def _count(text: str) -> tuple[int, str]:
    match = re.fullmatch(r"(?:(?P<before>-?\d+)\s*[x×]?\s+)?(?P<name>.*?\D)(?:\s+[x×]?\s*(?P<after>\d+))?", text)
    if match is None or not match["name"].strip():
        raise CallOutError(text, "no thing is named", "Say how many of what, such as 14 shirts.")
    number = int(match["before"] or match["after"] or 1)
    if not 1 <= number <= 10_000:
        raise CallOutError(text, f"{number} is no count", "A count is 1 to 10,000.")
    return number, match["name"].strip()


def _fact(part: str, people: tuple[Person, ...], units: Units) -> dict[str, object]:
    low = part.lower()
    if low in FREQUENCIES or low in _OFTEN:
        return {"frequency": _OFTEN.get(low, low)}
    if low in DECISIONS or low.split()[0] in _DECIDED:
        return {"decision": low if low in DECISIONS else _DECIDED[low.split()[0]]}
    if low in _WAYS:
        return {"way": _WAYS[low]}
    owners = [p for p in people if p.name.lower() == low or p.name.lower().split()[0] == low]
    if len(owners) == 1:
        return {"owner": owners[0].id}
    if re.search(r"\d\s*[\"']?\s*[x×]\s*\d", low):
        sizes = scan_lengths(part, units)
        if len(sizes) == 3:
            return {"size": tuple(s.mm for s in sizes)}
    names = ", ".join(p.name for p in people)
    raise CallOutError(
        part,
        "this is no frequency, person, decision or size",
        f"Say {', '.join(FREQUENCIES)}{f'; {names}' if names else ''}; or a size, 300 x 200 x 150.",
    )
