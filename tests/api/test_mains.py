"""Main bores over HTTP: what pressing did to the demo's mains, and what a reading of them changes."""

from typing import Any

import pytest
from fastapi.testclient import TestClient

from tests.api.bench import Bench, job_called

THOU = 25.4e-6


def _mains(client: TestClient, name: str) -> dict[str, Any]:
    answer = client.get(f"/api/jobs/{job_called(client, name)}/mains")
    assert answer.status_code == 200, answer.text
    found: dict[str, Any] = answer.json()
    return found


def test_pressing_drew_the_middle_web_in(client: TestClient) -> None:
    """Hidden truth: −0.9, −0.4 and +0.2 thou in its three directions; the web went 0.75 up and 0.35 across."""
    now = _mains(client, "Narrow-boat Brindle")
    assert [one["lies"] for one in now["mains"]] == ["in", "small", "in"]
    middle = now["mains"][1]
    assert middle["between"] == ["fit the liner, hole 2"]
    for one, truth in zip(middle["directions"], (-0.9, -0.4, 0.2), strict=True):
        assert one["change"]["value_m"] == pytest.approx(truth * THOU, abs=one["change"]["expanded_m"])
    moved = now["line"]["rows"][1]["moved"]
    assert moved["value_m"] == pytest.approx((0.75**2 + 0.35**2) ** 0.5 * THOU, abs=moved["expanded_m"])
    assert now["line"]["state"] == "out"
    assert now["decision"]["what"] == "align-hone"
    assert len(now["decision"]["reasons"]) == 2


def test_align_honing_makes_them_to_be_read_again(client: TestClient) -> None:
    bench = Bench(client, job_called(client, "Narrow-boat Brindle"), Bench.at_demo(client).person_id)
    body = {"operation": "align", "kind": "done", "words": "0.9 thou out", "person_id": bench.person_id,
            "hold_reason": "told"}  # fmt: skip
    marked = client.post(f"/api/jobs/{bench.job_id}/route/marks", json=body)
    assert marked.status_code == 201, marked.text
    now = _mains(client, "Narrow-boat Brindle")
    assert {one["lies"] for one in now["mains"]} == {"read again"}
    assert now["line"]["state"] == "not measured"
    assert now["decision"]["what"] == "cannot tell yet"


def test_an_engine_without_mains_on_its_card_says_so(client: TestClient) -> None:
    now = _mains(client, "Winding Engine Tamsin")
    assert (now["mains"], now["line"]["rows"]) == ([], [])


def test_the_proof_prints_them_before_and_after(client: TestClient) -> None:
    proof = client.get(f"/api/jobs/{job_called(client, 'Narrow-boat Brindle')}/proof.html?unit=thou").text
    assert "Main bores, before and after" in proof
    assert "align-hone" in proof
