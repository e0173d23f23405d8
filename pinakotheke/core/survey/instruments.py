"""Measuring instruments as small adapters, and the simulated stand-ins that ship with the product.

An adapter answers `take` for what it can read. The stand-in knows the truth and answers with the scatter its
instrument states, normally distributed, and at its rate with a blunder. A real instrument would stand behind the
same call.
"""

from random import Random
from typing import Protocol

from ..base import Frozen
from ..errors import Refusal
from ..tables import load, value
from .models import SIGNED, Instrument, What

SHORTEST_SLIP = 200.0
"""Lengths up to so many mm are read at a glance, without a slip."""

KINDS: tuple[Instrument, ...] = ("tape", "laser", "level", "stud finder")


class Taken(Frozen):
    """One answer of an instrument, mm. `blunder` names the slip a stand-in made; a real one never knows."""

    value: float
    blunder: str = ""


class Adapter(Protocol):
    """What the tool asks of an instrument."""

    def can_read(self, what: What) -> bool:
        """Whether it reads this at all."""

    def take(self, what: What, truth: float, rng: Random) -> Taken:
        """One reading of a length whose true value is `truth` (stand-ins only use it)."""


class StandIn:
    """A simulated instrument with the scatter of its row in `tables/instruments.toml`."""

    def __init__(self, kind: Instrument) -> None:
        self.kind, self._row = kind, load("instruments")[kind]

    @property
    def name(self) -> str:
        """What people call it."""
        return str(self._row["name"])

    @property
    def about(self) -> str:
        """Its scatter, in a sentence."""
        return str(self._row["about"])

    def sigma(self, truth: float) -> float:
        """Standard deviation in mm of one reading of a length."""
        return float(self._row["sigma"] + self._row["per_m"] * abs(truth) / 1000)

    def can_read(self, what: What) -> bool:
        """Whether it reads this at all."""
        return "*" in self._row["reads"] or what in self._row["reads"]

    def take(self, what: What, truth: float, rng: Random) -> Taken:
        """The truth, scattered, rounded to what the display resolves, at times a blunder."""
        if not self.can_read(what):
            raise Refusal("survey.wrong-instrument", instrument=self.name, what=what)
        blunder = ""
        read = truth + rng.gauss(0, self.sigma(truth))
        if rng.random() < self._row["blunders"] and (abs(truth) > SHORTEST_SLIP or what in SIGNED):
            blunder, read = _blunder(self.kind, read, rng)
        step = self._row["step"]
        shown = round(read / step) * step
        return Taken(value=shown if what in SIGNED else max(shown, 0), blunder=blunder)

    def sweep(self, centres: tuple[float, ...], length: float, rng: Random) -> tuple[Taken, ...]:
        """Stud centres found along a wall: some missed, now and then one that is none."""
        rate = self._row["blunders"]
        found = [Taken(value=round(rng.gauss(c, self.sigma(c)))) for c in centres if rng.random() >= rate]
        if rng.random() < rate:
            found.append(Taken(value=round(rng.uniform(50, length - 50)), blunder="a pipe taken for a stud"))
        return tuple(sorted(found, key=lambda t: t.value))


def _blunder(kind: Instrument, read: float, rng: Random) -> tuple[str, float]:
    """The slips each instrument invites."""
    if kind == "laser":
        return "the dot fell on an edge", read - rng.uniform(20, 120)
    if kind == "level":
        return "read from the wrong end", -read
    if kind == "stud finder":
        return "a pipe taken for a stud", read + rng.uniform(60, 200)
    slip = rng.choice(("digits swapped", "tape case", "hundred"))
    if slip == "digits swapped":
        digits = list(f"{read:.0f}")
        digits[-1], digits[-2] = digits[-2], digits[-1]
        return slip, float("".join(digits))
    if slip == "tape case":
        return slip, read - rng.uniform(value("survey.tape_case_low"), value("survey.tape_case_high"))
    return slip, read + rng.choice((-100, 100))
