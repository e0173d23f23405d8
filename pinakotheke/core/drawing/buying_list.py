"""The buying list on paper, and labels to stick on what is cut."""

from collections.abc import Sequence
from io import BytesIO
from typing import NamedTuple

from reportlab.graphics.barcode.qr import QrCodeWidget
from reportlab.graphics.shapes import Drawing as Graphic
from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import A4, LETTER
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas as Pdf
from reportlab.platypus import Flowable, Spacer, Table, TableStyle

from ..units import Units
from .paper import BODY, QUIET, TITLE, built, room_on, said_in
from .pdf import BOLD, FONT, use_fonts
from .svg import CAPTION, INK


class Grid(NamedTuple):
    """Labels on a sheet: across, down, and the size of one, mm (handbook section 12, common grids)."""

    columns: int
    rows: int
    wide: float
    high: float


GRIDS: dict[Units, Grid] = {"metric": Grid(3, 7, 63.5, 38.1), "imperial": Grid(3, 10, 66.7, 25.4)}


class CutLabel(NamedTuple):
    """What a label says: its letters large, lines under them, and what its code holds."""

    letters: str
    lines: tuple[str, ...]
    code: str


def buying_list(title: str, date: str, table: Sequence[Sequence[str]], notes: Sequence[str], units: Units) -> bytes:
    """The list as PDF: `table` with its header first and its total last, and notes under it."""
    wide = room_on(units)
    shares = (0.32, 0.24, 0.1, 0.14, 0.1, 0.1)
    rows = [[said_in(cell, BODY) if n and k < 2 else cell for k, cell in enumerate(row)]
            for n, row in enumerate(table)]  # fmt: skip
    body = Table(rows, colWidths=[wide * s for s in shares], repeatRows=1)
    body.setStyle(TableStyle([
        ("FONT", (0, 0), (-1, -1), FONT, 8.5), ("FONT", (0, -1), (-1, -1), BOLD, 9), ("FONT", (0, 0), (-1, 0), BOLD, 8.5),
        ("ALIGN", (2, 0), (-1, -1), "RIGHT"), ("VALIGN", (0, 0), (-1, -1), "TOP"),
        ("LINEBELOW", (0, 0), (-1, 0), 0.6, HexColor(INK)), ("LINEABOVE", (0, -1), (-1, -1), 0.6, HexColor(INK)),
        ("LINEBELOW", (0, 1), (-1, -3), 0.25, HexColor(CAPTION)), ("LEFTPADDING", (0, 0), (0, -1), 0),
    ]))  # fmt: skip
    story: list[Flowable] = [said_in(title, TITLE), said_in(date, QUIET), Spacer(1, 3 * mm), body, Spacer(1, 4 * mm)]
    story += [said_in(note, BODY) for note in notes]
    return built(title, story, units)


def cut_labels(labels: Sequence[CutLabel], units: Units) -> bytes:
    """Labels on sheets of a common grid, each with a code that a telephone reads."""
    use_fonts()
    out = BytesIO()
    paper, grid = (LETTER if units == "imperial" else A4), GRIDS[units]
    left = (paper[0] - grid.columns * grid.wide * mm) / 2
    top = paper[1] - (paper[1] - grid.rows * grid.high * mm) / 2
    pdf = Pdf(out, pagesize=paper, pageCompression=0, invariant=1)
    pdf.setTitle("Labels for what is cut")
    each = grid.columns * grid.rows
    for n, label in enumerate(labels):
        if n and n % each == 0:
            pdf.showPage()
        column, row = n % grid.columns, n % each // grid.columns
        _label(pdf, label, left + column * grid.wide * mm, top - (row + 1) * grid.high * mm, grid)
    pdf.save()
    return out.getvalue()


def _label(pdf: Pdf, label: CutLabel, x: float, y: float, grid: Grid) -> None:
    inset = 3 * mm
    side = min(grid.high * mm - 2 * inset, 22 * mm)
    code = QrCodeWidget(label.code, barLevel="M", barWidth=side, barHeight=side)
    graphic = Graphic(side, side)
    graphic.add(code)
    graphic.drawOn(pdf, x + grid.wide * mm - inset - side, y + grid.high * mm - inset - side)
    pdf.setFillColor(HexColor(INK))
    pdf.setFont(BOLD, 16)
    at = y + grid.high * mm - inset - 5 * mm
    pdf.drawString(x + inset, at, label.letters)
    pdf.setFont(FONT, 7)
    room = grid.wide * mm - 3 * inset - side
    for line in label.lines:
        at -= 3.4 * mm
        pdf.drawString(x + inset, at, _fitted(pdf, line, room))


def _fitted(pdf: Pdf, line: str, room: float) -> str:
    """A line cut to a width, its end marked."""
    if pdf.stringWidth(line, FONT, 7) <= room:
        return line
    while line and pdf.stringWidth(line + "…", FONT, 7) > room:
        line = line[:-1]
    return line + "…"
