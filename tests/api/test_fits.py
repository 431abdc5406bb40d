"""Fits, pulls and what holds hot, over the API: a twin from its readings to a liner that is home and confirmed."""

from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient

from tests.api.bench import Bench, field_of, job_called


@pytest.fixture
def twin(client: TestClient) -> Bench:
    """Wren at the narrow-boat whose hole 1 is ready and whose hole 2 is fitted."""
    return Bench(client, job_called(client, "Narrow-boat Brindle"), Bench.at_demo(client).person_id)


def _get(bench: Bench, path: str, **query: object) -> Any:
    answer = bench.client.get(f"/api/jobs/{bench.job_id}/{path}", params=query)  # type: ignore[arg-type]
    assert answer.status_code == 200, answer.text
    return answer.json()


def test_a_fit_is_told_level_by_level_with_schools_beside(twin: Bench) -> None:
    fit = _get(twin, "fits/1")
    assert (fit["liner"], fit["is_home"], len(fit["levels"])) == ("B1", False, 5)
    assert {one["name"] for one in fit["schools"]} == {"as it is", "light", "firm"}
    for level in fit["levels"]:
        assert level["press"]["value_m"] == pytest.approx(level["liner_m"] - level["bore_m"])
        assert len(level["places"]) == 4
    assert fit["tried"]["held"] == "oiled"
    assert fit["walls"]["source"] == "handbook figures, from memory"
    assert {step["result"]["symbol"] for step in fit["why"]} >= {"δ", "close-in"}
    firm = _get(twin, "fits/1", school="firm")
    assert firm["wanted"]["school"] == "firm"
    assert "too loose" in firm["need"]["text"]


def test_what_if_changes_the_answer_and_records_nothing(twin: Bench) -> None:
    before = twin.block()["event"]
    as_taken, slippery = _get(twin, "fits/1"), _get(twin, "fits/1", oiled=0.04, push_n=400)
    by_hand = [one["schools"][0]["going_in"]["by_hand_m"]["middle"] for one in (as_taken, slippery)]
    assert by_hand[1] > by_hand[0]
    tight = _get(twin, "fits/1", aim_m=5e-6)
    light = next(one for one in tight["schools"] if one["name"] == "light")
    assert light["aim_m"] == 5e-6
    assert light["takes_off_m"] > 0
    assert twin.block()["event"] == before


def test_the_lens_shows_the_level_that_decides_of_every_hole(twin: Bench) -> None:
    fits = _get(twin, "fits")["fits"]
    assert [(one["hole"], one["liner"], one["is_home"]) for one in fits] == [(1, "B1", False), (2, "B2", True)]
    assert all(one["level"] and len(one["places"]) == 4 for one in fits)


@pytest.mark.parametrize(
    ("name", "path", "status", "words"),
    [
        ("Narrow-boat Brindle", "fits/9", 422, "no hole 9"),
        ("Narrow-boat Brindle", "fits/1?liner=Z9", 422, "No liner of this job is marked Z9"),
        ("Narrow-boat Brindle", "fits/1?friction=nonsense&oiled=7", 422, ""),
        ("Hill Tractor Marram", "fits", 422, "has no liners"),
    ],
)
def test_what_is_no_fit_is_refused_with_a_reason(
    client: TestClient, name: str, path: str, status: int, words: str
) -> None:
    answer = client.get(f"/api/jobs/{job_called(client, name)}/{path}")
    assert answer.status_code == status
    assert words in answer.text


def test_a_press_that_nobody_measured_is_refused_in_words(client: TestClient) -> None:
    fit = client.get(f"/api/jobs/{job_called(client, 'Ferry Lanthorn')}/fits/1").json()
    assert fit["levels"] == []
    assert "never guessed" in fit["refused"]["text"]
    assert fit["refused_quantity"] == "block bore"


def _begin(bench: Bench, **fields: object) -> Any:
    body = {"pull_id": str(uuid4()), "liner_mark": "B1", "tool": "Screw puller", "cranks": "Wren", "watches": "Tobiah",
            "hold_reason": "told by the foreman", "person_id": bench.person_id, **fields}  # fmt: skip
    return bench.client.post(f"/api/jobs/{bench.job_id}/pulls/1", json=body)


