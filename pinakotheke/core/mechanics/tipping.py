"""Whether something that stands by itself falls over: moments about its front foot.

Distances are measured outward from the front foot (positive: before it, toward the room; negative: behind it), mm; masses
in kg; moments are kg·mm, since gravity is common to all.
"""

from collections.abc import Iterable
from typing import NamedTuple


class Weight(NamedTuple):
    """A mass and where its centre is."""

    mass: float
    out: float


class Balance(NamedTuple):
    """What holds it down and what tips it, kg·mm."""

    holds: float
    tips: float

    @property
    def stands(self) -> bool:
        """Whether it stays up by itself."""
        return self.holds >= self.tips

    def pull_at(self, height: float) -> float:
        """Kilograms that an anchor at a height must hold back so that it stays up; 0 where it stands by itself."""
        return max(0.0, self.tips - self.holds) / height


def balance(weights: Iterable[Weight]) -> Balance:
    """About the front foot: what is behind it holds, what is before it tips."""
    holds = tips = 0.0
    for mass, out in weights:
        if out > 0:
            tips += mass * out
        else:
            holds -= mass * out
    return Balance(holds, tips)
