"""What a check is, and what it is given.

A check is a function from a `Case` to findings, declared with the codes it may find. To add one: a module here with a
`CHECKS` tuple, and a row a code in `tables/checks.toml`. It is found by itself.
"""

from collections import defaultdict
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any, Literal

from ..house import HouseLimits, HouseRules, Person, SpaceUse
from ..inventory import Thing
from ..layout import Assignment, Design, Limits
from ..layout.packing.contain import lying
from ..layout.report.ledger import ask_of
from ..mechanics.beam import Load
from ..survey import Envelope, Survey
from ..systems import INSIDE, Part
from ..tables import value
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
    use: SpaceUse | None = None
    """What is said of the space, and what persons answered about it."""
    house: HouseRules | None = None
    """The rules of the house as they are now; None where those of the design still hold."""

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

    @property
    def goes_by(self) -> HouseLimits:
        """What the household goes by where the trade leaves a choice."""
        return (self.house or self.made.rules).limits

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

    @cached_property
    def parts(self) -> dict[str, Part]:
        """The parts of the design by their ids."""
        return {p.id: p for p in self.made.parts}

    @cached_property
    def held(self) -> dict[str, list[tuple[Assignment, float]]]:
        """What is assigned to each part, and the kilograms of each."""
        found: dict[str, list[tuple[Assignment, float]]] = defaultdict(list)
        for a in self.made.assignments:
            part = self.parts.get(a.part)
            if part is not None and a.thing in self.by_id:
                found[a.part].append((a, ask_of(self.made, part, a, self.by_id).mass))
        return found

    def mass(self, part: Part) -> float:
        """Kilograms of everything in a part."""
        return sum(mass for _, mass in self.held.get(part.id, ()))

    def loads(self, part: Part) -> tuple[Load, ...]:
        """What is on a part in N, each group spread over the length it takes, from the part's left end in mm."""
        gravity, reach = value("strength.gravity"), dict[str, tuple[float, float]]()
        if not self.held.get(part.id):
            return ()
        for one in lying(self.made, part, self.by_id):
            start, end = reach.get(one.thing, (one.x, one.x + one.w))
            reach[one.thing] = min(start, one.x), max(end, one.x + one.w)
        masses: dict[str, float] = defaultdict(float)
        for a, mass in self.held[part.id]:
            masses[a.thing] += mass
        return tuple(
            Load(max(reach[t][0] - part.x, 0), min(reach[t][1] - part.x, part.w), mass * gravity)
            for t, mass in masses.items() if t in reach
        )  # fmt: skip

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

    def only(self, section: str) -> "Case":
        """The same of one section alone."""
        return replace(self, design=self.made.in_section(section))

    def in_sections(self) -> Iterator[tuple[Design, Envelope]]:
        """The design section by section, with the clear region of each."""
        for section in self.made.sections:
            if section in self.envelopes:
                yield self.made.in_section(section), self.envelopes[section]


@dataclass(frozen=True)
class Check:
    """A check: what it is of, what it does, and the codes it may find."""

    of: Literal["survey", "design", "section"]
    """Of a section: it judges one wall by itself, so that what was done to another leaves its findings as they were."""
    codes: frozenset[str]
    run: Callable[[Case], Iterator[Finding]]


def of_survey(*codes: str) -> Callable[[Callable[[Case], Iterator[Finding]]], Check]:
    """A check of a survey alone."""
    return lambda run: Check("survey", frozenset(codes), run)


def of_section(*codes: str) -> Callable[[Callable[[Case], Iterator[Finding]]], Check]:
    """A check of a design that judges each of its sections by itself."""
    return lambda run: Check("section", frozenset(codes), run)


def of_design(*codes: str) -> Callable[[Callable[[Case], Iterator[Finding]]], Check]:
    """A check of a design."""
    return lambda run: Check("design", frozenset(codes), run)
