"""The gauge register and what a gauge was zeroed on, over HTTP."""

import csv
import io
from typing import Any

import pytest
from fastapi.testclient import TestClient

from tests.api.bench import Bench, field_of

ENTRY: dict[str, Any] = {
    "name": "Sled of Northgate", "kind": "depth gauge", "resolution": "1", "repeatability": "1.5", "tip": "ball",
    "range_from": "-2", "range_to": "1 in", "tip_radius": "0.5", "calibrated_on": "2026-01-31", "due_on": "2027-01-31",
    "owner": "Northgate Engines", "master": "ring 7", "faults": "reads slow when cold",
}  # fmt: skip


@pytest.fixture
def bench(client: TestClient) -> Bench:
    return Bench.at_demo(client)


def test_a_gauge_keeps_everything_written_about_it_version_by_version(bench: Bench) -> None:
    made = bench.client.post("/api/gauges", json=ENTRY).json()
    lengths = [float(made[key]) for key in ("range_from_um", "range_to_um", "tip_radius_um")]
    assert lengths == [-2000, 25400, 500]
    assert {key: made[key] for key in ("calibrated_on", "due_on", "owner", "master", "faults")} == {
        key: ENTRY[key] for key in ("calibrated_on", "due_on", "owner", "master", "faults")
    }
    changed = {**ENTRY, "faults": "", "due_on": None, "based_on_version": 1}
    newer = bench.client.post(f"/api/gauges/{made['gauge_id']}/versions", json=changed).json()
    assert (newer["version"], newer["faults"], newer["due_on"]) == (2, "", None)
    stale = bench.client.post(f"/api/gauges/{made['gauge_id']}/versions", json=changed)
    assert (stale.status_code, stale.json()["code"]) == (409, "stale")


@pytest.mark.parametrize(
    ("wrong", "field"),
    [
        ({"range_to": ""}, "range_to"),
        ({"range_from": ""}, "range_from"),
        ({"range_to": "-3"}, "range_to"),
        ({"range_to": "a yard"}, "range_to"),
        ({"tip_radius": "-1"}, "tip_radius"),
        ({"due_on": "2025-12-31"}, "due_on"),
        ({"due_on": "soon"}, "due_on"),
        ({"resolution": "0"}, "resolution"),
        ({"range_to": "9" * 50}, "range_to"),
    ],
)
def test_what_cannot_be_true_of_a_gauge_is_refused_at_its_field(
    bench: Bench, wrong: dict[str, Any], field: str
) -> None:
    refused = bench.client.post("/api/gauges", json={**ENTRY, **wrong})
    assert refused.status_code == 422
    assert field_of(refused) == field


def _zeroed(bench: Bench, **changes: Any) -> Any:
    now = next(setup for setup in bench.block()["setups"] if setup["quantity"] == changes["quantity"])
    body = {
        "gauge_id": now["gauge"]["gauge_id"], "land": now["land"], "datum": now["datum"],
        "hold_down": now["hold_down"], "hold_down_torque": str(now["hold_down_torque_nm"] or ""),
        "person_id": bench.person_id, **changes,
    }  # fmt: skip
    return bench.client.post(f"/api/jobs/{bench.job_id}/setups", json=body)


def test_zeroed_on_the_low_limit_a_reading_is_a_deviation_from_it(bench: Bench) -> None:
    """T18: half a thou big against the low limit of 50 µm stands 62.7 µm proud; the reference is kept beside it."""
    assert _zeroed(bench, quantity="protrusion", zeroed_on="low limit").status_code == 201
    setup = next(one for one in bench.block()["setups"] if one["quantity"] == "protrusion")
    assert (setup["zeroed_on"], setup["zero_typed"], setup["zero_m"]) == ("low limit", "0.050 mm", 50e-6)
    for hour in (12, 3, 6, 9):
        assert bench.take("half a thou", hole=1, hour=hour).status_code == 201
    hole = bench.hole(1)
    assert hole["mean_m"] == pytest.approx(62.7e-6)
    assert {mark["state"] for mark in hole["marks"]} == {"in"}
    # What its parts give stays as it was: the 25 µm between them are not hidden by the new zero.
    assert hole["reason"] == "parts and reading disagree"
    rows = csv.DictReader(io.StringIO(bench.client.get(f"/api/jobs/{bench.job_id}/readings.csv").text))
    last = list(rows)[-1]
    assert (last["value_um"], last["zeroed_on"], last["zero_um"]) == ("12.7", "low limit", "50")
    proof = bench.client.get(f"/api/jobs/{bench.job_id}/proof.html").text
    assert "gauge zeroed on the low limit of 0.050 mm" in proof


