"""Walls, the ladder, decisions and scans over the API, on the invented jobs with their hidden truth."""

import random
from typing import Any
from uuid import uuid4

import numpy as np
import pytest
from fastapi.testclient import TestClient

from vallostasis.demo import hill_tractor as marram
from vallostasis.demo import scans_play

THOU = 25.4e-6


def job_named(client: TestClient, name: str) -> str:
    return next(one["job"]["job_id"] for one in client.get("/api/jobs").json() if one["job"]["name"] == name)


@pytest.fixture
def job(client: TestClient) -> str:
    return job_named(client, "Hill Tractor Marram")


@pytest.fixture
def wren_id(client: TestClient) -> str:
    return next(one["person_id"] for one in client.get("/api/people").json() if one["name"] == "Wren")


def get(client: TestClient, address: str) -> Any:
    answer = client.get(address)
    assert answer.status_code == 200, answer.text
    return answer.json()


def decide(client: TestClient, job: str, by: str, hole: int, choice: str = "bore to a step", **more: Any) -> Any:
    body = {"decision_id": str(uuid4()), "hole": hole, "choice": choice, "reason": "agreed with the owner",
            "person_id": by, **more}  # fmt: skip
    if choice == "bore to a step":
        body.setdefault("oversize_um", "508")
    return client.post(f"/api/jobs/{job}/bore-decisions", json=body)


def look(client: TestClient, job: str, by: str, hole: int, outcome: str, **more: Any) -> Any:
    body = {"look_id": str(uuid4()), "hole": hole, "outcome": outcome, "person_id": by, **more}
    return client.post(f"/api/jobs/{job}/bore-looks", json=body)


def test_the_wall_of_a_hole_is_its_hidden_truth_within_its_uncertainty(client: TestClient, job: str) -> None:
    wall = get(client, f"/api/jobs/{job}/walls/3?expanded=true")
    wear, field = wall["wear"], wall["wear"]["field"]
    within = 1.6 * max(dot["expanded_m"] for dot in wear["dots"])
    for row, depth in enumerate(field["depths_m"]):
        for column, angle in enumerate(field["angles_deg"]):
            value = field["values_m"][row][column]
            if depth * 1e6 < float(marram.RING_TOP) * 25400:
                assert value is None
            elif min(abs(depth - dot["depth_m"]) for dot in wear["dots"]) < 1e-6:
                turn = np.radians(angle)
                held = marram.clamped_um(depth * 1e6, turn) - marram.clamped_um(marram.BAND_UM, turn)
                truth = (marram.wear_um(3, depth * 1e6, turn) + held / 2) * 1e-6
                assert value == pytest.approx(truth, abs=within)
    assert wear["deepest"]["value_m"] == pytest.approx(7.0 * THOU, abs=1.5 * THOU)
    assert wear["deepest"]["angle_deg"] == pytest.approx(270, abs=15)
    assert wear["unworn_m"] == pytest.approx(marram.UNWORN_UM * 1e-6, abs=0.5 * THOU)
    # What there is to go is told at a depth: a cone starts from another size at each.
    assert wear["aim"] == "+20, not decided yet"
    finish = 3.770 * 0.0254
    assert [one["to_go_m"] + one["size_m"] for one in wear["starts"]] == pytest.approx([finish] * len(wear["starts"]))
    assert wear["starts"][1]["to_go_m"] < wear["starts"][5]["to_go_m"] - 5 * THOU
    assert [load["held"] for load in wall["loads"]] == ["free", "clamped"]
    assert wall["loads"][0]["why_not"].startswith("read free: the card's limits are for the clamped bore")
    assert wall["loads"][0]["state"] == "cannot tell"
    assert wall["loads"][1]["why_not"] == ""
    for load in wall["loads"]:
        expanded = [one for row in load["field"]["expanded_m"] for one in row if one is not None]
        assert 1e-7 < min(expanded) <= max(expanded) < 40e-6


def test_what_the_plate_does_is_found_at_the_same_places(client: TestClient, job: str) -> None:
    change = get(client, f"/api/jobs/{job}/walls/3")["changes"][0]
    for dot in change["dots"]:
        truth = marram.clamped_um(dot["depth_m"] * 1e6, np.radians(dot["angle_deg"])) * 1e-6
        assert dot["value_m"] == pytest.approx(truth, abs=1.6 * dot["expanded_m"])
    top = change["circles"][0]
    four = next(one for one in top["told"] if one["kind"] == "four lobes")
    fades = (1 - 0.4 / 3.4) ** 2
    assert four["value_m"] == pytest.approx(2 * 0.55 * fades * THOU, abs=four["expanded_m"])
    assert top["mean_m"] == pytest.approx(-0.35 * fades * THOU, abs=top["expanded_m"])


