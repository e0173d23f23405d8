"""Ways to fit out the drawers of a space: between dividers by three schools, in trays of a set, or both at once.

Which group goes into which drawer comes first (`chest`), then every floor by itself (`plan`, `trays`); what has no place
in its own drawer is offered to the others. Then a general solver tries for less, within an effort, and says what is proven.
"""

from collections.abc import Callable, Iterator, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, replace
from os import sched_getaffinity
from typing import Generic, Protocol, Self, TypeVar

from ...inventory import Thing
from ...systems import NoSuchFamily
from ...systems.families.insert import Dividers, Insert, TraySet
from ..models import Design
from ..packing.task import Task
from ..placement.candidates import Candidate
from . import exact
from .chest import Lot, Placed, lots_of, shared_out
from .drawers import Drawer, drawer_sections, drawers_of, stood
from .free import EFFORT as FREE_EFFORT
from .free import MOST as MOST_FREE
from .free import Free, freely
from .kept import Kept
from .partition import MOVES, Column, Lane, Partition
from .plan import Parted, choices_of, parted
from .skyline import MOVES as ORDERS
from .spread import School
from .trays import Trays, trayed, worth_their_floor

SCHOOLS: tuple[School, ...] = ("even", "grow", "fewest")
QUICK = 8_000
"""Moves for the first answer of a drawer; all of them come after."""
MOST_PROVEN = 26
"""Groups of a drawer up to which the general solver is asked."""
LINKS, CHAINED = 2, 40
"""Drawers out of which something is driven before a lot has its place, and how often that is tried."""
BETWEEN = "rows and columns by annealing, then by a general solver; bound: area with dividers, or the deepest"
IN_TRAYS = "trays set by a skyline, orders tried by exchange"


@dataclass(frozen=True, slots=True)
class Fitting:
    """Drawers with their compartments, what is left out, and what is taken of their depths (between dividers, mm) or
    floors (trays, mm²) against its bound. `named` is a row of `tables/goals.toml`.
    """

    named: str
    family: Insert
    candidate: Candidate
    cells: tuple[tuple[Drawer, tuple[Placed, ...]], ...]
    left_out: tuple[Lot, ...]
    used: float
    bound: float | None
    method: str
    trays: TraySet | None = None
    """Of what sets trays between dividers: which."""


class Filled(Protocol):
    """A drawer laid out, by whatever way."""

    @property
    def lots(self) -> tuple[Lot, ...]:
        """What it was laid out with."""

    @property
    def left_out(self) -> tuple[Lot, ...]:
        """What found no place in it."""

    @property
    def share(self) -> float:
        """How full it is."""

    def without_left_out(self) -> Self:
        """The same with nothing left out."""


F = TypeVar("F", bound=Filled)
G = TypeVar("G", bound=Insert)


def inserts_of(task: Task) -> tuple[str, ...]:
    """The families that drawers may be fitted out with: all, those that were asked for, or those of the design that is
    found anew.
    """
    both: tuple[str, ...] = (_family(task, Dividers).id, _family(task, TraySet).id)
    if task.keep is not None:
        both = tuple(f for f in both if f in {b.family for b in task.keep.bays})
    return both if task.families is None else tuple(f for f in both if f in task.families)


def _family(task: Task, made: type[G]) -> G:
    """An insert of a kind: that of the design that is found anew, the household's own range, or the one that ships."""
    there = [b.family for b in task.keep.bays] + [p.family for p in task.keep.parts] if task.keep is not None else []
    for family in (task.catalogue[f] for f in (*there, *(r.family_id for r in reversed(task.ranges)), made.id)):
        if isinstance(family, made):
            return family
    raise NoSuchFamily("family.unknown", family=made.id)


def fittings(task: Task) -> Iterator[Fitting]:
    """Every way to fit the drawers of a space out with its things, the first as soon as it is there. What is locked stays
    where it is.
    """
    families, there = inserts_of(task), drawer_sections(task)
    dividers, trays = _family(task, Dividers), _family(task, TraySet)
    if not there:
        return
    if dividers.id in families:
        yield from _between_dividers(task, dividers)
    if trays.id in families:
        yield from _in_trays(task, trays)
    if dividers.id in families and (trays.id in families or _is_mixed(task.keep)):
        yield from _both(task, dividers, trays)


def way_of(design: Design) -> str:
    """How the drawers of a design are fitted out: the name of the fitting that it is, or is nearest to."""
    if design.id in (*SCHOOLS, "bought", "mixed"):
        return design.id
    if _is_mixed(design):
        return "mixed"
    return "even" if any(isinstance(design.family_of(b), Dividers) for b in design.bays) else "bought"


def _strip(task: Task) -> int:
    """Thickness of the strips: as it is wished, or as those are that stay, mm."""
    return (task.keep.finish if task.keep is not None else task.finish).strip


