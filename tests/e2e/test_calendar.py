"""Estimate, agreed, late part, moved, released with credit; clock where the work is done; by keyboard and phone."""

import re
from datetime import date, timedelta

from playwright.sync_api import Page, expect

from tests.e2e.conftest import BlockView


def open_job(page: Page, name: str) -> None:
    page.goto("/")
    page.get_by_role("link", name=name, exact=True).click()
    expect(page.get_by_role("link", name="Money", exact=True)).to_be_visible()


def test_from_the_estimate_to_the_late_part_and_the_promise_that_moves(page: Page) -> None:
    open_job(page, "Narrow-boat Quillet")
    page.get_by_role("link", name="Money", exact=True).click()
    expect(page.get_by_text("as the job drafts it now")).to_be_visible()
    # A wrong entry is refused where it stands, and nothing typed is lost.
    page.get_by_label("A word to the owner").fill("Worst case, less if the mains are good.")
    page.get_by_label("Final wash: at least").fill("900")
    page.get_by_role("button", name="Write it down").first.click()
    expect(page.get_by_text("at worst it is no less than at least")).to_be_visible()
    expect(page.get_by_label("A word to the owner")).to_have_value("Worst case, less if the mains are good.")
    page.get_by_label("Final wash: at least").fill("1")
    page.get_by_role("button", name="Write it down").first.click()
    answer = page.get_by_role("form", name="Written, not answered")
    answer.get_by_label("Who says so").fill("Skipper Vane")
    answer.get_by_role("button", name="Agreed").click()
    expect(page.get_by_text("worst case agreed by Skipper Vane")).to_be_visible()
    # Pistons are ordered: the route waits for them, and the calendar follows.
    page.get_by_role("link", name="Parts and orders").click()
    order = page.get_by_role("form", name="Write an order down")
    order.get_by_label("What", exact=True).fill("Pistons of the next oversize")
    order.get_by_label("From or to whom").fill("Hallam Foundry")
    order.get_by_label("Due on").fill((date.today() + timedelta(days=20)).isoformat())
    order.get_by_role("button", name="Write it down").click()
    expect(page.get_by_role("article", name="Pistons of the next oversize")).to_contain_text("on order")
    page.get_by_role("link", name="Calendar").click()
    expect(page.get_by_role("heading", name="Calendar")).to_be_visible()
    details = page.locator("#job-details")
    details.get_by_role("button", name="Narrow-boat Quillet").click()
    expect(details).to_contain_text("Waits for Pistons of the next oversize from Hallam Foundry")
    form = page.get_by_role("form", name="Try a change")
    form.get_by_label("What", exact=True).select_option(
        label="comes another day: Pistons of the next oversize from Hallam Foundry"
    )
    form.get_by_label("Comes on").fill((date.today() + timedelta(days=41)).isoformat())
    form.get_by_role("button", name="See what it moves").click()
    moves = page.get_by_role("region", name="What it moves")
    expect(moves.get_by_text("Narrow-boat Quillet ready")).to_be_visible()
    moves.get_by_role("button", name="Accept it").click()
    # The promise it was made on is offered the day that holds in nine of ten, with the words to the owner.
    dialog = page.get_by_role("dialog", name="Promise Narrow-boat Quillet")
    expect(dialog.get_by_label("What the owner is told")).to_have_value(re.compile("Pistons of the next oversize"))
    dialog.get_by_role("button", name="Promise it").click()
    expect(dialog).to_have_count(0)
    expect(details).to_contain_text("first said")


def test_a_broken_estimate_says_so_and_is_written_anew(page: Page) -> None:
    open_job(page, "Hill Tractor Sedge")
    page.get_by_role("link", name="Money", exact=True).click()
    expect(page.get_by_text("Broken:")).to_be_visible()
    expect(page.get_by_role("region", name="Found beside what was agreed")).to_contain_text("on to the next step")
    page.get_by_role("button", name="The words, to copy").click()
    expect(page.get_by_label("Words to the owner")).to_have_value(re.compile("does not clean up"))
    page.get_by_role("button", name="Write it anew, to be agreed").click()
    page.get_by_role("form", name="Estimate").get_by_role("button", name="Write it down").click()
    answer = page.get_by_role("form", name="Written, not answered")
    answer.get_by_role("button", name="Agreed").click()
    expect(page.get_by_text("Broken:")).to_have_count(0)


def test_the_job_that_went_home_shows_its_credit(page: Page) -> None:
    open_job(page, "Winding Engine Hob")
    page.get_by_role("link", name="Money", exact=True).click()
    page.get_by_role("link", name="Bill").click()
    expect(page.get_by_text("credit")).to_be_visible()
    expect(page.get_by_text("Still open")).to_have_count(0)


def test_the_clock_runs_where_the_work_is_done_and_by_the_pedal(page: Page, block: BlockView) -> None:
    block.open(5)
    page.goto(page.url.split("/protrusion")[0] + "/bench/protrusion/5")
    clock = page.get_by_role("button", name="start the clock")
    clock.focus()
    page.keyboard.press("Enter")
    running = page.get_by_role("button", name="stop")
    expect(running).to_have_attribute("aria-pressed", "true")
    page.goto(page.url.split("/bench")[0] + "/route?at=measure")
    expect(page.get_by_text("runs:")).to_be_visible()
    page.keyboard.press("PageDown")
    expect(page.get_by_text("runs:")).to_have_count(0)
    page.get_by_role("link", name="what it takes and took").click()
    expect(page.get_by_role("heading", name="What it takes and took")).to_be_visible()
    form = page.get_by_role("form", name="Work that no clock ran for")
    form.get_by_label("Day").fill("2020-01-01")
    form.get_by_label("Hours").fill("1.5")
    form.get_by_role("button", name="Add it").click()
    expect(page.get_by_text("That is more than a year ago")).to_be_visible()
    form.get_by_label("Day").fill((date.today() - timedelta(days=1)).isoformat())
    form.get_by_label("On the bill").select_option("goodwill")
    form.get_by_label("From").fill("03:00")
    form.get_by_role("button", name="Add it").click()
    expect(page.get_by_text("Goodwill 1.5 h")).to_be_visible()


def test_the_calendar_by_keyboard_and_on_a_phone(page: Page) -> None:
    page.goto("/calendar?by=person")
    expect(page.get_by_role("button", name="by person")).to_have_attribute("aria-pressed", "true")
    page.get_by_role("button", name="rules by job").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="rules by job")).to_have_attribute("aria-pressed", "true")
    page.set_viewport_size({"width": 390, "height": 844})
    page.reload()
    expect(page.get_by_role("heading", name="Calendar")).to_be_visible()
    wide = page.evaluate("document.documentElement.scrollWidth")
    assert wide <= 390, wide
