"""What can be done about the sunk hole, in the browser: laid side by side, priced, decided under a reason, undone."""

import re

from playwright.sync_api import Page, expect

from tests.e2e.conftest import BlockView


def test_options_are_laid_side_by_side_priced_and_decided(page: Page, block: BlockView) -> None:
    block.open(5)
    page.get_by_role("link", name="Cut plan").click()
    page.get_by_role("link", name="Who goes where").click()
    page.get_by_role("link", name="What else could be done about hole 5").click()
    table = page.get_by_role("table", name="What can be done")
    expect(table).to_contain_text("no second ring")
    plate = page.get_by_role("region", name="To be decided")
    table.get_by_role("button", name="Let a ring in").click()
    expect(plate).to_contain_text("Let a ring in")
    plate.get_by_label("The engine is worth").fill("300")
    expect(plate).to_contain_text("Not worth it")
    # Without a reason nothing is decided, and what was typed stays.
    plate.get_by_role("button", name="Take: let a ring in").click()
    expect(plate.get_by_text("Say why").first).to_be_visible()
    expect(plate.get_by_label("The engine is worth")).to_have_value("300")
    table.get_by_role("button", name="Cut and shim").click()
    plate.get_by_label("Because").fill("it sails on Friday")
    plate.get_by_role("button", name="Take: cut and shim").click()
    expect(page.get_by_text("Decided: cut and shim")).to_be_visible()
    page.get_by_role("link", name="Go there").click()
    expect(page).to_have_url(re.compile(r"/cut-plan$"))


def test_the_price_list_is_set_by_the_shop(page: Page, block: BlockView) -> None:
    block.open(5)
    page.goto("/shop/prices")
    page.get_by_role("button", name="Set an hour of the shop").click()
    form = page.get_by_role("form", name="Set a price")
    form.get_by_label("What it costs").fill("-1")
    form.get_by_role("button", name="Save the price").click()
    expect(form.get_by_role("alert").or_(form.get_by_text(re.compile("greater|costs something"))).first).to_be_visible()
    form.get_by_label("What it costs").fill("75")
    form.get_by_role("button", name="Save the price").click()
    expect(page.get_by_role("row", name=re.compile("^an hour of the shop"))).to_contain_text("75 €")
    expect(page.get_by_role("row", name=re.compile("^an hour of the shop"))).to_contain_text("Ines")
