"""The shopping list on paper: what to buy by shop with boxes to tick, what is watched beside it, and lines to write on."""

from collections.abc import Sequence

from reportlab.lib.colors import HexColor
from reportlab.lib.units import mm
from reportlab.platypus import Flowable, Spacer, Table, TableStyle

from ..tables import load
from ..units import Units
from .paper import BODY, HEAD, QUIET, TITLE, Box, built, room_on, said_in
from .svg import CAPTION

FREE_LINES = 12
"""Lines to write on: a cupboard door's worth."""
ROW = 8 * mm
"""Room to write in by hand."""


def restock_list(title: str, date: str, shops: Sequence[tuple[str, Sequence[str]]], others: Sequence[str],
                 units: Units) -> bytes:  # fmt: skip
    """The list as PDF: shops with their lines, then lines to write on with the other things watched as a reminder."""
    wide, words = room_on(units), load("restock")["paper"]
    story: list[Flowable] = [said_in(title, TITLE), said_in(words["to_buy"].format(date=date), QUIET)]
    for shop, lines in shops:
        story += [said_in(shop or words["anywhere"], HEAD), _rows(lines, wide)]
    if not shops:
        story.append(said_in(words["nothing"], BODY))
    story += [Spacer(1, 4 * mm), said_in(words["write_on"], HEAD), _rows([""] * FREE_LINES, wide)]
    if others:
        story += [Spacer(1, 3 * mm), said_in(words["there"].format(names=", ".join(others)), QUIET)]
    return built(title, story, units)


def _rows(lines: Sequence[str], wide: float) -> Table:
    """Rows with a box before each and a line under it."""
    table = Table([[Box(), said_in(line, BODY)] for line in lines], colWidths=[8 * mm, wide - 8 * mm],
                  rowHeights=[ROW] * len(lines))  # fmt: skip
    table.setStyle(TableStyle([
        ("LINEBELOW", (1, 0), (-1, -1), 0.25, HexColor(CAPTION)), ("VALIGN", (0, 0), (-1, -1), "MIDDLE"),
    ]))  # fmt: skip
    return table
