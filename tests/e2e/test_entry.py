"""The entry line: wrong entries, reloads, repeats, the tape, keyboard only, units, small screens."""

import re

import pytest
from playwright.sync_api import Page, Route, expect

from tests.e2e.conftest import BlockView


def test_a_wrong_entry_is_explained_and_nothing_typed_is_lost(page: Page, block: BlockView) -> None:
    block.open(5)
    entry, line = page.locator("#entry"), page.get_by_role("region", name="Entry line")
    for text, words in (
        ("5 6h a hair", "not a measure"),
        ("9 6h 3.2", "There is no hole 9: this block has holes 1 to 6"),
        ("5 13h 3.2", "no 13 h on the clock"),
        ("abc", "not understood"),
    ):
        entry.fill(text)
        entry.press("Enter")
        expect(line.get_by_role("alert")).to_contain_text(words)
        expect(entry).to_have_value(text)
    entry.fill("5 1.5h 38 mm")
    entry.press("Enter")
    expect(line.get_by_role("alert")).to_contain_text("did you mean")
    line.get_by_role("button", name="38 µm", exact=True).click()
    expect(entry).to_have_value("")
    expect(page.get_by_role("row", name=re.compile(r"^5 "))).to_contain_text("38")


def test_a_half_typed_entry_and_the_place_survive_a_reload(page: Page, block: BlockView) -> None:
    block.open(5)
    page.keyboard.press("Escape")
    page.keyboard.press("k")
    page.keyboard.press("]")
    page.locator("#entry").fill("6h 8.8")
    expect(page.locator("#entry-echo")).to_contain_text("hole 5 at 6h: 8.800 mm")
    page.reload()
    expect(page).to_have_url(re.compile(r"/counterbore/5\?at=12"))
    expect(page.locator("#entry")).to_have_value("6h 8.8")
    expect(page.locator("#entry-echo")).to_contain_text("hole 5 at 6h: 8.800 mm")


def test_a_mark_stands_on_the_ring_before_it_is_taken(page: Page, block: BlockView) -> None:
    block.open(5)
    page.locator("#entry").fill("5 1.5h 6.6")
    expect(page.locator("[data-hole='5'] [data-preview]")).to_have_count(1)
    block.expect_marks(5, 4)
    page.locator("#entry").press("Enter")
    block.expect_marks(5, 5)
    expect(page.locator("[data-preview]")).to_have_count(0)


def test_what_is_typed_while_the_network_is_gone_is_taken_once_it_is_back(page: Page, block: BlockView) -> None:
    block.open(5)
    page.context.set_offline(True)
    block.type("1.5h 5.0")
    expect(page.get_by_label("Link").locator("[data-waiting]")).to_have_text("1.5h 5.0")
    page.context.set_offline(False)
    block.expect_marks(5, 5)
    expect(page.get_by_label("Link")).to_have_count(0)
    page.get_by_role("button", name="Tape").click()
    expect(page.get_by_role("region", name="Tape").get_by_text("5·1.5h")).to_have_count(1)


def test_a_position_read_twice_is_a_repeat_or_a_correction(page: Page, block: BlockView) -> None:
    block.open(6)
    entry, line = page.locator("#entry"), page.get_by_role("region", name="Entry line")
    entry.fill("6h 5.4")
    entry.press("Enter")
    expect(line.get_by_role("alert")).to_contain_text("is this a repeat, or does it correct the first?")
    expect(entry).to_have_value("6h 5.4")
    line.get_by_role("button", name="Correct it: strike the first").click()
    cell = page.get_by_role("row", name=re.compile(r"^6 ")).get_by_role("cell").nth(2)
    expect(cell).to_have_text("54")
    line.get_by_role("button", name="Undo").click()
    expect(cell).to_have_text("52")


def test_the_tape_strikes_and_restores(page: Page, block: BlockView) -> None:
    block.open(6)
    page.get_by_role("button", name="Tape").click()
    tape = page.get_by_role("region", name="Tape")
    tape.get_by_role("button", name=re.compile("^Strike 6·9h 5.8")).click()
    block.expect_state(6, "not measured")
    expect(tape).to_contain_text("struck on the tape")
    tape.get_by_role("button", name=re.compile("^Restore 6·9h 5.8")).click()
    block.expect_state(6, "cannot tell")


