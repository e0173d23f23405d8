"""Members, invitations and one's account, by hand: at the desk and on a phone, by keyboard, without a fault of axe."""

import re

from axe_playwright_python.sync_playwright import Axe
from django.contrib.auth import get_user_model
from django.core import mail
from playwright.sync_api import Page, expect

from pinakotheke.server import models

from .chromium import PHONE
from .driver import BrowserTestCase

PASSWORD = "a-long-enough-one"


class AccessTests(BrowserTestCase):
    def register(self, page: Page, name: str) -> None:
        page.get_by_label("Name", exact=True).fill(name)
        page.get_by_label("Password", exact=True).fill(PASSWORD)
        page.get_by_role("button", name="Register").click()

    def assertNoFault(self) -> None:  # noqa: N802
        found = Axe().run(self.page).response["violations"]
        self.assertEqual([(v["id"], [n["html"][:80] for n in v["nodes"]]) for v in found], [])

    def owner(self) -> Page:
        """Ada, owner of the Attic, at its members."""
        page = self.open()
        self.register(page, "ada")
        page.get_by_label("New household").fill("Attic")
        page.get_by_role("button", name="Create household").click()
        expect(page.get_by_text("One space at a time")).to_be_visible()
        home = models.Household.objects.get().pk
        self.open(f"/house/{home}/members")
        expect(page.get_by_role("list", name="Members")).to_be_visible()
        return page

    def test_invited_by_a_link_one_registers_and_comes_in_as_a_guest(self) -> None:
        page = self.owner()
        page.get_by_label("For whom the link is").fill("the neighbour")
        page.get_by_label("As", exact=True).select_option("guest")
        page.get_by_role("button", name="Make a link").click()
        link = page.get_by_label("The link", exact=True).input_value()
        expect(page.get_by_role("list", name="Invited")).to_contain_text("the neighbour")
        self.assertNoFault()

        other = self.browser.new_context(viewport={"width": PHONE[0], "height": PHONE[1]})
        self.addCleanup(other.close)
        phone = other.new_page()
        phone.goto(link)
        expect(phone.get_by_role("status")).to_contain_text("ada invites you into Attic, as guest.")
        self.register(phone, "bo")
        phone.get_by_role("button", name="Come in").click()
        expect(phone.get_by_text("One space at a time")).to_be_visible()
        phone.get_by_role("link", name="Attic").click()
        expect(phone.get_by_role("link", name="Attic")).to_contain_text("guest")

        page.reload()
        page.get_by_label("Role of bo").select_option("member")
        expect(page.get_by_label("Role of bo")).to_have_value("member")
        page.get_by_role("button", name="Let bo out").click()
        expect(page.get_by_label("Role of bo")).to_have_count(0)
        phone.reload()
        expect(phone.get_by_text("You have no household yet")).to_be_visible()

    def test_invited_by_name_one_accepts_and_is_handed_the_household(self) -> None:
        get_user_model().objects.create_user("bo", password=PASSWORD)
        page = self.owner()
        page.get_by_label("Their name here").fill("bo")
        page.get_by_label(re.compile("Hand the household over")).check()
        page.get_by_role("button", name="Invite", exact=True).click()
        expect(page.get_by_role("list", name="Invited")).to_contain_text("it is handed over")
        other = self.browser.new_context()
        self.addCleanup(other.close)
        theirs = other.new_page()
        theirs.goto(self.live_server_url)
        theirs.get_by_label("Name", exact=True).fill("bo")
        theirs.get_by_label("Password", exact=True).fill(PASSWORD)
        theirs.get_by_role("button", name="Sign in").click()
        invited = theirs.get_by_role("region", name="Invitations")
        expect(invited).to_contain_text("ada hands Attic over to you")
        invited.get_by_role("button", name="Come in").click()
        expect(theirs.get_by_text("One space at a time")).to_be_visible()
        roles = dict(models.Membership.objects.values_list("user__username", "role"))
        self.assertEqual(roles, {"ada": "organizer", "bo": "owner"})

    def test_a_household_ends_by_its_name(self) -> None:
        page = self.owner()
        page.get_by_role("button", name="Delete Attic…").click()
        last = page.get_by_role("button", name="Delete it for good")
        expect(last).to_be_disabled()
        page.get_by_label("Type the household’s name").fill("Attic")
        last.click()
        expect(page.get_by_text("You have no household yet")).to_be_visible()
        self.assertFalse(models.Household.objects.exists())

    def test_the_account_its_password_and_its_end(self) -> None:
        self.page.set_viewport_size({"width": PHONE[0], "height": PHONE[1]})
        page = self.owner()
        self.open("/account")
        expect(page.get_by_role("heading", name="Your account")).to_be_visible()
        self.assertNoFault()
        page.get_by_label("E-mail").fill("ada@example.org")
        page.get_by_label("Your password", exact=True).fill(PASSWORD)
        page.get_by_role("button", name="Keep the address").click()
        expect(page.get_by_role("status")).to_have_text("Kept.")
        wide = page.evaluate("document.documentElement.scrollWidth")
        self.assertLessEqual(wide, PHONE[0])
        page.get_by_label("Attic").check()
        page.get_by_label("Your password, to delete the account").fill(PASSWORD)
        page.get_by_role("button", name="Delete the account for good").click()
        expect(page.get_by_role("button", name="Register")).to_be_visible()
        self.assertFalse(get_user_model().objects.filter(username="ada").exists())

    def test_a_forgotten_password_by_a_letter(self) -> None:
        get_user_model().objects.create_user("ada", "ada@example.org", PASSWORD)
        page = self.open()
        page.get_by_role("link", name="Password forgotten?").click()
        page.get_by_label("Name").fill("ada")
        page.get_by_role("button", name="Send a link").click()
        expect(page.get_by_role("status")).to_contain_text("a letter")
        found = re.search(r"(/new-password/\S+)", str(mail.outbox[0].body))
        assert found is not None
        self.open(found[1])
        page.get_by_label("New password").fill("another-long-one")
        page.keyboard.press("Enter")
        expect(page.get_by_label("New household")).to_be_visible()
