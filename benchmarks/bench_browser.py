"""In the browser: from a keystroke to the redrawn ring, and the JavaScript of a first load."""

import gzip
from statistics import median
from typing import Any

from playwright.sync_api import Page, Response, sync_playwright

from benchmarks.workshop import database, demo_job, served

KEYSTROKES = 40
REDRAWN_AIM_MS = 50.0
JAVASCRIPT_AIM_KB = 150.0

# Types a digit, waits until the mark on the ring has moved and the next frame is drawn.
TYPE_AND_WATCH = """
async (keystrokes) => {
  const entry = document.querySelector('#entry')
  const ring = document.querySelector("[data-hole='5']")
  const times = []
  for (let i = 0; i < keystrokes; i++) {
    const drawn = new Promise((resolve) => {
      const observer = new MutationObserver(() => {
        if (!ring.querySelector('[data-preview]')) return
        observer.disconnect()
        requestAnimationFrame(() => resolve(performance.now()))
      })
      observer.observe(ring, { subtree: true, childList: true, attributes: true })
    })
    const began = performance.now()
    entry.value = `5 1.5h ${4 + (i % 50) / 10}`
    entry.dispatchEvent(new Event('input'))
    times.push((await drawn) - began)
  }
  return times
}
"""


def run() -> dict[str, dict[str, Any]]:
    with database() as dsn:
        job_id = demo_job(dsn)
        with served(dsn) as port, sync_playwright() as playwright:
            browser = playwright.chromium.launch(
                executable_path="/usr/bin/chromium-headless-shell", args=["--no-sandbox"]
            )
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            kilobytes = _first_load(page, f"http://127.0.0.1:{port}/jobs/{job_id}/protrusion/5")
            page.locator("#entry").click()
            times: list[float] = page.evaluate(TYPE_AND_WATCH, KEYSTROKES)
            browser.close()
    redrawn = median(times)
    return {
        "keystroke to redrawn ring, median": _figure(redrawn, "ms", REDRAWN_AIM_MS),
        "keystroke to redrawn ring, slowest of 40": {**_figure(max(times), "ms", 0), "aim": "none", "ok": True},
        "JavaScript of a first load, the block": _figure(kilobytes, "kB gzip", JAVASCRIPT_AIM_KB),
    }


def _first_load(page: Page, address: str) -> float:
    """Gzipped size of every script that the first view of a block needs. [kB]"""
    scripts: list[Response] = []
    page.on("response", lambda response: scripts.append(response) if response.url.endswith(".js") else None)
    page.goto(address)
    page.locator("#entry").wait_for()
    page.wait_for_load_state("networkidle")
    return sum(len(gzip.compress(script.body())) for script in scripts) / 1000


def _figure(value: float, unit: str, aim: float) -> dict[str, Any]:
    return {"value": round(value, 1), "unit": unit, "aim": f"≤ {aim:g}", "ok": value <= aim}
