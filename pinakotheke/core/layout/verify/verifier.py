"""Proof that a design stands: written apart from the search and using none of its code.

It takes only the placed parts, the rows they stand in, the assignments, the things, the envelopes and the survey, and
works everything out again: what a bay is (its clear heights, what closes them, how deep one may hang) from the family's
own geometry, and clearances from its own rules (`takes`, `capacity`, `rating`) and from `fits`; what a bay of the design
says of itself counts for nothing. Touching is allowed; sharing volume is not.
"""

from collections import Counter, defaultdict
from collections.abc import Mapping
from itertools import combinations, pairwise
from math import isfinite
from typing import Literal

from shapely import Polygon

from ...base import Frozen
from ...inventory import Thing
from ...survey import ClosedRegion, Envelope, Survey
from ...survey.corners import blind_zones, corners, hidden
from ...survey.square import Frame, frames
from ...systems import HOLDERS, PULL_OUTS, Bay, Family, Part
from ...systems.roles import ENCLOSING, HIDING, UPRIGHTS
from ...systems.rows import bays_of
from ..models import Design
from ..packing.fits import Ask, ask, misfit, position
from ..packing.limits import Limits
from ..packing.trouble import hand_height

FaultCode = Literal[
    "unknown", "envelope", "closed", "overlap", "support", "pull-out", "capacity", "load", "size", "headroom", "count",
    "limit",
]  # fmt: skip
ROUNDING = 1e-6
HUNG_BEFORE = HIDING | {"standard", "container"}
"""What hangs from or stands on its carrier beyond that one's own height."""
WIDEST_SPAN, NEAR_END = 1000, 60
"""A board across is carried at least every so many mm, and so near its ends; common practice."""
CORNER_MM2 = 400.0
"""Parts of two runs may share this much of the plan: walls out of square are drawn to the millimetre."""


class Fault(Frozen):
    """One thing that is wrong with a design, where, and by how much (mm, mm², kg or pieces); `why` is a row of
    `tables/faults.toml`, `other` a part and `thing` a thing it has to do with.
    """

    code: FaultCode
    why: str
    where: str
    measured: float = 0
    limit: float = 0
    other: str = ""
    thing: str = ""


def verify(design: Design, envelopes: Mapping[str, Envelope], things: tuple[Thing, ...],
           survey: Survey | None = None, limits: Limits | None = None) -> tuple[Fault, ...]:  # fmt: skip
    """Every fault of a design; an empty tuple is the proof that it fits. `envelopes` by section; with a survey of
    several runs, parts of two runs are held against each other in the plan as well; with limits, what must never be is a
    fault too.
    """
    unknown = [i for i in (*design.families, *(p.family for p in design.parts)) if i not in design.catalogue]
    if unknown:
        return (Fault(code="unknown", why="no such family", where=unknown[0]),)
    absent = [s for s in design.sections if s not in envelopes]
    if absent:
        return (Fault(code="unknown", why="not measured", where=absent[0]),)
    proof = _Proof(design, envelopes, {t.id: t for t in things}, limits)
    proof.bays_are_those_of_the_rows(survey)
    proof.envelope_holds()
    proof.nothing_overlaps()
    proof.everything_is_carried()
    proof.pull_outs_come_out()
    proof.compartments_hold()
    proof.all_counted()
    if survey is not None and len(design.sections) > 1:
        placed = frames(survey)
        proof.runs_stay_apart(placed)
        proof.pull_outs_clear_the_corner(placed, survey)
    return tuple(proof.faults)


