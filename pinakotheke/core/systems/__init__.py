"""Design, first half: families of parts, their sizes, ratings and prices.

Glossary. *Family*: a system of parts that go together. *Module*: one bay's width along the run, from the family's
range. *Shape*: the height and depth chosen for a row. *Row*: modules side by side. *Bay*: the room between two sides
(or two standards) in which compartments are stacked on the family's pitch. *Role*: what a part does, whatever its
family.

To add a family: a module in `families/` with one subclass of `Family`, and a table of its name. Everything else
(search, proof, drawing, bill, page) asks the family.
"""

from .families import shipped
from .family import Component, Family, Finish, NoSuchFamily, Row, Shape, Spec
from .parts import FRONTS, HANGING, HOLDERS, PULL_OUTS, Bay, Blocked, Holder, Part, Role

FAMILIES: dict[str, Family] = shipped()
"""Every family that can be designed with, by id."""


def family_named(family_id: str) -> Family:
    """The family with this id; raises `NoSuchFamily`."""
    try:
        return FAMILIES[family_id]
    except KeyError:
        raise NoSuchFamily(family_id) from None


def family_of(item: Part | Bay) -> Family:
    """The family a part or a bay belongs to; raises `NoSuchFamily`."""
    return family_named(item.family)


__all__ = [
    "FAMILIES",
    "FRONTS",
    "HANGING",
    "HOLDERS",
    "PULL_OUTS",
    "Bay",
    "Blocked",
    "Component",
    "Family",
    "Finish",
    "Holder",
    "NoSuchFamily",
    "Part",
    "Role",
    "Row",
    "Shape",
    "Spec",
    "family_named",
    "family_of",
]
