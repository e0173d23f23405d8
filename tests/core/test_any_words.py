"""Whatever people type: call-outs and quick-add lines are understood or refused with the mend, and never break."""

from unittest import TestCase
from xml.etree import ElementTree

from hypothesis import given
from hypothesis import strategies as st

from pinakotheke.core.drawing import survey_elevation, survey_plan, to_svg
from pinakotheke.core.errors import CallOutError, LengthError
from pinakotheke.core.house import HouseRules, Person
from pinakotheke.core.inventory import KINDS, demand, quick_add
from pinakotheke.core.survey import Survey, doubts, hear, missing
from pinakotheke.core.units import format_length

from .test_properties import surveys

WORDS = st.sampled_from(
    ["width", "height", "depth", "opening", "left", "right", "nib", "returns", "studs", "then", "every", "skirting",
     "socket", "at", "up", "x", "door", "sliding", "low", "back", "front", "no", "70 3/4", "1846", "-5", "0", "3' 14\"",
     "1/0", ",", ";", "½", "12", "900", "to", "out", "access", "clear"]
)  # fmt: skip
LINES = st.lists(WORDS, max_size=9).map(" ".join) | st.text(max_size=40)
PEOPLE = (Person(id="ada", name="Ada"),)
WORDS_OF = [w for k in KINDS.values() for w in (k.one, k.many, *k.words)]
SIZES = st.integers(1, 60_000)


class CallOutProperties(TestCase):
    @given(LINES, st.sampled_from(["metric", "imperial"]))
    def test_any_line_is_understood_or_refused_with_the_mend(self, line: str, units: str) -> None:
        heard = hear(line, Survey(), units)  # type: ignore[arg-type]
        for misheard in heard.misheard:
            self.assertTrue(misheard.problem and misheard.mend)
        for call in heard.understood:
            self.assertTrue(call.echo)
            self.assertTrue(all(r.value > 0 for r in call.readings))
        kept = heard.kept_in(Survey())
        ids = [r.id for r in kept.readings]
        self.assertEqual(len(ids), len(set(ids)))
        doubts(kept)
        missing(kept)

    @given(st.lists(SIZES, min_size=3, max_size=3))
    def test_three_widths_come_back_as_they_were_called(self, widths: list[int]) -> None:
        line = "width " + " ".join(format_length(mm, "metric") for mm in widths)
        (call,) = hear(line, Survey(), "metric").understood
        self.assertEqual([r.value for r in call.readings], widths)

    @given(st.integers(1, 16 * 1000))
    def test_inches_come_back_as_they_were_called(self, sixteenths: int) -> None:
        said = format_length(sixteenths * 25.4 / 16, "imperial", mark=False)
        (call,) = hear(f"low width {said}", Survey(), "imperial").understood
        self.assertAlmostEqual(call.readings[0].value, sixteenths * 25.4 / 16)

    @given(SIZES, SIZES, SIZES, SIZES)
    def test_an_obstacle_comes_back_as_it_was_called(self, x: int, z: int, w: int, h: int) -> None:
        (call,) = hear(f"box at {x}, {z} up, {w} x {h}", Survey(), "metric").understood
        (box,) = call.obstacles
        self.assertEqual((box.x, box.z, box.width, box.height), (x, z, w, h))


class QuickAddProperties(TestCase):
    @given(st.text(max_size=60) | st.lists(st.sampled_from([*WORDS_OF, "daily", "Ada", "9", ","])).map(" ".join))
    def test_any_line_adds_things_or_is_refused_with_the_mend(self, line: str) -> None:
        try:
            things = quick_add(line, PEOPLE, "metric", space="closet")
        except (CallOutError, LengthError) as error:
            self.assertTrue(error.problem and error.mend)
            return
        for thing in things:
            self.assertTrue(1 <= thing.count <= 10_000)
        demand(things, HouseRules())

    @given(
        st.text(min_size=1, max_size=200).filter(lambda s: any(c.isalpha() for c in s) and not set(s) & set(",;\n()[]"))
    )
    def test_any_name_is_kept_as_it_was_typed(self, name: str) -> None:
        try:
            things = quick_add(f"3 {name}", (), "metric")
        except CallOutError:
            return
        self.assertTrue(all(t.name.strip() for t in things))


class DrawingProperties(TestCase):
    @given(surveys(), st.sampled_from(["metric", "imperial"]), st.text(max_size=20))
    def test_any_survey_can_be_drawn(self, survey: Survey, units: str, name: str) -> None:
        title = "".join(c for c in name if c.isprintable())
        for draw in (survey_elevation, survey_plan):
            drawing = draw(survey, units, title)  # type: ignore[arg-type]
            x0, y0, x1, y1 = drawing.bounds
            self.assertTrue(x0 < x1 and y0 < y1)
            ElementTree.fromstring(to_svg(drawing))
