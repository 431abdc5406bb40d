"""Files in and out on screen: readings with bad rows, a whole job, and files too large."""

import json
import re
from pathlib import Path
from uuid import uuid4

from playwright.sync_api import Page, expect

from tests.documents.test_photos import picture
from tests.e2e.conftest import BlockView

HEAD = "hole,clock_h,repeat,reading,unit"
GOOD = ["1,12,1,85,µm", "1,3,1,86,µm", "1,6,1,84,µm", "1,6,2,85,µm", "1,9,1,3.4,thou"]
BAD = ["9,12,1,85,µm", "2,12,1,85 mil,", "2,13,1,85,µm"]


def _table(folder: Path, *rows: str) -> Path:
    path = folder / "readings.csv"
    path.write_text("\n".join((HEAD, *rows)), encoding="utf-8")
    return path


def _choose(page: Page, label: str, path: Path) -> None:
    """Choose a file the way people do: the same one, corrected, may be chosen again."""
    with page.expect_file_chooser() as chooser:
        # By key: what is reported beside it may move the button under a pointer.
        page.get_by_label(label).press("Enter")
    chooser.value.set_files(path)


def test_three_bad_rows_are_named_and_left_out_only_when_chosen(page: Page, block: BlockView, tmp_path: Path) -> None:
    block.open(1)
    page.get_by_role("link", name="Proof", exact=True).click()
    page.get_by_role("link", name="Bring readings in").click()
    _choose(page, "Table of readings", _table(tmp_path, *GOOD, *BAD))
    rows = page.get_by_role("region", name="Rows")
    expect(rows).to_contain_text("8 rows: 5 good, 3 bad")
    expect(rows.get_by_role("row").nth(1)).to_contain_text("There is no hole 9: this block has holes 1 to 6.")
    expect(rows.get_by_role("row").nth(2)).to_contain_text("used for two units: which is meant?")
    expect(rows.get_by_role("row").nth(3)).to_contain_text("A clock position is above 0 and up to 12")
    expect(rows.get_by_role("button", name=re.compile("^Take"))).to_have_count(0)
    # Put right in the file, all of it is taken.
    _choose(page, "Table of readings", _table(tmp_path, *GOOD))
    rows.get_by_role("button", name="Take 5 readings").click()
    expect(rows.get_by_role("status")).to_contain_text("5 readings taken, each hole in a pass of its own.")
    _choose(page, "Table of readings", _table(tmp_path, "3,12,1,88,µm", *BAD))
    told = rows.get_by_role("region", name="Before it is taken")
    expect(told).to_contain_text("hole 3")
    expect(told).to_contain_text(re.compile(r"cannot tell →\s+not measured"))
    rows.get_by_role("button", name="Leave 3 bad rows out, take 1").click()
    expect(rows.get_by_role("status")).to_contain_text("1 reading taken")
    rows.get_by_role("link", name="To the block").click()
    block.expect_state(1, "in")
    block.expect_state(3, "not measured")


def test_a_job_goes_out_and_comes_in_as_a_copy(page: Page, block: BlockView, tmp_path: Path) -> None:
    block.open(1)
    page.get_by_role("link", name="Proof", exact=True).click()
    with page.expect_download() as download:
        page.get_by_role("link", name="Whole job as JSON").click()
    path = tmp_path / "job.json"
    download.value.save_as(path)
    page.get_by_role("link", name="Floor", exact=True).click()
    page.get_by_role("link", name="Bring a job in from a file").click()
    page.get_by_label("Job file").set_input_files(path)
    expect(page.get_by_text("Job 26-031, Ferry Lanthorn, is here already")).to_be_visible()
    page.get_by_label("Job number of the copy").fill("26-031")
    page.get_by_role("button", name="Bring it in as a copy").click()
    expect(page.get_by_text("Job number 26-031 is taken").first).to_be_visible()
    page.get_by_label("Job number of the copy").fill("26-031 copy")
    page.get_by_role("button", name="Bring it in as a copy").click()
    expect(page.get_by_text("job 26-031 copy")).to_be_visible()
    block.expect_state(5, "out")


