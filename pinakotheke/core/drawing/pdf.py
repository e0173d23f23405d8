"""Drawings as PDF pages to scale: 1 mm of paper stands for `scale` mm of the real thing, exactly."""

from collections.abc import Iterator, Sequence
from functools import cache
from io import BytesIO
from itertools import product
from math import ceil
from pathlib import Path
from typing import Literal, NamedTuple

from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import A0, A1, A2, A3, A4, LETTER, TABLOID, landscape, portrait
from reportlab.lib.units import inch, mm
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas as Pdf

from ..units import Units
from .models import Dimension, Drawing, Polyline, Rect, Text, Weight
from .svg import CAPTION, INK, PIGMENTS

Scale = Literal[1, 5, 10, 12, 20, 24]
"""1:10 and 1:20 of the metric paper plan; 1:12 is 1 in to the foot, 1:24 is 1/2 in; 1:1 and 1:5 of drawers."""
SCALES: dict[int, str] = {10: "1:10", 12: "1 in = 1 ft", 20: "1:20", 24: "1/2 in = 1 ft"}
"""Of rooms."""
SAID: dict[int, str] = SCALES | {1: "full size, 1:1", 5: "1:5"}
TEXT_MM = 2.6
"""Height of the smallest text on paper, mm."""
MARGIN = 12 * mm
TITLE_HEIGHT = 18 * mm
WEIGHTS: dict[Weight, float] = {"heavy": 0.5 * mm, "medium": 0.25 * mm, "fine": 0.13 * mm}
FONT, BOLD = "Sheet", "Sheet-Bold"
WIDE, WIDE_BOLD = "Letters", "Letters-Bold"
"""The same letters with those of more scripts: Greek, Cyrillic, Hebrew, Arabic; where Debian's package of them is."""
DEJAVU = Path("/usr/share/fonts/truetype/dejavu")
OVERLAP = 10 * mm
"""Of two sheets that are laid over each other, where a drawing is larger than the largest paper."""
PAPERS = {"metric": (A4, A3, A2, A1, A0), "imperial": (LETTER, TABLOID, A2, A1, A0)}


@cache
def use_fonts() -> None:
    """Register the fonts that ship with the PDF library, once."""
    pdfmetrics.registerFont(TTFont(FONT, "Vera.ttf"))
    for name, file in ((WIDE, "DejaVuSans.ttf"), (WIDE_BOLD, "DejaVuSans-Bold.ttf")):
        if (DEJAVU / file).is_file():
            pdfmetrics.registerFont(TTFont(name, str(DEJAVU / file)))
    pdfmetrics.registerFont(TTFont(BOLD, "VeraBd.ttf"))


def to_pdf(drawings: Sequence[Drawing], scale: Scale | Sequence[Scale], units: Units) -> bytes:
    """One page a drawing, on the smallest paper that holds it at the scale (one for all, or each its own), with title
    block and scale bar; one that is larger than the largest paper goes over several sheets that overlap, to be glued
    together.
    """
    use_fonts()
    out = BytesIO()
    pdf = Pdf(out, pageCompression=0, invariant=1)
    scales = [scale] * len(drawings) if isinstance(scale, int) else scale
    sheets = [(drawing, to, *sheet) for drawing, to in zip(drawings, scales, strict=True)
              for sheet in _sheets(drawing, to, units)]  # fmt: skip
    for number, (drawing, to, paper, tile) in enumerate(sheets, 1):
        pdf.setTitle(f"{drawing.title.space}, {SAID[to]}")
        _page(pdf, drawing, to, units, paper, tile, f"{number} of {len(sheets)}")
        pdf.showPage()
    pdf.save()
    return out.getvalue()


class Tile(NamedTuple):
    """The part of a drawing that one sheet shows: its left, lower corner and size on paper, points; and which it is of how
    many, across and up.
    """

    x: float
    y: float
    wide: float
    high: float
    column: int = 0
    row: int = 0
    columns: int = 1
    rows: int = 1

    @property
    def name(self) -> str:
        """Where it goes among the others: `B2` is the second from below of the second column."""
        return f", part {chr(65 + self.column % 26)}{self.row + 1}" if self.columns * self.rows > 1 else ""


def _room(paper: tuple[float, float]) -> tuple[float, float]:
    return paper[0] - 2 * MARGIN, paper[1] - 2 * MARGIN - TITLE_HEIGHT


