"""Complete alternatives for a space: one for each goal, each proven by the verifier.

For every family, height and row of modules a quick furnishing (greedy and a few moves) shows which candidates
deserve a thorough one. Alternatives are handed over as they are found; a first, complete one comes early and is
replaced when its goal has been searched in full.
"""

from collections import Counter
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from math import inf
from operator import attrgetter
from typing import Literal

from ..base import Frozen
from ..house import HouseRules, Person
from ..inventory import Thing
from ..inventory.kinds import Way
from ..survey import Envelope
from ..systems import FAMILIES, Family
from .bound import lower_bound
from .build import build
from .candidates import Candidate, candidates, shapes_worth
from .interior import Choice, Interior, search
from .lots import Lot, cut
from .models import BOUND_TOLERANCE, GOALS, Assignment, Design, Goal, Outcome, Unplaced
from .packing import BayPacker, Weights
from .verify import verify

WEIGHTS: dict[Goal, Weights] = {
    "cheapest": Weights(price=1.0, reach=2.0, front=0.0),
    "roomiest": Weights(price=0.05, reach=2.0, front=0.5),
    "reach": Weights(price=0.02, reach=6.0, front=0.0),
}
TITLES: dict[Goal, str] = {"cheapest": "Cheapest", "roomiest": "Most room to grow", "reach": "Easiest to reach"}
REASONS: dict[Goal, str] = {
    "cheapest": "The least money that gives everything a place.",
    "roomiest": "The most empty room left for what comes next.",
    "reach": "What is used most hangs and lies where its owner reaches it best.",
}
SEARCHED: tuple[Goal, ...] = ("roomiest", "cheapest", "reach")
"""The order of searching: the roomiest soonest holds everything, and the others may start from it."""
QUICK_MOVES, THOROUGH_MOVES, FINALISTS, PATHS = 150, 2_000, 2, 2
RESTARTS, NEARLY = 3, 2
"""Further searches when at most `NEARLY` lots are left out."""
PROMISING, MOST_TRIED = 3, 12
"""Candidates of each family that are furnished for one goal; for *cheapest*, complete ones of so many tried."""
REACH_TOP = 1900.0
"""Front above this height counts for nothing when everything must be reached, mm; common practice."""
FRONT_SHARE = 0.6
"""Of the front asked, the share below which a candidate is not tried: lots share compartments badly."""
WITHIN = 0.25
"""A gap up to this is called *within*; above it the bound says little."""
MOST_GROUPS, MOST_LOTS = 400, 600
STACKED: frozenset[Way] = frozenset({"shelf", "box"})


class Relaxation(Frozen):
    """The smallest change of one kind that would let everything fit; `value` is what it would have to be."""

    kind: Literal["reserve", "hangers", "floor", "move out", "size"]
    value: float
    things: tuple[str, ...] = ()


class Blocked(Frozen):
    """Why not everything fits: which size or which demand, how much is short, and what would do."""

    kind: Literal["size", "demand", "too many", "rules"]
    subject: str
    short: float
    unit: str
    things: tuple[str, ...] = ()
    relaxations: tuple[Relaxation, ...] = ()


class Solution(Frozen):
    """The alternatives, complete ones first; `blocked` when no complete one was found."""

    alternatives: tuple[Design, ...]
    blocked: Blocked | None = None


@dataclass(slots=True)
class Watch:
    """What a long solve tells, and how it is stopped. `check` raises `Cancelled` or returns."""

    check: Callable[[], None] = lambda: None
    progress: Callable[[float, str], None] = lambda share, what: None
    found: Callable[[Design], None] = lambda design: None


@dataclass(slots=True)
class _Furnished:
    """A candidate with its interior; `score` is comparable between candidates of one goal."""

    candidate: Candidate
    lots: tuple[Lot, ...]
    packers: list[BayPacker]
    interior: Interior
    score: float


_score = attrgetter("score")
NOTHING = Interior(inf, [], [], 0, 0)


@dataclass(slots=True)
class _Task:
    space: str
    envelope: Envelope
    things: tuple[Thing, ...]
    people: tuple[Person, ...]
    rules: HouseRules
    seed: int
    effort: float
    watch: Watch


