"""Readings and the facts around them, as they were called out; nothing here is derived."""

from functools import cache
from typing import Annotated, Any, Literal, Self, get_args

from pydantic import (
    AfterValidator,
    Field,
    StringConstraints,
    ValidationInfo,
    WithJsonSchema,
    field_validator,
    model_validator,
)

from ..base import LONGEST_MM, AtMost, Frozen, Id, Mm, PositiveMm
from ..errors import NotHere, Refusal
from ..tables import load
from .sections import SectionKind, known_kind, section_kinds

SpaceKind = Literal[
    "reach-in closet", "recess", "wall", "walk-in L", "walk-in U", "under a stair", "under a roof",
    "utility cupboard", "fixed shelves", "drawer", "chest of drawers", "garage bay", "shed",
]  # fmt: skip
What = Literal[
    "width", "height", "depth", "diagonal", "corner diagonal", "opening width", "opening height", "left return",
    "right return", "passage", "stud", "skirting height", "skirting thickness", "ceiling", "fall", "plumb", "bow",
    "shelf height", "opens", "overhang", "liner",
]  # fmt: skip
Level = Literal["low", "middle", "high"]
Face = Literal["back", "front"]
Side = Literal["left", "middle", "right"]
Short = Annotated[str, StringConstraints(strip_whitespace=True, max_length=200)]
Signed = Annotated[float, Field(ge=-LONGEST_MM, le=LONGEST_MM)]
Instrument = Literal["tape", "laser", "level", "stud finder", "rule", "sheet"]

SIGNED: frozenset[What] = frozenset({"plumb", "bow"})
"""Readings that may be negative: a wall leans toward the room (+) or away (−)."""
ZERO_ALLOWED: frozenset[What] = frozenset({"fall", "plumb", "bow", "ceiling", "overhang", "shelf height"})
"""Readings of which 0 says something; 0 of any other is a slip."""

Place = tuple[str, str, str | None, str | None, str | None, float | None, float | None]
FIRST = "A"
"""Section a reading belongs to when none is named."""


class Reading(Frozen):
    """One number, where it was read, and how.

    `at` is the distance along the wall from its left end and `out` the distance out from the wall, for readings
    taken at a point (fall, ceiling, bow, corner diagonal). For a stud, `value` is its centre from the left end.
    """

    id: Id
    section: Id = FIRST
    what: What
    level: Level | None = None
    face: Face | None = None
    side: Side | None = None
    at: Mm | None = None
    out: Mm | None = None
    value: Signed
    called: Short = ""
    instrument: Instrument = "tape"
    hand: Short = ""
    taken: Annotated[str, StringConstraints(max_length=40)] = ""

    @field_validator("value")
    @classmethod
    def _suits_what_is_read(cls, value: float, info: ValidationInfo) -> float:
        what = info.data.get("what", "a reading")
        if value < 0 and what not in SIGNED:
            raise Refusal("survey.negative", what=what)
        if value == 0 and what not in ZERO_ALLOWED:
            raise Refusal("survey.nought", what=what)
        return value

    @property
    def place(self) -> Place:
        """What tells two readings of the same thing from readings of different things."""
        return (self.section, self.what, self.level, self.face, self.side, self.at, self.out)


ObstacleKind = Literal[
    "socket", "switch", "vent", "hatch", "attic hatch", "valve", "meter", "panel", "light", "heater", "radiator",
    "boiler", "water heater", "pipe", "soil pipe", "cable", "beam", "window", "door", "skirting", "box",
]  # fmt: skip


