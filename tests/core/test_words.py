"""Findings, slips and everything else that is said: one sentence a code, in the household's units, each with its mend."""

import ast
from pathlib import Path
from string import Formatter
from unittest import TestCase

from pinakotheke.core import checks
from pinakotheke.core.base import Why
from pinakotheke.core.checks import Finding, Place, Rule, check_design, read_rules, rules
from pinakotheke.core.checks.check import Case, of_design
from pinakotheke.core.checks.homes import CODES as HOMES
from pinakotheke.core.inventory.demand import SHELF_DEPTHS, SHELF_HEIGHTS
from pinakotheke.core.lengths import parse_length
from pinakotheke.core.survey import envelope
from pinakotheke.core.tables import load
from pinakotheke.core.words import DEFER, amount, class_in_words, remedy, sentence, slip

from .examples import ADULT, TIGHT_FIT, WARDROBE, survey, wardrobe

SAID = {
    "survey.missing": ("1 reading is missing; next: depth.", {"measured": 1, "subject": "depth"}),
    "survey.repeat": ("Width was read as 1846 mm and 1856 mm.", {"subject": "width", "measured": 1846, "limit": 1856}),
    "fit.unplaced": ("3 × Hats have no place.", {"subject": "Hats", "measured": 3}),
    "fit.headroom": (
        "The rail 2 in bay 1 meets the shelf in bay 1 above it: it reaches 1900 mm, free to 1800 mm.",
        {"place": {"role": "rail", "bay": 0, "number": 2}, "other": {"role": "shelf", "bay": 0}, "why": "headroom.above",
         "measured": 1900, "limit": 1800},
    ),
    "pull-out.return": (
        "The drawer 1 in bay 4 cannot come out: the return or the door takes 35 mm of it.",
        {"place": {"role": "drawer", "bay": 3, "number": 1}, "measured": 35},
    ),
    "strength.rating": (
        "The shelf 3 in bay 2 holds 31.5 kg and is rated 25.0 kg.",
        {"place": {"role": "shelf", "bay": 1, "number": 3}, "measured": 31.5, "limit": 25},
    ),
    "reach.high": (
        "Hats (daily) at 2200 mm: Juna reaches 1481 mm.",
        {"subject": "Hats", "detail": "daily", "measured": 2200, "limit": 1481, "person": "Juna"},
    ),
    "fixing.studs": ("Behind the top track, 3 studs are wanted and 1 known.",
                     {"measured": 1, "limit": 3, "unit": "studs", "subject": "top track"}),
}  # fmt: skip


def finding(code: str, **facts: object) -> Finding:
    plain = {"severity": "fix", "basis": "C", "source": "a test", "measured": 0, "limit": 0}
    return Finding.model_validate({"code": code, **plain, **facts})


def own_facts(rule: Rule) -> tuple[tuple[str, float | str], ...]:
    """Something for every field that a rule's sentences name beside those that every finding has."""
    text = " ".join([rule.says, rule.remedy, *rule.would.values()])
    named = {name: form or "" for _, name, form, _ in Formatter().parse(text) if name}
    return tuple((name, 12.0 if form in NUMBERS else "screw") for name, form in named.items()
                 if name not in Finding.model_fields and name not in ("part", "in_bay", "defer", "would"))  # fmt: skip


NUMBERS = ("mm", "kg", "n", "fine", "stress")


class SentenceTests(TestCase):
    def test_as_people_would_say_it(self) -> None:
        for code, (said, facts) in SAID.items():
            with self.subTest(code):
                self.assertEqual(sentence(finding(code, **facts), "metric"), said)

    def test_in_inches(self) -> None:
        got = finding("reach.high", subject="Hats", detail="daily", measured=1797.05, limit=1219.2, person="Bo")
        self.assertEqual(sentence(got, "imperial"), 'Hats (daily) at 70 3/4": Bo reaches 48".')
        heavy = finding("strength.rating", measured=31.5, limit=25, place=Place(role="shelf", bay=1))
        self.assertEqual(sentence(heavy, "imperial"), "The shelf in bay 2 holds 69.4 lb and is rated 55.1 lb.")

    def test_one_has_and_several_have(self) -> None:
        for number, said in ((1, "1 × Christmas tree has no place."), (2, "2 × Christmas tree have no place.")):
            self.assertEqual(
                sentence(finding("fit.unplaced", subject="Christmas tree", measured=number), "metric"), said
            )
        for count, said in ((1, "Lamp wants a socket"), (3, "Lamp want a socket")):
            self.assertIn(said, sentence(finding("home.no-socket", subject="Lamp", count=count), "metric"))

    def test_every_code_has_words_and_a_mend_in_both_units(self) -> None:
        self.assertGreater(len(rules()), 40)
        for code, rule in rules().items():
            got = finding(code, subject="it", detail="is wrong", person="Bo", place=Place(role="shelf", bay=0),
                          facts=own_facts(rule))  # fmt: skip
            for units in ("metric", "imperial"):
                said = sentence(got, units)  # type: ignore[arg-type]
                self.assertTrue(said[0].isupper() or said[0].isdigit(), said)
                self.assertNotRegex(said, "[{}]")
                self.assertTrue(remedy(got, units).endswith("."))  # type: ignore[arg-type]
                if units == "imperial":
                    self.assertNotRegex(said + remedy(got, units), r"\d (mm|kg|litres)\b", code)

    def test_where_it_can_hurt_someone_it_defers(self) -> None:
        self.assertIn("licensed", DEFER)
        self.assertEqual(remedy(finding("clear.caution")), DEFER)
        self.assertIn("licensed", remedy(finding("fixing.studs")))


