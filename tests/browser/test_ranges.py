"""Own ranges and containers by hand: made, edited, listed from a supplier's file, searched with, taken back."""

import os

from playwright.sync_api import expect

from pinakotheke.server import models

from .driver import BrowserTestCase

LIST = (
    "Item;Wide;Depth;Height;Price each\nFrame;450;584;2000;61,00\nFrame;900;584;2000;88,00\nFrame;600;584;2160;75,00\n"
    "Shelves;450;584;;9,50\nShelves;900;584;;15,00\nSettee;900;;;400\n"
)


class RangeTests(BrowserTestCase):
    def shot(self, name: str) -> None:
        if os.environ.get("SHOTS"):
            self.page.screenshot(path=f"{os.environ['SHOTS']}/{name}.png")

    def test_a_range_is_made_listed_searched_with_and_undone(self) -> None:
        space = self.enter_demo("house")
        page = self.page
        panel = page.get_by_test_id("ranges")
        panel.get_by_label("Name of the range").fill("Oakline")
        panel.get_by_role("button", name="Make a range").click()
        dialog = page.get_by_role("dialog", name="Oakline, made of carcase")
        expect(dialog).to_contain_text("reckoned as it ships: carcase, shelf")
        # What cannot be is said, and what was typed stays.
        dialog.get_by_label("Widths", exact=True).fill("450, 9")
        dialog.get_by_label("Shelf, per m²", exact=True).fill("19.5")
        dialog.get_by_role("button", name="Keep the range").click()
        expect(dialog.get_by_role("alert")).to_contain_text("between 100 mm and 3000 mm")
        self.shot("range-dialog")
        expect(dialog.get_by_label("Shelf, per m²", exact=True)).to_have_value("19.5")
        dialog.get_by_label("Widths", exact=True).fill("450, 90 cm")
        dialog.get_by_role("button", name="Keep the range").click()
        row = panel.get_by_role("row", name="Oakline")
        expect(row).to_contain_text("widths 450, 900")
        row.get_by_role("button", name="Supplier’s list").click()
        page.get_by_label("Spreadsheet file").set_input_files(
            {"name": "oak.csv", "mimeType": "text/csv", "buffer": LIST.encode()}
        )
        dialog = page.get_by_role("dialog", name="Supplier’s list for Oakline")
        expect(dialog.get_by_label("Wide")).to_have_value("width")
        self.shot("range-list")
        dialog.get_by_role("button", name="Take 6 rows in").click()
        expect(dialog).to_contain_text("5 articles were taken in; 1 rows were not")
        expect(dialog).to_contain_text("Row 7: “settee” is no article of this family")
        dialog.get_by_role("button", name="Done").click()
        expect(row).to_contain_text("heights 2070, 2230")
        row.scroll_into_view_if_needed()
        self.shot("ranges")
        # The search knows it, and no longer the family it stands for.
        self.step_to("layout")
        page.get_by_role("button", name="What counts").click()
        page.get_by_label("Only these families").first.click()
        expect(page.get_by_role("option", name="Oakline")).to_be_visible()
        expect(page.get_by_role("option", name="Carcase", exact=True)).to_have_count(0)
        page.get_by_role("option", name="Oakline").click()
        page.get_by_role("button", name="search with this").click()
        expect(page.get_by_role("button", name="search with this")).to_have_count(0)
        expect(page.locator(".hung .label", has_text="Oakline").first).to_be_visible(timeout=60_000)
        self.shot("range-gallery")
        self.step_to("house")
        panel.get_by_role("button", name="Take out Oakline").click()
        expect(row).to_have_count(0)
        page.keyboard.press("u")
        expect(row).to_be_visible()
        self.assertEqual(models.Range.objects.get(household=space.household).key, "oakline")

    def test_containers_are_listed_and_taken_off(self) -> None:
        space = self.enter_demo("house")
        panel = self.page.get_by_test_id("containers")
        expect(panel).to_contain_text("until then they use invented bins")
        panel.get_by_label("Container", exact=True).fill("felt bin")
        panel.get_by_label("Outside size").fill("300 x 300")
        panel.get_by_label("Price").fill("9.5")
        panel.get_by_role("button", name="List it").click()
        expect(panel.get_by_role("alert")).to_contain_text("Write 320 x 380 x 220")
        panel.get_by_label("Outside size").fill("300 x 300 x 11 in")
        panel.get_by_role("button", name="List it").click()
        expect(panel.get_by_role("row", name="felt bin")).to_contain_text("9.50")
        panel.scroll_into_view_if_needed()
        self.shot("containers")
        panel.get_by_role("button", name="Bring a list").click()
        dialog = self.page.get_by_role("dialog")
        dialog.get_by_label("Or paste rows").fill("name\twidth\tdepth\theight\tprice\ncrate\t300\t400\t250\t6")
        dialog.get_by_role("button", name="Look at the rows").click()
        dialog.get_by_role("button", name="Take 1 rows in").click()
        expect(panel.get_by_role("row", name="crate")).to_be_visible()
        panel.get_by_label("Take felt bin off the list of containers").click()
        expect(panel.get_by_role("row", name="felt bin")).to_have_count(0)
        self.assertEqual(
            [c.data["name"] for c in models.Container.objects.filter(household=space.household)], ["crate"]
        )
