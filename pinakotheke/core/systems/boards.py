"""The boards that parts are made of: size, grain, edges, joints and holes of each, where it stands.

Material is a row of `tables/boards.toml`. Lengths mm, masses kg. A board lies along
the axes of its section; its thickness is its least side.
"""

from collections.abc import Iterable
from typing import Literal

from ..base import Frozen
from ..mechanics.materials import Grade, boards
from .parts import Part

Axis = Literal["x", "y", "z"]
Face = Literal["front", "back", "left", "right", "top", "bottom"]
BACK, DRAWER_SIDE, DRAWER_BOTTOM = 6, 15, 8
"""Thickness of backs, drawer sides and drawer bottoms, mm; common practice."""
HOLE_ROW, HOLE_PITCH, HOLE = 37, 32, 5
"""The boring of side panels: rows so far from the front and back edges, at this pitch, of this diameter, mm; common
European cabinet practice."""


class Holes(Frozen):
    """A row of holes in a board's face: diameter, pitch, distance from its front edge, and from..to along the row."""

    diameter: int
    pitch: int
    inset: int
    start: int
    end: int


class Board(Frozen):
    """One board of a part. `x, y, z` is its left, back, lower corner, `w, d, h` its sides, mm; `edges` are banded,
    `joints` say which of its ends meet another board, `grain` runs along its axis.
    """

    part: str
    name: str
    material: Grade = "particleboard"
    x: int
    y: int
    z: int
    w: int
    d: int
    h: int
    grain: Axis = "x"
    edges: tuple[Face, ...] = ("front",)
    joints: tuple[Face, ...] = ()
    holes: tuple[Holes, ...] = ()

    @property
    def thickness(self) -> int:
        """Its least side."""
        return min(self.w, self.d, self.h)

    @property
    def length(self) -> int:
        """Along its grain."""
        return {"x": self.w, "y": self.d, "z": self.h}[self.grain]

    @property
    def width(self) -> int:
        """Across its grain, in its face."""
        sides = sorted((self.w, self.d, self.h))[1:]
        return sides[0] if sides[1] == self.length else sides[1]

    @property
    def mass(self) -> float:
        """Kilograms: volume × density of the material."""
        return self.w * self.d * self.h / 1e9 * boards()[self.material].density

    def meets(self, part: Part) -> bool:
        """Whether a part shares volume with it; touching does not count."""
        return (
            self.x < part.x + part.w and part.x < self.x + self.w
            and self.y < part.y + part.d and part.y < self.y + self.d
            and self.z < part.z + part.h and part.z < self.z + self.h
        )  # fmt: skip


def mass_of(boards: Iterable[Board]) -> float:
    """Kilograms of some boards."""
    return sum(b.mass for b in boards)


NO_BOARD = frozenset({"floor", "container", "curtain", "light", "legs", "basket", "rail", "face rail", "tie rack",
                      "trouser rack", "track", "standard", "post", "hanger", "bracket"})  # fmt: skip


def boards_of(part: Part, thickness: int) -> tuple[Board, ...]:
    """A frame's or a trolley's boards, those of a drawer; everything else that is no metal is one board."""
    if part.role in NO_BOARD:
        return ()
    if part.role == "frame":
        return framed(part, thickness, top=True)
    if part.role == "trolley":
        return framed(part, thickness, top=False)
    if part.role in ("drawer", "hamper"):
        return drawn(part)
    grain: Axis = "z" if part.h >= max(part.w, part.d) else "x" if part.w >= part.d else "y"
    solid: Grade = "pine" if part.role == "cleat" else part.make.grade if part.make else "particleboard"
    return (Board(part=part.id, name=part.role, material=solid, x=part.x, y=part.y, z=part.z, w=part.w, d=part.d,
                  h=part.h, grain=grain, edges=() if part.role == "cleat" else ("front",)),)  # fmt: skip


def framed(part: Part, t: int, *, top: bool) -> tuple[Board, ...]:
    """Sides from bottom to top, bottom and top between them, and a thin back; the sides bored for shelves."""
    x, y, z, w, d, h = part.x, part.y, part.z, part.w, part.d, part.h
    rows = tuple(
        Holes(diameter=HOLE, pitch=HOLE_PITCH, inset=inset, start=z + t, end=z + h - t)
        for inset in (HOLE_ROW, d - BACK - HOLE_ROW)
    )

    def one(name: str, **box: object) -> Board:
        return Board.model_validate(
            {"part": part.id, "name": name, "x": x, "y": y, "z": z, "w": w, "d": d, "h": h, **box}
        )

    flat: dict[str, object] = {"x": x + t, "w": w - 2 * t, "h": t, "joints": ("left", "right")}
    found = [
        one("left", w=t, grain="z", joints=("top", "bottom"), holes=rows),
        one("right", x=x + w - t, w=t, grain="z", joints=("top", "bottom"), holes=rows),
        one("bottom", **flat),
    ]
    if top:
        found.append(one("top", **{**flat, "z": z + h - t}))
    back = {"x": x + t, "w": w - 2 * t, "z": z + t, "h": h - (2 if top else 1) * t, "d": min(BACK, t)}
    found.append(one("back", grain="z", edges=(), **back))
    return tuple(found)


def drawn(part: Part) -> tuple[Board, ...]:
    """A front, two sides, a back and a bottom."""
    x, y, z, w, d, h = part.x, part.y, part.z, part.w, part.d, part.h
    side, deep = DRAWER_SIDE, max(part.d - 18, 1)
    high = max(h - 30, 1)

    def one(name: str, **box: object) -> Board:
        return Board.model_validate({"part": part.id, "name": name, "x": x, "y": y, "z": z + 10, "w": w, "d": d, "h": high,
                                     "edges": ("top",), **box})  # fmt: skip

    return (
        one("front", y=y + deep, d=min(18, d), z=z, h=h, edges=("top", "bottom", "left", "right")),
        one("left side", w=side, d=deep, grain="y", joints=("front", "back")),
        one("right side", x=x + w - side, w=side, d=deep, grain="y", joints=("front", "back")),
        one("back", x=x + side, w=max(w - 2 * side, 1), d=side, joints=("left", "right")),
        one("bottom", x=x + side, w=max(w - 2 * side, 1), y=y + side, d=max(deep - side, 1), h=DRAWER_BOTTOM, edges=()),
    )
