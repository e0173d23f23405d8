"""Design, first half: families of parts, their sizes, ratings and prices.

Glossary. *Family*: a system of parts that go together. *Module*: one bay's width along the run, from the family's
range. *Shape*: the height and depth chosen for a row. *Row*: modules side by side. *Bay*: the room between two sides
(or two standards) in which compartments are stacked on the family's pitch. *Role*: what a part does, whatever its
family. *Range*: a household's own make of a family.

To add a family: a module in `families/` with one subclass of `Family`, and a table of its name. Everything else
(search, proof, drawing, bill, page) asks the family.
"""

from .boards import Board
from .catalogue import SHIPPED_ONLY, Catalogue
from .family import Component, Extra, Family, Finish, NoSuchFamily, Rate, Row, Shape, Spec
from .parts import Bay, Blocked, DrawerFloor, OnPart, Part
from .ranges import SHIPPED as FAMILIES
from .ranges import Article, Range, family_of_range
from .roles import FRONTS, HANGING, HOLDERS, INSIDE, PULL_OUTS, Holder, Role

__all__ = [
    "FAMILIES",
    "FRONTS",
    "HANGING",
    "HOLDERS",
    "INSIDE",
    "PULL_OUTS",
    "SHIPPED_ONLY",
    "Article",
    "Bay",
    "Blocked",
    "Board",
    "Catalogue",
    "Component",
    "DrawerFloor",
    "Extra",
    "Family",
    "Finish",
    "Holder",
    "NoSuchFamily",
    "OnPart",
    "Part",
    "Range",
    "Rate",
    "Role",
    "Row",
    "Shape",
    "Spec",
    "family_of_range",
]
