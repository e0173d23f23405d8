"""The drilling map: every hole that holds a design to the house, where it is told from the datum, and what goes into it.

Where a part along a wall is screwed on follows the household's school (`checks.fixings`): extra holes on the studs, or
the part's own holes. A hole that would meet a barring zone is moved along its part, by no more than the table's `shift`;
where that does not help it is refused. What nobody read (lining, services, side walls, joists) is said to be unknown.
"""

from collections.abc import Iterator, Sequence
from typing import Literal, NamedTuple, get_args

from ..base import Frozen
from ..checks import Case
from ..checks.fixings import fixings
from ..survey import Section, Survey
from ..systems import Part
from ..tables import value
from .choice import Strayed
from .levels import work
from .services import Zone, services_read, strayed_zones, zones

Fastener = Literal["stud", "anchor", "plug", "board", "joist", "unknown"]
Surface = Literal["back", "left", "right", "ceiling"]
SURFACES: tuple[Surface, ...] = get_args(Surface)
STEP = 5
"""A hole is moved in steps so long, mm."""


class Drill(NamedTuple):
    """Bit and depth of a hole, and how much thread holds in what carries, mm."""

    bit: float
    depth: float
    thread: float


class Hole(Frozen):
    """A hole of a part. `along`: from the left end of the wall, at the side walls from the corner outward, mm; `height`:
    above the highest point of the floor. `number` counts within its section. `stud`: which of the studs read, from the
    left, it meets. `moved`: how far from where it would have been. `meets`: the zones it still lies in; it is `refused`
    where one of them bars it, and a strayed hole among them is filled first. `packing`: how far its part stands off the
    wall there, mm; the screw is as much longer.
    """

    number: int
    section: str
    part: str
    surface: Surface
    along: float
    height: float
    into: Fastener
    bit: float
    depth: float
    thread: float
    stud: int | None = None
    moved: float = 0
    packing: float = 0
    meets: tuple[Zone, ...] = ()
    refused: bool = False


class DrillingMap(Frozen):
    """The holes of one wall, and what is not known of it."""

    section: str
    holes: tuple[Hole, ...]
    zones: tuple[Zone, ...]
    bow: float | None
    """How far the middle of the wall stands out (or in, negative) as it was read, mm."""
    services_read: bool
    """Whether any socket, pipe or cable of this wall was read."""
    lining_read: bool
    studs_read: bool

    @property
    def unsure(self) -> bool:
        """Whether something of it has to be found out before a hole is drilled."""
        return not (self.services_read and self.lining_read and self.studs_read) or any(
            h.into == "unknown" for h in self.holes
        )


class _Place(NamedTuple):
    """Where a screw of a part would go, before anything in its way is looked at."""

    surface: Surface
    along: float
    height: float
    into: Fastener
    low: float
    high: float
    """Between what it may be moved."""


def drilling_map(case: Case, section: Section, width: float, height: float,
                 strayed: Sequence[Strayed] = ()) -> DrillingMap:  # fmt: skip
    """Every hole of a section, wall by wall and part by part from the top, numbered; `width` and `height` in mm. Holes
    that `strayed` are kept away from.
    """
    survey = case.survey
    closed = (*strayed_zones(strayed, section.id), *zones(survey, section, width, height))
    bow = next(iter(reversed(survey.only(section.id).values("bow"))), None)
    parts = [p for p in case.made.parts if p.section in ("", section.id) and _screws(case, p)]
    places = [(part, place) for part in sorted(parts, key=lambda p: (-p.z, p.x)) for place in _places(case, part)]
    places.sort(key=lambda one: SURFACES.index(one[1].surface))
    found = [_drilled(case, part, place, closed, n, width, bow or 0) for n, (part, place) in enumerate(places, 1)]
    return DrillingMap(section=section.id, holes=tuple(found), zones=closed, bow=bow,
                       services_read=services_read(survey, section), lining_read=survey.lining != "unknown",
                       studs_read=bool(survey.only(section.id).studs) or survey.lining != "plasterboard")  # fmt: skip


