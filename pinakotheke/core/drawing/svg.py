"""A drawing as SVG text: self-contained, for paper and for files. One unit is one millimetre of the real thing."""

from collections.abc import Iterator
from xml.sax.saxutils import escape, quoteattr

from .models import Dimension, Drawing, Polyline, Rect, Text, Weight

WEIGHTS: dict[Weight, float] = {"heavy": 7.0, "medium": 3.2, "fine": 1.6}
INK, CAPTION, PAPER = "#23262B", "#5A5C5E", "#FFFDF8"
PIGMENTS = {
    "hanging": "#8C3B3B", "folded": "#A67C2E", "containers": "#3F5F86", "drawers": "#6B4E37", "shoes": "#3E7257",
    "hooks": "#6E4A6B", "floor": "#5C5348", "overhead": "#46606E",
}  # fmt: skip
"""Madder, ochre, smalt, umber, malachite, plum, earth, slate."""

_STROKES = {
    "hanging": '<path d="M12 0V48 M36 0V48"/>',
    "folded": '<path d="M0 10H48 M0 34H48"/>',
    "containers": '<path d="M8 8H30V30H8Z" fill="none"/>',
    "drawers": '<circle cx="12" cy="12" r="3.4"/><circle cx="36" cy="36" r="3.4"/>',
    "shoes": '<path d="M-6 30L30 -6 M18 54L54 18"/>',
    "hooks": '<circle cx="14" cy="14" r="7" fill="none"/><circle cx="38" cy="38" r="7" fill="none"/>',
    "floor": '<path d="M0 36H48 M12 36V48 M36 36V48"/>',
    "overhead": '<path d="M0 12H48 M12 0V12 M36 0V12"/>',
}


def to_svg(drawing: Drawing) -> str:
    """The whole drawing as one SVG document."""
    x0, y0, x1, y1 = drawing.bounds
    width, height = x1 - x0, y1 - y0
    body = "\n".join(_shapes(drawing))
    title = drawing.title
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="{_n(x0)} {_n(-y1)} {_n(width)} {_n(height)}" '
        f'width="{_n(width / 20)}mm" height="{_n(height / 20)}mm" role="img" '
        f"aria-label={quoteattr(f'{title.space}: {title.shows}')}>\n"
        f"<title>{escape(title.space)}: {escape(title.shows)}, {title.scale}, {title.units}</title>\n"
        f"<defs>{''.join(_patterns())}</defs>\n"
        f'<rect x="{_n(x0)}" y="{_n(-y1)}" width="{_n(width)}" height="{_n(height)}" fill="{PAPER}"/>\n'
        f'<g fill="none" stroke="{INK}" stroke-linejoin="miter" font-family="\'Source Sans 3 Variable\', '
        f"'Source Sans 3', sans-serif\">\n{body}\n</g>\n</svg>\n"
    )


def _patterns() -> Iterator[str]:
    for storage, strokes in _STROKES.items():
        ink = PIGMENTS[storage]
        fill = ink if storage == "drawers" else "none"
        yield (
            f'<pattern id="hatch-{storage}" width="48" height="48" patternUnits="userSpaceOnUse">'
            f'<g stroke="{ink}" stroke-width="2.4" fill="{fill}">{strokes}</g></pattern>'
        )
    yield (
        '<pattern id="hatch-cut" width="28" height="28" patternUnits="userSpaceOnUse">'
        f'<path d="M0 28L28 0" stroke="{INK}" stroke-width="1.6" fill="none"/></pattern>'
    )


def _shapes(drawing: Drawing) -> Iterator[str]:
    yield from (_rect(r) for r in drawing.rects)
    yield from (_line(line) for line in drawing.lines)
    for dimension in drawing.dimensions:
        yield from _dimension(dimension)
    yield from (_text(t) for t in drawing.texts)


def _n(number: float) -> str:
    return f"{number:.2f}".rstrip("0").rstrip(".") or "0"


def _stroke(weight: Weight, dashed: bool) -> str:
    dash = ' stroke-dasharray="24 16"' if dashed else ""
    return f'stroke-width="{_n(WEIGHTS[weight])}"{dash}'


def _of(of: str) -> str:
    return f" data-of={quoteattr(of)}" if of else ""


def _rect(r: Rect) -> str:
    fill = f' fill="url(#hatch-{r.hatch})"' if r.hatch else ""
    if r.layer == "content":  # opaque: no stud shows through a coat
        plain = f'x="{_n(r.x)}" y="{_n(-r.y - r.h)}" width="{_n(r.w)}" height="{_n(r.h)}"'
        ground = f'<rect class="ground" {plain} fill="{PAPER}" stroke="none"/>\n'
    else:
        ground = ""
    ink = f' stroke="{PIGMENTS[r.hatch]}"' if r.hatch and r.hatch != "cut" else ""
    return ground + (
        f'<rect class="{r.layer}" x="{_n(r.x)}" y="{_n(-r.y - r.h)}" width="{_n(r.w)}" height="{_n(r.h)}"{fill}{ink} '
        f"{_stroke(r.weight, r.dashed)}{_of(r.of)}/>"
    )


def _line(line: Polyline) -> str:
    points = " ".join(f"{_n(x)},{_n(-y)}" for x, y in line.points)
    fill = f' fill="url(#hatch-{line.hatch})"' if line.hatch else ""
    return f'<polyline class="{line.layer}" points="{points}"{fill} {_stroke(line.weight, line.dashed)}{_of(line.of)}/>'


def _text(t: Text) -> str:
    halo = f' paint-order="stroke" stroke="{PAPER}" stroke-width="{_n(t.size * 0.28)}"' if t.halo else ' stroke="none"'
    turn = f' transform="rotate({_n(-t.turn)} {_n(t.x)} {_n(-t.y)})"' if t.turn else ""
    return (
        f'<text class="{t.layer}" x="{_n(t.x)}" y="{_n(-t.y)}" font-size="{_n(t.size)}" text-anchor="{t.anchor}" '
        f'fill="{CAPTION if t.caption else INK}"{halo}{turn}{_of(t.of)}>{escape(t.text)}</text>'
    )


def _dimension(d: Dimension) -> Iterator[str]:
    tick = d.size * 0.32
    for (ax, ay), (bx, by) in (*d.extensions, (d.start, d.end)):
        yield f'<path class="dimension" d="M{_n(ax)} {_n(-ay)}L{_n(bx)} {_n(-by)}" stroke-width="1.6"/>'
    for x, y in (d.start, d.end):
        yield (
            f'<path class="dimension" d="M{_n(x - tick)} {_n(-y + tick)}L{_n(x + tick)} {_n(-y - tick)}" '
            f'stroke-width="3.2"/>'
        )
    text = Text(layer="dimension", x=d.x, y=d.y, text=d.text, size=d.size, turn=d.turn, halo=True)
    yield _text(text)
