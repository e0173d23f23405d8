"""Seasons: sets of things that take turns in their places, both states held against what the places take, and the moves in
an order in which no place ever holds more than it takes.
"""

from collections import Counter
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from heapq import heappop, heappush
from itertools import count
from typing import Annotated, Literal, NamedTuple

from pydantic import Field, StringConstraints

from ..base import AtMost, Frozen, Id, Name
from .capacity import Contents, without_none
from .places import Stay

State = Literal["during", "after"]
MonthDay = Annotated[str, StringConstraints(pattern=r"^\d{2}-\d{2}$")]
IN_USE = ""
"""In the place of a place: worn, on the car, on the tree."""
ASIDE = "aside"
"""In the place of a place: laid down beside until there is room; no id of a place, which begins with its space's."""
MOST_STATES = 3000
"""So many states of the house are looked at for the fewest moves; beyond, what stands in the way is laid aside."""
FULL = 1 + 1e-9


class SwapRow(Frozen):
    """So many of a thing, where they are during the season and after it; no place while they are in use."""

    thing: Id
    count: Annotated[int, Field(ge=1, le=10_000)]
    during: Annotated[str, StringConstraints(max_length=64)] = IN_USE
    after: Annotated[str, StringConstraints(max_length=64)] = IN_USE

    def at(self, state: State) -> str:
        """Its place in a state."""
        return self.during if state == "during" else self.after


class Swap(Frozen):
    """Things that take turns: the season `begins` and `ends` on a day of every year (month-day). `now` is how it stands."""

    id: Id
    name: Name
    begins: MonthDay
    ends: MonthDay
    rows: Annotated[tuple[SwapRow, ...], AtMost(200)] = ()
    now: State = "after"


def other(state: State) -> State:
    """The state that a swap leads to."""
    return "after" if state == "during" else "during"


def next_day(swap: Swap, today: date) -> date:
    """The next day on which it is to be swapped: that of the state which it is not in. Of 29 February the day before."""
    wanted = swap.begins if swap.now == "after" else swap.ends
    return min(day for year in (today.year, today.year + 1) if (day := on(year, wanted)) >= today)


def on(year: int, month_day: str) -> date:
    """A day of a year; raises `ValueError` where no year has it."""
    month, day = int(month_day[:2]), int(month_day[3:])
    if (month, day) == (2, 29) and not (year % 4 == 0 and (year % 100 != 0 or year % 400 == 0)):
        day = 28
    return date(year, month, day)


@dataclass(frozen=True, slots=True)
class Move:
    """So many of a thing from one place to another; `IN_USE` and `ASIDE` stand for what is no place."""

    thing: str
    count: int
    source: str
    target: str


def moves_of(swap: Swap, stays: Iterable[Stay], counts: Mapping[str, int]) -> tuple[Move, ...]:
    """What changes its place at the next swap: no more than lies there, and of what is in use no more than there are.
    `counts` is how many there are of each thing.
    """
    held: Counter[tuple[str, str]] = Counter()
    placed: Counter[str] = Counter()
    for stay in stays:
        held[stay.place, stay.thing] += stay.count
        placed[stay.thing] += stay.count
    found = []
    for row in swap.rows:
        source, target = row.at(swap.now), row.at(other(swap.now))
        there = held[source, row.thing] if source else counts.get(row.thing, 0) - placed[row.thing]
        pieces = min(row.count, there)
        if pieces > 0 and source != target:
            found.append(Move(row.thing, pieces, source, target))
            held[source, row.thing] -= pieces
            placed[row.thing] += (pieces if target else 0) - (pieces if source else 0)
    return tuple(found)


def after_moves(stays: Iterable[Stay], moves: Iterable[Move]) -> dict[str, dict[str, int]]:
    """What lies in each place once the moves are done."""
    held: dict[str, Counter[str]] = {}
    for stay in stays:
        held.setdefault(stay.place, Counter())[stay.thing] += stay.count
    for move in moves:
        if move.source:
            held.setdefault(move.source, Counter())[move.thing] -= move.count
        if move.target:
            held.setdefault(move.target, Counter())[move.thing] += move.count
    return without_none(held)


