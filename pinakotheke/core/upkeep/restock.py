"""Restock: what is there of what is used up, when it runs out, and what is to be bought."""

from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from datetime import date, timedelta
from functools import cache
from math import ceil
from typing import Annotated, Literal

import numpy as np
from numpy.typing import NDArray
from pydantic import Field, StringConstraints

from ..base import Frozen, Id
from ..inventory import Thing
from ..inventory.kinds import CONSUMED, KINDS
from ..tables import load

Day = Annotated[str, StringConstraints(pattern=r"^\d{4}-\d{2}-\d{2}$")]
MaybeDay = Annotated[str, StringConstraints(pattern=r"^(\d{4}-\d{2}-\d{2})?$")]
Did = Literal["bought", "opened", "finished", "thrown", "counted"]
DRAWS = 6000
"""Courses of events that an estimate is made of; a share of 0.8 of them is known to half a hundredth."""
MOST_UNITS = 60
"""So far ahead is looked, pieces: what lasts longer is not about to run out."""
RECENT = 60
"""So many of the last takings say what is taken next: what a household did years ago says little."""
REGULAR = 0.03
"""No household is more regular than this, as a share of the mean cube root of its gaps."""


class Supply(Frozen):
    """A thing that is used up: how much of it is kept, and how it is bought.

    `lasting` is whether one is open and in use for a while; else what is taken is used up. `spare` is how many unopened
    ones are kept, or enough for `days`. `pack` is how many are bought at a time. `keeps` is how many days one keeps once
    open, where the household knows better than the table; 0 for as long as its pack says.
    """

    id: Id
    thing: Id
    lasting: bool = True
    spare: Annotated[int, Field(ge=0, le=1000)] = 1
    days: Annotated[int, Field(ge=1, le=730)] | None = None
    shop: Annotated[str, StringConstraints(strip_whitespace=True, max_length=80)] = ""
    pack: Annotated[int, Field(ge=1, le=1000)] = 1
    keeps: Annotated[int, Field(ge=0, le=3650)] | None = None


class Movement(Frozen):
    """What happened to a supply on a day: so many bought, opened (or taken), thrown away or counted; or the one in use is
    finished. Of what was bought, `best_before` is the day on the pack.
    """

    id: Id
    supply: Id
    did: Did
    count: Annotated[int, Field(ge=0, le=10_000)] = 1
    on: Day
    best_before: MaybeDay = ""


class Lot(Frozen):
    """So many unopened pieces with one day on them; no day where nobody said it."""

    best_before: str
    count: int


class Stock(Frozen):
    """What is there: lots, the one to take first at the front; the day since when one is in use and the day on it; and
    what was taken so far, by day.
    """

    lots: tuple[Lot, ...] = ()
    open_since: str = ""
    open_best: str = ""
    taken: tuple[tuple[str, int], ...] = ()

    @property
    def unopened(self) -> int:
        """Unopened pieces, those past their day too."""
        return sum(lot.count for lot in self.lots)

    def past(self, today: date) -> int:
        """Unopened pieces that are past the day on them."""
        return sum(lot.count for lot in self.lots if lot.best_before and lot.best_before < today.isoformat())

    @property
    def first(self) -> str:
        """The day on what is to be taken first."""
        return self.lots[0].best_before if self.lots else ""


def used_at_once(kind: str) -> bool:
    """Whether such a thing is used up when it is taken."""
    return kind in load("restock")["used"]["at_once"]


def is_medicine(thing: Thing) -> bool:
    """Whether a thing is taken into the body as medicine: past its day it is not used, and does not go down the drain."""
    return thing.kind in load("restock")["used"]["medicine"]


@cache
def kinds_used_up() -> frozenset[str]:
    """The kinds of things that are used up and bought again."""
    return frozenset(k for k, row in KINDS.items() if row.group in CONSUMED) - set(load("restock")["used"]["durable"])


def stock_of(supply: Supply, movements: Iterable[Movement]) -> Stock:
    """What is there after all that happened, in the order of its days (as they come within a day). The pack with the
    earliest day is taken first, those without a day last. More taken than were known of leaves none, and counts as taken.
    """
    lots: Counter[str] = Counter()
    since = best = ""
    taken: Counter[str] = Counter()

    def take(count: int) -> str:
        last = ""
        for day in sorted(lots, key=lambda d: (not d, d)):
            less = min(lots[day], count)
            if less:
                lots[day] -= less
                count -= less
                last = day
        return last

    for one in sorted((m for m in movements if m.supply == supply.id), key=lambda m: m.on):
        if one.did == "bought":
            lots[one.best_before] += one.count
        elif one.did == "opened":
            day = take(one.count)
            taken[one.on] += one.count
            if supply.lasting and one.count:
                since, best = one.on, day
        elif one.did == "finished":
            since = best = ""
        elif one.did == "thrown":
            take(one.count)
        else:
            there = sum(lots.values())
            if one.count < there:
                take(there - one.count)
            lots[one.best_before] += max(0, one.count - there)
    found = tuple(Lot(best_before=day, count=n) for day, n in sorted(lots.items(), key=lambda d: (not d[0], d[0])) if n)
    return Stock(
        lots=found, open_since=since, open_best=best, taken=tuple((d, n) for d, n in sorted(taken.items()) if n)
    )


