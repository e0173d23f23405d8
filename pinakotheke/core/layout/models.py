"""A design and how it was obtained."""

from collections.abc import Collection, Iterator
from itertools import count
from typing import Annotated, Any, Literal, Self

from pydantic import Field, model_validator

from ..base import AtMost, Frozen, Id
from ..house import HouseRules
from ..inventory.containers import Container, containers
from ..inventory.kinds import Way
from ..survey import Envelope
from ..systems import FAMILIES, SHIPPED_ONLY, Bay, Catalogue, Family, Finish, Part, Range, Row
from .older import brought_up

Goal = Literal["cheapest", "roomiest", "reach", "quickest", "tidiest", "yours"]
GOALS: tuple[Goal, ...] = ("cheapest", "roomiest", "reach", "quickest", "tidiest")
"""Goals that are searched without being asked."""
BOUND_TOLERANCE = 1e-6
"""Relative slack when an objective is compared with its bound."""
Weight = Annotated[float, Field(ge=0, le=10)]


class Weights(Frozen):
    """What a person cares for: each from 0 (not at all) to 10. `money` weighs a unit of currency, `room` the front
    that is taken, `reach` the trouble of taking things out, `parts` their number, `hours` the work, `reuse` what the
    household has already, `order` what a practitioner sees at a glance: like with like, everybody's bays together.
    """

    money: Weight = 5
    room: Weight = 2
    reach: Weight = 4
    parts: Weight = 0
    hours: Weight = 0
    reuse: Weight = 1
    order: Weight = 5


class Outcome(Frozen):
    """What the search can say of its answer. *proven*: the objective meets its bound; *within*: the gap is known and
    small; *best found*: the bound is far, or none was reckoned. Objective and bound are the goal's own points, less is
    better; what the household has already counts in favour, so both may lie below zero.
    """

    status: Literal["proven", "within", "best found"]
    objective: float
    bound: float | None = None
    """No layout of the same candidate costs less; None where nothing is known of that."""
    method: str
    run: str

    @model_validator(mode="after")
    def _is_consistent(self) -> Self:
        gap = self.gap
        if gap is not None and gap < 0:
            raise ValueError(f"the bound {self.bound} lies above the objective {self.objective}")
        if self.status != "best found" and gap is None:
            raise ValueError(f"status {self.status!r} without a bound")
        if gap is not None and (self.status == "proven") != (gap <= BOUND_TOLERANCE):
            raise ValueError(f"status {self.status!r} contradicts the gap {gap:.4f}")
        return self

    @property
    def gap(self) -> float | None:
        """(objective − bound) ÷ the greater of their sizes; 0 when they meet, None without a bound."""
        return None if self.bound is None else gap_of(self.objective, self.bound)

    @classmethod
    def of(cls, objective: float, bound: float | None, *, method: str, run: str, within: float) -> "Outcome":
        """The outcome that an objective and its bound make; a gap up to `within` is called so."""
        if bound is not None and objective - bound <= BOUND_TOLERANCE * (1 + abs(objective)):
            return cls(status="proven", objective=objective, bound=objective, run=run,
                       method="the bound of the linear programme is met")  # fmt: skip
        near = bound is not None and gap_of(objective, bound) <= within
        return cls(status="within" if near else "best found", objective=objective, bound=bound, method=method, run=run)


def gap_of(objective: float, bound: float) -> float:
    """Relative gap of an objective that is minimised to its lower bound, sound for either sign.

    >>> gap_of(10, 5), gap_of(-5, -10), gap_of(0, -3), gap_of(0, 0)
    (0.5, 0.5, 1.0, 0.0)
    """
    scale = max(abs(objective), abs(bound))
    return (objective - bound) / scale if scale else 0.0


class Assignment(Frozen):
    """So many pieces of a thing live in a holding part, stored one way; `turned` with their side to the front, or
    lengthwise on hooks; `container` in what, an id of the design's containers. Its id stays its own while it moves from
    part to part, so that a label, a tick or a line of a log can point at it.
    """

    id: Id
    thing: Id
    part: Id
    way: Way
    count: Annotated[int, Field(ge=1, le=10_000)]
    turned: bool = False
    container: str = ""


