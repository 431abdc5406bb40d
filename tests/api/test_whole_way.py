"""From a new card to a proof, over HTTP alone: inch card, four holes, a spacer plate."""

import csv
import io
import re
from typing import Any
from uuid import uuid4

import jsonschema
import pytest
from fastapi.testclient import TestClient
from pypdf import PdfReader

from tests.api.bench import READY, Bench, assert_refusal_shape


def _pdf_pages(content: bytes) -> list[str]:
    return [page.extract_text() for page in PdfReader(io.BytesIO(content)).pages]


def _cut_plan(bench: Bench, number: int) -> dict[str, Any]:
    answer: dict[str, Any] = bench.client.get(f"/api/holes/{bench.hole(number)['hole_id']}/cut-plan").json()
    return answer


def test_out_planned_cut_refitted_remeasured_in_and_proved(client: TestClient) -> None:
    bench = Bench.at_demo(client)
    assert bench.hole(5)["state"] == "out"
    assert bench.hole(5)["need"]["action"] == "cut"
    plan = _cut_plan(bench, 5)
    # The stack: flange + shim - depth gives the target of 100 µm, the cut cleans 25 µm everywhere.
    cut_plan = plan["plan"]
    assert plan["flange_m"] + cut_plan["shim_m"] - cut_plan["depth_m"] == pytest.approx(100e-6, abs=1e-9)
    assert min(position["cut_m"] for position in plan["positions"]) >= 25e-6 - 1e-9
    hole_id = bench.hole(5)["hole_id"]
    cut = {"cut_id": str(uuid4()), "depth": f"{cut_plan['depth_m'] * 1000:.3f}", "passes": 3, "shim": "0.10 mm",
           "person_id": bench.person_id}  # fmt: skip
    assert client.post(f"/api/holes/{hole_id}/cuts", json=cut).status_code == 201
    after_cut = bench.hole(5)
    assert (after_cut["state"], after_cut["liner"]) == ("not measured", None)
    assert after_cut["need"]["action"] == "read depth"
    assert after_cut["expected_m"] == pytest.approx(100e-6, abs=1e-9)
    for hour in (12, 3, 6, 9):
        depth = bench.take(cut["depth"], quantity="counterbore depth", bare_unit="mm", hole=5, hour=hour)
        assert depth.status_code == 201, depth.text
    fitting = {"fitting_id": str(uuid4()), "liner_mark": "L6", "shims": [{"nominal": "0.10 mm"}], "confirmed": True,
               "ready": READY, "person_id": bench.person_id}  # fmt: skip
    assert client.post(f"/api/holes/{hole_id}/fittings", json=fitting).status_code == 201
    assert bench.hole(5)["state"] == "not measured"
    for hour in (12, 3, 6, 9):
        assert bench.take("10.0", hole=5, hour=hour).status_code == 201
    now = bench.hole(5)
    assert (now["state"], now["with_shim"], now["least_m"]) == ("in", True, 75e-6)

    pages = _pdf_pages(client.get(f"/api/jobs/{bench.job_id}/proof.pdf?person_id={bench.person_id}").content)
    for number, page in enumerate(pages, start=1):
        assert "26-031" in page
        assert re.search(rf"page\s+{number}\s+of\s+{len(pages)}", page)
    text = re.sub(r"\s+", " ", " ".join(pages))
    assert "Hole 5: in" in text
    assert "certifies nothing beyond what was measured" in text
    assert "Before: liner L6, no shim" in text
    assert "on shim 0.10 mm" in text
    assert "Fennick 6W workshop book" in text
    assert "Depth sled 2, version 1" in text


def test_readings_as_csv_hold_every_reading_and_its_strike(client: TestClient) -> None:
    bench = Bench.at_demo(client)
    answer = client.get(f"/api/jobs/{bench.job_id}/readings.csv")
    assert answer.headers["content-type"].startswith("text/csv")
    rows = list(csv.DictReader(io.StringIO(answer.text)))
    block = bench.block()
    assert [row["reading_id"] for row in rows] == [reading["reading_id"] for reading in block["readings"]]
    struck = [row for row in rows if row["struck"]]
    assert [(row["hole"], row["clock_h"], row["typed"]) for row in struck] == [("4", "3", "2.1 thou")]
    assert {row["gauge"] for row in rows} == {"Depth sled 2", "Bench micrometer", "Deck indicator"}


