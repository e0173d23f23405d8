"""When each step is done: so many people, evenings and weekends, drying between steps.

A resource-constrained project schedule: a step takes its minutes without a break within one stretch of time, uses its
hands, and what follows begins when it is done and dry. The first answer comes from a list (longest way to the end
first); CP-SAT betters it and proves how good it can be.
"""

from collections.abc import Sequence
from datetime import datetime, timedelta
from math import ceil
from time import perf_counter

from ortools.sat.python import cp_model

from ..base import Frozen
from .choice import InstallChoice
from .steps import Step

EVENING, MORNING = 18 * 60, 9 * 60
DAY = 24 * 60
MOST_DAYS = 400
MOST_SECONDS = 5.0


class Booked(Frozen):
    """When a step is done, in minutes from midnight of the first day, and which of the people do it, from 0. A step longer
    than any stretch of time is done in pieces: one `Booked` each.
    """

    step: str
    start: int
    end: int
    people: tuple[int, ...] = ()


class Schedule(Frozen):
    """Steps with their times. `end` is when the last is done, `bound` the earliest that anything could be done by, both in
    minutes from midnight of the first day; `days` on how many work is done. `ends` is what the list alone came to.
    """

    booked: tuple[Booked, ...]
    end: int
    bound: int
    days: int
    is_proven: bool
    list_end: int

    @property
    def gap(self) -> float:
        """By how much the end could still be earlier, as a share of it."""
        return (self.end - self.bound) / self.end if self.end else 0.0


class Stretch(Frozen):
    """A stretch of time in which work is done, minutes from midnight of the first day."""

    start: int
    end: int


class NoTime(ValueError):
    """Neither evenings nor weekends are said to be free."""


def _there(choice: InstallChoice, step: Step) -> int:
    """The minute from which on everything a step needs is there: what is bought, and what is cut or bought anew."""
    if not step.parts or step.turn == "fill":
        return 0
    days = [choice.delivered or choice.start, *(a.there for a in choice.again if a.part in step.parts)]
    return max(0, (max(days) - choice.start).days * DAY)


def stretches(choice: InstallChoice, minutes: int, since: int = 0) -> tuple[Stretch, ...]:
    """Evenings and weekend days from the first day on, until those after the minute `since` hold `minutes` twice over.
    Raises `NoTime`.
    """
    if choice.evening + choice.weekend <= 0:
        raise NoTime
    found: list[Stretch] = []
    held = 0
    for n in range(MOST_DAYS):
        weekend = (choice.start + timedelta(days=n)).weekday() >= 5
        long, opens = (choice.weekend, MORNING) if weekend else (choice.evening, EVENING)
        if long:
            found.append(Stretch(start=n * DAY + opens, end=n * DAY + opens + long))
            held += long if n * DAY >= since else 0
        if held >= 2 * minutes and len(found) > 14:
            break
    return tuple(found)


def when(choice: InstallChoice, minute: int) -> datetime:
    """A minute of a schedule as a moment."""
    return datetime.combine(choice.start, datetime.min.time()) + timedelta(minutes=minute)


class _Piece(Frozen):
    """What has to be done without a break: a step, or as much of a long one as a stretch holds."""

    step: int
    minutes: int
    hands: int
    wait: int
    after: tuple[int, ...]
    ready: int = 0
    """What it needs is there from this minute on."""