def test_a_proof_that_was_printed_is_held_against_the_record(page: Page, block: BlockView, tmp_path: Path) -> None:
    block.open(1)
    page.get_by_role("link", name="Proof", exact=True).click()
    with page.expect_download() as download:
        page.get_by_role("button", name="PDF").click()
    path = tmp_path / "proof.pdf"
    download.value.save_as(path)
    page.get_by_role("link", name="Hold against the record").click()
    page.get_by_label("Proof or job").set_input_files(path)
    found = page.get_by_role("region", name="What was found")
    expect(found.get_by_role("heading", name="It stands")).to_be_visible()
    expect(found).to_contain_text("Proof of job 26-031, Ferry Lanthorn, printed")
    path.write_bytes(path.read_bytes() + b"%")
    _choose(page, "Proof or job", path)
    expect(found.get_by_role("heading", name="It does not stand")).to_be_visible()
    page.get_by_label("or the head as printed").fill("abc")
    page.get_by_role("button", name="Hold it").click()
    expect(page.get_by_text("A head is 64 figures and letters from a to f")).to_be_visible()


def test_a_file_that_was_changed_is_brought_in_marked(page: Page, tmp_path: Path) -> None:
    page.goto("/")
    job = page.request.get("/api/jobs").json()[0]["job"]["job_id"]
    document = page.request.get(f"/api/jobs/{job}/job.json").json()
    document["facts"]["readings"][0]["taken_by"] = "Nobody"
    path = tmp_path / "job.json"
    path.write_text(json.dumps(document), encoding="utf-8")
    page.get_by_role("link", name="Bring a job in from a file").click()
    page.get_by_label("Job file").set_input_files(path)
    page.get_by_label("Job number of the copy").fill("26-031 copy")
    page.get_by_role("button", name="Bring it in as a copy").click()
    marked = page.get_by_role("region", name="Marked")
    expect(marked).to_contain_text("the file was changed after it was written")
    marked.get_by_role("link", name="To the job").click()
    expect(page.get_by_text("job 26-031 copy")).to_be_visible()


def test_what_is_no_file_of_that_kind_or_too_large_is_said_at_the_field(page: Page, tmp_path: Path) -> None:
    page.goto("/")
    page.get_by_role("link", name="Bring a job in from a file").click()
    wrong = tmp_path / "wrong.json"
    wrong.write_text("{}", encoding="utf-8")
    page.get_by_label("Job file").set_input_files(wrong)
    expect(page.get_by_text("This is no job file: at format, Field required.")).to_be_visible()
    large = tmp_path / "large.json"
    large.write_bytes(b" " * 5_100_000)
    page.get_by_label("Job file").set_input_files(large)
    expect(page.get_by_text("The file is larger than 5 MB, more than a job's JSON may be.")).to_be_visible()


def test_a_table_too_large_is_said_before_it_is_sent(page: Page, block: BlockView, tmp_path: Path) -> None:
    block.open(1)
    page.get_by_role("link", name="Proof", exact=True).click()
    page.get_by_role("link", name="Bring readings in").click()
    large = tmp_path / "large.csv"
    large.write_bytes(b" " * 5_100_000)
    page.get_by_label("Table of readings").set_input_files(large)
    expect(page.get_by_text("large.csv has 5.1 MB: 5 MB at most.")).to_be_visible()


def test_a_job_whose_photos_are_not_in_the_file_is_asked_about(page: Page, block: BlockView, tmp_path: Path) -> None:
    page.goto("/")
    strip = page.request.get("/api/jobs").json()[0]["job"]
    job, person = strip["job_id"], page.request.get("/api/people").json()[0]["person_id"]
    reading = page.request.get(f"/api/jobs/{job}/block").json()["readings"][0]["reading_id"]
    photo = {"name": "photo.png", "mimeType": "image/png", "buffer": picture("PNG")}
    form = {"note_id": str(uuid4()), "person_id": person, "words": "crack", "file": photo}
    assert page.request.post(f"/api/readings/{reading}/notes", multipart=form).status == 201
    exported = page.request.get(f"/api/jobs/{job}/job.json").body()
    (tmp_path / "job.json").write_bytes(exported)
    page.get_by_role("link", name="Bring a job in from a file").click()
    page.get_by_label("Job file").set_input_files(tmp_path / "job.json")
    expect(page.get_by_text("One photo of this job is not in this file")).to_be_visible()
    page.get_by_role("button", name="Bring it in without its photos").click()
    expect(page.get_by_text("is here already")).to_be_visible()
    page.get_by_label("Job number of the copy").fill("26-031 copy")
    page.get_by_role("button", name="Bring it in as a copy").click()
    expect(page.get_by_text("job 26-031 copy")).to_be_visible()
