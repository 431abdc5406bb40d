"""Notes and photos on readings over HTTP, and their way out of the shop and in again."""

import base64
import io
import json
import zipfile
from typing import Any
from uuid import uuid4

import psycopg
import pytest
from fastapi.testclient import TestClient
from httpx2 import Response

from tests.api.bench import Bench, assert_refusal_shape, field_of
from tests.api.test_all_endpoints import NASTY
from tests.conftest import at_this_machine
from tests.documents.test_photos import picture
from vallostasis.documents.photo import take_photo
from vallostasis.settings import Settings


@pytest.fixture
def bench(client: TestClient) -> Bench:
    return Bench.at_demo(client)


def _note(bench: Bench, reading: str, photo: bytes | None = None, **fields: str) -> Response:
    form = {"note_id": str(uuid4()), "person_id": bench.person_id, **fields}
    files = None if photo is None else {"file": ("photo.jpg", photo)}
    return bench.client.post(f"/api/readings/{reading}/notes", data=form, files=files)


def _first_reading(bench: Bench) -> str:
    return next(str(row["reading_id"]) for row in bench.block()["readings"] if row["quantity"] == "protrusion")


def test_a_photo_with_marks_is_kept_and_shown_as_it_was_taken(bench: Bench) -> None:
    content = picture(size=(640, 480))
    marks = [{"x": 0.25, "y": 0.75, "words": "pitting"}, {"x": 1.0, "y": 0.0, "words": ""}]
    note = _note(bench, _first_reading(bench), content, words="cavitation", marks=json.dumps(marks))
    assert note.status_code == 201
    (row,) = bench.block()["notes"]
    assert row["note_id"] == note.json()["note_id"]
    assert (row["words"], row["marks"], row["photo_here"], row["struck"]) == ("cavitation", marks, True, False)
    photo = bench.client.get(f"/api/notes/{row['note_id']}/photo")
    assert (photo.content, photo.headers["content-type"]) == (take_photo(content).content, "image/jpeg")
    assert photo.headers["x-content-type-options"] == "nosniff"
    proof = bench.client.get(f"/api/jobs/{bench.job_id}/proof.html").text
    assert "cavitation" in proof
    # It goes along within the page for the owner.
    page = bench.client.get(f"/api/jobs/{bench.job_id}/owner.html").text
    assert base64.b64encode(photo.content).decode() in page and "<figcaption>cavitation</figcaption>" in page
    assert "cavitation" in bench.client.get(f"/api/jobs/{bench.job_id}/readings.csv").text


def test_a_note_sent_again_is_not_doubled_and_can_be_struck(bench: Bench) -> None:
    reading, note_id = _first_reading(bench), str(uuid4())
    for _ in range(2):
        assert _note(bench, reading, words="burr at the edge", note_id=note_id).status_code == 201
    assert _note(bench, reading, words="another", note_id=note_id).status_code == 409
    event = bench.block()["notes"][0]["event"]
    struck = {"struck": True, "reason": "wrong reading", "person_id": bench.person_id}
    assert bench.client.post(bench.tape_url(event), json=struck).status_code == 201
    (row,) = bench.block()["notes"]
    assert row["struck"]
    assert bench.block()["event"] > event
    assert "burr" not in bench.client.get(f"/api/jobs/{bench.job_id}/readings.csv").text


@pytest.mark.parametrize(
    ("fields", "photo", "status", "field"),
    [
        ({}, None, 422, "words"),
        ({"marks": '[{"x": 0.5, "y": 0.5}]', "words": "no photo"}, None, 422, "marks"),
        ({"marks": '[{"x": 1.5, "y": 0.5}]'}, picture(), 422, "marks"),
        ({"marks": "[" * 9000}, picture(), 422, "marks"),
        ({"marks": json.dumps([{"x": 0, "y": 0}] * 41)}, picture(), 422, "marks"),
        ({}, b"no photo at all", 422, "file"),
        ({}, b"\xff" * 10_200_000, 413, "file"),
        ({"words": "x" * 700}, None, 422, "words"),
    ],
)
def test_what_cannot_be_kept_is_refused_at_its_field(
    bench: Bench, fields: dict[str, str], photo: bytes | None, status: int, field: str
) -> None:
    refused = _note(bench, _first_reading(bench), photo, **fields)
    assert refused.status_code == status
    assert field_of(refused) == field


def test_whatever_is_sent_as_a_note_breaks_nothing(bench: Bench) -> None:
    reading = _first_reading(bench)
    for field in ("note_id", "person_id", "words", "marks"):
        for value in NASTY:
            answer = _note(bench, reading, **{field: "" if value is None else str(value)})
            assert answer.status_code < 500, (field, value, answer.text)
            if answer.status_code >= 400:
                assert_refusal_shape(answer)
    assert _note(bench, str(uuid4()), words="of nothing").status_code == 404
    assert bench.client.get(f"/api/notes/{uuid4()}/photo").status_code == 404


