"""The sums of measuring over HTTP: the same as the core gives, with names that say their unit, and clear refusals."""

from math import cos, pi, radians, sqrt
from typing import Any

import pytest
from fastapi.testclient import TestClient
from uncertainties import ufloat

from tests.api.bench import assert_refusal_shape, field_of

BORE = {"ring_m": 0.095, "u_ring_m": 3e-7, "deviation_m": 5e-6, "u_repeatability_m": 5e-7, "step_m": 5e-7,
        "alpha_ring": 11.5e-6, "u_alpha_ring": 6e-7, "ring_c": 20.3, "u_ring_c": 0.2, "alpha_part": 10.5e-6,
        "u_alpha_part": 6e-7, "part_c": 20.5, "u_part_c": 0.3}  # fmt: skip


def _sum(client: TestClient, name: str, body: dict[str, Any]) -> dict[str, Any]:
    answer = client.post(f"/api/compute/{name}", json=body)
    assert answer.status_code == 200, answer.text
    found: dict[str, Any] = answer.json()
    return found


def test_a_budget_is_that_of_the_uncertainties_package(client: TestClient) -> None:
    b = {name: float(value) for name, value in BORE.items()}
    ring = ufloat(b["ring_m"], b["u_ring_m"]) * (1 + ufloat(b["alpha_ring"], b["u_alpha_ring"]) * (
        ufloat(b["ring_c"], b["u_ring_c"]) - 20))  # fmt: skip
    deviation = b["deviation_m"] + ufloat(0, b["step_m"] / sqrt(12)) + ufloat(0, b["u_repeatability_m"])
    part_c = ufloat(b["part_c"], b["u_part_c"])
    size = (ring + deviation) / (1 + ufloat(b["alpha_part"], b["u_alpha_part"]) * (part_c - 20))
    found = _sum(client, "budget", BORE)
    assert found["diameter_20C_m"] == pytest.approx(size.nominal_value, rel=1e-13)
    assert found["u_m"] == pytest.approx(size.std_dev, rel=1e-9)
    assert found["U_m"] == pytest.approx(2 * size.std_dev, rel=1e-9)
    share = (size.error_components()[part_c] / size.std_dev) ** 2
    assert found["share_of_part_temperature"] == pytest.approx(share, rel=1e-9)
    assert found["difference_to_mc_m"] == pytest.approx(found["U_m"] - found["mc_half_width_95_m"])
    assert 0 < found["difference_to_mc_m"] < 0.05 * found["U_m"], "k = 2 covers a little more than 95 %"


@pytest.mark.parametrize("field", ["u_ring_m", "u_ring_c", "u_part_c", "step_m", "u_alpha_ring", "u_repeatability_m"])
def test_minus_nought_is_nought(client: TestClient, field: str) -> None:
    ask = {"ring_m": 0.1, "part_c": 22, "alpha_part": 1e-5, "u_repeatability_m": 1e-6}
    answers = [client.post("/api/compute/budget", json={**ask, field: nought}) for nought in (0.0, -0.0)]
    assert [answer.status_code for answer in answers] == [200, 200]
    assert answers[0].json()["U_m"] == answers[1].json()["U_m"]


@pytest.mark.parametrize("bound", ["9" * 30, "1e30", "-" + "9" * 30])
def test_a_bound_that_nobody_measures_is_refused_at_its_field(client: TestClient, bound: str) -> None:
    for field in ("least_um", "greatest_um"):
        answer = client.post("/api/compute/parse", json={"text": "5", "bare_unit": "µm", field: bound})
        assert (answer.status_code, field_of(answer)) == (422, field)


def test_few_repeats_and_means_are_told_in_the_budget(client: TestClient) -> None:
    few = _sum(client, "budget", {**BORE, "repeats": 3, "readings": 4})
    many = _sum(client, "budget", {**BORE, "readings": 4})
    assert few["coverage"] > many["coverage"] == 2
    assert few["freedom"] >= 2
    assert many["freedom"] is None
    assert many["u_mean_m"] < many["u_m"]
    assert many["u_difference_m"] == pytest.approx(sqrt(2) * sqrt(5e-7**2 + 5e-7**2 / 12) / (1 + 10.5e-6 * 0.5))


