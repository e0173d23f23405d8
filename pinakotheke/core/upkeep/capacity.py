"""How full places are: those of a design by its own compartments, others by the most that they are known to have held."""

from collections import Counter, defaultdict
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from math import ceil, inf

from ..inventory import Thing
from ..inventory.containers import Container, in_one
from ..inventory.kinds import Way
from ..inventory.needs import ways
from ..layout import Assignment, Design
from ..layout.models import fresh_ids
from ..layout.packing.fits import ask, misfit
from ..layout.report.ledger import ask_of, capacity
from ..systems import Part
from .places import Place

Contents = Mapping[str, int]
"""Pieces by thing."""
CUSTOM_MM = 200.0
"""Side of a thing of which nobody knows the size, mm."""


def litres(thing: Thing) -> float:
    """The room of one piece, litres, by its outside."""
    w, d, h = thing.size or thing.row.size or (CUSTOM_MM,) * 3
    return w * d * h / 1e6


@dataclass(frozen=True)
class Rooms:
    """Places with what they take: `designs` by space, the one that was moved into; `most` the litres that a place which
    nobody measured is known to have held.
    """

    places: Mapping[str, Place]
    designs: Mapping[str, Design]
    things: Mapping[str, Thing]
    most: Mapping[str, float]

    def part(self, place: str) -> tuple[Design, Part] | None:
        """The part of the design that a place is; None where it is none, or is there no longer."""
        at = self.places[place]
        design = self.designs.get(at.space)
        if design is None or not at.part:
            return None
        found = next((p for p in design.parts if p.id == at.part and p.bay is not None), None)
        return None if found is None else (design, found)

    def full(self, place: str, contents: Contents) -> float:
        """Which share of a place its contents take, by room or by weight, whichever is more: above 1 they do not go in;
        infinite where one of them goes in in no way.
        """
        found = self.part(place)
        if found is None:
            asked = sum(litres(self.things[t]) * n for t, n in contents.items())
            return asked / self.most[place] if self.most.get(place) else (inf if asked else 0.0)
        design, part = found
        box = design.box(self.places[place].box) if self.places[place].box else None
        if box is not None:
            return self._box(design, part, box, contents)
        if not contents:
            return 0.0
        family, bay = design.family_of(part), design.bay_of(part)
        boxes = [ask_of(design, part, a, dict(self.things)) for a in design.held_by(part.id)
                 if a.container and a.thing in self.things]  # fmt: skip
        amount, mass = sum(b.amount for b in boxes), sum(b.mass for b in boxes)
        for key, count in contents.items():
            thing = self.things[key]
            so = kept_at(design, part, thing)
            if so is None:
                return inf
            one = ask(thing, so[0], part.role, family, bay, design.rules, count, turned=so[1])
            amount, mass = amount + one.amount, mass + one.mass
        room, rating = capacity(design, part), family.rating(part, bay)
        return max(amount / room if room else inf, mass / rating if rating else 0.0)

    def _box(self, design: Design, part: Part, box: Container, contents: Contents) -> float:
        """Boxes of one kind in a part: as many as the design put there."""
        given = [(a.count, in_one(self.things[a.thing], box)) for a in design.held_by(part.id)
                 if a.container == box.id and a.thing in self.things]  # fmt: skip
        boxes = sum(ceil(count / each) for count, each in given if each)
        share = 0.0
        for key, count in contents.items():
            each = in_one(self.things[key], box)
            if not each:
                return inf
            share += count / each
        return share / max(boxes, 1)

    def kept_so(self, space: str, contents: Mapping[str, Contents]) -> Design:
        """The design of a space with what its places hold instead of what it gave them, in whichever way it goes in."""
        design = self.designs[space]
        ids, rows = fresh_ids(), []
        for place, held in contents.items():
            found = self.part(place) if self.places[place].space == space else None
            if found is None:
                continue
            part, box = found[1], self.places[place].box
            for key, count in held.items():
                so = None if box else kept_at(design, part, self.things[key])
                way, turned = so or ("box" if box else ways(self.things[key], design.rules)[0], False)
                rows.append(Assignment(id=next(ids), thing=key, part=part.id, way=way, count=count, turned=turned,
                                       container=box))  # fmt: skip
        return design.model_copy(update={"assignments": tuple(rows), "unplaced": ()})


def kept_at(design: Design, part: Part, thing: Thing) -> tuple[Way, bool] | None:
    """How a thing is kept in a part, and whether turned: as the design has it there, else the first way in which it goes
    in; None where it does not.
    """
    own = next(((a.way, a.turned) for a in design.held_by(part.id) if a.thing == thing.id and not a.container), None)
    if own is not None:
        return own
    family, bay = design.family_of(part), design.bay_of(part)
    for way in ways(thing, design.rules):
        if misfit(thing, way, part.role, ask(thing, way, part.role, family, bay, design.rules, 1), family, bay) is None:
            return way, False
    return None


def known_most(contents: Iterable[Mapping[str, Contents]], things: Mapping[str, Thing]) -> dict[str, float]:
    """Litres that each place is known to have held: the most of several states of the house."""
    most: dict[str, float] = defaultdict(float)
    for state in contents:
        for place, held in state.items():
            most[place] = max(most[place], sum(litres(things[t]) * n for t, n in held.items()))
    return dict(most)


def without_none(held: Mapping[str, Counter[str]]) -> dict[str, dict[str, int]]:
    """Contents without places that hold nothing and things of which there are none."""
    found = {place: {t: n for t, n in sorted(one.items()) if n > 0} for place, one in held.items()}
    return {place: one for place, one in sorted(found.items()) if one}
