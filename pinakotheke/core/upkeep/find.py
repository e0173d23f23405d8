"""Where is it: one field for the whole house, forgiving about spelling, plural and the name people have for a thing.

An inverted index over the words of each entry; a word of the question meets words of the index as it is, by its beginning,
or spelled nearly so (rapidfuzz). Each meeting counts by how rare the word is and where it stands: a thing's own name before
its kind, its owner, what it is for, its place.
"""

import re
import unicodedata
from collections import defaultdict
from collections.abc import Iterable, Iterator, Mapping
from functools import cache, lru_cache
from heapq import nsmallest
from itertools import chain, pairwise
from math import log
from typing import NamedTuple

from rapidfuzz import fuzz, process

from ..tables import load

STOP = frozenset(
    {
        *("a", "an", "the", "my", "our", "your", "his", "her", "their", "i", "we", "it", "me", "us", "this", "that"),
        *(
            "is",
            "are",
            "was",
            "do",
            "does",
            "did",
            "can",
            "has",
            "have",
            "go",
            "goes",
            "belong",
            "belongs",
            "put",
            "kept",
        ),
        *(
            "keep",
            "live",
            "lives",
            "need",
            "want",
            "find",
            "show",
            "please",
            "these",
            "those",
            "some",
            "any",
            "something",
        ),
        *(
            "where",
            "what",
            "which",
            "who",
            "whose",
            "to",
            "for",
            "in",
            "on",
            "of",
            "at",
            "with",
            "and",
            "or",
            "someone",
        ),
        *("stuff", "thing", "things", "wher"),
    }
)
"""Words of a question that say nothing of what is looked for."""
NEARLY = 78.0
"""From so much likeness (0 to 100) on a word counts as meant, common practice of spelling correction."""
PREFIX, PREFIX_SHARE, NEAR_SHARE, JOINED = 3, 0.95, 0.75, 0.9
HEAD, BEFORE = 1.1, 0.85
"""The last word of a name says what it is, those before it which one."""
NAME, KIND, OWNER, PURPOSE, PLACE = 3.0, 1.6, 1.8, 1.2, 1.0
"""What a word counts by where it stands in an entry."""


class Entry(NamedTuple):
    """Something that can be found: its own name; the names of its kind; whose; what it is for, its label and its note;
    where it is. `key` says what it is to whoever asked.
    """

    key: str
    name: str
    kind: tuple[str, ...] = ()
    owner: str = ""
    purpose: str = ""
    place: str = ""


class Answer(NamedTuple):
    """An entry that was found, and how well it answers, from 0."""

    key: str
    score: float


@lru_cache(maxsize=200_000)
def words(text: str) -> tuple[str, ...]:
    """The words of a text, without accents, marks and plural endings.

    >>> words("Juna's wélly boots"), words("boxes"), words("knives, berries & glass")
    (('juna', 'welly', 'boot'), ('box',), ('knive', 'berry', 'glass'))
    """
    plain = unicodedata.normalize("NFKD", text.casefold())
    plain = "".join(c for c in plain if not unicodedata.combining(c)).replace("'s", "").replace("’s", "")
    return tuple(stem(word) for word in re.findall(r"\w+", plain))


def stem(word: str) -> str:
    """A word without its plural ending, as far as that can be told from its letters."""
    if len(word) > 4 and word.endswith("ies"):
        return f"{word[:-3]}y"
    if len(word) > 4 and word.endswith(("xes", "ches", "shes", "sses")):
        return word[:-2]
    if len(word) > 3 and word.endswith("s") and not word.endswith(("ss", "us", "is")):
        return word[:-1]
    return word


@cache
def purposes() -> Mapping[str, tuple[str, ...]]:
    """What each kind is for: the words of `tables/upkeep.toml`, by kind."""
    found: dict[str, list[str]] = defaultdict(list)
    for word, kinds in load("upkeep")["purposes"].items():
        for kind in kinds:
            found[kind].append(word)
    return {kind: tuple(rows) for kind, rows in found.items()}


