"""The sums alone over HTTP, against NumPy, the uncertainties package and exact thou."""

from typing import Any

import numpy as np
import pytest
from fastapi.testclient import TestClient
from uncertainties import ufloat

THOU = 25.4e-6


def _post(client: TestClient, what: str, body: dict[str, Any]) -> dict[str, Any]:
    response = client.post(f"/api/compute/{what}", json=body)
    assert response.status_code == 200, response.text
    answer: dict[str, Any] = response.json()
    return answer


def test_plane_agrees_with_numpy(client: TestClient) -> None:
    angles = [0, 40, 95, 150, 210, 300]
    values = [3.4 * THOU, 3.1 * THOU, 2.6 * THOU, 2.9 * THOU, 3.5 * THOU, 4.0 * THOU]
    theta = np.radians(angles)
    columns = np.column_stack([np.ones(6), np.cos(theta), np.sin(theta)])
    # The normal equations, another way to the same least squares.
    mean, b, c = np.linalg.solve(columns.T @ columns, columns.T @ np.array(values))
    answer = _post(client, "plane", {"angles_deg": angles, "readings_m": values})
    assert (answer["mean_m"], answer["b_m"], answer["c_m"]) == pytest.approx((mean, b, c), rel=1e-9)
    assert answer["high_to_low_tilt_m"] == pytest.approx(2 * np.hypot(b, c), rel=1e-9)
    assert answer["range_m"] == pytest.approx(1.4 * THOU)


def test_stack_agrees_with_linear_propagation(client: TestClient) -> None:
    body = {"flange_m": 8.9e-3, "shims_m": [0.25e-3, 0.1e-3], "depth_m": 9.15e-3, "u_flange_m": 2e-6,
            "u_shims_m": [1e-6, 3e-6], "u_depth_m": 2.5e-6,
            "lower_limit_m": 75e-6, "upper_limit_m": 125e-6}  # fmt: skip
    expected = ufloat(8.9e-3, 2e-6) + ufloat(0.25e-3, 1e-6) + ufloat(0.1e-3, 3e-6) - ufloat(9.15e-3, 2.5e-6)
    answer = _post(client, "stack", body)
    assert answer["protrusion_m"] == pytest.approx(expected.nominal_value, abs=1e-12)
    assert answer["u_m"] == pytest.approx(expected.std_dev, rel=1e-9)
    assert answer["U_m"] == pytest.approx(2 * expected.std_dev, rel=1e-9)
    assert answer["decision"] == "conform"


# ISO 14253-1, window 50 to 125 with U = 5.
@pytest.mark.parametrize(
    ("value", "decision", "state"),
    [(90, "conform", "in"), (52, "not decidable", "cannot tell"), (30, "not conform", "out")],
)
def test_decision(client: TestClient, value: float, decision: str, state: str) -> None:
    body = {"value_m": value * 1e-6, "U_m": 5e-6, "lower_limit_m": 50e-6, "upper_limit_m": 125e-6}
    answer = _post(client, "decision", body)
    assert (answer["decision"], answer["state"]) == (decision, state)


# Square seat at -1 thou, flange 350: with a 30 thou shim and 3 thou wanted the cut is 26, and "cut 29, fit 30"
# makes 0. Common practice, no published source.
def test_cut_plan_with_the_fixed_cut_beside_it(client: TestClient) -> None:
    body = {"present_depths_m": [351 * THOU, 351 * THOU], "flange_m": 350 * THOU, "target_protrusion_m": 3 * THOU,
            "min_protrusion_m": 2 * THOU, "max_protrusion_m": 4 * THOU, "shims_m": [30 * THOU],
            "min_cleanup_cut_m": THOU, "naive_cut_m": 29 * THOU, "naive_shim_m": 30 * THOU}  # fmt: skip
    answer = _post(client, "cut-plan", body)
    assert answer["feasible"]
    assert answer["cut_per_point_m"] == pytest.approx([26 * THOU] * 2)
    assert (answer["passes"], float(answer["part_pass_um"])) == (26, 0)
    for place in ("shallowest", "mean", "deepest"):
        assert answer[f"naive_29_30_from_{place}_protrusion_m"] == pytest.approx(0, abs=1e-12)
        assert answer[f"naive_29_30_from_{place}_verdict"] == "below minimum"
    thin = _post(client, "cut-plan", {**body, "shims_m": [2 * THOU]})
    assert not thin["feasible"]
    assert "thick enough" in thin["reason"]


def test_shim_as_measured_beside_its_nominal_size(client: TestClient) -> None:
    body = {"flange_m": 9e-3, "depth_m": 9.2e-3, "nominal_shim_m": 0.3e-3, "measured_shims_m": [0.29e-3, 0.305e-3]}
    answer = _post(client, "stack", body)
    assert answer["protrusion_nominal_m"] == pytest.approx(100e-6)
    assert answer["protrusion_measured_m"] == pytest.approx([90e-6, 105e-6])


def test_parse_reads_an_entry_line(client: TestClient) -> None:
    ask = {"text": "5 6h 1 1/2 thou", "bare_unit": "mm", "holes": [1, 2, 3, 4, 5, 6]}
    answer = _post(client, "parse", ask)
    assert (answer["hole"], answer["hour"], float(answer["value_um"])) == (5, 6.0, 38.1)
    assert answer["typed"] == "1 1/2 thou"


