"""Lengths cut from boards: the paper rolls of the textbooks, many pieces of one stock, and of several with offcuts; parts
cut from sheets, beside rectpack's guillotine packer on the same parts. Cost, proven bound, gap and time.

Promises on two cores at full speed: the textbook's proven within 0.2 s; 80 pieces of one stock proven within 0.5 s; 200
pieces of three lengths and four offcuts within 1.5 % of the bound in 3 s; 80 parts with grain and kerf on sheets of
2440 × 1220 a first plan in 50 ms, and at most one sheet over the bound in 1 s.
"""

from random import Random
from time import perf_counter

import rectpack

from pinakotheke.core.materials.cutting.lengths import Piece, Stock, cut_lengths
from pinakotheke.core.materials.cutting.sheets import Panel, Sheet, SheetPlan, cut_sheets
from pinakotheke.core.materials.cutting.verify import faults_of

ROLLS = ((1380, 22), (1520, 25), (1560, 12), (1710, 14), (1820, 18), (1880, 18), (1930, 20), (2000, 10), (2050, 12),
         (2100, 14), (2140, 16), (2150, 18), (2200, 20))  # fmt: skip
OFFCUTS = (1100, 800, 1700, 640)
KERF, TRIM = 4, 5
SHEET = Sheet("sheet", 2440, 1220, 1)


def main() -> None:
    """All of them."""
    cut_lengths([Piece("a", 10, 1)], [Stock("s", 100, 1)])  # the solvers take their time to load
    told("textbook's rolls", [Piece(str(length), length, n) for length, n in ROLLS], [Stock("roll", 5600, 1)], 0.2)
    rng = Random(1)
    told("80 pieces, one stock", [Piece(str(n), rng.randint(150, 1400), 1) for n in range(80)],
         [Stock("board", 2440, 100)], 0.5, KERF, TRIM)  # fmt: skip
    several = [Stock("a", 2000, 900), Stock("b", 2500, 1100), Stock("c", 3000, 1280)]
    told("200 pieces, three stocks, four offcuts", [Piece(str(n), rng.randint(150, 1400), 1) for n in range(200)],
         [*several, *(Stock(f"rest {length}", length, 0, 1) for length in OFFCUTS)], 3.0, KERF, TRIM)  # fmt: skip

    for count in (10, 20, 40, 80):
        for seed in range(3):
            sheets(count, seed)


def sheets(count: int, seed: int) -> None:
    """So many parts, half of them with grain."""
    rng = Random(seed)
    panels = [Panel(str(n), rng.randint(150, 1200), rng.randint(80, 600), 1, rng.random() < 0.5) for n in range(count)]

    def timed(moves: int) -> tuple[SheetPlan, float]:
        start = perf_counter()
        plan = cut_sheets(panels, [SHEET], kerf=KERF, trim=TRIM, moves=moves)
        took = perf_counter() - start
        faults = faults_of(plan, panels, [SHEET], kerf=KERF, trim=TRIM)
        if faults:
            print("FAULTS", *faults, sep="\n  ")
        return plan, took

    timed(1)
    (first, soon), (plan, took) = timed(0), timed(30_000)
    print(f"sheets: {count} parts, seed {seed}: {plan.cost} sheets, bound {plan.bound} (area alone {plan.area_bound}), "
          f"first plan {first.cost} in {soon * 1000:.0f} ms, rectpack {beside(panels)}, "
          f"waste {plan.waste:.0%}; {took:.2f} s ({took:.0%} of promise)")  # fmt: skip


def beside(panels: list[Panel]) -> str:
    """The fewest sheets that rectpack's guillotine packers find: first the parts with grain as they lie, then all turned
    as it likes, for it knows no grain of single parts.
    """
    fewest = []
    for rotation in (False, True):
        packer = rectpack.newPacker(
            pack_algo=rectpack.GuillotineBssfSas, bin_algo=rectpack.PackingBin.BBF, rotation=rotation
        )
        for n, p in enumerate(panels):
            packer.add_rect(p.length + KERF, p.width + KERF, n)
        packer.add_bin(SHEET.length - 2 * TRIM + KERF, SHEET.width - 2 * TRIM + KERF, count=len(panels))
        packer.pack()
        fewest.append(len(packer))
    return f"{fewest[0]} without turning, {fewest[1]} turning all"


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
