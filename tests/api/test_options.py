"""What can be done about a sunk hole over HTTP, what is decided, and the price list behind it."""

from uuid import uuid4

import pytest
from fastapi.testclient import TestClient

from tests.api.bench import Bench, field_of, job_called


def test_the_options_of_the_sunk_hole_stand_side_by_side(client: TestClient) -> None:
    """Hidden truth: hole 5 of the ferry stands some 41 under a least of 50, the others are fine."""
    job = job_called(client, "Ferry Lanthorn")
    found = client.get(f"/api/jobs/{job}/options/5").json()
    assert (found["why_no_options"], found["hold"]) == ("", "")
    options = {one["kind"]: one for one in found["options"]}
    assert list(options) == ["leave it", "exchange liners", "cut and shim", "let a ring in", "skim the deck",
                             "another block"]  # fmt: skip
    leave = {row["hole"]: row for row in options["leave it"]["holes"]}
    assert leave[5]["state"] == "out"
    skim = {row["hole"]: row for row in options["skim the deck"]["holes"]}
    off = options["skim the deck"]["skim_m"]
    assert all(skim[hole]["value"]["value_m"] == pytest.approx(leave[hole]["value"]["value_m"] + off) for hole in leave)
    assert options["skim the deck"]["final"].startswith("the deck")
    # 68 an hour: a ring of 3.5 h and 64, a liner drawn and refitted 1 h.
    assert options["let a ring in"]["money"] == pytest.approx(64 + 4.5 * 68)
    assert options["cut and shim"]["money"] == pytest.approx(
        68 * options["cut and shim"]["hours"] + options["cut and shim"]["parts"])  # fmt: skip
    assert options["another block"]["holes"] == []
    assert found["suggested"] in options


def test_worth_it_or_not_is_told_with_the_days_it_stands_still(client: TestClient) -> None:
    job = job_called(client, "Ferry Lanthorn")
    asked = client.get(f"/api/jobs/{job}/options/5", params={"worth": 500, "day_cost": 100}).json()
    ring = next(one for one in asked["options"] if one["kind"] == "let a ring in")
    assert ring["total"] == pytest.approx(64 + 4.5 * 68 + 100 * (9 + 4.5 / 8))
    assert ring["worth_words"].startswith("Not worth it")


def test_what_contradicts_itself_is_held(client: TestClient) -> None:
    """Hole 3 of the ferry: its parts and its reading disagree, by the lip of its liner."""
    job, by = job_called(client, "Ferry Lanthorn"), Bench.at_demo(client).person_id
    found = client.get(f"/api/jobs/{job}/options/3").json()
    assert "disagree" in found["hold"]
    body = {"option_choice_id": str(uuid4()), "option": "skim the deck", "reason": "to be done with it",
            "person_id": by}  # fmt: skip
    held = client.post(f"/api/jobs/{job}/options/3", json=body)
    assert (held.status_code, field_of(held)) == (422, "option")


def test_what_is_decided_stands_with_its_reason_and_is_undone(client: TestClient) -> None:
    bench = Bench.at_demo(client)
    path = f"/api/jobs/{bench.job_id}/options/5"
    body = {"option_choice_id": str(uuid4()), "option": "cut and shim", "reason": " ", "person_id": bench.person_id}
    refused = client.post(path, json=body)
    assert (refused.status_code, field_of(refused)) == (422, "reason")
    body["reason"] = "the ferry sails on Friday"
    for _ in range(2):
        assert client.post(path, json=body | {"worth": 9000}).status_code == 201
    chosen = client.get(path).json()["chosen"]
    assert (chosen["option"], chosen["reason"], chosen["worth"]) == ("cut and shim", "the ferry sails on Friday", 9000)
    assert "decided: cut and shim" in bench.undo()
    assert client.get(path).json()["chosen"] is None
    assert client.get(f"/api/jobs/{bench.job_id}/options/9").status_code == 422


def test_a_price_takes_the_place_of_the_one_before(client: TestClient) -> None:
    by = Bench.at_demo(client).person_id
    before = {one["kind"]: one for one in client.get("/api/prices").json()}
    assert (before["an hour of the shop"]["money"], before["an hour of the shop"]["currency"]) == (68, "€")
    body = {"kind": "a skim of the deck", "hours": 6, "money": 12.5, "days": 3, "person_id": by}
    after = {one["kind"]: one for one in client.post("/api/prices", json=body).json()}
    assert (after["a skim of the deck"]["money"], after["a skim of the deck"]["set_by"]) == (12.5, "Wren")
    job = job_called(client, "Ferry Lanthorn")
    options = client.get(f"/api/jobs/{job}/options/5").json()["options"]
    assert next(one for one in options if one["kind"] == "skim the deck")["money"] == pytest.approx(6 * 68 + 12.5)
    free = client.post("/api/prices", json={"kind": "an hour of the shop", "hours": 1, "days": 0, "person_id": by})
    assert (free.status_code, field_of(free)) == (422, "money")


def test_a_block_without_ledges_says_so(client: TestClient) -> None:
    found = client.get(f"/api/jobs/{job_called(client, 'Hill Tractor Marram')}/options/1").json()
    assert "no ledge" in found["why_no_options"]
    assert found["options"] == []
