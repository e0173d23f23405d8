"""The cut list: every board of a design that is cut from stock, with its finished and its cut size.

A part is cut from a sheet or from a board (a batten, a strip) as `tables/stock.toml` says for its family. Like parts share
a letter, and each has a number under it.
"""

from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from typing import Literal, NamedTuple

from ..base import Frozen
from ..layout import Design
from ..mechanics.materials import Grade, boards
from ..systems import Part
from ..systems.boards import Board, boards_of
from ..tables import load
from ..units import Units, format_length, with_unit
from .choice import Choice, saw

Kind = Literal["sheet", "board"]
USUAL_THICKNESS = 18
THIN = "Hardboard"
"""What is thinner than a grade is sold: backs and bottoms."""


class Stuff(NamedTuple):
    """What is bought to be cut: sheets of a grade and thickness, or boards of a section `high` × `thick`, mm."""

    kind: Kind
    grade: Grade
    thick: int
    high: int = 0
    of: str = ""
    """The row of `stock.toml` that boards are sold by."""

    @property
    def name(self) -> str:
        """Its name on a list."""
        if self.kind == "sheet":
            thinnest = min(boards()[self.grade].thicknesses)
            return boards()[self.grade].name if self.thick >= thinnest else THIN
        return str(load("stock")["board"][self.of]["name"])

    def said(self, units: Units) -> str:
        """Its name with its thickness, or its section."""
        if self.kind == "sheet":
            return f"{self.name} {with_unit(self.thick, units)}"
        return f"{self.name} " + " × ".join(format_length(mm, units) for mm in (self.thick, self.high))


class CutPart(Frozen):
    """One board to cut, mm: `length` along the grain; finished with its bands on, and as the saw cuts it."""

    id: str
    """The same however the list is lettered: space, part, board."""
    label: str = ""
    stuff: Stuff
    space: str
    part: str
    name: str
    length: int
    width: int
    cut_length: int
    cut_width: int
    bands: int
    """Edges that are banded."""
    turns: bool
    shaped: bool = False
    """Whether more is cut than four straight edges: a notch around a pipe, an end to a slope."""

    @property
    def band(self) -> int:
        """Millimetres of band, one edge along its length."""
        return self.length if self.bands else 0


def cut_list(designs: Sequence[tuple[str, Design]], choice: Choice) -> tuple[CutPart, ...]:
    """Everything that is cut for some designs (each with the name of its space), lettered: the largest first."""
    if choice.cutting == "measure":
        return ()
    found = [one for space, design in designs for one in _of_design(space, design, choice)]
    alike: dict[tuple[object, ...], list[CutPart]] = defaultdict(list)
    for one in found:
        alike[(one.stuff, one.cut_length, one.cut_width, one.name, one.bands, one.shaped, one.turns)].append(one)
    groups = sorted(alike.values(), key=lambda g: (g[0].stuff, -g[0].cut_length * g[0].cut_width, g[0].name))
    return tuple(
        one.model_copy(update={"label": f"{lettered(n)}{k}" if len(group) > 1 else lettered(n)})
        for n, group in enumerate(groups) for k, one in enumerate(group, 1)
    )  # fmt: skip


def is_cut(design: Design, part: Part, choice: Choice) -> Kind | None:
    """What a part is cut from, by the household's choice; None where it is bought as it is listed."""
    if choice.cutting == "measure":
        return None
    family, rows = design.family_of(part), load("stock")
    kinds: dict[str, Kind] = dict(rows["cut"].get(family.kind, {}))
    if choice.cutting == "make":
        kinds |= rows["make"].get(family.kind, {})
    return kinds.get(part.role)


def _of_design(space: str, design: Design, choice: Choice) -> Iterable[CutPart]:
    for part in design.parts:
        kind = is_cut(design, part, choice)
        if kind is None:
            continue
        if kind == "board":
            longest, high, thick = sorted((part.w, part.d, part.h), reverse=True)
            stuff = Stuff("board", "pine", thick, high, part.role)
            yield CutPart(id=f"{design.space}/{part.id}", stuff=stuff, space=space, part=part.id,
                          name=_named(design, part), length=longest, width=high, cut_length=longest, cut_width=high,
                          bands=0, turns=False)  # fmt: skip
            continue
        thickness = getattr(design.family_of(part).table, "board", USUAL_THICKNESS)
        for board in boards_of(part, thickness):
            yield _board(space, design, part, board, choice)


def _board(space: str, design: Design, part: Part, board: Board, choice: Choice) -> CutPart:
    grade = choice.grade or board.material
    banded = len(board.edges)
    whole = _named(design, part)
    name = whole if board.name == part.role else f"{whole}, {board.name}"
    return CutPart(
        id=f"{design.space}/{part.id}/{board.name}", stuff=Stuff("sheet", grade, board.thickness), space=space,
        part=part.id, name=name, length=board.length, width=board.width, cut_length=board.length,
        cut_width=board.width - banded * int(saw("band")), bands=banded,
        turns=grade not in load("stock")["sheet"]["grain"], shaped=bool(part.cuts or part.mitre),
    )  # fmt: skip


def _named(design: Design, part: Part) -> str:
    return design.family_of(part).named(part)


def lettered(number: int) -> str:
    """A, B, … Z, AA, AB, …

    >>> [lettered(n) for n in (0, 25, 26, 27)]
    ['A', 'Z', 'AA', 'AB']
    """
    letters = ""
    while number >= 0:
        letters = chr(65 + number % 26) + letters
        number = number // 26 - 1
    return letters


def by_stuff(parts: Iterable[CutPart]) -> Mapping[Stuff, tuple[CutPart, ...]]:
    """The cut list by what it is cut from, sheets first."""
    found: dict[Stuff, list[CutPart]] = defaultdict(list)
    for one in parts:
        found[one.stuff].append(one)
    return {stuff: tuple(found[stuff]) for stuff in sorted(found, key=lambda s: (s.kind != "sheet", s))}
