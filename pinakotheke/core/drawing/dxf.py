"""What is cut as DXF for a laser, a router or a panel saw: strips flat with their slots, sheets with their parts, one under
the other. Open format, in mm; what is cut lies on the layer `CUT`, sheets on `SHEET`, what is only read on `NOTES`.
"""

from collections.abc import Sequence
from io import StringIO
from typing import NamedTuple

from ezdxf import units
from ezdxf.document import Drawing as Document
from ezdxf.filemanagement import new
from ezdxf.layouts.layout import Modelspace
from shapely import Polygon, box, unary_union

from ..install import DrillingMap, LevelLine
from ..layout.build.halving import Piece
from ..materials.cutting.sheets import CutSheet

APART = 10.0
"""Between two pieces on the sheet, mm."""
SHEETS_APART = 200.0


class CutStrip(NamedTuple):
    """A strip to cut, how high it is, and what it is called."""

    piece: Piece
    high: int
    name: str


def outline(piece: Piece, high: float) -> list[tuple[float, float]]:
    """The corners of a piece from its left lower one, slots cut out; mm."""
    slots = [
        box(s.at, low, s.at + s.width, low + s.depth)
        for s in piece.slots for low in ((0.0 if s.edge == "bottom" else high - s.depth),)
    ]  # fmt: skip
    shape = box(0, 0, piece.length, high).difference(unary_union(slots))
    assert isinstance(shape, Polygon), "slots never part a strip"
    return [(x, y) for x, y in shape.exterior.coords[:-1]]


def to_dxf(strips: Sequence[CutStrip]) -> str:
    """A DXF document (R2010) of every strip, from the top down."""
    document = _document()
    space, y = document.modelspace(), 0.0
    for strip in strips:
        y -= strip.high
        points = [(x, y + z) for x, z in outline(strip.piece, strip.high)]
        space.add_lwpolyline(points, close=True, dxfattribs={"layer": "CUT"})
        space.add_text(strip.name, height=4, dxfattribs={"layer": "NOTES"}).set_placement(
            (strip.piece.length + 8, y + 2)
        )
        y -= APART
    return _text(document)


def nests_dxf(sheets: Sequence[tuple[str, CutSheet]]) -> str:
    """Every sheet with its parts where they lie, from the top down; each part with its label, each sheet with its name."""
    document = _document()
    document.layers.add("SHEET", color=5)
    space, y = document.modelspace(), 0.0
    for name, sheet in sheets:
        y -= sheet.sheet.width
        _box(space, 0, y, sheet.sheet.length, sheet.sheet.width, "SHEET")
        for part in sheet.parts:
            _box(space, part.x, y + part.y, part.w, part.h, "CUT")
            space.add_text(part.panel.key, height=30, dxfattribs={"layer": "NOTES"}).set_placement(
                (part.x + 10, y + part.y + 10)
            )
        space.add_text(name, height=40, dxfattribs={"layer": "NOTES"}).set_placement((sheet.sheet.length + 40, y))
        y -= SHEETS_APART
    return _text(document)


def holes_dxf(walls: Sequence[tuple[str, DrillingMap, LevelLine]]) -> str:
    """The holes of every wall as circles of their bits, side by side: x from the left end of the wall, y from its level
    line, which is drawn; numbered. Holes one must not drill stand on the layer `REFUSED`.
    """
    document = _document()
    document.layers.add("LINE", color=5)
    document.layers.add("REFUSED", color=6)
    space, x0 = document.modelspace(), 0.0
    for name, found, line in walls:
        space.add_line((x0, 0), (x0 + line.run, 0), dxfattribs={"layer": "LINE"})
        space.add_text(name, height=40, dxfattribs={"layer": "NOTES"}).set_placement((x0, -60))
        for hole in found.holes:
            if hole.surface != "back":
                continue
            at, layer = (x0 + hole.along, line.from_line(hole.height)), "REFUSED" if hole.refused else "CUT"
            space.add_circle(at, max(hole.bit, 1) / 2, dxfattribs={"layer": layer})
            space.add_text(str(hole.number), height=12, dxfattribs={"layer": "NOTES"}).set_placement(
                (at[0] + 8, at[1] + 8)
            )
        x0 += line.run + 500
    return _text(document)


def _document() -> Document:
    document = new("R2010")
    document.units = units.MM
    document.layers.add("CUT", color=1)
    document.layers.add("NOTES", color=8)
    return document


def _box(space: Modelspace, x: float, y: float, w: float, h: float, layer: str) -> None:
    corners = [(x, y), (x + w, y), (x + w, y + h), (x, y + h)]
    space.add_lwpolyline(corners, close=True, dxfattribs={"layer": layer})


def _text(document: Document) -> str:
    out = StringIO()
    document.write(out)
    return out.getvalue()
