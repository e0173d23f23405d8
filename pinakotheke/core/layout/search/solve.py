"""Complete alternatives for a space: one for each goal and for each other way to build it, each proven by the verifier.

A race of starts: every candidate is furnished by best fit, which takes milliseconds; the most promising go through a few
moves of ruin and repair, the best of those through more, the best of all through many. Both cores work on it. The first
complete layout is handed over at once, alternatives as they are found. All furnished candidates that hold everything
make the frontier: cost against room and reach.
"""

from collections.abc import Iterable, Iterator, Sequence
from concurrent.futures import Future, ThreadPoolExecutor
from dataclasses import dataclass, field
from math import inf
from os import sched_getaffinity
from random import Random
from statistics import median

from ...saying import say
from ...systems import Family
from ..goals import REASONS, SEARCHED, TITLES
from ..insert.drawers import drawer_sections
from ..insert.fittings import inserts_of
from ..models import Design, Goal
from ..packing.task import Task
from ..placement.candidates import Candidate
from ..placement.neighbours import neighbours, reshaped
from ..placement.pool import candidates, families_of, settled
from .blocked import Blocked, blocked_by_budget, blocked_by_demand, too_many, too_small, without_families
from .drawers import SHOWN, beside_drawers, in_drawers
from .frontier import frontier_of, point_of, sensitivities
from .furnish import Furnished, begin, carried_over, design_of, furnish, heap_of, improve, seen_as
from .gallery import distinct, rightly_named, shape_of
from .kept import kept_candidate
from .quick import rank
from .solution import Solution

HEATS = ((72, 90), (36, 180), (14, 450))
"""Rounds of the race: how many run, and for how many moves each."""
ANEW = ((24, 300), (10, 700), (4, 1500))
"""Rounds of the race for what is tidy, which is seldom what is cheap."""
LONGER = 3
"""Times the moves of a round that each runner is given at most where they are few."""
LOOKED_AT_ANEW = 40
"""Candidates of the first race that are looked at once more for what is tidy."""
AT_PACE = 230
"""Bays by groups; where they are more, each move takes longer, so there are fewer of them."""
BENDS, BENT_FROM, BENT, RESHAPED, BENT_ON = 2, 4, 6, 4, 6
"""Then the widths of the best so many are bent, in so many rounds, to so many neighbours each, and so many have another
depth or height; so many of all those go on."""
MORE = 6
"""Rounds more, at length, while nothing holds everything."""
AT_LENGTH = (600, 2500)
"""Moves for a goal from each of its starts, and then from the two best of them; also for the best of another family."""
REFINED, NEAR = {"cheapest": 4, "tidiest": 3}, ((16, 100), (5, 400), (2, 1500))
"""At most so many times (once where nothing is said) the best of a goal gives way to one a step from it; rounds of the
race of those.
"""
STARTS = 3
"""Starts of a goal: what of the race serves it best."""
OTHER_WAYS = 3
"""Alternatives of families that no goal came out in."""
ENOUGH = 4
"""Complete alternatives from which no more are looked for."""
TRIED = 12
"""Candidates on which changes are tried when not everything has a place."""
FRONTIER = 14
"""Complete answers that the frontier is made of."""
AHEAD = (16, 32)
"""So many candidates, and then so many more, have their places looked up before all others, so that something complete
is soon there.
"""
WAVE = 4
"""Candidates begun between two looks at what has come of those that are helped along meanwhile."""
FRESH, FRESH_MOVES = 3, 180
"""Of what was begun and not yet helped the best so many, with so many moves each; they are few, for every wave waits."""
AGAIN, AGAIN_MOVES = 1, 600
"""Of what was helped once the best so many, with so many moves."""


