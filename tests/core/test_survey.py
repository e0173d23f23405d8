"""Call-outs, places of readings, and the clear region, against examples worked by hand."""

from unittest import TestCase

from pinakotheke.core.errors import SpaceTooSmall, SurveyIncomplete
from pinakotheke.core.house import HouseRules
from pinakotheke.core.survey import Survey, doubts, envelope, hear, missing
from pinakotheke.core.words import doubt_in_words

from .examples import PLAIN, region, survey

EVERY_INCH, EASY = HouseRules(fit="every-inch"), HouseRules(fit="easy")


class CallOutTests(TestCase):
    def heard(self, line: str, units: str = "metric") -> Survey:
        heard = hear(line, Survey(), units)  # type: ignore[arg-type]
        self.assertEqual(heard.misheard, ())
        return heard.kept_in(Survey())

    def test_three_widths_are_low_middle_high_at_the_back(self) -> None:
        read = self.heard("width 1846 1849 1843").readings
        self.assertEqual([(r.level, r.face, r.value) for r in read],
                         [("low", "back", 1846), ("middle", "back", 1849), ("high", "back", 1843)])  # fmt: skip

    def test_words_come_in_any_order(self) -> None:
        for line in ("low back width 1846", "width back low 1846", "back, low, width 1846"):
            with self.subTest(line):
                (read,) = self.heard(line).readings
                self.assertEqual((read.what, read.level, read.face, read.value), ("width", "low", "back", 1846))

    def test_inches(self) -> None:
        read = self.heard('width 70 3/4 70 5/8 70 7/8"', "imperial").readings
        self.assertEqual([round(r.value, 3) for r in read], [1797.05, 1793.875, 1800.225])

    def test_one_of_each_kind(self) -> None:
        got = self.heard(
            "height 2412 2408 2415; depth 612 618; opening 1250 x 2030; left nib 290; right return 306\n"
            "studs 112 712 1312; skirting 90 x 15; door sliding; socket at 640, 300 up, 80 x 80, out 12"
        )
        self.assertEqual(got.values("height", side="middle"), [2408])
        self.assertEqual(got.values("depth", side="right"), [618])
        self.assertEqual((got.least("opening width"), got.least("opening height")), (1250, 2030))
        self.assertEqual((got.least("left return"), got.least("right return")), (290, 306))
        self.assertEqual(got.studs, (112, 712, 1312))
        self.assertEqual((got.least("skirting height"), got.least("skirting thickness")), (90, 15))
        self.assertEqual(got.door.kind, "sliding")
        (socket,) = got.obstacles
        self.assertEqual((socket.x, socket.z, socket.width, socket.height, socket.projection), (640, 300, 80, 80, 12))

    def test_studs_then_every_run_to_the_width(self) -> None:
        self.assertEqual(self.heard("width 1900; studs 112 then every 600").studs, (112, 712, 1312))
        self.assertEqual(self.heard("studs 100 then every 400 to 1000").studs, (100, 500, 900))

    def test_what_is_not_understood_is_said_and_the_rest_is_heard(self) -> None:
        heard = hear("width 1846; flurb 12; height; nibs 290; depth 0; opening 3' 14\" x 80", Survey(), "metric")
        self.assertEqual([c.said for c in heard.understood], ["width 1846"])
        self.assertEqual([m.said for m in heard.misheard],
                         ["flurb 12", "height", "nibs 290", "depth 0", "opening 3' 14\" x 80"])  # fmt: skip
        for misheard in heard.misheard:
            self.assertTrue(misheard.problem and misheard.mend)

    def test_a_flood_of_studs_is_refused(self) -> None:
        heard = hear("width 90 m; studs 1 then every 1", Survey(), "metric")
        self.assertIn("too many studs", heard.misheard[0].problem)

    def test_ids_go_on_from_what_is_there(self) -> None:
        first = self.heard("width 1800")
        second = hear("width 1801", first, "metric").kept_in(first)
        self.assertEqual([r.id for r in second.readings], ["r1", "r2"])


