"""The route over HTTP: marks, holds, clocks, waits, schools, findings, waivers, and what the block says of them."""

from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient

from tests.api.bench import READY, Bench


@pytest.fixture
def bench(client: TestClient) -> Bench:
    return Bench.at_demo(client)


@pytest.fixture
def pump(client: TestClient) -> Bench:
    """The job that stands in the middle of its route."""
    known = Bench.at_demo(client)
    job = next(one["job"]["job_id"] for one in client.get("/api/jobs").json() if "Pump" in one["job"]["name"])
    return Bench(client, job, known.person_id)


def _post(bench: Bench, path: str, **body: Any) -> Any:
    return bench.client.post(f"/api/jobs/{bench.job_id}/{path}", json={"person_id": bench.person_id, **body})


def _route(bench: Bench) -> dict[str, Any]:
    answer = bench.client.get(f"/api/jobs/{bench.job_id}/route")
    assert answer.status_code == 200, answer.text
    route: dict[str, Any] = answer.json()
    return route


def _operation(bench: Bench, name: str) -> dict[str, Any]:
    found: dict[str, Any] = next(one for one in _route(bench)["operations"] if one["operation"] == name)
    return found


def _refused(answer: Any, status: int, words: str) -> None:
    assert answer.status_code == status, answer.text
    assert words in answer.json()["message"]


def test_the_rule_over_the_block_is_the_short_form_of_the_route(bench: Bench) -> None:
    route, legs = _route(bench), bench.block()["route"]
    assert [leg["operation"] for leg in legs] == [one["operation"] for one in route["operations"]]
    assert [leg["is_done"] for leg in legs] == [one["is_done"] for one in route["operations"]]
    assert next(leg["operation"] for leg in legs if leg["is_next"]) == route["next"] == "cut"
    strip = next(one for one in bench.client.get("/api/jobs").json() if one["job"]["job_id"] == bench.job_id)
    assert strip["route"] == legs


def test_what_facts_show_is_not_marked_by_hand_and_what_is_counted_is_counted(bench: Bench) -> None:
    _refused(_post(bench, "route/marks", operation="cut", hole=5), 422, "not by a mark")
    _refused(_post(bench, "route/marks", operation="wash", hold_reason="x"), 422, "Count the plugs out")
    _refused(_post(bench, "route/marks", operation="bore", hole=1), 422, "The route of this job has no")
    _refused(_post(bench, "route/marks", operation="release", hole=2, hold_reason="x"), 422, "leave the hole out")
    _refused(_post(bench, "route/marks", operation="pistons", hold_reason="x"), 422, "name one of")
    _refused(_post(bench, "route/marks", operation="strip", kind="to be done again"), 422, "Say why")
    assert _post(bench, "route/marks", operation="plug", count=-1).status_code == 422
    assert _post(bench, "route/marks", operation="scraping").status_code == 422


def test_a_hold_point_is_refused_with_what_is_missing_and_passed_by_name(bench: Bench) -> None:
    hole = bench.hole(1)["hole_id"]
    body = {"fitting_id": str(uuid4()), "liner_mark": "L1", "person_id": bench.person_id}
    held = bench.client.post(f"/api/holes/{hole}/fittings", json={**body, "ready": READY[:2]})
    assert (held.status_code, held.json()["code"]) == (409, "hold point")
    assert held.json()["problems"][0]["field"] == "hold_reason"
    assert bench.hole(1)["state"] == "in"
    passed = bench.client.post(f"/api/holes/{hole}/fittings", json={**body, "hold_reason": "the tide"})
    assert passed.status_code == 201, passed.text
    told = next(one for one in _route(bench)["holds"] if one["hold"] == "ready to fit" and one["hole"] == 1)
    assert (told["state"], told["reason"]) == ("passed", "the tide")
    proof = bench.client.get(f"/api/jobs/{bench.job_id}/proof.html").text
    assert "the tide" in proof
    assert "Not proved" in proof
    # All of it ticked is the log of the operation itself.
    again = {**body, "fitting_id": str(uuid4()), "ready": READY}
    assert bench.client.post(f"/api/holes/{hole}/fittings", json=again).status_code == 201


