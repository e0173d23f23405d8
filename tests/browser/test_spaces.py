"""Measuring where people measure: by call-outs alone, on a phone without a connection, walk-ins, chests, paper."""

import re
from io import BytesIO
from unittest.mock import patch

from PIL import Image
from playwright.sync_api import APIResponse, Route, expect
from pypdf import PdfReader

from pinakotheke.server import models

from .chromium import PHONE
from .driver import BrowserTestCase


class Measuring(BrowserTestCase):
    def new_space(self, kind: str, name: str = "Nook") -> None:
        """Enter the demo, add a space of a kind by the page's own form."""
        self.enter_demo()
        page = self.page
        page.get_by_role("button", name="Ticket-office closet").click()
        page.get_by_role("menuitem", name="Add a space").click()
        page.get_by_label("Name of the space").fill(name)
        page.get_by_role("radio", name=kind, exact=True).check()
        page.get_by_role("button", name="Add space").click()
        expect(page.get_by_role("button", name=name, exact=True)).to_be_visible()

    def call(self, line: str) -> None:
        """Say a line, see it echoed, keep it."""
        page = self.page
        field = page.get_by_label("Call out a reading")
        field.fill(line)
        expect(page.locator(".echo .heard").first).to_be_visible()
        expect(page.locator(".echo .misheard")).to_have_count(0)
        field.press("Enter")
        expect(field).to_have_value("")

    @property
    def row(self) -> models.Space:
        return models.Space.objects.get(pk=int(re.findall(r"/house/\d+/(\d+)", self.page.url)[0]))

    def values(self) -> list[float]:
        return list(self.row.readings.order_by("pk").values_list("value", flat=True))


class ByVoiceTests(Measuring):
    def test_an_out_of_square_closet_entered_by_call_outs_alone(self) -> None:
        self.new_space("reach-in closet")
        page = self.page
        for line in (
            "width 1846 1864 1843, height 2412 2408 2415", "middle back width 1846 not 1864", "depth 612 618",
            "opening 1250 x 2030; nibs 296 300; door sliding", "diagonals 1962 1931", "floor 0 4 9 17; plumb left 4",
            "studs 112 then every 600; skirting 90 x 15", "socket at 640, 300 up, 80 x 80, called desk socket",
        ):  # fmt: skip
            self.call(line)
        region = page.get_by_role("region", name="Next reading")
        expect(region.get_by_role("heading")).to_contain_text("Nothing more is needed")
        clear = page.get_by_role("region", name="Clear sizes")
        expect(clear).to_contain_text("left corner")
        expect(clear).to_contain_text("comes in")
        expect(clear).to_contain_text("levelled plinth")
        expect(clear).to_contain_text("desk socket must stay reachable")
        clear.get_by_role("button", name="desk socket must stay reachable").click()
        expect(page.locator(".is-marked-shape").first).to_be_visible()
        self.assertNotIn(1864, self.values())
        page.get_by_label("Undo (u)").click()
        expect(clear).not_to_contain_text("desk socket")

    def test_what_is_not_understood_stays_with_its_mend(self) -> None:
        self.new_space("chest of drawers")
        page = self.page
        field = page.get_by_label("Call out a reading")
        field.fill("drawer 2: width 412 413; drawer 9 width 400")
        expect(page.locator(".echo .misheard")).to_contain_text("There are drawer 1, drawer 2, drawer 3")
        field.press("Enter")
        expect(field).to_have_value("drawer 9 width 400")
        self.assertEqual(self.values(), [412, 413])

    def test_all_that_may_be_said_is_in_the_application(self) -> None:
        self.new_space("garage bay")
        page = self.page
        page.get_by_text("How it is said").click()
        page.get_by_role("button", name="All that may be said").click()
        expect(page.get_by_role("dialog")).to_contain_text("overhead door sectional, track 2150, reach 2600")


