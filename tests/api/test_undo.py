"""Undo and the tape over the API: what is named is what is taken back, of every kind, and nothing else."""

from uuid import uuid4

import pytest
from fastapi.testclient import TestClient

from tests.api.bench import Bench


@pytest.fixture
def bench(client: TestClient) -> Bench:
    return Bench.at_demo(client)


def _standing(bench: Bench) -> list[str]:
    block = bench.block()
    rows = [f"{r['typed']}@{r['hole']}" for r in block["readings"] if not r["struck"]]
    return rows + [one["words"] for one in block["tape"] if not one["struck"]]


def _post(bench: Bench, path: str, **body: object) -> None:
    answer = bench.client.post(f"/api/jobs/{bench.job_id}/{path}", json={**body, "person_id": bench.person_id})
    assert answer.status_code in (200, 201), answer.text


def test_taking_the_job_in_is_not_undone(bench: Bench) -> None:
    assert bench.undo_step() is None


def test_a_refused_reading_leaves_the_last_step_where_it_was(bench: Bench) -> None:
    """Told by a user: a refused reading, then Undo, struck the flange of another liner and a plan vanished."""
    bench.take("8.991", quantity="flange thickness", liner_mark="L7", bare_unit="mm")
    assert bench.take("a hair", hole=6, hour=1.5).status_code == 422
    step = bench.undo_step()
    assert step is not None
    assert (step["part"], step["hole"]) == ("liner-L7", None)
    assert "flange thickness 8.991 mm" in step["words"]


def test_a_correction_is_one_step_and_brings_the_first_back(bench: Bench) -> None:
    before = _standing(bench)
    bench.take("7.1", hole=6, hour=1.5)
    with_it = _standing(bench)
    bench.take("7.3", hole=6, hour=1.5, read_before="correct")
    assert bench.undo() == "hole 6: 1.5h 7.3 × 0.01 mm, bringing back 1.5h 7.1 × 0.01 mm"
    assert _standing(bench) == with_it
    assert bench.undo() == "hole 6: 1.5h 7.1 × 0.01 mm"
    assert _standing(bench) == before
    assert bench.undo_step() is None


def test_after_a_moved_zero_was_corrected_undo_takes_the_correction_back_and_no_reading(bench: Bench) -> None:
    """Told by a user: after "zero moved, correct", Undo struck good readings and left the correction."""
    bench.take("7.1", hole=6, hour=1.5)
    readings = [row["struck"] for row in bench.block()["readings"]]
    hole = bench.hole(6)
    _post(bench, "zero-checks", quantity="protrusion", text="20 µm", bare_unit="µm")
    (doubt,) = bench.block()["doubts"]
    _post(bench, f"zero-checks/{doubt['zero_check_id']}/settle", how="correct", drift="before all of them")
    assert bench.block()["doubts"] == []
    assert "zero correction" in bench.undo()
    assert [row["struck"] for row in bench.block()["readings"]] == readings
    assert len(bench.block()["doubts"]) == 1
    assert bench.undo().startswith("zero of protrusion looked at: 20 µm")
    assert bench.block()["doubts"] == []
    assert bench.hole(6) == hole


def test_readings_struck_for_a_moved_zero_come_back_all_at_once(bench: Bench) -> None:
    before = _standing(bench)
    _post(bench, "zero-checks", quantity="protrusion", text="20 µm", bare_unit="µm")
    (doubt,) = bench.block()["doubts"]
    _post(bench, f"zero-checks/{doubt['zero_check_id']}/settle", how="strike", drift="somewhere between")
    assert bench.undo() == f"the striking of {doubt['readings']} readings"
    bench.undo()
    assert _standing(bench) == before


def test_a_new_pass_begun_by_mistake_is_closed_with_its_reading(bench: Bench) -> None:
    before = bench.hole(6)
    bench.take("7.3", hole=6, hour=6, new_pass=True)
    assert len(bench.hole(6)["marks"]) == 1
    bench.undo()
    after = bench.hole(6)
    assert (after["set_id"], len(after["marks"])) == (before["set_id"], len(before["marks"]))


def test_a_set_is_closed_and_opened_again_on_the_tape(bench: Bench) -> None:
    before = bench.hole(6)
    bench.take("7.3", hole=6, hour=6, new_pass=True)
    opened = [one for one in bench.block()["tape"] if one["kind"] == "set"][-1]
    assert (opened["hole"], opened["words"]) == (6, "set of protrusion opened")
    bench.client.post(bench.tape_url(opened["event"]), json={"struck": True, "person_id": bench.person_id})
    assert bench.hole(6)["set_id"] == before["set_id"]
    (reading,) = [row for row in bench.block()["readings"] if row["set_id"] not in (before["set_id"],)][-1:]
    assert reading["struck"]
    refused = bench.client.post(bench.tape_url(reading["event"]), json={"struck": False, "person_id": bench.person_id})
    assert refused.status_code == 422
    assert "set was closed" in refused.json()["message"]
    # A reading taken now goes on with the set that is in force again.
    taken = bench.take("5.9", hole=6, hour=1.5)
    assert taken.json()["reading_set_id"] == before["set_id"]
    bench.client.post(bench.tape_url(opened["event"]), json={"struck": False, "person_id": bench.person_id})
    assert len(bench.hole(6)["marks"]) == 1


