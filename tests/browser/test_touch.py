"""The Design stage by fingers alone, on a phone: every act that a pointer can do there."""

import re
from typing import Any

from playwright.sync_api import Locator, expect

from pinakotheke.server import models

from .chromium import PHONE
from .driver import BrowserTestCase

Point = tuple[float, float]


class FingerTests(BrowserTestCase):
    size, touch = PHONE, True

    def setUp(self) -> None:
        super().setUp()
        self.cdp = self.page.context.new_cdp_session(self.page)

    def finger(self, kind: str, *points: Point) -> None:
        self.cdp.send(
            "Input.dispatchTouchEvent",
            {"type": kind, "touchPoints": [{"x": a, "y": b, "id": n} for n, (a, b) in enumerate(points)]},
        )

    def slide(self, start: Point, end: Point, *, steps: int = 8, lift: bool = True) -> None:
        """One finger from here to there."""
        self.finger("touchStart", start)
        for n in range(1, steps + 1):
            self.finger("touchMove", tuple(a + (b - a) * n / steps for a, b in zip(start, end, strict=True)))  # type: ignore[arg-type]
            self.page.wait_for_timeout(16)
        if lift:
            self.finger("touchEnd")

    def middle(self, shape: Locator) -> Point:
        """Where a finger would go for it, scrolled into sight."""
        shape.scroll_into_view_if_needed()
        box = shape.bounding_box()
        assert box is not None
        return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2

    def tap(self, shape: Locator) -> None:
        x, y = self.middle(shape)
        self.page.touchscreen.tap(x, y)

    def enter_demo(self, stage: str = "survey", space: int = 0) -> models.Space:
        """The drawing in its place: a finger must not find something else where it aimed."""
        row = super().enter_demo(stage, space)
        expect(self.page.locator(".sheet .drawing text").first).to_be_visible()
        self.page.wait_for_timeout(300)
        return row

    def done(self, space: models.Space, number: int = 1) -> list[dict[str, Any]]:
        """The commands done to the designs of a space, once there are so many."""
        found: list[dict[str, Any]] = []
        for _ in range(60):
            found = [c for row in models.Design.objects.filter(space=space) for c in row.done]
            if len(found) >= number:
                break
            self.page.wait_for_timeout(100)
        return found

    def test_a_finger_drags_a_shelf_and_does_not_scroll_the_page(self) -> None:
        space = self.enter_demo("layout")
        page = self.page
        shelf = page.locator(".can-drag[data-part*=shelf]").first
        shelf.scroll_into_view_if_needed()
        box = shelf.bounding_box()
        assert box is not None
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        before = page.evaluate("document.querySelector('.page').scrollTop + scrollY")

        self.finger("touchStart", (x, y))
        for step in range(1, 9):  # a hand's breadth: the topmost shelf has no more room over it
            self.finger("touchMove", (x, y - 1.5 * step))
            page.wait_for_timeout(16)
        self.finger("touchEnd")
        moved: list[models.Design] = []
        for _ in range(50):
            moved = [d for d in models.Design.objects.filter(space=space) if d.done]
            if moved:
                break
            page.wait_for_timeout(100)
        self.assertEqual([c["do"] for c in moved[0].done], ["move"])
        self.assertGreater(moved[0].done[0]["steps"], 0)
        self.assertEqual(page.evaluate("document.querySelector('.page').scrollTop + scrollY"), before)

    def test_a_finger_on_a_drawing_that_is_seen_whole_scrolls_the_page(self) -> None:
        self.enter_demo("layout")
        page = self.page
        box = page.locator(".sheet .drawing").bounding_box()
        assert box is not None
        x, y = box["x"] + 6, box["y"] + box["height"] - 12  # beside the walls, where nothing is drawn

        self.finger("touchStart", (x, y))
        for step in range(1, 12):
            self.finger("touchMove", (x, y - 12 * step))
            page.wait_for_timeout(16)
        self.finger("touchEnd")
        page.wait_for_function("document.querySelector('.page').scrollTop + scrollY > 60")

    def test_a_tap_selects_and_the_bar_beside_it_acts(self) -> None:
        space = self.enter_demo("layout")
        self.tap(self.page.locator(".can-select[data-part*=rail]").first)
        bar = self.page.get_by_role("toolbar", name="With rail")
        bar.get_by_label("Lock", exact=True).tap()
        expect(bar.get_by_label("Unlock", exact=True)).to_be_visible()
        bar.get_by_role("button", name="why is it so?").tap()
        expect(self.page.get_by_role("note", name="Why it is so")).to_contain_text("what creases hangs")
        self.assertEqual([c["do"] for c in self.done(space)], ["lock"])

    def test_a_thing_in_the_selected_part_is_carried_to_where_it_is_lit(self) -> None:
        self.enter_demo("layout")
        page = self.page
        things = page.locator(".sheet [data-lies-in*=shelf]")
        thing, source = things.first.get_attribute("data-of"), things.first.get_attribute("data-lies-in")
        target = page.locator(f".sheet [data-lies-in*=shelf]:not([data-lies-in='{source}'])").last
        there = target.get_attribute("data-lies-in")
        self.tap(things.first)
        expect(page.locator(f"[data-part='{source}']")).to_have_attribute("aria-pressed", "true")
        self.slide(self.middle(things.first), self.middle(target), lift=False)
        hand = page.get_by_role("group", name="In the hand")
        expect(page.locator(".landing.is-aimed")).to_have_attribute("data-landing", there or "")
        expect(hand.get_by_role("status")).to_contain_text("shelf, bay")
        self.finger("touchEnd")
        expect(hand).to_have_count(0)
        expect(page.locator(f".sheet [data-of='{thing}'][data-lies-in='{there}']")).to_have_count(1)
        page.get_by_label("Undo (u)").tap()
        expect(page.locator(f".sheet [data-of='{thing}'][data-lies-in='{source}']")).to_have_count(1)

    def test_what_has_no_place_is_set_in_from_the_tray(self) -> None:
        space = self.enter_demo("layout")
        page = self.page
        self.tap(page.locator(".sheet [data-lies-in*=shelf]").first)
        page.get_by_role("button", name="Take up what it holds (t)").tap()
        hand = page.get_by_role("group", name="In the hand")
        hand.get_by_role("button", name="Lay it aside").tap()
        tray = page.get_by_role("group", name="Without a place").get_by_role("button")
        expect(tray.first).to_be_visible()
        left = tray.count()
        tray.first.tap()
        expect(page.locator(".landing.well").first).to_be_attached()
        self.tap(page.locator(".landing.well").first)
        expect(page.locator(".landing.is-aimed")).to_have_count(1)
        hand.get_by_role("button", name="Put it there").tap()
        expect(tray).to_have_count(left - 1)
        self.assertEqual(len(self.done(space, 2)), 2)

    def test_the_edge_of_a_bay_is_drawn_to_its_next_width(self) -> None:
        space = self.enter_demo("layout")
        page = self.page
        page.locator(".hung", has_text=re.compile("Carcase|Track")).first.tap()
        expect(page.locator(".sheet .drawing")).to_have_attribute("aria-label", re.compile("carcase|track", re.I))
        boxes = [bay.bounding_box() or {"width": 0} for bay in page.locator("[data-bay]").all()]
        edge = page.locator(".bay-edge")
        for widest in sorted(range(len(boxes)), key=lambda n: -boxes[n]["width"]):
            page.locator(f"[data-bay=bay-{widest}]").focus()
            page.locator(f"[data-bay=bay-{widest}]").dispatch_event("click")
            if edge.count():
                break
        x, y = self.middle(edge)
        self.slide((x, y), (x - 16, y))
        self.assertEqual([(c["do"], c["steps"] < 0) for c in self.done(space)], [("widen", True)])

    def test_two_fingers_zoom_and_one_pans_what_is_near(self) -> None:
        self.enter_demo("layout")
        page = self.page
        zoom, drawing = page.get_by_label("Zoom", exact=True), page.locator(".sheet .drawing")
        x, y = self.middle(drawing)
        self.finger("touchStart", (x - 20, y), (x + 20, y))
        for n in range(1, 9):
            self.finger("touchMove", (x - 20 - 5 * n, y), (x + 20 + 5 * n, y))
            page.wait_for_timeout(16)
        self.finger("touchEnd")
        expect(zoom).not_to_have_text("100%")
        near = drawing.get_attribute("viewBox")
        box = drawing.bounding_box()
        assert box is not None
        self.slide((box["x"] + 8, box["y"] + 8), (box["x"] + 40, box["y"] + 60))
        expect(drawing).not_to_have_attribute("viewBox", near or "")
        page.get_by_label("All of it (0)").tap()
        expect(zoom).to_have_text("100%")

    def test_weights_alternatives_trade_offs_and_comparing(self) -> None:
        self.enter_demo("layout")
        page = self.page
        page.locator("[data-design]").nth(1).tap()
        expect(page.locator("[data-design]").nth(1)).to_have_attribute("aria-pressed", "true")
        page.get_by_role("button", name="What counts").tap()
        slider = page.get_by_role("slider", name="easy reach")
        track = slider.locator("xpath=ancestor::*[contains(@class,'Slider-root')][1]").bounding_box()
        assert track is not None
        page.touchscreen.tap(track["x"] + track["width"] - 4, track["y"] + track["height"] / 2)
        expect(slider).to_have_attribute("aria-valuenow", "10")
        expect(page.locator(".leading")).to_contain_text("leads")
        page.touchscreen.tap(8, 8)
        count = page.locator("[data-design]").count()
        page.get_by_role("button", name="Trade-offs").tap()
        page.locator(".trade-list button").first.tap()
        expect(page.locator("[data-design]")).to_have_count(count + 1)

    def test_the_walk_round_is_turned_by_a_finger(self) -> None:
        self.enter_demo("layout")
        page = self.page
        page.get_by_label("View").get_by_text("walk-round").tap()
        view = page.get_by_role("application")
        expect(view).to_have_attribute("data-state", "shown", timeout=60_000)
        before = view.screenshot()
        x, y = self.middle(view)
        self.slide((x, y), (x + 90, y))
        page.wait_for_timeout(400)
        self.assertNotEqual(view.screenshot(), before)
