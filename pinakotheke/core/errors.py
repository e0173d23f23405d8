"""What the core refuses. A refusal is a code of `tables/refusals.toml` and the facts it names; its words are put together
where it is told, in the units of whoever is told.
"""

from functools import partial
from typing import Any

from pydantic import ValidationError

from .saying import in_inches, say, sizes_in_inches
from .tables import load
from .units import Units

MEASURED = frozenset({"call", "obstacle", "size"})
"""Topics whose examples are readings: every bare number in them is a length."""


class PinakothekeError(Exception):
    """Anything the core refuses."""


class Refusal(PinakothekeError, ValueError):
    """Refused, by its code; `text` is what a person typed, `facts` what its words name."""

    def __init__(self, code: str, text: str = "", **facts: Any) -> None:
        super().__init__(code, text)
        self.code, self.text, self.facts = code, text, facts

    def __reduce__(self) -> tuple[Any, ...]:
        # Exceptions cross process borders (solver workers, parallel tests): rebuild from the same arguments.
        return (partial(type(self), self.code, self.text, **self.facts), ())

    def words(self) -> dict[str, str]:
        """Its row of the table: what it `says`, and the `mend` where there is one."""
        topic, _, code = self.code.partition(".")
        row: dict[str, str] = load("refusals")[topic][code]
        return row

    def problem_in(self, units: Units) -> str:
        """What is wrong."""
        return say(self.words()["says"], self.facts, units)

    def mend_in(self, units: Units) -> str:
        """What would put it right; empty where nothing does."""
        return self._example(say(self.words().get("mend", ""), self.facts, units), units)

    def _example(self, mend: str, units: Units) -> str:
        """Examples of the table are in millimetres; an inch household is shown inches."""
        if units == "metric":
            return mend
        return in_inches(mend) if self.code.partition(".")[0] in MEASURED else sizes_in_inches(mend)

    def said_in(self, units: Units) -> str:
        """All of it: what was typed, what is wrong, what would put it right."""
        problem, mend = self.problem_in(units), self.mend_in(units)
        if self.text:
            return f"“{self.text}”: {problem}. {mend}".strip()
        return f"{problem} {mend}".strip()

    problem = property(lambda self: self.problem_in("metric"))
    mend = property(lambda self: self.mend_in("metric"))

    def __str__(self) -> str:
        return self.said_in("metric")


class NotHere(Refusal, KeyError):
    """Asked for by a name or an id that nothing here has."""


class LengthError(Refusal):
    """A text that is no length, or could be two."""


class CallOutError(Refusal):
    """A call-out or quick-add line, or a part of one, that was not understood."""


class SurveyIncomplete(Refusal):
    """Too few readings for any envelope."""


class SpaceTooSmall(Refusal):
    """Obstacles, allowances and skirting leave nothing of the space."""


class EditRefused(Refusal):
    """A hand edit that cannot be carried out on this design."""


def told(error: ValueError, units: Units = "metric") -> tuple[str, str]:
    """Problem and mend of what was refused: a refusal's own, or those of the first fault that a model found."""
    if isinstance(error, ValidationError):
        return faults_told(error, units)[0][1:]
    return (error.problem_in(units), error.mend_in(units)) if isinstance(error, Refusal) else (str(error), "")


def faults_told(error: ValidationError, units: Units = "metric") -> list[tuple[tuple[int | str, ...], str, str]]:
    """Where, problem and mend of every fault that a model found."""
    found = []
    for fault in error.errors():
        own = fault.get("ctx", {}).get("error")
        problem, mend = told(own, units) if isinstance(own, Refusal) else (fault["msg"], "")
        found.append((fault["loc"], problem, mend))
    return found


class Cancelled(PinakothekeError):
    """The asker withdrew a long computation."""


class HouseFileError(PinakothekeError, ValueError):
    """A house file that does not say a household. `faults` are (path, found, expected)."""

    def __init__(self, faults: tuple[tuple[str, str, str], ...]) -> None:
        super().__init__(faults)
        self.faults = faults

    def lines(self) -> list[str]:
        """One line per fault: the path in the file, what stands there, what was expected."""
        return [f"{path or '(file)'}: found {found}; expected {expected}" for path, found, expected in self.faults]

    def __str__(self) -> str:
        return "\n".join(self.lines())