def _note(bench: Bench, pull_id: str, kind: str, **fields: object) -> Any:
    body = {"pull_mark_id": str(uuid4()), "kind": kind, "person_id": bench.person_id, **fields}
    return bench.client.post(f"/api/jobs/{bench.job_id}/pulls/1/{pull_id}/marks", json=body)


def _begun(bench: Bench) -> str:
    answer = _begin(bench)
    assert answer.status_code == 201, answer.text
    pull = answer.json()["pull"]
    for check in pull["checks"]:
        assert _note(bench, pull["pull_id"], check["kind"]).status_code == 201
    return str(pull["pull_id"])


def test_a_liner_is_pulled_home_and_is_a_fitting_to_be_confirmed(twin: Bench) -> None:
    pull_id = _begun(twin)
    for _ in range(3):
        turned = _note(twin, pull_id, "one turn").json()["pull"]
    assert turned["to_go_m"] == pytest.approx(0.2413 - 3 * 0.002)
    read = _note(twin, pull_id, "flange to ledge", depth="60", force_kn="1,4").json()["pull"]
    assert (read["to_go_m"], read["marks"][-1]["force_n"]) == (pytest.approx(0.06), pytest.approx(1400))
    assert read["expected"]["low_n"] < read["expected"]["middle_n"] < read["expected"]["high_n"]
    assert (read["call"], read["call_at_m"]) == ("fifty", pytest.approx(0.05))
    home = f"/api/jobs/{twin.job_id}/pulls/1/{pull_id}/home"
    early = twin.client.post(home, json={"person_id": twin.person_id})
    assert (early.status_code, "touches" in early.text) == (422, True)
    assert _note(twin, pull_id, "touches", depth="0.4").json()["pull"]["state"].startswith("touched")
    refused = _note(twin, pull_id, "one turn")
    assert (refused.status_code, "Never press" in refused.text) == (409, True)
    assert twin.client.post(home, json={"person_id": twin.person_id}).status_code == 201
    after = _get(twin, "fits/1")
    assert (after["is_home"], after["after"]["confirmed"]) == (True, False)
    page = _get(twin, "pulls/1")
    assert page["pull"]["state"] == "home"
    assert "true seat" in {one["says"] for one in page["pull"]["curve"]}
    assert twin.client.post(home, json={"person_id": twin.person_id}).status_code == 201, (
        "sent again it changes nothing"
    )
    assert "B1" in str(twin.hole(1)["parts"])


def test_a_pull_that_stops_half_way_waits_for_words_and_goes_on(twin: Bench) -> None:
    pull_id = _begun(twin)
    assert field_of(_note(twin, pull_id, "stopped half-way")) == "words"
    stuck = _note(twin, pull_id, "stopped half-way", words="gap wider at 3 h").json()
    assert stuck["pull"]["state"] == "stopped half-way"
    assert len(stuck["stuck"]) == 3
    assert _note(twin, pull_id, "one turn").status_code == 409
    assert _note(twin, pull_id, "goes on", words="squared").json()["pull"]["state"] == "pulling"
    drawn = _note(twin, pull_id, "drawn out again", words="to look at it").json()
    assert drawn["pull"] is None
    assert _begin(twin).status_code == 201, "another can begin"


def test_a_tap_that_names_a_turn_that_is_counted_is_refused(twin: Bench) -> None:
    """The answer was lost on the way, and the handle was not turned again."""
    pull_id = _begun(twin)
    assert _note(twin, pull_id, "one turn", turn=1).json()["pull"]["turns"] == 1
    again = _note(twin, pull_id, "one turn", turn=1)
    assert (again.status_code, "turn 2 is the next one" in again.text) == (409, True)
    assert _note(twin, pull_id, "one turn", turn=2).json()["pull"]["turns"] == 2


