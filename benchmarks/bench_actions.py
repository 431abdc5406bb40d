"""How many actions the work takes in the real interface: a field filled, a choice, a tap, a key that is no digit.

Before is what the same work took when the take-in was first built: some 35 fields for a card, 180 keys for 24 ledges,
30 taps for six fits.
"""

from dataclasses import dataclass
from typing import Any

import psycopg
from playwright.sync_api import Locator, Page, expect, sync_playwright

from benchmarks.workshop import database, figure, served
from vallostasis.services.demo_loading import load_demo

CARD_BEFORE, LEDGES_BEFORE, FITS_BEFORE = 35, 180, 30
HOLES, HOURS = 6, 4


@dataclass
class Hand:
    """What a person does at the screen, counted; digits, signs and points of a reading are not."""

    page: Page
    actions: int = 0

    def tap(self, what: Locator) -> None:
        what.click()
        self.actions += 1

    def tick(self, what: Locator) -> None:
        what.check()
        self.actions += 1

    def fill(self, label: str, text: str) -> None:
        self.page.get_by_label(label, exact=True).first.fill(text)
        self.actions += 1

    def choose(self, label: str, choice: str) -> None:
        self.page.get_by_label(label, exact=True).first.select_option(choice)
        self.actions += 1

    def read(self, text: str) -> None:
        self.page.keyboard.type(text)
        self.actions += sum(not character.isdigit() and character not in "+-.," for character in text)

    def press(self, key: str) -> None:
        self.page.keyboard.press(key)
        self.actions += 1

    def since(self) -> int:
        """Actions since this was last asked."""
        done, self.actions = self.actions, 0
        return done


def _new_card(hand: Hand) -> None:
    """A card that a cut can be planned by, from the floor on."""
    hand.tap(hand.page.get_by_role("link", name="Take an engine in"))
    hand.tap(hand.page.get_by_role("link", name="Write a new spec card"))
    for label, text in (
        ("Name of the card", "Bench 6W"), ("Bore pitch [mm]", "152"), ("Bore [mm]", "110"),
        ("What lies at 12 h", "the exhaust side"), ("least, no shim", "0.05"), ("greatest, no shim", "0.125"),
        ("least on a shim", "0.075"), ("greatest on a shim", "0.125"), ("flange", "8.9"), ("counterbore depth", "8.82"),
        ("least clean-up cut", "0.025"), ("shims that can be had [mm]", "0.1 0.2 0.5"),
        ("one graduation of the cutter [mm]", "0.01"),
        ("its stop is good to ± [mm]", "0.01"),
    ):  # fmt: skip
        hand.fill(label, text)
    hand.tap(hand.page.get_by_role("button", name="Save the card"))


def _first_reading(hand: Hand) -> None:
    """The engine taken in by the card just written, its gauge chosen, one ledge read."""
    page = hand.page
    expect(page.get_by_label("Measured to")).not_to_have_value("")
    hand.fill("Job number", "26-900")
    hand.fill("Name of the job", "Counted")
    hand.tap(page.get_by_role("button", name="Take in"))
    hand.tap(page.get_by_role("button", name="Gauge for counterbore depth"))
    hand.tap(page.get_by_role("dialog").get_by_role("button", name="Read this way from now on"))
    expect(page.get_by_role("dialog")).to_have_count(0)
    hand.tap(page.get_by_label("hole 1 at 12h"))
    hand.read("8.820")
    hand.press("Tab")
    expect(page.get_by_label("hole 1 at 12h, known 8.820")).to_be_visible()


def _ledges(hand: Hand) -> None:
    """All ledges of a block, one after the other; none is asked about."""
    page = hand.page
    # The first stands; the other twenty-three and the first again as a whole sheet would have it.
    hand.tap(page.get_by_label("hole 1 at 3h"))
    for number in range(1, HOLES * HOURS):
        hand.read(f"8.8{10 + number % 20}")
        hand.press("Tab")
    expect(page.get_by_label("hole 6 at 9h, known 8.813")).to_be_visible()
    expect(page.get_by_role("button", name="Take")).to_have_count(0)


def _fits(hand: Hand) -> None:
    """Six liners go in."""
    page = hand.page
    hand.tap(page.get_by_role("button", name="Liners going in"))
    for hole in range(1, HOLES + 1):
        hand.tick(page.get_by_label(f"hole {hole}", exact=True))
    hand.tap(page.get_by_role("button", name="Record 6 fits"))
    expect(page.get_by_text("A liner stands in every hole.")).to_be_visible()


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
            hand = Hand(page)
            _new_card(hand)
            card = hand.since()
            _first_reading(hand)
            first = hand.since()
            _ledges(hand)
            ledges = hand.since()
            job = page.url.split("/jobs/")[1].split("/")[0]
            for mark in range(1, HOLES + 1):
                page.request.post(f"/api/jobs/{job}/liners", data={"mark": f"N{mark}", "make": "", "batch": ""})
            page.reload()
            _fits(hand)
            fits = hand.since()
            browser.close()
    return {
        "actions, a new card": figure(card, "actions", CARD_BEFORE / 2),
        "actions, its engine to the first reading": figure(first, "actions", CARD_BEFORE / 2),
        "actions, ledges of six holes": figure(ledges, "actions", LEDGES_BEFORE / 2),
        "actions, six fits": figure(fits, "actions", FITS_BEFORE / 2),
    }