def drilled(into: Fastener, case: Case) -> Drill:
    """What a fastener asks for: pilot or plug hole and its depth; thread as the household's screws have it (the figures of
    the check stage). In a lining nobody read nothing is said.
    """
    limits, lining = case.goes_by, work("lining")
    if into == "stud":
        return Drill(work("pilot"), lining + limits.thread, limits.thread)
    if into == "board":
        return Drill(work("pilot"), value("fixing.board_thread"), value("fixing.board_thread"))
    if into == "plug":
        return Drill(work("plug_bit"), work("plug_depth"), work("plug_depth") - 10)
    if into == "anchor":
        return Drill(work("anchor_bit"), lining + 50, 0)
    if into == "joist":
        return Drill(work("lag_pilot"), lining + value("fixing.lag_thread"), value("fixing.lag_thread"))
    return Drill(0, 0, 0)


def _screws(case: Case, part: Part) -> str:
    work_of = case.made.family_of(part).work(part)
    return work_of.holes if work_of else ""


def _places(case: Case, part: Part) -> Iterator[_Place]:
    kind, end = _screws(case, part), work("end")
    if kind == "ceiling":
        for n in (0.25, 0.75):
            yield _Place("ceiling", part.x + part.w / 2, part.y + part.d * n, "joist", part.x, part.x + part.w)
    elif kind == "upright":
        middle = part.x + part.w / 2
        into = _into_at(case.survey, part, middle)
        gap = max(part.h - 2 * end, 0)
        for z in dict.fromkeys(
            (part.z + part.h - end if gap else part.z + part.h / 2, part.z + end if gap else part.z)
        ):
            yield _Place("back", middle, z, into, middle, middle)
    elif kind == "top":
        for x in _top(case, part):
            yield _Place("back", x, part.z + part.h - end, _into_at(case.survey, part, x), part.x + end / 2,
                         part.x + part.w - end / 2)  # fmt: skip
    elif kind == "along" and part.d > part.w:
        yield from _side(case, part)
    elif kind == "along":
        z, edge = part.z + part.h / 2, value("fixing.edge")
        for fixing in _along(case, part):
            at = fixing.at
            # Within a stud a screw has little room: so far from its edges.
            off = value("strength.stud_face") / 2 - work("stud_edge")
            low, high = (
                (at - off, at + off) if fixing.into == "stud" else (part.x + edge / 2, part.x + part.w - edge / 2)
            )
            yield _Place("back", at, z, fixing.into, low, high)


def _top(case: Case, part: Part) -> tuple[float, ...]:
    """Where a frame is anchored: at the first and the last stud behind it, else near its sides; a post in its middle."""
    end = work("end")
    if part.w <= 3 * end:
        return (part.x + part.w / 2,)
    survey = case.survey.only(part.section) if part.section else case.survey
    behind = [s for s in survey.studs if part.x + end <= s <= part.x + part.w - end]
    return tuple(dict.fromkeys((behind[0], behind[-1]))) if behind else (part.x + end, part.x + part.w - end)


class _Own(NamedTuple):
    at: float
    into: Fastener


TURNS_FROM = 250
"""What is longer and hangs from a single screw could turn about it, mm; from memory."""


def _along(case: Case, part: Part) -> tuple[_Own, ...]:
    """The screws along a part. One that only one stud holds gets anchors at its ends as well: they carry nothing that is
    counted on, and keep it from turning.
    """
    found = tuple(_Own(f.at, f.into) for f in fixings(case, part))
    if not found:
        return _own_holes(case, part)
    if len(found) > 1 or part.w < TURNS_FROM:
        return found
    edge, (only,) = min(value("fixing.edge"), part.w / 4), found
    ends = [x for x in (part.x + edge, part.x + part.w - edge) if abs(x - only.at) > edge]
    return tuple(sorted([only, *(_Own(x, "anchor") for x in ends)]))


def _own_holes(case: Case, part: Part) -> tuple[_Own, ...]:
    """Holes of a part behind which nothing is known: two at least, not further apart than usual."""
    every, edge = value("fixing.every"), min(value("fixing.edge"), part.w / 4)
    gaps = max(1, round((part.w - 2 * edge) / every))
    into: Fastener = "unknown" if case.survey.lining == "unknown" else "anchor"
    return tuple(_Own(part.x + edge + n * (part.w - 2 * edge) / gaps, into) for n in range(gaps + 1))


