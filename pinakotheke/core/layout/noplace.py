"""Why a thing has no place: the size, the mass or the rule that misses by least, of all the places that were looked at.

What is said of it stands in `tables/no_place.toml`, one sentence a reason, as a carpenter would say it.
"""

from collections.abc import Iterable, Iterator
from math import isfinite
from typing import get_args

from ..base import Frozen
from ..inventory import Thing
from ..inventory.kinds import Way
from ..inventory.needs import STORAGE_OF, Storage, posed, ways
from ..systems import HANGING, Bay, Family, Holder
from .fits import Ask, ask, front_for, misfit
from .limits import Why as Never
from .search.options import PITCHES, TURNABLE, feet, heights, kind_of_bay, size_of_bay
from .task import Household
from .trouble import hand_height

SAME_MM = 0.5
SIZES = ("high", "deep", "wide", "load")


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


def _how_far(miss: NoPlace) -> tuple[bool, float]:
    """What fits but is full before all, then what misses by the least share."""
    if miss.why in ("full", "all full"):
        return False, 0.0
    return True, miss.over / max(miss.limit, 1.0) if miss.why in SIZES else 1.0


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
    wrong = misfit(thing, way, role, a, family, bay)
    if wrong is not None:
        why = {"bay narrow": "wide", "bay depth": "deep"}.get(wrong.why, wrong.why)
        measured, limit = (wrong.limit, wrong.measured) if why != wrong.why else (wrong.measured, wrong.limit)
        return no("rail deep" if way == "hang" and why == "deep" else why, measured, limit)
    front = front_for(family, role, a)
    part = home.cache.component(family, role, bay, front)
    if part.capacity < a.amount:
        return no("wide", a.width or a.amount, part.capacity)
    if part.rating < a.mass:
        return no("load", a.mass, part.rating)
    units, below = heights(family, part.part, bay, a)
    lowest, highest = feet(family, role, bay, below)
    tall = (bay.highest - bay.z0) // bay.pitch if bay.highest else PITCHES
    last = min(highest, bay.pitches - units, tall - below)
    if last < lowest:
        own = _own_height(thing, way, a, turned)
        over = (units - (bay.pitches - lowest)) * bay.pitch if bay.drawer is None else a.height - bay.drawer.clear
        return no("drop" if role in HANGING else "high", own, a.clear - over, a.clear - own)
    for bound in home.limits.bounds(thing, role, bay, family, a):
        low, high = (
            hand_height(role, bay.z0 + (foot + below) * bay.pitch, part.part.h, bay) for foot in (lowest, last)
        )
        if bound.is_never and (high < bound.low - SAME_MM or low > bound.high + SAME_MM):
            limit = bound.low if high < bound.low else bound.high
            return no(bound.why, thing.piece_mass if bound.why == "heavy" else low, limit if isfinite(limit) else 0)
    more = ask(thing, way, role, family, bay, home.rules, count, turned=turned)
    return no("full", more.amount) if family.spec(role).capacity == "width" else no("all full")


def _own_height(thing: Thing, way: Way, a: Ask, turned: bool) -> float:
    if way == "hang":
        return float(thing.row.drop)
    return min(posed(thing, way, turned)[2], a.clear)


REASONS: tuple[str, ...] = ("high", "drop", "deep", "rail deep", "wide", "load", "slides", "way", "full", "all full",
                           *get_args(Never))  # fmt: skip
"""Every reason there is; `reach` stands against nothing."""
