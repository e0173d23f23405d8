"""The whole vocabulary of the call-out line, in every kind of section."""

from pathlib import Path
from unittest import TestCase

from pinakotheke.core.saying import in_inches
from pinakotheke.core.survey import Survey, examples_for, hear
from pinakotheke.core.survey.callout import GRAMMAR
from pinakotheke.core.survey.models import SPACE_KINDS

from .examples import survey, survey_of

DOCS = Path(__file__).parents[2] / "docs"


class SeveralInOneBreathTests(TestCase):
    def test_commas_part_clauses_but_not_the_words_of_one(self) -> None:
        got = survey("width 1846 1849 1843, height 2412 2408 2415, left nib 290")
        self.assertEqual([len(got.values(w)) for w in ("width", "height", "left return")], [3, 3, 1])
        (read,) = survey("back, low, width 1846").readings
        self.assertEqual((read.level, read.face), ("low", "back"))

    def test_an_obstacle_keeps_its_commas(self) -> None:
        (valve,) = survey("valve at 80, 300 up, 60 x 60, out 70, access 500, called stopcock").obstacles
        self.assertEqual((valve.name, valve.projection, valve.access, valve.loose), ("stopcock", 70, 500, True))

    def test_a_name_may_hold_what_else_would_be_heard(self) -> None:
        for name in ("window over 2 doors", "socket 40 x 40 high", "Teo's valve", "Landing window, 310 mm"):
            (made,) = survey(f"pipe at 400, 0 up, 60 x 2000, called {name}").obstacles
            self.assertEqual((made.label, made.kind, made.x, made.width), (name, "pipe", 400, 60))

    def test_what_it_is_called_says_nothing_of_what_it_is(self) -> None:
        got = survey("pipe at 500, 0 up, 60 x 1200, called flow and return")
        self.assertEqual((len(got.obstacles), got.readings), (1, ()))


class CorrectionTests(TestCase):
    def test_not_takes_the_wrong_one_back(self) -> None:
        first = survey("low back width 1864; low back width 1847")
        heard = hear("low back width 1846 not 1864", first, "metric")
        self.assertEqual(heard.misheard, ())
        self.assertIn("not 1864", heard.understood[0].echo)
        self.assertEqual(sorted(heard.kept_in(first).values("width")), [1846, 1847])

    def test_what_was_not_read_cannot_be_corrected(self) -> None:
        for line, mend in (("low back width 1846 not 1900", "Read there: 1864 mm"), ("depth 600 not 590", "without")):
            (misheard,) = hear(line, survey("low back width 1864"), "metric").misheard
            self.assertIn(mend, misheard.mend)

    def test_one_reading_at_a_time(self) -> None:
        (misheard,) = hear("width 1846 1849 1843 not 1864", survey(), "metric").misheard
        self.assertIn("one reading", misheard.problem)


class RunTests(TestCase):
    def test_diagonals_corners_passage(self) -> None:
        got = survey("diagonals 1952 1944; diagonal left 1953; passage 900; corner 900 x 1200 diagonal 1497")
        self.assertEqual((got.values("diagonal", side="left"), got.least("passage")), ([1952, 1953], 900))
        (corner,) = [r for r in got.readings if r.what == "corner diagonal"]
        self.assertEqual((corner.at, corner.out, corner.value), (900, 1200, 1497))

    def test_floor_is_spread_evenly_or_said(self) -> None:
        spread = survey("width 1800; floor 0 4 9 17").points("fall")
        self.assertEqual([(r.at, r.value) for r in spread], [(0, 0), (600, 4), (1200, 9), (1800, 17)])
        said = survey("floor 9 at 1200, 12 at 1750; front floor 4 at 0").points("fall")
        self.assertEqual([(r.at, r.value, r.face) for r in said],
                         [(0, 4, "front"), (1200, 9, "back"), (1750, 12, "back")])  # fmt: skip

    def test_plumb_and_bow_have_a_sense(self) -> None:
        got = survey("plumb left 4; plumb back -3; plumb right away 2; bow hollow 6; bow 1/8")
        self.assertEqual([got.values("plumb", side=s) for s in ("left", "middle", "right")], [[4], [-3], [-2]])
        self.assertEqual(got.values("bow"), [-6, 3.175])

    def test_a_slope_makes_itself_known(self) -> None:
        got = survey("ceiling 2400 at 0, 1100 at 2100")
        self.assertEqual([(r.at, r.value) for r in got.points("ceiling")], [(0, 2400), (2100, 1100)])
        self.assertEqual(got.main.slope, "along")
        roof = survey_of("under a roof", "ceiling 1100 at 0, 2150 at 600")
        self.assertEqual([(r.out, r.value) for r in roof.readings], [(0, 1100), (600, 2150)])
        self.assertEqual(survey("slope toward back; no slope").main.slope, "none")

    def test_facts(self) -> None:
        got = survey("damp; masonry; no skirting; door double; floor 4 at 0")
        self.assertEqual(
            (got.damp, got.lining, got.skirting, got.door.kind), (True, "masonry", "remove", "double hinged")
        )
        self.assertFalse(survey("damp; dry").damp)


