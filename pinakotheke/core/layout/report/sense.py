"""Sense: what a practitioner sees in a design at a glance, measured. One module for the search, the gallery and the checks.

Every measure is *common practice*; its wanted value stands in `tables/sense.toml`. Lengths in mm, shares from 0 to 1.
"""

from collections import defaultdict
from collections.abc import Iterator
from math import ceil
from typing import Any, Literal, get_args

from ...base import Frozen
from ...house import Person
from ...inventory import Thing, uses_a_month
from ...inventory.needs import ways
from ...systems import FRONTS, HANGING, HOLDERS, Bay, Part
from ...systems.roles import EMPTY_IS
from ...tables import load
from ..models import Design
from ..packing.trouble import hand_height, zone_of
from .ledger import ask_of, capacity, ledger

Measure = Literal[
    "hung", "together", "owners", "clean", "lines", "systems", "slivers", "empties", "reach", "placed", "spare",
]  # fmt: skip
MEASURES: tuple[Measure, ...] = get_args(Measure)
CLOTHES = frozenset({"clothing", "linen", "accessories"})


class Sense(Frozen):
    """All measures of one design."""

    hung: float
    together: float
    owners: float
    clean: int
    lines: float
    systems: int
    slivers: int
    empties: int
    reach: int
    placed: float
    spare: float

    def short(self) -> tuple[Measure, ...]:
        """The measures that miss their wanted value."""
        return tuple(m for m in MEASURES if not holds(m, getattr(self, m)))


def holds(measure: Measure, value: float) -> bool:
    """Whether a measure is at its wanted value."""
    wanted = load("sense")[measure]
    return bool(value >= wanted.get("least", value) - 1e-9 and value <= wanted.get("most", value) + 1e-9)


def sense(design: Design, things: tuple[Thing, ...], people: tuple[Person, ...]) -> Sense:
    """The measures of a design that holds `things` of `people`."""
    seen = Seen(design, things, people)
    return Sense(
        hung=seen.hung(), together=seen.together(), owners=seen.owners(), clean=seen.clean(), lines=seen.lines(),
        systems=seen.systems(), slivers=seen.slivers(), empties=seen.empties(), reach=seen.reach(),
        placed=seen.placed(), spare=seen.spare(),
    )  # fmt: skip


