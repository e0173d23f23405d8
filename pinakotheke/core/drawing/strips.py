"""Labels for machines: strips of tape as PNG at the printer's dots, and letters to cut as SVG, mirrored where the plotter
cuts from behind.
"""

from collections.abc import Mapping, Sequence
from functools import cache
from io import BytesIO
from pathlib import Path

import reportlab
from fontTools.pens.svgPathPen import SVGPathPen
from fontTools.pens.transformPen import TransformPen
from fontTools.ttLib import TTFont
from PIL import Image, ImageDraw, ImageFont

from ..base import Frozen
from ..tables import load
from ..upkeep import Label

MM_PER_INCH = 25.4
TITLE_SHARE = 0.62
"""Of the height of what is printed, where a second line stands under the title."""
TWO_LINES = 12.0
"""A tape whose head reaches so far has room for a second line, mm."""
GAP = 5.0
"""Between rows of what is cut, mm: room to part them and to weed."""
SMALLEST_STEP = 0.9


class Tape(Frozen):
    """A tape: its width, and how much of it the head reaches, mm."""

    id: str
    name: str
    width: float
    printed: float


class Strip(Frozen):
    """A strip as it is printed: its PNG, its length in mm, and what did not go on."""

    png: bytes
    length: float
    left_out: tuple[str, ...] = ()


@cache
def tapes() -> Mapping[str, Tape]:
    """The tapes of `tables/upkeep.toml`."""
    return {name: Tape.model_validate({"id": name, **row}) for name, row in load("upkeep")["tapes"].items()}


def strip(label: Label, tape: Tape) -> Strip:
    """A label on a tape: its title as high as the head prints, with what is in the place under it where there is room. What
    is longer than the longest strip is set smaller down to half, then named as left out.
    """
    dots = float(load("upkeep")["strip"]["dots"]["value"]) / MM_PER_INCH
    longest = float(load("upkeep")["strip"]["longest"]["value"]) * dots
    end = float(load("upkeep")["strip"]["end"]["value"]) * dots
    under = ", ".join(label.lines) if tape.printed >= TWO_LINES else ""
    high = tape.printed * dots * (TITLE_SHARE if under else 1)
    title, title_font = _set(label.title, True, high, longest - 2 * end)
    left_out = [] if title == label.title else [label.title[len(title) :]]
    lines = [(title, title_font)]
    if under:
        line, font = _set(under, False, tape.printed * dots * (1 - TITLE_SHARE), longest - 2 * end)
        left_out += [under[len(line) :]] if line != under else []
        lines.append((line, font))
    elif label.lines:
        left_out += label.lines
    wide = round(max(font.getlength(text) for text, font in lines) + 2 * end)
    tall = round(tape.width * dots)
    image = Image.new("1", (wide, tall), 1)
    draw = ImageDraw.Draw(image)
    y = (tall - tape.printed * dots) / 2
    for n, (text, font) in enumerate(lines):
        room = high if n == 0 else tape.printed * dots - high
        top, bottom = font.getbbox(text)[1], font.getbbox(text)[3]
        draw.text((end, y + (room - (bottom - top)) / 2 - top), text, font=font, fill=0)
        y += room
    out = BytesIO()
    image.save(out, "PNG", dpi=(dots * MM_PER_INCH, dots * MM_PER_INCH))
    return Strip(png=out.getvalue(), length=wide / dots, left_out=tuple(left_out))


def _set(text: str, bold: bool, high: float, room: float) -> tuple[str, ImageFont.FreeTypeFont]:
    """The font in which a line is no higher and no longer than it may be, and as much of the line as goes on."""
    size = high
    while True:
        font = ImageFont.truetype(_file(bold), max(size, 1))
        top, bottom = font.getbbox(text or "x")[1], font.getbbox(text or "x")[3]
        if bottom - top <= high and font.getlength(text) <= room:
            return text, font
        if bottom - top <= high and size <= high / 2:
            break
        size *= SMALLEST_STEP
    while text and font.getlength(text) > room:
        text = text[:-1]
    return text, font


@cache
def _file(bold: bool) -> str:
    return str(Path(reportlab.__file__).parent / "fonts" / ("VeraBd.ttf" if bold else "Vera.ttf"))


@cache
def _outlines() -> TTFont:
    return TTFont(_file(True))


def cut_svg(titles: Sequence[str], capitals: float, mirrored: bool = False) -> str:
    """Letters as outlines, one title a row, each in a frame to weed by; lengths in mm. `capitals` is the height of capital
    letters. Mirrored, they are cut from behind: for film that is turned over. A sign that the font has not is a square.
    """
    font = _outlines()
    scale = capitals / font["OS/2"].sCapHeight if getattr(font["OS/2"], "sCapHeight", 0) else capitals / 1493
    glyphs, letters, widths = font.getGlyphSet(), font.getBestCmap(), font["hmtx"]
    row = capitals * 1.6
    paths, lengths = [], []
    for n, title in enumerate(titles):
        base = GAP + n * (row + GAP) + capitals * 1.3
        x = 2 * GAP
        for sign in title:
            name = letters.get(ord(sign), ".notdef")
            pen = SVGPathPen(glyphs, ntos=lambda v: f"{v:.3f}".rstrip("0").rstrip("."))
            glyphs[name].draw(TransformPen(pen, (scale, 0, 0, -scale, x, base)))
            if pen.getCommands():
                paths.append(f'<path d="{pen.getCommands()}"/>')
            x += widths[name][0] * scale
        lengths.append(x)
    wide, high = max(lengths, default=0.0) + 2 * GAP, GAP + len(titles) * (row + GAP)
    frames = [f'<rect x="{GAP}" y="{GAP + n * (row + GAP):.3f}" width="{length:.3f}" height="{row:.3f}"/>'
              for n, length in enumerate(lengths)]  # fmt: skip
    turned = f' transform="translate({wide:.3f} 0) scale(-1 1)"' if mirrored else ""
    return (f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide:.3f}mm" height="{high:.3f}mm" '
            f'viewBox="0 0 {wide:.3f} {high:.3f}"><g fill="none" stroke="#000" stroke-width="0.1"{turned}>'
            f"{''.join((*frames, *paths))}</g></svg>")  # fmt: skip
