"""Lengths against exact rationals: 1 in = 25.4 mm by definition (international yard and pound agreement, 1959)."""

from fractions import Fraction
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from pinakotheke.core.errors import LengthError
from pinakotheke.core.lengths import parse_length, scan_lengths
from pinakotheke.core.units import format_length

INCH = Fraction(254, 10)
FORMS = [
    # (as written, household's units, exact millimetres)
    ("1797", "metric", Fraction(1797)),
    ("1797 mm", "imperial", Fraction(1797)),
    ("179.7cm", "metric", Fraction(1797)),
    ("179,7 cm", "metric", Fraction(1797)),
    ("1.797 m", "metric", Fraction(1797)),
    (".5 m", "metric", Fraction(500)),
    ("70 3/4", "metric", (70 + Fraction(3, 4)) * INCH),
    ("70-3/4", "metric", (70 + Fraction(3, 4)) * INCH),
    ("70–3/4", "metric", (70 + Fraction(3, 4)) * INCH),
    ("70¾", "metric", (70 + Fraction(3, 4)) * INCH),
    ("70 ¾", "metric", (70 + Fraction(3, 4)) * INCH),
    ("70 3⁄4", "metric", (70 + Fraction(3, 4)) * INCH),
    ('70 3/4"', "metric", (70 + Fraction(3, 4)) * INCH),
    ("70 3/4 in", "metric", (70 + Fraction(3, 4)) * INCH),
    ("70 3/4 inches", "metric", (70 + Fraction(3, 4)) * INCH),
    ("70.75″", "metric", (70 + Fraction(3, 4)) * INCH),
    ("70.75", "imperial", (70 + Fraction(3, 4)) * INCH),
    ("3/8", "metric", Fraction(3, 8) * INCH),
    ("½", "imperial", Fraction(1, 2) * INCH),
    ("5'", "metric", 60 * INCH),
    ("5 ft", "metric", 60 * INCH),
    ("5′ 10″", "metric", 70 * INCH),
    ("5' 10", "metric", 70 * INCH),
    ("5'10\"", "metric", 70 * INCH),
    ("5'-10 3/4\"", "metric", (70 + Fraction(3, 4)) * INCH),
    ("5 feet 10 3/4 in", "metric", (70 + Fraction(3, 4)) * INCH),
    ("5’ 10¾”", "metric", (70 + Fraction(3, 4)) * INCH),
    ("5' 3/4\"", "metric", (60 + Fraction(3, 4)) * INCH),
    ("5''", "metric", 5 * INCH),
    ("2.5 ft", "metric", 30 * INCH),
]  # fmt: skip
REFUSED = [
    ("3' 14\"", "foot or more", "4' 2\""),
    ("6 1/0", "over 0", "fraction again"),
    ("-12", "negative", "minus"),
    ("6 5/4", "whole inch or more", '7 1/4"'),
    ("1.5 1/2", "decimal and a fraction", "one or the other"),
    ("70 3/4 mm", "fractions are inches", "70.75 mm"),
    ("1,797", "thousands or decimals", "1797 or 1.797"),
    ("2.5' 3\"", "part of a foot", "whole feet"),
    ("12 34", "two lengths", "Write one"),
    ("wide", "not a length", "Lengths are written"),
    ("12 furlongs", "not a length", "Lengths are written"),
    ("", "no length", "number"),
    ("1e9", "does not belong", "Lengths are written"),
    ("NaN", "not a length", "Lengths are written"),
    ("1000000", "longer than 100 m", "unit"),
    ("99999999999999999999", "too long", "100 m"),
    ("101 m", "longer than 100 m", "unit"),
]


class ParsingTests(TestCase):
    def test_every_form_is_exact(self) -> None:
        for text, units, exact in FORMS:
            with self.subTest(text):
                self.assertEqual(parse_length(text, units).exact_mm, exact)

    def test_what_is_ambiguous_or_impossible_is_refused_with_its_mend(self) -> None:
        for text, problem, mend in REFUSED:
            with self.subTest(text), self.assertRaises(LengthError) as caught:
                parse_length(text)
            self.assertIn(problem, caught.exception.problem)
            self.assertIn(mend, caught.exception.mend)

    def test_the_echo_says_which_unit_was_understood(self) -> None:
        self.assertEqual(parse_length("70 3/4").echo, '70 3/4" (1797.05 mm)')
        self.assertEqual(parse_length("70").echo, "70 mm")

    def test_a_row_keeps_whole_and_fraction_together(self) -> None:
        row = scan_lengths("70 3/4 70 5/8, 71")
        self.assertEqual([n.exact_mm for n in row], [Fraction("70.75") * INCH, Fraction("70.625") * INCH, 71])
        self.assertEqual([n.mm for n in scan_lengths("80 x 90×100")], [80, 90, 100])

    @given(st.integers(0, 300), st.integers(1, 63), st.sampled_from([2, 4, 8, 16, 32, 64]))
    def test_any_mixed_fraction(self, whole: int, above: int, below: int) -> None:
        above %= below
        text = f"{whole} {above}/{below}" if above else f"{whole}"
        self.assertEqual(parse_length(text, "imperial").exact_mm, (whole + Fraction(above, below)) * INCH)

    @given(st.text(max_size=30))
    def test_any_text_gives_a_length_or_a_clear_refusal(self, text: str) -> None:
        try:
            self.assertGreaterEqual(parse_length(text).exact_mm, 0)
        except LengthError as error:
            self.assertTrue(error.problem and error.mend)


class WritingTests(TestCase):
    def test_to_the_nearest_sixteenth_or_millimetre(self) -> None:
        for mm, units, text in (
            (1797.05, "imperial", '70 3/4"'),
            (1797.05, "metric", "1797"),
            (12.7, "metric", "12.7"),
            (25.4, "imperial", '1"'),
            (0, "imperial", '0"'),
            (-6.35, "imperial", '-1/4"'),
            (25.3, "imperial", '1"'),
        ):
            self.assertEqual(format_length(mm, units), text)  # type: ignore[arg-type]

    @given(st.integers(0, 16 * 3000))
    def test_what_is_written_reads_back_the_same(self, sixteenths: int) -> None:
        mm = float(Fraction(sixteenths, 16) * INCH)
        self.assertEqual(parse_length(format_length(mm, "imperial")).exact_mm, Fraction(sixteenths, 16) * INCH)
