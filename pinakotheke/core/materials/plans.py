"""Cut plans of a purchase: what whole sheets and boards are bought for a cut list, how each is sawn, and what is left."""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import NamedTuple

from ..mechanics.materials import boards
from ..tables import load
from .choice import Choice, saw
from .cutlist import CutPart, Stuff, by_stuff
from .cutting.lengths import CutPlan, Piece, Stock, cut_lengths
from .cutting.sheets import CutSheet, Panel, Sheet, SheetPlan, cut_sheets
from .cutting.verify import faults_of

CENTS = 100
OFFCUT = "offcut "
"""What the key of a rest in hand begins with."""


class Offcut(NamedTuple):
    """A rest in hand, mm: it is cut first and costs nothing."""

    stuff: Stuff
    length: int
    width: int
    name: str


@dataclass(frozen=True, slots=True)
class StuffPlan:
    """How everything of one stuff is cut; `sheets` of sheets, `lengths` of boards."""

    stuff: Stuff
    parts: tuple[CutPart, ...]
    sheets: SheetPlan | None = None
    lengths: CutPlan | None = None

    @property
    def plan(self) -> SheetPlan | CutPlan:
        """Whichever it is."""
        found = self.sheets or self.lengths
        assert found is not None
        return found

    @property
    def bought(self) -> tuple[tuple[int, int, int, int], ...]:
        """What is bought: length, width (0 of boards), price in cents, number."""
        if self.sheets is not None:
            counted = Counter(s.sheet for s in self.sheets.sheets if s.sheet.price)
            return tuple((s.length, s.width, s.price, n) for s, n in sorted(counted.items(), key=_largest))
        assert self.lengths is not None
        boards_ = Counter(b.stock for b in self.lengths.boards if b.stock.price)
        return tuple((s.length, 0, s.price, n) for s, n in sorted(boards_.items(), key=lambda r: -r[0].length))

    @property
    def kept(self) -> tuple[tuple[int, int], ...]:
        """Rests worth keeping, mm, the largest first."""
        if self.sheets is not None:
            rests = [(max(r.w, r.h), min(r.w, r.h)) for s in self.sheets.sheets for r in s.rests]
            return tuple(sorted((r for r in rests if _worth(*r)), reverse=True))
        assert self.lengths is not None
        return tuple(sorted(((b.rest, self.stuff.high) for b in self.lengths.boards if b.rest >= saw("worth_length")),
                            reverse=True))  # fmt: skip

    @property
    def waste(self) -> float:
        """The share of what is bought and of the offcuts used that becomes no part."""
        if self.sheets is not None:
            return self.sheets.waste
        assert self.lengths is not None
        whole = sum(b.stock.length for b in self.lengths.boards)
        return 1 - sum(p.length for b in self.lengths.boards for p in b.pieces) / whole if whole else 0.0

    def label_of(self, key: str) -> CutPart:
        """The part of a label."""
        return next(p for p in self.parts if p.label == key)


def _largest(row: tuple[Sheet, int]) -> tuple[int, str]:
    return -row[0].length * row[0].width, row[0].key


def _worth(long: int, short: int) -> bool:
    return long >= saw("worth_length") and short >= saw("worth_width")


def sheets_of(stuff: Stuff, longest: int = 0) -> tuple[Sheet, ...]:
    """Sheets of a stuff as they are sold, no longer than the car takes."""
    table, grade = load("stock")["sheet"], boards()[stuff.grade]
    each = table["per_m2"] * grade.price * stuff.thick / table["thickness"]
    return tuple(
        Sheet(f"{length} × {width}", length, width, round(each * dear * length * width / 1e6 * CENTS))
        for length, width, dear in table["sizes"] if not longest or length <= longest
    )  # fmt: skip


def boards_sold(stuff: Stuff, longest: int = 0) -> tuple[Stock, ...]:
    """Lengths of a board or strip as they are sold, no longer than the car takes."""
    row = load("stock")["board"][stuff.of]
    each = row["per_m"] * stuff.high / row["high"]
    return tuple(
        Stock(str(length), length, round(each * length / 1000 * CENTS))
        for length in row["lengths"] if not longest or length <= longest
    )  # fmt: skip


def too_large(parts: Sequence[CutPart], choice: Choice) -> tuple[CutPart, ...]:
    """Parts that come off no sheet and no board that is sold, or that the car takes."""
    return tuple(p for p in parts if not _comes_off(p, choice))


def _comes_off(part: CutPart, choice: Choice) -> bool:
    if part.stuff.kind == "board":
        return any(part.cut_length <= s.length - 2 * choice.trim for s in boards_sold(part.stuff, choice.longest))
    room = [(s.length - 2 * choice.trim, s.width - 2 * choice.trim) for s in sheets_of(part.stuff, choice.longest)]
    sides = [(part.cut_length, part.cut_width)] + ([(part.cut_width, part.cut_length)] if part.turns else [])
    return any(w <= length and h <= width for length, width in room for w, h in sides)


def cut_plans(parts: Sequence[CutPart], choice: Choice, offcuts: Sequence[Offcut] = ()) -> tuple[StuffPlan, ...]:
    """The plans for a cut list of which every part comes off something that is sold."""
    found = []
    for stuff, own in by_stuff(parts).items():
        rests = [o for o in offcuts if o.stuff == stuff]
        if stuff.kind == "sheet":
            panels = tuple(Panel(p.label, p.cut_length, p.cut_width, 1, p.turns) for p in own)
            stock = (
                *(Sheet(OFFCUT + o.name, o.length, o.width, 0, 1) for o in rests),
                *sheets_of(stuff, choice.longest),
            )
            found.append(StuffPlan(stuff, own, sheets=_sheets(panels, stock, choice.kerf, choice.trim)))
        else:
            pieces = tuple(Piece(p.label, p.cut_length, 1) for p in own)
            lengths = (*(Stock(OFFCUT + o.name, o.length, 0, 1) for o in rests), *boards_sold(stuff, choice.longest))
            found.append(StuffPlan(stuff, own, lengths=_lengths(pieces, lengths, choice.kerf, choice.trim)))
    return tuple(found)


@lru_cache(maxsize=64)
def _sheets(panels: tuple[Panel, ...], stock: tuple[Sheet, ...], kerf: int, trim: int) -> SheetPlan:
    """The same list is asked for by the page, its files and its papers."""
    stages = int(saw("stages"))
    plan = cut_sheets(panels, stock, kerf=kerf, trim=trim, stages=stages)
    faults = faults_of(plan, panels, stock, kerf=kerf, trim=trim, stages=stages)
    if faults:  # no diagram is better than a wrong one
        raise RuntimeError("; ".join(faults))
    return plan


@lru_cache(maxsize=64)
def _lengths(pieces: tuple[Piece, ...], stock: tuple[Stock, ...], kerf: int, trim: int) -> CutPlan:
    return cut_lengths(pieces, stock, kerf=kerf, trim=trim)


def cut_sheets_of(plans: Sequence[StuffPlan]) -> tuple[tuple[StuffPlan, CutSheet], ...]:
    """Every sheet of all plans, in the order in which they are sawn."""
    return tuple((p, s) for p in plans if p.sheets is not None for s in p.sheets.sheets)
