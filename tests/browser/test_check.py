"""The Check stage: what was asked and found, bay by bay; an act that mends; the report."""

import re
from io import BytesIO

from playwright.sync_api import Locator, expect
from pypdf import PdfReader

from pinakotheke.core.checks import rules
from pinakotheke.core.house import HouseLimits, HouseRules, Person
from pinakotheke.core.housefile import House, Space
from pinakotheke.core.inventory import Thing
from pinakotheke.core.layout import Assignment, Design, History
from pinakotheke.core.mechanics.shelves import ShelfMake
from pinakotheke.server import models

from ..core.examples import ADULT, PLAIN, TIGHT_FIT, WARDROBE, survey, thing, wardrobe
from .chromium import PHONE
from .driver import BrowserTestCase


def house_with(design: Design, *things: Thing, line: str = PLAIN, people: tuple[Person, ...] = (ADULT,),
               rules: HouseRules = TIGHT_FIT) -> House:  # fmt: skip
    """A household with one closet and one design of it."""
    here = Space(id="closet", name="Closet", survey=survey(line))
    return House(
        name="Mill", people=people, spaces=(here,), things=things, rules=rules, designs=(History(base=design),)
    )


class MendTests(BrowserTestCase):
    def enter(self, house: House) -> models.Space:
        """A household of one's own, looked at by its member."""
        row = self.bring(house)
        space = row.space_set.get()
        self.go(space, "checks")
        return space

    def found(self, code: str) -> Locator:
        return self.page.get_by_role("region", name="What was found").locator(f"[data-code='{code}']")

    def mend(self, code: str, act: str) -> None:
        """What a finding offers: the first act of a kind, done."""
        one = self.found(code).first
        one.get_by_role("button", name="What would mend it?").click()
        one.get_by_role("button", name=re.compile(act)).first.click()
        expect(self.found(code)).to_have_count(0)
        expect(self.page.get_by_role("region", name="Mended")).to_contain_text("Gone:")

    def test_a_sagging_shelf_is_made_of_another_board(self) -> None:
        heavy = tuple(t.model_copy(update={"mass": 3.6}) if t.id == "jumpers" else t for t in WARDROBE)
        strict = TIGHT_FIT.model_copy(update={"limits": HouseLimits(shelves=ShelfMake(shows=300))})
        space = self.enter(house_with(wardrobe(), *heavy, rules=strict))
        sagging = self.found("strength.sag").first
        expect(sagging).to_contain_text("will sag")
        expect(sagging).to_contain_text("of the same board")
        self.mend("strength.sag", "^Make the shelf in bay 2 .* (particleboard|plywood)")
        (done,) = (c for row in models.Design.objects.filter(space=space) for c in row.done)
        self.assertEqual(done["do"], "make")
        self.page.get_by_role("button", name="Undo the last act on the design").click()
        expect(self.found("strength.sag").first).to_be_visible()

    def test_a_drawer_behind_a_return_is_shown_and_swapped(self) -> None:
        narrow = PLAIN.replace("opening 1250 x 2030; nibs 296 300", "opening 800 x 2030; nibs 296 750")
        kept = tuple(t.model_copy(update={"way": None}) for t in WARDROBE)
        self.enter(house_with(wardrobe(), *kept, line=narrow))
        expect(self.found("pull-out.return").first).to_contain_text("The drawer in bay 2 cannot come out")
        drawer = next(p for p in wardrobe().parts if p.role == "drawer")
        expect(self.page.locator(f".is-wrong[data-part='{drawer.id}']")).to_be_attached()
        self.page.get_by_role("radiogroup", name="View").get_by_text("plan", exact=True).click()
        expect(self.page.get_by_text("Dashed: where drawers and doors go")).to_be_visible()
        self.mend("pull-out.return", "take out the drawer|Make the drawer")

    def test_detergent_at_a_childs_height_is_moved(self) -> None:
        child = Person(id="kim", name="Kim", stature=1150, age="child")
        bleach = thing("bleach", "bleach", 1, frequency="monthly")
        shelf = next(p for p in wardrobe().parts if p.id == "b2-shelf-5")
        held = Assignment(id="a1", thing="bleach", part=shelf.id, way="shelf", count=1)
        design = wardrobe().model_copy(update={"assignments": (held,)})
        self.enter(house_with(design, bleach, people=(ADULT, child)))
        expect(self.found("safety.limit").first).to_contain_text("within the grip of someone it is kept from")
        self.mend("safety.limit", "^(Move|Send) .*mm$")

    def test_what_only_a_person_can_answer_is_kept_with_name_and_day(self) -> None:
        space = self.enter(house_with(wardrobe(), *WARDROBE, line=PLAIN + "; panel at 1600, 1200 up, 200 x 300"))
        asked = self.found("ask.open").filter(has_text="panel")
        asked.get_by_role("button", name="Yes").click()
        said = self.found("ask.yes")
        expect(said).to_contain_text(re.compile(r"visitor-\w+ said yes on"))
        space.refresh_from_db()
        self.assertEqual([a["says"] for a in space.use["answers"]], ["yes"])
        said.get_by_role("button", name="Ask again").click()
        expect(self.found("ask.open").filter(has_text="panel")).to_be_visible()

    def test_what_the_house_goes_by_is_said_in_its_own_units(self) -> None:
        space = self.enter(house_with(wardrobe(), *WARDROBE))
        self.go(space, "house")
        lift = self.page.get_by_role("textbox", name="One person lifts at best")
        lift.fill("33 lb")
        lift.press("Enter")
        expect(lift).to_have_value("15.0 kg")
        lift.fill("a lot")
        lift.press("Enter")
        expect(self.page.get_by_role("alert").first).to_be_visible()
        expect(lift).to_have_value("15.0 kg")
        lift.fill("")
        lift.press("Enter")
        expect(lift).to_have_value("23.0 kg")


