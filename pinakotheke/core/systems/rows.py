"""Rows of modules in one section: what they make of each other."""

from collections.abc import Sequence

from ..survey import Envelope
from .family import Family, Finish, Row
from .parts import Bay
from .standing import open_above


def bays_of(
    family: Family, row: Row, envelope: Envelope, rows: Sequence[tuple[Family, Row]], finish: Finish
) -> tuple[Bay, ...]:
    """The bays of a row beside and under the other `rows` of its section, as they come with a finish."""
    made = tuple(_under(family, bay, rows) for bay in family.bays(envelope, row))
    made = tuple(family.finished(bay, finish) for bay in made)
    if not family.is_open_above or row.shape.is_storey:
        return made
    if any(family.kind in kin.lies_on and other.x < row.end and row.x < other.end for kin, other in rows):
        return made
    over = [
        (other.x, other.end + kin.ends, kin.lowest(other.shape))
        for kin, other in rows
        if other is not row and kin.lowest(other.shape) >= row.shape.height
    ]
    return tuple(open_above(bay, row.shape.height, envelope, over) for bay in made)


BRACKET = 12
"""Height of what carries a board across, under it, mm; invented. Cleats have their own height."""


def _under(family: Family, bay: Bay, rows: Sequence[tuple[Family, Row]]) -> Bay:
    """A bay with what lies across it as its roof."""
    roofs = [
        kin.lowest(other.shape) - getattr(family.table, "cleat_height", BRACKET)
        for kin, other in rows
        if kin.built and family.kind in kin.lies_on and other.x < bay.x + bay.w and bay.x < other.end
    ]
    return bay.model_copy(update={"z1": min([bay.z1, *roofs])}) if roofs else bay
