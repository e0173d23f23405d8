"""`make screenshots`: one picture of each main view, from the demo data, into `docs/screenshots/`."""

import re
from shutil import which
from subprocess import run

from playwright.sync_api import Page, expect, sync_playwright

from .chromium import DESK, PHONE, launch
from .demo import ROOT, demo

FOLDER = ROOT / "docs" / "screenshots"
PORT = 8427
HERE = f"http://127.0.0.1:{PORT}"
CALLED = "studs 1892 2492; socket at 640, 300 up, 80 x 80"


def main() -> None:
    """Start a demo with its own data, take the pictures, stop it."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    with demo(PORT), sync_playwright() as playwright:
        page = launch(playwright).new_context(viewport={"width": DESK[0], "height": DESK[1]}).new_page()
        pictures(page)


def pictures(page: Page) -> None:
    """Walk the stages and take each."""
    page.set_default_timeout(60_000)
    page.goto(HERE)
    page.get_by_role("button", name="Enter the demo house").click()
    expect(page.locator("[data-slot]").first).to_be_visible(timeout=60_000)
    home = page.url.rsplit("/", 2)[0] if page.url.endswith("survey") else f"{page.url}/1"

    house = page.evaluate(
        "path => fetch('/api/households/' + path.split('/')[2]).then(got => got.json())",
        page.evaluate("location.pathname"),
    )
    spaces = {space["key"]: space["id"] for space in house["spaces"]}

    page.get_by_label("Call out a reading").fill(CALLED)
    expect(page.locator(".echo .heard").first).to_be_visible()
    take(page, "measure")
    page.get_by_label("Call out a reading").fill("")

    stage(page, "house")
    take(page, "brief")
    stage(page, "inventory")
    take(page, "sort")
    stage(page, "layout")
    expect(page.get_by_role("button", name="Search again")).to_be_visible(timeout=300_000)
    page.locator("[data-part*=shelf]").first.click()
    take(page, "design")
    page.keyboard.press("Escape")
    for name, key, view in (("drawer", "bench-drawer", "elevation"), ("walk-round", "parcels-room", "walk-round")):
        page.goto(f"{home.rsplit('/', 1)[0]}/{spaces[key]}/layout")
        expect(page.locator("[data-design]").first).to_be_visible(timeout=300_000)
        expect(page.get_by_role("button", name="Search again")).to_be_visible(timeout=300_000)
        page.get_by_label("View").get_by_text(view).click()
        if view == "walk-round":
            expect(page.get_by_role("application")).to_have_attribute("data-state", "shown", timeout=60_000)
        take(page, f"design-{name}")
    page.goto(f"{home}/layout")
    expect(page.locator(".sheet .drawing").first).to_be_visible()
    stage(page, "checks")
    mend = page.locator(".check-bench [data-code^=reach]").first.get_by_role("button", name="What would mend it?")
    mend.click()
    expect(page.locator(".mends").first).to_be_visible()
    take(page, "check")
    stage(page, "materials")
    expect(page.get_by_test_id("bill-total")).to_be_visible()
    whole = page.get_by_role("button", name="Cut from whole sheets and boards")
    expect(whole).to_be_visible(timeout=60_000)
    take(page, "list")
    whole.click()
    page.get_by_text("Cut", exact=True).click()
    page.locator(".sawing button").first.click()
    expect(page.locator(".title-block")).to_contain_text("To cut")
    take(page, "cut")

    stage(page, "install")
    expect(page.get_by_role("table", name="Order of work")).to_be_visible(timeout=60_000)
    take(page, "order")
    booklet(page)

    stage(page, "upkeep")
    keep(page)
    won(page, home)
    members(page)
    client(page, home)

    page.set_viewport_size({"width": PHONE[0], "height": PHONE[1]})
    page.goto(f"{home.rsplit('/', 1)[0]}/2/survey")
    for digit in "1104":
        page.get_by_role("region", name="Take the next reading").get_by_role("button", name=digit, exact=True).click()
    page.locator("main").evaluate("room => room.closest('.page').scrollTo(0, 0)")
    take(page, "measure-phone")
    on_a_phone(page, home)


def on_a_phone(page: Page, home: str) -> None:
    """Sort and Install as the hand in the closet holds them."""
    for name, stage_name in (("sort", "inventory"), ("step", "install"), ("restock", "upkeep?view=restock")):
        page.goto(f"{home}/{stage_name}")
        expect(page.locator(".panel, .things, .at-wall, .supplies li").first).to_be_visible(timeout=60_000)
        if name == "sort":
            page.locator(".things").scroll_into_view_if_needed()
        take(page, f"{name}-phone")


def booklet(page: Page) -> None:
    """The page of the booklet with the map, as paper shows it; where `pdftoppm` (Debian's poppler-utils) is."""
    if which("pdftoppm") is None:
        return
    address = page.get_by_role("link", name="Booklet (PDF)").get_attribute("href")
    paper = page.context.request.get(f"{HERE}{address}").body()
    drawn = ("pdftoppm", "-png", "-r", "70", "-f", "2", "-l", "2", "-singlefile", "-", str(FOLDER / "booklet"))
    run(drawn, input=paper, check=True)


def keep(page: Page) -> None:
    """A place that was asked for, marked on the drawing; labels before they are printed."""
    page.get_by_role("button", name="Move into").click()
    expect(page.get_by_role("list", name="Places").get_by_role("listitem").first).to_be_visible()
    page.keyboard.press("/")
    page.get_by_label("Find in this house").fill("where are the jumprs")
    expect(page.get_by_role("dialog").get_by_role("button", name=re.compile("Jumpers")).first).to_be_visible()
    page.keyboard.press("Enter")
    expect(page.locator(".places li.open")).to_be_visible()
    take(page, "find")


def won(page: Page, home: str) -> None:
    """Before and after: the drawings of the wall stand in for photos."""
    drawn = {}
    for moment, name in (("before", "survey"), ("after", "layout")):
        page.goto(f"{home}/{name}")
        expect(page.locator(".sheet .drawing").first).to_be_visible(timeout=60_000)
        page.wait_for_timeout(600)
        drawn[moment] = page.locator(".sheet .drawing").first.screenshot()
    page.goto(f"{home}/upkeep?view=before-after")
    for moment, picture in drawn.items():
        photo = {"name": f"{moment}.png", "mimeType": "image/png", "buffer": picture}
        page.get_by_label(f"Choose a photo from {moment}").set_input_files(photo)
        expect(page.locator(f".over-each-other img[alt$={moment}]")).to_be_visible()
    take(page, "before-after")


def members(page: Page) -> None:
    """A household of one's own with its members and who is invited; the demo's visitors let nobody in."""
    browser = page.context.browser
    assert browser is not None
    own = browser.new_context(viewport={"width": DESK[0], "height": DESK[1]}).new_page()
    own.goto(HERE)
    own.get_by_label("Name", exact=True).fill("Maren")
    own.get_by_label("Password", exact=True).fill("a-long-enough-one")
    own.get_by_role("button", name="Register").click()
    own.get_by_label("New household").fill("The Mill")
    own.get_by_role("button", name="Create household").click()
    expect(own.get_by_text("One space at a time")).to_be_visible()
    own.goto(f"{own.url}/members")
    for note, role in (("Ilse, who owns the mill", "owner"), ("Tomas, her son", "guest")):
        own.get_by_label("For whom the link is").fill(note)
        own.get_by_label("As", exact=True).select_option(role)
        own.get_by_role("button", name="Make a link").click()
        expect(own.get_by_role("list", name="Invited")).to_contain_text(note)
    take(own, "members")


def client(page: Page, home: str) -> None:
    """What a client sees by a link, with something said of a shelf."""
    browser = page.context.browser
    assert browser is not None
    page.goto(f"{home.rsplit('/', 1)[0]}/client")
    page.get_by_label("Who looks").fill("Wren Alder")
    page.get_by_role("button", name="Make a link").click()
    wren = browser.new_context(viewport={"width": DESK[0], "height": DESK[1]}).new_page()
    wren.goto(page.get_by_label("The link", exact=True).input_value())
    wren.locator(".shown-card").first.click(timeout=60_000)
    wren.locator(".shown-sheet .can-select[data-part*=shelf]").nth(2).click()
    wren.get_by_role("textbox").fill("Could this be lower? I reach it badly with a basket in hand.")
    wren.get_by_role("button", name="Say it").click()
    expect(wren.get_by_role("region", name="Remarks")).to_contain_text("of the shelf")
    take(wren, "client")


def stage(page: Page, name: str) -> None:
    """Go to a stage by the spine and wait until it hangs."""
    page.locator(f"a.stage[href$='/{name}'], a.stage[href*='/{name}?']").click()
    expect(page.locator(".sheet .drawing, .panel").first).to_be_visible(timeout=60_000)
    expect(page.locator(".ledger section").first).to_be_visible(timeout=60_000)


def take(page: Page, name: str) -> None:
    """One picture, once fonts, drawings and the ledger have settled."""
    if name.startswith("design"):
        expect(page.get_by_text("no design yet")).to_have_count(0, timeout=60_000)
    page.evaluate("document.fonts.ready")
    page.mouse.move(0, 0)
    page.wait_for_timeout(600)
    page.screenshot(path=FOLDER / f"{name}.png")


if __name__ == "__main__":
    main()
