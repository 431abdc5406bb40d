"""From a block made ready to a ledge that is proved, over HTTP on a real PostgreSQL."""

from concurrent.futures import ThreadPoolExecutor
from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient
from httpx2 import Response

from tests.api.bench import READY, Bench, field_of

CHECKS = ("oil drops in the tool", "bolts by hand, then torque while turning", "even witness all round",
          "collar locked", "stop set", "touched off on the high spot")  # fmt: skip


@pytest.fixture
def bench(client: TestClient) -> Bench:
    return Bench.at_demo(client)


def _job(bench: Bench, path: str, **body: Any) -> Response:
    return bench.client.post(f"/api/jobs/{bench.job_id}/{path}", json={**body, "person_id": bench.person_id})


def _get(bench: Bench, path: str) -> Any:
    answer = bench.client.get(f"/api/jobs/{bench.job_id}/{path}")
    assert answer.status_code == 200, answer.text
    return answer.json()


class Cutting:
    """One run at one hole."""

    def __init__(self, bench: Bench, number: int) -> None:
        self.bench, self.run_id = bench, str(uuid4())
        self.url = f"/api/holes/{bench.hole(number)['hole_id']}"
        self.number = number

    def post(self, path: str, **body: Any) -> Response:
        return self.bench.client.post(f"{self.url}/{path}", json={**body, "person_id": self.bench.person_id})

    def begin(self, **body: Any) -> Response:
        return self.post("cut-runs", run_id=self.run_id, **body)

    def tap(self, number: int, pass_id: str = "") -> Response:
        return self.post(f"cut-runs/{self.run_id}/passes", pass_id=pass_id or str(uuid4()), number=number)

    def mark(self, kind: str, **more: Any) -> Response:
        return self.post(f"cut-runs/{self.run_id}/marks", run_mark_id=str(uuid4()), kind=kind, **more)

    def ready(self) -> None:
        for kind in CHECKS:
            assert self.mark(kind).status_code == 201

    @property
    def now(self) -> dict[str, Any]:
        answer: dict[str, Any] = self.bench.client.get(f"{self.url}/cut-run").json()
        return answer


def test_plugs_hold_the_wash_until_they_are_out(bench: Bench) -> None:
    ready = _get(bench, "preparation")
    assert ready["plugs"][0] == {"place": "bores", "went_in": 6, "came_out": 0}
    refused = _job(bench, "route/marks", operation="wash", count=0)
    assert refused.status_code == 409
    assert "6 plugs went in, 0 came out" in refused.json()["message"]
    for place, count in (("bores", 6), ("oil holes", 9), ("journals", 7)):
        step = _job(bench, "preparation/steps", prep_step_id=str(uuid4()), kind="plugs out", place=place, count=count)
        assert step.status_code == 201
    assert _get(bench, "preparation")["plugs_missing"] == ""
    assert "plugs went in" not in _job(bench, "route/marks", operation="wash").json().get("message", "")
    assert bench.undo() == "7 plugs out of the journals" or bench.undo_step() is not None


def test_a_power_tool_is_refused_at_its_field_and_a_step_sent_twice_counts_once(bench: Bench) -> None:
    refused = _job(bench, "preparation/steps", prep_step_id=str(uuid4()), kind="deck scraped", place="angle grinder",
                   count=1)  # fmt: skip
    assert refused.status_code == 422
    assert (field_of(refused), "hollow" in refused.json()["message"]) == ("place", True)
    before, key = _get(bench, "preparation")["scraped"], str(uuid4())
    for _ in range(2):
        assert _job(bench, "preparation/steps", prep_step_id=key, kind="deck scraped", place="flat stone",
                    count=1).status_code == 201  # fmt: skip
    assert _get(bench, "preparation")["scraped"] == before + 1


def test_marks_lie_where_they_were_pointed_to_and_say_what_they_ask_for(bench: Bench) -> None:
    marks = {one["finding"]["hole"]: one["verdict"] for one in _get(bench, "preparation")["marks"]}
    assert marks == {2: "skim or repair", 4: "may stay"}
    body = {"finding_id": str(uuid4()), "kind": "mark on deck or ledge", "hole": 5, "part": "ledge", "word": "pit"}
    refused = _job(bench, "strip-record/findings", **body, figure="0.12")
    assert (refused.status_code, field_of(refused)) == (422, "hour")
    assert _job(bench, "strip-record/findings", **body, figure="0.12", hour=6).status_code == 201
    plan = bench.client.get(f"/api/holes/{bench.hole(5)['hole_id']}/cut-plan").json()["plan"]
    # The pit ends at 8.870 and 0.12 mm deeper at 6 h: thinner shims leave it.
    assert plan["depth_m"] >= 8.985e-3
    skim = _get(bench, "preparation")
    assert skim["skim_m"] == pytest.approx(60e-6)
    assert {one["name"]: one["by_skim_m"] > 0 for one in skim["dependents"]}["piston to valve"] is False


