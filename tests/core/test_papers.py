"""What a person holds: every demo space as SVG and PDF, whole; findings, homes and reasons in words."""

from io import BytesIO
from typing import get_args
from unittest import TestCase
from xml.etree import ElementTree

from pypdf import PdfReader
from pypdf._text_extraction import mult
from reportlab.lib.units import mm

from pinakotheke.core.checks import rules
from pinakotheke.core.checks.homes import CODES, home_findings
from pinakotheke.core.drawing import Drawing, field_sheet, survey_elevation, survey_plan, to_pdf, to_svg
from pinakotheke.core.drawing.models import Text, TitleBlock
from pinakotheke.core.drawing.pdf import MARGIN, OVERLAP
from pinakotheke.core.drawing.svg import CAPTION, INK
from pinakotheke.core.errors import HouseFileError
from pinakotheke.core.housefile import House, dump_house, load_house
from pinakotheke.core.inventory.zones import Conflict, ConflictCode, Home, Reason, ReasonCode
from pinakotheke.core.survey import next_reading, slots
from pinakotheke.core.survey.practice import true_room, true_survey
from pinakotheke.core.words import NEXT, reason_words, remedy, sentence, why

from .examples import PLAIN, demo_house, survey_of

SVG = "{http://www.w3.org/2000/svg}"


class DrawingTests(TestCase):
    def test_every_section_of_the_demo_as_svg(self) -> None:
        drawn = 0
        for space in demo_house().spaces:
            for section in space.survey.parts:
                for view in (survey_elevation, survey_plan):
                    for units in ("metric", "imperial"):
                        drawing = view(space.survey, units, space.name, section_id=section.id)  # type: ignore[arg-type]
                        root = ElementTree.fromstring(to_svg(drawing))
                        texts = {e.text for e in root.iter("{http://www.w3.org/2000/svg}text")}
                        self.assertLessEqual({t.text for t in drawing.texts}, texts)
                        self.assertLessEqual({d.text for d in drawing.dimensions}, texts)
                        drawn += 1
        self.assertGreater(drawn, 80)

    def test_what_was_read_stands_on_the_paper_in_both_units(self) -> None:
        for space in demo_house().spaces:
            survey, section = space.survey, space.survey.main
            least = survey.least("width", section=section.id, level="low") or survey.least("width", section=section.id)
            assert least is not None
            metric = survey_elevation(survey, "metric", "a", section_id=section.id)
            imperial = survey_elevation(survey, "imperial", "a", section_id=section.id)
            shown = {d.text for d in metric.dimensions}
            self.assertTrue(any(f"{v:.0f}" in shown for v in survey.values("width", section=section.id)), space.id)
            self.assertTrue(all('"' in d.text or d.text == "?" for d in imperial.dimensions), space.id)

    def test_a_doubted_reading_is_marked_where_it_was_taken(self) -> None:
        shed = demo_house().space("coal-shed").survey
        drawn = survey_elevation(shed, "metric", "Shed")
        self.assertIn("doubted", {d.state for d in drawn.dimensions})

    def test_a_practice_room_draws_like_any_other(self) -> None:
        survey = true_survey(true_room(3, "awkward"))
        drawn = survey_plan(survey, "metric", "Practice")
        self.assertEqual({d.state for d in drawn.dimensions if d.slot and d.slot.what == "diagonal"}, {"read"})

    def test_field_sheets_of_the_demo_in_both_units(self) -> None:
        for space in demo_house().spaces:
            for units, small in (("metric", "in mm"), ("imperial", "in in")):
                pages = PdfReader(BytesIO(field_sheet(space.survey, units, space.name))).pages  # type: ignore[arg-type]
                text = "".join(page.extract_text() for page in pages)
                self.assertIn(f"Field sheet: {space.name}", text)
                self.assertIn(small, text)

    def test_imperial_papers_have_an_imperial_bar(self) -> None:
        space = demo_house().space("waiting-room")
        sheet = to_pdf([survey_elevation(space.survey, "imperial", "Niche", text=62)], 24, "imperial")
        self.assertIn("4 ft", PdfReader(BytesIO(sheet)).pages[0].extract_text())


