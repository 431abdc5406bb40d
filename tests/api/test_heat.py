"""Heat and cold over HTTP: the plan of a drop, what is missing, the air of a room, sums alone."""

from typing import Any

import pytest
from fastapi.testclient import TestClient

from tests.api.bench import Bench, field_of, job_called

DROP = {"liner_id_m": 0.1, "liner_od_m": 0.104, "hole_diameter_m": 0.1039492, "length_m": 0.15,
        "liner": {"rho": 7200.0, "c": 440.0, "k": 50.0, "alpha": 9.3e-06},
        "block": {"rho": 7200.0, "c": 500.0, "k": 50.0, "alpha": 1.08e-05}}  # fmt: skip


@pytest.fixture
def pump(client: TestClient) -> Bench:
    return Bench(client, job_called(client, "Pump No. 4"), Bench.at_demo(client).person_id)


def _plan(bench: Bench, hole: int = 2, **tried: Any) -> dict[str, Any]:
    answer = bench.client.get(f"/api/jobs/{bench.job_id}/heat/{hole}", params=tried)
    assert answer.status_code == 200, answer.text
    shown: dict[str, Any] = answer.json()
    return shown


def test_a_drop_is_planned_by_the_worst_pair_of_readings(pump: Bench) -> None:
    """Hidden truth: collar two at +0.5 thou, liner P2 at +2.0, ovals of 0.12: about 1.5 of press, and its ±."""
    shown = _plan(pump)
    plan = shown["plan"]
    assert (shown["hole"], shown["missing"]) == (2, None)
    press = plan["press"]
    assert abs(press["value_m"] - 1.5 * 25.4e-6) < press["expanded_m"]
    assert plan["worst_m"] == pytest.approx(press["value_m"] + press["expanded_m"])
    assert plan["at_start"] == "drops freely"
    window = plan["window"]
    assert 40 < window["home_by_s"] < window["grabs_s"] < window["likely_s"]
    assert all(a <= b <= c for a, b, c in zip(window["low_m"], window["likely_m"], window["high_m"], strict=True))
    assert [one["drops"] for one in plan["steps"]][:2] == ["drops freely", "drops freely"]
    assert plan["medium"] == "freezer"
    assert any("Hot aluminium looks cold" in one for one in plan["cautions"])
    assert [one["is_followed"] for one in shown["sides"]].count(True) == 1
    assert len(shown["cold_force_n"]) == 3


def test_what_is_tried_moves_it(pump: Bench) -> None:
    base, hotter = _plan(pump)["plan"], _plan(pump, block_c=110)["plan"]
    assert hotter["clearance_m"] > base["clearance_m"]
    assert hotter["window"]["home_by_s"] > base["window"]["home_by_s"]
    cold = _plan(pump, liner_c=-78.5, block_c=20)["plan"]
    assert cold["boils_kg"] > 0
    assert any("Never in a closed vessel" in one for one in cold["cautions"])
    assert any("seal" in one for one in cold["against"])
    touching = _plan(pump, liner_c=20, block_c=20)["plan"]
    assert touching["at_start"] == "grabs"
    assert touching["window"]["home_by_s"] == 0
    wet = _plan(pump, liner_c=-78.5, pocket_wet=True)
    assert wet["plan"] is None
    assert "blow it dry" in wet["missing"]["text"]


def test_seals_stand_in_their_order_with_what_they_bear(pump: Bench) -> None:
    """Card of the pump: both rings from −25 °C, in grooves of the liner."""
    calm, cold = _plan(pump)["seals"], _plan(pump, 1, liner_c=-78.5)["seals"]
    assert [one["seal"]["name"] for one in calm] == ["upper, red", "lower, black"]
    assert [one["minds"] for one in calm] == [[], []]
    assert all("after the cold" in one["minds"][0] for one in cold), "told also where no press is known yet"
    assert calm[0]["coldest_c"] == -25
    assert calm[0]["known_by"] == "by the card"
    assert 0 < calm[0]["seal"]["squeeze"] < 0.4


def test_a_press_nobody_measured_is_refused(pump: Bench) -> None:
    """The collar of hole one was honed since it was read."""
    shown = _plan(pump, 1)
    assert shown["plan"] is None
    assert "never guessed" in shown["missing"]["text"]
    other = pump.client.get(f"/api/jobs/{job_called(pump.client, 'Winding Engine Tamsin')}/heat/1")
    assert other.status_code == 422


@pytest.mark.parametrize(("asked", "field"), [({"block_c": 900}, "block_c"), ({"humidity": 0}, "humidity"),
                                              ({"wanted_m": 0}, "wanted_m"), ({"enter_s": -1}, "enter_s")])  # fmt: skip
def test_a_temperature_that_is_none_is_refused_at_its_field(pump: Bench, asked: dict[str, Any], field: str) -> None:
    answer = pump.client.get(f"/api/jobs/{pump.job_id}/heat/2", params=asked)
    assert answer.status_code == 422
    assert field_of(answer) == field


def test_the_air_of_a_room_is_told_against_both_limits(client: TestClient) -> None:
    ice = client.get("/api/heat/room", params={"medium": "dry ice", "kg": 6}).json()
    assert ice["most_carbon_dioxide"] > ice["short_limit"]
    assert ice["least_oxygen"] > ice["oxygen_limit"]
    nitrogen = client.get("/api/heat/room", params={"medium": "liquid nitrogen", "kg": 20, "release_min": 5}).json()
    assert nitrogen["least_oxygen"] < nitrogen["oxygen_limit"]
    assert client.get("/api/heat/room", params={"medium": "oven"}).status_code == 422


def test_sums_alone_and_what_they_refuse(client: TestClient) -> None:
    """Worked by hand: a thin liner from dry ice has about 1.3 s; a logarithmic wall of 60 and 100 °C."""
    bore = {**DROP, "boss_od_m": 0.125, "liner_temperature_at_insertion_c": -78.5,
            "block_temperature_at_insertion_c": 20}  # fmt: skip
    found = client.post("/api/compute/in-the-bore", json=bore).json()
    assert found["time_clearance_lost_s"] == pytest.approx(1.32, abs=0.02)
    wall = {"hole_diameter_m": 0.1, "boss_od_m": 0.13, "alpha": 2e-5, "hole_face_c": 60, "outside_face_c": 100}
    grown = client.post("/api/compute/hole-growth", json=wall).json()
    assert 78 < grown["mean_temperature_c"] < 82.5
    assert grown["growth_m"] == pytest.approx(0.1 * 2e-5 * (grown["mean_temperature_c"] - 20))
    assert grown["growth_by_face_m"] == pytest.approx(0.1 * 2e-5 * 40)
    wets = client.post("/api/compute/dew", json={"dry_bulb_c": 25, "relative_humidity": 0.7, "surface_c": 10})
    assert wets.json()["gathers"] is True
    none = {"hole_diameter_m": 0.1, "liner_od_m": 0.1, "wanted_clearance_m": 1e-5, "alpha_block": 1e-5,
            "alpha_liner": 1e-5}  # fmt: skip
    touches = {**bore, "liner_temperature_at_insertion_c": 20}
    for road, wrong, field in (("in-the-bore", touches, "interference_diametral_m"),
                               ("temperatures", none, "liner_temperature_c"),
                               ("in-the-bore", {**bore, "liner_id_m": 0.2}, "liner_id_m")):  # fmt: skip
        refused = client.post(f"/api/compute/{road}", json=wrong)
        assert refused.status_code == 422
        assert field_of(refused) == field
