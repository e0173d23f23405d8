"""Labels as PDF on sheets as they are sold: every line measured before it is set, so that none runs out of its label."""

from collections.abc import Iterator, Sequence
from functools import cache
from io import BytesIO
from typing import Any
from unicodedata import bidirectional

import segno
from arabic_reshaper import reshape
from bidi import get_display
from fontTools.pens.reportLabPen import ReportLabPen
from fontTools.svgLib.path import parse_path
from reportlab.graphics.shapes import Drawing as Graphic
from reportlab.graphics.shapes import Group
from reportlab.lib.colors import black
from reportlab.lib.units import mm
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfgen.canvas import Canvas as Pdf

from ..base import Frozen
from ..tables import load
from ..upkeep import Label, LabelSheet
from .pdf import BOLD, FONT, WIDE, WIDE_BOLD, use_fonts

CAPITALS = 0.73
"""Height of capitals of the font over its size."""
LEADING = 1.25
LINES_SHARE = 0.6
"""What is in the place gets no more of a label's height than this before the title."""
PICTURE_SHARE = 0.3
"""A picture takes no more of a label's width than this."""
GRID = 24
"""Pictures are drawn on a square of so many units, with a stroke of two."""
CODE_SHARE = 0.42
"""A code takes no more of a label's width than this; where it would, it is left out."""


class Row(Frozen):
    """A line as it is set: its base from the label's left, lower corner and its size, mm."""

    text: str
    x: float
    y: float
    size: float
    bold: bool = False
    font: str = FONT


class SetLabel(Frozen):
    """A label set into so much room: its lines, its code with the corner and the module, mm; and what did not go in."""

    rows: tuple[Row, ...]
    code: tuple[tuple[bool, ...], ...] = ()
    code_at: tuple[float, float] = (0, 0)
    module: float = 0
    picture: str = ""
    picture_at: tuple[float, float] = (0, 0)
    side: float = 0
    """Of the picture: its left, lower corner and its side, mm."""
    left_out: tuple[str, ...] = ()
    unprinted: str = ""
    """Signs that the font has not."""


def letters(key: str) -> float:
    """A height of `tables/upkeep.toml`, mm or modules."""
    return float(load("upkeep")["letters"][key]["value"])


def set_label(label: Label, width: float, height: float) -> SetLabel:
    """Set a label into `width` × `height` mm: the title as large as it goes (10 mm down to the least that is read in the
    hand), over several lines where it must; then what is in the place; owner and day below. What does not go in is named.
    """
    use_fonts()
    margin = letters("margin")
    matrix, module = _code(label.code, width, height, margin)
    side = (len(matrix) + 2 * letters("quiet")) * module if matrix else 0.0
    pictured = min(height - 2 * margin, PICTURE_SHARE * width) if label.picture else 0.0
    x = margin + (pictured + margin if pictured else 0)
    room = width - x - margin - side
    title, lines = _printed(label.title, BOLD), [_printed(line, FONT) for line in label.lines]
    foot = _printed(" · ".join(w for w in (label.owner, "keep flat" if label.flat else "", label.date) if w), FONT)
    least = letters("least") / CAPITALS
    low = margin + (least * LEADING if foot else 0)
    rows: list[Row] = []
    top = height - margin
    kept = min(len(lines) * least * LEADING, (top - low) * LINES_SHARE)
    size, said = _title(title, room, top - low - kept, least)
    for line in said:
        top -= size * LEADING
        rows.append(_row(line, BOLD, x, top + size * (LEADING - 1), size))
    body = max(least, min(size * 0.6, letters("title") / CAPITALS * 0.7))
    left_out: list[str] = [] if said else [label.title]
    while lines and body > least and not _fits(lines, room, top - low, body):
        body = max(least, body * 0.92)
    for n, line in enumerate(lines):
        for part in _wrapped(line, FONT, body, room):
            if top - body * LEADING < low - 1e-6:
                left_out += label.lines[n:]
                break
            top -= body * LEADING
            rows.append(_row(part, FONT, x, top + body * (LEADING - 1), body))
        if left_out:
            break
    if foot:
        cut = _wrapped(foot, FONT, least, room)
        rows.append(_row(cut[0], FONT, x, margin, least))
        left_out += cut[1:]
    every = ((label.title, BOLD), *((line, FONT) for line in label.lines), (label.owner, FONT))
    missing = dict.fromkeys(
        c for text, font in every for c in text if not _has(c, _face(text, font)) and not c.isspace()
    )
    return SetLabel(rows=tuple(r for r in rows if r.text), code=matrix, module=module, left_out=tuple(left_out),
                    picture=label.picture, picture_at=(margin, (height - pictured) / 2), side=pictured,
                    code_at=(width - margin - side, (height - side) / 2),
                    unprinted="".join(missing))  # fmt: skip


def _title(title: str, room: float, high: float, least: float) -> tuple[float, list[str]]:
    # A word that is too long even in the smallest letters is broken anyway, and then in letters that are read at 1 m.
    broken = any(_wide(word, BOLD, least) > room for word in title.split())
    size = letters("title" if broken else "title_most") / CAPITALS
    while size >= least - 1e-6:
        said = _wrapped(title, BOLD, size, room)
        whole = broken or all(len(w) == 0 or any(w in line.split() for line in said) for w in title.split())
        if len(said) * size * LEADING <= high and (whole or size * 0.9 < least):
            return size, said
        size *= 0.92
    size = least
    most = max(int(high / (size * LEADING)), 0)
    return size, _wrapped(title, BOLD, size, room)[:most]


