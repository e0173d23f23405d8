"""What a design costs: one reckoning for search, frontier, budget, gallery and bill.

Money is `Decimal` in the household's currency, rounded half up to the cent per piece. What is there already (a floor, a
board that stays, shelves that only move) costs nothing; what is sold in packs or lengths is bought whole.
"""

from collections import defaultdict
from collections.abc import Iterable, Iterator, Mapping, Sequence
from decimal import Decimal
from math import ceil

from ...base import Frozen
from ...systems import Bay, Catalogue, Extra, Family, Part
from ...systems.family import CENT
from ..models import Design

NOTHING = Decimal(0)


class Cost(Frozen):
    """The money of a design: of each part, of what is bought beside the parts of each family, and in all."""

    parts: Mapping[str, Decimal]
    extras: Mapping[str, Decimal]
    by_family: Mapping[str, Decimal]
    """Parts, extras and containers by the family they stand in."""
    total: Decimal


def cost_of(design: Design) -> Cost:
    """All money of a design; its total is that of its bill."""
    free = at_hand(design.parts, design.bays)
    parts: dict[str, Decimal] = {}
    by_family: dict[str, Decimal] = defaultdict(Decimal)
    for part in design.parts:
        parts[part.id] = NOTHING if part.id in free else piece_price(design, part)
        by_family[part.family] += parts[part.id]
    extras: dict[str, Decimal] = defaultdict(Decimal)
    for family, extra in extras_of(design.parts, design.catalogue):
        extras[family] += money(extra)
        by_family[family] += money(extra)
    return Cost(parts=parts, extras=dict(extras), by_family=dict(by_family),
                total=sum(by_family.values(), NOTHING))  # fmt: skip


def piece_price(design: Design, part: Part) -> Decimal:
    """Price of one part that is bought: a container by its own price; nothing for what is listed in lengths."""
    if part.role == "container":
        box = design.box(part.container)
        return Decimal(str(box.price)).quantize(CENT) if box is not None else NOTHING
    family = design.family_of(part)
    return NOTHING if part.role in family.by_length else family.price(part)


def at_hand(parts: Iterable[Part], bays: Sequence[Bay]) -> frozenset[str]:
    """Ids of the shelves that are there already and only move: the lowest of each bay."""
    there: set[str] = set()
    shelves = sorted((p for p in parts if p.role in ("shelf", "cover") and p.bay is not None), key=lambda p: p.z)
    for bay in bays:
        if bay.at_hand:
            there |= {p.id for p in [p for p in shelves if p.bay == bay.index][: bay.at_hand]}
    return frozenset(there)


def worth_at_hand(family: Family, bay: Bay, shelves: int) -> float:
    """What so many shelves of a bay would cost as far as they are there already."""
    used = min(bay.at_hand, shelves)
    return used * float(family.component("shelf", bay).price) if used else 0.0


def extras_of(parts: Sequence[Part], catalogue: Catalogue) -> Iterator[tuple[str, Extra]]:
    """What is bought beside the parts, family by family."""
    for family_id in dict.fromkeys(p.family for p in parts):
        own = tuple(p for p in parts if p.family == family_id)
        for extra in catalogue[family_id].extras(own):
            yield family_id, extra


def packs(extra: Extra) -> int:
    """Whole packs that have as many as are needed."""
    return ceil(extra.needed / extra.pack)


def money(extra: Extra) -> Decimal:
    """What the whole packs cost."""
    return extra.each * packs(extra)


def structure_price(parts: Iterable[Part], catalogue: Catalogue) -> float:
    """What stands whatever is stored costs, before packs and what is bought beside it: what a search compares by."""
    return float(sum((catalogue.of(p).price(p) for p in parts), NOTHING))
