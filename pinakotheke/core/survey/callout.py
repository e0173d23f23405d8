"""The call-out line: readings as people with a tape call them to each other.

    width 1846 1849 1843            low, middle, high at the back wall
    front width 1840 1838 1839      the same, just behind the returns
    low back width 1846             one reading, its place in any order
    low back width 1846 not 1864    a correction: the wrong one is taken back
    height 2412 2408 2415           left, middle, right
    depth 612 618                   left, right
    opening 1250 x 2030             width by height; `opening width 1250` and `opening height 2030` alone
    left nib 290                    or `left return`; `nibs 290 306` for both
    diagonals 1952 1944             from the left and from the right back corner
    corner 900 x 1200 diagonal 1497 where this wall meets the next; `corner mine` or `corner theirs`: who fills it
    left end open                   or `right end wall`: where a stretch of wall stops
    floor 0 4 9 17                  below the level line, spread evenly; `floor 9 at 1200`, `front floor 4 at 0`
    plumb left 4; plumb back -3     + leans into the space, − away; `bow 6` for the middle of the back wall
    ceiling 2400 at 0, 1100 at 2100 a slope; `slope along`, `slope toward back`
    studs 112 then every 600        or `studs 112 712 1312`, `stud 1490`
    skirting 90 x 15                height by thickness; `no skirting`
    passage 900                     the narrowest on the way in
    socket at 640, 300 up, 80 x 80  left edge, lower edge, width by height; then `out 12`, `off 200`, `access 150`,
                                    `clear 50`, `swing 600`, `called stopcock`
    door hinged left                none, hinged right, double, sliding, curtain; `swings in`
    opens 340; overhang 20          a drawer; `liner 2`; `shelf 820 up`, `shelf movable every 32` for a shelf level
    car 4300 x 1790 x 1480 at 900, 500 from the back, doors 700
    overhead door sectional, track 2150, reach 2600
    B: width 2100                   a section first: `wall B …`, `drawer 2 …`, `level 3 …`; it holds until another
    new drawer, new level, new wall, new door back, new void

Clauses are parted by `;`, a new line, or a comma before the next name. Words come in any order; what is not
understood is said, with the mend, and the rest of the line is still heard.
"""

import re

from ..errors import Refusal, told
from ..saying import in_inches
from ..units import Units
from . import vocabulary as sizes
from . import vocabulary_facts as facts
from .ear import Ear, Reader
from .heard import Heard, Misheard, keep
from .models import Survey

GRAMMAR = (__doc__ or "").strip()
"""The grammar as people read it: in the application, and in `docs/call-outs.md`."""
GRAMMAR_IN_INCHES = in_inches(GRAMMAR)

EXAMPLES = (
    "width 1846 1849 1843", "low back width 1846 not 1864", "height 2412 2408 2415", "depth 612 618",
    "opening 1250 x 2030", "left nib 290", "diagonals 1952 1944", "floor 0 4 9 17", "plumb left 4",
    "studs 112 then every 600", "skirting 90 x 15", "socket at 640, 300 up, 80 x 80", "door hinged left",
)  # fmt: skip
"""For a plain closet; `examples_for` adds what a kind of space needs besides."""

_MORE: dict[str, tuple[str, ...]] = {
    "walk-in L": ("B: width 2100 2104 2098", "corner 900 x 1200 diagonal 1497"),
    "walk-in U": ("B: width 2100 2104 2098", "corner 900 x 1200 diagonal 1497"),
    "under a stair": ("ceiling 2300 at 0, 1050 at 2400", "slope along"),
    "under a roof": ("ceiling 1100 at 0, 2150 at 600", "slope toward back"),
    "fixed shelves": ("level 2: width 780 782", "shelf 820 up", "new level"),
    "drawer": ("width 412 413", "opens 340", "overhang 20"),
    "chest of drawers": ("drawer 2: width 412 413", "opens 340", "overhang 20", "new drawer"),
    "garage bay": (
        "car 4300 x 1790 x 1480 at 900, 500 from the back, doors 700",
        "overhead door sectional, track 2150, reach 2600",
    ),
    "utility cupboard": ("boiler at 300, 1200 up, 440 x 700, out 360", "valve at 80, 300 up, 60 x 60, called stopcock"),
}  # fmt: skip


def examples_for(survey: Survey, units: Units = "metric") -> tuple[str, ...]:
    """What may be said in this kind of space, its own words first, in the household's units."""
    inside = ("height 96 95", "depth 480 478")
    found = (*_MORE.get(survey.kind, ()), *(EXAMPLES if survey.main.at_wall else inside))
    return found if units == "metric" else tuple(in_inches(line) for line in found)


READERS: tuple[tuple[frozenset[str], Reader], ...] = tuple(
    (frozenset(words), reader)
    for words, reader in (
        ({"new"}, facts.new_section),
        ({"overhead"}, facts.overhead),
        ({"car"}, facts.car),
        ({"overhang"}, sizes.plain("overhang")),
        ({"opens"}, sizes.plain("opens")),
        ({"liner"}, sizes.plain("liner")),
        ({"shelf"}, facts.shelf),
        ({"slope"}, facts.slope),
        ({"mine", "theirs", "owns", "yields"}, facts.corner_owner),
        ({"end"}, facts.end),
        ({"damp", "dry"}, facts.damp),
        ({"masonry", "plasterboard", "timber", "lining"}, facts.lining),
        ({"passage"}, sizes.plain("passage")),
        ({"opening"}, sizes.opening),
        ({"return", "returns"}, sizes.returns),
        (facts.OBSTACLES, facts.obstacle),
        ({"skirting"}, facts.skirting),
        ({"door", "doors", "curtain"}, facts.door),
        ({"stud", "studs"}, sizes.studs),
        ({"corner"}, sizes.corner),
        ({"diagonal", "diagonals"}, sizes.diagonal),
        ({"floor", "fall", "falls"}, sizes.floor),
        ({"plumb"}, sizes.plumb),
        ({"bow", "hollow"}, sizes.bow),
        ({"ceiling", "ceilings"}, sizes.ceiling),
        ({"width", "widths", "wide"}, sizes.width),
        ({"height", "heights", "high"}, sizes.height),
        ({"depth", "depths", "deep"}, sizes.depth),
    )
)
"""The first reader one of whose words is said understands the clause."""

_NAMES = (
    r"widths?|heights?|depths?|openings?|nibs?|returns?|diagonals?|corner|floor|plumb|bow|ceiling|studs?|skirting|"
    r"passage|door|opens|overhang|liner|shelf"
)
_PARTED = re.compile(rf"[;\n]|(?<=\d)\s*,\s*(?=(?:(?:low|middle|high|back|front|left|right)\s+){{0,3}}(?:{_NAMES})\b)")


def hear(line: str, survey: Survey, units: Units, *, section: str = "", hand: str = "", taken: str = "",
         instrument: str = "tape") -> Heard:  # fmt: skip
    """Understand a call-out line against the survey so far (it numbers new rows and knows the width).

    `section` is where the speaker stands; a section said in the line goes before it.
    """
    ear = Ear(survey, units, READERS, section=section, hand=hand, taken=taken, instrument=instrument)
    understood, misheard = [], []
    for clause in (c.strip() for c in _PARTED.split(line)):
        if not clause:
            continue
        try:
            call = ear.clause(clause)
            if call is not None:
                understood.append(call)
                ear.survey = keep(call, ear.survey)
        except ValueError as error:
            problem, mend = told(error, units)
            misheard.append(Misheard(said=clause, problem=problem, mend=mend or Refusal("call.again").mend))
    return Heard(understood=tuple(understood), misheard=tuple(misheard))
