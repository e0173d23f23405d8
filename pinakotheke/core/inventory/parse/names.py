"""Which kind of thing a name means: its own words, its head word, or what is spelled almost so."""

from collections.abc import Iterable, Mapping
from functools import cache
from typing import Annotated, Self

from pydantic import Field, StringConstraints, model_validator
from rapidfuzz import fuzz, process
from rapidfuzz.distance import OSA

from ...base import Frozen, Sides
from ...errors import Refusal
from ...tables import load
from ..kinds import CUSTOM, KINDS, Kind
from .text import tokens

Tokens = tuple[str, ...]
SHORT = 8
"""A name of so many letters may have two slips of the pen (a letter wrong, missing, too many, or two swapped); a shorter
one has one.
"""
FOOD = "pantry"


NEAR = 78.0
"""How alike a name and a kind's have to be for the kind to be offered, of 100."""


class HouseWord(Frozen):
    """What a household calls something: a kind, and a size of one piece where it is its own."""

    word: Annotated[str, StringConstraints(min_length=1, max_length=240)]
    kind: Annotated[str, StringConstraints(max_length=40)]
    size: Sides | None = None
    mass: Annotated[float, Field(gt=0, le=500)] | None = None

    @model_validator(mode="after")
    def _is_known(self) -> Self:
        if self.kind not in KINDS:
            raise Refusal("thing.no-kind", kind=self.kind, known=KINDS)
        if self.kind == CUSTOM.id and self.size is None:
            raise Refusal("thing.no-size")
        return self


def word_of(name: str) -> str:
    """A name as a household's word is kept: its words, one for many.

    >>> word_of("Bobble hats"), word_of("the bobble hat")
    ('bobble hat', 'bobble hat')
    """
    return " ".join(tokens(name)) or name.lower().strip()


class Named(Frozen):
    """What a name was taken for: the kind, and whether it is a `guess`; `size` and `mass` of what nobody knows."""

    kind: Kind
    guess: bool = False
    size: Sides | None = None
    mass: float | None = None
    seasonal: bool = False


@cache
def _index() -> dict[Tokens, str]:
    """Every name of every kind by its words; *box of tea* is also *tea*, where nothing else is, and *tea box*."""
    found: dict[Tokens, str] = {}
    kinds = [kind for kind in KINDS.values() if kind is not CUSTOM]
    spoken = [(kind, word) for kind in kinds for word in (kind.one, kind.many, *kind.words, kind.id)]
    for kind, word in spoken:
        found.setdefault(tokens(word), kind.id)
    for kind, word in spoken:
        before, of, after = word.partition(" of ")
        if of and tokens(before)[-1:] and tokens(before)[-1] in _speech("counted", "words"):
            found.setdefault(tokens(after), kind.id)
            found.setdefault((*tokens(after), *tokens(before)), kind.id)
    found.pop((), None)
    return found


@cache
def _speech(section: str, key: str) -> frozenset[str]:
    return frozenset(load("speech")[section][key])


@cache
def _spelled() -> dict[str, str]:
    return {" ".join(words): kind for words, kind in _index().items()}


def named(name: str, house: Mapping[str, HouseWord] | None = None) -> Named | None:
    """The kind that a name means; None when nobody would know."""
    words = tokens(name)
    own = (house or {}).get(word_of(name))
    if own is not None:
        return Named(kind=KINDS[own.kind], size=own.size, mass=own.mass)
    return _known(words) or _contained(name) or _by_head(words) or _misspelled(words)


def _known(words: Tokens) -> Named | None:
    """A name by its words, or by its words but for what only counts and what only tells more."""
    if not words:
        return None
    found = _exact(words)
    if found is not None:
        return _named(found, words, ())
    more = _speech("qualifiers", "words") | _speech("qualifiers", "child") | _speech("counted", "words")
    for cut in range(1, len(words)):
        before, rest = words[:cut], words[cut:]
        if not set(before) <= more:
            return None
        found = _exact(rest)
        if found is not None:
            counted = before[0] in _speech("counted", "words") and before[0] in load("speech")["container"]
            return None if counted else _named(found, rest, before)
    return None


