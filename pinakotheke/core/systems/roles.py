"""Roles: what a part does, whatever its family, and what that implies.

A role's name is spelled here once; what it implies stands in `tables/roles.toml`. Code asks for a trait
(`role in HANGING`), never for a list of names.
"""

from typing import Literal, get_args

from ..base import Frozen
from ..tables import load

Holder = Literal[
    "base", "shelf", "shoe shelf", "rail", "face rail", "trouser rack", "tie rack", "drawer", "tray", "basket",
    "hamper", "hooks", "floor", "platform", "compartment", "top",
]  # fmt: skip
"""Roles that things can be assigned to."""
Fixture = Literal[
    "frame", "plinth", "legs", "filler", "crown", "divider", "light", "door", "curtain", "track", "standard",
    "bracket", "fascia", "cleat", "post", "panel", "trolley", "hanger", "container", "cover",
]  # fmt: skip
"""Roles of everything else."""
Role = Holder | Fixture
Trait = Literal["hangs", "slides", "fronted", "over", "hides", "supports", "encloses", "carries", "metal"]


class Traits(Frozen):
    """What one role implies."""

    traits: frozenset[Trait]
    empty: str = ""
    """The ledger's line that it counts for while nothing is in it."""


TRAITS: dict[Role, Traits] = {
    role: Traits.model_validate(row) for rows in load("roles").values() for role, row in rows.items()
}
HOLDERS: frozenset[Role] = frozenset(get_args(Holder))


def _having(trait: Trait) -> frozenset[Role]:
    return frozenset(role for role, row in TRAITS.items() if trait in row.traits)


HANGING = _having("hangs")
PULL_OUTS = _having("slides")
FRONTS = _having("fronted")
REACHED_OVER = _having("over")
HIDING = _having("hides")
SUPPORTS = _having("supports")
ENCLOSING = _having("encloses")
UPRIGHTS = _having("carries")
METAL = _having("metal")
INSIDE: frozenset[Role] = HOLDERS | {"cover"}
"""What stands inside a bay."""
COMES_WITH: frozenset[Role] = SUPPORTS | {"container"}
"""What comes and goes with the holding part it belongs to."""
EMPTY_IS: dict[Role, str] = {role: row.empty for role, row in TRAITS.items() if row.empty}
