"""A pasted note of any shape, made into lines: one a line, bullets, numbered, commas, a sentence."""

import re

from .text import names_something

_BULLET = re.compile(r"^\s*(?:[-*•·‣▪–—☐☑✓✗]+\s+|\[[ xX]?\]\s*|\d{1,3}[.)]\s+|[a-z][.)]\s+)*")
_HEADING = re.compile(r"^\s*(?:#+\s*)?(?P<said>[^:]{2,40}):\s*$")
_PREFIX = re.compile(r"^\s*(?:#+\s*)?(?P<said>[^\W\d][^:,;]{1,38}):\s+(?P<rest>\S.*)$")
MOST_LINES = 400


def note_lines(text: str) -> tuple[tuple[str, str], ...]:
    """Lines of a note with the heading above each, empty where there is none; what says nothing is left out.

    >>> note_lines("Wardrobe:\\n- 3 coats\\n- hats, scarves")
    (('3 coats', 'Wardrobe'), ('hats, scarves', 'Wardrobe'))
    """
    heading = ""
    found: list[tuple[str, str]] = []
    for raw in text.replace("\r", "\n").split("\n"):
        line = _BULLET.sub("", raw).strip().rstrip(".;,")
        if not names_something(line):
            if not raw.strip():
                heading = ""
            continue
        above = _HEADING.match(line)
        if above:
            heading = above["said"].strip()
            continue
        inline = _PREFIX.match(line)
        if inline and not re.fullmatch(r"\d+.*", inline["rest"]):
            found += [(part, inline["said"].strip()) for part in _parts(inline["rest"])]
            continue
        found += [(part, heading) for part in _parts(line)]
    return tuple(found[:MOST_LINES])


def _parts(line: str) -> list[str]:
    """Sentences and semicolons part; a full stop between digits does not."""
    return [part.strip(" .;") for part in re.split(r";|(?<=[^\W\d])\.\s+", line) if names_something(part)]