@dataclass(slots=True)
class _Search:
    """A search on all cores, and what it has come upon so far."""

    task: Task
    cores: ThreadPoolExecutor
    designs: dict[str, Design] = field(default_factory=dict)
    best: dict[Goal, Furnished] = field(default_factory=dict)
    ran: list[Furnished] = field(default_factory=list)
    homeless: dict[int, int] = field(default_factory=dict)
    """Groups that have no place at all in a candidate."""
    pace: float = 1.0
    """Share of the usual moves that the space is given."""
    shown: bool = False
    cut_short: bool = False
    """Whether its time was up before every goal had its turn."""

    def note(self, furnished: Iterable[Furnished]) -> list[Furnished]:
        """Keep in mind what was tried, the best first."""
        ranked = sorted((self.seen(f) for f in furnished), key=self.promise)
        self.ran += ranked
        return ranked

    def seen(self, one: Furnished) -> Furnished:
        """The same; the first that holds everything is handed over at once."""
        if not self.shown and not one.unplaced:
            self.shown = True
            self.task.watch.found(design_of(self.task, one))
        return one

    def further(self, some: Iterable[Furnished], moves: int, path: int) -> list[Furnished]:
        """So many more moves from each of some, side by side, while those after it are still being made; the best first."""
        return self.come_of([self.sent(f, moves, path + n) for n, f in enumerate(some)])

    def sent(self, one: Furnished, moves: int, path: int) -> Future[Furnished]:
        """So many more moves from one on a core that is free, the next one soon."""
        return self.cores.submit(improve, self.task, one, int(moves * self.pace), path)

    def come_of(self, waiting: Sequence[Future[Furnished]]) -> list[Furnished]:
        """What those that were sent have become, the best first."""
        try:
            return self.note(one.result() for one in waiting)
        finally:
            for one in waiting:
                one.cancel()

    def promise(self, one: Furnished) -> tuple[int, int, float]:
        """What takes every group in some way before what never can, then as they rank."""
        key = id(one.candidate)
        if key not in self.homeless:
            self.homeless[key] = 0 if not one.unplaced else len(heap_of(self.task).homeless(one.candidate.bays))
        return (self.homeless[key], *rank(one))

    @property
    def complete(self) -> list[Furnished]:
        """What holds everything."""
        return [f for f in self.ran if not f.unplaced]


def design_space(task: Task) -> Solution:
    """Alternatives for one space. Same task, seed and effort give the same answer. Raises `Cancelled` when
    `task.watch.check` does. `task.families` are all that the house rules allow, when none are named.
    """
    drawers = drawer_sections(task)
    if not drawers or (task.families is not None and not inserts_of(task)):
        return _common(task)
    refused = too_many(task.things)
    if refused:
        return Solution(alternatives=(), blocked=refused)
    only_drawers = drawers == set(task.envelopes) or (
        task.families is not None and set(task.families) <= set(inserts_of(task))
    )
    return in_drawers(task) if only_drawers else beside_drawers(task, _common)


def _common(task: Task) -> Solution:
    """The same of a space, or of what of it are no drawers."""
    families = families_of(task)
    here = tuple(t for t in task.things if t.stays)
    refused = (
        too_many(here)
        or without_families(families)
        or too_small(task.survey, task.envelopes, families, task.finish, task.catalogue)
    )
    if refused:
        return Solution(alternatives=(), blocked=refused)
    if task.keep is not None:
        return _around_what_is_kept(task)
    pool = candidates(task)
    if not pool:
        return Solution(alternatives=(), blocked=Blocked(kind="size", subject="free wall between obstacles", short=0,
                                                         unit="mm"))  # fmt: skip
    with ThreadPoolExecutor(len(sched_getaffinity(0))) as cores:
        found = _Search(task, cores, pace=min(1.0, AT_PACE / max(1, median(len(c.bays) for c in pool) * len(here))))
        _alternatives(found, pool)
    return _solution(task, found)


def _solution(task: Task, found: _Search) -> Solution:
    more = _more_to_choose(task, found, distinct(task, rightly_named(task, found.designs)))
    designs = distinct(task, rightly_named(task, found.designs | {d.id: d for d in more}))
    complete = [d for d in designs if not d.unplaced]
    points = frontier_of(task, _shapes_apart(found.complete)[:FRONTIER])
    if task.budget is not None:
        affordable = [d for d in complete if point_of(task, d).cost <= task.budget]
        if complete and not affordable:
            return Solution(alternatives=tuple(complete[:1]), frontier=points,
                            blocked=blocked_by_budget(task, [point_of(task, d).cost for d in complete]))  # fmt: skip
        complete = affordable
    if complete:
        told = () if found.cut_short else sensitivities(task, found.best, complete, points)
        task.watch.progress(1.0, "done")
        return Solution(alternatives=tuple(complete), frontier=points, sensitivities=told)
    fullest = sorted(designs, key=lambda d: sum(u.count for u in d.unplaced))[:SHOWN]
    tried = list({id(f.candidate): f.candidate for f in sorted(found.ran, key=rank)}.values())[:TRIED]
    blocked = blocked_by_demand(task, fullest[0], tried)
    task.watch.progress(1.0, "done")
    return Solution(alternatives=tuple(fullest), blocked=blocked, frontier=points)


# -- the race --