class Index:
    """Entries by their words. Entries are put in and taken out one by one, so that what did not change stays."""

    def __init__(self, entries: Iterable[Entry] = ()) -> None:
        self._entries: dict[str, Entry] = {}
        self._by_word: dict[str, dict[str, float]] = defaultdict(dict)
        for entry in entries:
            self.put(entry)

    def __len__(self) -> int:
        return len(self._entries)

    def put(self, entry: Entry) -> None:
        """Put an entry in, in the place of the one of its key."""
        if self._entries.get(entry.key) == entry:
            return
        self.drop(entry.key)
        self._entries[entry.key] = entry
        for word, share in _weights(entry).items():
            self._by_word[word][entry.key] = share

    def drop(self, key: str) -> None:
        """Take an entry out, if it is there."""
        old = self._entries.pop(key, None)
        if old is None:
            return
        for word in _weights(old):
            self._by_word[word].pop(key, None)
            if not self._by_word[word]:
                del self._by_word[word]

    @property
    def keys(self) -> frozenset[str]:
        """What is in it."""
        return frozenset(self._entries)

    def find(self, question: str, most: int = 10) -> tuple[Answer, ...]:
        """The entries that answer a question, the best first; none where no word of it is known."""
        asked = [w for w in words(question) if w not in STOP] or list(words(question))
        asked = self._joined(asked)
        scores: dict[str, float] = defaultdict(float)
        met: dict[str, int] = defaultdict(int)
        for word in asked:
            best: dict[str, float] = {}
            meets = self._meets(word)
            commonest = min((self._rare(len(self._by_word[known])) for known, _ in meets), default=0.0)
            for known, share in meets:
                rows = self._by_word[known]
                # Of words that are only like it, none gains by being rarer than the others.
                rare = self._rare(len(rows)) if share > NEAR_SHARE else commonest
                for key, weight in rows.items():
                    value = share * rare * weight
                    if value > best.get(key, 0.0):
                        best[key] = value
            for key, value in best.items():
                scores[key] += value
                met[key] += 1
        if not scores:
            return ()
        found = (Answer(key, score * (met[key] / len(asked)) ** 2) for key, score in scores.items())
        return tuple(nsmallest(most, found, key=lambda a: (-round(a.score, 6), len(self._entries[a.key].name), a.key)))

    def _joined(self, asked: list[str]) -> list[str]:
        """Two words of a question that are one word in the index, as one: `screw driver`."""
        found: list[str] = []
        for word in asked:
            if (
                found
                and f"{found[-1]}{word}" in self._by_word
                and not (word in self._by_word and found[-1] in self._by_word)
            ):
                found[-1] += word
            else:
                found.append(word)
        return found

    def _rare(self, entries: int) -> float:
        """What a word counts for by how many entries have it."""
        return 1 + log((1 + len(self._entries)) / (1 + entries))

    def _meets(self, word: str) -> list[tuple[str, float]]:
        """The words of the index that a word of a question may mean, and how surely."""
        found: dict[str, float] = {}
        if word in self._by_word:
            found[word] = 1.0
        if len(word) >= PREFIX:
            for known in self._by_word:
                if known.startswith(word) and known != word:
                    found[known] = PREFIX_SHARE - 0.4 * (1 - len(word) / len(known))
        if word not in found and len(word) >= PREFIX:
            near = process.extract(word, self._by_word.keys(), scorer=fuzz.ratio, score_cutoff=NEARLY, limit=8)
            for known, likeness, _ in near:
                found[known] = max(found.get(known, 0.0), NEAR_SHARE * (likeness / 100) ** 3)
        return list(found.items())


def _weights(entry: Entry) -> dict[str, float]:
    """What each word of an entry counts for."""
    # A word of a long name says less of it than one that is the whole name.
    found = dict(_said(entry.name, NAME / (1 + 0.1 * (len(words(entry.name)) - 1))))
    for word, share in _beside(entry.kind, entry.owner, entry.purpose, entry.place):
        if share > found.get(word, 0.0):
            found[word] = share
    return found


@lru_cache(maxsize=20_000)
def _beside(kind: tuple[str, ...], owner: str, purpose: str, place: str) -> tuple[tuple[str, float], ...]:
    """The words beside the name: many entries have the same."""
    found: dict[str, float] = {}
    rows = [*((k, KIND) for k in kind), (owner, OWNER), (place, PLACE)]
    said = chain(*(_said(text, share) for text, share in rows), ((word, PURPOSE) for word in words(purpose)))
    for word, share in said:
        found[word] = max(found.get(word, 0.0), share)
    return tuple(found.items())


def _said(text: str, share: float) -> Iterator[tuple[str, float]]:
    """The words of a text, each once, and two that stand side by side as one: `stepstool`."""
    said = words(text)
    found = {f"{one}{other}": JOINED * share for one, other in pairwise(said)}
    for n, word in enumerate(said):
        found[word] = max(found.get(word, 0.0), share * (HEAD if n == len(said) - 1 else BEFORE))
    yield from found.items()
