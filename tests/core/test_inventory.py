"""What things ask of storage, worked by hand from the tables, and the quick-add line."""

from typing import ClassVar
from unittest import TestCase

from pydantic import ValidationError

from pinakotheke.core.errors import CallOutError
from pinakotheke.core.house import HouseRules, Person
from pinakotheke.core.inventory import demand, needs, quick_add
from pinakotheke.core.inventory.columns import Column, ReadRows, guess_columns, read_rows
from pinakotheke.core.inventory.demand import with_reserve
from pinakotheke.core.inventory.kinds import KINDS
from pinakotheke.core.inventory.needs import need, rows_deep
from pinakotheke.core.units import Units

from .examples import thing

PLAIN = HouseRules(reserve=0)
PEOPLE = (Person(id="ada", name="Ada Quill"), Person(id="ben", name="Ben Rowe"))


class NeedTests(TestCase):
    def test_rail_of_nine_shirts(self) -> None:
        # 9 × 28 mm = 252 mm; clear height 50 + 1000 + 60 = 1110 mm; 9 × 0.25 kg = 2.25 kg.
        got = need(thing("s", "shirt", 9), "hang", PLAIN)
        self.assertEqual((got.amount, got.clear, got.mass), (252, 1110, 2.25))

    def test_hangers_stretch_or_shrink_the_rail(self) -> None:
        for hangers, factor in (("slim", 0.75), ("ordinary", 1.0), ("padded", 1.25)):
            rules = HouseRules.model_validate({"hangers": hangers})
            self.assertEqual(need(thing("s", "shirt", 10), "hang", rules).amount, 280 * factor)

    def test_stacks_of_jumpers(self) -> None:
        # 60 mm each: five to a stack of 300. Twelve jumpers: three stacks of 300 + 20 mm finger room.
        got = need(thing("j", "jumper", 12), "shelf", PLAIN)
        self.assertEqual((got.per_stack, got.amount, got.clear), (5, 3 * 320, 5 * 60 + 40))

    def test_a_low_stack_is_no_higher_than_its_pieces(self) -> None:
        self.assertEqual(need(thing("j", "jumper", 2), "shelf", PLAIN).clear, 2 * 60 + 40)

    def test_drawer_of_shirts(self) -> None:
        # A front of 160 has 120 inside: four shirts of 30 mm. Nine shirts: three stacks of 240 × 320 mm at 85 %.
        got = need(thing("s", "shirt", 9), "drawer", PLAIN)
        self.assertEqual(got.per_stack, 4)
        self.assertAlmostEqual(got.amount, 3 * 240 * 320 / 0.85)

    def test_boxes_stand_on_each_other_where_they_are_light_and_seldom_asked_for(self) -> None:
        often = need(thing("b", "box-medium", 4, frequency="daily"), "box", PLAIN)
        for frequency in ("monthly", "seasonal", "rarely"):
            got = need(thing("b", "box-medium", 4, frequency=frequency), "box", PLAIN)
            self.assertEqual((got.amount * 2, got.per_stack), (often.amount, 2))
        heavy = thing("b", "box-medium", 4, frequency="rarely", mass=9)
        single = thing("v", "suitcase", 4, frequency="rarely")
        for alone in (heavy, single):
            self.assertEqual(need(alone, "box", PLAIN).per_stack, 1)
            self.assertEqual(need(alone, "box", HouseRules(access="dense")).per_stack, 2)

    def test_what_is_alike_stands_in_as_many_rows_as_the_depth_takes(self) -> None:
        tins = thing("t", "tin-food", 12)
        self.assertEqual([rows_deep(tins, "shelf", 80, room) for room in (79, 160, 400)], [1, 2, 5])
        for kind in ("book", "shirt", "lever-arch", "trainers"):
            self.assertEqual(rows_deep(thing("x", kind), "shelf", 100, 400), 1, kind)
        self.assertEqual(rows_deep(tins, "drawer", 80, 400), 1)

    def test_what_creases_hangs_first_and_a_wish_is_the_only_way(self) -> None:
        self.assertEqual(needs(thing("s", "shirt"), PLAIN)[0].way, "hang")
        self.assertNotEqual(needs(thing("t", "t-shirt"), PLAIN)[0].way, "hang")
        self.assertEqual(needs(thing("t", "t-shirt"), HouseRules(hang="all-that-can"))[0].way, "hang")
        self.assertEqual([n.way for n in needs(thing("s", "shirt", way="drawer"), PLAIN)], ["drawer"])

    def test_its_own_size_and_mass_rule(self) -> None:
        own = thing("c", "custom", 2, size=(400, 300, 200), mass=3)
        got = need(own, "box", PLAIN)
        self.assertEqual((got.amount, got.clear, got.depth, got.mass), (2 * 410, 225, 300, 6))

    def test_every_kind_can_be_stored_every_way_it_names(self) -> None:
        for kind in KINDS.values():
            size = (300, 300, 100) if kind.id == "custom" else None
            for way in kind.ways:
                got = need(thing("x", kind.id, 3, size=size), way, PLAIN)
                self.assertGreater(got.amount, 0)
                self.assertGreater(got.clear, 0)


