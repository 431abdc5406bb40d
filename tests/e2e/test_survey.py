"""Bores by pedal, decks by keyboard, a moved zero, a study by two people: in the built interface."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.e2e.conftest import step_on_pedal, unfold

LEVELS = ("Top", "Ring travel", "Middle", "Below the rings", "Bottom")


def _boat(page: Page) -> str:
    strips = page.request.get("/api/jobs").json()
    return str(next(strip["job"]["job_id"] for strip in strips if strip["job"]["name"] == "Narrow-boat Quillet"))


def _read_anew(page: Page) -> None:
    """The block bores are held another way from now on: every place is to be read again."""
    page.get_by_role("button", name="Read it another way").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Held").select_option("torque plate on, gasket in")
    dialog.get_by_role("button", name="Read this way from now on").click()
    expect(page.get_by_text("0 of 20 places read")).to_be_visible()


@pytest.fixture
def bore(page: Page, gauge: int) -> Page:
    page.goto(f"/jobs/{_boat(page)}/measure/block bore/hole-1")
    expect(page.get_by_text("20 of 20 places read")).to_be_visible()
    return page


def _ready(page: Page) -> None:
    expect(page.get_by_role("button", name="Take", exact=True)).to_be_enabled()


def _pedal(page: Page, name: str) -> None:
    expect(page.get_by_role("heading", level=1, name=name, exact=True)).to_be_visible()
    step_on_pedal(page, "PageDown", name[0].lower() + name[1:] + ":")


def test_a_part_without_a_gauge_asks_for_one_made_for_it(page: Page) -> None:
    page.goto(f"/jobs/{_boat(page)}/measure/piston skirt/piston-1")
    page.get_by_role("group", name="Unit").get_by_role("button", name="µm").click()
    expect(page.get_by_label("Gauge", exact=True)).to_have_text("No gauge is chosen for the piston skirt yet.")
    page.get_by_role("button", name="Choose the gauge").click()
    dialog = page.get_by_role("dialog")
    first = dialog.get_by_label("Gauge", exact=True).first
    expect(first).to_contain_text("Depth sled 2 · depth gauge")
    expect(first.locator("option:checked")).to_contain_text("micrometer")
    expect(first.locator("option", has_text="Depth sled 2")).to_contain_text("not made for this")
    dialog.get_by_label("Zeroed on").select_option("datum")
    dialog.get_by_role("button", name="Read this way from now on").click()
    page.get_by_label("Type a reading").fill("120.51 mm")
    page.keyboard.press("Enter")
    expect(page.get_by_text("1 of 4 places read")).to_be_visible()
    expect(page.get_by_role("heading", name="Bottom, 0°")).to_be_visible()
    page.get_by_label("Type a reading").press("Escape")
    page.keyboard.press("[")
    expect(page.get_by_label("Now", exact=True)).to_contain_text(re.compile(r"here\s*120\.51\d* ±0\.\d+ mm, once"))


def test_a_bore_of_five_levels_and_four_axes_by_pedal(bore: Page) -> None:
    _read_anew(bore)
    order = [(level, axis) for number, axis in enumerate((0, 45, 90, 135))
             for level in (LEVELS if number % 2 == 0 else reversed(LEVELS))]  # fmt: skip
    for level, axis in order:
        name = f"{level}, {axis}°"
        if (level, axis) == ("Middle", 45):
            expect(bore.get_by_role("heading", level=1, name=name, exact=True)).to_be_visible()
            bore.get_by_text("This place cannot be read").click()
            bore.get_by_placeholder("a port in the way").fill("a port in the way")
            bore.get_by_role("button", name="Say so").click()
            expect(bore.get_by_label("Taken")).to_contain_text("middle, 45°: cannot be read")
            continue
        _pedal(bore, name)
        if (level, axis) == ("Ring travel", 0):
            # Taken too early: undone, it is missing again, and read once more.
            expect(bore.get_by_role("heading", level=1, name="Middle, 0°", exact=True)).to_be_visible()
            bore.keyboard.press("Control+z")
            expect(bore.get_by_text("1 of 20 places read")).to_be_visible()
            expect(bore.get_by_role("heading", level=1, name="Middle, 0°", exact=True)).to_be_visible()
            bore.keyboard.press("[")
            _pedal(bore, name)
        if (level, axis) == ("Bottom", 0):
            # Read a second time at the same place: a repeat, both are kept.
            expect(bore.get_by_role("heading", level=1, name="Bottom, 45°", exact=True)).to_be_visible()
            bore.keyboard.press("[")
            expect(bore.get_by_role("heading", level=1, name=name, exact=True)).to_be_visible()
            _ready(bore)
            bore.keyboard.press("r")
            expect(bore.get_by_role("heading", level=1, name="Bottom, 45°", exact=True)).to_be_visible()
    expect(bore.get_by_text("Every place is read.")).to_be_visible()
    so_far = bore.get_by_label("So far")
    # What else the noise of the gauge leaves undecided may be told first: the place stands in the table.
    expect(so_far).to_contain_text("cannot be read")
    expect(so_far).to_contain_text("out of round")
    job = _boat(bore)
    survey = bore.request.get(f"/api/jobs/{job}/surveys/block bore/hole-1").json()
    counts = sorted(len(row["readings"]) for row in survey["places"])
    assert counts == [0, *([1] * 18), 2]
    assert all(re.fullmatch(r"[+-]?\d+\.\d+ mm", one["typed"]) for row in survey["places"] for one in row["readings"])
    # Each is the turning point of the rocks; every one lies within the gauge's ± of the hidden truth of this bore.
    assert survey["form"]["worst_out_of_round_m"] < 20e-6
    assert survey["part"]["state"] == "cannot tell"


def test_what_cannot_be_read_is_undone_where_it_is_seen(bore: Page) -> None:
    _read_anew(bore)
    bore.get_by_text("This place cannot be read").click()
    bore.get_by_placeholder("a port in the way").fill("a port in the way")
    bore.get_by_role("button", name="Say so").click()
    expect(bore.get_by_text("1 cannot be read")).to_be_visible()
    bore.keyboard.press("Escape")
    bore.keyboard.press("Control+z")
    expect(bore.get_by_text("1 cannot be read")).to_have_count(0)


def test_a_deck_by_keyboard_alone(page: Page) -> None:
    page.goto(f"/jobs/{_boat(page)}/measure/deck flatness/deck")
    expect(page.get_by_text("5 of 9 places read")).to_be_visible()
    expect(page.get_by_role("heading", level=1, name="Row 2, point 1")).to_be_visible()
    page.keyboard.type("-0.5")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", level=1, name="Row 3, point 1")).to_be_visible()
    page.keyboard.press("Escape")
    page.keyboard.press("ArrowRight")
    expect(page.get_by_role("heading", level=1, name="Row 3, point 2")).to_be_visible()
    page.keyboard.press("ArrowUp")
    expect(page.get_by_role("heading", level=1, name="Row 2, point 2")).to_be_visible()
    page.keyboard.press("ArrowDown")
    for text in ("0.4", "1.1", "-1"):
        page.keyboard.type(text)
        page.keyboard.press("Enter")
        expect(page.get_by_label("Type a reading")).to_have_value("")
        page.keyboard.press("Escape")
    expect(page.get_by_text("Every place is read.")).to_be_visible()
    expect(page.locator("main")).to_contain_text("about the plane of the grid")
    look = page.get_by_role("button", name="Look at the zero before the gauge is put away")
    look.click()
    page.keyboard.type("0")
    page.keyboard.press("Enter")
    expect(page.get_by_text("The zero stands.")).to_be_visible()
    expect(look).to_have_count(0)


def test_a_moved_zero_is_corrected_from_the_screen(page: Page) -> None:
    page.goto(f"/jobs/{_boat(page)}/measure/liner outside/liner-Q2")
    doubt = page.get_by_role("alert")
    expect(doubt).to_contain_text("40 readings are doubtful")
    doubt.get_by_role("button", name="Correct them").click()
    expect(page.get_by_text("40 readings corrected.")).to_be_visible()
    expect(doubt).to_have_count(0)
    # Looked at once more: it stands, or it has moved again.
    page.get_by_label("Zero looked at again").fill("0")
    page.get_by_role("button", name="Note the look").click()
    expect(page.get_by_text("The zero stands.")).to_be_visible()
    page.get_by_label("Zero looked at again").fill("much")
    page.get_by_role("button", name="Note the look").click()
    expect(page.get_by_label("Zero looked at again")).to_have_attribute("aria-invalid", "true")
    expect(page.get_by_label("Zero looked at again")).to_have_value("much")


def test_the_budget_behind_the_plus_minus(page: Page) -> None:
    page.goto(f"/jobs/{_boat(page)}/measure/block bore/hole-1")
    page.get_by_title("Open the budget: one reading of the block bore").click()
    dialog = page.get_by_role("dialog")
    for source in ("repeatability", "setting master", "temperature of the part"):
        expect(dialog.get_by_role("row", name=re.compile(f"^{source}")).first).to_be_visible()
    budgets = dialog.get_by_label("Of what")
    round_at = budgets.locator("option", has_text="out of round").first.inner_text()
    budgets.select_option(label=round_at)
    expect(dialog.get_by_role("row", name=re.compile("^setting master"))).to_have_count(0)
    expect(dialog).to_contain_text("95 % lie within")


def test_temperatures_from_thermometers_and_by_hand(bore: Page) -> None:
    # The boat comes up in its card's inches.
    bore.get_by_role("group", name="Unit").get_by_role("button", name="µm").click()
    warmth = bore.get_by_role("region", name="Temperature")
    take = warmth.get_by_role("button", name="from Block probe")
    take.click()
    expect(warmth).to_contain_text(re.compile(r"block\s*2[34](\.\d)? °C"))
    expect(warmth).to_contain_text("sizes brought to 20 °C")
    warmth.get_by_label("is").fill("hot")
    warmth.get_by_role("button", name="Note it").click()
    expect(warmth.get_by_label("is")).to_have_attribute("aria-invalid", "true")
    warmth.get_by_label("is").fill("95 F")
    warmth.get_by_role("button", name="Note it").click()
    expect(warmth).to_contain_text("The block is warm: it reads 20 µm large")


def test_a_gauge_study_by_two_people(page: Page) -> None:
    page.goto("/shop/studies")
    form = page.get_by_role("form", name="Plan a study")
    form.get_by_label("Gauge").select_option(label="Depth sled 2")
    form.get_by_label("What it decides").fill("protrusion of the ferry")
    form.get_by_label("Width of that window").fill("75 µm")
    form.get_by_label("Parts").fill("3")
    form.get_by_label("Ines").check()
    form.get_by_role("button", name="Plan it").click()
    expect(form.get_by_role("alert")).to_contain_text("2 to 6 people")
    form.get_by_label("Tobiah").check()
    form.get_by_role("button", name="Plan it: 12 readings").click()
    truth = {"A": 60, "B": 90, "C": 120}
    for number in range(12):
        now = page.get_by_label("Now", exact=True)
        expect(now).to_contain_text(f"{number} of 12 read")
        who, part = re.search(r"(Ines|Tobiah) reads part ([ABC])", now.inner_text()).groups()  # type: ignore[union-attr]
        value = truth[part] + (2 if who == "Tobiah" else 0) + number % 2
        expect(page.locator("main")).not_to_contain_text("µm off")
        now.get_by_label("What the gauge shows").fill(f"{value} µm")
        now.get_by_role("button", name="Take", exact=True).click()
    result = page.get_by_label("Result", exact=True)
    expect(result).to_contain_text("of the window")
    expect(page.get_by_role("img", name="Readings by part and person")).to_be_visible()
    page.get_by_role("button", name="Make it the gauge's repeatability").click()
    expect(page.get_by_text("The gauge has taken it over.")).to_be_visible()
    gauges = page.request.get("/api/gauges").json()
    assert next(one["version"] for one in gauges if one["name"] == "Depth sled 2") == 2


def test_a_study_by_pedal_where_the_gauge_talks(page: Page, gauge: int) -> None:
    page.goto("/shop/studies")
    page.get_by_role("link", name=re.compile("protrusion of the ferry")).click()
    now = page.get_by_label("Now", exact=True)
    for number in range(6, 16):
        expect(now).to_contain_text(f"{number} of 16 read")
        step_on_pedal(page, "Space", "is read")
    expect(page.get_by_label("Result", exact=True)).to_contain_text("of the window")
    study = page.request.get(f"/api/gauge-studies/{page.url.split('/')[-1]}").json()
    # The parts of this study are tens of micrometres apart, the gauge repeats within a few.
    assert study["result"]["full"]["part_m"] > 15e-6
    assert study["result"]["full"]["repeatability_m"] < 6e-6


def test_a_plan_is_proposed_on_the_card_and_says_what_it_cannot_see(page: Page) -> None:
    page.goto("/cards")
    page.get_by_role("link", name=re.compile("Ostrel Twin")).first.click()
    unfold(page, "Measured features")
    features = page.get_by_role("group", name="Features")
    features.get_by_label("Plans for").select_option("raised")
    features.get_by_role("button", name="Propose a plan").first.click()
    expect(features.get_by_label("Axes [°]").first).to_have_value("0 30 60 90 120 150")
    expect(features).to_contain_text("three, five and seven lobes")
    features.get_by_label("Axes [°]").first.fill("0 200")
    page.get_by_role("button", name="Save as next version").click()
    expect(features.get_by_text("Axes run from 0 to below 180 degrees")).to_be_visible()
    features.get_by_label("Axes [°]").first.fill("0 6o 120")
    page.get_by_role("button", name="Save as next version").click()
    expect(features.get_by_text("Entry 2: Type a number here.")).to_be_visible()
    expect(features.get_by_label("Axes [°]").first).to_have_value("0 6o 120")
    features.get_by_label("Axes [°]").first.fill("0 60 120")
    # A source typed before its limits is kept for all of them.
    features.get_by_label("One more feature").select_option("counterbore diameter")
    features.get_by_role("button", name="Add it").click()
    features.get_by_label("Source").last.fill("page 12")
    features.get_by_label("Known from").last.select_option("specification")
    features.get_by_label("Nominal").last.fill("5.5")
    features.get_by_label("Levels, such as").last.fill("ledge 1/4")
    features.get_by_label("Axes [°]").last.fill("0 90")
    page.get_by_role("button", name="Save as next version").click()
    expect(page.get_by_text("Saved as version 2")).to_be_visible()
    card = page.request.get(f"/api/spec-cards/{page.url.split('/')[-1]}").json()["cards"][0]
    sheet = next(one for one in card["features"] if one["quantity"] == "counterbore diameter")
    assert (sheet["nominal"]["source"], sheet["nominal"]["status"]) == ("page 12", "specification")


@pytest.mark.parametrize(("width", "height"), [(390, 844), (820, 1180), (1280, 800)])
def test_a_survey_fits_phone_tablet_and_screen(bore: Page, width: int, height: int) -> None:
    bore.set_viewport_size({"width": width, "height": height})
    take = bore.get_by_role("button", name="Take", exact=True)
    expect(take).to_be_in_viewport()
    box = take.bounding_box()
    assert box is not None
    assert box["height"] >= 44
    size = bore.locator("[data-live]").evaluate("digits => parseFloat(getComputedStyle(digits).fontSize)")
    assert size >= 48
    assert bore.evaluate("document.documentElement.scrollWidth") <= width


def test_masters_services_and_materials_are_written_down(page: Page) -> None:
    page.goto("/shop/cabinet")
    form = page.get_by_role("form", name="Add a master")
    form.get_by_label("Name on it").fill("Rod 100")
    form.get_by_label("Size at 20 °C").fill("a lot")
    form.get_by_label("± on its certificate").fill("0.8")
    form.get_by_role("button", name="Add the master").click()
    expect(form.get_by_label("Size at 20 °C")).to_have_attribute("aria-invalid", "true")
    form.get_by_label("Size at 20 °C").fill("100.0004")
    form.get_by_role("button", name="Add the master").click()
    expect(page.get_by_role("row", name=re.compile("Rod 100"))).to_contain_text("100.0004")
    service = page.get_by_role("form", name="Note what was done")
    service.get_by_label("Gauge").select_option(label="Old depth dial")
    service.get_by_label("What").select_option("lent")
    service.get_by_label("In words").fill("to the boatyard")
    service.get_by_role("button", name="Note it").click()
    expect(page.get_by_text("Lent and not back: Old depth dial")).to_be_visible()
    materials = page.get_by_role("form", name="Write a material down")
    materials.get_by_label("Material").fill("grey iron")
    materials.get_by_label("10⁻⁶ per K").fill("11.2")
    materials.get_by_role("button", name="Write it down").click()
    expect(page.get_by_role("row", name=re.compile("grey iron"))).to_contain_text("11.2")
    form.get_by_label("Material").select_option("grey iron")
    travelling = page.get_by_role("form", name="Read a master")
    travelling.get_by_label("Master").select_option(label="Rod 100")
    travelling.get_by_label("Gauge").select_option(label="Long micrometer")
    travelling.get_by_label("shows").fill("100.030")
    travelling.get_by_role("button", name="Note it").click()
    masters = page.get_by_role("region", name="Masters read with gauges")
    expect(masters.get_by_role("listitem").filter(has_text="Rod 100")).to_contain_text("is off: have it checked")


def test_the_bore_lens_by_keys_and_by_its_line(page: Page) -> None:
    boat = _boat(page)
    page.goto(f"/jobs/{boat}")
    # A dry sleeve's block is looked at by its bores first.
    expect(page).to_have_url(re.compile(r"/bore$"))
    expect(page.get_by_role("button", name="Hole 2: out")).to_be_visible()
    page.get_by_role("button", name="Hole 2: out").click()
    needs = page.get_by_role("region", name="What this hole needs")
    expect(needs).to_contain_text("Read the block bore again at middle")
    expect(page.get_by_role("radio", name=re.compile("^middle"))).to_have_attribute("aria-checked", "true")
    page.keyboard.press("ArrowDown")
    expect(page.get_by_role("radio", name=re.compile("^below the rings"))).to_have_attribute("aria-checked", "true")
    page.keyboard.press("]")
    expect(page).to_have_url(re.compile(r"axis=0"))
    # A place that is typed stands on the ring before it is taken, at its own level.
    page.locator("#entry").fill("1 rt 45d 0.4")
    expect(page.locator("#entry-echo")).to_contain_text("hole 1, ring travel, 45°: +0.4 thou, 5.0005 inch")
    expect(page.locator("[data-hole='1'] [data-preview]")).to_have_count(2)
    page.locator("#entry").press("Enter")
    page.get_by_role("button", name="A repeat: keep both").click()
    expect(page.locator("#entry")).to_have_value("")
    readings = page.request.get(f"/api/jobs/{boat}/surveys/block bore/hole-1").json()["places"]
    twice = [one for one in readings if len(one["readings"]) == 2]
    assert [(float(one["place"]["level_um"]), one["place"]["axis_deg"]) for one in twice] == [(55880.0, 45.0)]
    page.get_by_role("button", name=re.compile("^Undo")).click()
    expect(page.get_by_role("status").filter(has_text="Undone")).to_be_visible()
    # What is not there is named, and what was typed stays.
    page.locator("#entry").fill("2 m 30d 1")
    expect(page.locator("#entry-echo")).to_contain_text("The card asks for no axis 30°")
    page.locator("#entry").press("Enter")
    expect(page.locator("#entry")).to_have_value("2 m 30d 1")
    page.get_by_role("button", name="Hole 2: out").click()
    needs.get_by_role("button", name="Go to its bench").click()
    expect(page).to_have_url(re.compile("measure/block%20bore/hole-2"))


def test_a_lens_says_what_it_waits_for_and_one_that_is_not_there_leads_home(page: Page) -> None:
    boat = _boat(page)
    page.goto(f"/jobs/{boat}/distortion")
    expect(page.get_by_role("region", name="Distortion")).to_contain_text("2 of 2 read in full")
    page.goto(f"/jobs/{boat}/bore")
    expect(page.get_by_role("region", name="Every bore in numbers")).to_contain_text("middle")
    page.get_by_role("button", name="liner bore").click()
    expect(page).to_have_url(re.compile("of=liner"))
    expect(page.get_by_role("region", name="Every bore in numbers")).to_contain_text("no liner is fitted")
