"""Why a thing has no place: the size, the mass or the rule that misses by least, of all the places that were looked at.

What is said of it stands in `tables/no_place.toml`, one sentence a reason, as a carpenter would say it.
"""

from collections.abc import Iterable, Iterator, Sequence
from math import isfinite
from typing import get_args

from ...base import Frozen
from ...inventory import Thing
from ...inventory.kinds import Way
from ...inventory.needs import STORAGE_OF, Storage, posed, ways
from ...systems import HANGING, Bay, Family, Holder
from ..insert.chest import Lot
from ..insert.drawers import Drawer
from ..insert.fittings import placeable
from ..packing.fits import Ask, ask, front_for, misfit, overhang
from ..packing.limits import Why as Never
from ..packing.lying import over_height, poses
from ..packing.options import PITCHES, TURNABLE, feet, heights, kind_of_bay, size_of_bay
from ..packing.task import Compartment, Household, Task
from ..packing.trouble import hand_height

SAME, SAME_MM = 1e-6, 0.5
SIZES = ("high", "inside", "drop", "deep", "rail deep", "wide", "load")


class NoPlace(Frozen):
    """So many pieces without a place, and why (a row of `tables/no_place.toml`). `measured` is what they are or ask,
    `limit` what there is, `spare` what must stay free above: mm, kg, or mm of the storage they want.
    """

    thing: str
    count: int
    why: str
    measured: float = 0
    limit: float = 0
    spare: float = 0
    storage: Storage | None = None

    @property
    def over(self) -> float:
        """By how much it misses."""
        return self.measured + self.spare - self.limit


def why_no_place(thing: Thing, count: int, bays: Iterable[Bay], home: Household) -> NoPlace:
    """Why so many pieces of a thing have no place in any of these bays: what misses by least; `full` where one piece
    would have gone in.
    """
    kinds = {(kind_of_bay(b, home.sockets), size_of_bay(b), b.pitches, b.blocked): b for b in bays if not b.locked}
    found = [miss for bay in kinds.values() for miss in _misses(thing, count, bay, home)]
    if not found:
        return NoPlace(thing=thing.id, count=count, why="way")
    return min(found, key=_how_far)


def why_not_in_drawers(thing: Thing, count: int, drawers: Sequence[Drawer], task: Task) -> NoPlace:
    """Why so many pieces of a thing have no place in any of these drawers; `all full` where one would have gone in."""

    def no(why: str, measured: float = 0, limit: float = 0) -> NoPlace:
        return NoPlace(thing=thing.id, count=count, why=why, measured=measured, limit=limit, storage="drawers")

    if not placeable(task.but(things=(thing,), keep=None)):
        return no("gas" if "gas" in thing.hazards else "way")
    if any(Lot(thing, 1).shapes(d) for d in drawers):
        return no("all full")
    clear, rating = max(d.clear for d in drawers), max(d.rating for d in drawers)
    if thing.piece_mass > rating:
        return no("load", thing.piece_mass, rating)
    lying = poses(thing, clear)
    if not lying:
        return no("inside", over_height(thing), clear)
    widest = max(max(d.floor.w, d.floor.d) for d in drawers)
    longest = min(max(p.w, p.d) for p in lying)
    if longest > widest:
        return no("wide", longest, widest)
    return no("deep", min(min(p.w, p.d) for p in lying), max(min(d.floor.w, d.floor.d) for d in drawers))


def _how_far(miss: NoPlace) -> tuple[int, float]:
    """What fits but is full before all, then what only a rule forbids, then what misses by the least share of a size."""
    if miss.why in ("full", "all full"):
        return 0, 0.0
    if miss.why in get_args(Never):
        return 1, 0.0
    return (2, miss.over / max(miss.limit, 1.0)) if miss.why in SIZES else (3, 0.0)


def _misses(thing: Thing, count: int, bay: Bay, home: Household) -> Iterator[NoPlace]:
    """For every way a piece might be kept in a bay, what stands against it."""
    family = home.families.of(bay)
    wanted = ways(thing, home.rules)
    for way in wanted[:1] if wanted[0] == "hang" and not home.folds else wanted:
        for role, spec in family.specs.items():
            if (
                way not in spec.ways
                or (spec.kinds and thing.kind not in spec.kinds)
                or (role == "base" and not bay.has_base)
            ):
                continue
            for turned in (False, True) if way in TURNABLE else (False,):
                yield _miss(thing, count, way, role, family, bay, home, turned)