class CheckTests(BrowserTestCase):
    def test_a_cell_shows_its_own_findings(self) -> None:
        self.enter_demo("checks")
        page = self.page
        expect(page.locator("a.stage[aria-current=page]")).to_contain_text("Check")
        found = page.get_by_role("region", name="What was found")
        expect(found.locator(".finding").first).to_be_visible()
        every = found.locator(".finding").count()
        self.assertGreater(every, 2)
        cell = page.locator(".matrix-cell").last
        told = cell.get_attribute("aria-label") or ""
        cell.click()
        expect(cell).to_have_attribute("aria-pressed", "true")
        expect(found.locator(".finding")).to_have_count(int(cell.inner_text()))
        expect(found.get_by_role("heading").first).to_have_text(
            told.split(",")[0] + ": " + told.split(", ")[1].split(":")[0]
        )
        found.get_by_role("button", name="Show everything").click()
        expect(found.locator(".finding")).to_have_count(every)
        expect(found).to_contain_text("it never permits")

    def test_one_act_mends_what_is_out_of_reach_and_is_undone(self) -> None:
        space = self.enter_demo("checks")
        page = self.page
        high = page.get_by_role("region", name="What was found").locator("[data-code='reach.high']")
        expect(high.first).to_be_visible()
        before = high.count()
        high.first.get_by_role("button", name="What would mend it?").click()
        acts = high.first.get_by_role("list", name="What would mend it")
        expect(acts.get_by_role("listitem").first).to_be_visible()
        acts.get_by_role("button").first.click()
        expect(high).to_have_count(before - 1)
        done = [c for row in models.Design.objects.filter(space=space) for c in row.done]
        self.assertEqual(len(done), 1)
        self.assertIn(done[0]["do"], ("assign", "move"))
        page.get_by_role("button", name="Undo the last act on the design").click()
        expect(high).to_have_count(before)

    def test_all_that_is_checked_is_listed_with_its_source(self) -> None:
        self.enter_demo("checks")
        page = self.page
        page.get_by_text("All that is checked").click()
        expect(page.locator("[data-rule]")).to_have_count(len(rules()))
        expect(page.locator("[data-rule='safety.anchor']")).to_contain_text("F2057")

    def test_the_report_is_printed(self) -> None:
        self.enter_demo("checks")
        link = self.page.get_by_role("link", name="Report (PDF)").get_attribute("href") or ""
        answer = self.page.request.get(self.live_server_url + link)
        text = " ".join(page.extract_text() for page in PdfReader(BytesIO(answer.body())).pages)
        for words in ("what was checked", "Reckoned with", "Does everybody reach what is theirs?", "common practice"):
            self.assertIn(words, " ".join(text.split()))

    def test_on_a_phone_and_where_there_is_no_design(self) -> None:
        space = self.enter_demo("checks")
        page = self.page
        page.set_viewport_size({"width": PHONE[0], "height": PHONE[1]})
        expect(page.locator(".matrix-cell").first).to_be_visible()
        self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), PHONE[0])
        empty = next(s for s in space.household.space_set.order_by("pk") if not s.designs.exists())
        self.open(f"/house/{empty.household_id}/{empty.pk}/checks")
        expect(page.get_by_role("link", name="Go to Design")).to_be_visible()
