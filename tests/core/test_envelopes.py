"""Envelopes of every kind of section, worked by hand from few readings; what a survey refuses to say."""

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from pinakotheke.core.errors import SurveyIncomplete
from pinakotheke.core.house import HouseRules
from pinakotheke.core.survey import Survey, add_readings, envelope, envelopes, hear, missing, slots
from pinakotheke.core.survey.models import SPACE_KINDS, Reading
from pinakotheke.core.survey.slots import uncertain

from .examples import survey_of

EASY, TIGHT = HouseRules(fit="easy"), HouseRules(fit="every-inch")
WHOLE = "width 1800 1800 1800; height 2400 2400 2400"


class SectionTests(TestCase):
    def test_a_bare_wall_needs_no_depth_and_gives_no_allowance_at_its_free_ends(self) -> None:
        e = envelope(survey_of("wall", WHOLE), EASY)
        self.assertEqual((e.x_from, e.x_to, e.y_to, e.z_to), (0, 1800, 600, 2400))
        closed = envelope(survey_of("wall", WHOLE + "; left end wall"), EASY)
        self.assertEqual((closed.x_from, closed.x_to), (12, 1800))

    def test_how_deep_a_run_is_planned_is_the_least_of_what_was_said(self) -> None:
        self.assertEqual(envelope(survey_of("wall", WHOLE + "; depth 450"), EASY).y_to, 450)
        self.assertEqual(envelope(survey_of("wall", WHOLE + "; depth 900"), EASY).y_to, 600)

    def test_a_recess_wants_its_depth(self) -> None:
        with self.assertRaises(SurveyIncomplete) as caught:
            envelope(survey_of("recess", WHOLE), EASY)
        self.assertIn("depth", str(caught.exception))

    def test_a_slope_along_the_wall(self) -> None:
        # 2300 at the left, 1100 at the right of 2400: at 1200 it is 1700 high.
        e = envelope(survey_of("under a stair", "width 2400; depth 600 600; ceiling 2300 at 0, 1100 at 2400"), TIGHT)
        self.assertEqual(e.z_to, 2300)
        self.assertEqual(e.closes(1000, 1200, 0, 500, 0, 1680), ())
        self.assertTrue(e.closes(1000, 1250, 0, 500, 0, 1720))
        self.assertEqual(e.closes(2300, 2390, 0, 500, 0, 1300), ("ceiling",))

    def test_a_roof_that_falls_toward_the_back(self) -> None:
        # 1100 at the knee wall, 2300 at 600 out: 300 out it is 1700 high.
        e = envelope(survey_of("under a roof", "width 2400; ceiling 1100 at 0, 2300 at 600"), TIGHT)
        self.assertEqual(e.closes(100, 900, 0, 600, 0, 1090), ())
        self.assertEqual(e.closes(100, 900, 300, 600, 0, 1680), ())
        self.assertTrue(e.closes(100, 900, 200, 600, 0, 1680))

    def test_a_drawer_keeps_play_for_an_insert_and_height_for_a_liner(self) -> None:
        e = envelope(survey_of("drawer", "width 386 388; depth 462 458; height 71 69; liner 3"), EASY)
        self.assertEqual((e.x_from, e.x_to, e.y_to, e.z_to), (1, 385, 458, 66))

    def test_each_level_is_its_own(self) -> None:
        cabinet = survey_of("fixed shelves", "level 1: width 782 784; depth 361 359; height 288 290",
                            "level 3: width 779 783; depth 300 298; height 338 341")  # fmt: skip
        found = envelopes(cabinet, EASY)
        self.assertEqual(set(found), {"level-1", "level-3"})
        self.assertEqual((found["level-1"].x_to, found["level-3"].z_to), (781, 338))

    def test_a_void_and_a_door_back(self) -> None:
        closet = survey_of("reach-in closet", WHOLE + "; depth 600 600",
                           "new void; width 500; height 420; depth 380",
                           "new door back; width 640; height 1900; depth 90")  # fmt: skip
        found = envelopes(closet, TIGHT)
        self.assertEqual((found["void-1"].z_to, found["door-back-1"].y_to), (420, 90))
        self.assertEqual(found["A"].z_to, 2400)

    def test_skirting_and_leaning_walls_push_from_behind(self) -> None:
        e = envelope(survey_of("recess", WHOLE + "; depth 600 600; skirting 90 x 15; plumb back 7; bow 3"), TIGHT)
        self.assertEqual(e.y_from, 15 + 7)

    def test_the_loft_has_two_runs_with_one_corner(self) -> None:
        loft = survey_of("under a roof", "new wall", "A: width 2900; ceiling 1100 at 0, 2200 at 600",
                         "B: width 1900 1900 1900; height 2200 2200 2200")  # fmt: skip
        found = envelopes(loft, TIGHT)
        self.assertEqual([c.obstacle for c in found["B"].closed], ["corner"])
        self.assertEqual({c.obstacle for c in found["A"].closed}, {"slope"})


