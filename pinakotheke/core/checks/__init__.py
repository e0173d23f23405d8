"""Check: what is wrong with a design or a survey, measured against a limit that names its source.

A finding is data: a stable code, numbers, basis and source. Its words stand in the registry and are put together in
`words`. A check warns and explains; it never says that something is permitted.
"""

from collections.abc import Mapping, Sequence
from functools import cache
from importlib import import_module
from pkgutil import iter_modules

from ..house import HouseRules, Person, SpaceUse
from ..inventory import Thing
from ..layout import Design, Limits
from ..survey import Envelope, Survey
from .check import Case, Check
from .consequence import Consequence, Done, consequences, mended
from .findings import SEVERITIES, Finding, Place, Rule, Severity, read_rules, rules
from .memory import Memory
from .mends import MENDABLE, Mend, mends
from .report import Kind, Row, kind_of, kinds, matrix


@cache
def shipped() -> tuple[Check, ...]:
    """Every check that ships, module by module in the order of their names."""
    modules = (import_module(f"{__name__}.{module.name}") for module in iter_modules(__path__))
    return tuple(check for module in modules for check in getattr(module, "CHECKS", ()))


def check_survey(survey: Survey, envelopes: Mapping[str, Envelope]) -> tuple[Finding, ...]:
    """Missing and doubted readings, and cautions about what stands in the space. `envelopes` by section, at least one."""
    return _carried_out(Case(survey, envelopes), [c for c in shipped() if c.of == "survey"])


def check_design(design: Design, survey: Survey, envelopes: Mapping[str, Envelope], things: tuple[Thing, ...],
                 people: tuple[Person, ...], *, limits: Limits | None = None, use: SpaceUse | None = None,
                 house: HouseRules | None = None,
                 checks: Sequence[Check] | None = None, table: Mapping[str, Rule] | None = None,
                 memory: Memory | None = None) -> tuple[Finding, ...]:  # fmt: skip
    """Every check of a design, and those of its survey, worst first; with the `limits` of the space where they are known,
    and the rules of the `house` as they are now.
    Others than the checks that ship, and their rules, may be named. With a `memory` only what changed since is judged.
    """
    case = Case(survey, envelopes, design, things, people, table, limits, use, house)
    return _carried_out(case, checks if checks is not None else shipped(), memory or Memory())


def _carried_out(case: Case, checks: Sequence[Check], memory: Memory | None = None) -> tuple[Finding, ...]:
    found: list[Finding] = []
    for check in checks:
        found += memory.findings(case, check) if memory else check.run(case)
    return tuple(sorted(found, key=lambda f: SEVERITIES.index(f.severity)))


__all__ = [
    "MENDABLE",
    "SEVERITIES",
    "Case",
    "Check",
    "Consequence",
    "Done",
    "Finding",
    "Kind",
    "Memory",
    "Mend",
    "Place",
    "Row",
    "Rule",
    "Severity",
    "check_design",
    "check_survey",
    "consequences",
    "kind_of",
    "kinds",
    "matrix",
    "mended",
    "mends",
    "read_rules",
    "rules",
    "shipped",
]