def test_a_pattern_of_two_axes_draws_no_field(client: TestClient) -> None:
    boat = job_named(client, "Narrow-boat Quillet")
    wall = get(client, f"/api/jobs/{boat}/walls/2?of=block bore")
    assert len(wall["changes"]) == 1
    assert any("four lobes, as head bolts pull them, would" in line for line in wall["blind"])
    refused = client.get(f"/api/jobs/{boat}/walls/2?of=main bore")
    assert refused.status_code == 422
    assert refused.json()["problems"][0]["field"] == "of"
    assert client.get(f"/api/jobs/{boat}/walls/9").status_code == 422


def test_the_ladder_says_which_bore_decides_and_what_is_left(client: TestClient, job: str) -> None:
    view = get(client, f"/api/jobs/{job}/clean-up")
    by_hole = {one["hole"]: one for one in view["holes"]}
    assert view["worst"] == 3
    assert view["try_first"]["typed"] == "20"
    # Hidden truth: 7.0 + 5.8 a side for the score, 1.5 for the hone, twice; the centre moves by 5 at the most.
    third = by_hole[3]
    assert third["drawn"]["most_m"] / THOU == pytest.approx(0.1 + 2 * (7.0 + 5.8) + 3.0, abs=2.5)
    assert third["best"]["most_m"] < third["drawn"]["most_m"] - 8 * THOU
    assert third["best"]["move_m"] <= 5.0 * THOU + 1e-9
    assert [rung["drawn"] for rung in third["rungs"]][:2] == ["out", "in"]
    assert third["rungs"][0]["best"] == "cannot tell"
    assert [by_hole[hole]["rungs"][0]["best"] for hole in (1, 2)] == ["in", "in"]
    # One step was written down on the diameter: opposite steps and the diameter across them do not add up.
    assert any("do not add up" in doubt and "upper travel" in doubt for doubt in by_hole[4]["doubts"])
    assert by_hole[4]["rungs"][0]["state"] == "cannot tell"
    for hole in by_hole.values():
        walls = [rung["wall"]["left_m"] for rung in hole["rungs"]]
        assert walls == sorted(walls, reverse=True)
        assert walls[0] < hole["wall_now"]["left_m"]
        assert [rung["wall"]["rebores"] for rung in hole["rungs"]][:3] == [2, 1, 0]
    assert view["headline"].startswith("Bore number 3 first, to +17.0, 3.0 thou left to hone")


def test_deciding_sets_the_route_and_what_contradicts_it_stops_it(client: TestClient, job: str, wren_id: str) -> None:
    for hole in (1, 2, 3, 4):
        answer = decide(client, job, wren_id, hole, **({"move": "4.8", "toward_hour": 5.8, "bare_unit": "thou"}
                                                       if hole == 3 else {}))  # fmt: skip
        assert answer.status_code == 201, answer.text
    mark = {"operation": "decide", "kind": "done", "words": "agreed by telephone", "person_id": wren_id}
    marked = client.post(f"/api/jobs/{job}/route/marks", json=mark)
    assert marked.status_code in (200, 201), marked.text
    first = look(client, job, wren_id, 3, "a dark patch is left")
    assert first.json()["problems"][0]["field"] == "hour"
    dark = look(
        client, job, wren_id, 3, "a dark patch is left", hour=5.75, from_depth="0.9 in", words="as long as a thumb"
    )
    assert dark.status_code == 201, dark.text
    view = get(client, f"/api/jobs/{job}/clean-up")
    (against,) = view["contradictions"]
    assert (against["hole"], against["holes"], against["following"]["typed"]) == (3, [1, 2, 3, 4], "40")
    assert "bore 3 does not clean up" in against["words"]
    assert "as long as a thumb" in against["message"]
    assert "3 weeks" in against["message"]
    route = get(client, f"/api/jobs/{job}/route")
    assert "agree it anew" in str(route["operations"])
    assert any("agree it anew" in hold["missing"] for hold in route["holds"])
    assert look(client, job, wren_id, 3, "bright all round").status_code == 409
    for hole in (1, 2, 3, 4):
        assert decide(client, job, wren_id, hole, oversize_um="1016").status_code == 201
    assert get(client, f"/api/jobs/{job}/clean-up")["contradictions"] == []
    assert "agree it anew" not in str(get(client, f"/api/jobs/{job}/route")["holds"])
    assert look(client, job, wren_id, 3, "bright all round").status_code == 201


