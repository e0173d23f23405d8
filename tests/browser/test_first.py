"""The first minutes: an empty house, people by a click, a kind of space by its drawing, a walk that one can leave."""

from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import expect

from pinakotheke.server import models

from .driver import BrowserTestCase


class FirstTests(BrowserTestCase):
    def empty_house(self) -> models.Household:
        page = self.open()
        page.get_by_label("Name").first.fill("newcomer")
        page.get_by_role("textbox", name="Password").fill("a-long-enough-one")
        page.get_by_role("button", name="Register").click()
        page.get_by_label("New household").fill("Elm")
        page.get_by_role("button", name="Create household").click()
        expect(page.get_by_text("Who lives here?")).to_be_visible()
        return models.Household.objects.get(name="Elm")

    def test_who_lives_here_in_three_clicks(self) -> None:
        house = self.empty_house()
        page = self.page
        expect(page.get_by_text("a typical adult is reckoned with")).to_be_visible()
        for who in ("An adult", "An adult", "A child"):
            people = house.person_set.count()
            page.get_by_role("button", name=f"+ {who}").click()
            expect(page.get_by_text("live here; more is said in Brief")).to_be_visible()
            while house.person_set.count() == people:
                page.wait_for_timeout(20)
        self.assertEqual(
            list(house.person_set.order_by("pk").values_list("name", "age", "stature")),
            [("Adult", "adult", 1700), ("Adult 2", "adult", 1700), ("Child", "child", 1220)],
        )

    def test_a_kind_of_space_by_its_drawing_and_the_walk(self) -> None:
        house = self.empty_house()
        page = self.page
        walk = page.get_by_role("complementary", name="First walk")
        expect(walk).to_contain_text("1 of 5")
        self.assertEqual(Axe().run(page).response["violations"], [])
        page.get_by_label("Name of the space").fill("Nook")
        page.get_by_role("radio", name="recess", exact=True).check()
        page.get_by_role("button", name="Add space").click()
        expect(walk).to_contain_text("2 of 5")
        self.assertEqual(house.space_set.get().facts["kind"], "recess")
        for step in ("3 of 5", "4 of 5", "5 of 5"):
            walk.get_by_role("button", name="Next").click()
            expect(walk).to_contain_text(step)
        walk.get_by_role("button", name="Back").click()
        expect(walk).to_contain_text("4 of 5")
        walk.get_by_role("button", name="Leave the walk").click()
        expect(walk).to_have_count(0)
        page.reload()
        expect(page.get_by_role("button", name="Nook")).to_be_visible()
        expect(walk).to_have_count(0)
        page.get_by_role("button", name="Nook").click()
        page.get_by_role("menuitem", name="Walk through the stages").click()
        expect(walk).to_be_visible()

    def test_checks_work_before_anybody_is_named(self) -> None:
        house = self.empty_house()
        page = self.page
        page.get_by_label("Name of the space").fill("Nook")
        page.get_by_role("button", name="Add space").click()
        expect(page.get_by_role("button", name="Nook")).to_be_visible()
        page.get_by_role("link", name="Sort").click()
        for line in ("14 shirts, daily", "winter coats (3)"):
            page.get_by_label("Add things").fill(line)
            page.get_by_label("Add things").press("Enter")
            expect(page.get_by_label("Add things")).to_have_value("")
        expect(page.locator(".ledger")).to_contain_text("hanging")
        self.assertEqual(house.thing_set.count(), 2)
