"""The page around the stages: finding, units, dark scheme, printing, findings that point, leaving."""

import re

from playwright.sync_api import expect

from .chromium import PHONE
from .driver import BrowserTestCase


class PageTests(BrowserTestCase):
    def test_find_leads_to_a_thing_and_says_where_it_lives(self) -> None:
        self.enter_demo()
        page = self.page
        page.get_by_label("Find (/)").click()
        field = page.get_by_label("Find in this house")
        field.fill("hats")
        # The whole house is asked: hats that lie in another space are found too.
        hit = page.get_by_role("button", name=re.compile("3 Hats.*bay"))
        expect(hit).to_be_visible()
        hit.click()
        expect(page.get_by_label("Add things")).to_be_visible()
        page.keyboard.press("Escape")
        page.get_by_label("Find (/)").click()
        page.get_by_label("Find in this house").fill("zeppelin")
        expect(page.get_by_text("Nothing here is called that")).to_be_visible()

    def test_units_of_the_house_change_every_measure(self) -> None:
        self.enter_demo("house")
        page = self.page
        page.get_by_label("Units").select_option("imperial")
        expect(page.get_by_label("Stature of Juna")).to_have_value("4' 0\"")
        self.step_to("survey")
        expect(page.locator("[data-slot='A|width|low|back|||']")).to_contain_text('95 7/8"')
        expect(page.locator(".title-block")).to_contain_text("inches")
        self.step_to("layout")
        page.locator("[data-part*=rail]").first.click()
        expect(page.get_by_role("toolbar", name="With rail")).to_contain_text('"')
        self.step_to("house")
        page.get_by_label("Undo (u)").click()
        expect(page.get_by_label("Stature of Juna")).to_have_value("1230 mm")

    def test_the_dark_scheme_is_kept(self) -> None:
        self.enter_demo()
        page = self.page
        light = page.evaluate("getComputedStyle(document.body).backgroundColor")
        page.get_by_label("Dark", exact=True).click()
        page.reload()
        expect(page.get_by_label("Light", exact=True)).to_be_visible()
        self.assertNotEqual(page.evaluate("getComputedStyle(document.body).backgroundColor"), light)

    def test_paper_carries_the_sheet_and_the_list_alone(self) -> None:
        self.enter_demo("materials")
        page = self.page
        expect(page.get_by_test_id("bill-total")).to_be_visible()
        page.emulate_media(media="print")
        for gone in (".spine", ".ledger", ".tools", "a[href*='purchase.csv']"):
            expect(page.locator(gone)).to_be_hidden()
        expect(page.locator(".sheet .drawing")).to_be_visible()
        expect(page.get_by_test_id("bill-total")).to_be_visible()
        self.assertGreater(len(page.pdf()), 10_000)

    def test_a_finding_points_at_its_part(self) -> None:
        self.enter_demo("layout")
        page = self.page
        finding = page.locator("[data-code^='reach']").first.get_by_role("button")
        finding.click()
        expect(page.locator("[data-part][aria-pressed=true]")).to_have_count(1)
        page.keyboard.press("Escape")
        expect(page.locator("[data-part][aria-pressed=true]")).to_have_count(0)

    def test_two_alternatives_are_compared_at_one_scale(self) -> None:
        self.enter_demo("layout")
        page = self.page
        page.get_by_role("button", name="This design").click()
        page.get_by_role("menuitem", name="Compare with").click()
        expect(page.get_by_test_id("compared")).to_be_visible()
        drawings = page.get_by_test_id("compared").locator("svg.drawing")
        expect(drawings).to_have_count(2)
        page.wait_for_timeout(400)
        one, other = (drawing.bounding_box() for drawing in drawings.all())
        assert one is not None
        assert other is not None
        self.assertEqual((round(one["width"]), round(one["height"])), (round(other["width"]), round(other["height"])))
        self.assertGreaterEqual(other["x"], one["x"] + one["width"])
        for drawing in drawings.all():
            self.assertGreater(drawing.locator(".is-marked").count(), 0, "what only it has is in colour")
        page.get_by_text("one over the other").click()
        page.get_by_role("slider", name="How much of").focus()
        page.keyboard.press("End")
        expect(page.locator(".drawn-over")).to_have_css("clip-path", "inset(0px 0% 0px 0px)")
        first = page.get_by_label("Compared with").input_value()
        page.get_by_label("Compared with").select_option(index=1)
        self.assertNotEqual(page.get_by_label("Compared with").input_value(), first)
        table = page.get_by_role("region", name="Comparison")
        expect(table.get_by_role("row").nth(1)).to_contain_text("EUR")
        page.keyboard.press("c")
        expect(page.get_by_test_id("compared")).to_have_count(0)

    def test_views_are_swapped_by_key(self) -> None:
        self.enter_demo("layout")
        drawings = self.page.locator(".sheet .drawing")
        expect(drawings).to_have_count(2)
        self.page.keyboard.press("v")
        expect(drawings).to_have_count(1)
        expect(drawings).to_have_attribute("aria-label", re.compile("^Elevation, "))
        self.page.keyboard.press("v")
        expect(drawings).to_have_attribute("aria-label", re.compile("^Plan, "))

    def test_every_number_of_the_ledger_says_why(self) -> None:
        self.enter_demo()
        page = self.page
        page.locator("[data-storage=hanging] .why").click()
        expect(page.get_by_text("asked = what the things take")).to_be_visible()

    def test_leaving_ends_the_session(self) -> None:
        self.enter_demo()
        page = self.page
        self.open("/houses")
        page.get_by_role("button", name="Sign out").click()
        expect(page.get_by_role("button", name="Register")).to_be_visible()
        self.open("/houses")
        expect(page.get_by_role("button", name="Register")).to_be_visible()

    def test_facts_by_form(self) -> None:
        self.enter_demo(space=1)
        page = self.page
        page.get_by_role("button", name="Walls, doors, obstacles").click()
        page.get_by_label("Door", exact=True).select_option("sliding")
        page.get_by_label("A stud, from the left end").fill("112")
        page.get_by_role("button", name="Add stud").click()
        for label, text in (
            ("From the left", "300"),
            ("Up from the floor", "300"),
            ("Width", "80"),
            ("Height", "80"),
        ):
            page.get_by_label(label, exact=True).fill(text)
        page.get_by_role("button", name="Add obstacle").click()
        page.keyboard.press("Escape")
        expect(page.get_by_role("region", name="Readings")).to_contain_text("socket")
        expect(page.locator("[data-of=stud], [data-layer=obstacle]").first).to_be_attached()

    def test_people_come_and_go(self) -> None:
        self.enter_demo("house")
        page = self.page
        page.get_by_label("Name", exact=True).fill("Guest")
        page.get_by_label("Stature", exact=True).fill("tall")
        page.get_by_role("button", name="Add person").click()
        expect(page.get_by_role("alert")).to_contain_text("not a length")
        page.get_by_label("Stature", exact=True).fill("1.81 m")
        page.get_by_role("button", name="Add person").click()
        expect(page.get_by_label("Stature of Guest")).to_have_value("1810 mm")
        expect(page.get_by_role("link", name="Brief")).to_contain_text("4 people")
        page.get_by_label("Take out Guest").click()
        expect(page.get_by_role("link", name="Brief")).to_contain_text("3 people")


class PhoneDesignTests(BrowserTestCase):
    size = PHONE

    def test_one_view_at_a_time(self) -> None:
        self.enter_demo("layout")
        page = self.page
        drawings = page.locator(".sheet .drawing")
        expect(drawings).to_have_count(1)
        page.get_by_text("plan", exact=True).click()
        expect(drawings).to_have_attribute("aria-label", re.compile("^Plan, "))