@pytest.mark.parametrize(
    ("hole", "more", "field"),
    [
        (3, {"reason": " "}, "reason"),
        (3, {"oversize_um": "500"}, "oversize_um"),
        (3, {"choice": "leave as it is"}, "concession"),
        (
            3,
            {"choice": "leave as it is", "concession": "a stripe", "profile": "high boost", "use_limit": "none"},
            "profile",
        ),
        (3, {"choice": "leave as it is", "concession": "a stripe", "profile": "show"}, "use_limit"),
        (3, {"move": "9 thou", "toward_hour": 6}, "move"),
        (3, {"move": "3 thou"}, "toward_hour"),
        (9, {}, "hole"),
    ],
)
def test_a_decision_that_cannot_stand_is_refused_at_its_field(
    client: TestClient, job: str, wren_id: str, hole: int, more: dict[str, Any], field: str
) -> None:
    answer = decide(client, job, wren_id, hole, **{"oversize_um": "508", **more} if "choice" not in more else more)
    assert answer.status_code == 422, answer.text
    assert field in [one["field"] for one in answer.json()["problems"]]


def test_a_concession_by_name_lets_a_bore_be_left(client: TestClient, job: str, wren_id: str) -> None:
    answer = decide(client, job, wren_id, 1, "leave as it is", concession="nine thou of wear", profile="show",
                    use_limit="an hour a month, no load")  # fmt: skip
    assert answer.status_code == 201, answer.text
    view = get(client, f"/api/jobs/{job}/clean-up")
    assert view["holes"][0]["decision"]["concession"] == "nine thou of wear"
    points = str(get(client, f"/api/jobs/{job}/route")["open_points"])
    assert "hole 1 is out" not in points
    assert "hole 2 is out" in points
    proof = client.get(f"/api/jobs/{job}/proof.html").text
    assert "nine thou of wear; for show use, not for an hour a month, no load" in proof
    wear = proof[proof.index("Wear step, hole 1") : proof.index("Wear step, hole 2")]
    assert [f">{hour}h<" in wear for hour in range(1, 13)] == [True] * 12
    assert wear.count('<td class="n">') == 60, "every reading round the clock is printed"


def wall_mark(client: TestClient, job: str, by: str, **more: Any) -> Any:
    body = {"finding_id": str(uuid4()), "kind": "mark on the wall", "hole": 2, "part": "bore", "word": "score",
            "hour": 4.5, "from_depth": "1.2", "until_depth": "2", "bare_unit": "thou", "person_id": by,
            **more}  # fmt: skip
    return client.post(f"/api/jobs/{job}/strip-record/findings", json=body)


def test_a_score_is_placed_and_asked_how_deep(client: TestClient, job: str, wren_id: str) -> None:
    assert wall_mark(client, job, wren_id, from_depth="").json()["problems"][0]["field"] == "from_depth"
    assert wall_mark(client, job, wren_id, until_depth="1").json()["problems"][0]["field"] == "until_depth"
    assert wall_mark(client, job, wren_id, hour=None).json()["problems"][0]["field"] == "hour"
    assert wall_mark(client, job, wren_id, catches=True).status_code == 201
    second = next(one for one in get(client, f"/api/jobs/{job}/clean-up")["holes"] if one["hole"] == 2)
    assert any("score A catches a nail: read how deep it is" in doubt for doubt in second["doubts"])
    assert second["rungs"][0]["state"] == "cannot tell"
    mark = get(client, f"/api/jobs/{job}/walls/2")["marks"][0]
    assert (mark["letter"], mark["angle_deg"], mark["finding"]["from_m"]) == ("A", 225.0, pytest.approx(1.2 * 0.0254))


def test_stripes_show_which_way_a_bore_is_oval(client: TestClient, job: str, wren_id: str) -> None:
    for hour, until in ((11.5, 0.5), (5.5, 6.5)):
        answer = wall_mark(client, job, wren_id, word="dark area", hour=hour, until_hour=until,
                           in_round="rough stones")  # fmt: skip
        assert answer.status_code == 201, answer.text
    wall = get(client, f"/api/jobs/{job}/walls/2")
    assert "across the crank" in wall["stripes"]


def scan_of(client: TestClient, job: str, hole: int, clamped: bool) -> bytes:
    return client.get(f"/api/jobs/{job}/simulated-scan.csv?hole={hole}&clamped={clamped}").content