def _import(client: TestClient, content: bytes, **fields: Any) -> Response:
    mover = client.post("/api/people", json={"name": f"Mover {uuid4().hex[:8]}"}).json()["person_id"]
    return client.post("/api/jobs/imports", data={"person_id": mover, **fields}, files={"file": ("job", content)})


def test_photos_leave_with_the_job_and_come_back_in_another_shop(bench: Bench, empty_dsn: str) -> None:
    content = picture("PNG")
    note_id = _note(bench, _first_reading(bench), content, words="crack").json()["note_id"]
    exported = bench.client.get(f"/api/jobs/{bench.job_id}/job.zip").content
    names = zipfile.ZipFile(io.BytesIO(exported)).namelist()
    assert len(names) == 2
    with at_this_machine(Settings(dsn=empty_dsn)) as elsewhere:
        # The JSON alone would lose the photo: that is asked about.
        plain = bench.client.get(f"/api/jobs/{bench.job_id}/job.json").content
        asked = _import(elsewhere, plain)
        assert asked.status_code == 409
        assert "One photo of this job is not in this file" in asked.json()["message"]
        brought = _import(elsewhere, exported)
        assert brought.status_code == 201
        assert elsewhere.get(f"/api/notes/{note_id}/photo").content == take_photo(content).content
        again = elsewhere.get(f"/api/jobs/{bench.job_id}/job.json").json()["facts"]
        (here,) = again.pop("brought_in")
        assert here["file_name"] == "job"
        assert again == {key: rows for key, rows in json.loads(plain)["facts"].items() if key != "brought_in"}
        copy = _import(elsewhere, exported, as_copy=True, number="copy")
        assert copy.status_code == 201
        copied = elsewhere.get(f"/api/jobs/{copy.json()['job_id']}/block").json()["notes"][0]
        assert copied["note_id"] != note_id
        assert elsewhere.get(f"/api/notes/{copied['note_id']}/photo").content == take_photo(content).content


def test_a_photo_left_behind_is_said_to_be_elsewhere(bench: Bench, empty_dsn: str) -> None:
    note_id = _note(bench, _first_reading(bench), picture(), words="crack").json()["note_id"]
    plain = bench.client.get(f"/api/jobs/{bench.job_id}/job.json").content
    with psycopg.connect(empty_dsn), at_this_machine(Settings(dsn=empty_dsn)) as elsewhere:
        assert _import(elsewhere, plain, without_photos=True).status_code == 201
        (row,) = elsewhere.get(f"/api/jobs/{bench.job_id}/block").json()["notes"]
        assert (row["has_photo"], row["photo_here"], row["words"]) == (True, False, "crack")
        assert elsewhere.get(f"/api/notes/{note_id}/photo").status_code == 404
        # Going on from there, nothing is asked about what was never here.
        onward = elsewhere.get(f"/api/jobs/{bench.job_id}/job.json").content
        assert _import(elsewhere, onward, as_copy=True, number="onward").status_code == 201


def test_a_photo_of_what_was_found_goes_out_of_the_shop_and_in_again(bench: Bench) -> None:
    record = bench.client.get(f"/api/jobs/{bench.job_id}/strip-record").json()
    found = next(one for one in record["findings"] if one["hole"] == 5 and one["kind"] == "condition")
    content = picture(size=(320, 240))
    form = {"note_id": str(uuid4()), "person_id": bench.person_id, "words": "two thirds round"}
    url = f"/api/findings/{found['finding_id']}/notes"
    for _ in range(2):
        added = bench.client.post(url, data=form, files={"file": ("photo.jpg", content)})
        assert added.status_code == 201, added.text
    own = bench.client.get(f"/api/jobs/{bench.job_id}/strip-record").json()["findings"]
    assert [(one["notes"], one["photo"]) for one in own if one["finding_id"] == found["finding_id"]] == [
        (1, form["note_id"])
    ]
    assert "two thirds round" in str(bench.block()["notes"])
    archive = bench.client.get(f"/api/jobs/{bench.job_id}/job.zip").content
    brought = _import(bench.client, archive, as_copy="true", number="26-031 b")
    assert brought.status_code == 201, brought.text
    copy = bench.client.get(f"/api/jobs/{brought.json()['job_id']}/strip-record").json()["findings"]
    photo = next(one["photo"] for one in copy if one["notes"])
    assert photo != form["note_id"]
    assert bench.client.get(f"/api/notes/{photo}/photo").content == take_photo(content).content
    assert bench.client.post(f"/api/findings/{uuid4()}/notes", data=form).status_code == 404
