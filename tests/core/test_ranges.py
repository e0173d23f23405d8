"""A household's own ranges and containers: sizes, prices and ratings of a supplier in the place of what ships."""

import unittest
from decimal import Decimal

from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from pinakotheke.core.house import HouseRules
from pinakotheke.core.housefile import House, dump_house, load_house
from pinakotheke.core.inventory.containers import Container
from pinakotheke.core.layout import Design, Solution, apply, verify
from pinakotheke.core.layout.edit.commands import ReshapeRow, SwapFamily, WidenBay
from pinakotheke.core.layout.placement.fills import shapes_worth, ways_to_fill
from pinakotheke.core.layout.placement.pool import allowed
from pinakotheke.core.materials import bill
from pinakotheke.core.systems import SHIPPED_ONLY, Article, Finish, Range, Rate, family_of_range, ranges
from pinakotheke.core.systems.ranges import reckoned, table_of
from pinakotheke.core.systems.supplier import (
    LIST_COLUMNS,
    guess_list_columns,
    money,
    read_articles,
    read_containers,
    write_articles,
)

from .examples import FOLDED, WARDROBE, regions, solved, survey, thing, wardrobe

OAK = Range(id="oak", family="carcase", name="Oakline", sizes={"widths": (450, 900), "heights": (2000, 2300)})
LIST = [
    ["Item", "Width", "Depth", "Height", "Price each", "Carries"],
    ["Frames", "450", "584", "2000", "61,00", ""],
    ["Frame", "900", "584", "2000", "88.00", ""],
    ["frame", "450", "584", "2200", "EUR 66.00", ""],
    ["Shelves", "450", "584", "", "9.50", "20 kg"],
    ["Shelf", "900", "584", "", "15.00", "18"],
    ["Drawer", "900", "584", "180", "52.00", "15"],
    ["Drawr", "450", "584", "180", "39.00", "15"],
    ["", "", "", "", "", ""],
    ["Sofa", "900", "", "", "400.00", ""],
    ["Shelf", "wide", "", "", "3.00", ""],
    ["Shelf", "450", "", "", "cheap", ""],
]


def from_list(**facts: object) -> Range:
    """The range that the list gives."""
    read = read_articles(LIST[1:], guess_list_columns(LIST[0]), "carcase", "metric")
    return Range.model_validate({"id": "listed", "family": "carcase", "name": "Listed", "articles": read.articles,
                                 **facts})  # fmt: skip


def found_with(*own: Range, **options: object) -> Solution:
    """Alternatives for the small wardrobe with a household's own ranges."""
    return solved(WARDROBE, ranges=own, families=tuple(family_of_range(r).id for r in own), **options)


