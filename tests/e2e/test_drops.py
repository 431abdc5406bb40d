"""A liner dropped hot and cold through the real interface, with thermometers that talk: pedal, phone, link down."""

import re
from collections.abc import Iterator

import pytest
from playwright.sync_api import Locator, Page, expect

from tests.clips import clips

STEPS = ("bag off", "wipe and dry", "compound or grease", "over the hole, square")


def _pump(page: Page) -> str:
    strips = page.request.get("/api/jobs").json()
    job = next(strip["job"]["job_id"] for strip in strips if strip["job"]["name"] == "Pump No. 4")
    return f"/jobs/{job}/heat"


@pytest.fixture
def run(page: Page) -> Iterator[Page]:
    """The third hole of the fire pump, its liner ready to come out of the cold; sound is switched off."""
    page.add_init_script("localStorage.setItem('vallo-read-back', 'off')")
    with clips(lambda path, body: page.request.post(path, data=body).status):
        page.goto(f"{_pump(page)}/3/run")
        expect(page.get_by_role("button", name="P3 out of the cold")).to_be_visible()
        yield page


def _left(page: Page) -> Locator:
    return page.get_by_role("timer")


def _seconds(page: Page) -> int:
    return int(_left(page).inner_text())


def _row(page: Page, part: str) -> Locator:
    return page.get_by_role("region", name="Temperatures").get_by_role("row", name=re.compile(f"^{part}"))


def _wait_for_reads(page: Page, part: str, many: int) -> None:
    expect(_row(page, part)).to_contain_text(re.compile(rf"[{many}-9] ×|\d\d ×"))


def test_from_the_cold_to_home_with_thermometers_that_talk(run: Page) -> None:
    # At rest the clips say what block and liner are, and the plan is put right by it.
    _wait_for_reads(run, "Block", 1)
    expect(_row(run, "Block")).to_contain_text(re.compile(r"78\.\d ±1\.\d\s*planned 80\.0"))
    expect(_row(run, "Liner")).to_contain_text(re.compile(r"−1[56]\.\d ±1\.\d\s*planned −18\.0"))
    run.keyboard.press("Space")
    expect(run.get_by_label("Clock")).to_contain_text("Tobiah: bag off")
    expect(_left(run)).to_have_text(re.compile(r"^\d\d$"))
    _wait_for_reads(run, "Liner", 2)
    for step in STEPS:
        run.get_by_role("button", name=f"Done: {step}").click()
    run.get_by_role("button", name="It enters now").click()
    expect(_row(run, "Liner")).to_contain_text("in")
    expect(run.get_by_label("Clock")).to_contain_text("Ines sees that it is square")
    run.get_by_role("button", name="dropped").click()
    expect(run.get_by_label("What it felt like")).to_contain_text("as expected")
    expect(_left(run)).to_have_text(re.compile(r"^1:\d\d:\d\d$"))
    run.get_by_role("button", name="Clamp is on").click()
    run.get_by_role("button", name="Let go").click()
    expect(run.get_by_role("alert")).to_contain_text("within 5 K of the room")
    run.get_by_label(re.compile("^height at once")).fill("2.1")
    run.get_by_role("button", name="Read it").click()
    expect(run.get_by_label("Afterwards")).to_contain_text("+2.1")
    # The next liner has until the block is too cold for it.
    expect(run.get_by_label("The next liner")).to_contain_text(re.compile(r"P4 into hole 4\s*out within \d+ min"))
    # What came home is a fitting, and the proof says how.
    run.goto(run.url.replace("/heat/3/run", "/proof"))
    fit = run.frame_locator("main iframe").get_by_role("row", name=re.compile("^3 P3")).filter(has_text="dropped hot")
    expect(fit).to_contain_text(re.compile(r"dropped hot and cold, block 7\d\.\d °C, liner .1\d\.\d °C"))
    expect(fit).to_contain_text(re.compile("Tobiah and Ines.*dropped", re.DOTALL))


def test_the_count_is_true_over_a_reload_and_over_sleep(run: Page) -> None:
    run.get_by_role("button", name="P3 out of the cold").click()
    expect(run.get_by_label("Clock")).to_contain_text(re.compile("[2-9] s out of the cold"))
    before = _seconds(run)
    run.reload()
    expect(_left(run)).to_have_text(re.compile(r"^\d\d$"))
    # The bag is late by then, and all that follows with it: never more time than the window had.
    assert _seconds(run) <= before + 1
    # A watch that jumps as after a sleep: the server is asked, and the count is what it was.
    out = re.compile(r"(\d+) s out of the cold")
    run.evaluate("() => { const now = Date.now; Date.now = () => now() + 3600_000 }")
    with run.expect_response(lambda one: one.url.endswith("/heat/3/run") and one.request.method == "GET"):
        pass
    expect(run.get_by_label("Clock")).to_contain_text(re.compile(r"\D\d{1,2} s out of the cold"))
    found = out.search(run.get_by_label("Clock").inner_text())
    assert found is not None
    assert int(found[1]) < 100


