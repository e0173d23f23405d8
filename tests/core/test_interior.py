"""Bays and assignments against brute force on cases small enough to try everything."""

from itertools import permutations, product
from math import inf
from random import Random
from unittest import TestCase

from pinakotheke.core.errors import Cancelled
from pinakotheke.core.house import HouseRules
from pinakotheke.core.inventory import Thing
from pinakotheke.core.layout.bound import lower_bound
from pinakotheke.core.layout.candidates import candidates, shapes_worth
from pinakotheke.core.layout.interior import SPLIT, UNPLACED, search
from pinakotheke.core.layout.lots import Lot, cut
from pinakotheke.core.layout.packing import BayPacker, Weights
from pinakotheke.core.systems import FAMILIES, Bay, Family

from .examples import ADULT, TIGHT_FIT, region, thing

WEIGHTS = Weights(price=1.0, reach=2.0, front=0.1)
KINDS = ("shirt", "jumper", "t-shirt", "jeans", "coat-long", "shoe-men", "box-medium", "hat")


def small_case(seed: int, lots: int, bays: int) -> tuple[Family, tuple[Bay, ...], tuple[Lot, ...]]:
    """A few random lots and the bays of a real candidate."""
    random = Random(seed)
    family = FAMILIES[random.choice(sorted(FAMILIES))]
    e = region("width 1846; height 2408; depth 612; door none")
    shape = random.choice(shapes_worth(family, e))
    chosen = next(c for c in candidates(family, shape, e) if len(c.bays) >= bays)
    things: list[Thing] = [
        thing(f"t{n}", random.choice(KINDS), random.randint(1, 4), frequency=random.choice(["daily", "monthly"]))
        for n in range(lots)
    ]
    kept = chosen.bays[:bays]
    return family, kept, cut(tuple(things), kept, family, HouseRules(reserve=0), (ADULT,))


def brute_order(packer: BayPacker, slots: list[object]) -> float:
    """Least reach points over every order of the compartments."""
    best = inf
    for order in permutations(range(len(slots))):
        top, reach = 0, 0.0
        for n in order:
            foot = packer._foot(top, slots[n].units)  # type: ignore[attr-defined]
            reach += slots[n].cost_at(foot)  # type: ignore[attr-defined]
            top = foot + slots[n].units  # type: ignore[attr-defined]
        if top <= packer.most:
            best = min(best, reach)
    return best


def brute_interior(lots: tuple[Lot, ...], packers: list[BayPacker]) -> float:
    """The least cost over every choice of a bay and a way for every lot, or none."""
    spots = [[None, *((b, o) for o in lot.options for b in sorted(o.bays))] for lot in lots]
    best = inf
    for choice in product(*spots):
        cost = UNPLACED * sum(c is None for c in choice)
        cost += sum(p.stack([c[1] for c in choice if c and c[0] == b], exact=True).cost for b, p in enumerate(packers))
        for name in {lot.thing.id for lot in lots}:
            bays = {c[0] for c, lot in zip(choice, lots, strict=True) if c and lot.thing.id == name}
            cost += SPLIT * max(len(bays) - 1, 0)
        best = min(best, cost)
    return best


class BayTests(TestCase):
    def test_the_order_of_compartments_is_the_best_of_all(self) -> None:
        tried = 0
        for seed in range(40):
            family, bays, lots = small_case(seed, lots=4, bays=1)
            packer = BayPacker(bays[0], family, WEIGHTS)
            options = [lot.options[0] for lot in lots if lot.options and 0 in lot.options[0].bays]
            slots = packer._pack(options)
            if slots is None or len(slots) < 2 or bays[0].blocked:
                continue
            placed = packer._best_order(slots)
            expected = brute_order(packer, slots)
            self.assertAlmostEqual(placed[2] if placed else inf, expected)
            tried += 1
        self.assertGreater(tried, 8)

    def test_a_blocked_height_is_left_free(self) -> None:
        e = region("width 1000; height 2408; depth 612; door none; pipe at 100, 1000 up, 300 x 100, out 80")
        family = FAMILIES["track"]
        chosen = next(iter(candidates(family, shapes_worth(family, e)[0], e)))
        bay = next(b for b in chosen.bays if b.blocked)
        packer = BayPacker(bay, family, WEIGHTS)
        lots = cut((thing("j", "jumper", 10),), (bay.model_copy(update={"index": 0}),), family, TIGHT_FIT, (ADULT,))
        stack = packer.stack([lot.options[0] for lot in lots])
        for slot, foot in zip(stack.slots, stack.feet, strict=True):
            low = bay.z0 + foot * bay.pitch
            for a, b in bay.blocked:
                self.assertFalse(low < b and a < low + slot.units * bay.pitch)


