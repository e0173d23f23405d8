"""A *why* slip in words: the rule, each value put in with its unit, the basis and the source."""

from ..base import Frozen, Why
from ..units import Units
from .amounts import amount

BASES = {
    "P": "published", "C": "common practice", "D": "derived: the arithmetic is given",
    "I": "this project's own range",
}  # fmt: skip


class Slip(Frozen):
    """A why as it is shown."""

    rule: str
    values: tuple[tuple[str, str], ...]
    basis: str
    source: str


def slip(why: Why, units: Units) -> Slip:
    """A why in the household's units."""
    return Slip(
        rule=why.rule,
        values=tuple((name, amount(value, unit, units)) for name, value, unit in why.values),
        basis=BASES.get(why.basis, why.basis),
        source=why.source,
    )
