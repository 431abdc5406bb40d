"""Plate and caps over HTTP: begun, turned bolt by bolt, matched to the build, taken off; fixtures of the shop."""

from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient
from httpx2 import Response

from tests.api.bench import Bench, field_of, job_called


@pytest.fixture
def marram(client: TestClient) -> Bench:
    return Bench(client, job_called(client, "Hill Tractor Marram"), Bench.at_demo(client).person_id)


def _now(bench: Bench) -> dict[str, Any]:
    answer = bench.client.get(f"/api/jobs/{bench.job_id}/clamping")
    assert answer.status_code == 200, answer.text
    found: dict[str, Any] = answer.json()
    return found


def _begin(bench: Bench, **typed: Any) -> Response:
    body = {"tightening_id": str(uuid4()), "clamp": "torque plate", "bolts": 4, "stages": "30 70 lbf·ft",
            "gasket": "copper and composition, new", "fasteners": "head studs of the engine",
            "person_id": bench.person_id, **typed}  # fmt: skip
    return bench.client.post(f"/api/jobs/{bench.job_id}/clamping", json=body)


def _turn(bench: Bench, bolt: int, kind: str = "turned", **typed: Any) -> Response:
    one = _now(bench)["tightenings"][-1]["tightening_id"]
    body = {"bolt_mark_id": str(uuid4()), "bolt": bolt, "kind": kind, "person_id": bench.person_id, **typed}
    return bench.client.post(f"/api/jobs/{bench.job_id}/clamping/{one}/bolts", json=body)


def _off(bench: Bench) -> Response:
    one = _now(bench)["tightenings"][-1]["tightening_id"]
    body = {"bolt_mark_id": str(uuid4()), "person_id": bench.person_id}
    return bench.client.post(f"/api/jobs/{bench.job_id}/clamping/{one}/off", json=body)


def test_the_demo_plate_was_as_in_the_build_and_one_stud_moved_on(marram: Bench) -> None:
    now = _now(marram)
    (one,) = now["tightenings"]
    assert (one["state"], one["turn"], one["differs"]) == ("taken off", 5, [])
    assert [mark["bolt"] for mark in one["marks"] if mark["kind"] == "moved on"] == [7]
    assert one["order"][:4] == [5, 6, 4, 3]
    assert now["quantity"] == "block bore"
    holes = marram.client.get(f"/api/jobs/{marram.job_id}/clamping/holes").json()
    assert [one["clamped"] is not None for one in holes] == [True] * 4
    assert [one["free"] is not None for one in holes] == [False, False, True, False]


def test_bolt_by_bolt_in_pounds_until_it_is_tight(marram: Bench) -> None:
    """1 lbf·ft is 1.35582 N·m (NIST SP 811, appendix B): 30 and 70 are 40.67 and 94.91."""
    begun = _begin(marram)
    assert begun.status_code == 201, begun.text
    one = begun.json()["tightenings"][-1]
    assert one["stages_nm"] == [pytest.approx(40.67, abs=0.01), pytest.approx(94.91, abs=0.01)]
    assert (one["from_hole"], one["to_hole"], one["differs"]) == (1, 4, [])
    for kind in ("turned", "turned", "held"):
        for bolt in one["order"]:
            made = _turn(marram, bolt, kind)
            assert made.status_code == 201, made.text
    one = _now(marram)["tightenings"][-1]
    assert (one["state"], one["bolt"]) == ("on", None)
    refused = _turn(marram, 1, "held")
    assert (refused.status_code, refused.json()["code"]) == (409, "stale")
    assert (_begin(marram).status_code, field_of(_begin(marram))) == (409, "clamp")
    proof = marram.client.get(f"/api/jobs/{marram.job_id}/proof.html?unit=thou").text
    assert "Plate and caps, bolt by bolt" in proof
    assert _off(marram).json()["tightenings"][-1]["state"] == "taken off"
    assert "taken off" in marram.undo()
    assert _now(marram)["tightenings"][-1]["state"] == "on"


