"""Slips where lengths and temperatures are typed: asked about at their field, taken once they are answered."""

from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient
from httpx2 import Response

from tests.api.bench import READY, Bench, field_of


@pytest.fixture
def bench(client: TestClient) -> Bench:
    return Bench.at_demo(client)


def _asks(answer: Response, field: str, offered: str) -> None:
    assert answer.status_code in (409, 422), answer.text
    assert answer.json()["code"] == "asks"
    assert field_of(answer) == field
    assert offered in [one["text"] for one in answer.json()["suggestions"]]
    assert answer.json()["suggestions"][-1]["confirm"]


def _gauge(**changes: Any) -> dict[str, Any]:
    return {"name": "Tenths dial", "kind": "depth gauge", "resolution": "2.54 µm", "repeatability": "2 µm", **changes}


def test_a_step_of_a_gauge_in_another_unit_is_asked_about(client: TestClient) -> None:
    _asks(client.post("/api/gauges", json=_gauge(resolution=".001 thou")), "resolution", "0.001 inch")
    _asks(client.post("/api/gauges", json=_gauge(tip_radius="0.4 µm")), "tip_radius", "0.4 mm")
    taken = client.post("/api/gauges", json=_gauge(resolution=".001 thou", confirmed=True))
    assert taken.status_code == 201


def test_a_shim_and_a_cut_in_another_unit_are_asked_about(bench: Bench) -> None:
    hole = bench.hole(5)["hole_id"]
    body = {
        "fitting_id": str(uuid4()),
        "liner_mark": bench.hole(5)["liner"]["mark"],
        "person_id": bench.person_id,
        "bare_unit": "thou",
        "ready": READY,
    }
    fit = bench.client.post(f"/api/holes/{hole}/fittings", json={**body, "shims": [{"nominal": ".003"}]})
    _asks(fit, "shims.0.nominal", "0.003 inch")
    unmeasured = {**body, "shims": [{"nominal": "8"}], "confirmed": True}
    fit = bench.client.post(f"/api/holes/{hole}/fittings", json=unmeasured)
    assert fit.status_code == 201, fit.text
    shim = bench.hole(5)["shims"][0] if "shims" in bench.hole(5) else None
    assert shim is None or float(shim["nominal_um"]) == pytest.approx(203.2)


def test_a_reading_below_the_step_of_its_gauge_is_asked_about(bench: Bench) -> None:
    """Told by a user: .0035 typed at the bench under thou became nothing."""
    asked = bench.take(".0035", hole=6, hour=1.5, bare_unit="thou")
    _asks(asked, "text", "0.0035 inch")
    assert bench.take("0.0035 inch", hole=6, hour=1.5, bare_unit="thou").status_code == 201


def test_a_turning_point_between_two_steps_is_no_slip(bench: Bench) -> None:
    """A dial of half thous and a bore rocked through: the gauge says a tenth of that, and nobody typed it."""
    sent = bench.take("-0.01 thou", hole=6, hour=1.5, bare_unit="thou", from_gauge=True)
    assert sent.status_code == 201, sent.text
    _asks(bench.take("-0.01 thou", hole=6, hour=3, bare_unit="thou"), "text", "-0.01 thou")


def test_a_temperature_in_the_other_scale_is_asked_about(bench: Bench) -> None:
    body = {"temperature_id": str(uuid4()), "body": "part", "text": "70", "person_id": bench.person_id}
    url = f"/api/jobs/{bench.job_id}/temperatures"
    _asks(bench.client.post(url, json=body), "text", "70 F")
    taken = bench.client.post(url, json={**body, "text": "70 F"})
    assert float(taken.json()["celsius"]) == pytest.approx(21.11)
    hot = {**body, "temperature_id": str(uuid4()), "confirmed": True}
    assert float(bench.client.post(url, json=hot).json()["celsius"]) == 70


