"""Proof that a design stands: written apart from the solver and using none of its code.

It takes only the placed parts, the assignments, the things and the envelope, and works every clearance out again.
Touching is allowed; sharing volume is not.
"""

from collections import Counter, defaultdict
from itertools import combinations, pairwise
from typing import Literal

from ..base import Frozen
from ..inventory import Need, Thing
from ..inventory.needs import need
from ..survey import Envelope
from ..systems import FAMILIES, HOLDERS, PULL_OUTS, Family, Part
from ..tables import value
from .models import Design

FaultCode = Literal[
    "unknown", "envelope", "closed", "overlap", "support", "pull-out", "capacity", "load", "size", "headroom", "count",
]  # fmt: skip
ROUNDING = 1e-6


class Fault(Frozen):
    """One thing that is wrong with a design, where, and by how much (mm, mm², kg or pieces)."""

    code: FaultCode
    where: str
    measured: float
    limit: float
    detail: str


def verify(design: Design, envelope: Envelope, things: tuple[Thing, ...]) -> tuple[Fault, ...]:
    """Every fault of a design; an empty tuple is the proof that it fits."""
    if design.family not in FAMILIES:
        return (Fault(code="unknown", where=design.family, measured=0, limit=0, detail="no such family"),)
    proof = _Proof(design, envelope, {t.id: t for t in things})
    proof.envelope_holds()
    proof.nothing_overlaps()
    proof.everything_is_carried()
    proof.pull_outs_come_out()
    proof.compartments_hold()
    proof.all_counted()
    return tuple(proof.faults)


