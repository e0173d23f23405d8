"""Companions: other families in what a fill leaves free of its section."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, field

from ...survey import Envelope
from ...survey.models import Section
from ...systems import Family, Finish, Row, Shape
from .candidates import Fill
from .fills import gaps, shapes_worth, ways_to_fill


@dataclass(frozen=True, slots=True)
class Places:
    """Heights and depths of a family that are worth a look at a section, each with the stretches where it stands; and
    what was found to go into their gaps so far, since many fills leave the same ones.
    """

    family: Family
    envelope: Envelope
    stretches: tuple[tuple[Shape, tuple[tuple[int, int], ...]], ...]
    _known: dict[tuple[Shape, int, int, bool], Row | None] = field(default_factory=dict)

    @classmethod
    def of(cls, family: Family, section: Section, envelope: Envelope, finish: Finish) -> "Places":
        """Where a family may stand in a section, whatever else does."""
        shapes = shapes_worth(family, envelope, finish) if family.suits(section) else ()
        return cls(family, envelope, tuple((shape, family.stretches(envelope, shape)) for shape in shapes))

    def rows_beside(self, made: Sequence[tuple[Family, Row]], blind: Sequence[tuple[float, float]], wide: bool,
                    ) -> Iterator[Row]:  # fmt: skip
        """The best row in each gap that other rows leave at the heights it takes."""
        family = self.family
        hidden_there = [(int(a), int(b) + 1) for a, b in blind]
        for shape, stretches in self.stretches:
            low, high = family.lowest(shape), family.highest(shape)
            beside = [(r.x, r.end + f.ends) for f, r in made if f.highest(r.shape) > low and f.lowest(r.shape) < high]
            for start, end in stretches:
                for lo, hi in gaps(start, end, [*beside, *hidden_there]):
                    row = self._best(shape, lo, hi, wide) if hi - lo >= family.smallest() else None
                    if row is not None:
                        yield row

    def _best(self, shape: Shape, lo: int, hi: int, wide: bool) -> Row | None:
        """The fullest row of a stretch, or that of the widest modules."""
        key = (shape, lo, hi, wide)
        if key not in self._known:
            there = [
                Row(shape=shape, x=x, widths=w)
                for x, w, _ in ways_to_fill(self.family, shape, self.envelope, lo, hi, 1)
            ]
            self._known[key] = max(there, key=lambda row: _worth(self.family, row, wide), default=None)
        return self._known[key]


def with_companions(fill: Fill, others: Iterable[Places], blind: Sequence[tuple[float, float]], wide: bool,
                    ) -> Fill | None:  # fmt: skip
    """The fill with other families in what it leaves free, as full as it goes or in modules as `wide` as they go; None
    when nothing goes there.
    """
    made = list(fill.rows)
    for places in others:
        if places.family.id in fill.families:
            continue
        while True:
            there = places.rows_beside(made, blind, wide)
            best = max(there, key=lambda row: _worth(places.family, row, wide), default=None)
            if best is None:
                break
            made.append((places.family, best))
    if len(made) == len(fill.rows):
        return None
    return Fill(fill.section, tuple(made), fill.said)


def _worth(family: Family, row: Row, wide: bool) -> tuple[float, float]:
    """Front that a row of companions gives; where wide modules are wanted, the widest first."""
    front_area = float(sum(row.widths) * (row.shape.height - family.lowest(row.shape)))
    return (float(max(row.widths)), front_area) if wide else (front_area, 0.0)