def _fits(lines: Sequence[str], room: float, high: float, size: float) -> bool:
    return sum(len(_wrapped(line, FONT, size, room)) for line in lines) * size * LEADING <= high


def _wrapped(text: str, font: str, size: float, room: float) -> list[str]:
    """A text in lines no wider than `room` mm; a word that is too long is broken."""
    lines: list[str] = []
    for word in text.split():
        joined = f"{lines[-1]} {word}" if lines else word
        if lines and _wide(joined, font, size) <= room:
            lines[-1] = joined
            continue
        while _wide(word, font, size) > room and len(word) > 1:
            most = next(n for n in range(len(word), 0, -1) if n == 1 or _wide(word[:n], font, size) <= room)
            lines.append(word[:most])
            word = word[most:]
        lines.append(word)
    return lines


def _row(text: str, font: str, x: float, y: float, size: float) -> Row:
    """A line as it is set: in the order in which it is seen, where it is read from the right."""
    return Row(text=_seen(text), x=x, y=y, size=size, bold=font == BOLD, font=_face(text, font))


def _wide(text: str, font: str, size: float) -> float:
    return float(pdfmetrics.stringWidth(_seen(text), _face(text, font), size))


@cache
def _face(text: str, font: str) -> str:
    """The font of a text: the usual one, or that with letters of more scripts where it has more of its signs."""
    wide = WIDE_BOLD if font == BOLD else WIDE
    if wide not in pdfmetrics.getRegisteredFontNames():
        return font
    here, there = (sum(_has(c, f) for c in text) for f in (font, wide))
    return wide if there > here else font


@cache
def _seen(text: str) -> str:
    """A text as it is seen from left to right: Arabic letters in the shapes that they take beside each other, and what is
    read from the right turned round (UAX 9).
    """
    if all(bidirectional(c) not in ("R", "AL") for c in text):
        return text
    return str(get_display(reshape(text)))


def _has(sign: str, font: str) -> bool:
    found: Any = pdfmetrics.getFont(font)
    return ord(sign) in found.face.charWidths


def _printed(text: str, font: str) -> str:
    """A text with the signs that its font has; a mark stands for each other one."""
    face = _face(text, font)
    mark = "□" if _has("□", face) else "?"
    return "".join(c if c.isspace() or _has(c, face) else mark for c in text)


def _code(text: str, width: float, height: float, margin: float) -> tuple[tuple[tuple[bool, ...], ...], float]:
    """The modules of a code and how large each is, mm; nothing where it has no room at its least module."""
    if not text:
        return (), 0.0
    matrix = tuple(tuple(bool(c) for c in row) for row in segno.make(text, error="m", micro=False).matrix)
    count = len(matrix) + 2 * letters("quiet")
    module = min((height - 2 * margin) / count, CODE_SHARE * width / count, 1.0)
    return (matrix, module) if module >= letters("module") else ((), 0.0)


def labels_pdf(labels: Sequence[Label], sheet: LabelSheet, first: int = 0) -> tuple[bytes, tuple[SetLabel, ...]]:
    """Labels on sheets from the `first` free one of the first sheet on, counted from 0; and how each was set."""
    use_fonts()
    out = BytesIO()
    pdf = Pdf(out, pagesize=(sheet.paper[0] * mm, sheet.paper[1] * mm), pageCompression=0, invariant=1)
    found = []
    for n, label in enumerate(labels, first):
        if n > first and n % sheet.count == 0:
            pdf.showPage()
        one = set_label(label, *sheet.label)
        found.append(one)
        left, top = sheet.corner(n % sheet.count)
        pdf.saveState()
        pdf.translate(left * mm, (sheet.paper[1] - top - sheet.label[1]) * mm)
        for row in one.rows:
            pdf.setFont(row.font, row.size * mm)
            pdf.drawString(row.x * mm, row.y * mm, row.text)
        if one.picture:
            _draw_picture(pdf, one)
        for x, y, side in squares(one):
            pdf.rect(x * mm, y * mm, side * mm, side * mm, stroke=0, fill=1)
        pdf.restoreState()
    pdf.save()
    return out.getvalue(), tuple(found)


def _draw_picture(pdf: Pdf, one: SetLabel) -> None:
    unit = one.side * mm / GRID
    paths = []
    for outline in load("pictures")["outlines"][one.picture]:
        pen = ReportLabPen(None)
        parse_path(outline, pen)
        pen.path.strokeColor, pen.path.fillColor, pen.path.strokeWidth = black, None, 2
        pen.path.strokeLineCap = pen.path.strokeLineJoin = 1
        paths.append(pen.path)
    drawing = Graphic(one.side * mm, one.side * mm)
    drawing.add(Group(*paths, transform=(unit, 0, 0, -unit, 0, one.side * mm)))  # its units run downwards
    drawing.drawOn(pdf, one.picture_at[0] * mm, one.picture_at[1] * mm)


def squares(one: SetLabel) -> Iterator[tuple[float, float, float]]:
    """The dark modules of a code: left, lower corner and side, mm from the label's own corner."""
    quiet, count = letters("quiet"), len(one.code)
    for row, line in enumerate(one.code):
        for column, dark in enumerate(line):
            if dark:
                yield (one.code_at[0] + (quiet + column) * one.module,
                       one.code_at[1] + (quiet + count - 1 - row) * one.module, one.module)  # fmt: skip
