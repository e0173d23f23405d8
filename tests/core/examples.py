"""Invented closets, things and houses that several tests share."""

from collections.abc import Iterable
from functools import lru_cache
from importlib.resources import files

from pinakotheke.core.house import HouseRules, Person
from pinakotheke.core.housefile import House, load_house
from pinakotheke.core.inventory import Thing
from pinakotheke.core.layout import Design, Solution, Task, apply, design_space
from pinakotheke.core.layout.edit.commands import SwapPart
from pinakotheke.core.survey import Envelope, Survey, envelope, hear

PLAIN = "width 1846 1849 1843; height 2412 2408 2415; depth 612 618; opening 1250 x 2030; nibs 296 300"
TIGHT_FIT = HouseRules(fit="every-inch", reserve=0)
ADULT = Person(id="ada", name="Ada", stature=1700)


def survey(line: str = PLAIN) -> Survey:
    """A survey from a call-out line that is understood whole."""
    heard = hear(line, Survey(), "metric")
    assert not heard.misheard, heard.misheard
    return heard.kept_in(Survey())


def survey_of(kind: str, *lines: str) -> Survey:
    """A survey of any kind of space from call-out lines that are understood whole."""
    got = Survey.model_validate({"kind": kind})
    for line in lines:
        heard = hear(line, got, "metric")
        assert not heard.misheard, heard.misheard
        got = heard.kept_in(got)
    return got


def region(line: str = PLAIN, rules: HouseRules = TIGHT_FIT) -> Envelope:
    """The envelope of a call-out line."""
    return envelope(survey(line), rules)


def regions(line: str = PLAIN, rules: HouseRules = TIGHT_FIT) -> dict[str, Envelope]:
    """The envelopes of a call-out line, by section."""
    return {"A": region(line, rules)}


def thing(id: str, kind: str, count: int = 1, **facts: object) -> Thing:
    """A thing in the space `closet`."""
    return Thing.model_validate({"id": id, "name": id, "kind": kind, "count": count, "space": "closet", **facts})


WARDROBE = (
    thing("shirts", "shirt", 9, frequency="daily"),
    thing("jumpers", "jumper", 5),
    thing("socks", "socks", 12, frequency="daily", way="drawer"),
    thing("boots", "boot-ankle", 1, frequency="seasonal"),
)


FOLDED = (*WARDROBE[:2], thing("jeans", "jeans", 6), WARDROBE[3])
"""Things that need no drawer."""


def solved(things: Iterable[Thing] = WARDROBE, line: str = PLAIN, rules: HouseRules = TIGHT_FIT,
           effort: float = 0.1, **options: object) -> Solution:  # fmt: skip
    """Alternatives by a short search."""
    return design_space(task(things, line, rules, effort, **options))


def task(things: Iterable[Thing] = WARDROBE, line: str = PLAIN, rules: HouseRules = TIGHT_FIT, effort: float = 0.1,
         **options: object) -> Task:  # fmt: skip
    """What `solved` searches."""
    return Task("closet", survey(line), regions(line, rules), tuple(things), (ADULT,), rules, effort=effort, **options)  # type: ignore[arg-type]


@lru_cache
def wardrobe() -> Design:
    """One small complete design of carcases with drawers, always the same."""
    found = next(d for d in solved(families=("carcase",)).alternatives
                 if len(d.bays) > 1 and {"rail", "shelf"} < {p.role for p in d.parts})  # fmt: skip
    for part in found.parts:
        if part.role == "basket":
            found = apply(found, SwapPart(part=part.id, role="drawer"))
    return found


@lru_cache
def hung() -> Design:
    """One small complete design on track and standard, always the same."""
    return next(d for d in solved(FOLDED, families=("track",)).alternatives if d.goal == "roomiest")


@lru_cache
def demo_house() -> House:
    """The demo household."""
    return load_house(files("pinakotheke.demo").joinpath("halt.house.json").read_bytes())
