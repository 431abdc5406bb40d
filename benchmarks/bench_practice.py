"""In the browser: how smoothly a needle is rocked and a clearance shrinks, against an empty animation."""

from typing import Any
from uuid import uuid4

import psycopg
from playwright.sync_api import Page, sync_playwright

from benchmarks.workshop import database, figure, served
from vallostasis.core.practice.exercise import Move
from vallostasis.services import shop
from vallostasis.store import practice

SECONDS = 6
LONG_MS = 25
# So many points more of long frames than where nothing is drawn. [%]
AIM_POINTS = 2.0
SEED = 7
# Counts frames over some seconds, while the gauge is pushed to and fro where there is one.
FRAMES = """
async ([seconds, long]) => {
  const slide = document.querySelector('input[type=range]')
  const frames = []
  const began = performance.now()
  let last = await new Promise(requestAnimationFrame)
  while (performance.now() - began < seconds * 1000) {
    const now = await new Promise(requestAnimationFrame)
    frames.push(now - last)
    last = now
    if (slide) {
      slide.value = String(4 * Math.sin((now - began) / 450))
      slide.dispatchEvent(new Event('input'))
    }
  }
  return (100 * frames.filter((one) => one > long).length) / frames.length
}
"""


def run() -> dict[str, dict[str, Any]]:
    with database() as dsn:
        with psycopg.connect(dsn) as conn:
            person = shop.add_person(conn, "Bench").person_id
            rock, drop = uuid4(), uuid4()
            practice.add_attempt(conn, rock, "rock-a-bore-gauge", SEED, person)
            practice.add_move(conn, rock, 0, Move("set", {"gauge": "two-point", "level": "middle", "axis": "45"}))
            practice.add_attempt(conn, drop, "heat-and-chill", SEED, person)
            practice.add_move(conn, drop, 0, Move("heat", {"block": 100.0, "chill": "dry ice", "bag": "yes"}))
        with served(dsn) as port, sync_playwright() as playwright:
            browser = playwright.chromium.launch(
                executable_path="/usr/bin/chromium-headless-shell", args=["--no-sandbox"]
            )
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            empty = _long_frames(page, "about:blank", "body")
            needle = _long_frames(page, f"http://127.0.0.1:{port}/practice/{rock}", "input[type=range]")
            clearance = _long_frames(page, f"http://127.0.0.1:{port}/practice/{drop}", "[role=timer]")
            browser.close()
    return {
        f"frames over {LONG_MS} ms, empty animation": figure(empty, "%"),
        f"frames over {LONG_MS} ms, needle, more than empty": figure(needle - empty, "points", AIM_POINTS),
        f"frames over {LONG_MS} ms, clearance, more than empty": figure(clearance - empty, "points", AIM_POINTS),
    }


def _long_frames(page: Page, address: str, there: str) -> float:
    """Share of frames that take too long. [%]"""
    page.goto(address)
    page.locator(there).first.wait_for()
    page.wait_for_load_state("networkidle")
    share: float = page.evaluate(FRAMES, [SECONDS, LONG_MS])
    return share
