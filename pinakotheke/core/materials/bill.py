"""Bill of materials: like parts counted, packs rounded up, prices and totals.

Prices are the family's own (invented by this project); money is `Decimal`, rounded half up to the cent per piece.
Bought by the piece: everything but track (in the lengths sold), wall screws (in packs) and anchors (by the piece).
"""

import csv
import io
from collections import Counter, defaultdict
from decimal import Decimal
from math import ceil

from ..base import Frozen
from ..layout import Design
from ..lengths import Units, format_length
from ..systems import FAMILIES, Part
from ..systems.track import Track

NAMES = {
    "frame": "Carcase", "plinth": "Plinth", "filler": "Filler strip", "shelf": "Shelf", "cover": "Shelf",
    "rail": "Hanging rail",
    "drawer": "Drawer", "tray": "Pull-out tray", "standard": "Standard", "bracket": "Bracket", "track": "Top track",
    "base": "Base",
}  # fmt: skip
SCREWS_PER_TRACK_METRE = 5
SCREWS_PER_STANDARD = 2
ANCHORS_PER_FRAME = 2


class BillLine(Frozen):
    """So many of one article. `each` and `total` in the household's currency; `width`, `depth`, `height` in mm."""

    item: str
    name: str
    width: int
    depth: int
    height: int
    needed: int
    bought: int
    unit: str
    each: Decimal
    total: Decimal
    parts: tuple[str, ...]

    @property
    def spare(self) -> int:
        """Pieces in the packs that are not needed."""
        return self.bought - self.needed


class Bill(Frozen):
    """The whole list of one design."""

    design: str
    lines: tuple[BillLine, ...]
    total: Decimal
    pieces: int


def bill(design: Design) -> Bill:
    """Count like parts, add fixings, round packs up."""
    groups: dict[tuple[str, int, int, int], list[Part]] = defaultdict(list)
    for part in design.parts:
        if part.role not in ("base", "bracket", "track"):
            role = "shelf" if part.role == "cover" else part.role
            groups[(role, part.w, part.d, part.h)].append(part)
    family = FAMILIES[design.family]
    lines = [
        _line(f"{design.family}.{role}", NAMES[role], size, [p.id for p in parts], family.price(parts[0]))
        for (role, *size), parts in sorted(groups.items())
    ]
    lines += _brackets(design)
    lines += _track(design) if isinstance(family, Track) else _anchors(design)
    return Bill(
        design=design.id,
        lines=tuple(lines),
        total=sum((line.total for line in lines), Decimal(0)),
        pieces=sum(line.bought for line in lines),
    )


def _line(item: str, name: str, size: list[int], ids: list[str], each: Decimal) -> BillLine:
    width, depth, height = size
    return BillLine(item=item, name=name, width=width, depth=depth, height=height, needed=len(ids), bought=len(ids),
                    unit="piece", each=each, total=each * len(ids), parts=tuple(ids))  # fmt: skip


def _brackets(design: Design) -> list[BillLine]:
    brackets = [p for p in design.parts if p.role == "bracket"]
    by_depth: dict[int, list[Part]] = defaultdict(list)
    for part in brackets:
        by_depth[part.d].append(part)
    family = FAMILIES[design.family]
    return [
        _line(f"{design.family}.bracket", "Bracket", [parts[0].w, depth, parts[0].h], [p.id for p in parts],
              family.price(parts[0]))
        for depth, parts in sorted(by_depth.items())
    ]  # fmt: skip


def _track(design: Design) -> list[BillLine]:
    """Track in the lengths sold and the screws for it, by the pack."""
    family = FAMILIES[design.family]
    if not isinstance(family, Track):
        return []
    lines, screws = [], 0
    for part in design.parts:
        if part.role == "track":
            for length, count in sorted(Counter(family.track_pieces(part.w)).items()):
                each = Decimal(str(family.table["price"]["track"][str(length)]))
                lines.append(
                    BillLine(item="track.track", name="Top track, cut to length", width=length, depth=part.d,
                             height=part.h, needed=count, bought=count, unit="length", each=each, total=each * count,
                             parts=(part.id,))
                )  # fmt: skip
            screws += ceil(SCREWS_PER_TRACK_METRE * part.w / 1000)
        elif part.role == "standard":
            screws += SCREWS_PER_STANDARD
    if screws:
        pack = family.table["price"]["screws"]["pack"]
        packs = ceil(screws / pack)
        each = family.priced("screws")
        lines.append(BillLine(item="track.screws", name=f"Wall screws, pack of {pack}", width=0, depth=0, height=0,
                              needed=screws, bought=packs * pack, unit="screw", each=each, total=each * packs,
                              parts=()))  # fmt: skip
    return lines


def _anchors(design: Design) -> list[BillLine]:
    frames = [p for p in design.parts if p.role == "frame"]
    if not frames:
        return []
    count = ANCHORS_PER_FRAME * len(frames)
    each = FAMILIES[design.family].priced("anchor")
    return [BillLine(item="carcase.anchor", name="Wall anchor bracket", width=0, depth=0, height=0, needed=count,
                     bought=count, unit="piece", each=each, total=each * count,
                     parts=tuple(p.id for p in frames))]  # fmt: skip


def bill_csv(the_bill: Bill, units: Units, currency: str) -> str:
    """The bill as CSV (RFC 4180), lengths in the household's units, a total line last."""
    out = io.StringIO()
    write = csv.writer(out).writerow
    unit = "mm" if units == "metric" else "in"
    write(["item", "name", f"width {unit}", f"depth {unit}", f"height {unit}", "needed", "bought", "unit",
           f"price {currency}", f"total {currency}"])  # fmt: skip
    for line in the_bill.lines:
        sizes = [format_length(mm, units, mark=False) if mm else "" for mm in (line.width, line.depth, line.height)]
        write([line.item, line.name, *sizes, line.needed, line.bought, line.unit, line.each, line.total])
    write(["", "Total", "", "", "", "", the_bill.pieces, "", "", the_bill.total])
    return out.getvalue()