def test_no_plan_without_the_corner_and_a_waiver_needs_a_reason(bench: Bench) -> None:
    body = {"kind": "corner of the ledge", "hole": 5}
    sharp = _job(bench, "preparation/inspections", inspection_id=str(uuid4()), **body, outcome="sound", radius="1.5")
    assert sharp.status_code == 201
    read = bench.client.get(f"/api/holes/{bench.hole(5)['hole_id']}/cut-plan").json()
    # The bit of the card leaves 0.4 mm, which clears an edge of 0.8: the corner as found is cut away.
    assert read["plan"] is not None
    refused = _job(bench, "preparation/inspections", inspection_id=str(uuid4()), **body, outcome="waived")
    assert (refused.status_code, field_of(refused)) == (422, "words")
    refused = _job(bench, "preparation/inspections", inspection_id=str(uuid4()), **body, outcome="sound")
    assert (refused.status_code, field_of(refused)) == (422, "radius")


def test_the_plan_of_the_block_is_tried_chosen_and_says_what_differs(bench: Bench) -> None:
    plans = _get(bench, "block-plan")
    by_rule = {one["rule"]: one for one in plans["plans"]}
    assert by_rule["best"]["order"] == [5, 6]
    assert by_rule["only those outside"]["order"] == [5]
    assert by_rule["best"]["proven_best"]
    depths = {one["cut"]["depth_m"] for one in by_rule["all to one depth"]["holes"] if one["cut"]}
    assert len(depths) == 1
    tried = _job(bench, "block-plan/try", holes=[{"hole": 6, "lock": "leave it"}, {"hole": 5, "shim": "0.25"}])
    best = next(one for one in tried.json()["plans"] if one["rule"] == "best")
    assert [(one["hole"], one["cut"]["shim_m"]) for one in best["holes"] if one["cut"]] == [(5, 0.25e-3)]
    assert _get(bench, "block-plan")["chosen"] is None
    refused = _job(bench, "block-plan/try", holes=[{"hole": 5, "shim": "0.33"}])
    assert (refused.status_code, field_of(refused)) == (422, "holes.0.shim")
    assert _job(bench, "block-plan", rule="best", datum="deck").status_code == 201
    chosen = _get(bench, "block-plan")["chosen"]
    assert (chosen["version"], chosen["order"], chosen["chosen_by"], chosen["differences"]) == (1, [5, 6], "Wren", [])
    assert _job(bench, "block-plan", rule="only those outside", datum="touch-off").status_code == 201
    again = _get(bench, "block-plan")["chosen"]
    assert (again["version"], again["datum"], again["order"]) == (2, "touch-off", [5])
    # A deeper ledge is read, which the parts contradict: worked out anew hole 5 cannot be cut.
    for hour in (12, 3, 6, 9):
        taken = bench.take("8.930", quantity="counterbore depth", bare_unit="mm", hole=5, hour=hour, confirmed=True,
                           read_before="correct")  # fmt: skip
        assert taken.status_code == 201, taken.text
    differs = _get(bench, "block-plan")["chosen"]["differences"]
    assert [one.split(":")[0] for one in differs] == ["hole 5"]


def test_a_run_from_checks_to_a_proved_ledge(bench: Bench) -> None:
    cutting = Cutting(bench, 5)
    assert cutting.begin().status_code == 201
    assert cutting.now["run"]["state"] == "checks before the first pass"
    early = cutting.tap(1)
    assert early.status_code == 409
    assert "not before" in early.json()["message"]
    cutting.ready()
    run = cutting.now["run"]
    assert (run["count"], run["of"]) == (0, 3)
    for number in range(1, run["of"] + 1):
        answer = cutting.tap(number)
        assert answer.status_code == 201
        assert answer.json()["run"]["count"] == number
    assert cutting.now["run"]["state"] == "count is done"
    assert "not reached" in cutting.now["run"]["says"]["text"]
    assert cutting.mark("stop reached").status_code == 201
    assert cutting.post(f"cut-runs/{cutting.run_id}/finish").status_code == 201
    now = cutting.now
    assert now["run"] is None
    assert {row["kind"]: row["state"] for row in now["proof"]["rows"]}["depth"] == "not measured"
    for kind in ("burr knocked off", "shim lies in the counterbore"):
        assert cutting.mark(kind).status_code == 201
    for hour in (12, 3, 6, 9):
        taken = bench.take("8.899", quantity="counterbore depth", bare_unit="mm", hole=5, hour=hour)
        assert taken.status_code == 201, taken.text
    assert cutting.now["proof"]["proved"]
    fitted = cutting.post("fittings", fitting_id=str(uuid4()), liner_mark="L6", ready=READY,
                          shims=[{"nominal": "0.1 mm", "measured": "0.101 mm"}])  # fmt: skip
    assert fitted.status_code == 201, fitted.text
    for hour in (12, 3, 6, 9):
        assert bench.take("10.2", hole=5, hour=hour).status_code == 201
    assert bench.hole(5)["state"] == "in"


