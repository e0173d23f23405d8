"""Ways to stand modules in a space: a family, a shape, and rows of modules, each worth furnishing."""

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import permutations, product

from ..survey import Envelope
from ..systems import Bay, Family, Shape
from ..systems.family import comes_out
from .run import front, rows

PERMUTED_UP_TO = 5
PER_COUNT = 3
"""Rows of modules kept for each count."""
DENSEST_COUNTS = 4
"""Of a long stretch, only the counts that use it best are furnished."""


@dataclass(frozen=True, slots=True)
class Candidate:
    """Bays to furnish, and how the run was filled."""

    family: Family
    shape: Shape
    rows: tuple[tuple[int, tuple[int, ...]], ...]
    bays: tuple[Bay, ...]
    run: str
    """What the exact run filling says of it: used width, stretch, count and its bound."""

    @property
    def modules(self) -> int:
        """How many modules stand."""
        return sum(len(widths) for _, widths in self.rows)


def shapes_worth(family: Family, envelope: Envelope) -> tuple[Shape, ...]:
    """Every height the family offers in this space, each at the greatest depth that fits."""
    deepest: dict[int, Shape] = {}
    for shape in family.shapes(envelope):
        if shape.height not in deepest or shape.depth > deepest[shape.height].depth:
            deepest[shape.height] = shape
    return tuple(deepest.values())


def candidates(family: Family, shape: Shape, envelope: Envelope) -> Iterator[Candidate]:
    """Rows of modules for one shape, fewest modules first; each count with the rows that use most of the width."""
    per_stretch = [
        list(_of_stretch(family, shape, envelope, start, end))
        for start, end in family.stretches(envelope, shape)
        if end - start >= family.smallest()
    ]
    if not per_stretch:
        return
    alone: list[list[_Row | None]] = [[None, *options] for options in per_stretch]
    filled = (tuple(row for row in choice if row) for choice in product(*alone))
    combined = sorted(
        (rows for rows in filled if rows),
        key=lambda rows: (sum(len(row[1]) for row in rows), -sum(sum(row[1]) for row in rows)),
    )
    for choice in _densest(combined):
        placed = tuple((x, widths) for x, widths, _ in choice)
        bays = family.bays(envelope, shape, placed)
        yield Candidate(family, shape, placed, bays, "; ".join(said for *_, said in choice))


_Row = tuple[int, tuple[int, ...], str]


def _densest(combined: list[tuple[_Row, ...]]) -> list[tuple[_Row, ...]]:
    """Of each module count the `PER_COUNT` widest; of more than eight counts the densest few."""
    by_count: dict[int, list[tuple[_Row, ...]]] = {}
    for choice in combined:
        row = by_count.setdefault(sum(len(o[1]) for o in choice), [])
        if len(row) < PER_COUNT:
            row.append(choice)
    counts = sorted(by_count)
    if len(counts) > 2 * DENSEST_COUNTS:
        used = {n: sum(sum(o[1]) for o in by_count[n][0]) for n in counts}
        counts = sorted(sorted(counts, key=lambda n: -used[n])[:DENSEST_COUNTS])
    return [choice for n in counts for choice in by_count[n]]


def _of_stretch(family: Family, shape: Shape, envelope: Envelope, start: int, end: int) -> Iterator[_Row]:
    length = end - start - family.ends
    edge = front(length, family.modules)
    for count, used in enumerate(edge.used, 1):
        kept = 0
        for widths in rows(length, family.modules, count):
            arranged = _arrange(family, shape, envelope, start, end, widths)
            if arranged is not None:
                x, order = arranged
                text = (
                    f"{sum(widths)} of {length} mm used with {count}; most possible with {count}: {used} mm (exact);"
                    f" whole stretch needs at least {edge.count_bound}"
                )
                yield x, order, text
                kept += 1
                if kept == PER_COUNT:
                    break


def _arrange(family: Family, shape: Shape, envelope: Envelope, start: int, end: int,
             widths: tuple[int, ...]) -> tuple[int, tuple[int, ...]] | None:  # fmt: skip
    """Order and place of a row: the most width that pull-outs can use, then centred, then symmetric."""
    slack = end - start - family.ends - sum(widths)
    best: tuple[tuple[float, ...], int, tuple[int, ...]] | None = None
    for order in _orders(widths):
        for x in sorted({start + slack // 2, start, start + slack}, key=lambda at: abs(at - start - slack // 2)):
            if not family.allows(envelope, shape, x, order):
                continue
            at, pulled = x, 0
            for width in order:
                pulled += width if comes_out(envelope, at + 20, at + width - 20) else 0
                at += width
            uneven = sum(abs(a - b) for a, b in zip(order, reversed(order), strict=True))
            rank = (-pulled, abs(x - start - slack // 2), uneven)
            if best is None or rank < best[0]:
                best = (rank, x, order)
    return None if best is None else best[1:]


def _orders(widths: tuple[int, ...]) -> list[tuple[int, ...]]:
    """All orders of a few modules; of many, widest in the middle and widest first."""
    if len(widths) <= PERMUTED_UP_TO:
        return sorted(set(permutations(widths)), reverse=True)
    middle: list[int] = []
    for n, width in enumerate(sorted(widths, reverse=True)):
        middle.insert(len(middle) if n % 2 else 0, width)
    return [tuple(middle), widths, widths[::-1]]
