"""A dry liner in the browser: its fit, the pull by pedal and gauge, home, read again; stuck; phone; keyboard."""

import re

import psycopg
from playwright.sync_api import Browser, Page, expect

from tests.e2e.conftest import unfold


def _job(dsn: str, name: str) -> str:
    with psycopg.connect(dsn) as conn:
        row = conn.execute("SELECT job_id FROM job WHERE name = %(name)s", {"name": name}).fetchone()
    assert row is not None
    return str(row[0])


def _begin(page: Page) -> None:
    """Begin the pull of hole 1, past its hold points by name."""
    page.get_by_role("button", name="Begin the pull").click()
    reason = page.get_by_label("Reason to pass it")
    looks = page.get_by_role("heading", name="Look first")
    expect(reason.or_(looks)).to_be_visible()
    if reason.is_visible():
        reason.fill("agreed by telephone")
        page.get_by_role("button", name="Pass it as").click()
    expect(looks).to_be_visible()


def _look(page: Page) -> None:
    """Look at the seven things, each by the pedal."""
    for name in ("clean", "dry", "none in the hole", "lead-in", "front", "square", "in line"):
        expect(page.get_by_role("button", name=re.compile(name))).to_be_enabled()
        page.keyboard.press("Space")
        expect(page.get_by_role("button", name=re.compile(name))).to_have_count(0)


def _to_go(page: Page) -> object:
    return page.get_by_role("status", name="Flange to ledge")


def test_from_the_lens_to_a_liner_that_is_home_and_read_again(
    demo_dsn: str, address: str, page: Page, gauge: int
) -> None:
    job = _job(demo_dsn, "Narrow-boat Brindle")
    page.goto(f"{address}/jobs/{job}/press-fit/1")
    expect(page.get_by_role("heading", name="Hole 1 and liner B1: the fit to come")).to_be_visible()
    schools = page.get_by_role("region", name="Schools of fit side by side")
    expect(schools.get_by_role("row")).to_have_count(4)
    page.get_by_role("radio", name=re.compile("firm")).click()
    expect(page).to_have_url(re.compile("school=firm"))
    needs = page.get_by_role("region", name="What this hole needs")
    expect(needs).to_contain_text("too loose")
    page.get_by_role("radio", name=re.compile("light")).click()
    page.get_by_role("button", name="Try what would be").click()
    page.get_by_label(re.compile("friction by hand")).fill("0.2")
    expect(page.get_by_text("Nothing of this is recorded.")).to_be_visible()
    page.get_by_role("button", name="Why").click()
    expect(page.get_by_text("outside of the liner − bore of the block")).to_be_visible()
    needs.get_by_role("link", name="Pull it in").click()
    _begin(page)
    _look(page)
    page.keyboard.press("Space")
    expect(_to_go(page)).to_contain_text("239")
    page.keyboard.press("s")
    expect(page.get_by_role("button", name="smooth")).to_have_attribute("aria-pressed", "true")
    # The simulated gauge beside the flange follows it.
    page.get_by_role("button", name=re.compile("Take Depth sled 2")).click()
    expect(page.get_by_label("Said")).to_contain_text("mm to go")
    page.get_by_label("flange to ledge, mm").fill("48")
    page.get_by_label("force, kN").fill("1.2")
    page.get_by_role("button", name="Read it").click()
    expect(_to_go(page)).to_contain_text("48")
    expect(page.get_by_label("Said")).to_contain_text("fifty")
    page.get_by_role("button", name="Undo the last").click()
    expect(page.get_by_label("Said")).to_contain_text("Struck: flange to ledge")
    page.get_by_label("flange to ledge, mm").fill("0.4")
    page.get_by_role("button", name=re.compile("It touches: stop")).click()
    page.get_by_role("button", name="B1 is home").click()
    expect(page.get_by_role("heading", name="B1 is home in hole 1")).to_be_visible()
    page.get_by_role("link", name="Fit", exact=True).click()
    expect(page.get_by_text("nobody read its bore: still open")).to_be_visible()
    page.get_by_role("region", name="After the pull").get_by_role("link", name="Read its bore").click()
    expect(page).to_have_url(re.compile("measure/liner-bore/hole-1"))
    # The lens shows both holes home.
    page.goto(f"{address}/jobs/{job}/fit")
    table = page.get_by_role("region", name="Every fit in numbers")
    expect(table).to_contain_text("B1, home")
    expect(table).to_contain_text("B2, home")


def test_a_pull_that_stops_half_way_shows_the_plan_and_survives_a_reload(
    demo_dsn: str, address: str, page: Page
) -> None:
    page.goto(f"{address}/jobs/{_job(demo_dsn, 'Narrow-boat Brindle')}/pull/1")
    _begin(page)
    _look(page)
    page.get_by_role("button", name="It stops half-way").click()
    expect(page.get_by_role("heading", name="It stands half-way")).to_be_visible()
    page.reload()
    expect(page.get_by_text("Never hammer on the flange", exact=False)).to_be_visible()
    goes_on = page.get_by_role("button", name="It goes on")
    expect(goes_on).to_be_disabled()
    page.get_by_label("What was done").fill("squared on two bars, oiled")
    goes_on.click()
    expect(page.get_by_role("button", name=re.compile("One turn, 2 mm"))).to_be_visible()
    page.get_by_label("flange to ledge, mm").fill("nonsense")
    page.get_by_role("button", name="Read it").click()
    expect(page.get_by_role("alert").first).to_be_visible()
    expect(page.get_by_label("flange to ledge, mm")).to_have_value("nonsense")