class Obstacle(Frozen):
    """A box that parts must respect, in the coordinates of its section.

    `x` is its left edge from the left end of the wall, `z` its lower edge from the floor, `y` its distance from the
    wall (0 for what is mounted on it), `projection` its depth outward from there. `access` is the depth in front of
    it that must stay free, `keep_out` a margin on all its sides, `swing` the leaf that opens into the space.
    """

    id: Id
    section: Id = FIRST
    kind: ObstacleKind = "box"
    label: Short = ""
    x: Mm
    z: Mm
    width: PositiveMm
    height: PositiveMm
    y: Mm = 0
    projection: Mm = 10
    access: Mm = 0
    keep_out: Mm = 0
    swing: Mm = 0
    loose: bool = False
    """Whether a loose thing (a basket, a trolley) may stand in its access zone."""

    @property
    def name(self) -> str:
        """Its own label, or its kind."""
        return self.label or self.kind


class Door(Frozen):
    """What closes the opening."""

    kind: Literal["none", "hinged", "double hinged", "sliding", "curtain"] = "hinged"
    hinge: Literal["left", "right"] = "left"
    swings: Literal["out", "in"] = "out"


class Car(Frozen):
    """A parked car, seen from the door: `x` from the left wall, `gap` from the back wall, doors open by `doors`."""

    length: PositiveMm
    width: PositiveMm
    height: PositiveMm
    x: Mm
    gap: Mm
    doors: Mm = 700


class OverheadDoor(Frozen):
    """A garage door: `track` is the height of the lowest thing overhead, `reach` how far it comes into the bay."""

    kind: Literal["sectional", "up-and-over"]
    track: PositiveMm
    reach: PositiveMm


class Stack(Frozen):
    """Shelves that are there and lie on pins: `shelves` of them, `board` thick, on holes at `pitch`, one of which is
    `anchor` above the stack's foot; mm.
    """

    pitch: Annotated[int, Field(ge=5, le=200)]
    shelves: Annotated[int, Field(ge=1, le=40)]
    board: Annotated[int, Field(ge=1, le=60)]
    anchor: Annotated[int, Field(ge=1, le=LONGEST_MM)]


class Section(Frozen):
    """One stretch of the space that is fitted by itself: a run of wall, a shelf level, a drawer, a door back, a void.

    Runs are listed clockwise as one stands inside: the right end of one meets the left end of the next. `corner`
    says who fills the corner at the right end. `depth` is how far out parts of a run are planned to come, where
    the room is deeper. `within` is the section it lies in. Of a level, `movable` says that its shelf lies on pins, and
    `holes` how far the holes are apart; a *stack* is what such levels make together (`stacks`), never named by hand.
    """

    id: Id
    kind: Annotated[str, AfterValidator(known_kind), WithJsonSchema({"enum": [*section_kinds()]})] = "run"
    name: Short = ""
    left: Literal["wall", "open"] = "wall"
    right: Literal["wall", "open"] = "wall"
    corner: Literal["none", "mine", "theirs"] = "none"
    slope: Literal["none", "along", "toward back"] = "none"
    depth: PositiveMm | None = None
    movable: bool = False
    holes: Annotated[float, Field(ge=5, le=200)] | None = None
    stack: Stack | None = None
    within: Id | None = None

    @property
    def label(self) -> str:
        """Its name, or what people call it: `wall B`, `drawer 2`."""
        return self.name or f"{self.traits.called} {self.id.rpartition('-')[2]}"

    @property
    def traits(self) -> SectionKind:
        """What its kind is."""
        return section_kinds()[self.kind]

    @property
    def at_wall(self) -> bool:
        """Whether it is a run of wall, fitted from floor to ceiling, and not a place in a piece of furniture."""
        return self.traits.at_wall


@cache
def _sections_of(kind: str) -> tuple[Section, ...]:
    return tuple(Section.model_validate(row) for row in load("spaces")[kind]["sections"])


