"""Bays and assignments against brute force on cases small enough to try everything, the bound against a second solver,
and the compiled kernel against the same functions as plain Python.
"""

import os
import subprocess
import sys
from itertools import pairwise, permutations, product
from math import inf
from random import Random
from unittest import TestCase

import numpy as np
from pydantic import ValidationError
from scipy.optimize import linprog

from pinakotheke.core.errors import Cancelled
from pinakotheke.core.house import HouseRules
from pinakotheke.core.inventory import Thing
from pinakotheke.core.layout import Weights, columns, kernel
from pinakotheke.core.layout.bound import credit, lower_bound, programme
from pinakotheke.core.layout.interior import CODE, UNPLACED, Interior, Problem, Scale, read, search
from pinakotheke.core.layout.lots import cut
from pinakotheke.core.layout.models import Outcome
from pinakotheke.core.layout.task import Household
from pinakotheke.core.systems import FAMILIES, Bay, Blocked
from pinakotheke.core.tables import value

from .examples import ADULT, thing
from .test_families import bays_of

SCALE = Scale.of(Weights(money=5, room=1, reach=4))
KINDS = ("shirt", "jumper", "t-shirt", "jeans", "coat-long", "shoe-men", "box-medium", "hat", "broom", "bucket")
HOME = Household(HouseRules(reserve=0), (ADULT,))


def small_case(seed: int, lots: int, bays: int) -> Problem:
    """A few random lots and bays of one or two families."""
    random = Random(seed)
    kept: list[Bay] = []
    while len(kept) < bays:
        family = random.choice(("carcase", "track", "rack", "cleat"))
        for bay in bays_of(family)[: bays - len(kept)]:
            kept.append(bay.model_copy(update={"index": len(kept)}))
    if random.random() < 0.3:
        kept[0] = kept[0].model_copy(update={"blocked": (Blocked(low=900, high=1100),)})
    things: list[Thing] = [
        thing(f"t{n}", random.choice(KINDS), random.randint(1, 4), frequency=random.choice(["daily", "monthly"]),
              together=random.choice(["", "", "tea"]))
        for n in range(lots)
    ]  # fmt: skip
    return Problem(cut(tuple(things), tuple(kept), HOME), kept, SCALE, HOME)


def found(problem: Problem, **options: object) -> Interior:
    return search(problem, **{"moves": 3000, "seed": 1, "check": lambda: None, **options})  # type: ignore[arg-type]


def brute_interior(problem: Problem) -> float:
    """The least cost over every choice of a spot for every lot, or none."""
    choices = [(-1, *range(problem.starts[n], problem.starts[n + 1])) for n in range(len(problem.lots))]
    best = inf
    for choice in product(*choices):
        try:
            best = min(best, read(problem, choice).cost)
        except RuntimeError:  # these do not stand together
            continue
    return best


class ScoreTests(TestCase):
    def test_a_base_is_never_paid_back_twice(self) -> None:
        # Found by the long run of random cases: a trolley's bottom cost nothing and was credited as a shelf besides.
        bay = bays_of("trolley", "width 1200; height 2000; depth 700; door none", widths=(620,))[0]
        problem = Problem(cut((thing("bucket", "bucket", 1),), (bay,), HOME), [bay], SCALE, HOME)
        got = found(problem)
        self.assertEqual(got.unplaced, 0)
        self.assertGreaterEqual(got.cost, 0)

    def test_what_the_household_has_may_count_below_nothing(self) -> None:
        facts = {"status": "proven", "method": "m", "run": "r"}
        self.assertEqual(Outcome.model_validate({**facts, "objective": -8.375, "bound": -8.375}).gap, 0)
        with self.assertRaisesRegex(ValidationError, "lies above"):
            Outcome.model_validate({**facts, "objective": -8.375, "bound": -8.0})


