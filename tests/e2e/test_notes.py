"""A photo and a note on a reading: kept from the tape and the bench, marked, undone, taken out with the job."""

import zipfile
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.documents.test_photos import picture
from tests.e2e.conftest import BlockView


def test_a_photo_is_marked_kept_undone_and_goes_out_with_the_job(page: Page, block: BlockView, tmp_path: Path) -> None:
    block.open(hole=5)
    page.get_by_role("button", name="Tape").click()
    tape = page.get_by_role("region", name="Tape")
    tape.get_by_role("button", name="Note on 5·6h").first.click()
    form = page.get_by_role("form", name="Add a note")
    form.get_by_role("button", name="Keep it with the reading").click()
    expect(form.get_by_label("Note")).to_have_attribute("aria-invalid", "true")
    form.get_by_label("Note").fill("cavitation on the exhaust side")
    form.get_by_label("Photo").set_input_files(
        {"name": "drawing.svg", "mimeType": "image/svg+xml", "buffer": b"<svg/>"}
    )
    form.get_by_role("button", name="Keep it with the reading").click()
    expect(form.get_by_label("Photo")).to_have_attribute("aria-invalid", "true")
    # Nothing typed is lost on the way.
    expect(form.get_by_label("Note")).to_have_value("cavitation on the exhaust side")
    photo = {"name": "photo.jpg", "mimeType": "image/jpeg", "buffer": picture(size=(400, 300))}
    form.get_by_label("Photo").set_input_files(photo)
    form.get_by_alt_text("The photo to be kept").click(position={"x": 100, "y": 150})
    form.get_by_label("What is at 1").fill("deepest pit")
    form.get_by_role("button", name="Mark 1").press("ArrowRight")
    form.get_by_role("button", name="Keep it with the reading").click()
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_alt_text("cavitation on the exhaust side")).to_be_visible()
    expect(dialog).to_contain_text("deepest pit")
    shown = dialog.get_by_alt_text("cavitation on the exhaust side")
    assert shown.evaluate("image => image.complete && image.naturalWidth") == 400
    dialog.get_by_role("button", name="Close").click()
    expect(tape).to_contain_text("note: cavitation on the exhaust side · photo")
    page.get_by_role("link", name="Proof").click()
    with page.expect_download() as download:
        page.get_by_role("link", name="with photos as ZIP").click()
    names = zipfile.ZipFile(download.value.path()).namelist()
    assert len([name for name in names if name.startswith("photos/")]) == 1
    page.get_by_role("link", name="Block").click()
    page.get_by_role("button", name="Tape").click()
    tape.get_by_role("button", name="Note on 5·6h").first.click()
    page.get_by_role("button", name="Strike the note").click()
    expect(page.get_by_role("button", name="Restore the note")).to_be_visible()


def test_a_note_at_the_bench_is_of_the_reading_taken_last(page: Page, block: BlockView) -> None:
    block.open()
    page.keyboard.press("Escape")
    page.keyboard.press("b")
    expect(page.get_by_role("region", name="Now")).to_be_visible()
    page.get_by_role("button", name="Hole 1: in").click()
    page.get_by_label("Type a reading").fill("8.4")
    page.get_by_label("Type a reading").press("Enter")
    page.get_by_role("button", name="A repeat: keep both").click()
    expect(page.get_by_label("Taken")).to_contain_text("8.4")
    page.get_by_role("button", name="Note or photo of it").click()
    form = page.get_by_role("form", name="Add a note")
    form.get_by_label("Note").fill("tip on clean metal")
    form.get_by_role("button", name="Keep it with the reading").click()
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.get_by_role("link", name="Block").click()
    page.get_by_role("button", name="Tape").click()
    expect(page.get_by_role("region", name="Tape")).to_contain_text("note: tip on clean metal")
    # The newest thing is undone first, also after the page was loaded again: the note, then its reading.
    page.get_by_role("button", name="Undo: hole 1: note: tip on clean metal").click()
    expect(page.get_by_label("Undone")).to_contain_text("note: tip on clean metal")
    expect(page.get_by_role("region", name="Tape")).not_to_contain_text("note: tip on clean metal")
    expect(page.get_by_role("region", name="Tape")).not_to_contain_text("struck: Wren, undone")
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("region", name="Tape")).to_contain_text("undone")
