"""The bench: a whole block measured by pedal from the simulated gauge, its death, a phone, what cannot be read."""

import re
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from tests.e2e.conftest import BlockView, GaugeProcess, step_on_pedal


def _at_bench(page: Page, block: BlockView) -> Page:
    block.open()
    page.keyboard.press("Escape")
    page.keyboard.press("b")
    expect(page.get_by_role("region", name="Now")).to_be_visible()
    expect(page.locator("[data-live]")).to_contain_text(re.compile(r"[0-9]"))
    return page


@pytest.fixture
def bench(gauge: int, page: Page, block: BlockView) -> Page:
    return _at_bench(page, block)


def _block(page: Page) -> dict[str, Any]:
    block: dict[str, Any] = page.request.get(f"/api/jobs/{page.url.split('/jobs/')[1].split('/')[0]}/block").json()
    return block


def _standing(page: Page) -> list[dict[str, Any]]:
    return [row for row in _block(page)["readings"] if not row["struck"]]


def _expect_ready(page: Page) -> None:
    """The gauge has said something since the tip got there."""
    expect(page.get_by_role("button", name="Take", exact=True)).to_be_enabled()


def _pedal(page: Page, hole: int, hour: int) -> None:
    """Step on the pedal when the gauge is at this position, and wait until it is taken."""
    expect(page.get_by_role("heading", name=f"Hole {hole} at {hour} h")).to_be_visible()
    step_on_pedal(page, "Space", f"{hole} at {hour}h")


def test_where_nothing_is_missing_the_hole_of_the_address_is_shown(page: Page, block: BlockView) -> None:
    block.open()
    page.goto(page.url.split("/protrusion")[0] + "/bench/protrusion/5")
    expect(page.get_by_role("heading", name="Hole 5 at 12 h")).to_be_visible()
    expect(page.get_by_text("Every position is read.")).to_be_visible()


def test_a_whole_block_by_pedal_with_the_gauge_killed_in_the_middle(
    gauge_process: GaugeProcess, page: Page, block: BlockView
) -> None:
    bench = _at_bench(page, block)
    bench.get_by_role("button", name="Measure the whole block anew, zero the gauge first").click()
    for hole in range(1, 7):
        for hour in (12, 3, 6, 9):
            if (hole, hour) == (4, 6):
                gauge_process.kill()
                expect(bench.get_by_role("button", name="Take", exact=True)).to_be_disabled()
                expect(bench.get_by_label("Gauge")).to_contain_text(re.compile("No gauge at|hung up|sends nothing"))
                bench.keyboard.press("Space")
                expect(bench.get_by_label("Taken")).to_contain_text("not taken")
                expect(bench.get_by_role("heading", name="Hole 4 at 6 h")).to_be_visible()
                gauge_process.start()
            _pedal(bench, hole, hour)
    expect(bench.get_by_text("Every position is read")).to_be_visible()
    expect(bench.get_by_role("button", name="Hole 5: out")).to_be_visible()
    expect(bench.get_by_role("button", name="Hole 1: in")).to_be_visible()
    bench.get_by_role("link", name="Block").click()
    bench.get_by_role("button", name="Tape").click()
    # Twenty-four readings as the gauge sent them, with its own unit, and what was read before.
    tape = bench.get_by_role("region", name="Tape")
    expect(tape.get_by_text(re.compile(r"^[+-]0\.\d{4} mm$"))).to_have_count(24)


def test_repeat_correct_and_undo_at_the_bench(bench: Page) -> None:
    bench.get_by_role("button", name="Hole 6: cannot tell").click()
    expect(bench.get_by_role("heading", name="Hole 6 at 12 h")).to_be_visible()
    _expect_ready(bench)
    bench.keyboard.press("r")
    expect(bench.get_by_label("Numbers")).to_contain_text("mean of 2")
    bench.get_by_role("button", name="Undo").click()
    expect(bench.get_by_label("Undone")).to_contain_text("hole 6: 12h")
    expect(bench.get_by_label("Numbers")).to_contain_text("once")
    _expect_ready(bench)
    bench.keyboard.press("Space")
    expect(bench.get_by_role("alert")).to_contain_text("is this a repeat, or does it correct the first?")
    bench.keyboard.press("c")
    expect(bench.get_by_role("alert")).to_have_count(0)
    expect(bench.get_by_label("Taken")).to_contain_text("6 at 12h")
    # Undoing a correction brings back what it struck.
    bench.get_by_role("button", name="Undo").click()
    expect(bench.get_by_label("Numbers")).to_contain_text("+72")


def test_a_reading_can_be_typed_and_a_slip_is_explained(bench: Page) -> None:
    bench.keyboard.press("]")
    field = bench.get_by_label("Type a reading")
    field.fill("a hair")
    field.press("Enter")
    expect(bench.get_by_role("alert")).to_contain_text("not a measure")
    expect(field).to_have_value("a hair")


def test_a_position_that_cannot_be_read_is_said_with_its_reason(bench: Page) -> None:
    bench.get_by_role("button", name="Hole 1: in").click()
    bench.get_by_text("This position cannot be read").click()
    bench.get_by_role("button", name="Say so").click()
    expect(bench.get_by_role("alert")).to_contain_text("Type the reason")
    bench.get_by_placeholder("a stud in the way").fill("a stud in the way")
    bench.get_by_role("button", name="Say so").click()
    expect(bench.get_by_label("Taken")).to_contain_text("1 at 12h: cannot be read")
    # Undoing it strikes no reading: the position counts as readable again, with what was read there.
    before = len(_standing(bench))
    bench.get_by_role("button", name="Undo").click()
    expect(bench.get_by_label("Undone")).to_contain_text("hole 1: protrusion 12h cannot be read: a stud in the way")
    assert len(_standing(bench)) == before
    hole = next(one for one in _block(bench)["holes"] if one["number"] == 1)
    assert hole["unreadable"] == []


@pytest.mark.parametrize(("width", "height"), [(390, 844), (820, 1180), (1280, 800)])
def test_the_bench_fits_phone_tablet_and_screen(bench: Page, width: int, height: int) -> None:
    bench.set_viewport_size({"width": width, "height": height})
    take = bench.get_by_role("button", name="Take", exact=True)
    expect(take).to_be_in_viewport()
    box = take.bounding_box()
    assert box is not None
    assert box["height"] >= 44
    size = bench.locator("[data-live]").evaluate("digits => parseFloat(getComputedStyle(digits).fontSize)")
    assert size >= 48
    assert bench.evaluate("document.documentElement.scrollWidth") <= width


def test_a_line_is_set_up_and_mistakes_are_named_at_their_field(page: Page, gauge: int) -> None:
    page.goto("/")
    page.get_by_role("link", name="Gauges and people").click()
    talking = page.get_by_role("region", name="Gauges that talk")
    sled = talking.get_by_role("listitem").filter(has_text="Depth sled 2")
    expect(sled.get_by_text("live", exact=True)).to_be_visible()
    sled.get_by_role("button", name="Set up").click()
    form = page.get_by_role("form", name="Set up a line")
    form.get_by_label("Sends to").fill("/etc/passwd")
    form.get_by_role("button", name="Listen there from now on").click()
    expect(form.get_by_label("Sends to")).to_have_attribute("aria-invalid", "true")
    form.get_by_label("Sends to").fill(f"socket://127.0.0.1:{gauge}")
    form.get_by_label("Its lines look like").fill("01A{value}")
    form.get_by_role("button", name="Listen there from now on").click()
    expect(talking.get_by_text("not understood", exact=True)).to_be_visible()
