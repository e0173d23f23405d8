"""Two spaces on one list, another way to buy, a budget crossed and mended, the saw, the papers."""

import re
from decimal import Decimal

from playwright.sync_api import expect

from pinakotheke.core.housefile import House, Space
from pinakotheke.core.layout import Design, History
from pinakotheke.core.materials import Choice, purchase
from pinakotheke.core.systems import Finish

from ..core.examples import hung, solved, survey, wardrobe
from .driver import BrowserTestCase


class BuyingTests(BrowserTestCase):
    def enter(self, *designs: Design) -> None:
        """A household of one's own with a design in every space; Buy of the first."""
        keys = [("bedroom", "Bedroom"), ("hall", "Hall")][: len(designs)]
        house = House(
            name="Mill",
            spaces=tuple(Space(id=key, name=name, survey=survey()) for key, name in keys),
            designs=tuple(
                History(base=d.model_copy(update={"space": key})) for d, (key, _) in zip(designs, keys, strict=True)
            ),
        )
        self.go(self.bring(house).space_set.order_by("pk")[0], "materials")

    def test_from_two_designs_to_the_saw(self) -> None:
        self.enter(wardrobe(), hung())
        page = self.page
        total = page.get_by_test_id("bill-total")
        expect(total).to_be_visible(timeout=20_000)
        alone = total.inner_text()

        # Another space on the same list.
        page.get_by_text("add other spaces to the list").click()
        boxes = page.locator(".spaces-to-buy").get_by_role("checkbox")
        other = next(n for n in range(boxes.count()) if not boxes.nth(n).is_checked())
        boxes.nth(other).click()
        expect(boxes.nth(other)).to_be_checked()
        expect(page.locator(".list-head h2")).to_contain_text("for 2 spaces")
        expect(total).not_to_have_text(alone)
        both = total.inner_text()

        # Another way to buy it.
        ways = page.get_by_role("group", name="Other ways to buy")
        way = ways.get_by_role("button", name=re.compile("carcases made from sheets", re.I))
        expect(way).to_be_visible(timeout=20_000)
        way.click()
        expect(way).to_have_attribute("aria-pressed", "true")
        expect(total).not_to_have_text(both)
        page.reload()
        expect(page.locator(".list-head h2")).to_contain_text("for 2 spaces")

        # The saw: a sheet ticked off, a part of it spoiled, planned anew.
        page.get_by_text("Cut", exact=True).click()
        sheets = page.get_by_role("button", name=re.compile("^Sawn: "))
        expect(sheets.first).to_be_visible(timeout=20_000)
        before = sheets.count()
        page.locator(".sawing button").first.click()
        expect(page.locator(".title-block")).to_contain_text("To cut")
        sheets.first.click()
        sawn = page.get_by_role("region", name="Sawn already")
        expect(sawn).to_be_visible()
        expect(sheets).to_have_count(before - 1)
        spoiled = sawn.get_by_role("button", name=re.compile("is spoiled$")).first
        label = (spoiled.get_attribute("aria-label") or "").split(" ")[0]
        spoiled.click()
        expect(sawn.locator("s")).to_have_text(label)
        expect(page.locator(".cuts tbody th").filter(has_text=re.compile(f"^{label}$"))).to_be_visible()
        for name in ("Cut sheets (PDF)", "Labels (PDF)", "Sheets (DXF)"):
            link = page.get_by_role("link", name=name).get_attribute("href") or ""
            answer = page.request.get(page.url.split("/house/")[0] + link)
            self.assertEqual(answer.status, 200, name)
            self.assertGreater(len(answer.body()), 1000)
        sawn.get_by_role("button", name=re.compile("was not sawn after all$")).click()
        expect(sawn).to_be_hidden()

        # Where to buy, and what was paid.
        page.get_by_text("Where to buy", exact=True).click()
        expect(page.get_by_role("heading", name=re.compile("^The cheapest way: "))).to_be_visible(timeout=20_000)
        expect(page.get_by_role("region", name="Everything from one")).to_contain_text("The corner shop")
        page.get_by_text("Money", exact=True).click()
        page.get_by_label("Amount").fill("80")
        page.get_by_role("button", name="Write it down").click()
        expect(page.locator(".bench")).to_contain_text("80,00")

    def test_a_budget_crossed_and_mended(self) -> None:
        lit = solved(families=("carcase",), finish=Finish(lights=True)).alternatives[0]
        costs = [purchase([("Bedroom", lit)], Choice(without=w)).total for w in (frozenset(), frozenset({"lights"}))]
        self.assertGreater(costs[0], costs[1])
        budget = ((costs[0] + costs[1]) / 2).quantize(Decimal("0.01"))
        self.enter(lit)
        page = self.page
        self.step_to("house")
        field = page.locator("#budget")
        field.fill(str(budget))
        field.press("Enter")
        expect(page.get_by_label("Undo (u)")).to_be_enabled()
        self.step_to("materials")
        told = page.get_by_role("status").filter(has_text="Over the budget")
        expect(told).to_be_visible()
        expect(told).to_contain_text("Leave out lights first")
        told.get_by_role("button", name="Leave it out").click()
        expect(page.get_by_role("status").filter(has_text="Within the budget")).to_be_visible()
