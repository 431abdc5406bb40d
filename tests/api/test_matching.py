"""Who goes where over HTTP: on the demo's jobs, and as sums alone."""

import pytest
from fastapi.testclient import TestClient

from tests.api.bench import Bench, field_of, job_called

CROSSED = {"depths_nm": [8_880_000, 8_910_000], "flanges_nm": [8_985_000, 8_955_000], "lower_nm": 60_000,
           "upper_nm": 90_000, "banks": [[0, 1]]}  # fmt: skip


def test_a_job_is_matched_and_what_its_reading_contradicts_is_left_out(client: TestClient) -> None:
    """Hidden truth: the flange of L2 in hole 3 was read over its lip, 80 µm and more too thick."""
    job = job_called(client, "Ferry Lanthorn")
    alone = client.get(f"/api/jobs/{job}/matching", params={"cuts": False}).json()
    assert [one["hole"] for one in alone["holes"]] == [1, 2, 4, 5, 6]
    assert any("hole 3: its parts and its reading disagree" in one for one in alone["missing"])
    assert {goal["goal"]: goal["then"] for goal in alone["goals"]}["holes outside"] == alone["by_exchange"] == 1
    assert all(goal["proven"] for goal in alone["goals"])
    assert alone["orders"] == 120
    assert alone["proof"][0].startswith("Hole 5 asks for a flange of 8.9")
    assert len(alone["helps"]) == 2
    found = client.get(f"/api/jobs/{job}/matching").json()
    assert [one["hole"] for one in found["holes"] if one["shim_m"]] == [5]
    assert {goal["goal"]: goal["then"] for goal in found["goals"]}["holes cut and shimmed"] == 1
    even = ["holes outside", "greatest difference between neighbours", "spread over all holes"]
    asked = client.get(f"/api/jobs/{job}/matching", params={"goals": even}).json()
    came = {one["goal"]: one["then"] for one in asked["goals"]}
    assert [goal for goal in came if goal in even] == even
    assert came[even[1]] <= {one["goal"]: one["then"] for one in found["goals"]}[even[1]]
    assert came["holes cut and shimmed"] == 1, "nothing is cut for evenness"
    hole = next(one for one in asked["holes"] if one["now"] != one["then"])
    locked = client.get(f"/api/jobs/{job}/matching", params={"goals": even, "locked": [hole["hole"]]}).json()
    row = next(one for one in locked["holes"] if one["hole"] == hole["hole"])
    assert (row["locked"], row["then"]) == (True, row["now"])
    assert locked["locks"].startswith("The locks cost")


def test_an_order_is_taken_as_it_was_seen_and_becomes_a_tray_list(client: TestClient) -> None:
    job = job_called(client, "Ferry Lanthorn")
    path, by = f"/api/jobs/{job}/matching", Bench.at_demo(client).person_id
    seen = client.get(path).json()
    order = [one["then"] for one in seen["holes"]]
    stale = client.post(path, json={"order": order[::-1], "person_id": by})
    assert (stale.status_code, field_of(stale)) == (409, "order")
    idle = {"order": [one["now"] for one in seen["holes"]], "locked": [1, 2, 4, 5, 6], "cuts": False, "person_id": by}
    assert client.post(path, json=idle).status_code == 422
    assert client.post(path, json={"order": order, "person_id": by}).status_code == 201
    chosen = client.get(path).json()["chosen"]
    assert not chosen["is_done"]
    assert {one["kind"] for one in chosen["steps"]} == {"draw", "cut", "fit", "read"}
    first = chosen["steps"][0]
    assert client.post(f"/api/holes/{first['hole_id']}/draw", json={"person_id": by}).status_code == 201
    assert client.get(path).json()["chosen"]["steps"][0]["done"]


@pytest.mark.parametrize("name", ["Winding Engine Tamsin", "Hill Tractor Marram"])
def test_a_job_that_cannot_be_matched_says_why(client: TestClient, name: str) -> None:
    found = client.get(f"/api/jobs/{job_called(client, name)}/matching").json()
    assert found["why_not"]
    assert found["holes"] == []


def test_the_pump_is_matched_by_its_press(client: TestClient) -> None:
    """Holes 1 and 2 are past it; of the two left each liner presses with less than a thou between them."""
    found = client.get(f"/api/jobs/{job_called(client, 'Pump No. 4')}/matching").json()
    assert (found["of"], [one["hole"] for one in found["holes"]]) == ("press", [3, 4])
    assert {one["then"] for one in found["holes"]} == {"P1", "P3"}
    goals = {one["goal"]: one["then"] for one in found["goals"]}
    honed = sum(way["honing_m"] for one in found["holes"] for way in one["ways"] if way["liner"] == one["then"])
    assert goals["metal to hone"] == pytest.approx(honed, abs=2e-9)
    assert all(one["shim_m"] is None for one in found["holes"])
    assert "no ledge is cut" in found["why_no_cut"]


def test_the_sum_alone(client: TestClient) -> None:
    """By hand: crossed they stand 105 and 45 high, exchanged 75 and 75."""
    found = client.post("/api/compute/matching", json=CROSSED).json()
    assert (found["liners"], found["protrusions_nm"]) == ([1, 0], [75_000, 75_000])
    assert found["objective_is"] == "[outside, adjacent_nm, spread_nm]"
    assert found["objective"] == [0, 0, 0]
    with_cuts = {**CROSSED, "flanges_nm": [9_200_000, 9_300_000], "target_nm": 75_000, "cut_allowed": [True, False]}
    cut = client.post("/api/compute/matching", json=with_cuts).json()
    assert cut["objective_is"] == "[outside, cuts, adjacent_nm, spread_nm]"
    assert (cut["objective"][:2], cut["cut"]) == ([1, 1], [True, False])
    refused = client.post("/api/compute/matching", json={**CROSSED, "flanges_nm": [8_985_000]})
    assert refused.status_code == 422
    assert field_of(refused) == "flanges_nm"
