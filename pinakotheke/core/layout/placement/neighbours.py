"""Fills a step away from those of a candidate: one module wider or narrower, two changed for each other, one more or one
less; and all of one family shallower, lower or higher."""

from collections.abc import Iterator
from itertools import combinations

from ...survey import Envelope
from ...systems import Family, Row
from ..packing.task import Task
from .candidates import Candidate, Fill, meet

Fills = tuple[Fill, ...]


def reshaped(task: Task, candidate: Candidate) -> Iterator[Fills]:
    """All that differ in the depth or the height of all rows of one family at one wall."""
    for n, fill in enumerate(candidate.fills):
        envelope = task.envelopes[fill.section]
        for family in dict.fromkeys(f for f, _ in fill.rows if not f.lies_on):
            shapes = {r.shape for f, r in fill.rows if f is family}
            if len(shapes) > 1:
                continue
            (old,) = shapes
            for shape in family.shapes(envelope, task.finish):
                if (shape.depth != old.depth) == (shape.height != old.height) or not family.modules_at(shape):
                    continue
                rows = [(f, Row(shape=shape, x=r.x, widths=r.widths) if f is family else r) for f, r in fill.rows
                        if not f.lies_on]  # fmt: skip
                mine, theirs = [r for f, r in rows if f is family], [(f, r) for f, r in rows if f is not family]
                if all(_stands(family, r, envelope) and not _in_the_way(family, r, theirs) for r in mine):
                    other = Fill(fill.section, tuple(rows), fill.said)
                    yield (*candidate.fills[:n], other, *candidate.fills[n + 1 :])


def _stands(family: Family, row: Row, envelope: Envelope) -> bool:
    """Whether a row of another shape stands where the old one stood."""
    inside = any(a <= row.x and row.end + family.ends <= b + 1 for a, b in family.stretches(envelope, row.shape))
    modules = family.modules_at(row.shape)
    fits = family.fillings(sum(row.widths)) is not None or all(w in modules for w in row.widths)
    return inside and fits and family.allows(envelope, row)


def _in_the_way(family: Family, row: Row, others: list[tuple[Family, Row]]) -> bool:
    """Whether a row would stand where a row of another family stands."""
    return any(meet(family, row, f, other) for f, other in others)


def neighbours(task: Task, candidate: Candidate) -> Iterator[Fills]:
    """All that differ by one step in one of the rows."""
    for n, fill in enumerate(candidate.fills):
        rows = [(f, r) for f, r in fill.rows if not f.lies_on]
        for k, (family, row) in enumerate(rows):
            for widths in dict.fromkeys(_steps(family, row)):
                x = _place(family, row, widths, task.envelopes[fill.section], [r for i, r in enumerate(rows) if i != k])
                if x is not None:
                    made = [*rows]
                    made[k] = (family, Row(shape=row.shape, x=x, widths=widths))
                    other = Fill(fill.section, tuple(made), f"{sum(widths)} mm used with {len(widths)}")
                    yield (*candidate.fills[:n], other, *candidate.fills[n + 1 :])


def _steps(family: Family, row: Row) -> Iterator[tuple[int, ...]]:
    widths = row.widths
    if family.fillings(sum(widths)) is not None:
        yield from _parted_otherwise(widths)
        return
    modules = family.modules_at(row.shape)
    for i, j in combinations(range(len(widths)), 2):
        if widths[i] != widths[j]:
            swapped = list(widths)
            swapped[i], swapped[j] = swapped[j], swapped[i]
            yield tuple(swapped)
    for i, w in enumerate(widths):
        for other in modules:
            if other != w:
                yield (*widths[:i], other, *widths[i + 1 :])
                for j in range(len(widths)):
                    if j != i:
                        # What one gives another takes, as far as the modules go.
                        rest = [m for m in modules if m != widths[j] and abs(m - widths[j] - (w - other)) <= EVEN]
                        for m in rest:
                            changed = list(widths)
                            changed[i], changed[j] = other, m
                            yield tuple(changed)
        if len(widths) > 1:
            yield (*widths[:i], *widths[i + 1 :])
    yield from ((*widths, m) for m in modules)


EVEN = 60
"""mm by which a change of two widths may miss the old sum."""
LEAST_PART, SHIFT = 270, 90
"""Of a wall that is parted freely, the narrowest part, and how far a side is shifted, mm."""


def _parted_otherwise(widths: tuple[int, ...]) -> Iterator[tuple[int, ...]]:
    """Sides of a freely parted wall shifted, taken out, or set in."""
    for i in range(len(widths) - 1):
        for by in (-3 * SHIFT, -SHIFT, -SHIFT // 3, SHIFT // 3, SHIFT, 3 * SHIFT):
            a, b = widths[i] + by, widths[i + 1] - by
            if min(a, b) >= LEAST_PART:
                yield (*widths[:i], a, b, *widths[i + 2 :])
        yield (*widths[:i], widths[i] + widths[i + 1], *widths[i + 2 :])
    for i, w in enumerate(widths):
        if w >= 2 * LEAST_PART:
            yield (*widths[:i], w // 2, w - w // 2, *widths[i + 1 :])


def _place(family: Family, row: Row, widths: tuple[int, ...], envelope: Envelope,
           beside: list[tuple[Family, Row]]) -> int | None:  # fmt: skip
    """Where a row of other widths may begin: in the middle of its stretch or where the old one began."""
    if family.fillings(sum(widths)) is not None and not all(
        family.modules[0] <= w <= family.modules[-1] for w in widths
    ):
        return None
    length = sum(widths) + family.ends
    for start, end in family.stretches(envelope, row.shape):
        if not (start <= row.x < end) or length > end - start:
            continue
        for x in dict.fromkeys((start + (end - start - length) // 2, row.x, start)):
            new = Row(shape=row.shape, x=x, widths=widths)
            clear = not any(meet(family, new, f, other) for f, other in beside)
            if x + length <= end and clear and family.allows(envelope, new):
                return x
    return None
