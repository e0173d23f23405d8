"""Readings that contradict each other, the slips that explain them, and the reading to take next."""

from unittest import TestCase

from pinakotheke.core.house import HouseRules
from pinakotheke.core.survey import Survey, doubts, envelope, missing, next_reading
from pinakotheke.core.survey.doubts import likely_slip
from pinakotheke.core.survey.models import SPACE_KINDS
from pinakotheke.core.words import doubt_in_words

from .examples import PLAIN, region, survey, survey_of


class SlipTests(TestCase):
    def test_each_slip_is_named(self) -> None:
        for one, other, slip in (
            (1846, 1864, "digits swapped"), (1846, 1846 + 304.8, "foot"), (1846, 1946, "hundred"),
            (1846, 2846, "thousand"), (727, 727 * 2.54, "inches for centimetres"), (1846, 1846 - 75, "tape case"),
            (1846, 1880, ""), (1846, 1849, ""),
        ):  # fmt: skip
            with self.subTest(slip=slip, other=other):
                self.assertEqual(likely_slip(one, other), slip)
                self.assertEqual(likely_slip(other, one), slip)

    def test_in_words(self) -> None:
        (doubt,) = doubts(survey("low back width 1846; low back width 1946"))
        self.assertIn("100 mm may have been misread; read it once more", doubt_in_words(doubt, "metric"))

    def test_swapped_digits_are_seen_within_what_walls_wander(self) -> None:
        self.assertEqual([d.slip for d in doubts(survey("width 1846 1864 1847"))], ["digits swapped"])
        self.assertEqual(doubts(survey("width 1846 1863 1847")), ())


class ContradictionTests(TestCase):
    def test_a_diagonal_that_closes_no_triangle(self) -> None:
        for line in ("diagonals 3000 1940", "diagonals 1500 1940"):
            codes = [d.code for d in doubts(survey(PLAIN + "; " + line))]
            self.assertEqual(codes, ["triangle"])
        self.assertEqual(doubts(survey(PLAIN + "; diagonals 1947 1943")), ())

    def test_beyond_the_end_of_the_wall(self) -> None:
        got = doubts(survey(PLAIN + "; stud 2490; socket at 1990, 300 up, 80 x 80"))
        self.assertEqual([(d.code, d.subject) for d in got], [("outside", "a stud"), ("outside", "socket")])

    def test_sections_do_not_contradict_each_other(self) -> None:
        self.assertEqual(doubts(survey_of("chest of drawers", "drawer 1: height 62 61; drawer 2: height 178 176")), ())
        (doubt,) = doubts(survey_of("chest of drawers", "drawer 2: height 178 130"))
        self.assertTrue(doubt.subject.startswith("drawer 2: "))

    def test_all_readings_stay(self) -> None:
        read = survey("low back width 1846; low back width 1946")
        self.assertEqual(read.values("width"), [1846, 1946])


class UncertainTests(TestCase):
    def test_three_numbers_are_enough_and_leave_doubt(self) -> None:
        rough = region("width 1846; height 2400; depth 600; door none")
        self.assertEqual((rough.uncertain.width, rough.uncertain.depth, rough.uncertain.height), (10, 5, 10))
        self.assertEqual((rough.x_to, rough.y_to, rough.z_to), (1833, 595, 2390))

    def test_it_tightens_as_readings_come(self) -> None:
        lines = ("low width 1846", "middle width 1846", "high width 1846")
        got = []
        for n in range(1, 4):
            e = region("; ".join(lines[:n]) + "; height 2400 2400 2400; depth 600 600; door none")
            got.append((e.uncertain.width, e.x_to))
        self.assertEqual(got, [(10, 1833), (5, 1838), (0, 1843)])
        self.assertIn("still uncertain", str(region("width 1846; height 2400; depth 600").why_width.values))


class NextTests(TestCase):
    def test_first_what_blocks(self) -> None:
        first = next_reading(Survey())
        assert first is not None
        self.assertEqual((first.slot.label, first.reason), ("width, low, at the back", "unblocks"))
        after = next_reading(survey("width 1846 1849 1843"))
        assert after is not None
        self.assertEqual((after.slot.what, after.reason), ("height", "unblocks"))

    def test_then_what_is_most_uncertain_then_what_is_needed_then_level_and_square(self) -> None:
        read, reasons = survey("low width 1846; left height 2400; left depth 600; studs 100 700"), []
        while (upcoming := next_reading(read)) is not None and upcoming.reason != "useful":
            if not reasons or reasons[-1] != upcoming.reason:
                reasons.append(upcoming.reason)
            value = {"width": 1846, "height": 2400, "depth": 600, "opening width": 1246, "opening height": 2000,
                     "left return": 300, "right return": 300, "fall": 3,
                     "diagonal": 1941}[upcoming.slot.what]  # fmt: skip
            row = {"id": f"n{len(read.readings)}", "value": value, **upcoming.slot.model_dump(
                include={"section", "what", "level", "face", "side", "at", "out"})}  # fmt: skip
            read = Survey.model_validate({**read.model_dump(), "readings": [*read.model_dump()["readings"], row]})
        self.assertEqual(reasons, ["uncertain", "needed", "level", "square"])

    def test_a_doubted_place_is_read_again(self) -> None:
        upcoming = next_reading(survey(PLAIN + "; low back width 1946"))
        assert upcoming is not None
        self.assertEqual((upcoming.reason, upcoming.slot.label), ("doubted", "width, low, at the back"))

    def test_nobody_is_sent_back_a_fourth_time(self) -> None:
        read = survey(PLAIN + "; low back width 1946; low back width 1847")
        self.assertEqual([d.code for d in doubts(read)][:1], ["repeat"])  # the doubt stays in sight
        upcoming = next_reading(read)
        assert upcoming is not None
        self.assertNotEqual(upcoming.reason, "doubted")

    def test_how_much_is_left(self) -> None:
        for kind in SPACE_KINDS:
            read = Survey(kind=kind)
            upcoming = next_reading(read)
            assert upcoming is not None
            self.assertEqual(upcoming.left, sum(s.needed for s in missing(read)))
            self.assertGreater(upcoming.left, 2)

    def test_every_kind_can_be_finished(self) -> None:
        """Reading whatever comes next, with plain numbers, ends; and then there is an envelope of every section."""
        sizes = {"width": 900.0, "height": 400.0, "depth": 500.0, "ceiling": 1500.0, "diagonal": 1029.563,
                 "corner diagonal": 1500.0, "opening width": 700.0, "opening height": 380.0, "left return": 100.0,
                 "right return": 100.0, "fall": 2.0, "plumb": 0.0, "bow": 0.0, "stud": 300.0,
                 "passage": 900.0}  # fmt: skip
        for kind in SPACE_KINDS:
            read = Survey(kind=kind)
            for n in range(120):
                upcoming = next_reading(read)
                if upcoming is None:
                    break
                place = upcoming.slot.model_dump(include={"section", "what", "level", "face", "side", "at", "out"})
                if upcoming.slot.what == "corner diagonal":
                    place.update(at=900, out=1200)
                row = {"id": f"r{n}", "value": sizes.get(upcoming.slot.what, 20.0), **place}
                read = Survey.model_validate({**read.model_dump(), "readings": [*read.model_dump()["readings"], row]})
            self.assertIsNone(next_reading(read), kind)
            for section in read.parts:
                self.assertGreater(envelope(read, HouseRules(), section.id).x_to, 0)
