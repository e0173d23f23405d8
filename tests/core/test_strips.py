"""Labels for machines: strips as wide as their tape, letters to cut at their height, measured by another library."""

import re
from io import BytesIO
from unittest import TestCase

import reportlab
from fontTools.pens.boundsPen import BoundsPen
from fontTools.svgLib.path import parse_path
from PIL import Image, ImageFont

from pinakotheke.core.drawing.strips import cut_svg, strip, tapes
from pinakotheke.core.upkeep import Label

MM = 25.4


class StripTests(TestCase):
    def test_a_strip_is_as_wide_as_its_tape_and_its_letters_keep_within_the_head(self) -> None:
        label = Label(place="p", title="Scarves and gloves", lines=("4 scarves", "2 pairs of gloves"))
        for tape in tapes().values():
            with self.subTest(tape=tape.id):
                one = strip(label, tape)
                image = Image.open(BytesIO(one.png))
                dots = image.info["dpi"][0] / MM
                self.assertAlmostEqual(image.height / dots, tape.width, delta=1 / dots)
                self.assertAlmostEqual(image.width / dots, one.length, delta=1 / dots)
                dark = image.convert("L").point(lambda v: 255 - v).getbbox()
                assert dark is not None
                bare = (tape.width - tape.printed) / 2
                self.assertGreaterEqual(dark[1] / dots, bare - 1 / dots)
                self.assertLessEqual(dark[3] / dots, tape.width - bare + 1 / dots)
                self.assertGreaterEqual(dark[0] / dots, 3)
                self.assertEqual(one.left_out, () if tape.printed >= 12 else ("4 scarves", "2 pairs of gloves"))

    def test_what_is_too_long_is_set_smaller_then_named(self) -> None:
        long = strip(Label(place="p", title="Everything for the garden " * 8), tapes()["tape-24"])
        self.assertLessEqual(long.length, 300.1)
        self.assertIn("garden", long.left_out[0])
        odd = ["", " ", "😀", "שלום", "Å'`\"", "x" * 300]
        for title in odd:
            with self.subTest(title=title):
                one = strip(Label(place="p", title=title), tapes()["tape-9"])
                self.assertGreater(Image.open(BytesIO(one.png)).width, 0)


class CutTests(TestCase):
    def bounds(self, svg: str) -> list[tuple[float, float, float, float]]:
        found = []
        for path in re.findall(r'<path d="([^"]+)"', svg):
            pen = BoundsPen(None)
            parse_path(path, pen)
            found.append(pen.bounds)
        return found

    def test_capitals_are_as_high_as_asked_and_as_wide_as_another_library_sets_them(self) -> None:
        for capitals in (8.0, 25.0):
            first, second = self.bounds(cut_svg(["HI"], capitals))
            self.assertAlmostEqual(first[3] - first[1], capitals, delta=capitals * 0.01)
            font = ImageFont.truetype(f"{reportlab.__path__[0]}/fonts/VeraBd.ttf", 2048)
            left, top, right, bottom = font.getmask("HI").getbbox()
            scale = capitals / (bottom - top)
            self.assertAlmostEqual(second[2] - first[0], (right - left) * scale, delta=capitals * 0.02)
            self.assertLess(first[2], second[0])

    def test_mirrored_and_odd_names(self) -> None:
        plain, turned = cut_svg(["Hats", "Gloves"], 15), cut_svg(["Hats", "Gloves"], 15, mirrored=True)
        self.assertNotIn("scale(-1 1)", plain)
        self.assertIn("scale(-1 1)", turned)
        self.assertEqual(self.bounds(plain), self.bounds(turned))
        self.assertEqual(plain.count("<rect"), 2)
        for title in ("", "😀", "שלום", '<&">'):
            self.assertTrue(cut_svg([title], 10).endswith("</svg>"))
