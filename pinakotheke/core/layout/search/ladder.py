"""What would have to give: the rungs of a ladder, the gentlest first, each tried by a search of its own and offered with
what it costs, where one would do.

A rung that nobody but the household can climb (a wall to measure, a label to read) is told and not carried out.
"""

from collections.abc import Iterator, Sequence
from decimal import Decimal
from typing import Any, Literal, get_args

from ...base import Frozen
from ...house import HouseRules
from ...inventory import Thing, uses_a_month
from ...inventory.places import place_of
from ...inventory.zones import homes
from ...survey import envelopes
from ..models import Design
from ..packing.task import Task
from ..placement.candidates import Candidate
from ..placement.pool import allowed
from ..report.costing import cost_of
from .furnish import design_of
from .quick import quick, takes_all

Rung = Literal[
    "access", "hangers", "fold", "measure", "fact", "floor", "drill", "lock", "families", "spares", "elsewhere",
    "move out", "fewer", "size", "budget", "reserve",
]  # fmt: skip
"""`reserve` stands in answers of before: it yields by itself now."""
RUNGS: tuple[Rung, ...] = get_args(Rung)
BY_HAND: frozenset[Rung] = frozenset({"size", "measure", "fact"})
"""Nothing that the tool can carry out: a wall is as it is, and as it was read."""
MOST_ROOMS = 3
"""Other spaces that are tried for what has no place here."""


SPARES, MOST_SPARES = 4, 4
"""Pieces from which a group has spares, and groups of which half is tried."""


class Relaxation(Frozen):
    """One change that would let everything fit. `value` is what it would have to be, or the pieces it is about; `cost`
    what the whole design would cost; `name` what is measured or read; `moves` each thing with the space it would go to.
    """

    kind: Rung
    value: float = 0
    things: tuple[str, ...] = ()
    cost: Decimal | None = None
    name: str = ""
    moves: tuple[tuple[str, str], ...] = ()

    @property
    def applies(self) -> bool:
        """Whether the tool can carry it out."""
        return self.kind not in BY_HAND


def ladder(task: Task, best: Design, tried: Sequence[Candidate]) -> tuple[Relaxation, ...]:
    """Every rung that would do for what the best design leaves out, in order."""
    left = tuple(dict.fromkeys(u.thing for u in best.unplaced))
    pieces = sum(u.count for u in best.unplaced)
    found = [*_rules(task, tried), *_facts(task)]
    if task.families is not None and set(task.families) < set(allowed(task.rules, task.ranges)):
        found += _tried("families", task.but(families=None))
    elif task.families is None:
        # What does not suit the room by common practice holds as well, when a person names it.
        found += _tried("families", task.but(families=allowed(task.rules, task.ranges)))
    found += _elsewhere(task, best)
    found += [
        Relaxation(kind="move out", value=pieces, things=left),
        Relaxation(kind="fewer", value=pieces, things=left),
    ]
    return tuple(sorted(found, key=lambda r: RUNGS.index(r.kind)))


def ladder_in_drawers(task: Task, best: Design) -> tuple[Relaxation, ...]:
    """The same where there are only drawers: half of what is seldom wanted, another space's drawers, fewer."""
    left = tuple(dict.fromkeys(u.thing for u in best.unplaced))
    pieces = sum(u.count for u in best.unplaced)
    found = [*_half_the_spares(task), *_elsewhere(task, best)]
    found += [Relaxation(kind=kind, value=pieces, things=left) for kind in ("move out", "fewer")]
    return tuple(sorted(found, key=lambda r: RUNGS.index(r.kind)))


def _half_the_spares(task: Task) -> Iterator[Relaxation]:
    """The group, of those with many pieces that are seldom wanted, of which half kept elsewhere makes room for all."""
    spare = [
        t for t in task.things if t.stays and t.count >= SPARES and uses_a_month(t.frequency) < uses_a_month("weekly")
    ]
    for thing in sorted(spare, key=lambda t: (uses_a_month(t.frequency), -t.count))[:MOST_SPARES]:
        half = thing.count // 2
        fewer = thing.model_copy(update={"count": thing.count - half})
        if takes_all(task.but(things=tuple(fewer if t.id == thing.id else t for t in task.things))):
            yield Relaxation(kind="spares", value=half, things=(thing.id,))
            return


