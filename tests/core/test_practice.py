"""The simulated instruments against their stated scatter, and practice rooms against their own truth."""

from random import Random
from statistics import mean, stdev
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from pinakotheke.core.house import HouseRules
from pinakotheke.core.survey import Obstacle, Survey, doubts, slots
from pinakotheke.core.survey.instruments import KINDS, StandIn
from pinakotheke.core.survey.models import Instrument
from pinakotheke.core.survey.practice import Difficulty, review, true_room, true_survey, truth
from pinakotheke.core.survey.square import squareness

DIFFICULTIES: tuple[Difficulty, ...] = ("gentle", "usual", "awkward")
READS: dict[Instrument, str] = {"tape": "width", "laser": "width", "level": "fall", "stud finder": "stud"}


class ScatterTests(TestCase):
    def test_each_instrument_scatters_as_it_states(self) -> None:
        for kind in KINDS:
            tool, rng, true = StandIn(kind), Random(1), 1800.0
            taken = [tool.take(READS[kind], true, rng) for _ in range(4000)]  # type: ignore[arg-type]
            good = [t.value - true for t in taken if not t.blunder]
            # A sample of 4000 gives the deviation within 5 %; rounding to the display adds step²/12.
            step = 0.5 if kind == "level" else 1
            stated = (tool.sigma(true) ** 2 + step**2 / 12) ** 0.5
            self.assertAlmostEqual(stdev(good) / stated, 1, delta=0.06, msg=kind)
            self.assertAlmostEqual(mean(good), 0, delta=0.15, msg=kind)

    def test_blunders_come_at_their_rate_and_are_large(self) -> None:
        tool, rng = StandIn("tape"), Random(2)
        taken = [tool.take("width", 1846, rng) for _ in range(4000)]
        slips = [t for t in taken if t.blunder]
        self.assertAlmostEqual(len(slips) / 4000, 0.03, delta=0.008)
        self.assertEqual({t.blunder for t in slips}, {"digits swapped", "tape case", "hundred"})
        self.assertTrue(all(abs(t.value - 1846) > 50 for t in slips if t.blunder != "digits swapped"))

    def test_what_an_instrument_does_not_read(self) -> None:
        with self.assertRaises(ValueError):
            StandIn("level").take("width", 1800, Random(1))

    def test_a_sweep_misses_and_invents_studs_at_its_rate(self) -> None:
        tool, rng, centres = StandIn("stud finder"), Random(3), tuple(float(n) for n in range(100, 1900, 400))
        sweeps = [tool.sweep(centres, 2000, rng) for _ in range(1000)]
        found = sum(any(abs(t.value - c) < 20 for t in s) for s in sweeps for c in centres) / (1000 * len(centres))
        self.assertAlmostEqual(found, 0.95, delta=0.01)


class TrueRoomTests(TestCase):
    @given(st.integers(0, 10_000), st.sampled_from(DIFFICULTIES))
    def test_the_truth_hangs_together(self, seed: int, difficulty: Difficulty) -> None:
        """An exact survey of a room contradicts itself nowhere, gives back its corners, and costs nothing."""
        room = true_room(seed, difficulty)
        exact = true_survey(room)
        self.assertEqual([d for d in doubts(exact) if d.code != "neighbour"], [])
        square = squareness(exact)
        self.assertAlmostEqual(square.left or 0, room.left_angle, places=6)
        self.assertAlmostEqual(square.right or 0, room.right_angle, places=6)
        found = review(room, exact, HouseRules())
        self.assertEqual((found.score, found.misses, found.unread, found.too_wide, found.wasted, found.unlevel),
                         (100, (), (), 0, 0, 0))  # fmt: skip

    def test_the_same_seed_is_the_same_room(self) -> None:
        self.assertEqual(true_room(7, "usual"), true_room(7, "usual"))
        self.assertNotEqual(true_room(7, "usual"), true_room(8, "usual"))


class ReviewTests(TestCase):
    def setUp(self) -> None:
        self.room = true_room(11, "awkward")
        self.exact = true_survey(self.room)

    def test_reading_too_long_costs_a_part_that_does_not_fit(self) -> None:
        rows = tuple(r.model_copy(update={"value": r.value + 60}) if r.what in ("width", "diagonal") else r
                     for r in self.exact.readings)  # fmt: skip
        found = review(self.room, self.exact.model_copy(update={"readings": rows}), HouseRules(fit="every-inch"))
        self.assertGreater(found.too_wide, 40)
        self.assertIn("does not pass", found.plan)
        self.assertTrue(all(m.off == 60 or abs(m.off - 60) < 1e-6 for m in found.misses))

    def test_reading_too_short_gives_room_away(self) -> None:
        rows = tuple(r.model_copy(update={"value": r.value - 25}) if r.what in ("width", "diagonal") else r
                     for r in self.exact.readings)  # fmt: skip
        found = review(self.room, self.exact.model_copy(update={"readings": rows}), HouseRules())
        self.assertEqual(found.too_wide, 0)
        self.assertGreater(found.wasted, 15)

    def test_a_floor_never_read_is_an_unlevel_run(self) -> None:
        rows = tuple(r for r in self.exact.readings if r.what != "fall")
        found = review(self.room, self.exact.model_copy(update={"readings": rows}), HouseRules())
        self.assertAlmostEqual(found.unlevel, self.room.floor_falls, delta=0.5)
        self.assertTrue(any("level line" in label for label in found.unread))

    def test_what_was_overlooked(self) -> None:
        bare = self.exact.model_copy(update={"obstacles": ()})
        self.assertEqual(review(self.room, bare, HouseRules()).overlooked, ("socket", "pipe"))
        seen = (Obstacle(id="o1", kind="pipe", x=0, z=0, width=60, height=2000),)
        self.assertEqual(
            review(self.room, bare.model_copy(update={"obstacles": seen}), HouseRules()).overlooked, ("socket",)
        )

    def test_nothing_read_yet(self) -> None:
        found = review(self.room, Survey(), HouseRules())
        self.assertEqual(found.score, 0)
        self.assertIn("no part can be planned", found.plan)
        self.assertGreater(len(found.unread), 10)

    def test_every_needed_place_has_a_truth(self) -> None:
        for slot in slots(self.exact):
            if slot.needed:
                self.assertIsNotNone(truth(self.room, slot), slot.label)
