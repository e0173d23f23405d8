"""One candidate furnished: lots cut for its bays, an interior searched, and the design that it makes."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace
from decimal import Decimal
from functools import cached_property

from ..house import HouseRules, Person
from ..inventory import Thing
from ..inventory.containers import Container, owned_container
from ..inventory.owned import Owned, offers
from ..survey import Envelope, Survey
from ..systems import Finish, Part, Range, family_named, family_of, family_of_range
from .bound import lower_bound
from .build import build
from .candidates import Candidate
from .contain import containers_on
from .goals import REASONS, SPARE_SHELVES, TITLES, WEIGHTS
from .interior import Choice, Interior, Problem, Scale, search
from .lots import Household, Lot, cut
from .models import BOUND_TOLERANCE, Assignment, Design, Goal, Outcome, Unplaced, Weights
from .trouble import trouble
from .verify import verify

WITHIN = 0.25
"""A gap up to this is called *within*; above it the bound says little."""


@dataclass(slots=True)
class Watch:
    """What a long solve tells, and how it is stopped. `check` raises `Cancelled` or returns."""

    check: Callable[[], None] = lambda: None
    progress: Callable[[float, str], None] = lambda share, what: None
    found: Callable[[Design], None] = lambda design: None


@dataclass
class Task:
    """Everything a search is about."""

    space: str
    survey: Survey
    envelopes: Mapping[str, Envelope]
    things: tuple[Thing, ...]
    people: tuple[Person, ...]
    rules: HouseRules
    finish: Finish = field(default_factory=Finish)
    stock: tuple[Owned, ...] = ()
    ranges: tuple[Range, ...] = ()
    """The household's own ranges of parts."""
    containers: tuple[Container, ...] = ()
    """What containers the household can buy; those that ship when it lists none."""
    weights: Weights | None = None
    """A person's own weights, searched beside the usual goals."""
    budget: Decimal | None = None
    """No more than this, when asked."""
    families: tuple[str, ...] | None = None
    keep: Design | None = None
    """A design of which the locked bays and parts stay."""
    seed: int = 1
    effort: float = 1.0
    watch: Watch = field(default_factory=Watch)
    lots: dict[tuple[int, float], tuple[Lot, ...]] = field(default_factory=dict)
    """Lots cut so far, by candidate."""
    takes: dict[tuple[object, ...], bool] = field(default_factory=dict)
    """Whether a piece of a thing goes into a bay of a size, as far as it was asked."""

    @cached_property
    def home(self) -> Household:
        """What of the household decides where things may live."""
        at_hand = {o.id: owned_container(o) for o in self.stock}
        owned = tuple((o.thing, at_hand[o.owned]) for o in offers(self.things, self.stock))
        return Household(self.rules, self.people, sockets_of(self.survey), owned, self.containers)

    def weights_for(self, goal: Goal) -> Weights:
        """The weights of a goal."""
        return self.weights if goal == "yours" and self.weights else WEIGHTS[goal]


def sockets_of(survey: Survey) -> tuple[tuple[str, float], ...]:
    """Section and middle of every socket."""
    return tuple((o.section, o.x + o.width / 2) for o in survey.obstacles if o.kind == "socket")


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
    key = (id(candidate), handy)
    lots = task.lots.get(key)
    if lots is None:
        lots = task.lots[key] = cut(task.things, candidate.bays, replace(task.home, handy=handy))
    problem = Problem(lots, candidate.bays, Scale.of(task.weights_for(goal)))
    return improve(task, goal, candidate, problem, moves, start)


def improve(task: Task, goal: Goal, candidate: Candidate, problem: Problem, moves: int, start: Choice | None,
            path: int = 0) -> Furnished:  # fmt: skip
    """One more search of the same problem."""
    interior = search(problem, moves=int(moves * task.effort), seed=task.seed * 7919 + path, check=task.watch.check,
                      start=start)  # fmt: skip
    scale = problem.scale
    # What the structure costs counts, and so does the front that is there to be used.
    structure = candidate.structure(task.envelopes, task.finish)
    score = interior.cost + scale.money * float(sum((family_of(p).price(p) for p in structure), Decimal(0)))
    score += scale.part * len(structure) + scale.hour * hours_to_stand(candidate)
    score -= scale.front * candidate.front() / 1e4 + scale.money * _at_hand(candidate, interior)
    return Furnished(candidate, problem, interior, score)


def _at_hand(candidate: Candidate, interior: Interior) -> float:
    """What the shelves would cost that are there already and only move."""
    worth = 0.0
    for bay in candidate.bays:
        if bay.at_hand:
            used = min(bay.at_hand, sum(c.role == "shelf" for c in interior.stacks[bay.index]))
            worth += used * float(family_named(bay.family).component("shelf", bay).price)
    return worth


