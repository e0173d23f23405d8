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
    """Line and text of every string of a module but its docstrings."""
    tree = ast.parse(file.read_text("utf-8"))
    told = {id(node.value) for node in ast.walk(tree) if isinstance(node, ast.Expr)}
    for node in ast.walk(tree):
        if isinstance(node, ast.Constant) and isinstance(node.value, str) and id(node) not in told:
            yield node.lineno, node.value


def sources(*rooms: str) -> Iterator[Path]:
    for room in rooms:
        yield from sorted(CORE.joinpath(room).rglob("*.py"))


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

    def test_checks_and_families_make_no_sentences(self) -> None:
        # Codes and numbers go out; `words` and its tables make what a person reads.
        sentence = re.compile(r"^[A-Z].*[a-z]{2,} .*[a-z]{2,} .*\.$")
        found = [
            f"{file.relative_to(ROOT)}:{line} {text!r}"
            for file in sources("checks", "systems", "materials", "geometry")
            if file.name not in SAY_WHAT_IS_ASKED
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


SAY_WHAT_IS_ASKED = {"supplier.py", "ranges.py"}
"""They refuse what a person typed, with the mend beside it, as every reader of what is typed does."""
