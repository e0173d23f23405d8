"""Exact filling of runs: the whole front of count against used width within 50 ms up to 7.2 m, with and without
obstacles that uprights keep off, and how it grows.
"""

from time import perf_counter

from pinakotheke.core.layout.placement.run import front, mask_of, rows_between
from pinakotheke.core.systems import FAMILIES

PROMISED_MS = 50.0
STRETCHES = (1000, 2700, 7200, 12_000, 40_000)
OBSTACLES = ((900, 1010), (2400, 2440), (5000, 5300), (6900, 6960))


def main() -> None:
    """Every family that takes its modules from a range, over short and long walls."""
    for family in (f for f in FAMILIES.values() if f.fillings(3000) is None):
        for stretch in STRETCHES:
            start = perf_counter()
            got = front(stretch, family.modules)
            took = 1000 * (perf_counter() - start)
            start = perf_counter()
            between = list(rows_between(stretch, family.modules, mask_of(OBSTACLES, stretch), 0))
            beside = 1000 * (perf_counter() - start)
            most = max((sum(row) for row in between), default=0)
            print(
                f"run: {family.id:<8} {stretch:>6} mm  {took:6.2f} ms ({took / PROMISED_MS:.0%} of promise)  best "
                f"{got.best} of {stretch} mm (exact), residual {stretch - got.best} mm, at least {got.count_bound} to use "
                f"it all; beside {len(OBSTACLES)} obstacles {beside:6.2f} ms, {most} mm"
            )
