"""The command line, in its own process: no Django, exit codes, one line per fault."""

import json
import subprocess
import sys
from decimal import Decimal
from pathlib import Path
from tempfile import TemporaryDirectory
from unittest import TestCase
from xml.etree import ElementTree

from pinakotheke.core.layout import History
from pinakotheke.core.materials import bill

from .examples import WARDROBE, survey, wardrobe

ROOT = Path(__file__).parents[2]
DEMO = str(ROOT / "pinakotheke" / "demo" / "halt.house.json")
NO_DJANGO = """
import sys
class Refuse:
    def find_spec(self, name, path=None, target=None):
        if name.split(".")[0] in ("django", "ninja"):
            raise ImportError(f"{name} is not to be imported")
sys.meta_path.insert(0, Refuse())
from pinakotheke.cli import main
sys.exit(main(sys.argv[1:]))
"""


def run(*args: str, stdin: str | None = None) -> subprocess.CompletedProcess[str]:
    """The command line in a process that refuses to import Django."""
    return subprocess.run(
        [sys.executable, "-c", NO_DJANGO, *args], cwd=ROOT, capture_output=True, text=True, input=stdin, timeout=120
    )


class CommandLineTests(TestCase):
    def test_design(self) -> None:
        got = run("design", DEMO, "--space", "coal-shed")
        self.assertEqual((got.returncode, got.stderr), (0, ""))
        answer = json.loads(got.stdout)
        self.assertIsNone(answer["blocked"])
        self.assertGreaterEqual(len(answer["alternatives"]), 2)
        self.assertTrue(all(a["gap"] is None and float(a["total"]) > 0 for a in answer["alternatives"]))

    def test_check_says_what_is_missing(self) -> None:
        got = run("check", DEMO)
        self.assertEqual(got.returncode, 0)
        office, lamps, *_ = json.loads(got.stdout)
        self.assertEqual([s["label"] for s in office["envelope"]["missing"] if s["needed"]], [])
        self.assertTrue(any(f["code"] == "survey.missing" for f in lamps["findings"]) or lamps["envelope"] is None)

    def test_papers_of_a_section(self) -> None:
        with TemporaryDirectory() as folder:
            for form in ("pdf", "field-sheet"):
                out = Path(folder) / f"{form}.pdf"
                got = run("draw", DEMO, "--space", "loft-wardrobe", "--section", "B", "--as", form, "-o", str(out))
                self.assertEqual((got.returncode, got.stderr), (0, ""))
                self.assertTrue(out.read_bytes().startswith(b"%PDF-"))
        got = run("draw", DEMO, "--space", "loft-wardrobe", "--section", "Q")
        self.assertEqual(got.returncode, 2)
        self.assertIn("there are A, B", got.stderr)

    def test_cut_and_draw(self) -> None:
        with TemporaryDirectory() as folder:
            out = Path(folder) / "sheet.svg"
            got = run("draw", DEMO, "--space", "ticket-office", "--view", "plan", "-o", str(out))
            self.assertEqual(got.returncode, 0, got.stderr)
            ElementTree.parse(out)
        bill = json.loads(run("cut", DEMO, "--space", "ticket-office", "--design", "1", "--seconds", "0.2").stdout)
        self.assertEqual(Decimal(bill["total"]), sum(Decimal(line["total"]) for line in bill["lines"]))

    def test_a_design_saved_in_the_house_is_the_one_that_is_used(self) -> None:
        history = History(base=wardrobe())
        house = {
            "format": "pinakotheke-house-1", "name": "x",
            "spaces": [{"id": "closet", "name": "Closet", "survey": survey().model_dump(mode="json")}],
            "things": [t.model_dump(mode="json") for t in WARDROBE],
            "designs": [history.model_dump(mode="json")],
        }  # fmt: skip
        text = json.dumps(house)
        total = json.loads(run("cut", "-", stdin=text).stdout)["total"]
        self.assertEqual(Decimal(total), bill(wardrobe()).total)
        svg = run("draw", "-", stdin=text).stdout
        shown = {rect.attrib.get("data-of") for rect in ElementTree.fromstring(svg).iter() if "data-of" in rect.attrib}
        self.assertTrue({p.id for p in wardrobe().parts} <= shown)
        (checked,) = json.loads(run("check", "-", stdin=text).stdout)
        (design,) = checked["designs"]
        self.assertIn("safety.anchor", [f["code"] for f in design["findings"]])

    def test_a_house_that_does_not_fit_ends_with_1(self) -> None:
        house = {
            "format": "pinakotheke-house-1", "name": "x",
            "spaces": [{"id": "a", "name": "A", "survey": {"readings": [
                {"id": "r1", "what": "width", "value": 120}, {"id": "r2", "what": "height", "value": 2400},
                {"id": "r3", "what": "depth", "value": 600}]}}],
        }  # fmt: skip
        got = run("design", "-", stdin=json.dumps(house))
        self.assertEqual(got.returncode, 1)
        self.assertEqual(json.loads(got.stdout)["blocked"]["subject"], "width")

    def test_doors_and_budget_of_the_house_and_the_words_of_the_page(self) -> None:
        house = {
            "format": "pinakotheke-house-1", "name": "x", "units": "imperial",
            "rules": {"doors": "hinged", "budget": "5"},
            "spaces": [{"id": "closet", "name": "Closet", "survey": survey().model_dump(mode="json")}],
            "things": [t.model_dump(mode="json") for t in WARDROBE],
        }  # fmt: skip
        got = run("design", "-", stdin=json.dumps(house))
        answer = json.loads(got.stdout)
        self.assertEqual((got.returncode, answer["blocked"]["kind"]), (1, "budget"))
        self.assertIn("more than the budget", answer["blocked"]["sentence"])
        self.assertEqual({a["design"]["finish"]["doors"] for a in answer["alternatives"]}, {"hinged"})
        said = " ".join(f["sentence"] for a in answer["alternatives"] for f in a["findings"])
        self.assertNotRegex(said, r"\d mm\b")
        self.assertTrue(all(a["hours"] > 0 for a in answer["alternatives"]))
        self.assertTrue(all(s["sentence"] for s in answer["sensitivities"]))

    def test_bad_input_ends_with_2_and_a_line_per_fault(self) -> None:
        bad = {"format": "pinakotheke-house-1", "name": "", "colour": 1, "things": [{"id": "t", "count": -1}]}
        got = run("check", "-", stdin=json.dumps(bad))
        self.assertEqual((got.returncode, got.stdout), (2, ""))
        lines = got.stderr.strip().splitlines()
        self.assertGreaterEqual(len(lines), 4)
        self.assertTrue(all(": found " in line and "; expected " in line for line in lines), got.stderr)

    def test_other_mistakes_are_said_without_a_trace(self) -> None:
        for args, part in (
            (("check", "/nowhere.json"), "nowhere"),
            (("design", DEMO), "say which space"),
            (("design", DEMO, "--space", "cellar"), "cellar"),
            (("cut", DEMO, "--space", "ticket-office", "--design", "99", "--seconds", "0.2"), "no alternative 99"),
        ):
            with self.subTest(args):
                got = run(*args)
                self.assertEqual(got.returncode, 2)
                self.assertIn(part, got.stderr)
                self.assertNotIn("Traceback", got.stderr)
