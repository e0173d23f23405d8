"""Bill of materials: like parts counted, packs rounded up, prices and totals.

Prices are the family's own (invented by this project); money is `Decimal`, rounded half up to the cent per piece.
Bought by the piece: everything but track (in the lengths sold), wall screws (in packs) and anchors (by the piece).
"""

import csv
import io
from collections import defaultdict
from decimal import Decimal
from math import ceil

from ..base import Frozen
from ..inventory.containers import OWN
from ..layout import Design
from ..layout.contain import container_of
from ..lengths import Units, format_length
from ..systems import Part, family_named, family_of
from ..systems.family import CENT


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
    """Count like parts, add containers and what each family needs beside its parts, round packs up. What is there
    already (a floor, a shelf) costs nothing and is not listed.
    """
    there = _at_hand(design)
    groups: dict[tuple[str, str, int, int, int], list[Part]] = defaultdict(list)
    for part in design.parts:
        family = family_of(part)
        if (
            part.id not in there
            and part.role != "container"
            and family.price(part) > 0
            and part.role not in SOLD_BY_LENGTH
        ):
            groups[(part.item, family.named(part), part.w, part.d, part.h)].append(part)
    lines = [
        _line(item, name, size, [p.id for p in parts], family_of(parts[0]).price(parts[0]))
        for (item, name, *size), parts in sorted(groups.items())
    ]
    for family_id in dict.fromkeys(p.family for p in design.parts):
        own = tuple(p for p in design.parts if p.family == family_id)
        for key, name, needed, pack, each, unit in family_named(family_id).extras(own):
            packs = ceil(needed / pack)
            lines.append(
                BillLine(item=f"{family_id}.{key}", name=name, width=0, depth=0, height=0, needed=needed,
                         bought=packs * pack, unit=unit, each=each, total=each * packs, parts=())
            )  # fmt: skip
    lines += _containers(design)
    return Bill(
        design=design.id,
        lines=tuple(lines),
        total=sum((line.total for line in lines), Decimal(0)),
        pieces=sum(line.bought for line in lines),
    )


def _at_hand(design: Design) -> set[str]:
    """Ids of the shelves that are there already and only move: the lowest of each bay."""
    there: set[str] = set()
    for bay in design.bays:
        own = [p for p in design.parts if p.bay == bay.index and p.role in ("shelf", "cover")]
        there |= {p.id for p in sorted(own, key=lambda p: p.z)[: bay.at_hand]}
    return there


SOLD_BY_LENGTH = frozenset({"track"})
"""Roles that are bought as lengths, which the family lists itself."""


def _line(item: str, name: str, size: list[int], ids: list[str], each: Decimal) -> BillLine:
    width, depth, height = size
    return BillLine(item=item, name=name, width=width, depth=depth, height=height, needed=len(ids), bought=len(ids),
                    unit="piece", each=each, total=each * len(ids), parts=tuple(ids))  # fmt: skip


def _containers(design: Design) -> list[BillLine]:
    """Containers by kind; those the household has are listed at no price."""
    on: dict[str, list[str]] = defaultdict(list)
    for part in design.parts:
        if part.role == "container":
            on[container_of(design, part)].append(part.id)
    lines = []
    for kind, ids in sorted(on.items()):
        box = design.box(kind)
        if box is not None:
            size = [int(box.width), int(box.depth), int(box.height)]
            name = box.name[0].upper() + box.name[1:] + (", at hand" if kind.startswith(OWN) else "")
            lines.append(_line(f"container.{kind}", name, size, ids, Decimal(str(box.price)).quantize(CENT)))
    return lines


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