class _Proof:
    def __init__(self, design: Design, envelopes: Mapping[str, Envelope], things: dict[str, Thing],
                 limits: Limits | None) -> None:  # fmt: skip
        self.design, self.envelopes, self.things, self.limits = design, envelopes, things, limits
        self.faults: list[Fault] = []
        self.bays = list(design.bays)
        self.parts = {p.id: p for p in design.parts}
        self.held = defaultdict(list)
        for a in design.assignments:
            self.held[a.part].append(a)
        if len(self.parts) != len(design.parts):
            self._fault("unknown", "two of one id", design.id, len(design.parts), len(self.parts))
        rows = {a.id for a in design.assignments}
        if len(rows) != len(design.assignments):
            self._fault("unknown", "two of one id", design.id, len(design.assignments), len(rows))

    def _fault(self, code: FaultCode, why: str, where: str, measured: float = 0, limit: float = 0, *, other: str = "",
               thing: str = "") -> None:  # fmt: skip
        self.faults.append(
            Fault(code=code, why=why, where=where, measured=measured, limit=limit, other=other, thing=thing)
        )

    def _bay_of(self, part: Part) -> Bay:
        assert part.bay is not None
        return self.bays[part.bay].under(part)

    # -- geometry --

    def bays_are_those_of_the_rows(self, survey: Survey | None) -> None:
        """Every bay anew, as its row makes it there and the survey sets it: how high its section is, and how much of it
        lies in a corner. A design from before rows were kept, and one without a survey, is taken at its word.
        """
        standing_at: dict[str, list[tuple[float, float]]] = {}
        for s in self.design.rows:
            ends = self.design.catalogue[s.family].ends
            standing_at.setdefault(s.section, []).append((s.row.x, s.row.end + ends))
        zones, feet = (blind_zones(corners(survey), standing_at), survey.feet) if survey is not None else ({}, {})
        for standing in self.design.rows:
            region = self.envelopes.get(standing.section)
            if region is None:
                continue
            family = self.design.catalogue[standing.family]
            beside = [
                (self.design.catalogue[s.family], s.row) for s in self.design.rows if s.section == standing.section
            ]
            made = bays_of(family, standing.row, region, beside, self.design.finish)
            if len(made) != standing.end - standing.first or standing.end > len(self.bays):
                self._fault(
                    "unknown", "other bays", f"bay {standing.first + 1}", standing.end - standing.first, len(made)
                )
                continue
            for index, bay in enumerate(made, standing.first):
                was = self.bays[index]
                blind, foot = was.blind, was.foot
                if survey is not None:
                    blind = hidden(zones.get(standing.section, []), bay.x, bay.x + bay.w)
                    foot = feet.get(standing.section, 0)
                facts = {"index": index, "section": standing.section, "blind": blind, "foot": foot}
                new = bay.model_copy(update=facts)
                self.bays[index] = new.model_copy(update={"pulls": False}) if blind else new

    def envelope_holds(self) -> None:
        """Every part inside the clear region and out of every closed one, but for what is cut out of it."""
        for part in self.design.parts:
            e = self.envelopes.get(part.section)
            if e is None:
                self._fault("unknown", "no wall", part.id)
                continue
            family = self.design.family_of(part)
            if part.role == "container" or (part.role == "base" and family.on_what_is_there):
                continue
            cut_to_the_wall = part.role in family.scribed
            x0, x1 = (e.walls if cut_to_the_wall else e.span)(part.z, part.z + part.h)
            if part.role == "filler":
                x0, x1 = 0, int(e.clear_width(part.z, part.z + part.h))
            for why, measured, limit, bad in (
                ("left", part.x, x0, part.x < x0),
                ("right", part.x + part.w, x1, part.x + part.w > x1),
                ("behind", part.y, e.y_from, part.y < e.y_from),
                ("out of it", part.y + part.d, e.y_to, part.y + part.d > e.y_to),
                ("floor", part.z, 0, part.z < 0),
                ("ceiling", part.z + part.h, e.z_to, part.z + part.h > e.z_to),
            ):
                if bad:
                    self._fault("envelope", why, part.id, measured, limit)
            bay = self.bays[part.bay] if part.bay is not None and part.bay < len(self.bays) else None
            loose = part.role == "floor" or (bay is not None and bay.loose)
            for c in e.closed:
                if (loose and c.loose) or _stands_round(part, c, family.board):
                    continue
                if c.meets(part.x, part.x + part.w, part.y, part.y + part.d, part.z, part.z + part.h) and not _cut_out(
                    part, c.x0, c.x1, c.y0, c.y1
                ):
                    self._fault("closed", c.why, part.id, limit=c.length, thing=c.of)

    def nothing_overlaps(self) -> None:
        """No two parts share volume, but for what stands inside its own frame."""
        by_section: dict[str, list[Part]] = defaultdict(list)
        for part in self.design.parts:
            by_section[part.section].append(part)
        for parts in by_section.values():
            for a, b in combinations(parts, 2):
                if (
                    a.overlaps(b)
                    and not self._inside(a, b)
                    and not self._inside(b, a)
                    and not _cuts(a, b)
                    and not _halved(a, b)
                ):
                    self._fault("overlap", "volume", a.id, other=b.id)

    def _inside(self, outer: Part, inner: Part) -> bool:
        """Whether `inner` stands within the boards of the frame or trolley `outer` of its own bay, or is a tray in a
        compartment that holds nothing else.
        """
        if outer.role == inner.role == "compartment":
            return self._foot(inner) is outer and not self.held[outer.id] and _within(outer, inner)
        if outer.role not in ENCLOSING or inner.bay != outer.bay or inner.role in ENCLOSING:
            return False
        # A base is the frame's own bottom board.
        own = {"bottom", "back"} if inner.role == "base" else {"back"}
        return _within(outer, inner) and not any(
            b.meets(inner) for b in self.design.family_of(outer).boards(outer) if b.name not in own
        )

    def _foot(self, part: Part) -> Part:
        """The compartment at the bottom of those that carry each other."""
        seen = {part.id}
        while (
            part.carrier in self.parts and self.parts[part.carrier].role == "compartment" and part.carrier not in seen
        ):
            part = self.parts[part.carrier]
            seen.add(part.id)
        return part

    def everything_is_carried(self) -> None:
        """Every part is fixed to something that is there and reaches its height; wide parts meet both sides."""
        for part in self.design.parts:
            if part.role == "floor" and part.z > 0:
                self._fault("support", "no floor", part.id, part.z, 0)
            if part.fixed_to == "uprights":
                self._lies_on_uprights(part)
            if not part.carrier:
                if part.role in HOLDERS and not self._meets(part):
                    self._fault("support", "sides", part.id, part.x, part.x + part.w)
                self._ends_rest(part)
                continue
            carrier = self.parts.get(part.carrier)
            if carrier is None or carrier.section != part.section:
                self._fault("support", "no carrier", part.id, other=part.carrier)
            elif part.role not in HUNG_BEFORE and not (carrier.z <= part.z <= carrier.z + carrier.h):
                self._fault("support", "out of reach", part.id, part.z, carrier.z + carrier.h, other=carrier.id)
            if (part.role in HOLDERS or part.role == "cover") and not self._meets(part):
                self._fault("support", "sides", part.id, part.x, part.x + part.w)

    def _meets(self, part: Part) -> bool:
        if part.bay is None or part.bay >= len(self.bays):
            return False
        return self.design.family_of(part).meets_sides(part, self.bays[part.bay]) and self._between_carriers(part)

    def _lies_on_uprights(self, part: Part) -> None:
        """A top lies on carcases from end to end; a board across has an upright at each end and none too far from the
        next, and all of them reach it. Over gables a wall is as good.
        """
        section = [p for p in self.design.parts if p.section == part.section and p.role in UPRIGHTS]
        reach = [p for p in section if p.z <= part.z <= p.z + p.h and p.x < part.x + part.w and part.x < p.x + p.w]
        frames = sorted((p.x, p.x + p.w) for p in reach if p.role in ENCLOSING)
        walls = [w for w in self._walls_beside(part) if part.x - NEAR_END <= w[0] <= part.x + part.w + NEAR_END]
        carriers = frames or sorted([*((p.x, p.x + p.w) for p in reach), *walls])
        at, gap = part.x, 0
        for start, end in carriers:
            gap = max(gap, start - at)
            at = max(at, end)
        gap = max(gap, part.x + part.w - at)
        limit = 0 if frames else WIDEST_SPAN
        ends = frames or (carriers and carriers[0][0] <= part.x + NEAR_END and at >= part.x + part.w - NEAR_END)
        if gap > limit or not ends:
            self._fault("support", "nothing below", part.id, gap, limit)

    def _ends_rest(self, part: Part) -> None:
        """Either end of a cleated board on a wall's cleat, a bracket, or a gable that reaches up and out as far."""
        envelope = self.envelopes.get(part.section)
        if part.role not in ("shelf", "cover") or envelope is None or self.design.family_of(part).kind != "cleat":
            return
        walls = self._walls_beside(part)
        for x, cut in ((part.x, "left"), (part.x + part.w, "right")):
            on_bracket = any(
                p.role == "bracket" and p.belongs_to == part.id and p.x <= x <= p.x + p.w for p in self.design.parts
            )
            at_wall = any(abs(x - wall) <= NEAR_END for wall, _ in walls)
            gables = [
                p for p in self.design.parts
                if p.role == "panel" and p.section == part.section and x in (p.x, p.x + p.w)
            ]  # fmt: skip
            holds = any(p.z <= part.z < p.z + p.h and p.y + p.d >= part.y + part.d for p in gables)
            if not (holds or at_wall or on_bracket or part.cut_end == cut):
                self._fault("support", "nothing below", part.id, x, x)

    def _walls_beside(self, part: Part) -> list[tuple[int, int]]:
        """Where a wall at either end of a cleated row carries what lies across it."""
        envelope = self.envelopes.get(part.section)
        cleated = any(b.section == part.section and self.design.family_of(b).kind == "cleat" for b in self.bays)
        if envelope is None or not cleated:
            return []
        left, right = envelope.walls(part.z, part.z + part.h)
        return [
            (at, at) for at, real in ((left, envelope.left_allowance), (right, envelope.right_allowance)) if real > 0
        ]

    def _between_carriers(self, part: Part) -> bool:
        """Whether what stands at both sides of a part is really there: frames, standards, posts, gables or a wall."""
        family = self.design.family_of(part)
        sides = [
            p for p in self.design.parts if p.section == part.section and p.role in UPRIGHTS and p.family == family.id
        ]
        if not sides or not part.carrier:
            return True
        own = [p for p in sides if p.role in ENCLOSING and p.bay == part.bay]
        if own:
            board = family.board
            dividers = [p for p in self.design.parts if p.role == "divider" and p.bay == part.bay]
            lefts = {f.x + board for f in own} | {p.x + p.w for p in dividers}
            rights = {f.x + f.w - board for f in own} | {p.x for p in dividers}
            return part.x in lefts and part.x + part.w in rights
        left = any(p.x <= part.x <= p.x + p.w for p in sides)
        right = any(p.x <= part.x + part.w <= p.x + p.w for p in sides)
        return left and right

    def pull_outs_come_out(self) -> None:
        """Drawers, trays and baskets slide out clear of the returns and an open door."""
        for part in self.design.parts:
            if (
                part.role not in PULL_OUTS
                or part.section not in self.envelopes
                or self.design.family_of(part).on_what_is_there
            ):
                continue
            e = self.envelopes[part.section]
            if not (e.pull_from <= part.x and part.x + part.w <= e.pull_to):
                short = max(e.pull_from - part.x, part.x + part.w - e.pull_to)
                self._fault("pull-out", "return", part.id, short, 0)

    def pull_outs_clear_the_corner(self, placed: tuple[Frame, ...], survey: Survey) -> None:
        """What slides out goes past nothing of the next run: its way and their footprints in the plan, and heights."""
        by_section = {f.section: f for f in placed}
        next_to = {frozenset((a.id, b.id)) for a, b in pairwise(survey.runs)}
        solid = [(p, _footprint(p, by_section[p.section])) for p in self.design.parts if p.section in by_section]
        for part in self.design.parts:
            if part.role not in PULL_OUTS or part.section not in by_section:
                continue
            way = _footprint(part.model_copy(update={"y": part.y + part.d}), by_section[part.section])
            for other, shape in solid:
                beside = frozenset((part.section, other.section)) in next_to
                if beside and part.z < other.z + other.h and other.z < part.z + part.h:
                    shared = way.intersection(shape).area
                    if shared > CORNER_MM2:
                        self._fault("pull-out", "corner", part.id, shared, CORNER_MM2, other=other.id)
                        break

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
                self._fault("overlap", "corner", a.id, shared, CORNER_MM2, other=b.id)

    # -- what is stored --

    def compartments_hold(self) -> None:
        """Each compartment has the length or floor, the height, the depth and the strength for what is in it."""
        taken: dict[int, list[tuple[float, float, Part]]] = defaultdict(list)
        for part in self.design.parts:
            if part.bay is None or part.bay >= len(self.bays):
                continue
            if part.role == "cover":
                taken[part.bay].append((part.z, part.z + part.h, part))
            if part.role not in HOLDERS:
                continue
            asked = self._asked(part)
            self._capacity(part, asked)
            clear = max((a.clear for a in asked), default=0.0)
            family = self.design.family_of(part)
            if part.role == "compartment":
                continue  # it takes its own floor; that two share none is looked at as for all parts
            low, high = family.takes(part, clear)
            taken[part.bay].append((low, high, part))
        for bay, ranges in taken.items():
            self._headroom(bay, sorted(ranges, key=lambda r: (r[0], r[1])))

    def _asked(self, part: Part) -> list[Ask]:
        family, bay = self.design.family_of(part), self._bay_of(part)
        found = []
        for a in self.held[part.id]:
            thing = self.things.get(a.thing)
            box = self.design.box(a.container) if a.container else None
            kept_so = thing is not None and (box is not None or a.way in (*thing.row.ways, thing.way))
            if thing is None or not kept_so or (a.container and box is None):
                self._fault("unknown", "not stored so", part.id, thing=a.thing)
                continue
            one = ask(thing, a.way, part.role, family, bay, self.design.rules, a.count, turned=a.turned, container=box)
            wrong = misfit(thing, a.way, part.role, one, family, bay)
            if wrong is not None and wrong.why != "slides":
                self._fault("size", wrong.why, part.id, wrong.measured, wrong.limit)
            found.append(one)
            self._limits(part, thing, one)
        return found

    def _limits(self, part: Part, thing: Thing, one: Ask) -> None:
        """Whether the hand that takes it out is where it may be."""
        if self.limits is None:
            return
        bay = self._bay_of(part)
        hand = hand_height(part.role, position(part, bay), part.h, bay)
        for bound in self.limits.bounds(thing, part.role, bay, self.design.family_of(part), one):
            if bound.is_never and not bound.low - ROUNDING <= hand <= bound.high + ROUNDING:
                limit = bound.low if hand < bound.low else bound.high
                self._fault("limit", bound.why, part.id, hand, limit if isfinite(limit) else 0, thing=thing.id)

    def _capacity(self, part: Part, asked: list[Ask]) -> None:
        family, bay = self.design.family_of(part), self._bay_of(part)
        amount, mass = sum(a.amount for a in asked), sum(a.mass for a in asked)
        capacity, rating = family.capacity(part.role, bay), family.rating(part, bay)
        if amount > capacity + ROUNDING:
            self._fault("capacity", "full", part.id, amount, capacity)
        if mass > rating + ROUNDING:
            self._fault("load", "heavy", part.id, mass, rating)
        spec = family.spec(part.role)
        if spec.fronts:
            inside = part.h - spec.lost_height
            clear = max((a.clear for a in asked), default=0.0)
            if clear > inside:
                self._fault("headroom", "inside", part.id, clear, inside)

    def _headroom(self, index: int, ranges: list[tuple[float, float, Part]]) -> None:
        bay = self.bays[index]
        family: Family = self.design.family_of(bay)
        for (_, top, low), (foot, _, high) in pairwise(ranges):
            if top > foot + ROUNDING:
                self._fault("headroom", "above", low.id, top, foot, other=high.id)
        foot_of_bay = family.foot(bay)
        for foot, top, part in ranges:
            if top > bay.z1 + ROUNDING or foot < foot_of_bay - ROUNDING:
                self._fault("headroom", "bay", part.id, top, bay.z1)
            if (
                bay.drawer is None
                and bay.first
                and part.role not in ("floor", "base")
                and position(part, bay) < bay.z0 + bay.first
            ):
                self._fault("support", "too low", part.id, part.z, bay.z0 + bay.first)
            for closed in bay.blocked:
                if closed.loose and (part.role == "floor" or bay.loose):
                    continue
                if foot < closed.high and closed.low < top:
                    self._fault("closed", "height", part.id, foot, closed.high)

    def all_counted(self) -> None:
        """Every piece that stays is placed once or named as unplaced; nothing else is."""
        placed = Counter[str]()
        for a in self.design.assignments:
            placed[a.thing] += a.count
            if self.parts.get(a.part) is None or self.parts[a.part].role not in HOLDERS:
                self._fault("count", "holds nothing", a.part, a.count, 0, thing=a.thing)
        for left in self.design.unplaced:
            placed[left.thing] += left.count
        for thing in self.things.values():
            wanted = thing.count if thing.stays else 0
            if placed[thing.id] != wanted:
                self._fault("count", "pieces", "", placed[thing.id], wanted, thing=thing.id)


