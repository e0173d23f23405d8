"""Exact filling of runs: time for a stretch, and how much of it is used."""

from time import perf_counter

from pinakotheke.core.layout.run import front
from pinakotheke.core.systems import FAMILIES

STRETCHES = (1000, 2400, 4800, 12_000, 40_000)


def main() -> None:
    """Every family over short and long walls."""
    for family in FAMILIES.values():
        for stretch in STRETCHES:
            start = perf_counter()
            got = front(stretch, family.modules)
            took = 1000 * (perf_counter() - start)
            print(
                f"run: {family.id:<8} {stretch:>6} mm  {took:6.2f} ms  best {got.best / stretch:.1%} used (exact), "
                f"at least {got.count_bound} modules to use it all"
            )
