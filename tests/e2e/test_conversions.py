"""A conversion in the browser: from the fit lens to its section, what is missing is read, its card changed."""

import re

import psycopg
from playwright.sync_api import Page, expect

from tests.e2e.conftest import unfold


def _of_pump(dsn: str, what: str) -> str:
    with psycopg.connect(dsn) as conn:
        row = conn.execute(f"SELECT {what} FROM job WHERE name = 'Pump No. 4'").fetchone()
    assert row is not None
    return str(row[0])


def _open(page: Page, dsn: str, hole: int) -> None:
    page.goto(f"/jobs/{_of_pump(dsn, 'job_id')}/conversion/{hole}")
    expect(page.get_by_role("heading", name=f"The conversion, hole {hole}")).to_be_visible()


def test_from_the_lens_to_the_hole_that_is_out_of_line(demo_dsn: str, page: Page) -> None:
    page.goto(f"/jobs/{_of_pump(demo_dsn, 'job_id')}/press-fit/3")
    page.get_by_role("link", name="The conversion").first.click()
    expect(page.get_by_role("heading", name="The conversion, hole 3")).to_be_visible()
    section = page.get_by_role("img", name="Section of hole 3")
    expect(section).to_contain_text("towards 11h")
    expect(section).to_contain_text("Registers off line")
    expect(page.get_by_text("11.0 thou to 13.0 thou will come off")).to_be_visible()
    expect(page.get_by_role("region", name="Registers", exact=True)).to_contain_text("bent by 2.6 thou")
    page.get_by_role("button", name="Hole 1").press("Enter")
    expect(page).to_have_url(re.compile(r"conversion/1"))
    expect(page.get_by_role("region", name="Registers", exact=True)).to_contain_text("0.3 thou")
    page.get_by_role("button", name="µm", exact=True).click()
    expect(page.get_by_role("img", name="Section of hole 1")).to_contain_text("mm, at 12h only")


def test_what_is_missing_is_read_from_here(demo_dsn: str, page: Page) -> None:
    _open(page, demo_dsn, 4)
    order = page.get_by_role("region", name="In this order")
    expect(order).to_contain_text("Press the inserts in: hole 4 to come")
    expect(order.get_by_role("link", name="Read the insert")).to_be_visible()
    order.get_by_role("link", name="Read the pocket").click()
    expect(page).to_have_url(re.compile("deck-insert-pocket/hole-4"))
    expect(page.get_by_text("deck insert pocket").first).to_be_visible()


def test_a_figure_of_the_card_changes_what_comes_off(demo_dsn: str, page: Page) -> None:
    with psycopg.connect(demo_dsn) as conn:
        card = conn.execute(
            "SELECT spec_card_id FROM spec_card_version WHERE card->>'engine' = 'Corvane Four'"
        ).fetchone()
    assert card is not None
    page.goto(f"/cards/{card[0]}")
    unfold(page, "Conversion")
    form = page.get_by_role("group", name="Conversion", exact=True)
    form.get_by_label("left proud, least", exact=True).fill("12")
    page.get_by_role("button", name=re.compile("^Save")).first.click()
    expect(page.get_by_text("This must be more than the proud least: check both.").first).to_be_visible()
    form.get_by_label("left proud, least", exact=True).fill("6")
    page.get_by_role("button", name=re.compile("^Save")).first.click()
    expect(page.get_by_text("version 2").first).to_be_visible()


def test_on_a_phone_nothing_is_wider_than_the_screen(demo_dsn: str, page: Page) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    _open(page, demo_dsn, 3)
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    expect(page.get_by_role("region", name="In this order")).to_be_visible()


def test_a_job_without_a_conversion_says_where_one_begins(demo_dsn: str, page: Page) -> None:
    with psycopg.connect(demo_dsn) as conn:
        row = conn.execute("SELECT job_id FROM job WHERE name = 'Ferry Lanthorn'").fetchone()
    assert row is not None
    page.goto(f"/jobs/{row[0]}/conversion")
    expect(page.get_by_text("choose liners left proud")).to_be_visible()
    page.get_by_role("link", name="The card").click()
    expect(page).to_have_url(re.compile("/card"))
