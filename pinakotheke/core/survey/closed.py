"""What no fixed part may enter: obstacles with the access they need, slopes, the car, the overhead door, corners.

Every region is a box in the coordinates of one run, rounded outward to whole millimetres. What stands at a
neighbouring run is brought over through the plan; a turned box is replaced by the box around it, which closes more
than it must, never less.
"""

from collections.abc import Iterator
from itertools import pairwise
from math import ceil, floor

from ..base import Frozen
from ..geometry.sweeps import Sweep
from ..tables import load, value
from .models import Car, Obstacle, Section, Survey
from .motion import car_doors, door_leaves, overhead_leaf, window_leaf
from .square import Frame, fitted_depth, frames

FLAT = 19
"""What stands out from the wall no further than a cleat or a skirting, mm: a loose thing stands before it."""


class ClosedRegion(Frozen):
    """A box no fixed part may enter; `why` is the cause, by its row under `closed` in `tables/faults.toml`, `of` what
    causes it, and `length` how far it goes, mm. `loose`: a basket or a trolley may stand there; `enclosed`:
    a frame may stand round it, if all its boards pass by and nothing in it stands before it.
    """

    x0: int
    x1: int
    y0: int
    y1: int
    z0: int
    z1: int
    obstacle: str
    why: str
    of: str = ""
    length: float = 0.0
    loose: bool = False
    enclosed: bool = False

    def meets(self, x0: float, x1: float, y0: float, y1: float, z0: float, z1: float) -> bool:
        """Whether a box overlaps it; touching does not count."""
        return self.x0 < x1 and x0 < self.x1 and self.y0 < y1 and y0 < self.y1 and self.z0 < z1 and z0 < self.z1


class Extent(Frozen):
    """The block of space a run's regions lie in, mm: its length, depth and greatest height."""

    width: float
    depth: float
    height: float


def closed_regions(survey: Survey, section: Section, extent: Extent) -> tuple[ClosedRegion, ...]:
    """All regions closed to fixed parts of one section."""
    found = [r for o in survey.obstacles if o.section == section.id for r in of_obstacle(o, extent)]
    if section.at_wall:
        leaves = door_leaves(survey, section, extent.depth, extent.height)
        found += [_of_sweep(leaf, "door swings", length=leaf.x1 - leaf.x0) for leaf in leaves]
        found += _slope(survey, section, extent)
        found += _from_plan(survey, section, extent)
    return tuple(found)


def _box(x: tuple[float, float], y: tuple[float, float], z: tuple[float, float], obstacle: str, why: str,
         of: str = "", length: float = 0.0, *, loose: bool = False, enclosed: bool = False) -> ClosedRegion:  # fmt: skip
    return ClosedRegion(
        x0=floor(x[0]), x1=ceil(x[1]), y0=floor(y[0]), y1=ceil(y[1]), z0=floor(z[0]), z1=ceil(z[1]),
        obstacle=obstacle, why=why, of=of, length=length, loose=loose, enclosed=enclosed,
    )  # fmt: skip


def of_obstacle(o: Obstacle, extent: Extent) -> Iterator[ClosedRegion]:
    """The obstacle itself with its margin, and the zone in front of it (or below) that must stay reachable."""
    row, out = load("obstacles")[o.kind], o.keep_out
    front = o.y + o.projection + out
    cause, length = ("keep clear", out) if out else ("stands out", o.projection)
    x, z = (o.x - out, o.x + o.width + out), (o.z - out, o.z + o.height + out)
    back = max(o.y - out, 0.0)
    if row.get("below"):
        yield _box(x, (back, front), (0, max(extent.height, z[1])), o.id, "opens down", o.name, loose=o.loose)
        return
    enclosed = bool(row.get("enclosed"))
    # A flat plate is no further out than what is on the floor keeps from the wall.
    flat = o.loose and front <= FLAT
    yield _box(x, (back, front), z, o.id, cause, o.name, length, loose=flat, enclosed=enclosed)
    if o.access > o.projection:
        # What must be reached is reached from the front of the run, so nothing at all stands before it.
        wide = max(row.get("access_width", 0.0) - o.width, 0.0) / 2
        zone_z = (0.0, max(row["access_height"], z[1])) if "access_height" in row else z
        yield _box((x[0] - wide, x[1] + wide), (back, min(o.y + max(o.access, o.projection), max(extent.depth, front))),
                   zone_z, o.id, "reachable", o.name, o.access, loose=o.loose, enclosed=enclosed)  # fmt: skip
    leaf = window_leaf(o)
    if leaf:
        yield _of_sweep(leaf, "swings", o.name, o.swing or 0.0)


def _of_sweep(sweep: Sweep, why: str, of: str = "", length: float = 0.0) -> ClosedRegion:
    return _box((sweep.x0, sweep.x1), (sweep.y0, sweep.y1), (sweep.z0, sweep.z1), sweep.part, why, of, length)


