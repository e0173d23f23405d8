"""Reviews: when a space is looked at again, what to look at, and where what overflows would have room."""

from collections import Counter, defaultdict
from collections.abc import Iterable, Mapping, Sequence
from datetime import date, timedelta
from typing import Annotated, Literal, NamedTuple

from pydantic import Field, StringConstraints

from ..base import AtMost, Frozen, Id
from ..inventory import FREQUENCIES, Thing
from ..inventory.things import Decision, Frequency
from ..tables import load
from .capacity import Contents, Rooms
from .places import Place, Stay
from .restock import Day, MaybeDay
from .seasons import FULL, on

Seen = Literal["overflows", "empty", "unused", "strays", "more", "fine"]
School = Literal["fortnight", "month"]


class Answer(Frozen):
    """What was seen: a place overflows, stays empty or is fine; of a thing, that nobody used it, that it never goes back,
    or that there are more of it (`count` now). `leaves` is what becomes of what nobody used, or of those that came in.
    """

    seen: Seen
    place: Annotated[str, StringConstraints(max_length=64)] = ""
    thing: Annotated[str, StringConstraints(max_length=64)] = ""
    count: Annotated[int, Field(ge=0, le=10_000)] | None = None
    leaves: Decision | Literal[""] = ""


class Review(Frozen):
    """A space was looked at on a day; `next_on` is when it is looked at again, where somebody chose the day."""

    id: Id
    space: Id
    on: Day
    next_on: MaybeDay = ""
    answers: Annotated[tuple[Answer, ...], AtMost(500)] = ()


class Leaving(Frozen):
    """A thing that leaves the house or the space: where to, and by when."""

    id: Id
    thing: Id
    to: Annotated[str, StringConstraints(strip_whitespace=True, max_length=200)] = ""
    by: MaybeDay = ""


def due(moved_in: date, reviews: Iterable[Review], school: School) -> date:
    """When a space is looked at next: the day chosen at the last look; else the first day of the school, counted from
    moving in, or the first change of season after those, that comes after the last look.
    """
    done = sorted(reviews, key=lambda r: r.on)
    last = date.fromisoformat(done[-1].on) if done else moved_in
    if done and done[-1].next_on:
        return date.fromisoformat(done[-1].next_on)
    first = [moved_in + timedelta(days=n) for n in load("review")["schools"][school]["days"]]
    ahead = [day for day in first if day > last]
    if ahead:
        return ahead[0]
    turns = (on(year, day) for year in (last.year, last.year + 1) for day in load("review")["seasons"]["days"])
    return min(day for day in turns if day > last)


class Look(NamedTuple):
    """Something to look at and why: `full` (a share above 1), `empty`, `still` (days unmoved) or `lent` (days)."""

    why: Literal["full", "empty", "still", "lent"]
    place: str
    thing: str
    amount: float


def to_look_at(places: Sequence[Place], stays: Sequence[Stay], rooms: Rooms, moved: Mapping[str, date],
               today: date) -> list[Look]:  # fmt: skip
    """What a review begins with: places that hold more than they take, those that hold nothing, things that nobody moved
    for a year (`moved` is when each was last put anywhere), and those that are long lent.
    """
    held = held_in(stays)
    ask = load("review")["ask"]
    found = []
    for place in places:
        share = rooms.full(place.id, held.get(place.id, {}))
        if share > FULL:
            found.append(Look("full", place.id, "", share))
        elif not held.get(place.id):
            found.append(Look("empty", place.id, "", 0))
    for stay in stays:
        if stay.lent_on:
            lent = (today - date.fromisoformat(stay.lent_on)).days
            if lent >= ask["lent"]["value"]:
                found.append(Look("lent", stay.place, stay.thing, lent))
    still = {t: (today - day).days for t, day in moved.items() if (today - day).days >= ask["still"]["value"]}
    where = {s.thing: s.place for s in reversed(stays)}
    found += [Look("still", where[t], t, days) for t, days in still.items() if t in where]
    return found


def held_in(stays: Iterable[Stay]) -> dict[str, Counter[str]]:
    """What lies in each place."""
    held: dict[str, Counter[str]] = defaultdict(Counter)
    for stay in stays:
        held[stay.place][stay.thing] += stay.count
    return held


def relief(places: Sequence[Place], held: Mapping[str, Contents], rooms: Rooms, thing: str, count: int, *,
           out_of: str) -> str | None:  # fmt: skip
    """The place where so many more of a thing would have room as things lie now, but for the one that overflows: the
    fullest, so that empty ones stay for what is large. None where there is none, or nobody knows.
    """
    best: tuple[float, str] | None = None
    for place in places:
        if place.id == out_of or rooms.part(place.id) is None:
            continue
        there = Counter(held.get(place.id, {}))
        there[thing] += count
        share = rooms.full(place.id, there)
        if share <= FULL and (best is None or share > best[0]):
            best = share, place.id
    return best[1] if best else None


def sooner(frequency: Frequency) -> Frequency:
    """One step more often: what never goes back wants an easier place, and gets it from how often it is used."""
    at = FREQUENCIES.index(frequency)
    return FREQUENCIES[max(at - 1, 0)]


def leaving(thing: Thing, today: date, said: Leaving | None) -> tuple[str, date]:
    """Where something that leaves goes, and by when: as was said, else the usual of its decision."""
    row = load("review")["leaves"][thing.decision]
    by = date.fromisoformat(said.by) if said and said.by else today + timedelta(days=int(row["days"]))
    return (said.to if said and said.to else str(row["to"])), by