def test_too_deep_is_planned_anew_with_the_next_shim(bench: Bench) -> None:
    cutting = Cutting(bench, 5)
    assert cutting.begin().status_code == 201
    cutting.ready()
    for number in (1, 2, 3):
        cutting.tap(number)
    cutting.mark("stop reached")
    cutting.post(f"cut-runs/{cutting.run_id}/finish")
    cutting.mark("burr knocked off")
    for hour in (12, 3, 6, 9):
        assert bench.take("8.960", quantity="counterbore depth", bare_unit="mm", hole=5, hour=hour,
                          confirmed=True).status_code == 201  # fmt: skip
    proof = cutting.now["proof"]
    assert proof["over_m"] == pytest.approx(62e-6, abs=3e-6)
    plan = bench.client.get(f"{cutting.url}/cut-plan", params={"liner_mark": "L6"}).json()["plan"]
    assert plan["shim_m"] > 0.1e-3
    again = Cutting(bench, 5)
    assert again.begin(depth="9.000 mm", shim="0.2 mm", hold_reason="the next shim").status_code == 201


def test_the_second_of_two_taps_is_refused_and_the_same_tap_again_is_not(bench: Bench) -> None:
    cutting = Cutting(bench, 5)
    cutting.begin(depth="9.298 mm", shim="0.5 mm")
    cutting.ready()
    same = str(uuid4())
    assert cutting.tap(1, same).status_code == 201
    assert cutting.tap(1, same).status_code == 201
    twice = cutting.tap(1)
    assert twice.status_code == 409
    assert "pass 1 is counted already" in twice.json()["message"]
    assert cutting.now["run"]["count"] == 1
    assert cutting.post(f"cut-runs/{cutting.run_id}/undo", number=1).status_code == 201
    assert cutting.now["run"]["count"] == 0
    assert cutting.post(f"cut-runs/{cutting.run_id}/undo", number=1).status_code == 409
    assert cutting.tap(1).status_code == 201


def test_two_devices_at_one_run_lose_no_pass_and_count_none_twice(bench: Bench) -> None:
    cutting = Cutting(bench, 5)
    cutting.begin(depth="9.298 mm", shim="0.5 mm")
    cutting.ready()
    with ThreadPoolExecutor(4) as pool:
        for number in range(1, 13):
            codes = sorted(answer.status_code for answer in pool.map(lambda _, n=number: cutting.tap(n), range(4)))
            assert codes == [201, 409, 409, 409]
    assert cutting.now["run"]["count"] == 12
    assert [one["number"] for one in cutting.now["run"]["passes"]] == list(range(1, 13))
    other = Cutting(bench, 5)
    refused = other.begin()
    assert refused.status_code == 409
    assert "being cut already: 12 of 23" in refused.json()["message"]


def test_a_measured_depth_far_from_the_count_is_asked_about(bench: Bench) -> None:
    cutting = Cutting(bench, 5)
    cutting.begin(depth="9.298 mm", shim="0.5 mm")
    cutting.ready()
    for number in range(1, 21):
        cutting.tap(number)
    assert cutting.now["run"]["state"] == "stop and measure"
    asked = cutting.mark("measured on the way", depth="9.12")
    assert (asked.status_code, field_of(asked)) == (409, "depth")
    assert cutting.mark("measured on the way", depth="").status_code == 422
    assert cutting.mark("measured on the way", depth="9.243").status_code == 201
    run = cutting.now["run"]
    assert run["to_go_m"] == pytest.approx(55e-6)
    assert (run["of"] - run["count"], round(run["part_pass_m"] * 1e6)) == (3, 15)
    reached = cutting.mark("stop reached")
    assert reached.json()["run"]["agree"] is False
    assert "too soon" in reached.json()["run"]["says"]["text"]


