"""How the server serves: the page and its assets without a network, cached for good; settings that protect."""

import re
from pathlib import Path

from django.conf import settings
from django.test import Client

from .base import ServerTestCase


class ServingTests(ServerTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.browser = Client()
        self.index = (settings.WEB_DIR / "index.html").read_text("utf-8")

    def body(self, path: str) -> bytes:
        answer = self.browser.get(path)
        self.assertEqual(answer.status_code, 200, path)
        return b"".join(answer.streaming_content) if answer.streaming else answer.content  # type: ignore[attr-defined]

    def test_the_page_names_only_its_own_files(self) -> None:
        for address in re.findall(r'(?:src|href)="([^"]+)"', self.index):
            self.assertTrue(address.startswith("/"), address)
            self.assertTrue(self.body(address))
        self.assertNotIn("http://", self.index.replace("http://www.w3.org", ""))
        self.assertNotIn("https://", self.index)

    def test_styles_and_fonts_ship_with_it(self) -> None:
        assets = settings.WEB_DIR / "assets"
        styles = "".join(p.read_text("utf-8") for p in assets.glob("*.css"))
        for address in re.findall(r"url\(([^)]+)\)", styles):
            clean = address.strip("'\"")
            if not clean.startswith("data:"):
                self.assertTrue((settings.WEB_DIR / clean.lstrip("/")).exists() or (assets / Path(clean).name).exists())
        self.assertTrue(list(assets.glob("*.woff2")))

    def test_hashed_assets_are_kept_for_good_and_the_page_is_not(self) -> None:
        script = re.search(r'src="(/assets/[^"]+\.js)"', self.index)
        assert script is not None
        kept = self.browser.get(script[1]).headers["Cache-Control"]
        self.assertIn("immutable", kept)
        self.assertNotIn("immutable", self.browser.get("/").headers.get("Cache-Control", ""))

    def test_assets_are_sent_packed_as_they_were_packed_when_built(self) -> None:
        script = re.search(r'src="(/assets/[^"]+\.js)"', self.index)
        assert script is not None
        plain, packed = (self.browser.get(script[1], headers={"Accept-Encoding": e}) for e in ("identity", "gzip"))
        self.assertEqual(packed.headers.get("Content-Encoding"), "gzip")
        sizes = [int(a.headers["Content-Length"]) for a in (plain, packed)]
        self.assertLess(sizes[1], sizes[0] / 2)
        for answer in (plain, packed):
            answer.close()

    def test_the_page_answers_at_every_address_it_routes(self) -> None:
        for path in ("/", "/houses", "/house/1", "/house/1/2/layout", "/anything/else"):
            self.assertIn(b'id="root"', self.body(path))

    def test_what_is_no_page_is_not_found(self) -> None:
        for path in ("/assets/none.js", "/static/none.css", "/api/none", "/api/spaces"):
            self.assertEqual(self.browser.get(path).status_code, 404, path)

    def test_headers_that_protect(self) -> None:
        answer = self.browser.get("/")
        self.assertEqual(answer.headers["X-Frame-Options"], "DENY")
        self.assertEqual(answer.headers["X-Content-Type-Options"], "nosniff")
        self.browser.get("/api/session")
        self.assertEqual(self.browser.cookies["csrftoken"]["samesite"], "Lax")
        self.assertTrue(self.ada.client.cookies["sessionid"]["httponly"])

    def test_the_apis_own_page_needs_no_network_either(self) -> None:
        self.assertNotIn(b"cdn", self.body("/api/docs"))


class StateTests(ServerTestCase):
    """The spine's words for each stage."""

    def states(self, space: int) -> dict[str, str]:
        return dict(self.ada.get(f"/spaces/{space}/ledger").body["states"])

    def test_an_empty_closet(self) -> None:
        got = self.states(self.closet())
        self.assertEqual(got["survey"], "12 readings missing")
        self.assertEqual((got["inventory"], got["layout"], got["materials"]),
                         ("nothing yet", "not asked yet", "no design yet"))  # fmt: skip

    def test_as_it_fills(self) -> None:
        space = self.closet(
            "width 1846 1849 1843; height 2412 2408 2415; depth 612 618; opening 1250 x 2030; nibs 296 300",
            "9 shirts; 2 hats, undecided",
        )
        got = self.states(space)
        self.assertEqual((got["survey"], got["inventory"]), ("complete", "2 things, 1 undecided"))
        self.ada.post(f"/spaces/{space}/solves")
        got = self.states(space)
        self.assertRegex(got["layout"], r"^\d alternatives?$")
        self.assertRegex(got["materials"], r"^\d+,\d\d EUR$")

    def test_doubts_and_stops_are_counted(self) -> None:
        space = self.closet("low back width 1846; low back width 1870; height 2412; depth 612; door none", "9 shirts")
        self.assertIn("1 doubted", self.states(space)["survey"])
        self.ada.post(f"/spaces/{space}/solves")
        version = self.ada.get(f"/spaces/{space}").body["version"]
        self.ada.post(f"/spaces/{space}/call-out", {"version": version, "line": "width 700"})
        self.assertIn("stop", self.states(space)["layout"])
        self.assertEqual(self.states(space)["worst"], "stop")
