"""All holes in one grid: typed by Tab, pasted from a message, liners going in; a card copied."""

import re
from pathlib import Path

from PIL import Image
from playwright.sync_api import Page, expect

from tests.e2e.conftest import BlockView

CELLS = re.compile(r"^hole \d at \d+h")


def _job(page: Page, name: str) -> str:
    strips = page.request.get("/api/jobs").json()
    return next(strip["job"]["job_id"] for strip in strips if strip["job"]["name"] == name)


def test_ledges_by_tab_what_is_asked_about_waits_and_nothing_typed_is_lost(page: Page, block: BlockView) -> None:
    block.open()
    page.keyboard.press("k")
    page.keyboard.press("g")
    expect(page.get_by_role("heading", name="All holes at once")).to_be_visible()
    page.get_by_label("hole 5 at 12h, known 8.848").focus()
    for text in ("8.850", "99", "8.856"):
        page.keyboard.type(text)
        page.keyboard.press("Tab")
    asked = page.get_by_role("region", name="Asked about")
    expect(asked.get_by_text("hole 5 at 12h, “8.850”")).to_be_visible()
    expect(asked.get_by_text("hole 5 at 3h, “99”")).to_be_visible()
    page.reload()
    expect(page.get_by_label("hole 5 at 12h")).to_have_value("8.850")
    page.get_by_role("button", name="Take all 3 typed").click()
    first = asked.locator("div", has_text="hole 5 at 12h").first
    first.get_by_role("button", name="A repeat: keep both").click()
    expect(page.get_by_label("hole 5 at 12h, known 8.849")).to_have_value("")
    third = asked.locator("div", has_text="hole 5 at 3h").first
    third.get_by_role("button", name="Leave it out").click()
    expect(page.get_by_label("hole 5 at 3h")).to_have_value("")
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_label("hole 5 at 12h, known 8.848")).to_be_visible()


def test_a_message_lands_in_the_grid_with_the_same_questions(page: Page) -> None:
    page.goto(f"/jobs/{_job(page, 'Ferry Lanthorn')}/grid?of=protrusion")
    page.get_by_text("Paste from a spreadsheet or a message").click()
    page.get_by_role("textbox", name=re.compile("Lines such as")).fill(
        "Hello\nhole 1: 12h 8.8, 3h eight point nine\nhole 7 6h 8\n5 6h 900"
    )
    page.get_by_role("button", name="Put them into the grid").click()
    expect(page.get_by_text("3 readings stand in the grid, not taken yet.")).to_be_visible()
    missed = page.get_by_role("list", name="Not understood")
    expect(missed).to_contain_text("there is no hole 7")
    expect(missed.get_by_role("listitem")).to_have_count(2)
    expect(page.get_by_label(re.compile("^hole 1 at 3h"))).to_have_value("8.9")
    page.get_by_role("button", name="Take all 3 typed").click()
    asked = page.get_by_role("region", name="Asked about")
    expect(asked.get_by_role("alert")).to_have_count(3)
    expect(asked.locator("div", has_text="hole 5 at 6h").first).to_contain_text("far from what is expected")


def test_columns_of_a_spreadsheet_go_from_the_cell_they_are_pasted_into(page: Page) -> None:
    page.goto(f"/jobs/{_job(page, 'Ferry Lanthorn')}/grid?of=protrusion")
    page.get_by_label(re.compile("^hole 2 at 3h")).evaluate(
        """cell => {
          const data = new DataTransfer()
          data.setData('text/plain', '7.7\\t7.8\\n8.1\\t8.2\\n')
          cell.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))
        }"""
    )
    for cell, text in (
        ("hole 2 at 3h", "7.7"),
        ("hole 2 at 6h", "7.8"),
        ("hole 3 at 3h", "8.1"),
        ("hole 3 at 6h", "8.2"),
    ):
        expect(page.get_by_label(re.compile(f"^{cell}"))).to_have_value(text)


