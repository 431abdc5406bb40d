"""The Bore lens over the API: every hole's bore at once, the line that names a place of it, and the lenses of a job."""

from typing import Any

import pytest
from fastapi.testclient import TestClient

LEVELS = [{"name": name, "depth_um": depth} for name, depth in (("top", "15240"), ("middle", "119380"))]


def _boat(client: TestClient) -> str:
    strips = client.get("/api/jobs").json()
    return next(strip["job"]["job_id"] for strip in strips if strip["job"]["name"] == "Narrow-boat Quillet")


def _bores(client: TestClient, quantity: str = "block bore") -> Any:
    answer = client.get(f"/api/jobs/{_boat(client)}/bores/{quantity}")
    assert answer.status_code == 200, answer.text
    return answer.json()


def test_every_hole_stands_as_its_own_survey_says(client: TestClient) -> None:
    job, bores = _boat(client), _bores(client)
    assert [one["hole"] for one in bores["bores"]] == [1, 2]
    for one in bores["bores"]:
        survey = client.get(f"/api/jobs/{job}/surveys/block bore/hole-{one['hole']}").json()
        assert all(survey[name] == value for name, value in one["survey"].items())
    assert [one["survey"]["part"]["state"] for one in bores["bores"]] == ["in", "out"]
    assert bores["event"] == client.get(f"/api/jobs/{job}/block").json()["event"]


def test_what_a_bore_needs_leads_to_its_bench(client: TestClient) -> None:
    first, second = (one["need"] for one in _bores(client)["bores"])
    assert first["action"] == "nothing"
    assert (second["action"], second["quantity"], second["part"]) == ("read survey", "block bore", "hole-2")
    liner = _bores(client, "liner bore")["bores"][0]
    assert liner["need"]["action"] == "nothing"
    assert "no liner is fitted" in liner["need"]["sentence"]["text"].casefold()


def test_a_feature_that_is_no_bore_is_refused(client: TestClient) -> None:
    answer = client.get(f"/api/jobs/{_boat(client)}/bores/deck flatness")
    assert answer.status_code == 422
    assert "block bore or liner bore" in answer.json()["message"]


def test_a_block_says_its_lenses_and_what_they_wait_for(client: TestClient) -> None:
    lenses = client.get(f"/api/jobs/{_boat(client)}/block").json()["lenses"]
    assert [one["name"] for one in lenses] == [
        "bore", "protrusion", "counterbore", "fit", "distortion", "clearance",
    ]  # fmt: skip
    fit = next(one for one in lenses if one["name"] == "fit")
    assert fit["waits_for"] == [
        {"quantity": "block bore", "read": 2, "of": 2},
        {"quantity": "liner outside", "read": 2, "of": 2},
    ]


def test_a_line_of_a_bore_is_read_with_its_level_and_axis(client: TestClient) -> None:
    ask = {"text": "2 m 45d 1.4", "bare_unit": "thou", "quantity": "block bore", "holes": [1, 2], "levels": LEVELS,
           "axes_deg": [0, 45], "depth_unit": "inch"}  # fmt: skip
    answer = client.post("/api/compute/parse", json=ask).json()
    assert (answer["hole"], answer["axis_deg"], answer["typed"]) == (2, 45, "1.4")
    assert (float(answer["level_um"]), float(answer["value_um"])) == (119380.0, 35.56)
    by_depth = client.post("/api/compute/parse", json={**ask, "text": "1 0.6 0d 0"}).json()
    assert float(by_depth["level_um"]) == 15240.0


@pytest.mark.parametrize("text", ["2 z 45d 1", "7 m 45d 1", "2 m 77d 1"])
def test_a_place_that_is_not_there_is_named(client: TestClient, text: str) -> None:
    ask = {"text": text, "bare_unit": "thou", "holes": [1, 2], "levels": LEVELS, "axes_deg": [0, 45]}
    answer = client.post("/api/compute/parse", json=ask)
    assert answer.status_code == 422
    assert answer.json()["message"]
