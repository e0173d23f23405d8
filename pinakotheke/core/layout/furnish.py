"""One candidate furnished: lots cut for its bays, an interior searched, and the design that it makes."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from ..house import Person
from ..inventory import Thing
from ..inventory.containers import Container
from ..survey import Survey
from ..systems import HOLDERS, INSIDE, Bay, Part, Range
from ..systems.roles import COMES_WITH
from .bound import lower_bound
from .build import build
from .candidates import Candidate
from .contain import containers_on
from .costing import structure_price, worth_at_hand
from .goals import REASONS, SPARE_SHELVES, TITLES
from .interior import Choice, Interior, Problem, Scale, search
from .lots import Lot, cut
from .models import Assignment, Design, Goal, Outcome, Unplaced
from .task import Task, sockets_of
from .trouble import trouble
from .verify import verify

WITHIN = 0.25
"""A gap up to this is called *within*; above it the bound says little."""


@dataclass(slots=True)
class Furnished:
    """A candidate with its interior; `score` is comparable between candidates of one goal."""

    candidate: Candidate
    problem: Problem
    interior: Interior
    score: float


def furnish(task: Task, goal: Goal, candidate: Candidate, moves: int, start: Choice | None = None,
            handy: float = 1.0) -> Furnished:  # fmt: skip
    """Search an interior for a candidate, its things cut into lots as large as go in, or handier ones."""
    key, known = (id(candidate), handy), task.cache.lots
    lots = known.get(key)
    if lots is None:
        lots = known[key] = cut(task.things, candidate.bays, replace(task.home, handy=handy))
    problem = problem_of(task, goal, lots, candidate.bays)
    return improve(task, goal, candidate, problem, moves, start)


def problem_of(task: Task, goal: Goal, lots: Sequence[Lot], bays: Sequence[Bay]) -> Problem:
    """The interior to be searched for a goal."""
    return Problem(lots, bays, Scale.of(task.weights_for(goal)), task.home)


def improve(task: Task, goal: Goal, candidate: Candidate, problem: Problem, moves: int, start: Choice | None,
            path: int = 0) -> Furnished:  # fmt: skip
    """One more search of the same problem."""
    interior = search(problem, moves=int(moves * task.effort), seed=task.seed * 7919 + path, check=task.watch.check,
                      start=start)  # fmt: skip
    scale = problem.scale
    # What the structure costs counts, and so does the front that is there to be used.
    structure = candidate.structure(task.envelopes, task.finish)
    score = interior.cost + scale.money * structure_price(structure, task.catalogue)
    score += scale.part * len(structure) + scale.hour * hours_to_stand(candidate)
    score -= scale.front * candidate.front() / 1e4 + scale.money * _at_hand(task, candidate, interior)
    return Furnished(candidate, problem, interior, score)


def _at_hand(task: Task, candidate: Candidate, interior: Interior) -> float:
    """What the shelves would cost that are there already and only move."""
    return sum(
        worth_at_hand(task.catalogue.of(bay), bay, sum(c.role == "shelf" for c in interior.stacks[bay.index]))
        for bay in candidate.bays if bay.at_hand
    )  # fmt: skip


def hours_to_stand(candidate: Candidate) -> float:
    """Hours to stand the modules of a candidate, before what goes into them."""
    return float(sum(family.table.hours_a_module * (last - first) for family, _, _, first, last in candidate.spans))


def design_of(task: Task, goal: Goal, furnished: Furnished, *, bounded: bool = True) -> Design:
    """The placed design with its outcome; an answer that the verifier faults is a defect and raises."""
    candidate, interior, lots = furnished.candidate, furnished.interior, furnished.problem.lots
    structure = candidate.structure(task.envelopes, task.finish) if task.keep is None else kept_parts(task.keep)
    built = build(interior, candidate.bays, task.catalogue, spare_shelves=goal in SPARE_SHELVES,
                  taken={a.id for a in task.keep.assignments} if task.keep else ())  # fmt: skip
    left: dict[str, int] = {}
    for lot, choice in zip(lots, interior.choices, strict=True):
        if choice < 0:
            left[lot.thing.id] = left.get(lot.thing.id, 0) + lot.count
    kept = kept_assignments(task.keep) if task.keep else ()
    parts = (*structure, *_fresh(built.parts, {p.id for p in structure} | _spent(task), built.assignments))
    design = Design(
        id=goal, space=task.space, goal=goal, title=TITLES[goal], reason=REASONS[goal], rules=task.rules,
        weights=task.weights_for(goal), finish=task.finish, bays=candidate.bays if task.keep is None else task.keep.bays,
        parts=parts,
        rows=candidate.standing if task.keep is None else task.keep.rows,
        regions=tuple(task.envelopes[s] for s in dict.fromkeys(b.section for b in candidate.bays)),
        assignments=(*kept, *built.assignments),
        unplaced=tuple(Unplaced(thing=t, count=c) for t, c in left.items()), owned=_owned(task, built.assignments),
        ranges=_ranges(task, candidate), spent=tuple(sorted(_spent(task) - {p.id for p in structure})),
        outcome=outcome_of(furnished, bounded=bounded),
    )  # fmt: skip
    design = containers_on(design, {t.id: t for t in task.things})
    faults = verify(design, task.envelopes, task.things, task.survey)
    if faults:
        raise RuntimeError(f"the search made a layout that does not hold: {faults[0]}")
    return design


def _spent(task: Task) -> set[str]:
    """Ids of the holding parts that were there before, kept or not."""
    return {*task.keep.spent, *(p.id for p in task.keep.parts if p.role in HOLDERS)} if task.keep else set()


def _fresh(parts: list[Part], taken: set[str], assignments: list[Assignment]) -> list[Part]:
    """New parts under ids that no other part has or had."""
    renamed: dict[str, str] = {}
    fresh = []
    for part in parts:
        name, n = part.id, 2
        while name in taken:
            name, n = f"{part.id}-{n}", n + 1
        renamed[part.id] = name
        taken.add(name)
        fresh.append(part.model_copy(update={"id": name}) if name != part.id else part)
    for n, a in enumerate(assignments):
        if renamed.get(a.part, a.part) != a.part:
            assignments[n] = a.model_copy(update={"part": renamed[a.part]})
    return fresh


def _owned(task: Task, assignments: list[Assignment]) -> tuple[Container, ...]:
    used = {a.container for a in assignments}
    own = (*(c for _, c in task.home.owned), *task.containers)
    return tuple({c.id: c for c in own if c.id in used}.values())


def _ranges(task: Task, candidate: Candidate) -> tuple[Range, ...]:
    """Of the household's own ranges those that a design is made of."""
    known = (*task.ranges, *(task.keep.ranges if task.keep else ()))
    return tuple({r.family_id: r for r in known if r.family_id in candidate.families}.values())


