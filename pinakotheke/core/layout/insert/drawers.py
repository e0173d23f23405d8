"""The drawers of a space as an insert sees them: a floor, a clear height, a corner that is closed, and how far it is
reached into.
"""

from dataclasses import dataclass, replace

from ...survey.drawers import drawer_sizes
from ...systems import Family
from ..packing.task import Task
from ..placement.candidates import Candidate, stand
from ..placement.fills import fills_of
from .skyline import Spot

LEAST = 20
"""A compartment is no smaller, mm."""


@dataclass(frozen=True, slots=True)
class Drawer:
    """One drawer: the bay it makes, its floor, its clear height and reachable depth, mm, and its turn from the top;
    `rating` is what one compartment carries, kg.
    `corner` is what is closed at the back, at the right or (`mirrored`) at the left; what is closed elsewhere is off the
    floor altogether.
    """

    bay: int
    section: str
    floor: Spot
    clear: int
    reachable: int
    turn: int
    rating: float
    corner: Spot | None = None
    mirrored: bool = False

    @property
    def front(self) -> int:
        """Where its floor ends toward the hand, mm."""
        return self.floor.y + self.floor.d

    @property
    def shut(self) -> Spot | None:
        """What is closed of its floor, counted from the floor's own left, back corner."""
        if self.corner is None:
            return None
        return self.corner._replace(x=0 if self.mirrored else self.floor.w - self.corner.w, y=0)

    def around(self, box: Spot, strip: int) -> tuple["Drawer", ...]:
        """The floors around a rectangle that stays, a strip between: behind, before, left and right of it, cut so that
        one of them is as large as can be.
        """
        f = self.floor
        right, front = f.x + f.w, f.y + f.d
        beside = (
            Spot(f.x, f.y, box.x - strip - f.x, f.d),
            Spot(box.x + box.w + strip, f.y, right - box.x - box.w - strip, f.d),
            Spot(box.x, f.y, box.w, box.y - strip - f.y),
            Spot(box.x, box.y + box.d + strip, box.w, front - box.y - box.d - strip),
        )
        across = (
            Spot(f.x, f.y, f.w, box.y - strip - f.y),
            Spot(f.x, box.y + box.d + strip, f.w, front - box.y - box.d - strip),
            Spot(f.x, box.y, box.x - strip - f.x, box.d),
            Spot(box.x + box.w + strip, box.y, right - box.x - box.w - strip, box.d),
        )
        cut = max((beside, across), key=lambda some: max(max(s.w, 0) * max(s.d, 0) for s in some))
        return tuple(self._part(s) for s in cut if min(s.w, s.d) >= LEAST)

    def _part(self, floor: Spot) -> "Drawer":
        """The same drawer with a part of its floor; a closed corner is cut off it."""
        if self.shut is not None:
            shut = self.shut._replace(x=self.floor.x + self.shut.x, y=self.floor.y)
            floor = _without(floor, shut) if shut.meets(floor) else floor
        reachable = self.reachable - (self.front - floor.y - floor.d)
        return replace(self, floor=floor, reachable=max(0, min(reachable, floor.d)), corner=None)


def drawer_sections(task: Task) -> frozenset[str]:
    """The drawers of a space that can be fitted out."""
    return frozenset(s.id for s in task.survey.parts if s.kind == "drawer" and s.id in task.envelopes)


def stood(task: Task, family: Family) -> Candidate | None:
    """The drawers with one bay of a family in each; None where it suits none."""
    fills = [
        fill
        for s in task.survey.parts if s.id in task.envelopes
        for fill in fills_of(family, s, task.envelopes[s.id], task.finish, [])[:1]
    ]  # fmt: skip
    return stand(tuple(fills), task.envelopes, (), {}, task.finish) if fills else None


def drawers_of(task: Task, candidate: Candidate) -> tuple[Drawer, ...]:
    """The drawers of a candidate, from the top: as they are counted."""
    order = {s.id: n for n, s in enumerate(task.survey.parts)}
    found = []
    for bay in candidate.bays:
        floor = Spot(bay.x, bay.y, bay.w, bay.depth)
        corner, mirrored = None, False
        for c in task.envelopes[bay.section].closed:
            shut = Spot(c.x0, c.y0, c.x1 - c.x0, c.y1 - c.y0)
            if not shut.meets(floor):
                continue
            at_back, at_right, at_left = (
                shut.y <= floor.y, shut.x + shut.w >= floor.x + floor.w, shut.x <= floor.x,
            )  # fmt: skip
            if corner is None and at_back and (at_right or at_left):
                corner, mirrored = shut, at_left and not at_right
            else:
                floor = _without(floor, shut)
        if corner is not None and corner.meets(floor):
            across = corner.x + corner.w - floor.x if mirrored else floor.x + floor.w - corner.x
            corner = Spot(0, 0, across, corner.y + corner.d - floor.y)
        else:
            corner = None
        sizes = drawer_sizes(task.survey, bay.section)
        clear = bay.drawer.clear if bay.drawer else 0
        reachable = int(sizes.reachable) if sizes else floor.d
        found.append(
            Drawer(
                bay.index,
                bay.section,
                floor,
                clear,
                min(reachable, floor.d),
                order[bay.section],
                task.catalogue[bay.family].spec("compartment").rating,
                corner,
                mirrored,
            )
        )
    return tuple(sorted(found, key=lambda d: d.turn))


def _without(floor: Spot, shut: Spot) -> Spot:
    """The largest of the floors that are left beside, behind and before something closed."""
    right, front = floor.x + floor.w, floor.y + floor.d
    left = (
        Spot(floor.x, floor.y, shut.x - floor.x, floor.d),
        Spot(shut.x + shut.w, floor.y, right - shut.x - shut.w, floor.d),
        Spot(floor.x, floor.y, floor.w, shut.y - floor.y),
        Spot(floor.x, shut.y + shut.d, floor.w, front - shut.y - shut.d),
    )
    return max(left, key=lambda s: max(s.w, 0) * max(s.d, 0))
