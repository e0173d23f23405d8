"""What was found as one table: what a design is asked, against its bays and the space as a whole."""

from collections.abc import Iterator, Mapping
from functools import cache

from ..base import Frozen
from ..layout import Design
from ..tables import load
from .findings import Finding


class Kind(Frozen):
    """A question that a design is asked, and the first words of the codes that answer it."""

    id: str
    name: str
    asks: str
    of: tuple[str, ...]


class Row(Frozen):
    """A bay, or the space as a whole: by the id of a kind the numbers of the findings there."""

    bay: int | None
    found: Mapping[str, tuple[int, ...]]


@cache
def kinds() -> tuple[Kind, ...]:
    """Every question, in order."""
    return tuple(Kind.model_validate({"id": name, **row}) for name, row in load("check_kinds").items())


def kind_of(code: str) -> Kind:
    """The question that a code answers; `KeyError` for a code that answers none."""
    first = code.partition(".")[0]
    for kind in kinds():
        if first in kind.of:
            return kind
    raise KeyError(code)


def matrix(design: Design, findings: tuple[Finding, ...]) -> tuple[Row, ...]:
    """Every bay in its order and then the whole, each with what was found there; a finding may stand in several bays."""
    found: dict[int | None, dict[str, list[int]]] = {bay.index: {} for bay in design.bays} | {None: {}}
    bay_of = {part.id: part.bay for part in design.parts}
    for number, finding in enumerate(findings):
        for bay in sorted(set(_bays(finding, bay_of)) & found.keys() - {None}, key=str) or [None]:
            found[bay].setdefault(kind_of(finding.code).id, []).append(number)
    return tuple(Row(bay=bay, found={k: tuple(v) for k, v in cells.items()}) for bay, cells in found.items())


def _bays(finding: Finding, bay_of: Mapping[str, int | None]) -> Iterator[int | None]:
    yield from (bay_of.get(id_) for id_ in finding.where)
    yield from (place.bay for place in (finding.place, finding.other) if place is not None)
