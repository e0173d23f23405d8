"""Keep in the browser: moving in, putting things elsewhere, labels, where is it, and a label read by a phone."""

import re

from playwright.sync_api import expect

from pinakotheke.server import models

from .chromium import PHONE
from .driver import BrowserTestCase


class Flows:
    """What is done at the desk and on a phone alike."""

    def move_in(self) -> models.Design:
        row = self.enter_demo("upkeep")
        self.page.get_by_role("button", name="Move into").click()
        expect(self.page.get_by_role("list", name="Places").get_by_role("listitem").first).to_be_visible()
        return row

    def see(self, view: str) -> None:
        """A view of Keep, chosen by tabs, or on a phone from a list."""
        views = self.page.get_by_label("What to see")
        if self.touch:
            views.select_option(label=view)
        else:
            views.get_by_text(view, exact=True).click()

    def test_from_a_design_to_places_and_back(self) -> None:
        self.move_in()
        page = self.page
        expect(page.get_by_role("link", name=re.compile("Keep"))).to_contain_text("places")
        place = models.Place.objects.exclude(part="").filter(stays__isnull=False).first()
        assert place is not None
        stay = place.stays.select_related("thing").first()
        assert stay is not None
        page.get_by_role("button", name=re.compile(f"^{re.escape(place.name)}")).click()
        expect(page.locator(".drawing .is-marked, .drawing .is-marked-shape").first).to_be_attached()
        count = page.get_by_label(f"How many {stay.thing.name} in {place.name}")
        before = stay.count
        count.fill("0")
        count.press("Enter")
        expect(page.get_by_text("Without a place:")).to_contain_text(stay.thing.name)
        expect(page.get_by_text(re.compile("^Not as planned: 1"))).to_be_visible()
        page.get_by_label("Undo (u)").click()
        expect(page.get_by_text("Without a place:")).to_have_count(0)
        self.assertEqual(models.Stay.objects.get(place=place, thing=stay.thing).count, before)
        lent = page.get_by_label(f"{stay.thing.name} lent to")
        lent.fill("Ines")
        lent.press("Enter")
        expect(page.get_by_text(re.compile("^since 20"))).to_be_visible()
        page.get_by_label("A place that is there").fill("Basket by the door")
        page.get_by_role("button", name="Add a place").click()
        expect(page.get_by_role("list", name="Places")).to_contain_text("Basket by the door")
        page.get_by_text("as they are filled").click()
        expect(page.locator(".places .filled").first).to_have_text("1")
        page.get_by_role("button", name="Take the places back").click()
        sure = page.get_by_role("alert").filter(has_text="is lost")
        sure.get_by_role("button", name="Take the places back").click()
        expect(page.get_by_role("list", name="Places").get_by_role("listitem")).to_have_count(1)

    def test_labels_say_when_they_are_out_of_date(self) -> None:
        self.move_in()
        page = self.page
        self.see("Labels")
        labels = page.get_by_role("list", name="Labels").get_by_role("listitem")
        expect(labels.first).to_be_visible()
        count = labels.count()
        expect(page.get_by_role("link", name=f"Print {count} labels")).to_be_visible()
        page.get_by_label("Label sheet").select_option("letter-3x10")
        # The browser's own reader of PDFs is a page from outside.
        page.context.route("**/labels.pdf*", lambda route: route.fulfill(body="the sheet"))
        with page.expect_popup() as opened:
            page.get_by_role("link", name=re.compile("^Print")).click()
        opened.value.close()
        expect(labels.first).to_contain_text("printed on")
        stay = models.Stay.objects.select_related("place", "thing").order_by("pk").first()
        assert stay is not None
        self.assertTrue(stay.place.printed)
        models.Stay.objects.filter(place=stay.place).exclude(pk=stay.pk).delete()
        models.Place.objects.filter(pk=stay.place_id).update(name="Somewhere else", printed="Something else")
        page.reload()
        expect(page.get_by_role("list", name="Labels")).to_contain_text("out of date since")
        page.get_by_role("button", name="Only what changed: 1").click()
        expect(page.get_by_role("link", name="Print 1 label")).to_be_visible()

    def test_where_is_it_leads_to_the_place_with_its_mark(self) -> None:
        self.move_in()
        page = self.page
        page.keyboard.press("/")
        page.get_by_label("Find in this house").fill("where are the jumprs")
        hit = page.get_by_role("dialog").get_by_role("button", name=re.compile("Jumpers"))
        expect(hit.first).to_be_visible()
        page.keyboard.press("Enter")
        expect(page).to_have_url(re.compile(r"/upkeep\?place=\d+"))
        expect(page.locator(".places li.open")).to_contain_text("Jumpers")
        expect(page.locator(".drawing .is-marked, .drawing .is-marked-shape").first).to_be_attached()
        page.keyboard.press("/")
        page.get_by_label("Find in this house").fill("qqqqq")
        expect(page.get_by_role("dialog")).to_contain_text("Nothing here is called that.")
        # A scanner is a keyboard: it types the code of a label, and Enter.
        place = models.Place.objects.order_by("-pk").first()
        assert place is not None
        page.get_by_label("Find in this house").fill("")
        page.keyboard.type(f"{self.live_server_url}/at/{place.pk}")
        page.keyboard.press("Enter")
        expect(page).to_have_url(re.compile(rf"place={place.pk}$"))
        expect(page.locator(".places li.open")).to_contain_text(place.name)


class DeskTests(Flows, BrowserTestCase):
    pass


class PhoneTests(Flows, BrowserTestCase):
    size, touch = PHONE, True

    def test_the_code_of_a_label_opens_its_place(self) -> None:
        row = self.enter_demo("upkeep")
        page = self.page
        page.get_by_role("button", name="Move into").click()
        expect(page.get_by_role("list", name="Places").get_by_role("listitem").first).to_be_visible()
        place = models.Place.objects.filter(space=row, stays__isnull=False).first()
        assert place is not None
        page.goto(f"{self.live_server_url}/at/{place.pk}")
        expect(page.locator(".places li.open")).to_contain_text(place.name)
        page.goto(f"{self.live_server_url}/at/999999")
        expect(page.get_by_role("alert")).to_contain_text("taken away since")
