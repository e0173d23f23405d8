"""Schemas that several stages share, and the request with its member."""

from typing import Annotated

from django.contrib.auth.models import AbstractBaseUser
from django.http import HttpRequest
from ninja import Path, Query, Schema
from pydantic import Field, StringConstraints

from pinakotheke.core.base import Seen, Why
from pinakotheke.core.checks import Finding, Severity
from pinakotheke.core.layout import Ledger
from pinakotheke.core.units import LITRES_PER_CUBIC_FOOT, Units
from pinakotheke.core.words import remedy, sentence, slip

RowId = Annotated[int, Field(ge=1, le=2**53)]
PathId = Path[RowId]
Version = Annotated[int, Field(ge=1, le=2**31)]
QueryVersion = Query[Version]
Line = Annotated[str, StringConstraints(min_length=1, max_length=4000)]
TypedName = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120), Seen]


class MemberRequest(HttpRequest):
    """A request whose sender is signed in: every router but `session` asks for it."""

    user: AbstractBaseUser  # type: ignore[assignment]


class SlipView(Schema):
    """A *why* slip in the household's units."""

    rule: str
    values: list[tuple[str, str]]
    basis: str
    source: str


def slip_view(why: Why, units: Units) -> SlipView:
    """A why in words."""
    return SlipView.model_validate(slip(why, units).model_dump())


class FindingView(Schema):
    """A finding in words: severity, sentence, mend."""

    code: str
    severity: Severity
    where: list[str]
    sentence: str
    remedy: str
    basis: str
    source: str


def finding_views(findings: tuple[Finding, ...], units: Units) -> list[FindingView]:
    """Findings in words, worst first."""
    return [
        FindingView(code=f.code, severity=f.severity, where=list(f.where), sentence=sentence(f, units),
                    remedy=remedy(f, units), basis=f.basis, source=f.source)
        for f in findings
    ]  # fmt: skip


class LedgerLineView(Schema):
    """One line: the numbers for its bar, and the same in words."""

    storage: str
    asked: float
    given: float | None
    spare: float | None
    asked_text: str
    given_text: str
    spare_text: str
    unit: str
    why: SlipView


class LedgerView(Schema):
    """The ledger: storage lines, money, hours, findings, and which design it speaks of."""

    design: int | None
    design_title: str
    lines: list[LedgerLineView]
    unplaced: int
    cost: str | None
    budget: str | None
    currency: str
    hours: float | None
    hours_why: SlipView | None
    findings: list[FindingView]


def ledger_lines(ledger: Ledger, units: Units) -> list[LedgerLineView]:
    """The ledger's lines in the household's units."""
    return [
        LedgerLineView(
            storage=line.storage, asked=line.asked, given=line.given, spare=line.spare, unit=_unit(line.unit, units),
            asked_text=_number(line.asked, line.unit, units), given_text=_number(line.given, line.unit, units),
            spare_text=_number(line.spare, line.unit, units), why=slip_view(line.why, units),
        )
        for line in ledger.lines
    ]  # fmt: skip


def _unit(unit: str, units: Units) -> str:
    """Rail and shelf are long: metres, or feet; volume in litres, or cubic feet."""
    if unit == "litres":
        return "litres" if units == "metric" else "cu ft"
    return unit.replace("mm of ", "m of " if units == "metric" else "ft of ")


def _number(value: float | None, unit: str, units: Units) -> str:
    if value is None:
        return "–"
    if unit == "litres":
        return f"{value:.0f}" if units == "metric" else f"{value / LITRES_PER_CUBIC_FOOT:.1f}"
    if unit == "hooks":
        return f"{value:.0f}"
    return f"{value / 1000:.2f}" if units == "metric" else f"{value / 304.8:.1f}"
