"""One candidate furnished: who lives where in its bays, and the design that it makes."""

import gc
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from ...house import HouseRules
from ...inventory.containers import Container
from ...survey import Survey
from ...systems import HOLDERS, INSIDE, Bay, Part, Range
from ...systems.roles import COMES_WITH
from ..build.boards import OVER_RAIL, beside_gable, cut_to_depth, gables_to_size, to_size
from ..build.parts import build
from ..goals import REASONS, SPARE_SHELVES, TITLES
from ..insert import partition, skyline
from ..models import Assignment, Design, Goal, Outcome, Unplaced
from ..packing.arrays import Answer, Heap, Scale, Stacked, Wall
from ..packing.contain import containers_on
from ..packing.task import Task
from ..placement.candidates import Candidate
from ..report.costing import structure_price
from ..verify.verifier import verify

HOT, COLD = 60.0, 1.5
"""Points that a move may cost at the beginning and at the end of a search."""
HOTTER = 10
"""So much hotter while something is left out: what stands in its way is worth more than money."""
CHUNK = 1000
"""Moves between two looks whether the asker withdrew: about a fifth of a second."""
NOISE = 6.0
"""Points by which the best fit of a random start may be missed."""


@dataclass(slots=True)
class Furnished:
    """A candidate with what is in it; `score` is comparable between candidates of one goal."""

    goal: Goal
    candidate: Candidate
    wall: Wall
    answer: Answer
    score: float
    moves: int = 0

    @property
    def unplaced(self) -> int:
        """Pieces without a place."""
        return self.answer.unplaced


def heap_of(task: Task) -> Heap:
    """The heap of a task, with the options worked out so far."""
    if task.cache.heap is None:
        task.cache.heap = Heap(task.things, task.home)
    heap: Heap = task.cache.heap
    return heap


def begin(task: Task, goal: Goal, candidate: Candidate, path: int = 0) -> Furnished:
    """A candidate furnished by best fit alone; with a `path`, a little at random."""
    wall = _wall(task, goal, candidate)
    plan = wall.plan()
    _, points = wall.begin(plan, _state(task, path), NOISE if path else 0.0)
    return _furnished(task, goal, candidate, wall, plan, points, 0)


def carried_over(task: Task, furnished: Furnished, candidate: Candidate) -> Furnished:
    """Another candidate furnished as far as it goes as this one is, bay by bay, and by best fit with the rest."""
    wall = _wall(task, furnished.goal, candidate)
    plan = wall.like(furnished.wall, furnished.answer.plan)
    _, points = wall.begin(plan, _state(task, 0), 0.0)
    return _furnished(task, furnished.goal, candidate, wall, plan, points, furnished.moves)


def improve(task: Task, furnished: Furnished, moves: int, path: int = 0, goal: Goal | None = None) -> Furnished:
    """The best of so many moves from a furnished candidate, for its own goal or another."""
    goal = goal or furnished.goal
    wall = furnished.wall if goal == furnished.goal else _wall(task, goal, furnished.candidate)
    now = wall.copied(furnished.answer.plan)
    points = wall.reckoned(now)
    best, kept = wall.copied(now), wall.plan()
    state, done, moves = _state(task, path), 0, max(1, int(moves * task.effort))
    begun = HOT * max(1.0, wall.scale.order**2) * (HOTTER if furnished.unplaced else 1)
    while done < moves:
        chunk = min(CHUNK, moves - done)
        hot, cold = (begun * (COLD / begun) ** (at / moves) for at in (done, done + chunk))
        state, points = wall.improve(now, best, kept, chunk, hot, cold, state, points)
        done += chunk
        task.watch.check()
    return _furnished(task, goal, furnished.candidate, wall, best, points, furnished.moves + done)


def seen_as(task: Task, furnished: Furnished, goal: Goal) -> Furnished:
    """The same answer under the weights of another goal."""
    wall = _wall(task, goal, furnished.candidate)
    plan = wall.copied(furnished.answer.plan)
    return _furnished(task, goal, furnished.candidate, wall, plan, wall.reckoned(plan), furnished.moves)


def furnish(task: Task, goal: Goal, candidate: Candidate, moves: int) -> Furnished:
    """A candidate furnished by best fit and so many moves."""
    return improve(task, begin(task, goal, candidate), moves)


def _state(task: Task, path: int) -> int:
    return (task.seed * 7919 + path * 104729) % 2147483646 + 1


def _wall(task: Task, goal: Goal, candidate: Candidate) -> Wall:
    return Wall(heap_of(task), candidate.bays, candidate.row_numbers, Scale.of(task.weights_for(goal)))


def _furnished(task: Task, goal: Goal, candidate: Candidate, wall: Wall, plan: Any, points: float, moves: int,
               ) -> Furnished:  # fmt: skip
    answer = wall.read(plan, points)
    scale = wall.scale
    # What the structure costs counts, and so does the front that is there to be used.
    structure = _to_size(candidate, candidate.structure(task.envelopes, task.finish), answer)
    score = points + scale.money * structure_price(structure, task.catalogue)
    score += scale.part * len(structure) + scale.hour * hours_to_stand(candidate)
    score -= scale.front * candidate.front() / 1e4
    return Furnished(goal, candidate, wall, answer, score, moves)


