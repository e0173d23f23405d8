"""Keep in the browser, later on: restock with the network cut, a swap, a look at a space, what was won, strips of tape."""

import re
from datetime import timedelta

from django.utils import timezone
from playwright.sync_api import expect

from pinakotheke.server import models

from .chromium import PHONE
from .driver import BrowserTestCase


class Flows:
    """What is done at the desk and on a phone alike."""

    def keep(self, view: str) -> models.Space:
        """The demo's ticket office, moved into, and one view of Keep."""
        row = self.enter_demo("upkeep")
        self.page.get_by_role("button", name="Move into").click()
        expect(self.page.get_by_role("list", name="Places").get_by_role("listitem").first).to_be_visible()
        self.page.goto(f"{self.live_server_url}/house/{row.household_id}/{row.pk}/upkeep?view={view}")
        return row

    def test_a_swap_is_planned_and_carried_out_and_taken_back(self) -> None:
        row = self.keep("seasons")
        page = self.page
        stay = models.Stay.objects.filter(place__space=row).select_related("place", "thing").first()
        assert stay is not None
        page.get_by_label("Name of the swap").fill("Winter things")
        page.get_by_role("button", name="Plan it").click()
        page.get_by_role("button", name=re.compile("^Winter things")).click()
        page.get_by_role("combobox", name="Something that takes turns").fill(stay.thing.name)
        page.get_by_role("option", name=f"{stay.thing.name} ({stay.thing.count})").first.click()
        page.get_by_role("button", name="Add it").click()
        expect(page.get_by_role("button", name="Brought out: done")).to_be_visible()
        expect(page.locator(".inside ol li").first).to_contain_text(f"{stay.thing.name}: out of")
        page.get_by_label("Out from").fill("13-45")
        page.get_by_label("Out from").press("Enter")
        expect(page.get_by_text("is no day of a year")).to_be_visible()
        before = models.Stay.objects.filter(thing=stay.thing).count()
        page.get_by_role("button", name="Brought out: done").click()
        expect(page.get_by_role("button", name="Put away: done")).to_be_visible()
        self.assertLess(models.Stay.objects.filter(thing=stay.thing).count(), before)
        page.get_by_label("Undo (u)").click()
        expect(page.get_by_role("button", name="Brought out: done")).to_be_visible()
        self.assertEqual(models.Swap.objects.get().now, "after")
        with page.expect_download() as saved:
            page.get_by_role("link", name="All days as calendar").click()
        self.assertEqual(saved.value.suggested_filename, "keeping.ics")

    def test_a_look_changes_what_is_asked_for_and_is_taken_back(self) -> None:
        row = self.keep("review")
        page = self.page
        due = timezone.localdate() + timedelta(days=14)
        expect(page.get_by_text(f"To be looked at on {due}.")).to_be_visible()
        page.get_by_label("When to look").select_option("month")
        expect(page.get_by_text(f"To be looked at on {timezone.localdate() + timedelta(days=30)}.")).to_be_visible()
        stay = models.Stay.objects.filter(place__space=row).select_related("place", "thing").first()
        assert stay is not None
        page.get_by_role("button", name="Look now").click()
        page.get_by_role("radiogroup", name=f"How is {stay.place.name}", exact=True).get_by_text("overflows").click()
        page.get_by_label(f"What of {stay.thing.name}").first.select_option("more")
        page.get_by_label(f"How many {stay.thing.name} now").first.fill(str(stay.thing.count + 3))
        page.get_by_label(f"One in, one out of {stay.thing.name}").first.select_option("give away")
        page.get_by_role("button", name="That is what was seen").click()
        expect(page.get_by_role("region", name="What was seen")).to_contain_text(f"{stay.place.name} overflows")
        leaves = page.get_by_role("region", name="What leaves")
        expect(leaves).to_contain_text(f"3 {stay.thing.name}")
        page.get_by_label("Undo (u)").click()
        expect(page.get_by_role("region", name="What was seen")).to_have_count(0)
        self.assertEqual(models.Review.objects.count(), 0)
        page.get_by_label("Redo").first.click()
        expect(leaves).to_contain_text(f"3 {stay.thing.name}")
        out = models.Thing.objects.get(key__endswith="-out")
        page.get_by_role("button", name=f"{out.name}: gone").first.click()
        expect(leaves.get_by_text(f"3 {stay.thing.name}")).to_have_count(0)
        expect(page.get_by_role("link", name=re.compile("Bend the design"))).to_be_visible()

    def test_ticks_wait_while_the_network_is_cut(self) -> None:
        row = self.enter_demo("upkeep")
        page = self.page
        page.goto(f"{self.live_server_url}/house/{row.household_id}/{row.pk}/upkeep?view=restock")
        tins = models.Supply.objects.select_related("thing").get(key="tins", household=row.household_id)
        before = tins.movements.count()
        took = page.get_by_role("button", name=f"Took one: {tins.thing.name}")
        expect(took).to_be_visible()
        page.context.set_offline(True)
        took.click()
        took.click()
        expect(page.get_by_role("status").filter(has_text="2 ticks wait")).to_be_visible()
        self.assertEqual(tins.movements.count(), before)
        page.context.set_offline(False)
        expect(page.get_by_text("on this device")).to_have_count(0)
        self.assertEqual(tins.movements.count(), before + 2)
        page.get_by_label("Undo (u)").click()
        item = page.get_by_role("list", name="Used up").get_by_role("listitem").filter(has=took)
        expect(item).to_contain_text("3 there")
        self.assertEqual(tins.movements.count(), before + 1)
        page.get_by_role("button", name=re.compile(f"^{tins.thing.name}")).click()
        page.get_by_label("How many").fill("6")
        page.get_by_role("textbox", name="Best before").fill("2031-05-01")
        page.get_by_role("button", name="Bought", exact=True).click()
        expect(item).to_contain_text("9 there")
        expect(item).to_contain_text("bought 6, best before 2031-05-01")
        page.get_by_role("button", name=re.compile("bought 6, best before 2031-05-01: not so")).click()
        expect(item).to_contain_text("3 there")

    def test_places_are_ticked_as_they_are_filled_while_the_network_is_cut(self) -> None:
        row = self.keep("places")
        page = self.page
        page.get_by_text("as they are filled").click()
        first = page.locator(".places .filled input").first
        expect(first).not_to_be_checked()
        page.context.set_offline(True)
        first.check()
        expect(page.get_by_role("status").filter(has_text="1 tick waits")).to_be_visible()
        self.assertFalse(row.places.exclude(filled_on="").exists())
        page.context.set_offline(False)
        expect(page.get_by_text("on this device")).to_have_count(0)
        expect(first).to_be_checked()
        self.assertEqual(row.places.exclude(filled_on="").count(), 1)