def design_space(space: str, envelope: Envelope, things: tuple[Thing, ...], people: tuple[Person, ...],
                 rules: HouseRules, *, families: tuple[str, ...] | None = None, seed: int = 1,
                 effort: float = 1.0, watch: Watch | None = None) -> Solution:  # fmt: skip
    """Alternatives for one space. Same input, seed and effort give the same answer. Raises `Cancelled` when
    `watch.check` does. `effort` scales the number of moves. `families` are all that the house rules allow, when none
    are named.
    """
    if families is None:
        families = allowed(rules)
    here = tuple(t for t in things if t.stays)
    task = _Task(space, envelope, things, people, rules, seed, effort, watch or Watch())
    if not families:
        floor = (Relaxation(kind="floor", value=0),)
        return Solution(alternatives=(), blocked=Blocked(kind="rules", subject="floor and wall", short=0, unit="",
                                                         relaxations=floor))  # fmt: skip
    blocked = _too_many(here) or _too_small(envelope, families)
    if blocked:
        return Solution(alternatives=(), blocked=blocked)
    pool = {f: _candidates(FAMILIES[f], envelope) for f in families}
    pool = {f: c for f, c in pool.items() if c}
    if not pool:
        return Solution(alternatives=(), blocked=_too_narrow(envelope, families))
    over = _over_full(task, pool)
    if over:
        return Solution(alternatives=(), blocked=over)
    designs = _alternatives(task, pool)
    complete = [d for d in designs if not d.unplaced]
    if complete:
        return Solution(alternatives=tuple(complete))
    best = min(designs, key=lambda d: sum(u.count for u in d.unplaced))
    return Solution(alternatives=(best,), blocked=_blocked_by_demand(task, best))


def allowed(rules: HouseRules) -> tuple[str, ...]:
    """Families of parts a household may have: on a floor kept clear only what hangs on the wall, on a wall that may
    not be drilled only what stands.
    """
    return tuple(
        f for f, family in FAMILIES.items()
        if not (rules.floor == "clear" if family.stands else rules.drill == "nothing")
    )  # fmt: skip


# -- alternatives --


def _alternatives(task: _Task, pool: dict[str, list[Candidate]]) -> list[Design]:
    designs: dict[str, Design] = {}
    so_far: list[_Furnished] = []
    for step, goal in enumerate(SEARCHED):
        task.watch.progress(step / len(SEARCHED), f"trying ways to stand the parts: {TITLES[goal].lower()}")
        if step == 0:
            first = _promising(task, goal, pool)[0]
            task.watch.found(_design(task, goal, _furnish(task, goal, first, QUICK_MOVES)))
        quick = _quick(task, goal, _promising(task, goal, pool))
        best = _thorough(task, goal, quick[:FINALISTS], so_far, step / len(SEARCHED))
        so_far.append(best)
        designs[goal] = _design(task, goal, best)
        task.watch.found(designs[goal])
    for family in sorted(set(pool) - {d.family for d in designs.values()}):
        other = _other_family(task, pool, family)
        if other:
            designs[other.id] = other
            task.watch.found(other)
    task.watch.progress(1.0, "done")
    return _distinct([designs[g] for g in GOALS] + [d for key, d in designs.items() if key not in GOALS])


def _other_family(task: _Task, pool: dict[str, list[Candidate]], family: str) -> Design | None:
    """When every alternative came out in one family: what the other would be, if it takes everything."""
    task.watch.progress(0.95, f"the other way to build it: {FAMILIES[family].name.lower()}")
    quick = _quick(task, "cheapest", _promising(task, "cheapest", {family: pool[family]}))
    best = _furnish(task, "cheapest", quick[0].candidate, THOROUGH_MOVES, quick[0].interior.choices)
    if best.interior.unplaced:
        return None
    about = str(FAMILIES[family].table["about"])
    return _design(task, "cheapest", best).model_copy(
        update={"id": f"cheapest-{family}", "title": f"Cheapest in {FAMILIES[family].name.lower()}",
                "reason": f"The other way to build it. {about}"}
    )  # fmt: skip


def _promising(task: _Task, goal: Goal, pool: dict[str, list[Candidate]]) -> list[Candidate]:
    """Of each family the few candidates worth furnishing for a goal: for *cheapest* the ones whose structure costs
    least among those with front enough; for the others those with most front (within standing reach for *reach*).
    The most promising of all comes first.
    """
    asked = _front_asked(task, pool)
    few: list[tuple[float, Candidate]] = []
    for members in pool.values():
        enough = [c for c in members if _front_area(c) >= asked] or members
        if goal == "cheapest":
            ranked = sorted(((_structure_price(task, c), n) for n, c in enumerate(enough)))
        else:
            top = REACH_TOP if goal == "reach" else inf
            ranked = _by_height(sorted((-_front_area(c, top), n) for n, c in enumerate(enough)), enough)
        few += [(rank, enough[n]) for rank, n in (ranked if goal == "cheapest" else ranked[: 2 * PROMISING])]
    return [c for _, c in sorted(few, key=lambda row: row[0])]


