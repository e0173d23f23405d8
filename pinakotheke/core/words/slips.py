"""A *why* slip in words: the rule, each value put in with its unit, the basis and the source."""

from ..base import Frozen, Why
from ..units import Units
from .amounts import amount

BASES = {
    "P": "published", "C": "common practice", "D": "derived: the arithmetic is given",
    "I": "this project's own range",
}  # fmt: skip


RULES = {
    "clear width": "clear width = least width read − 2 × the greater of fit allowance and skirting, less what walls out "
    "of square and missing readings may take",
    "repeat": "repeat readings agree within the limit",
    "neighbour": "neighbouring readings of one wall differ by less than the limit",
    "sum": "left return + opening + right return = width",
    "triangle": "a diagonal closes a triangle with its two sides",
    "outside": "what stands at a wall lies within its length",
    "demand": "sum of what the things take ÷ (1 − growth reserve)",
    "asked": "asked = what the things take, each stored its preferred way",
    "asked and given": "asked = what the things take as they are stored; spare = given − asked",
    "hours": "hours to stand the modules + hours to fit what goes into them",
}


class Slip(Frozen):
    """A why as it is shown."""

    rule: str
    values: tuple[tuple[str, str], ...]
    basis: str
    source: str


def slip(why: Why, units: Units) -> Slip:
    """A why in the household's units."""
    return Slip(
        rule=RULES.get(why.rule, why.rule),
        values=tuple((name, amount(value, unit, units)) for name, value, unit in why.values),
        basis=BASES.get(why.basis, why.basis),
        source=why.source,
    )
