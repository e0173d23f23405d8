"""Collects shapes, lays dimension lines, keeps text inside its box."""

from collections.abc import Callable
from math import atan2, cos, degrees, radians, sin
from typing import Literal

from ..inventory.needs import Storage
from ..survey.slots import SlotRef
from ..units import Units, format_length
from .models import (
    Area,
    Dimension,
    DimensionState,
    Drawing,
    Label,
    Layer,
    Point,
    Polyline,
    Rect,
    Text,
    TitleBlock,
    Weight,
)

GLYPH = 0.5
"""Mean width of a character, as a share of the text height, of the shipped text face."""
LINE = 1.22
"""Line height as a share of the text height."""
MARGIN_TEXTS = 1.0


class Canvas:
    """A drawing in the making; `text` is the height of its smallest text in mm of the real thing."""

    def __init__(self, text: float, units: Units) -> None:
        self.text, self.units = text, units
        self.rects: list[Rect] = []
        self.lines: list[Polyline] = []
        self.texts: list[Text] = []
        self.labels: list[Label] = []
        self.bays: list[Area] = []
        self.walls: list[Label] = []
        self.dimensions: list[Dimension] = []

    def rect(self, layer: Layer, x: float, y: float, w: float, h: float, *, of: str = "", weight: Weight = "medium",
             dashed: bool = False, hatch: Storage | None = None, cut: bool = False,
             role: str = "", lies_in: str = "") -> None:  # fmt: skip
        self.rects.append(
            Rect(layer=layer, x=x, y=y, w=w, h=h, of=of, weight=weight, dashed=dashed, hatch="cut" if cut else hatch,
                 role=role, lies_in=lies_in)
        )  # fmt: skip

    def line(self, layer: Layer, *points: Point, of: str = "", weight: Weight = "fine", dashed: bool = False) -> None:
        self.lines.append(Polyline(layer=layer, points=points, of=of, weight=weight, dashed=dashed))

    def face(self, layer: Layer, *points: Point, of: str = "", weight: Weight = "medium", dashed: bool = False,
             cut: bool = False) -> None:  # fmt: skip
        """A closed outline of any shape, hatched when it is cut."""
        self.lines.append(
            Polyline(layer=layer, points=(*points, points[0]), of=of, weight=weight, dashed=dashed,
                     hatch="cut" if cut else None)
        )  # fmt: skip

    def arc(self, layer: Layer, centre: Point, radius: float, start: float, end: float, of: str = "") -> None:
        """An arc in degrees, as chords of about 6°."""
        steps = max(2, round(abs(end - start) / 6))
        angles = [radians(start + (end - start) * n / steps) for n in range(steps + 1)]
        points = tuple((centre[0] + radius * cos(a), centre[1] + radius * sin(a)) for a in angles)
        self.lines.append(Polyline(layer=layer, points=points, of=of))

    def note(self, layer: Layer, x: float, y: float, text: str, *, of: str = "", size: float = 1.0, turn: float = 0,
             halo: bool = False, caption: bool = False,
             anchor: Literal["start", "middle", "end"] = "middle") -> None:  # fmt: skip
        self.texts.append(Text(layer=layer, x=x, y=y, text=text, size=self.text * size, of=of, turn=turn, halo=halo,
                               caption=caption, anchor=anchor))  # fmt: skip

    def label_in(self, x: float, y: float, w: float, h: float, items: list[str], of: str) -> None:
        """As many items as fit into a box, centred, and how many more there are; nothing if no line fits."""
        self.labels.append(Label(x=x, y=y, w=w, h=h, items=tuple(items), of=of))
        rows = listed(items, int(w / (self.text * GLYPH)), int(h / (self.text * LINE)))
        top = y + h / 2 + len(rows) * self.text * LINE / 2
        for n, row in enumerate(rows):
            base = top - (n + 0.78) * self.text * LINE
            self.note("content", x + w / 2, base, row, of=of, halo=True)

    def beside(self, at: Point, turn: float, text: str) -> None:
        """A name along a line that runs at `turn` degrees, on the side away from the origin, never upside down."""
        turn = (turn + 180) % 360 - 180
        if not -45 < turn <= 135:
            turn += 180 if turn < 0 else -180
        below = at[1] < 0 and abs(turn) < 45
        self.note("note", at[0], at[1] - (self.text if below else 0), text, turn=turn)

    def holds(self, text: str, w: float) -> bool:
        """Whether a line of text goes into a width."""
        return len(text) * self.text * GLYPH <= w

    def across(self, x0: float, x1: float, y: float, value: float | None, label: str, *, at: float = 0.5,
               state: DimensionState = "derived", slot: SlotRef | None = None,
               from_y: float | None = None) -> None:  # fmt: skip
        """A level dimension line at height y, its text above the line at the share `at` of its length."""
        extensions: tuple[tuple[Point, Point], ...] = ()
        if from_y is not None:
            over = self.text * 0.5 if y > from_y else -self.text * 0.5
            extensions = tuple(((x, from_y), (x, y + over)) for x in (x0, x1))
        self._dimension((x0, y), (x1, y), x0 + (x1 - x0) * at, y + self.text * 0.28, 0, value, label, state, slot,
                        extensions)  # fmt: skip

    def upright(self, x: float, y0: float, y1: float, value: float | None, label: str, *, at: float = 0.5,
                state: DimensionState = "derived", slot: SlotRef | None = None,
                from_x: float | None = None) -> None:  # fmt: skip
        """An upright dimension line at x, its text turned along the line."""
        extensions: tuple[tuple[Point, Point], ...] = ()
        if from_x is not None:
            over = self.text * 0.5 if x > from_x else -self.text * 0.5
            extensions = tuple(((from_x, y), (x + over, y)) for y in (y0, y1))
        self._dimension((x, y0), (x, y1), x - self.text * 0.28, y0 + (y1 - y0) * at, 90, value, label, state, slot,
                        extensions)  # fmt: skip

    def between(self, a: Point, b: Point, value: float | None, label: str, *, at: float = 0.5,
                state: DimensionState = "derived", slot: SlotRef | None = None) -> None:  # fmt: skip
        """A dimension line between any two points, its text along the line and never upside down."""
        turn = degrees(atan2(b[1] - a[1], b[0] - a[0]))
        if not -45 < turn <= 135:
            a, b, at = b, a, 1 - at
            turn += 180 if turn < 0 else -180
        lift = self.text * 0.28
        x = a[0] + (b[0] - a[0]) * at - lift * sin(radians(turn))
        y = a[1] + (b[1] - a[1]) * at + lift * cos(radians(turn))
        self._dimension(a, b, x, y, turn, value, label, state, slot, ())

    def mark(self, x: float, y: float, value: float | None, label: str, *, state: DimensionState = "derived",
             slot: SlotRef | None = None, down: bool = True) -> None:  # fmt: skip
        """A number at a point, on a short leader: a fall of the floor, a lean of a wall."""
        long = self.text * 0.7 * (-1 if down else 1)
        self._dimension((x, y), (x, y + long), x, y + long - (self.text if down else -self.text * 0.2), 0, value,
                        label, state, slot, ())  # fmt: skip

    def take(self, other: "Canvas", dx: float, dy: float) -> None:
        """Everything on another canvas, moved by so much."""

        def moved(point: Point) -> Point:
            return (point[0] + dx, point[1] + dy)

        self.rects += [r.model_copy(update={"x": r.x + dx, "y": r.y + dy}) for r in other.rects]
        self.lines += [p.model_copy(update={"points": tuple(map(moved, p.points))}) for p in other.lines]
        self.texts += [t.model_copy(update={"x": t.x + dx, "y": t.y + dy}) for t in other.texts]
        self.labels += [a.model_copy(update={"x": a.x + dx, "y": a.y + dy}) for a in other.labels]
        self.bays += [a.model_copy(update={"x": a.x + dx, "y": a.y + dy}) for a in other.bays]
        self.dimensions += [
            d.model_copy(update={"start": moved(d.start), "end": moved(d.end), "x": d.x + dx, "y": d.y + dy,
                                 "extensions": tuple((moved(a), moved(b)) for a, b in d.extensions)})
            for d in other.dimensions
        ]  # fmt: skip

    def take_turned(self, other: "Canvas", place: Callable[[Point], Point], square: bool) -> None:
        """Shapes and words of another canvas, every point placed anew; words stay upright, captions run along. What is
        turned by right angles keeps its rectangles (`square`), at any other angle they are faces.
        """

        def box(a: Area | Rect) -> tuple[Point, ...]:
            return tuple(place(p) for p in ((a.x, a.y), (a.x + a.w, a.y), (a.x + a.w, a.y + a.h), (a.x, a.y + a.h)))

        def bounds(a: Area | Rect) -> dict[str, float]:
            points = box(a)
            if not square:
                # Of what lies aslant, the room that is surely its own.
                middle, side = place((a.x + a.w / 2, a.y + a.h / 2)), min(a.w, a.h)
                return {"x": middle[0] - side / 2, "y": middle[1] - side / 2, "w": side, "h": side}
            xs, ys = [p[0] for p in points], [p[1] for p in points]
            return {"x": min(xs), "y": min(ys), "w": max(xs) - min(xs), "h": max(ys) - min(ys)}

        for r in other.rects:
            if square:
                self.rects.append(r.model_copy(update=bounds(r)))
            else:
                points = box(r)
                self.lines.append(Polyline(layer=r.layer, points=(*points, points[0]), of=r.of, weight=r.weight,
                                           dashed=r.dashed, hatch=r.hatch))  # fmt: skip
        self.lines += [p.model_copy(update={"points": tuple(map(place, p.points))}) for p in other.lines]
        (x0, y0), (x1, y1) = place((0, 0)), place((1, 0))
        along = degrees(atan2(y1 - y0, x1 - x0))
        for t in other.texts:
            if t.caption:
                self.beside(place((t.x, t.y)), along, t.text)
                continue
            x, y = place((t.x, t.y + t.size / 2))
            self.texts.append(t.model_copy(update={"x": x, "y": y - t.size / 2, "anchor": "middle"}))
        self.labels += [a.model_copy(update=bounds(a)) for a in other.labels]
        self.bays += [a.model_copy(update=bounds(a)) for a in other.bays]

    def _dimension(self, start: Point, end: Point, x: float, y: float, turn: float, value: float | None, label: str,
                   state: DimensionState, slot: SlotRef | None,
                   extensions: tuple[tuple[Point, Point], ...]) -> None:  # fmt: skip
        text = "?" if value is None else format_length(value, self.units)
        self.dimensions.append(
            Dimension(start=start, end=end, extensions=extensions, x=x, y=y, text=text, label=label, size=self.text,
                      turn=turn, state=state if value is not None else "missing", slot=slot)
        )  # fmt: skip

    def drawing(self, view: str, title: TitleBlock) -> Drawing:
        """The finished drawing, its bounds grown to everything on it and a text's margin."""
        xs, ys = self._extent()
        margin = self.text * MARGIN_TEXTS
        return Drawing.model_validate(
            {"view": view, "bounds": (min(xs) - margin, min(ys) - margin, max(xs) + margin, max(ys) + margin),
             "rects": tuple(self.rects), "lines": tuple(self.lines), "texts": tuple(self.texts),
             "labels": tuple(self.labels), "bays": tuple(self.bays), "walls": tuple(self.walls),
             "dimensions": tuple(self.dimensions), "title": title}
        )  # fmt: skip

    def _extent(self) -> tuple[list[float], list[float]]:
        xs, ys = [], []
        for r in self.rects:
            xs += [r.x, r.x + r.w]
            ys += [r.y, r.y + r.h]
        for points in [line.points for line in self.lines] + [(d.start, d.end) for d in self.dimensions]:
            xs += [p[0] for p in points]
            ys += [p[1] for p in points]
        written: list[Text | Dimension] = [*self.texts, *self.dimensions]
        for t in written:
            half = len(t.text) * t.size * GLYPH / 2
            c, s = abs(cos(radians(t.turn))), abs(sin(radians(t.turn)))
            wide, high = half * c + t.size * s, half * s + t.size * c
            away = {"start": half, "end": -half}.get(getattr(t, "anchor", ""), 0.0) * cos(radians(t.turn))
            xs += [t.x + away - wide, t.x + away + wide]
            ys += [t.y - (high if t.turn else t.size * 0.25), t.y + high]
        return xs, ys


