"""What a family can stand: heights and depths, widths along a run, and the bays that a row of modules makes."""

from abc import ABC, abstractmethod
from collections.abc import Iterator
from itertools import accumulate

from ...survey import Envelope
from ..parts import Bay
from ..standing import free_stretches, setback_for
from .basis import Basis
from .models import Finish, Row, Shape


class Geometry(Basis, ABC):
    """How modules of a family stand."""

    @property
    @abstractmethod
    def modules(self) -> tuple[int, ...]:
        """Widths a bay can have along the run, ascending."""

    @abstractmethod
    def shapes(self, envelope: Envelope, finish: Finish) -> tuple[Shape, ...]:
        """Heights and depths that stand in the envelope, tallest and deepest first; empty when none does."""

    @abstractmethod
    def bays(self, envelope: Envelope, row: Row) -> tuple[Bay, ...]:
        """The bays of a row of modules, from index 0."""

    @property
    def ends(self) -> int:
        """Run length taken beside the modules themselves, mm."""
        return 0

    @property
    def corners(self) -> tuple[int, ...]:
        """Widths of modules made for a corner; none when any module will do."""
        return ()

    def modules_at(self, shape: Shape) -> tuple[int, ...]:
        """Widths of the range at one height and depth: where articles are listed, those that are."""
        listed, made_by = self.table.listed, self.table.made_by
        main = next((kind for kind in listed if "width" in made_by.get(kind, {})), None)
        if main is None:
            return self.modules
        under = self.table.stands_on.get(main)
        member = shape.member - (int(getattr(self.table, under)) if under else 0)
        there = {w for w, d, h, _ in listed[main] if d in (0, shape.depth) and h in (0, member)}
        return tuple(m for m in self.modules if m in there)

    def standing_shapes(self, envelope: Envelope) -> tuple[Shape, ...]:
        """Every height and depth of the table that stands in the envelope, under a slope as far out as it must."""
        found = []
        for height in sorted((h for h in self.table.heights if h <= envelope.z_to), reverse=True):
            for depth in sorted(self.table.depths, reverse=True):
                setback = setback_for(envelope, height, depth)
                if setback is not None:
                    found.append(Shape(height=height, depth=depth, member=height, setback=setback))
        return tuple(found)

    def storeys(self, envelope: Envelope) -> Iterator[tuple[Row, ...]]:
        """Rows above each other under a ceiling that falls along the wall, where the family cuts boards to it."""
        return iter(())

    def fillings(self, length: int) -> Iterator[tuple[int, ...]] | None:
        """Rows of modules for a stretch, where the family cuts to the wall; None when it takes them from its range."""
        return None

    def stretches(self, envelope: Envelope, shape: Shape) -> tuple[tuple[int, int], ...]:
        """x ranges in which modules may stand side by side: the clear width, parted by what closes it."""
        start, end = envelope.span(0, shape.height)
        back = envelope.y_from + shape.setback
        return free_stretches(start, end, [
            (c.x0, c.x1) for c in envelope.closed
            if c.z0 < shape.height and c.y1 > back and c.y0 < back + shape.depth and not self._passes(c.loose)
        ])  # fmt: skip

    def _passes(self, loose: bool) -> bool:
        """Whether it may stand before what only asks to be reached."""
        return False

    def barred(self, envelope: Envelope, shape: Shape) -> tuple[tuple[int, int], ...]:
        """x ranges strictly inside which the left edge of an upright (standard, post, gable) may not be."""
        return ()

    def allows(self, envelope: Envelope, row: Row) -> bool:
        """Whether a row may stand where it begins."""
        if not any(a <= row.x and row.end + self.ends <= b for a, b in self.stretches(envelope, row.shape)):
            return False
        barred = self.barred(envelope, row.shape)
        return not any(lo < at < hi for at in accumulate(row.widths, initial=row.x) for lo, hi in barred)

    def ends_on_brackets(self, envelope: Envelope, row: Row) -> bool:
        """Whether an end of a row has neither an upright nor a wall to carry a board across it."""
        return False

    def lowest(self, shape: Shape) -> int:
        """Height above the floor from which a row takes the wall: what hangs over others leaves what is below it."""
        return shape.height - shape.member if self.hangs_over else shape.foot

    def highest(self, shape: Shape) -> int:
        """Height above the floor up to which a row takes the wall."""
        return shape.height

    def smallest(self) -> int:
        """Least run length in which one module stands."""
        return self.modules[0] + self.ends

    def lacks(self, envelope: Envelope) -> Iterator[tuple[float, str]]:
        """By how much its smallest part is larger than the clear height, depth and width; negative where it is not."""
        heights = self.table.heights or self.table.standards
        if heights:
            yield min(heights) + self.table.foot_gap - envelope.z_to, "height"
        if self.table.depths:
            yield min(self.table.depths) - (envelope.y_to - envelope.y_from), "depth"
        yield float(self.smallest() - (envelope.x_to - envelope.x_from)), "width"
