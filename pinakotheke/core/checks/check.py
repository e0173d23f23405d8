"""What a check is, and what it is given.

A check is a function from a `Case` to findings, declared with the codes it may find. To add one: a module here with a
`CHECKS` tuple, and a row a code in `tables/checks.toml`. It is found by itself.
"""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import Any, Literal

from ..house import Person
from ..inventory import Thing
from ..layout import Design, Limits
from ..layout.report.ledger import ask_of
from ..survey import Envelope, Survey
from ..systems import INSIDE, Part
from .findings import Finding, Place, Rule, rules


@dataclass(frozen=True)
class Case:
    """A survey, and a design of it with all that it is judged by; of a survey alone there is no design."""

    survey: Survey
    envelopes: Mapping[str, Envelope]
    design: Design | None = None
    things: tuple[Thing, ...] = ()
    people: tuple[Person, ...] = ()
    rules: Mapping[str, Rule] | None = None
    limits: Limits | None = None
    """What must never be in this space; None where nobody says who lives there."""

    @cached_property
    def envelope(self) -> Envelope:
        """The clear region of the main section, or of the first there is."""
        return self.envelopes.get(self.survey.main.id) or next(iter(self.envelopes.values()))

    @property
    def made(self) -> Design:
        """The design; only checks of a design ask for it."""
        if self.design is None:
            raise LookupError("this check asks for a design, and there is none")
        return self.design

    @cached_property
    def by_id(self) -> dict[str, Thing]:
        """The things by their ids."""
        return {t.id: t for t in self.things}

    def rule(self, code: str) -> Rule:
        """A row of the registry; `KeyError` for a code that has none."""
        return (self.rules or rules())[code]

    def found(self, code: str, **facts: Any) -> Finding:
        """A finding by the registry's row of a code."""
        return self.rule(code).found(**facts)

    def mass(self, part: Part) -> float:
        """Kilograms of everything in a part."""
        return sum(ask_of(self.made, part, a, self.by_id).mass
                   for a in self.made.held_by(part.id) if a.thing in self.by_id)  # fmt: skip

    def place(self, part: Part | str) -> Place | None:
        """A part as people find it; None for an id that no part has."""
        design = self.made
        one = next((p for p in design.parts if p.id == part), None) if isinstance(part, str) else part
        if one is None:
            return None
        if one.bay is None or one.role not in INSIDE:
            return Place(role=one.role, bay=one.bay)
        axis = design.bay_of(one).axis
        alike = sorted(
            (p for p in design.parts if p.bay == one.bay and p.role == one.role), key=lambda p: getattr(p, axis)
        )
        number = next((n for n, p in enumerate(alike, 1) if p.id == one.id), None)
        return Place(role=one.role, bay=one.bay, number=number if len(alike) > 1 else None)

    def in_sections(self) -> Iterator[tuple[Design, Envelope]]:
        """The design section by section, with the clear region of each."""
        for section in self.made.sections:
            if section in self.envelopes:
                yield self.made.in_section(section), self.envelopes[section]


@dataclass(frozen=True)
class Check:
    """A check: what it is of, what it does, and the codes it may find."""

    of: Literal["survey", "design"]
    codes: frozenset[str]
    run: Callable[[Case], Iterator[Finding]]


def of_survey(*codes: str) -> Callable[[Callable[[Case], Iterator[Finding]]], Check]:
    """A check of a survey alone."""
    return lambda run: Check("survey", frozenset(codes), run)


def of_design(*codes: str) -> Callable[[Callable[[Case], Iterator[Finding]]], Check]:
    """A check of a design."""
    return lambda run: Check("design", frozenset(codes), run)