class Order(NamedTuple):
    """Moves in their order, and whether it is proven that no order lays fewer aside."""

    moves: tuple[Move, ...]
    fewest: bool


def order_of_moves(
    moves: Sequence[Move], held: Mapping[str, Contents], full: Callable[[str, Contents], float]
) -> Order:
    """An order in which no place holds more than it takes at any moment, with as few things laid aside as can be.

    Best first over the states of the house (each move not begun, aside or done), fewest aside first: the first end that is
    met lays the fewest aside. `full` is the share of a place that its contents take. A place that is overfull to begin with
    is only emptied until there is room. What never goes into its place stays aside: the caller looks at both states first.
    """
    start = tuple(0 for _ in moves)
    fresh = count()
    queue: list[tuple[int, int, int, tuple[int, ...], tuple[Move, ...]]] = [(0, len(moves), next(fresh), start, ())]
    seen: set[tuple[int, ...]] = set()
    best: tuple[int, tuple[int, ...], tuple[Move, ...]] | None = None
    while queue and len(seen) < MOST_STATES:
        asides, left, _, state, done = heappop(queue)
        if left == 0:
            return Order(done, True)
        if state in seen:
            continue
        seen.add(state)
        if best is None or left < best[0]:
            best = left, state, done
        lying = _lying(held, moves, state)
        for n, move in enumerate(moves):
            if state[n] == 2:
                continue
            if move.target == IN_USE or _goes_in(move, lying, full):
                source = ASIDE if state[n] else move.source
                step = Move(move.thing, move.count, source, move.target)
                heappush(queue, (asides, left - 1, next(fresh), _with(state, n, 2), (*done, step)))
            if state[n] == 0 and move.source != IN_USE and move.target != IN_USE:
                aside = Move(move.thing, move.count, move.source, ASIDE)
                heappush(queue, (asides + 1, left, next(fresh), _with(state, n, 1), (*done, aside)))
    return _laid_aside(moves, held, full, best)


def _laid_aside(moves: Sequence[Move], held: Mapping[str, Contents], full: Callable[[str, Contents], float],
                best: tuple[int, tuple[int, ...], tuple[Move, ...]] | None) -> Order:  # fmt: skip
    """From the state that came farthest: what is left is laid aside, then put in as it goes."""
    state, found = (best[1], list(best[2])) if best else (tuple(0 for _ in moves), [])
    for n, move in enumerate(moves):
        if state[n] == 0 and move.source != IN_USE:
            target = IN_USE if move.target == IN_USE else ASIDE
            found.append(Move(move.thing, move.count, move.source, target))
            state = _with(state, n, 2 if target == IN_USE else 1)
    for n, move in enumerate(moves):
        if state[n] != 2 and (move.target == IN_USE or _goes_in(move, _lying(held, moves, state), full)):
            found.append(Move(move.thing, move.count, ASIDE if state[n] else move.source, move.target))
            state = _with(state, n, 2)
    return Order(tuple(found), False)


def _with(state: tuple[int, ...], n: int, value: int) -> tuple[int, ...]:
    return (*state[:n], value, *state[n + 1 :])


def _lying(held: Mapping[str, Contents], moves: Sequence[Move], state: Sequence[int]) -> dict[str, Counter[str]]:
    lying = {place: Counter(one) for place, one in held.items()}
    for move, at in zip(moves, state, strict=True):
        if at and move.source:
            lying.setdefault(move.source, Counter())[move.thing] -= move.count
        if at == 2 and move.target:
            lying.setdefault(move.target, Counter())[move.thing] += move.count
    return lying


def _goes_in(move: Move, lying: Mapping[str, Counter[str]], full: Callable[[str, Contents], float]) -> bool:
    there = Counter(lying.get(move.target, {}))
    there[move.thing] += move.count
    return full(move.target, {t: n for t, n in there.items() if n > 0}) <= FULL
