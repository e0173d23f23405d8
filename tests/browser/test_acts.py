"""What a hand does on the page: undo in the order it was asked, what a drawing says turned."""

import json
from typing import Any

from playwright.sync_api import Route, expect

from pinakotheke.core.drawing.svg import CAPTION
from pinakotheke.server import models

from .driver import BrowserTestCase

UPRIGHT = {"layer": "note", "x": 300, "y": 400, "text": "Upright", "size": 40, "anchor": "middle", "turn": 90,
           "of": "", "halo": False, "caption": False}  # fmt: skip


class UndoTests(BrowserTestCase):
    def test_two_quick_undos_on_a_slow_line_take_back_two_acts_in_order(self) -> None:
        space = self.enter_demo("house")
        page, house = self.page, space.household
        name = page.get_by_label("Name of the household")
        for text in ("Halt one", "Halt two"):
            name.fill(text)
            name.press("Enter")
            expect(page.get_by_role("heading", level=1)).to_contain_text(text)

        def slowly(route: Route) -> None:
            page.wait_for_timeout(300)
            route.continue_()

        page.route("**/api/households/*", slowly)
        name.press("Tab")
        page.locator("body").click(position={"x": 5, "y": 5})
        page.keyboard.press("u")
        page.keyboard.press("u")
        expect(page.get_by_role("heading", level=1)).to_contain_text("The Halt")
        house.refresh_from_db()
        self.assertEqual((house.name, house.version), ("The Halt", 5))

    def test_what_an_act_answers_shows_while_the_page_was_asking_again(self) -> None:
        self.enter_demo("house")
        page, held = self.page, list[Route]()

        def held_up(route: Route) -> None:
            if route.request.method == "GET":
                held.append(route)
            else:
                route.continue_()

        page.route("**/api/households/*", held_up)
        page.context.set_offline(True)
        page.context.set_offline(False)  # back on line, the page asks for the house again
        for _ in range(100):
            page.wait_for_timeout(0 if held else 100)
        self.assertTrue(held, "the page asks again once it is back")
        page.get_by_label("Name", exact=True).fill("Ottilie")
        page.get_by_role("button", name="Add person").click()
        expect(page.get_by_label("Stature of Ottilie")).to_be_visible()
        for route in held:
            route.abort()
        page.wait_for_timeout(300)
        expect(page.get_by_label("Stature of Ottilie")).to_be_visible()

    def test_a_person_taken_out_comes_back_with_their_things(self) -> None:
        space = self.enter_demo("house")
        page, things = self.page, models.Thing.objects.filter(household=space.household_id)
        person = space.household.person_set.get(name="Juna")
        theirs = set(things.filter(owner=person.key).values_list("key", flat=True))
        self.assertTrue(theirs)
        page.get_by_label("Take out Juna").click()
        expect(page.get_by_label("Take out Juna")).to_have_count(0)
        self.assertFalse(things.filter(owner=person.key).exists())
        page.get_by_label("Undo (u)").click()
        expect(page.get_by_label("Take out Juna")).to_be_visible()
        self.assertEqual(set(things.filter(owner=person.key).values_list("key", flat=True)), theirs)


class DrawnTests(BrowserTestCase):
    def test_a_turned_word_and_a_caption_stand_as_on_paper(self) -> None:
        self.enter_demo("house")

        def drawn(route: Route) -> None:
            answer = route.fetch()
            body: Any = answer.json()
            caption = {**UPRIGHT, "text": "Caption", "turn": 0, "caption": True, "x": 500, "y": 600}
            body["sections"][0]["elevation"]["texts"] = [UPRIGHT, caption]
            route.fulfill(response=answer, body=json.dumps(body))

        self.page.route("**/api/spaces/*", drawn)
        self.step_to("survey")
        upright, caption = (self.page.locator(".sheet text").get_by_text(t, exact=True) for t in ("Upright", "Caption"))
        expect(upright).to_have_attribute("transform", "rotate(-90 300 -400)")
        self.assertIsNone(caption.get_attribute("transform"))
        colour = caption.evaluate("el => getComputedStyle(el).fill")
        red, green, blue = (int(CAPTION[n : n + 2], 16) for n in (1, 3, 5))
        self.assertEqual(colour, f"rgb({red}, {green}, {blue})")
        self.assertNotEqual(upright.evaluate("el => getComputedStyle(el).fill"), colour)