def test_a_step_pressed_while_the_link_is_down_keeps_its_own_time(run: Page) -> None:
    run.get_by_role("button", name="P3 out of the cold").click()
    expect(run.get_by_role("button", name="Done: bag off")).to_be_visible()
    run.context.set_offline(True)
    run.get_by_role("button", name="Done: bag off").click()
    expect(run.get_by_text("1 wait for the link")).to_be_visible()
    # The clock runs on, and the next step is asked for.
    expect(run.get_by_role("button", name="Done: wipe and dry")).to_be_visible()
    noted = run.evaluate("() => JSON.parse(Object.entries(localStorage).find(([k]) => k.startsWith('vallo-drop-'))[1])")
    expect(run.get_by_label("Clock")).to_contain_text(re.compile(r"([89]|\d\d) s out of the cold"))
    run.context.set_offline(False)
    expect(run.get_by_text("wait for the link")).to_have_count(0)
    page = run.request.get(f"/api{run.evaluate('location.pathname')}").json()
    bag = next(one for one in page["drop"]["marks"] if one["kind"] == "bag off")
    assert bag["noted_at"][:22] == noted[0]["body"]["at"][:22]


def test_on_a_phone_the_digits_and_the_one_key_are_on_the_first_screen(run: Page) -> None:
    run.set_viewport_size({"width": 390, "height": 844})
    run.get_by_role("button", name="P3 out of the cold").click()
    step = run.get_by_role("button", name="Done: bag off")
    for one in (_left(run), step):
        expect(one).to_be_in_viewport(ratio=1)
    assert run.evaluate("document.documentElement.scrollWidth") <= 390
    run.get_by_role("link", name="Large, for the wall").click()
    expect(_left(run)).to_be_in_viewport(ratio=1)
    expect(run.get_by_role("button", name="Done: bag off")).to_have_count(0)
    assert run.evaluate("document.documentElement.scrollWidth") <= 390


def test_one_that_sticks_shows_the_plan_and_comes_back_out(run: Page) -> None:
    run.get_by_role("button", name="P3 out of the cold").click()
    for step in STEPS:
        run.get_by_role("button", name=f"Done: {step}").click()
    run.get_by_role("button", name="It enters now").click()
    run.get_by_role("button", name="stuck").click()
    plan = run.get_by_role("alert")
    expect(plan).to_contain_text("Nobody hammers")
    plan.get_by_label("What happened, how far is it in").fill("stands 20 mm out")
    plan.get_by_role("button", name="Note that it is stuck").click()
    expect(run.get_by_label("Clock")).to_contain_text("stuck")
    plan.get_by_label("What happened, how far is it in").fill("straight back out by hand")
    plan.get_by_role("button", name="Taken back out").click()
    expect(run.get_by_role("heading", name="Drop a liner into hole 3")).to_be_visible()
    expect(run.get_by_label("Which liner goes where")).to_contain_text(re.compile(r"hole 3\s*P3\s*this one"))


def test_a_run_is_begun_from_its_plan_and_looked_at_first(page: Page) -> None:
    page.goto(f"{_pump(page)}/4")
    page.get_by_role("link", name="Run it").click()
    expect(page.locator("select[name=liner_mark]")).to_have_value("P4")
    page.locator("select[name=drops]").select_option("Tobiah")
    page.get_by_role("button", name="Begin the run").click()
    hold = page.get_by_role("alert")
    expect(hold).to_contain_text("Hold point")
    hold.get_by_label("Reason to pass it").fill("seals go in after the oven")
    hold.get_by_role("button", name="Pass it").click()
    expect(page.get_by_label("What is done")).to_contain_text("liner, hole and front marked")
    for _ in range(5):
        page.get_by_label("What is done").get_by_role("button").first.click()
    expect(page.get_by_role("button", name="P4 out of the cold")).to_be_visible()
    # One clock at a time: hole 3 has none running yet, so it may come out.
    page.get_by_role("button", name="P4 out of the cold").click()
    expect(page.get_by_label("Clock")).to_contain_text("Tobiah: bag off")


def test_the_first_liner_of_the_demo_says_why_it_needed_a_push(page: Page) -> None:
    page.goto(f"{_pump(page)}/2/run")
    felt = page.get_by_label("What it felt like")
    expect(felt).to_contain_text("It was pushed")
    expect(felt).to_contain_text("later than planned")
    expect(page.get_by_label("Afterwards")).to_contain_text("The block lifted it off its seat")
    expect(page.get_by_label("The next liner")).to_contain_text("heat again")