def _alternatives(found: _Search, pool: list[Candidate]) -> None:
    task = found.task
    goals: tuple[Goal, ...] = ("yours", *SEARCHED) if task.weights else SEARCHED
    runners = _race(found, "cheapest", pool)
    for turn in range(MORE):
        if found.shown or not runners or task.watch.time_is_up:
            break
        task.watch.progress(0.38, "looking for a place for the rest")
        runners = _with_neighbours(found, "cheapest", runners, BENDS + turn)
        runners = sorted(
            [*found.further(_apart(runners)[: 2 * STARTS], AT_LENGTH[1], 701 + 10 * turn), *runners], key=found.promise
        )
    for step, goal in enumerate(goals):
        if task.watch.time_is_up and found.designs:
            found.cut_short = True
            return
        task.watch.progress(0.4 + 0.4 * step / len(goals), f"improving: {TITLES[goal].lower()}")
        starts = [seen_as(task, f, goal) for f in _apart([*runners, *found.best.values()])]
        if goal == "tidiest":
            # What is tidy is seldom cheap: all that was tried is looked at once more.
            starts += _anew(found, goal)
        tried = found.further(sorted(starts, key=rank)[:STARTS], AT_LENGTH[0], 11 * step)
        found.best[goal] = found.further(tried[:2], AT_LENGTH[1], 11 * step + STARTS)[0]
        found.best[goal] = _refined(found, found.best[goal])
        found.designs[goal] = design_of(task, found.best[goal])
        task.watch.found(found.designs[goal])
    if not task.watch.time_is_up:
        _other_ways(found, runners)
    path = 1000
    while task.watch.until < inf and not task.watch.time_is_up:
        # Nobody waits for less than was asked for: what is found is improved until then.
        for goal in goals:
            path += 1
            best = found.further([found.best[goal]], AT_LENGTH[1], path)[0]
            if rank(best) < rank(found.best[goal]):
                found.best[goal], found.designs[goal] = best, design_of(task, best)


def _race(found: _Search, goal: Goal, pool: list[Candidate]) -> list[Furnished]:
    """Candidates furnished, best first: all by best fit, fewer and fewer at more and more length."""
    task = found.task
    ranked: list[Furnished] = []
    task.watch.progress(0.0, "trying ways to stand the parts")
    ahead = _Ahead(found)
    for n, candidate in enumerate(_promising(task, pool)):
        task.watch.check()
        if ranked and task.watch.time_is_up:
            return sorted(ranked, key=rank)
        ranked += found.note([begin(task, goal, candidate)])
        if n % WAVE == WAVE - 1 and not found.shown:
            ahead.wave(ranked[-WAVE:], n)
    ahead.wave((), len(ranked))
    for number, (size, moves) in enumerate(HEATS):
        if task.watch.time_is_up:
            return ranked
        task.watch.progress(0.1 + 0.07 * number, "trying the most promising at length")
        ranked = _heat(found, ranked, size, moves, 101 * number)
    for turn in range(BENDS):
        if task.watch.time_is_up:
            return ranked
        task.watch.progress(0.3 + 0.05 * turn, "trying other widths")
        ranked = _with_neighbours(found, goal, ranked, turn)
    return ranked


class _Ahead:
    """Wanted soon is one design that holds everything: while the candidates are begun, what stands best of them is helped
    along on the other core. The race itself knows nothing of it.
    """

    def __init__(self, found: _Search) -> None:
        self.found = found
        self.fresh: list[Furnished] = []
        self.once: list[Furnished] = []
        self.waiting: list[Future[Furnished]] = []

    def wave(self, begun: Iterable[Furnished], path: int) -> None:
        """See what has come of those that were sent, and send the next."""
        found = self.found
        come = [found.seen(one.result()) for one in self.waiting]
        self.once = sorted([*self.once, *(f for f in come if f.moves <= FRESH_MOVES)], key=found.promise)
        self.fresh = sorted([*self.fresh, *begun], key=found.promise)
        self.waiting = []
        if not found.shown and begun:
            again, self.once = self.once[:AGAIN], self.once[AGAIN:]
            fresh, self.fresh = self.fresh[:FRESH], self.fresh[FRESH:]
            self.waiting = [found.sent(f, AGAIN_MOVES, path) for f in again]
            self.waiting += [found.sent(f, FRESH_MOVES, path) for f in fresh]


def _heat(found: _Search, some: list[Furnished], size: int, moves: int, path: int) -> list[Furnished]:
    """A round of the race: where fewer run than might, each runs longer."""
    runners = _some_of_each(found, some, size)
    return found.further(runners, int(moves * max(1.0, min(LONGER, size / max(1, len(runners))))), path)


