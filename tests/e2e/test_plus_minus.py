"""One load for one reading; every ± opens; what a bare number is; lengths that look like slips: in the browser."""

import re

from playwright.sync_api import Page, expect

from tests.e2e.conftest import BlockView


def test_one_reading_loads_what_is_shown_once(page: Page, block: BlockView) -> None:
    block.open(5)
    loads: list[str] = []
    page.on("request", lambda one: loads.append(one.url) if one.method == "GET" and "/api/jobs/" in one.url else None)
    entry = page.locator("#entry")
    # The echo of a change comes before the answers to the next one: what it loaded is counted by then.
    for text in ("5 1.5h 6.6", "5 4.5h 6.5", "5 7.5h 6.7"):
        with page.expect_response(lambda answer: answer.request.method == "GET" and answer.url.endswith("/block")):
            entry.fill(text)
            entry.press("Enter")
        expect(entry).to_have_value("")
    assert len([one for one in loads if one.endswith("/block")]) == 3
    assert len([one for one in loads if "/surveys" in one]) <= 3


def test_the_plan_of_a_cut_opens_into_the_budget_of_its_parts(page: Page, block: BlockView) -> None:
    block.open(5)
    page.goto(page.url.split("/protrusion")[0] + "/cut/5")
    page.get_by_title("Open the budget: protrusion by the stop").click()
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_label("Of what").locator("option:checked")).to_have_text("protrusion by the stop")
    expect(dialog.get_by_role("row", name=re.compile("stop of the cutter"))).to_have_count(1)
    expect(dialog.get_by_role("row", name=re.compile("zero"))).not_to_have_count(0)


def test_a_bare_number_says_what_it_is_before_it_is_taken(page: Page, block: BlockView) -> None:
    block.open(5)
    page.keyboard.press("Escape")
    page.keyboard.press("b")
    expect(page.get_by_role("region", name="Now")).to_be_visible()
    hint = page.get_by_role("status", name="What the number means").first
    expect(hint).to_have_text("a bare number is hundredths of a mm")
    page.get_by_label("Type a reading").first.fill("8.5")
    expect(hint).to_contain_text("+85")
    expect(hint).to_contain_text("thou")


def test_a_length_that_looks_like_a_slip_is_asked_about_and_saved_as_typed(page: Page) -> None:
    page.goto("/")
    page.get_by_role("link", name="Spec cards").click()
    page.get_by_role("link", name=re.compile("^Fennick 6W, wet liners")).click()
    field = page.get_by_label("greatest, no shim", exact=True)
    field.fill("125")
    page.get_by_role("button", name="Save as next version").click()
    expect(field).to_have_attribute("aria-invalid", "true")
    expect(page.get_by_text("asked about: put it right, or save the card as typed")).to_be_visible()
    expect(field).to_have_value("125")
    page.get_by_role("button", name="Save it as typed").click()
    expect(page.get_by_role("status")).to_contain_text("Saved as version 2")


def test_how_warm_the_shop_usually_is_stands_in_the_cabinet(page: Page) -> None:
    page.goto("/shop/cabinet")
    room = page.get_by_role("region", name="Room without a thermometer")
    expect(room).to_contain_text("20 °C, give or take 5 K")
    room.get_by_label("Usually").fill("17")
    room.get_by_label("Give or take").fill("warm")
    room.get_by_role("button", name="Take it to be so").click()
    expect(room.get_by_label("Give or take")).to_have_attribute("aria-invalid", "true")
    expect(room.get_by_label("Usually")).to_have_value("17")
    room.get_by_label("Give or take").fill("4")
    room.get_by_role("button", name="Take it to be so").click()
    expect(room).to_contain_text("17 °C, give or take 4 K")
