"""The structure holds: which room may know what, where names and sentences stand, and that nothing goes in circles."""

import ast
import re
from collections.abc import Iterator
from graphlib import TopologicalSorter
from os.path import normpath
from pathlib import Path
from typing import get_args
from unittest import TestCase

from pinakotheke.core.inventory.kinds import Way
from pinakotheke.core.survey.sections import section_kinds
from pinakotheke.core.systems import FAMILIES
from pinakotheke.core.systems.roles import Fixture, Holder

ROOT = Path(__file__).parents[2]
CORE, WEB = ROOT / "pinakotheke" / "core", ROOT / "web" / "src"
FROM = re.compile(
    r"""^(?:import|export)\b[^'";]*?from\s+'(\.[^']+)'|^import\s+'(\.[^']+)'|\bimport\('(\.[^']+)'\)""", re.M
)


def strings(file: Path) -> Iterator[tuple[int, str]]:
    """Line and text of every string of a module but its docstrings; what is put into one is …"""
    tree = ast.parse(file.read_text("utf-8"))
    told = {id(node.value) for node in ast.walk(tree) if isinstance(node, ast.Expr)}
    for node in ast.walk(tree):
        if isinstance(node, ast.Constant) and isinstance(node.value, str) and id(node) not in told:
            yield node.lineno, node.value
        if isinstance(node, ast.JoinedStr):
            yield node.lineno, "".join(v.value if isinstance(v, ast.Constant) else "…" for v in node.values)


class StructureTests(TestCase):
    def test_no_family_is_named_outside_its_own_module_and_tables(self) -> None:
        # A role, a way of storing or a kind of section may share a family's word: it is that which is meant.
        words = {word for vocabulary in (Holder, Fixture, Way) for word in get_args(vocabulary)} | set(section_kinds())
        names = {*FAMILIES, *(f.name for f in FAMILIES.values())} - words
        self.assertIn("carcase", names)
        own = CORE / "systems" / "families"
        found = [
            f"{file.relative_to(ROOT)}:{line} {text!r}"
            for file in (ROOT / "pinakotheke").rglob("*.py")
            if own not in file.parents and "migrations" not in file.parts
            for line, text in strings(file)
            if text in names
        ]
        self.assertEqual(found, [])

    def test_sentences_stand_in_words_and_tables_only(self) -> None:
        # Codes and numbers go out; `words` and the tables make what a person reads. What a command says of itself, or
        # a check of the set-up, is its own.
        sentence = re.compile(r"^[A-Z][^_]*[a-z]{2,} .*[a-z]{2,} .*\.$")
        own = (CORE / "words", CORE.parent / "server" / "management", CORE.parent / "server" / "apps.py")
        found = [
            f"{file.relative_to(ROOT)}:{line} {text!r}"
            for file in (ROOT / "pinakotheke").rglob("*.py")
            if not any(room in (file, *file.parents) for room in own) and "migrations" not in file.parts
            for line, text in strings(file)
            if sentence.match(text)
        ]
        self.assertEqual(found, [])

    def test_the_pages_import_in_no_circle(self) -> None:
        files = {str(p.relative_to(WEB)) for p in WEB.rglob("*.ts*")}
        graph = {file: set(self.imported(file, files)) for file in files}
        self.assertGreater(sum(map(len, graph.values())), 100)
        TopologicalSorter(graph).prepare()

    @staticmethod
    def imported(file: str, files: set[str]) -> Iterator[str]:
        for match in FROM.finditer((WEB / file).read_text("utf-8")):
            stem = normpath(str(Path(file).parent / next(group for group in match.groups() if group)))
            yield from (name for name in (f"{stem}.ts", f"{stem}.tsx", f"{stem}/index.ts") if name in files)
