"""What is to be said for a finished design, in the points by which a search weighs it: so that what a person cares for
can be held against designs that are there already.
"""

from collections.abc import Mapping

from ...base import Frozen
from ...house import Person
from ...inventory import Thing
from ...survey import Survey
from ...systems import HOLDERS
from ...tables import load, value
from ..models import Design, Weights
from ..packing.fits import ask
from ..packing.task import sockets_of
from ..packing.trouble import trouble
from .costing import cost_of
from .sense import Seen


class Merits(Frozen):
    """Points against a design for every unit of weight, by what a person may care for; less is better."""

    money: float
    room: float
    reach: float
    parts: float
    hours: float
    reuse: float
    order: float

    def under(self, weights: Weights) -> float:
        """All points against it under some weights."""
        return sum(float(getattr(weights, name)) * float(getattr(self, name)) for name in Merits.model_fields)


def merits(
    design: Design, hours: float, things: tuple[Thing, ...], people: tuple[Person, ...], survey: Survey
) -> Merits:
    """The merits of a design at the rates of exchange of a search (`Scale`): at weight 5 a unit of money is a point.
    `hours` are those that it takes to put up.
    """
    by_id = {t.id: t for t in things}
    front = sum(bay.w * (bay.z1 - bay.z0) for bay in design.bays) / 1e4
    boxes = {a.container for a in design.assignments if a.container and (b := design.box(a.container)) and b.at_hand}
    return Merits(
        money=float(cost_of(design).total) / 5,
        room=-room_of(design, by_id) * front / 10,
        reach=reach_of(design, things, people, survey) / 2,
        parts=len(design.parts) / 5 * value("design.part_points"),
        hours=hours / 5 * value("design.hour_points"),
        reuse=-float(len(boxes)),
        order=disorder_of(design, things, people) / 5,
    )  # fmt: skip


def disorder_of(design: Design, things: tuple[Thing, ...], people: tuple[Person, ...]) -> float:
    """Points for what a practitioner would mind at a glance: the measures of sense, at the points of the search."""
    seen, points = Seen(design, things, people), load("sense")["points"]
    groups, compartments = len(seen.things), len(seen.holders)
    return float(
        (1 - seen.together()) * groups * points["split"] + seen.owners() * compartments * points["owners"]
        + (1 - seen.lines()) * compartments * points["lines"] + seen.empties() * points["empty"]
        + (seen.systems() - 1) * points["uneven"] + seen.clean() * points["apart"]
    )  # fmt: skip


def room_of(design: Design, things: Mapping[str, Thing]) -> float:
    """Share of everything the design can hold that is still empty: each holding part's free share, by its front."""
    free = whole = 0.0
    for part in design.parts:
        if part.role not in HOLDERS or part.role == "floor":
            continue
        bay, family = design.bay_of(part), design.family_of(part)
        capacity = family.capacity(part.role, bay)
        taken = 0.0
        for a in design.held_by(part.id):
            if a.thing in things:
                box = design.box(a.container) if a.container else None
                taken += ask(things[a.thing], a.way, part.role, family, bay, design.rules, a.count, turned=a.turned,
                             container=box).amount  # fmt: skip
        whole += bay.w
        free += bay.w * max(0.0, 1 - taken / capacity) if capacity else 0.0
    return free / whole if whole else 0.0


def reach_of(design: Design, things: tuple[Thing, ...], people: tuple[Person, ...], survey: Survey) -> float:
    """All trouble of taking things out, in points."""
    by_id, sockets = {t.id: t for t in things}, sockets_of(survey)
    total = 0.0
    for a in design.assignments:
        thing = by_id.get(a.thing)
        if thing is not None:
            part = design.part(a.part)
            bay, at = design.bay_of(part), part.z
            if part.role == "compartment":  # where it lies in its drawer
                bay, at = design.bays[part.bay or 0], part.y + part.d
            total += trouble(thing, part.role, at, part.h, bay, design.family_of(bay), people, sockets)
    return total
