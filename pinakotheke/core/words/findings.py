"""Findings in words: the registry's sentences with the numbers put in."""

import string
from collections.abc import Callable, Mapping
from typing import Any

from ..checks.findings import Finding, Place, Rule, rules
from ..survey.closed import ClosedRegion
from ..tables import load
from ..units import Units, format_mass, format_volume, with_unit
from .amounts import counted, decimal_length

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
    }  # fmt: skip
    said = _Say(units).vformat((table or rules())[finding.code].says, (), facts)
    return said[:1].upper() + said[1:]


def _fault(code: str, why: str, units: Units, **facts: Any) -> str:
    """A fault's words; a region of a design from before its causes had codes says its own."""
    return _Say(units).vformat(load("faults")[code].get(why, why), (), facts)


def closed_in_words(region: ClosedRegion, units: Units) -> str:
    """What a closed region is closed for."""
    return _fault("closed", region.why, units, thing=region.of, limit=region.length)


def remedy(finding: Finding, units: Units = "metric", table: Mapping[str, Rule] | None = None) -> str:
    """What mends it; every code has one."""
    rule = (table or rules())[finding.code]
    text = rule.remedy_imperial if units == "imperial" and rule.remedy_imperial else rule.remedy
    return text.replace("{defer}", DEFER)


def _part(place: Place | None) -> str:
    """A part as people read it: *The shelf 3 in bay 2* is the third from below."""
    if place is None:
        return "It"
    number = f" {place.number}" if place.number else ""
    where = "" if place.bay is None else f" in bay {place.bay + 1}"
    return f"The {place.role}{number}{where}"


class _Say(string.Formatter):
    """The fields of a sentence, as `tables/checks.toml` describes them."""

    def __init__(self, units: Units) -> None:
        self.units = units

    def format_field(self, value: Any, format_spec: str) -> str:
        if format_spec.startswith("?"):
            return counted(value, *format_spec[1:].split("|"))
        if format_spec.startswith("+"):
            over, under = format_spec[1:].split("|")
            return over if value > 0 else under
        forms: dict[str, Callable[[], str]] = {
            "mm": lambda: with_unit(value, self.units), "abs": lambda: with_unit(abs(value), self.units),
            "kg": lambda: format_mass(value, self.units), "litres": lambda: format_volume(value, self.units),
            "fine": lambda: decimal_length(value, self.units), "n": lambda: f"{value:.0f}",
            "low": lambda: str(value[:1].lower() + value[1:]),
        }  # fmt: skip
        return forms[format_spec]() if format_spec in forms else str(format(value, format_spec))