class RangeTests(unittest.TestCase):
    def test_sizes_take_the_place_of_those_that_ship(self) -> None:
        got = found_with(OAK)
        self.assertTrue(got.alternatives)
        for design in got.alternatives:
            self.assertEqual({w for s in design.rows for w in s.row.widths} - {450, 900}, set())
            self.assertLessEqual({s.row.shape.height for s in design.rows}, {2000, 2300})
            self.assertEqual(verify(design, regions(), WARDROBE, survey()), ())
            self.assertIn("Oakline", {family_of_range(r).name for r in design.ranges})

    def test_a_rate_and_a_rating_are_the_ones_given(self) -> None:
        own = OAK.model_copy(update={"rates": {"shelf": Rate(fixed=2, per_m2=10)}, "ratings": {"shelf": 7.0}})
        table = table_of(own)
        self.assertEqual(table["price"]["shelf"], {"fixed": 2, "per_m2": 10})
        self.assertEqual(table["compartment"]["shelf"]["rating"], 7)
        for design in found_with(own).alternatives:
            for line in bill(design).lines:
                if line.item.endswith(".shelf"):
                    by_hand = Decimal(2) + Decimal(10) * line.width * line.depth / Decimal(1_000_000)
                    self.assertAlmostEqual(line.each, by_hand, delta=Decimal("0.01"))

    def test_it_stands_in_the_place_of_its_family(self) -> None:
        got = allowed(HouseRules(), (OAK,))
        self.assertNotIn("carcase", got)
        self.assertIn(OAK.family_id, got)
        self.assertIn("track", got)
        self.assertNotIn(OAK.family_id, allowed(HouseRules(floor="clear"), (OAK,)), "it stands on the floor too")

    def test_another_content_is_another_family(self) -> None:
        dearer = OAK.model_copy(update={"rates": {"shelf": Rate(fixed=99)}})
        self.assertNotEqual(OAK.family_id, dearer.family_id)
        self.assertEqual(OAK.family_id, Range.model_validate_json(OAK.model_dump_json()).family_id)
        self.assertIs(family_of_range(OAK), family_of_range(OAK.model_copy()))

    def test_a_design_brings_its_ranges_with_it(self) -> None:
        text = found_with(OAK).alternatives[0].model_dump_json()
        total = bill(Design.model_validate_json(text)).total
        ranges.family_of_range.cache_clear()  # as in a process that never met the range
        self.assertNotIn(OAK.family_id, SHIPPED_ONLY)
        again = Design.model_validate_json(text)
        self.assertIn(OAK.family_id, again.catalogue)
        self.assertEqual(bill(again).total, total)

    def test_refused_with_the_reason(self) -> None:
        for facts, word in (
            ({"family": "sofa"}, "there is no family"), ({"sizes": {"widths": ()}}, "at least one"),
            ({"sizes": {"widths": (9000,)}}, "between 100 mm and 3000 mm"), ({"sizes": {"bays": (600,)}}, "has no bays"),
            ({"sizes": {"widths": tuple(range(300, 400))}}, "at most 24"),
            ({"rates": {"sofa": Rate(fixed=1)}}, "no article"), ({"ratings": {"sofa": 3}}, "no compartment"),
            ({"articles": (Article(kind="sofa", price=1),)}, "no article"),
        ):  # fmt: skip
            with self.subTest(facts), self.assertRaisesRegex(ValidationError, word):
                Range.model_validate({"id": "x", "family": "carcase", "name": "X", **facts})

    def test_every_family_that_ships_can_be_made_anew(self) -> None:
        for family_id, family in ranges.SHIPPED.items():
            own = Range(id="own", family=family_id, name="Own")
            made = family_of_range(own)
            self.assertEqual((made.kind, made.modules), (family_id, family.modules))
            self.assertEqual(set(reckoned(own)), set(family.table.price))

    def test_a_row_is_swapped_for_an_own_range_and_back_after_a_reload(self) -> None:
        swap = SwapFamily(bay=0, family=OAK.family_id, own=OAK)
        got = apply(wardrobe(), swap)
        self.assertIn(OAK, got.ranges)
        self.assertIn(OAK.family_id, got.families)
        self.assertEqual(verify(got, regions(), WARDROBE, survey()), ())
        with self.assertRaisesRegex(ValueError, "There is no family"):
            apply(wardrobe(), SwapFamily(bay=0, family="carcase-0000"))

    def test_the_house_file_carries_ranges_and_containers(self) -> None:
        box = Container(id="c1", name="tub", width=300, depth=400, height=200, wall=2, price=3)
        house = House(name="Halt", ranges=(OAK, from_list()), containers=(box,))
        self.assertEqual(load_house(dump_house(house)), house)
        with self.assertRaisesRegex(ValidationError, "stands twice"):
            House(name="Halt", ranges=(OAK, OAK))
        with self.assertRaisesRegex(ValidationError, "choose another"):
            House(name="Halt", containers=(box.model_copy(update={"id": "own-1"}),))


