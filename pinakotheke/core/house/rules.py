"""House rules: the schools a household follows, and its limits."""

from decimal import Decimal
from typing import Annotated, Literal

from pydantic import Field

from ..base import Frozen
from ..tables import value
from .limits import HouseLimits


class HouseRules(Frozen):
    """The schools of the trade, chosen once for the house; each default is the trade's middle way."""

    fit: Literal["every-inch", "easy"] = "easy"
    reserve: Annotated[float, Field(ge=0, le=0.6)] = value("reserve.usual")
    """Share of each kind of space left empty for growth."""
    access: Literal["single-touch", "dense"] = "single-touch"
    floor: Literal["clear", "purposeful"] = "purposeful"
    fixing: Literal["studs-first", "as-drilled"] = "studs-first"
    visibility: Literal["clear", "labelled", "behind doors"] = "labelled"
    doors: Literal["none", "hinged", "sliding", "curtain"] = "none"
    drill: Literal["anywhere", "studs only", "nothing"] = "anywhere"
    """What may be drilled: a rented wall may not."""
    passage: Annotated[float, Field(ge=400, le=1500)] = value("passage.least")
    """Least passage in front of storage, mm."""
    hang: Literal["what-creases", "all-that-can"] = "what-creases"
    hangers: Literal["slim", "ordinary", "padded"] = "ordinary"
    limits: HouseLimits = HouseLimits()
    """What the household goes by where the trade leaves a choice."""
    budget: Annotated[Decimal, Field(ge=0, le=1_000_000, decimal_places=2)] | None = None

    @property
    def fit_allowance(self) -> float:
        """Millimetres left free at each side of a fitted run."""
        return value("fit.every_inch" if self.fit == "every-inch" else "fit.easy")