def _tried(kind: Rung, task: Task, tried: Sequence[Candidate] = (), **facts: Any) -> Iterator[Relaxation]:
    """A rung where a short search finds everything a place on it."""
    task.watch.check()
    if task.watch.time_is_up:
        return
    found = quick(task, tried=tried)
    if found is not None and not found.unplaced:
        yield Relaxation(kind=kind, cost=cost_of(design_of(task, found)).total, **facts)


def _rules(task: Task, tried: Sequence[Candidate]) -> Iterator[Relaxation]:
    """House rules that could yield, and a lock on the door."""
    changes: tuple[tuple[Rung, str, str], ...] = (
        ("access", "access", "dense"), ("hangers", "hangers", "slim"),
        ("floor", "floor", "purposeful"), ("drill", "drill", "anywhere"),
    )  # fmt: skip
    for kind, rule, wanted in changes:
        if getattr(task.rules, rule) != wanted:
            rules: HouseRules = task.rules.model_copy(update={rule: wanted})
            same = allowed(rules, task.ranges) == allowed(task.rules, task.ranges)
            yield from _tried(kind, task.but(rules=rules), tried if same else ())
    if not task.folds and any("hang" in t.row.ways for t in task.things if t.stays):
        yield from _tried("fold", task.but(folds=True), tried)
    if not task.use.locked and any(task.limits.hurts(t) for t in task.things if t.stays):
        yield from _tried("lock", task.but(use=task.use.model_copy(update={"locked": True})), tried)


def _facts(task: Task) -> Iterator[Relaxation]:
    """Walls that were not measured, and the clearance that closes most."""
    for section in task.survey.parts:
        if section.kind == "run" and section.id not in task.envelopes:
            yield Relaxation(kind="measure", name=section.name or section.id)
    clearances = [(o.width + 2 * max(o.keep_out, o.access), o) for o in task.survey.obstacles if o.keep_out or o.access]
    if clearances:
        closed, widest = max(clearances, key=lambda row: row[0])
        bare = widest.model_copy(update={"keep_out": 0, "access": 0})
        survey = task.survey.model_copy(
            update={"obstacles": tuple(bare if o is widest else o for o in task.survey.obstacles)}
        )
        without = task.but(survey=survey, envelopes=envelopes(survey, task.rules))
        yield from _tried("fact", without, value=closed, name=widest.name)


def _elsewhere(task: Task, best: Design) -> Iterator[Relaxation]:
    """Other spaces of the house that suit what is left over and have room for it, each tried with what is there."""
    by_id = {t.id: t for t in task.things}
    left = {u.thing: by_id[u.thing].model_copy(update={"count": u.count, "pin_space": ""}) for u in best.unplaced}
    rooms = {t.space: t for t in task.others()} if left else {}
    places = {s: place_of(s, s, t.use, t.survey, t.rules, t.people) for s, t in rooms.items()}
    for _ in range(MOST_ROOMS if not task.watch.time_is_up else 0):
        settled = homes(tuple(left.values()), tuple(places.values()), task.people).homes
        if {h.thing for h in settled} != set(left):
            return
        full = {
            s
            for s in {h.space for h in settled}
            if not _takes_in(rooms[s], [left[h.thing] for h in settled if h.space == s])
        }
        if not full:
            yield Relaxation(kind="elsewhere", value=sum(t.count for t in left.values()), things=tuple(left),
                             moves=tuple((h.thing, h.space) for h in settled))  # fmt: skip
            return
        places = {s: place for s, place in places.items() if s not in full}


def _takes_in(room: Task, things: list[Thing]) -> bool:
    """Whether a space holds what it has and these beside it."""
    return takes_all(room.but(things=(*room.things, *things)))
