"""A bore pass by pass in the browser: the size, a hold point, a slip, the spring learned, undone, phone, keyboard."""

import re

import psycopg
from playwright.sync_api import Page, expect


def _open(page: Page, dsn: str, hole: int) -> None:
    with psycopg.connect(dsn) as conn:
        row = conn.execute("SELECT job_id FROM job WHERE name = 'Hill Tractor Marram'").fetchone()
    assert row is not None
    page.goto(f"/jobs/{row[0]}/boring/{hole}")
    expect(page.get_by_role("heading", name=f"Bore hole {hole} to its piston")).to_be_visible()


def _pass(page: Page, dial: str, diameter: str, kind: str = "cut") -> None:
    form = page.get_by_role("form", name="A pass that was made")
    form.get_by_label("Pass", exact=True).select_option(kind)
    form.get_by_label(re.compile("Dial, a side")).fill(dial)
    form.get_by_label(re.compile("Diameter read after")).fill(diameter)
    form.get_by_label("Minutes").fill("15")
    form.get_by_role("button", name="Write the pass down").press("Enter")
    reason = page.get_by_label("Reason to pass it")
    rows = page.get_by_role("region", name="Passes").get_by_role("row").filter(has_text=diameter)
    expect(reason.or_(rows).first).to_be_visible()
    if reason.is_visible():
        reason.fill("agreed at the machine")
        page.get_by_role("button", name=re.compile("Pass it as")).click()
    expect(rows.first).to_be_visible()


def test_to_its_piston_pass_by_pass(demo_dsn: str, page: Page) -> None:
    _open(page, demo_dsn, 3)
    size = page.get_by_role("region", name="The size")
    expect(size).to_contain_text("clearance wanted, cold")
    expect(size).to_contain_text("the round 3.7700")
    left = page.get_by_role("region", name="Left to take")
    expect(left).to_contain_text("as read")
    _pass(page, "2", "3.7560", "trial cut")
    _pass(page, "2", "3.7596")
    _pass(page, "1.5", "3.7623")
    expect(page.get_by_role("region", name="The next cut")).to_contain_text("0.90")
    expect(left).to_contain_text("3.7623")
    before = page.get_by_role("region", name="The next cut").inner_text()
    page.get_by_label(re.compile("deepest cut, a side")).fill("25")
    expect(page.get_by_role("region", name="The next cut")).not_to_have_text(before)
    page.get_by_role("button", name="Hole 1").click()
    expect(page.get_by_role("region", name="No size yet")).to_contain_text("Nobody measured piston 1")
    page.get_by_role("link", name="Read the piston").click()
    expect(page).to_have_url(re.compile("piston-skirt/piston-1"))


def test_a_dial_read_on_the_diameter_is_asked_about_and_nothing_typed_is_lost(demo_dsn: str, page: Page) -> None:
    _open(page, demo_dsn, 3)
    _pass(page, "2", "3.7560", "trial cut")
    form = page.get_by_role("form", name="A pass that was made")
    form.get_by_label(re.compile("Dial, a side")).fill("a hair")
    form.get_by_label(re.compile("Diameter read after")).fill("3.7600")
    form.get_by_role("button", name="Write the pass down").click()
    expect(form.get_by_label(re.compile("Diameter read after"))).to_have_value("3.7600")
    expect(page.get_by_text(re.compile("hair")).first).to_be_visible()
    page.reload()
    expect(form.get_by_label(re.compile("Diameter read after"))).to_have_value("3.7600")
    _pass(page, "4", "3.7600")
    expect(page.get_by_role("alert")).to_contain_text("is the dial read on the diameter?")


def test_on_a_phone_the_digits_and_the_form_are_there(demo_dsn: str, page: Page) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    _open(page, demo_dsn, 3)
    expect(page.get_by_role("form", name="How the bar is set")).to_be_visible()
    expect(page.get_by_role("region", name="The next cut")).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    expect(page.get_by_role("button", name="Write the pass down")).to_be_visible()


def test_the_bar_is_set_by_four_gaps_before_anything_is_cut(demo_dsn: str, page: Page) -> None:
    _open(page, demo_dsn, 3)
    setup = page.get_by_role("region", name="Set-up")
    expect(setup).to_contain_text("Nobody wrote down how the bar is set")
    form = setup.get_by_role("form", name="How the bar is set")
    for hour, gap in (("12", "0.7860"), ("9", "0.7850"), ("3", "0.7850")):
        form.get_by_label(re.compile(f"gap at {hour} h")).fill(gap)
    form.get_by_role("button", name="Keep the set-up").click()
    expect(form.get_by_text("three do not: feel here too").first).to_be_visible()
    form.get_by_label(re.compile("gap at 6 h")).fill("0.7840")
    form.get_by_label("Levelled to, how near").fill("mains, 2 thou")
    form.get_by_label("What must not be cut, and why").fill("deck: wire ring")
    form.get_by_role("button", name="Keep the set-up").press("Enter")
    expect(setup).to_contain_text("Move the bar 1.0 thou")
    expect(setup).to_contain_text("towards 12 h")
    expect(setup).to_contain_text("Not to be cut: deck: wire ring")
