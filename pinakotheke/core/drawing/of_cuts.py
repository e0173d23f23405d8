"""Cut diagrams: a sheet as it lies on the saw, its parts lettered, its cuts numbered in the order in which they are made;
and boards one under the other with the pieces that come off them.
"""

from collections.abc import Sequence

from ..materials.cutting.lengths import Board
from ..materials.cutting.sheets import CutSheet
from ..materials.plans import StuffPlan
from ..units import Units, format_length
from .canvas import Canvas
from .models import Drawing, TitleBlock

HIGH = 3.6
"""Least height of a drawn board, in heights of its text."""
SMALLEST = 36.0
"""Text where no paper's scale says how high it is, mm of the sheet."""


def sheet_diagram(plan: StuffPlan, sheet: CutSheet, number: int, units: Units, date: str = "", text: float = SMALLEST,
                  ) -> Drawing:  # fmt: skip
    """One sheet from above, its grain from left to right. The saw's lines carry their numbers at their ends."""
    canvas = Canvas(text, units)
    length, width = sheet.sheet.length, sheet.sheet.width
    canvas.rect("wall", 0, 0, length, width, weight="heavy", of=f"sheet-{number}")
    for n, rest in enumerate(sheet.rests):
        keep = (max(rest.w, rest.h), min(rest.w, rest.h)) in plan.kept
        canvas.rect("closed", rest.x, rest.y, rest.w, rest.h, weight="fine", dashed=keep, cut=not keep, of=f"rest-{n}")
        if keep:
            words = ["keep", _size(units, rest.w, rest.h)]
            canvas.label_in(rest.x, rest.y, rest.w, rest.h, words, f"rest-{n}")
    for part in sheet.parts:
        own = plan.label_of(part.panel.key)
        canvas.rect("part", part.x, part.y, part.w, part.h, of=own.label, weight="medium", role="board")
        words = [own.label, _size(units, own.cut_length, own.cut_width)] + (["shaped"] if own.shaped else [])
        canvas.label_in(part.x, part.y, part.w, part.h, words, own.label)
    for n, cut in enumerate((c for c in sheet.cuts if c.stage), 1):
        if cut.way == "crosscut":
            canvas.line("note", (cut.at, cut.y), (cut.at, cut.y + cut.h), weight="fine", dashed=True, of=f"cut-{n}")
            canvas.note("note", cut.at, cut.y + cut.h - text, str(n), size=0.8, halo=True)
        else:
            canvas.line("note", (cut.x, cut.at), (cut.x + cut.w, cut.at), weight="fine", dashed=True, of=f"cut-{n}")
            canvas.note("note", cut.x + cut.w - text, cut.at - text * 0.35, str(n), size=0.8, halo=True)
    canvas.across(0, length, -text * 1.6, length, "length", from_y=0)
    canvas.upright(length + text * 1.6, 0, width, width, "width", from_x=length)
    shows = f"{plan.stuff.said(units)}, sheet {number}, grain along the length"
    return canvas.drawing("plan", _title(shows, units, date, number))


def boards_diagram(plan: StuffPlan, boards: Sequence[Board], kerf: int, trim: int, number: int, units: Units,
                   date: str = "", text: float = SMALLEST) -> Drawing:  # fmt: skip
    """Boards one under the other, the first above; the pieces from the left, each with its label. Lengths are to scale;
    boards are drawn high enough for their labels to be read.
    """
    canvas, high = Canvas(text, units), max(float(plan.stuff.high), HIGH * text)
    for n, board in enumerate(boards):
        y = -n * (high + 2 * text) - high
        canvas.rect("wall", 0, y, board.stock.length, high, weight="heavy", of=f"board-{n + 1}")
        x = trim
        for piece in board.pieces:
            own = plan.label_of(piece.key)
            canvas.rect("part", x, y, piece.length, high, of=own.label, weight="medium", role="board")
            canvas.label_in(x, y, piece.length, high, [own.label], own.label)
            x += piece.length + kerf
        if board.rest > 0:
            canvas.rect("closed", x, y, board.rest, high, weight="fine", cut=True, of=f"rest-{n}")
        length = _size(units, board.stock.length)
        canvas.note("note", text * len(length) * 0.4, y + high + text * 0.4, length)
    return canvas.drawing("plan", _title(f"{plan.stuff.said(units)}, {len(boards)} to cut", units, date, number))


def _size(units: Units, *sides: int) -> str:
    return " × ".join(format_length(mm, units) for mm in sides)


def _title(shows: str, units: Units, date: str, number: int) -> TitleBlock:
    return TitleBlock(space="To cut", shows=shows, scale="", units="mm" if units == "metric" else "inches", date=date,
                      sheet=f"C{number}")  # fmt: skip
