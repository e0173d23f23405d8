"""What has been sawn already: sheets and boards ticked off, the rests of them in hand, and parts that were spoiled and are
cut anew from what is left.
"""

from collections.abc import Sequence
from typing import Annotated

from pydantic import Field

from ..base import AtMost, Frozen, Id
from ..inventory.owned import Owned
from ..mechanics.materials import Grade
from .cutlist import CutPart, Kind, Stuff
from .cutting.lengths import Board
from .cutting.sheets import CutSheet
from .plans import OFFCUT, Offcut, StuffPlan

Side = Annotated[int, Field(ge=0, le=100_000)]


class SawnPart(Frozen):
    """A part that came off the saw: which, its label on the day, and its cut size, mm."""

    id: Annotated[str, Field(max_length=400)]
    label: Annotated[str, Field(max_length=12)] = ""
    length: Side
    width: Side
    spoiled: bool = False


class Sawn(Frozen):
    """One sheet or board that was sawn: what it is of, its size, cents paid for it (0: it was an offcut), whose rest it
    was, its parts and its rests (length, width), mm.
    """

    id: Id
    kind: Kind
    grade: Grade
    thick: Side
    high: Side = 0
    of: Annotated[str, Field(max_length=40)] = ""
    length: Side
    width: Side
    cents: Annotated[int, Field(ge=0, le=100_000_000)] = 0
    rest_of: Annotated[str, Field(max_length=80)] = ""
    parts: Annotated[tuple[SawnPart, ...], AtMost(500)] = ()
    rests: Annotated[tuple[tuple[Side, Side], ...], AtMost(500)] = ()

    @property
    def stuff(self) -> Stuff:
        """What it is of."""
        return Stuff(self.kind, self.grade, self.thick, self.high, self.of)


Sawing = tuple[Sawn, ...]


def still_to_cut(parts: Sequence[CutPart], sawing: Sequence[Sawn]) -> tuple[CutPart, ...]:
    """The cut list without what has been sawn in its size and not spoiled."""
    done = {(p.id, p.length, p.width) for one in sawing for p in one.parts if not p.spoiled}
    return tuple(p for p in parts if (p.id, p.cut_length, p.cut_width) not in done)


def offcuts_in_hand(owned: Sequence[Owned], sawing: Sequence[Sawn]) -> tuple[Offcut, ...]:
    """The boards a household has and the rests of what was sawn, but for what has been sawn up in turn."""
    used = {one.rest_of for one in sawing if one.rest_of}
    there = [
        Offcut(Stuff("sheet", o.grade, round(o.size[2])), round(o.size[0]), round(o.size[1]), f"{o.id}.{n + 1}")
        for o in owned if o.kind == "board" for n in range(o.count)
    ]  # fmt: skip
    rests = [
        Offcut(one.stuff, length, width, f"{one.id}.{n + 1}") for one in sawing
        for n, (length, width) in enumerate(one.rests)
    ]  # fmt: skip
    return tuple(o for o in (*there, *rests) if o.name not in used)


def sawn_sheet(key: str, plan: StuffPlan, sheet: CutSheet) -> Sawn:
    """A sheet of a plan as it is ticked off."""
    parts = tuple(_part(plan, p.panel.key) for p in sheet.parts)
    rests = tuple((r.w, r.h) for r in sheet.rests)
    return _sawn(
        key, plan.stuff, sheet.sheet.key, sheet.sheet.length, sheet.sheet.width, sheet.sheet.price, parts, rests
    )


def sawn_board(key: str, plan: StuffPlan, board: Board) -> Sawn:
    """A board of a plan as it is ticked off."""
    parts = tuple(_part(plan, p.key) for p in board.pieces)
    rests = ((board.rest, plan.stuff.high),) if board.rest else ()
    stock = board.stock
    return _sawn(key, plan.stuff, stock.key, stock.length, plan.stuff.high, stock.price, parts, rests)


def _part(plan: StuffPlan, label: str) -> SawnPart:
    own = plan.label_of(label)
    return SawnPart(id=own.id, label=own.label, length=own.cut_length, width=own.cut_width)


def _sawn(key: str, stuff: Stuff, stock: str, length: int, width: int, cents: int, parts: tuple[SawnPart, ...],
          rests: tuple[tuple[int, int], ...]) -> Sawn:  # fmt: skip
    rest_of = stock.removeprefix(OFFCUT) if not cents else ""
    return Sawn(id=key, kind=stuff.kind, grade=stuff.grade, thick=stuff.thick, high=stuff.high, of=stuff.of,
                length=length, width=width, cents=cents, rest_of=rest_of, parts=parts, rests=rests)  # fmt: skip


def spoil(sawing: Sequence[Sawn], part: str) -> Sawing:
    """The sawn sheets once a part of them is spoiled: it is cut anew."""
    return tuple(
        one.model_copy(update={"parts": tuple(
            p.model_copy(update={"spoiled": True}) if p.id == part and not p.spoiled else p for p in one.parts
        )}) for one in sawing
    )  # fmt: skip


def unsawn(sawing: Sequence[Sawn], key: str) -> Sawing:
    """Without one that was ticked off by mistake, and without what was sawn from its rests."""
    gone = {key}
    while more := {o.id for o in sawing if o.rest_of and o.rest_of.rpartition(".")[0] in gone} - gone:
        gone |= more
    return tuple(o for o in sawing if o.id not in gone)
