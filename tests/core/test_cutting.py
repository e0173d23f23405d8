"""Lengths cut from boards: against the textbook's paper rolls, an independent solver, every way of cutting few pieces, and
by hand. Every plan is added up again on its own.
"""

from collections import Counter
from collections.abc import Iterator, Sequence
from random import Random
from unittest import TestCase

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp

from pinakotheke.core.materials.cutting.lengths import CutPlan, NotEnough, Piece, Stock, cut_lengths

ROLLS = ((1380, 22), (1520, 25), (1560, 12), (1710, 14), (1820, 18), (1880, 18), (1930, 20), (2000, 10), (2050, 12),
         (2100, 14), (2140, 16), (2150, 18), (2200, 20))  # fmt: skip
"""The paper rolls of the textbooks, cut from rolls of 5600: 73 are needed (cutting stock problem, from memory)."""


class LengthTests(TestCase):
    def check(self, plan: CutPlan, pieces: Sequence[Piece], kerf: int = 0, trim: int = 0) -> None:
        """Add it all up again: every piece once, no board longer than it is, no more of a stock than there is."""
        cut = Counter(p.key for b in plan.boards for p in b.pieces)
        self.assertEqual(cut, Counter({p.key: p.count for p in pieces if p.count}))
        for b in plan.boards:
            taken = sum(p.length for p in b.pieces) + kerf * (len(b.pieces) - 1)
            self.assertLessEqual(taken, b.stock.length - 2 * trim)
            self.assertEqual(b.rest, max(0, b.stock.length - 2 * trim - taken - kerf))
        for stock, number in Counter(b.stock for b in plan.boards).items():
            self.assertLessEqual(number, stock.count if stock.count is not None else number)
        self.assertEqual(plan.cost, sum(b.stock.price for b in plan.boards))
        self.assertLessEqual(plan.bound, plan.cost)

    def test_the_paper_rolls_of_the_textbook(self) -> None:
        pieces = [Piece(str(length), length, count) for length, count in ROLLS]
        plan = cut_lengths(pieces, [Stock("roll", 5600, 1)])
        self.check(plan, pieces)
        self.assertEqual((plan.cost, plan.is_proven), (73, True))

    def test_the_saw_takes_its_kerf_between_pieces_and_not_behind_the_last(self) -> None:
        pieces = [Piece("a", 800, 3)]
        for length, boards in ((2400, 2), (2405, 2), (2406, 1)):
            plan = cut_lengths(pieces, [Stock("s", length, 1)], kerf=3)
            self.check(plan, pieces, kerf=3)
            self.assertEqual(len(plan.boards), boards, length)
        self.assertEqual(len(cut_lengths(pieces, [Stock("s", 2406 + 20, 1)], kerf=3, trim=10).boards), 1)
        self.assertEqual(len(cut_lengths(pieces, [Stock("s", 2406 + 19, 1)], kerf=3, trim=10).boards), 2)

    def test_an_offcut_in_hand_is_used_first_and_once(self) -> None:
        pieces = [Piece("a", 700, 2), Piece("b", 400, 1)]
        stock = [Stock("long", 2000, 1200), Stock("rest", 750, 0, 1)]
        plan = cut_lengths(pieces, stock)
        self.check(plan, pieces)
        self.assertEqual((plan.cost, plan.is_proven), (1200, True))
        self.assertEqual(cut_lengths(pieces[:1], [Stock("short", 800, 500), stock[1]]).cost, 500)

    def test_what_no_board_is_long_enough_for_is_named(self) -> None:
        for stock in ([Stock("s", 500, 1)], [Stock("s", 600, 1, 0)], []):
            with self.assertRaises(NotEnough) as told:
                cut_lengths([Piece("a", 510, 1)], stock)
            self.assertEqual(told.exception.key, "a")
        with self.assertRaises(NotEnough):
            cut_lengths([Piece("a", 400, 3)], [Stock("s", 500, 1, 2)])
        self.assertEqual(cut_lengths([], [Stock("s", 500, 1)]).cost, 0)

    def test_few_pieces_against_every_way(self) -> None:
        rng = Random(4)
        for _ in range(25):
            pieces = [Piece(str(n), rng.randint(100, 900), 1) for n in range(rng.randint(2, 6))]
            stock = [Stock("a", 1000, 700), Stock("b", 1500, 1000), Stock("c", 600, 0, 1)]
            kerf = rng.choice((0, 3, 5))
            plan = cut_lengths(pieces, stock, kerf=kerf)
            self.check(plan, pieces, kerf)
            self.assertEqual(plan.cost, min(self._every_way([p.length for p in pieces], stock, kerf)))

    def _every_way(self, lengths: list[int], stock: Sequence[Stock], kerf: int) -> Iterator[int]:
        """What every parting of the pieces into boards costs, each from the cheapest stock left that is long enough."""
        for groups in _partitions(lengths):
            cost, offcuts = 0, 1
            for needed in sorted(sum(g) + kerf * (len(g) - 1) for g in groups):
                if offcuts and needed <= 600:
                    offcuts -= 1
                    continue
                cost += next((s.price for s in stock[:2] if needed <= s.length), 10**6)
            yield cost
            if min(sum(g) + kerf * (len(g) - 1) for g in groups) <= 600:
                # The offcut may serve a group better that would need a dearer board.
                for g in groups:
                    if sum(g) + kerf * (len(g) - 1) <= 600:
                        rest = [o for o in groups if o is not g]
                        yield sum(next((s.price for s in stock[:2] if sum(o) + kerf * (len(o) - 1) <= s.length), 10**6)
                                  for o in rest)  # fmt: skip

    def test_random_requests_against_an_independent_solver(self) -> None:
        """HiGHS, by way of scipy, on a model of its own: which piece lies in which board."""
        rng = Random(9)
        for _ in range(6):
            pieces = [Piece(str(n), rng.randint(180, 900), 1) for n in range(9)]
            stock, kerf = [Stock("a", 1200, 500), Stock("b", 2000, 780)], 4
            plan = cut_lengths(pieces, stock, kerf=kerf)
            self.check(plan, pieces, kerf)
            self.assertEqual(plan.cost, self._assigned(pieces, stock, kerf))

    def _assigned(self, pieces: Sequence[Piece], stock: Sequence[Stock], kerf: int) -> int:
        boards = [s for s in stock for _ in pieces]
        n, m = len(pieces), len(boards)
        cost = np.concatenate([np.zeros(n * m), [b.price for b in boards]])
        once = np.zeros((n, n * m + m))
        fits = np.zeros((m, n * m + m))
        for i, p in enumerate(pieces):
            once[i, i * m : (i + 1) * m] = 1
            for k in range(m):
                fits[k, i * m + k] = p.length + kerf
        for k, b in enumerate(boards):
            fits[k, n * m + k] = -(b.length + kerf)
        got = milp(cost, constraints=[LinearConstraint(once, 1, 1), LinearConstraint(fits, -np.inf, 0)],
                   integrality=np.ones(n * m + m), bounds=Bounds(0, 1))  # fmt: skip
        return round(got.fun)

    def test_many_pieces_of_three_lengths_and_four_offcuts(self) -> None:
        rng = Random(2)
        pieces = [Piece(str(n), rng.randint(150, 1400), 1) for n in range(60)]
        stock = [Stock("a", 2000, 900), Stock("b", 2500, 1100), Stock("c", 3000, 1280)]
        stock += [Stock(f"rest-{length}", length, 0, 1) for length in (1100, 800, 1700, 640)]
        plan = cut_lengths(pieces, stock, kerf=4, trim=5)
        self.check(plan, pieces, 4, 5)
        self.assertLessEqual(plan.gap, 0.015)


def _partitions(items: list[int]) -> Iterator[list[list[int]]]:
    """Every way to part some items into groups."""
    if not items:
        yield []
        return
    first, rest = items[0], items[1:]
    for groups in _partitions(rest):
        yield [[first], *groups]
        for n in range(len(groups)):
            yield [*groups[:n], [first, *groups[n]], *groups[n + 1 :]]
