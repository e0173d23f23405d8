"""A design and how it was obtained."""

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from ..base import Frozen, Id
from ..house import HouseRules
from ..inventory.kinds import Way
from ..systems import Bay, Part, Shape

Goal = Literal["cheapest", "roomiest", "reach"]
GOALS: tuple[Goal, ...] = ("cheapest", "roomiest", "reach")
BOUND_TOLERANCE = 1e-6
"""Relative slack when an objective is compared with its bound."""


class Outcome(Frozen):
    """What the search can say of its answer. `proven`: objective meets the bound; `within`: the gap is known and
    small; `best found`: no useful bound. Objective and bound are the goal's own points, less is better.
    """

    status: Literal["proven", "within", "best found"]
    objective: float
    bound: float
    method: str
    run: str

    @model_validator(mode="after")
    def _is_consistent(self) -> Self:
        if self.bound > self.objective * (1 + BOUND_TOLERANCE) + BOUND_TOLERANCE:
            raise ValueError(f"the bound {self.bound} lies above the objective {self.objective}")
        if (self.status == "proven") != (self.gap <= BOUND_TOLERANCE):
            raise ValueError(f"status {self.status!r} contradicts the gap {self.gap:.4f}")
        return self

    @property
    def gap(self) -> float:
        """(objective − bound) ÷ objective; zero when both are zero."""
        return (self.objective - self.bound) / self.objective if self.objective > 0 else 0.0


class Assignment(Frozen):
    """So many pieces of a thing live in a holding part, stored one way."""

    thing: Id
    part: Id
    way: Way
    count: Annotated[int, Field(ge=1, le=10_000)]


class Unplaced(Frozen):
    """Pieces of a thing that have no place in the design."""

    thing: Id
    count: Annotated[int, Field(ge=1, le=10_000)]


class Design(Frozen):
    """A complete layout of one space."""

    id: Id
    space: str
    family: str
    goal: Goal
    title: str
    reason: str
    shape: Shape
    rules: HouseRules
    bays: tuple[Bay, ...]
    parts: Annotated[tuple[Part, ...], Field(max_length=2000)]
    assignments: Annotated[tuple[Assignment, ...], Field(max_length=5000)]
    unplaced: tuple[Unplaced, ...] = ()
    outcome: Outcome

    def part(self, part_id: str) -> Part:
        """The part with this id; `KeyError` when there is none."""
        for part in self.parts:
            if part.id == part_id:
                return part
        raise KeyError(part_id)

    def held_by(self, part_id: str) -> tuple[Assignment, ...]:
        """What is assigned to a part."""
        return tuple(a for a in self.assignments if a.part == part_id)
