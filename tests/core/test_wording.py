"""Findings and slips in words: one sentence a code, in the household's units, each with its mend."""

from unittest import TestCase

from pinakotheke.core.checks.run import FAULT_CODES
from pinakotheke.core.checks.wording import _REMEDIES, _SENTENCES, DEFER, amount

from pinakotheke.core.base import Why
from pinakotheke.core.checks import remedy, sentence, slip
from pinakotheke.core.checks.findings import Finding

SAID = {
    "survey.missing": ("1 reading is missing; next: depth.", {"measured": 1, "subject": "depth"}),
    "survey.repeat": ("width was read as 1846 mm and 1856 mm.", {"subject": "width", "measured": 1846, "limit": 1856}),
    "fit.unplaced": ("3 × Hats have no place.", {"subject": "Hats", "measured": 3}),
    "fit.headroom": (
        "The rail 2 in bay 1 meets it: it reaches 1900 mm, free to 1800 mm.",
        {"where": ("b1-rail-2",), "detail": "meets it", "measured": 1900, "limit": 1800},
    ),
    "pull-out.return": (
        "The drawer 1 in bay 4 cannot come out: the return or the door takes 35 mm of it.",
        {"where": ("b4-drawer-1",), "measured": 35},
    ),
    "strength.rating": (
        "The shelf 3 in bay 2 holds 31.5 kg and is rated 25.0 kg.",
        {"where": ("b2-shelf-3",), "measured": 31.5, "limit": 25},
    ),
    "reach.high": (
        "Hats (daily) at 2200 mm: Juna reaches 1481 mm.",
        {"subject": "Hats", "detail": "daily", "measured": 2200, "limit": 1481, "person": "Juna"},
    ),
    "fixing.studs": ("The track crosses 1 known studs and wants 3.", {"measured": 1, "limit": 3, "unit": "studs"}),
}


def finding(code: str, **facts: object) -> Finding:
    plain = {"severity": "fix", "basis": "C", "source": "a test", "measured": 0, "limit": 0}
    return Finding.model_validate({"code": code, **plain, **facts})


class SentenceTests(TestCase):
    def test_as_people_would_say_it(self) -> None:
        for code, (said, facts) in SAID.items():
            with self.subTest(code):
                self.assertEqual(sentence(finding(code, **facts), "metric"), said)

    def test_in_inches(self) -> None:
        got = finding("reach.high", subject="Hats", detail="daily", measured=1797.05, limit=1219.2, person="Bo")
        self.assertEqual(sentence(got, "imperial"), 'Hats (daily) at 70 3/4": Bo reaches 48".')

    def test_every_code_has_words_and_a_mend(self) -> None:
        for code in {*_SENTENCES, *FAULT_CODES.values()}:
            got = finding(code, subject="it", detail="is wrong", person="Bo", where=("b1-shelf-1",))
            for units in ("metric", "imperial"):
                said = sentence(got, units)  # type: ignore[arg-type]
                self.assertTrue(said[0].isupper() or said.startswith(("it", "0")), said)
            self.assertTrue(remedy(got).endswith("."))
        self.assertTrue(set(_REMEDIES) <= set(_SENTENCES))

    def test_where_it_can_hurt_someone_it_defers(self) -> None:
        self.assertIn("licensed", DEFER)
        self.assertEqual(remedy(finding("clear.caution")), DEFER)
        self.assertIn("licensed", remedy(finding("fixing.studs")))


class SlipTests(TestCase):
    def test_amounts_with_their_units(self) -> None:
        for value, unit, metric, imperial in (
            (1797.05, "mm", "1797 mm", '70 3/4"'),
            (254, "mm of rail", "254 mm of rail", '10" of rail'),
            (81.4, "litres", "81 litres", "81 litres"),
            (0.15, "", "15%", "15%"),
            (4, "pieces", "4 pieces", "4 pieces"),
        ):
            self.assertEqual(amount(value, unit, "metric"), metric)
            self.assertEqual(amount(value, unit, "imperial"), imperial)

    def test_a_slip_says_rule_values_basis_and_source(self) -> None:
        got = slip(Why(rule="a + b", values=(("a", 25.4, "mm"),), basis="P", source="a standard"), "imperial")
        self.assertEqual((got.rule, got.values, got.basis, got.source),
                         ("a + b", (("a", '1"'),), "published", "a standard"))  # fmt: skip
