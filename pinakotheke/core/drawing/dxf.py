"""Strips as DXF for a laser or a router: every piece flat, its slots cut out, one under the other. Open format, in mm; what
is cut lies on the layer `CUT`, what is only read on `NOTES`.
"""

from collections.abc import Sequence
from io import StringIO
from typing import NamedTuple

from ezdxf import units
from ezdxf.filemanagement import new
from shapely import Polygon, box, unary_union

from ..layout.build.halving import Piece

APART = 10.0
"""Between two pieces on the sheet, mm."""


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
    document = new("R2010")
    document.units = units.MM
    document.layers.add("CUT", color=1)
    document.layers.add("NOTES", color=8)
    space, y = document.modelspace(), 0.0
    for strip in strips:
        y -= strip.high
        points = [(x, y + z) for x, z in outline(strip.piece, strip.high)]
        space.add_lwpolyline(points, close=True, dxfattribs={"layer": "CUT"})
        space.add_text(strip.name, height=4, dxfattribs={"layer": "NOTES"}).set_placement(
            (strip.piece.length + 8, y + 2)
        )
        y -= APART
    out = StringIO()
    document.write(out)
    return out.getvalue()
