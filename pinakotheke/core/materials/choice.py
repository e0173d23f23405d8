"""How a household buys what was designed: what is left out, what is cut from whole boards, and by which saw."""

from collections.abc import Sequence
from typing import Annotated, Literal

from pydantic import Field

from ..base import Frozen
from ..layout import Design
from ..mechanics.materials import Grade
from ..systems.roles import Role
from ..tables import load

Cutting = Literal["measure", "stock", "make"]
"""Parts bought cut to measure; cut from whole sheets and boards; carcases made from sheets too."""


class Omission(Frozen):
    """Something a list can do without: the roles of its parts, its name, and what it looks like then."""

    key: str
    roles: tuple[Role, ...]
    name: str
    look: str


OMISSIONS: tuple[Omission, ...] = tuple(Omission.model_validate(row) for row in load("stock")["leave_out"])
"""The first to go first."""


def saw(key: str) -> float:
    """A value of the saw: `tables/stock.toml`."""
    return float(load("stock")["saw"][key]["value"])


class Choice(Frozen):
    """See the module. Lengths mm."""

    cutting: Cutting = "measure"
    grade: Grade | None = None
    """Another grade for all that is cut from sheets; None: as designed."""
    without: frozenset[str] = frozenset()
    """Keys of omissions."""
    kerf: Annotated[int, Field(ge=0, le=10)] = int(saw("kerf"))
    trim: Annotated[int, Field(ge=0, le=50)] = int(saw("trim"))
    longest: Annotated[int, Field(ge=0, le=10_000)] = 0
    """The longest piece that fits the car; 0: it is delivered."""

    def leaves_out(self) -> frozenset[Role]:
        """Roles of all parts that are not bought."""
        return frozenset(role for one in OMISSIONS if one.key in self.without for role in one.roles)


def without(design: Design, roles: frozenset[Role]) -> Design:
    """A design without the parts of some roles, as it is bought; not as it is checked."""
    if not roles:
        return design
    return design.model_copy(update={"parts": tuple(p for p in design.parts if p.role not in roles)})


def omissions_in(designs: Sequence[Design]) -> tuple[Omission, ...]:
    """What some designs have that a list can do without."""
    there = {p.role for d in designs for p in d.parts}
    return tuple(one for one in OMISSIONS if there & set(one.roles))