def test_by_keyboard_alone(page: Page, block: BlockView) -> None:
    """From the floor to a corrected reading and back, without a mouse."""
    page.goto("/")
    job = page.get_by_role("link", name="Ferry Lanthorn", exact=True)
    expect(job).to_be_visible()
    for _ in range(30):
        page.keyboard.press("Tab")
        if job.evaluate("link => link === document.activeElement"):
            break
    page.keyboard.press("Enter")
    expect(page.locator("#entry")).to_be_visible()
    page.keyboard.type("#6")
    page.keyboard.press("Enter")
    expect(page).to_have_url(re.compile("/protrusion/6"))
    page.keyboard.type("1.5h 7.2")
    page.keyboard.press("Enter")
    block.expect_marks(6, 5)
    page.keyboard.press("Control+z")
    block.expect_marks(6, 4)
    page.keyboard.press("Escape")
    page.keyboard.press("ArrowLeft")
    expect(page).to_have_url(re.compile("/protrusion/5"))
    page.keyboard.press("w")
    expect(page.get_by_role("region", name="Why")).to_contain_text("Fennick 6W workshop book")
    page.keyboard.press("w")
    page.keyboard.press("?")
    expect(page.get_by_role("heading", name="Keys")).to_be_visible()
    page.keyboard.press("Escape")
    page.keyboard.press("Control+Enter")
    expect(page.get_by_role("region", name="Cut plan")).to_be_visible()


def test_one_switch_turns_small_lengths_and_sizes(page: Page, block: BlockView) -> None:
    block.open(5)
    needs = page.get_by_role("region", name="What this hole needs")
    expect(needs).to_contain_text("8.898 mm")
    page.get_by_role("button", name="thou").click()
    # 8.898 mm / 25.4 = 0.35031 in; 100 µm / 25.4 = 3.9 thou.
    expect(needs).to_contain_text("0.3503 inch")
    expect(needs).to_contain_text("3.9 thou")
    page.locator("#entry").fill("1.5h 2")
    expect(page.locator("#entry-echo")).to_contain_text("+2.0 thou")
    page.get_by_role("button", name="µm").click()
    expect(page.locator("#entry-echo")).to_contain_text("+20 µm")
    page.locator("#entry").fill("")
    page.get_by_role("button", name="thou").click()
    page.reload()
    expect(needs).to_contain_text("0.3503 inch")


def test_a_unit_chosen_before_the_block_is_here_stands(page: Page, block: BlockView) -> None:
    """A job comes up in its card's units, except where somebody chose others for it, however soon."""
    held: list[Route] = []
    page.goto("/")
    page.route(re.compile(r"/api/jobs/[^/]+/block$"), lambda route: held.append(route))
    page.get_by_role("link", name="Narrow-boat Quillet", exact=True).click()
    small = page.get_by_role("group", name="Unit").get_by_role("button", name="µm")
    expect(page).to_have_url(re.compile("/jobs/"))
    small.click()
    for route in held:
        route.continue_()
    page.unroute(re.compile(r"/api/jobs/[^/]+/block$"))
    expect(page.locator("#entry")).to_be_visible()
    expect(small).to_have_attribute("aria-pressed", "true")
    page.reload()
    expect(page.locator("#entry")).to_be_visible()
    expect(small).to_have_attribute("aria-pressed", "true")


def test_two_benches_see_each_other(page: Page, block: BlockView) -> None:
    block.open(5)
    other = page.context.new_page()
    other.goto(page.url)
    BlockView(other).type("1.5h 5.0")
    block.expect_marks(5, 5)


@pytest.mark.parametrize("path", ["", "/liners", "/proof", "/card", "/cut/5"])
def test_nothing_is_wider_than_a_phone(page: Page, block: BlockView, path: str) -> None:
    block.open()
    job = page.url.split("/protrusion")[0]
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(job + (path or "/protrusion/5"))
    expect(page.get_by_role("main")).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390


def test_an_address_that_is_not_there_leads_back(page: Page) -> None:
    page.goto("/nothing/here")
    page.get_by_role("link", name="To the floor").click()
    expect(page.get_by_role("heading", name="Engines on the floor")).to_be_visible()
    page.goto("/jobs/00000000-0000-0000-0000-000000000000")
    expect(page.get_by_role("alert")).to_contain_text("There is no job")


