"""Angles from diagonals, the taper they mean, and the outline of a space seen from above.

In a triangle with sides a and b and the diagonal d opposite their corner, cos(angle) = (a² + b² − d²) / 2ab (the law
of cosines; Euclid, *Elements* II.12–13). For a rectangle it is the rule of the trade: equal diagonals are square.
Plan coordinates: the main section's left end is the origin, x along its wall, y out from it into the room.
"""

from itertools import pairwise
from math import acos, cos, degrees, radians, sin, tan

from ..base import Frozen
from ..errors import Refusal
from ..tables import value
from .models import Section, Survey

Point = tuple[float, float]
RIGHT = 90.0


def corner_angle(a: float, b: float, diagonal: float) -> float:
    """Angle in degrees at the corner between sides a and b (mm) across which `diagonal` (mm) was read.

    `ValueError` when no triangle has these sides.

    >>> corner_angle(900, 1200, 1500), round(corner_angle(900, 1200, 1510), 2)
    (90.0, 90.8)
    """
    if not abs(a - b) < diagonal < a + b:
        raise Refusal("survey.no-triangle", a=a, b=b, diagonal=diagonal)
    return degrees(acos((a * a + b * b - diagonal * diagonal) / (2 * a * b)))


def lean(depth: float, angle: float) -> float:
    """How far a side wall comes in (+) or goes out (−) over a depth, in mm, when its corner has `angle` degrees.

    >>> round(lean(600, 90), 6), round(lean(600, 89)), round(lean(600, 91))
    (0.0, 10, -10)
    """
    return depth / tan(radians(angle))


class Squareness(Frozen):
    """Angles of the two back corners in degrees (None: not read) and how far each side comes in over the depth."""

    left: float | None = None
    right: float | None = None
    left_lean: float = 0
    right_lean: float = 0


def squareness(survey: Survey, section_id: str = "") -> Squareness:
    """Of one section, from its diagonals and the corner readings beside it; readings no triangle fits are left out
    (they are doubted elsewhere).

    The `left` diagonal begins in the left back corner and ends at the right front, so it closes the triangle with
    the right side wall.
    """
    section = survey.section(section_id)
    one = survey.only(section.id)
    depth = fitted_depth(survey, section.id) or 0.0
    left, right = _from_corner(survey, section, "left"), _from_corner(survey, section, "right")
    # Diagonals are read on the floor, so the width down there closes their triangle.
    width = one.least("width", level="low", face="back") or one.least("width", face="back") or one.least("width")
    for side, diagonal_side in (("right", "left"), ("left", "right")):
        diagonal = one.least("diagonal", side=diagonal_side)
        wall = one.least("depth", side=side) or one.least("depth")
        if diagonal is None or wall is None or width is None or not abs(width - wall) < diagonal < width + wall:
            continue
        angle = corner_angle(width, wall, diagonal)
        left, right = (angle, right) if side == "left" else (left, angle)
    return Squareness(
        left=left,
        right=right,
        left_lean=lean(depth, left) if left else 0,
        right_lean=lean(depth, right) if right else 0,
    )


def fitted_depth(survey: Survey, section_id: str = "") -> float | None:
    """How far out parts of a section may come, mm: the least of what was read and what is planned. A run one walks
    past keeps the usual depth when nothing is said; None where nothing is known.
    """
    section = survey.section(section_id)
    usual = value("survey.run_depth") if section.at_wall and survey.is_open_fronted else None
    known = [d for d in (survey.only(section.id).least("depth"), section.depth or usual) if d is not None]
    return min(known, default=None)


def _from_corner(survey: Survey, section: Section, end: str) -> float | None:
    """The angle of the corner a run has with its neighbour, from a corner diagonal."""
    runs = survey.runs
    if section not in runs:
        return None
    at = runs.index(section)
    owner = runs[at] if end == "right" else runs[at - 1] if at else None
    if owner is None or owner.corner == "none":
        return None
    for reading in survey.readings:
        if reading.what != "corner diagonal" or reading.section != owner.id or not reading.at or not reading.out:
            continue
        if abs(reading.at - reading.out) < reading.value < reading.at + reading.out:
            return corner_angle(reading.at, reading.out, reading.value)
    return None