def test_hold_points_stand_before_a_run(bench: Bench) -> None:
    event = next(one["event"] for one in _get(bench, "preparation")["inspections"]
                 if one["kind"] == "crack check of the ledge")  # fmt: skip
    struck = bench.client.post(bench.tape_url(event), json={"struck": True, "person_id": bench.person_id})
    assert struck.status_code == 201
    cutting = Cutting(bench, 5)
    held = cutting.begin()
    assert (held.status_code, held.json()["code"]) == (409, "hold point")
    assert "no crack check of the ledge of hole 5" in held.json()["message"]
    assert cutting.begin(hold_reason="dye is on its way").status_code == 201


def test_a_cutter_has_a_card_in_versions_and_teaches(client: TestClient, bench: Bench) -> None:
    known = client.get("/api/cutters").json()
    assert [one["name"] for one in known] == ["portable counterbore cutter"]
    learned = known[0]["learned"][0]
    assert (learned["graduation_m"]["n"], learned["graduation_m"]["is_enough"]) == (5, True)
    assert learned["graduation_m"]["value"] == pytest.approx(20e-6, rel=0.06)
    body = {"name": "portable counterbore cutter", "graduation": "0.02", "stop_accuracy": "0.03",
            "person_id": bench.person_id}  # fmt: skip
    assert client.post("/api/cutters", json=body).status_code == 409
    saved = client.post("/api/cutters", json={**body, "based_on_version": 1})
    assert saved.status_code == 201
    assert saved.json()[0]["version"] == 2
    missing = client.post("/api/cutters", json={**body, "name": "New", "graduation": ""})
    assert (missing.status_code, field_of(missing)) == (422, "graduation")
    trust = _get(bench, "block-plan")["trust"]
    assert trust["basis"] == "own experience, 5 runs"


def test_sums_of_plan_and_cutter_stand_alone(client: TestClient) -> None:
    holes = [{"hole": n, "present_depths_m": [d, d + 6e-6], "flange_m": 8.9e-3, "protrusion_m": 8.9e-3 - d}
             for n, d in ((1, 8.81e-3), (2, 8.86e-3))]  # fmt: skip
    ask = {"holes": holes, "shims": [{"size_m": 1e-4, "stock": 1}], "target_protrusion_m": 1e-4,
           "min_protrusion_m": 7.5e-5, "max_protrusion_m": 1.25e-4, "min_cleanup_cut_m": 2.5e-5,
           "min_without_shim_m": 5e-5, "u_depth_m": 1e-6, "u_flange_m": 1e-6, "u_protrusion_m": 2e-6,
           "max_neighbour_difference_m": 5e-5}  # fmt: skip
    answer = client.post("/api/compute/block-plan", json=ask)
    assert answer.status_code == 200, answer.text
    plan = answer.json()
    assert (plan["holes_open"], plan["holes_cut"], plan["order"], plan["proven_best"]) == (0, 1, [2], True)
    assert plan["holes"][1]["target_depth_m"] == pytest.approx(8.9e-3)
    # By hand: 10 passes make 203 µm, 20 make 406: 20.3 a graduation, nothing scatters.
    runs = [{"passes": n, "change_m": 20.3e-6 * n, "pass_s": [60, 62]} for n in (10, 20)]
    learned = client.post("/api/compute/learned-cutter", json={"runs": runs}).json()
    assert learned["graduation_m"] == pytest.approx(20.3e-6)
    assert learned["graduation_U_m"] == pytest.approx(0, abs=1e-12)
    assert (learned["n"], learned["is_enough"]) == (2, False)


def test_the_starboard_engine_brings_five_runs_and_one_stopped_at_pass_seven(client: TestClient) -> None:
    jobs = client.get("/api/jobs").json()
    job = next(one["job"]["job_id"] for one in jobs if one["job"]["name"] == "Ferry Lanthorn, starboard")
    block = client.get(f"/api/jobs/{job}/block").json()
    found = [client.get(f"/api/holes/{hole['hole_id']}/cut-run").json() for hole in block["holes"]]
    assert [one["proof"]["proved"] for one in found[:5]] == [True] * 5
    run = found[5]["run"]
    assert (run["count"], run["of"], run["passes"][-1]["number"]) == (7, 10, 7)
    # The shelf is short of one quarter-millimetre shim.
    needs = {one["typed"]: one["to_order"] for one in block["shims"]} if "shims" in block else {}
    assert needs == {} or max(needs.values()) >= 1
