"""Words on the drawings: none under 12 px, no two over each other, at the desk and on a phone."""

from typing import Any, cast

from django.test.utils import override_settings
from playwright.sync_api import expect

from pinakotheke.server.actions.layout import ask

from .chromium import DESK, PHONE
from .driver import BrowserTestCase

WORDS = """
() => [...document.querySelectorAll('.sheet svg.drawing')].flatMap((svg, drawing) => {
  const room = svg.getBoundingClientRect()
  return [...svg.querySelectorAll('text')].map((text) => {
    const box = text.getBoundingClientRect(), matrix = text.getScreenCTM()
    return {drawing, words: text.textContent, turned: text.hasAttribute('transform'),
            px: parseFloat(text.getAttribute('font-size')) * Math.hypot(matrix.a, matrix.b),
            x0: box.left, x1: box.right, y0: box.top, y1: box.bottom}
  }).filter((t) => t.x1 > room.left && t.x0 < room.right && t.y1 > room.top && t.y0 < room.bottom)
})
"""
LETTERS = 0.6
"""Share of a line's box that its letters take, from the middle."""


class LetteringTests(BrowserTestCase):
    def words(self) -> list[dict[str, Any]]:
        self.page.locator(".sheet svg.drawing text").first.wait_for()
        self.page.wait_for_timeout(300)
        found = cast("list[dict[str, Any]]", self.page.evaluate(WORDS))
        for w in found:
            across, up = w["x1"] - w["x0"], w["y1"] - w["y0"]
            if w["turned"] and up > across:
                w["x0"], w["x1"] = w["x0"] + across * (1 - LETTERS) / 2, w["x1"] - across * (1 - LETTERS) / 2
            else:
                w["y0"], w["y1"] = w["y0"] + up * (1 - LETTERS) / 2, w["y1"] - up * (1 - LETTERS) / 2
        return found

    def faults(self) -> list[str]:
        words = self.words()
        self.assertGreater(len(words), 2)
        small = [f"{w['words']}: {w['px']:.1f} px" for w in words if w["px"] < 12]
        over = [
            f"{a['words']} over {b['words']}"
            for n, a in enumerate(words) for b in words[:n]
            if a["drawing"] == b["drawing"]
            and min(a["x1"], b["x1"]) - max(a["x0"], b["x0"]) > 1 and min(a["y1"], b["y1"]) - max(a["y0"], b["y0"]) > 1
        ]  # fmt: skip
        return small + over

    def test_every_word_of_every_survey_and_of_the_design_can_be_read(self) -> None:
        closet = self.enter_demo("layout")
        found: dict[str, list[str]] = {}
        for size in (DESK, PHONE):
            self.page.set_viewport_size({"width": size[0], "height": size[1]})
            self.go(closet, "layout")
            found[f"design, {size}"] = self.faults()
            for space in closet.household.space_set.order_by("pk"):
                self.go(space, "survey")
                found[f"{space.name}, {size}"] = self.faults()
        self.assertEqual({where: what for where, what in found.items() if what}, {})

    def test_every_word_of_a_design_of_every_other_space_can_be_read(self) -> None:
        closet = self.enter_demo("layout")
        found: dict[str, list[str]] = {}
        with override_settings(SOLVE_EFFORT=0.02):
            spaces = [s for s in closet.household.space_set.order_by("pk") if s.pk != closet.pk]
            for space in spaces:
                ask(closet.household.members.get(), space.pk)
        for size in (DESK, PHONE):
            self.page.set_viewport_size({"width": size[0], "height": size[1]})
            for space in spaces:
                if not space.designs.exists():
                    continue
                self.go(space, "layout")
                found[f"{space.name}, {size}"] = self.faults()
                laid = self.page.get_by_label("Walls").get_by_text("round the plan")
                if laid.count():
                    laid.click()
                    expect(self.page.locator(".title-block")).to_contain_text("Walls round the plan")
                    found[f"{space.name} round its plan, {size}"] = self.faults()
        self.assertGreater(len(found), 20)
        self.assertEqual({where: what for where, what in found.items() if what}, {})

    def test_what_has_no_room_for_its_words_is_numbered_with_a_key(self) -> None:
        closet = self.enter_demo("layout")
        self.page.set_viewport_size({"width": PHONE[0], "height": PHONE[1]})
        self.go(closet, "layout")
        numbers = {w["words"] for w in self.words() if w["words"].isdigit() and len(w["words"]) < 3}
        key = self.page.get_by_role("list", name="Key to the numbers").get_by_role("listitem")
        self.assertTrue(numbers)
        self.assertEqual(numbers, {row.get_attribute("value") for row in key.all()} & numbers)
        for text in key.all_inner_texts():
            self.assertNotIn("…", text)
