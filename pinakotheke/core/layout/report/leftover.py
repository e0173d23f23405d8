"""What is left free in a drawer, and what would lie there: pieces without a place first, then more of what is there."""

from collections.abc import Iterable

from ...inventory import Thing
from ...systems import Part
from ..models import Design
from ..packing.lying import bed

MOST = 500
"""Pieces that are counted up to."""
TOLD = 3


def room_for(design: Design, part: Part, things: Iterable[Thing]) -> tuple[tuple[str, int], ...]:
    """Things that would lie in a free compartment with how many of them: those that have no place, then those of the
    space, what would fill it best first. Empty for what holds something, and for what is no compartment.
    """
    carries = any(p.carrier == part.id for p in design.parts)
    if part.role != "compartment" or design.held_by(part.id) or carries:
        return ()
    spec = design.family_of(part).spec("compartment")
    left = {u.thing: u.count for u in design.unplaced}
    found = []
    for thing in things:
        if not thing.stays or not set(spec.ways) & {thing.way, *thing.row.ways}:
            continue
        most = _most(thing, part.w - spec.sides, part.d - spec.back, part.h, spec.rating)
        if most:
            filled = min(most, left[thing.id]) if thing.id in left else most
            size = thing.size or thing.row.size or (1, 1, 1)
            volume = filled * size[0] * size[1] * size[2]
            found.append((thing.id not in left, -volume, thing.id, filled))
    return tuple((thing, count) for _, _, thing, count in sorted(found)[:TOLD])


def _most(thing: Thing, width: float, depth: float, clear: float, rating: float) -> int:
    """The most pieces that lie in a compartment, as far as they are counted."""
    low, high = 0, MOST
    if thing.piece_mass > 0:
        high = min(high, int(rating / thing.piece_mass))
    while low < high:
        count = (low + high + 1) // 2
        lie = bed(thing, count, depth, clear)
        low, high = (count, high) if lie is not None and lie.width <= width else (low, count - 1)
    return low
