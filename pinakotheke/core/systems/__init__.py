"""Design, first half: families of parts, their sizes, ratings and prices.

Glossary. *Family*: a system of parts that go together. *Module*: one bay's width along the run, from the family's
range. *Shape*: the height and depth chosen for a row. *Row*: modules side by side. *Bay*: the room between two sides
(or two standards) in which compartments are stacked on the family's pitch. *Role*: what a part does, whatever its
family. *Range*: a household's own make of a family.

To add a family: a module in `families/` with one subclass of `Family`, and a table of its name. Everything else
(search, proof, drawing, bill, page) asks the family.
"""

from .family import Component, Family, Finish, NoSuchFamily, Row, Shape, Spec
from .parts import FRONTS, HANGING, HOLDERS, PULL_OUTS, Bay, Blocked, Holder, Part, Role
from .ranges import SHIPPED as FAMILIES
from .ranges import Article, Range, Rate, family_of_range, own_family


def is_known(family_id: str) -> bool:
    """Whether a family of this id ships, or a household's range made it."""
    return family_id in FAMILIES or own_family(family_id) is not None


def family_named(family_id: str) -> Family:
    """The family with this id, shipped or made by a household's range; raises `NoSuchFamily`."""
    family = FAMILIES.get(family_id) or own_family(family_id)
    if family is None:
        raise NoSuchFamily(family_id)
    return family


def family_of(item: Part | Bay) -> Family:
    """The family a part or a bay belongs to; raises `NoSuchFamily`."""
    return family_named(item.family)


__all__ = [
    "FAMILIES",
    "FRONTS",
    "HANGING",
    "HOLDERS",
    "PULL_OUTS",
    "Article",
    "Bay",
    "Blocked",
    "Component",
    "Family",
    "Finish",
    "Holder",
    "NoSuchFamily",
    "Part",
    "Range",
    "Rate",
    "Role",
    "Row",
    "Shape",
    "Spec",
    "family_named",
    "family_of",
    "family_of_range",
    "is_known",
]