def bring(client: TestClient, job: str, by: str, content: bytes, **more: Any) -> Any:
    form = {"scan_id": str(uuid4()), "hole": "3", "person_id": by, **{k: str(v) for k, v in more.items()}}
    return client.post(f"/api/jobs/{job}/scans", data=form, files={"file": ("bore.csv", content, "text/csv")})


def test_a_scan_comes_in_whole_and_finds_the_hidden_truth(client: TestClient, job: str, wren_id: str) -> None:
    content = scan_of(client, job, 3, False)
    head = client.post(
        f"/api/jobs/{job}/scans/preview", files={"file": ("bore.csv", content[:4000], "text/csv")}
    ).json()
    assert (head["kind"], head["columns"], head["unit"]) == ("angle, level, radius", [0, 1, 2], "mm")
    assert bring(client, job, wren_id, content, load="free, no plate").json()["points"] == 8 * 720
    assert (
        bring(client, job, wren_id, scan_of(client, job, 3, True), load="torque plate on, gasket in").status_code == 201
    )
    scans = get(client, f"/api/jobs/{job}/scans?hole=3")
    first = scans["scans"][0]
    wall = scans_play.wall_of(marram.NUMBER, marram.spec_card(), 3, False)
    for level in first["levels"]:
        radii = np.array([wall(level["depth_m"] * 1e6, angle) for angle in np.radians(np.arange(0, 360, 0.5))])
        squares, zone = (next(c for c in level["circles"] if c["reference"] == name)
                         for name in ("least squares", "minimum zone"))  # fmt: skip
        assert squares["diameter_m"] == pytest.approx(2e-6 * radii.mean(), abs=1e-6)
        assert zone["roundness_m"] <= squares["roundness_m"] + 1e-9
    change = scans["changes"][0]
    top = change["levels"][0]
    angles = np.radians(np.arange(0, 360, 1.0))
    truth = np.array([marram.clamped_um(top["depth_m"] * 1e6, angle) for angle in angles])
    assert top["size_m"] == pytest.approx(truth.mean() * 1e-6, abs=1e-6)
    four = next(one for one in top["lobes"] if one["order"] == 4)
    parts = np.fft.rfft(truth / 2) / len(truth) * 2
    assert four["amplitude_m"] == pytest.approx(abs(parts[4]) * 1e-6, abs=0.3e-6)
    points = client.get(f"/api/jobs/{job}/scans/{first['scan_id']}/points.csv").text.splitlines()
    assert len(points) == 8 * 720 + 1
    filtered = get(client, f"/api/jobs/{job}/scans?hole=3&cut_off_upr=15")["scans"][0]["levels"][0]["circles"]
    whole = first["levels"][0]["circles"]
    assert filtered[1]["roundness_m"] < whole[1]["roundness_m"]
    assert client.get(f"/api/jobs/{job}/scans?hole=3&cut_off_upr=16").status_code == 422


def test_cartesian_points_turned_and_in_inches_are_the_same_bore(client: TestClient, job: str, wren_id: str) -> None:
    rows = [line.split(",") for line in scan_of(client, job, 1, False).decode().splitlines()[2:]]
    lines = ["x,y,z"]
    for angle, level, radius in rows:
        turn = -np.radians(float(angle)) + np.pi / 2
        x, y = float(radius) * np.cos(turn) / 25.4, float(radius) * np.sin(turn) / 25.4
        lines.append(f"{x:.8f},{y:.8f},{-float(level) / 25.4:.8f}")
    polar = bring(client, job, wren_id, scan_of(client, job, 1, False), hole=1)
    other = bring(client, job, wren_id, "\n".join(lines).encode(), hole=2, kind="x, y, z", unit="inch",
                  depth_unit="inch", front="+y", turn="counter-clockwise", depth_is_up=True)  # fmt: skip
    assert (polar.status_code, other.status_code) == (201, 201), other.text
    one, two = (get(client, f"/api/jobs/{job}/scans?hole={hole}")["scans"][0] for hole in (1, 2))
    for a, b in zip(one["levels"], two["levels"], strict=True):
        for c, d in zip(a["circles"], b["circles"], strict=True):
            assert d["diameter_m"] == pytest.approx(c["diameter_m"], abs=1.5e-9)
        assert [x["direction_deg"] for x in b["lobes"][:1]] == pytest.approx(
            [x["direction_deg"] for x in a["lobes"][:1]], abs=0.5)  # fmt: skip