class Seen:
    """A design with what lies where: each measure by itself."""

    def __init__(self, design: Design, things: tuple[Thing, ...], people: tuple[Person, ...]) -> None:
        self.design, self.people = design, people
        self.things = {t.id: t for t in things if t.stays}
        self.numbers: dict[str, Any] = load("sense")
        self.holders = [p for p in design.parts if p.role in HOLDERS and p.bay is not None]
        self.held: dict[str, list[Thing]] = defaultdict(list)
        for a in design.assignments:
            if a.thing in self.things:
                self.held[a.part].append(self.things[a.thing])
        self.inside: dict[int, list[Part]] = defaultdict(list)
        for part in self.holders:
            self.inside[part.bay or 0].append(part)

    def wanted(self) -> dict[str, int]:
        """Pieces that the house hangs, by group."""
        return {t.id: t.count for t in self.things.values() if ways(t, self.design.rules)[0] == "hang"}

    def laid_away(self) -> int:
        """Pieces that the house hangs, and that lie somewhere."""
        wanted = self.wanted()
        return sum(a.count for a in self.design.assignments if a.thing in wanted and a.way != "hang")

    def hung(self) -> float:
        """Pieces on a rail ÷ pieces that the house hangs."""
        wanted = self.wanted()
        got = sum(a.count for a in self.design.assignments if a.thing in wanted and a.way == "hang")
        return got / sum(wanted.values()) if wanted else 1.0

    def together(self) -> float:
        """1 − extra compartments beyond the fewest that a group needs ÷ groups. The fewest by the largest of the
        compartments it lies in.
        """
        extra, parts = 0, {p.id: p for p in self.holders}
        rows = defaultdict(list)
        for a in self.design.assignments:
            if a.thing in self.things and a.part in parts:
                rows[a.thing].append(a)
        for held in rows.values():
            places, largest = {a.part for a in held}, max(held, key=lambda a: capacity(self.design, parts[a.part]))
            whole = largest.model_copy(update={"count": sum(a.count for a in held)})
            asked = ask_of(self.design, parts[largest.part], whole, self.things).amount
            room = capacity(self.design, parts[largest.part])
            extra += max(0, len(places) - max(1, ceil(asked / room - 1e-6)))
        return 1 - extra / len(rows) if rows else 1.0

    def owners(self) -> float:
        """Compartments shared by two owners ÷ compartments that hold something."""
        full = [p for p in self.holders if self.held[p.id]]
        shared = sum(len({t.owner for t in self.held[p.id] if t.owner}) > 1 for p in full)
        return shared / len(full) if full else 0.0

    def clean(self) -> int:
        """Compartments where shoes lie with clothes, or over clothes in their bay."""
        dirty = 0
        for parts in self.inside.values():
            lowest = min((p.z for p in parts if any(t.row.group in CLOTHES for t in self.held[p.id])), default=None)
            if lowest is not None:
                dirty += sum(p.z >= lowest for p in parts if any(t.row.group == "shoes" for t in self.held[p.id]))
        return dirty

    def lines(self) -> float:
        """Heights shared with a neighbouring bay ÷ those that could be: of each pair, as many as the one with fewer has."""
        rows = list(self._lines())
        could = sum(could for could, _ in rows)
        return min(1.0, sum(len(shared) for _, shared in rows) / could) if could else 1.0

    def in_line(self) -> frozenset[str]:
        """Ids of the parts whose height runs on in a bay beside theirs."""
        return frozenset(part.id for _, shared in self._lines() for pair in shared for part in pair)

    def _lines(self) -> Iterator[tuple[int, list[tuple[Part, Part]]]]:
        """Of each two neighbours how many heights they could share, and the parts that do."""
        for one, other in self._neighbours():
            mine, theirs = (
                sorted((p for p in self.inside[b.index] if p.role not in HANGING and p.role != "floor"),
                       key=lambda p: p.z + p.h)
                for b in (one, other)
            )  # fmt: skip
            within, could = self.numbers["pitches"] * max(one.pitch, other.pitch), min(len(mine), len(theirs))
            free, shared = list(theirs), []
            for part in mine:
                near = next((p for p in free if abs(p.z + p.h - part.z - part.h) <= within), None)
                if near is not None:
                    free.remove(near)
                    shared.append((part, near))
            yield could, shared

    def _neighbours(self) -> Iterator[tuple[Bay, Bay]]:
        upright = [b for b in self.design.bays if b.drawer is None]
        for one in upright:
            for other in upright:
                gap = other.x - (one.x + one.w)
                low, high = max(one.z0, other.z0), min(one.z1, other.z1)
                if one.section == other.section and 0 <= gap <= self.numbers["beside"] and low < high:
                    yield one, other

    def systems(self) -> int:
        """Main families on the wall that has most: companions, what hangs over and what rolls are none."""
        mains: dict[str, set[str]] = defaultdict(set)
        for bay in self.design.bays:
            family = self.design.family_of(bay)
            if not (family.companion or family.hangs_over or family.lies_on or bay.loose or family.on_what_is_there):
                mains[bay.section].add(family.id)
        return max(map(len, mains.values()), default=0)

    def slivers(self) -> int:
        """Bays narrower than anything in them asks for, as far as something is built in them."""
        built = {p.bay for p in self.design.parts if p.bay is not None and p.role != "floor"}
        return sum(
            bay.w < self.numbers["sliver"] and bay.index in built
            and not any(t.row.long or t.row.upright for p in self.inside[bay.index] for t in self.held[p.id])
            for bay in self.design.bays if bay.drawer is None
        )  # fmt: skip

    def empties(self) -> int:
        """Compartments built for nothing: drawers and hanging places without a thing, shelves beyond the first free
        one of a bay.
        """
        found = 0
        for parts in self.inside.values():
            # What is left free of a drawer's floor is no compartment too many.
            empty = [p for p in parts if not self.held[p.id] and p.role in EMPTY_IS and p.role != "compartment"]
            shelves = sum(p.role not in HANGING and p.role not in FRONTS for p in empty)
            found += len(empty) - shelves + max(0, shelves - 1)
        return found

    def reach(self) -> int:
        """Groups used weekly or more with a piece outside the reach of whoever takes it out."""
        out = set()
        for part in self.holders:
            bay = self.design.bay_of(part)
            if bay.drawer is not None:
                continue
            hand = hand_height(part.role, part.z, part.h, bay)
            for thing in self.held[part.id]:
                zone = zone_of(thing, self.people, part.role, bay, self.design.family_of(part))
                often = uses_a_month(thing.frequency) >= uses_a_month("weekly")
                if often and not zone.low <= hand <= zone.high:
                    out.add(thing.id)
        return len(out)

    def placed(self) -> float:
        """Pieces with a place ÷ pieces."""
        pieces = sum(t.count for t in self.things.values())
        return sum(a.count for a in self.design.assignments if a.thing in self.things) / pieces if pieces else 1.0

    def spare(self) -> float:
        """Least free share of the kinds of storage that are asked for."""
        lines = ledger(tuple(self.things.values()), self.design.rules, self.design).lines
        return min(((line.spare or 0) / line.given for line in lines if line.given and line.asked), default=0.0)
