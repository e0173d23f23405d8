"""What the hand layout of a brief costs by the tables that price the tool's designs: its modules stood as rows of their
family, each of its compartments as that family's part.

Where the hand is silent (how tall the standards are, how deep a frame), the cheapest of the family's that will do is
taken, so that the hand is never made dearer than it is. Containers and what the household has already cost nothing here.
"""

from collections.abc import Iterator, Mapping
from decimal import Decimal
from itertools import groupby
from typing import Any

from pinakotheke.core.layout.report.costing import extras_of, money
from pinakotheke.core.survey import Envelope
from pinakotheke.core.systems import FAMILIES, Bay, Catalogue, Family, Finish, Part, Row, Shape

NOTHING = Decimal(0)


def hand_cost(brief: Mapping[str, Any], envelopes: Mapping[str, Envelope]) -> Decimal:
    """The money of all parts of a hand layout, and of what is bought beside them."""
    parts = [part for group in _rows(brief) for part in _parts(group, envelopes)]
    catalogue = Catalogue(())
    total = sum((_price(catalogue[p.family], p) for p in parts), NOTHING)
    return total + sum((money(extra) for _, extra in extras_of(tuple(parts), catalogue)), NOTHING)


def hand_pieces(brief: Mapping[str, Any]) -> int:
    """Pieces that the hand puts away."""
    return sum(h["count"] for bay in brief["bays"] for c in bay["compartments"] for h in c["holds"])


def _price(family: Family, part: Part) -> Decimal:
    return NOTHING if part.role in family.by_length else family.price(part)


def _rows(brief: Mapping[str, Any]) -> Iterator[list[dict[str, Any]]]:
    for _, group in groupby(brief["bays"], key=lambda b: (b["wall"], b["family"])):
        yield list(group)


def _parts(group: list[dict[str, Any]], envelopes: Mapping[str, Envelope]) -> Iterator[Part]:
    family = FAMILIES[group[0]["family"]]
    envelope = envelopes.get(group[0]["wall"]) or next(iter(envelopes.values()))
    row, bays = _stood(family, envelope, group)
    yield from family.structure(envelope, row, bays, Finish())
    for n, (hand, bay) in enumerate(zip(group, bays, strict=True)):
        for k, c in enumerate(hand["compartments"]):
            yield from _compartment(family, bay, c, f"h{n}-{k}")


def _stood(family: Family, envelope: Envelope, group: list[dict[str, Any]]) -> tuple[Row, tuple[Bay, ...]]:
    """The modules as a row of the least dear shape that is high and deep enough."""
    inside = [c for b in group for c in b["compartments"] if c["role"] != "top"]
    high = max(b.get("height", 0) for b in group) or max(
        c["z"] + (c["clear"] if c["role"] in ("rail", "hooks") else 0) for c in inside
    )
    deep = max((c["depth"] for c in inside if c["role"] in ("shelf", "drawer")), default=0)
    widths = tuple(b["width"] for b in group)

    def cost(shape: Shape) -> Decimal:
        row = Row(shape=shape, x=group[0]["x"], widths=widths)
        made = family.structure(envelope, row, family.bays(envelope, row), Finish())
        return sum((_price(family, p) for p in made), NOTHING)

    shapes = family.shapes(envelope, Finish())
    enough = [s for s in shapes if s.height >= high and s.depth >= deep] or [s for s in shapes if s.height >= high]
    shape = min(enough or sorted(shapes, key=lambda s: -s.height)[:1], key=cost)
    row = Row(shape=shape, x=group[0]["x"], widths=widths)
    return row, family.bays(envelope, row)


def _compartment(family: Family, bay: Bay, c: Mapping[str, Any], name: str) -> Iterator[Part]:
    """The part of one compartment, with what it rests on; the floor and the tops of carcases are there."""
    if c["role"] == "top":
        across = FAMILIES["across"]
        if family.kind in across.lies_on:
            top = across.placed(bay.model_copy(update={"family": "across"}), name, "top", c["z"])
            yield top.model_copy(update={"w": c.get("width", bay.w), "d": c["depth"]})
        return
    role = c["role"] if c["role"] in family.specs else {"drawer": "basket", "floor": "base"}.get(c["role"], "shelf")
    if role not in family.specs or role in ("floor", "base"):
        return
    spec = family.specs[role]
    front = (
        next((f for f in spec.fronts if f - spec.lost_height >= c["clear"] - 60), spec.fronts[-1]) if spec.fronts else 0
    )
    part = family.placed(bay, name, role, c["z"], front)
    if role == "shelf":
        part = part.model_copy(update={"d": min(part.d, c["depth"]), "w": c.get("width", part.w)})
    yield part
    yield from family.brackets(part, bay)
