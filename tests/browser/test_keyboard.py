"""The whole run of work by keyboard alone: the mouse is never touched."""

from playwright.sync_api import expect

from .driver import BrowserTestCase


class KeyboardTest(BrowserTestCase):
    def tab_to(self, selector: str, most: int = 80) -> None:
        """Press Tab until what the selector names has the focus."""
        for _ in range(most):
            if self.page.evaluate("s => document.activeElement?.matches(s) ?? false", selector):
                return
            self.page.keyboard.press("Tab")
        self.fail(f"{selector} is not reached by Tab")

    def press(self, *keys: str) -> None:
        for key in keys:
            self.page.keyboard.press(key)

    def test_measure_sort_design_buy(self) -> None:
        from .driver import solved_demo

        solved_demo()
        page = self.open()
        expect(page.get_by_role("button", name="Enter the demo house")).to_be_visible()
        self.tab_to("input")
        for _ in range(6):
            self.press("Tab")
            if page.evaluate("document.activeElement?.textContent") == "Enter the demo house":
                break
        self.press("Enter")
        expect(page.get_by_role("navigation", name="Stages")).to_be_visible()

        # Find anything: the half measured closet.
        self.press("/")
        expect(page.get_by_label("Find in this house")).to_be_focused()
        page.keyboard.type("lamp")
        self.press("Enter")
        expect(page.get_by_label("Find in this house")).to_have_count(0)
        expect(page.get_by_role("button", name="Lamp-room closet")).to_be_visible()

        # The next reading, typed on the drawing; taken back and done again.
        expect(page.locator("[data-slot]").first).to_be_visible()
        missing = page.locator("[data-slot]", has_text="?").count()
        self.press("n", "Enter")
        expect(page.locator(".dimension-input input")).to_be_focused()
        page.keyboard.type("1102")
        self.press("Enter")
        expect(page.locator("[data-slot]", has_text="?")).to_have_count(missing - 1)
        self.press("u")
        expect(page.locator("[data-slot]", has_text="?")).to_have_count(missing)
        self.press("U")
        expect(page.locator("[data-slot]", has_text="?")).to_have_count(missing - 1)

        # Sort.
        self.press("3")
        expect(page.get_by_label("Add things")).to_be_visible()
        rows = page.locator(".things [data-thing]")
        expect(rows).to_have_count(10)
        self.tab_to(".quick-add input")
        page.keyboard.type("4 scarves, seasonal")
        self.press("Enter")
        expect(rows).to_have_count(11)

        # Design, in the closet that is solved: choose, select, move, undo.
        self.press("Escape")
        page.evaluate("document.activeElement?.blur()")
        self.press("/")
        expect(page.get_by_label("Find in this house")).to_be_focused()
        page.keyboard.type("ticket office")
        self.press("Enter")
        expect(page.get_by_label("Find in this house")).to_have_count(0)
        expect(page.get_by_role("button", name="Ticket-office closet")).to_be_visible()
        self.press("4")
        cards = page.locator("[data-design]")
        expect(cards.first).to_have_attribute("aria-pressed", "true")
        self.press("]")
        expect(cards.nth(1)).to_have_attribute("aria-pressed", "true")
        self.press("[")
        expect(cards.first).to_have_attribute("aria-pressed", "true")
        self.tab_to("[data-part*=rail]")
        part = page.locator("[data-part][aria-pressed=true]")
        before = part.get_attribute("aria-label")
        self.press("ArrowDown")
        expect(page.get_by_label("Undo (u)")).to_be_enabled()
        self.assertNotEqual(part.get_attribute("aria-label"), before)
        self.press("u")
        expect(page.get_by_label("Undo (u)")).to_be_disabled()
        expect(part).to_have_attribute("aria-label", before or "")

        # Buy: the file is a link that Tab reaches.
        self.press("6")
        expect(page.get_by_test_id("bill-total")).to_be_visible()
        self.tab_to("a[href*='purchase.csv']")
