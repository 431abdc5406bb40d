"""Plate and caps in the browser: begun with a wrong entry, turned by the pedal, one that moves on, phone."""

from playwright.sync_api import Page, expect

from tests.e2e.test_honing import _job


def test_a_plate_is_tightened_by_the_pedal_and_held_against_the_build(demo_dsn: str, page: Page) -> None:
    job = _job(demo_dsn, "Hill Tractor Marram")
    page.goto(f"/jobs/{job}/plate")
    expect(page.get_by_role("region", name="Torque plate, holes 1 to 4")).to_contain_text("taken off")
    form = page.get_by_role("form", name="Tighten")
    form.get_by_label("How many bolts").fill("2")
    form.get_by_label("Torques of the rounds").fill("95 40")
    form.get_by_role("button", name="Tighten it bolt by bolt").press("Enter")
    expect(form.get_by_text("Each round turns to more").first).to_be_visible()
    expect(form.get_by_label("How many bolts")).to_have_value("2")
    form.get_by_label("Torques of the rounds").fill("40 95")
    form.get_by_label("Fasteners").fill("black bolts")
    form.get_by_label("Fasteners").press("Enter")
    now = page.get_by_role("region", name="Torque plate, holes 1 to 4").filter(has_text="round 1")
    expect(now).to_contain_text("Bolt 1")
    expect(now).to_contain_text("the plate was held by black bolts, the build has head studs of the engine")
    plate = page.get_by_role("region", name="Torque plate, holes 1 to 4").first
    for after in ("Bolt 2", "round 2 of 2", "Bolt 2", "try each once more"):
        page.keyboard.press("Space")
        expect(plate).to_contain_text(after)
    page.keyboard.press("m")
    expect(plate).to_contain_text("Bolt 2")
    page.keyboard.press("Space")
    expect(plate).to_contain_text("0 of 2 done")
    for after in ("Bolt 2", "Tight"):
        page.keyboard.press("Space")
        expect(plate).to_contain_text(after)
    page.reload()
    expect(plate).to_contain_text("Tight")
    page.get_by_role("button", name="Undo").click()
    expect(plate).to_contain_text("1 of 2 done")
    page.keyboard.press("Space")
    plate.get_by_role("button", name="It came off").click()
    expect(plate).to_contain_text("taken off")


def test_the_plate_fits_a_phone_and_a_bolt_is_turned_out_of_turn(demo_dsn: str, page: Page) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(f"/jobs/{_job(demo_dsn, 'Hill Tractor Marram')}/plate")
    form = page.get_by_role("form", name="Tighten")
    form.get_by_label("What is tightened").select_option("main caps")
    form.get_by_label("How many bolts").fill("10")
    form.get_by_label("Torques of the rounds").fill("60 lbf·ft")
    form.get_by_role("button", name="Tighten it bolt by bolt").click()
    caps = page.get_by_role("region", name="Main caps")
    expect(caps).to_contain_text("81.35")
    caps.get_by_role("button", name="Turn bolt 9 next").press("Enter")
    expect(caps).to_contain_text("Bolt 9")
    caps.get_by_role("button", name="It clicked").click()
    expect(caps).to_contain_text("1 of 10 done")
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