def _by_height(ranked: list[tuple[float, int]], members: list[Candidate]) -> list[tuple[float, int]]:
    """The two best of every height, in their order: an obstacle may part a tall run and leave a lower one whole."""
    kept: list[tuple[float, int]] = []
    seen: Counter[int] = Counter()
    for rank, n in ranked:
        height = members[n].shape.height
        if seen[height] < 2:
            kept.append((rank, n))
        seen[height] += 1
    return kept


def _front_asked(task: _Task, pool: dict[str, list[Candidate]]) -> float:
    """Front, mm², that the lots take at the very least in the roomiest bays."""
    roomiest = max((c for members in pool.values() for c in members), key=_front_area)
    lots = _lots(task, roomiest)
    pitch = roomiest.bays[0].pitch
    least = 0.0
    for lot in lots:
        least += min((o.units * pitch * min(o.asked, roomiest.bays[0].w) for o in lot.options if o.role != "drawer"),
                     default=0.0)  # fmt: skip
    return least * FRONT_SHARE


def _structure_price(task: _Task, candidate: Candidate) -> float:
    family = candidate.family
    return float(sum(family.price(p) for p in family.structure(task.envelope, candidate.shape, candidate.bays)))


def _distinct(designs: list[Design]) -> list[Design]:
    """One of each: a goal whose answer is another goal's is said in that one's reason."""
    kept: list[Design] = []
    for design in designs:
        twin = next((n for n, d in enumerate(kept) if d.parts == design.parts), None)
        if twin is None:
            kept.append(design)
        else:
            reason = f"{kept[twin].reason} {design.reason}"
            kept[twin] = kept[twin].model_copy(update={"reason": reason})
    return kept


def _candidates(family: Family, envelope: Envelope) -> list[Candidate]:
    return [c for shape in shapes_worth(family, envelope) for c in candidates(family, shape, envelope)]


def _lots(task: _Task, candidate: Candidate) -> tuple[Lot, ...]:
    return cut(task.things, candidate.bays, candidate.family, task.rules, task.people)


def _furnish(task: _Task, goal: Goal, candidate: Candidate, moves: int, start: Sequence[Choice] | None = None,
             ) -> _Furnished:  # fmt: skip
    lots = _lots(task, candidate)
    packers = [BayPacker(bay, candidate.family, WEIGHTS[goal]) for bay in candidate.bays]
    return _searched(task, goal, _Furnished(candidate, lots, packers, NOTHING, inf), moves, start)


def _searched(task: _Task, goal: Goal, furnished: _Furnished, moves: int, start: Sequence[Choice] | None,
              seed: int = 0) -> _Furnished:  # fmt: skip
    """One more search of the same bays, which remember every set they have held."""
    candidate, lots, packers = furnished.candidate, furnished.lots, furnished.packers
    interior = search(
        lots, packers, moves=int(moves * task.effort), seed=task.seed + seed, check=task.watch.check, start=start
    )
    # What the structure costs counts, and so does the front that is there to be used.
    weights = WEIGHTS[goal]
    score = interior.cost + weights.price * _structure_price(task, candidate)
    score -= weights.front * sum(p.most * p.dm2 for p in packers)
    return _Furnished(candidate, lots, packers, interior, score)


def _quick(task: _Task, goal: Goal, promising: list[Candidate]) -> list[_Furnished]:
    """Candidates furnished in haste, best first. The list goes from cheap to dear for *cheapest*, so it is left when
    enough of a family hold everything.
    """
    furnished = []
    for family in dict.fromkeys(c.family.id for c in promising):
        complete = 0
        for candidate in [c for c in promising if c.family.id == family][:MOST_TRIED]:
            task.watch.check()
            furnished.append(_furnish(task, goal, candidate, QUICK_MOVES))
            complete += furnished[-1].interior.unplaced == 0
            if goal == "cheapest" and complete == PROMISING:
                break
    return sorted(furnished, key=_score)