@pytest.mark.parametrize(
    ("what", "body", "field"),
    [
        ("plane", {"angles_deg": [0, 180], "readings_m": [0, 0]}, "angles_deg"),
        ("plane", {"angles_deg": [0, 90, 180], "readings_m": [0]}, "angles_deg"),
        ("stack", {"flange_m": "thick", "depth_m": 1}, "flange_m"),
        ("decision", {"value_m": 1, "U_m": -1}, "U_m"),
        ("decision", {"value_m": 1, "U_m": 0, "lower_limit_m": 2, "upper_limit_m": 1}, "limits"),
        ("parse", {"text": "two mil", "bare_unit": "thou"}, "text"),
        ("cut-plan", {"present_depths_m": []}, "flange_m"),
    ],
)
def test_what_cannot_be_computed_names_its_quantity(
    client: TestClient, what: str, body: dict[str, Any], field: str
) -> None:
    response = client.post(f"/api/compute/{what}", json=body)
    assert response.status_code == 422
    assert field in [problem["field"] for problem in response.json()["problems"]]


CUT = {"present_depths_m": [8.9e-3], "flange_m": 8.9e-3, "target_protrusion_m": 76e-6, "shims_m": [0.25e-3],
       "min_protrusion_m": 50e-6, "max_protrusion_m": 125e-6, "min_cleanup_cut_m": 25e-6}  # fmt: skip


@pytest.mark.parametrize(
    ("what", "body", "field", "words"),
    [
        ("stack", {"flange_m": 8.9, "depth_m": 8.815e-3}, "flange_m", "0.0089 for mm"),
        ("stack", {"flange_m": 350, "depth_m": 8.89e-3}, "flange_m", "0.00889 for thou"),
        ("stack", {"flange_m": 8.9e-3, "depth_m": 8.8e-3, "shims_m": [-0.25e-3]}, "shims_m", "shim"),
        ("stack", {"flange_m": 8.9e-3, "depth_m": 8.8e-3, "shims_m": [0.0]}, "shims_m", "shim"),
        ("stack", {"flange_m": 8.9e-3, "depth_m": 8.8e-3, "u_shims_m": [1e-6]}, "u_shims_m", "shims"),
        ("cut-plan", {**CUT, "target_protrusion_m": 3}, "target_protrusion_m", "0.003 for mm or 7.62e-05 for thou"),
        ("decision", {"value_m": 90, "U_m": 5e-6}, "value_m", "9e-05 for µm"),
        ("decision", {"value_m": 9e-5, "U_m": 50}, "U_m", "0.00127 for thou or 5e-05 for µm"),
        ("plane", {"angles_deg": [0, 1.571, 3.142, 4.712], "readings_m": [0, 1e-6, 0, 0]}, "angles_deg", "degrees"),
    ],
)
def test_a_number_in_another_unit_is_refused_with_what_it_seems_to_be(
    client: TestClient, what: str, body: dict[str, Any], field: str, words: str
) -> None:
    response = client.post(f"/api/compute/{what}", json=body)
    assert response.status_code == 422
    problems = {problem["field"].split(".")[0]: problem["message"] for problem in response.json()["problems"]}
    assert words in problems[field]


def test_without_a_limit_there_is_no_verdict(client: TestClient) -> None:
    assert _post(client, "stack", {"flange_m": 9e-3, "depth_m": 8.9e-3})["decision"] is None
    assert _post(client, "decision", {"value_m": 9e-5, "U_m": 5e-6})["decision"] is None


def test_one_bound_alone_is_asked_about(client: TestClient) -> None:
    ask = {"text": "900", "bare_unit": "0.01 mm", "greatest_um": 500}
    response = client.post("/api/compute/parse", json=ask)
    assert (response.status_code, response.json()["code"]) == (422, "asks")
    assert _post(client, "parse", {**ask, "least_um": -500, "greatest_um": None, "text": "9"})["value_m"] == 9e-5


def test_a_plan_is_warned_of_where_the_stop_alone_does_not_prove_it(client: TestClient) -> None:
    wide = _post(client, "cut-plan", {**CUT, "stop_accuracy_m": 5e-6})
    assert (wide["feasible"], wide["warnings"]) == (True, [])
    coarse = _post(client, "cut-plan", {**CUT, "stop_accuracy_m": 100e-6})
    assert coarse["chance_inside_by_stop"] < 0.9
    assert any("by the stop alone" in one for one in coarse["warnings"])


@pytest.mark.parametrize(
    ("what", "body", "answer_key"),
    [
        ("parse", {"text": "1 1/2 thou", "bare_unit": "mm"}, "value_m"),
        ("plane", {"angles_deg": [0, 90, 180], "readings_m": [1e-5, 0, 0]}, "high_to_low_tilt_m"),
        ("stack", {"flange_m": 9e-3, "depth_m": 8.9e-3}, "protrusion_m"),
        ("decision", {"value_m": 9e-5, "U_m": 5e-6, "lower_limit_m": 5e-5}, "state"),
    ],
)
def test_every_answer_opens_into_its_sum(client: TestClient, what: str, body: dict[str, Any], answer_key: str) -> None:
    answer = _post(client, what, body)
    step = answer["trail"][-1]
    assert step["formula"]
    assert step["source"]
    if answer_key != "state":
        assert step["result"]["value"] == pytest.approx(answer[answer_key])
    else:
        assert answer["state"] in step["what"]