def hours_to_stand(candidate: Candidate) -> float:
    """Hours to stand the modules of a candidate, before what goes into them."""
    return float(sum(family.table["hours_a_module"] * (last - first) for family, _, _, first, last in candidate.spans))


def design_of(task: Task, goal: Goal, furnished: Furnished, *, bounded: bool = True) -> Design:
    """The placed design with its outcome; an answer that the verifier faults is a defect and raises."""
    candidate, interior, lots = furnished.candidate, furnished.interior, furnished.problem.lots
    structure = candidate.structure(task.envelopes, task.finish) if task.keep is None else kept_parts(task.keep)
    built = build(interior, candidate.bays, spare_shelves=goal in SPARE_SHELVES)
    left: dict[str, int] = {}
    for lot, choice in zip(lots, interior.choices, strict=True):
        if choice < 0:
            left[lot.thing.id] = left.get(lot.thing.id, 0) + lot.count
    kept = kept_assignments(task.keep) if task.keep else ()
    parts = (*structure, *(p for p in _fresh(built.parts, structure, built.assignments)))
    design = Design(
        id=goal, space=task.space, goal=goal, title=TITLES[goal], reason=REASONS[goal], rules=task.rules,
        weights=task.weights_for(goal), finish=task.finish, bays=candidate.bays if task.keep is None else task.keep.bays,
        parts=parts,
        rows=candidate.standing if task.keep is None else task.keep.rows,
        regions=tuple(task.envelopes[s] for s in dict.fromkeys(b.section for b in candidate.bays)),
        assignments=(*kept, *built.assignments),
        unplaced=tuple(Unplaced(thing=t, count=c) for t, c in left.items()), owned=_owned(task, built.assignments),
        ranges=_ranges(task, candidate),
        outcome=outcome_of(furnished, bounded=bounded),
    )  # fmt: skip
    design = containers_on(design, {t.id: t for t in task.things})
    faults = verify(design, task.envelopes, task.things, task.survey)
    if faults:
        raise RuntimeError(f"the search made a layout that does not hold: {faults[0]}")
    return design


def _fresh(parts: list[Part], structure: tuple[Part, ...], assignments: list[Assignment]) -> list[Part]:
    """New parts under ids that no kept part has."""
    taken = {p.id for p in structure}
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
    return tuple({r.family_id: r for r in known if family_of_range(r).id in candidate.families}.values())


def kept_parts(design: Design) -> tuple[Part, ...]:
    """What stays of a design when its unlocked insides are found anew: structure, and what is locked."""
    holders = {p.id for p in design.parts if stays_put(design, p)}
    return tuple(
        p for p in design.parts
        if p.id in holders or (p.role in ("bracket", "cleat", "container") and p.id.rsplit("-", 1)[0] in holders)
    )  # fmt: skip


def stays_put(design: Design, part: Part) -> bool:
    """Whether a part is of the structure, locked, or in a locked bay."""
    if part.role in ("bracket", "cleat", "container"):
        return False
    inside = part.bay is not None and (part.role in _INSIDE)
    return not inside or part.locked or design.bays[part.bay or 0].locked


_INSIDE = frozenset({"base", "shelf", "shoe shelf", "rail", "face rail", "trouser rack", "tie rack", "drawer", "tray",
                     "basket", "hamper", "hooks", "floor", "platform", "strip", "cover"})  # fmt: skip


def kept_assignments(design: Design) -> tuple[Assignment, ...]:
    """Who stays where when a design is found anew around what is locked."""
    kept = {p.id for p in design.parts if stays_put(design, p)}
    return tuple(a for a in design.assignments if a.part in kept)


def outcome_of(furnished: Furnished, *, bounded: bool = True) -> Outcome:
    """What can be said of an interior; without a bound (`bounded` false) only that it was found."""
    interior = furnished.interior
    bound = min(lower_bound(furnished.problem), interior.cost) if bounded else 0.0
    gap = (interior.cost - bound) / interior.cost if interior.cost > 0 else 0.0
    if gap <= BOUND_TOLERANCE:
        return Outcome(status="proven", objective=interior.cost, bound=interior.cost, run=furnished.candidate.run,
                       method="the bound of the linear programme is met")  # fmt: skip
    return Outcome(
        status="within" if gap <= WITHIN else "best found", objective=interior.cost, bound=bound,
        run=furnished.candidate.run,
        method=f"annealing, {interior.moves} moves; exact order in each bay; bound by linear programme",
    )  # fmt: skip


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
            total += trouble(thing, part.role, at, part.h, bay, design.family_in(bay), people, sockets)
    return total
