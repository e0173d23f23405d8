"""What a hand sees of its own moves, in the browser: frames a second while a shelf is dragged on the demo closet and in
the room of three walls and while one walks round, milliseconds until an edit is shown, seconds to the first view.

python -m bench.frames
"""

from collections.abc import Callable
from itertools import pairwise
from statistics import median
from time import perf_counter

from playwright.sync_api import Locator, Page, sync_playwright

from tests.browser.chromium import DESK, launch
from tests.browser.demo import demo

PORT = 8429
CLOSET, ROOM = ("ticket-office", 60), ("parcels-room", 30)
PROMISED_TURN, PROMISED_SHOWN_MS, PROMISED_FIRST_S = 20, 150, 2.0
STEPS, EDITS = 60, 8
COUNT_FRAMES = """() => {
  window.__frames = []
  const note = (now) => { window.__frames.push(now); window.__counting = requestAnimationFrame(note) }
  window.__counting = requestAnimationFrame(note)
}"""
STOP = "() => { cancelAnimationFrame(window.__counting); return window.__frames }"


def main() -> None:
    """All of them, in Debian's Chromium without a graphics card."""
    with demo(PORT) as here, sync_playwright() as playwright:
        page = launch(playwright).new_context(viewport={"width": DESK[0], "height": DESK[1]}).new_page()
        page.set_default_timeout(120_000)
        page.goto(here)
        page.get_by_role("button", name="Enter the demo house").click()
        page.wait_for_url("**/house/**")
        home = page.url.split("/house/")[1].split("/")[0]
        house = page.evaluate(f"fetch('/api/households/{home}').then(got => got.json())")
        for space in house["spaces"]:
            _searched(page, space["id"])
        at = {space["key"]: f"{here}/house/{home}/{space['id']}/layout" for space in house["spaces"]}
        for space, promised in (CLOSET, ROOM):
            _opened(page, at[space])
            told(f"dragging a shelf, {space}", frames(page, lambda: _drag(page)), promised)
        _opened(page, at[CLOSET[0]])
        _shown(page)
        _walked(page)


def told(what: str, rate: float, promised: float) -> None:
    """A rate beside its promise."""
    print(f"{what}: {rate:.0f} frames a second ({rate / promised:.0%} of {promised:.0f})")


def frames(page: Page, move: Callable[[], None]) -> float:
    """Frames a second while something moves: from the middle of the times between two."""
    page.evaluate(COUNT_FRAMES)
    move()
    times = page.evaluate(STOP)
    return 1000 / median(b - a for a, b in pairwise(times))


def _searched(page: Page, space: int) -> None:
    """Wait until nothing is searched for a space any more: the frames are those of a machine that does nothing else."""
    while page.evaluate(f"fetch('/api/spaces/{space}/designs').then(got => got.json()).then(all => all.solve?.status)") in (
        "queued", "running",
    ):  # fmt: skip
        page.wait_for_timeout(1000)


def _opened(page: Page, url: str) -> None:
    page.goto(url)
    page.locator(".gallery [data-design]").first.wait_for()
    page.locator(".search-bar").get_by_role("button", name="Search again").wait_for()
    page.locator("[data-part*='-shelf-']").first.wait_for()


def _shelf(page: Page) -> Locator:
    return page.locator("[data-part*='-shelf-']").first


def _drag(page: Page) -> None:
    """A shelf up and down again, to where it was."""
    box = _shelf(page).bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    for n in range(STEPS):
        page.mouse.move(x, y - 20 * min(n, STEPS - 1 - n) / STEPS)
    page.mouse.up()


WATCH = """
() => {
  addEventListener('keydown', () => { window.pressed = performance.now(); window.painted = null }, true)
  const seen = () => requestAnimationFrame(() => setTimeout(() => { window.painted = performance.now() }))
  new MutationObserver(seen).observe(document.querySelector('.sheet'),
                                     {subtree: true, attributes: true, attributeFilter: ['aria-label']})
}
"""
"""Times of the last key and of the paint after a part had another name, by the page's own clock."""


def _shown(page: Page) -> None:
    """From the key to the paint of the part at its new height."""
    shelf, times = _shelf(page), []
    page.evaluate(WATCH)
    shelf.focus()
    for n in range(EDITS):
        page.keyboard.press("ArrowDown" if n % 2 else "ArrowUp")
        page.wait_for_function("() => window.painted")
        times.append(page.evaluate("window.painted - window.pressed"))
        page.wait_for_load_state("networkidle")  # its label and the ledger follow
        page.wait_for_timeout(300)
    middle = median(times)
    print(f"an edit is shown: median {middle:.0f} ms ({middle / PROMISED_SHOWN_MS:.0%} of promise), slowest "
          f"{max(times):.0f} ms")  # fmt: skip


def _walked(page: Page) -> None:
    start = perf_counter()
    page.get_by_label("View").get_by_text("walk-round").click()
    page.locator(".walk-canvas[data-state=shown]").wait_for()
    first = perf_counter() - start
    print(f"walk-round: first frame {first:.1f} s ({first / PROMISED_FIRST_S:.0%} of promise)")
    page.locator(".walk-canvas").focus()

    def turn() -> None:
        for _ in range(STEPS):
            page.keyboard.press("ArrowLeft")

    told("walking round", frames(page, turn), PROMISED_TURN)


if __name__ == "__main__":
    main()