def test_on_a_phone_the_digits_the_feel_and_the_stop_are_at_hand(demo_dsn: str, address: str, browser: Browser) -> None:
    context = browser.new_context(viewport={"width": 390, "height": 844}, has_touch=True, is_mobile=True,
                                  base_url=address, service_workers="block")  # fmt: skip
    page = context.new_page()
    page.goto(f"/jobs/{_job(demo_dsn, 'Narrow-boat Brindle')}/pull/1")
    _begin(page)
    _look(page)
    turn = page.get_by_role("button", name=re.compile("One turn, 2 mm"))
    turn.tap()
    expect(_to_go(page)).to_contain_text("239")
    page.get_by_role("button", name="pops").tap()
    expect(page.get_by_role("button", name="pops")).to_have_attribute("aria-pressed", "true")
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    for control in (turn, page.get_by_role("button", name=re.compile("It touches: stop"))):
        box = control.bounding_box()
        assert box is not None
        assert box["height"] >= 44
    context.close()


def test_a_lens_with_a_chosen_hole_is_the_same_after_a_reload(demo_dsn: str, address: str, page: Page) -> None:
    page.goto(f"{address}/jobs/{_job(demo_dsn, 'Narrow-boat Brindle')}/fit")
    page.get_by_role("button", name=re.compile("^Hole 2")).click()
    expect(page).to_have_url(re.compile("/fit/2$"))
    page.reload()
    expect(page.get_by_role("button", name=re.compile("^Hole 2"))).to_have_attribute("aria-pressed", "true")
    page.get_by_role("link", name="Open the fit").click()
    expect(page.get_by_role("heading", level=1, name=re.compile("^Hole 2 and liner"))).to_be_visible()


def test_a_liner_that_is_home_is_looked_at_and_gets_its_label(demo_dsn: str, address: str, page: Page) -> None:
    page.goto(f"{address}/jobs/{_job(demo_dsn, 'Narrow-boat Brindle')}/press-fit/2")
    seat = page.get_by_role("region", name="Is it seated")
    feeler = seat.get_by_role("listitem").filter(has_text="feeler under the flange")
    expect(feeler).to_contain_text("not looked at")
    feeler.get_by_role("button", name="It enters", exact=True).click()
    seat.get_by_label("Where, and by how much").fill("2.5 thou at 4 h")
    seat.get_by_role("button", name="Write it down").click()
    expect(feeler.get_by_role("img", name="out")).to_be_visible()
    expect(feeler).to_contain_text("2.5 thou at 4 h")
    feeler.get_by_role("button", name="It enters nowhere").press("Enter")
    expect(feeler.get_by_role("img", name="in", exact=True)).to_be_visible()
    seat.get_by_role("button", name="It is marked").click()
    expect(seat.get_by_role("listitem").filter(has_text="marked for its hole")).not_to_contain_text("not looked at")
    with page.expect_popup() as opened:
        page.get_by_role("link", name="Its label, to print").click()
    expect(opened.value.get_by_role("heading", name="Hole 2 · B2")).to_be_visible()


def test_what_holds_it_hot_by_keyboard_and_by_slider(demo_dsn: str, address: str, page: Page) -> None:
    page.goto(f"{address}/jobs/{_job(demo_dsn, 'Pump No. 4')}/hot-fit/2")
    expect(page.get_by_text("The press is gone at")).to_be_visible()
    rows = page.get_by_role("region", name="Moments of running").get_by_role("row")
    expect(rows).to_have_count(5)
    page.get_by_role("button", name="Look at just stopped").press("Enter")
    expect(page.get_by_role("button", name="Look at just stopped")).to_have_attribute("aria-pressed", "true")
    page.get_by_label(re.compile("try block at")).fill("150")
    expect(page.get_by_role("button", name="Look at as tried")).to_be_visible()
    expect(rows).to_have_count(6)


def test_pullers_and_the_fits_of_a_card_are_written_on_the_screen(demo_dsn: str, address: str, page: Page) -> None:
    page.goto(f"{address}/shop/pullers")
    form = page.get_by_role("form", name="A puller or press")
    form.get_by_label("Name").fill("Bottle jack")
    form.get_by_label("Gives at the most [kN]").fill("80")
    form.get_by_role("button", name="Write it down").click()
    expect(page.get_by_role("row", name=re.compile("Bottle jack"))).to_contain_text("80")
    with psycopg.connect(demo_dsn) as conn:
        card = conn.execute(
            "SELECT spec_card_id FROM spec_card_version WHERE card->>'name' LIKE 'Ostrel Twin, dry liners'"
        ).fetchone()
    assert card is not None
    page.goto(f"{address}/cards/{card[0]}")
    unfold(page, "Fits")
    fits = page.get_by_role("group", name="Fits", exact=True)
    expect(fits.get_by_label("light press, aim", exact=True)).to_have_value("0.5")
    fits.get_by_label("light press, aim", exact=True).fill("0.9")
    page.get_by_role("button", name=re.compile("^Save")).first.click()
    expect(page.get_by_text("Least, aim and greatest press rise: check them.").first).to_be_visible()
