"""What does not add up over HTTP: the ferry's lip, and sums alone."""

import pytest
from fastapi.testclient import TestClient

from tests.api.bench import field_of, job_called


def test_the_lip_of_the_ferry_is_among_the_causes_and_a_check_moves_the_weights(client: TestClient) -> None:
    """Hidden truth: the flange of L2 in hole 3 was read over its lip; its make fills no other hole."""
    job = job_called(client, "Ferry Lanthorn")
    found = client.post(f"/api/jobs/{job}/causes/try", json={}).json()
    assert [one["hole"] for one in found["holes"] if not one["adds_up"]] == [3]
    assert found["far_off"] > 5
    weights = {name: one["weight"] for one in reversed(found["explained"]) for name in one["causes"][:1]}
    assert weights["lip under the micrometer"] > 0.05
    assert sum(one["weight"] for one in found["explained"]) == pytest.approx(1.0)
    check = found["proposed"]
    assert check["where"] == [3]
    effect = next(one["effects_m"][0] for one in found["explained"] if one["causes"] == ["lip under the micrometer"])
    finding = {"check": "read the flange on its flat land, away from the lip", "where": [3], "value_m": effect}
    after = client.post(f"/api/jobs/{job}/causes/try", json={"findings": [finding]}).json()
    assert "lip under the micrometer" in after["explained"][0]["causes"] + after["explained"][1]["causes"]
    before_lip = sum(one["weight"] for one in found["explained"] if "lip under the micrometer" in one["causes"])
    after_lip = sum(one["weight"] for one in after["explained"] if "lip under the micrometer" in one["causes"])
    assert after_lip > before_lip


def test_a_block_that_adds_up_or_has_no_parts_says_so(client: TestClient) -> None:
    job = job_called(client, "Hill Tractor Marram")
    assert "no parts" in client.post(f"/api/jobs/{job}/causes/try", json={}).json()["why_not"]


def test_the_sum_alone(client: TestClient) -> None:
    """Two of six stand 92 low, both of one make; then all stand still."""
    holes = [{"hole": at + 1, "residual_m": um * 1e-6, "u_m": 3e-6, "make": make}
             for at, (um, make) in enumerate(zip((0, 1, -93, 2, -1, -91), "PPQPPQ", strict=True))]  # fmt: skip
    found = client.post("/api/compute/causes", json={"holes": holes, "shared_u_m": 2e-6}).json()
    assert (found["adds_up"], found["explained"][0]["causes"]) == (False, ["lip under the micrometer"])
    assert found["next"]["minutes"] <= 40
    still = [{**one, "residual_m": 1e-6} for one in holes]
    assert client.post("/api/compute/causes", json={"holes": still}).json()["adds_up"]
    unknown = {"holes": holes, "findings": [{"check": "ask around", "where": [1], "value_m": 0.0}]}
    refused = client.post("/api/compute/causes", json=unknown)
    assert (refused.status_code, field_of(refused)) == (422, "findings")
