"""Debian's Chromium, as tests and screenshots start it."""

from playwright.sync_api import Browser, Playwright

CHROMIUM = "/usr/bin/chromium"
FLAGS = [
    "--headless", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run",
    "--disable-background-networking", "--disable-component-update", "--disable-sync",
]  # fmt: skip
DESK, PHONE = (1280, 800), (390, 844)


def launch(playwright: Playwright) -> Browser:
    """A fresh browser."""
    return playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