def test_a_mark_is_undone_by_name_and_never_doubled(twin: Bench) -> None:
    pull_id = _begun(twin)
    mark = {"pull_mark_id": str(uuid4()), "kind": "one turn", "person_id": twin.person_id}
    url = f"/api/jobs/{twin.job_id}/pulls/1/{pull_id}"
    turns = [twin.client.post(f"{url}/marks", json=mark).json()["pull"]["turns"] for _ in range(2)]
    assert turns == [1, 1]
    undo = {"pull_mark_id": mark["pull_mark_id"], "person_id": twin.person_id}
    assert twin.client.post(f"{url}/undo", json=undo).json()["pull"]["turns"] == 0
    assert twin.client.post(f"{url}/undo", json=undo).status_code == 409


@pytest.mark.parametrize(
    ("fields", "status", "field"),
    [
        ({"liner_mark": "B2"}, 422, "liner_mark"),
        ({"liner_mark": "nobody"}, 422, "liner_mark"),
        ({"tool": "bare hands"}, 422, "tool"),
        ({"from_depth": "a lot"}, 422, "from_depth"),
        ({"from_depth": "0"}, 422, "from_depth"),
        ({"from_depth": "-5"}, 422, "from_depth"),
    ],
)
def test_a_pull_that_cannot_begin_says_why_at_its_field(
    twin: Bench, fields: dict[str, str], status: int, field: str
) -> None:
    answer = _begin(twin, **fields)
    assert (answer.status_code, field_of(answer)) == (status, field)


def test_marks_that_cannot_be_are_refused_at_their_field(twin: Bench) -> None:
    pull_id = str(_begin(twin).json()["pull"]["pull_id"])
    first = _note(twin, pull_id, "one turn")
    assert (first.status_code, "Look first" in first.text) == (422, True)
    for check in _get(twin, "pulls/1")["pull"]["checks"]:
        _note(twin, pull_id, check["kind"])
    assert field_of(_note(twin, pull_id, "flange to ledge")) == "depth"
    assert field_of(_note(twin, pull_id, "flange to ledge", depth="100", force_kn="lots")) == "force_kn"
    assert _note(twin, pull_id, "flange to ledge", depth="100").status_code == 201
    assert field_of(_note(twin, pull_id, "flange to ledge", depth="-3", confirmed=True)) == "depth"
    back = _note(twin, pull_id, "flange to ledge", depth="140")
    assert (back.status_code, "farther out" in back.text) == (409, True)
    assert _note(twin, pull_id, "flange to ledge", depth="140", confirmed=True).status_code == 201
    assert field_of(_note(twin, pull_id, "held under load")) == "kind"
    assert field_of(_note(twin, pull_id, "home")) == "kind"
    assert _begin(twin).status_code == 409, "one pull at a time"


def test_the_one_that_popped_is_on_record_with_what_it_says(twin: Bench) -> None:
    pull = _get(twin, "pulls/2")["pull"]
    assert pull["state"] == "home"
    assert any("popped" in one["words"]["text"] for one in pull["curve"])
    after = _get(twin, "fits/2")["after"]
    assert after["confirmed"]
    assert after["inside_was_read"]
    assert after["by_force"]["low"] < after["by_force"]["high"]
    below = next(one for one in after["levels"] if one["name"] == "below the rings")
    assert not below["agrees"], "metal went there as it popped"


def test_the_proof_prints_press_pull_feel_and_what_the_bore_says(twin: Bench) -> None:
    sheet = twin.client.get(f"/api/jobs/{twin.job_id}/proof.html?unit=thou").text
    row = next(one for one in sheet.split("<tr>") if "<td>B2</td>" in one and "Screw puller" in one)
    assert "Wren and Tobiah" in row
    assert "pops (three bangs, the handle jumped)" in row
    assert "does not agree" in row
    pull_id = _begun(twin)
    _note(twin, pull_id, "touches", depth="0.4")
    home = f"/api/jobs/{twin.job_id}/pulls/1/{pull_id}/home"
    assert twin.client.post(home, json={"person_id": twin.person_id}).status_code == 201
    sheet = twin.client.get(f"/api/jobs/{twin.job_id}/proof.html?unit=thou").text
    assert "not read since: open" in next(one for one in sheet.split("<tr>") if "<td>B1</td>" in one)