def use_by(supply: Supply, stock: Stock, kind: str) -> str:
    """The day by which what is open is used: that of its pack, or sooner where it keeps for so long once open."""
    if not stock.open_since:
        return ""
    row = load("restock")["keeps"].get(kind)
    keeps = supply.keeps if supply.keeps is not None else int(row["value"]) if row else 0
    after = (date.fromisoformat(stock.open_since) + timedelta(days=keeps)).isoformat() if keeps else ""
    return min((day for day in (stock.open_best, after) if day), default="")


class RunOut(Frozen):
    """When nothing is left: the likeliest middle, and between which days with which probability `sure`."""

    likely: str
    earliest: str
    latest: str
    sure: float


def _courses(
    taken: Sequence[tuple[str, int]], today: date, units: int
) -> tuple[NDArray[np.float64], NDArray[np.int64]] | None:
    """Courses of what is taken next: days from today at which it is taken (courses × takings, rising), and pieces in all
    until then. None where too little is known, or where the last taking is so long ago that none of them fits.

    Cube roots of gamma-like gaps are near to normal (Wilson and Hilferty 1931; predictions by it: Krishnamoorthy, Mathew
    and Mukherjee 2008, from memory). Mean and spread are drawn as the gaps allow: s² (k − 1)/χ², and a normal about it.
    """
    taken = taken[-RECENT:]
    days = [date.fromisoformat(day) for day, _ in taken]
    gaps = np.diff(np.array([d.toordinal() for d in days], float))
    if len(gaps) < float(load("restock")["estimate"]["gaps"]["value"]):
        return None
    rng = np.random.default_rng(len(gaps))
    roots = np.cbrt(gaps)
    k, mean = len(roots), float(roots.mean())
    spread = max(float(roots.std(ddof=1)), REGULAR * mean)
    sigma = spread * np.sqrt((k - 1) / rng.chisquare(k - 1, DRAWS))
    mu = mean + sigma * rng.standard_normal(DRAWS) / np.sqrt(k)
    first = np.maximum(mu + sigma * rng.standard_normal(DRAWS), 0) ** 3
    since = (today - days[-1]).days
    fits = first > since
    if fits.sum() < DRAWS / 50:
        return None
    mu, sigma, first = mu[fits], sigma[fits], first[fits]
    rest = np.maximum(mu[:, None] + sigma[:, None] * rng.standard_normal((len(mu), units - 1)), 0) ** 3
    at = np.cumsum(np.concatenate([(first - since)[:, None], rest], axis=1), axis=1)
    sizes = rng.choice([n for _, n in taken], at.shape)
    return at, np.cumsum(sizes, axis=1)


def run_out(supply: Supply, stock: Stock, today: date) -> RunOut | None:
    """When the last piece is used up, from the household's own takings; None where they do not say it yet, where nothing
    is left, or where it lasts too long to say.

    Of what is open for a while, the last is used up when one more would be opened.
    """
    units = stock.unopened + (1 if supply.lasting and stock.open_since else 0)
    if not 0 < units <= MOST_UNITS:
        return None
    courses = _courses(stock.taken, today, units)
    if courses is None:
        return None
    at, pieces = courses
    ends = at[np.arange(len(at)), np.argmax(pieces >= units, axis=1)]
    tail = (1 - float(load("restock")["estimate"]["sure"]["value"])) / 2
    low, high = int(np.floor(np.quantile(ends, tail))), int(np.ceil(np.quantile(ends, 1 - tail)))
    # Days are whole: what is said of the interval counts the halves of the days at its ends.
    sure = float(np.mean((ends >= low - 0.5) & (ends < high + 0.5)))
    likely, earliest, latest = (
        (today + timedelta(days=max(n, 0))).isoformat() for n in (round(float(np.median(ends))), low, high)
    )
    return RunOut(likely=likely, earliest=earliest, latest=latest, sure=sure)


def par(supply: Supply, stock: Stock, today: date) -> int:
    """How many unopened ones are kept: the spare ones, or as many as last for so many days nine times in ten; while too
    little is known of a household, as many as its takings so far say on average, and one at least.
    """
    if supply.days is None:
        return supply.spare
    courses = _courses(stock.taken, today, MOST_UNITS)
    if courses is not None:
        at, pieces = courses
        used = np.where(at <= supply.days, pieces, 0).max(axis=1)
        return max(1, ceil(float(np.quantile(used, float(load("restock")["estimate"]["enough"]["value"])))))
    if not stock.taken:
        return 1
    span = max((today - date.fromisoformat(stock.taken[0][0])).days, 1)
    return max(1, ceil(sum(n for _, n in stock.taken) * supply.days / span))


def to_buy(supply: Supply, stock: Stock, today: date) -> int:
    """Packs to buy, so that what is kept is there again; what is past its day counts as gone."""
    short = par(supply, stock, today) - (stock.unopened - stock.past(today))
    if supply.lasting and not stock.open_since:
        short += 1
    return max(0, ceil(short / supply.pack))


def dates_on(supplies: Iterable[Supply], movements: Sequence[Movement], things: Mapping[str, Thing]) -> dict[str, str]:
    """The day by which what is open of a thing is used, by thing: it goes onto the label of its jar."""
    found = {s.thing: use_by(s, stock_of(s, movements), things[s.thing].kind) for s in supplies if s.thing in things}
    return {thing: day for thing, day in found.items() if day}
