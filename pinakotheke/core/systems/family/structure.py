"""What a family is built of: what stands whatever is stored, what holds it up, and the boards of each part."""

from abc import ABC, abstractmethod
from math import inf

from ...mechanics.beam import Support
from ...mechanics.shelves import Sag, ShelfMake, board_sag, carries
from ...survey import Envelope
from ...tables import value
from ..boards import Board, boards_of, mass_of
from ..parts import Bay, Part
from ..roles import METAL, Role
from .basis import CUT, Basis
from .models import Finish, Row, Work


class Structure(Basis, ABC):
    """What is built."""

    tips: frozenset[Role] = frozenset({"frame"})
    """Roles of parts that stand by themselves and can tip over."""
    tilts: frozenset[Role] = frozenset({"frame"})
    """Roles of parts that are built lying down and tilted up."""
    screwed: frozenset[Role] = frozenset()
    """Roles of parts that hang from screws in a wall, and want studs there."""
    scribed: frozenset[Role] = frozenset()
    """Roles of parts that are cut to the wall: they ask for no allowance beside them."""

    @abstractmethod
    def structure(self, envelope: Envelope, row: Row, bays: tuple[Bay, ...], finish: Finish) -> tuple[Part, ...]:
        """The parts that stand whatever is stored: frames, plinths, fillers, track, standards."""

    def brackets(self, part: Part, bay: Bay) -> tuple[Part, ...]:
        """Parts that come with a placed compartment, such as the brackets under a shelf."""
        return ()

    @property
    def board(self) -> int:
        """Thickness of the boards of its frames, mm; 0 where it has none."""
        return int(getattr(self.table, "board", 0))

    def boards(self, part: Part) -> tuple[Board, ...]:
        """The boards that a part is made of, where they stand; none for what is metal, or there already."""
        there = part.role == "base" or (self.on_what_is_there and part.role == "floor")
        return () if there else boards_of(part, self.board)

    def work(self, part: Part) -> Work | None:
        """How a part is put up; None for what is there already, and for the free floor."""
        return None if part.role in ("base", "floor") else self.table.install.get(part.role)

    def mass(self, part: Part) -> float:
        """Kilograms of a part: its boards, and what its table says of a metre of anything else."""
        per_metre = self.table.mass.get(
            part.article.replace("-", " "), value("board.metal") if part.role in METAL else 0
        )
        return mass_of(self.boards(part)) + per_metre * max(part.w, part.d, part.h) / 1000

    def sags(self, part: Part, bay: Bay, mass: float) -> tuple[Sag, ...]:
        """What a shelf bends under `mass` kg in years, and what shows, for each way in which it is held: the stiffest
        of them rules. None for what is no board on supports, whose maker states what it carries.
        """
        return ()

    def make(self, part: Part, bay: Bay) -> ShelfMake:
        """What a shelf is made of; when it shows is for the bay to say."""
        return bay.shelves if part.make is None else part.make.model_copy(update={"shows": bay.shelves.shows})

    def supports(self, part: Part, bay: Bay) -> tuple[Support, ...]:
        """What holds a shelf along its length, from its left end; none for what is no board on supports."""
        return ()

    def bears(self, part: Part, bay: Bay) -> float:
        """Kilograms that each of these supports bears; infinite where nothing is said."""
        return inf

    def sag(self, part: Part, bay: Bay, mass: float) -> Sag | None:
        """The stiffest of `sags`."""
        return min(self.sags(part, bay, mass), key=lambda s: s.shows, default=None)

    def _carries(self, part: Part, bay: Bay, stated: float) -> float:
        """The least of what the maker states and what a shelf carries without a visible sag."""
        if part.role != "shelf" or not self.sags(part, bay, 0):
            return stated
        return min(stated, carries(lambda mass: self.sags(part, bay, mass)))


class OnTwoSides(Structure, ABC):
    """Shelves are boards that rest at both ends."""

    cuts_shelves = True

    def supports(self, part: Part, bay: Bay) -> tuple[Support, ...]:
        return (Support(0), Support(part.w)) if part.role in CUT else ()

    def sags(self, part: Part, bay: Bay, mass: float) -> tuple[Sag, ...]:
        if part.role != "shelf":
            return ()
        return (board_sag(self.make(part, bay), part.w, bay.depth, part.h, mass),)
