"""Design, first half: families of parts, their sizes, ratings and prices.

Glossary. *Family*: a system of parts that go together. *Module*: one bay's width along the run, from the family's
range. *Shape*: the height and depth chosen for a run. *Bay*: the room between two sides (or two standards) in which
compartments are stacked on the family's pitch. *Role*: what a part does, whatever its family.

To add a family: write its table, a module with one subclass of `Family`, and its line in `FAMILIES`.
"""

from .carcase import Carcase
from .family import Component, Family, Shape
from .parts import HOLDERS, PULL_OUTS, Bay, Part, Role
from .track import Track

FAMILIES: dict[str, Family] = {family.id: family for family in (Carcase(), Track())}
"""Every family that can be designed with, by id."""


def family_of(part: Part) -> Family:
    """The family a part belongs to; `KeyError` when it is none of ours."""
    return FAMILIES[part.item.split(".")[0]]


__all__ = [
    "FAMILIES",
    "HOLDERS",
    "PULL_OUTS",
    "Bay",
    "Component",
    "Family",
    "Part",
    "Role",
    "Shape",
    "family_of",
]
