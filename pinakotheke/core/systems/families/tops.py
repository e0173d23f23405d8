"""Tops: what lies over the modules of a wall, up to the ceiling.

The tops of carcases are a place as they are, from the first to the last; over standards and posts one board runs across
them all. Either is one wide bay, so that what is longer than a module lies there too.
"""

from itertools import accumulate

from ...survey import Envelope
from ..family import Family, Finish, Row, Shape
from ..parts import Bay, Part, Surface
from ..standing import WORTH_A_TOP, blocked_heights, free_stretches

LEAST_LONG = 300
"""A shorter top is no place to speak of, mm."""
WIDEST_SPAN = 1000
"""A board across is carried at least every so many mm; common practice."""
LEAN = 20
"""What a leaning wall may add to that, mm."""
NEAR_UPRIGHT = 30
"""So far a board may begin behind the middle of an upright that carries it, mm."""
BELOW_ENDS = 60
"""How far below the upper ends of standards a board hangs before them, mm."""


class Tops(Family):
    """The tops of carcases; nothing is built."""

    id = "tops"
    drills = False
    lies_on = frozenset({"carcase"})
    built = False

    @property
    def modules(self) -> tuple[int, ...]:
        return (1,)

    def shapes(self, envelope: Envelope, finish: Finish) -> tuple[Shape, ...]:
        return ()

    def over(self, envelope: Envelope, below: Family, row: Row, finish: Finish) -> Row | None:
        """The row that lies over a row of modules; None where there is too little room under the ceiling."""
        before = int(getattr(below.table, "standard_depth", 0))
        foot = row.shape.height - (BELOW_ENDS if before else 0)
        if below.kind not in self.lies_on or envelope.z_to - foot < WORTH_A_TOP or finish.crown or row.shape.is_storey:
            return None
        shape = Shape(height=envelope.z_to, depth=row.shape.depth - before, member=envelope.z_to - foot,
                      setback=row.shape.setback + before)  # fmt: skip
        a, b = envelope.span(foot, envelope.z_to)
        y0 = envelope.y_from + shape.setback
        free = free_stretches(max(row.x, a), min(row.end + below.ends, b), [
            (c.x0, c.x1) for c in envelope.closed if c.meets(a, b, y0, y0 + shape.depth, foot, envelope.z_to)
        ])  # fmt: skip
        start, end = max(free, key=lambda f: f[1] - f[0], default=(0, 0))
        return Row(shape=shape, x=start, widths=(end - start,)) if end - start >= LEAST_LONG else None

    def lowest(self, shape: Shape) -> int:
        return shape.height - shape.member

    def allows(self, envelope: Envelope, row: Row) -> bool:
        return True

    def bays(self, envelope: Envelope, row: Row) -> tuple[Bay, ...]:
        (w,) = row.widths
        foot, y = self.lowest(row.shape), envelope.y_from + row.shape.setback
        blocked = blocked_heights(envelope, row.x, row.x + w, y, y + row.shape.depth)
        return (
            Bay(section=envelope.section, family=self.id, x=row.x, w=w, y=y, depth=row.shape.depth,
                hang_depth=row.shape.depth, z0=foot, z1=row.shape.height, pitch=self.table.pitch, pulls=False,
                has_base=False, highest=foot, blocked=blocked),
        )  # fmt: skip

    def structure(self, envelope: Envelope, row: Row, bays: tuple[Bay, ...], finish: Finish) -> tuple[Part, ...]:
        return ()

    def carrier(self, bay: Bay) -> Surface:
        return "uprights"


class Across(Tops):
    """One board across standards or posts, on a bracket at each; or across a whole recess, on the gables and on a cleat
    at either wall.
    """

    id = "across"
    lies_on = frozenset({"track", "rack", "cleat"})
    built = True
    cuts_shelves = True

    def over(self, envelope: Envelope, below: Family, row: Row, finish: Finish) -> Row | None:
        """From upright to upright, as far as it is free over them; None as well where they stand too far apart to carry a
        board.
        """
        free = super().over(envelope, below, row, finish)
        if free is None or below.ends_on_brackets(envelope, row):
            return None
        # The first and the last bay reach on to the wall, which may lean away from what is above them.
        if max(b.w for b in below.bays(envelope, row)) > WIDEST_SPAN - LEAN:
            return None
        uprights = list(accumulate(row.widths, initial=row.x))
        inside = [x for x in uprights if free.x - NEAR_UPRIGHT <= x <= free.end]
        if len(inside) < 2:
            return None
        start = max(free.x, inside[0])
        end = min(free.end, inside[-1] + below.ends)
        return free.model_copy(update={"x": start, "widths": (end - start,)}) if end - start >= LEAST_LONG else None
