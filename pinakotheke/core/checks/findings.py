"""One finding."""

from typing import Literal

from ..base import Frozen
from ..tables import Entry

Severity = Literal["stop", "fix", "mind", "note"]
SEVERITIES: tuple[Severity, ...] = ("stop", "fix", "mind", "note")
"""Worst first: stop, it cannot be built or used so; fix, it will annoy or break; mind, know it; note, for the plan."""


class Finding(Frozen):
    """What was found: `measured` against `limit` in `unit`, where, by whose rule."""

    code: str
    severity: Severity
    where: tuple[str, ...] = ()
    """Ids of the parts, obstacles or readings it is about."""
    subject: str = ""
    person: str = ""
    measured: float = 0
    limit: float = 0
    unit: str = "mm"
    basis: str = "D"
    source: str = ""
    detail: str = ""


def by(rule: Entry) -> dict[str, str]:
    """Basis and source of a finding that rests on a table value."""
    return {"basis": rule.basis, "source": rule.source}
