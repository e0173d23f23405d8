"""One root error; each leaf keeps its facts as fields and makes the words in `__str__`."""

from typing import Any


class PinakothekeError(Exception):
    """Anything the core refuses. `mend` says what would put it right."""

    mend: str = ""

    def __reduce__(self) -> tuple[Any, ...]:
        # Exceptions cross process borders (solver workers, parallel tests): rebuild from the same arguments.
        return (type(self), self.args)


class LengthError(PinakothekeError, ValueError):
    """A text that is no length, or could be two."""

    def __init__(self, text: str, problem: str, mend: str) -> None:
        super().__init__(text, problem, mend)
        self.text, self.problem, self.mend = text, problem, mend

    def __str__(self) -> str:
        return f"“{self.text}”: {self.problem}. {self.mend}"


class CallOutError(PinakothekeError, ValueError):
    """A call-out or quick-add line, or a part of one, that was not understood."""

    def __init__(self, text: str, problem: str, mend: str) -> None:
        super().__init__(text, problem, mend)
        self.text, self.problem, self.mend = text, problem, mend

    def __str__(self) -> str:
        return f"“{self.text}”: {self.problem}. {self.mend}"


class SurveyIncomplete(PinakothekeError, ValueError):
    """Too few readings for any envelope."""

    def __init__(self, missing: tuple[str, ...]) -> None:
        super().__init__(missing)
        self.missing = missing
        self.mend = f"Read {' and '.join(missing)}."

    def __str__(self) -> str:
        return f"The survey still lacks {', '.join(self.missing)}. {self.mend}"


class SpaceTooSmall(PinakothekeError, ValueError):
    """Obstacles, allowances and skirting leave nothing of the space."""

    def __init__(self, size: str, have_mm: float) -> None:
        super().__init__(size, have_mm)
        self.size, self.have_mm = size, have_mm
        self.mend = f"Check the readings of {size}, the skirting and the fit allowance."

    def __str__(self) -> str:
        return f"After allowances the clear {self.size} is {self.have_mm:.0f} mm. {self.mend}"


class EditRefused(PinakothekeError, ValueError):
    """A hand edit that cannot be carried out on this design."""

    def __init__(self, problem: str, mend: str) -> None:
        super().__init__(problem, mend)
        self.problem, self.mend = problem, mend

    def __str__(self) -> str:
        return f"{self.problem} {self.mend}"


class Cancelled(PinakothekeError):
    """The asker withdrew a long computation."""

    def __str__(self) -> str:
        return "Cancelled."


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
