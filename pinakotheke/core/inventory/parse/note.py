"""A pasted note of any shape: one a line, bullets, numbered, commas, a sentence, with headings or none."""

import re

from ...base import Frozen
from ...errors import CallOutError, LengthError
from ...house import Person
from ...units import Units
from ..things import Thing
from .facts import owner_in
from .line import House, quick_add
from .text import names_something

_BULLET = re.compile(r"^\s*(?:[-*•·‣▪–—☐☑✓✗]+\s+|\[[ xX]?\]\s*|\d{1,3}[.)]\s+|[a-z][.)]\s+)*")
_HEADING = re.compile(r"^\s*(?:#+\s*)?(?P<said>[^:]{2,40}):\s*$")
_PLAIN = re.compile(r"^\s*(?:#+\s*)?(?P<said>[^\d:,;]{2,40})$")
_PREFIX = re.compile(r"^\s*(?:#+\s*)?(?P<said>[^\W\d][^:,;]{1,38}):\s+(?P<rest>\S.*)$")
MOST_LINES = 400


def note_lines(text: str) -> tuple[tuple[str, str], ...]:
    """Lines of a note with the heading above each, empty where there is none; what says nothing is left out.

    >>> note_lines("Wardrobe:\\n- 3 coats\\n- hats, scarves")
    (('3 coats', 'Wardrobe'), ('hats, scarves', 'Wardrobe'))
    """
    heading = ""
    found: list[tuple[str, str]] = []
    raws = text.replace("\r", "\n").split("\n")
    for n, raw in enumerate(raws):
        line = _BULLET.sub("", raw).strip().rstrip(".;,")
        if not names_something(line):
            if not raw.strip():
                heading = ""
            continue
        above = _HEADING.match(line) or (_PLAIN.match(line) if _stands_over(raws, n) else None)
        if above:
            heading = above["said"].strip()
            continue
        inline = _PREFIX.match(line)
        if inline and not re.fullmatch(r"\d+\s*(?:x|×|pcs)?", inline["rest"]):
            found += [(part, inline["said"].strip()) for part in _parts(inline["rest"])]
            continue
        found += [(part, heading) for part in _parts(line)]
    return tuple(found[:MOST_LINES])


def _stands_over(raws: list[str], n: int) -> bool:
    """Whether a line without a bullet stands right over one that has one, or begins as a title does."""
    if raws[n].lstrip().startswith("#"):
        return True
    below = raws[n + 1] if n + 1 < len(raws) else ""
    return not _bulleted(raws[n]) and _bulleted(below)


def _bulleted(raw: str) -> bool:
    return bool(raw.strip()) and _BULLET.sub("", raw) != raw.lstrip()


class NoteRow(Frozen):
    """A thing of a note, and the words it was read from."""

    said: str
    thing: Thing


def read_note(text: str, people: tuple[Person, ...], units: Units, *, space: str = "",
              taken: frozenset[str] = frozenset(), house: House | None = None) -> tuple[NoteRow, ...]:  # fmt: skip
    """The things of a note. What stands under a person's name is that person's; what stands under another heading is kept
    together under its word. A line that names nothing is left out.
    """
    used, found = set(taken), []
    for line, heading in note_lines(text):
        try:
            things = quick_add(line, people, units, space=space, taken=frozenset(used), house=house)
        except (CallOutError, LengthError):
            continue
        whose = owner_in(heading, people) if heading else {}
        above = whose or ({"together": heading[:40]} if heading else {})
        for thing in things:
            used.add(thing.id)
            mine = {k: v for k, v in above.items() if not getattr(thing, k)}
            found.append(NoteRow(said=line, thing=thing.model_copy(update=mine)))
    return tuple(found)


def _parts(line: str) -> list[str]:
    """Sentences and semicolons part; a full stop between digits does not."""
    return [part.strip(" .;") for part in re.split(r";|(?<=[^\W\d])\.\s+", line) if names_something(part)]
