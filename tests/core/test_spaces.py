"""Every kind of space: its places, its drawings, its papers; and the demo's surveys of all of them."""

from io import BytesIO
from unittest import TestCase

from pypdf import PdfReader
from pypdf.generic import ContentStream

from pinakotheke.core.drawing import field_sheet, numbered, survey_elevation, survey_plan, to_pdf
from pinakotheke.core.drawing.pdf import SCALES
from pinakotheke.core.survey import Survey, slots
from pinakotheke.core.survey.models import SPACE_KINDS

from .examples import PLAIN, demo_house, survey, survey_of

MM = 72 / 25.4
"""PDF points in a millimetre: 72 to the inch (ISO 32000-1, 8.3.2.3)."""


class PlacesTests(TestCase):
    def test_each_needed_place_has_a_line_to_type_on(self) -> None:
        for kind in SPACE_KINDS:
            read = Survey(kind=kind)
            places = set()
            for section in read.parts:
                for view in (survey_elevation, survey_plan):
                    drawing = view(read, "metric", "a", section_id=section.id)
                    places |= {d.slot.place for d in drawing.dimensions if d.slot}
            wanted = {s.place for s in slots(read) if s.needed}
            self.assertEqual(wanted - places, set(), kind)

    def test_what_comes_next_is_on_the_drawing(self) -> None:
        read = survey(PLAIN + "; skirting 90 x 15")
        drawn = survey_elevation(read, "metric", "a").dimensions
        self.assertIn(("fall", 0.0), [(d.slot.what, d.slot.at) for d in drawn if d.slot])

    def test_everything_drawn_lies_within_its_bounds(self) -> None:
        drawn = 0
        for space in demo_house().spaces:
            for section in space.survey.parts:
                for view in (survey_elevation, survey_plan):
                    drawing = view(space.survey, "metric", space.name, section_id=section.id)
                    x0, y0, x1, y1 = drawing.bounds
                    points = [p for line in drawing.lines for p in line.points]
                    points += [p for d in drawing.dimensions for p in (d.start, d.end, (d.x, d.y))]
                    points += [(r.x, r.y) for r in drawing.rects] + [(r.x + r.w, r.y + r.h) for r in drawing.rects]
                    self.assertTrue(all(x0 <= x <= x1 and y0 <= y <= y1 for x, y in points), (space.id, section.id))
                    drawn += 1
        self.assertGreater(drawn, 40)


def lines_of(data: bytes, page: int = 0) -> list[tuple[float, float, float, float]]:
    """Straight strokes of a PDF page in points, in the page's own coordinates, by an independent reader."""
    reader = PdfReader(BytesIO(data))
    found, shift, stack, at = [], (0.0, 0.0), [], (0.0, 0.0)
    for operands, operator in ContentStream(reader.pages[page].get_contents(), reader).operations:
        if operator == b"q":
            stack.append(shift)
        elif operator == b"Q":
            shift = stack.pop()
        elif operator == b"cm":
            a, b, c, d, e, f = (float(n) for n in operands)
            if (a, b, c, d) == (1, 0, 0, 1):
                shift = (shift[0] + e, shift[1] + f)
        elif operator == b"m":
            at = (float(operands[0]), float(operands[1]))
        elif operator == b"l":
            to = (float(operands[0]), float(operands[1]))
            found.append((at[0] + shift[0], at[1] + shift[1], to[0] + shift[0], to[1] + shift[1]))
            at = to
    return found


class ScaleTests(TestCase):
    def test_a_1000_mm_wall_is_100_mm_on_a_1_to_10_sheet(self) -> None:
        read = survey("width 1000 1000 1000; height 1400 1400 1400; depth 400 400; door none")
        for scale in (10, 20, 12, 24):
            sheet = to_pdf([survey_elevation(read, "metric", "Wall", text=2.6 * scale)], scale, "metric")
            level = [abs(x1 - x0) / MM for x0, y0, x1, y1 in lines_of(sheet) if abs(y1 - y0) < 1e-6]
            self.assertTrue(any(abs(n - 1000 / scale) < 0.005 for n in level), (scale, sorted(level)[-5:]))
        # The width's three dimension lines are that long, to a hundredth of a millimetre.
        sheet = to_pdf([survey_elevation(read, "metric", "Wall", text=26)], 10, "metric")
        exact = [line for line in lines_of(sheet) if abs(abs(line[2] - line[0]) / MM - 100.0) < 0.005]
        self.assertGreaterEqual(len(exact), 3)

    def test_the_smallest_paper_that_holds_it(self) -> None:
        small = survey("width 800 800 800; height 1000 1000 1000; depth 400 400; door none")
        large = survey_of("wall", "width 5200 5200 5200; height 2600 2600 2600")
        widths = []
        for read in (small, large):
            page = PdfReader(BytesIO(to_pdf([survey_elevation(read, "metric", "a", text=26)], 10, "metric"))).pages[0]
            widths.append(round(max(float(page.mediabox.width), float(page.mediabox.height)) / MM))
        self.assertEqual(widths, [297, 594])  # A4, A2 (ISO 216)

    def test_it_says_what_and_at_which_scale(self) -> None:
        for space in demo_house().spaces:
            views = [survey_elevation(space.survey, "metric", space.name, text=52)]
            text = PdfReader(BytesIO(to_pdf(views, 20, "metric"))).pages[0].extract_text()
            self.assertIn(space.name, text)
            self.assertIn(SCALES[20], text)
            self.assertIn("1000 mm", text)


class FieldSheetTests(TestCase):
    def test_every_place_has_its_number_and_a_line(self) -> None:
        for kind in SPACE_KINDS:
            read = Survey(kind=kind)
            rows = numbered(read)
            self.assertEqual([r.number for r in rows], list(range(1, len(rows) + 1)))
            self.assertLessEqual({s.place for s in slots(read) if s.needed}, {r.slot.place for r in rows})
            pages = PdfReader(BytesIO(field_sheet(read, "metric", "Hall"))).pages
            text = "".join(page.extract_text() for page in pages)
            for row in rows:
                self.assertIn(row.slot.label_in("metric"), text)
            self.assertIn("sockets and switches", text)

    def test_what_was_read_changes_no_number(self) -> None:
        blank = numbered(Survey())
        self.assertEqual(numbered(survey(PLAIN + "; floor 0 4 9; studs 100 700")), blank)

    def test_the_same_sheet_twice_is_the_same_file(self) -> None:
        self.assertEqual(*(field_sheet(survey(), "imperial", "Hall") for _ in range(2)))
