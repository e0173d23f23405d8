"""The kinds of section, each a row of `tables/sections.toml`: a run of wall, a shelf level, a drawer and so on. What the
rest asks of a kind it asks here; no other module names one, but for the stacks that `stacks` makes of levels.
"""

from functools import cache
from typing import Literal

from ..base import Frozen
from ..errors import Refusal
from ..tables import load


class Asked(Frozen):
    """A reading that a kind of section wants, and how it is taken."""

    what: str
    face: str | None = None
    side: str | None = None
    label: str
    how: str
    needed: bool = True


class SectionKind(Frozen):
    """What one kind of section is; the fields are explained at the head of its table."""

    called: str
    said: tuple[str, ...]
    at_wall: bool = False
    from_above: bool = False
    shelf: bool = False
    pile: Literal["", "up", "down"] = ""
    walled: bool = False
    roomy: bool = False
    lined: bool = False
    usual_height: float
    readings: tuple[Asked, ...]

    def asks(self, what: str) -> bool:
        """Whether such a reading is taken in it."""
        return any(row.what == what for row in self.readings)


@cache
def section_kinds() -> dict[str, SectionKind]:
    """All kinds by name."""
    return {name: SectionKind.model_validate(row) for name, row in load("sections").items()}


def known_kind(name: str) -> str:
    """The name of a kind; raises `ValueError` for what is none."""
    if name not in section_kinds():
        raise Refusal("survey.no-kind-of-section", known=section_kinds())
    return name