class DemandTests(TestCase):
    def test_reserve_is_a_share_of_what_is_provided(self) -> None:
        # 850 mm with 15 % kept free: 850 / 0.85 = 1000, not 850 × 1.15.
        self.assertAlmostEqual(with_reserve(850, 0.15), 1000)

    def test_lines_by_drop_class_and_depth(self) -> None:
        got = demand(
            (thing("a", "shirt", 10), thing("b", "shirt", 10), thing("c", "coat-long", 2), thing("j", "jumper", 5)),
            HouseRules(reserve=0.2),
        )
        lines = {(line.storage, line.label): line for line in got.lines}
        self.assertEqual(lines["hanging", "shirt"].bare, 560)
        self.assertAlmostEqual(lines["hanging", "shirt"].asked, 700)
        self.assertEqual(lines["hanging", "shirt"].pieces, 20)
        self.assertEqual(lines["folded", "330 360"].bare, 320)
        self.assertAlmostEqual(got.asked("hanging"), sum(n.asked for k, n in lines.items() if k[0] == "hanging"))

    def test_what_leaves_asks_for_nothing(self) -> None:
        rows = (thing("a", "shirt", 10, decision="give away"), thing("b", "shirt", 4, decision="undecided"))
        self.assertEqual(demand(rows, PLAIN).pieces, 4)
        self.assertEqual(demand((), PLAIN).lines, ())


