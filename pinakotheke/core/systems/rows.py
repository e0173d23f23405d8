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
    made = tuple(family.finished(bay, finish) for bay in family.bays(envelope, row))
    if not family.is_open_above or row.shape.is_storey:
        return made
    over = [
        (other.x, other.end + kin.ends, kin.lowest(other.shape))
        for kin, other in rows
        if other is not row and kin.lowest(other.shape) >= row.shape.height
    ]
    return tuple(open_above(bay, row.shape.height, envelope, over) for bay in made)
