"""A new person, without touching the demo: household and closet in inches, twenty things, designs, the list as CSV."""

import csv
import re
from decimal import Decimal
from pathlib import Path

from playwright.sync_api import expect

from .driver import BrowserTestCase

READINGS = [
    ("width, low, at the back", "70 3/4"),
    ("width, middle, at the back", '70 5/8"'),
    ("width, high, at the back", "70.75"),
    ("height, left", "7' 11\""),
    ("height, middle", "95"),
    ("height, right", "94 7/8"),
]
THINGS = """9 shirts, daily, Ottilie; 6 T-shirts, daily; 5 jumpers; 4 jeans, weekly; 3 jackets, monthly
2 dresses; 1 long coat, seasonal; 2 short coats, daily; 12 socks, daily; 10 underwear, daily
4 scarves, seasonal; 2 hats, rarely; 3 women's flats, daily; 1 ankle boots, seasonal; 2 men's shoes, weekly
1 medium box, rarely; 1 bed set, monthly; 4 towels, weekly; 3 hoodies, weekly; 2 easels, 12 x 4 x 20, rarely"""


class JourneyTest(BrowserTestCase):
    def test_from_tape_to_shopping_list(self) -> None:
        page = self.open()
        page.get_by_label("Name").fill("ottilie")
        page.get_by_label("Password").first.fill("paper-and-board")
        page.get_by_role("button", name="Register").click()

        page.get_by_label("New household").fill("Bindery")
        page.get_by_text("Feet and inches").click()
        page.get_by_role("button", name="Create household").click()
        page.get_by_label("Name of the space").fill("Hall closet")
        page.get_by_role("button", name="Add space").click()

        expect(page.get_by_role("button", name="Hall closet")).to_be_visible()

        # Brief: someone to reach for things.
        page.get_by_role("link", name="Brief").click()
        page.get_by_label("Name", exact=True).fill("Ottilie")
        page.get_by_label("Stature", exact=True).fill("5' 6\"")
        page.get_by_role("button", name="Add person").click()
        expect(page.get_by_label("Stature of Ottilie")).to_have_value("5' 6\"")

        # Measure: on the dimension lines, then by the call-out line.
        page.get_by_role("link", name="Measure").click()
        for label, text in READINGS:
            page.get_by_role("button", name=f"{label}: not read").locator("text").click()
            page.get_by_label(label, exact=True).fill(text)
            page.keyboard.press("Enter")
            expect(page.get_by_role("button", name=f"{label}: not read")).to_have_count(0)
        line = page.get_by_label("Call out a reading")
        line.fill("depth 24 24 1/4; opening 48 x 80; nibs 11 1/4 11 1/2; door sliding")
        expect(page.get_by_text('✓ left return 11 1/4"')).to_be_visible()
        page.get_by_role("button", name="Keep").click()
        expect(line).to_have_value("")
        expect(page.get_by_role("link", name="Measure")).to_contain_text("complete")
        expect(page.get_by_role("region", name="Clear sizes")).to_contain_text('69 5/8"')

        # Sort: twenty groups by the quick-add line.
        page.get_by_role("link", name="Sort").click()
        for row in THINGS.splitlines():
            page.get_by_label("Add things").fill(row)
            page.get_by_role("button", name="Add", exact=True).click()
            expect(page.get_by_label("Add things")).to_have_value("")
        expect(page.locator(".things [data-thing]")).to_have_count(20)

        # Design: asked for, found, chosen.
        page.get_by_role("link", name=re.compile("^Design")).click()
        page.get_by_role("button", name="Find designs").click()
        cards = page.locator("[data-design]")
        expect(cards.first).to_be_visible()
        expect(page.get_by_role("button", name="Search again")).to_be_visible()
        self.assertGreaterEqual(cards.count(), 2)
        cards.nth(1).click()
        expect(cards.nth(1)).to_have_attribute("aria-pressed", "true")
        expect(page.locator("[data-part]").first).to_be_visible()

        # Buy: the list, and its file.
        page.get_by_role("link", name="Buy").click()
        total = page.get_by_test_id("bill-total").inner_text().replace(",", "")
        with page.expect_download() as waiting:
            page.get_by_role("link", name="Save as CSV").click()
        rows = list(csv.DictReader(Path(waiting.value.path()).read_text("utf-8").splitlines()))
        self.assertEqual(rows[-1]["total USD"], total)
        self.assertEqual(sum(Decimal(r["total USD"]) for r in rows[:-1]), Decimal(total))
        self.assertIn("width in", rows[0])