def test_a_bore_set_answers_for_one_level_and_for_many(client: TestClient) -> None:
    axes = [0, 30, 60, 90, 120, 150]
    diameters = [0.1 + 9e-6 * cos(2 * radians(axis - 75)) for axis in axes]
    one = _sum(client, "bore-set", {"diameters_m": diameters, "axes_deg": axes})
    assert one["A2_m"] == pytest.approx(9e-6, abs=1e-12)
    assert one["phi2_deg"] == pytest.approx(75)
    assert one["taper_of_mean_m"] is None
    many = _sum(client, "bore-set", {"diameters_m": [diameters, [None] * 6, [d - 4e-6 for d in diameters]],
                                     "axes_deg": axes, "depths_m": [0.01, 0.05, 0.09]})  # fmt: skip
    assert many["taper_of_mean_m"] == pytest.approx(4e-6, abs=1e-12)
    assert many["out_of_round_m"][1] is None
    assert many["ellipses"][1] is None
    assert any("lobes" in words for words in many["cannot_see"])
    assert _sum(client, "bore-set", {"diameters_m": [[0.1, 0.1]]})["ellipses"] == [None]


def test_a_gauge_study_answers_with_both_models(client: TestClient) -> None:
    table = [[[1, 2], [1, 2]], [[11, 12], [11, 12]]]
    found = _sum(client, "gauge-study", {"readings_um": table, "tolerance_um": 60})
    # By hand: MS_e 0.5; merged 2/5.
    assert found["full_repeatability_sd_um"] == pytest.approx(sqrt(0.5))
    assert found["pooled_repeatability_sd_um"] == pytest.approx(sqrt(0.4))
    assert found["holds"] == "pooled"
    assert found["full_percent_grr_of_tolerance"] == pytest.approx(10 * sqrt(0.5))
    # Ranges of one by d2 of two, 2/√π (closed form); d2* of few ranges of two values √(4/π + (2 − 4/π)/4).
    assert found["range_method_ev_um"] == pytest.approx(1 / sqrt(4 / pi + (2 - 4 / pi) / 4))
    assert found["range_method_av_um"] == 0
    # Two parts, one range: d2* = √2.
    assert found["range_method_pv_um"] == pytest.approx(10 / sqrt(2))


def test_a_warm_bore_against_a_ring(client: TestClient) -> None:
    ask = {
        "ring_20C_m": 0.1,
        "ring_alpha": 1.15e-5,
        "ring_c": 20,
        "deviation_m": 3e-5,
        "part_alpha": 1.05e-5,
        "part_c": 32,
    }
    found = _sum(client, "to-20C", ask)
    assert found["diameter_20C_m"] == pytest.approx(0.10003 / (1 + 1.05e-5 * 12), rel=1e-13)
    assert found["uncorrected_m"] == pytest.approx(0.10003)
    assert found["trail"][0]["source"].startswith("ISO 1")


@pytest.mark.parametrize(
    ("name", "body"),
    [
        ("bore-set", {"diameters_m": [[0.1, 0.1], [0.1]]}),
        ("bore-set", {"diameters_m": [[None, None]], "axes_deg": [0, 90]}),
        ("bore-set", {"diameters_m": [0.1, -0.1], "axes_deg": [0, 90]}),
        ("bore-set", {"diameters_m": [0.1, 0.1], "axes_deg": [0]}),
        ("bore-set", {"diameters_m": [[0.1], [0.1]], "axes_deg": [0], "depths_m": [0.2, 0.1]}),
        ("bore-set", {"diameters_m": []}),
        ("gauge-study", {"readings_um": [[[1, 2]], [[1, 2]]]}),
        ("gauge-study", {"readings_um": [[[1, 2], [1]], [[1, 2], [1, 2]]]}),
        ("gauge-study", {"readings_um": []}),
        ("budget", {**BORE, "u_ring_m": -1}),
        ("budget", {**BORE, "repeats": 1}),
        ("to-20C", {"ring_20C_m": 0.1, "part_alpha": 1, "part_c": 30}),
        ("to-20C", {"ring_20C_m": 0.1, "part_alpha": 1e-5, "part_c": "warm"}),
    ],
)
def test_what_makes_no_sum_is_refused_with_a_reason(client: TestClient, name: str, body: dict[str, Any]) -> None:
    answer = client.post(f"/api/compute/{name}", json=body)
    assert answer.status_code == 422, answer.text
    assert_refusal_shape(answer)
