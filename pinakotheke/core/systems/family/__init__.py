"""What every family of parts can be asked: what it can stand, what it can hold, what it is built of, what it costs.

A family is a module in `families/` with one subclass of `Family`, and a table of the same name: the module knows how
parts stand and what carries them, the table holds sizes, ratings, prices and what each compartment takes. Most
answers are the same for all and are given here from the table.
"""

from abc import ABC
from decimal import Decimal

from ..parts import Bay
from ..roles import Holder
from .compartments import Compartments
from .geometry import Geometry
from .models import Component, Finish, Money, NoSuchFamily, Rate, Row, Shape, Spec, Table, Turn, Work
from .pricing import CENT, Extra, Pricing
from .structure import OnTwoSides, Structure


class Family(Geometry, Compartments, Structure, Pricing, ABC):
    """A family of parts; its numbers stand in its table."""

    def component(self, role: Holder, bay: Bay, front: int = 0) -> Component:
        """What a compartment of this role is in this bay."""
        spec, height = self.spec(role), front or self.height(role, bay)
        part = self.placed(bay, "x", role, bay.z0, height)
        price = self.price(part) + sum((self.price(b) for b in self.brackets(part, bay)), Decimal(0))
        return Component(role=role, item=part.item, height=height, price=price, rating=self.rating(part, bay),
                         capacity=self.capacity(role, bay), hours=spec.hours)  # fmt: skip


__all__ = [
    "CENT",
    "Component",
    "Extra",
    "Family",
    "Finish",
    "Money",
    "NoSuchFamily",
    "OnTwoSides",
    "Rate",
    "Row",
    "Shape",
    "Spec",
    "Table",
    "Turn",
    "Work",
]
