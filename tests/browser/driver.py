"""Debian's Chromium against Django's live server. Every test fails on a page error, or on a request that would leave
the machine."""

import os
from typing import Any, ClassVar
from unittest.mock import patch

from django.conf import settings
from django.test import LiveServerTestCase
from django.test.utils import override_settings
from playwright.sync_api import Browser, Page, Request, expect, sync_playwright

from pinakotheke.core.housefile import House
from pinakotheke.server import models
from pinakotheke.server.actions.demo import load_demo
from pinakotheke.server.actions.house import import_house
from pinakotheke.server.jobs import run_solve

from .chromium import DESK, launch

expect.set_options(timeout=20_000)


_solved: list[dict[str, Any]] = []
_search: dict[str, Any] = {}


def solved_demo() -> models.Household:
    """The demo household with alternatives for its first closet; searched once, then remembered."""
    house = load_demo()
    space = house.space_set.order_by("pk").first()
    assert space is not None
    if _solved:
        models.Design.objects.bulk_create(models.Design(space=space, **fields) for fields in _solved)
        models.Solve.objects.create(space=space, **_search)
    else:
        with override_settings(SOLVE_EFFORT=1.0):  # the closet is dense: a search in haste leaves something out
            run_solve.enqueue(models.Solve.objects.create(space=space).pk)
        _solved.extend(space.designs.order_by("pk").values("key", "base"))
        _search.update(space.solves.values("status", "progress", "message", "frontier", "sensitivities").get())
    return house


class BrowserTestCase(LiveServerTestCase):
    """One browser for the class, one profile for each test."""

    browser: ClassVar[Browser]
    size = DESK
    touch = False

    @classmethod
    def setUpClass(cls) -> None:
        if not (settings.WEB_DIR / "index.html").exists():
            raise RuntimeError("the web pages are not built: run `make web`")
        # Playwright's loop runs in this thread, and Django would refuse to touch the database beside it.
        os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = "1"
        cls.addClassCleanup(os.environ.pop, "DJANGO_ALLOW_ASYNC_UNSAFE")
        super().setUpClass()
        playwright = sync_playwright().start()
        cls.addClassCleanup(playwright.stop)
        cls.browser = launch(playwright)
        cls.addClassCleanup(cls.browser.close)

    def setUp(self) -> None:
        # The demo's other spaces are not searched: what a test needs it asks for.
        unsearched = patch("pinakotheke.server.actions.demo.ask")
        unsearched.start()
        self.addCleanup(unsearched.stop)
        width, height = self.size
        context = self.browser.new_context(
            viewport={"width": width, "height": height}, accept_downloads=True, has_touch=self.touch
        )
        self.addCleanup(context.close)
        self.outside: list[str] = []
        self.errors: list[str] = []
        # Only listened to: what is stopped on its way goes round the browser's cache.
        context.on("request", self._stays_here)
        self.page = context.new_page()
        self.page.on("pageerror", lambda error: self.errors.append(str(error)))
        self.page.on("console", lambda said: self.errors.append(said.text) if self._is_error(said) else None)

    def tearDown(self) -> None:
        self.assertEqual(self.outside, [], "requests that would leave the machine")
        self.assertEqual(self.errors, [], "errors on the page")

    def _stays_here(self, request: Request) -> None:
        if not request.url.startswith((self.live_server_url, "data:", "blob:")):
            self.outside.append(request.url)

    @staticmethod
    def _is_error(said: object) -> bool:
        # The browser reports each 4xx answer; those are part of some tests.
        return said.type == "error" and "Failed to load resource" not in said.text  # type: ignore[attr-defined]

    def open(self, path: str = "/") -> Page:
        self.page.goto(self.live_server_url + path)
        return self.page

    def enter_demo(self, stage: str = "survey", space: int = 0) -> models.Space:
        """Sign into the solved demo and go to a stage of one of its spaces."""
        solved_demo()
        self.house = self.visit()
        row = list(self.house.space_set.order_by("pk"))[space]
        self.go(row, stage)
        return row

    def visit(self) -> models.Household:
        """Enter the demo; the visitor's copy of it."""
        self.open()
        self.page.get_by_role("button", name="Enter the demo house").click()
        expect(self.page.get_by_role("navigation", name="Stages")).to_be_visible()
        return models.Household.objects.filter(expires__isnull=False).latest("pk")

    def bring(self, house: House) -> models.Household:
        """A household of the visitor's own beside the demo."""
        load_demo()
        return import_house(self.visit().members.get(), house)

    def step_to(self, stage: str) -> None:
        """Another stage of the same space, by the spine."""
        link = self.page.locator(f"a.stage[href$='/{stage}'], a.stage[href*='/{stage}?']")
        link.click()
        expect(link).to_have_attribute("aria-current", "page")
        expect(self.page.locator(".sheet .drawing:visible, .bench .panel, .empty, .things").first).to_be_visible()

    def go(self, space: models.Space, stage: str) -> None:
        """A stage of a space, loaded."""
        self.open(f"/house/{space.household_id}/{space.pk}/{stage}")
        expect(self.page.locator(".ledger section").first).to_be_visible()