class TiledTests(TestCase):
    """A drawing larger than the largest paper goes over sheets that overlap, each at the scale."""

    def test_a_garage_at_one_to_ten_is_all_there(self) -> None:
        wall = survey_of("wall", "width 12000 12000 12000; height 2400 2400 2400; depth 600")
        drawing = survey_elevation(wall, "metric", "Bay")
        pages = PdfReader(BytesIO(to_pdf([drawing], 10, "metric"))).pages
        self.assertGreater(len(pages), 1)
        for number, page in enumerate(pages, 1):
            self.assertIn(f"sheet {number} of {len(pages)}, part", page.extract_text())
        inside = [float(page.mediabox.width) - 2 * MARGIN for page in pages]
        self.assertGreaterEqual(
            sum(inside) - OVERLAP * (len(pages) - 1), (drawing.bounds[2] - drawing.bounds[0]) / 10 * mm
        )
        width = next(d for d in drawing.dimensions if d.slot and d.slot.what == "width")
        self.assertIn(width.text, " ".join(page.extract_text() for page in pages))

    def test_what_fits_one_sheet_is_not_parted(self) -> None:
        (page,) = PdfReader(
            BytesIO(to_pdf([survey_elevation(survey_of("recess", PLAIN), "metric", "a")], 20, "metric"))
        ).pages
        self.assertNotIn("part", page.extract_text())


class ConformanceTests(TestCase):
    """A turned word and a caption stand alike in every backend; the page's own is tested in the browser."""

    DRAWN = Drawing(view="elevation", title=TitleBlock(space="a", shows="b", scale="", units="mm"),
                    bounds=(0, 0, 1000, 1000),
                    texts=(Text(layer="note", x=300, y=400, size=40, text="Upright", turn=90),
                           Text(layer="note", x=500, y=600, size=40, text="Caption", caption=True)))  # fmt: skip

    def test_svg(self) -> None:
        texts = {e.text: e.attrib for e in ElementTree.fromstring(to_svg(self.DRAWN)).iter(f"{SVG}text")}
        self.assertEqual(texts["Upright"]["transform"], "rotate(-90 300 -400)")
        self.assertEqual((texts["Upright"]["fill"], texts["Caption"]["fill"]), (INK, CAPTION))
        self.assertNotIn("transform", texts["Caption"])

    def test_pdf(self) -> None:
        found: dict[str, tuple[float, ...]] = {}
        colours: list[tuple[float, ...]] = []

        def visit(text: str, user: list[float], matrix: list[float], font: object, size: float) -> None:
            if text.strip() in ("Upright", "Caption"):
                turned = mult(matrix, user)
                found[text.strip()] = tuple(round(v / max(abs(turned[0]), abs(turned[1])), 3) for v in turned[:2])

        def operation(operator: bytes, operands: list[float], user: list[float], matrix: list[float]) -> None:
            if operator == b"rg":
                colours.append(tuple(round(float(v), 2) for v in operands))

        page = PdfReader(BytesIO(to_pdf([self.DRAWN], 10, "metric"))).pages[0]
        page.extract_text(visitor_text=visit, visitor_operand_before=operation)
        self.assertEqual((found["Upright"], found["Caption"]), ((0.0, 1.0), (1.0, 0.0)))
        self.assertIn(tuple(round(int(CAPTION[n : n + 2], 16) / 255, 2) for n in (1, 3, 5)), colours)


