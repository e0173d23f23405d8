"""Complete alternatives for a space: one for each goal and for each other way to build it, each proven by the verifier.

A quick furnishing (greedy insertion alone) of the candidates that promise most shows which deserve a thorough one.
Alternatives are handed over as they are found; a first, complete one comes early and is replaced when its goal has
been searched in full. All furnished candidates that hold everything make the frontier: cost against room and reach.
"""

from dataclasses import dataclass, field
from operator import attrgetter

from ..base import Frozen
from ..inventory.needs import need, ways
from ..saying import say
from ..tables import value
from .blocked import Blocked, blocked_by_budget, blocked_by_demand, too_big_a_task, too_small
from .candidates import Candidate
from .costing import structure_price
from .frontier import Point, Sensitivity, frontier_of, point_of, sensitivities
from .furnish import Furnished, design_of, furnish, improve, problem_of
from .gallery import distinct, rightly_named, shape_of
from .goals import REASONS, SEARCHED, TITLES
from .kept import kept_candidate
from .lots import takes_one
from .models import Design, Goal
from .pool import candidates, families_of
from .task import Task

GREEDY, QUICK, THOROUGH = 0, 3_000, 15_000
"""Moves: for every candidate that promises something, for the finalists, and for the best of a goal."""
TRIED, FINALISTS, PATHS = 22, 3, 2
RESTARTS = 6
"""Random paths more for the best candidate, where it is tight."""
HANDY = 0.55
"""Where large lots do not all go in, lots of at most this share of a compartment are tried."""
OTHER_WAYS = 3
"""Alternatives of families that no goal came out in."""
ENOUGH = 4
"""Complete alternatives from which no more are looked for."""
INCOMPLETE = 3
"""Alternatives shown when none holds everything."""
MOST_REACH_TOP = 1e9

_score = attrgetter("score")


def _left_out(furnished: Furnished) -> tuple[int, float]:
    """Pieces without a place, then the score: lots of two sizes cannot be counted against each other."""
    left = sum(lot.count for lot, c in zip(furnished.problem.lots, furnished.interior.choices, strict=True) if c < 0)
    return left, furnished.score


class Solution(Frozen):
    """The alternatives, complete ones first; `blocked` when no complete one was found; what else could be had."""

    alternatives: tuple[Design, ...]
    blocked: Blocked | None = None
    frontier: tuple[Point, ...] = ()
    sensitivities: tuple[Sensitivity, ...] = ()


@dataclass(slots=True)
class _Found:
    """What a search has come upon so far."""

    designs: dict[str, Design] = field(default_factory=dict)
    best: dict[Goal, Furnished] = field(default_factory=dict)
    complete: list[tuple[Goal, Furnished]] = field(default_factory=list)


def design_space(task: Task) -> Solution:
    """Alternatives for one space. Same task, seed and effort give the same answer. Raises `Cancelled` when
    `task.watch.check` does. `task.families` are all that the house rules allow, when none are named.
    """
    families = families_of(task)
    here = tuple(t for t in task.things if t.stays)
    refused = too_big_a_task(here, families) or too_small(
        task.survey, task.envelopes, families, task.finish, task.catalogue
    )
    if refused:
        return Solution(alternatives=(), blocked=refused)
    if task.keep is not None:
        return _around_what_is_kept(task)
    pool = candidates(task)
    if not pool:
        return Solution(alternatives=(), blocked=Blocked(kind="size", subject="free wall between obstacles", short=0,
                                                         unit="mm"))  # fmt: skip
    found = _alternatives(task, pool)
    return _solution(task, pool, found)