def test_whole_job_as_json_keeps_to_its_published_schema(client: TestClient) -> None:
    bench = Bench.at_demo(client)
    job = client.get(f"/api/jobs/{bench.job_id}/job.json").json()
    schema = client.get("/api/schemas/job.json").json()
    jsonschema.Draft202012Validator.check_schema(schema)
    jsonschema.validate(job, schema)
    with pytest.raises(jsonschema.ValidationError, match="required"):
        jsonschema.validate({key: value for key, value in job.items() if key != "facts"}, schema)


def test_an_engine_on_an_inch_card_with_a_spacer_plate(empty_client: TestClient) -> None:
    client = empty_client
    person = client.post("/api/people", json={"name": "Ines"}).json()["person_id"]
    gauge = {"name": "Sled", "kind": "depth gauge", "resolution": "0.1 thou", "repeatability": "0.1 thou"}
    assert client.post("/api/gauges", json=gauge).status_code == 201
    saved = client.post("/api/spec-cards", json={"card": _inch_card(), "person_id": person})
    assert saved.status_code == 201, saved.text
    new = {"number": "7", "name": "Test bed", "spec_card_id": saved.json()["spec_card_id"], "person_id": person}
    job_id = client.post("/api/jobs", json=new).json()["job_id"]
    bench = Bench(client, job_id, person)
    assert [hole["number"] for hole in bench.block()["holes"]] == [1, 2, 3, 4]
    assert client.post(f"/api/jobs/{job_id}/liners", json={"mark": "A"}).status_code == 201
    fitting = {"fitting_id": str(uuid4()), "liner_mark": "A", "ready": READY, "person_id": person}
    client.post(f"/api/holes/{bench.hole(1)['hole_id']}/fittings", json=fitting)
    for hour in (12, 6):
        assert bench.take("3", hole=1, hour=hour, bare_unit="thou").status_code == 201
    hole = bench.hole(1)
    assert hole["state"] == "in"
    assert hole["mean_m"] == pytest.approx(3 * 25.4e-6)
    assert hole["parts"]["between_m"] == pytest.approx(15 * 25.4e-6), "the spacer counts once"
    strip = client.get("/api/jobs").json()[0]
    assert strip["holes"][0]["state"] == "in"


def _inch_card() -> dict[str, Any]:
    limit = lambda typed: {"length": {"typed": typed}, "source": "bench", "status": "own experience"}  # noqa: E731
    none = {"length": None}
    length = lambda typed: {"typed": typed}  # noqa: E731
    return {
        "name": "Four in a row", "engine": "Test bed", "unit": "inch", "construction": "wet liner, top flange",
        "block_material": "grey iron", "liner_material": "cast iron",
        "layout": {"arrangement": "in-line", "holes": 4, "heads": [[1, 2], [3, 4]], "numbering": "from the front",
                   "twelve_o_clock": "the manifold", "bore_pitch": length("5 1/2"), "bore": length("4.25")},
        "limits": {"least_without_shim": limit("2"), "greatest_without_shim": limit("5"),
                   "least_with_shim": limit("2"), "greatest_with_shim": limit("5"), "target_with_shim": none,
                   "variation_round": limit("1"), "neighbour_difference": none, "head_average_least": none,
                   "head_average_greatest": none},
        "seat": {"flange_nominal": none, "counterbore_nominal": none, "ledge_at_nominal": none, "ledge_least": none,
                 "cleanup_least": none},
        "measuring": {"land": "flat", "datum": "deck", "between": [{"name": "spacer", "thickness": length("15")}],
                      "hold_down": "", "hold_down_torque_nm": None, "required_hours": [12, 6]},
        "lands": [{"name": "flat", "raised": length("0")}], "shims": [],
        "cutter": {"name": "", "graduation": length("1"), "stop_accuracy": length("1")},
    }  # fmt: skip


def test_card_problems_come_with_their_paths(client: TestClient) -> None:
    bench = Bench.at_demo(client)
    card = _inch_card()
    card["limits"]["greatest_without_shim"]["length"]["typed"] = "wide"
    card["cutter"]["graduation"]["typed"] = ""
    refused = client.post("/api/spec-cards", json={"card": card, "person_id": bench.person_id})
    assert refused.status_code == 422
    assert_refusal_shape(refused)
    fields = {problem["field"] for problem in refused.json()["problems"]}
    assert {"limits.greatest_without_shim", "cutter.graduation"} <= fields