def _exact(words: Tokens) -> str | None:
    found = _index().get(words)
    if found is None:
        synonyms = load("speech")["synonyms"]
        found = _index().get(tuple(synonyms.get(w, w) for w in words))
    return found


def _named(kind: str, words: Tokens, before: Tokens, *, guess: bool = False) -> Named:
    if set(before) & _speech("qualifiers", "child"):
        kind = load("speech")["child"].get(kind, kind)
    seasonal = bool({*before, *words[:1]} & _speech("qualifiers", "seasonal"))
    return Named(kind=KINDS[kind], guess=guess, seasonal=seasonal)


def _contained(name: str) -> Named | None:
    """*Boxes of books*, *jars of jam*: what is in it, where that is bought so; else what it is in."""
    low = f" {name.lower()} "
    before, of, after = low.partition(" of ")
    holds, held = tokens(before), tokens(after)
    containers: Mapping[str, str] = load("speech")["container"]
    if not of or not holds:
        return None
    inside = _known(held) or _by_head(held)
    container = containers.get(holds[-1])
    if container is None:
        if holds[-1] in _speech("counted", "words"):
            return inside
        return None
    if inside is not None and _comes_in(inside.kind, holds[-1], container):
        return inside
    if container == CUSTOM.id:
        return unknown(holds[-1])
    return Named(kind=KINDS[container], guess=container not in ("jar-food", "tin-food"))


def _comes_in(kind: Kind, holder: str, container: str) -> bool:
    """Whether a kind is itself counted in such holders: a bottle of bleach is bleach, a box of books a box."""
    if holder in tokens(kind.one):
        return True
    if KINDS[container].group == FOOD and holder != "bottle":
        return kind.group != FOOD
    return holder in ("bottle", "bag", "sack") and kind.group in (FOOD, "cleaning", "bath", "garden", "pets", "garage")


def _by_head(words: Tokens) -> Named | None:
    """The longest end of a name that is a kind's: a guess."""
    for cut in range(1, len(words)):
        found = _exact(words[cut:])
        if found is not None:
            return _named(found, words[cut:], words[:cut], guess=True)
    return None


def _misspelled(words: Tokens) -> Named | None:
    said = " ".join(words)
    if len(said) < 4 or set(words) <= _speech("qualifiers", "words"):
        return None
    slips = 2 if len(said) >= SHORT else 1
    close = process.extractOne(said, _spelled().keys(), scorer=OSA.distance, score_cutoff=slips)
    if close is None or close[0][0] != said[0]:
        return None
    return Named(kind=KINDS[_spelled()[close[0]]], guess=True)


def unknown(name: str) -> Named:
    """A thing nobody knows, of a size that such things have by the last word of their name."""
    classes = load("speech")["unknown"]
    last = name.lower().split()[-1:] or [""]
    row = next((classes[w] for w in (last[0], *tokens(last[0])) if w in classes), classes[""])
    return Named(kind=CUSTOM, guess=True, size=(row[0], row[1], row[2]), mass=row[3])


def guesses(name: str, not_this: str = "", most: int = 6) -> tuple[Kind, ...]:
    """Other kinds that a name may mean, the likeliest first."""
    words = tokens(name)
    found: list[str] = []

    def add(kinds: Iterable[str]) -> None:
        found.extend(k for k in kinds if k not in found and k != not_this)

    for cut in range(len(words)):
        exact = _exact(words[cut:])
        add([exact] if exact else [])
    for word in reversed(words):
        add(kind for key, kind in _index().items() if word in key)
    close = process.extract(" ".join(words), _spelled().keys(), scorer=fuzz.WRatio, limit=most, score_cutoff=NEAR)
    add(_spelled()[c[0]] for c in close)
    return tuple(KINDS[k] for k in found[:most])