class WalkInTests(Measuring):
    def test_a_walk_in_with_two_runs(self) -> None:
        self.new_space("walk-in L", "Box room")
        page = self.page
        self.call("A: width 2246 2241 2238; height 2480 2477 2482")
        page.get_by_label("Section").get_by_text("wall B").click()
        self.call("width 2755 2751 2749; height 2481 2480 2484")
        self.call("A: corner 900 x 1200 diagonal 1511")
        readings = page.get_by_role("region", name="Readings")
        expect(readings).to_contain_text("wall B: width, low, at the back")
        expect(readings).to_contain_text("wall A: corner diagonal")
        clear = page.get_by_role("region", name="Clear sizes")
        expect(clear.get_by_role("heading").first).to_contain_text("wall B")
        expect(clear).to_contain_text("the corner belongs to wall A")
        expect(clear).to_contain_text("passage to the wall across")
        expect(page.locator(".title-block")).to_contain_text("Elevation of wall B")
        page.get_by_label("Section").get_by_text("wall A").click()
        expect(page.locator(".title-block")).to_contain_text("Elevation of wall A")
        # The next reading lies on the other wall: n goes there.
        page.locator("body").press("n")
        expect(page.locator("[data-slot]:focus")).to_have_count(1)

    def test_a_drawer_chest(self) -> None:
        self.new_space("chest of drawers", "Plan chest")
        page = self.page
        self.call("drawer 1: width 612 615; depth 447 446; height 62 61; opens 390; overhang 18")
        clear = page.get_by_role("region", name="Clear sizes")
        expect(clear).to_contain_text("372 mm")  # 390 − 18
        self.call("new drawer; width 609 613; depth 444 446; height 178 176; opens 250")
        expect(page.get_by_label("Section").get_by_text("drawer 4")).to_be_visible()
        page.get_by_label("Section").get_by_text("drawer 4").click()
        expect(clear).to_contain_text("250 mm")
        dimension = page.locator("[data-slot='drawer-2|width||front|||']").first
        dimension.press("Enter")
        page.locator(".dimension-input input").fill("614")
        page.keyboard.press("Enter")
        expect(page.get_by_role("region", name="Readings")).to_contain_text("drawer 2: inside width, at the front")

    def test_the_form_says_the_same(self) -> None:
        self.new_space("garage bay", "Bay")
        page = self.page
        page.get_by_role("button", name="Walls, doors, obstacles").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("Parked car").fill("4300 x 1790 x 1480 at 900, 500 from the back, doors 700")
        dialog.get_by_role("button", name="Set the car").click()
        dialog.get_by_label("Door overhead").fill("sectional, track 2150, reach 2600")
        dialog.get_by_role("button", name="Set the door").click()
        form = dialog.get_by_role("form", name="An obstacle of wall B")
        form.get_by_label("Obstacle of wall B").select_option("water heater")
        for label, text in (("From the left", "200"), ("Up from the floor", "1100"), ("Width", "480"),
                            ("Height", "900"), ("Called (optional)", "old boiler")):  # fmt: skip
            form.get_by_label(label, exact=True).fill(text)
        form.get_by_role("button", name="Add obstacle").click()
        page.keyboard.press("Escape")
        readings = page.get_by_role("region", name="Readings")
        for text in ("sectional, 2150 mm up", "4300 × 1790 × 1480 mm", "old boiler"):
            expect(readings).to_contain_text(text)


