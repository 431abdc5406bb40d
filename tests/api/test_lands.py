"""The lands of a make over HTTP: makes and lands of the demo, old against new, alerts."""

from uuid import uuid4

from fastapi.testclient import TestClient

from tests.api.bench import field_of, job_called


def test_the_makes_of_the_shop_and_the_lands_of_one(client: TestClient) -> None:
    found = client.get("/api/lands").json()
    makes = {one["make"]: one["liners"] for one in found["makes"]}
    assert {"Pellerby", "Quarnforth"} <= set(makes)
    assert makes[found["make"]] == max(makes.values())
    assert found["lands"][0]["land"] == found["reference"]
    other = client.get("/api/lands", params={"make": "Quarnforth"}).json()
    assert {one["make"] for one in other["liners"]} == {"Quarnforth"}
    assert field_of(client.get("/api/lands", params={"make": "Nobody"})) == "make"


def test_an_old_part_against_a_new_one(client: TestClient) -> None:
    every = client.get("/api/lands").json()["every_liner"]
    ferry = [one for one in every if one["job"] == "Ferry Lanthorn"]
    asked = {"old": ferry[0]["liner_id"], "new": ferry[1]["liner_id"]}
    found = client.get("/api/lands/compared", params=asked).json()
    assert {one["land"] for one in found["lands"]} >= {"flat land"}
    unknown = [one["land"] for one in found["lands"] if one["alike"] is None]
    assert not unknown or "identical" in found["verdict"] or "differ" in found["verdict"]
    wrong = client.get("/api/lands/compared", params={**asked, "old": str(uuid4())})
    assert field_of(wrong) == "old"


def test_alerts_of_a_job(client: TestClient) -> None:
    job = job_called(client, "Ferry Lanthorn")
    assert client.get(f"/api/jobs/{job}/batch-alerts").json() == []
    assert client.get(f"/api/jobs/{uuid4()}/batch-alerts").status_code == 404