def _sheets(drawing: Drawing, scale: Scale, units: Units) -> Iterator[tuple[tuple[float, float], Tile]]:
    """The sheets of a drawing, each with its paper: one where it fits, as few of the largest as it takes otherwise."""
    x0, y0, x1, y1 = drawing.bounds
    wide, high = (x1 - x0) / scale * mm, (y1 - y0) / scale * mm
    # What is printed full size comes out of the printer at home.
    papers = PAPERS[units][:1] if scale == 1 else PAPERS[units]
    sizes = [turned for p in papers for turned in (landscape(p), portrait(p))]
    for paper in sizes:
        if wide <= _room(paper)[0] and high <= _room(paper)[1]:
            yield paper, Tile(0, 0, wide, high)
            return

    def needed(paper: tuple[float, float]) -> tuple[int, int]:
        room = _room(paper)
        return ceil((wide - OVERLAP) / (room[0] - OVERLAP)), ceil((high - OVERLAP) / (room[1] - OVERLAP))

    paper = min(sizes[-2:], key=lambda p: needed(p)[0] * needed(p)[1])
    columns, rows = needed(paper)
    each = _room(paper)
    for row, column in product(range(rows), range(columns)):
        x, y = column * (each[0] - OVERLAP), row * (each[1] - OVERLAP)
        yield paper, Tile(x, y, min(each[0], wide - x), min(each[1], high - y), column, row, columns, rows)


def _page(pdf: Pdf, drawing: Drawing, scale: Scale, units: Units, paper: tuple[float, float], tile: Tile,
          number: str) -> None:  # fmt: skip
    pdf.setPageSize(paper)
    pdf.saveState()
    room = _room(paper)
    pdf.translate(MARGIN + (room[0] - tile.wide) / 2, MARGIN + TITLE_HEIGHT + (room[1] - tile.high) / 2)
    if tile.columns * tile.rows > 1:
        edge = pdf.beginPath()
        edge.rect(0, 0, tile.wide, tile.high)
        pdf.clipPath(edge, stroke=0, fill=0)
        pdf.translate(-tile.x, -tile.y)
        _joining_marks(pdf, tile, room)
    Plotter(pdf, drawing, mm / scale).plot()
    pdf.restoreState()
    _title_block(pdf, drawing, scale, units, paper[0], number + tile.name)


def _joining_marks(pdf: Pdf, tile: Tile, room: tuple[float, float]) -> None:
    """Crosses in the middle of where sheets lie over each other: both show them, and they are laid on each other."""
    step_x, step_y = room[0] - OVERLAP, room[1] - OVERLAP
    thirds = (1 / 3, 2 / 3)
    marks = [(c * step_x + OVERLAP / 2, (r + t) * step_y)
             for c in range(1, tile.columns) for r in range(tile.rows) for t in thirds]  # fmt: skip
    marks += [((c + t) * step_x, r * step_y + OVERLAP / 2)
              for r in range(1, tile.rows) for c in range(tile.columns) for t in thirds]  # fmt: skip
    pdf.setLineWidth(WEIGHTS["fine"])
    pdf.setDash([])
    for x, y in marks:
        pdf.line(x - 3 * mm, y, x + 3 * mm, y)
        pdf.line(x, y - 3 * mm, x, y + 3 * mm)
        pdf.circle(x, y, 1.5 * mm)


def _title_block(pdf: Pdf, drawing: Drawing, scale: Scale, units: Units, width: float, number: str) -> None:
    title = drawing.title
    pdf.setStrokeColor(HexColor(INK))
    pdf.setFillColor(HexColor(INK))
    pdf.setLineWidth(WEIGHTS["medium"])
    pdf.line(MARGIN, MARGIN + TITLE_HEIGHT - 3 * mm, width - MARGIN, MARGIN + TITLE_HEIGHT - 3 * mm)
    pdf.setFont(BOLD, 11)
    pdf.drawString(MARGIN, MARGIN + 7 * mm, title.space)
    pdf.setFont(FONT, 8)
    pdf.drawString(MARGIN, MARGIN + 2 * mm, f"{title.shows} · {SAID[scale]} · {title.units} · {title.date}")
    pdf.drawRightString(width - MARGIN, MARGIN + 2 * mm, f"sheet {number}")
    if title.agreed:
        pdf.drawString(MARGIN + pdf.stringWidth(title.space, BOLD, 11) + 6 * mm, MARGIN + 7 * mm, title.agreed)
    _scale_bar(pdf, scale, units, width - MARGIN, MARGIN + 8 * mm)


def _scale_bar(pdf: Pdf, scale: Scale, units: Units, right: float, y: float) -> None:
    """A bar of 1 m in five parts, or of 4 ft in four (a tenth of it full size, or 4 in): measure it to see that the printer
    did not shrink the page.
    """
    close = scale in (1, 5)
    long = (1 if close else 12) * inch if units == "imperial" else (20 if close else 200) * mm
    parts, each = (4, long / scale) if units == "imperial" else (5, long / scale)
    left = right - parts * each
    for n in range(parts):
        pdf.rect(left + n * each, y, each, 1.6 * mm, stroke=1, fill=n % 2)
    pdf.setFont(FONT, 6.5)
    pdf.drawString(left, y + 2.4 * mm, "0")
    said = ("4 in", "4 ft") if units == "imperial" else ("100 mm", "1000 mm")
    pdf.drawRightString(right, y + 2.4 * mm, said[0] if close else said[1])


