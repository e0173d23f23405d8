"""The map of a space to hang inside its door: the drawing, and what is where."""

from collections.abc import Sequence
from typing import NamedTuple

from reportlab.lib.colors import HexColor
from reportlab.lib.units import mm
from reportlab.platypus import Flowable, Spacer, Table, TableStyle

from ..units import Units
from .booklet import Picture
from .models import Drawing
from .paper import BODY, QUIET, TITLE, built, room_on, said_in
from .pdf import BOLD, FONT
from .svg import CAPTION, INK

HIGHEST = 110 * mm
"""Of the drawing, so that what is where begins on the same page."""


class Row(NamedTuple):
    """A place: its name, how high, and what lies in it."""

    place: str
    height: str
    holds: str


def map_pdf(title: str, date: str, drawing: Drawing | None, rows: Sequence[Row], units: Units) -> bytes:
    """The map as PDF, with the drawing where there is one."""
    wide = room_on(units)
    story: list[Flowable] = [said_in(title, TITLE), said_in(date, QUIET)]
    if drawing is not None:
        story += [Picture(drawing, wide - 12, HIGHEST, units), Spacer(1, 3 * mm)]
    cells = [["place", "at", "what lies there"]]
    table = Table([*cells, *([said_in(r.place, BODY), r.height, said_in(r.holds or "nothing", BODY)] for r in rows)],
                  colWidths=[wide * share for share in (0.3, 0.12, 0.58)], repeatRows=1)  # fmt: skip
    table.setStyle(TableStyle([
        ("FONT", (0, 0), (-1, -1), FONT, 9), ("FONT", (0, 0), (-1, 0), BOLD, 9), ("VALIGN", (0, 0), (-1, -1), "TOP"),
        ("LINEBELOW", (0, 0), (-1, 0), 0.6, HexColor(INK)), ("LINEBELOW", (0, 1), (-1, -1), 0.25, HexColor(CAPTION)),
        ("LEFTPADDING", (0, 0), (0, -1), 0),
    ]))  # fmt: skip
    story.append(table)
    return built(title, story, units)