def test_zeroed_on_the_part_itself_nothing_is_judged(bench: Bench) -> None:
    assert _zeroed(bench, quantity="protrusion", zeroed_on="part itself").status_code == 201
    for hour in (12, 3, 6, 9):
        assert bench.take("85 µm", hole=1, hour=hour).status_code == 201
    hole = bench.hole(1)
    assert hole["state"] == "not measured"
    assert "differences only" in hole["reason"]


@pytest.mark.parametrize(
    ("zero", "words"),
    [
        ({"zeroed_on": "setting master"}, "Type the size"),
        ({"zeroed_on": "nominal"}, "Type the size"),
        ({"zeroed_on": "low limit", "zero": "0.06 mm"}, "card's low limit is 50 µm (2.0 thou)"),
        ({"zeroed_on": "datum", "zero": "1"}, "leave this empty"),
        ({"zeroed_on": "setting master", "zero": "a bit"}, "not a measure"),
        ({"zeroed_on": "setting master", "zero": "9" * 12}, "check number and unit"),
    ],
)
def test_a_zero_that_is_not_known_is_refused_at_its_field(bench: Bench, zero: dict[str, Any], words: str) -> None:
    refused = _zeroed(bench, quantity="protrusion", **zero)
    assert refused.status_code == 422
    assert field_of(refused) == "zero"
    assert words in refused.json()["message"]


def test_a_comparator_on_a_setting_rod_gives_the_flange_its_thickness(bench: Bench) -> None:
    on_rod = {"quantity": "flange thickness", "zeroed_on": "setting master", "zero": "8.9", "bare_unit": "mm"}
    assert _zeroed(bench, **on_rod).status_code == 201
    assert bench.take("+2 µm", quantity="flange thickness", liner_mark="L7", bare_unit="mm").status_code == 201
    liner = next(one for one in bench.block()["liners"] if one["liner"]["mark"] == "L7")
    assert liner["flange"][0]["thickness_m"] == pytest.approx(8.902e-3)


def test_a_reading_beyond_the_gauge_is_asked_about(bench: Bench) -> None:
    gauge = next(one for one in bench.client.get("/api/gauges").json() if one["name"] == "Bench micrometer")
    small = {"name": gauge["name"], "kind": gauge["kind"], "resolution": "1", "repeatability": "1", "range_from": "0",
             "range_to": "8", "based_on_version": gauge["version"]}  # fmt: skip
    assert bench.client.post(f"/api/gauges/{gauge['gauge_id']}/versions", json=small).status_code == 201
    where = {"quantity": "flange thickness", "liner_mark": "L7", "bare_unit": "mm"}
    asked = bench.take("8.901", **where)
    assert asked.status_code == 409
    assert "reads from 0.000 mm (0.0000 in) to 8.000 mm" in asked.json()["message"]
    assert bench.take("8.901", **where, confirmed=True).status_code == 201


def test_an_overdue_gauge_and_one_of_another_shop_are_spoken_against(bench: Bench) -> None:
    dial = next(one for one in bench.client.get("/api/gauges").json() if one["name"] == "Old depth dial")
    assert _zeroed(bench, quantity="protrusion", gauge_id=dial["gauge_id"]).status_code == 201
    cautions = next(one for one in bench.block()["setups"] if one["quantity"] == "protrusion")["cautions"]
    assert any("was due for calibration on 2021-05-02" in one for one in cautions)
    assert any("known fault" in one for one in cautions)
    assert any("travelling master" in one for one in cautions)