class SectionTests(TestCase):
    def test_a_section_holds_until_another(self) -> None:
        got = survey_of("walk-in L", "B: width 2100 2104 2098; height 2400; wall A width 1800")
        self.assertEqual((len(got.values("width", section="B")), got.values("height", section="B")), (3, [2400]))
        self.assertEqual(got.values("width", section="A"), [1800])

    def test_drawers_and_levels(self) -> None:
        chest = survey_of(
            "chest of drawers", "drawer 2: width 412 413; depth 480 478; height 96 95; opens 340; overhang 0"
        )
        self.assertEqual({r.section for r in chest.readings}, {"drawer-2"})
        self.assertEqual([chest.values("width", face=f) for f in ("back", "front")], [[412], [413]])
        shelves = survey_of("fixed shelves", "level 2: shelf 820 up; shelf movable; width 780")
        self.assertEqual(shelves.least("shelf height"), 820)
        self.assertTrue(shelves.section("level-2").movable)
        spaced = survey_of("fixed shelves", "level 2: shelf movable every 25; level 3: shelf fixed")
        self.assertEqual((spaced.section("level-2").holes, spaced.section("level-3").movable), (25, False))
        (misheard,) = hear("level 2: shelf movable every 900", shelves, "metric").misheard
        self.assertIn("every 32", misheard.mend)

    def test_new_sections(self) -> None:
        got = survey("width 1800 1800 1800; new wall; width 900; new door back; width 400; new void; width 300")
        self.assertEqual([(s.id, s.corner) for s in got.parts],
                         [("A", "mine"), ("B", "none"), ("door-back-1", "none"), ("void-1", "none")])  # fmt: skip
        self.assertEqual(got.values("width", section="void-1"), [300])

    def test_who_fills_the_corner_and_where_a_wall_stops(self) -> None:
        room = survey_of("walk-in L", "A: corner theirs; B: right end wall")
        self.assertEqual((room.section("A").corner, room.section("B").right), ("theirs", "wall"))
        (misheard,) = hear("B: corner mine", room, "metric").misheard
        self.assertIn("meets no other wall", misheard.problem)
        self.assertEqual(survey_of("wall", "left end wall").main.left, "wall")

    def test_a_section_that_is_not_there(self) -> None:
        (misheard,) = hear("drawer 9 width 400", Survey(kind="chest of drawers"), "metric").misheard
        self.assertIn("drawer 1", misheard.mend)
        (misheard,) = hear("shelf 820 up", Survey(), "metric").misheard
        self.assertIn("no shelf level", misheard.problem)

    def test_a_bare_number_first_is_no_section(self) -> None:
        (misheard,) = hear("4 width", Survey(), "metric").misheard
        self.assertNotIn("section", misheard.problem)


class GarageTests(TestCase):
    def test_car_and_overhead_door(self) -> None:
        bay = survey_of("garage bay", "car 4300 x 1790 x 1480 at 900, 500 from the back, doors 700",
                        "overhead door up-and-over, track 2150, reach 2100")  # fmt: skip
        assert bay.car is not None
        assert bay.overhead is not None
        self.assertEqual((bay.car.width, bay.car.gap, bay.car.doors), (1790, 500, 700))
        self.assertEqual((bay.overhead.kind, bay.overhead.reach), ("up-and-over", 2100))

    def test_halves_of_them_are_mended(self) -> None:
        for line in ("car 4300 x 1790 at 900, 500 from the back", "car 4300", "overhead door sectional"):
            (misheard,) = hear(line, Survey(kind="garage bay"), "metric").misheard
            self.assertTrue(misheard.mend.startswith("Say "), misheard)


class TaughtTests(TestCase):
    def test_every_example_that_is_shown_is_understood(self) -> None:
        shown = 0
        for kind in SPACE_KINDS:
            for line in examples_for(Survey(kind=kind)):
                first = survey_of(kind, "width 1864")
                wrong = line.rpartition(" not ")[2] if " not " in line else ""
                heard = hear(line.replace(f" not {wrong}", "") if wrong else line, first, "metric")
                self.assertEqual(heard.misheard, (), (kind, line))
                shown += 1
        self.assertGreater(shown, 100)

    def test_an_inch_household_is_shown_inches_that_mean_as_much(self) -> None:
        for kind in SPACE_KINDS:
            survey = Survey(kind=kind)
            for metric, inches in zip(examples_for(survey), examples_for(survey, "imperial"), strict=True):
                if " not " in metric:
                    continue
                (one,), (other,) = (
                    hear(line, survey_of(kind, "width 1864"), units).understood[:1]
                    for line, units in ((metric, "metric"), (inches, "imperial"))
                )
                for a, b in zip(one.readings, other.readings, strict=False):
                    self.assertAlmostEqual(a.value, b.value, delta=max(6, 0.02 * a.value), msg=(metric, inches))
        self.assertEqual(in_inches("width 1846 1849 1843"), "width 72 5/8 72 3/4 72 1/2")

    def test_a_mend_shows_the_household_s_units(self) -> None:
        (misheard,) = hear("width", Survey(), "imperial").misheard
        self.assertNotRegex(misheard.mend, r"\d{3}")

    def test_the_documented_grammar_is_the_code_s_own(self) -> None:
        self.assertIn(GRAMMAR, (DOCS / "call-outs.md").read_text("utf-8"))
