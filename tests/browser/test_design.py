"""The Design stage by pointer: selecting, moving, sending things, comparing; progress and cancel."""

from playwright.sync_api import expect

from pinakotheke.server import models

from .driver import BrowserTestCase


class DesignTests(BrowserTestCase):
    def test_the_ledger_answers_a_hand_edit_and_its_undo(self) -> None:
        self.enter_demo("layout")
        page = self.page
        cost = page.get_by_test_id("cost")
        before = cost.inner_text()
        rail = page.locator("[data-part*=rail]").first
        rail.click()
        expect(page.get_by_role("group", name="Selected part")).to_contain_text("holds")
        page.get_by_label("Take out (Delete)").click()
        expect(page.locator(".ledger")).to_contain_text("no place")
        expect(page.locator("[data-code='fit.unplaced']").first).to_be_visible()
        self.assertNotEqual(cost.inner_text(), before)
        page.get_by_label("Undo (u)").click()
        expect(page.locator(".ledger")).not_to_contain_text("no place")
        expect(cost).to_have_text(before)

    def test_many_quick_moves_all_arrive_in_order(self) -> None:
        self.enter_demo("layout")
        page = self.page
        shelf = page.locator("[data-part*=shelf]").first
        name = shelf.get_attribute("aria-label")
        shelf.click()
        for _ in range(4):
            page.keyboard.press("ArrowDown")
        for _ in range(4):
            page.keyboard.press("ArrowUp")
        steps: list[int] = []
        for _ in range(100):
            row = models.Design.objects.order_by("pk").first()
            steps = [c["steps"] for c in row.done] if row else []
            if len(steps) == 8:
                break
            page.wait_for_timeout(200)
        self.assertEqual(steps, [-1] * 4 + [1] * 4)
        expect(page.locator("[data-part][aria-pressed=true]")).to_have_attribute("aria-label", name or "")

    def test_things_are_sent_elsewhere(self) -> None:
        self.enter_demo("layout")
        page = self.page
        page.locator("[data-part*=rail]").first.click()
        page.get_by_label("How many pieces").fill("1")
        page.get_by_role("button", name="Send").click()
        expect(page.locator(".ledger")).to_contain_text("1 piece has no place")
        page.keyboard.press("Escape")
        page.get_by_label("To which part").select_option(index=1)
        page.get_by_role("button", name="Send").click()
        expect(page.locator(".ledger")).not_to_contain_text("no place")

    def test_an_added_shelf_is_there_to_be_moved(self) -> None:
        self.enter_demo("layout")
        page = self.page
        parts = page.locator("[data-part]")
        expect(parts.first).to_be_visible()
        count = parts.count()
        page.get_by_role("button", name="Add", exact=True).click()
        expect(parts).to_have_count(count + 1)

    def test_someone_elses_change_is_said_and_shown(self) -> None:
        self.enter_demo("layout")
        page = self.page
        expect(page.locator("[data-part]").first).to_be_visible()
        models.Design.objects.update(version=99)
        page.locator("[data-part*=shelf]").first.click()
        page.keyboard.press("ArrowDown")
        expect(page.get_by_text("was changed meanwhile")).to_be_visible()
        page.keyboard.press("ArrowDown")
        expect(page.get_by_label("Undo (u)")).to_be_enabled()

    def test_a_running_search_shows_its_progress_and_is_cancelled(self) -> None:
        space = self.enter_demo("survey")
        solve = models.Solve.objects.create(space=space, status="running", progress=0.4, message="improving: cheapest")
        self.go(space, "layout")
        expect(self.page.locator(".search-bar")).to_contain_text("improving: cheapest")
        expect(self.page.get_by_role("progressbar")).to_have_attribute("aria-valuenow", "40")
        self.page.get_by_role("button", name="Cancel").click()
        expect(self.page.get_by_role("button", name="Cancel")).to_be_enabled()
        solve.refresh_from_db()
        self.assertTrue(solve.cancel_requested)
        models.Solve.objects.update(status="cancelled")
        expect(self.page.get_by_text("what was found is kept")).to_be_visible()

    def test_why_not_everything_fits(self) -> None:
        space = self.enter_demo("inventory", space=1)
        self.page.get_by_label("Add things").fill("300 long coats")
        self.page.get_by_role("button", name="Add", exact=True).click()
        expect(self.page.locator(".things [data-thing]")).to_have_count(11)
        self.go(space, "layout")
        self.page.get_by_role("button", name="Find designs").click()
        expect(self.page.get_by_test_id("blocked")).to_contain_text("Not everything has a place")
        expect(self.page.get_by_test_id("blocked")).to_contain_text("Moving")
