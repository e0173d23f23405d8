"""The work on the wall in the browser: order and map at the desk; on a phone one step at a time, the connection cut
half-way, a step that is not as drawn, two people ticking at once.
"""

import re
from io import BytesIO

from PIL import Image
from playwright.sync_api import expect

from pinakotheke.server import models

from .chromium import PHONE
from .driver import BrowserTestCase


class DeskTests(BrowserTestCase):
    def test_the_order_the_map_and_what_is_said_of_the_work(self) -> None:
        self.enter_demo("install")
        page = self.page
        order = page.get_by_role("table", name="Order of work")
        expect(order).to_contain_text("Strike the level line")
        count = order.get_by_role("row").count()
        page.get_by_label("Hangs there now").select_option("shelves")
        expect(order).to_contain_text("Cut the caulk line")
        expect(order.get_by_role("row")).to_have_count(count + 2)
        page.get_by_label("Undo (u)").click()
        expect(order.get_by_role("row")).to_have_count(count)
        page.get_by_label("Step 1 is done").check()
        expect(page.get_by_role("link", name=re.compile("^7? ?Install"))).to_contain_text("1 step done")
        self.assertEqual(models.Tick.objects.get().step, "empty")
        page.get_by_label("Step 1 is done").uncheck()
        expect(page.get_by_role("link", name=re.compile("^7? ?Install"))).to_contain_text("not begun")
        page.get_by_text("Holes", exact=True).click()
        expect(page.get_by_label("Title block")).to_contain_text("Drilling map")
        expect(page.locator(".table.holes tbody tr").first).to_be_visible()
        with page.expect_download() as taken:
            page.get_by_role("link", name="Holes (CSV)").click()
        self.assertTrue(taken.value.suggested_filename.endswith("holes.csv"))
        page.get_by_text("To lay ready", exact=True).click()
        expect(page.get_by_role("heading", name="Tools")).to_be_visible()
        page.get_by_label("drill", exact=True).check()
        expect(page.get_by_label("drill", exact=True)).to_be_checked()
        page.reload()
        expect(page.get_by_label("drill", exact=True)).to_be_checked()
        expect(page.get_by_role("heading", name="Tools")).to_be_visible()


