"""Proof that a design stands: written apart from the search and using none of its code.

It takes only the placed parts, the assignments, the things and the envelopes, and works every clearance out again
from the family's own rules (`takes`, `capacity`, `rating`, `clear_width`) and from `fits`. Touching is allowed;
sharing volume is not.
"""

from collections import Counter, defaultdict
from collections.abc import Mapping
from itertools import combinations, pairwise
from typing import Literal

from shapely import Polygon

from ..base import Frozen
from ..inventory import Thing
from ..survey import ClosedRegion, Envelope, Survey
from ..survey.square import Frame, frames
from ..systems import HOLDERS, PULL_OUTS, Family, Part, family_of, is_known
from .fits import Ask, ask, misfit, position
from .models import Design

FaultCode = Literal[
    "unknown", "envelope", "closed", "overlap", "support", "pull-out", "capacity", "load", "size", "headroom", "count",
]  # fmt: skip
ROUNDING = 1e-6
CORNER_MM2 = 400.0
"""Parts of two runs may share this much of the plan: walls out of square are drawn to the millimetre."""
FIXED_TO_THE_HOUSE = frozenset({"wall", "floor", "ceiling", "drawer", "shelf", "frame left", "frame right"})


class Fault(Frozen):
    """One thing that is wrong with a design, where, and by how much (mm, mm², kg or pieces)."""

    code: FaultCode
    where: str
    measured: float
    limit: float
    detail: str


def verify(design: Design, envelopes: Mapping[str, Envelope], things: tuple[Thing, ...],
           survey: Survey | None = None) -> tuple[Fault, ...]:  # fmt: skip
    """Every fault of a design; an empty tuple is the proof that it fits. `envelopes` by section; with a survey of
    several runs, parts of two runs are held against each other in the plan as well.
    """
    unknown = [i for i in (*design.families, *(p.family for p in design.parts)) if not is_known(i)]
    if unknown:
        return (Fault(code="unknown", where=unknown[0], measured=0, limit=0, detail="no such family"),)
    absent = [s for s in design.sections if s not in envelopes]
    if absent:
        return (Fault(code="unknown", where=absent[0], measured=0, limit=0, detail="this wall was not measured"),)
    proof = _Proof(design, envelopes, {t.id: t for t in things})
    proof.envelope_holds()
    proof.nothing_overlaps()
    proof.everything_is_carried()
    proof.pull_outs_come_out()
    proof.compartments_hold()
    proof.all_counted()
    if survey is not None and len(design.sections) > 1:
        proof.runs_stay_apart(frames(survey))
    return tuple(proof.faults)


