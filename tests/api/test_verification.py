"""Proofs and files held against the record over HTTP: what went out stands, one byte more or less does not."""

import hashlib
from uuid import uuid4

from fastapi.testclient import TestClient

from tests.api.bench import Bench, assert_refusal_shape, field_of


def _hold(client: TestClient, content: bytes) -> dict[str, object]:
    answer = client.post("/api/verifications", files={"file": ("f", content)})
    assert answer.status_code == 200, answer.text
    held: dict[str, object] = answer.json()
    return held


def test_a_proof_that_went_out_stands_and_one_that_was_changed_does_not(client: TestClient) -> None:
    bench = Bench.at_demo(client)
    address = f"/api/jobs/{bench.job_id}/proof.pdf"
    assert field_of(client.get(address)) == "person_id"
    assert client.get(f"{address}?person_id={uuid4()}").status_code == 404
    pdf = client.get(f"{address}?person_id={bench.person_id}").content
    (printed,) = client.get(f"/api/jobs/{bench.job_id}/job.json").json()["facts"]["printings"]
    assert printed["sha256"] == hashlib.sha256(pdf).hexdigest()
    held = _hold(client, pdf)
    assert (held["stands"], held["job_id"]) == (True, bench.job_id)
    # That it was printed was recorded since.
    assert held["words"][-1] == "1 more recorded since."  # type: ignore[index]
    assert f"proof printed up to entry {printed['entries']}" in client.get(f"/api/jobs/{bench.job_id}/block").text
    (on_record,) = client.get("/api/verifications").json()
    assert (on_record["went_out"], on_record["by"], on_record["sha256"]) == (True, "Wren", printed["sha256"])
    assert on_record["words"] == f"{printed['entries']} entries, head {printed['head'][:8]}"
    spoilt = _hold(client, pdf[:-1] + b"x")
    assert (spoilt["stands"], spoilt["job_id"]) == (False, None)
    head = client.post("/api/verifications/head", json={"head": " ".join((printed["head"][:9], printed["head"][9:]))})
    assert head.json()["stands"] is True


def test_every_reading_names_its_screen_and_whether_its_gauge_sent_it(client: TestClient) -> None:
    bench = Bench.at_demo(client)
    for changes in ({}, {"from_gauge": True}):
        assert bench.take("8.8", hole=1, hour=12.0, read_before="repeat", **changes).status_code == 201
    rows = client.get(f"/api/jobs/{bench.job_id}/block").json()["readings"]
    assert [row["taken_with"] for row in rows][-2:] == ["this machine", "this machine, from the gauge"]
    assert "this machine, from the gauge" in client.get(f"/api/jobs/{bench.job_id}/proof.html").text
    last = client.get(f"/api/jobs/{bench.job_id}/readings.csv").text.splitlines()[-1]
    assert last.endswith(",this machine,yes")


def test_a_job_file_is_held_entry_by_entry(client: TestClient) -> None:
    bench = Bench.at_demo(client)
    content = client.get(f"/api/jobs/{bench.job_id}/job.json").content
    assert _hold(client, content)["stands"] is True
    assert _hold(client, content.replace(b'"Wren"', b'"Nobody"'))["stands"] is False
    assert _hold(client, client.get(f"/api/jobs/{bench.job_id}/job.zip").content)["stands"] is True
    for nothing in (b"", b"{}", b"PK\x03\x04"):
        refused = client.post("/api/verifications", files={"file": ("f", nothing)})
        assert_refusal_shape(refused)
        assert field_of(refused) == "file"