def test_a_mark_written_down_late_stands_at_its_own_time(bench: Bench) -> None:
    assert _post(bench, "route/schools", question="liner height", side="left proud, decked after",
                 reason="as the book has it").status_code == 200  # fmt: skip
    late = _post(bench, "route/marks", operation="deck", ago_s=3600 * 24 * 30, hold_reason="decked last month")
    assert late.status_code == 201, late.text
    assert _route(bench)["reopened"] == []
    assert _post(bench, "route/marks", operation="deck", hold_reason="and once more").status_code == 201
    parts = [one["part"] for one in _route(bench)["reopened"]]
    assert sorted(parts) == ["deck", *(f"hole-{number}" for number in range(1, 7))]
    hole = bench.hole(1)
    assert hole["state"] == "read again"
    assert all(mark["past"] and mark["state"] == "read again" for mark in hole["marks"])
    assert (hole["mean_m"], hole["rules"]) == (None, [])
    # A reading opens a new set; the old one stays on record.
    assert bench.take("8.5", hole=1, hour=12).status_code == 201
    assert len(bench.hole(1)["marks"]) == 1
    assert bench.undo()
    assert bench.hole(1)["state"] == "read again"


def test_clock_and_waits_are_two(pump: Bench) -> None:
    before = _route(pump)["clocks"]
    assert before["running"][0]["by"] == "Tobiah"
    _refused(_post(pump, "route/clock", operation="heat", running=False), 422, "No clock of")
    assert _post(pump, "route/clock", operation="heat", running=True, ago_s=3600).status_code == 201
    after = _route(pump)["clocks"]
    assert after["worked_h"] - before["worked_h"] == pytest.approx(1, abs=0.02)
    waited = [one["wait_id"] for one in _route(pump)["waits"] if one["ended"] is None]
    for wait in waited:
        assert _post(pump, f"route/waits/{wait}/end", words="here").status_code == 201
    assert not _route(pump)["clocks"]["is_waiting"]
    _refused(_post(pump, f"route/waits/{waited[0]}/end"), 409, "come to its end already")
    _refused(_post(pump, f"route/waits/{uuid4()}/end"), 422, "no such wait")
    wait = {"operation": "heat", "cause": "tool", "words": "dry ice"}
    _refused(_post(pump, "route/waits", **wait, since="2999-01-01"), 422, "still to come")
    _refused(_post(pump, "route/waits", **wait, expected="2001-01-01"), 422, "check both days")


def test_a_school_is_previewed_chosen_with_a_reason_and_kept_by_jobs_taken_in(bench: Bench) -> None:
    preview = _post(bench, "route/schools", question="getting in", side="heat and cold", only_preview=True).json()
    assert preview["added"] == ["Bring to temperature", "Down to room temperature, held"]
    assert any("temperatures" in line or "asks" in line for line in preview["holds"]) or preview["holds"] == []
    _refused(_post(bench, "route/schools", question="getting in", side="heat and cold"), 422, "Say why")
    _refused(_post(bench, "route/schools", question="getting in", side="hammer", reason="x"), 422, "Choose one of")
    _refused(_post(bench, "route/schools", question="sleeves", side="finished sleeves", reason="x"), 422, "not arise")
    _refused(_post(bench, "route/schools", question="getting in", side="press cold", reason="x"), 422, "already")
    chosen = bench.client.post("/api/schools", json={"question": "getting in", "side": "heat and cold",
                                                     "person_id": bench.person_id})  # fmt: skip
    assert chosen.status_code == 201
    assert "heat" not in [one["operation"] for one in _route(bench)["operations"]]
    card = bench.block()["card"]["version"]["spec_card_id"]
    new = bench.client.post("/api/jobs", json={"number": "26-200", "name": "Later", "spec_card_id": card,
                                               "person_id": bench.person_id}).json()  # fmt: skip
    later = Bench(bench.client, new["job_id"], bench.person_id)
    assert "heat" in [one["operation"] for one in _route(later)["operations"]]
    school = next(one for one in _route(later)["schools"] if one["question"] == "getting in")
    assert school["because"] == "as the shop does"