def test_what_holds_it_hot_follows_the_card_and_what_is_tried(client: TestClient) -> None:
    bench = Bench(client, job_called(client, "Pump No. 4"), Bench.at_demo(client).person_id)
    hot = _get(bench, "hot-fits/2")
    assert [one["name"] for one in hot["moments"]] == ["cold, as fitted", "warming, 3 min", "full load", "just stopped"]
    assert hot["gone_alike_c"]["value_m"] < hot["gone_hotter_c"]["value_m"]
    assert hot["moments"][0]["grip"] == "in"
    assert hot["moments"][-1]["height"]["value_m"] < 0
    tried = _get(bench, "hot-fits/2", block_c=150, liner_c=60)
    assert tried["moments"][-1]["name"] == "as tried"
    assert tried["moments"][-1]["grip"] == "out"
    bare = client.get(f"/api/jobs/{job_called(client, 'Ferry Lanthorn')}/hot-fits/1").json()
    assert "never guessed" in bare["missing"]["text"]


def test_pullers_of_the_shop_are_written_down_and_changed(twin: Bench) -> None:
    tools = twin.client.get("/api/press-tools").json()
    assert [one["name"] for one in tools] == ["Arbor press", "Screw puller"]
    body = {
        "name": "Screw puller",
        "kind": "screw puller",
        "capacity_kn": 20,
        "turn": "1.5",
        "person_id": twin.person_id,
    }
    saved = twin.client.post("/api/press-tools", json=body).json()
    assert next(one for one in saved if one["name"] == "Screw puller")["capacity_n"] == 20_000
    assert field_of(twin.client.post("/api/press-tools", json={**body, "turn": "never"})) == "turn"
    assert field_of(twin.client.post("/api/press-tools", json={**body, "name": " "})) == "name"


RINGS = {
    "liner_id_m": 0.086,
    "liner_od_m": 0.095,
    "boss_od_m": 0.108,
    "liner": {"E": 1.1e11, "nu": 0.26, "alpha": 1.05e-5},
    "block": {"E": 7.1e10, "nu": 0.33, "alpha": 2.15e-5},
}


def test_presses_alone_are_those_of_two_independent_sums(client: TestClient) -> None:
    """38 µm of iron in aluminium, worked beforehand by closed form and SciPy's solve_bvp."""
    press = client.post("/api/compute/press-fit", json={**RINGS, "interference_diametral_m": 38e-6, "friction": 0.12,
                                                         "engaged_length_m": 0.13}).json()  # fmt: skip
    assert press["contact_pressure_pa"] == pytest.approx(1_957_494, rel=1e-6)
    assert press["bore_close_in_diametral_m"] == pytest.approx(16.9575e-6, rel=1e-5)
    assert press["press_force_n"] == pytest.approx(9113.78, rel=1e-6)
    assert press["von_mises_boss_bore_pa"] == pytest.approx(16_412_721, rel=1e-6)
    warm = {"interference_diametral_at_T0_m": 38e-6, "liner_temperature_c": 140, "block_temperature_c": 105}
    hot = client.post("/api/compute/hot-fit", json={**RINGS, **warm}).json()
    assert hot["interference_at_T_m"] == pytest.approx(-15.843055e-6, rel=1e-9)
    assert hot["temperature_interference_vanishes_both_c"] == pytest.approx(56.392, abs=1e-3)
    assert hot["loose"]
    even = {**RINGS, "depths_m": [0.01, 0.12], "liner_outside_m": [0.095, 0.095], "block_bore_m": [0.094962, 0.094962],
            "length_m": 0.13, "push_n": press["press_force_n"] / 2}  # fmt: skip
    going = client.post("/api/compute/insertion", json=even).json()
    assert going["greatest_force_n"] == pytest.approx(press["press_force_n"], rel=1e-9)
    assert going["by_hand_share"] == pytest.approx(0.5)
    for wrong in ({"depths_m": [0.01]}, {"depths_m": [0.12, 0.01]}, {"lead_in_m": 0.2}, {"boss_od_m": 0.09}):
        assert client.post("/api/compute/insertion", json={**even, **wrong}).status_code == 422


