"""Heat and cold in the browser: from a fit to its window, a slider by keyboard, a way taken, a phone, a refusal."""

from playwright.sync_api import Page, expect

from tests.e2e.test_honing import _job


def test_from_a_fit_to_a_window_that_follows_the_slider_and_stays(demo_dsn: str, page: Page) -> None:
    page.goto(f"/jobs/{_job(demo_dsn, 'Pump No. 4')}/press-fit/2")
    page.get_by_role("link", name="Heat and cold").click()
    window = page.get_by_role("figure", name="Drop window")
    expect(window).to_contain_text("of entering")
    block = page.get_by_label("Block from the oven")
    block.focus()
    # To the coldest it takes: liner and block as the room is, the worst pair touches.
    block.press("Home")
    expect(window).to_contain_text("The window is shut before it enters")
    block.press("End")
    expect(window).to_contain_text("of entering")
    expect(page.get_by_text("it softens").or_(page.get_by_text("ages and softens")).first).to_be_visible()
    page.reload()
    expect(page.get_by_label("Block from the oven")).to_have_value("200")


def test_a_way_is_taken_and_water_in_a_pocket_is_refused(demo_dsn: str, page: Page) -> None:
    page.goto(f"/jobs/{_job(demo_dsn, 'Pump No. 4')}/heat/2?view=ways")
    ways = page.get_by_role("region", name="Ways")
    expect(ways.get_by_role("row", name="freezer only")).to_contain_text("does not reach it")
    ways.get_by_role("button", name="dry ice only").click()
    expect(page.get_by_label("Liner from the cold")).to_have_value("-79")
    expect(page.get_by_text("Cold burns like fire")).to_be_visible()
    page.get_by_role("button", name="Water and air").click()
    expect(page.get_by_role("region", name="Air of the room")).to_contain_text("Local rules first")
    page.get_by_label("water in a pocket").check()
    expect(page.get_by_role("region", name="No plan yet")).to_contain_text("blow it dry first")
    page.get_by_label("water in a pocket").uncheck()
    expect(page.get_by_role("region", name="Water on the liner")).to_contain_text("dew point")


def test_an_unmeasured_press_is_refused_and_a_phone_is_wide_enough(demo_dsn: str, page: Page) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    job = _job(demo_dsn, "Pump No. 4")
    page.goto(f"/jobs/{job}/heat/1")
    expect(page.get_by_role("region", name="No plan yet")).to_contain_text("never guessed")
    for view, there in (("window", "of entering"), ("ways", "What would settle it"), ("air", "dew point")):
        page.goto(f"/jobs/{job}/heat/2?view={view}")
        expect(page.get_by_text(there).first).to_be_visible()
        assert page.evaluate("document.documentElement.scrollWidth") <= 390