def _within(outer: Part, inner: Part) -> bool:
    """Whether one box lies within another."""
    return (
        outer.x <= inner.x and inner.x + inner.w <= outer.x + outer.w
        and outer.y <= inner.y and inner.y + inner.d <= outer.y + outer.d
        and outer.z <= inner.z and inner.z + inner.h <= outer.z + outer.h
    )  # fmt: skip


def _stands_round(part: Part, c: ClosedRegion, board: int) -> bool:
    """Whether a frame's boards pass by what must only be reached, or a door opens before it."""
    if not c.enclosed or part.role not in HIDING | ENCLOSING:
        return False
    t = board
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


def _halved(a: Part, b: Part) -> bool:
    """Whether two dividers of a drawer cross each other, halved where they do."""
    crosses = a.role == b.role == "divider" and a.fixed_to == b.fixed_to == "drawer" and (a.w < a.d) != (b.w < b.d)
    return crosses and (
        (a.x < b.x and b.x + b.w < a.x + a.w and b.y < a.y and a.y + a.d < b.y + b.d)
        or (b.x < a.x and a.x + a.w < b.x + b.w and a.y < b.y and b.y + b.d < a.y + a.d)
    )


def _footprint(part: Part, frame: Frame) -> Polygon:
    x0, x1, y0, y1 = part.x, part.x + part.w, part.y, part.y + part.d
    return Polygon([frame.to_plan(*point) for point in ((x0, y0), (x1, y0), (x1, y1), (x0, y1))])
