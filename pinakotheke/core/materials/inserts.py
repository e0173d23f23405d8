"""What is made for drawers: strips to cut with their slots, and the liner of each floor."""

from collections import Counter

from ..base import Frozen
from ..layout import Design
from ..layout.build.dividers import strips_of
from ..layout.build.halving import Piece, pieces
from ..systems.families.insert import Dividers


class StripLine(Frozen):
    """So many strips cut alike; lengths in mm. Slots are (from the left end, width, depth, open at)."""

    count: int
    length: int
    height: int
    thickness: int
    slots: tuple[tuple[float, float, float, str], ...]
    butts: int
    """Ends of each that only butt and are glued."""


class DrawerCuts(Frozen):
    """What is cut for one drawer: its strips, and a liner as large as its floor, mm."""

    section: str
    strips: tuple[StripLine, ...]
    liner: tuple[int, int]


def cuts_of_drawers(design: Design) -> tuple[DrawerCuts, ...]:
    """The cut list of every drawer that is parted by strips; like strips counted together, the longest first."""
    found = []
    for section, made, high, thick, floor in _drawers(design):
        alike = Counter((p.length, p.slots, p.butts) for p in made)
        lines = tuple(
            StripLine(count=count, length=length, height=high, thickness=thick, slots=tuple(tuple(s) for s in slots),
                      butts=butts)
            for (length, slots, butts), count in sorted(alike.items(), key=lambda row: (-row[0][0], row[0][1]))
        )  # fmt: skip
        found.append(DrawerCuts(section=section, strips=lines, liner=floor))
    return tuple(found)


def pieces_of(design: Design) -> tuple[tuple[str, Piece, int], ...]:
    """Every strip by itself: its drawer, how it is cut, how high it is."""
    return tuple((section, piece, high) for section, made, high, _, _ in _drawers(design) for piece in made)


def _drawers(design: Design) -> list[tuple[str, tuple[Piece, ...], int, int, tuple[int, int]]]:
    rows = []
    for bay in design.bays:
        family = design.family_of(bay)
        if isinstance(family, Dividers):
            t, high = design.finish.strip, family.height_in(bay)
            made = pieces(strips_of(design, bay), t, high, play=family.table.slot_play, web=family.table.slot_web)
            rows.append((bay.section, made, high, t, (bay.w, bay.depth)))
    return rows
