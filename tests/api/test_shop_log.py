"""What the shop learned over HTTP, as the demo has it; CSV read back; judgements without a job."""

import csv
import io

from fastapi.testclient import TestClient

from tests.api.bench import job_called


def test_the_demo_teaches_hours_waits_stones_and_a_first_step(client: TestClient) -> None:
    found = client.get("/api/learned").json()
    hob = next(one for one in found["hours"] if one["job"] == "Winding Engine Hob")
    assert 0 < hob["worked_h"] < float(hob["worst"])
    assert found["waited_d"]["part"] > found["waited_d"]["machine"] > 0
    assert found["first_step"]["looked"] >= 2 and found["first_step"]["cleaned"] < found["first_step"]["looked"]
    assert found["rates"] and all(one["per_stroke_m"] > 0 for one in found["rates"])
    rows = list(csv.DictReader(io.StringIO(client.get("/api/learned.csv").text)))
    worked = [one for one in rows if one["what"] == "hours" and one["job"] == "Winding Engine Hob"]
    assert {one["of"]: float(one["figure"]) for one in worked}["worked"] == round(hob["worked_h"], 2)


def test_past_jobs_are_found_and_their_block_has_its_life(client: TestClient) -> None:
    found = client.get("/api/jobs-found", params={"words": "knocks"}).json()
    assert "Hill Tractor Marram" in {one["name"] for one in found}
    marram = next(one for one in found if one["name"] == "Hill Tractor Marram")
    assert any("knocks" in line for line in marram["lines"])
    life = client.get("/api/blocks", params={"serial": marram["serial"].lower()}).json()
    assert [one["job_id"] for one in life] == [job_called(client, "Hill Tractor Marram")]
    assert client.get("/api/jobs-found", params={"words": "zeppelin"}).json() == []
    assert client.get("/api/blocks", params={"serial": ""}).json() == []


def test_judgements_about_money_need_no_job(client: TestClient) -> None:
    seventh = client.get(
        "/api/compute/money/returns", params={"good": 6, "returned": 1, "cost": 900, "cost_of_return": 700}
    )
    assert round(float(seventh.json()["price"]), 6) == 1000
    make = {"pieces": 5, "hours_each": "0.5", "setup_h": 2, "rate": 60, "material": 10, "price": 70}
    assert client.get("/api/compute/money/make-or-buy", params=make).json()["from_pieces"] == 4
    tool = {"price": 600, "without": 120, "with_it": 30, "jobs_a_year": 3}
    assert client.get("/api/compute/money/tool", params=tool).json()["jobs_to_pay"] == 7
    nobody = client.get("/api/compute/money/returns", params={"good": 0, "returned": 0, "cost": 1, "cost_of_return": 1})
    assert nobody.status_code == 422 and "how many jobs" in nobody.json()["message"]