def test_a_second_person_is_somebody_else(pump: Bench) -> None:
    looked = _post(pump, "route/marks", operation="hone-block", hole=4, kind="looked over")
    assert looked.status_code == 201
    _refused(_post(pump, "route/marks", operation="hone-block", hole=4), 409, "another person looks")
    people = pump.client.get("/api/people").json()
    other = next(one["person_id"] for one in people if one["person_id"] != pump.person_id)
    done = pump.client.post(f"/api/jobs/{pump.job_id}/route/marks",
                            json={"operation": "hone-block", "hole": 4, "person_id": other})  # fmt: skip
    assert done.status_code == 201, done.text
    holes = {one["hole"]: one["state"] for one in _operation(pump, "hone-block")["holes"]}
    assert holes == {1: "read again", 2: "in", 3: "in", 4: "read again"}


def test_findings_are_written_once_refused_with_their_field_and_struck_like_anything(bench: Bench) -> None:
    url, key = "strip-record/findings", str(uuid4())
    for _ in range(2):
        body = {"finding_id": key, "kind": "leak-down", "hole": 2, "word": "past the rings", "figure": "33"}
        assert _post(bench, url, **body).status_code == 201
    record = bench.client.get(f"/api/jobs/{bench.job_id}/strip-record").json()
    own = [one for one in record["findings"] if one["finding_id"] == key]
    assert [(one["percent"], one["typed"], one["sound"]) for one in own] == [(33.0, "33 %", False)]
    assert "no power" in [one["symptom"] for one in record["suspects"]]

    def refused(words: str, field: str, **body: Any) -> None:
        answer = _post(bench, url, finding_id=str(uuid4()), **body)
        _refused(answer, 422, words)
        assert answer.json()["problems"][0]["field"] == field

    refused("between 0 and 100", "figure", kind="leak-down", hole=2, figure="140")
    refused("There is no hole 9", "hole", kind="condition", hole=9, word="sound")
    refused("Name the hole", "hole", kind="ring", word="weak")
    refused("Say what was found", "word", kind="condition", hole=2)
    assert "found, leak-down" in str(bench.undo())


def test_a_waiver_has_a_reason_and_is_taken_back_by_another(bench: Bench) -> None:
    url = "strip-record/waivers"
    assert _post(bench, url, quantity="protrusion", part="hole-1", reason="a stud").status_code == 201
    _refused(_post(bench, url, quantity="protrusion", part="hole-1", reason="a stud"), 409, "so already")
    _refused(_post(bench, url, quantity="protrusion", part="hole-2"), 422, "Say why")
    _refused(_post(bench, url, quantity="protrusion", part="hole-77", reason="x"), 422, "no hole-77")
    taken = _post(bench, url, quantity="protrusion", part="hole-1", waived=False, reason="the stud is out")
    assert taken.status_code == 201
    assert bench.client.get(f"/api/jobs/{bench.job_id}/strip-record").json()["waivers"] == []


def test_cautions_stand_at_their_operations(bench: Bench) -> None:
    caution = {one["operation"]: " ".join(one["caution"]).casefold() for one in _route(bench)["operations"]}
    for operation, word in (("strip", "asbestos"), ("clean", "asbestos"), ("clean", "compressed air"),
                            ("clean", "solvent"), ("plug", "swarf"), ("cut", "swarf"), ("wash", "solvent"),
                            ("take-in", "lift"), ("fit", "lift")):  # fmt: skip
        assert word in caution[operation], operation
    assert "licensed practice" in caution["clean"]
    assert all(one["risks"] for one in _route(bench)["operations"] if one["operation"] not in ("release",))


def test_a_reading_that_waited_for_the_link_stands_at_the_time_of_its_taking(bench: Bench) -> None:
    _post(bench, "route/schools", question="liner height", side="left proud, decked after", reason="the book")
    assert _post(bench, "route/marks", operation="deck", hold_reason="decked").status_code == 201
    for hour in (12, 3, 6, 9):
        assert bench.take("8.5", hole=1, hour=hour, waited_s=7200).status_code == 201
    # Taken before the deck was cut, and sent after it.
    assert bench.hole(1)["state"] == "read again"