class PaperTests(Measuring):
    def test_the_printed_sheet_and_typing_it_in(self) -> None:
        self.new_space("recess", "Niche")
        page = self.page
        page.get_by_role("button", name="Paper").click()
        href = page.get_by_role("menuitem", name="Blank field sheet").get_attribute("href")
        sheet = page.request.get(f"{self.live_server_url}{href}")
        text = "".join(p.extract_text() for p in PdfReader(BytesIO(sheet.body())).pages)
        self.assertIn("Field sheet: Niche", text)
        page.get_by_role("menuitem", name="Type in a filled field sheet").click()
        dialog = page.get_by_role("dialog")
        first = dialog.locator("[data-number='1']")
        first.fill("1188")
        for number, value in ((2, "1181"), (3, "1176"), (4, "2655"), (5, "3' 14\"")):
            page.keyboard.press("Enter")
            expect(dialog.locator(f"[data-number='{number}']")).to_be_focused()
            page.keyboard.type(value)
        dialog.get_by_role("button", name="Keep 5 readings").click()
        # The one that is none stays, with its mend; the others are kept.
        expect(dialog).to_contain_text("14 inches is a foot or more")
        self.assertEqual(self.values(), [1188, 1181, 1176, 2655])
        dialog.locator("[data-number='5']").fill("2651")
        dialog.get_by_role("button", name="Keep 1 readings").click()
        expect(dialog).to_have_count(0)
        readings = page.get_by_role("region", name="Readings")
        expect(readings).to_contain_text("2651 mm")
        page.get_by_role("button", name="Paper").click()
        href = page.get_by_role("menuitem", name="Drawings at 1:10").get_attribute("href")
        drawing = PdfReader(BytesIO(page.request.get(f"{self.live_server_url}{href}").body()))
        self.assertEqual(len(drawing.pages), 2)
        self.assertIn("1:10", drawing.pages[0].extract_text())

    def test_a_photo_is_shrunk_on_the_device(self) -> None:
        self.enter_demo(space=1)
        page = self.page
        out = BytesIO()
        Image.effect_noise((2600, 1300), 40).convert("RGB").save(out, "JPEG", quality=95)
        page.get_by_label("Choose a photo").set_input_files(
            {"name": "corner.jpg", "mimeType": "image/jpeg", "buffer": out.getvalue()}
        )
        photo = page.get_by_role("img", name="Photo 1 of Lamp-room closet")
        expect(photo).to_be_visible()
        self.assertEqual(photo.evaluate("image => image.decode().then(() => image.naturalWidth)"), 1600)
        page.get_by_label("Remove photo 1").click()
        expect(photo).to_have_count(0)


