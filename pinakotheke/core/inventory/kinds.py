"""The table of kinds: garments, folded things, shoes and boxes."""

from types import MappingProxyType
from typing import Literal

from ..base import Frozen
from ..tables import load

Way = Literal["hang", "shelf", "drawer", "shoe", "box"]


class Kind(Frozen):
    """One row of `tables/kinds.toml`; lengths in mm, mass in kg a piece. Basis C unless `note` says otherwise."""

    id: str
    one: str
    many: str
    words: tuple[str, ...] = ()
    ways: tuple[Way, ...]
    rail: float = 0
    drop: float = 0
    size: tuple[float, float, float] | None = None
    mass: float
    creases: bool = False
    child: bool = False
    low: bool = False
    single: bool = False
    """Never stacked, even where stacks are."""
    note: str = ""

    @property
    def source(self) -> str:
        """What a *why* slip names."""
        return self.note or "handbook section 2, common practice"


CUSTOM = Kind(id="custom", one="thing", many="things", ways=("box",), mass=1.0, note="sizes given by the household")
"""Whatever has no row: its own size is asked for."""

KINDS = MappingProxyType({row["id"]: Kind(**row) for row in load("kinds")["kind"]} | {CUSTOM.id: CUSTOM})


def kind_of(kind_id: str) -> Kind:
    """The row of a kind; `KeyError` names the unknown id."""
    return KINDS[kind_id]