def test_liners_go_in_hole_after_hole_with_one_tick_each(page: Page) -> None:
    job = _job(page, "Ferry Lanthorn")
    people = page.request.get("/api/people").json()
    holes = page.request.get(f"/api/jobs/{job}/block").json()["holes"]
    for hole in holes[:2]:
        drawn = page.request.post(f"/api/holes/{hole['hole_id']}/draw", data={"person_id": people[0]["person_id"]})
        assert drawn.ok
    page.goto(f"/jobs/{job}/grid?of=fits")
    record = page.get_by_role("button", name="Record the fits")
    expect(record).to_be_disabled()
    expect(page.get_by_text("Local rules and licensed practice come first")).to_be_visible()
    for hole in holes[:2]:
        page.get_by_label(f"Liner for hole {hole['number']}").select_option(hole["liner"]["mark"])
        page.get_by_label(f"hole {hole['number']}", exact=True).check()
    page.get_by_label("Shim under hole 2").fill("0.1 mm")
    page.get_by_role("button", name="Record 2 fits").click()
    reason = page.get_by_label("Reason to pass it")
    expect(page.get_by_text("A liner stands in every hole.").or_(reason.first)).to_be_visible()
    while reason.count():
        reason.first.fill("seen by the foreman")
        page.get_by_role("button", name=re.compile("^Pass it as")).first.click()
        expect(reason.first.or_(page.get_by_text("A liner stands in every hole."))).to_be_visible()
        if page.get_by_text("A liner stands in every hole.").is_visible():
            break
    now = page.request.get(f"/api/jobs/{job}/block").json()["holes"]
    assert [hole["liner"]["mark"] for hole in now[:2]] == [hole["liner"]["mark"] for hole in holes[:2]]
    assert [shim["typed"] for shim in now[1]["shims"]] == ["0.1 mm"]


def test_a_card_is_copied_and_its_engine_taken_in_with_it(page: Page) -> None:
    page.goto("/jobs/new")
    page.get_by_role("link", name="Spec cards").click()
    page.get_by_role("link", name="Copy Fennick 6W, wet liners").click()
    expect(page.get_by_text("copied from Fennick 6W, wet liners")).to_be_visible()
    expect(page.get_by_label("least, no shim", exact=True)).to_have_value("0.050")
    page.get_by_role("button", name="Save the card").click()
    expect(page.get_by_label("Name of the card")).to_be_focused()
    page.get_by_label("Name of the card").fill("Fennick 6W, second pattern")
    page.get_by_role("button", name="Save the card").click()
    expect(page.get_by_role("heading", name="Fennick 6W, second pattern")).to_be_visible()


def test_a_photo_of_the_note_stands_beside_and_is_kept_with_what_was_copied(page: Page, tmp_path: Path) -> None:
    picture = tmp_path / "note.png"
    Image.new("RGB", (300, 200), "white").save(picture)
    page.goto(f"/jobs/{_job(page, 'Ferry Lanthorn')}/grid")
    page.get_by_text("A photo of the note beside it").click()
    page.get_by_label("Photo of the note").set_input_files(picture)
    expect(page.get_by_role("img", name="The note on paper")).to_be_visible()
    keep = page.get_by_role("button", name="Keep it with the next reading that is taken")
    expect(keep).to_be_disabled()
    page.get_by_label("hole 5 at 12h, known 8.848").fill("8.848")
    page.keyboard.press("Tab")
    asked = page.get_by_role("region", name="Asked about")
    asked.get_by_role("button", name="A repeat: keep both").click()
    page.get_by_role("button", name="Keep it with hole 5 at 12h").click()
    expect(page.get_by_text("Kept with hole 5 at 12h.")).to_be_visible()
    job = page.url.split("/jobs/")[1].split("/")[0]
    notes = page.request.get(f"/api/jobs/{job}/block").json()["notes"]
    assert [note["words"] for note in notes if note["photo_here"]][-1].startswith("The note on paper")