class _Proof:
    def __init__(self, design: Design, envelope: Envelope, things: dict[str, Thing]) -> None:
        self.design, self.envelope, self.things = design, envelope, things
        self.family: Family = FAMILIES[design.family]
        self.faults: list[Fault] = []
        self.parts = {p.id: p for p in design.parts}
        if len(self.parts) != len(design.parts):
            self._fault("unknown", design.id, len(design.parts), len(self.parts), "two parts share an id")

    def _fault(self, code: FaultCode, where: str, measured: float, limit: float, detail: str) -> None:
        self.faults.append(Fault(code=code, where=where, measured=measured, limit=limit, detail=detail))

    # -- geometry --

    def envelope_holds(self) -> None:
        """Every part inside the clear region and out of every closed one."""
        e = self.envelope
        for part in self.design.parts:
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
            for region in e.closed:
                if region.meets(part.x, part.x + part.w, part.y, part.y + part.d, part.z, part.z + part.h):
                    self._fault("closed", part.id, 0, 0, region.why)

    def nothing_overlaps(self) -> None:
        """No two parts share volume, but for what stands inside its own frame."""
        for a, b in combinations(self.design.parts, 2):
            if a.overlaps(b) and not self._inside(a, b) and not self._inside(b, a):
                self._fault("overlap", a.id, 0, 0, f"shares volume with {b.id}")

    def _inside(self, outer: Part, inner: Part) -> bool:
        """Whether `inner` stands within the boards of the frame `outer` of its own bay."""
        if outer.role != "frame" or inner.bay != outer.bay or inner.role == "frame":
            return False
        board = self.family.table["board"]
        return (
            outer.x + board <= inner.x and inner.x + inner.w <= outer.x + outer.w - board
            and outer.y <= inner.y and inner.y + inner.d <= outer.y + outer.d
            and outer.z <= inner.z and inner.z + inner.h <= outer.z + outer.h - board
        )  # fmt: skip

    def everything_is_carried(self) -> None:
        """Every part is fixed to something that is there and reaches its height; wide parts meet both sides."""
        for part in self.design.parts:
            carrier = self.parts.get(part.fixed_to)
            if part.role in ("frame", "plinth", "track", "filler"):
                continue
            if carrier is None:
                self._fault("support", part.id, 0, 0, f"{part.fixed_to or 'nothing'} does not carry it")
            elif part.role != "standard" and not carrier.z <= part.z <= carrier.z + carrier.h:
                self._fault("support", part.id, part.z, carrier.z + carrier.h, f"out of reach of {carrier.id}")
            if part.role in ("shelf", "rail", "cover", "base", "drawer", "tray"):
                self._both_sides(part)

    def _both_sides(self, part: Part) -> None:
        if self.family.id == "track":
            ends = sorted(s.x + s.w / 2 for s in self.design.parts if s.role == "standard")
            meets = (part.x, part.x + part.w) in pairwise(round(x) for x in ends)
        else:
            board = self.family.table["board"]
            frames = [f for f in self.design.parts if f.role == "frame" and f.bay == part.bay]
            meets = any(f.x + board == part.x and f.x + f.w - board == part.x + part.w for f in frames)
        if not meets:
            self._fault("support", part.id, part.x, part.x + part.w, "does not reach from side to side of its bay")

    def pull_outs_come_out(self) -> None:
        """Drawers and trays slide out clear of the returns and an open door."""
        for part in self.design.parts:
            if part.role in PULL_OUTS and not (
                self.envelope.pull_from <= part.x and part.x + part.w <= self.envelope.pull_to
            ):
                short = max(self.envelope.pull_from - part.x, part.x + part.w - self.envelope.pull_to)
                self._fault("pull-out", part.id, short, 0, "cannot slide out past the return or the door")

    # -- what is stored --

    def compartments_hold(self) -> None:
        """Each compartment has the length or floor, the height, the depth and the strength for what is in it."""
        taken: dict[int, list[tuple[float, float, str]]] = defaultdict(list)
        for part in self.design.parts:
            if part.role == "cover" and part.bay is not None:
                taken[part.bay].append((part.z, part.z + part.h, part.id))
            if part.role not in HOLDERS or part.bay is None:
                continue
            held = self._needs(part)
            self._capacity(part, held)
            taken[part.bay].append((*self._takes(part, held), part.id))
        for bay, ranges in taken.items():
            self._headroom(bay, sorted(ranges))

    def _needs(self, part: Part) -> list[Need]:
        found = []
        for a in self.design.held_by(part.id):
            thing = self.things.get(a.thing)
            if thing is None or a.way not in thing.row.ways:
                self._fault("unknown", part.id, 0, 0, f"holds {a.thing}, which is not stored so or is not here")
            else:
                found.append(need(thing, a.way, self.design.rules, a.count))
        return found

    def _capacity(self, part: Part, held: list[Need]) -> None:
        bay = self.design.bays[part.bay or 0]
        front = part.h if part.role == "drawer" else 0
        role = "shelf" if part.role == "base" else part.role
        component = self.family.component(role, bay, front)
        rating = self.family.table["rating"]["base"] if part.role == "base" else component.rating
        asked, mass = sum(n.amount for n in held), sum(n.mass for n in held)
        if asked > component.capacity + ROUNDING:
            self._fault("capacity", part.id, asked, component.capacity, "asks more than it has")
        if mass > rating + ROUNDING:
            self._fault("load", part.id, mass, rating, "weighs more than it carries")
        depth, width = self.family.clear_depth(role, bay), self.family.clear_width(role, bay)
        for n in held:
            slack = value("fold.overhang") if n.way in ("shelf", "shoe") and role == "shelf" else 0
            if n.depth > depth + slack:
                self._fault("size", part.id, n.depth, depth + slack, "is too deep for it")
            if n.piece_width > width:
                self._fault("size", part.id, n.piece_width, width, "is too wide for it")
            if (n.way == "hang") != (part.role == "rail") or (n.way == "drawer") != (part.role == "drawer"):
                self._fault("size", part.id, 0, 0, f"things to {n.way} are not kept in a {part.role}")

    def _takes(self, part: Part, held: list[Need]) -> tuple[float, float]:
        """Heights from..to that a holding part and its contents take."""
        clear = max((n.clear for n in held), default=0)
        if part.role == "rail":
            above = value("hang.above_rail")
            return part.z - max(clear - above, 0), part.z + part.h + above
        if part.role == "drawer":
            inside = part.h - self.family.table["drawer_lost_height"]
            if clear > inside:
                self._fault("headroom", part.id, clear, inside, "is too high for the drawer")
            return part.z, part.z + part.h
        return part.z, part.z + part.h + clear

    def _headroom(self, index: int, ranges: list[tuple[float, float, str]]) -> None:
        bay = self.design.bays[index]
        for (_, top, low_id), (foot, _, high_id) in pairwise(ranges):
            if top > foot + ROUNDING:
                self._fault("headroom", low_id, top, foot, f"meets {high_id} above it")
        foot_of_bay = bay.z0 - (self.family.table["board"] if bay.has_base else 0)
        for foot, top, part_id in ranges:
            if top > bay.z1 + ROUNDING or foot < foot_of_bay - ROUNDING:
                self._fault("headroom", part_id, top, bay.z1, "does not fit between the bay's bottom and top")
            for low, high in bay.blocked:
                if foot < high and low < top:
                    self._fault("closed", part_id, foot, high, "takes a height that an obstacle closes")

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
