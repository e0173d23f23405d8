"""Findings in words: the registry's sentences with the numbers put in."""

from collections.abc import Mapping
from typing import Any

from ..checks.findings import Finding, Place, Rule, rules
from ..saying import say
from ..survey.closed import ClosedRegion
from ..tables import load
from ..units import Units

DEFER = "Local codes and a licensed electrician, plumber or builder decide."


def sentence(finding: Finding, units: Units, table: Mapping[str, Rule] | None = None) -> str:
    """What was found, in one sentence."""
    detail = finding.detail
    if finding.why:
        code, _, why = finding.why.partition(".")
        detail = _fault(code, why, units, other=_part(finding.other).lower(), thing=finding.detail, limit=finding.limit)
    facts = {
        "measured": finding.measured, "limit": finding.limit, "count": finding.count, "subject": finding.subject,
        "person": finding.person, "detail": detail, "source": finding.source, "part": _part(finding.place),
        "in_bay": _in_bay(finding.place), **dict(finding.facts),
    }  # fmt: skip
    said = say((table or rules())[finding.code].says, facts, units)
    return said[:1].upper() + said[1:]


def _fault(code: str, why: str, units: Units, **facts: Any) -> str:
    """A fault's words; a region of a design from before its causes had codes says its own."""
    return say(load("faults")[code].get(why, why), facts, units)


def closed_in_words(region: ClosedRegion, units: Units) -> str:
    """What a closed region is closed for."""
    return _fault("closed", region.why, units, thing=region.of, limit=region.length)


def remedy(finding: Finding, units: Units = "metric", table: Mapping[str, Rule] | None = None) -> str:
    """What mends it; every code has one."""
    rule, facts = (table or rules())[finding.code], dict(finding.facts)
    would = [say(rule.would[name], facts, units) for name in facts if name in rule.would]
    if rule.would and not would:
        return rule.otherwise
    return say(remedy_of(rule, units), {**facts, "would": would}, units) if facts else remedy_of(rule, units)


def remedy_of(rule: Rule, units: Units) -> str:
    """The mend of a rule, before anything was found."""
    text = rule.remedy_imperial if units == "imperial" and rule.remedy_imperial else rule.remedy
    return text.replace("{defer}", DEFER)


def _part(place: Place | None) -> str:
    """A part as people read it: *The shelf 3 in bay 2* is the third from below."""
    if place is None:
        return "It"
    number = f" {place.number}" if place.number else ""
    return f"The {place.role}{number}{_in_bay(place)}"


def _in_bay(place: Place | None) -> str:
    return "" if place is None or place.bay is None else f" in bay {place.bay + 1}"