class RefusalTests(TestCase):
    def refused(self, says: str, **facts: object) -> None:
        with self.assertRaises(ValidationError) as caught:
            Survey.model_validate(facts)
        self.assertIn(says, str(caught.exception))

    def test_what_no_survey_may_say(self) -> None:
        width = {"id": "r1", "what": "width", "value": 1800}
        self.refused("the same id", readings=[width, width])
        self.refused("there are A", readings=[{**width, "section": "B"}])
        self.refused("cannot be negative", readings=[{**width, "value": -1}])
        self.refused("cannot be 0", readings=[{**width, "value": 0}])
        self.refused("not in this space", sections=[{"id": "A", "within": "Z"}])
        self.refused("finite", readings=[{**width, "value": float("nan")}])

    def test_what_may_be_zero_or_negative(self) -> None:
        for what, value in (("fall", 0), ("plumb", -4), ("bow", -2), ("overhang", 0)):
            self.assertEqual(Reading.model_validate({"id": "a", "what": what, "value": value}).value, value)

    def test_an_unknown_section_is_named(self) -> None:
        with self.assertRaisesRegex(KeyError, "there are A, B"):
            survey_of("walk-in L").section("C")


class UncertainTests(TestCase):
    @given(st.sampled_from(SPACE_KINDS), st.data())
    def test_another_reading_never_adds_doubt(self, kind: str, data: st.DataObject) -> None:
        """Whatever is read next, in whatever order, no size of any section becomes less certain."""
        read = Survey.model_validate({"kind": kind})
        for n in range(6):
            absent = [s for s in missing(read) if s.needed]
            if not absent:
                break
            before = {s.id: uncertain(read, s.id) for s in read.parts if read.only(s.id).readings}
            slot = data.draw(st.sampled_from(absent))
            place = slot.ref.model_dump()
            value = 2000.0 if slot.what in ("height", "ceiling") else 900.0
            read = add_readings(read, (Reading.model_validate({**place, "id": f"n{n}", "value": value}),))
            for section, was in before.items():
                now = uncertain(read, section)
                sizes = {r.what for r in read.only(section).readings}
                if {"width", "height", "depth"} <= sizes and len(read.only(section).readings) > 3:
                    self.assertLessEqual(now.width, max(was.width, 10))
                    self.assertLessEqual(now.height, max(was.height, 10))

    def test_every_needed_slot_can_be_called_out(self) -> None:
        """No place is asked for that the line has no words for: its label, said back with a number, is understood."""
        said = 0
        for kind in SPACE_KINDS:
            read = survey_of(kind)
            for slot in slots(read):
                if slot.what in ("corner diagonal", "fall", "stud", "ceiling"):
                    continue  # these are said with a place
                line = f"{slot.label.replace('inside ', '').replace(',', ' ').replace('opens by', 'opens')} 93"
                heard = hear(line, read, "metric", section=slot.section)
                self.assertEqual([m.problem for m in heard.misheard], [], line)
                self.assertEqual({r.what for c in heard.understood for r in c.readings}, {slot.what}, line)
                said += 1
        self.assertGreater(said, 150)