def test_undo_after_a_refused_reading_takes_nothing_back_unasked(page: Page, block: BlockView) -> None:
    """Told by a user: a refused reading, then Undo, struck the flange of another liner without a word."""
    block.open(5)
    page.get_by_role("link", name="Liners", exact=True).click()
    flange = page.get_by_label("Flange of L7 at the flat land")
    flange.fill("8.991")
    flange.press("Enter")
    expect(page.get_by_role("button", name="Undo: liner L7: flange thickness 8.991 mm")).to_be_visible()
    page.get_by_role("link", name="Block", exact=True).click()
    block.type("#5")
    entry, line = page.locator("#entry"), page.get_by_role("region", name="Entry line")
    entry.fill("5 6h a hair")
    entry.press("Enter")
    expect(line.get_by_role("alert")).to_contain_text("not a measure")
    line.get_by_role("button", name="Undo: the entry asked about").click()
    expect(line.get_by_label("Undone")).to_contain_text("nothing: it was not recorded")
    # What is left to undo lies on a liner that is not in this hole: it is named and asked about.
    line.get_by_role("button", name=re.compile("Undo: liner L7")).click()
    expect(line.get_by_role("alert")).to_contain_text("liner L7: flange thickness 8.991 mm")
    line.get_by_role("button", name="Leave it").click()
    expect(line.get_by_role("alert")).to_have_count(0)
    page.get_by_role("button", name="Tape").click()
    # Only what the demo itself corrected is struck.
    expect(page.get_by_role("region", name="Tape").locator(".line-through")).to_have_text("2.1 thou")


def test_a_moved_zero_corrected_is_what_undo_takes_back(page: Page, block: BlockView) -> None:
    """Told by a user: after "zero moved, correct", Undo struck good readings and left the correction."""
    block.open(6)
    page.keyboard.press("Escape")
    page.keyboard.press("b")
    expect(page.get_by_role("region", name="Now")).to_be_visible()
    page.get_by_text("Look at the zero again").click()
    page.get_by_label("Zero looked at again: it shows").fill("20 µm")
    page.get_by_role("button", name="Note the look").click()
    page.get_by_role("button", name="Correct them").click()
    expect(page.get_by_role("alert")).to_have_count(0)
    page.get_by_role("button", name=re.compile("Undo: .*zero correction")).click()
    expect(page.get_by_label("Undone")).to_contain_text("zero correction")
    expect(page.get_by_role("alert")).to_contain_text("The zero moved by")
    page.get_by_role("button", name=re.compile("Undo: zero of protrusion looked at")).click()
    expect(page.get_by_role("alert")).to_have_count(0)
    page.get_by_role("link", name="Block").click()
    page.get_by_role("button", name="Tape").click()
    struck = page.get_by_role("region", name="Tape").get_by_role("button", name=re.compile("^Restore"))
    expect(struck.first).to_be_visible()
    names = struck.evaluate_all("all => all.map(one => one.ariaLabel)")
    assert {"zero of protrusion" in name for name in names if name != "Restore 4·3h 2.1 thou"} == {True}


def test_a_set_opened_by_mistake_is_closed_on_the_tape(page: Page, block: BlockView) -> None:
    block.open(6)
    entry, line = page.locator("#entry"), page.get_by_role("region", name="Entry line")
    entry.fill("6 6h 7.7")
    entry.press("Enter")
    line.get_by_role("button", name="A new pass").click()
    block.expect_marks(6, 1)
    page.get_by_role("button", name="Tape").click()
    page.get_by_role("button", name="Close 6 set of protrusion opened").first.click()
    block.expect_marks(6, 4)
    page.get_by_role("button", name="Open again 6 set of protrusion opened").first.click()
    block.expect_marks(6, 1)


def test_an_inch_typed_as_a_thou_is_asked_about_at_the_bench_and_on_forms(page: Page, block: BlockView) -> None:
    """Told by users: .0035 at the bench under thou became nothing, .003 as a gauge's step 0.076 µm."""
    block.open(6)
    page.get_by_role("group", name="Unit").get_by_role("button", name="thou").click()
    page.locator("#entry").fill("6 1.5h .0035")
    page.locator("#entry").press("Enter")
    line = page.get_by_role("region", name="Entry line")
    expect(line.get_by_role("alert")).to_contain_text("less than this gauge can show")
    line.get_by_role("button", name="0.0035 inch", exact=True).click()
    expect(page.locator("#entry")).to_have_value("")
    block.expect_marks(6, 5)
    page.goto("/shop")
    form = page.get_by_role("form", name="Add a gauge")
    form.get_by_label("Name on it").fill("Dial")
    step = form.get_by_label("One step of its scale")
    step.fill(".001 thou")
    expect(form).to_contain_text("is +0.0010 thou, +0.025 µm")
    form.get_by_label("Repeats within, one standard deviation").fill("1 µm")
    form.get_by_role("button", name="Add the gauge").click()
    expect(form.get_by_role("alert")).to_contain_text("did you mean one of these?")
    form.get_by_role("button", name="0.001 inch", exact=True).click()
    expect(step).to_have_value("")
    expect(page.get_by_role("cell", name=re.compile("Dial")).first).to_be_visible()


