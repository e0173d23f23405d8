"""Shelves that are there, moved on their holes: the levels between them become one bay on the pitch of the holes.

Its bottom is the shelf or board that stays. The shelves at hand cost nothing wherever they go; more are bought, cut to
the same size.
"""

from ...survey import Envelope
from ..family import Row, Shape
from ..parts import Bay, Part
from ..roles import Role
from ..standing import comes_out, cut_around
from .level import OnShelves


class Holes(OnShelves):
    """See the module."""

    id = "holes"
    places = frozenset({"stack"})

    def stretches(self, envelope: Envelope, shape: Shape) -> tuple[tuple[int, int], ...]:
        """From side to side, as the shelves that are there go: they are cut around what is narrow."""
        return (envelope.span(0, shape.height),)

    def bays(self, envelope: Envelope, row: Row) -> tuple[Bay, ...]:
        (w,) = row.widths
        stack = envelope.stack
        if stack is None:
            return ()
        y, depth = envelope.y_from, row.shape.depth
        cuts, blocked = cut_around(envelope, row.x, row.x + w, y, y + depth, row.shape.height, any_height=True)
        # The grid goes through the hole in which a shelf lies now; it begins at or below the bottom.
        foot = (stack.anchor % stack.pitch or stack.pitch) - stack.pitch
        return (
            Bay(section=envelope.section, family=self.id, x=row.x, w=w, y=y, depth=depth, hang_depth=depth, z0=foot,
                z1=row.shape.height, pitch=stack.pitch, pulls=comes_out(envelope, row.x, row.x + w), has_base=True,
                board=stack.board, at_hand=stack.shelves,
                cuts=cuts, blocked=blocked),
        )  # fmt: skip

    def foot(self, bay: Bay) -> int:
        """The underside of the board that stays: its top is the foot of the section, wherever the grid begins."""
        return -max(bay.board, -bay.z0)

    def placed(self, bay: Bay, part_id: str, role: Role, z: int, height: int = 0) -> Part:
        part = super().placed(bay, part_id, role, z, height)
        if role == "base":
            return part.model_copy(update={"z": self.foot(bay), "h": -self.foot(bay)})
        if role in ("shelf", "cover"):
            # A shelf at the foot is the board that stays, which may reach up from a lower hole.
            return part.model_copy(update={"h": -self.foot(bay) if z == bay.z0 else bay.board})
        return part