def listed(items: list[str], columns: int, rows: int) -> list[str]:
    """Items with commas in at most `rows` lines of at most `columns` characters; `+2` stands for two left out.

    >>> listed(["9 shirts", "2 jackets", "1 coat"], 11, 1), listed(["9 shirts"], 6, 1)
    (['9 shirts +2'], ['9 shi…'])
    """
    for shown in range(len(items), 0, -1):
        more = len(items) - shown
        lines = wrap(", ".join(items[:shown]) + (f" +{more}" if more else ""), columns, rows)
        if lines and not any(line.endswith("…") for line in lines):
            return lines
    return wrap(items[0], columns, rows) if items else []


def wrap(text: str, columns: int, rows: int) -> list[str]:
    """Words in at most `rows` lines of at most `columns` characters, the last cut with an ellipsis.

    >>> wrap("9 Shirts, 2 Jackets", 10, 2), wrap("9 Shirts, 2 Jackets", 10, 1), wrap("Shirts", 2, 1)
    (['9 Shirts,', '2 Jackets'], ['9 Shirts…'], [])
    """
    if columns < 3 or rows < 1:
        return []
    lines: list[str] = []
    for word in text.split():
        if lines and len(lines[-1]) + 1 + len(word) <= columns:
            lines[-1] += " " + word
        else:
            lines.append(word)
    cut = len(lines) > rows
    lines = lines[:rows]
    lines = [line if len(line) <= columns else line[: columns - 1] + "…" for line in lines]
    if cut and lines and not lines[-1].endswith("…"):
        lines[-1] = lines[-1][: columns - 1].rstrip(" ,") + "…"
    return lines
