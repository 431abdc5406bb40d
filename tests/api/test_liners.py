"""Liners as they are found, drawn and exchanged: through the API, on a real database. House rules."""

from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient

from tests.api.bench import READY, Bench, field_of


@pytest.fixture
def bench(client: TestClient) -> Bench:
    return Bench.at_demo(client)


@pytest.fixture
def fresh(client: TestClient) -> Bench:
    """An engine just taken in: six holes of which nothing is known."""
    known = Bench.at_demo(client)
    card = known.block()["card"]["version"]["spec_card_id"]
    body = {"number": "26-100", "name": "Just in", "spec_card_id": card, "person_id": known.person_id}
    made = client.post("/api/jobs", json=body)
    assert made.status_code == 201, made.text
    return Bench(client, made.json()["job_id"], known.person_id)


def _in_holes(bench: Bench) -> list[str | None]:
    return [hole["liner"] and hole["liner"]["mark"] for hole in bench.block()["holes"]]


def _fit(bench: Bench, hole: int, mark: str, **fields: Any) -> Any:
    body = {"fitting_id": str(uuid4()), "liner_mark": mark, "ready": READY, "person_id": bench.person_id,
            **fields}  # fmt: skip
    return bench.client.post(f"/api/holes/{bench.hole(hole)['hole_id']}/fittings", json=body)


def _draw(bench: Bench, hole: int) -> Any:
    return bench.client.post(f"/api/holes/{bench.hole(hole)['hole_id']}/draw", json={"person_id": bench.person_id})


def test_the_first_protrusion_as_found_is_that_of_a_liner_nobody_knows_yet(fresh: Bench) -> None:
    assert all(hole["as_found"] for hole in fresh.block()["holes"])
    assert "nothing read as found" in fresh.hole(2)["reason"]
    taken = fresh.take("8.1", hole=2, hour=12)
    assert taken.status_code == 201, taken.text
    assert _in_holes(fresh) == [None, "as found 2", None, None, None, None]
    assert not fresh.hole(2)["as_found"]
    assert fresh.take("8.2", hole=2, hour=3).status_code == 201
    assert len(fresh.hole(2)["marks"]) == 2
    # Undo takes back the reading; taken back to the first, the liner goes with it, and comes again with the next.
    fresh.undo()
    fresh.undo()
    assert _in_holes(fresh)[1] is None
    assert fresh.take("8.3", hole=2, hour=12).status_code == 201
    assert _in_holes(fresh)[1] == "as found 2"
    assert len(fresh.block()["liners"]) == 1


def test_liners_as_found_are_one_action(fresh: Bench) -> None:
    url, who = f"/api/jobs/{fresh.job_id}/liners/as-found", {"person_id": fresh.person_id}
    assert fresh.client.post(f"/api/jobs/{fresh.job_id}/liners", json={"mark": "3"}).status_code == 201
    assert fresh.take("8.1", hole=5, hour=12).status_code == 201
    answer = fresh.client.post(url, json=who)
    assert answer.json() == {"holes": [1, 2, 3, 4, 6]}
    # A new liner marked 3 lies on the bench: the one in hole 3 is another.
    assert _in_holes(fresh) == ["1", "2", "as found 3", "4", "as found 5", "6"]
    again = fresh.client.post(url, json=who)
    assert again.status_code == 422
    assert "Every hole has a liner" in again.json()["message"]
    assert fresh.undo()
    assert _in_holes(fresh) == [None, None, None, None, "as found 5", None]


def test_a_cut_hole_is_not_as_found(bench: Bench) -> None:
    assert _draw(bench, 1).status_code == 201
    refused = bench.take("8.1", hole=1, hour=12)
    assert refused.status_code == 422
    assert "record the fitting first" in refused.json()["message"]


def test_a_liner_drawn_can_go_elsewhere_and_back(bench: Bench) -> None:
    before = _in_holes(bench)
    assert _draw(bench, 1).status_code == 201
    assert _in_holes(bench)[0] is None
    row = next(one for one in bench.block()["tape"] if one["kind"] == "liner drawn")
    assert (row["words"], row["hole"]) == (f"{before[0]} drawn", 1)
    assert _draw(bench, 1).status_code == 422
    bench.undo()
    assert _in_holes(bench) == before
    assert _draw(bench, 1).status_code == 201
    assert _draw(bench, 2).status_code == 201
    assert _fit(bench, 1, before[1] or "").status_code == 201
    # Where another liner stands by now, the draw stays.
    drawn = next(one for one in bench.block()["tape"] if one["kind"] == "liner drawn" and one["hole"] == 1
                 and not one["struck"])  # fmt: skip
    body = {"struck": True, "person_id": bench.person_id}
    refused = bench.client.post(bench.tape_url(drawn["event"]), json=body)
    assert refused.status_code == 422
    assert "strike that first" in refused.json()["message"]
    assert _fit(bench, 2, before[0] or "").status_code == 201
    assert _in_holes(bench)[:2] == [before[1], before[0]]


def test_two_fitted_liners_change_places_and_undo_puts_both_back(bench: Bench) -> None:
    before = _in_holes(bench)
    shims = [hole["shims"] for hole in bench.block()["holes"]]
    refused = _fit(bench, 1, before[3] or "")
    assert refused.status_code == 422
    assert field_of(refused) == "liner_mark"
    assert "exchange the two" in refused.json()["message"]
    assert _fit(bench, 1, before[3] or "", exchange=True).status_code == 201
    after = _in_holes(bench)
    assert (after[0], after[3]) == (before[3], before[0])
    assert after[1:3] == before[1:3]
    # The shims lie in the hole, not on the liner.
    kept = [(one["nominal_um"], one["typed"]) for one in bench.hole(4)["shims"]]
    assert kept == [(one["nominal_um"], one["typed"]) for one in shims[3]]
    assert {bench.hole(1)["state"], bench.hole(4)["state"]} == {"not measured"}
    bench.undo()
    assert _in_holes(bench) == before


def test_into_an_empty_hole_nothing_comes_back(bench: Bench) -> None:
    before = _in_holes(bench)
    assert _draw(bench, 1).status_code == 201
    assert _fit(bench, 1, before[1] or "", exchange=True).status_code == 201
    assert _in_holes(bench)[:2] == [before[1], None]


def test_gauges_made_for_a_flange_come_with_the_choice(bench: Bench) -> None:
    gauges = {one["gauge_id"]: one["kind"] for one in bench.client.get("/api/gauges").json()}
    suited = bench.client.get(f"/api/jobs/{bench.job_id}/gauges-for/flange thickness").json()
    assert suited
    assert all("micrometer" in gauges[one] for one in suited)


def test_a_survey_opens_into_limits_with_their_sources_and_sums(client: TestClient) -> None:
    strips = client.get("/api/jobs").json()
    job = next(one["job"]["job_id"] for one in strips if one["job"]["name"] == "Narrow-boat Quillet")
    why = client.get(f"/api/jobs/{job}/surveys/block bore/hole-2/why").json()
    assert why["state"] == "out"
    rule = next(one for one in why["rules"] if one["result"]["kind"] == "out of round")
    assert [(one["typed"], one["status"]) for one in rule["limits"]] == [("1.0 thou", "own experience")]
    assert "set on Ring 5.000" in why["how"]
    difference = next(step for step in why["steps"] if step["what"].startswith("Out of round middle, of"))
    values = [term["value"] for term in difference["terms"]]
    assert difference["result"]["value"] == pytest.approx(max(values) - min(values))