def _side(case: Case, part: Part) -> Iterator[_Place]:
    """A cleat along a side wall: at both ends and not further apart than usual; the studs there were not read. One along a
    gable is screwed to that, and makes no hole in the house.
    """
    if any(p.role == "panel" and p.section == part.section and (p.x + p.w == part.x or p.x == part.x + part.w)
           and p.z < part.z + part.h and part.z < p.z + p.h for p in case.made.parts):  # fmt: skip
        return
    middle = part.x + part.w / 2
    surface: Surface = "left" if middle < case.envelope.width / 2 else "right"
    into: Fastener = {"masonry": "plug", "timber": "board"}.get(case.survey.lining, "unknown")  # type: ignore[assignment]
    edge = min(work("end"), part.d / 4)
    gaps = max(1, round((part.d - 2 * edge) / value("fixing.every")))
    for n in range(gaps + 1):
        y = part.y + edge + n * (part.d - 2 * edge) / gaps
        yield _Place(surface, y, part.z + part.h / 2, into, y, y)


def _into_at(survey: Survey, part: Part, x: float) -> Fastener:
    lining = survey.lining
    if lining == "unknown":
        return "unknown"
    if lining in ("masonry", "timber"):
        return "plug" if lining == "masonry" else "board"
    studs, half = survey.only(part.section).studs if part.section else survey.studs, value("strength.stud_face") / 2
    return "stud" if any(abs(x - s) <= half for s in studs) else "anchor"


def packing(bow: float, run: float, part: Part, at: float) -> float:
    """How far a straight part stands off a wall that bows, at a place along it, mm.

    The wall is taken as the parabola off(x) = 4·bow·x·(run − x)/run², its ends at 0 and its middle at `bow` (into the
    room +); the part lies parallel to the line between its ends and touches where its stretch stands out most. Less than
    `pack_from` is not packed.
    """

    def off(x: float) -> float:
        return 4 * bow * x * (run - x) / run**2

    ends = part.x, part.x + part.w
    proud = max(off(x) for x in (*ends, min(max(run / 2, ends[0]), ends[1])))
    away = proud - off(at)
    return away if away >= work("pack_from") else 0.0


def _drilled(case: Case, part: Part, place: _Place, closed: tuple[Zone, ...], number: int, run: float,
             bow: float) -> Hole:  # fmt: skip
    barring = [z for z in closed if z.bars] if place.surface == "back" else []
    at, into = place.along, place.into
    if any(zone.holds(at, place.height) for zone in barring):
        moved = _beside(at, place, barring)
        if moved is not None:
            at, into = moved, (into if moved == place.along else _into_at(case.survey, part, moved))
    meets = tuple(z for z in closed if place.surface == "back" and z.holds(at, place.height))
    drill, bars = drilled(into, case), any(z.bars and z.why != "strayed" for z in meets)
    along = bow and place.surface == "back" and part.w > part.h and part.w >= TURNS_FROM
    packed = packing(bow, run, part, at) if along else 0.0
    stud = _stud(case.survey, part, at) if into == "stud" else None
    return Hole(
        number=number, section=part.section, part=part.id, surface=place.surface, along=at, height=place.height, into=into,
        bit=drill.bit, depth=drill.depth + (packed if drill.depth else 0), thread=drill.thread, stud=stud,
        moved=at - place.along, packing=packed, meets=meets, refused=bars,
    )  # fmt: skip


def _beside(at: float, place: _Place, barring: list[Zone]) -> float | None:
    """The nearest place along a part that no zone bars; None where there is none near enough. A screw that was to meet a
    stud may leave it: what stands in the wall rules.
    """
    reach = int(work("shift"))
    for far in range(STEP, reach + 1, STEP):
        for x in (at - far, at + far):
            if place.low <= x <= place.high and not any(z.holds(x, place.height) for z in barring):
                return x
    return None


def _stud(survey: Survey, part: Part, x: float) -> int | None:
    studs = survey.only(part.section).studs if part.section else survey.studs
    half = value("strength.stud_face") / 2
    return next((n for n, s in enumerate(studs, 1) if abs(s - x) <= half), None)