def _home(twin: Bench) -> str:
    pull_id = _begun(twin)
    for check in _get(twin, "pulls/1")["pull"]["checks"]:
        assert _note(twin, pull_id, check["kind"]).status_code == 201
    assert _note(twin, pull_id, "touches", depth="0.4").status_code == 201
    home = twin.client.post(f"/api/jobs/{twin.job_id}/pulls/1/{pull_id}/home", json={"person_id": twin.person_id})
    assert home.status_code == 201
    return pull_id


def test_once_home_it_is_looked_whether_it_is_seated(twin: Bench) -> None:
    pull_id = _home(twin)
    seat = {one["look"]: one for one in _get(twin, "fits/1")["after"]["seat"]}
    assert seat["feeler under the flange"]["state"] == "not measured"
    assert seat["feeler under the flange"]["marks"] == ["feeler enters nowhere", "feeler enters"]
    assert field_of(_note(twin, pull_id, "feeler enters")) == "words"
    assert _note(twin, pull_id, "feeler enters", words="2.5 thou at 4 h").status_code == 201
    assert _note(twin, pull_id, "marked for its hole").status_code == 201
    assert _note(twin, pull_id, "one turn").status_code == 409
    seat = {one["look"]: one for one in _get(twin, "fits/1")["after"]["seat"]}
    assert (seat["feeler under the flange"]["state"], seat["feeler under the flange"]["words"]) == (
        "out", "2.5 thou at 4 h")  # fmt: skip
    assert seat["marked for its hole"]["by"] == "Wren"
    last = _get(twin, "pulls/1")["pull"]["marks"][-1]["pull_mark_id"]
    undone = twin.client.post(f"/api/jobs/{twin.job_id}/pulls/1/{pull_id}/undo",
                              json={"pull_mark_id": last, "person_id": twin.person_id})  # fmt: skip
    assert undone.status_code == 201
    seat = {one["look"]: one for one in _get(twin, "fits/1")["after"]["seat"]}
    assert seat["marked for its hole"]["state"] == "not measured"


def test_what_is_looked_at_when_home_is_not_noted_before(twin: Bench) -> None:
    pull_id = _begun(twin)
    refused = _note(twin, pull_id, "marked for its hole")
    assert (refused.status_code, "once the liner is home" in refused.text) == (422, True)


def test_undo_takes_home_and_fitting_back_as_one_step(twin: Bench) -> None:
    _home(twin)
    assert _get(twin, "fits/1")["is_home"]
    twin.undo()
    assert not _get(twin, "fits/1")["is_home"]
    assert _get(twin, "pulls/1")["pull"]["state"] == "touched: hold it under load"


def test_both_ways_to_the_press_and_the_bore_to_come_are_shown(twin: Bench) -> None:
    fit = _get(twin, "fits/1")
    assert [one["sizing"] for one in fit["sizings"]["ways"]] == ["size the block", "size the sleeve"]
    assert fit["expected_bore"]["inside_was_read"]
    levels = fit["expected_bore"]["levels"]
    assert len(levels) == len(fit["levels"])
    assert all(one["to_hone"]["value_m"] > 0 for one in levels)


def test_a_liner_that_is_home_has_a_label_and_one_that_is_not_has_none(twin: Bench) -> None:
    label = twin.client.get(f"/api/jobs/{twin.job_id}/holes/2/label.html?unit=thou")
    assert label.status_code == 200
    assert "Hole 2 · B2" in label.text
    assert "belongs to this hole" in label.text
    assert "Pressed +0.8 to +1.2" in label.text
    assert "<svg" in label.text
    early = twin.client.get(f"/api/jobs/{twin.job_id}/holes/1/label.html")
    assert (early.status_code, "once it is home" in early.text) == (409, True)
