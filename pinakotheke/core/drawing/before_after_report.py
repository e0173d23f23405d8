"""What was won, for whoever pays for it: photos before and after beside each other, and figures."""

from collections.abc import Sequence
from io import BytesIO
from typing import Any, NamedTuple

from reportlab.lib.colors import HexColor
from reportlab.lib.units import mm
from reportlab.platypus import Flowable, Image, Spacer, Table, TableStyle

from ..units import Units
from .paper import BODY, HEAD, QUIET, TITLE, built, room_on, said_in
from .pdf import BOLD, FONT
from .svg import CAPTION, INK

HIGHEST = 90 * mm
"""Of a photo on paper, so that two pairs go on a page."""


class Figure(NamedTuple):
    """A figure: what of, before and after; empty where nobody knows."""

    name: str
    before: str
    after: str


def before_after_report(title: str, date: str, figures: Sequence[Figure], pairs: Sequence[tuple[bytes, bytes]],
                        notes: Sequence[str], units: Units) -> bytes:  # fmt: skip
    """The report as PDF. `pairs` are photos before and after, the file's bytes; one may be empty."""
    wide = room_on(units)
    story: list[Flowable] = [said_in(title, TITLE), said_in(date, QUIET), Spacer(1, 3 * mm)]
    rows: list[list[Any]] = [
        ["", "before", "after"],
        *([f.name, said_in(f.before or "–", BODY), said_in(f.after or "–", BODY)] for f in figures),
    ]
    table = Table(rows, colWidths=[wide * share for share in (0.4, 0.3, 0.3)])
    table.setStyle(TableStyle([
        ("FONT", (0, 0), (-1, -1), FONT, 9), ("FONT", (0, 0), (-1, 0), BOLD, 9), ("VALIGN", (0, 0), (-1, -1), "TOP"),
        ("LEFTPADDING", (0, 0), (0, -1), 0),
        ("LINEBELOW", (0, 0), (-1, 0), 0.6, HexColor(INK)), ("LINEBELOW", (0, 1), (-1, -1), 0.25, HexColor(CAPTION)),
    ]))  # fmt: skip
    story.append(table)
    for n, (before, after) in enumerate(pairs, 1):
        cells = [_photo(data, wide / 2 - 3 * mm) for data in (before, after)]
        story += [said_in(f"Photo {n}: before and after", HEAD), Table([cells], colWidths=[wide / 2] * 2)]
    story += [Spacer(1, 4 * mm), *(said_in(note, BODY) for note in notes)]
    return built(title, story, units)


def _photo(data: bytes, wide: float) -> Flowable:
    if not data:
        return said_in("no photo", QUIET)
    photo = Image(BytesIO(data))
    factor = min(wide / photo.imageWidth, HIGHEST / photo.imageHeight)
    photo.drawWidth, photo.drawHeight = photo.imageWidth * factor, photo.imageHeight * factor
    return photo
