"""Filling a stretch of wall with modules, exactly.

For every count k the dynamic programme knows all widths that k modules can use up, as the set bits of one integer
(bit n: n mm). Nothing wider than the stretch is kept, so the best of each count is exact on the 1 mm grid; the
people choose between few wide modules and a fuller wall, so the whole front *count against used width* is given.
"""

from collections.abc import Iterator

from ..base import Frozen

MOST_MODULES = 40
NEAR = 40
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


def front(stretch: int, modules: tuple[int, ...]) -> Front:
    """The exact front of one stretch.

    >>> front(1000, (300, 450)).used
    (450, 900, 900)
    """
    sets = reachable(max(stretch, 0), modules)
    return Front(stretch=max(stretch, 0), widest=max(modules), used=tuple(s.bit_length() - 1 for s in sets[1:]))


def rows(stretch: int, modules: tuple[int, ...], count: int, most: int = 12) -> tuple[tuple[int, ...], ...]:
    """Sets of exactly `count` modules (widths descending) that use the most width, then nearly so; at most `most`."""
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
