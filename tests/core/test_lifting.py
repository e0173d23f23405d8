"""Lifts, reach, growth, tyres and decanting against published worked examples and reference packages."""

from unittest import TestCase

import papersizes_guide
from rcpchgrowth import measurement_from_sds

from pinakotheke.core.house.growth import stature_after, usual_stature
from pinakotheke.core.house.lifting import coupling_multiplier, hands_out, lifting_index, recommended_weight, shelf_lift
from pinakotheke.core.house.people import Person, reach_zone
from pinakotheke.core.inventory.decant import JARS, decant
from pinakotheke.core.inventory.kinds import KINDS
from pinakotheke.core.inventory.tyres import read_tyre

LB, INCH = 0.45359237, 2.54


class LiftTests(TestCase):
    """Applications Manual for the Revised NIOSH Lifting Equation, DHHS (NIOSH) 94-110, worked examples 1 and 2 (from
    memory): inches and pounds there, and multipliers rounded to two places, so to 5 % here.
    """

    def near(self, pounds: float, got_kg: float) -> None:
        self.assertAlmostEqual(got_kg / (pounds * LB), 1, delta=0.05)

    def test_loading_a_punch_press(self) -> None:
        # Origin H 23 in, V 15 in, D 48 in, fair coupling 0.95: RWL 16.3 lb. Destination V 63 in, coupling 1: 14.5 lb.
        self.near(16.3, recommended_weight(23 * INCH, 15 * INCH, 48 * INCH, coupling=0.95))
        self.near(14.5, recommended_weight(23 * INCH, 63 * INCH, 48 * INCH))

    def test_loading_supply_rolls(self) -> None:
        # Origin H 15, V 27, D 17 in, poor coupling 0.90: 28.0 lb. Destination H 20, V 10: 18.1 lb.
        self.near(28.0, recommended_weight(15 * INCH, 27 * INCH, 17 * INCH, coupling=0.9))
        self.near(18.1, recommended_weight(20 * INCH, 10 * INCH, 17 * INCH, coupling=0.9))

    def test_the_best_lift_is_the_load_constant(self) -> None:
        self.assertEqual(recommended_weight(25, 75, 25), 23.0)
        self.assertEqual(recommended_weight(10, 75, 5), 23.0)  # nearer and shorter count as 25 cm

    def test_beyond_what_it_covers_there_is_none(self) -> None:
        for args in ((64, 75, 25), (30, 176, 25), (30, -1, 25), (30, 75, 25, 136)):
            self.assertEqual(recommended_weight(*args), 0.0)
        self.assertEqual(lifting_index(5, 30, 176, 50), float("inf"))

    def test_coupling_and_how_far_out_hands_are(self) -> None:
        # 94-110 table 7: fair 0.95 below 30 in (75 cm), 1.00 from there; poor 0.90. Section 1.3: H = 20 + W/2 from
        # V = 25 cm, 25 + W/2 below (from memory).
        rows = [coupling_multiplier(c, v) for c in ("good", "fair", "poor") for v in (20, 75, 150)]  # type: ignore[arg-type]
        self.assertEqual(rows, [1, 1, 1, 0.95, 1, 1, 0.9, 0.9, 0.9])
        self.assertEqual((hands_out(40, 25), hands_out(40, 24)), (40, 45))

    def test_a_shelf_s_lift_is_the_lesser_of_its_two_ends(self) -> None:
        # A box 30 cm deep at 120 cm, worked by hand: H = 20 + 15 = 35; HM = 25/35; D = 45, DM = 0.82 + 4.5/45 = 0.92;
        # at the shelf VM = 1 − 0.003·45 = 0.865: 23·0.714·0.865·0.92 = 13.07. At the waist VM = 1: 15.11.
        self.assertAlmostEqual(shelf_lift(30, 120, "fair"), 23 * 25 / 35 * 0.865 * 0.92, 6)
        self.assertAlmostEqual(shelf_lift(30, 75, "fair"), 23 * 25 / 35, 6)
        # From the floor hands are farther out and the hold counts: H = 40, VM = 1 − 0.003·75, D = 75, CM 0.95.
        self.assertAlmostEqual(shelf_lift(30, 0, "fair"), 23 * 25 / 40 * 0.775 * (0.82 + 4.5 / 75) * 0.95, 6)
        # Higher than the equation goes counts as its highest.
        self.assertEqual(shelf_lift(30, 220, "good"), shelf_lift(30, 175, "good"))

    def test_twisting_costs(self) -> None:
        self.assertAlmostEqual(recommended_weight(25, 75, 25, 90), 23 * (1 - 0.0032 * 90))