def test_a_torque_read_on_a_dial_is_kept_and_told(marram: Bench) -> None:
    _begin(marram, stages="95")
    for bolt, torque in ((1, "95"), (2, "80 N·m"), (3, ""), (4, "70 lbf·ft")):
        assert _turn(marram, bolt, torque=torque).status_code == 201
    one = _now(marram)["tightenings"][-1]
    assert [mark["torque_nm"] for mark in one["marks"]] == [95, 80, 95, pytest.approx(94.9, abs=0.02)]
    assert one["otherwise"] == [2]
    assert one["differs"] == ["bolt 2 stands at another torque than 95 N·m"]


@pytest.mark.parametrize(
    ("typed", "field"),
    [
        ({"bolts": 1}, "bolts"),
        ({"stages": "eighty"}, "stages"),
        ({"stages": "80 40"}, "stages"),
        ({"stages": "0 40"}, "stages"),
        ({"clamp": "main caps", "stages": ""}, "stages"),
        ({"order": "1 2 3"}, "order"),
        ({"order": "1 2 x 4"}, "order"),
        ({"from_hole": 5}, "from_hole"),
        ({"from_hole": 3, "to_hole": 2}, "to_hole"),
    ],
)
def test_what_is_no_plate_is_refused_at_its_field(marram: Bench, typed: dict[str, Any], field: str) -> None:
    answer = _begin(marram, **typed)
    assert (answer.status_code, field_of(answer)) == (422, field)


def test_left_empty_the_rounds_are_thirds_and_one_hole_is_turned_crosswise(marram: Bench) -> None:
    one = _begin(marram, stages="", bolts=4, from_hole=2, to_hole=2).json()["tightenings"][-1]
    assert one["stages_nm"] == [31.7, 63.3, 95.0]
    assert one["order"] == [1, 3, 2, 4]


@pytest.mark.parametrize(
    ("bolt", "kind", "torque", "field"),
    [
        (9, "turned", "", "bolt"),
        (1, "held", "", "kind"),
        (1, "taken off", "", "kind"),
        (1, "turned", "tight", "torque"),
    ],
)
def test_what_no_bolt_does_is_refused(marram: Bench, bolt: int, kind: str, torque: str, field: str) -> None:
    _begin(marram)
    answer = _turn(marram, bolt, kind, torque=torque)
    assert (answer.status_code, field_of(answer)) == (422, field)


def test_sent_again_nothing_is_doubled_and_it_goes_out_with_the_job(marram: Bench) -> None:
    body = {"tightening_id": str(uuid4())}
    for _ in range(2):
        assert _begin(marram, **body).status_code == 201
    mark = {"bolt_mark_id": str(uuid4())}
    for _ in range(2):
        assert _turn(marram, 1, **mark).status_code == 201
    facts = marram.client.get(f"/api/jobs/{marram.job_id}/job.json").json()["facts"]
    assert [one["tightening_id"] for one in facts["tightenings"]].count(body["tightening_id"]) == 1
    assert len([one for one in facts["bolt_marks"] if one["tightening_id"] == body["tightening_id"]]) == 1


def test_no_hone_under_a_plate_that_came_off(marram: Bench) -> None:
    """The hold point of the plate looks at the bolts on record."""
    route = marram.client.get(f"/api/jobs/{marram.job_id}/route").json()
    (hone,) = [one for one in route["operations"] if one["operation"] == "hone"]
    assert any("plate" in hold["missing"] for hold in hone["holds"])


def test_a_fixture_is_kept_and_takes_the_place_of_its_name(client: TestClient) -> None:
    bench = Bench.at_demo(client)
    body = {
        "name": "Long bar",
        "kind": "bar",
        "fits": "bores from 80 mm",
        "thickness": "",
        "person_id": bench.person_id,
    }
    answer = client.post("/api/fixtures", json=body)
    assert answer.status_code == 201, answer.text
    (bar,) = [one for one in answer.json() if one["name"] == "Long bar"]
    assert bar["fits"] == "bores from 80 mm"
    for typed, field in (({"name": ""}, "name"), ({"fits": " "}, "fits"), ({"thickness": "thick"}, "thickness")):
        refused = client.post("/api/fixtures", json={**body, **typed})
        assert (refused.status_code, field_of(refused)) == (422, field)