class ArticleTests(unittest.TestCase):
    def test_rows_are_read_and_the_others_named_with_their_mend(self) -> None:
        read = read_articles(LIST[1:], guess_list_columns(LIST[0]), "carcase", "metric")
        self.assertEqual([a.kind for a in read.articles], ["frame"] * 3 + ["shelf"] * 2 + ["drawer"] * 2)
        self.assertEqual([a.price for a in read.articles[:3]], [61, 88, 66])
        self.assertEqual(read.articles[3].rating, 20)
        self.assertEqual([f.row for f in read.faults], [10, 11, 12])
        self.assertIn("frame", read.faults[0].mend)
        self.assertTrue(all(f.mend for f in read.faults))

    def test_sizes_come_from_the_list_and_only_where_they_are_listed(self) -> None:
        family = family_of_range(from_list())
        self.assertEqual(family.modules, (450, 900))
        # Heights are of the frame alone; it stands on its plinth of 70 mm.
        region = regions()["A"]
        shapes = {s.height: family.modules_at(s) for s in shapes_worth(family, region, Finish())}
        self.assertEqual(shapes, {2270: (450,), 2070: (450, 900)})
        tall = next(s for s in shapes_worth(family, region, Finish()) if s.height == 2270)
        self.assertEqual({w for _, row, _ in ways_to_fill(family, tall, region, 0, 1800) for w in row}, {450})
        self.assertEqual(family.specs["drawer"].fronts, (180,))
        self.assertEqual((family.specs["shelf"].rating, family.specs["drawer"].rating), (18, 15))

    def test_the_price_is_that_of_the_smallest_article_that_is_large_enough(self) -> None:
        own = from_list()
        family = family_of_range(own)
        listed = {
            "frame": {450: {2000: "61.00", 2200: "66.00"}, 900: {2000: "88.00"}},
            "shelf": {414: "9.50", 864: "15.00"},
        }
        seen = set()
        for design in found_with(own).alternatives:
            for part in design.parts:
                if part.role == "frame":
                    seen.add("frame")
                    self.assertEqual(family.price(part), Decimal(listed["frame"][part.w][part.h]))
                elif part.role == "shelf":
                    seen.add("shelf")
                    self.assertEqual(family.price(part), Decimal(listed["shelf"][part.w]))
        self.assertEqual(seen, {"frame", "shelf"})

    def test_what_is_not_listed_is_reckoned_as_in_the_family_that_ships(self) -> None:
        own = from_list()
        family, shipped = family_of_range(own), ranges.SHIPPED["carcase"]
        self.assertIn("rail", reckoned(own))
        self.assertNotIn("frame", reckoned(own))
        part = next(p for p in wardrobe().parts if p.role == "frame")
        wide = part.model_copy(update={"w": 1200})
        self.assertEqual(family.price(wide), shipped.price(wide), "none so wide is listed")

    def test_hand_edits_keep_to_what_is_listed(self) -> None:
        design = next(d for d in found_with(from_list()).alternatives if d.rows[0].row.widths == (450,))
        wide = apply(apply(design, ReshapeRow(bay=0, taller=-1)), WidenBay(bay=0, steps=1))
        self.assertEqual(wide.rows[0].row.widths[0], 900)
        with self.assertRaisesRegex(ValueError, "no part of that height"):
            apply(wide, ReshapeRow(bay=0, taller=1))
        self.assertEqual(apply(wide, WidenBay(bay=0, steps=-1)).rows[0].row.widths[0], 450)

    def test_track_is_sold_in_lengths(self) -> None:
        articles = (
            Article(kind="track", width=1000, price=11), Article(kind="track", width=2000, price=19),
            Article(kind="bracket", depth=330, price=3), Article(kind="shelf", width=600, depth=330, price=8),
            Article(kind="standard", height=1500, price=9),
        )  # fmt: skip
        own = Range(id="t", family="track", name="Slim track", articles=articles)
        family = family_of_range(own)
        self.assertEqual((family.modules, family.table.depths, family.table.standards), ((600,), (330,), (1500,)))
        self.assertEqual(family.track_pieces(2600), (2000, 1000))  # type: ignore[attr-defined]
        got = solved(FOLDED, ranges=(own,), families=(own.family_id,))
        self.assertTrue(got.alternatives)
        lines = {line.item.split(".")[1]: line.each for line in bill(got.alternatives[0]).lines}
        self.assertEqual((lines["bracket"], lines["standard"], lines["shelf"]), (3, 9, 8))

    @given(st.lists(st.builds(
        Article, kind=st.sampled_from(["frame", "shelf", "shoe-shelf", "rail"]),
        price=st.integers(0, 9999).map(lambda n: n / 100), width=st.none() | st.integers(1, 4000),
        height=st.none() | st.integers(1, 4000), code=st.sampled_from(["", "A-7", "=1+1"]),
        rating=st.none() | st.integers(1, 90)), max_size=6))  # fmt: skip
    def test_a_list_written_and_read_again_is_the_same(self, articles: list[Article]) -> None:
        header, *body = write_articles(articles, "metric")
        columns = {n: c for n, c in enumerate(header) if c in LIST_COLUMNS}
        read = read_articles(body, columns, "carcase", "metric")  # type: ignore[arg-type]
        self.assertEqual((read.articles, read.faults), (tuple(articles), ()))

    def test_money_as_lists_have_it(self) -> None:
        for text, amount in (("12.50", 12.5), ("12,5", 12.5), ("€ 1,234.50", 1234.5), ("1.234,50 EUR", 1234.5),
                             ("1,250", 1250), ("0.125", 125), ("1.234.567", 1234567), ("7", 7)):  # fmt: skip
            self.assertEqual(money(text), amount, text)
        for text in ("", "free", "-3", "3 or 4 / 5"):
            with self.assertRaises(ValueError, msg=text):
                money(text)


class ContainerTests(unittest.TestCase):
    ROWS = (
        ["Container", "W", "D", "H", "Price", "Lid", "Wall"],
        ["tub", "200", "300", "150", "2.10", "yes", "2"],
        ["crate", "12 in", "16 in", "10 in", "6", "", ""],
        ["tube", "50", "", "50", "1", "", ""],
        ["thick", "40", "40", "40", "1", "", "30"],
        ["odd", "40", "40", "40", "1", "hinged glass", ""],
    )

    def test_a_list_of_containers(self) -> None:
        read = read_containers(self.ROWS[1:], guess_list_columns(self.ROWS[0]), "metric", frozenset({"c1"}))
        self.assertEqual(
            [(c.id, c.name, c.lid) for c in read.containers], [("c2", "tub", "lift"), ("c3", "crate", "none")]
        )
        self.assertEqual(read.containers[1].width, 305)
        self.assertEqual([f.row for f in read.faults], [4, 5, 6])
        self.assertIn("no depth", read.faults[0].problem)
        self.assertIn("nothing inside", read.faults[1].problem)

    def test_the_household_buys_from_its_own_list(self) -> None:
        pads = (*FOLDED, thing("yarn", "custom", 40, size=(90, 90, 80), mass=0.1))
        own = Container(id="c1", name="tub", width=250, depth=300, height=380, wall=2, price=0.5)
        got = solved(pads, families=("carcase",), containers=(own,))
        used = {a.container for d in got.alternatives for a in d.assignments if a.container}
        self.assertEqual(used, {"c1"})
        design = next(d for d in got.alternatives if d.owned)
        line = next(line for line in bill(design).lines if line.item == "container.c1")
        self.assertEqual((line.name, line.each), ("Tub", Decimal("0.50")))
        self.assertEqual(verify(design, regions(), pads, survey()), ())
