"""Filling a stretch of wall with modules, exactly.

For every count k the dynamic programme knows all widths that k modules can use up, as the set bits of one integer
(bit n: n mm). Nothing wider than the stretch is kept, so the best of each count is exact on the 1 mm grid; the
people choose between few wide modules and a fuller wall, so the whole front *count against used width* is given.
"""

from collections.abc import Iterable, Iterator
from functools import lru_cache

from ...base import Frozen

MOST_MODULES = 40
NEAR = 260
"""Rows of modules that use up to this many mm less than the best of their count are offered too."""


class Front(Frozen):
    """For one stretch: the most used width with exactly k modules, k = 1, 2, …, and the stretch itself."""

    stretch: int
    widest: int
    used: tuple[int, ...]

    @property
    def count_bound(self) -> int:
        """No fewer modules than this can use the whole stretch: ⌈stretch ÷ widest⌉."""
        return -(-self.stretch // self.widest)

    @property
    def best(self) -> int:
        """The most width any count uses."""
        return max(self.used, default=0)


def reachable(stretch: int, modules: tuple[int, ...]) -> list[int]:
    """`sets[k]`: bit n is set when exactly k modules fill n mm, n ≤ stretch. Stops at the last non-empty set."""
    mask = (1 << (stretch + 1)) - 1
    sets = [1]
    while len(sets) <= MOST_MODULES:
        following = 0
        for width in modules:
            following |= sets[-1] << width
        following &= mask
        if not following:
            break
        sets.append(following)
    return sets


@lru_cache(maxsize=4096)
def front(stretch: int, modules: tuple[int, ...]) -> Front:
    """The exact front of one stretch.

    >>> front(1000, (300, 450)).used
    (450, 900, 900)
    """
    sets = reachable(max(stretch, 0), modules)
    return Front(stretch=max(stretch, 0), widest=max(modules), used=tuple(s.bit_length() - 1 for s in sets[1:]))


@lru_cache(maxsize=4096)  # the same stretch is left free by many rows
def rows(stretch: int, modules: tuple[int, ...], count: int, most: int = 160) -> tuple[tuple[int, ...], ...]:
    """Sets of exactly `count` modules (widths descending) that use the most width, then up to `NEAR` mm less; at
    most `most`.
    """
    sets = reachable(stretch, modules)
    if not 0 < count < len(sets):
        return ()
    best = sets[count].bit_length() - 1
    found: list[tuple[int, ...]] = []
    for total in range(best, max(best - NEAR, 0) - 1, -1):
        if sets[count] >> total & 1:
            for row in _with_sum(total, count, tuple(sorted(modules, reverse=True)), sets):
                found.append(row)
                if len(found) == most:
                    return tuple(found)
    return tuple(found)


def _with_sum(total: int, count: int, modules: tuple[int, ...], sets: list[int]) -> Iterator[tuple[int, ...]]:
    if count == 0:
        if total == 0:
            yield ()
        return
    for n, width in enumerate(modules):
        rest = total - width
        # `sets` ignores the descending order, so it only prunes: a set bit may still have no descending row.
        if rest >= 0 and sets[count - 1] >> rest & 1:
            for tail in _with_sum(rest, count - 1, modules[n:], sets):
                yield (width, *tail)


def mask_of(ranges: Iterable[tuple[int, int]], stretch: int) -> int:
    """Bits lo+1..hi−1 of every range within 0..stretch: where an upright's left edge may not be."""
    mask = 0
    for lo, hi in ranges:
        a, b = max(lo + 1, 0), min(hi, stretch + 1)
        if b > a:
            mask |= ((1 << (b - a)) - 1) << a
    return mask


def rows_between(stretch: int, modules: tuple[int, ...], barred: int, start: int) -> Iterator[tuple[int, ...]]:
    """For every count the row from `start` that uses most of the stretch with no upright on a barred bit: exact, in the
    order in which the modules stand.

    >>> list(rows_between(1000, (300, 450), mask_of([(440, 460)], 1000), 0))
    [(300,), (300, 450), (300, 300, 300)]
    """
    free = ((1 << (stretch + 1)) - 1) & ~barred
    sets = [(1 << start) & free]
    while sets[-1] and len(sets) <= MOST_MODULES:
        following = 0
        for width in modules:
            following |= sets[-1] << width
        sets.append(following & free)
    for count in range(1, len(sets)):
        if not sets[count]:
            return
        at, order = sets[count].bit_length() - 1, []
        for k in range(count - 1, -1, -1):
            width = next(w for w in sorted(modules, reverse=True) if at >= w and sets[k] >> (at - w) & 1)
            order.append(width)
            at -= width
        yield tuple(reversed(order))
