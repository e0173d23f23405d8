"""The check report of a design on paper: question by question what was asked and found, by whose rule, and what could
not be known.
"""

from collections.abc import Sequence

from reportlab.lib.colors import HexColor
from reportlab.lib.units import mm
from reportlab.platypus import Flowable, KeepTogether, Spacer, Table, TableStyle

from ..base import Frozen
from ..tables import load
from ..units import Units
from .paper import BODY, HEAD, QUIET, TITLE, built, room_on, said_in
from .svg import CAPTION


class Said(Frozen):
    """A finding in words."""

    severity: str
    sentence: str
    remedy: str
    source: str
    unknown: bool = False


class Asked(Frozen):
    """A question, and what was found."""

    name: str
    asks: str
    found: tuple[Said, ...]


def check_report(space: str, design: str, date: str, inputs: Sequence[str], asked: Sequence[Asked], defer: str,
                 units: Units) -> bytes:  # fmt: skip
    """The report as PDF: A4, or letter where the household speaks in inches. `inputs` are lines on what was reckoned
    with; `defer` says who decides.
    """
    words = load("check_report")
    story: list[Flowable] = [said_in(words["title"].format(space=space), TITLE), said_in(f"{design}, {date}", QUIET)]
    story += [said_in(line, BODY) for line in inputs]
    for one in asked:
        story += _asked(one, room_on(units))
    unknown = [said for one in asked for said in one.found if said.unknown]
    if unknown:
        story += [said_in(words["unknown"], HEAD),
                  *(said_in(f"{said.sentence} {said.remedy}", BODY) for said in unknown)]  # fmt: skip
    story += [Spacer(1, 4 * mm), said_in(words["closing"].format(defer=defer), BODY)]
    return built(f"{space}: checks", story, units)


def _asked(one: Asked, wide: float) -> list[Flowable]:
    known = [said for said in one.found if not said.unknown]
    head = [said_in(one.name, HEAD), said_in(one.asks, QUIET)]
    if not known:
        return [KeepTogether([*head, said_in(load("check_report")["nothing"], BODY)])]
    rows = [
        [said_in(said.severity, BODY), [said_in(f"{said.sentence} {said.remedy}", BODY), said_in(said.source, QUIET)]]
        for said in known
    ]
    table = Table(rows, colWidths=[16 * mm, wide - 16 * mm])
    table.setStyle(TableStyle([("VALIGN", (0, 0), (-1, -1), "TOP"), ("LEFTPADDING", (0, 0), (0, -1), 0),
                               ("LINEBELOW", (0, 0), (-1, -1), 0.25, HexColor(CAPTION))]))  # fmt: skip
    return [*head, table]