class BayTests(TestCase):
    def test_the_order_of_compartments_is_the_best_of_all(self) -> None:
        """Exact without closed heights; the reference stacks every permutation with a loop of its own."""
        tried = 0
        for seed in range(60):
            problem = small_case(seed, lots=4, bays=1)
            if problem.bays[0].blocked:
                continue
            spots = [problem.starts[n] for n in range(len(problem.lots)) if problem.lots[n].spots]
            held = np.array(spots, np.int64)
            spot_i, spot_f, troubles, bay_i, _bay_f, blocked, n_blocked, *_ = problem.arrays
            slot_i, slot_f = np.empty((columns.MOST_SLOTS, 5), np.int64), np.empty((columns.MOST_SLOTS, 2))
            member = np.empty(len(spots), np.int64)
            where, feet = np.empty(columns.MOST_SLOTS, np.int64), np.empty(columns.MOST_SLOTS, np.int64)
            slots, _ = kernel.pack(held, len(spots), spot_i, spot_f, -9, slot_i, slot_f, member, 0.0, bay_i[0, 0])
            if slots < 2:
                continue
            points, _, _ = kernel.order(held, len(spots), slots, spot_i, troubles, -9, slot_i, member, bay_i[0],
                                        blocked[0], n_blocked[0], 12, where, feet)  # fmt: skip
            best = inf
            for order in permutations(range(slots)):
                top, total = 0, 0.0
                for c in order:
                    foot = max(top, int(slot_i[c, 2]))
                    if foot > slot_i[c, 3] or foot + slot_i[c, 1] > bay_i[0, 0]:
                        total = inf
                        break
                    total += sum(
                        troubles[spot_i[held[k], columns.ROW], foot] for k in range(len(spots)) if member[k] == c
                    )
                    top = foot + int(slot_i[c, 1])
                best = min(best, total)
            self.assertAlmostEqual(points if points < columns.BIG else inf, best, msg=f"seed {seed}")
            tried += 1
        self.assertGreater(tried, 15)

    def test_a_closed_height_is_left_free(self) -> None:
        (bay,) = bays_of("track", widths=(840,))
        bay = bay.model_copy(update={"blocked": (Blocked(low=900, high=1150),)})
        problem = Problem(cut((thing("j", "jumper", 10), thing("k", "jeans", 20)), (bay,), HOME), [bay], SCALE, HOME)
        for c in found(problem).stacks[0]:
            low = bay.z0 + c.foot * bay.pitch
            self.assertFalse(low < 1150 and low + c.units * bay.pitch > 900)

    def test_what_stands_on_the_floor_stands_lowest_and_before_what_is_only_to_be_reached(self) -> None:
        (bay,) = bays_of("track", widths=(840,))
        bay = bay.model_copy(update={"blocked": (Blocked(low=0, high=300, loose=True),)})
        problem = Problem(
            cut((thing("b", "bucket", 1, way="floor"), thing("j", "jumper", 3)), (bay,), HOME), [bay], SCALE, HOME
        )
        stack = found(problem).stacks[0]
        self.assertEqual([c.foot for c in stack if c.role == "floor"], [0])
        self.assertGreaterEqual(min(c.foot * bay.pitch for c in stack if c.role == "shelf"), 300)

    def test_drawers_make_one_chest_under_one_cover(self) -> None:
        (bay,) = bays_of("carcase", widths=(704,))
        things = (thing("s", "socks", 60, way="drawer"), thing("u", "t-shirt", 40, way="drawer"))
        lots = cut(things, (bay,), HOME)
        for lot in lots:
            lot.spots = [s for s in lot.spots if s.role == "drawer"]
        stack = found(Problem(lots, [bay], SCALE, HOME)).stacks[0]
        drawers = [c for c in stack if c.role == "drawer"]
        self.assertGreater(len(drawers), 1)
        for below, above in pairwise(drawers):
            self.assertEqual(below.foot + below.units, above.foot)
        self.assertEqual([c.covered for c in drawers], [False] * (len(drawers) - 1) + [True])


