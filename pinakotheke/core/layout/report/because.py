"""Why a part stands where it does and holds what it holds: the rules of sense and of safety that bear on it, in their
order. Nothing of the search is asked: what is said holds of the design as it stands, also when it was bent by hand.
"""

from collections import defaultdict
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Any

from ...house import Person
from ...inventory import Thing, uses_a_month
from ...inventory.needs import STORAGE_OF, layers, rows_deep, ways
from ...systems import HANGING, Part
from ...systems.roles import REACHED_OVER
from ...tables import value
from ..models import Assignment, Design
from ..packing.limits import Limits
from ..packing.trouble import hand_height, zone_of
from .ledger import ask_of, capacity
from .sense import Seen


@dataclass(frozen=True)
class Because:
    """One reason: its row in `tables/because.toml` and what is put into the sentence; lengths in mm, masses in kg."""

    rule: str
    facts: dict[str, Any]


class Reasons:
    """The reasons of every part of one design."""

    def __init__(self, design: Design, things: tuple[Thing, ...], people: tuple[Person, ...], limits: Limits) -> None:
        self.design, self.people, self.limits = design, people, limits
        self.things = {t.id: t for t in things if t.stays}
        self.names = {p.id: p.name for p in people}
        self.seen = Seen(design, things, people)
        self.places: dict[str, set[str]] = defaultdict(set)
        for a in design.assignments:
            self.places[a.thing].add(a.part)
        self.in_line = self.seen.in_line()

    def of(self, part: Part) -> tuple[Because, ...]:
        """All that bears on a part, what must be before what is well."""
        held = [a for a in self.design.held_by(part.id) if a.thing in self.things]
        return tuple(self._all(part, held))

    def _all(self, part: Part, held: list[Assignment]) -> Iterator[Because]:
        if part.locked or (part.bay is not None and self.design.bays[part.bay].locked):
            yield Because("locked", {})
        if part.bay is None:
            return
        if not held:
            if part.role != "floor":
                yield Because("empty", {})
            return
        yield from self._must(part, held)
        yield from self._kept(part, held)
        yield from self._height(part, held)
        yield from self._together(part, held)
        yield from self._size(part, held)

    def _must(self, part: Part, held: list[Assignment]) -> Iterator[Because]:
        """What never may be otherwise."""
        bay, family = self.design.bay_of(part), self.design.family_of(part)
        found: dict[tuple[str, float], list[Thing]] = defaultdict(list)
        for a in held:
            thing = self.things[a.thing]
            for bound in self.limits.bounds(thing, part.role, bay, family, ask_of(self.design, part, a, self.things)):
                if bound.why in ("gas", "hazard", "heavy"):
                    found[bound.why, bound.low if bound.why == "hazard" else bound.high].append(thing)
        for (why, at), things in found.items():
            kept = {h for t in things for h in t.hazards}
            person = next((p.name for p in self.people if set(p.never_reaches) & kept), "")
            yield Because(why, {"things": _names(things), "person": person, "low": at, "high": at,
                                "mass": max(t.piece_mass for t in things)})  # fmt: skip

    def _kept(self, part: Part, held: list[Assignment]) -> Iterator[Because]:
        """The way in which things are kept: on a rail, on the floor, or not in the way that is best."""
        rules = self.design.rules
        by_way: dict[tuple[str, str], list[Thing]] = defaultdict(list)
        for a in held:
            by_way[ways(self.things[a.thing], rules)[0], a.way].append(self.things[a.thing])
        for (first, way), things in by_way.items():
            if way == "hang" == first:
                yield Because("hangs", {"things": _names(things)})
            elif STORAGE_OF[way] != STORAGE_OF[first] and {way, first} != {"box", "shelf"}:  # type: ignore[index]
                yield Because("second", {"things": _names(things), "first": KEPT[first],
                                         "way": KEPT["floor" if part.role == "floor" else way]})  # fmt: skip
        floored = [
            self.things[a.thing] for a in held if part.role == "floor" and "floor" in self.things[a.thing].row.ways
        ]
        if floored:
            number = len(floored) if len(floored) > 1 else floored[0].count
            yield Because("floor", {"things": _names(floored), "number": number})
        if any(self.things[a.thing].row.group == "shoes" for a in held):
            yield Because("shoes", {})
        owners = {self.things[a.thing].owner for a in held}
        below = [p for p in self.seen.inside[part.bay or 0] if p.role == "rail" and p.z < part.z]
        mine = {t.owner for p in below for t in self.seen.held[p.id]}
        if part.role == "rail" and below and len(owners) == 1 and owners == mine and "" not in owners:
            yield Because("double", {"person": self.names.get(owners.pop(), "")})

    def _height(self, part: Part, held: list[Assignment]) -> Iterator[Because]:
        """Height follows use."""
        bay, family = self.design.bay_of(part), self.design.family_of(part)
        if bay.drawer is not None:
            return
        if family.lies_on:
            yield Because("top", {})
            return
        hand = hand_height(part.role, part.z, part.h, bay)
        rows: dict[tuple[str, str, float, float], list[Thing]] = defaultdict(list)
        for a in held:
            thing = self.things[a.thing]
            if part.role == "floor" and "floor" in thing.row.ways:
                continue  # it stands there by its nature
            zone = zone_of(thing, self.people, part.role, bay, family)
            if uses_a_month(thing.frequency) >= uses_a_month("weekly"):
                if zone.easy_low <= hand <= zone.easy_high:
                    rows["often", thing.frequency, zone.easy_low, zone.easy_high].append(thing)
                elif zone.easy_high < hand <= zone.high:
                    rows["within", thing.frequency, zone.low, zone.high].append(thing)
                elif zone.low <= hand < zone.easy_low:
                    rows["low", thing.frequency, zone.low, zone.high].append(thing)
            elif hand > zone.easy_high and thing.piece_mass < value("design.heavy"):
                rows["seldom", thing.frequency, 0, 0].append(thing)
        for (rule, often, low, high), things in rows.items():
            yield Because(rule, {"things": _names(things), "often": often, "hand": hand, "low": low, "high": high})

    def _together(self, part: Part, held: list[Assignment]) -> Iterator[Because]:
        """Like with like, each to their own, lines that run through."""
        whole = [self.things[a.thing] for a in held
                 if len(self.places[a.thing]) == 1 and self.things[a.thing].count > 1]  # fmt: skip
        if whole:
            yield Because("whole", {"things": _names(whole), "number": 2})
        owners = {t.owner for p in self.seen.inside[part.bay or 0] for t in self.seen.held[p.id]}
        if len(self.people) > 1 and len(owners) == 1 and owners & set(self.names):
            yield Because("owner", {"person": self.names[owners.pop()]})
        if part.id in self.in_line:
            yield Because("level", {})

    def _size(self, part: Part, held: list[Assignment]) -> Iterator[Because]:
        """How deep it is and how full: rows, stacks, the depth of a board, what is free."""
        asks = [(self.things[a.thing], ask_of(self.design, part, a, self.things), a) for a in held]
        room = self.design.family_of(part).clear_depth(part.role, self.design.bay_of(part))
        for thing, asked, a in asks:
            size = thing.size or thing.row.size
            if size is None or part.role in HANGING:
                continue
            if part.role in REACHED_OVER and not a.container and (deep := self._rows(thing, a, room)) > 1:
                yield Because("rows", {"things": [thing.name], "deep": deep})
            high = min(layers(thing, self.design.rules), a.count) if a.way == "box" and not a.container else 1
            if high > 1 and asked.clear >= high * size[2]:
                yield Because("stacked", {"things": [thing.name], "high": high})
        load = sum(asked.mass for _, asked, _ in asks)
        bears = self.design.family_of(part).rating(part, self.design.bay_of(part))
        if part.role != "floor" and 0 < load <= bears < FLOOR_BEARS:
            yield Because("load", {"mass": load, "rating": bears})
        if part.role == "shelf":
            yield from self._depth(part, max(asked.depth for _, asked, _ in asks), sum(x.mass for _, x, _ in asks))
        given = capacity(self.design, part)
        taken = sum(asked.amount for _, asked, _ in asks)
        if given > 0 and taken <= given + 1:
            yield Because("free", {"share": f"{100 * taken / given:.0f}"})

    def _depth(self, part: Part, reach: float, mass: float) -> Iterator[Because]:
        """Why a board that can be cut is as deep as it is."""
        bay, family = self.design.bay_of(part), self.design.family_of(part)
        depths = family.board_depths(bay)
        if not depths:
            return
        over = [p.d for p in self.seen.inside[bay.index] if p.role == "shelf" and p.z > part.z]
        less = max((d for d in depths if d < part.d), default=0)
        if less < reach + family.spec("shelf").back:
            yield Because("deep", {"deep": part.d, "asked": reach})
        elif part.d in over:
            yield Because("deep_below", {"deep": part.d})
        elif family.rating(board := part.model_copy(update={"d": less}), bay.under(board)) < mass:
            yield Because("bears", {"deep": part.d, "mass": mass})

    def _rows(self, thing: Thing, a: Assignment, room: float) -> int:
        size = thing.size or thing.row.size or (1, 1, 1)
        deep = rows_deep(thing, a.way, size[0] if a.turned else size[1], room)
        return min(deep, a.count)


FLOOR_BEARS = 500
"""What is rated for more than this, kg, is as good as the floor: nothing is said of it."""
KEPT = {
    "hang": "on a rail", "shelf": "on a shelf", "drawer": "in a drawer", "shoe": "on a shoe shelf", "box": "on a shelf",
    "hook": "on a hook", "floor": "on the floor", "overhead": "overhead",
}  # fmt: skip
"""A way of keeping within a sentence."""


def _names(things: Iterable[Thing]) -> list[str]:
    return list(dict.fromkeys(t.name for t in things))
