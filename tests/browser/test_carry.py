"""Carrying things about at the Design stage, by the pointer and by keys: taken up, shown where they may go, let go."""

from playwright.sync_api import Locator, expect

from pinakotheke.server import models

from .driver import BrowserTestCase


class CarryTests(BrowserTestCase):
    def test_things_are_taken_up_laid_aside_and_brought_back_by_key(self) -> None:
        self.enter_demo("layout")
        page = self.page
        page.locator("[data-part*=rail]").first.focus()
        page.keyboard.press("t")
        hand = page.get_by_role("group", name="In the hand")
        expect(hand).to_contain_text("step with the arrow keys")
        hand.get_by_role("button", name="Lay it aside").press("Enter")
        expect(page.locator(".ledger")).to_contain_text("no place")
        tray = page.get_by_role("group", name="Without a place")
        while tray.count():
            tray.get_by_role("button").first.press("Enter")
            hand.get_by_label("How many pieces").or_(hand.locator("b")).first.wait_for()
            left = tray.get_by_role("button").count()
            page.keyboard.press("ArrowRight")
            expect(hand.get_by_role("status")).to_contain_text(", at ")
            page.keyboard.press("Enter")
            expect(tray.get_by_role("button")).to_have_count(left - 1)
        expect(page.locator(".ledger")).not_to_contain_text("no place")

    def drag(self, shape: Locator, to: Locator, *, drop: bool = True) -> None:
        """By the mouse, from the middle of one shape to the middle of another."""
        start, end = shape.bounding_box(), to.bounding_box()
        assert start is not None
        assert end is not None
        mouse = self.page.mouse
        mouse.move(start["x"] + start["width"] / 2, start["y"] + start["height"] / 2)
        mouse.down()
        mouse.move(end["x"] + end["width"] / 2, end["y"] + end["height"] / 2, steps=8)
        if drop:
            mouse.up()

    def test_a_thing_is_dragged_to_where_it_is_lit_and_told_what_that_brings(self) -> None:
        self.enter_demo("layout")
        page = self.page
        page.get_by_label("View").get_by_text("elevation").click()
        shelves = page.locator(".sheet [data-lies-in*=shelf]")
        thing, source = shelves.first.get_attribute("data-of"), shelves.first.get_attribute("data-lies-in")
        target = page.locator(f".sheet [data-lies-in*=shelf]:not([data-lies-in='{source}'])").last
        there = target.get_attribute("data-lies-in")
        self.drag(shelves.first, target, drop=False)
        hand = page.get_by_role("group", name="In the hand")
        expect(hand.get_by_role("status")).to_contain_text("shelf, bay")
        expect(page.locator(".landing.is-aimed")).to_have_attribute("data-landing", there or "")
        expect(page.locator(".in-hand")).to_be_visible()
        page.mouse.up()
        expect(hand).to_have_count(0)
        expect(page.locator(f".sheet [data-of='{thing}'][data-lies-in='{there}']")).to_have_count(1)
        page.keyboard.press("u")
        expect(page.locator(f".sheet [data-of='{thing}'][data-lies-in='{source}']")).to_have_count(1)

    def test_what_two_parts_hold_is_exchanged_as_one_act(self) -> None:
        space = self.enter_demo("layout")
        page = self.page
        page.locator(".can-select[data-part*=shelf]").first.click()
        page.get_by_role("button", name="Take up what it holds (t)").click()
        hand = page.get_by_role("group", name="In the hand")
        hand.get_by_label("in exchange").check()
        page.keyboard.press("ArrowRight")
        hand.get_by_role("button", name="Put it there").click()
        expect(hand).to_have_count(0)
        expect(page.get_by_label("Undo (u)")).to_be_enabled()
        row = next(d for d in models.Design.objects.filter(space=space) if d.done)
        self.assertEqual(len(row.done), 1)
        page.keyboard.press("u")
        expect(page.get_by_label("Undo (u)")).to_be_disabled()

    def test_what_has_no_place_is_taken_from_the_tray_by_the_pointer(self) -> None:
        self.enter_demo("layout")
        page = self.page
        page.locator("[data-part*=rail]").first.click()
        page.get_by_role("button", name="Take up what it holds (t)").click()
        hand = page.get_by_role("group", name="In the hand")
        hand.get_by_role("button", name="Lay it aside").click()
        tray = page.get_by_role("group", name="Without a place").get_by_role("button")
        expect(tray.first).to_be_visible()
        left = tray.count()
        tray.first.click()
        expect(page.locator(".landing.well").first).to_be_attached()
        box = page.locator(".landing.well").first.bounding_box()
        assert box is not None
        page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
        page.mouse.down()
        page.mouse.up()
        expect(tray).to_have_count(left - 1)
