"""Every view, in light and dark and on a phone: no serious or critical finding of axe, nothing cut off sideways."""

from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import expect

from .chromium import PHONE
from .driver import BrowserTestCase

STAGES = ("house", "survey", "inventory", "layout", "checks", "materials")


class ViewTests(BrowserTestCase):
    def no_barriers(self, where: str) -> None:
        found = Axe().run(self.page).response["violations"]
        bad = [
            f"{v['id']}: {v['help']} {[n['target'] for n in v['nodes']][:4]}"
            for v in found
            if v["impact"] in ("serious", "critical")
        ]
        self.assertEqual(bad, [], where)

    def test_before_one_is_in(self) -> None:
        self.open()
        expect(self.page.get_by_role("button", name="Register")).to_be_visible()
        self.no_barriers("entrance")

    def test_every_stage_in_light_and_dark(self) -> None:
        self.enter_demo()
        for scheme in ("Dark", "Light"):
            self.page.get_by_label(scheme, exact=True).click()
            for stage in STAGES:
                self.step_to(stage)
                self.no_barriers(f"{stage}, {scheme}")

    def test_an_unmeasured_empty_closet(self) -> None:
        self.enter_demo(space=1)
        for stage, says in (
            ("survey", "Next reading"),
            ("inventory", "Add things"),
            ("layout", "Find designs"),
            ("checks", "there is none yet"),
            ("materials", "there is none yet"),
        ):
            self.step_to(stage)
            expect(self.page.get_by_text(says).first).to_be_visible()
            self.no_barriers(f"{stage}, empty")

    def test_dialogs_and_slips(self) -> None:
        space = self.enter_demo()
        self.page.keyboard.press("?")
        expect(self.page.get_by_role("dialog", name="Keys")).to_be_visible()
        self.no_barriers("keys")
        self.page.keyboard.press("Escape")
        self.page.get_by_role("button", name="Walls, doors, obstacles").click()
        expect(self.page.get_by_role("dialog")).to_be_visible()
        self.no_barriers("facts")
        self.page.keyboard.press("Escape")
        self.page.get_by_role("button", name="Clear width: why?").click()
        expect(self.page.get_by_text("least width read").first).to_be_visible()
        self.no_barriers("why")
        self.go(space, "layout")
        self.page.locator("[data-part]").first.click()
        self.page.keyboard.press("c")
        expect(self.page.get_by_test_id("compared")).to_be_visible()
        self.no_barriers("compared")
        self.page.goto(self.live_server_url + "/houses")
        expect(self.page.get_by_label("New household")).to_be_visible()
        self.no_barriers("houses")

    def test_every_kind_of_space(self) -> None:
        house = self.enter_demo().household
        for space in house.space_set.order_by("pk"):
            self.go(space, "survey")
            expect(self.page.locator("[data-slot]").first).to_be_visible()
            self.no_barriers(space.name)

    def test_zones_lists_and_field_sheets(self) -> None:
        space = self.enter_demo("inventory")
        page = self.page
        page.get_by_label("Select all").click()
        expect(page.get_by_role("group", name="Change the selected")).to_be_visible()
        self.no_barriers("many selected")
        page.get_by_role("button", name="Bring a list").click()
        expect(page.get_by_role("dialog")).to_be_visible()
        self.no_barriers("bring a list")
        page.get_by_label("Or paste rows").fill("count\twhat\n2\tshirts")
        page.get_by_role("button", name="Look at the rows").click()
        expect(page.get_by_role("dialog")).to_contain_text("1 rows")
        self.no_barriers("columns of a list")
        page.keyboard.press("Escape")
        page.get_by_text("Zones of the house").click()
        home = page.locator("[data-home] button").first
        home.click()
        expect(page.locator(".home-why")).to_be_visible()
        self.no_barriers("zones")
        self.go(space, "survey")
        page.get_by_role("button", name="Paper").click()
        page.get_by_role("menuitem", name="Type in a filled field sheet").click()
        expect(page.locator("[data-number='1']")).to_be_visible()
        expect(page.get_by_role("menu")).to_have_count(0)  # it fades
        self.no_barriers("field sheet")

    def test_practice(self) -> None:
        self.enter_demo()
        page = self.page
        page.get_by_role("button", name="Ticket-office closet").click()
        page.get_by_role("menuitem", name="Practise measuring").click()
        expect(page.get_by_role("menu")).to_have_count(0)
        self.no_barriers("choose a difficulty")
        page.get_by_role("button", name="Begin").click()
        page.get_by_role("button", name="Take it: tape").click()
        expect(page.get_by_role("region", name="Readings")).to_contain_text("width, low")
        page.get_by_role("button", name="Done: show the truth").click()
        expect(page.get_by_role("dialog")).to_contain_text("Never read")
        self.no_barriers("the truth")

    def test_what_is_not_there_is_said(self) -> None:
        self.enter_demo()
        self.open("/house/999999/1/survey")
        expect(self.page.get_by_role("alert")).to_contain_text("no such household")
        self.no_barriers("not there")


class PhoneTests(BrowserTestCase):
    size = PHONE

    def test_every_stage_on_a_phone(self) -> None:
        self.enter_demo()
        for stage in STAGES:
            self.step_to(stage)
            wide = self.page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth")
            self.assertEqual(wide, 0, f"{stage} scrolls sideways")

    def test_every_kind_of_space_on_a_phone(self) -> None:
        house = self.enter_demo().household
        for space in house.space_set.order_by("pk"):
            self.go(space, "survey")
            expect(self.page.locator("[data-slot]").first).to_be_attached()
            wide = self.page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth")
            self.assertEqual(wide, 0, f"{space.name} scrolls sideways")

    def test_a_reading_is_called_out_on_a_phone(self) -> None:
        self.enter_demo(space=1)
        line = self.page.get_by_label("Call out a reading")
        line.fill("low width 1102")
        expect(self.page.get_by_text("✓ low back width 1102 mm")).to_be_visible()
        self.page.locator("form.callout").get_by_role("button", name="Keep").click()
        expect(line).to_have_value("")
