"""The booklet for the wall: cautions first, then line and base, the drilling map of each wall, and the steps with boxes to
tick. Drawings stand in it to scale, as large as the page takes them.
"""

from collections.abc import Sequence

from reportlab.lib.colors import HexColor
from reportlab.lib.units import mm
from reportlab.platypus import Flowable, KeepTogether, PageBreak, Spacer, Table, TableStyle

from ..base import Frozen
from ..tables import load
from ..units import Units
from .models import Drawing
from .paper import BODY, HEAD, QUIET, TITLE, Box, built, page_of, said_in
from .pdf import MARGIN, SCALES, Plotter
from .svg import CAPTION

RULED = ("LINEBELOW", (0, 0), (-1, -1), 0.25, HexColor(CAPTION))


class BookStep(Frozen):
    """A step as it is printed."""

    number: int
    title: str
    how: tuple[str, ...]
    said: str


class BookWall(Frozen):
    """A wall as it is printed: what is said of its line and its base, its map, its holes as rows, header first."""

    name: str
    says: tuple[str, ...]
    drawing: Drawing
    holes: tuple[tuple[str, ...], ...]


class Picture(Flowable):
    """A drawing at the largest usual scale at which it goes into a width and a height."""

    def __init__(self, drawing: Drawing, wide: float, high: float, units: Units) -> None:
        super().__init__()
        self.drawing = drawing
        x0, y0, x1, y1 = drawing.bounds
        usual = (12, 24) if units == "imperial" else (10, 20)
        fits = [s for s in usual if (x1 - x0) * mm / s <= wide and (y1 - y0) * mm / s <= high]
        self.scale = fits[0] if fits else 0
        self.factor = mm / self.scale if self.scale else min(wide / (x1 - x0), high / (y1 - y0))
        self.width, self.height = (x1 - x0) * self.factor, (y1 - y0) * self.factor

    @property
    def said(self) -> str:
        """Its scale in words; nothing where it is none of the usual."""
        return SCALES.get(self.scale, "")

    def draw(self) -> None:
        Plotter(self.canv, self.drawing, self.factor).plot()


def booklet(title: str, date: str, opening: Sequence[str], walls: Sequence[BookWall], steps: Sequence[BookStep],
            ready: Sequence[str], units: Units) -> bytes:  # fmt: skip
    """The booklet as PDF: A4, or letter where the household speaks in inches."""
    words, paper = load("installing")["booklet"], page_of(units)
    wide, high = paper[0] - 2 * MARGIN - 12, paper[1] - 2 * MARGIN - 60 * mm
    story: list[Flowable] = [said_in(title, TITLE), said_in(date, QUIET), Spacer(1, 3 * mm)]
    story += [said_in(line, BODY) for line in opening]
    story += [said_in(words["ready"], HEAD), *(_boxed(one, wide) for one in ready)]
    for wall in walls:
        picture = Picture(wall.drawing, wide, high, units)
        story += [PageBreak(), said_in(f"{wall.name}{f', {picture.said}' if picture.said else ''}", HEAD), picture]
        story += [said_in(line, BODY) for line in wall.says]
        if len(wall.holes) > 1:
            story.append(_holes(wall.holes, wide))
    story += [PageBreak(), said_in(words["steps"], HEAD)]
    story += [_step(step, wide) for step in steps]
    story += [Spacer(1, 5 * mm), said_in(words["closing"], BODY)]
    return built(title, story, units)


def _boxed(text: str, wide: float) -> Table:
    table = Table([[Box(), said_in(text, BODY)]], colWidths=[7 * mm, wide - 7 * mm])
    table.setStyle(TableStyle([("VALIGN", (0, 0), (-1, -1), "TOP"), ("LEFTPADDING", (0, 0), (0, 0), 0),
                               ("TOPPADDING", (0, 0), (-1, -1), 1), ("BOTTOMPADDING", (0, 0), (-1, -1), 1)]))  # fmt: skip
    return table


def _step(step: BookStep, wide: float) -> KeepTogether:
    inside: list[Flowable] = [said_in(f"{step.number}. {step.title}", HEAD), said_in(step.said, QUIET)]
    inside += [said_in(line, BODY) for line in step.how]
    table = Table([[Box(), inside]], colWidths=[7 * mm, wide - 7 * mm])
    table.setStyle(TableStyle([("VALIGN", (0, 0), (-1, -1), "TOP"), ("LEFTPADDING", (0, 0), (0, 0), 0),
                               ("TOPPADDING", (0, 0), (0, 0), 12), RULED]))  # fmt: skip
    return KeepTogether([table])


def _holes(rows: Sequence[Sequence[str]], wide: float) -> Table:
    shares = (0.07, 0.17, 0.12, 0.12, 0.36, 0.08, 0.08)
    table = Table(
        [[said_in(cell, QUIET) for cell in row] for row in rows], colWidths=[wide * s for s in shares], repeatRows=1
    )
    table.setStyle(TableStyle([("VALIGN", (0, 0), (-1, -1), "TOP"), RULED,
                               ("TOPPADDING", (0, 0), (-1, -1), 1), ("BOTTOMPADDING", (0, 0), (-1, -1), 1)]))  # fmt: skip
    return table
