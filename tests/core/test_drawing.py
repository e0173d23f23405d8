"""Drawings round trip: what stands in the SVG is what stands in the design."""

from unittest import TestCase
from xml.etree import ElementTree

from pinakotheke.core.drawing import design_elevation, design_plan, survey_elevation, survey_plan, to_svg
from pinakotheke.core.drawing.canvas import listed, wrap
from pinakotheke.core.survey import Survey
from pinakotheke.core.survey.slots import slots

from .examples import PLAIN, WARDROBE, demo_house, survey, wardrobe

SVG = "{http://www.w3.org/2000/svg}"


def boxes(svg: str, layer: str) -> dict[str, tuple[float, ...]]:
    """x, y, width, height of every rectangle of a layer by what it shows, y up from the floor."""
    return {
        rect.attrib["data-of"]: (
            float(rect.attrib["x"]),
            -float(rect.attrib["y"]) - float(rect.attrib["height"]),
            float(rect.attrib["width"]),
            float(rect.attrib["height"]),
        )
        for rect in ElementTree.fromstring(svg).iter(f"{SVG}rect")
        if rect.attrib.get("class") == layer and "data-of" in rect.attrib
    }


class RoundTripTests(TestCase):
    def test_elevation_shows_every_part_where_it_stands(self) -> None:
        design = wardrobe()
        got = boxes(to_svg(design_elevation(design, survey(), WARDROBE, "metric", "closet")), "part")
        self.assertEqual(got, {p.id: (p.x, p.z, p.w, p.h) for p in design.parts})

    def test_plan_shows_the_footprints(self) -> None:
        design = wardrobe()
        got = boxes(to_svg(design_plan(design, survey(), "metric", "closet")), "part")
        self.assertTrue(got)
        for part_id, box in got.items():
            part = design.part(part_id)
            self.assertEqual(box, (part.x, -part.y - part.d, part.w, part.d))

    def test_contents_lie_within_their_bay(self) -> None:
        design = wardrobe()
        drawing = design_elevation(design, survey(), WARDROBE, "metric", "closet")
        bays = [(b.x, b.x + b.w) for b in design.bays]
        contents = [r for r in drawing.rects if r.layer == "content"]
        self.assertTrue(contents)
        for rect in contents:
            self.assertTrue(any(a <= rect.x and rect.x + rect.w <= b for a, b in bays), rect)

    def test_obstacles_are_drawn_where_they_were_read(self) -> None:
        read = survey(PLAIN + "; socket at 640, 300 up, 80 x 90")
        got = boxes(to_svg(survey_elevation(read, "metric", "closet")), "obstacle")
        self.assertEqual(got[read.obstacles[0].id], (640, 300, 80, 90))

    def test_everything_is_inside_the_bounds(self) -> None:
        house = demo_house()
        for drawing in (
            survey_elevation(house.spaces[0].survey, "metric", "a"),
            survey_plan(house.spaces[0].survey, "imperial", "a"),
            survey_elevation(Survey(), "metric", "b"),
            design_elevation(wardrobe(), survey(), WARDROBE, "imperial", "c"),
        ):
            x0, y0, x1, y1 = drawing.bounds
            for rect in drawing.rects:
                self.assertTrue(x0 <= rect.x and rect.x + rect.w <= x1 and y0 <= rect.y and rect.y + rect.h <= y1)
            for text in drawing.texts:
                self.assertTrue(x0 <= text.x <= x1 and y0 <= text.y <= y1)


class DimensionTests(TestCase):
    def test_each_needed_reading_has_a_line_to_type_on(self) -> None:
        for view in (survey_elevation, survey_plan):
            for dimension in view(Survey(), "metric", "a").dimensions:
                self.assertEqual((dimension.state, dimension.text), ("missing", "?"))
        lines = [
            *survey_elevation(survey(), "metric", "a").dimensions,
            *survey_plan(survey(), "metric", "a").dimensions,
        ]
        places = {d.slot.place for d in lines if d.slot}
        self.assertTrue({s.place for s in slots(survey()) if s.needed} <= places)

    def test_the_least_reading_stands_there_and_doubt_is_marked(self) -> None:
        read = survey("low back width 1846; low back width 1856; height 2400; depth 600")
        line = next(d for d in survey_elevation(read, "metric", "a").dimensions if d.label.startswith("width, low"))
        self.assertEqual((line.text, line.state), ("1846", "doubted"))

    def test_units_of_the_house(self) -> None:
        line = survey_elevation(survey("low back width 70 3/4"), "imperial", "a").dimensions
        self.assertIn('70 3/4"', [d.text for d in line])


class TextTests(TestCase):
    def test_labels_stay_in_their_box(self) -> None:
        for columns in range(3, 30):
            for rows in range(1, 4):
                got = listed(["12 Children's garments", "3 coats", "1 hat"], columns, rows)
                self.assertLessEqual(len(got), rows)
                self.assertTrue(all(len(line) <= columns for line in got), (columns, rows, got))
        self.assertEqual(listed([], 10, 2), [])
        self.assertEqual(listed(["9 shirts", "2 jackets", "1 coat"], 11, 1), ["9 shirts +2"])
        self.assertEqual(wrap("anything", 2, 5), [])

    def test_svg_text_is_escaped(self) -> None:
        svg = to_svg(survey_plan(survey(), "metric", '<script>alert("x")</script> & Co'))
        ElementTree.fromstring(svg)
        self.assertNotIn("<script>", svg)
