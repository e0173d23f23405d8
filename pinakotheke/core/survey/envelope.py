"""The clear region of a reach-in space, derived from its readings.

Axes: x from the left wall, y out from the back wall, z up from the floor, whole millimetres, rounded toward
safety: clear sizes down, closed regions outward. A rigid part that spans a range of heights must pass the least
width read at, or next to, those heights. A region that only *touches* a closed one does not meet it.
"""

from math import ceil, floor

from ..base import Frozen, Why
from ..errors import SpaceTooSmall, SurveyIncomplete
from ..house import HouseRules
from ..tables import entry, value
from .models import Obstacle, Survey
from .slots import Doubt, Slot, doubts, missing

LEVEL_AT = {"low": 0.05, "middle": 0.5, "high": 0.95}
"""Height at which a width is read, as a share of the ceiling height; common practice."""


class ClosedRegion(Frozen):
    """A box no fixed part may enter; `why` says what for."""

    x0: int
    x1: int
    y0: int
    y1: int
    z0: int
    z1: int
    obstacle: str
    why: str

    def meets(self, x0: float, x1: float, y0: float, y1: float, z0: float, z1: float) -> bool:
        """Whether a box overlaps it; touching does not count."""
        return self.x0 < x1 and x0 < self.x1 and self.y0 < y1 and y0 < self.y1 and self.z0 < z1 and z0 < self.z1


class LevelWidth(Frozen):
    """The least width read at one height."""

    z: float
    width: float


class Envelope(Frozen):
    """Where parts may stand. `x_from`..`x_to`, `y_from`..`y_to` and `z_to` bound a part of full height."""

    allowance: float
    x_from: int
    x_to: int
    y_from: int
    y_to: int
    z_to: int
    width: float
    depth: float
    height: float
    levels: tuple[LevelWidth, ...]
    skirting_height: int
    skirting_thickness: int
    pull_from: int
    pull_to: int
    opening_width: float
    opening_height: float
    closed: tuple[ClosedRegion, ...]
    doubts: tuple[Doubt, ...]
    missing: tuple[Slot, ...]
    why_width: Why

    def clear_width(self, z0: float, z1: float) -> float:
        """The least width read at or next to the heights z0..z1, before any allowance."""
        below = [lv for lv in self.levels if lv.z <= z0]
        above = [lv for lv in self.levels if lv.z >= z1]
        first = below[-1].z if below else self.levels[0].z
        last = above[0].z if above else self.levels[-1].z
        return min(lv.width for lv in self.levels if first <= lv.z <= last)

    def span(self, z0: float, z1: float) -> tuple[int, int]:
        """x range in which a part from z0 to z1 may stand, allowances and skirting taken off."""
        side = self.allowance
        if z0 < self.skirting_height:
            side = max(side, self.skirting_thickness)
        return ceil(side), floor(self.clear_width(z0, z1) - side)


def envelope(survey: Survey, rules: HouseRules) -> Envelope:
    """Derive the clear region. Raises `SurveyIncomplete` without a width, a height and a depth, `SpaceTooSmall`
    when allowances leave nothing. One reading of each already gives an envelope; another of the same place only
    shrinks it.
    """
    width, height, depth = (survey.least(what) for what in ("width", "height", "depth"))
    if width is None or height is None or depth is None:
        wanted = (("a width", width), ("a height", height), ("a depth", depth))
        raise SurveyIncomplete(tuple(name for name, got in wanted if got is None))
    levels = _levels(survey, height)
    skirting_height, skirting_thickness = _skirting(survey)
    allowance = rules.fit_allowance
    side = max(allowance, skirting_thickness)
    x_from, x_to = ceil(side), floor(width - side)
    y_from, y_to, z_to = skirting_thickness, floor(depth), floor(height)
    for size, have in (("width", x_to - x_from), ("depth", y_to - y_from), ("height", z_to)):
        if have <= 0:
            raise SpaceTooSmall(size, have)
    pull_from, pull_to, opening_width = _pull_out_zone(survey, width)
    allowance_entry = entry("fit.every_inch" if rules.fit == "every-inch" else "fit.easy")
    return Envelope(
        allowance=allowance,
        x_from=x_from,
        x_to=x_to,
        y_from=y_from,
        y_to=y_to,
        z_to=z_to,
        width=width,
        depth=depth,
        height=height,
        levels=levels,
        skirting_height=skirting_height,
        skirting_thickness=skirting_thickness,
        pull_from=pull_from,
        pull_to=pull_to,
        opening_width=opening_width,
        opening_height=survey.least("opening height") or height,
        closed=tuple(_closed(o, depth) for o in survey.obstacles),
        doubts=doubts(survey),
        missing=missing(survey),
        why_width=Why(
            rule="clear width = least width read − 2 × the greater of fit allowance and skirting",
            values=(
                ("least width read", width, "mm"),
                ("fit allowance a side", allowance, "mm"),
                ("skirting", skirting_thickness, "mm"),
            ),
            basis=allowance_entry.basis,
            source=allowance_entry.source,
        ),
    )


def _levels(survey: Survey, height: float) -> tuple[LevelWidth, ...]:
    """Least width per height read. A width without a level was read at one height nobody knows: it limits every
    height, and vouches for none, unless it is all there is.
    """
    anywhere = [r.value for r in survey.readings if r.what == "width" and r.level is None]
    read = {level: survey.values("width", level=level) for level in LEVEL_AT}
    known = any(read.values())
    return tuple(
        LevelWidth(z=LEVEL_AT[level] * height, width=min(values + anywhere))
        for level, values in read.items()
        if values or not known
    )


def _skirting(survey: Survey) -> tuple[int, int]:
    if survey.skirting == "remove":
        return 0, 0
    height = max(survey.values("skirting height"), default=0)
    thickness = max(survey.values("skirting thickness"), default=0)
    return (ceil(height), ceil(thickness)) if thickness else (0, 0)


def _pull_out_zone(survey: Survey, width: float) -> tuple[int, int, float]:
    """x range through which a drawer or tray comes out, and the clear opening width.

    Nothing that slides may stand behind a return; an open hinged door takes its hinge side of the opening.
    """
    left, right = max(survey.values("left return"), default=0), max(survey.values("right return"), default=0)
    opening = survey.least("opening width")
    if opening is None:
        opening = max(width - left - right, 0)
    start, end = left, min(left + opening, width - right if right else left + opening)
    clear, hinge = value("fit.pull_clear"), value("fit.hinge")
    door = survey.door
    if door.kind == "double hinged" or (door.kind == "hinged" and door.hinge == "left"):
        start += hinge
    if door.kind == "double hinged" or (door.kind == "hinged" and door.hinge == "right"):
        end -= hinge
    return ceil(start + clear), floor(end - clear), opening


def _closed(obstacle: Obstacle, depth: float) -> ClosedRegion:
    out = obstacle.keep_out
    reach = max(obstacle.projection + out, obstacle.access)
    what = f"{obstacle.name} stands out {obstacle.projection:.0f} mm"
    if obstacle.access > obstacle.projection:
        what = f"{obstacle.name} must stay reachable {obstacle.access:.0f} mm in front"
    elif out:
        what = f"{obstacle.name} needs {out:.0f} mm clear on all sides"
    return ClosedRegion(
        x0=floor(obstacle.x - out),
        x1=ceil(obstacle.x + obstacle.width + out),
        y0=0,
        y1=ceil(min(reach, depth) if obstacle.access else reach),
        z0=floor(obstacle.z - out),
        z1=ceil(obstacle.z + obstacle.height + out),
        obstacle=obstacle.id,
        why=what,
    )
