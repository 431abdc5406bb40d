"""Walls and the ladder in the browser: load and change, a score on a phone, a scan in wrong units, agreed anew."""

import re
from pathlib import Path

import psycopg
from playwright.sync_api import Browser, Page, expect

from tests.e2e.conftest import screen, serving


def _job(dsn: str, name: str) -> str:
    with psycopg.connect(dsn) as conn:
        row = conn.execute("SELECT job_id FROM job WHERE name = %(name)s", {"name": name}).fetchone()
    assert row is not None
    return str(row[0])


def test_clamped_and_free_give_the_change_and_one_selection_is_followed(
    demo_dsn: str, address: str, page: Page
) -> None:
    page.goto(f"{address}/jobs/{_job(demo_dsn, 'Hill Tractor Marram')}/wall/3")
    shown = page.get_by_role("radiogroup", name="What is shown")
    expect(shown.get_by_role("radio", name="wear a side")).to_be_checked()
    expect(page.get_by_text("One level has only")).to_have_count(0)
    shown.get_by_role("radio", name="free").click()
    expect(page.get_by_text("read free: the card's limits are for the clamped bore")).to_be_visible()
    shown.get_by_role("radio", name="change").click()
    expect(page).to_have_url(re.compile("show=change-0"))
    table = page.get_by_role("table", name="Readings of the wall")
    expect(table.get_by_role("row")).to_have_count(8)
    page.get_by_role("region", name="By level").get_by_role("button", name=re.compile("top of travel")).click()
    expect(table.get_by_role("button", name="0.90 inch")).to_have_attribute("aria-pressed", "true")
    page.get_by_label("show the ±").check()
    expect(page.get_by_role("group", name=re.compile("wall of hole 3 unrolled"))).to_be_visible()
    page.get_by_role("button", name="As a body").click()
    expect(page.get_by_role("img", name=re.compile("as a body"))).to_be_visible()
    page.reload()
    expect(shown.get_by_role("radio", name="change")).to_be_checked()


def test_a_score_is_drawn_by_touch_on_a_phone(demo_dsn: str, address: str, browser: Browser) -> None:
    context = browser.new_context(viewport={"width": 390, "height": 844}, has_touch=True, is_mobile=True,
                                  base_url=address, service_workers="block")  # fmt: skip
    page = context.new_page()
    page.goto(f"/jobs/{_job(demo_dsn, 'Hill Tractor Marram')}/wall/2")
    page.get_by_role("button", name="Mark the wall").tap()
    wall = page.get_by_role("group", name=re.compile("wall of hole 2 unrolled"))
    wall.evaluate("wall => wall.scrollIntoView({ block: 'center' })")
    box = wall.bounding_box()
    assert box is not None
    page.touchscreen.tap(box["x"] + 200, box["y"] + 120)
    form = page.get_by_role("form", name="Something on the wall")
    expect(form.get_by_label("Clock")).not_to_have_value("")
    page.touchscreen.tap(box["x"] + 200, box["y"] + 180)
    expect(form.get_by_label("down to")).not_to_have_value("")
    form.get_by_label("How deep").fill("2")
    form.get_by_role("checkbox", name="catches a nail").check()
    form.get_by_label("From", exact=True).fill("")
    form.get_by_role("button", name="Write it down").tap()
    expect(form.get_by_text("Say how far below the deck it begins.").first).to_be_visible()
    expect(form.get_by_label("How deep")).to_have_value("2")
    form.get_by_label("From", exact=True).fill("1.2")
    form.get_by_role("button", name="Write it down").tap()
    expect(page.get_by_role("button", name="A: score")).to_be_visible()
    context.close()


def test_a_scan_with_wrong_units_first(demo_dsn: str, address: str, page: Page, tmp_path: Path) -> None:
    job = _job(demo_dsn, "Pump No. 4")
    scan = tmp_path / "bore-2.csv"
    scan.write_bytes(page.request.get(f"{address}/api/jobs/{job}/simulated-scan.csv?hole=2").body())
    page.goto(f"{address}/jobs/{job}/wall/2")
    page.get_by_role("button", name="Bring in a scan").click()
    form = page.get_by_role("form", name="Bring in a scan")
    form.get_by_label("File of the instrument").set_input_files(scan)
    expect(form.get_by_role("table", name="Head of the file")).to_contain_text("radius_mm")
    form.get_by_label("Radius in").select_option("inch")
    form.get_by_label("Bore held").select_option("free, no plate")
    form.get_by_role("button", name="Bring it in").click()
    expect(form.get_by_text("choose mm").first).to_be_visible()
    form.get_by_label("Radius in").select_option("mm")
    form.get_by_role("button", name="Bring it in").click()
    expect(form.get_by_role("status")).to_have_text("5,760 points are in.")
    page.get_by_role("radio", name="scan free").click()
    table = page.get_by_role("table", name="Circles and lobes by level")
    expect(table.get_by_role("row")).to_have_count(9)
    page.get_by_label("Gaussian filter").select_option("15")
    expect(table.get_by_role("row")).to_have_count(9)


def test_the_ladder_worst_first_does_not_clean_next_step_agreed_anew(demo_dsn: str, browser: Browser) -> None:
    job = _job(demo_dsn, "Hill Tractor Marram")
    with serving(demo_dsn) as address, screen(browser, address) as page:
        page.goto(f"/jobs/{job}/bores")
        expect(page.get_by_role("heading", name=re.compile("Bore 3 cannot tell at"))).to_be_visible()
        plate = page.get_by_role("region", name="What this block needs")
        expect(plate).to_contain_text("Bore number 3 first, to +17.0, 3.0 thou left to hone")
        options = page.get_by_role("table", name="What bore 3 can be given")
        options.get_by_role("row", name=re.compile(r"^Bore to \+20")).get_by_role("button", name="Choose").click()
        form = page.get_by_role("form", name="Decide bore 3")
        expect(form.get_by_label("Centre moved")).to_have_value(re.compile("thou"))
        form.get_by_role("button", name="Decide under my name").click()
        expect(form.get_by_text("Say why: it stands under your name.").first).to_be_visible()
        form.get_by_label("Because").fill("pistons are on the shelf")
        form.get_by_label("the same for every bore of the block").check()
        form.get_by_role("button", name="Decide under my name").click()
        expect(page.get_by_text("bore to a step +20.0")).to_be_visible()
        look = page.get_by_role("form", name="Look at bore 3 after the cut")
        look.get_by_label("Patch at").fill("5.75")
        look.get_by_role("button", name="A dark patch is left").click()
        anew = page.get_by_role("region", name="To be agreed anew")
        expect(anew).to_contain_text("does not clean up at +508 µm (20.0 thou)")
        expect(anew).to_contain_text("3 weeks")
        options.get_by_role("row", name=re.compile(r"^Bore to \+40")).get_by_role("button", name="Choose").click()
        form.get_by_label("Because").fill("agreed by telephone, pistons ordered")
        form.get_by_label("the same for every bore of the block").check()
        form.get_by_role("button", name="Decide under my name").click()
        expect(anew).to_have_count(0)
        look.get_by_role("button", name="Bright all round").click()
        expect(page.get_by_text("Seen by")).to_contain_text("bright all round")
