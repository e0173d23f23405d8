"""Inserts on shelves that are there: each level is a bay whose bottom is the shelf itself."""

from collections.abc import Iterator

from ...survey import Envelope
from ..family import Family, Finish, Row, Shape
from ..parts import Bay, Part, Surface
from ..roles import Role
from ..standing import blocked_heights, comes_out


class OnShelves(Family):
    """What is set onto shelves that are there has in common: one bay from side to side, and nothing to stand up."""

    drills = False
    on_what_is_there = True

    @property
    def modules(self) -> tuple[int, ...]:
        return (1,)

    def fillings(self, length: int) -> Iterator[tuple[int, ...]]:
        return iter([(length,)])

    def shapes(self, envelope: Envelope, finish: Finish) -> tuple[Shape, ...]:
        # What stands in a level parts it; what is stood before it is no taller than the level.
        return (Shape(height=envelope.z_to, depth=envelope.y_to - envelope.y_from, member=envelope.z_to),)

    def structure(self, envelope: Envelope, row: Row, bays: tuple[Bay, ...], finish: Finish) -> tuple[Part, ...]:
        return ()

    def carrier(self, bay: Bay) -> Surface:
        return "shelf"

    def placed(self, bay: Bay, part_id: str, role: Role, z: int, height: int = 0) -> Part:
        part = super().placed(bay, part_id, role, z, height)
        return part.model_copy(update={"d": 20}) if role == "hooks" else part


class Level(OnShelves):
    """See the module."""

    id = "level"
    places = frozenset({"level"})

    def bays(self, envelope: Envelope, row: Row) -> tuple[Bay, ...]:
        (w,) = row.widths
        y, depth = envelope.y_from, row.shape.depth
        return (
            Bay(section=envelope.section, family=self.id, x=row.x, w=w, y=y, depth=depth, hang_depth=depth, z0=1,
                z1=row.shape.height, pitch=self.table.pitch, pulls=comes_out(envelope, row.x, row.x + w),
                has_base=True, blocked=blocked_heights(envelope, row.x, row.x + w, y, y + depth)),
        )  # fmt: skip
