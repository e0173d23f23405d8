"""Filling a stretch with modules, against trying every combination."""

from itertools import accumulate, combinations_with_replacement, product
from random import Random
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from pinakotheke.core.layout.placement.run import NEAR, front, mask_of, rows, rows_between
from pinakotheke.core.systems import FAMILIES


def brute(stretch: int, modules: tuple[int, ...], count: int) -> int:
    """The most width exactly `count` modules use, by trying all; -1 when none fits."""
    return max((s for c in combinations_with_replacement(modules, count) if (s := sum(c)) <= stretch), default=-1)


class RunTests(TestCase):
    def test_front_is_exact(self) -> None:
        random = Random(7)
        for _ in range(60):
            modules = tuple(sorted(random.sample(range(180, 1000), random.randint(1, 5))))
            stretch = random.randint(0, 3000)
            got = front(stretch, modules)
            for count, used in enumerate(got.used, 1):
                if count <= 6:
                    self.assertEqual(used, brute(stretch, modules, count), (stretch, modules, count))
            self.assertEqual(brute(stretch, modules, len(got.used) + 1), -1)

    def test_real_families(self) -> None:
        for family in (f for f in FAMILIES.values() if f.fillings(2413) is None):
            got = front(2413, family.modules)
            for count in range(1, min(len(got.used), 5) + 1):
                self.assertEqual(got.used[count - 1], brute(2413, family.modules, count))

    @given(
        st.integers(0, 2500), st.lists(st.integers(150, 900), min_size=1, max_size=4, unique=True), st.integers(1, 5)
    )
    def test_rows_fill_what_the_front_says(self, stretch: int, modules: list[int], count: int) -> None:
        found = rows(stretch, tuple(modules), count)
        best = brute(stretch, tuple(sorted(modules)), count)
        if best < 0:
            self.assertEqual(found, ())
            return
        self.assertEqual(sum(found[0]), best)
        self.assertEqual(len(set(found)), len(found))
        for row in found:
            self.assertEqual(len(row), count)
            self.assertEqual(sorted(row, reverse=True), list(row))
            self.assertTrue(best - NEAR <= sum(row) <= best and set(row) <= set(modules))

    def test_the_bound_on_the_count(self) -> None:
        self.assertEqual(front(2000, (600, 900)).count_bound, 3)
        self.assertEqual(front(0, (600,)).used, ())


class ObstacleTests(TestCase):
    def test_rows_between_obstacles_are_the_fullest_of_all_orders(self) -> None:
        random = Random(11)
        for _ in range(40):
            modules = tuple(sorted(random.sample(range(200, 700), 3)))
            stretch, start = random.randint(600, 2000), random.choice((0, 40))
            barred = [(a, a + random.randint(30, 200)) for a in random.sample(range(stretch), 3)]
            got = {len(row): row for row in rows_between(stretch, modules, mask_of(barred, stretch), start)}
            for count in (1, 2, 3, 4):
                best = -1
                for order in product(modules, repeat=count):
                    ends = list(accumulate(order, initial=start))
                    if ends[-1] <= stretch and not any(lo < at < hi for at in ends for lo, hi in barred):
                        best = max(best, sum(order))
                self.assertEqual(sum(got[count]) if count in got else -1, best, (stretch, modules, barred, count))

    def test_touching_an_obstacle_is_allowed(self) -> None:
        # ....[450]####: an upright whose edge stands exactly where the obstacle begins.
        self.assertIn((450,), list(rows_between(1000, (450,), mask_of([(450, 600)], 1000), 0)))
        self.assertNotIn((450,), list(rows_between(1000, (450,), mask_of([(449, 600)], 1000), 0)))