@pytest.mark.parametrize(
    ("change", "more", "field", "words"),
    [
        (lambda b: b, {"unit": "inch"}, "unit", "choose mm"),
        (lambda b: b, {"first": 2, "third": 0}, "unit", "radius"),
        (lambda b: b, {"first": 1, "second": 1}, "columns", "three different"),
        (lambda b: b, {"third": 9}, "columns", "three different"),
        (lambda b: b[:20_000] + b"\n12,oops,3\n", {}, "file", "lacks a number"),
        (lambda _: b"", {}, "file", "empty"),
        (lambda _: b"1,2\n3,4\n", {}, "file", "three columns"),
        (lambda b: b.replace(b"level_mm", b"depth"), {"depth_unit": "m"}, "depth_unit", "depth"),
    ],
)
def test_a_scan_that_cannot_be_is_refused_and_leaves_nothing(
    client: TestClient, job: str, wren_id: str, change: Any, more: dict[str, Any], field: str, words: str
) -> None:
    answer = bring(client, job, wren_id, change(scan_of(client, job, 3, False)), **more)
    assert answer.status_code == 422, answer.text
    problem = answer.json()["problems"][0]
    assert problem["field"] == field
    assert words in problem["message"]
    assert get(client, f"/api/jobs/{job}/scans?hole=3")["scans"] == []


def test_sending_a_scan_again_doubles_nothing_and_undo_strikes_it(client: TestClient, job: str, wren_id: str) -> None:
    content, scan_id = scan_of(client, job, 3, False), str(uuid4())
    for _ in range(2):
        assert bring(client, job, wren_id, content, scan_id=scan_id).status_code == 201
    assert len(get(client, f"/api/jobs/{job}/scans?hole=3")["scans"]) == 1
    points = client.get(f"/api/jobs/{job}/scans/{scan_id}/points.csv").text.splitlines()
    assert len(points) == 8 * 720 + 1


def test_a_plate_unlike_the_build_is_not_judged(client: TestClient, job: str, wren_id: str) -> None:
    setup = get(client, f"/api/jobs/{job}/surveys/block bore/hole-1")["setup"]
    body = {"quantity": "block bore", "gauge_id": setup["gauge"]["gauge_id"], "zeroed_on": "nominal",
            "load": "torque plate on, no gasket", "hold_down": "set screws", "hold_down_torque": "60",
            "person_id": wren_id}  # fmt: skip
    assert client.post(f"/api/jobs/{job}/setups", json=body).status_code in (200, 201)
    reading = {"reading_id": str(uuid4()), "quantity": "block bore", "part": "hole-1", "level_um": "10160",
               "axis_deg": 0, "text": "0.1", "bare_unit": "thou", "confirmed": True, "person_id": wren_id}  # fmt: skip
    taken = client.post(f"/api/jobs/{job}/readings", json=reading)
    assert taken.status_code in (200, 201), taken.text
    newest = get(client, f"/api/jobs/{job}/walls/1")["loads"][-1]
    assert newest["why_not"].startswith("the plate was not on as in the build")
    assert len(newest["differs"]) == 3


def test_a_probing_comes_in_and_finds_how_the_cores_wandered(client: TestClient, job: str, wren_id: str) -> None:
    content = client.get(f"/api/jobs/{job}/simulated-probe.csv").content
    form = {"probe_id": str(uuid4()), "person_id": wren_id}

    def send(content: bytes, **more: str) -> Any:
        return client.post(f"/api/jobs/{job}/probes", data={**form, **more}, files={"file": ("p.csv", content)})

    wrong = send(content, unit="inch").json()["problems"][0]
    assert (wrong["field"], "check the unit" in wrong["message"]) == ("unit", True)
    assert "Line 3" in send(b"part,x,y,z\ndeck,0,0,0\nbore,1,2\n").json()["message"]
    assert "no bore 9" in send(content + b"9,1,2,3\n").json()["message"]
    assert "three points" in send(b"1,1,2,3\n").json()["message"]
    for _ in range(2):
        assert send(content).status_code == 201
    probed = get(client, f"/api/jobs/{job}/probe")
    # The cores of this block wander by 25 µm each way: by the job's own hidden truth.
    truth = random.Random(marram.NUMBER)
    off = []
    for _ in range(4):
        off.append((truth.gauss(0, 25), truth.gauss(0, 25)))
        truth.gauss(0, 1), truth.gauss(0, 1)
    pitch = 4.5 * 25400
    for one in probed["distances"]:
        a, b = (off[hole - 1] for hole in one["holes"])
        distance = np.hypot(pitch + b[0] - a[0], b[1] - a[1])
        assert one["off_m"] == pytest.approx((distance - pitch) * 1e-6, abs=4e-6)
    assert len(probed["bores"]) == 4
    assert max(one["shift_m"] for one in probed["bores"]) < 120e-6