def _is_mixed(design: Design | None) -> bool:
    """Whether trays stand between its dividers."""
    return design is not None and any(
        isinstance(design.family_of(p), TraySet)
        and p.bay is not None
        and isinstance(design.family_of(design.bays[p.bay]), Dividers)
        for p in design.parts
    )


def _between_dividers(task: Task, family: Dividers) -> Iterator[Fitting]:
    candidate = stood(task, family)
    if candidate is None:
        return
    kept, strip = Kept.of(task), _strip(task)
    drawers = kept.floors(drawers_of(task, candidate), strip)
    plans, left = _parted(task, drawers, strip, QUICK, links=0)
    yield _fitting("even", strip, family, candidate, plans, left)
    task.watch.progress(0.2, "parting the drawers")
    free = _freely(task, drawers, plans, left, strip) if left else None
    if free is not None:
        for school in SCHOOLS:
            yield _fitting(school, strip, family, candidate, free, ())
        return
    plans, left = min((plans, left), _parted(task, drawers, strip, MOVES), key=_rank)
    plans = _tightened(task, plans, strip)
    for school in SCHOOLS:
        yield _fitting(school, strip, family, candidate, plans, left)


def _freely(task: Task, drawers: Sequence[Drawer], plans: Sequence[Parted], left: Sequence[Lot], strip: int,
            ) -> Sequence[Parted | Free] | None:  # fmt: skip
    """Compartments that make no rows, where those that do leave something out: of whole groups, or as they were parted;
    None where the general solver found none either.
    """
    lots = lots_of(placeable(task), drawers)
    apart = [*(lot for p in plans for lot in p.lots), *left]
    for some in (lots, apart):
        if len(some) > MOST_FREE or not all(any(lot.shapes(d) for d in drawers) for lot in some):
            continue
        task.watch.check()
        found = freely(some, drawers, strip, effort=FREE_EFFORT * min(1.0, task.effort))
        if isinstance(found, list):
            return [_in_rows(task, f, strip) for f in found]
    return None


def _in_rows(task: Task, free: Free, strip: int) -> Parted | Free:
    """The same lots in rows, which are tidier, where they go in so."""
    plan = parted(free.lots, free.drawer, strip, moves=max(1, int(MOVES * task.effort)), seed=task.seed)
    return free if plan.left_out else plan


def _both(task: Task, family: Dividers, trays: TraySet) -> Iterator[Fitting]:
    """Trays between dividers, wherever a pile of them takes less floor than compartments side by side."""
    candidate = stood(task, family)
    if candidate is None:
        return
    task.watch.progress(0.9, "trays between dividers")
    strip = _strip(task)
    drawers = Kept.of(task).floors(drawers_of(task, candidate), strip)
    plans, left = _parted(task, drawers, strip, MOVES, trays)
    if any(p.tray for plan in plans for p in plan.cells(strip, "even")):
        yield replace(_fitting("mixed", strip, family, candidate, plans, left), trays=trays)


def _in_trays(task: Task, family: TraySet) -> Iterator[Fitting]:
    candidate = stood(task, family)
    if candidate is None:
        return
    task.watch.progress(0.8, "setting trays")
    drawers = Kept.of(task).floors(drawers_of(task, candidate), 0)
    moves = max(1, int(ORDERS * task.effort))

    def plan(drawer: Drawer, lots: Sequence[Lot], sure: Lot | None) -> Trays:
        task.watch.check()
        return trayed(lots, drawer, family, moves=moves, seed=task.seed, sure=sure)

    plans, left = _settled(task, drawers, 2 * family.table.wall, plan)
    cells = tuple((p.drawer, p.placed) for p in plans)
    used = float(sum(p.used for p in plans))
    yield Fitting("bought", family, candidate, cells, tuple(left), used, None, IN_TRAYS)


def _parted(task: Task, drawers: Sequence[Drawer], strip: int, moves: int, trays: TraySet | None = None,
            links: int = LINKS) -> tuple[list[Parted], list[Lot]]:  # fmt: skip
    moves = max(1, int(moves * task.effort))

    def plan(drawer: Drawer, lots: Sequence[Lot], sure: Lot | None) -> Parted:
        task.watch.check()
        inside = lots if trays is None else worth_their_floor(lots, drawer, trays, strip)
        return parted(inside, drawer, strip, moves=moves, seed=task.seed, sure=sure)

    return _settled(task, drawers, strip, plan, links)


