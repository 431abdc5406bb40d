"""The floor: what is said of each job, jobs put away and brought back."""

from datetime import UTC, datetime, timedelta
from typing import Any

import pytest
from fastapi.testclient import TestClient

from tests.api.bench import Bench, field_of, job_called


@pytest.fixture
def bench(client: TestClient) -> Bench:
    return Bench.at_demo(client)


def _floor(bench: Bench, away: bool = False) -> dict[str, dict[str, Any]]:
    strips = bench.client.get("/api/jobs", params={"away": away}).json()
    return {strip["job"]["name"]: strip for strip in strips}


def test_a_job_that_is_not_released_is_put_away_only_with_a_reason_and_comes_back_with_all_it_had(bench: Bench) -> None:
    url = f"/api/jobs/{bench.job_id}/filing"
    before = _floor(bench)["Ferry Lanthorn"]
    refused = bench.client.post(url, json={"away": True, "person_id": bench.person_id})
    assert (refused.status_code, field_of(refused)) == (422, "words")
    assert "not released" in refused.json()["message"]
    body = {"away": True, "words": "the owner sold the boat", "person_id": bench.person_id}
    assert bench.client.post(url, json=body).status_code == 201
    assert "Ferry Lanthorn" not in _floor(bench)
    assert _floor(bench, away=True)["Ferry Lanthorn"]["away"]
    # Its block is there all the same, and the tape says who put it away.
    assert bench.hole(5)["state"] == "out"
    step = bench.undo_step()
    assert step is not None
    assert "put away" in step["words"]
    assert bench.client.post(url, json={**body, "away": False, "words": ""}).status_code == 201
    assert _floor(bench)["Ferry Lanthorn"] == before


def test_putting_away_is_taken_back_like_any_step(bench: Bench) -> None:
    body = {"away": True, "words": "by mistake", "person_id": bench.person_id}
    bench.client.post(f"/api/jobs/{bench.job_id}/filing", json=body)
    bench.undo()
    assert "Ferry Lanthorn" in _floor(bench)


def test_one_that_went_home_needs_no_reason(bench: Bench) -> None:
    home = next(strip for strip in _floor(bench).values() if strip["released"])
    url = f"/api/jobs/{home['job']['job_id']}/filing"
    assert bench.client.post(url, json={"away": True, "person_id": bench.person_id}).status_code == 201


def test_the_floor_says_what_is_late_and_what_waits(bench: Bench, client: TestClient) -> None:
    job = job_called(client, "Sawmill Hauler")
    day = (datetime.now(UTC) + timedelta(days=2)).date()
    body = {"promised": day.isoformat(), "told": "", "last_day": None, "day_cost": None, "person_id": bench.person_id}
    assert client.post(f"/api/jobs/{job}/promises", json=body).status_code == 201
    strip = _floor(bench)["Sawmill Hauler"]
    assert strip["promised"] == day.isoformat()
    assert {"kind": "due soon", "words": "due in 2 days", "state": "not measured", "hole": None} in strip["points"]
    waits = [point for point in _floor(bench)["Ferry Lanthorn"]["points"] if point["kind"] == "waits"]
    assert waits
    assert "Wren for the cutter" in waits[0]["words"]
