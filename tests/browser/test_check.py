"""The Check stage: what was asked and found, bay by bay; an act that mends; the report."""

from io import BytesIO

from playwright.sync_api import expect
from pypdf import PdfReader

from pinakotheke.core.checks import rules
from pinakotheke.server import models

from .chromium import PHONE
from .driver import BrowserTestCase


class CheckTests(BrowserTestCase):
    def test_a_cell_shows_its_own_findings(self) -> None:
        self.enter_demo("checks")
        page = self.page
        expect(page.locator("a.stage[aria-current=page]")).to_contain_text("Check")
        found = page.get_by_role("region", name="What was found")
        expect(found.locator(".finding").first).to_be_visible()
        every = found.locator(".finding").count()
        self.assertGreater(every, 2)
        cell = page.locator(".matrix-cell").last
        told = cell.get_attribute("aria-label") or ""
        cell.click()
        expect(cell).to_have_attribute("aria-pressed", "true")
        expect(found.locator(".finding")).to_have_count(int(cell.inner_text()))
        expect(found.get_by_role("heading").first).to_have_text(
            told.split(",")[0] + ": " + told.split(", ")[1].split(":")[0]
        )
        found.get_by_role("button", name="Show everything").click()
        expect(found.locator(".finding")).to_have_count(every)
        expect(found).to_contain_text("it never permits")

    def test_one_act_mends_what_is_out_of_reach_and_is_undone(self) -> None:
        space = self.enter_demo("checks")
        page = self.page
        high = page.get_by_role("region", name="What was found").locator("[data-code='reach.high']")
        expect(high.first).to_be_visible()
        before = high.count()
        high.first.get_by_role("button", name="What would mend it?").click()
        acts = high.first.get_by_role("list", name="What would mend it")
        expect(acts.get_by_role("listitem").first).to_be_visible()
        acts.get_by_role("button").first.click()
        expect(high).to_have_count(before - 1)
        done = [c for row in models.Design.objects.filter(space=space) for c in row.done]
        self.assertEqual(len(done), 1)
        self.assertIn(done[0]["do"], ("assign", "move"))
        page.get_by_role("button", name="Undo the last act on the design").click()
        expect(high).to_have_count(before)

    def test_all_that_is_checked_is_listed_with_its_source(self) -> None:
        self.enter_demo("checks")
        page = self.page
        page.get_by_text("All that is checked").click()
        expect(page.locator("[data-rule]")).to_have_count(len(rules()))
        expect(page.locator("[data-rule='safety.anchor']")).to_contain_text("F2057")

    def test_the_report_is_printed(self) -> None:
        self.enter_demo("checks")
        link = self.page.get_by_role("link", name="Report (PDF)").get_attribute("href") or ""
        answer = self.page.request.get(self.live_server_url + link)
        text = " ".join(page.extract_text() for page in PdfReader(BytesIO(answer.body())).pages)
        for words in ("what was checked", "Reckoned with", "Does everybody reach what is theirs?", "common practice"):
            self.assertIn(words, " ".join(text.split()))

    def test_on_a_phone_and_where_there_is_no_design(self) -> None:
        space = self.enter_demo("checks")
        page = self.page
        page.set_viewport_size({"width": PHONE[0], "height": PHONE[1]})
        expect(page.locator(".matrix-cell").first).to_be_visible()
        self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), PHONE[0])
        empty = next(s for s in space.household.space_set.order_by("pk") if not s.designs.exists())
        self.open(f"/house/{empty.household_id}/{empty.pk}/checks")
        expect(page.get_by_role("link", name="Go to Design")).to_be_visible()