class _Proof:
    def __init__(self, design: Design, envelopes: Mapping[str, Envelope], things: dict[str, Thing]) -> None:
        self.design, self.envelopes, self.things = design, envelopes, things
        self.faults: list[Fault] = []
        self.parts = {p.id: p for p in design.parts}
        self.held = defaultdict(list)
        for a in design.assignments:
            self.held[a.part].append(a)
        if len(self.parts) != len(design.parts):
            self._fault("unknown", design.id, len(design.parts), len(self.parts), "two parts share an id")

    def _fault(self, code: FaultCode, where: str, measured: float, limit: float, detail: str) -> None:
        self.faults.append(Fault(code=code, where=where, measured=measured, limit=limit, detail=detail))

    # -- geometry --

    def envelope_holds(self) -> None:
        """Every part inside the clear region and out of every closed one, but for what is cut out of it."""
        for part in self.design.parts:
            e = self.envelopes.get(part.section)
            if e is None:
                self._fault("unknown", part.id, 0, 0, "stands at no wall of this space")
                continue
            if part.role == "container" or (part.role == "base" and family_of(part).on_what_is_there):
                continue
            x0, x1 = e.span(part.z, part.z + part.h)
            if part.role == "filler":
                x0, x1 = 0, int(e.clear_width(part.z, part.z + part.h))
            for detail, measured, limit, bad in (
                ("stands left of the clear width", part.x, x0, part.x < x0),
                ("stands right of the clear width", part.x + part.w, x1, part.x + part.w > x1),
                ("stands behind the skirting", part.y, e.y_from, part.y < e.y_from),
                ("stands out of the space", part.y + part.d, e.y_to, part.y + part.d > e.y_to),
                ("goes under the floor", part.z, 0, part.z < 0),
                ("goes through the ceiling", part.z + part.h, e.z_to, part.z + part.h > e.z_to),
            ):
                if bad:
                    self._fault("envelope", part.id, measured, limit, detail)
            bay = self.design.bays[part.bay] if part.bay is not None and part.bay < len(self.design.bays) else None
            loose = part.role == "floor" or (bay is not None and bay.loose)
            for c in e.closed:
                if (loose and c.loose) or _stands_round(part, c):
                    continue
                if c.meets(part.x, part.x + part.w, part.y, part.y + part.d, part.z, part.z + part.h) and not _cut_out(
                    part, c.x0, c.x1, c.y0, c.y1
                ):
                    self._fault("closed", part.id, 0, 0, c.why)

    def nothing_overlaps(self) -> None:
        """No two parts share volume, but for what stands inside its own frame."""
        by_section: dict[str, list[Part]] = defaultdict(list)
        for part in self.design.parts:
            by_section[part.section].append(part)
        for parts in by_section.values():
            for a, b in combinations(parts, 2):
                if a.overlaps(b) and not self._inside(a, b) and not self._inside(b, a) and not _cuts(a, b):
                    self._fault("overlap", a.id, 0, 0, f"shares volume with {b.id}")

    def _inside(self, outer: Part, inner: Part) -> bool:
        """Whether `inner` stands within the boards of the frame or trolley `outer` of its own bay."""
        if outer.role not in ("frame", "trolley") or inner.bay != outer.bay or inner.role in ("frame", "trolley"):
            return False
        board = family_of(outer).table["board"]
        return (
            outer.x + board <= inner.x and inner.x + inner.w <= outer.x + outer.w - board
            and outer.y <= inner.y and inner.y + inner.d <= outer.y + outer.d
            and outer.z <= inner.z and inner.z + inner.h <= outer.z + outer.h
        )  # fmt: skip

    def everything_is_carried(self) -> None:
        """Every part is fixed to something that is there and reaches its height; wide parts meet both sides."""
        for part in self.design.parts:
            if part.role == "floor" and part.z > 0:
                self._fault("support", part.id, part.z, 0, "is no floor: nothing is below it")
            if part.fixed_to in FIXED_TO_THE_HOUSE:
                if part.role in HOLDERS and not self._meets(part):
                    self._fault("support", part.id, part.x, part.x + part.w, "does not reach from side to side")
                continue
            carrier = self.parts.get(part.fixed_to)
            if carrier is None or carrier.section != part.section:
                self._fault("support", part.id, 0, 0, f"{part.fixed_to or 'nothing'} does not carry it")
            elif part.role not in ("standard", "door", "curtain", "fascia", "container") and not (
                carrier.z <= part.z <= carrier.z + carrier.h
            ):
                self._fault("support", part.id, part.z, carrier.z + carrier.h, f"out of reach of {carrier.id}")
            if (part.role in HOLDERS or part.role == "cover") and not self._meets(part):
                self._fault("support", part.id, part.x, part.x + part.w, "does not reach from side to side of its bay")

    def _meets(self, part: Part) -> bool:
        if part.bay is None or part.bay >= len(self.design.bays):
            return False
        bay = self.design.bays[part.bay]
        return family_of(part).meets_sides(part, bay) and self._between_carriers(part)

    def _between_carriers(self, part: Part) -> bool:
        """Whether what stands at both sides of a part is really there: frames, standards, posts, gables or a wall."""
        family = family_of(part)
        kinds = {"frame", "trolley", "standard", "post", "panel", "hanger"}
        sides = [
            p for p in self.design.parts if p.section == part.section and p.role in kinds and p.family == family.id
        ]
        if not sides or part.fixed_to in FIXED_TO_THE_HOUSE:
            return True
        own = [p for p in sides if p.role in ("frame", "trolley") and p.bay == part.bay]
        if own:
            board = family.table["board"]
            dividers = [p for p in self.design.parts if p.role == "divider" and p.bay == part.bay]
            lefts = {f.x + board for f in own} | {p.x + p.w for p in dividers}
            rights = {f.x + f.w - board for f in own} | {p.x for p in dividers}
            return part.x in lefts and part.x + part.w in rights
        left = any(p.x <= part.x <= p.x + p.w for p in sides)
        right = any(p.x <= part.x + part.w <= p.x + p.w for p in sides)
        return left and right

    def pull_outs_come_out(self) -> None:
        """Drawers, trays and baskets slide out clear of the returns, an open door and a neighbouring run."""
        for part in self.design.parts:
            if part.role not in PULL_OUTS or part.section not in self.envelopes or family_of(part).on_what_is_there:
                continue
            e = self.envelopes[part.section]
            if not (e.pull_from <= part.x and part.x + part.w <= e.pull_to):
                short = max(e.pull_from - part.x, part.x + part.w - e.pull_to)
                self._fault("pull-out", part.id, short, 0, "cannot slide out past the return or the door")
            elif part.bay is not None and self.design.bays[part.bay].blind:
                self._fault("pull-out", part.id, self.design.bays[part.bay].blind, 0, "opens into the next run")

    def runs_stay_apart(self, placed: tuple[Frame, ...]) -> None:
        """Parts of two runs share no volume: their footprints in the plan, and their heights."""
        by_section = {f.section: f for f in placed}
        solid = [p for p in self.design.parts if p.section in by_section and p.role not in ("bracket", "container")]
        shapes = {p.id: _footprint(p, by_section[p.section]) for p in solid}
        for a, b in combinations(solid, 2):
            if a.section == b.section or a.z >= b.z + b.h or b.z >= a.z + a.h:
                continue
            shared = shapes[a.id].intersection(shapes[b.id]).area
            if shared > CORNER_MM2:
                self._fault("overlap", a.id, shared, CORNER_MM2, f"stands in the corner where {b.id} stands")

    # -- what is stored --

    def compartments_hold(self) -> None:
        """Each compartment has the length or floor, the height, the depth and the strength for what is in it."""
        taken: dict[int, list[tuple[float, float, Part]]] = defaultdict(list)
        for part in self.design.parts:
            if part.bay is None or part.bay >= len(self.design.bays):
                continue
            if part.role == "cover":
                taken[part.bay].append((part.z, part.z + part.h, part))
            if part.role not in HOLDERS:
                continue
            asked = self._asked(part)
            self._capacity(part, asked)
            clear = max((a.clear for a in asked), default=0.0)
            family = family_of(part)
            low, high = family.takes(part, clear)
            taken[part.bay].append((low, high, part))
        for bay, ranges in taken.items():
            self._headroom(bay, sorted(ranges, key=lambda r: (r[0], r[1])))

    def _asked(self, part: Part) -> list[Ask]:
        family, bay = family_of(part), self.design.bay_of(part)
        found = []
        for a in self.held[part.id]:
            thing = self.things.get(a.thing)
            box = self.design.box(a.container) if a.container else None
            if thing is None or (a.way not in thing.row.ways and box is None) or (a.container and box is None):
                self._fault("unknown", part.id, 0, 0, f"holds {a.thing}, which is not stored so or is not here")
                continue
            one = ask(thing, a.way, part.role, family, bay, self.design.rules, a.count, turned=a.turned, container=box)
            wrong = misfit(thing, a.way, part.role, one, family, bay)
            if wrong is not None and not (part.role in PULL_OUTS and "slide" in wrong.why):
                self._fault("size", part.id, wrong.measured, wrong.limit, wrong.why)
            found.append(one)
        return found

    def _capacity(self, part: Part, asked: list[Ask]) -> None:
        family, bay = family_of(part), self.design.bay_of(part)
        amount, mass = sum(a.amount for a in asked), sum(a.mass for a in asked)
        capacity, rating = family.capacity(part.role, bay), family.rating(part, bay)
        if amount > capacity + ROUNDING:
            self._fault("capacity", part.id, amount, capacity, "asks more than it has")
        if mass > rating + ROUNDING:
            self._fault("load", part.id, mass, rating, "weighs more than it carries")
        spec = family.spec(part.role)
        if spec.fronts:
            inside = part.h - spec.lost_height
            clear = max((a.clear for a in asked), default=0.0)
            if clear > inside:
                self._fault("headroom", part.id, clear, inside, f"is too high for the {part.role}")

    def _headroom(self, index: int, ranges: list[tuple[float, float, Part]]) -> None:
        bay = self.design.bays[index]
        family: Family = self.design.family_in(bay)
        for (_, top, low), (foot, _, high) in pairwise(ranges):
            if top > foot + ROUNDING:
                self._fault("headroom", low.id, top, foot, f"meets {high.id} above it")
        foot_of_bay = family.foot(bay)
        for foot, top, part in ranges:
            if top > bay.z1 + ROUNDING or foot < foot_of_bay - ROUNDING:
                self._fault("headroom", part.id, top, bay.z1, "does not fit between the bay's bottom and top")
            if (
                bay.axis == "z"
                and bay.first
                and part.role not in ("floor", "base")
                and position(part, bay) < bay.z0 + bay.first
            ):
                self._fault(
                    "support", part.id, part.z, bay.z0 + bay.first, "is lower than the first place it can be fixed"
                )
            for closed in bay.blocked:
                if closed.loose and (part.role == "floor" or bay.loose):
                    continue
                if foot < closed.high and closed.low < top:
                    self._fault("closed", part.id, foot, closed.high, "takes a height that an obstacle closes")

    def all_counted(self) -> None:
        """Every piece that stays is placed once or named as unplaced; nothing else is."""
        placed = Counter[str]()
        for a in self.design.assignments:
            placed[a.thing] += a.count
            if self.parts.get(a.part) is None or self.parts[a.part].role not in HOLDERS:
                self._fault("count", a.part, a.count, 0, f"{a.thing} is assigned to a part that holds nothing")
        for left in self.design.unplaced:
            placed[left.thing] += left.count
        for thing in self.things.values():
            wanted = thing.count if thing.stays else 0
            if placed[thing.id] != wanted:
                self._fault("count", thing.id, placed[thing.id], wanted, "pieces placed or named unplaced")


