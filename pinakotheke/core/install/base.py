"""The base: what packs it level, the plinth in lengths of stock, the line it is scribed to, feet and fillers.

The base is set to the highest point of the floor: the shim at x is fall(x) less the least fall (handbook section 1). A
scribed plinth stands level with its lower edge at the lowest point instead; what is cut off it at x is how much higher
the floor is there.
"""

from itertools import pairwise
from math import ceil

from ..base import Frozen
from ..layout import Design
from ..survey import Envelope, Survey
from ..survey.level import LevelBase, level_base
from ..systems import Part
from ..tables import value
from .levels import work


class Packing(Frozen):
    """A pair of shims at a place along the wall, mm."""

    at: float
    height: float
    joint: bool
    """Whether two modules, or two lengths of plinth, meet there."""


class Scribe(Frozen):
    """How much is cut off the lower edge of a plinth at a place along the wall, mm."""

    at: float
    off: float


class Foot(Frozen):
    """The feet of a module at a place along the wall, mm, and how far they are turned out beyond the shortest, in turns."""

    at: float
    turns: float


class FillerCut(Frozen):
    """A filler as four corners: its width at the foot and at the top, and its height, mm. `scribed` where the wall wanders
    by more than caulk hides.
    """

    part: str
    side: str
    foot: float
    top: float
    height: float
    scribed: bool


class BasePlan(Frozen):
    """The base of one wall; `known` is False where the floor was not read, and then nothing is told of it."""

    section: str
    start: float
    end: float
    known: bool
    highest: float = 0
    out_by: float = 0
    packing: tuple[Packing, ...] = ()
    plinth: tuple[float, ...] = ()
    """Lengths from the left; every joint lies where two modules meet."""
    scribe: tuple[Scribe, ...] = ()
    feet: tuple[Foot, ...] = ()
    fillers: tuple[FillerCut, ...] = ()


def base_plan(design: Design, survey: Survey, envelope: Envelope, section: str, stock: float = 0) -> BasePlan | None:
    """How what stands on a base in a section is brought to level; None where nothing does. `stock` is the longest plinth
    sold or carried, mm; 0 takes the usual.
    """
    parts = sorted((p for p in design.parts if p.section in ("", section) and p.role in ("plinth", "legs")),
                   key=lambda p: p.x)  # fmt: skip
    if not parts:
        return None
    start, end = float(parts[0].x), float(max(p.x + p.w for p in parts))
    fillers = tuple(
        _filler(p, envelope, start) for p in design.parts if p.section in ("", section) and p.role == "filler"
    )
    base = level_base(survey, section)
    joints = sorted({float(b.x) for a, b in pairwise(parts)})
    lengths = plinth_lengths([start, *joints, end], stock or value("survey.plinth_stock"))
    lengths = lengths if parts[0].role == "plinth" else ()
    if base is None:
        return BasePlan(section=section, start=start, end=end, known=False, plinth=lengths, fillers=fillers)
    low = min(_under(base, start, end))
    packing = tuple(Packing(at=x, height=base.shim_at(x) - low, joint=x in joints) for x in _every(start, end, joints))
    highest = min(packing, key=lambda p: p.height).at
    feet = tuple(Foot(at=x, turns=(base.shim_at(x) - low) / work("foot_thread"))
                 for p in parts if p.role == "legs" for x in (float(p.x), float(p.x + p.w)))  # fmt: skip
    out_by = max(_under(base, start, end)) - low
    scribe = scribe_line(base, start, end) if lengths and out_by > work("scribe_from") else ()
    return BasePlan(section=section, start=start, end=end, known=True, highest=highest, out_by=out_by, packing=packing,
                    plinth=lengths, scribe=scribe, feet=feet, fillers=fillers)  # fmt: skip


def _under(base: LevelBase, start: float, end: float) -> list[float]:
    """How much lower the floor is than its highest point, at the ends of a stretch and wherever it was read there."""
    return [base.shim_at(start), base.shim_at(end), *(s.height for s in base.shims if start < s.at < end)]


def _every(start: float, end: float, joints: list[float]) -> list[float]:
    """Both ends, every joint, and between them not further apart than the table says, evenly."""
    most, places = work("shim_every"), [start, *joints, end]
    found = [start]
    for a, b in pairwise(places):
        parts = max(1, ceil((b - a) / most))
        found += [a + (b - a) * n / parts for n in range(1, parts)] + [b]
    return found


def plinth_lengths(joints: list[float], stock: float) -> tuple[float, ...]:
    """The fewest lengths no longer than the stock that meet only at `joints` (ascending, ends and all), each as long as the
    stock lets it. A module longer than the stock is parted in it, evenly: a support goes under that joint.

    >>> plinth_lengths([0, 900, 1800, 2700, 3600], 2400)
    (1800, 1800)
    """
    found: list[float] = []
    at = joints[0]
    while at < joints[-1]:
        reach = [x for x in joints if at < x <= at + stock]
        if reach:
            found.append(reach[-1] - at)
            at = reach[-1]
            continue
        to = next(x for x in joints if x > at)
        pieces = ceil((to - at) / stock)
        found += [(to - at) / pieces] * pieces
        at = to
    return tuple(found)


def scribe_line(base: LevelBase, start: float, end: float) -> tuple[Scribe, ...]:
    """What is cut off a plinth so that it stands level on the floor as it is: nothing at the lowest point, most at the
    highest; at both ends and every so many millimetres between.
    """
    deepest, step = max(_under(base, start, end)), work("scribe_every")
    count = int((end - start) // step)
    places = [start + n * step for n in range(count + 1)] + ([end] if start + count * step < end else [])
    return tuple(Scribe(at=x, off=deepest - base.shim_at(x)) for x in places)


def _filler(part: Part, envelope: Envelope, start: float) -> FillerCut:
    """Between a module and its wall: as wide at each height as the wall is away there."""
    left = part.x + part.w <= start + 1

    def wide(z: float) -> float:
        a, b = envelope.walls(z, z)
        return float(part.x + part.w - a if left else b - part.x)

    foot, top = wide(part.z), wide(part.z + part.h)
    return FillerCut(part=part.id, side="left" if left else "right", foot=foot, top=top, height=float(part.h),
                     scribed=abs(foot - top) > work("scribe_from"))  # fmt: skip