@pytest.mark.parametrize(
    ("path", "body", "words"),
    [
        ("temperatures", {"body": "part", "text": "24"}, "block at 24 °C (75 °F)"),
        ("zero-checks", {"quantity": "protrusion", "text": "0", "bare_unit": "µm"},
         "zero of protrusion looked at: 0 µm"),
        ("surveys/block%20bore/hole-2/stamps", {"letters": "B"}, "hole 2: letters B"),
        ("surveys/protrusion/hole-6/unreadable", {"place": {"hour": 6}, "unreadable": True, "reason": "a stud"},
         "hole 6: protrusion 6h cannot be read: a stud"),
    ],
)  # fmt: skip
def test_every_kind_of_entry_is_on_the_tape_and_can_be_taken_back(
    bench: Bench, path: str, body: dict[str, object], words: str
) -> None:
    before = _standing(bench)
    extra = {"temperature_id": str(uuid4())} if path == "temperatures" else {}
    _post(bench, path, **body, **extra)
    assert len(_standing(bench)) == len(before) + 1
    assert bench.undo() == words
    assert _standing(bench) == before
    assert bench.undo_step() is None


def test_a_set_up_taken_back_leaves_the_one_before_in_force(bench: Bench) -> None:
    before = next(one for one in bench.block()["setups"] if one["quantity"] == "protrusion")
    _post(bench, "setups", quantity="protrusion", gauge_id=before["gauge"]["gauge_id"], land="lip", hold_down="none")
    assert bench.hole(6)["state"] != bench.undo()
    after = next(one for one in bench.block()["setups"] if one["quantity"] == "protrusion")
    assert (after["land"], after["hold_down"]) == (before["land"], before["hold_down"])


def test_an_operation_marked_and_a_card_chosen_are_taken_back(bench: Bench) -> None:
    block = bench.block()

    def done() -> bool:
        return next(bool(leg["is_done"]) for leg in bench.block()["route"] if leg["operation"] == "decide")

    _post(bench, "route/marks", operation="decide", kind="to be done again", words="the Trust wants two quotes")
    assert not done()
    assert bench.undo() == "Decide and agree: to be done again, the Trust wants two quotes"
    assert done()
    # A step that passed hold points goes back whole.
    _post(bench, "route/marks", operation="release", words="to the skipper", hold_reason="he waits on the quay")
    assert bench.block()["route"][-1]["is_done"]
    assert bench.undo() == "an operation and 2 hold points"
    assert not bench.block()["route"][-1]["is_done"]
    assert "he waits" not in bench.client.get(f"/api/jobs/{bench.job_id}/proof.html").text
    version = block["card"]["version"]
    card = bench.client.get(f"/api/spec-cards/{version['spec_card_id']}").json()
    saved = bench.client.post(
        f"/api/spec-cards/{version['spec_card_id']}/versions",
        json={"card": card["cards"][0], "based_on_version":
              version["version"], "person_id": bench.person_id},
    )  # fmt: skip
    assert saved.status_code == 201, saved.text
    card = bench.client.get(f"/api/spec-cards/{version['spec_card_id']}").json()
    newest = card["versions"][0]["spec_card_version_id"]
    _post(bench, "card", spec_card_version_id=newest)
    assert bench.block()["card"]["version"]["version"] == version["version"] + 1
    assert "version 2" in bench.undo()
    assert bench.block()["card"]["version"]["version"] == version["version"]
    first = next(one for one in bench.block()["tape"] if one["kind"] == "card")
    refused = bench.client.post(bench.tape_url(first["event"]), json={"struck": True, "person_id": bench.person_id})
    assert "always judged by a card" in refused.json()["message"]


def test_what_was_struck_on_the_tape_is_what_undo_restores(bench: Bench) -> None:
    before = _standing(bench)
    row = bench.block()["readings"][-1]
    bench.client.post(bench.tape_url(row["event"]), json={"struck": True, "person_id": bench.person_id})
    assert _standing(bench) != before
    assert bench.undo().startswith("the striking of 9h 5.8")
    assert _standing(bench) == before
    # Taking back is not itself taken back.
    assert bench.undo_step() is None


def test_undo_of_another_step_than_the_one_named_is_refused(bench: Bench) -> None:
    bench.take("7.1", hole=6, hour=1.5)
    named = bench.undo_step()
    assert named is not None
    bench.take("7.2", hole=6, hour=4.5)
    standing = _standing(bench)
    answer = bench.client.post(f"/api/jobs/{bench.job_id}/undo", json={"event": named["event"], "person_id":
                               bench.person_id})  # fmt: skip
    assert answer.status_code == 409
    assert "7.2" in answer.json()["message"]
    assert _standing(bench) == standing


def test_a_look_that_readings_were_corrected_by_is_not_struck_under_them(bench: Bench) -> None:
    _post(bench, "zero-checks", quantity="protrusion", text="20 µm", bare_unit="µm")
    (doubt,) = bench.block()["doubts"]
    _post(bench, f"zero-checks/{doubt['zero_check_id']}/settle", how="correct", drift="somewhere between")
    look = next(one for one in bench.block()["tape"] if one["kind"] == "zero look")
    refused = bench.client.post(bench.tape_url(look["event"]), json={"struck": True, "person_id": bench.person_id})
    assert refused.status_code == 422
    assert "strike the zero correction first" in refused.json()["message"]