class Plotter:
    """Draws one drawing; `factor` turns its millimetres into points."""

    def __init__(self, pdf: Pdf, drawing: Drawing, factor: float) -> None:
        self.pdf, self.drawing, self.factor = pdf, drawing, factor

    def x(self, x: float) -> float:
        return (x - self.drawing.bounds[0]) * self.factor

    def y(self, y: float) -> float:
        return (y - self.drawing.bounds[1]) * self.factor

    def plot(self) -> None:
        for rect in self.drawing.rects:
            self._rect(rect)
        for line in self.drawing.lines:
            self._polyline(line)
        for dimension in self.drawing.dimensions:
            self._dimension(dimension)
        for text in self.drawing.texts:
            self._text(text)

    def _pen(self, weight: Weight, dashed: bool, ink: str = INK) -> None:
        self.pdf.setStrokeColor(HexColor(ink))
        self.pdf.setLineWidth(WEIGHTS[weight])
        self.pdf.setDash([2.2 * mm, 1.4 * mm] if dashed else [])

    def _rect(self, r: Rect) -> None:
        corners = [(r.x, r.y), (r.x + r.w, r.y), (r.x + r.w, r.y + r.h), (r.x, r.y + r.h)]
        if r.hatch:
            self._hatch(corners, INK if r.hatch == "cut" else PIGMENTS.get(r.hatch, INK))
        self._pen(r.weight, r.dashed)
        self.pdf.rect(self.x(r.x), self.y(r.y), r.w * self.factor, r.h * self.factor)

    def _polyline(self, line: Polyline) -> None:
        if line.hatch:
            self._hatch(list(line.points), INK)
        self._pen(line.weight, line.dashed)
        path = self.pdf.beginPath()
        path.moveTo(self.x(line.points[0][0]), self.y(line.points[0][1]))
        for x, y in line.points[1:]:
            path.lineTo(self.x(x), self.y(y))
        self.pdf.drawPath(path)

    def _hatch(self, corners: Sequence[tuple[float, float]], ink: str) -> None:
        """Slanted strokes inside an outline."""
        self.pdf.saveState()
        path = self.pdf.beginPath()
        path.moveTo(self.x(corners[0][0]), self.y(corners[0][1]))
        for x, y in corners[1:]:
            path.lineTo(self.x(x), self.y(y))
        path.close()
        self.pdf.clipPath(path, stroke=0, fill=0)
        self._pen("fine", False, ink)
        xs, ys = [self.x(c[0]) for c in corners], [self.y(c[1]) for c in corners]
        tall, step = max(ys) - min(ys), 1.6 * mm
        at = min(xs) - tall
        while at < max(xs):
            self.pdf.line(at, min(ys), at + tall, max(ys))
            at += step
        self.pdf.restoreState()

    def _dimension(self, d: Dimension) -> None:
        self._pen("fine", False)
        for a, b in (*d.extensions, (d.start, d.end)):
            self.pdf.line(self.x(a[0]), self.y(a[1]), self.x(b[0]), self.y(b[1]))
        self.pdf.setLineWidth(WEIGHTS["medium"])
        tick = d.size * 0.3 * self.factor
        for x, y in (d.start, d.end):
            self.pdf.line(self.x(x) - tick, self.y(y) - tick, self.x(x) + tick, self.y(y) + tick)
        self._text(Text(layer="dimension", x=d.x, y=d.y, text=d.text, size=d.size, turn=d.turn, halo=True))

    def _text(self, t: Text) -> None:
        size = t.size * self.factor
        self.pdf.saveState()
        self.pdf.translate(self.x(t.x), self.y(t.y))
        self.pdf.rotate(t.turn)
        half = pdfmetrics.stringWidth(t.text, FONT, size) / 2
        shift = {"start": 0.0, "middle": -half, "end": -2 * half}[t.anchor]
        if t.halo:
            self.pdf.setFillColor(HexColor("#FFFFFF"))
            self.pdf.rect(shift - size * 0.1, -size * 0.18, 2 * half + size * 0.2, size * 1.05, stroke=0, fill=1)
        self.pdf.setFillColor(HexColor(CAPTION if t.caption else INK))
        self.pdf.setFont(FONT, size)
        self.pdf.drawString(shift, 0, t.text)
        self.pdf.restoreState()
