"""From a click to the view that it opens, in the browser; each link is pointed at before it is followed."""

from statistics import median
from typing import Any

import psycopg
from playwright.sync_api import Page, sync_playwright

from benchmarks.workshop import database, figure, served
from vallostasis.services.demo_loading import load_demo

AIM_MS = 100.0
ROUNDS = 3
# The link of each view in the header, and what shows that it is there.
VIEWS = {
    "Route": "main svg",
    "Prepare": "main form",
    "Cut plan": "main table",
    "Measuring": "main table",
    "Liners": "main table",
    "Money": "main table",
    "Card": "main table",
    "Block": "#entry",
}
# Clicks inside the page and waits for what it is looking for to be drawn, so that the driver's own way is not counted.
FOLLOW = """
async ([label, there]) => {
  const link = [...document.querySelectorAll('nav[aria-label=Job] a')].find((one) => one.textContent.trim() === label)
  const old = document.querySelector('main')
  const began = performance.now()
  link.click()
  while (true) {
    await new Promise(requestAnimationFrame)
    const main = document.querySelector('main')
    if (main && main !== old && document.querySelector(there)) return performance.now() - began
    if (performance.now() - began > 10000) return 10000
  }
}
"""


def _times(page: Page) -> dict[str, float]:
    taken: dict[str, list[float]] = {name: [] for name in VIEWS}
    for _ in range(ROUNDS + 1):
        for name, there in VIEWS.items():
            page.get_by_role("navigation", name="Job").get_by_role("link", name=name, exact=True).hover()
            page.wait_for_load_state("networkidle")
            taken[name].append(page.evaluate(FOLLOW, [name, there]))
            page.wait_for_load_state("networkidle")
    # The first round is the first time that each view is opened.
    return {name: median(times[1:]) for name, times in taken.items()}


def run() -> dict[str, dict[str, Any]]:
    with database() as dsn:
        with psycopg.connect(dsn) as conn:
            load_demo(conn)
        with served(dsn) as port, sync_playwright() as playwright:
            browser = playwright.chromium.launch(
                executable_path="/usr/bin/chromium-headless-shell", args=["--no-sandbox"]
            )
            page = browser.new_page(viewport={"width": 1280, "height": 800}, base_url=f"http://127.0.0.1:{port}")
            page.add_init_script("localStorage.setItem('vallo-welcome', 'done')")
            page.goto("/")
            page.get_by_role("link", name="Ferry Lanthorn", exact=True).click()
            page.locator("#entry").wait_for()
            times = _times(page)
            browser.close()
    return {f"view after the first: {name}": figure(ms, "ms", AIM_MS, 0) for name, ms in times.items()}