class WordsTests(TestCase):
    def test_every_reason_has_words(self) -> None:
        for code in get_args(ReasonCode):
            self.assertTrue(reason_words(Reason(code=code, detail="x")), code)

    def test_reasons_in_a_row(self) -> None:
        home = Home(thing="t", space="s", band="easy", current="s", pinned=False,
                    reasons=(Reason(code="zone", detail="kitchen"), Reason(code="often", detail="daily")))  # fmt: skip
        self.assertEqual(why(home), "with the kitchen things; daily: between knee and eye")
        self.assertEqual(why(home.model_copy(update={"reasons": ()})), "room was left there")

    def test_every_conflict_has_a_sentence_a_mend_a_basis_and_a_source(self) -> None:
        for code in get_args(ConflictCode):
            (finding,) = home_findings((Conflict(code=code, thing="t", space="s", measured=9, limit=1, detail="Bo"),),
                                       {"t": "Thing"}, {"s": "Shed"}, {"t": 2})  # fmt: skip
            for units in ("metric", "imperial"):
                self.assertIn("Thing", sentence(finding, units))  # type: ignore[arg-type]
            self.assertGreater(len(remedy(finding)), 15)
            self.assertIn(finding.basis, "PCD")
            self.assertTrue(finding.source)
            self.assertEqual(finding.severity, rules()[CODES[code]].severity)

    def test_a_lift_a_little_over_is_only_to_be_known(self) -> None:
        for mass, severity in ((12.0, "mind"), (16.0, "fix")):
            conflict = Conflict(code="heavy", thing="t", space="s", measured=mass, limit=10.0)
            (finding,) = home_findings((conflict,), {}, {}, {})
            self.assertEqual(finding.severity, severity)

    def test_worst_first(self) -> None:
        mixed = tuple(Conflict(code=code, thing="t", space="s") for code in ("no socket", "fuel", "damp"))
        self.assertEqual([f.severity for f in home_findings(mixed, {}, {}, {})], ["stop", "fix", "mind"])

    def test_what_comes_next_is_said_with_how_and_why(self) -> None:
        for space in demo_house().spaces:
            upcoming = next_reading(space.survey)
            if upcoming is not None:
                self.assertTrue(NEXT[upcoming.reason].endswith("."))
                self.assertTrue(upcoming.slot.how.endswith("."), upcoming.slot.label)

    def test_every_place_says_how_to_read_it(self) -> None:
        for space in demo_house().spaces:
            for slot in slots(space.survey):
                self.assertGreater(len(slot.how), 5, slot.label)


class HouseFileTests(TestCase):
    def fault(self, **facts: object) -> str:
        with self.assertRaises(HouseFileError) as caught:
            load_house(dump_house(demo_house()).replace('"name": "The Halt"', '"name": "The Halt", "extra": 1', 1)
                       if facts.get("extra") else str(facts["text"]))  # fmt: skip
        return "\n".join(caught.exception.lines())

    def test_the_whole_demo_comes_back_as_it_went(self) -> None:
        house = demo_house()
        once = dump_house(house)
        self.assertEqual(load_house(once), house)
        self.assertEqual(dump_house(load_house(once)), once)

    def test_a_reading_stands_on_a_line_of_its_own(self) -> None:
        lines = dump_house(demo_house()).splitlines()
        readings = [line for line in lines if '"called"' in line]
        self.assertEqual(len(readings), sum(len(s.survey.readings) for s in demo_house().spaces))

    def test_faults_are_named_by_their_path(self) -> None:
        self.assertIn("extra: found 1; expected no such field", self.fault(extra=True))
        house = '{"format": "pinakotheke-house-1", "name": "x", "work": [{"id": "w", "space": "moon", "goal": "go"}]}'
        self.assertIn("'moon'", self.fault(text=house))
        stock = '{"format": "pinakotheke-house-1", "name": "x", "stock": [{"id": "o", "name": "Box", "size": [1, 2]}]}'
        self.assertIn("stock[0].size", self.fault(text=stock))
        space = '{"id": "a", "name": "A", "survey": {"kind": "cellar"}}'
        kind = f'{{"format": "pinakotheke-house-1", "name": "x", "spaces": [{space}]}}'
        self.assertIn("spaces[0].survey.kind", self.fault(text=kind))

    def test_an_older_house_without_the_new_parts_is_read(self) -> None:
        plain = load_house('{"format": "pinakotheke-house-1", "name": "x", "people": [{"id": "a", "name": "A"}]}')
        self.assertEqual((plain.stock, plain.work, plain.people[0].hand), ((), (), "right"))
        self.assertIsInstance(plain, House)