def ceiling_points(survey: Survey, section: Section) -> list[tuple[float, float]]:
    """(Distance, height) of the ceiling as read: along the wall, or out from it where it falls toward the back."""
    along = section.slope == "along"
    by_place: dict[float, float] = {}
    for r in survey.readings:
        at = r.at if along else r.out
        if r.what == "ceiling" and r.section == section.id and at is not None:
            by_place[at] = min(r.value, by_place.get(at, r.value))
    return sorted(by_place.items())


def ceiling_at(points: list[tuple[float, float]], place: float) -> float:
    """Height of the ceiling at a place, straight between readings; beyond them as at the nearest.

    >>> ceiling_at([(0, 1000), (1000, 2000)], 500), ceiling_at([(0, 1000), (1000, 2000)], 1500)
    (1500.0, 2000)
    """
    if place <= points[0][0]:
        return points[0][1]
    for (p, h), (q, k) in pairwise(points):
        if p <= place <= q:
            return h + (k - h) * (place - p) / (q - p)
    return points[-1][1]


def _slope(survey: Survey, section: Section, extent: Extent) -> Iterator[ClosedRegion]:
    """A sloping ceiling as steps, each closed from the lowest height over its width."""
    points = ceiling_points(survey, section) if section.slope != "none" else []
    if not points:
        return
    step = value("survey.slope_step")
    along = section.slope == "along"
    reach = extent.width if along else extent.depth
    at = 0.0
    while at < reach:
        end = min(at + step, reach)
        inside = [h for p, h in points if at <= p <= end]
        low = min([ceiling_at(points, at), ceiling_at(points, end), *inside])
        if low < extent.height:
            x, y = ((at, end), (0.0, extent.depth)) if along else ((0.0, extent.width), (at, end))
            yield _box(x, y, (floor(low), ceil(extent.height)), "slope", "ceiling", length=low)
        at = end


def car_zone(car: Car) -> tuple[tuple[float, float], tuple[float, float]]:
    """What a parked car and its open doors take of the main run's plan: x and y ranges."""
    left, right = car_doors(car)
    return (left.x0, right.x1), (left.y0, left.y1)


def _from_plan(survey: Survey, section: Section, extent: Extent) -> Iterator[ClosedRegion]:
    """What comes from the rest of the plan: neighbours' obstacles, the corner they own, car and overhead door."""
    placed = {f.section: f for f in frames(survey)}
    here, main = placed[section.id], placed[survey.main.id]
    runs = survey.runs
    at = runs.index(section)
    # Walls that are neighbours meet here; the others lie across the room.
    beside = [r for r in (runs[at - 1] if at else None, runs[at + 1] if at + 1 < len(runs) else None) if r]
    for other in beside:
        for o in survey.obstacles:
            if o.section == other.id:
                for r in of_obstacle(o, extent):
                    yield from _seen(placed[other.id], here, r, extent)
    yield from _corners(survey, section, beside, at, extent)
    if survey.car:
        (x0, x1), (y0, y1) = car_zone(survey.car)
        zone = _box((x0, x1), (y0, y1), (0, survey.car.height), "car",
                    "car", length=survey.car.doors)  # fmt: skip
        yield from _seen(main, here, zone, extent)
    if survey.overhead and len(runs) == 3:
        room = max((survey.least("width", section=r.id) or 0) for r in (runs[0], runs[2]))
        leaf = overhead_leaf(survey.overhead, main.length, room, extent.height)
        zone = _of_sweep(leaf, "overhead door", survey.overhead.kind, survey.overhead.track)
        yield from _seen(main, here, zone, extent)


def _seen(there: Frame, here: Frame, r: ClosedRegion, extent: Extent) -> Iterator[ClosedRegion]:
    """A region of one run as another run meets it, if it reaches the block of space before that run."""
    corners = [here.from_plan(there.to_plan(x, y)) for x in (r.x0, r.x1) for y in (r.y0, r.y1)]
    slack = 1e-6  # a corner on the line is not across it
    x0, x1 = min(c[0] for c in corners), max(c[0] for c in corners)
    y0, y1 = min(c[1] for c in corners), max(c[1] for c in corners)
    if x1 > slack and x0 < extent.width - slack and y1 > slack and y0 < extent.depth - slack:
        yield _box((x0 + slack, x1 - slack), (max(y0, 0.0) + slack if y0 > 0 else 0.0, y1 - slack), (r.z0, r.z1),
                   r.obstacle, r.why, r.of, r.length, loose=r.loose)  # fmt: skip


def _corners(
    survey: Survey, section: Section, beside: list[Section], at: int, extent: Extent
) -> Iterator[ClosedRegion]:
    """The corner that a neighbour fills: its depth and a filler, so that doors do not meet."""
    filler = value("survey.corner_filler")
    for other in beside:
        before = survey.runs.index(other) < at
        yields = other.corner == "mine" if before else section.corner == "theirs"
        if not yields:
            continue
        deep = (fitted_depth(survey, other.id) or 0.0) + filler
        x = (0.0, deep) if before else (extent.width - deep, extent.width)
        yield _box((max(x[0], 0.0), min(x[1], extent.width)), (0.0, extent.depth), (0, extent.height), "corner",
                   "corner", other.label)  # fmt: skip
