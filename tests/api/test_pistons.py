"""The match sheet over HTTP: two methods, marks, ring gaps only once the bore is frozen, proof and job file."""

from io import BytesIO
from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient
from httpx2 import Response
from pypdf import PdfReader

from tests.api.bench import Bench, field_of, job_called

THOU = 25.4e-6


@pytest.fixture
def brindle(client: TestClient) -> Bench:
    return Bench(client, job_called(client, "Narrow-boat Brindle"), Bench.at_demo(client).person_id)


def _row(bench: Bench, hole: int = 2) -> dict[str, Any]:
    answer = bench.client.get(f"/api/jobs/{bench.job_id}/pistons")
    assert answer.status_code == 200, answer.text
    return next(row for row in answer.json()["rows"] if row["hole"] == hole)


def _match(bench: Bench, hole: int = 2, **typed: Any) -> Response:
    body = {
        "match_id": str(uuid4()),
        "mark": "2F",
        "faces": "arrow to the front",
        "person_id": bench.person_id,
        **typed,
    }
    return bench.client.post(f"/api/jobs/{bench.job_id}/pistons/{hole}/matches", json=body)


def _feeler(bench: Bench, text: str) -> None:
    gauges = bench.client.get("/api/gauges").json()
    blades = next(one for one in gauges if one["name"] == "Feeler blades")
    setup = {"quantity": "piston clearance", "gauge_id": blades["gauge_id"], "zeroed_on": "datum",
             "method": "feeler, piston against the other wall", "person_id": bench.person_id}  # fmt: skip
    chosen = bench.client.post(f"/api/jobs/{bench.job_id}/setups", json=setup)
    assert chosen.status_code == 201, chosen.text
    taken = bench.take(text, quantity="piston clearance", part="piston-2", bare_unit="thou", confirmed=True)
    assert taken.status_code == 201, taken.text


def test_a_piston_is_in_by_both_methods_and_its_mark(brindle: Bench) -> None:
    """Hidden truth: 4.75046 less 4.7445 is 5.96 thou; 5 to 7 are wanted."""
    row = _row(brindle)
    sizes = row["by_sizes"]["stated"]
    assert sizes["value_m"] == pytest.approx(5.96 * THOU, abs=sizes["expanded_m"])
    assert (row["by_sizes"]["state"], row["by_feeler"], row["state"]) == ("in", None, "not measured")
    _feeler(brindle, "6")
    made = _match(brindle)
    assert made.status_code == 201, made.text
    row = _row(brindle)
    assert (row["agree"], row["state"]) == (True, "in")
    assert row["match"]["mark"] == "2F"
    proof = brindle.client.get(f"/api/jobs/{brindle.job_id}/proof.html?unit=thou").text
    assert "Pistons in their holes" in proof
    assert "2F, faces arrow to the front" in proof
    facts = brindle.client.get(f"/api/jobs/{brindle.job_id}/job.json").json()["facts"]
    assert [one["mark"] for one in facts["piston_matches"]] == ["2F"]
    assert "piston 2F matched" in brindle.undo()
    assert _row(brindle)["match"] is None


@pytest.mark.parametrize(("typed", "field"), [({"mark": " "}, "mark"), ({"faces": ""}, "faces")])
def test_a_match_without_a_mark_is_refused_at_its_field(brindle: Bench, typed: dict[str, str], field: str) -> None:
    answer = _match(brindle, **typed)
    assert (answer.status_code, field_of(answer)) == (422, field)


def test_sent_again_a_match_is_there_once(brindle: Bench) -> None:
    body = {"match_id": str(uuid4())}
    assert _match(brindle, **body).status_code == 201
    assert _match(brindle, **body).status_code == 201
    facts = brindle.client.get(f"/api/jobs/{brindle.job_id}/job.json").json()["facts"]
    assert len(facts["piston_matches"]) == 1


def test_ring_gaps_wait_until_the_bore_is_frozen(brindle: Bench) -> None:
    assert _row(brindle)["unfrozen"] == ""
    hone = f"/api/jobs/{brindle.job_id}/honing/2/rounds"
    round_id = str(uuid4())
    who = {"person_id": brindle.person_id}
    begun = brindle.client.post(hone, json={"round_id": round_id, "stage": "fine", "hold_reason": "told", **who})
    assert begun.status_code == 201, begun.text
    stopped = brindle.client.post(f"{hone}/{round_id}/stop",
                                  json={"hone_mark_id": str(uuid4()), "strokes": 20, **who})  # fmt: skip
    assert stopped.status_code == 201, stopped.text
    assert "changed since it was read" in _row(brindle)["unfrozen"]
    gap = {"quantity": "ring gap", "part": "hole-2", "bare_unit": "thou", "confirmed": True}
    gauges = brindle.client.get("/api/gauges").json()
    blades = next(one for one in gauges if one["name"] == "Feeler blades")
    setup = {
        "quantity": "ring gap",
        "gauge_id": blades["gauge_id"],
        "zeroed_on": "datum",
        "method": "feeler blade",
        **who,
    }
    assert brindle.client.post(f"/api/jobs/{brindle.job_id}/setups", json=setup).status_code == 201
    survey = brindle.client.get(f"/api/jobs/{brindle.job_id}/surveys/ring gap/hole-2").json()
    place = survey["places"][0]["place"]
    held = brindle.take("16", **gap, **place)
    assert (held.status_code, held.json()["code"]) == (409, "hold point")
    assert "once the bore is frozen" in held.json()["message"]


def test_a_piston_is_ordered_to_its_bore_with_a_page_for_its_maker(brindle: Bench) -> None:
    """What is agreed besides stands as it was typed, and runs as no markup."""
    at = f"/api/jobs/{brindle.job_id}/pistons/2"
    sheet = brindle.client.get(f"{at}/order").json()
    piston, rings = sheet["ordered"][:2]
    row = _row(brindle)
    assert rings["least_m"] < row["bore"]["value_m"] < rings["greatest_m"]
    assert piston["least_m"] == pytest.approx(rings["greatest_m"] - row["greatest_m"])
    assert piston["greatest_m"] == pytest.approx(rings["least_m"] - row["least_m"])
    page = brindle.client.get(f"{at}/order.pdf", params={"pin": "<script>7/8 in</script>", "unit": "thou"})
    assert page.status_code == 200
    assert page.headers["content-type"] == "application/pdf"
    text = "".join(one.extract_text() for one in PdfReader(BytesIO(page.content)).pages)
    assert "<script>7/8 in</script>" in text
    assert f"{piston['greatest_m'] / 0.0254:.4f}" in text or f"{piston['greatest_m'] / 0.0254:.5f}" in text
    assert brindle.client.get(f"/api/jobs/{brindle.job_id}/pistons/9/order").status_code == 422
