"""Who goes where in the browser: locked, put in another order, taken, refitted step by step, read and proved."""

import re

from playwright.sync_api import Locator, Page, expect

from tests.e2e.conftest import BlockView, tick_ready


def _height(holes: Locator, hole: int) -> str:
    """How a hole stands then, as it is typed at the bench: hundredths of a millimetre."""
    words = holes.filter(has=holes.page.get_by_role("button", name=re.compile(f"^Hole {hole}, "))).inner_text()
    return f"{int(words.split()[0]) / 10:.1f}"


def test_matched_with_a_lock_refitted_by_the_tray_list_and_proved(page: Page, block: BlockView) -> None:
    """Hole 5 is sunk and no exchange helps it; the greatest step to a neighbour is what an exchange makes smaller."""
    block.open()
    page.get_by_role("link", name="Cut plan").click()
    page.get_by_role("link", name="Who goes where").click()
    page.get_by_role("button", name="exchange only").click()
    here = page.url
    expect(page.get_by_role("region", name="What limits it")).to_contain_text("Hole 5 asks for a flange of 8.9")
    # It is put before "liners moved", and hole 2 keeps its own.
    goals = page.get_by_role("region", name="Goals in their order")
    goals.get_by_role("button", name="greatest difference between neighbours before the one above").click()
    holes = page.get_by_role("list", name="Every hole then")
    lock = holes.get_by_role("button", name=re.compile("^Hole 2, "))
    lock.click()
    expect(lock).to_have_attribute("aria-pressed", "true")
    expect(page.get_by_text("hole 5 cannot be told")).to_be_visible()
    plate = page.get_by_role("region", name="What this block needs")
    into = plate.get_by_role("listitem").filter(has_text="into hole")
    expect(into.first).to_be_visible()
    moved = [re.search(r"^(\S+) .* into hole (\d)", words) for words in into.all_inner_texts()]
    pairs = [(found[1], int(found[2])) for found in moved if found]
    assert pairs and all(hole != 2 for _, hole in pairs)
    heights = {hole: _height(holes.get_by_role("listitem"), hole) for _, hole in pairs}
    plate.get_by_role("button", name="Take this order").click()

    tray = page.get_by_role("region", name="Tray list")
    expect(tray).to_contain_text("chosen by Ines")
    expect(tray.get_by_role("link", name="Go there")).to_have_count(0)
    for _, hole in pairs:
        tray.get_by_role("button", name=re.compile(f"It is drawn.* hole {hole}$")).click()
        expect(tray.get_by_role("listitem").filter(has_text=f"out of hole {hole}")).to_contain_text("done")
    for liner, hole in pairs:
        tray.get_by_role("link", name=f"Fit {liner} into hole {hole}").click()
        fit = page.get_by_role("form", name="Record the fit")
        expect(fit.get_by_label("Liner")).to_have_value(liner)
        tick_ready(fit)
        fit.get_by_role("button", name="Record the fit").click()
        expect(page).to_have_url(re.compile(rf"/protrusion/{hole}\?at=12"))
        for _ in range(4):
            block.type(heights[hole])
        # What no exchange helps stays as it was, and is said so.
        block.expect_state(hole, "cannot tell" if hole == 5 else "in")
        page.goto(here)
    expect(page.get_by_text("Every liner stays where it is")).to_be_visible()
    expect(tray).to_have_count(0)
    page.get_by_role("link", name="Proof").click()
    frame = page.frame_locator("iframe[title='Proof sheet']")
    liner, hole = next(one for one in pairs if one[1] != 5)
    expect(frame.get_by_text(f"Now: liner {liner}").first).to_be_visible()
    expect(frame.get_by_role("heading", name=f"Hole {hole}: in")).to_be_visible()
