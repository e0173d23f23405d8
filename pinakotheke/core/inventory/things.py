"""Things to be kept, grouped like with like."""

from typing import Annotated, Literal, Self, get_args

from pydantic import Field, StringConstraints, model_validator

from ..base import Frozen, Id, Name, Sides
from ..errors import Refusal
from ..house import Hazard
from ..tables import load
from .kinds import ANY_WAY, CUSTOM, KINDS, Kind, Way, Zone, kind_of

Frequency = Literal["daily", "weekly", "monthly", "seasonal", "rarely"]
Decision = Literal["keep", "move", "give away", "sell", "repair", "recycle", "bin", "undecided"]
FREQUENCIES: tuple[Frequency, ...] = get_args(Frequency)
Band = Literal["low", "easy", "high", "top"]
Unsure = Literal["", "owner", "count", "kind", "size"]
BANDS: tuple[Band, ...] = get_args(Band)
"""Heights at which things live: below the knee, between knee and eye, up to the reach, above it with a stool."""
DECISIONS: tuple[Decision, ...] = get_args(Decision)
STAYING: frozenset[Decision] = frozenset({"keep", "repair", "undecided"})
"""Decisions by which a thing still asks for room."""


def ways_of(kind: str) -> tuple[Way, ...]:
    """The ways one may ask for: what has a size of its own goes any way it can."""
    return ANY_WAY if kind == CUSTOM.id else kind_of(kind).ways


class Thing(Frozen):
    """A group: so many of one kind, whose they are, how often they are used, and what was decided about them."""

    id: Id
    name: Name
    kind: str
    count: Annotated[int, Field(ge=1, le=10_000)]
    space: str = ""
    owner: str = ""
    """A person's id; empty when it belongs to the house."""
    frequency: Frequency = "weekly"
    decision: Decision = "keep"
    way: Way | None = None
    """How the household wants it stored; None leaves it to the design."""
    size: Sides | None = None
    """Width, depth, height of one piece in mm, where it is not the kind's own."""
    mass: Annotated[float, Field(gt=0, le=500)] | None = None
    """Kilograms a piece, where it is not the kind's own."""
    note: Annotated[str, StringConstraints(max_length=500)] = ""
    label: Annotated[str, StringConstraints(strip_whitespace=True, max_length=80)] = ""
    """What it is for or when it comes out, such as *Christmas*."""
    together: Annotated[str, StringConstraints(strip_whitespace=True, max_length=40)] = ""
    """Things with the same word here are used together and want to live together."""
    pin_space: str = ""
    """The space a person chose for it; empty leaves it to the suggestion."""
    pin_band: Band | None = None
    """The height band a person chose for it."""
    container: str = ""
    """The owned container it lies in."""
    unsure: Unsure = ""
    """What a person has yet to look at: *hers* could be two people's, nobody said how many, the
    kind was guessed, or the size of one is unknown."""

    @model_validator(mode="after")
    def _is_known(self) -> Self:
        if self.kind not in KINDS:
            raise Refusal("thing.no-kind", kind=self.kind, known=KINDS)
        if self.kind == "custom" and self.size is None:
            raise Refusal("thing.no-size")
        if self.way is not None and self.way not in ways_of(self.kind):
            raise Refusal("thing.not-stored-so", one=kind_of(self.kind).one, way=self.way)
        return self

    @property
    def row(self) -> Kind:
        """Its row in the table of kinds."""
        return kind_of(self.kind)

    @property
    def zone(self) -> Zone | None:
        """Where such things usually live."""
        return self.row.zone

    @property
    def hazards(self) -> tuple[Hazard, ...]:
        """What it can do to people."""
        return self.row.hazards

    @property
    def stays(self) -> bool:
        """Whether it asks for room: what leaves no longer counts; what is undecided still does."""
        return self.decision in STAYING

    @property
    def piece_mass(self) -> float:
        """Kilograms a piece."""
        return self.mass if self.mass is not None else self.row.mass


def uses_a_month(frequency: Frequency) -> float:
    """How often a thing of this frequency is taken out in a month; common practice."""
    return float(load("schools")["frequency"][frequency]["uses_a_month"])