def _solution(task: Task, pool: list[Candidate], found: _Found) -> Solution:
    designs = distinct(rightly_named(task, found.designs))
    designs += _more_to_choose(task, found, designs)
    complete = [d for d in designs if not d.unplaced]
    points = frontier_of(task, found.complete)
    if task.budget is not None:
        affordable = [d for d in complete if point_of(task, d).cost <= task.budget]
        if complete and not affordable:
            return Solution(alternatives=tuple(complete[:1]), frontier=points,
                            blocked=blocked_by_budget(task, [point_of(task, d).cost for d in complete]))  # fmt: skip
        complete = affordable
    if complete:
        told = sensitivities(task, found.best, complete, points)
        task.watch.progress(1.0, "done")
        return Solution(alternatives=tuple(complete), frontier=points, sensitivities=told)
    fullest = sorted(designs, key=lambda d: sum(u.count for u in d.unplaced))[:INCOMPLETE]
    tried = sorted(pool, key=lambda c: -c.front())[:3]
    blocked = blocked_by_demand(task, fullest[0], tried)
    task.watch.progress(1.0, "done")
    return Solution(alternatives=tuple(fullest), blocked=blocked, frontier=points)


# -- alternatives --


def _alternatives(task: Task, pool: list[Candidate]) -> _Found:
    found = _Found()
    goals: tuple[Goal, ...] = ("yours", *SEARCHED) if task.weights else SEARCHED
    for step, goal in enumerate(goals):
        at = step / (len(goals) + 1)
        task.watch.progress(at, f"trying ways to stand the parts: {TITLES[goal].lower()}")
        promising = _promising(task, goal, pool)
        if step == 0:
            task.watch.found(design_of(task, goal, furnish(task, goal, promising[0], GREEDY), bounded=False))
        before = next(reversed(found.best.values()), None)
        best = _thorough(task, goal, _quick(task, goal, promising, found), found, before, at, 1 / (len(goals) + 1))
        found.best[goal] = best
        found.designs[goal] = design_of(task, goal, best)
        task.watch.found(found.designs[goal])
    _other_ways(task, pool, found)
    _bent(task, found)
    return found


def _quick(task: Task, goal: Goal, promising: list[Candidate], found: _Found) -> list[Furnished]:
    """Candidates furnished in haste, best first."""
    furnished: list[Furnished] = []
    for candidate in promising[:TRIED]:
        task.watch.check()
        one = furnish(task, goal, candidate, GREEDY)
        if one.interior.unplaced and len(furnished) < FINALISTS:
            one = improve(task, goal, candidate, one.problem, QUICK, one.interior.choices)
        furnished.append(one)
        if not one.interior.unplaced:
            found.complete.append((goal, one))
    return _mains_first(sorted(furnished, key=_score))


def _mains_first(ranked: list[Furnished]) -> list[Furnished]:
    """The best of each main family, then the rest: a family that does badly in haste may do best at length."""
    firsts = {id(next(f for f in ranked if f.candidate.main == main)) for main in {f.candidate.main for f in ranked}}
    return sorted(ranked, key=lambda f: id(f) not in firsts)


def _thorough(task: Task, goal: Goal, quick: list[Furnished], found: _Found, before: Furnished | None, at: float,
              share: float) -> Furnished:  # fmt: skip
    """The best of the finalists, and of the answer `before` bent to this goal, after several random paths each."""
    starts = [improve(task, goal, f.candidate, f.problem, QUICK, f.interior.choices) for f in quick[:FINALISTS]]
    if before is not None:
        starts.append(_for_goal(task, goal, before, QUICK))
    best = min(starts, key=_score)
    for path in range(1, PATHS + 1):
        task.watch.progress(at + share * path / (PATHS + 1), f"improving: {TITLES[goal].lower()}")
        best = min(best, improve(task, goal, best.candidate, best.problem, THOROUGH, best.interior.choices, path),
                   key=_score)  # fmt: skip
    best = _squeezed(task, goal, best, [f.candidate for f in quick[:FINALISTS]])
    if not best.interior.unplaced:
        found.complete.append((goal, best))
    return best


def _for_goal(task: Task, goal: Goal, other: Furnished, moves: int) -> Furnished:
    """The answer to another goal bent to this one."""
    problem = problem_of(task, goal, other.problem.lots, other.problem.bays)
    return improve(task, goal, other.candidate, problem, moves, other.interior.choices)


