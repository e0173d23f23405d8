"""The kinds of section: a made-up one, from one module and one table, is measured, called out, fitted and drawn."""

from unittest import TestCase
from unittest.mock import patch

from pydantic import ValidationError

from pinakotheke.core.drawing import field_sheet, survey_elevation, survey_plan
from pinakotheke.core.house import HouseRules
from pinakotheke.core.survey import Section, Survey, envelope, hear, missing, next_reading, slots
from pinakotheke.core.survey.models import What
from pinakotheke.core.survey.sections import section_kinds

from .made_up.crate import CRATE

LINES = "new crate; crate 1: width 402 398; depth 610; height 255"


class KindTests(TestCase):
    def test_every_reading_that_a_kind_asks_for_is_one_that_is_taken(self) -> None:
        for name, traits in section_kinds().items():
            for slot in slots(Survey(sections=(Section(id="x-1", kind=name),))):
                self.assertTrue(slot.label and slot.how, name)
            self.assertTrue(traits.at_wall or traits.readings or name == "stack", name)

    def test_a_kind_there_is_none_of_is_refused_with_those_there_are(self) -> None:
        with self.assertRaisesRegex(ValidationError, "there are run, level, drawer"):
            Section(id="a", kind="crate")


class MadeUpTests(TestCase):
    def setUp(self) -> None:
        known = patch.dict(section_kinds(), {"crate": CRATE})
        known.start()
        self.addCleanup(known.stop)
        start = Survey(kind="shed")
        heard = hear(LINES, start, "metric", section="", hand="ada", taken="", instrument="tape")
        self.assertEqual(heard.misheard, ())
        self.survey = heard.kept_in(start)

    def test_it_is_called_out_and_read(self) -> None:
        crate = self.survey.section("crate-1")
        self.assertEqual((crate.label, crate.at_wall), ("crate 1", False))
        self.assertEqual(self.survey.values("width", section=crate.id), [402, 398])
        self.assertEqual([s.label.partition(": ")[2] for s in missing(self.survey, crate.id)], ["felt, thickness"])
        whats: set[What] = {s.what for s in slots(self.survey, crate.id)}
        self.assertEqual(whats, {"width", "depth", "height", "liner"})
        self.assertTrue(next_reading(self.survey))

    def test_it_has_a_clear_region(self) -> None:
        region = envelope(self.survey, HouseRules(), "crate-1")
        self.assertEqual((region.y_to - region.y_from, region.z_to), (610, 255))
        start, end = region.span(0, 255)
        self.assertLess(end - start, 398, "an insert needs its play")

    def test_it_is_drawn_and_carried_on_paper(self) -> None:
        front = survey_elevation(self.survey, "metric", "Shed", section_id="crate-1")
        above = survey_plan(self.survey, "metric", "Shed", section_id="crate-1")
        self.assertIn("398", {d.text for d in (*front.dimensions, *above.dimensions)})
        self.assertEqual(above.title.shows, "Plan of crate 1")
        self.assertTrue(field_sheet(self.survey, "metric", "Shed").startswith(b"%PDF-"))

    def test_a_shelf_is_not_measured_in_it(self) -> None:
        heard = hear(
            "crate 1: shelf 820 up", self.survey, "metric", section="", hand="ada", taken="", instrument="tape"
        )
        self.assertIn("is no shelf level", heard.misheard[0].problem)
