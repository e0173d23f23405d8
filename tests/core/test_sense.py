"""Sense: each measure on a design made by hand, so that its number can be counted on the drawing."""

from typing import Any
from unittest import TestCase

from pinakotheke.core.checks import check_design
from pinakotheke.core.house import Person
from pinakotheke.core.inventory import Thing
from pinakotheke.core.layout import Design
from pinakotheke.core.layout.models import Assignment
from pinakotheke.core.layout.report.sense import MEASURES, Sense, sense
from pinakotheke.core.tables import load
from pinakotheke.core.words import sentence

from .examples import PLAIN, WARDROBE, regions, survey, thing, wardrobe

ADA = Person(id="ada", name="Ada")


class SenseTests(TestCase):
    def setUp(self) -> None:
        self.design = wardrobe()
        self.shelves = [p for p in self.design.parts if p.role == "shelf"]

    def seen(self, design: Design | None = None, things: tuple[Thing, ...] = WARDROBE) -> Sense:
        return sense(design or self.design, things, (ADA,))

    def holding(self, *rows: tuple[Thing, str, str], **changes: Any) -> Sense:
        """The design with nothing in it but these: thing, part, way."""
        held = tuple(
            Assignment(id=f"a{n}", thing=t.id, part=part, way=way, count=t.count)  # type: ignore[arg-type]
            for n, (t, part, way) in enumerate(rows)
        )
        design = self.design.model_copy(update={"assignments": held, **changes})
        return self.seen(design, tuple({t.id: t for t, _, _ in rows}.values()))

    def test_every_measure_has_its_wanted_value_and_words(self) -> None:
        table = load("sense")
        for measure in MEASURES:
            self.assertTrue(table[measure]["says"])
            self.assertEqual(len({"least", "most"} & set(table[measure])), 1)

    def test_what_is_placed_and_hung(self) -> None:
        self.assertEqual(self.seen().placed, 1)
        shirts = thing("s", "shirt", 4)
        rail = next(p for p in self.design.parts if p.role == "rail")
        self.assertEqual(self.holding((shirts, rail.id, "hang")).hung, 1)
        seen = self.holding((shirts, self.shelves[0].id, "shelf"))
        self.assertEqual(seen.hung, 0)
        self.assertIn("hung", seen.short())
        more = (*WARDROBE, thing("new", "jumper", 9))
        self.assertLess(self.seen(things=more).placed, 1)

    def test_a_group_in_more_compartments_than_it_needs(self) -> None:
        jumpers = thing("j", "jumper", 2)
        one, other = self.shelves[:2]
        self.assertEqual(self.holding((jumpers, one.id, "shelf")).together, 1)
        self.assertEqual(self.holding((jumpers, one.id, "shelf"), (jumpers, other.id, "shelf")).together, 0)

    def test_two_owners_of_one_shelf(self) -> None:
        hers, his = thing("a", "jumper", 2, owner="ada"), thing("b", "jeans", 2, owner="bruno")
        one, other = self.shelves[:2]
        self.assertEqual(self.holding((hers, one.id, "shelf"), (his, one.id, "shelf")).owners, 1)
        self.assertEqual(self.holding((hers, one.id, "shelf"), (his, other.id, "shelf")).owners, 0)

    def test_shoes_with_and_above_clothes(self) -> None:
        shoes, jumpers = thing("s", "trainers", 1), thing("j", "jumper", 2)
        low = self.shelves[0]
        high = low.model_copy(update={"id": "over", "z": low.z + 300})
        self.design = self.design.model_copy(update={"parts": (*self.design.parts, high)})
        self.assertEqual(self.holding((shoes, low.id, "shoe"), (jumpers, high.id, "shelf")).clean, 0)
        self.assertEqual(self.holding((shoes, high.id, "shoe"), (jumpers, low.id, "shelf")).clean, 1)
        self.assertEqual(self.holding((shoes, low.id, "shoe"), (jumpers, low.id, "shelf")).clean, 1)

    def test_slivers_and_what_asks_for_one(self) -> None:
        inside = self.shelves[0]
        bays = tuple(b.model_copy(update={"w": 200}) if b.index == inside.bay else b for b in self.design.bays)
        broom = thing("b", "broom", 1)
        self.assertEqual(self.holding((thing("j", "jumper", 1), self.shelves[-1].id, "shelf"), bays=bays).slivers, 1)
        self.assertEqual(self.holding((broom, inside.id, "hook"), bays=bays).slivers, 0)

    def test_what_is_used_daily_and_out_of_reach(self) -> None:
        top = max(self.shelves, key=lambda p: p.z)
        high = self.design.model_copy(
            update={"parts": tuple(p.model_copy(update={"z": 2100}) if p is top else p for p in self.design.parts)}
        )
        held = Assignment(id="a1", thing="j", part=top.id, way="shelf", count=1)
        for frequency, out in (("daily", 1), ("rarely", 0)):
            things = (thing("j", "jumper", 1, frequency=frequency),)
            self.assertEqual(self.seen(high.model_copy(update={"assignments": (held,)}), things).reach, out)

    def test_heights_that_neighbours_share(self) -> None:
        alike = list(self.design.bays[:2])
        shelf = self.shelves[0]
        parts = tuple(
            shelf.model_copy(update={"id": f"s{b.index}-{n}", "bay": b.index, "x": b.x, "z": z})
            for b, heights in zip(alike, ((400, 800, 1200), (410, 1000)), strict=True)
            for n, z in enumerate(heights)
        )
        bays = (alike[0], alike[1].model_copy(update={"x": alike[0].x + alike[0].w + 18, "section": alike[0].section}))
        seen = self.seen(self.design.model_copy(update={"parts": parts, "bays": bays, "assignments": ()}), ())
        self.assertEqual(seen.lines, 0.5)

    def test_one_system_to_a_wall(self) -> None:
        self.assertEqual(self.seen().systems, 1)
        mixed = tuple(b.model_copy(update={"family": "track" if b.index else "carcase"}) for b in self.design.bays)
        self.assertEqual(self.seen(self.design.model_copy(update={"bays": mixed, "parts": (), "assignments": ()})).systems,
                         min(2, len(mixed)))  # fmt: skip

    def test_compartments_built_for_nothing(self) -> None:
        drawer = self.shelves[0].model_copy(update={"id": "d", "role": "drawer"})
        parts = (*self.design.parts, drawer)
        self.assertEqual(self.seen(self.design.model_copy(update={"parts": parts})).empties - self.seen().empties, 1)

    def test_the_checks_say_what_is_laid_away_and_what_lies_with_shoes(self) -> None:
        shirts, shoes = thing("s", "shirt", 4), thing("t", "trainers", 1)
        held = tuple(
            Assignment(id=f"a{n}", thing=t.id, part=self.shelves[0].id, way=way, count=t.count)  # type: ignore[arg-type]
            for n, (t, way) in enumerate(((shirts, "shelf"), (shoes, "shoe")))
        )
        design = self.design.model_copy(update={"assignments": held})
        found = {f.code: f for f in check_design(design, survey(PLAIN), regions(), (shirts, shoes), (ADA,))}
        self.assertEqual(sentence(found["sense.hung"], "metric"), "4 of 4 pieces that the house hangs are laid away.")
        self.assertEqual(
            sentence(found["sense.clean"], "metric"), "1 compartment of shoes with clothes, or above them."
        )
