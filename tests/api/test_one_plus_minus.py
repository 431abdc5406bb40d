"""Ring, dialog, why, proof and job file show the same value and the same ± for the same thing."""

import json
import re
from typing import Any

import pytest
from fastapi.testclient import TestClient

from tests.api.bench import Bench

# JSON keeps every digit of a float.
EXACT = 1e-15


def _budgets(client: TestClient, path: str) -> dict[str, float]:
    return {one["what"]: one["expanded_m"] for one in client.get(path).json()}


@pytest.mark.parametrize("number", [1, 3, 5, 6])
def test_a_hole_has_one_plus_minus_wherever_it_is_shown(client: TestClient, number: int) -> None:
    bench = Bench.at_demo(client)
    hole = bench.hole(number)
    budgets = _budgets(client, f"/api/holes/{hole['hole_id']}/budgets")
    assert budgets["mean"] == pytest.approx(hole["mean_expanded_m"], abs=EXACT)
    assert budgets["variation round"] == pytest.approx(hole["variation_expanded_m"], abs=EXACT)
    assert budgets["high to low"] == pytest.approx(hole["high_to_low_expanded_m"], abs=EXACT)
    parts = hole["parts"]
    assert budgets["protrusion that the parts give"] == pytest.approx(parts["predicted_expanded_m"], abs=EXACT)
    assert budgets["ledge the flange rests on"] == pytest.approx(parts["ledge_expanded_m"], abs=EXACT)
    assert budgets["reading less parts"] == pytest.approx(parts["residual_expanded_m"], abs=EXACT)

    why = client.get(f"/api/holes/{hole['hole_id']}/why").json()
    rules = [one["result"] for one in why["rules"]]
    assert rules == hole["rules"]
    marks = [one for one in rules if one["kind"] == "reading"]
    assert [one["expanded_m"] for one in marks] == [one["expanded_m"] for one in hole["marks"]]
    (variation,) = (one for one in rules if one["kind"] == "variation round")
    assert variation["expanded_m"] == hole["variation_expanded_m"]

    kept = json.loads(client.get(f"/api/jobs/{bench.job_id}/job.json").content)
    judged = next(one for one in kept["judged"] if one["hole"] == number)
    assert judged["mean_expanded_m"] == pytest.approx(hole["mean_expanded_m"], abs=EXACT)

    survey = client.get(f"/api/jobs/{bench.job_id}/surveys/protrusion/hole-{number}").json()
    mean = next(one for one in survey["derived"] if one["kind"] == "mean")
    assert (mean["value_m"], mean["expanded_m"]) == (hole["mean_m"], hole["mean_expanded_m"])
    flange = client.get(
        f"/api/jobs/{bench.job_id}/surveys/flange thickness/liner-{hole['liner']['mark']}/budgets"
    ).json()
    shelf = next(one for one in bench.block()["liners"] if one["liner"]["mark"] == hole["liner"]["mark"])
    assert next(one["expanded_m"] for one in flange if one["what"] == "mean") == pytest.approx(
        shelf["flange"][0]["expanded_m"], abs=EXACT
    )


def test_the_proof_prints_them_as_the_screen_has_them(client: TestClient) -> None:
    bench = Bench.at_demo(client)
    page = client.get(f"/api/jobs/{bench.job_id}/proof.html", params={"unit": "um"}).text
    for number in (1, 5):
        hole = bench.hole(number)
        said = re.search(
            rf"Hole {number}: <span.*?Mean ([+−-]?\d+) ±(\d+) µm, variation round (\d+) ±(\d+)", page, re.DOTALL
        )
        assert said is not None
        shown = [round(hole["mean_m"] * 1e6), hole["mean_expanded_m"] * 1e6, round(hole["variation_m"] * 1e6),
                 hole["variation_expanded_m"] * 1e6]  # fmt: skip
        printed = [int(one) for one in said.groups()]
        # A ± is rounded up, so that it never looks smaller than it is.
        assert [printed[0], printed[2]] == [shown[0], shown[2]]
        assert all(0 <= up - exact < 1 + 1e-6 for up, exact in ((printed[1], shown[1]), (printed[3], shown[3])))


def test_a_plan_has_one_plus_minus_wherever_it_is_shown(client: TestClient) -> None:
    bench = Bench.at_demo(client)
    hole = bench.hole(5)
    plan: dict[str, Any] = client.get(f"/api/holes/{hole['hole_id']}/cut-plan").json()
    budgets = _budgets(client, f"/api/holes/{hole['hole_id']}/budgets")
    cut = plan["plan"]
    assert budgets["protrusion by the stop"] == pytest.approx(cut["by_stop_expanded_m"], abs=EXACT)
    assert budgets["protrusion once the ledge is measured"] == pytest.approx(cut["by_gauge_expanded_m"], abs=EXACT)
    assert budgets["ledge left by the stop"] == pytest.approx(cut["ledge_left_expanded_m"], abs=EXACT)
    assert budgets[f"flange of {plan['liner_mark']} at the {plan['land']}"] == pytest.approx(
        plan["flange_expanded_m"], abs=EXACT
    )
    for neighbour in cut["neighbours"]:
        assert budgets[f"difference to hole {neighbour['hole']} by the stop"] == pytest.approx(
            neighbour["expanded_m"], abs=EXACT
        )
    assert {term["value"] for term in hole["need"]["detail"]["terms"]} >= {
        cut["by_stop_expanded_m"], cut["by_gauge_expanded_m"],
    }  # fmt: skip


def test_a_bore_has_one_plus_minus_wherever_it_is_shown(client: TestClient) -> None:
    boat = next(one["job"]["job_id"] for one in client.get("/api/jobs").json() if "Quillet" in one["job"]["name"])
    path = f"/api/jobs/{boat}/surveys/block bore/hole-2"
    survey = client.get(path).json()
    budgets = _budgets(client, f"{path}/budgets")
    for one in survey["derived"]:
        assert budgets[one["what"]] == pytest.approx(one["expanded_m"], abs=EXACT)
    assert budgets["one reading of the block bore"] == pytest.approx(survey["expanded_m"], abs=EXACT)
    for rule in survey["rules"]:
        if rule["kind"] in ("out of round", "taper"):
            (told,) = (one for one in survey["told"] if one["kind"] == rule["kind"])
            assert (told["value_m"], told["expanded_m"]) == (rule["value_m"], rule["expanded_m"])
    for fit in survey["interference"]:
        for at in fit["levels"]:
            assert budgets[f"interference with {fit['liner_mark']}, {at['name']}"] == pytest.approx(
                at["expanded_m"], abs=EXACT
            )
