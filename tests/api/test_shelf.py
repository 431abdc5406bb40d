"""The shelf of shims: lots, what is kept for whom, what a fitting takes, and what is to be ordered."""

import csv
import io
from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient
from httpx2 import Response
from pypdf import PdfReader

from tests.api.bench import READY, Bench, field_of


@pytest.fixture
def bench(client: TestClient) -> Bench:
    return Bench.at_demo(client)


def _post(bench: Bench, path: str, **body: Any) -> Response:
    return bench.client.post(path, json={**body, "person_id": bench.person_id})


def _lot(bench: Bench, size: str, job: str | None = None) -> dict[str, Any]:
    found = bench.client.get("/api/shelf", params={} if job is None else {"job_id": job}).json()
    return next(one for one in found if one["typed"] == size)


def _left(bench: Bench, typed: str) -> tuple[int, int]:
    need = next(one for one in bench.block()["shims"] if one["typed"] == typed)
    return need["on_shelf"], need["to_order"]


def _put(bench: Bench, size: str, count: int, **more: Any) -> Response:
    return _post(bench, "/api/shelf/lots", shim_lot_id=str(uuid4()), size=size, count=count, **more)


def test_what_lies_on_the_shelf_is_what_plans_can_take(bench: Bench) -> None:
    assert _left(bench, "0.15 mm")[0] == 0
    key = str(uuid4())
    for _ in range(2):
        assert _post(bench, "/api/shelf/lots", shim_lot_id=key, size="0.15", count=4, measured="0.152", lot="A-7",
                     outside="141.2", price="8,50").status_code == 201  # fmt: skip
    assert _left(bench, "0.15 mm")[0] == 4
    lot = next(one for one in bench.client.get("/api/shelf").json() if one["shim_lot_id"] == key)
    assert (lot["measured_m"], lot["price"], lot["side_up"]) == (pytest.approx(152e-6), 8.5, "bevel down")
    refused = _put(bench, "0.15", 1, measured="0.3")
    assert (refused.status_code, field_of(refused)) == (422, "measured")
    refused = _put(bench, "0.15", 1, price="cheap")
    assert (refused.status_code, field_of(refused)) == (422, "price")


def test_what_is_kept_for_one_job_is_not_there_for_another(bench: Bench) -> None:
    others = bench.client.get("/api/jobs").json()
    other = next(one["job"]["job_id"] for one in others if "starboard" in one["job"]["name"])
    _put(bench, "0.30 mm", 3, lot="B")
    lot = _lot(bench, "0.30 mm")["shim_lot_id"]

    def move(kind: str, count: int, **more: Any) -> Response:
        return _post(bench, "/api/shelf/moves", shim_move_id=str(uuid4()), shim_lot_id=lot, kind=kind, count=count,
                     **more)  # fmt: skip

    assert move("reserved", 2, job_id=other).status_code == 201
    assert move("reserved", 2, job_id=bench.job_id).status_code == 422
    assert move("reserved", 1).status_code == 422
    assert move("reserved", 1, job_id=bench.job_id).status_code == 201
    assert (_lot(bench, "0.30 mm", other)["reserved_here"], _lot(bench, "0.30 mm")["reserved"]) == (2, 3)
    assert move("released", 3, job_id=other).status_code == 422
    assert move("released", 2, job_id=other).status_code == 201
    assert move("ordered", 5).status_code == 201
    assert _lot(bench, "0.30 mm")["ordered"] == 5
    assert move("arrived", 5).status_code == 201
    assert (_lot(bench, "0.30 mm")["on_shelf"], _lot(bench, "0.30 mm")["ordered"]) == (8, 0)
    assert move("scrapped", 9).status_code == 422
    assert move("used", 1).status_code == 422


def test_a_fitting_takes_its_shim_and_undo_puts_it_back(bench: Bench) -> None:
    before = _lot(bench, "0.10 mm")["on_shelf"]
    hole = bench.hole(5)["hole_id"]
    fit = {"fitting_id": str(uuid4()), "liner_mark": "L6", "ready": READY, "shims": [{"nominal": "0.1 mm"}]}
    assert _post(bench, f"/api/holes/{hole}/fittings", **fit).status_code == 201
    # Its lot was measured: nobody is asked again.
    proof = bench.client.get(f"/api/jobs/{bench.job_id}/proof.html").text
    assert "measured 101 µm" in proof
    assert _lot(bench, "0.10 mm")["on_shelf"] == before - 1
    bench.undo()
    assert _lot(bench, "0.10 mm")["on_shelf"] == before


def test_a_shim_nobody_measured_is_asked_about(bench: Bench) -> None:
    hole = bench.hole(5)["hole_id"]
    fit = {"fitting_id": str(uuid4()), "liner_mark": "L6", "ready": READY, "shims": [{"nominal": "0.35 mm"}]}
    asked = _post(bench, f"/api/holes/{hole}/fittings", **fit)
    assert (asked.status_code, field_of(asked)) == (409, "shims.0.measured")
    assert asked.json()["suggestions"][0]["label"] == "Fit it unmeasured"
    assert _post(bench, f"/api/holes/{hole}/fittings", **fit, confirmed=True).status_code == 201


def test_the_order_list_has_what_is_short_and_a_spare(client: TestClient, bench: Bench) -> None:
    rows = list(csv.DictReader(io.StringIO(client.get(f"/api/jobs/{bench.job_id}/shim-order.csv").text)))
    needs = {one["typed"]: one["to_order"] for one in bench.block()["shims"] if one["to_order"]}
    assert {row["size"]: int(row["to_order"]) for row in rows} == needs
    pdf = client.get(f"/api/jobs/{bench.job_id}/shim-order.pdf")
    assert pdf.headers["content-type"] == "application/pdf"
    assert "Shims to order" in PdfReader(io.BytesIO(pdf.content)).pages[0].extract_text()
