"""Readings and the facts around them, as they were called out; nothing here is derived."""

from typing import Annotated, Literal, Self

from pydantic import Field, StringConstraints, model_validator

from ..base import Frozen, Id, Mm, PositiveMm

What = Literal[
    "width", "height", "depth", "opening width", "opening height", "left return", "right return",
    "stud", "skirting height", "skirting thickness",
]  # fmt: skip
Level = Literal["low", "middle", "high"]
Face = Literal["back", "front"]
Side = Literal["left", "middle", "right"]
Short = Annotated[str, StringConstraints(strip_whitespace=True, max_length=200)]


class Reading(Frozen):
    """One number, where it was read, and how. For a stud, `value` is its centre from the left wall."""

    id: Id
    what: What
    level: Level | None = None
    face: Face | None = None
    side: Side | None = None
    value: PositiveMm
    called: Short = ""
    instrument: Literal["tape", "laser", "rule", "sheet"] = "tape"
    hand: Short = ""
    taken: Annotated[str, StringConstraints(max_length=40)] = ""

    @property
    def place(self) -> tuple[str | None, ...]:
        """What tells two readings of the same thing from readings of different things."""
        return (self.what, self.level, self.face, self.side)


ObstacleKind = Literal[
    "socket", "switch", "vent", "hatch", "valve", "meter", "panel", "light", "heater", "pipe", "beam", "box",
]  # fmt: skip


class Obstacle(Frozen):
    """A box on the back wall (or, for a light, under the ceiling) that parts must respect.

    `x` is its left edge from the left wall, `z` its lower edge from the floor, `projection` how far it stands out
    from the back wall, `access` the depth in front of it that must stay free of fixed parts, `keep_out` a margin
    on all its sides.
    """

    id: Id
    kind: ObstacleKind = "box"
    label: Short = ""
    x: Mm
    z: Mm
    width: PositiveMm
    height: PositiveMm
    projection: Mm = 10
    access: Mm = 0
    keep_out: Mm = 0

    @property
    def name(self) -> str:
        """Its own label, or its kind."""
        return self.label or self.kind


class Door(Frozen):
    """What closes the opening."""

    kind: Literal["none", "hinged", "double hinged", "sliding", "curtain"] = "hinged"
    hinge: Literal["left", "right"] = "left"
    swings: Literal["out", "in"] = "out"


class Survey(Frozen):
    """Everything read in one rectangular reach-in space. Readings are kept, also those that disagree."""

    readings: Annotated[tuple[Reading, ...], Field(max_length=2000)] = ()
    obstacles: Annotated[tuple[Obstacle, ...], Field(max_length=500)] = ()
    door: Door = Door()
    skirting: Literal["stand forward", "remove"] = "stand forward"
    lining: Literal["plasterboard", "masonry", "timber", "unknown"] = "plasterboard"
    note: Annotated[str, StringConstraints(max_length=2000)] = ""

    @model_validator(mode="after")
    def _ids_are_unique(self) -> Self:
        for rows in (self.readings, self.obstacles):
            ids = [row.id for row in rows]
            if len(set(ids)) != len(ids):
                raise ValueError("two rows of a survey have the same id; give each its own")
        return self

    def values(self, what: What, **place: str) -> list[float]:
        """All readings of one thing, optionally only those at a `level`, `face` or `side`."""
        return [
            r.value
            for r in self.readings
            if r.what == what and all(getattr(r, key) == wanted for key, wanted in place.items())
        ]

    def least(self, what: What, **place: str) -> float | None:
        """The least reading of one thing, or None when it was not read."""
        return min(self.values(what, **place), default=None)

    @property
    def studs(self) -> tuple[float, ...]:
        """Stud centres from the left wall, in order."""
        return tuple(sorted(self.values("stud")))