class PlaceTests(TestCase):
    def test_needed_readings_come_first(self) -> None:
        wanted = missing(Survey())
        self.assertEqual(wanted[0].label, "width, low, at the back")
        needed = [s.needed for s in wanted]
        self.assertEqual(needed, sorted(needed, reverse=True))

    def test_nothing_needed_is_missing_from_a_full_survey(self) -> None:
        self.assertFalse([s.label for s in missing(survey()) if s.needed])

    def test_repeats_within_3_mm_agree(self) -> None:
        self.assertEqual(doubts(survey("low back width 1846; low back width 1849")), ())
        (doubt,) = doubts(survey("low back width 1846; low back width 1850"))
        self.assertEqual((doubt.code, doubt.one, doubt.other), ("repeat", 1846, 1850))

    def test_a_digit_swapped_is_doubted(self) -> None:
        self.assertIn("neighbour", [d.code for d in doubts(survey("width 1846 1864 1926"))])

    def test_returns_and_opening_must_add_up(self) -> None:
        # 296 + 1250 + 300 = 1846, the width read low.
        self.assertEqual(doubts(survey(PLAIN)), ())
        (doubt,) = doubts(survey(PLAIN.replace("nibs 296 300", "nibs 296 330")))
        self.assertEqual((doubt.code, doubt.one), ("sum", 296 + 1250 + 330))
        self.assertIn("1876 mm", doubt_in_words(doubt, "metric"))


class EnvelopeTests(TestCase):
    def test_least_of_readings_less_the_allowance(self) -> None:
        # least width 1843; every inch leaves 3 a side, easy fit 12 a side; heights and depths: the least.
        tight, easy = region(rules=EVERY_INCH), region(rules=EASY)
        self.assertEqual((tight.x_from, tight.x_to, tight.z_to, tight.y_to), (3, 1840, 2408, 612))
        self.assertEqual((easy.x_from, easy.x_to), (12, 1831))

    def test_a_low_part_is_ruled_by_the_widths_near_it(self) -> None:
        e = region()
        self.assertEqual(e.clear_width(0, 400), 1846)  # between low (120) and middle (1204): the lesser
        self.assertEqual(e.clear_width(0, 2400), 1843)
        self.assertEqual(e.clear_width(1300, 1500), 1843)

    def test_a_width_of_no_known_height_vouches_for_none(self) -> None:
        # Low 1840 and high 1830 leave 1830 between them; 1835 read somewhere does not make the middle wider.
        read = "low width 1840; high width 1830; height 2400; depth 600"
        self.assertEqual(region(read).clear_width(0, 400), 1830)
        self.assertEqual(region(read + "; width 1835").clear_width(0, 400), 1830)
        self.assertEqual(region("width 1835; height 2400; depth 600").clear_width(0, 400), 1835)

    def test_skirting_pushes_parts_in_only_as_high_as_it_stands(self) -> None:
        e = region(PLAIN + "; skirting 90 x 15")
        self.assertEqual((e.y_from, e.x_from, e.x_to), (15, 15, 1828))
        self.assertEqual(e.span(0, 2000), (15, 1828))
        self.assertEqual(e.span(91, 2000), (3, 1840))
        self.assertEqual(region(PLAIN + "; skirting 90 x 15; no skirting").y_from, 0)

    def test_nothing_slides_out_behind_a_return(self) -> None:
        # Without a door in the way: 296 + 3 to the lesser of 296 + 1250 and 1843 - 300, less 3.
        e = region(PLAIN + "; door none")
        self.assertEqual((e.pull_from, e.pull_to), (299, 1540))
        # A door hinged left stands 15 mm in the opening.
        self.assertEqual(region(PLAIN + "; door hinged left").pull_from, 314)
        double = region(PLAIN + "; door double")
        self.assertEqual((double.pull_from, double.pull_to), (314, 1525))

    def test_obstacles_close_their_box_grown_outward(self) -> None:
        (closed,) = region(PLAIN + "; pipe at 100.4, 0 up, 40 x 2000, out 60, clear 20").closed
        self.assertEqual((closed.x0, closed.x1, closed.z0, closed.z1, closed.y1), (80, 161, -20, 2020, 80))
        self.assertTrue(closed.meets(0, 81, 0, 10, 0, 10))
        self.assertFalse(closed.meets(0, 80, 0, 10, 0, 10))  # touching is not meeting

    def test_access_keeps_the_whole_depth_in_front_free(self) -> None:
        itself, before = region(PLAIN + "; meter at 100, 1200 up, 200 x 300, access 700").closed
        self.assertEqual((itself.y1, before.y1), (200, 612))
        self.assertEqual((itself.loose, before.loose), (False, True))  # a basket may stand there, a shelf may not

    def test_without_width_height_or_depth_there_is_none(self) -> None:
        with self.assertRaises(SurveyIncomplete) as caught:
            envelope(survey("height 2400"), EASY)
        self.assertIn("width", str(caught.exception))
        self.assertIn("depth", str(caught.exception))

    def test_allowances_that_leave_nothing(self) -> None:
        with self.assertRaises(SpaceTooSmall):
            envelope(survey("width 20; height 2400; depth 600"), EASY)
