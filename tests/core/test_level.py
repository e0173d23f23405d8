"""Levels, shims, plinths, leaning walls, carrying in: against examples worked by hand."""

from math import sqrt
from unittest import TestCase

from pinakotheke.core.survey.carry import highest_tilted, passes, tilt_height
from pinakotheke.core.survey.drawers import drawer_sizes
from pinakotheke.core.survey.level import leans, level_base, level_length
from pinakotheke.core.survey.passages import passages

from .examples import PLAIN, region, survey, survey_of


class LevelTests(TestCase):
    def test_shims_bring_the_base_to_the_highest_point(self) -> None:
        # Falls of 12, 9, 4 and 7 below the line: the floor is highest where the fall is least, so the shims are
        # 12 − 4 = 8, 5, 0 and 3.
        base = level_base(survey("width 1800 1800 1800; floor 12 9 4 7"))
        assert base is not None
        self.assertEqual([(s.at, s.height) for s in base.shims], [(0, 8), (600, 5), (1200, 0), (1800, 3)])
        self.assertEqual((base.out_by, base.plinth), (8, ()))
        self.assertEqual(base.shim_at(300), 6.5)  # half way between 8 and 5
        self.assertEqual((base.shim_at(-10), base.shim_at(1900)), (8, 3))

    def test_out_by_more_than_10_mm_wants_a_plinth_in_few_lengths(self) -> None:
        # 3114 mm of run from 2400 mm stock: two lengths, 1557 each; 17 − 0 = 17 mm out.
        base = level_base(survey("width 3114 3114 3114; floor 0 at 0, 17 at 3114"))
        assert base is not None
        self.assertEqual((base.out_by, base.plinth), (17, (1557, 1557)))

    def test_the_lines_own_height_does_not_matter(self) -> None:
        low, high = (level_base(survey(f"width 1800; floor {n} at 0, {n + 6} at 1800")) for n in (1, 901))
        self.assertEqual(low, high)

    def test_across_is_the_worst_difference_front_to_back(self) -> None:
        base = level_base(survey("width 1800; floor 2 at 0, 4 at 1800; front floor 5 at 0, 1 at 1800"))
        assert base is not None
        self.assertEqual(base.across, 3)  # 5 − 2 at the left; 1 − 4 = −3 at the right is as bad, the first stands

    def test_one_reading_says_nothing(self) -> None:
        self.assertIsNone(level_base(survey("width 1800; floor 4 at 600")))
        self.assertIsNone(level_base(survey()))

    def test_the_longest_level_that_fits(self) -> None:
        self.assertEqual([level_length(n) for n in (2431, 1950, 1200, 1199, 599)], [2000, 1800, 1200, 900, 599])

    def test_walls_that_lean_in_take_room_and_those_that_lean_away_give_none(self) -> None:
        lean = leans(survey(PLAIN + "; plumb left 4; plumb right -6; plumb back 5; bow 3"))
        self.assertEqual((lean.left, lean.right, lean.back), (4, 0, 5))
        e = region(PLAIN + "; plumb left 4; plumb back 5; door none")
        self.assertEqual((e.x_from, e.y_from), (7, 5))


class CarryTests(TestCase):
    def test_tilting_up_a_frame(self) -> None:
        # 2070 high and 584 deep: √(2070² + 584²) = √4625956 ≈ 2150.8
        self.assertAlmostEqual(tilt_height(2070, 584), 2150.8, places=1)

    def test_what_hangs_from_the_ceiling_lowers_the_arc(self) -> None:
        free = region(PLAIN + "; door none")
        lit = region(PLAIN + "; door none; light at 800, 2300 up, 200 x 115, off 100, out 150, clear 0")
        self.assertAlmostEqual(highest_tilted(free, 584, 0, 1800), sqrt((2408 - 10) ** 2 - 584**2))
        self.assertAlmostEqual(highest_tilted(lit, 584, 700, 1100), sqrt((2300 - 10) ** 2 - 584**2))
        self.assertAlmostEqual(highest_tilted(lit, 584, 1000, 1500), sqrt((2408 - 10) ** 2 - 584**2))

    def test_through_the_door_and_round_the_passage(self) -> None:
        # 832 × 584: √(832² + 584²) ≈ 1016.5 turns in 1017, not in 1016; it passes a door of 584.
        self.assertTrue(passes(832, 584, 600, 1017))
        self.assertFalse(passes(832, 584, 600, 1016))
        self.assertFalse(passes(832, 584, 580, None))
        self.assertTrue(passes(832, 584, 584, None))


class DrawerTests(TestCase):
    def test_three_depths(self) -> None:
        # Opens by 345 under a top that stands 24 over: 321 of 458 can be reached.
        read = "width 386 388; depth 462 458; height 71 69; opens 345; overhang 24; liner 2"
        sizes = drawer_sizes(survey_of("drawer", read), "drawer-1")
        assert sizes is not None
        self.assertEqual((sizes.inside, sizes.reachable, sizes.usable_width, sizes.usable_height), (458, 321, 384, 67))

    def test_a_drawer_that_opens_whole_is_reached_whole(self) -> None:
        sizes = drawer_sizes(survey_of("drawer", "width 386; depth 300; height 71; opens 420; overhang 10"), "drawer-1")
        assert sizes is not None
        self.assertEqual(sizes.reachable, 300)

    def test_too_little_read(self) -> None:
        self.assertIsNone(drawer_sizes(survey_of("drawer", "width 386"), "drawer-1"))


class PassageTests(TestCase):
    def test_between_two_runs_of_a_u(self) -> None:
        room = survey_of("walk-in U", "A: width 2000; B: width 2600; C: width 1900")
        self.assertEqual([p.width for p in passages(room)], [2600 - 600 - 600])

    def test_in_front_of_each_run_of_an_l(self) -> None:
        room = survey_of("walk-in L", "A: width 2200; B: width 1500")
        self.assertEqual([(p.section, p.width) for p in passages(room)], [("A", 900), ("B", 1600)])

    def test_beside_a_parked_car(self) -> None:
        bay = survey_of("garage bay", "A: width 5800; B: width 3500; C: width 5800",
                        "car 4300 x 1800 x 1500 at 900, 700 from the back, doors 650")  # fmt: skip
        self.assertEqual({p.section: p.width for p in passages(bay)},
                         {"B": 700 - 600, "A": 900 - 600, "C": 3500 - 900 - 1800 - 600})  # fmt: skip
