"""The swap table over HTTP: a job whose liners were exchanged, and sums alone."""

from uuid import uuid4

import pytest
from fastapi.testclient import TestClient

from tests.api.bench import Bench, field_of, job_called


def test_a_job_before_any_exchange_says_that_nothing_tells_hole_from_liner(client: TestClient) -> None:
    job = job_called(client, "Ferry Lanthorn")
    found = client.get(f"/api/jobs/{job}/swaps").json()
    assert found["why_not"] == ""
    assert found["groups"] == len(found["liners"]) == len(found["fittings"])
    assert all(one["value"]["value_m"] == pytest.approx(0, abs=1e-12) for one in found["liners"])
    assert found["proposed"]["after_m"] < found["proposed"]["before_m"]


def test_an_exchange_that_is_read_tells_them_apart(client: TestClient) -> None:
    """Read as if the hole were low, not its liner: with the other's liner hole 5 stays 22 under hole 6."""
    bench = Bench.at_demo(client)
    path = f"/api/jobs/{bench.job_id}/swaps"
    before = client.get(path).json()
    body = {"fitting_id": str(uuid4()), "liner_mark": bench.hole(6)["liner"]["mark"], "shims": [], "exchange": True,
            "ready": ["clean and dry", "lead-in and seals", "marked, right way round"], "hold_reason": "as told",
            "person_id": bench.person_id}  # fmt: skip
    fitted = client.post(f"/api/holes/{bench.hole(5)['hole_id']}/fittings", json=body)
    assert fitted.status_code == 201, fitted.text
    for hole, height in ((5, "4.1"), (6, "6.3")):
        for hour in (12, 3, 6, 9):
            taken = bench.take(height, hole=hole, hour=hour, confirmed=True)
            assert taken.status_code == 201, taken.text
    after = client.get(path).json()
    assert after["groups"] == before["groups"] - 1
    assert after["freedom"] == 1
    holes = {one["name"]: one["value"]["value_m"] for one in after["holes"]}
    assert holes["6"] - holes["5"] == pytest.approx(22e-6, abs=3e-6)


def test_the_sum_alone(client: TestClient) -> None:
    """By hand: A is +5 and B −5, hole 1 85, hole 2 45, each ±3."""
    some = [("1", "A", 90), ("2", "B", 40), ("1", "B", 80), ("2", "A", 50)]
    body = {"readings": [{"hole": h, "liner": i, "protrusion_m": um * 1e-6, "u_m": 3e-6} for h, i, um in some],
            "shared_u_m": 4e-6, "present": {"1": "B", "2": "A"}, "bench": ["C"]}  # fmt: skip
    found = client.post("/api/compute/swap-effects", json=body).json()
    assert found["liners_m"] == pytest.approx({"A": 5e-6, "B": -5e-6})
    assert found["holes_m"] == pytest.approx({"1": 85e-6, "2": 45e-6})
    assert found["liners_u_m"]["A"] == pytest.approx(3e-6)
    # The mean of its two readings, A and B summing to nought: 3 / √2, and the zero as it is.
    assert found["holes_u_m"]["1"] == pytest.approx(2e-6 * (9 / 2 + 16) ** 0.5)
    assert found["next"]["puts"][0]["liner"] == "C"
    refused = client.post("/api/compute/swap-effects", json={"readings": []})
    assert (refused.status_code, field_of(refused)) == (422, "readings")