class InteriorTests(TestCase):
    def test_the_search_finds_the_best_of_all_on_small_cases(self) -> None:
        found = 0
        for seed in range(12):
            family, bays, lots = small_case(seed, lots=3, bays=2)
            if len(lots) > 4:
                continue
            packers = [BayPacker(b, family, WEIGHTS) for b in bays]
            best = brute_interior(lots, packers)
            got = search(lots, packers, moves=1500, seed=seed, check=lambda: None)
            self.assertAlmostEqual(got.cost, best, msg=f"seed {seed}")
            self.assertLessEqual(lower_bound(lots, packers), best + 1e-6)
            found += 1
        self.assertGreater(found, 6)

    def test_same_seed_same_answer(self) -> None:
        family, bays, lots = small_case(3, lots=5, bays=2)
        once, again = (
            search(lots, [BayPacker(b, family, WEIGHTS) for b in bays], moves=400, seed=5, check=lambda: None)
            for _ in range(2)
        )
        self.assertEqual((once.cost, once.choices), (again.cost, again.choices))

    def test_what_cannot_be_placed_stays_out(self) -> None:
        family = FAMILIES["carcase"]
        _, bays, _ = small_case(1, lots=1, bays=1)
        lots = cut((thing("big", "custom", 1, size=(3000, 300, 300)),), bays, family, TIGHT_FIT, (ADULT,))
        got = search(lots, [BayPacker(bays[0], family, WEIGHTS)], moves=50, seed=1, check=lambda: None)
        self.assertEqual(got.unplaced, 1)

    def test_moves_never_end_worse_than_they_began(self) -> None:
        for seed in range(6):
            family, bays, lots = small_case(seed, lots=7, bays=2)
            packers = [BayPacker(b, family, WEIGHTS) for b in bays]
            start = search(lots, packers, moves=0, seed=1, check=lambda: None)
            after = search(lots, packers, moves=300, seed=1, check=lambda: None, start=start.choices)
            self.assertLessEqual((after.unplaced, after.cost), (start.unplaced, start.cost + 1e-6))
            self.assertLessEqual(lower_bound(lots, packers), after.cost + 1e-6)

    def test_a_start_is_taken_over_as_it_is(self) -> None:
        family, bays, lots = small_case(2, lots=5, bays=2)
        packers = [BayPacker(b, family, WEIGHTS) for b in bays]
        found = search(lots, packers, moves=400, seed=9, check=lambda: None)
        again = search(lots, packers, moves=0, seed=1, check=lambda: None, start=found.choices)
        self.assertEqual(again.choices, found.choices)
        self.assertAlmostEqual(again.cost, found.cost)

    def test_the_check_is_called_and_may_stop_it(self) -> None:
        family, bays, lots = small_case(2, lots=5, bays=2)

        def stop() -> None:
            raise Cancelled

        with self.assertRaises(Cancelled):
            search(lots, [BayPacker(b, family, WEIGHTS) for b in bays], moves=100, seed=1, check=stop)

    def test_a_thing_kept_together_costs_less_than_one_split(self) -> None:
        family = FAMILIES["carcase"]
        e = region("width 1846; height 2408; depth 612; door none")
        shape = shapes_worth(family, e)[0]
        bays = next(c for c in candidates(family, shape, e) if len(c.bays) == 2).bays
        lots = cut((thing("shirts", "shirt", 40, way="hang"),), bays, family, TIGHT_FIT, (ADULT,))
        self.assertGreater(len(lots), 1)
        packers = [BayPacker(b, family, Weights(0.0, 0.0, 0.0)) for b in bays]
        got = search(lots, packers, moves=500, seed=1, check=lambda: None)
        used = {choice[0] for choice in got.choices if choice}
        self.assertAlmostEqual(got.cost, SPLIT * (len(used) - 1))