class InteriorTests(TestCase):
    def test_the_search_finds_the_best_of_all_on_small_cases(self) -> None:
        tried = 0
        for seed in range(24):
            problem = small_case(seed, lots=3, bays=2)
            sizes = np.diff(problem.starts)
            if len(problem.lots) > 4 or np.prod(sizes + 1.0) > 4000:
                continue
            best = brute_interior(problem)
            self.assertAlmostEqual(found(problem, seed=seed + 1).cost, best, msg=f"seed {seed}")
            self.assertLessEqual(lower_bound(problem), best + 1e-6)
            tried += 1
        self.assertGreater(tried, 8)

    def test_the_bound_is_the_same_by_a_second_solver(self) -> None:
        """GLOP against HiGHS (scipy.optimize.linprog), on the same programme."""
        for seed in range(12):
            problem = small_case(seed, lots=8, bays=3)
            costs, entries, lots, heights = programme(problem)
            rows = np.zeros((lots + len(heights), len(costs)))
            for row, variable, coefficient in entries:
                rows[row, variable] += coefficient
            got = linprog(costs, A_ub=rows[lots:], b_ub=heights, A_eq=rows[:lots], b_eq=np.ones(lots), bounds=(0, 1),
                          method="highs")  # fmt: skip
            self.assertEqual(got.status, 0)
            self.assertAlmostEqual(lower_bound(problem), max(0.0, got.fun - credit(problem)), places=4)

    def test_same_seed_same_answer(self) -> None:
        once, again = (found(small_case(3, lots=6, bays=2), moves=800, seed=5) for _ in range(2))
        self.assertEqual((once.cost, once.choices), (again.cost, again.choices))

    def test_the_compiled_kernel_takes_the_same_steps_as_plain_python(self) -> None:
        said = f"cost,choices {found(small_case(4, lots=5, bays=2), moves=200, seed=7).choices}"
        script = (
            "from tests.core.test_interior import found, small_case\\n"
            "print('cost,choices', found(small_case(4, lots=5, bays=2), moves=200, seed=7).choices)"
        ).replace("\\\\n", "\\n")
        plain = subprocess.run(
            [sys.executable, "-c", script.replace("\\n", "\n")], capture_output=True, text=True, check=True,
            env={**os.environ, "NUMBA_DISABLE_JIT": "1"},
        )  # fmt: skip
        self.assertEqual(plain.stdout.strip(), said)

    def test_what_cannot_be_placed_stays_out(self) -> None:
        bays = bays_of("carcase", widths=(704,))
        lots = cut((thing("big", "custom", 1, size=(3000, 3000, 300)),), bays, HOME)
        got = found(Problem(lots, bays, SCALE, HOME), moves=50)
        self.assertEqual((got.unplaced, got.cost), (1, UNPLACED))

    def test_moves_never_end_worse_than_they_began(self) -> None:
        for seed in range(6):
            problem = small_case(seed, lots=9, bays=2)
            start = found(problem, moves=0)
            after = found(problem, moves=600, start=start.choices)
            self.assertLessEqual((after.unplaced, after.cost), (start.unplaced, start.cost + 1e-6))
            self.assertLessEqual(lower_bound(problem), after.cost + 1e-6)

    def test_a_start_is_taken_over_as_it_is(self) -> None:
        problem = small_case(2, lots=5, bays=2)
        first = found(problem, moves=400, seed=9)
        again = found(problem, moves=0, start=first.choices)
        self.assertEqual(again.choices, first.choices)
        self.assertAlmostEqual(again.cost, first.cost)

    def test_the_check_is_called_and_may_stop_it(self) -> None:
        def stop() -> None:
            raise Cancelled

        with self.assertRaises(Cancelled):
            found(small_case(2, lots=5, bays=2), check=stop)

    def test_a_thing_kept_together_costs_less_than_one_split(self) -> None:
        bays = bays_of("carcase", widths=(704, 704))
        lots = cut((thing("shirts", "shirt", 40, way="hang"),), bays, HOME)
        self.assertGreater(len(lots), 1)
        free = Scale(money=0, front=0, reach=0, part=0, hour=0, reuse=0)
        problem = Problem(lots, bays, free, HOME)
        got = found(problem)
        used = {problem.spots[c][1].bay for c in got.choices if c >= 0}
        self.assertAlmostEqual(got.cost, value("design.split") * (len(used) - 1))

    def test_every_role_has_a_code(self) -> None:
        self.assertEqual({r for f in FAMILIES.values() for r in f.specs} - set(CODE), set())
