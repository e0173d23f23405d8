"""Every refusal has its words: each code that is raised stands in the table with the facts it names, and the other way."""

import ast
import pickle
import string
import tomllib
from collections.abc import Iterator
from pathlib import Path
from unittest import TestCase

from pinakotheke.core.errors import EditRefused, LengthError, NotHere, Refusal, told
from pinakotheke.core.inventory.things import Thing
from pinakotheke.core.tables import load

ROOT = Path(__file__).parents[2] / "pinakotheke"
NAMES = {"Refusal", "LengthError", "CallOutError", "EditRefused", "SurveyIncomplete", "SpaceTooSmall", "NotHere",
         "NoSuchFamily", "Invalid", "NotAllowed"}  # fmt: skip
CHOSEN_OF_TWO = {"call.not-read-so", "call.nothing-to-correct",
                 "list.no-article", "list.no-price"}  # fmt: skip
"""Codes that are put together or chosen before they are raised."""
DJANGO_ITSELF = {"request.not-allowed", "request.no-method"}


def raised() -> Iterator[tuple[str, bool, set[str], str]]:
    """Code, whether it is the server's, the facts given, and where."""
    for file in sorted(ROOT.rglob("*.py")):
        for node in ast.walk(ast.parse(file.read_text("utf-8"))):
            if isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id in NAMES and node.args:
                code = node.args[0]
                where = f"{file.relative_to(ROOT)}:{node.lineno}"
                if isinstance(code, ast.Constant):
                    facts = {word.arg or "**" for word in node.keywords}
                    yield str(code.value), node.func.id in ("Invalid", "NotAllowed"), facts, where
                else:
                    assert file.name in {"ear.py", "systems.py", "errors.py"}, where


def rows(table: dict[str, dict[str, dict[str, str]]]) -> dict[str, dict[str, str]]:
    return {f"{topic}.{code}": row for topic, codes in table.items() for code, row in codes.items()}


def asked(row: dict[str, str]) -> set[str]:
    """The facts that the words of a row name."""
    return {
        name.partition("[")[0]
        for text in row.values()
        for _, name, _, _ in string.Formatter().parse(text)
        if name
    }  # fmt: skip


class TableTests(TestCase):
    def test_every_code_stands_in_its_table_with_its_facts(self) -> None:
        core = rows(load("refusals"))
        server = rows(tomllib.loads((ROOT / "server" / "refusals.toml").read_text("utf-8")))
        seen: dict[bool, set[str]] = {True: set(), False: set()}
        for code, is_server, facts, where in raised():
            table = server if is_server else core
            self.assertIn(code, table, where)
            if "**" not in facts:
                self.assertLessEqual(asked(table[code]), facts, where)
            seen[is_server].add(code)
        self.assertGreater(len(seen[False]), 90)
        self.assertEqual(set(core) - seen[False] - CHOSEN_OF_TWO, set())
        self.assertEqual(set(server) - seen[True] - CHOSEN_OF_TWO - DJANGO_ITSELF, set())

    def test_what_is_wrong_is_always_said(self) -> None:
        for code, row in rows(load("refusals")).items():
            self.assertLessEqual(set(row), {"says", "mend"}, code)
            self.assertTrue(row["says"], code)


class WordsTests(TestCase):
    def test_lengths_are_those_of_the_household(self) -> None:
        refusal = EditRefused("edit.no-width", sizes=[400, 600])
        self.assertEqual(refusal.mend_in("metric"), "Widths are 400, 600 mm.")
        self.assertEqual(refusal.mend_in("imperial"), 'Widths are 15 3/4", 23 5/8".')
        self.assertEqual(str(refusal), "There is no such width. Widths are 400, 600 mm.")

    def test_what_was_typed_is_quoted(self) -> None:
        self.assertEqual(
            str(LengthError("length.negative", "-3")),
            "“-3”: a length cannot be negative. Write it without the minus sign.",
        )

    def test_a_refusal_crosses_to_another_process(self) -> None:
        for refusal in (EditRefused("edit.no-bay", bay=3, bays=2), NotHere("thing.no-density", name="fog")):
            back = pickle.loads(pickle.dumps(refusal))
            self.assertEqual((type(back), str(back)), (type(refusal), str(refusal)))

    def test_what_a_model_finds_is_told_by_its_own_words(self) -> None:
        with self.assertRaises(ValueError) as caught:
            Thing.model_validate({"id": "t1", "name": "x", "kind": "custom", "count": 1, "space": "s"})
        self.assertEqual(told(caught.exception)[0], "a custom thing needs its size: width, depth and height")
        with self.assertRaises(ValueError) as caught:
            Thing.model_validate({"id": "t1"})
        self.assertIn("required", told(caught.exception)[0])
        self.assertEqual(told(ValueError("plain")), ("plain", ""))
        self.assertIsInstance(Refusal("thing.no-size"), ValueError)