def schedule(steps: Sequence[Step], choice: InstallChoice, seconds: float = MOST_SECONDS) -> Schedule:
    """The earliest end, or as few days as it takes: by `choice.aim`. Steps are in an order in which they can be done; what
    comes before a step and is not among them is done already. Raises `NoTime`.
    """
    longest = max(choice.evening, choice.weekend)
    if longest <= 0:
        raise NoTime
    shortest = min(m for m in (choice.evening, choice.weekend) if m)
    pieces = _pieces(steps, choice, longest, shortest)
    if not pieces:
        return Schedule(booked=(), end=0, bound=0, days=0, is_proven=True, list_end=0)
    asked = sum(p.minutes * p.hands for p in pieces) + sum(p.wait for p in pieces)
    free = stretches(choice, asked, max(p.ready for p in pieces))
    first = by_list(pieces, free, choice.people)
    starts, bound, proven = _by_model(pieces, free, choice, first, seconds)
    starts = _as_early(pieces, free, choice, starts)
    end = max(s + p.minutes for s, p in zip(starts, pieces, strict=True))
    by_list_end = max(s + p.minutes for s, p in zip(first, pieces, strict=True))
    booked = _with_people(steps, pieces, starts, choice.people)
    return Schedule(booked=booked, end=end, bound=bound, is_proven=proven, list_end=by_list_end,
                    days=len({s // DAY for s in starts}))  # fmt: skip


def _pieces(steps: Sequence[Step], choice: InstallChoice, longest: int, shortest: int = 0) -> list[_Piece]:
    """Steps as pieces that go into a stretch: into the `longest`; those of many parts, of which some can be put up today
    and the others tomorrow, into the `shortest`, minutes. Steps with parts are not done before those are there.
    """
    at: dict[str, int] = {}
    found: list[_Piece] = []
    for n, step in enumerate(steps):
        ready = _there(choice, step)
        rest = max(1, ceil(step.minutes))
        after = tuple(at[name] for name in step.after if name in at)
        most = shortest if shortest and (len(step.parts) > 1 or step.turn == "fill") else longest
        while rest > 0:
            part = min(rest, most)
            rest -= part
            found.append(_Piece(step=n, minutes=part, hands=min(step.hands, choice.people), after=after,
                                wait=0 if rest else ceil(step.wait), ready=ready))  # fmt: skip
            after = (len(found) - 1,)
        at[step.id] = len(found) - 1
    return found


def tails(pieces: Sequence[_Piece]) -> list[int]:
    """Minutes from the beginning of each piece to the end of everything that waits for it: the longest way."""
    found = [p.minutes for p in pieces]
    for n in range(len(pieces) - 1, -1, -1):
        for before in pieces[n].after:
            found[before] = max(found[before], pieces[before].minutes + pieces[before].wait + found[n])
    return found


def by_list(pieces: Sequence[_Piece], free: Sequence[Stretch], people: int) -> list[int]:
    """Starts by a list: of all pieces whose time has come the one with the longest way to the end, as early as it goes."""
    way = tails(pieces)
    starts: list[int] = [-1] * len(pieces)
    busy: list[tuple[int, int, int]] = []
    rest = set(range(len(pieces)))
    while rest:
        ready = [n for n in rest if all(starts[b] >= 0 for b in pieces[n].after)]
        n = max(ready, key=lambda k: (way[k], -k))
        piece = pieces[n]
        earliest = max((piece.ready, *(starts[b] + pieces[b].minutes + pieces[b].wait for b in piece.after)))
        starts[n] = _fits(piece, earliest, free, busy, people)
        busy.append((starts[n], starts[n] + piece.minutes, piece.hands))
        rest.remove(n)
    return starts


def _fits(
    piece: _Piece, earliest: int, free: Sequence[Stretch], busy: Sequence[tuple[int, int, int]], people: int
) -> int:
    """The earliest start within a stretch at which there are hands enough all the while."""
    ends = sorted(b for _, b, _ in busy if b > earliest)
    for stretch in free:
        for at in (max(earliest, stretch.start), *(e for e in ends if stretch.start < e)):
            to = at + piece.minutes
            if at < max(earliest, stretch.start) or to > stretch.end:
                continue
            over = [(a, b, h) for a, b, h in busy if a < to and at < b]
            peak = max(
                (sum(h for a, b, h in over if a <= t < b) for t in (at, *(a for a, _, _ in over if a > at))), default=0
            )
            if peak + piece.hands <= people:
                return at
    return max(free[-1].end, earliest) + sum(b - a for a, b, _ in busy)


def _by_model(pieces: Sequence[_Piece], free: Sequence[Stretch], choice: InstallChoice, first: Sequence[int],
              seconds: float) -> tuple[list[int], int, bool]:  # fmt: skip
    """Starts by CP-SAT from those of the list, the bound of the end, and whether it is proven."""
    began, model = perf_counter(), cp_model.CpModel()
    last = max(s + p.minutes for s, p in zip(first, pieces, strict=True))
    starts, intervals, used = [], [], dict[int, cp_model.IntVar]()
    for n, piece in enumerate(pieces):
        inside = [(max(s.start, piece.ready), s.end - piece.minutes) for s in free
                  if s.end - piece.minutes >= max(s.start, piece.ready) and s.start < last]  # fmt: skip
        start = model.new_int_var_from_domain(cp_model.Domain.from_intervals([list(i) for i in inside]), f"s{n}")
        intervals.append(model.new_fixed_size_interval_var(start, piece.minutes, f"i{n}"))
        starts.append(start)
        for before in piece.after:
            model.add(start >= starts[before] + pieces[before].minutes + pieces[before].wait)
        model.add_hint(start, first[n])
    model.add_cumulative(intervals, [p.hands for p in pieces], choice.people)
    end = model.new_int_var(0, last, "end")
    model.add_max_equality(end, [s + p.minutes for s, p in zip(starts, pieces, strict=True)])
    if choice.aim == "fewest days":
        days = [k for k in range(last // DAY + 1) if any(s.start // DAY == k for s in free)]
        for k in days:
            used[k] = model.new_bool_var(f"d{k}")
        for start in starts:
            day = model.new_int_var(0, last // DAY, "")
            model.add_division_equality(day, start, DAY)
            on = [model.new_bool_var("") for _ in days]
            model.add_exactly_one(on)
            for k, lit in zip(days, on, strict=True):
                model.add(day == k).only_enforce_if(lit)
                model.add_implication(lit, used[k])
        model.minimize(sum(used.values()) * (last + 1) + end)
    else:
        model.minimize(end)
    solver = cp_model.CpSolver()
    solver.parameters.max_time_in_seconds = max(0.2, seconds - (perf_counter() - began))
    solver.parameters.num_workers = 2
    solver.parameters.random_seed = 1
    status = solver.solve(model)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return list(first), _least(pieces, free, choice.people), False
    found = [solver.value(s) for s in starts]
    finish = max(s + p.minutes for s, p in zip(found, pieces, strict=True))
    proven = status == cp_model.OPTIMAL
    told = ceil(solver.best_objective_bound) if choice.aim == "soonest" else 0
    return (
        found,
        finish if proven and choice.aim == "soonest" else max(told, _least(pieces, free, choice.people)),
        proven,
    )


def _as_early(pieces: Sequence[_Piece], free: Sequence[Stretch], choice: InstallChoice,
              starts: Sequence[int]) -> list[int]:  # fmt: skip
    """Every piece as early as it goes in the order in which the pieces begin: what could wait does not, and no day is kept
    free for nothing. Where as few days are asked for, they stay as they are if this took more.
    """
    found, busy = [-1] * len(pieces), list[tuple[int, int, int]]()
    for n in sorted(range(len(pieces)), key=lambda k: (starts[k], k)):
        before = (found[b] + pieces[b].minutes + pieces[b].wait for b in pieces[n].after)
        earliest = max((pieces[n].ready, *before))
        found[n] = _fits(pieces[n], earliest, free, busy, choice.people)
        busy.append((found[n], found[n] + pieces[n].minutes, pieces[n].hands))
    days = [len({s // DAY for s in one}) for one in (found, starts)]
    return list(starts) if choice.aim == "fewest days" and days[0] > days[1] else found


def _least(pieces: Sequence[_Piece], free: Sequence[Stretch], people: int) -> int:
    """A bound without a search: the longest way from the first free minute, and all the work shared out evenly."""
    way = free[0].start + max(tails(pieces))
    work = sum(p.minutes * p.hands for p in pieces) / people
    for stretch in free:
        if work <= stretch.end - stretch.start:
            return max(way, stretch.start + ceil(work))
        work -= stretch.end - stretch.start
    return way


def _with_people(
    steps: Sequence[Step], pieces: Sequence[_Piece], starts: Sequence[int], people: int
) -> tuple[Booked, ...]:
    """Who does what: whoever is free, the one who has done least first. There are always enough: people are alike."""
    free_from, done = [0] * people, [0] * people
    found: list[Booked] = []
    for n in sorted(range(len(pieces)), key=lambda k: (starts[k], k)):
        piece, start = pieces[n], starts[n]
        at_hand = sorted((p for p in range(people) if free_from[p] <= start), key=lambda p: (done[p], p))[: piece.hands]
        for p in at_hand:
            free_from[p], done[p] = start + piece.minutes, done[p] + piece.minutes
        found.append(
            Booked(step=steps[piece.step].id, start=start, end=start + piece.minutes, people=tuple(sorted(at_hand)))
        )
    return tuple(found)


def faults_of_schedule(steps: Sequence[Step], booked: Sequence[Booked], choice: InstallChoice) -> tuple[str, ...]:
    """What is wrong with a schedule, minute by minute where something changes; it shares nothing with how it was found."""
    by_step = {s.id: [b for b in booked if b.step == s.id] for s in steps}
    found = [
        f"minutes: {s.id}" for s in steps if sum(b.end - b.start for b in by_step[s.id]) != max(1, ceil(s.minutes))
    ]
    ends = {name: max((b.end for b in rows), default=0) for name, rows in by_step.items()}
    waits = {s.id: ceil(s.wait) for s in steps}
    there = (choice.delivered - choice.start).days * DAY if choice.delivered else 0
    found += [
        f"delivered: {s.id}"
        for s in steps
        if s.parts and s.turn != "fill" and any(b.start < there for b in by_step[s.id])
    ]
    found += [
        f"anew: {s.id}"
        for s in steps
        for a in choice.again
        if s.turn != "fill" and a.part in s.parts
        and any(choice.start + timedelta(days=b.start // DAY) < a.there for b in by_step[s.id])
    ]  # fmt: skip
    for step in steps:
        begins = min((b.start for b in by_step[step.id]), default=0)
        found += [f"before: {step.id}" for name in step.after if name in ends and begins < ends[name] + waits[name]]
    hands = {s.id: min(s.hands, choice.people) for s in steps}
    for b in booked:
        over = [o for o in booked if o.start <= b.start < o.end]
        if sum(hands[o.step] for o in over) > choice.people or len({p for o in over for p in o.people}) != sum(
            len(o.people) for o in over
        ):
            found.append(f"hands: {b.step}")
        day = choice.start + timedelta(days=b.start // DAY)
        opens, long = (MORNING, choice.weekend) if day.weekday() >= 5 else (EVENING, choice.evening)
        if not opens <= b.start % DAY <= b.end - b.start // DAY * DAY <= opens + long:
            found.append(f"time: {b.step}")
    return tuple(found)
