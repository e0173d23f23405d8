"""The client's page of a household, and what a client sees by a link: at the desk, on a phone, by keyboard."""

from datetime import timedelta

from axe_playwright_python.sync_playwright import Axe
from django.utils import timezone
from playwright.sync_api import Page, expect

from pinakotheke.server import models

from .chromium import DESK, PHONE
from .driver import BrowserTestCase


class ClientTests(BrowserTestCase):
    def assertNoFault(self, page: Page) -> None:  # noqa: N802
        found = Axe().run(page).response["violations"]
        self.assertEqual([(v["id"], [n["html"][:80] for n in v["nodes"]]) for v in found], [])

    def link(self) -> str:
        """A link for Wren, made on the client's page of the demo."""
        self.enter_demo("layout")
        page = self.open(f"/house/{self.house.pk}/client")
        page.get_by_label("For whom the work is").fill("Wren Alder")
        page.get_by_role("button", name="Keep").click()
        page.get_by_label("Who looks").fill("Wren Alder")
        page.get_by_role("button", name="Make a link").click()
        made = page.get_by_label("The link", exact=True).input_value()
        expect(page.get_by_role("list", name="Links")).to_contain_text("Wren Alder")
        self.assertNoFault(page)
        return made

    def stranger(self, size: tuple[int, int], at: str) -> Page:
        """Somebody without an account."""
        context = self.browser.new_context(viewport={"width": size[0], "height": size[1]})
        self.addCleanup(context.close)
        page = context.new_page()
        page.on("pageerror", lambda error: self.errors.append(str(error)))
        page.goto(at)
        return page

    def test_a_client_looks_says_chooses_and_signs(self) -> None:
        wren = self.stranger(DESK, self.link())
        expect(wren.get_by_text("Designs for Wren Alder")).to_be_visible()
        self.assertNoFault(wren)
        first = wren.locator(".shown-card").first
        title = first.locator(".title").inner_text()
        first.focus()
        wren.keyboard.press("Enter")
        expect(wren.get_by_role("heading", name=title)).to_be_visible()
        wren.locator(".shown-sheet .can-select[data-part*=shelf]").first.click()
        expect(wren.get_by_label("Of the shelf", exact=False)).to_be_visible()
        wren.get_by_role("textbox").fill("Could this be lower?")
        wren.get_by_role("button", name="Say it").click()
        expect(wren.get_by_role("region", name="Remarks")).to_contain_text("of the shelf in bay")
        wren.locator("label", has_text="walk-round").click()
        expect(wren.locator(".walk-canvas[data-state=shown]")).to_be_visible()
        wren.locator("label", has_text="plan").click()
        self.assertNoFault(wren)
        wren.get_by_role("button", name="Choose this one").click()
        expect(wren.get_by_role("status")).to_contain_text("Chosen by Wren Alder")
        wren.get_by_role("button", name="Sign it off").click()
        wren.get_by_label("Your name").press("Enter")
        expect(wren.get_by_role("status")).to_contain_text("Signed off by Wren Alder")
        expect(wren.get_by_role("button", name="Choose this one")).to_have_count(0)

        page = self.page
        page.reload()
        expect(page.get_by_role("list", name="Chosen and signed off")).to_contain_text("Signed off by Wren Alder")
        page.get_by_role("checkbox", name="Settled: Could this be lower?").check()
        self.assertNoFault(page)
        page.get_by_role("list", name="Chosen and signed off").get_by_role("link").click()
        expect(page.get_by_label("The chosen alternative")).to_contain_text("Signed off by Wren Alder")
        self.open("/houses")
        expect(page.get_by_role("link", name=self.house.name)).to_contain_text("Next:")

    def test_on_a_phone_a_link_that_ended_says_so(self) -> None:
        made = self.link()
        wren = self.stranger(PHONE, made)
        wren.locator(".shown-card").first.click()
        expect(wren.get_by_role("button", name="Choose this one")).to_be_visible()
        wide = wren.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth")
        self.assertLessEqual(wide, 0, "runs over its edge")
        models.Showing.objects.update(expires=timezone.now() - timedelta(seconds=1))
        wren.goto(made)
        expect(wren.get_by_role("alert")).to_contain_text("This link holds no longer. Ask for a new one.")
