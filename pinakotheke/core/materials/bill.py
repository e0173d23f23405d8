"""Bill of materials: like parts counted, packs rounded up, prices and totals, as `costing` reckons them.

Prices are the family's own (invented by this project). Bought by the piece: everything but what is sold in lengths
(track) and in packs (screws, clips).
"""

from collections import defaultdict
from decimal import Decimal

from ..base import Frozen
from ..layout import Design
from ..layout.report.costing import cost_of, extras_of, money, packs
from ..systems import Part


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
    """Count like parts, add what each family needs beside its parts, and containers; those the household has are listed
    at no price, other things that are there already not at all.
    """
    cost = cost_of(design)
    groups: dict[tuple[str, str, int, int, int], list[Part]] = defaultdict(list)
    boxes: dict[str, list[Part]] = defaultdict(list)
    for part in design.parts:
        if part.role == "container":
            boxes[part.container].append(part)
        elif cost.parts[part.id] > 0:
            w, d = part.w, part.d
            if part.role == "cleat" or (part.fixed_to == "drawer" and part.role == "divider"):
                w, d = max(w, d), min(w, d)  # a strip is bought alike whichever way it lies
            groups[(part.item, design.family_of(part).named(part), w, d, part.h)].append(part)
    lines = [
        _line(item, name, size, parts, cost.parts[parts[0].id]) for (item, name, *size), parts in sorted(groups.items())
    ]
    lines += [
        BillLine(item=f"{family}.{extra.article}", name=extra.name, width=0, depth=0, height=0, needed=extra.needed,
                 bought=packs(extra) * extra.pack, unit=extra.unit, each=extra.each, total=money(extra), parts=())
        for family, extra in extras_of(design.parts, design.catalogue)
    ]  # fmt: skip
    for kind, parts in sorted(boxes.items()):
        box = design.box(kind)
        if box is not None:
            size = [int(box.width), int(box.depth), int(box.height)]
            name = box.name[0].upper() + box.name[1:] + (", at hand" if box.at_hand else "")
            lines.append(_line(f"container.{kind}", name, size, parts, cost.parts[parts[0].id]))
    return Bill(design=design.id, lines=tuple(lines), total=cost.total, pieces=sum(line.bought for line in lines))


def _line(item: str, name: str, size: list[int], parts: list[Part], each: Decimal) -> BillLine:
    width, depth, height = size
    number = len(parts)
    return BillLine(item=item, name=name, width=width, depth=depth, height=height, needed=number, bought=number,
                    unit="piece", each=each, total=each * number, parts=tuple(p.id for p in parts))  # fmt: skip