def _to_size(candidate: Candidate, structure: tuple[Part, ...], answer: Answer) -> tuple[Part, ...]:
    """The structure with its gables about as high and deep as what they are to carry."""
    if not any(p.role == "panel" for p in structure):
        return structure
    thick = {f.id: f.board for f, *_ in candidate.spans}
    across = [(b, (b.z0, b.depth)) for f, *_, first, last in candidate.spans if f.lies_on
              for b in candidate.bays[first:last]]  # fmt: skip
    sized = []
    for part in structure:
        if part.role == "panel":
            beside = beside_gable(part, candidate.bays)
            ends = [
                end
                for n, bay in beside.items()
                for c in answer.stacks[n]
                if (end := _end_of(c, bay, thick[bay.family]))
            ]
            ends += [end for b, end in across if b.section == part.section and b.x < part.x < b.x + b.w]
            part = to_size(part, ends)
        sized.append(part)
    return tuple(sized)


def _end_of(c: Stacked, bay: Bay, thick: int) -> tuple[int, int] | None:
    """How high and how deep a gable must be for a compartment; None where nothing of it rests there."""
    z = bay.z0 + (c.foot + c.below) * bay.pitch
    if c.role == "shelf":
        return z + thick, max((lot.option.deep or bay.depth for lot in c.lots), default=bay.depth)
    return (min(z + OVER_RAIL, bay.z1), bay.depth) if c.role in ("rail", "hooks") else None


def hours_to_stand(candidate: Candidate) -> float:
    """Hours to stand the modules of a candidate, before what goes into them."""
    return float(sum(family.table.hours_a_module * (last - first) for family, _, _, first, last in candidate.spans))


def lined_up(furnished: Furnished) -> Answer:
    """The answer with the shelves of neighbouring bays at one height, as far as they may be."""
    plan = furnished.wall.copied(furnished.answer.plan)
    furnished.wall.line_up(plan)
    return furnished.wall.read(plan, furnished.answer.points)


def design_of(task: Task, furnished: Furnished) -> Design:
    """The placed design with its outcome; an answer that the verifier faults is a defect and raises."""
    candidate, goal, answer = furnished.candidate, furnished.goal, lined_up(furnished)
    structure = candidate.structure(task.envelopes, task.finish) if task.keep is None else kept_parts(task.keep)
    built = build(answer.stacks, candidate.bays, task.catalogue, spare_shelves=goal in SPARE_SHELVES,
                  taken={a.id for a in task.keep.assignments} if task.keep else ())  # fmt: skip
    kept = kept_assignments(task.keep) if task.keep else ()
    parts = (*structure, *_fresh(built.parts, {p.id for p in structure} | _spent(task), built.assignments))
    design = Design(
        id=goal, space=task.space, goal=goal, title=TITLES[goal],
        reason=REASONS["short" if answer.out else goal], rules=task.rules,
        weights=task.weights_for(goal), finish=task.finish, bays=candidate.bays if task.keep is None else task.keep.bays,
        parts=parts,
        rows=candidate.standing if task.keep is None else task.keep.rows,
        regions=tuple(task.envelopes[s] for s in dict.fromkeys(b.section for b in candidate.bays)),
        assignments=(*kept, *built.assignments),
        unplaced=tuple(Unplaced(thing=t, count=c) for t, c in answer.out.items()),
        owned=_owned(task, (*kept, *built.assignments)),
        ranges=_ranges(task, candidate), spent=tuple(sorted(_spent(task) - {p.id for p in structure})),
        outcome=Outcome.of(answer.points, None, within=0, run=candidate.run,
                           method=f"ruin and repair, {furnished.moves} moves; exact heights in each bay"),
    )  # fmt: skip
    by_id = {t.id: t for t in task.things}
    design = cut_to_depth(design, by_id) if goal not in SPARE_SHELVES else design
    design = containers_on(gables_to_size(design), by_id)
    faults = verify(design, task.envelopes, task.things, task.survey, None if task.keep else task.limits)
    if faults:
        raise RuntimeError(f"the search made a layout that does not hold: {faults[0]}")
    return design


def _spent(task: Task) -> set[str]:
    """Ids of the holding parts that were there before, kept or not."""
    return {*task.keep.spent, *(p.id for p in task.keep.parts if p.role in HOLDERS)} if task.keep else set()


def _fresh(parts: list[Part], taken: set[str], assignments: list[Assignment]) -> list[Part]:
    """New parts under ids that no other part has or had; what carries a part comes after it."""
    renamed: dict[str, str] = {}
    fresh = []
    for part in parts:
        name, n = part.id, 2
        while name in taken:
            name, n = f"{part.id}-{n}", n + 1
        renamed[part.id] = name
        taken.add(name)
        holder = renamed.get(part.belongs_to, part.belongs_to)
        same = (name, holder) == (part.id, part.belongs_to)
        fresh.append(part if same else part.model_copy(update={"id": name, "belongs_to": holder}))
    for n, a in enumerate(assignments):
        if renamed.get(a.part, a.part) != a.part:
            assignments[n] = a.model_copy(update={"part": renamed[a.part]})
    return fresh


def _owned(task: Task, assignments: Sequence[Assignment]) -> tuple[Container, ...]:
    used = {a.container for a in assignments}
    own = (*(task.keep.owned if task.keep else ()), *(c for _, c in task.home.owned), *task.containers)
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


def prime() -> None:
    """Compile the kernel, or fetch it from where an earlier run kept it, so that nobody waits for it later. What is
    loaded by then stays for good: the collector of garbage need not look through it at every search.
    """
    task = Task("", Survey(), {}, (), (), HouseRules())
    skyline.pack([skyline.Rect(1, 1)], (1, 1), moves=1)
    partition.part([[partition.Choice(1, 1)]], 1, 1, 1, moves=1)
    design = Candidate((), (), ())
    lined_up(improve(task, improve(task, begin(task, "cheapest", design), 1), 1, goal="reach"))
    gc.collect()
    gc.freeze()
