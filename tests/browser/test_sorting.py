"""Sort and Brief by hand: quick-adds without the mouse, a spreadsheet, a purge, pins that make the rest flow."""

from playwright.sync_api import expect

from pinakotheke.server import models

from .driver import BrowserTestCase

THIRTY = (
    "14 shirts, hers, daily", "6 bath towels", "4 tyres 205/55 R16", "box 45 x 32 x 28, Christmas, yearly", "3 kg rice",
    "2 boxes of tea", "9 jars of food", "5 kg flour", "12 socks, Juna, daily", "1 vacuum", "3 brooms", "2 detergents",
    "1 bleach", "4 pots, daily", "6 mugs", "20 novels", "3 board games", "7 pairs of trousers, his", "2 ladders",
    "1 kayak", "2 bicycles, daily", "5 saws", "1 petrol can", "4 batteries", "2 chargers, daily", "3 vases",
    "8 picture books, Juna", "2 old easels, 600 x 90 x 1100, sell", "1 sewing machine", "10 A3 pads, give",
)  # fmt: skip


class SortTests(BrowserTestCase):
    def test_thirty_quick_adds_without_the_mouse(self) -> None:
        space = self.enter_demo("inventory", space=1)
        page, before = self.page, space.things.count()
        field = page.get_by_label("Add things")
        field.focus()
        for line in THIRTY:
            page.keyboard.type(line)
            page.keyboard.press("Enter")
            expect(field).to_have_value("")
            expect(field).to_be_focused()
        self.assertEqual(space.things.count(), before + len(THIRTY))
        shirts = space.things.get(name="Shirts", count=14)
        self.assertEqual((shirts.owner, shirts.frequency, shirts.count), ("maren", "daily", 14))
        self.assertEqual(space.things.get(name="Old easels").decision, "sell")
        expect(page.locator("[data-thing]").first).to_be_visible()
        # Tab and type in the table, without the mouse as well.
        page.locator(".things-scroll").focus()
        page.keyboard.press("Home")
        towels = space.things.filter(name="Bath towels").earliest("pk")  # six more were added
        count = page.locator(f"[data-thing='{towels.key}']").get_by_label("Count of Bath towels")
        count.focus()
        page.keyboard.press("Control+a")
        page.keyboard.type("8")
        page.keyboard.press("Enter")
        expect(count).to_have_value("8")

    def test_a_spreadsheet_with_renamed_columns(self) -> None:
        space = self.enter_demo("inventory", space=1)
        page, before = self.page, space.things.count()
        page.get_by_role("button", name="Bring a list").click()
        rows = "Stueck;Gegenstand;How often\n14;shirts;daily\n2;flurbs;\nmany;hats;rarely\n"
        page.get_by_label("Spreadsheet file").set_input_files(
            {"name": "house.csv", "mimeType": "text/csv", "buffer": rows.encode()}
        )
        dialog = page.get_by_role("dialog")
        expect(dialog).to_contain_text("3 rows")
        dialog.get_by_label("Stueck").select_option("count")
        dialog.get_by_label("Gegenstand").select_option("name")
        expect(dialog.get_by_label("How often")).to_have_value("frequency")
        dialog.get_by_role("button", name="Take 3 rows in").click()
        expect(dialog).to_contain_text("2 groups were taken in; 1 rows were not")
        expect(dialog).to_contain_text("Row 4: “many” is no count")
        dialog.get_by_role("button", name="Done").click()
        expect(page.get_by_label("Count of flurbs")).to_have_value("2")
        expect(page.get_by_label("flurbs: size it")).to_be_visible()
        self.assertEqual(space.things.count(), before + 2)

    def test_a_guess_is_changed_by_one_key_and_known_from_then_on(self) -> None:
        space = self.enter_demo("inventory", space=1)
        page = self.page
        field = page.get_by_label("Add things")
        field.fill("3 plaid bonnet hats and 2 coats")
        field.press("Enter")
        said = page.locator(".understood")
        expect(said).to_contain_text("a guess: hats")
        expect(page.get_by_label("Plaid bonnet hats: hats?")).to_be_visible()
        field.press("ArrowDown")
        expect(said).not_to_contain_text("a guess")
        kind = space.things.get(name="Plaid bonnet hats").kind
        self.assertNotEqual(kind, "hat")
        expect(page.get_by_label("Plaid bonnet hats: hats?")).to_have_count(0)
        field.fill("1 plaid bonnet hat")
        field.press("Enter")
        expect(field).to_have_value("")
        self.assertEqual(space.things.get(name="Plaid bonnet hat").kind, kind)
        page.get_by_role("button", name="More…").click()
        page.get_by_role("menuitem", name="Words of this house…").click()
        dialog = page.get_by_role("dialog")
        expect(dialog).to_contain_text("plaid bonnet hat")
        dialog.get_by_role("button", name="Forget").click()
        expect(dialog).to_contain_text("None yet")

    def test_what_nobody_knows_is_sized(self) -> None:
        space = self.enter_demo("inventory", space=1)
        page = self.page
        field = page.get_by_label("Add things")
        field.fill("2 flurbs")
        field.press("Enter")
        page.get_by_label("Flurbs: size it").click()
        page.get_by_label("Size of one of Flurbs").fill("400 x 300 x 200")
        page.keyboard.press("Enter")
        expect(page.get_by_label("Flurbs: size it")).to_have_count(0)
        self.assertEqual(space.things.get(name="Flurbs").size, [400, 300, 200])

    def test_a_note_is_pasted_and_put_right_by_the_keys(self) -> None:
        space = self.enter_demo("inventory", space=1)
        page, before = self.page, space.things.count()
        page.get_by_role("button", name="Paste a note…").click()
        note = page.get_by_role("textbox", name="Note")
        note.fill("Maren:\n- 14 shirts, daily\n- plaid bonnet hats\n- flurbs\n\nTravel: 2 rucksacks\n1.2 m of books")
        note.press("Control+Enter")
        dialog = page.get_by_role("dialog")
        rows = dialog.locator("tbody tr")
        expect(rows).to_have_count(5)
        expect(rows.nth(0)).to_be_focused()
        expect(dialog).to_contain_text("3 to look at")
        for key in ("ArrowDown", "ArrowRight", "4", "ArrowDown", "Enter", "Enter"):
            page.keyboard.press(key)
        expect(dialog).to_contain_text("all looked at")
        expect(dialog.get_by_role("button", name="Take 5 groups in")).to_be_focused()
        page.keyboard.press("Enter")
        expect(dialog).to_have_count(0)
        self.assertEqual(space.things.count(), before + 5)
        hats = space.things.get(name="Plaid bonnet hats")
        self.assertEqual((hats.count, hats.owner, hats.unsure), (4, "maren", ""))
        self.assertEqual(space.things.get(name="Rucksacks").together, "Travel")
        page.get_by_label("Undo (u)").click()
        expect(page.get_by_label("Count of Plaid bonnet hats")).to_have_count(0)

    def test_several_lines_pasted_into_the_line_become_a_note(self) -> None:
        self.enter_demo("inventory", space=1)
        page = self.page
        page.get_by_label("Add things").evaluate(
            "field => { const data = new DataTransfer(); data.setData('text', '3 hats\\n2 scarves');"
            " field.dispatchEvent(new ClipboardEvent('paste', {clipboardData: data, bubbles: true, cancelable: true})) }"
        )
        expect(page.get_by_role("dialog").locator("tbody tr")).to_have_count(2)

    def test_a_purge_changes_the_ledger(self) -> None:
        self.enter_demo("inventory")
        page = self.page
        asked = page.locator(".ledger .account-row[data-storage=hanging]")
        expect(asked).to_be_visible()
        before = asked.text_content() or ""
        pile = page.get_by_role("group", name="Piles").get_by_role("button", name="sell")
        expect(pile).to_have_count(0)
        for name in ("Select Dresses", "Select Jackets"):
            page.get_by_label(name).first.click()
        page.get_by_label("decision of the selected").select_option("sell")
        expect(pile).to_contain_text("frees")
        expect(asked).not_to_have_text(before)
        pile.click()
        expect(page.locator("[data-thing]")).to_have_count(2)
        page.get_by_role("button", name="Clear").click()
        page.get_by_label("Undo (u)").click()
        expect(pile).to_have_count(0)
        expect(asked).to_have_text(before)

    def test_pin_and_reflow(self) -> None:
        self.enter_demo("inventory")
        page = self.page
        page.get_by_text("Zones of the house").click()
        shed = page.get_by_role("region", name="Coal shed")
        gas = shed.get_by_role("button", name="1 Gas cylinder")
        gas.click()
        expect(shed).to_contain_text("outdoors, as fuel and gas must be")
        page.get_by_label("Pin Gas cylinder to a space").select_option(label="Boiler cupboard")
        boiler = page.get_by_role("region", name="Boiler cupboard")
        pinned = boiler.get_by_role("button", name="Gas cylinder")
        expect(pinned).to_contain_text("●")
        expect(page.get_by_text("Gas cylinder may not be kept in Boiler cupboard")).to_be_visible()
        boiler.get_by_role("button", name="Leave it to the tool").click()
        expect(shed.get_by_role("button", name="1 Gas cylinder")).to_be_visible()
        expect(page.get_by_text("Gas cylinder may not be kept")).to_have_count(0)

    def test_five_thousand_rows(self) -> None:
        space = self.enter_demo("inventory", space=1)
        space.household.thing_set.exclude(space=space).delete()
        models.Thing.objects.bulk_create(
            models.Thing(household=space.household, space=space, key=f"x{n}", name=f"Hat {n}", kind="hat", count=1,
                         frequency="weekly", decision="keep") for n in range(4900)
        )  # fmt: skip
        page = self.page
        page.reload()
        expect(page.get_by_label("Count of Hat 0", exact=True)).to_be_visible()
        self.assertLess(page.locator("[data-thing]").count(), 80)  # only what is in sight is in the page
        page.locator(".things-scroll").evaluate("box => box.scrollTo(0, box.scrollHeight)")
        expect(page.get_by_label("Count of Hat 4899", exact=True)).to_be_visible()


