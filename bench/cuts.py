"""Lengths cut from boards: the paper rolls of the textbooks, many pieces of one stock, and of several with offcuts; cost,
proven bound, gap and time.

Promises on two cores at full speed: the textbook's proven within 0.2 s; 80 pieces of one stock proven within 0.5 s; 200
pieces of three lengths and four offcuts within 1.5 % of the bound in 3 s.
"""

from random import Random
from time import perf_counter

from pinakotheke.core.materials.cutting.lengths import Piece, Stock, cut_lengths

ROLLS = ((1380, 22), (1520, 25), (1560, 12), (1710, 14), (1820, 18), (1880, 18), (1930, 20), (2000, 10), (2050, 12),
         (2100, 14), (2140, 16), (2150, 18), (2200, 20))  # fmt: skip
OFFCUTS = (1100, 800, 1700, 640)
KERF, TRIM = 4, 5


def main() -> None:
    """All three."""
    cut_lengths([Piece("a", 10, 1)], [Stock("s", 100, 1)])  # the solvers take their time to load
    told("textbook's rolls", [Piece(str(length), length, n) for length, n in ROLLS], [Stock("roll", 5600, 1)], 0.2)
    rng = Random(1)
    told("80 pieces, one stock", [Piece(str(n), rng.randint(150, 1400), 1) for n in range(80)],
         [Stock("board", 2440, 100)], 0.5, KERF, TRIM)  # fmt: skip
    several = [Stock("a", 2000, 900), Stock("b", 2500, 1100), Stock("c", 3000, 1280)]
    told("200 pieces, three stocks, four offcuts", [Piece(str(n), rng.randint(150, 1400), 1) for n in range(200)],
         [*several, *(Stock(f"rest {length}", length, 0, 1) for length in OFFCUTS)], 3.0, KERF, TRIM)  # fmt: skip


def told(what: str, pieces: list[Piece], stock: list[Stock], promised: float, kerf: int = 0, trim: int = 0) -> None:
    """One request: what it costs, what is proven, how long it took."""
    start = perf_counter()
    plan = cut_lengths(pieces, stock, kerf=kerf, trim=trim)
    took = perf_counter() - start
    proven = "proven" if plan.is_proven else f"gap {plan.gap:.1%}"
    print(f"lengths: {what}: {len(plan.boards)} boards, cost {plan.cost}, bound {plan.bound}, {proven}; {took:.2f} s "
          f"({took / promised:.0%} of promise)")  # fmt: skip


if __name__ == "__main__":
    main()