def _miss(thing: Thing, count: int, way: Way, role: Holder, family: Family, bay: Bay, home: Household, turned: bool,
          ) -> NoPlace:  # fmt: skip
    def no(why: str, measured: float = 0, limit: float = 0, spare: float = 0) -> NoPlace:
        return NoPlace(thing=thing.id, count=count, why=why, measured=measured, limit=limit, spare=spare,
                       storage=STORAGE_OF[way])  # fmt: skip

    a = ask(thing, way, role, family, bay, home.rules, 1, turned=turned)
    bounds = [b for b in home.limits.bounds(thing, role, bay, family, a) if b.is_never]
    if any(b.low > b.high for b in bounds):
        return no("gas")
    part = home.cache.component(family, role, bay, front_for(family, role, a))
    units, below = heights(family, part.part, bay, a)
    lowest, highest = feet(family, role, bay, below)
    tall = (bay.highest - bay.z0) // bay.pitch if bay.highest else PITCHES
    last = min(highest, bay.pitches - units, tall - below)
    sizes = list(_sizes(thing, way, role, a, family, bay, turned, part, (lowest + units - bay.pitches) * bay.pitch))
    over = [(measured + spare - limit) / max(limit, 1.0) for _, measured, limit, spare in sizes]
    if over and max(over) > SAME:
        return no(*sizes[over.index(max(over))])
    wrong = misfit(thing, way, role, a, family, bay)
    if wrong is not None:
        return no(wrong.why if wrong.why == "slides" else "way")
    if last < lowest:
        return no("drop" if role in HANGING else "high", *_tall(thing, way, a, turned, (lowest - last) * bay.pitch))
    for bound in bounds:
        low, high = (
            hand_height(role, bay.z0 + (foot + below) * bay.pitch, part.part.h, bay) for foot in (lowest, last)
        )
        if high < bound.low - SAME_MM or low > bound.high + SAME_MM:
            limit = bound.low if high < bound.low else bound.high
            return no(bound.why, thing.piece_mass if bound.why == "heavy" else low, limit if isfinite(limit) else 0)
    more = ask(thing, way, role, family, bay, home.rules, count, turned=turned)
    return no("full", more.amount) if family.spec(role).capacity == "width" else no("all full")


def _sizes(thing: Thing, way: Way, role: Holder, a: Ask, family: Family, bay: Bay, turned: bool, part: Compartment,
           too_high: float) -> Iterator[tuple[str, float, float, float]]:  # fmt: skip
    """Of one piece in one compartment every size with what there is for it and what must stay free: reason, measured,
    limit, spare. `too_high` is by how much the bay is lower than the compartment asks, mm.
    """
    spec = family.spec(role)
    deep = max(family.clear_depth(role, bay) + overhang(way, role), 0)
    if way == "hang" and bay.depth < spec.least_depth:
        deep = min(deep, bay.depth)
    yield "rail deep" if way == "hang" else "deep", max(a.depth, spec.least_depth if way == "hang" else 0), deep, 0
    yield "wide", max(a.width, a.amount if spec.capacity == "width" else 0), family.clear_width(role, bay), 0
    if too_high > 0:
        yield "drop" if role in HANGING else "high", *_tall(thing, way, a, turned, too_high)
    if spec.fronts and a.clear > spec.fronts[-1] - spec.lost_height:
        yield "inside", a.clear, spec.fronts[-1] - spec.lost_height, 0
    yield "load", a.mass, part.rating, 0


def _tall(thing: Thing, way: Way, a: Ask, turned: bool, over: float) -> tuple[float, float, float]:
    """Its own height, what there is, and what must stay free above it, where it is so much too tall."""
    own = _own_height(thing, way, a, turned)
    return own, a.clear - over, a.clear - own


def _own_height(thing: Thing, way: Way, a: Ask, turned: bool) -> float:
    if way == "hang":
        return float(thing.row.drop)
    return min(posed(thing, way, turned)[2], a.clear)


REASONS: tuple[str, ...] = (*SIZES, "slides", "way", "full", "all full", *get_args(Never))
"""Every reason there is; `reach` stands against nothing."""
