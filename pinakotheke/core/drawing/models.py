"""What a drawing is made of. `of` is the id of what a shape shows."""

from typing import Literal

from ..base import Frozen
from ..inventory.needs import Storage
from ..survey.slots import SlotRef

Layer = Literal[
    "wall", "opening", "obstacle", "stud", "part", "content", "access", "closed", "dimension", "note",
]  # fmt: skip
Weight = Literal["heavy", "medium", "fine"]
DimensionState = Literal["read", "missing", "doubted", "derived"]
Point = tuple[float, float]


class Rect(Frozen):
    """A rectangle: left, lower corner and size."""

    layer: Layer
    x: float
    y: float
    w: float
    h: float
    of: str = ""
    weight: Weight = "medium"
    dashed: bool = False
    hatch: Storage | Literal["cut"] | None = None
    role: str = ""
    lies_in: str = ""
    """Of what is kept, the part that it is kept in."""


class Polyline(Frozen):
    """Straight lines through points; arcs are given as short chords."""

    layer: Layer
    points: tuple[Point, ...]
    of: str = ""
    weight: Weight = "fine"
    dashed: bool = False
    hatch: Storage | Literal["cut"] | None = None
    """Given, the points bound a face that is filled."""


class Text(Frozen):
    """A line of text: (x, y) is the middle of its base, or its start; `size` its height; `turn` in degrees."""

    layer: Layer
    x: float
    y: float
    text: str
    size: float
    anchor: Literal["start", "middle", "end"] = "middle"
    turn: float = 0
    of: str = ""
    halo: bool = False
    caption: bool = False


class Area(Frozen):
    """A place on the drawing that is not drawn: where something is pointed at."""

    x: float
    y: float
    w: float
    h: float
    of: str = ""


class Label(Area):
    """What a box on the drawing holds, item by item, for whoever letters it at a scale of their own; `texts` of the layer
    `content` are the same at the scale of the paper.
    """

    items: tuple[str, ...]


class Dimension(Frozen):
    """A dimension line from `start` to `end` with its text at (x, y); ticks are drawn at both ends."""

    layer: Literal["dimension"] = "dimension"
    start: Point
    end: Point
    extensions: tuple[tuple[Point, Point], ...] = ()
    x: float
    y: float
    text: str
    label: str
    size: float
    turn: float = 0
    state: DimensionState = "derived"
    slot: SlotRef | None = None
    of: str = ""


class TitleBlock(Frozen):
    """What the paper says in its corner."""

    space: str
    shows: str
    scale: str
    units: str
    date: str = ""
    sheet: str = "1"
    agreed: str = ""
    """Who chose it, or signed it off, and when."""


class Drawing(Frozen):
    """A view with its bounds in mm: x0, y0, x1, y1."""

    view: Literal["elevation", "plan", "section"]
    bounds: tuple[float, float, float, float]
    rects: tuple[Rect, ...] = ()
    lines: tuple[Polyline, ...] = ()
    texts: tuple[Text, ...] = ()
    labels: tuple[Label, ...] = ()
    bays: tuple[Area, ...] = ()
    walls: tuple[Label, ...] = ()
    """Where each wall, level or drawer is that is shown beside others."""
    dimensions: tuple[Dimension, ...] = ()
    title: TitleBlock
