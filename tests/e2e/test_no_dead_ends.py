"""Stories that used to end nowhere, and claims that were not kept: in the built interface."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.e2e.conftest import BlockView, tick_ready, unfold


@pytest.fixture
def fresh(page: Page) -> Page:
    """An engine just taken in: the page stands at its liners."""
    page.goto("/")
    page.get_by_role("link", name="Take an engine in").click()
    page.get_by_label("Measured to").select_option(label="Fennick 6W, wet liners · 6 holes · version 1")
    page.get_by_label("Job number").fill("26-100")
    page.get_by_label("Name of the job").fill("Just in")
    page.get_by_role("button", name="Take in").click()
    expect(page.get_by_role("heading", name="All holes at once")).to_be_visible()
    page.get_by_role("link", name="Liners", exact=True).click()
    expect(page.get_by_role("heading", name="Liners and their flanges")).to_be_visible()
    return page


def test_liners_as_found_are_one_action_and_one_step_back(fresh: Page) -> None:
    fresh.get_by_role("button", name="Liners as found, 1 to 6 in their holes").click()
    for mark in "123456":
        expect(fresh.get_by_role("rowheader", name=mark, exact=True)).to_be_visible()
    expect(fresh.get_by_role("button", name=re.compile("Liners as found"))).to_have_count(0)
    fresh.get_by_role("button", name=re.compile("^Undo")).click()
    expect(fresh.get_by_role("button", name="Liners as found, 1 to 6 in their holes")).to_be_visible()


def test_protrusion_is_read_as_found_before_anybody_knows_the_liner(fresh: Page) -> None:
    fresh.get_by_role("link", name="Block", exact=True).click()
    fresh.get_by_title("Gauge, land, datum and clamp").click()
    dialog = fresh.get_by_role("dialog")
    dialog.get_by_label("Gauge", exact=True).select_option(label="Depth sled 2 · depth gauge · step 2.0 µm")
    dialog.get_by_role("button", name="Read this way from now on").click()
    expect(dialog).to_have_count(0)
    fresh.keyboard.press("Escape")
    fresh.keyboard.press("b")
    expect(fresh.get_by_role("region", name="Now")).to_be_visible()
    expect(fresh.get_by_role("heading", name="Hole 1 at 12 h")).to_be_visible()
    expect(fresh.get_by_text("As found: the first reading writes down")).to_be_visible()
    fresh.get_by_label("Type a reading").fill("8.1")
    fresh.get_by_label("Type a reading").press("Enter")
    expect(fresh.get_by_role("heading", name="Hole 1 at 3 h")).to_be_visible()
    fresh.get_by_role("link", name="Block").click()
    fresh.get_by_role("link", name="Liners", exact=True).click()
    expect(fresh.get_by_role("rowheader", name="as found 1")).to_be_visible()


def test_a_flange_leads_to_the_gauge_it_is_read_with_and_to_the_cabinet_where_there_is_none(fresh: Page) -> None:
    fresh.route("**/gauges-for/**", lambda route: route.fulfill(json=[]))
    fresh.reload()
    fresh.get_by_role("button", name="Read them with another gauge").click()
    dialog = fresh.get_by_role("dialog")
    expect(dialog).to_contain_text("No micrometer is in the cabinet: a flange is read with one.")
    dialog.get_by_role("link", name="Put one in the cabinet").click()
    expect(fresh).to_have_url(re.compile("/shop"))
    fresh.unroute("**/gauges-for/**")
    fresh.go_back()
    fresh.get_by_role("button", name="Read them with another gauge").click()
    expect(dialog.get_by_label("Gauge", exact=True).locator("option").first).to_contain_text("micrometer")


def test_two_fitted_liners_change_places(page: Page, block: BlockView) -> None:
    block.open(1)
    page.goto(f"{page.url.split('/protrusion')[0]}/cut/1")
    form = page.get_by_role("form", name="Record the fit")
    choice = form.get_by_label("Liner", exact=True)
    other = choice.locator("option", has_text="in hole 4")
    choice.select_option(value=other.get_attribute("value"))
    expect(form).to_contain_text("goes into hole 4, on the shims that lie there")
    tick_ready(form)
    form.get_by_role("button", name="Exchange with hole 4").click()
    expect(page).to_have_url(re.compile("/protrusion/1"))
    block.expect_state(1, "not measured")
    block.expect_state(4, "not measured")


def test_a_fitted_liner_is_drawn_and_put_back_by_undo(page: Page, block: BlockView) -> None:
    block.open(2)
    page.goto(f"{page.url.split('/protrusion')[0]}/cut/2")
    page.get_by_role("button", name=re.compile("as drawn$")).click()
    expect(page.get_by_role("heading", name="Fit the liner")).to_be_visible()
    page.get_by_role("link", name="Block", exact=True).first.click()
    block.expect_state(2, "not measured")
    page.get_by_role("button", name=re.compile("^Undo: hole 2: .* drawn")).click()
    block.expect_state(2, "in")


def test_a_card_without_a_clean_up_cut_is_asked_about(page: Page) -> None:
    page.goto("/")
    page.get_by_role("link", name="Spec cards").click()
    page.get_by_role("link", name=re.compile("^Fennick 6W, wet liners")).click()
    field = page.get_by_label("least clean-up cut", exact=True)
    field.fill("")
    page.get_by_role("button", name="Save as next version").click()
    expect(page.get_by_text("No cut can be planned without the least clean-up cut")).to_be_visible()
    expect(field).to_have_attribute("aria-invalid", "true")
    field.fill("0.03")
    page.get_by_role("button", name="Save as next version").click()
    expect(page.get_by_role("status")).to_contain_text("Saved as version 2")


def test_a_survey_opens_into_its_limits_sources_and_sums(page: Page) -> None:
    page.goto("/")
    page.get_by_role("link", name="Narrow-boat Quillet", exact=True).click()
    expect(page).to_have_url(re.compile("/bore"))
    page.goto(f"{page.url.split('/bore')[0]}/measure/block bore/hole-2")
    page.get_by_role("button", name="Why", exact=True).click()
    dialog = page.get_by_role("dialog")
    expect(dialog).to_contain_text("set on Ring 5.000")
    expect(dialog.get_by_text("own experience").first).to_be_visible()
    expect(dialog).to_contain_text("difference = greatest − least")
    dialog.get_by_role("button", name="Close").click()
    page.get_by_text("Every figure, level by level").click()
    table = page.get_by_role("table", name="Figures by level and axis")
    expect(table.get_by_role("row")).to_have_count(7)
    table.get_by_role("button", name=re.compile(r"^Middle, 45°|^middle, 45°")).click()
    expect(page.get_by_role("heading", name="Middle, 45°")).to_be_visible()
    expect(page.get_by_text(re.compile("Read along and across the crank alone"))).to_be_visible()


def test_out_of_round_is_told_per_side_and_doubled(page: Page) -> None:
    page.goto("/")
    page.get_by_role("link", name="Spec cards").click()
    page.get_by_role("link", name=re.compile("^Ostrel Twin, dry liners")).click()
    unfold(page, "Measured features")
    expect(page.get_by_label("Out of round").first).to_have_value("1.0")
    page.get_by_label("Out of round, taper", exact=True).first.select_option("per side, doubled")
    expect(page.get_by_text("is +51 µm, +2.0 thou").first).to_be_visible()
    page.get_by_label("Known from").first.select_option("own experience")
    page.get_by_role("button", name="Save as next version").click()
    expect(page.get_by_role("status")).to_contain_text("Saved as version 2")
    page.reload()
    unfold(page, "Measured features")
    expect(page.get_by_label("Out of round, taper", exact=True).first.locator("option:checked")).to_have_text(
        "per side, doubled"
    )
    expect(page.get_by_label("Known from").first.locator("option:checked")).to_have_text("own experience")


def test_limits_known_from_different_places_keep_their_own_source_and_status(page: Page) -> None:
    """A source typed for the nominal size made a specification of what the shop knows by experience."""
    page.goto("/")
    page.get_by_role("link", name="Spec cards").click()
    page.get_by_role("link", name=re.compile("^Ostrel Twin, dry liners")).click()
    unfold(page, "Measured features")
    own = page.get_by_label("Source: Least, greatest, out of round, taper").first
    expect(own).to_have_value("as this shop fits dry liners")
    page.get_by_label("Source: Nominal", exact=True).first.fill("Ostrel Twin handbook, 1936, page 18")
    page.get_by_role("button", name="Save as next version").click()
    expect(page.get_by_role("status")).to_contain_text("Saved as version 2")
    expect(own).to_have_value("as this shop fits dry liners")
    card = page.request.get(f"/api/spec-cards/{page.url.split('/')[-1]}").json()["cards"][0]
    sheet = next(one for one in card["features"] if one["quantity"] == "block bore")
    assert (sheet["nominal"]["source"], sheet["nominal"]["status"]) == (
        "Ostrel Twin handbook, 1936, page 18", "specification")  # fmt: skip
    assert (sheet["least"]["source"], sheet["least"]["status"]) == ("as this shop fits dry liners", "own experience")


def test_the_numbering_drawn_follows_the_card(page: Page) -> None:
    page.goto("/")
    page.get_by_role("link", name="Spec cards").click()
    page.get_by_role("link", name=re.compile("^Fennick 6W, wet liners")).click()
    drawing = page.get_by_role("img", name="Numbering of the holes")
    expect(drawing).to_contain_text("123456")
    page.get_by_label("Numbering", exact=True).select_option("number one at the flywheel end, counted forward")
    expect(drawing).to_contain_text("654321")
    unfold(page, "Materials")
    expect(page.locator("label", has_text="Piston material")).to_contain_text("common practice")


def test_caps_and_plate_are_both_part_of_the_load(page: Page) -> None:
    page.goto("/")
    page.get_by_role("link", name="Narrow-boat Quillet", exact=True).click()
    expect(page).to_have_url(re.compile("/bore"))
    page.goto(f"{page.url.split('/bore')[0]}/measure/block bore/hole-1")
    page.get_by_role("button", name="Read it another way").click()
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_label("Main caps")).to_have_value("main caps torqued")
    dialog.get_by_label("Held").select_option("torque plate on, gasket in")
    dialog.get_by_role("button", name="Read this way from now on").click()
    expect(dialog).to_have_count(0)
    expect(page.get_by_text("0 of 20 places read")).to_be_visible()
    job = page.url.split("/jobs/")[1].split("/")[0]
    setup = page.request.get(f"/api/jobs/{job}/surveys/block bore/hole-1").json()["setup"]
    assert setup["load"] == "torque plate on, gasket in; main caps torqued"
