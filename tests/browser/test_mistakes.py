"""Slips of hand and bad luck: said with the mend, and nothing typed is lost."""

import re

from playwright.sync_api import expect

from pinakotheke.server import models

from .driver import BrowserTestCase


class MistakeTests(BrowserTestCase):
    def test_what_is_misheard_stays_in_the_line(self) -> None:
        self.enter_demo(space=1)
        line = self.page.get_by_label("Call out a reading")
        line.fill("low width 1102; flurb 7")
        expect(self.page.get_by_text("“flurb 7”: this names nothing")).to_be_visible()
        self.page.get_by_role("button", name="Keep").click()
        expect(line).to_have_value("flurb 7")
        self.page.reload()
        expect(self.page.get_by_label("Call out a reading")).to_have_value("flurb 7")

    def test_an_impossible_length_on_a_dimension_line(self) -> None:
        self.enter_demo(space=1)
        self.page.locator("[data-slot] text").first.click()
        field = self.page.locator(".dimension-input input")
        field.fill("3' 14\"")
        field.press("Enter")
        expect(self.page.locator(".dimension-input")).to_contain_text("4' 2\"")
        expect(field).to_have_value("3' 14\"")

    def test_a_thing_no_one_knows(self) -> None:
        self.enter_demo("inventory", space=1)
        field = self.page.get_by_label("Add things")
        field.fill("5 shrits")
        field.press("Enter")
        expect(self.page.locator(".understood")).to_contain_text("5 × Shrits, a guess: shirts")
        field.fill("0 shirts")
        field.press("Enter")
        expect(self.page.get_by_text("A count is 1 to 10,000.")).to_be_visible()
        expect(field).to_have_value("0 shirts")

    def test_cells_are_edited_in_place_and_undone(self) -> None:
        self.enter_demo("inventory", space=1)
        count = self.page.get_by_label("Count of Bath towels")
        count.fill("9")
        count.press("Enter")
        expect(self.page.locator(".demand")).to_contain_text("38 pieces")
        self.page.get_by_label("Undo (u)").click()
        expect(count).to_have_value("6")
        count.fill("many")
        count.press("Enter")
        expect(count).to_have_value("6")
        self.page.get_by_label("Take out Bath towels").click()
        expect(self.page.locator(".things [data-thing]")).to_have_count(9)
        self.page.get_by_label("Undo (u)").click()
        expect(self.page.locator(".things [data-thing]")).to_have_count(10)

    def test_a_survey_changed_by_someone_else(self) -> None:
        self.enter_demo(space=1)
        models.Space.objects.update(version=50)
        line = self.page.get_by_label("Call out a reading")
        line.fill("low width 1102")
        self.page.get_by_role("button", name="Keep").click()
        expect(self.page.get_by_text("was changed meanwhile")).to_be_visible()
        expect(line).to_have_value("low width 1102")
        self.page.get_by_role("button", name="Keep").click()
        expect(line).to_have_value("")

    def test_the_server_is_away_for_a_moment(self) -> None:
        space = self.enter_demo(space=1)
        away = re.compile("/api/spaces/[0-9]+/(call-out|arrivals)$")
        self.page.route(away, lambda route: route.abort())
        line = self.page.get_by_label("Call out a reading")
        line.fill("low width 1102")
        self.page.get_by_role("button", name="Keep").click()
        waits = self.page.get_by_role("status").filter(has_text="1 reading waits on this device (low width 1102)")
        expect(waits).to_be_visible()
        self.go(space, "survey")  # a reload loses nothing
        expect(waits).to_be_visible()
        self.page.unroute(away)
        expect(waits).to_have_count(0)
        expect(self.page.get_by_role("region", name="Readings")).to_contain_text("1102 mm")

    def test_a_wrong_password_and_a_bad_house_file(self) -> None:
        page = self.open()
        page.get_by_label("Name").fill("nobody")
        page.get_by_label("Password").first.fill("not-the-one")
        page.get_by_role("button", name="Sign in").click()
        expect(page.get_by_role("alert")).to_contain_text("do not go together")
        page.get_by_role("button", name="Register").click()
        expect(page.get_by_label("New household")).to_be_visible()
        page.locator("input[type=file]").set_input_files(
            {"name": "x.house.json", "mimeType": "application/json", "buffer": b'{"name": 3, "colour": "red"}'}
        )
        expect(page.get_by_role("alert")).to_contain_text("no such field")

    def test_rules_change_what_is_asked_and_can_be_undone(self) -> None:
        self.enter_demo("house")
        asked = self.page.locator("[data-storage=hanging] .bar")
        clear = self.house
        self.page.get_by_label("Hangers").select_option("padded")
        expect(self.page.get_by_label("Undo (u)")).to_be_enabled()
        clear.refresh_from_db()
        self.assertEqual(clear.rules["hangers"], "padded")
        self.page.get_by_label("Undo (u)").click()
        expect(self.page.get_by_label("Hangers")).to_have_value("ordinary")
        expect(asked).to_be_visible()
