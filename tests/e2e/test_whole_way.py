"""From typed readings to a proof in the browser."""

import re

from playwright.sync_api import Page, expect
from pypdf import PdfReader

from tests.e2e.conftest import BlockView, tick_ready


def test_out_planned_cut_refitted_remeasured_in_and_proved(page: Page, block: BlockView) -> None:
    block.open(5)
    page.locator("#entry").fill("12h 5.3")
    page.locator("#entry").press("Enter")
    page.get_by_role("button", name="A new pass").click()
    block.expect_state(5, "not measured")
    for text in ("3h 4.1", "3.3", "3.7"):
        block.type(text)
    block.expect_state(5, "out")
    needs = page.get_by_role("region", name="What this hole needs")
    expect(needs).to_contain_text("Cut to 8.898 mm from the deck, fit a 0.100 mm shim")
    needs.get_by_role("button", name="Plan the cut").click()

    plan = page.get_by_role("region", name="Cut plan")
    expect(plan).to_contain_text("counted from one place on the ledge")
    expect(page.get_by_text("Local rules and licensed practice come first")).to_be_visible()
    cut = page.get_by_role("form", name="Record the cut")
    expect(cut.get_by_label("Depth by the stop")).to_have_value("8.898")
    cut.get_by_role("button", name="Record the cut").click()

    expect(page).to_have_url(re.compile(r"/counterbore/5\?at=12"))
    block.expect_state(5, "not measured")
    for hour in (12, 3, 6, 9):
        block.type(f"{hour}h 8.899")
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Fit it").click()

    fit = page.get_by_role("form", name="Record the fit")
    expect(fit.get_by_label("Shim, nominal")).to_have_value("0.100 mm")
    fit.get_by_label("as measured").fill("0.101")
    tick_ready(fit)
    fit.get_by_role("button", name="Record the fit").click()

    expect(page).to_have_url(re.compile(r"/protrusion/5\?at=12"))
    block.expect_state(5, "not measured")
    for text in ("10.1", "10.2", "10.0", "9.9"):
        block.type(text)
    block.expect_state(5, "in")
    row = page.get_by_role("row", name=re.compile(r"^5 "))
    expect(row).to_contain_text("75 – 125")

    page.get_by_role("link", name="Proof").click()
    frame = page.frame_locator("iframe[title='Proof sheet']")
    expect(frame.get_by_role("heading", name="Hole 5: in")).to_be_visible()
    with page.expect_download() as download:
        page.get_by_role("button", name="PDF").click()
    text = re.sub(r"\s+", " ", " ".join(p.extract_text() for p in PdfReader(download.value.path()).pages))
    for words in ("Job 26-031", "Hole 5: in", "Before: liner L6, no shim", "Now: liner L6 on shim 0.100 mm",
                  "measured 101 µm", "by Ines", "proves only what was measured"):  # fmt: skip
        assert words in text


def test_the_lip_is_found_and_measured_again(page: Page, block: BlockView) -> None:
    block.open(3)
    block.expect_state(3, "cannot tell")
    page.get_by_role("button", name="Measure the flange").click()
    field = page.get_by_label("Flange of L2 at the flat land")
    expect(field).to_be_focused()
    field.fill("8.902")
    field.press("Enter")
    page.get_by_role("button", name="Correct it: strike the first").click()
    expect(field).to_have_value("")
    page.get_by_role("link", name="Block").click()
    block.expect_state(3, "in")


def test_an_engine_is_taken_in_with_its_numbering_shown(page: Page) -> None:
    page.goto("/")
    page.get_by_role("link", name="Take an engine in").click()
    page.get_by_role("button", name="Take in").click()
    expect(page.get_by_role("alert")).to_contain_text("Choose the spec card")
    page.get_by_label("Measured to").select_option(label="Fennick 6W, wet liners · 6 holes · version 1")
    expect(page.get_by_role("img", name="Numbering of the holes")).to_contain_text("123456")
    expect(page.get_by_role("figure")).to_contain_text("12 h, the copper mark: the exhaust side")
    page.get_by_label("Job number").fill("26-031")
    page.get_by_label("Name of the job").fill("Second engine")
    page.get_by_role("button", name="Take in").click()
    expect(page.get_by_text("Job number 26-031 is taken").first).to_be_visible()
    expect(page.get_by_label("Name of the job")).to_have_value("Second engine")
    page.get_by_label("Job number").fill("26-032")
    page.get_by_role("button", name="Take in").click()
    page.get_by_role("button", name="Liners as found, 1 to 6 in their holes").click()
    expect(page.get_by_label("flange of 6")).to_be_visible()
    page.get_by_role("link", name="Liners", exact=True).click()
    page.get_by_label("Mark on it").fill("A1")
    page.get_by_role("button", name="Add", exact=True).click()
    expect(page.get_by_role("rowheader", name="A1")).to_be_visible()


def test_choosing_another_gauge_reopens_the_block_and_choosing_back_closes_it(page: Page, block: BlockView) -> None:
    block.open(1)
    page.get_by_title("Gauge, land, datum and clamp").click()
    dialog = page.get_by_role("dialog")
    expect(dialog).to_contain_text("fine enough for this window")
    dialog.get_by_label("Gauge", exact=True).select_option(label="Old depth dial · depth gauge · step 25.4 µm")
    dialog.get_by_role("button", name="Read this way from now on").click()
    block.expect_state(1, "not measured")
    expect(page.get_by_role("row", name=re.compile(r"^1 "))).to_contain_text("gauge changed since it was read")
    page.get_by_title("Gauge, land, datum and clamp").click()
    expect(dialog).to_contain_text("too coarse for this window")
    dialog.get_by_label("Gauge", exact=True).select_option(label="Depth sled 2 · depth gauge · step 2.0 µm")
    dialog.get_by_role("button", name="Read this way from now on").click()
    block.expect_state(1, "in")