def _thorough(task: _Task, goal: Goal, finalists: list[_Furnished], so_far: list[_Furnished],
              at: float) -> _Furnished:  # fmt: skip
    """The best of the finalists, and of the last goal's answer bent to this goal, after several random paths each."""
    bent = [_furnish(task, goal, f.candidate, 0, f.interior.choices) for f in so_far[-1:]]
    starts = [*finalists, *bent]
    best = min(starts, key=_score)
    for n, start in enumerate(starts):
        task.watch.progress(
            min(at + (n + 1) / (len(starts) + 1) / len(GOALS), 0.99), f"improving: {TITLES[goal].lower()}"
        )
        for path in range(PATHS):
            best = min(best, _searched(task, goal, start, THOROUGH_MOVES, start.interior.choices, path), key=_score)
    # A tight case: one or two lots out. Other paths often let them in.
    for path in range(PATHS, PATHS + RESTARTS if 0 < best.interior.unplaced <= NEARLY else PATHS):
        best = min(best, _searched(task, goal, best, 2 * THOROUGH_MOVES, best.interior.choices, path), key=_score)
        if not best.interior.unplaced:
            break
    return best


def _design(task: _Task, goal: Goal, furnished: _Furnished) -> Design:
    """The placed design with its outcome; an answer that the verifier faults is a defect and raises."""
    candidate, interior, lots = furnished.candidate, furnished.interior, furnished.lots
    built = build(interior, candidate.bays, candidate.family, spare_shelves=goal != "cheapest")
    structure = candidate.family.structure(task.envelope, candidate.shape, candidate.bays)
    left: dict[str, int] = {}
    for lot, choice in zip(lots, interior.choices, strict=True):
        if choice is None:
            left[lot.thing.id] = left.get(lot.thing.id, 0) + lot.count
    design = Design(
        id=goal,
        space=task.space,
        family=candidate.family.id,
        goal=goal,
        title=TITLES[goal],
        reason=REASONS[goal],
        shape=candidate.shape,
        rules=task.rules,
        bays=candidate.bays,
        parts=(*structure, *built.parts),
        assignments=_joined(built.assignments, lots),
        unplaced=tuple(Unplaced(thing=t, count=c) for t, c in left.items()),
        outcome=_outcome(furnished),
    )
    faults = verify(design, task.envelope, task.things)
    if faults:
        raise RuntimeError(f"the solver made a design that does not verify: {faults[:3]}")
    return design


def _joined(assignments: list[Assignment], lots: tuple[Lot, ...]) -> tuple[Assignment, ...]:
    """Lots of one thing in one part become one row, but for stacks: two low ones side by side are not one high one."""
    rows: dict[tuple[object, ...], Assignment] = {}
    for n, a in enumerate(assignments):
        named = a.model_copy(update={"thing": lots[int(a.thing)].thing.id})
        key = (named.thing, a.part, a.way, n if a.way in STACKED else None)
        known = rows.get(key)
        rows[key] = named if known is None else known.model_copy(update={"count": known.count + a.count})
    return tuple(rows.values())


def _outcome(furnished: _Furnished) -> Outcome:
    interior = furnished.interior
    bound = lower_bound(furnished.lots, furnished.packers)
    if interior.cost < bound < interior.cost * (1 + BOUND_TOLERANCE) + BOUND_TOLERANCE:
        bound = interior.cost
    gap = (interior.cost - bound) / interior.cost if interior.cost > 0 else 0.0
    status: Literal["proven", "within", "best found"] = "best found"
    if gap <= BOUND_TOLERANCE:
        status = "proven"
    elif gap <= WITHIN:
        status = "within"
    return Outcome(
        status=status,
        objective=interior.cost,
        bound=bound,
        method=f"run filled by exact dynamic programming; interior by greedy insertion and {interior.moves} annealing"
        " moves, bay orders exact; bound by a linear programme of shares for these bays",
        run=furnished.candidate.run,
    )


# -- when not everything fits --


def _too_many(things: tuple[Thing, ...]) -> Blocked | None:
    if len(things) > MOST_GROUPS:
        return Blocked(kind="too many", subject="groups of things", short=len(things) - MOST_GROUPS, unit="groups")
    return None


