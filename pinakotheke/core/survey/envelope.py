"""The clear region of one section of a space, derived from its readings.

Axes: x from the left end of the wall, y out from it, z up from the floor, whole millimetres, rounded toward
safety: clear sizes down, closed regions outward. A rigid part that spans a range of heights must pass the least
width read at, or next to, those heights. A region that only *touches* a closed one does not meet it. What was not
read yet is doubted: the clear sizes shrink by the doubt, and grow again as readings come.
"""

from math import ceil, floor

from ..base import Frozen, Why
from ..errors import SpaceTooSmall, SurveyIncomplete
from ..house import HouseRules
from ..tables import entry, value
from .closed import ClosedRegion, Extent, ceiling_points, closed_regions
from .doubts import Doubt, doubts
from .level import Lean, leans
from .models import Section, Stack, Survey
from .slots import Slot, Uncertain, missing, uncertain
from .square import Squareness, fitted_depth, squareness

LEVEL_AT = {"low": 0.05, "middle": 0.5, "high": 0.95}
"""Height at which a width is read, as a share of the ceiling height; common practice."""


class LevelWidth(Frozen):
    """The least width read at one height, and the least read there at the back wall."""

    z: float
    width: float
    back: float


class Envelope(Frozen):
    """Where parts may stand. `x_from`..`x_to`, `y_from`..`y_to` and `z_to` bound a part of full height."""

    section: str = ""
    allowance: float
    left_allowance: float
    right_allowance: float
    x_from: int
    x_to: int
    y_from: int
    y_to: int
    z_to: int
    width: float
    depth: float
    height: float
    levels: tuple[LevelWidth, ...]
    square: Squareness
    lean: Lean
    uncertain: Uncertain
    skirting_height: int
    skirting_thickness: int
    pull_from: int
    pull_to: int
    opening_width: float
    opening_height: float
    door_gap: int = 0
    """How far behind the front boards end that are cut to the depth, so that a door closes before them, mm."""
    closed: tuple[ClosedRegion, ...]
    stack: Stack | None = None
    """What is known of shelves that are there and move on their holes."""
    doubts: tuple[Doubt, ...]
    missing: tuple[Slot, ...]
    why_width: Why

    def clear_width(self, z0: float, z1: float) -> float:
        """The least width read at or next to the heights z0..z1, before any allowance."""
        return min(lv.width for lv in self._beside(z0, z1))

    def _beside(self, z0: float, z1: float) -> list[LevelWidth]:
        below = [lv for lv in self.levels if lv.z <= z0]
        above = [lv for lv in self.levels if lv.z >= z1]
        first = below[-1].z if below else self.levels[0].z
        last = above[0].z if above else self.levels[-1].z
        return [lv for lv in self.levels if first <= lv.z <= last]

    def span(self, z0: float, z1: float) -> tuple[int, int]:
        """x range in which a part from z0 to z1 may stand, at its full depth: allowances, skirting, walls out of
        square or out of plumb and what is still uncertain taken off.
        """
        return self._between(z0, z1, self.left_allowance, self.right_allowance)

    def walls(self, z0: float, z1: float) -> tuple[int, int]:
        """x range from wall to wall at the heights z0..z1, as it is for what is cut to the wall: without allowances."""
        return self._between(z0, z1, 0, 0)

    def _between(self, z0: float, z1: float, left: float, right: float) -> tuple[int, int]:
        beside = self._beside(z0, z1)
        if z0 < self.skirting_height:
            left = max(left, self.skirting_thickness) if self.left_allowance else 0
            right = max(right, self.skirting_thickness) if self.right_allowance else 0
        comes_in = max(self.square.left_lean, 0.0) + self.lean.left
        wall = min(lv.back for lv in beside) - max(self.square.right_lean, 0.0) - self.lean.right
        # A part as wide as the least width may still be shifted where both walls lean the same way.
        wall = min(wall, comes_in + min(lv.width for lv in beside))
        return ceil(comes_in + left), floor(wall - right - self.uncertain.width)

    def closes(self, x0: float, x1: float, y0: float, y1: float, z0: float, z1: float) -> tuple[str, ...]:
        """Why a box may not stand there: the walls it passes and the regions it meets; empty where it may."""
        reasons = []
        a, b = self.span(z0, z1)
        if x0 < a or x1 > b:
            reasons.append("the side walls")
        if y0 < self.y_from or y1 > self.y_to:
            reasons.append("the back wall" if y0 < self.y_from else "the depth")
        if z0 < 0 or z1 > self.z_to:
            reasons.append("floor or ceiling")
        reasons += [c.why for c in self.closed if c.meets(x0, x1, y0, y1, z0, z1)]
        return tuple(dict.fromkeys(reasons))


