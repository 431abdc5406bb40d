"""Spec cards in the browser: messages at fields, two people editing, another version for a job."""

import re

from playwright.sync_api import Browser, Page, expect

from tests.e2e.conftest import BlockView, serving, unfold


def _open_card(page: Page) -> None:
    page.goto("/")
    page.get_by_role("link", name="Spec cards").click()
    page.get_by_role("link", name=re.compile("^Fennick 6W, wet liners")).click()
    expect(page.get_by_label("least, no shim", exact=True)).to_have_value("0.050")


def test_a_wrong_limit_is_named_at_its_field_and_kept(page: Page) -> None:
    _open_card(page)
    field = page.get_by_label("least, no shim", exact=True)
    field.fill("wide")
    page.get_by_role("button", name="Save as next version").click()
    expect(field).to_have_attribute("aria-invalid", "true")
    expect(page.get_by_text("“wide” is not understood")).to_be_visible()
    page.reload()
    expect(field).to_have_value("wide")
    page.get_by_role("button", name="Drop my changes").click()
    expect(field).to_have_value("0.050")


def test_two_people_editing_one_card_choose_whose_version_comes_next(page: Page) -> None:
    _open_card(page)
    other = page.context.browser.new_page()  # type: ignore[union-attr]
    other.goto(page.url)
    unfold(other, "Limits")
    other.get_by_label("variation round", exact=True).fill("0.045")
    other.get_by_role("button", name="Save as next version").click()
    expect(other.get_by_role("status")).to_contain_text("Saved as version 2")
    other.close()
    unfold(page, "Limits")
    page.get_by_label("variation round", exact=True).fill("0.035")
    unfold(page, "Shims and cutter")
    page.get_by_label("Prices in").fill("EUR")
    page.get_by_role("button", name="Save as next version").click()
    note = page.get_by_role("alert")
    expect(note).to_contain_text("saved version 2 while you were editing version 1")
    row = note.get_by_role("row", name=re.compile("variation round"))
    expect(row.get_by_role("cell").first).to_have_text("0.045")
    expect(row.get_by_role("cell").last).to_have_text("0.035")
    expect(note.get_by_role("row", name=re.compile("currency")).get_by_role("cell").first).to_have_text("nothing")
    note.get_by_role("button", name="Save mine on top").click()
    expect(page.get_by_role("status")).to_contain_text("Saved as version 3")
    expect(page.get_by_label("variation round", exact=True)).to_have_value("0.035")


def test_a_job_is_judged_by_another_version_only_when_chosen(page: Page) -> None:
    _open_card(page)
    page.get_by_label("least, no shim", exact=True).fill("0.080")
    page.get_by_role("button", name="Save as next version").click()
    expect(page.get_by_role("status")).to_contain_text("version 2")
    page.get_by_role("link", name="Floor", exact=True).click()
    page.get_by_role("link", name="Ferry Lanthorn", exact=True).click()
    page.get_by_role("link", name="Card", exact=True).click()
    page.get_by_role("button", name="What would change?").click()
    expect(page.get_by_text("hole 6", exact=True)).to_be_visible()
    page.get_by_role("button", name="Judge this job by version 2").click()
    expect(page.get_by_text("judged by version 2")).to_be_visible()


def test_the_card_of_another_engine_needs_a_typed_reason(page: Page, block: BlockView) -> None:
    """Limits of one engine are never borrowed for another by a slip; where they are meant to be, the tape says why."""
    body = page.request.get("/api/spec-cards").json()
    ferry = next(one for one in body if one["name"] == "Fennick 6W, wet liners")
    card = page.request.get(f"/api/spec-cards/{ferry['version']['spec_card_id']}").json()["cards"][0]
    people = page.request.get("/api/people").json()
    card |= {"name": "Borrowed", "engine": "Another 6"}
    answer = page.request.post("/api/spec-cards", data={"card": card, "person_id": people[0]["person_id"]})
    assert answer.ok, answer.text()
    block.open()
    page.get_by_role("link", name="Card", exact=True).click()
    page.get_by_text("Judge it by another card").click()
    page.get_by_label("Card", exact=True).select_option(label="Borrowed · Another 6")
    page.get_by_role("button", name="What would change?").last.click()
    expect(page.get_by_text("No hole and no part changes")).to_be_visible()
    page.get_by_role("button", name="Judge this job by that card").click()
    expect(page.get_by_text("limits are not borrowed from another engine").first).to_be_visible()
    page.get_by_label("Why all the same").fill("same liners by the maker's bulletin")
    page.get_by_role("button", name="Judge this job by that card").click()
    expect(page.get_by_role("heading", name="Borrowed")).to_be_visible()
    page.get_by_role("link", name="Block", exact=True).click()
    page.get_by_role("button", name="Tape").click()
    expect(page.get_by_role("region", name="Tape")).to_contain_text("same liners by the maker's bulletin")


def test_a_gauge_gets_a_new_version_and_a_person_a_name(page: Page) -> None:
    page.goto("/")
    page.get_by_role("link", name="Gauges and people").click()
    page.get_by_role("row", name=re.compile("Depth sled 2")).get_by_role("button", name="Change").click()
    form = page.get_by_role("form", name="Change Depth sled 2")
    form.get_by_label("One step of its scale").fill("coarse")
    form.get_by_role("button", name="Save as next version").click()
    expect(form.get_by_text("not understood").first).to_be_visible()
    form.get_by_label("One step of its scale").fill("1 µm")
    form.get_by_role("button", name="Save as next version").click()
    expect(page.get_by_role("row", name=re.compile("Depth sled 2"))).to_contain_text("version 2")
    people = page.get_by_role("region", name="People")
    people.get_by_label("Name").fill("Maro")
    people.get_by_role("button", name="Add the person").click()
    expect(people.get_by_text("Maro")).to_be_visible()


def test_a_shop_without_people_says_who_is_missing(browser: Browser, empty_dsn: str) -> None:
    with serving(empty_dsn) as address:
        page = browser.new_page(base_url=address)
        page.goto("/")
        page.get_by_role("link", name="spec card", exact=True).click()
        page.get_by_role("button", name="Save the card").click()
        expect(page.get_by_role("alert")).to_contain_text("Say who you are first")
        page.get_by_role("button", name="Who is it?").click()
        page.get_by_role("menuitem", name="Add the first name").click()
        people = page.get_by_role("region", name="People")
        people.get_by_label("Name").fill("Ines")
        people.get_by_role("button", name="Add the person").click()
        expect(page.get_by_role("button", name="Ines")).to_be_visible()
        page.go_back()
        page.get_by_role("button", name="Save the card").click()
        expect(page.get_by_label("Bore [mm]")).to_have_attribute("aria-invalid", "true")
        page.close()
