"""Names as people write them: right to left, other scripts, pictures, two hundred letters. They are kept as typed, and no
drawing, sheet, label or list breaks on them.
"""

from unittest import TestCase
from xml.etree import ElementTree

from pinakotheke.core.base import seen
from pinakotheke.core.checks import check_design
from pinakotheke.core.drawing import design_elevation, design_plan, to_pdf, to_svg
from pinakotheke.core.house import Person
from pinakotheke.core.inventory import quick_add
from pinakotheke.core.inventory.columns import read_rows, write_rows
from pinakotheke.core.layout import Design
from pinakotheke.core.layout.report.ledger import ledger
from pinakotheke.core.words import sentence

from .examples import PLAIN, WARDROBE, regions, survey, wardrobe

NAMES = (
    "מעילי חורף", "معاطف الشتاء", "冬のコート", "зимние пальто", "🧥🧣 coats", "naïve façade œuvres", "a\u202eb\u202cc",
    "y" * 200, "<b>coats</b>", "e\u0301e\u0301 coats",
)  # fmt: skip


class NameTests(TestCase):
    def test_every_name_is_kept_as_it_was_typed(self) -> None:
        """But for signs that are not seen: they turn the writing round."""
        for name in NAMES:
            (thing, *_) = quick_add(f"3 {name}", (), "metric")
            self.assertEqual((thing.count, thing.name[1:]), (3, seen(name)[1:]), name)

    def test_no_drawing_breaks_on_one(self) -> None:
        design: Design = wardrobe()
        for name in NAMES:
            things = tuple(t.model_copy(update={"name": name}) for t in WARDROBE)
            elevation = design_elevation(design, survey(PLAIN), things, "metric", name, "2026-11-26", inside="bare")
            ElementTree.fromstring(to_svg(elevation))
            plan = design_plan(design, survey(PLAIN), "metric", name, "2026-11-26")
            self.assertTrue(to_pdf([elevation, plan], 20, "metric"))

    def test_no_finding_or_sum_breaks_on_one(self) -> None:
        design, people = wardrobe(), (Person(id="p", name=NAMES[0]),)
        for name in NAMES:
            things = tuple(t.model_copy(update={"name": name}) for t in WARDROBE)
            for finding in check_design(design, survey(PLAIN), regions(), things, people):
                self.assertTrue(sentence(finding, "imperial"))
            self.assertTrue(ledger(things, design.rules, design).lines)

    def test_they_go_out_and_come_back_in_a_list(self) -> None:
        things = tuple(
            t.model_copy(update={"name": name, "space": "s"}) for t, name in zip(WARDROBE, NAMES, strict=False)
        )
        table = write_rows(things, (), "metric")
        columns = dict(enumerate(("count", "name", "kind")))
        where = {table[0].index(word): word for word in columns.values() if word in table[0]}
        self.assertEqual(len(where), 3)
        got = read_rows(table[1:], where, (), "metric", "s", frozenset())  # type: ignore[arg-type]
        self.assertEqual([t.name for t in got.things], [t.name for t in things])
