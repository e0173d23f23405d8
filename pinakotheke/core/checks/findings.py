"""One finding, and the registry of what can be found: `tables/checks.toml`, a row a code."""

from collections.abc import Mapping
from functools import cache
from typing import Any, Literal

from ..base import Frozen
from ..tables import Entry, entry, load

Severity = Literal["stop", "fix", "mind", "note"]
SEVERITIES: tuple[Severity, ...] = ("stop", "fix", "mind", "note")
"""Worst first: stop, it cannot be built or used so; fix, it will annoy or break; mind, know it; note, for the plan."""


class Place(Frozen):
    """A part as people find it: its role, its bay, and the how-manieth of that role it is there, from below."""

    role: str
    bay: int | None = None
    number: int | None = None


class Finding(Frozen):
    """What was found: `measured` against `limit` in `unit`, where, by whose rule. `why` is the verifier's reason, and
    `other` a second part it has to do with.
    """

    code: str
    severity: Severity
    where: tuple[str, ...] = ()
    """Ids of the parts, obstacles or readings it is about."""
    place: Place | None = None
    other: Place | None = None
    subject: str = ""
    person: str = ""
    measured: float = 0
    limit: float = 0
    count: float = 1
    """Pieces of the subject: one *has*, several *have*."""
    unit: str = "mm"
    basis: str = "D"
    source: str = ""
    detail: str = ""
    why: str = ""
    facts: tuple[tuple[str, float | str], ...] = ()
    """What its sentences name beside all that, by name."""
    unknown: bool = False
    """Nothing is known to be wrong: what would tell was not read."""


class Rule(Frozen):
    """A row of the registry: how bad, what it says, the mend, and by whose rule."""

    code: str
    severity: Severity
    says: str
    remedy: str
    remedy_imperial: str = ""
    would: Mapping[str, str] = {}
    """What would do, by the names of the facts of a finding: those it has are put in for {would}, in its order."""
    otherwise: str = ""
    """The mend where a finding says nothing that would do."""
    basis: str = ""
    source: str = ""
    rule: str = ""
    """The value in `rules.toml` that is the limit; basis and source are then its own."""
    unit: str = "mm"

    @property
    def entry(self) -> Entry:
        """Its value in the rules; `KeyError` when it rests on none."""
        return entry(self.rule)

    def found(self, **facts: Any) -> Finding:
        """A finding by this rule; what is not said is as the rule has it."""
        own: dict[str, Any] = {"code": self.code, "severity": self.severity, "unit": self.unit}
        if self.rule:
            own |= {"basis": self.entry.basis, "source": self.entry.source, "limit": self.entry.value}
        else:
            own |= {"basis": self.basis, "source": self.source}
        return Finding.model_validate({**own, **facts})


def read_rules(table: Mapping[str, Mapping[str, Any]]) -> dict[str, Rule]:
    """Rules by code, from a table as it is written; validated once."""
    return {code: Rule.model_validate({"code": code, **row}) for code, row in table.items()}


@cache
def rules() -> Mapping[str, Rule]:
    """Every rule that ships."""
    return read_rules(load("checks"))