def kept_parts(design: Design) -> tuple[Part, ...]:
    """What stays of a design when its unlocked insides are found anew: structure, and what is locked."""
    holders = {p.id for p in design.parts if stays_put(design, p)}
    return tuple(p for p in design.parts if p.id in holders or (p.role in COMES_WITH and p.belongs_to in holders))


def stays_put(design: Design, part: Part) -> bool:
    """Whether a part is of the structure, locked, or in a locked bay."""
    if part.role in COMES_WITH:
        return False
    inside = part.bay is not None and part.role in INSIDE
    return not inside or part.locked or design.bays[part.bay or 0].locked


def kept_assignments(design: Design) -> tuple[Assignment, ...]:
    """Who stays where when a design is found anew around what is locked."""
    kept = {p.id for p in design.parts if stays_put(design, p)}
    return tuple(a for a in design.assignments if a.part in kept)


def outcome_of(furnished: Furnished, *, bounded: bool = True) -> Outcome:
    """What can be said of an interior; without a bound (`bounded` false) only that it was found."""
    interior = furnished.interior
    bound = lower_bound(furnished.problem) if bounded else None
    return Outcome.of(interior.cost, bound, within=WITHIN, run=furnished.candidate.run,
                      method=f"annealing, {interior.moves} moves; exact order in each bay; "
                             f"{'bound by linear programme' if bounded else 'no bound reckoned'}")  # fmt: skip


def reach_of(design: Design, things: tuple[Thing, ...], people: tuple[Person, ...], survey: Survey) -> float:
    """All trouble of taking things out, in points."""
    by_id, sockets = {t.id: t for t in things}, sockets_of(survey)
    total = 0.0
    for a in design.assignments:
        thing = by_id.get(a.thing)
        if thing is not None:
            part = design.part(a.part)
            bay = design.bay_of(part)
            at = int(getattr(part, bay.axis))
            total += trouble(thing, part.role, at, part.h, bay, design.family_of(bay), people, sockets)
    return total
