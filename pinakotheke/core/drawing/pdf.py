"""Drawings as PDF pages to scale: 1 mm of paper stands for `scale` mm of the real thing, exactly."""

from collections.abc import Sequence
from functools import cache
from io import BytesIO
from typing import Literal

from reportlab.lib.colors import Color, HexColor
from reportlab.lib.pagesizes import A0, A1, A2, A3, A4, LETTER, TABLOID, landscape, portrait
from reportlab.lib.units import inch, mm
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas as Pdf

from ..lengths import Units
from .models import Dimension, Drawing, Polyline, Rect, Text, Weight
from .svg import INK, PIGMENTS

Scale = Literal[10, 12, 20, 24]
"""1:10 and 1:20 of the metric paper plan; 1:12 is 1 in to the foot, 1:24 is 1/2 in."""
SCALES: dict[int, str] = {10: "1:10", 12: "1 in = 1 ft", 20: "1:20", 24: "1/2 in = 1 ft"}
TEXT_MM = 2.6
"""Height of the smallest text on paper, mm."""
MARGIN = 12 * mm
TITLE_HEIGHT = 18 * mm
WEIGHTS: dict[Weight, float] = {"heavy": 0.5 * mm, "medium": 0.25 * mm, "fine": 0.13 * mm}
FONT, BOLD = "Sheet", "Sheet-Bold"
_GREY = Color(0.45, 0.45, 0.45)
PAPERS = {"metric": (A4, A3, A2, A1, A0), "imperial": (LETTER, TABLOID, A2, A1, A0)}


@cache
def use_fonts() -> None:
    """Register the fonts that ship with the PDF library, once."""
    pdfmetrics.registerFont(TTFont(FONT, "Vera.ttf"))
    pdfmetrics.registerFont(TTFont(BOLD, "VeraBd.ttf"))


def to_pdf(drawings: Sequence[Drawing], scale: Scale, units: Units) -> bytes:
    """One page a drawing, on the smallest paper that holds it at the scale, with title block and scale bar."""
    use_fonts()
    out = BytesIO()
    pdf = Pdf(out, pageCompression=0, invariant=1)
    for number, drawing in enumerate(drawings, 1):
        pdf.setTitle(f"{drawing.title.space}, {SCALES[scale]}")
        _page(pdf, drawing, scale, units, f"{number} of {len(drawings)}")
        pdf.showPage()
    pdf.save()
    return out.getvalue()


def _page(pdf: Pdf, drawing: Drawing, scale: Scale, units: Units, number: str) -> None:
    x0, y0, x1, y1 = drawing.bounds
    wide, high = (x1 - x0) / scale * mm, (y1 - y0) / scale * mm
    sizes = [turned for p in PAPERS[units] for turned in (landscape(p), portrait(p))]
    paper = next(
        (p for p in sizes if wide <= p[0] - 2 * MARGIN and high <= p[1] - 2 * MARGIN - TITLE_HEIGHT), sizes[-1]
    )
    pdf.setPageSize(paper)
    pdf.saveState()
    pdf.translate(MARGIN + (paper[0] - 2 * MARGIN - wide) / 2,
                  MARGIN + TITLE_HEIGHT + (paper[1] - 2 * MARGIN - TITLE_HEIGHT - high) / 2)  # fmt: skip
    Plotter(pdf, drawing, mm / scale).plot()
    pdf.restoreState()
    _title_block(pdf, drawing, scale, units, paper[0], number)


def _title_block(pdf: Pdf, drawing: Drawing, scale: Scale, units: Units, width: float, number: str) -> None:
    title = drawing.title
    pdf.setStrokeColor(HexColor(INK))
    pdf.setFillColor(HexColor(INK))
    pdf.setLineWidth(WEIGHTS["medium"])
    pdf.line(MARGIN, MARGIN + TITLE_HEIGHT - 3 * mm, width - MARGIN, MARGIN + TITLE_HEIGHT - 3 * mm)
    pdf.setFont(BOLD, 11)
    pdf.drawString(MARGIN, MARGIN + 7 * mm, title.space)
    pdf.setFont(FONT, 8)
    pdf.drawString(MARGIN, MARGIN + 2 * mm, f"{title.shows} · {SCALES[scale]} · {title.units} · {title.date}")
    pdf.drawRightString(width - MARGIN, MARGIN + 2 * mm, f"sheet {number}")
    _scale_bar(pdf, scale, units, width - MARGIN, MARGIN + 8 * mm)


def _scale_bar(pdf: Pdf, scale: Scale, units: Units, right: float, y: float) -> None:
    """A bar of 1 m in five parts, or of 4 ft in four: measure it to see that the printer did not shrink the page."""
    parts, each = (4, 12 * inch / scale) if units == "imperial" else (5, 200 * mm / scale)
    left = right - parts * each
    for n in range(parts):
        pdf.rect(left + n * each, y, each, 1.6 * mm, stroke=1, fill=n % 2)
    pdf.setFont(FONT, 6.5)
    pdf.drawString(left, y + 2.4 * mm, "0")
    pdf.drawRightString(right, y + 2.4 * mm, "4 ft" if units == "imperial" else "1000 mm")


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
        self.pdf.setFillColor(_GREY if t.caption else HexColor(INK))
        self.pdf.setFont(FONT, size)
        self.pdf.drawString(shift, 0, t.text)
        self.pdf.restoreState()