def _anew(found: _Search, goal: Goal) -> list[Furnished]:
    """A short race for another goal, of all that did not at once fall out of the first one."""
    anew = [begin(found.task, goal, f.candidate) for f in _apart(found.ran)[:LOOKED_AT_ANEW]]
    for number, (size, moves) in enumerate(ANEW):
        anew = _heat(found, anew, size, moves, 901 + 101 * number)
    return _with_neighbours(found, goal, anew, BENDS)


def _with_neighbours(found: _Search, goal: Goal, ranked: list[Furnished], turn: int) -> list[Furnished]:
    """The ranked, and what came of their best with other widths."""
    tried = found.further(_bent(found, goal, ranked, turn), HEATS[1][1], 301)[:BENT_ON]
    return sorted([*ranked, *found.further(tried, HEATS[2][1], 501)], key=found.promise)


def _bent(found: _Search, goal: Goal, ranked: list[Furnished], turn: int) -> Iterator[Furnished]:
    """The best of the ranked with other widths, depths and heights."""
    task = found.task
    for n, one in enumerate(_some_of_each(found, ranked, BENT_FROM)[:BENT_FROM]):
        near, shapes = list(neighbours(task, one.candidate)), list(reshaped(task, one.candidate))
        shuffled = Random(task.seed * 31 + 7 * turn + n)
        shuffled.shuffle(near)
        shuffled.shuffle(shapes)
        fills = (*near[: BENT // 2], *shapes[: RESHAPED // 2])
        # What has a place for everything is kept as far as it goes; what has not is begun anew.
        yield from (
            begin(task, goal, c) if one.unplaced else carried_over(task, one, c)
            for other in fills for c in settled(task, other)
        )  # fmt: skip


def _refined(found: _Search, best: Furnished) -> Furnished:
    """The best of a goal and what a step from its widths, depths or heights makes of it, as long as that is better."""
    task = found.task
    for turn in range(max(1, round(REFINED.get(best.goal, 1) * found.pace))):
        near = [*neighbours(task, best.candidate), *reshaped(task, best.candidate)]
        Random(task.seed * 17 + turn).shuffle(near)
        steps = (
            carried_over(task, best, c) for other in near[: int(NEAR[0][0] * found.pace)] for c in settled(task, other)
        )
        tried = found.further(steps, NEAR[0][1], 1301 + turn)
        for n, (size, moves) in enumerate(NEAR[1:], 1):
            tried = found.further(tried[:size], moves, 1301 + 100 * n + turn)
        if not tried or rank(tried[0]) >= rank(best):
            break
        best = tried[0]
    return best


def _apart(some: Sequence[Furnished]) -> list[Furnished]:
    """The best of each candidate, best first."""
    best: dict[int, Furnished] = {}
    for f in sorted(some, key=rank):
        best.setdefault(id(f.candidate), f)
    return list(best.values())


def _some_of_each(found: _Search, some: Sequence[Furnished], size: int) -> list[Furnished]:
    """The best, and of every set of families its best: one that does badly in haste may do best at length. They are
    more than `size` where there are more sets.
    """
    ranked = sorted(some, key=found.promise)
    by_families: dict[frozenset[str], list[Furnished]] = {}
    for f in ranked:
        by_families.setdefault(_made_of(f.candidate), []).append(f)
    share = max(1, size // (len(by_families) + 1))
    kept = [f for row in by_families.values() for f in row[:share]]
    rest = [f for f in ranked if not any(f is k for k in kept)]
    kept += rest[: max(0, size - len(kept))]
    return sorted(kept, key=found.promise)


def _made_of(candidate: Candidate) -> frozenset[str]:
    """Its families, but for what lies on others."""
    return frozenset(f.id for f, *_ in candidate.spans if not f.lies_on)


def _promising(task: Task, pool: list[Candidate]) -> Iterator[Candidate]:
    """The pool, a few at once and then the rest: those first that have a place for every group, and in turns one of every
    set of families.
    """
    heap, turns = heap_of(task), _of_every_kind(pool, spread=True)
    soon, next_ = AHEAD[0], sum(AHEAD)
    for some in (turns[:soon], turns[soon:next_], turns[next_:]):
        homeless: dict[int, int] = {}
        for candidate in some:
            task.watch.check()
            homeless[id(candidate)] = len(heap.homeless(candidate.bays))
        yield from _of_every_kind(sorted(some, key=lambda c: homeless[id(c)]))


def _of_every_kind(ranked: list[Candidate], spread: bool = False) -> list[Candidate]:
    """In turns one of every main family; spread, each of its own from all over them, for neighbours are much alike."""
    kinds: dict[object, list[Candidate]] = {}
    for c in ranked:
        kinds.setdefault(c.main, []).append(c)
    rows = [[row[n] for n in _halving(len(row))] if spread else row for row in kinds.values()]
    return [row[n] for n in range(max(map(len, rows), default=0)) for row in rows if n < len(row)]


def _halving(count: int) -> list[int]:
    """So many numbers from 0 in the order of their bits reversed (van der Corput's): each falls where most are left out.

    >>> _halving(6)
    [0, 4, 2, 1, 5, 3]
    """
    bits = max(1, (count - 1).bit_length())
    return [n for k in range(1 << bits) if (n := int(f"{k:0{bits}b}"[::-1], 2)) < count]


def _shapes_apart(complete: list[Furnished]) -> list[Furnished]:
    """The best of each candidate and goal, best first."""
    best: dict[tuple[int, Goal], Furnished] = {}
    for f in sorted(complete, key=rank):
        best.setdefault((id(f.candidate), f.goal), f)
    return list(best.values())


def _other_ways(found: _Search, runners: list[Furnished]) -> None:
    """What the other families would make of it, as far as they take everything."""
    task, used = found.task, {f.candidate.main for f in found.best.values()}
    firsts: dict[str, Furnished] = {}
    for f in runners:
        if f.candidate.main not in used:
            firsts.setdefault(f.candidate.main, f)
    task.watch.progress(0.85, "other ways to build it")
    for furnished in found.further(list(firsts.values()), AT_LENGTH[1], 71)[:OTHER_WAYS]:
        if furnished.unplaced and found.shown:
            continue
        family = task.catalogue[furnished.candidate.main]
        key = f"in-{family.id}"
        found.designs[key] = _named(design_of(task, furnished), key, family)
        task.watch.found(found.designs[key])


def _named(design: Design, key: str, family: Family) -> Design:
    return design.model_copy(
        update={"id": key, "title": TITLES["family"].format(family=family.spoken),
                "reason": REASONS["cheap-family"].format(about=family.about)}
    )  # fmt: skip


def _more_to_choose(task: Task, found: _Search, designs: list[Design]) -> list[Design]:
    """Where goals and families came out alike: other complete candidates, of other families, heights or numbers of
    bays, the best first.
    """
    added: list[Design] = []
    seen = [shape_of(d) for d in designs]
    kinds = {_kind(f.candidate) for f in found.best.values()}
    complete = sum(not d.unplaced for d in designs)
    for furnished in _shapes_apart(found.complete):
        if found.cut_short or not complete or complete + len(added) >= ENOUGH:
            return added
        kind = _kind(furnished.candidate)
        if kind in kinds:
            continue
        kinds.add(kind)
        best = improve(task, furnished, HEATS[-1][1], 3)
        names = [task.catalogue[f].spoken for f in furnished.candidate.families]
        title = say(TITLES["also"], {"bays": _bays(furnished), "families": names}, "metric")[:110]
        again = 1 + sum(d.title.startswith(title) for d in added)
        design = design_of(task, best).model_copy(
            update={"id": f"also-{len(added) + 1}", "title": title + (f", {again}" if again > 1 else ""),
                    "reason": REASONS["also"]}
        )  # fmt: skip
        if shape_of(design) not in seen:
            seen.append(shape_of(design))
            added.append(design)
            task.watch.found(design)
    return added


def _bays(furnished: Furnished) -> str:
    count = len(furnished.candidate.bays)
    return f"{count} bay{'s' if count != 1 else ''}"


def _kind(candidate: Candidate) -> tuple[object, ...]:
    """What makes two candidates look different: families, heights, and how many bays."""
    return candidate.families, tuple(sorted({r.shape.height for _, r, *_ in candidate.spans})), len(candidate.bays)


# -- around what a person locked --


def _around_what_is_kept(task: Task) -> Solution:
    """The rest of a design found anew, with what is locked left where it is."""
    assert task.keep is not None
    candidate, things = kept_candidate(task.keep, task.things)
    goal = task.keep.goal
    inner = task.but(things=things)
    task.watch.progress(0.1, "finding the rest anew")
    best = furnish(inner, goal, candidate, HEATS[-1][1])
    for path in range(1, STARTS + 2):
        task.watch.progress(path / (STARTS + 2), "finding the rest anew")
        best = min(best, improve(inner, best, AT_LENGTH[1], path), key=rank)
    design = design_of(task, best)
    design = design.model_copy(update={"id": task.keep.id, "title": task.keep.title, "reason": task.keep.reason})
    return Solution(alternatives=(design,))
