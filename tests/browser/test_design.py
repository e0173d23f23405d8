"""The Design stage by pointer: selecting, moving, sending things, comparing; progress and cancel."""

import re

from playwright.sync_api import Locator, expect

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
        expect(page.get_by_role("toolbar", name="With rail")).to_contain_text("holds")
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
        expect(page.locator(".chosen-line")).to_contain_text("At a glance:")

    def test_many_quick_moves_all_arrive_in_order(self) -> None:
        space = self.enter_demo("layout")
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
            row = space.designs.order_by("pk").first()
            steps = [c["steps"] for c in row.done] if row else []
            if len(steps) == 8:
                break
            page.wait_for_timeout(200)
        self.assertEqual(steps, [-1] * 4 + [1] * 4)
        expect(page.locator("[data-part][aria-pressed=true]")).to_have_attribute("aria-label", name or "")

    def bay(self, index: int) -> Locator:
        """Select a bay by the keyboard; its acts."""
        self.page.locator(f"[data-bay=bay-{index}]").focus()
        self.page.keyboard.press("Enter")
        return self.page.get_by_role("toolbar", name=f"With bay {index + 1}")

    def test_a_bay_is_selected_widened_by_its_edge_and_narrowed_by_key(self) -> None:
        space = self.enter_demo("layout")
        page = self.page
        page.get_by_label("View").get_by_text("elevation").click()

        def widths() -> list[int]:
            done = [c for row in models.Design.objects.filter(space=space) for c in row.done]
            return [c["steps"] for c in done if c["do"] == "widen"]

        # What is cut to the wall has no other widths: it offers none.
        if "Cleated shelf" in page.locator(".hung[aria-pressed=true]").inner_text():
            expect(self.bay(0).get_by_role("button", name="Wider")).to_have_count(0)
        page.locator(".hung", has_text=re.compile("Carcase|Track")).first.click()
        expect(page.locator(".sheet .drawing")).to_have_attribute("aria-label", re.compile("carcase|track", re.I))
        boxes = [bay.bounding_box() or {"width": 0} for bay in page.locator("[data-bay]").all()]
        edge = page.locator(".bay-edge")
        for widest in sorted(range(len(boxes)), key=lambda n: -boxes[n]["width"]):
            self.bay(widest)
            if edge.count():
                break  # what lies across all of them has no edge
        box = edge.bounding_box()
        assert box is not None
        page.mouse.move(box["x"] + 3, box["y"] + box["height"] / 2)
        page.mouse.down()
        page.mouse.move(box["x"] - 12, box["y"] + box["height"] / 2, steps=4)
        page.mouse.up()
        expect(page.get_by_label("Undo (u)")).to_be_enabled()
        page.keyboard.press("Shift+ArrowRight")
        for _ in range(50):
            if len(widths()) == 2:
                break
            page.wait_for_timeout(100)
        self.assertEqual([step > 0 for step in widths()], [False, True])

    def test_the_bars_acts_are_done_by_a_click_and_by_enter(self) -> None:
        """Add above a part, make it another, copy a bay, lock: each from its button or menu."""
        space = self.enter_demo("layout")
        page = self.page

        def press(one: Locator, key: bool) -> None:
            if key:
                one.press("Enter")
            else:
                # A hand on its way leaves what it lay on: what a card of the gallery tells under the pointer goes with it.
                page.mouse.move(2, 2)
                one.click()

        wanted: list[str] = []
        for key in (False, True):
            for menu in ("add above it", "make it another"):
                page.locator(".can-select[data-part*='-shelf-']").first.focus()
                press(page.get_by_role("button", name="More with this part"), key)
                items = page.get_by_role("menuitem")
                expect(page.get_by_text(menu)).to_be_visible()
                press(items.first if menu == "add above it" else items.last, key)
                wanted.append("add" if menu == "add above it" else "swap")
                self.done_are(space, wanted)
            self.bay(0)
            press(page.get_by_role("button", name="More with this bay"), key)
            press(page.get_by_role("menuitem", name=re.compile("^Copy|^As bay")).first, key)
            wanted.append("copy bay")
            self.done_are(space, wanted)
            for act in ("Lock bay", "Unlock bay"):
                press(self.bay(0).get_by_role("button", name=act, exact=True), key)
                wanted.append("lock bay")
                self.done_are(space, wanted)

    def done_are(self, space: models.Space, wanted: list[str]) -> None:
        """Wait until these are the acts done, in their order."""
        done: list[str] = []
        for _ in range(60):
            done = [c["do"] for row in models.Design.objects.filter(space=space) for c in row.done]
            if done == wanted:
                return
            self.page.wait_for_timeout(100)
        self.assertEqual(done, wanted)

    def test_an_added_shelf_is_there_to_be_moved(self) -> None:
        self.enter_demo("layout")
        page = self.page
        parts = page.locator("[data-part]")
        expect(parts.first).to_be_visible()
        count = parts.count()
        self.bay(0).get_by_role("button", name="Add to this bay").press("Enter")
        page.get_by_role("menuitem", name="Add shelf").press("Enter")
        expect(parts).to_have_count(count + 1)

    def test_the_sheet_is_zoomed_by_wheel_button_and_key_and_panned(self) -> None:
        self.enter_demo("layout")
        page = self.page
        page.get_by_label("View").get_by_text("elevation").click()
        zoom, drawing = page.get_by_label("Zoom", exact=True), page.locator(".sheet .drawing")
        expect(zoom).to_have_text("100%")
        whole = drawing.get_attribute("viewBox")
        page.get_by_label("Larger (+)").click()
        expect(zoom).to_have_text("140%")
        box = drawing.bounding_box()
        assert box is not None
        page.mouse.move(box["x"] + 30, box["y"] + 30)
        page.mouse.wheel(0, -240)
        expect(zoom).not_to_have_text("140%")
        near = drawing.get_attribute("viewBox")
        page.mouse.down()
        page.mouse.move(box["x"] + 5, box["y"] + 12, steps=4)
        page.mouse.up()
        self.assertNotEqual(drawing.get_attribute("viewBox"), near)
        page.keyboard.press("0")
        expect(zoom).to_have_text("100%")
        expect(drawing).to_have_attribute("viewBox", whole or "")

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
        page.get_by_role("button", name="search with this").click()
        page.keyboard.press("Escape")
        expect(page.locator("[data-design=yours]")).to_be_visible(timeout=60_000)
        expect(page.locator("[data-design=yours]")).to_contain_text("As you weigh it")

    def test_the_sliders_show_at_once_which_alternative_leads(self) -> None:
        self.enter_demo("layout")
        page = self.page
        page.get_by_role("button", name="What counts").click()
        leading = page.locator(".leading")
        for name, key in (("money", "Home"), ("easy reach", "Home"), ("tidiness", "Home"), ("room left", "End")):
            page.get_by_role("slider", name=name).focus()
            page.keyboard.press(key)
        expect(leading).to_contain_text("Most room to grow leads")
        searches = models.Solve.objects.count()
        leading.get_by_role("button", name="Choose it").click()
        expect(page.locator("[data-design=roomiest]")).to_have_attribute("aria-pressed", "true")
        expect(leading.get_by_role("button", name="Chosen")).to_be_disabled()
        for name, key in (("room left", "Home"), ("money", "End")):
            page.get_by_role("slider", name=name).focus()
            page.keyboard.press(key)
        expect(leading).to_contain_text("Cheapest leads")
        self.assertEqual(models.Solve.objects.count(), searches)

    def test_a_bay_is_locked_and_the_rest_found_around_it(self) -> None:
        space = self.enter_demo("layout")
        page = self.page
        bays = self.bay(0)
        bays.get_by_role("button", name="Lock bay").click()
        expect(bays.get_by_role("button", name="Unlock bay")).to_be_visible()
        inside = page.locator("[data-part^='b1-']")
        before = [part.get_attribute("aria-label") for part in inside.all()]
        bays.get_by_role("button", name="Find the rest").click()
        expect(page.locator(".search-bar").get_by_role("button", name="Search again")).to_be_visible(timeout=60_000)
        row = space.designs.order_by("pk").first()
        for _ in range(100):
            if row and row.done and row.done[-1]["do"] == "refound":
                break
            page.wait_for_timeout(200)
            row = space.designs.order_by("pk").first()
        assert row is not None
        self.assertEqual([c["do"] for c in row.done], ["lock bay", "refound"])
        expect(bays.get_by_role("button", name="Unlock bay")).to_be_visible()
        self.assertEqual([part.get_attribute("aria-label") for part in inside.all()], before)

    def test_the_left_half_is_locked_as_one_act(self) -> None:
        space = self.enter_demo("layout")
        page = self.page
        self.bay(1).get_by_role("button", name="More with this bay").click()
        page.get_by_role("menuitem", name="Lock from the left up to here").click()
        expect(self.bay(1).get_by_role("button", name="Unlock bay")).to_be_visible()
        row = next(d for d in models.Design.objects.filter(space=space) if d.done)
        self.assertEqual([c["do"] for c in row.done], ["several"])
        self.assertEqual([c["bay"] for c in row.done[0]["commands"]], [0, 1])
        page.keyboard.press("u")
        expect(page.get_by_role("button", name="Lock bay", exact=True)).to_be_visible()

    def test_doors_are_put_on_and_drawn_shut(self) -> None:
        self.enter_demo("layout")
        page = self.page
        page.get_by_role("button", name="What counts").click()
        page.get_by_role("group", name="Finish").get_by_label("Doors").select_option("hinged")
        page.get_by_role("combobox", name="Only these families").click()
        page.get_by_role("option", name="Carcase", exact=True).click()
        page.get_by_role("group", name="Finish").get_by_label("Doors").focus()
        page.get_by_role("button", name="search with this").click()
        page.keyboard.press("Escape")
        card = page.locator("[data-design=cheapest]")
        expect(card).to_contain_text("Carcase", timeout=60_000)
        card.click()
        page.get_by_role("button", name="Shown").click()
        page.get_by_label("Doors drawn", exact=True).select_option("shut")
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

    def test_a_design_is_seen_by_somebodys_eyes_its_drawers_open_and_a_picture_is_kept(self) -> None:
        self.enter_demo("layout")
        page = self.page
        page.get_by_role("button", name="Finish").click()
        page.get_by_role("group", name="Finish").get_by_label("Doors").select_option("curtain")
        expect(page.get_by_label("Undo (u)")).to_be_enabled()
        page.keyboard.press("Escape")
        page.get_by_label("View").get_by_text("walk-round").click()
        view = page.get_by_role("application")
        expect(view).to_have_attribute("data-state", "shown", timeout=60_000)
        whole = view.screenshot()
        page.get_by_label("Whose eyes").select_option(label="as Teodor Lind sees it")
        expect(page.get_by_text("what Teodor Lind reaches")).to_contain_text("380 mm to 1220 mm")
        page.wait_for_timeout(300)
        seated = view.screenshot()
        self.assertNotEqual(seated, whole)
        page.get_by_label("Whose eyes").select_option("")
        page.get_by_label("fronts shut").check()
        page.wait_for_timeout(300)
        self.assertNotEqual(view.screenshot(), whole)
        with page.expect_download() as download:
            page.get_by_role("button", name="Save picture").click()
        self.assertRegex(download.value.suggested_filename, r"\.png$")

    def test_a_part_under_the_pointer_tells_its_rule_its_reach_and_its_load(self) -> None:
        self.enter_demo("layout")
        expect(self.page.locator(".sheet [data-part] > title").first).to_be_attached()
        told = " ".join(self.page.locator(".sheet [data-part] > title").all_text_contents())
        for words in ("is rated for", "the hand comes at", "taken"):
            self.assertIn(words, told)
        contents = self.page.locator(".sheet [data-lies-in] > title")
        self.assertGreater(contents.count(), 3)

    def test_a_trade_off_is_hung_in_the_gallery(self) -> None:
        self.enter_demo("layout")
        page = self.page
        cards = page.locator("[data-design]")
        expect(cards.first).to_be_visible()
        count = cards.count()
        page.get_by_role("button", name="Trade-offs").click()
        page.locator(".trade-list button").first.click()
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

    def test_a_row_is_mirrored_from_the_menu_and_a_part_locked_by_keys(self) -> None:
        self.enter_demo("layout")
        page = self.page
        self.bay(0).get_by_role("button", name="More with this bay").press("Enter")
        page.get_by_role("menuitem", name="Mirror").press("Enter")
        expect(page.get_by_label("Undo (u)")).to_be_enabled()
        page.locator("[data-part*=shelf]").first.focus()
        page.get_by_label("Lock", exact=True).press("Enter")
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
        page.get_by_role("button", name="Shown").click()
        page.get_by_label("What is inside").select_option("silhouettes")
        expect(shapes.nth(hatched + 2)).to_be_attached()
        page.get_by_label("What is inside").select_option("bare")
        expect(shapes).to_have_count(0)
        page.get_by_label("trial marks").check()
        expect(page.locator(".sheet .drawing")).to_be_visible()

    def test_the_proof_says_how_full_what_was_found_and_what_to_tape_first(self) -> None:
        self.enter_demo("layout")
        self.page.get_by_role("button", name="How good it is").click()
        proof = self.page.get_by_role("region", name="How good it is")
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