def _over_full(task: _Task, pool: dict[str, list[Candidate]]) -> Blocked | None:
    """More lots than any search should be asked to place: the roomiest bays could not hold them either."""
    roomiest = max((c for cs in pool.values() for c in cs), key=_front_area)
    lots = _lots(task, roomiest)
    if len(lots) <= MOST_LOTS:
        return None
    area = sum(min((o.units * o.asked for o in lot.options), default=0) for lot in lots) * roomiest.bays[0].pitch / 1e6
    things = tuple(dict.fromkeys(lot.thing.id for lot in lots[MOST_LOTS:]))
    return Blocked(
        kind="demand", subject="front of storage", short=max(area - _front_area(roomiest) / 1e6, 0), unit="m²",
        things=things, relaxations=(
            Relaxation(kind="move out", value=sum(lot.count for lot in lots[MOST_LOTS:]), things=things),),
    )  # fmt: skip


def _too_small(envelope: Envelope, families: tuple[str, ...]) -> Blocked | None:
    """Height and depth: the least that some family asks for."""
    if any(FAMILIES[f].shapes(envelope) for f in families):
        return None
    lacks = []
    for family in families:
        table = FAMILIES[family].table
        low = (
            min(table["heights"])
            if "heights" in table
            else min(table["standards"]) + table["foot_gap"] + table["top_gap"]
        )
        lacks.append((max(low - envelope.z_to, 0), max(min(table["depths"]) - (envelope.y_to - envelope.y_from), 0)))
    height, depth = min(lacks, key=sum)
    subject, short = ("height", height) if height >= depth else ("depth", depth)
    return Blocked(
        kind="size", subject=subject, short=short, unit="mm", relaxations=(Relaxation(kind="size", value=short),)
    )


def _too_narrow(envelope: Envelope, families: tuple[str, ...]) -> Blocked:
    narrowest = min(FAMILIES[f].smallest() for f in families)
    widest = max(
        (b - a for f in families for s in FAMILIES[f].shapes(envelope) for a, b in FAMILIES[f].stretches(envelope, s)),
        default=0,
    )
    if widest >= narrowest:
        return Blocked(kind="size", subject="free wall between obstacles", short=0, unit="mm")
    short = narrowest - widest
    return Blocked(
        kind="size", subject="width", short=short, unit="mm", relaxations=(Relaxation(kind="size", value=short),)
    )


def _blocked_by_demand(task: _Task, best: Design) -> Blocked:
    """Which things are left out of the best layout found, and the gentlest changes that would take them in."""
    left = tuple(u.thing for u in best.unplaced)
    pieces = sum(u.count for u in best.unplaced)
    found: list[Relaxation] = []
    task.watch.progress(0.97, "looking for the smallest change that would do")
    if task.rules.reserve > 0:
        reserve = _largest_reserve(task)
        if reserve is not None:
            found.append(Relaxation(kind="reserve", value=reserve))
    if task.rules.hangers != "slim" and _would_fit(task, task.rules.model_copy(update={"hangers": "slim"})):
        found.append(Relaxation(kind="hangers", value=0.75))
    if task.rules.floor == "clear" and _would_fit(task, task.rules.model_copy(update={"floor": "purposeful"})):
        found.append(Relaxation(kind="floor", value=0))
    found.append(Relaxation(kind="move out", value=pieces, things=left))
    return Blocked(kind="demand", subject="places", short=pieces, unit="pieces", things=left, relaxations=tuple(found))


def _largest_reserve(task: _Task) -> float | None:
    """The largest growth reserve, in whole hundredths, with which everything is found a place; None without any."""
    if not _would_fit(task, task.rules.model_copy(update={"reserve": 0.0})):
        return None
    low, high = 0, round(task.rules.reserve * 100)
    while high - low > 1:
        middle = (low + high) // 2
        if _would_fit(task, task.rules.model_copy(update={"reserve": middle / 100})):
            low = middle
        else:
            high = middle
    return low / 100


def _would_fit(task: _Task, rules: HouseRules) -> bool:
    """Whether a short search finds everything a place under other rules (same space, same envelope)."""
    trial = _Task(task.space, task.envelope, task.things, task.people, rules, task.seed, task.effort, task.watch)
    for family in allowed(rules):
        for candidate in sorted(_candidates(FAMILIES[family], task.envelope), key=lambda c: -_front_area(c))[:2]:
            if _furnish(trial, "roomiest", candidate, THOROUGH_MOVES // 4).interior.unplaced == 0:
                return True
    return False


def _front_area(candidate: Candidate, top: float = inf) -> float:
    """Front of a candidate's bays up to a height, mm²."""
    return sum(b.w * max(min(b.z1, top) - b.z0, 0) for b in candidate.bays)
