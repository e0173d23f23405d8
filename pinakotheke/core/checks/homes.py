"""Conflicts of homes as findings."""

from collections.abc import Mapping

from ..inventory.zones import Conflict
from .findings import SEVERITIES, Finding, Severity, rules

STRAINS_MOST = 1.5
"""A lift a little over its limit is to be known; half as much again, or where none is safe, is to be mended."""
CODES: dict[str, str] = {code: f"home.{code.replace(' ', '-')}" for code in (
    "fuel", "child", "damp", "heavy", "wide high", "out of reach", "no socket", "no room")}  # fmt: skip
"""The code of a finding by that of a conflict."""


def home_findings(conflicts: tuple[Conflict, ...], names: Mapping[str, str], spaces: Mapping[str, str],
                  counts: Mapping[str, int]) -> tuple[Finding, ...]:  # fmt: skip
    """Conflicts as findings, worst first; `names` of things and of spaces, and how many pieces a thing has."""
    found = [
        rules()[CODES[c.code]].found(
            severity=_severity(c), where=(c.thing,), subject=names.get(c.thing, c.thing), measured=c.measured,
            limit=c.limit, count=counts.get(c.thing, 1), person=c.detail,
            detail=c.detail if c.code in ("child", "out of reach") else spaces.get(c.space, ""),
        )
        for c in conflicts
    ]  # fmt: skip
    return tuple(sorted(found, key=lambda f: SEVERITIES.index(f.severity)))


def _severity(conflict: Conflict) -> Severity:
    if conflict.code == "heavy" and conflict.measured <= STRAINS_MOST * conflict.limit:
        return "mind"
    return rules()[CODES[conflict.code]].severity