class Survey(Frozen):
    """Everything read in one space. Readings are kept, also those that disagree."""

    kind: SpaceKind = "reach-in closet"
    sections: Annotated[tuple[Section, ...], AtMost(40)] = ()
    """Empty stands for those its kind usually has."""
    readings: Annotated[tuple[Reading, ...], AtMost(2000)] = ()
    obstacles: Annotated[tuple[Obstacle, ...], AtMost(500)] = ()
    door: Door = Door()
    car: Car | None = None
    overhead: OverheadDoor | None = None
    skirting: Literal["stand forward", "remove"] = "stand forward"
    lining: Literal["plasterboard", "masonry", "timber", "unknown"] = "plasterboard"
    damp: bool = False
    note: Annotated[str, StringConstraints(max_length=2000)] = ""

    @model_validator(mode="after")
    def _hangs_together(self) -> Self:
        known = {s.id for s in self.parts}
        for ids in ([r.id for r in self.readings], [o.id for o in self.obstacles], [s.id for s in self.parts]):
            if len(set(ids)) != len(ids):
                raise Refusal("survey.double-id")
        placed: tuple[Reading | Obstacle, ...] = (*self.readings, *self.obstacles)
        for row in placed:
            if row.section not in known:
                raise Refusal("survey.no-section", id=row.id, section=row.section, known=sorted(known))
        for section in self.parts:
            if section.within is not None and section.within not in known:
                raise Refusal("survey.not-within", section=section.id, within=section.within)
        return self

    @property
    def parts(self) -> tuple[Section, ...]:
        """Its sections, those its kind usually has when none are named."""
        return self.sections or _sections_of(self.kind)

    @property
    def runs(self) -> tuple[Section, ...]:
        """The stretches of wall, clockwise."""
        return tuple(s for s in self.parts if s.at_wall)

    @property
    def main(self) -> Section:
        """The section drawn and fitted first: the back wall of a U, else the first."""
        return self.runs[1] if len(self.runs) == 3 else self.parts[0]

    @property
    def is_open_fronted(self) -> bool:
        """Whether one stands inside it, so that its runs leave a passage rather than fill its depth."""
        return len(self.runs) > 1 or bool(load("spaces")[self.kind].get("room"))

    @property
    def has_opening(self) -> bool:
        """Whether one reaches in through an opening with returns."""
        return bool(load("spaces")[self.kind].get("opening")) or bool(self.values("opening width"))

    @property
    def feet(self) -> dict[str, int]:
        """Height above the floor of every section in a piece of furniture, mm."""
        return {
            s.id: int(max(self.values("shelf height", section=s.id), default=0.0)) for s in self.parts if not s.at_wall
        }

    def section(self, section_id: str = "") -> Section:
        """The section with this id, the main one for an empty id; `NotHere` names those there are."""
        if not section_id:
            return self.main
        for section in self.parts:
            if section.id == section_id:
                return section
        raise NotHere("survey.unknown-section", section=section_id, known=[s.id for s in self.parts])

    def only(self, section_id: str = "") -> "Survey":
        """The same survey with the readings and obstacles of one section."""
        wanted = self.section(section_id).id
        if len(self.parts) == 1:
            return self
        return self.model_copy(
            update={
                "readings": tuple(r for r in self.readings if r.section == wanted),
                "obstacles": tuple(o for o in self.obstacles if o.section == wanted),
            }
        )

    def values(self, what: What, **place: Any) -> list[float]:
        """All readings of one thing, optionally only those at a `section`, `level`, `face` or `side`."""
        return [
            r.value
            for r in self.readings
            if r.what == what and all(getattr(r, key) == wanted for key, wanted in place.items())
        ]

    def least(self, what: What, **place: Any) -> float | None:
        """The least reading of one thing, or None when it was not read."""
        return min(self.values(what, **place), default=None)

    def points(self, what: What) -> list[Reading]:
        """Readings of one thing taken at a point along the wall, from left to right."""
        return sorted((r for r in self.readings if r.what == what and r.at is not None), key=lambda r: r.at or 0)

    @property
    def studs(self) -> tuple[float, ...]:
        """Stud centres from the left end of the wall, in order."""
        return tuple(sorted(self.values("stud")))


SPACE_KINDS: tuple[SpaceKind, ...] = get_args(SpaceKind)
OBSTACLE_KINDS: tuple[ObstacleKind, ...] = get_args(ObstacleKind)