class ReachTests(TestCase):
    def test_published_segment_ratios(self) -> None:
        # Drillis & Contini (1966) in Winter: shoulder 0.818, whole arm 0.440, hand 0.108 of stature (from memory).
        zone = reach_zone(Person(id="a", name="A", stature=1700))
        self.assertAlmostEqual(zone.high, (0.818 + 0.440 - 0.108 / 2) * 1700, places=6)
        self.assertAlmostEqual(zone.easy_low, 0.285 * 1700, places=6)

    def test_children_grow_as_the_charts_say(self) -> None:
        """CDC 2000 charts, held in the package rcpchgrowth: the mean of the boys' and the girls' median."""
        for years in range(3, 17):
            medians = [
                measurement_from_sds(
                    reference="cdc", requested_sds=0, measurement_method="height", sex=sex, age=float(years)
                )
                for sex in ("male", "female")
            ]
            self.assertAlmostEqual(usual_stature(years), 10 * sum(medians) / 2, delta=9, msg=str(years))

    def test_a_child_keeps_its_place(self) -> None:
        self.assertAlmostEqual(stature_after(1230, 7, 2) / usual_stature(9), 1230 / usual_stature(7))
        for years in (1, 17):
            with self.assertRaises(ValueError):
                usual_stature(years)


class TyreTests(TestCase):
    def test_published_outside_diameters(self) -> None:
        # ETRTO Standards Manual, overall diameter of new tyres in mm, rounded there (from memory).
        for code, diameter in (("205/55 R16", 632), ("195/65R15", 635), ("175/65 R14", 584), ("225/45 ZR17", 634),
                               ("155/70 R13", 548), ("215/60 R16", 664), ("195/65R15C", 635), ("LT235/75R15", 734),
                               ("185 R14", 659), ("205/55 R16 91V", 632), ("185R14C 102/100R", 659)):  # fmt: skip
            tyre = read_tyre(f"4 tyres {code}, winter")
            assert tyre is not None
            self.assertAlmostEqual(tyre.diameter, diameter, delta=1.1, msg=code)
            self.assertEqual(tyre.size[0], float(code.removeprefix("LT")[:3]))

    def test_what_is_no_code(self) -> None:
        for text in ("4 tyres", "205/55", "R16", "20/5 R1", "1205/55 R16", "a 185 R1"):
            self.assertIsNone(read_tyre(text))


class DecantTests(TestCase):
    def test_litres_by_bulk_density(self) -> None:
        # kg per litre, FAO/INFOODS Density Database 2.0 (2012), from memory: rice 0.80, flour 0.56, sugar 0.85.
        for good, kg, litres in (("rice", 3, 3.75), ("flour", 5, 8.93), ("sugar", 2, 2.35)):
            self.assertAlmostEqual(decant(good, kg).litres, litres, places=2)

    def test_the_fewest_jars_then_the_smallest(self) -> None:
        got = decant("rice", 3)  # 3.75 l: one jar of 5 l (4.6 l usable) does, one of 3.2 l does not
        self.assertEqual((got.jar.litres, got.jars), (5.0, 1))
        self.assertEqual(decant("rice", 0.3).jar, JARS[0])
        self.assertEqual(decant("flour", 20).jars, 4)  # 35.7 l into tens that take 9.2 each
        with self.assertRaises(KeyError):
            decant("gravel", 1)


class PaperTests(TestCase):
    def test_paper_kinds_have_the_published_sizes(self) -> None:
        """ISO 216 and ISO 269 by the package papersizes-guide."""
        for kind, name in (("paper-ream", "A4"), ("a3-pad", "A3"), ("envelope-box", "C5")):
            size = KINDS[kind].size
            assert size is not None
            paper = papersizes_guide.get(name)
            self.assertEqual(size[:2], (paper.width_mm, paper.height_mm))