def test_a_temperature_noted_wrongly_is_put_right_for_what_was_read(client: TestClient) -> None:
    """Told by a user: the survey kept its old sizes and opened a new set."""
    job = next(one["job"] for one in client.get("/api/jobs").json() if one["job"]["number"] == "26-057")
    bench = Bench(client, job["job_id"], Bench.at_demo(client).person_id)
    url = f"/api/jobs/{bench.job_id}/surveys/block bore/hole-2"

    def survey() -> dict[str, Any]:
        now: dict[str, Any] = client.get(url).json()
        return now

    before = survey()
    setup = before["setup"]
    masters = {one["name"]: one["setting_master_id"] for one in client.get("/api/setting-masters").json()}
    body = {"quantity": "block bore", "gauge_id": setup["gauge"]["gauge_id"], "zeroed_on": setup["zeroed_on"],
            "setting_master_id": masters.get(setup["master"]), "load": setup["load"], "method": setup["method"],
            "person_id": bench.person_id}  # fmt: skip
    mean = before["form"]["mean_m"]
    warm = {**body, "master_temp": "30", "corrects": True}
    assert client.post(f"/api/jobs/{bench.job_id}/setups", json=warm).status_code == 201
    after = survey()
    # The same readings count, on a master 9 K warmer than was noted: it was larger, and so is every bore.
    assert [p["readings"] for p in after["places"]] == [p["readings"] for p in before["places"]]
    grown = after["form"]["mean_m"] - mean
    degrees = 30 - float(setup["master_temp_c"])
    assert grown == pytest.approx(float(setup["zero_m"]) * 11.5e-6 * degrees, rel=0.15)
    # A step of its own on the tape, and taken back like any other.
    assert "block bore with" in bench.undo()
    assert survey()["form"]["mean_m"] == mean
    other = client.post(f"/api/jobs/{bench.job_id}/setups", json={**warm, "load": "free"})
    assert other.status_code == 422
    assert field_of(other) == "corrects"


def test_a_whole_size_typed_on_a_ring_is_understood_and_said(client: TestClient) -> None:
    said = client.post("/api/compute/parse", json={"text": "5.0003", "bare_unit": "thou", "zero_um": "127000"}).json()
    assert (said["is_whole_size"], said["value_m"], said["unit"]) == (True, pytest.approx(7.62e-6), "inch")


@pytest.mark.parametrize(
    ("text", "newton_metres"),
    # From memory of workshop tables: 30 lbf·ft is 40.7 N·m, 52 lbf·ft 70.5 N·m.
    [("70", 70), ("70 N·m", 70), ("40,5 Nm", 40.5), ("30 lbf·ft", 40.67), ("52 ft lb", 70.5), ("30 lb ft", 40.67)],
)
def test_a_torque_is_read_in_either_unit(bench: Bench, text: str, newton_metres: float) -> None:
    setup = next(one for one in bench.block()["setups"] if one["quantity"] == "protrusion")
    body = {"quantity": "protrusion", "gauge_id": setup["gauge"]["gauge_id"], "land": setup["land"],
            "hold_down": "bar", "hold_down_torque": text, "person_id": bench.person_id}  # fmt: skip
    answer = bench.client.post(f"/api/jobs/{bench.job_id}/setups", json=body)
    assert answer.status_code == 201, answer.text
    now = next(one for one in bench.block()["setups"] if one["quantity"] == "protrusion")
    assert float(now["hold_down_torque_nm"]) == pytest.approx(newton_metres, abs=0.01)


@pytest.mark.parametrize("text", ["tight", "-5", "99999", "70 kg"])
def test_what_is_no_torque_is_refused_at_its_field(bench: Bench, text: str) -> None:
    setup = next(one for one in bench.block()["setups"] if one["quantity"] == "protrusion")
    body = {"quantity": "protrusion", "gauge_id": setup["gauge"]["gauge_id"], "land": setup["land"],
            "hold_down_torque": text, "person_id": bench.person_id}  # fmt: skip
    answer = bench.client.post(f"/api/jobs/{bench.job_id}/setups", json=body)
    assert (answer.status_code, field_of(answer)) == (422, "hold_down_torque")