class PhoneTests(BrowserTestCase):
    size, touch = PHONE, True

    def test_the_connection_goes_half_way_and_nothing_is_lost(self) -> None:
        self.enter_demo("install")
        page = self.page
        step, done = (
            page.get_by_role("article", name="The step in hand"),
            page.get_by_role("button", name=re.compile("^Done")),
        )
        expect(step).to_contain_text("0 done")
        page.get_by_role("button", name="Start the clock").click()
        expect(page.get_by_role("button", name="Stop the clock")).to_be_visible()
        done.click()
        expect(step).to_contain_text("1 done")
        expect(step.get_by_role("status")).to_have_count(0)
        page.context.set_offline(True)
        for n in (2, 3):
            done.click()
            expect(step).to_contain_text(f"{n} done")
        expect(step.get_by_role("status")).to_contain_text("2 ticks wait on this device")
        page.get_by_role("button", name="It is not as drawn").click()
        page.get_by_label("In words").fill("the wall bows by a finger")
        page.get_by_role("button", name="Keep it").click()
        expect(step).to_contain_text("waits on this device")
        self.assertEqual(models.Tick.objects.count(), 1)
        page.context.set_offline(False)
        expect(step.get_by_role("status")).to_have_count(0)
        expect(step).to_contain_text("the wall bows by a finger")
        page.reload()
        expect(step).to_contain_text("3 done")
        expect(step).to_contain_text("Not as drawn: the wall bows by a finger")
        ticks = list(models.Tick.objects.order_by("pk").values_list("step", "amiss"))
        self.assertEqual(len({s for s, amiss in ticks if not amiss}), 3)
        self.assertEqual(sum(amiss for _, amiss in ticks), 1)
        self.assertGreater(models.Tick.objects.order_by("pk")[0].minutes, 0)

    def test_ticks_that_wait_outlive_a_reload(self) -> None:
        self.enter_demo("install")
        page = self.page
        step = page.get_by_role("article", name="The step in hand")
        page.route("**/ticks", lambda route: route.abort())
        page.get_by_role("button", name=re.compile("^Done")).click()
        expect(step).to_contain_text("1 tick waits on this device")
        page.reload()
        expect(step).to_contain_text("1 done")
        page.unroute("**/ticks")
        expect(step.get_by_role("status")).to_have_count(0, timeout=15_000)
        self.assertEqual(models.Tick.objects.count(), 1)

    def test_two_people_tick_at_once(self) -> None:
        row = self.enter_demo("install")
        page, other = self.page, self.page.context.new_page()
        other.goto(f"{self.live_server_url}/house/{row.household_id}/{row.pk}/install")
        for one in (page, other):
            expect(one.get_by_role("article", name="The step in hand")).to_contain_text("0 done")
        for one in (page, other):
            one.get_by_role("button", name=re.compile("^Done")).click()
        for one in (page, other):
            one.reload()
            expect(one.get_by_role("article", name="The step in hand")).to_contain_text("1 done")
        self.assertEqual(set(models.Tick.objects.values_list("step", flat=True)), {"empty"})

    def test_a_stud_that_stands_elsewhere(self) -> None:
        row = self.enter_demo("install")
        page = self.page
        step = page.get_by_role("article", name="The step in hand")
        before = sorted(models.Reading.objects.filter(space=row, what="stud").values_list("value", flat=True))
        page.get_by_role("button", name="It is not as drawn").click()
        page.get_by_label("What is not as drawn").select_option("stud")
        page.get_by_label("Which stud").select_option(index=1)
        page.get_by_label("Where it stands, from the left end of the wall").fill("a finger")
        page.get_by_role("button", name="Keep it").click()
        expect(page.get_by_role("alert")).to_contain_text("You had said: a finger")
        page.get_by_role("button", name="It is not as drawn").click()
        page.get_by_label("What is not as drawn").select_option("stud")
        page.get_by_label("Which stud").select_option(index=1)
        page.get_by_label("Where it stands, from the left end of the wall").fill("203")
        page.get_by_role("button", name="Keep it").click()
        expect(step).to_contain_text("The stud stands at 203 mm")
        after = models.Reading.objects.filter(what="stud", value=203)
        self.assertEqual(after.count(), 1)
        self.assertNotIn(203, before)

    def test_a_wall_that_bows_a_hole_that_strayed_and_a_part_that_is_short(self) -> None:
        row = self.enter_demo("install")
        page = self.page
        step = page.get_by_role("article", name="The step in hand")
        kinds = page.get_by_label("What is not as drawn")
        page.get_by_role("button", name="It is not as drawn").click()
        kinds.select_option("bow")
        expect(page.get_by_role("button", name="Keep it")).to_be_disabled()
        page.get_by_label("Which way").select_option("out")
        page.get_by_label("How far, in the middle of the wall").fill("6")
        page.get_by_role("button", name="Keep it").click()
        expect(step).to_contain_text("The middle of the wall stands 6 mm out.")
        self.assertEqual(models.Reading.objects.get(space=row, what="bow").value, 6)
        page.get_by_role("button", name="It is not as drawn").click()
        kinds.select_option("hole")
        page.get_by_label("Which hole").select_option(index=1)
        page.get_by_label("Which way").select_option("right")
        page.get_by_label("How far off it is").fill("9")
        page.get_by_role("button", name="Keep it").click()
        expect(step).to_contain_text("is 9 mm to the right: fill it")
        for _ in range(30):
            if page.get_by_role("heading", level=2).filter(has_text="board").count():
                break
            page.get_by_role("button", name="Step after").click()
        page.get_by_role("button", name="It is not as drawn").click()
        kinds.select_option("short")
        if page.get_by_label("Which part").count():
            page.get_by_label("Which part").select_option(index=1)
        page.get_by_label("By how much it is short").fill("60")
        page.get_by_label("If it is cut or bought anew").fill("2031-05-02")
        page.get_by_role("button", name="Keep it").click()
        expect(step).to_contain_text("60 mm short: cut or buy it anew")
        page.get_by_text("Order of work", exact=True).click()
        aside = page.get_by_role("region", name="Set aside at the wall")
        expect(aside).to_contain_text("there on Friday, 2 May")
        expect(page.locator("main")).to_contain_text("Done on")
        aside.get_by_role("button", name="It is there").click()
        expect(aside).not_to_contain_text("2 May")
        expect(aside).to_contain_text("a hole strayed")

    def test_photos_of_a_step_wait_without_a_connection(self) -> None:
        self.enter_demo("install")
        page = self.page
        picture = BytesIO()
        Image.new("RGB", (900, 600), "olive").save(picture, "JPEG")
        photo = {"name": "wall.jpg", "mimeType": "image/jpeg", "buffer": picture.getvalue()}
        photos = page.get_by_role("region", name="Photos of this step")
        page.route("**/photos", lambda route: route.abort())
        page.get_by_label("Choose a photo of this step").set_input_files([photo])
        expect(photos.get_by_alt_text("Photo that waits on this device")).to_be_visible()
        page.reload()
        expect(photos.get_by_alt_text("Photo that waits on this device")).to_be_visible()
        expect(page.get_by_role("article")).to_contain_text("1 photo waits on this device")
        page.unroute("**/photos")
        expect(photos.get_by_alt_text("Photo 1 of step 1")).to_be_visible(timeout=15_000)
        kept = models.Photo.objects.get(moment="step")
        self.assertEqual((kept.step, kept.design_id is not None), ("empty", True))
        photos.get_by_role("button", name="Remove photo 1").click()
        expect(photos.get_by_role("img")).to_have_count(0)
        self.assertFalse(models.Photo.objects.filter(moment="step").exists())
