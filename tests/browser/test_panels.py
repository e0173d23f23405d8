"""Every panel, menu and dialog, at a desk and in the hand, in a household of inches: none leaves the window, cuts its
words off, or lies over them; and no stage says millimetres or litres to people who measure in inches.
"""

import re
from collections.abc import Iterator
from contextlib import contextmanager

from playwright.sync_api import Locator, Page

from pinakotheke.server import models

from .chromium import DESK, PHONE
from .driver import BrowserTestCase
from .panels import faults, unlabelled_selects

STAGES = ("house", "survey", "inventory", "layout", "checks", "materials")
METRIC = re.compile(r"\b\d[\d\s.,]*\s?(mm|cm|m|m²|ml|l|litres?|liters?|kg|g)\b|\blit(re|er)s?\b", re.IGNORECASE)
INCHES = re.compile(r"\d\s?[\"″]|\d\s?'\s?\d|\b(?<!feet and )(inch|inches|ft|lb|lbs|cu ft|qt)\b", re.IGNORECASE)
FLOATING = ":is(.mantine-Modal-content, .mantine-Menu-dropdown, .mantine-Popover-dropdown):visible"


def button(page: Page, name: str) -> Locator:
    return page.get_by_role("button", name=re.compile(f"^{name}"))


class Panels(BrowserTestCase):
    """What the two sizes share."""

    wide = True
    maxDiff = None

    def setUp(self) -> None:
        super().setUp()
        self.space = self.enter_demo("house")
        models.Household.objects.filter(pk=self.space.household_id).update(units="imperial")
        self.found: list[str] = []
        self.seen = 0

    def enter(self, stage: str) -> Page:
        self.go(self.space, stage)
        return self.page

    def look(self, panel: Locator, name: str, *, labels: bool = False) -> None:
        panel.wait_for()
        self.page.wait_for_timeout(250)
        self.seen += 1
        self.found += [f"{name}: {fault}" for fault in faults(panel)]
        if labels:
            self.found += [f"{name}: no label to see: {select}" for select in unlabelled_selects(panel)]

    @contextmanager
    def opened(self, opener: Locator, name: str, *, labels: bool = False) -> Iterator[Locator]:
        """A panel that its opener opens; looked at, then closed."""
        opener.first.scroll_into_view_if_needed()
        opener.first.click()
        panel = self.page.locator(FLOATING).last
        self.look(panel, name, labels=labels)
        yield panel
        self.page.keyboard.press("Escape")
        panel.wait_for(state="hidden")

    def each(self, *openers: tuple[Locator, str]) -> None:
        for opener, name in openers:
            with self.opened(opener, name):
                pass

    def in_the_space_menu(self, item: str) -> None:
        self.page.locator("h1 button").click()
        self.page.get_by_role("menuitem", name=item).click()
        self.look(self.page.locator(".mantine-Modal-content"), item)
        self.page.keyboard.press("Escape")
        self.page.locator(".mantine-Modal-content").wait_for(state="hidden")

    def test_none_leaves_the_window_or_lies_over_its_words(self) -> None:
        for stage in (self.brief, self.measure, self.sort, self.design, self.check):
            stage()
        self.assertEqual(self.found, [])
        self.assertGreater(self.seen, 12)

    def brief(self) -> None:
        page = self.enter("house")
        kept_from = page.get_by_label(re.compile("is kept from"))
        if kept_from.first.is_visible():
            self.each((kept_from, "kept from"))
        self.each((page.locator("h1 button"), "spaces"), (button(page, "Bring a list"), "bring containers"))
        for item in ("Rename", "Add a space", "Practise"):
            self.in_the_space_menu(item)
        with self.opened(page.get_by_label("Find (/)"), "find"):
            page.keyboard.type("shirts")
        if self.wide:
            self.each((page.get_by_label("Keys (?)"), "keys"))
        page.get_by_test_id("ranges").get_by_label("Made of").select_option(label="Rack")
        page.get_by_label("Name of the range").fill("Alder rack")
        button(page, "Make a range").click()
        self.look(page.locator(".mantine-Modal-content"), "a range")
        page.keyboard.press("Escape")

    def measure(self) -> None:
        page = self.enter("survey")
        if self.wide:
            page.get_by_text("How it is said").click()
            self.each((button(page, "All that may be said"), "grammar"))
        with self.opened(button(page, "Walls, doors, obstacles"), "walls, doors, obstacles") as form:
            for heading in form.locator("summary, [role=tab]").all():
                heading.click()
                self.look(form, f"walls, doors, obstacles: {heading.inner_text()}")
        self.each((button(page, "Paper"), "paper"))
        button(page, "Paper").click()
        page.get_by_role("menuitem", name="Type in").click()
        self.look(page.locator(".mantine-Modal-content"), "field sheet")
        page.keyboard.press("Escape")
        self.each((page.locator(".why"), "why of a clear size"))

    def sort(self) -> None:
        page = self.enter("inventory")
        self.each((page.locator(".demand .why"), "why of a demand"), (button(page, "Bring a list"), "bring a list"),
                  (button(page, "More"), "more"))  # fmt: skip
        with self.opened(button(page, "Paste a note"), "paste a note") as note:
            note.get_by_role("textbox", name="Note").fill(
                "Maren:\n- 14 shirts\n- wool bonnet hats\n- flurbs\n4 ft of books"
            )
            button(page, "Read it").click()
            note.locator("tbody tr").first.wait_for()
            self.look(note, "a note that was read")
        button(page, "More").click()
        page.get_by_role("menuitem", name="Words of this house").click()
        self.look(page.locator(".mantine-Modal-content"), "words of the house")
        page.keyboard.press("Escape")
        page.locator(".mantine-Modal-content").wait_for(state="hidden")
        page.get_by_label("Add things").fill("2 flurbs and 3 bonnet hats")
        page.keyboard.press("Enter")
        page.locator(".unsure-mark").last.wait_for()
        self.each((page.locator(".unsure-mark").last, "a guess"))
        table = page.locator(".things-scroll")
        self.look(table, "the sorting table")
        if not self.wide:  # it is part of the page there, which scrolls
            self.found = [fault for fault in self.found if "table: leaves the window" not in fault]

    def design(self) -> None:
        page = self.enter("layout")
        page.locator(".chosen-line").wait_for()
        with self.opened(button(page, "What counts"), "what counts", labels=True):
            pass
        with self.opened(button(page, "Finish"), "finish", labels=True):
            pass
        with self.opened(button(page, "Shown"), "what is shown", labels=True):
            pass
        page.locator("[data-part*=shelf]").first.focus()
        self.each((page.locator(".act-bar .why"), "why it is so"), (button(page, "More with this part"), "a part"))
        self.look(page.locator(".act-bar"), "acts of a part")
        page.locator("[data-bay=bay-0]").focus()
        page.keyboard.press("Enter")
        self.look(page.locator(".act-bar"), "acts of a bay")
        self.each((button(page, "Add to this bay"), "add"), (button(page, "More with this bay"), "a bay"),
                  (button(page, "How good it is"), "how good"), (button(page, "Trade-offs"), "trade-offs"),
                  (button(page, "This design"), "this design"),
                  (page.locator(".ledger .why"), "why in the ledger"))  # fmt: skip
        page.locator("[data-part*=shelf]").first.focus()
        page.keyboard.press("t")
        self.look(page.locator(".carry-bar"), "in the hand")
        page.keyboard.press("Escape")

    def check(self) -> None:
        page = self.enter("checks")
        button(page, "What would mend it?").first.click()
        mends = page.get_by_role("list", name="What would mend it").or_(page.get_by_text("No single act mends it"))
        mends.first.wait_for()
        self.look(mends.first, "what would mend it")
        page.get_by_text("All that is checked").click()
        rule = page.locator(".registry [data-rule]").first
        rule.scroll_into_view_if_needed()
        self.look(rule, "one of all that is checked")

    def test_no_stage_speaks_millimetres_to_a_household_of_inches(self) -> None:
        self.assertEqual(self.spoken(METRIC), {})

    def test_no_stage_speaks_inches_to_a_household_of_millimetres(self) -> None:
        models.Household.objects.filter(pk=self.space.household_id).update(units="metric")
        self.page.reload()
        self.assertEqual(self.spoken(INCHES), {})

    def spoken(self, units: re.Pattern[str]) -> dict[str, set[str]]:
        """What of some units any stage says, shows in a field or tells a reader of the screen."""
        found: dict[str, set[str]] = {}
        for stage in STAGES:
            page = self.enter(stage)
            page.wait_for_load_state("networkidle")
            if stage == "layout":
                page.locator(".chosen-line").wait_for()
            words = page.evaluate(
                "() => document.body.innerText + ' ' + [...document.querySelectorAll('input, textarea')]"
                ".map((el) => `${el.placeholder} ${el.value}`).join(' ') + ' ' + "
                "[...document.querySelectorAll('[title], [aria-label]')]"
                ".map((el) => `${el.title} ${el.getAttribute('aria-label')}`).join(' ')"
            )
            said = {match.group(0) for match in units.finditer(words)}
            if said:
                found[stage] = said
        return found


class DeskPanels(Panels):
    size = DESK


class PhonePanels(Panels):
    size, wide = PHONE, False


del Panels