class DeskTests(Flows, BrowserTestCase):
    def test_what_was_won_and_a_game_of_finding_things(self) -> None:
        self.keep("before-after")
        page = self.page
        figures = page.get_by_role("region", name="Figures")
        expect(figures).to_contain_text("pieces")
        page.get_by_text("Note what was there before").click()
        page.get_by_label("Pieces there were").fill("321")
        page.get_by_label("Pieces there were").press("Enter")
        expect(figures.get_by_role("row", name=re.compile("^pieces 321"))).to_be_visible()
        page.get_by_role("button", name=re.compile(r"^Find \d+ things")).click()
        game = page.get_by_role("status").filter(has_text="of 10: find")
        for n in range(10):
            expect(game).to_contain_text(f"{n + 1} of 10")
            page.get_by_role("button", name="Here it is" if n else "Cannot find it").click()
        expect(page.get_by_role("region", name="Finding things")).to_contain_text("9 of 10 found")
        expect(figures.get_by_role("row", name=re.compile("^finding things .*9 of 10 found"))).to_be_visible()

    def test_strips_go_to_the_printer(self) -> None:
        row = self.keep("labels")
        page = self.page
        page.get_by_role("button", name="Tape or film").click()
        page.get_by_label("Label printer").select_option("tape-18")
        page.get_by_role("button", name="Print strips").click()
        expect(page.get_by_role("status").filter(has_text="strips printed into")).to_be_visible()
        self.assertTrue(row.places.exclude(printed="").exists())
        with page.expect_download() as saved:
            page.get_by_role("link", name="Mirrored").click()
        self.assertTrue(saved.value.suggested_filename.endswith("-letters.svg"))


class PhoneTests(Flows, BrowserTestCase):
    size, touch = PHONE, True

    def test_another_thing_is_watched_and_looked_at_on_a_phone(self) -> None:
        self.keep("restock")
        page = self.page
        offered = page.get_by_label("What is used up")
        name = offered.locator("option").nth(1).inner_text()
        offered.select_option(index=1)
        page.get_by_role("button", name="Watch it", exact=True).click()
        expect(page.get_by_role("list", name="Used up")).to_contain_text(name)
        page.get_by_label("What to see").select_option("review")
        page.get_by_role("button", name="Look now").click()
        page.get_by_role("button", name="That is what was seen").click()
        expect(page.get_by_text("All is as it should be.")).to_be_visible()
