"""What hangs from screws: how the loads run to each of them, what each bears, and what is not known of the wall.

Every mass goes down the chain of what carries it, from a stored thing through its shelf, bracket and standard to what is
screwed to the wall; there the screws next to it share it by lever, and those at the top hold back what pulls outward.
"""

from collections import defaultdict
from collections.abc import Iterator
from itertools import pairwise
from math import ceil
from typing import Literal, NamedTuple

from ..mechanics.fasteners import Pulled, lag_withdrawal, screw_withdrawal, shared, top_pull, used
from ..survey import Survey
from ..systems import HOLDERS, Part
from ..systems.roles import SUPPORTS
from ..tables import value
from .check import Case, of_section
from .findings import Finding

Into = Literal["stud", "anchor", "plug", "board"]
PIECE = 100
"""A load spread along a part comes to its screws in pieces so long, mm."""
FULL, STRAINED = 1.0, 1.5
"""Shares of what a fixing bears: over the first it is to be known, over the second to be mended."""


class Load(NamedTuple):
    """Kilograms that come to a part which is screwed on: where along the wall, and what pulls outward at its top."""

    at: float
    mass: float
    pull: float


class Fixing(NamedTuple):
    """A screw: where along the wall, and what it goes into."""

    at: float
    into: Into


@of_section("fixing.studs")
def studs(case: Case) -> Iterator[Finding]:
    """Tracks, hook boards and cleats along a wall: how many known studs each stretch of them crosses. What is narrower
    than the usual spacing can cross only one.
    """
    design, every = case.made, case.rule("fixing.studs").entry
    if case.survey.lining in ("masonry", "timber"):
        return
    stretches: dict[tuple[str, int, int, str], list[Part]] = defaultdict(list)
    for part in _along_walls(case):
        stretches[part.section, part.x, part.w, design.family_of(part).named(part)].append(part)
    for (section, x, width, name), parts in stretches.items():
        known = _studs(case.survey, section)
        crossed = sum(x <= stud <= x + width for stud in known)
        wanted = max(2, int(width // every.value)) if width >= every.value else 1
        if crossed < wanted:
            yield case.found("fixing.studs", severity="fix" if design.rules.fixing == "studs-first" else "mind",
                             where=tuple(p.id for p in parts), place=case.place(parts[0]),
                             subject=name[0].lower() + name[1:], measured=crossed, limit=wanted,
                             unknown=not known)  # fmt: skip


@of_section("fixing.screw", "fixing.anchor")
def screws(case: Case) -> Iterator[Finding]:
    """Each screw of what hangs on a wall that is known, against what it bears: the worst of a part is told, with where one
    more would help most. An anchor in a hollow wall holds back nothing.
    """
    loads = _loads(case)
    for part in _along_walls(case):
        places = fixings(case, part)
        if not places or not loads.get(part.id):
            continue
        bears = {into: _bears(case, into) for into in {f.into for f in places}}
        asked: dict[int, Pulled] = defaultdict(lambda: Pulled(0, 0))
        for load in loads[part.id]:
            # What a screw at the far side is relieved of is not counted on.
            for n, mass in shared(load.at, load.mass, tuple(f.at for f in places)).items():
                share = max(mass, 0) / load.mass if load.mass else 0
                asked[n] = Pulled(asked[n].shear + max(mass, 0), asked[n].pull + share * load.pull)
        pulled = [n for n, one in asked.items() if places[n].into == "anchor" and one.pull > value("fixing.pull_least")]
        if pulled:
            n = max(pulled, key=lambda n: asked[n].pull)
            yield case.found("fixing.anchor", where=(part.id,), place=case.place(part), measured=asked[n].pull, limit=0,
                             subject=_name(case, part), count=len(pulled),
                             facts=(("at", places[n].at - part.x),))  # fmt: skip
        # Less than the least is no pull to speak of: an anchor bears it by friction.
        felt = {n: one if one.pull > value("fixing.pull_least") else Pulled(one.shear, 0) for n, one in asked.items()}
        rest = {n: used(one, bears[places[n].into]) for n, one in felt.items() if n not in pulled}
        worst = max(rest, key=lambda n: rest[n], default=None)
        if worst is not None and rest[worst] > FULL:
            facts: tuple[tuple[str, float | str], ...] = (
                ("at", places[worst].at - part.x), ("shear", asked[worst].shear), ("pull", asked[worst].pull),
                ("kind", _into(places[worst].into)),
            )  # fmt: skip
            yield case.found("fixing.screw", severity="fix" if rest[worst] > STRAINED else "mind", where=(part.id,),
                             place=case.place(part), measured=100 * rest[worst], limit=100, subject=_name(case, part),
                             detail=_into(places[worst].into), facts=facts)  # fmt: skip


@of_section("fixing.unknown")
def unknown(case: Case) -> Iterator[Finding]:
    """Walls whose lining nobody said, and walls at the sides that carry cleats: not known is not safe."""
    design = case.made
    if case.survey.lining == "unknown":
        hung = _along_walls(case)
        if hung:
            yield case.found("fixing.unknown", where=tuple(p.id for p in hung), place=case.place(hung[0]),
                             subject="the wall", unknown=True)  # fmt: skip
        return
    sides: dict[str, list[Part]] = defaultdict(list)
    for part in design.parts:
        if part.role == "cleat" and part.fixed_to == "wall" and part.d > part.w:
            sides[part.section].append(part)
    if case.survey.lining == "plasterboard":
        for parts in sides.values():
            yield case.found("fixing.unknown", where=tuple(p.id for p in parts), place=case.place(parts[0]),
                             subject="the side walls", severity="mind", unknown=True)  # fmt: skip


@of_section("fixing.joists", "fixing.lag")
def ceilings(case: Case) -> Iterator[Finding]:
    """What hangs from the ceiling: nobody read its joists; and what each lag screw holds if it meets one."""
    design, bears = case.made, lag_withdrawal(case.goes_by.gravity, value("fixing.lag"), value("fixing.lag_thread"))
    rows: dict[tuple[str, str], list[Part]] = defaultdict(list)
    for part in design.parts:
        if part.fixed_to == "ceiling":
            rows[part.section, part.family].append(part)
    for (section, family), hangers in rows.items():
        held = [p for p in design.parts if p.section == section and p.family == family and p.role in HOLDERS]
        mass = sum(case.mass(p) + design.family_of(p).mass(p) for p in held)
        if mass <= 0:
            continue
        yield case.found("fixing.joists", where=tuple(p.id for p in hangers), place=case.place(hangers[0]),
                         measured=mass, unknown=True)  # fmt: skip
        # The row hangs on struts in front and on a ledger behind: half of it each, two screws a strut.
        each = mass / 2 / len(hangers) / 2
        if each > bears:
            yield case.found("fixing.lag", where=tuple(p.id for p in hangers), place=case.place(hangers[0]),
                             measured=each, limit=bears)  # fmt: skip


def fixings(case: Case, part: Part) -> tuple[Fixing, ...]:
    """Where a part along a wall is screwed on and into what, by the school in force; none where the wall is not known.

    *Studs first*: a screw at every stud, anchors at the usual holes only where none is for longer than studs usually are
    apart. *As drilled*: the part's own holes, into studs where they happen to fall.
    """
    survey, every, edge = case.survey, value("fixing.every"), value("fixing.edge")
    holes = [part.x + edge + n * every for n in range(int(max(part.w - 2 * edge, 0) // every) + 1)]
    if part.w - 2 * edge > 0 and part.x + part.w - edge - holes[-1] > every / 2:
        holes.append(part.x + part.w - edge)
    if survey.lining in ("masonry", "timber"):
        return tuple(Fixing(x, "plug" if survey.lining == "masonry" else "board") for x in holes)
    known = [s for s in _studs(survey, part.section) if part.x <= s <= part.x + part.w]
    if survey.lining == "unknown" or not known:
        return ()
    if case.made.rules.fixing == "as-drilled":
        half = value("strength.stud_face") / 2
        return tuple(Fixing(x, "stud" if any(abs(x - s) <= half for s in known) else "anchor") for x in holes)
    gaps = pairwise([part.x - edge, *known, part.x + part.w + edge])
    wide = [(a, b) for a, b in gaps if b - a > value("strength.stud_every") + edge]
    between = [Fixing(x, "anchor") for a, b in wide for x in holes if a + edge < x < b - edge]
    return tuple(sorted([*(Fixing(s, "stud") for s in known), *between]))


def _bears(case: Case, into: Into) -> Pulled:
    """What one fixing bears, kg."""
    house = case.goes_by
    shear = value("fixing.screw_shear") * (house.screw / value("fixing.screw")) ** 2
    return {
        "stud": Pulled(shear, screw_withdrawal(house.gravity, house.screw, house.thread)),
        "board": Pulled(shear, screw_withdrawal(house.gravity, house.screw, value("fixing.board_thread"))),
        "plug": Pulled(house.plug, house.plug),
        "anchor": Pulled(house.anchor, 0),
    }[into]


def _into(into: Into) -> str:
    return {"stud": "screw in a stud", "board": "screw in the boards", "plug": "plug", "anchor": "anchor"}[into]


def _name(case: Case, part: Part) -> str:
    name = case.made.family_of(part).named(part)
    return name[0].lower() + name[1:]


def _studs(survey: Survey, section: str) -> tuple[float, ...]:
    return survey.only(section).studs if section else survey.studs


def _along_walls(case: Case) -> list[Part]:
    """Parts that are screwed along the wall behind them; what goes out from it is screwed to another wall."""
    design = case.made
    return [p for p in design.parts
            if p.role in design.family_of(p).screwed and p.fixed_to == "wall" and p.w > p.d]  # fmt: skip


def _loads(case: Case) -> dict[str, list[Load]]:
    """The loads that come to each part that is screwed to a wall, by its id."""
    found: dict[str, list[Load]] = defaultdict(list)
    bearers: dict[str, list[Part]] = defaultdict(list)
    gravity = value("strength.gravity")
    for part in case.made.parts:
        if part.belongs_to and part.role in SUPPORTS:
            bearers[part.belongs_to].append(part)
    for part in case.made.parts:
        mass = case.made.family_of(part).mass(part) + case.mass(part)
        if mass <= 0 or part.role == "floor":
            continue
        if part.fixed_to == "wall" and not bearers[part.id]:
            out = value("fixing.hook_out") if part.role == "hooks" else part.d / 2
            lever = part.h / 2 if part.role == "hooks" else _lever(part)
            own = Along(0, part.w, case.made.family_of(part).mass(part))
            for one in (own, *(Along(load.start, load.end, load.total / gravity) for load in case.loads(part))):
                _come(found, part, part.x + one.start, part.x + one.end, one.mass, out, lever)
        for bearer, share in _shares(bearers[part.id] or _carriers(case, part)):
            root, lever, share_of_root = _root(case, bearer)
            if root is None:
                continue
            along = bearer.w > part.w / 2
            start, end = (part.x, part.x + part.w) if along else (bearer.x + bearer.w / 2,) * 2
            out = part.y + part.d / 2 - root.y
            _come(found, root, start, end, mass * share * share_of_root, out, lever)
    return found


class Along(NamedTuple):
    """Kilograms spread over a stretch of a part."""

    start: float
    end: float
    mass: float


def _come(
    found: dict[str, list[Load]], root: Part, start: float, end: float, mass: float, out: float, lever: float
) -> None:
    """A load spread over a stretch, in pieces no longer than `PIECE`. On a cleat a board lies close to the wall: what it
    weighs hangs within the cleat's own thickness.
    """
    pieces = max(1, ceil((end - start) / PIECE))
    pull = top_pull(mass, root.d / 2 if root.role == "cleat" else out, lever)
    for n in range(pieces):
        at = start + (n + 0.5) * (end - start) / pieces
        found[root.id].append(Load(at, mass / pieces, pull / pieces))


def _lever(part: Part) -> float:
    """Height of a fixing over the lowest bearing point: three quarters of what is screwed on, *common practice*."""
    return max(0.75 * part.h, value("fixing.lever_least"))


def _carriers(case: Case, part: Part) -> list[Part]:
    carrier = case.parts.get(part.carrier)
    return [carrier] if carrier is not None else []


def _shares(bearers: list[Part]) -> Iterator[tuple[Part, float]]:
    """How several share a board: brackets alike; a cleat along the back as much as those at the sides together."""
    weights = [b.w if b.role == "cleat" and b.w > b.d else 0.0 for b in bearers]
    backs = sum(weights)
    sides = sum(not w for w in weights)
    for bearer, weight in zip(bearers, weights, strict=True):
        if backs and sides:
            yield bearer, 0.5 * weight / backs if weight else 0.5 / sides
        else:
            yield bearer, weight / backs if backs else 1 / sides


def _root(case: Case, bearer: Part) -> tuple[Part | None, float, float]:
    """What on the wall a part hangs from in the end; the lever that holds back what pulls (a standard bears against the
    wall at its foot, so it is its height); and the share that comes to it: a standard on a stud has screws of its own, and
    leaves a third to the track.
    """
    part, lever, share, seen = bearer, _lever(bearer), 1.0, set[str]()
    while part.carrier and part.id not in seen:
        seen.add(part.id)
        if part.role == "standard":
            lever = max(lever, float(part.h))
            if any(part.x <= stud <= part.x + part.w for stud in _studs(case.survey, part.section)):
                share = 1 / 3
        carrier = case.parts.get(part.carrier)
        if carrier is None:
            return None, lever, share
        part = carrier
    return (part if part.fixed_to == "wall" else None), lever, share


CHECKS = (studs, screws, unknown, ceilings)