def _squeezed(task: Task, goal: Goal, best: Furnished, others: list[Candidate]) -> Furnished:
    """A tight case: smaller lots of it and of the next best, and other paths, often let the last ones in."""
    for path, candidate in enumerate(dict.fromkeys((best.candidate, *others))):
        if not best.interior.unplaced:
            break
        one = furnish(task, goal, candidate, THOROUGH, handy=HANDY)
        best = min(best, one, key=_left_out)
        if best.interior.unplaced:
            best = min(best, improve(task, goal, candidate, one.problem, THOROUGH, None, path + 5), key=_left_out)
    if best.interior.unplaced:
        one = furnish(task, goal, best.candidate, GREEDY, handy=HANDY)
        for path in range(RESTARTS):
            start = None if path % 2 else one.interior.choices
            again = improve(task, goal, one.candidate, one.problem, THOROUGH, start, path + 20)
            best = min(best, again, key=_left_out)
            if not best.interior.unplaced:
                break
    return best


def _promising(task: Task, goal: Goal, pool: list[Candidate]) -> list[Candidate]:
    """The candidates worth furnishing for a goal, of every family some: for *cheapest* and *quickest* those whose
    structure costs least among those with front enough; for the others those with most front (within standing reach
    for *reach*). What has no place for some things comes last. The most promising of all comes first.
    """
    top = value("design.reach_top") if goal == "reach" else MOST_REACH_TOP
    asked = _front_asked(task)
    ranked = []
    for n, c in enumerate(pool):
        task.watch.check()
        homeless = _homeless(task, c)
        room = c.front(top)
        if goal in ("cheapest", "quickest", "yours"):
            price = _structure_price(task, c)
            rank = (homeless, 0.0, price) if room >= asked else (homeless, 1.0, -room)
        else:
            rank = (homeless, 0.0, -room)
        ranked.append((rank, n, c))
    ranked.sort(key=lambda row: row[:2])
    return _of_every_kind([c for *_, c in ranked])