def test_a_whole_size_on_a_ring_and_a_temperature_in_fahrenheit(page: Page) -> None:
    """Told by users: a full bore size typed where a deviation is meant; 70 in a field of °C."""
    page.goto("/")
    jobs = page.request.get("/api/jobs").json()
    job = next(one["job"]["job_id"] for one in jobs if one["job"]["number"] == "26-057")
    page.goto(f"/jobs/{job}/measure/block bore/hole-2")
    page.get_by_role("group", name="Unit").get_by_role("button", name="µm").click()
    zero = page.request.get(f"/api/jobs/{job}/surveys/block bore/hole-2").json()["setup"]["zero_m"]
    field = page.get_by_label("Type a reading")
    field.fill(f"{zero * 1000 + 0.0125:.4f}")
    hint = page.get_by_label("What the number means")
    expect(hint).to_contain_text("the size")
    expect(hint).to_contain_text("+12 µm")
    field.press("Enter")
    page.get_by_role("button", name="A repeat: keep both").click()
    expect(page.get_by_label("Taken")).to_contain_text(f"{zero * 1000 + 0.0125:.4f} mm")
    warm = page.get_by_role("region", name="Temperature")
    warm.get_by_label("is").fill("70")
    warm.get_by_role("button", name="Note it").click()
    expect(warm.get_by_role("alert")).to_contain_text("70 °C is unlikely")
    warm.get_by_role("button", name="70 °F, 21.1 °C").click()
    expect(warm).to_contain_text("21.11 °C (70 °F)")


def test_digits_at_a_shown_position_are_a_reading_and_the_next_hole_comes_by_itself(
    page: Page, block: BlockView
) -> None:
    """Told by a user: at hole 1 at 3 h, 4 and Enter jumped to hole 4 and dropped the reading."""
    block.open(1)
    page.keyboard.press("Escape")
    page.locator("#entry").blur()
    page.keyboard.press("]")
    page.keyboard.press("]")
    expect(page).to_have_url(re.compile(r"/protrusion/1\?at=3"))
    page.keyboard.type("8")
    page.keyboard.press("Enter")
    expect(page.get_by_role("region", name="Entry line").get_by_role("alert")).to_contain_text("Hole 1 at 3h was read")
    # A new pass of a hole: after its last position the next hole with something missing comes.
    page.locator("#entry").fill("#1")
    page.locator("#entry").press("Enter")
    expect(page).to_have_url(re.compile("/protrusion/1"))


def test_the_pedal_and_what_is_typed_for_one_hole(page: Page, block: BlockView, gauge: int) -> None:
    """Told by users: the pedal died after one typed reading; what was typed for one hole showed in another's field."""
    block.open()
    page.keyboard.press("Escape")
    page.keyboard.press("b")
    expect(page.get_by_role("region", name="Now")).to_be_visible()
    page.get_by_role("button", name="Hole 6: cannot tell").click()
    typed = page.get_by_label("Type a reading")
    typed.fill("1 1/2 thou")
    page.get_by_role("button", name="Hole 5: out").click()
    expect(page.get_by_role("heading", name="Hole 5 at 12 h")).to_be_visible()
    expect(typed).to_have_value("")
    page.reload()
    page.get_by_role("button", name="Hole 6: cannot tell").click()
    expect(typed).to_have_value("1 1/2 thou")
    typed.fill("7.1")
    typed.press("Enter")
    page.get_by_role("button", name="A repeat: keep both").click()
    expect(page.get_by_label("Taken")).to_contain_text("7.1")
    expect(typed).to_have_value("")
    # The focus lies on whatever was clicked last; the pedal takes all the same.
    page.get_by_role("button", name="Hole 6: cannot tell").focus()
    expect(page.get_by_role("button", name="Take", exact=True)).to_be_enabled()
    page.keyboard.press("Space")
    expect(page.get_by_role("alert")).to_contain_text("is this a repeat")


def test_a_half_typed_flange_survives_leaving(page: Page, block: BlockView) -> None:
    block.open(5)
    page.get_by_role("link", name="Liners", exact=True).click()
    page.get_by_label("Flange of L7 at the flat land").fill("8.9")
    page.get_by_role("link", name="Block", exact=True).click()
    page.get_by_role("link", name="Liners", exact=True).click()
    expect(page.get_by_label("Flange of L7 at the flat land")).to_have_value("8.9")
