"""How far into a room a place at one of its walls is: what is wanted often stands nearer to where one comes in."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from math import inf

from .envelope import Envelope
from .models import Survey


@dataclass(frozen=True, slots=True)
class WayIn:
    """Of every run, how far its two ends are from the nearest open end of the walls, along them, mm; of a single run
    nothing is told apart.
    """

    ends: Mapping[str, tuple[float, float, float]] = field(default_factory=dict)
    """By section: its width, and how far it is from the way in to its left end and to its right one."""

    @classmethod
    def of(cls, survey: Survey, envelopes: Mapping[str, Envelope]) -> "WayIn":
        """Runs are listed clockwise; one comes in where the first begins or the last ends, as far as that is open."""
        runs = [s for s in survey.sections if s.kind == "run" and s.id in envelopes]
        if len(runs) < 2 or (runs[0].left != "open" and runs[-1].right != "open"):
            return cls()
        widths = [envelopes[s.id].width for s in runs]
        ends = {}
        for n, run in enumerate(runs):
            left = sum(widths[:n]) if runs[0].left == "open" else inf
            right = sum(widths[n + 1 :]) if runs[-1].right == "open" else inf
            ends[run.id] = (widths[n], left, right)
        return cls(ends)

    def far(self, section: str, x: float) -> float:
        """Millimetres along the walls from the way in to a place `x` from the left end of a section; 0 where nothing is
        known of that.
        """
        if section not in self.ends:
            return 0.0
        width, left, right = self.ends[section]
        return min(left + x, right + width - x)