class BriefTests(BrowserTestCase):
    def test_the_plan_of_work(self) -> None:
        self.enter_demo("house")
        page = self.page
        page.get_by_label("Goal of the session").fill("Hooks at Juna's height")
        page.get_by_role("button", name="Plan it").click()
        session = page.get_by_label("Done: Hooks at Juna's height")
        session.click()  # the server says whether it is done
        expect(page.locator(".sessions li.done", has_text="Hooks at Juna")).to_contain_text("90 of 90 min")
        page.get_by_label("Drop Hooks at Juna's height").click()
        expect(session).to_have_count(0)

    def test_what_the_house_has_and_what_spaces_are_for(self) -> None:
        self.enter_demo("house")
        page = self.page
        page.get_by_label("Of what").fill("Milk crates")
        panel = page.locator(".panel", has_text="What the house has already")
        panel.get_by_label("Outside size").fill("320 x 320 x 280")
        panel.get_by_role("button", name="List it").click()
        expect(page.get_by_text("Milk crates")).to_be_visible()
        page.get_by_label("Take Milk crates off the list").click()
        expect(page.get_by_text("Milk crates")).to_have_count(0)
        page.get_by_label("Another zone of Coal shed").select_option("tools")
        expect(page.get_by_label("Coal shed is no longer for tools")).to_be_visible()

    def test_who_is_kept_from_what(self) -> None:
        self.enter_demo("house")
        page = self.page
        page.get_by_label("What Juna is kept from").click()
        page.get_by_label("blade", exact=True).click()
        expect(page.get_by_label("What Juna is kept from")).not_to_contain_text("blade")
        page.get_by_label("Hand of Maren Holt").select_option("left")
        expect(page.get_by_label("Hand of Maren Holt")).to_have_value("left")