class PhoneTests(Measuring):
    size = PHONE

    def test_the_network_is_cut_and_comes_back(self) -> None:
        """The out-of-square closet again, on a phone: readings taken without a connection are kept once, in order."""
        self.new_space("reach-in closet")
        page = self.page
        self.take("1846")
        self.take("2412")
        page.context.set_offline(True)
        for value in ("612", "1843", "2408", "2415"):
            self.take(value)
        expect(page.get_by_role("status").filter(has_text="wait on this device")).to_contain_text("4 readings wait")
        field = page.get_by_label("Call out a reading")
        field.fill("diagonals 1962 1931")
        page.get_by_role("button", name="Keep", exact=True).last.click()
        expect(page.get_by_role("status").filter(has_text="wait on this device")).to_contain_text("5 readings wait")
        self.assertEqual(self.values(), [1846, 2412])
        self.assertEqual(page.evaluate("Object.keys(localStorage).filter(k => k.startsWith('waiting:')).length"), 1)
        page.context.set_offline(False)
        expect(page.get_by_role("status").filter(has_text="wait on this device")).to_have_count(0)
        self.assertEqual(self.values(), [1846, 2412, 612, 1843, 2408, 2415, 1962, 1931])
        expect(page.get_by_role("region", name="Readings")).to_contain_text("1931 mm")
        page.reload()
        expect(page.get_by_role("region", name="Readings")).to_contain_text("1931 mm")
        self.assertEqual(len(self.values()), 8)

    def test_an_older_answer_that_comes_late_does_not_show_over_a_newer_one(self) -> None:
        self.new_space("reach-in closet")
        page = self.page
        space = models.Space.objects.get(name="Nook")
        self.take("1846")
        held: list[tuple[Route, APIResponse]] = []

        def late(route: Route) -> None:  # what the server had before the readings came, told after them
            if route.request.method == "GET" and not held:
                held.append((route, route.fetch()))
            else:
                route.continue_()

        page.context.set_offline(True)
        self.take("2412")
        page.route(f"**/api/spaces/{space.pk}", late)
        page.context.set_offline(False)
        expect(page.get_by_role("status").filter(has_text="wait on this device")).to_have_count(0)
        expect(page.get_by_role("region", name="Readings")).to_contain_text("2412 mm")
        for _ in range(100):
            page.wait_for_timeout(0 if held else 100)
        self.assertTrue(held, "the page asks again once it is back")
        for route, answer in held:
            route.fulfill(response=answer)
        page.wait_for_timeout(600)
        expect(page.get_by_role("region", name="Readings")).to_contain_text("2412 mm")

    def take(self, value: str) -> None:
        """Type on the pad, keep, and wait for what comes next."""
        pad = self.page.get_by_role("region", name="Take the next reading")
        before = pad.locator(".take-label").inner_text()
        for digit in value:
            pad.get_by_role("button", name=digit, exact=True).click()
        pad.get_by_role("button", name=f"Keep {value}").click()
        expect(pad.locator(".take-label")).not_to_have_text(before)

    def test_an_answer_that_was_lost_is_not_doubled(self) -> None:
        self.new_space("reach-in closet")
        page = self.page
        lost = []

        def lose(route: object) -> None:  # the server hears it, the phone never learns so
            if not lost:
                lost.append(route.fetch())  # type: ignore[attr-defined]
                route.abort()  # type: ignore[attr-defined]
            else:
                route.continue_()  # type: ignore[attr-defined]

        page.route("**/readings", lose)
        self.take("1846")
        expect(page.get_by_role("region", name="Readings")).to_contain_text("1846 mm")
        expect(page.get_by_role("status").filter(has_text="wait on this device")).to_have_count(0)
        self.assertEqual(self.values(), [1846])

    def test_fractions_have_keys_of_their_own(self) -> None:
        house = self.enter_demo().household
        house.units = "imperial"
        house.save()
        self.go(house.space_set.order_by("pk")[1], "survey")
        page = self.page
        pad = page.get_by_role("region", name="Take the next reading")
        for key in ("4", "3", "5/8"):
            pad.get_by_role("button", name=key, exact=True).click()
        expect(pad.get_by_label("Reading")).to_have_text("43 5/8")
        pad.get_by_role("button", name="Keep 43 5/8").click()
        expect(page.get_by_role("region", name="Readings")).to_contain_text('43 5/8"')


@patch("pinakotheke.server.actions.practice.SEEDS", 1)
class PracticeTests(Measuring):
    """In one room, always the same: in some others a reading has to be taken once more."""

    def test_a_hidden_room_is_measured_and_its_truth_shown(self) -> None:
        self.enter_demo()
        page = self.page
        page.get_by_role("button", name="Ticket-office closet").click()
        page.get_by_role("menuitem", name="Practise measuring").click()
        page.get_by_text("Awkward", exact=True).click()
        page.get_by_role("button", name="Begin").click()
        panel = page.get_by_role("region", name="Practice")
        expect(panel).to_contain_text("awkward room")
        panel.get_by_text("laser distance meter").click()
        coming = page.get_by_role("region", name="Next reading")
        for _ in range(6):
            before = coming.locator("b").inner_text()
            coming.get_by_role("button", name="Take it: laser").click()
            expect(coming.locator("b")).not_to_have_text(before)
        panel.get_by_role("button", name="You see a socket: measure it").click()
        expect(page.get_by_role("region", name="Readings")).to_contain_text("socket")
        panel.get_by_role("button", name="Done: show the truth").click()
        dialog = page.get_by_role("dialog")
        expect(dialog).to_contain_text("of 100 needed places")
        expect(dialog).to_contain_text("Overlooked: a pipe")
        expect(dialog).to_contain_text("Never read:")