def _of_every_kind(ranked: list[Candidate]) -> list[Candidate]:
    """The best first, then in turns one of every set of families and height, each in its order."""
    kinds: dict[tuple[object, ...], list[Candidate]] = {}
    for c in ranked:
        heights = tuple(sorted({r.shape.height for _, r, *_ in c.spans}))
        kinds.setdefault((c.families, heights[-1:]), []).append(c)
    rows = list(kinds.values())
    turns = [row[n] for n in range(max(map(len, rows), default=0)) for row in rows if n < len(row)]
    order = {id(c): n for n, c in enumerate(ranked)}
    # A kind whose best is far down the ranking does not push out what is near the top.
    return sorted(turns, key=lambda c: (turns.index(c) // 6, order[id(c)]))


def _front_asked(task: Task) -> float:
    """Front, mm², that the things take at the very least, by their preferred way and a share for what is lost."""
    total = 0.0
    for t in task.things:
        if t.stays:
            n = need(t, ways(t, task.rules)[0], task.rules)
            total += n.clear * (
                n.amount if n.way not in ("drawer", "overhead", "hook") else n.piece_width * t.count * 0.3
            )
    return total * 0.7


def _homeless(task: Task, candidate: Candidate) -> int:
    """Things of which not one piece goes into any of its bays. Bays of one make and size are asked once."""
    home, known = task.home, task.cache.takes
    lost = 0
    for thing in task.things:
        if not thing.stays:
            continue
        for bay in candidate.bays:
            key = (thing.id, bay.family, bay.w, bay.depth, bay.hang_depth, bay.pitches, bay.first, bay.pulls,
                   bay.blind, bay.drawer, bay.blocked)  # fmt: skip
            if key not in known:
                known[key] = takes_one(thing, bay, home)
            if known[key]:
                break
        else:
            lost += 1
    return lost


def _structure_price(task: Task, candidate: Candidate) -> float:
    return structure_price(candidate.structure(task.envelopes, task.finish), task.catalogue)


def _other_ways(task: Task, pool: list[Candidate], found: _Found) -> None:
    """What the other families would make of it, as far as they take everything."""
    mains = [task.catalogue[m] for m in dict.fromkeys(c.main for c in pool)]
    used = {f.candidate.main for f in found.best.values()}
    made = 0
    others = sorted((f for f in mains if f.id not in used), key=lambda f: f.id)
    for n, family in enumerate(others):
        if made == OTHER_WAYS:
            return
        at, share = 0.85 + 0.1 * n / len(others), 0.1 / len(others)
        task.watch.progress(at, f"another way to build it: {family.spoken}")
        own = _promising(task, "cheapest", [c for c in pool if c.main == family.id])
        furnished = min((furnish(task, "cheapest", c, QUICK) for c in own[:4]), key=_score, default=None)
        if furnished is None:
            continue
        if not furnished.interior.unplaced:
            found.complete.append(("cheapest", furnished))
        else:
            furnished = _thorough(task, "cheapest", _quick(task, "cheapest", own, found), found, None, at, share)
        if furnished.interior.unplaced and any(not f.interior.unplaced for f in found.best.values()):
            continue
        key = f"in-{family.id}"
        found.designs[key] = design_of(task, "cheapest", furnished).model_copy(
            update={"id": key, "title": TITLES["family"].format(family=family.spoken),
                    "reason": REASONS["cheap-family"].format(about=family.about)}
        )  # fmt: skip
        task.watch.found(found.designs[key])
        made += 1


def _bent(task: Task, found: _Found) -> None:
    """Every goal looks at what the other families came to: what is complete there may serve it better."""
    ways: dict[str, Furnished] = {}
    for _, furnished in found.complete:
        ways.setdefault(furnished.candidate.main, furnished)
    for goal, best in tuple(found.best.items()):
        for main, other in ways.items():
            if main == best.candidate.main:
                continue
            one = _for_goal(task, goal, other, THOROUGH)
            if one.score < found.best[goal].score and not one.interior.unplaced:
                found.best[goal] = one
                found.complete.append((goal, one))
                found.designs[goal] = design_of(task, goal, one)
                task.watch.found(found.designs[goal])


def _more_to_choose(task: Task, found: _Found, designs: list[Design]) -> list[Design]:
    """Where goals and families came out alike: other complete candidates, of other families, heights or numbers of
    bays, the best first.
    """
    added: list[Design] = []
    seen = [shape_of(d) for d in designs]
    kinds = {_kind(f.candidate) for f in found.best.values()}
    complete = sum(not d.unplaced for d in designs)
    for other_kind_only in (True, False):
        for goal, furnished in sorted(found.complete, key=lambda row: row[1].score):
            if not complete or complete + len(added) >= ENOUGH:
                return added
            kind = _kind(furnished.candidate)
            if other_kind_only and kind in kinds:
                continue
            kinds.add(kind)
            best = improve(task, goal, furnished.candidate, furnished.problem, QUICK, furnished.interior.choices, 3)
            names = [task.catalogue[f].spoken for f in furnished.candidate.families]
            title = say(TITLES["also"], {"bays": _bays(furnished), "families": names}, "metric")[:110]
            again = 1 + sum(d.title.startswith(title) for d in added)
            design = design_of(task, goal, best).model_copy(
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
    best = furnish(inner, goal, candidate, QUICK)
    for path in range(1, PATHS + 2):
        task.watch.progress(path / (PATHS + 2), "finding the rest anew")
        best = min(best, improve(inner, goal, candidate, best.problem, THOROUGH, best.interior.choices, path),
                   key=_score)  # fmt: skip
    design = design_of(task, goal, best)
    design = design.model_copy(update={"id": task.keep.id, "title": task.keep.title, "reason": task.keep.reason})
    return Solution(alternatives=(design,))