def fresh_ids(taken: Collection[str] = ()) -> Iterator[str]:
    """Ids for assignments, but for those `taken`."""
    return (name for n in count(1) if (name := f"a{n}") not in taken)


class Unplaced(Frozen):
    """Pieces of a thing that have no place in the design."""

    thing: Id
    count: Annotated[int, Field(ge=1, le=10_000)]


class Standing(Frozen):
    """A row of modules as it stands: at which section, of which family, and which bays it makes (`first` up to, not
    including, `end`).
    """

    section: str
    family: Id
    row: Row
    first: int
    end: int


class Design(Frozen):
    """A complete layout of one space."""

    id: Id
    space: str
    goal: Goal
    title: Annotated[str, Field(max_length=120)]
    reason: Annotated[str, Field(max_length=1000)]
    rules: HouseRules
    weights: Weights = Weights()
    finish: Finish = Finish()
    rows: Annotated[tuple[Standing, ...], AtMost(100)] = ()
    regions: Annotated[tuple[Envelope, ...], AtMost(40)] = ()
    """The clear regions it was made for, so that rows can be stood anew by hand."""
    bays: Annotated[tuple[Bay, ...], AtMost(400)]
    parts: Annotated[tuple[Part, ...], AtMost(4000)]
    assignments: Annotated[tuple[Assignment, ...], AtMost(5000)]
    unplaced: Annotated[tuple[Unplaced, ...], AtMost(5000)] = ()
    owned: Annotated[tuple[Container, ...], AtMost(1000)] = ()
    """Containers of the household that it uses: what is at hand, and what it buys from its own list."""
    spent: Annotated[tuple[Id, ...], AtMost(20_000)] = ()
    """Ids of holding parts that are gone: no other part gets one, so that what points at it points at nothing."""
    ranges: Annotated[tuple[Range, ...], AtMost(40)] = ()
    """The household's own ranges it is made of, as they were."""
    outcome: Outcome

    @model_validator(mode="before")
    @classmethod
    def _of_before(cls, data: Any) -> Any:
        return brought_up(data) if isinstance(data, dict) else data

    @property
    def catalogue(self) -> Catalogue:
        """The families it may be built of."""
        return Catalogue(self.ranges) if self.ranges else SHIPPED_ONLY

    def family_of(self, item: Part | Bay) -> Family:
        """The family of a part or a bay; raises `NoSuchFamily`."""
        shipped = None if self.ranges else FAMILIES.get(item.family)
        return shipped or self.catalogue[item.family]

    @property
    def families(self) -> tuple[str, ...]:
        """Ids of the families it is built of, in their order along the space."""
        return tuple(dict.fromkeys(b.family for b in self.bays))

    @property
    def sections(self) -> tuple[str, ...]:
        """Sections that it fits out."""
        return tuple(dict.fromkeys(b.section for b in self.bays))

    def part(self, part_id: str) -> Part:
        """The part with this id; `KeyError` when there is none."""
        for part in self.parts:
            if part.id == part_id:
                return part
        raise KeyError(part_id)

    def bay_of(self, part: Part) -> Bay:
        """The bay a part is in, as deep as the part; `KeyError` for a part of the structure."""
        if part.bay is None or part.bay >= len(self.bays):
            raise KeyError(part.id)
        return self.bays[part.bay].under(part)

    def held_by(self, part_id: str) -> tuple[Assignment, ...]:
        """What is assigned to a part."""
        return tuple(a for a in self.assignments if a.part == part_id)

    def box(self, container: str) -> Container | None:
        """The container of this id: the household's own, or one of the range."""
        return next((c for c in self.owned if c.id == container), None) or containers().get(container)

    def in_section(self, section: str) -> "Design":
        """Only what stands in one section; bays keep their numbers."""
        kept = tuple(p for p in self.parts if p.section == section)
        ids = {p.id for p in kept}
        return self.model_copy(
            update={"parts": kept, "assignments": tuple(a for a in self.assignments if a.part in ids)}
        )