class Frame(Frozen):
    """Where a run lies in the plan: its left end, the direction it runs (degrees), its length in mm."""

    section: str
    origin: Point
    turn: float
    length: float

    def to_plan(self, x: float, y: float) -> Point:
        """A point of the run (along, out) in the plan."""
        c, s = cos(radians(self.turn)), sin(radians(self.turn))
        return (self.origin[0] + x * c - y * s, self.origin[1] + x * s + y * c)

    def from_plan(self, point: Point) -> Point:
        """A point of the plan as (along, out) of the run."""
        c, s = cos(radians(self.turn)), sin(radians(self.turn))
        dx, dy = point[0] - self.origin[0], point[1] - self.origin[1]
        return (dx * c + dy * s, -dx * s + dy * c)


NOMINAL_LENGTH = 1800.0
"""Length a run is drawn with before it was read, mm."""


def frames(survey: Survey) -> tuple[Frame, ...]:
    """Every run in the plan, clockwise. Corners that were not read are taken as square."""
    runs, main = survey.runs, survey.main
    if not main.at_wall:
        return ()
    lengths = {r.id: survey.least("width", section=r.id) or NOMINAL_LENGTH for r in runs}
    at = runs.index(main)
    placed = {main.id: Frame(section=main.id, origin=(0, 0), turn=0, length=lengths[main.id])}
    for before, run in pairwise(runs[at:]):
        last = placed[before.id]
        angle = _from_corner(survey, before, "right") or RIGHT
        placed[run.id] = Frame(section=run.id, origin=last.to_plan(last.length, 0), turn=last.turn + 180 - angle,
                               length=lengths[run.id])  # fmt: skip
    for run, after in reversed(list(pairwise(runs[: at + 1]))):
        nxt = placed[after.id]
        turn = nxt.turn - 180 + (_from_corner(survey, run, "right") or RIGHT)
        back = Frame(section=run.id, origin=nxt.origin, turn=turn, length=lengths[run.id])
        placed[run.id] = back.model_copy(update={"origin": back.to_plan(-back.length, 0)})
    return tuple(placed[r.id] for r in runs)


def outline(survey: Survey) -> tuple[Point, ...]:
    """Inside corners of the space from above, clockwise as one stands inside, in mm.

    One run: back wall and two sides, each at its angle and depth. Several: their corners, closed by the straight
    line between the free ends.
    """
    placed = frames(survey)
    if not placed:
        return ()
    if len(placed) > 1:
        return (*(f.origin for f in placed), placed[-1].to_plan(placed[-1].length, 0))
    one = survey.only(placed[0].section)
    square, width = squareness(survey, placed[0].section), placed[0].length
    left_depth = one.least("depth", side="left") or one.least("depth") or 600.0
    right_depth = one.least("depth", side="right") or one.least("depth") or 600.0
    left, right = square.left or RIGHT, square.right or RIGHT
    return (
        (left_depth * cos(radians(left)), left_depth * sin(radians(left))),
        (0.0, 0.0),
        (width, 0.0),
        (width - right_depth * cos(radians(right)), right_depth * sin(radians(right))),
    )


def area(points: tuple[Point, ...]) -> float:
    """Area of a plan outline in mm² (the surveyor's formula, Meister 1769).

    >>> area(((0, 600), (0, 0), (1800, 0), (1800, 600))), area(())
    (1080000.0, 0.0)
    """
    if not points:
        return 0.0
    ends = (*points[1:], points[0])
    return abs(sum(x0 * y1 - x1 * y0 for (x0, y0), (x1, y1) in zip(points, ends, strict=True))) / 2