class QuickAddTests(TestCase):
    def add(self, line: str) -> dict[str, object]:
        (one,) = quick_add(line, PEOPLE, "metric")
        return one.model_dump(include={"name", "kind", "count", "owner", "frequency", "decision", "way", "size"})

    def test_facts_in_any_order(self) -> None:
        for line in (
            "14 shirts, daily, Ada, fold",
            "shirts 14, fold, ada quill, every day",
            "14 x shirts, ada, folded, often",
        ):
            with self.subTest(line):
                got = self.add(line)
                self.assertEqual((got["kind"], got["count"], got["owner"]), ("shirt", 14, "ada"))
                self.assertEqual((got["frequency"], got["way"]), ("daily", "shelf"))

    def test_no_count_is_one_and_decisions_are_heard(self) -> None:
        self.assertEqual(self.add("long coat, donate")["decision"], "give away")
        self.assertEqual(self.add("long coat")["count"], 1)

    def test_a_size_makes_anything_known(self) -> None:
        got = self.add("2 flurbs, 600 x 90 x 1100")
        self.assertEqual((got["kind"], got["size"]), ("custom", (600, 90, 1100)))

    def test_several_groups_get_their_own_ids(self) -> None:
        got = quick_add("3 jumpers; 4 shirts", (), "metric", taken=frozenset({"t1"}))
        self.assertEqual([t.id for t in got], ["t2", "t3"])

    def test_refused_with_the_mend(self) -> None:
        for line, part in (
            ("0 shirts", "1 to 10,000"),
            ("99999 shirts", "1 to 10,000"),
            ("-3 shirts", "1 to 10,000"),
            (" ; ", "14 shirts"),
            ("12", "14 shirts"),
            ("2 easels, 600 x 0 x 1100", "600 x 90 x 1100"),
        ):
            with self.subTest(line), self.assertRaises(CallOutError) as caught:
                quick_add(line, PEOPLE, "metric")
            self.assertIn(part, caught.exception.mend)

    def test_no_thing_is_refused(self) -> None:
        for line, kind, unsure in (
            ("5 shitrs", "shirt", "kind"), ("5 quuxes", "custom", "size"), ("5 shirts, dayly", "shirt", ""),
            ("3 jackets, drawer", "jacket", ""), ("3 things", "custom", "size"), ("hats", "hat", "count"),
            (f"2 {'y' * 200}", "custom", "size"), ("3 🎸", "custom", "size"), ("2 מעיל", "custom", "size"),
            ("2 衬衫", "custom", "size"), ("2 easels, 600 x 90 x 1100", "easel", ""),
        ):  # fmt: skip
            (got,) = quick_add(line, PEOPLE, "metric")
            self.assertEqual((got.kind, got.unsure), (kind, unsure), line)

    def test_a_thing_that_contradicts_itself_is_refused(self) -> None:
        for bad in (
            {"kind": "nonsense"},
            {"kind": "custom"},
            {"kind": "jacket", "way": "drawer"},
            {"kind": "shirt", "count": 0},
        ):
            with self.subTest(bad), self.assertRaises(ValidationError):
                thing("x", **bad)  # type: ignore[arg-type]


class ListTests(TestCase):
    """Rows of a list: counts, masses and sizes as spreadsheets and people write them."""

    COLUMNS: ClassVar[dict[int, Column]] = {0: "count", 1: "name", 2: "mass", 3: "width", 4: "depth", 5: "height"}

    def read(self, *rows: str, units: Units = "metric", header: str = "") -> ReadRows:
        cells = [row.split("|") for row in rows]
        return read_rows(cells, self.COLUMNS, (), units, "closet", frozenset(), header.split("|"))

    def test_counts_are_whole_and_anything_else_is_said(self) -> None:
        got = self.read("12.0|shirts", "3|hats", "1,0|coats", "2.5|hats", "-3|hats", "many|hats", "1e3|hats")
        self.assertEqual([t.count for t in got.things], [12, 3, 1])
        self.assertEqual([f.row for f in got.faults], [5, 6, 7, 8])
        self.assertTrue(all("is no count" in f.problem and "whole number" in f.mend for f in got.faults))

    def test_a_mass_has_its_own_unit_or_the_household_s(self) -> None:
        rows = [f"1|box|{mass}|300|300|300" for mass in ("2 lb", "1,5", "250 g", "1 lb 8 oz")]
        self.assertEqual([round(t.mass or 0, 9) for t in self.read(*rows).things], [0.90718474, 1.5, 0.25, 0.680388555])
        (pounds,) = self.read("1|box|10|12|12|12", units="imperial").things
        self.assertEqual((round(pounds.mass or 0, 7), pounds.size), (4.5359237, (304.8, 304.8, 304.8)))
        (fault,) = self.read("1|box|heavy|300|300|300").faults
        self.assertIn("is no mass", fault.problem)

    def test_a_unit_in_the_header_is_that_of_bare_numbers(self) -> None:
        header = "Qty|Item|Weight (lb)|Width (in)|Depth (cm)|Height"
        (made,) = self.read("1|box|10|12|30|400 mm", header=header).things
        self.assertEqual((round(made.mass or 0, 7), made.size), (4.5359237, (304.8, 300.0, 400.0)))
        self.assertEqual(list(guess_columns(header.split("|")).values()),
                         ["count", "name", "mass", "width", "depth", "height"])  # fmt: skip