def _stands_round(part: Part, c: ClosedRegion) -> bool:
    """Whether a frame's boards pass by what must only be reached, or a door opens before it."""
    if not c.enclosed or part.role not in ("frame", "door", "curtain"):
        return False
    t = family_of(part).table["board"] if part.role == "frame" else 0
    return part.role != "frame" or (
        part.x + t <= c.x0 and c.x1 <= part.x + part.w - t and part.z + t <= c.z0 and c.z1 <= part.z + part.h - t
    )


def _cut_out(part: Part, x0: int, x1: int, y0: int, y1: int) -> bool:
    """Whether the notches of a board leave out all of a region's footprint within the board."""
    a, b = max(x0, part.x), min(x1, part.x + part.w)
    c, d = max(y0, part.y), min(y1, part.y + part.d)
    return any(cut[0] <= a and b <= cut[1] and cut[2] <= c and d <= cut[3] for cut in part.cuts)


def _cuts(a: Part, b: Part) -> bool:
    """Whether one of two parts is notched where the other stands."""
    return _cut_out(a, b.x, b.x + b.w, b.y, b.y + b.d) or _cut_out(b, a.x, a.x + a.w, a.y, a.y + a.d)


def _footprint(part: Part, frame: Frame) -> Polygon:
    x0, x1, y0, y1 = part.x, part.x + part.w, part.y, part.y + part.d
    return Polygon([frame.to_plan(*point) for point in ((x0, y0), (x1, y0), (x1, y1), (x0, y1))])