class RegistryTests(TestCase):
    def test_each_rule_names_basis_and_source(self) -> None:
        for code, rule in rules().items():
            got = rule.found()
            self.assertIn(got.basis, "PCDI", code)
            self.assertTrue(got.source, code)

    def test_the_codes_that_can_be_found_are_those_of_the_registry(self) -> None:
        declared = {code for check in checks.shipped() for code in check.codes} | set(HOMES.values())
        self.assertEqual(declared, set(rules()))
        self.assertGreater(len(checks.shipped()), 10)
        # Whatever a module of checks names is declared by one of its checks.
        for path in Path(checks.__file__).parent.glob("*.py"):
            tree = ast.parse(path.read_text("utf-8"))
            calls = [n for n in ast.walk(tree) if isinstance(n, ast.Call) and getattr(n.func, "attr", "") == "found"]
            for call in calls:
                first = call.args[0] if call.args else None
                if isinstance(first, ast.Constant):
                    self.assertIn(first.value, declared, path.name)

    def test_every_reason_of_the_verifier_has_words(self) -> None:
        layout = Path(checks.__file__).parents[1] / "layout"
        said = {(code, why) for code, rows in load("faults").items() for why in rows}
        tree = ast.parse((layout / "verify" / "verifier.py").read_text("utf-8"))
        made = set()
        for call in (n for n in ast.walk(tree) if isinstance(n, ast.Call) and getattr(n.func, "attr", "") == "_fault"):
            code, why = call.args[:2]
            if isinstance(code, ast.Constant) and isinstance(why, ast.Constant):
                made.add((code.value, why.value))
        self.assertGreater(len(made), 15)
        self.assertLessEqual(made, said)
        fits = ast.parse((layout / "packing" / "fits.py").read_text("utf-8"))
        misfits = [c for c in ast.walk(fits) if isinstance(c, ast.Call) and getattr(c.func, "id", "") == "Misfit"]
        whys = {c.args[2].value for c in misfits if isinstance(c.args[2], ast.Constant)}
        self.assertGreater(len(whys), 5)
        self.assertEqual(whys - {why for code, why in said if code == "size"}, set())

    def test_a_made_up_check_is_one_module_and_one_table(self) -> None:
        from .made_up import squeak

        table = {**rules(), **read_rules(squeak.TABLE)}
        read = survey()
        found = check_design(wardrobe(), read, {"A": envelope(read, TIGHT_FIT)}, WARDROBE, (ADULT,),
                             checks=squeak.CHECKS, table=table)  # fmt: skip
        drawers = sum(p.role == "drawer" for p in wardrobe().parts)
        self.assertEqual([f.code for f in found], ["noise.squeak"] * drawers)
        self.assertRegex(sentence(found[0], "metric", table), r"^The drawer( \d)? in bay \d squeaks from 600 mm on\.$")
        self.assertEqual(remedy(found[0], table=table), "Wax it.")

    def test_a_check_without_a_rule_is_a_fault_of_the_program(self) -> None:
        @of_design("noise.hum")
        def hum(case: Case):  # type: ignore[no-untyped-def]
            yield case.found("noise.hum")

        read = survey()
        with self.assertRaises(KeyError):
            check_design(wardrobe(), read, {"A": envelope(read, TIGHT_FIT)}, WARDROBE, (ADULT,), checks=(hum,))


class SlipTests(TestCase):
    def test_amounts_with_their_units(self) -> None:
        for value, unit, metric, imperial in (
            (1797.05, "mm", "1797 mm", '70 3/4"'),
            (254, "mm of rail", "254 mm of rail", '10" of rail'),
            (81.4, "litres", "81 litres", "2.9 cu ft"),
            (0.15, "", "15%", "15%"),
            (4, "pieces", "4 pieces", "4 pieces"),
            (1, "readings", "1 reading", "1 reading"),
        ):
            self.assertEqual(amount(value, unit, "metric"), metric)
            self.assertEqual(amount(value, unit, "imperial"), imperial)

    def test_a_slip_says_rule_values_basis_and_source(self) -> None:
        got = slip(Why(rule="a + b", values=(("a", 25.4, "mm"),), basis="P", source="a standard"), "imperial")
        self.assertEqual((got.rule, got.values, got.basis, got.source),
                         ("a + b", (("a", '1"'),), "published", "a standard"))  # fmt: skip


class DemandClassTests(TestCase):
    def test_classes_are_said_in_round_inches_that_hold_them(self) -> None:
        self.assertEqual(class_in_words("folded", "330 220", "metric"), "folded, to 330 mm deep, to 220 mm high")
        said = class_in_words("folded", "330 220", "imperial")
        self.assertEqual(said, 'folded, to 13" deep, to 9" high')
        for deep in SHELF_DEPTHS[:-1]:
            for high in SHELF_HEIGHTS[:-1]:
                for bound, words in zip((deep, high), class_in_words("folded", f"{deep:.0f} {high:.0f}", "imperial").split(
                        ", ")[1:], strict=True):  # fmt: skip
                    inches = words.split()[1]
                    self.assertNotIn("/", inches)
                    self.assertTrue(0 <= parse_length(inches).mm - bound < 25.4)
