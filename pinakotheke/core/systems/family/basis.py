"""What every aspect of a family starts from: its table, its name, and what kind of family it is."""

from functools import cached_property
from typing import Any, ClassVar

from ...survey.models import Section
from ...tables import load
from ..parts import Bay, Part
from ..roles import Holder, Role
from .models import Finish, Spec, Table

CUT: frozenset[Role] = frozenset({"shelf", "cover", "top"})
"""Roles of boards of which a household may choose the make."""


class Basis:
    """A family's table and identity."""

    id: str
    Numbers: ClassVar[type[Table]] = Table
    """The kind of table its numbers stand in."""
    table: Table
    places: frozenset[str] = frozenset({"run"})
    """Kinds of section it can be put into."""
    stands: bool = False
    """Whether it stands on the floor; a household that keeps its floor clear has none of it."""
    drills: bool = True
    """Whether it needs screws in a wall or ceiling."""
    companion: int = 0
    """Whether it goes well into what another family leaves free, and in which turn it is offered that; 0 for none."""
    hangs_over: bool = False
    """Whether it hangs over what else stands at the wall."""
    is_open_above: bool = False
    """Whether its highest board carries what stands over its uprights: it has no roof."""
    lies_on: frozenset[str] = frozenset()
    """Kinds of family over whose modules it lies, from the first to the last."""
    laid_out_apart: bool = False
    """Whether its compartments lie freely on a floor, and a search of its own lays them out."""
    built: bool = True
    """Whether there is something to buy and to stand: what is there anyhow is never left away."""
    cuts_shelves: bool = False
    """Whether its shelves are cut from boards, whose grade and thickness one may choose."""
    on_what_is_there: bool = False
    """Whether its bottom is a board of the place itself, which is no part of what is built."""

    def __init__(self, source: dict[str, Any] | None = None, family_id: str = "") -> None:
        self.is_own = source is not None
        if family_id:
            self.id = family_id
        self.source: dict[str, Any] = source if source is not None else load(self.id)
        """Its table as it is written."""
        self.table = self.Numbers.model_validate(self.source)

    @property
    def kind(self) -> str:
        """The id of the family that ships, of which a household's range is another make."""
        return type(self).id

    @property
    def name(self) -> str:
        """Its name for people."""
        return self.table.name

    @property
    def spoken(self) -> str:
        """Its name within a sentence; a range keeps the name that its household gave it."""
        return self.name if self.is_own else self.name[0].lower() + self.name[1:]

    @property
    def about(self) -> str:
        """What it is, in a sentence."""
        return self.table.about

    def suits(self, section: Section) -> bool:
        """Whether it can be put into a section at all."""
        return section.kind in self.places

    def named(self, part: Part) -> str:
        """What a part is called for people."""
        names = self.table.names
        return names.get(part.article) or names.get(part.role, part.role.capitalize())

    def called(self, article: str) -> str:
        """What an article of the price list is called for people."""
        names, plain = self.table.names, article.replace("-", " ")
        return names.get(article) or names.get(plain) or plain.capitalize()

    # -- compartments it has --

    @property
    def specs(self) -> dict[Holder, Spec]:
        """What its compartments are, by role."""
        return self.table.compartment

    @cached_property
    def _by_name(self) -> dict[str, Spec]:
        return {str(role): spec for role, spec in self.specs.items()}

    @property
    def roles(self) -> frozenset[Holder]:
        """Compartments it can make, beside the base a bay may have."""
        return frozenset(self.specs) - {"base"}

    def spec(self, role: Role) -> Spec:
        """What a compartment of a role is; a base counts as a shelf. `KeyError` for a role it has not."""
        return self._by_name.get(role) or self._by_name["shelf" if role == "base" else role]

    def spec_or_none(self, role: Role) -> Spec | None:
        """What a compartment of a role is; None where its parts have no front to be kept."""
        spec = self._by_name.get(role)
        return spec if spec is not None and spec.fronts else None

    def height(self, role: Role, bay: Bay) -> int:
        """How high a part of a role is where nobody says: its lowest front, its board, or as the table has it; mm."""
        spec = self.spec(role)
        if spec.fronts:
            return spec.fronts[0]
        return bay.shelves.thickness if self.is_cut(role, bay) else spec.height

    def is_cut(self, role: Role, bay: Bay) -> bool:
        """Whether a part of a role is a board that is cut: no wire, no slats, nothing of a range of fixed articles."""
        return self.cuts_shelves and not self.is_own and role in CUT and not bay.open_boards

    def makes(self, role: Role) -> bool:
        """Whether it has parts of this role for the inside of a bay."""
        return role in self._by_name or (role in ("base", "cover") and "shelf" in self._by_name)

    def finished(self, bay: Bay, finish: Finish) -> Bay:
        """A bay as its finish makes it: fascias narrow what slides out, fronts and boards are of another make."""
        trim = self.table.fascia if finish.fascia else 0
        return bay.model_copy(update={"trim": trim, "fronts": finish.fronts, "open_boards": finish.ventilated,
                                       "sloped": finish.sloped_shoes, "shelves": finish.shelves})  # fmt: skip