def envelope(survey: Survey, rules: HouseRules, section_id: str = "") -> Envelope:
    """Derive the clear region of a section, the main one for an empty id.

    Raises `SurveyIncomplete` without a width, a height and (where parts fill the depth) a depth, `SpaceTooSmall`
    when allowances leave nothing. One reading of each already gives an envelope.
    """
    section = survey.section(section_id)
    one = survey.only(section.id)
    width, height, depth = one.least("width"), _height(survey, one, section), fitted_depth(survey, section.id)
    if width is None or height is None or depth is None:
        wanted = (("a width", width), ("a height", height), ("a depth", depth))
        raise SurveyIncomplete("survey.incomplete", missing=tuple(name for name, got in wanted if got is None))
    skirting_height, skirting_thickness = _skirting(one)
    lean = leans(survey, section.id)
    loose = uncertain(survey, section.id)
    left, right, front = _allowances(section, rules)
    pull_from, pull_to, opening_width = _pull_out_zone(one, width)
    result = Envelope(
        section=section.id,
        allowance=front,
        left_allowance=left,
        right_allowance=right,
        x_from=0,
        x_to=0,
        y_from=ceil(skirting_thickness + lean.back),
        y_to=floor(depth - loose.depth),
        z_to=floor(height - loose.height - _liner(one, section)),
        width=width,
        depth=depth,
        height=height,
        levels=_levels(one, height),
        square=squareness(survey, section.id),
        lean=lean,
        uncertain=loose,
        skirting_height=skirting_height,
        skirting_thickness=skirting_thickness,
        pull_from=pull_from,
        pull_to=pull_to,
        opening_width=opening_width,
        opening_height=one.least("opening height") or height,
        door_gap=int(value("survey.door_gap")) if _closes_before(survey) else 0,
        closed=closed_regions(survey, section, Extent(width=width, depth=depth, height=height)),
        stack=section.stack,
        doubts=doubts(survey, section.id),
        missing=missing(survey, section.id),
        why_width=_why_width(width, rules, front, skirting_thickness, loose),
    )
    x_from, x_to = result.span(0, height)
    for size, have in (("width", x_to - x_from), ("depth", result.y_to - result.y_from), ("height", result.z_to)):
        if have <= 0:
            raise SpaceTooSmall("survey.too-small", size=size, have=have)
    return result.model_copy(update={"x_from": x_from, "x_to": x_to})


def _closes_before(survey: Survey) -> bool:
    """Whether a leaf closes right before what stands there."""
    return survey.has_opening and survey.door.kind not in ("none", "curtain")


def envelopes(survey: Survey, rules: HouseRules) -> dict[str, Envelope]:
    """The clear region of every section that has enough readings."""
    found = {}
    for section in survey.parts:
        try:
            found[section.id] = envelope(survey, rules, section.id)
        except (SurveyIncomplete, SpaceTooSmall):
            continue
    return found


def _height(survey: Survey, one: Survey, section: Section) -> float | None:
    """The least height read; under a slope the greatest height of the ceiling, which the slope's regions close."""
    sloped = [h for _, h in ceiling_points(survey, section)] if section.slope != "none" else []
    if sloped:
        return max(sloped)
    return one.least("height")


def _allowances(section: Section, rules: HouseRules) -> tuple[float, float, float]:
    """Free millimetres at the left, at the right, and of the school: an insert needs its play, an open end none."""
    if not section.at_wall:
        play = value("survey.insert_play") / 2
        return play, play, play
    allowance = rules.fit_allowance
    return (allowance if section.left == "wall" else 0.0, allowance if section.right == "wall" else 0.0, allowance)


def _why_width(width: float, rules: HouseRules, allowance: float, skirting: float, loose: Uncertain) -> Why:
    rule = entry("fit.every_inch" if rules.fit == "every-inch" else "fit.easy")
    values = (("least width read", width, "mm"), ("allowance a side", allowance, "mm"), ("skirting", skirting, "mm"))
    more = (("still uncertain", loose.width, "mm"),) if loose.width else ()
    return Why(rule="clear width", values=(*values, *more), basis=rule.basis,
               source=rule.source)  # fmt: skip


def _liner(one: Survey, section: Section) -> float:
    return max(one.values("liner"), default=value("survey.liner")) if section.traits.lined else 0.0


def _levels(one: Survey, height: float) -> tuple[LevelWidth, ...]:
    """Least width per height read. A width without a level was read at one height nobody knows: it limits every
    height, and vouches for none, unless it is all there is.
    """
    anywhere = [r.value for r in one.readings if r.what == "width" and r.level is None]
    rows = []
    for level in LEVEL_AT:
        here = [r for r in one.readings if r.what == "width" and r.level == level]
        if here:
            least = min([r.value for r in here] + anywhere)
            back = min([r.value for r in here if r.face != "front"] + anywhere, default=least)
            rows.append(LevelWidth(z=LEVEL_AT[level] * height, width=least, back=back))
    if rows:
        return tuple(rows)
    return tuple(LevelWidth(z=at * height, width=min(anywhere), back=min(anywhere)) for at in LEVEL_AT.values())


def _skirting(one: Survey) -> tuple[int, int]:
    if one.skirting == "remove":
        return 0, 0
    height = max(one.values("skirting height"), default=0)
    thickness = max(one.values("skirting thickness"), default=0)
    return (ceil(height), ceil(thickness)) if thickness else (0, 0)


def _pull_out_zone(one: Survey, width: float) -> tuple[int, int, float]:
    """x range through which a drawer or tray comes out, and the clear opening width.

    Nothing that slides may stand behind a return; an open hinged door takes its hinge side of the opening.
    """
    left, right = max(one.values("left return"), default=0), max(one.values("right return"), default=0)
    opening = one.least("opening width")
    if opening is None:
        opening = max(width - left - right, 0)
    start, end = left, min(left + opening, width - right if right else left + opening)
    clear, hinge = value("fit.pull_clear"), value("fit.hinge")
    door = one.door
    if one.has_opening and (door.kind == "double hinged" or (door.kind == "hinged" and door.hinge == "left")):
        start += hinge
    if one.has_opening and (door.kind == "double hinged" or (door.kind == "hinged" and door.hinge == "right")):
        end -= hinge
    return ceil(start + clear), floor(end - clear), opening
