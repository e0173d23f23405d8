"""The Design stage by pointer: selecting, moving, sending things, comparing; progress and cancel."""

import re

from playwright.sync_api import expect

from pinakotheke.server import models

from .driver import BrowserTestCase
from .panels import faults


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

    def test_a_part_says_why_it_is_so(self) -> None:
        self.enter_demo("layout")
        page = self.page
        page.locator("[data-part*=rail]").first.click()
        page.get_by_role("button", name="why is it so?").click()
        slip = page.get_by_role("note", name="Why it is so")
        expect(slip).to_contain_text("what creases hangs, as the house wants it")
        self.assertEqual(faults(slip), [])
        page.keyboard.press("Escape")
        expect(slip).to_be_hidden()
        expect(page.locator(".gallery .label").first).to_contain_text("At a glance:")

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
        expect(self.page.get_by_text("what was found is kept")).to_be_visible()
        solve.refresh_from_db()
        self.assertTrue(solve.cancel_requested)

    def test_a_shelf_is_dragged_by_whole_pitches_and_undone_after_a_reload(self) -> None:
        space = self.enter_demo("layout")
        page = self.page
        page.get_by_label("View").get_by_text("elevation").click()
        shelf = page.locator("[data-part*='-shelf-']").first
        before = shelf.get_attribute("aria-label") or ""
        box = shelf.bounding_box()
        assert box is not None
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        page.mouse.move(x, y)
        page.mouse.down()
        page.mouse.move(x, y - 20, steps=4)
        page.mouse.up()
        expect(shelf).not_to_have_attribute("aria-label", before)
        self.go(space, "layout")
        expect(page.locator("[data-part*='-shelf-']").first).not_to_have_attribute("aria-label", before)
        page.get_by_label("Undo (u)").click()
        expect(page.locator("[data-part*='-shelf-']").first).to_have_attribute("aria-label", before)

    def test_the_weights_are_slid_and_searched_with(self) -> None:
        self.enter_demo("layout")
        page = self.page
        page.get_by_role("button", name="What counts").click()
        slider = page.get_by_role("slider", name="easy reach")
        slider.focus()
        for _ in range(6):
            page.keyboard.press("ArrowRight")
        expect(slider).to_have_attribute("aria-valuenow", "10")
        page.get_by_role("button", name="Search with these").click()
        page.keyboard.press("Escape")
        expect(page.locator("[data-design=yours]")).to_be_visible(timeout=60_000)
        expect(page.locator("[data-design=yours]")).to_contain_text("As you weigh it")

    def test_a_bay_is_locked_and_the_rest_found_around_it(self) -> None:
        self.enter_demo("layout")
        page = self.page
        bays = page.get_by_role("group", name="Bays")
        bays.get_by_role("button", name="Lock bay").click()
        expect(bays.get_by_role("button", name="Unlock bay")).to_be_visible()
        inside = page.locator("[data-part^='b1-']")
        before = [part.get_attribute("aria-label") for part in inside.all()]
        bays.get_by_role("button", name="Find the rest").click()
        expect(page.locator(".search-bar").get_by_role("button", name="Search again")).to_be_visible(timeout=60_000)
        row = models.Design.objects.order_by("pk").first()
        for _ in range(100):
            if row and row.done and row.done[-1]["do"] == "refound":
                break
            page.wait_for_timeout(200)
            row = models.Design.objects.order_by("pk").first()
        assert row is not None
        self.assertEqual([c["do"] for c in row.done], ["lock bay", "refound"])
        expect(bays.get_by_role("button", name="Unlock bay")).to_be_visible()
        self.assertEqual([part.get_attribute("aria-label") for part in inside.all()], before)

    def test_doors_are_put_on_and_drawn_shut(self) -> None:
        self.enter_demo("layout")
        page = self.page
        page.get_by_role("button", name="What counts").click()
        page.get_by_role("group", name="Finish").get_by_label("Doors").select_option("hinged")
        page.get_by_role("combobox", name="Only these families").click()
        page.get_by_role("option", name="Carcase", exact=True).click()
        page.get_by_role("group", name="Finish").get_by_label("Doors").focus()
        page.get_by_role("button", name="Search with these").click()
        page.keyboard.press("Escape")
        card = page.locator("[data-design=cheapest]")
        expect(card).to_contain_text("Carcase", timeout=60_000)
        card.click()
        page.get_by_label("Doors", exact=True).select_option("shut")
        expect(page.locator(".sheet [data-of^=door]").first).to_be_visible()
        expect(page.locator(".sheet [data-layer=content]")).to_have_count(0)

    def test_the_view_one_walks_round_is_drawn_and_turns_by_key(self) -> None:
        self.enter_demo("layout")
        page = self.page
        page.get_by_label("View").get_by_text("walk-round").click()
        view = page.get_by_role("application")
        expect(view).to_have_attribute("data-state", "shown", timeout=60_000)
        expect(page.locator(".title-block")).to_contain_text("Walk-round")
        before = view.screenshot()
        self.assertGreater(len(before), 6_000)  # more than a bare ground
        view.focus()
        for _ in range(4):
            page.keyboard.press("ArrowLeft")
        page.wait_for_timeout(300)
        self.assertNotEqual(view.screenshot(), before)

    def test_a_point_of_the_frontier_is_hung_in_the_gallery(self) -> None:
        self.enter_demo("layout")
        page = self.page
        cards = page.locator("[data-design]")
        expect(cards.first).to_be_visible()
        count = cards.count()
        page.locator(".frontier-list button").first.click()
        expect(cards).to_have_count(count + 1)
        expect(page.locator("[data-design^=frontier]")).to_have_attribute("aria-pressed", "true")

    def test_a_version_is_kept_under_a_name_and_taken_down(self) -> None:
        self.enter_demo("layout")
        page = self.page
        page.get_by_role("button", name="This design").click()
        page.get_by_role("menuitem", name="Keep a version").click()
        page.get_by_label("Name of this version").fill("Before the coats")
        page.keyboard.press("Enter")
        kept = page.locator("[data-design=before-the-coats]")
        expect(kept).to_have_attribute("aria-pressed", "true")
        page.get_by_role("button", name="This design").click()
        page.get_by_role("menuitem", name="Take down").click()
        expect(kept).to_have_count(0)

    def test_a_row_is_mirrored_from_the_menu_and_a_part_locked_by_its_button(self) -> None:
        self.enter_demo("layout")
        page = self.page
        page.get_by_role("group", name="Bays").get_by_role("button", name="Change bay").click()
        page.get_by_role("menuitem", name="Mirror").click()
        expect(page.get_by_label("Undo (u)")).to_be_enabled()
        page.locator("[data-part*=shelf]").first.click()
        page.get_by_label("Lock", exact=True).click()
        expect(page.get_by_label("Unlock", exact=True)).to_be_visible()
        expect(page.locator(".part-shape.is-locked")).to_have_count(1)
        page.keyboard.press("u")
        expect(page.get_by_label("Lock", exact=True)).to_be_visible()

    def test_a_bay_is_cut_through_and_things_shown_piece_by_piece(self) -> None:
        self.enter_demo("layout")
        page = self.page
        view = page.get_by_label("View")
        view.get_by_text("section").click()
        expect(page.locator(".sheet .drawing")).to_have_attribute("aria-label", re.compile("^Section, "))
        page.get_by_label("Bay cut through").select_option(index=1)
        expect(page.locator(".title-block")).to_contain_text("Section through bay 2")
        view.get_by_text("elevation").click()
        shapes = page.locator(".sheet [data-layer=content]")
        hatched = shapes.count()
        page.get_by_label("What is inside").select_option("silhouettes")
        expect(shapes.nth(hatched + 2)).to_be_attached()
        page.get_by_label("What is inside").select_option("bare")
        expect(shapes).to_have_count(0)
        page.get_by_label("trial marks").check()
        expect(page.locator(".sheet .drawing")).to_be_visible()

    def test_the_proof_says_how_full_what_was_found_and_what_to_tape_first(self) -> None:
        self.enter_demo("layout")
        proof = self.page.locator(".proof")
        expect(proof).to_contain_text("% full")
        expect(proof).to_contain_text("Best found")
        expect(proof).to_contain_text("Tape these heights on the wall first")
        expect(proof).to_contain_text("One more, one less")

    def test_why_not_everything_fits(self) -> None:
        space = self.enter_demo("inventory", space=1)
        self.page.get_by_label("Add things").fill("300 long coats")
        self.page.get_by_role("button", name="Add", exact=True).click()
        expect(self.page.locator(".things [data-thing]")).to_have_count(11)
        self.go(space, "layout")
        self.page.get_by_role("button", name="Find designs").click()
        expect(self.page.get_by_test_id("blocked")).to_contain_text("Not everything has a place")
        expect(self.page.get_by_test_id("blocked").get_by_role("list", name="Why")).to_contain_text("Long coats")
        expect(self.page.get_by_test_id("blocked")).to_contain_text("Moving")
        self.page.get_by_role("button", name="Do so: Moving").click()
        expect(self.page.get_by_test_id("blocked")).to_have_count(0, timeout=60_000)
        expect(self.page.locator("[data-design]").first).to_be_visible()
