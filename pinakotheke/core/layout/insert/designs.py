"""A way to fit drawers out as a design, by itself or beside the design of what else there is in a space. Every one goes
through the verifier.
"""

from collections import Counter, defaultdict
from itertools import count

from ...systems import Bay, OnPart, Part, Range
from ...tables import load
from ..build.dividers import with_dividers
from ..goals import WEIGHTS
from ..models import Assignment, Design, Goal, Outcome, Standing, Unplaced, fresh_ids
from ..packing.task import Task
from ..verify.verifier import verify
from .chest import Placed
from .drawers import drawer_sections
from .fittings import Fitting
from .kept import Kept

WITHIN = 0.05
"""A gap up to which an answer is called near its bound."""


def design_with(task: Task, fitting: Fitting, beside: Design | None = None) -> Design:
    """The design of a fitting; with a design of the other sections it is that one with its drawers fitted out, under its
    own name. Bays of drawers come after all others.
    """
    kept = Kept.of(task)
    first = len(beside.bays) if beside is not None else 0
    bays = tuple(_renumbered(b, first, kept) for b in fitting.candidate.bays)
    own, assignments = _filled(task, fitting, bays, kept, beside.assignments if beside is not None else ())
    taken = {p.id for p in own}
    spent = {*kept.spent, *(beside.spent if beside is not None else ())} - taken
    regions = tuple(task.envelopes[b.section] for b in bays)
    rows = tuple(
        s.model_copy(update={"first": s.first + first, "end": s.end + first}) for s in fitting.candidate.standing
    )
    everything = (*(beside.assignments if beside is not None else ()), *assignments)
    left = _left(task, everything)
    if beside is not None:
        design = beside.model_copy(update={
            "space": task.space, "rows": (*beside.rows, *rows), "regions": (*beside.regions, *regions),
            "bays": (*beside.bays, *bays), "parts": (*beside.parts, *own), "assignments": everything, "unplaced": left,
            "spent": tuple(sorted(spent)),
            "ranges": tuple({r.family_id: r for r in (*beside.ranges, *_own(task, fitting))}.values()),
        })  # fmt: skip
    else:
        said, named = load("goals"), fitting.named
        goal: Goal = "quickest" if named == "bought" else "tidiest"
        design = Design(
            id=named, space=task.space, goal=goal, title=said["title"][named],
            reason=said["reason"]["short" if left else named], rules=task.rules, weights=WEIGHTS[goal], finish=task.finish,
            spent=tuple(sorted(spent)), rows=rows, regions=regions, bays=bays, parts=own, assignments=everything,
            unplaced=left, ranges=_own(task, fitting),
            outcome=Outcome.of(fitting.used, None if left else fitting.bound, method=fitting.method,
                               run=fitting.candidate.run, within=WITHIN),
        )  # fmt: skip
    design = with_dividers(design)
    faults = verify(design, task.envelopes, task.things, task.survey, None if task.keep else task.limits)
    if faults:
        raise RuntimeError(f"the search made drawers that do not hold: {faults[0]}")
    return design


def _own(task: Task, fitting: Fitting) -> tuple[Range, ...]:
    """Of the household's own ranges those that a fitting is made of."""
    made = {fitting.family.id, fitting.trays.id if fitting.trays is not None else ""}
    known = (*task.ranges, *(task.keep.ranges if task.keep is not None else ()))
    return tuple({r.family_id: r for r in known if r.family_id in made}.values())


def without_drawers(design: Design, task: Task) -> Design:
    """A design without its drawers and what is in them: what is left of it is found by another search."""
    sections = drawer_sections(task)
    bays = [b for b in design.bays if b.section not in sections]
    to = {b.index: n for n, b in enumerate(bays)}
    parts = tuple(
        p.model_copy(update={"bay": to[p.bay]}) if p.bay is not None else p
        for p in design.parts if p.section not in sections
    )  # fmt: skip
    rows = tuple(_shifted(s, to) for s in design.rows if s.section not in sections)
    there = {p.id for p in parts}
    return design.model_copy(update={
        "bays": tuple(b.model_copy(update={"index": n}) for n, b in enumerate(bays)), "parts": parts, "rows": rows,
        "regions": tuple(r for r in design.regions if r.section not in sections),
        "assignments": tuple(a for a in design.assignments if a.part in there),
    })  # fmt: skip


def _shifted(row: Standing, to: dict[int, int]) -> Standing:
    first = to[row.first]
    return row.model_copy(update={"first": first, "end": first + row.end - row.first})


def _renumbered(bay: Bay, first: int, kept: Kept) -> Bay:
    """A bay after so many others, locked where it was."""
    return bay.model_copy(update={"index": bay.index + first, "locked": bay.section in kept.shut})


def _filled(task: Task, fitting: Fitting, bays: tuple[Bay, ...], kept: Kept, others: tuple[Assignment, ...],
            ) -> tuple[tuple[Part, ...], tuple[Assignment, ...]]:  # fmt: skip
    """The compartments of all drawers with what lies in them: those that stay, and the new ones."""
    index = {b.section: b.index for b in bays}
    parts = [p.model_copy(update={"bay": index[p.section]}) for p in kept.parts]
    assignments = list(kept.assignments)
    ids = fresh_ids({a.id for a in (*others, *assignments)})
    taken = {*kept.spent, *(p.id for p in parts)}
    floors: dict[int, list[tuple[Placed, ...]]] = defaultdict(list)
    for drawer, some in fitting.cells:
        floors[drawer.bay].append(some)
    trays = fitting.trays or fitting.family
    for n, cells in floors.items():
        bay = bays[n]
        names = (name for k in count(1) if (name := f"b{bay.index + 1}-cell-{k}") not in taken)
        for some in cells:
            called = [next(names) for _ in some]
            for name, c in zip(called, some, strict=True):
                family = trays if c.tray else fitting.family
                part = family.cell(bay, name, c.spot.x, c.spot.y, c.spot.w, c.spot.d, c.h)
                if c.on is not None:
                    part = part.model_copy(update={"z": c.z, "fixed_to": OnPart(part=called[c.on])})
                parts.append(part)
                if c.lot is not None:
                    thing = c.lot.thing
                    ways = set(family.spec("compartment").ways)
                    way = next((w for w in ("drawer", thing.way, *thing.row.ways) if w in ways
                                and w in (thing.way, *thing.row.ways)), "drawer")  # fmt: skip
                    assignments.append(
                        Assignment(id=next(ids), thing=thing.id, part=name, way=way, count=c.lot.count)
                    )  # fmt: skip
    return tuple(parts), tuple(assignments)


def _left(task: Task, assignments: tuple[Assignment, ...]) -> tuple[Unplaced, ...]:
    placed = Counter[str]()
    for a in assignments:
        placed[a.thing] += a.count
    return tuple(Unplaced(thing=t.id, count=t.count - placed[t.id])
                 for t in task.things if t.stays and t.count > placed[t.id])  # fmt: skip