def _settled(task: Task, drawers: Sequence[Drawer], strip: int, plan: Callable[[Drawer, Sequence[Lot], Lot | None], F],
             links: int = LINKS) -> tuple[list[F], list[Lot]]:  # fmt: skip
    """Every drawer laid out, and what has no place in any: what found none in its own is tried in the others, the emptiest
    first, and by halves; of what is driven out for it at most so many `links`.
    """
    lots = lots_of(placeable(task), drawers)
    home = shared_out(lots, drawers, strip)
    plans: list[F] = [
        plan(d, [lot for lot, at in zip(lots, home, strict=True) if at == n], None) for n, d in enumerate(drawers)
    ]
    homeless = [
        *(lot for lot, d in zip(lots, home, strict=True) if d is None),
        *(lot for p in plans for lot in p.left_out),
    ]
    plans = [p.without_left_out() for p in plans]
    nowhere: list[Lot] = []
    moving = _Moving(drawers, plan)
    while homeless:
        lot = homeless.pop(0)
        moved = moving.taken_in(lot, plans, links)
        if moved is not None:
            plans = moved
        elif lot.count > 1:  # some of it here, some of it there
            homeless[:0] = lot.halves()
        else:
            nowhere.append(lot)
    return plans, nowhere


@dataclass(slots=True)
class _Moving(Generic[F]):
    """What has no place is put into another drawer, and what it drives out of there into the next one: an ejection chain
    (Glover 1996, from memory), as long as plans may be made.
    """

    drawers: Sequence[Drawer]
    plan: Callable[[Drawer, Sequence[Lot], Lot | None], F]
    left: int = CHAINED

    def taken_in(self, lot: Lot, plans: list[F], links: int, closed: frozenset[int] = frozenset(),
                 ) -> list[F] | None:  # fmt: skip
        """The drawers with a lot in one of them, the emptiest first; None where none was found that takes it."""
        tried: list[tuple[int, F]] = []
        for n in sorted(range(len(plans)), key=lambda n: plans[n].share):
            if n in closed or not lot.shapes(self.drawers[n]):
                continue
            with_it = self.plan(self.drawers[n], [*plans[n].lots, lot], lot)
            if not with_it.left_out:
                return [*plans[:n], with_it, *plans[n + 1 :]]
            if lot not in with_it.left_out:
                tried.append((n, with_it))
        for n, with_it in sorted(tried, key=lambda one: sum(out.count for out in one[1].left_out)):
            if not links or self.left <= 0:
                return None
            self.left -= 1
            moved: list[F] | None = [*plans[:n], with_it.without_left_out(), *plans[n + 1 :]]
            for out in with_it.left_out:
                moved = self.taken_in(out, moved, links - 1, closed | {n}) if moved is not None else None
            if moved is not None:
                return moved
        return None


def placeable(task: Task) -> tuple[Thing, ...]:
    """The things that may lie in a drawer here and do not lie there yet."""
    ways = set(_family(task, Dividers).spec("compartment").ways)
    return tuple(
        t for t in Kept.of(task).rest(task.things)
        if t.stays and ways & {t.way, *t.row.ways} and ("gas" not in t.hazards or task.limits.outdoors)
    )  # fmt: skip


def _tightened(task: Task, plans: Sequence[Parted], strip: int) -> list[Parted]:
    """The same, or rows in less depth where the general solver finds them, of those whose columns are not parted again."""
    effort = exact.EFFORT * min(1.0, task.effort) / max(1, len(plans))
    with ThreadPoolExecutor(len(sched_getaffinity(0))) as cores:
        return list(cores.map(lambda p: _tighter(task, p, strip, effort), plans))


def _tighter(task: Task, p: Parted, strip: int, effort: float) -> Parted:
    if p.left_out or p.corner is not None or not 1 < len(p.inside) <= MOST_PROVEN or task.watch.time_is_up:
        return p
    choices = [choices_of(one, p.drawer, p.turned) for one in p.inside]
    floor = p.drawer.floor
    width, depth = (floor.d, floor.w) if p.turned else (floor.w, floor.d)
    task.watch.check()
    found = exact.rows(choices, width, strip, within=depth, effort=effort)
    if found.used is None or found.used >= p.plan.used:
        return p
    lanes = []
    for r in sorted(set(found.rows)):
        inside = [(n, found.chosen[n]) for n in range(len(choices)) if found.rows[n] == r]
        deep = max(choices[n][k].d for n, k in inside)
        lanes.append(Lane(deep, tuple(Column(choices[n][k].w, ((n, k, choices[n][k].d),)) for n, k in inside)))
    return Parted(p.drawer, p.inside, Partition(tuple(lanes), (), found.used, p.plan.bound), p.turned, p.corner)


def _rank(answer: tuple[list[Parted], list[Lot]]) -> tuple[int, float]:
    """Less is better: pieces without a place, then what is taken of the floors."""
    plans, left = answer
    return sum(lot.count for lot in left), sum(p.share for p in plans)


def _fitting(
    named: str, strip: int, family: Dividers, candidate: Candidate, plans: Sequence[Parted | Free], left: Sequence[Lot]
) -> Fitting:
    school: School = "fewest" if named == "fewest" else "grow" if named == "grow" else "even"
    cells = tuple((p.drawer, tuple(p.cells(strip, school))) for p in plans)
    used, bound = sum(p.used for p in plans), sum(p.bound for p in plans)
    return Fitting(named, family, candidate, cells, tuple(left), used, bound, BETWEEN)
