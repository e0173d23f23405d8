"""A drawer from its readings to the strips that are cut for it."""

import re

from playwright.sync_api import expect

from .test_spaces import Measuring

GROUPS = (
    "2 boxes of pens", "2 pairs of scissors", "2 desk tools", "4 packs of batteries", "2 rolls of tape", "2 calculators",
    "3 packs of sticky notes", "1 set of markers", "2 chargers", "2 boxes of screws", "1 camera", "6 notebooks", "3 maps",
    "1 hole punch", "1 label maker",
)  # fmt: skip


class DrawerTests(Measuring):
    def test_from_the_tape_to_the_saw(self) -> None:
        """Measure a drawer, add fifteen groups, get dividers and trays, move one divider, print the templates."""
        self.new_space("drawer", "Desk drawer")
        page = self.page
        for line in ("width 1150 1152", "depth 650 652", "height 120 120", "opens 640"):
            self.call(line)
        page.get_by_role("button", name="Paper…").click()
        floors = page.get_by_role("menuitem", name="Floors of the drawers, full size (PDF)")
        expect(floors).to_have_attribute("href", re.compile("floors.pdf"))
        page.keyboard.press("Escape")
        self.step_to("inventory")
        for line in GROUPS:
            page.get_by_label("Add things").fill(line)
            page.get_by_label("Add things").press("Enter")
            expect(page.get_by_label("Add things")).to_have_value("")
        self.step_to("layout")
        page.get_by_role("button", name="Find designs").click()
        gallery = page.locator(".gallery")
        expect(gallery.get_by_text("Parted, all a little larger")).to_be_visible(timeout=90_000)
        expect(gallery.get_by_text("In trays of a set")).to_be_visible(timeout=90_000)
        gallery.get_by_text("Parted, all a little larger").click()
        place = page.locator("[data-part*=cell]").first
        place.focus()
        page.keyboard.press("Enter")
        bar = page.locator(".act-bar")
        expect(bar).to_contain_text("compartment, drawer 1")
        before = bar.locator(".quiet").first.inner_text()
        lay = self._strips()
        for tool in (
            "Front divider nearer (↑)",
            "Front divider away (↓)",
            "Right divider away (→)",
            "Right divider nearer (←)",
        ):
            bar.get_by_role("button", name=tool).click()
            page.wait_for_timeout(
                1500
            )  # a move that is refused changes nothing; a second one is not sent before the first is done
            if bar.locator(".quiet").first.inner_text() != before:
                break
        expect(bar.locator(".quiet").first).not_to_have_text(before)
        page.get_by_label("Undo (u)").first.click()
        expect(bar.locator(".quiet").first).to_have_text(before)
        self._drag_a_divider(lay)
        self._cut_through()
        self._turn_a_tray()
        gallery.get_by_text("Parted, all a little larger").click()
        self.step_to("materials")
        page.get_by_text("Cut", exact=True).click()
        cuts = page.get_by_role("region", name="For the drawers")
        expect(cuts.locator("tbody tr").first).to_be_visible()
        expect(cuts).to_contain_text("liner 1148 × 650")
        for name, path in (("Full size", "drawers.pdf"), ("Map", "size=map"), ("Strips", "strips.dxf")):
            link = cuts.get_by_role("link", name=re.compile(name))
            expect(link).to_have_attribute("href", re.compile(re.escape(path)))
            answer = page.request.get(page.url.split("/house/")[0] + (link.get_attribute("href") or ""))
            self.assertEqual(answer.status, 200)

    def _drag_a_divider(self, lay: list[list[str | None]]) -> None:
        """A strip follows the pointer, and all of them lie where they did after *undo*.

        The bar speaks before the drawing is drawn again, so each act waits for the paper itself.
        """
        page = self.page
        page.keyboard.press("Escape")
        strips = page.locator(".divider-hand")
        expect(strips.first).to_be_attached()
        self._lie(lay)
        for n in range(strips.count()):
            box = strips.nth(n).bounding_box()
            assert box is not None
            x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
            upright = box["height"] > box["width"]
            page.mouse.move(x, y)
            page.mouse.down()
            page.mouse.move(x + 20 * upright, y + 20 * (not upright), steps=4)
            page.mouse.up()
            page.wait_for_timeout(800)
            if self._strips() != lay:
                break
        self.assertNotEqual(self._strips(), lay)
        page.get_by_label("Undo (u)").first.click()
        self._lie(lay)

    def _lie(self, lay: list[list[str | None]]) -> None:
        """The strips come to lie as told, however long the drawing takes."""
        shapes = self.page.locator(".divider-hand > rect:first-child")
        expect(shapes).to_have_count(len(lay), timeout=15_000)
        for n, place in enumerate(lay):
            for name, value in zip(("x", "y", "width", "height"), place, strict=True):
                expect(shapes.nth(n)).to_have_attribute(name, value or "", timeout=15_000)

    def _strips(self) -> list[list[str | None]]:
        """Where the strips of the drawer lie on the paper."""
        shapes = self.page.locator(".divider-hand > rect:first-child")
        return [[shapes.nth(n).get_attribute(a) for a in ("x", "y", "width", "height")] for n in range(shapes.count())]

    def _cut_through(self) -> None:
        page = self.page
        page.get_by_text("section", exact=True).first.click()
        expect(page.get_by_role("img", name=re.compile("Section, "))).to_be_visible()
        expect(page.locator(".title-block")).to_contain_text("Section through the drawer")
        page.get_by_text("elevation", exact=True).first.click()

    def _turn_a_tray(self) -> None:
        page = self.page
        page.locator(".gallery").get_by_text("In trays of a set").click()
        trays = page.locator("[data-part*=cell]")
        bar = page.locator(".act-bar")
        for n in range(trays.count()):
            trays.nth(n).focus()
            page.keyboard.press("Enter")
            expect(bar).to_contain_text("tray, drawer 1")
            size = bar.locator(".quiet").first.inner_text()
            wide, deep = (int(figure) for figure in re.findall(r"\d+", size)[:2])
            if wide != deep:
                break
        page.keyboard.press("r")
        expect(bar.locator(".quiet").first).to_have_text(re.compile(f"^{deep} × {wide}"))
        bar.get_by_role("button", name="Turn the tray (r)").click()
        expect(bar.locator(".quiet").first).to_have_text(size)
