"""Promises that hold for every endpoint: error shape, no 5xx whatever is sent, headers, health."""

import copy
import json
from collections.abc import Iterator
from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient

from tests.api.bench import Bench, assert_refusal_shape
from tests.api.document import operations
from tests.conftest import at_this_machine
from tests.deep import DEEP
from vallostasis.settings import Settings

NASTY: list[Any] = [
    "", "abc", "\x00", "'; DROP TABLE reading; --", "9" * 4000, "٣", -1, 0, 10**30, 1e308, True, None, [], {},
    [[]], {"typed": None}, "00000000-0000-0000-0000-000000000000",
]  # fmt: skip


def _filled(path: str, value: str) -> str:
    for part in path.split("/"):
        if part.startswith("{"):
            path = path.replace(part, value)
    return path


def test_unknown_and_broken_ids_are_refused_in_one_shape(client: TestClient) -> None:
    tried = 0
    for method, path, _ in operations():
        if "{" not in path:
            continue
        for value in (str(uuid4()), "5", "%00", "x" * 300):
            response = client.request(method, _filled(path, value), json={})
            assert response.status_code in (404, 422), (method, path, value, response.text)
            assert_refusal_shape(response)
            tried += 1
    assert tried >= 40


def _examples(bench: Bench) -> list[tuple[str, dict[str, Any]]]:
    """One good body for every address that takes one."""
    block = bench.block()
    hole, who = block["holes"][4], {"person_id": bench.person_id}
    version = block["card"]["version"]
    card = bench.client.get(f"/api/spec-cards/{version['spec_card_id']}").json()["cards"][0]
    setup = block["setups"][0]
    gauge = {"name": "Another", "kind": "depth gauge", "resolution": "1", "repeatability": "1"}
    job = f"/api/jobs/{bench.job_id}"
    hole_url = f"/api/holes/{hole['hole_id']}"
    everybody = [person["person_id"] for person in bench.client.get("/api/people").json()][:2]
    plan = {"present_depths_m": [8.85e-3], "flange_m": 8.9e-3, "target_protrusion_m": 1e-4, "min_protrusion_m": 7e-5,
            "max_protrusion_m": 1.2e-4, "shims_m": [2e-4], "min_cleanup_cut_m": 2e-5}  # fmt: skip
    rings = {"liner_id_m": 0.1, "liner_od_m": 0.104, "boss_od_m": 0.125, "liner": {"E": 1.1e11, "nu": 0.26},
             "block": {"E": 1.05e11, "nu": 0.26}}  # fmt: skip
    pull = f"{job}/pulls/5"
    drop = {
        "liner_id_m": 0.1,
        "liner_od_m": 0.104,
        "hole_diameter_m": 0.10395,
        "length_m": 0.15,
        "liner": {"rho": 7200.0, "c": 440.0, "k": 50.0, "alpha": 9.3e-06},
        "block": {"rho": 7200.0, "c": 500.0, "k": 50.0, "alpha": 1.08e-05},
    }
    course = [[60, 293.15, 500], [1.8, 10.5, 13.2]]
    return [
        (f"{job}/clamping",
         {"tightening_id": str(uuid4()), "clamp": "torque plate", "bolts": 4, "stages": "80", **who}),
        (f"{job}/clamping/{uuid4()}/bolts", {"bolt_mark_id": str(uuid4()), "bolt": 1, "kind": "turned", **who}),
        (f"{job}/clamping/{uuid4()}/off", {"bolt_mark_id": str(uuid4()), **who}),
        ("/api/verifications/head", {"head": "0" * 64}),
        ("/api/fixtures", {"name": "Bar", "kind": "bar", "fits": "any", **who}),
        (f"{job}/pistons/1/matches", {"match_id": str(uuid4()), "mark": "1F", "faces": "front", **who}),
        (f"{job}/honing/1/settings", {"setting_id": str(uuid4()), "fine_stock": "1", "length": "7", "stone": "3",
         "turns": "90", **who}),
        (f"{job}/honing/1/rounds", {"round_id": str(uuid4()), "stage": "rough", **who}),
        (f"{job}/honing/1/rounds/{uuid4()}/stop", {"hone_mark_id": str(uuid4()), "strokes": 20, **who}),
        (f"{job}/honing/1/rounds/{uuid4()}/notes", {"hone_mark_id": str(uuid4()), **who}),
        (f"{job}/boring/1/settings", {"setting_id": str(uuid4()), **who}),
        (f"{job}/boring/1/passes", {"pass_id": str(uuid4()), "dial": "2", "hold_reason": "told", **who}),
        ("/api/compute/centring", {"gaps_m": [0.02, 0.0201, 0.0202, 0.0201]}),
        ("/api/compute/boring-passes", {"start_diameter_m": 0.1, "finish_diameter_m": 0.101,
         "max_depth_of_cut_on_radius_m": 0.0002, "finish_pass_on_diameter_m": 0.0001}),
        ("/api/compute/boring-time", {"length_m": 0.18, "feed_per_rev_m": 8e-05, "rpm": 350}),
        ("/api/compute/cross-hatch", {"bore_m": 0.1, "rpm": 155, "stroke_m": 0.15, "cycles_per_min": 45}),
        ("/api/compute/running-clearance", {"bore_measured_m": 0.1, "alpha_bore": 1.1e-5, "bore_running_c": 110,
         "piston_measured_m": 0.09995, "alpha_piston": 1.9e-5, "piston_running_c": 95}),
        ("/api/compute/finish-size", {"piston_measured_m": 0.104, "alpha_piston": 2e-5, "clearance_20C_m": 9e-5,
         "alpha_bore": 1.05e-5}),
        ("/api/compute/swept-volume", {"cylinders": 6, "bore_before_m": 0.1, "bore_after_m": 0.101, "stroke_m": 0.115}),
        ("/api/compute/heights", {"deck_cut_m": 1e-4, "bore_m": 0.1, "stroke_m": 0.115, "clearance_volume_m3": 6e-5}),
        ("/api/compute/temperatures", {"hole_diameter_m": 0.09496, "liner_od_m": 0.095, "wanted_clearance_m": 5e-05,
         "alpha_block": 2.15e-05, "alpha_liner": 1.05e-05, "liner_temperature_c": 20}),
        ("/api/compute/cold-shrink", {"hole_diameter_m": 0.10395, "liner_od_m": 0.104, "liner_temperature_c": -78.5,
         "block_temperature_c": 20, "liner_alpha_T_k": course[0], "liner_alpha_1e6": course[1],
         "block_alpha_T_k": course[0], "block_alpha_1e6": course[1]}),
        ("/api/compute/film", {"surface_temperature_c": 80, "air_temperature_c": 22, "height_m": 0.13}),
        ("/api/compute/cooling", {"mass_kg": 45, "specific_heat": 500, "area_m2": 0.62, "h_w_m2k": 11,
         "T_start_c": 120, "air_c": 20, "times_s": [0, 60]}),
        ("/api/compute/in-the-bore", {**drop, "boss_od_m": 0.125, "liner_temperature_at_insertion_c": -78.5,
         "block_temperature_at_insertion_c": 20, "times_s": [0.5]}),
        ("/api/compute/carry-and-drop", {**drop, "carry_time_s": 20, "liner_start_c": -78.5, "block_start_c": 60,
         "air_c": 20, "h_liner_w_m2k": 12, "block_mass_kg": 80, "block_hA_w_k": 9}),
        ("/api/compute/hole-growth", {"hole_diameter_m": 0.1, "boss_od_m": 0.13, "alpha": 2.1e-05,
         "hole_face_c": 60, "outside_face_c": 100}),
        ("/api/compute/dew", {"dry_bulb_c": 25, "relative_humidity": 0.7}),
        ("/api/compute/frost", {"air_c": 22, "relative_humidity": 0.5, "surface_c": -18, "h_convection_w_m2k": 6,
         "area_m2": 0.1, "time_s": 120}),
        ("/api/compute/room-air", {"gas": "CO2", "mass_kg": 5, "room_m3": 60, "air_changes_per_h": 2,
         "release_time_s": 1800, "times_s": [900]}),
        ("/api/compute/seal-gland", {"block_bore_m": 0.12, "liner_od_m": 0.1199, "groove_diameter_m": 0.1124,
         "groove_width_m": 0.007, "ring_id_m": 0.1097, "ring_section_m": 0.00533}),
        ("/api/compute/rod-sweep", {"stroke_m": 0.108, "rod_length_m": 0.178, "rod_width_m": 0.028, "big_end_m": 0.079,
         "foot_above_crank_m": 0.08, "top_above_crank_m": 0.27, "liner_inside_m": 0.1016}),
        ("/api/compute/press-fit", {**rings, "interference_diametral_m": 25e-6}),
        ("/api/compute/hot-fit", {**rings, "interference_diametral_at_T0_m": 25e-6, "liner_temperature_c": 90,
         "block_temperature_c": 80}),
        ("/api/compute/insertion", {**rings, "depths_m": [0.01, 0.1], "liner_outside_m": [0.104, 0.104],
         "block_bore_m": [0.10398, 0.10398], "length_m": 0.11}),
        (pull, {"pull_id": str(uuid4()), "liner_mark": "L6", "tool": "Screw puller", "hold_reason": "told", **who}),
        (f"{pull}/{uuid4()}/marks", {"pull_mark_id": str(uuid4()), "kind": "one turn", **who}),
        (f"{pull}/{uuid4()}/undo", {"pull_mark_id": str(uuid4()), **who}),
        (f"{pull}/{uuid4()}/home", who),
        ("/api/compute/matching", {"depths_nm": [8_900_000, 8_905_000], "flanges_nm": [8_980_000, 8_990_000],
                                   "lower_nm": 60_000, "upper_nm": 90_000, "banks": [[0, 1]]}),
        (f"{job}/heat/5/run", {
            "heat_run_id": str(uuid4()), "liner_mark": "5", "block_c": 80, "liner_c": -18, "wanted_m": 38e-6,
            "air_c": 21, "humidity": 0.5, "enter_s": 40, "home_s": 5, "block_kg": 30, **who}),
        (f"{job}/heat/5/run/{uuid4()}/marks", {"heat_mark_id": str(uuid4()), "kind": "bag off", **who}),
        (f"{job}/heat/5/run/{uuid4()}/temperatures", who),
        ("/api/press-tools", {"name": "Another", "kind": "press", "capacity_kn": 40, **who}),
        (f"{job}/bore-decisions", {"decision_id": str(uuid4()), "hole": 1, "choice": "hone", "reason": "told", **who}),
        (f"{job}/bore-looks", {"look_id": str(uuid4()), "hole": 1, "outcome": "bright all round", **who}),
        ("/api/compute/circles", {"points_m": [[0.05, 0], [0, 0.05], [-0.05, 0.001], [0, -0.05]]}),
        ("/api/compute/cylinder", {"points_m": [[0.05, 0, 0], [0, 0.05, 0], [-0.05, 0, 0], [0.05, 0, 0.1],
         [0, 0.05, 0.1], [-0.05, 0, 0.1]]}),
        ("/api/compute/distortion", {"angles_deg": [0, 72, 144, 216, 288], "free_radii_m": [0.05] * 5,
         "torqued_radii_m": [0.05001] * 5}),
        ("/api/compute/clean-up", {"standard_m": 0.1, "points_m": [[0.05, 0], [0, 0.05], [-0.05, 0]],
         "oversizes_m": [0.0005]}),
        ("/api/compute/wall", {"walls_m": [0.006], "angles_deg": [0], "growth_on_diameter_m": 0.0005}),
        (f"{job}/readings", bench.reading("8.6", hole=1, hour=4.5)),
        (f"{job}/liners", {"mark": "L8"}),
        (f"{job}/liners/as-found", who),
        (f"/api/holes/{hole['hole_id']}/draw", who),
        (f"{job}/card", {"spec_card_version_id": version["spec_card_version_id"], "only_preview": True, **who}),
        (f"{job}/setups", {"quantity": "protrusion", "gauge_id": setup["gauge"]["gauge_id"], "land": "lip", **who}),
        (f"{job}/sets/{hole['set_id']}/zero-corrections", {"text": "1", "bare_unit": "µm", **who}),
        (f"{job}/route/marks", {"operation": "wash", "count": 3, **who}),
        (f"{job}/route/clock", {"operation": "cut", "hole": 5, "running": True, **who}),
        (f"{job}/route/waits", {"operation": "cut", "hole": 5, "cause": "tool", "words": "the cutter", **who}),
        (f"{job}/route/waits/{uuid4()}/end", {"words": "here", **who}),
        (f"{job}/route/waits/{uuid4()}/moved", {"expected": "2030-01-01", "words": "a heat later", **who}),
        (f"{job}/route/worked", {"operation": "clean", "started": "2026-01-05T08:00:00Z", "hours": 1.5, **who}),
        (f"{job}/promises", {"promised": "2030-01-01", "told": "by telephone", **who}),
        (f"{job}/pins", {"operation": "wash", "starts_at": "2030-01-01T08:00", "person": "", **who}),
        ("/api/calendar/tried", {"job_id": job.rsplit("/", 1)[-1], "operation": "wash", "person": "Wren"}),
        ("/api/shop-time/hours", {"zone": "UTC", "week": [[[480, 720]]] * 5 + [[], []], **who}),
        ("/api/shop-time/away", {"away_id": str(uuid4()), "what": "Wren", "starts": "2030-01-01T00:00",
                                 "ends": "2030-01-01T23:00", "words": "fair", **who}),
        ("/api/shop-time/machines", {"machine": "hone", "count": 2, **who}),
        ("/api/shop-time/visits", {"visit_id": str(uuid4()), "name": "Osk", "job_id": job.rsplit("/", 1)[-1],
                                   "operations": ["cut"], "starts_at": "2030-01-01T08:00",
                                   "ends_at": "2030-01-01T16:00", "needs": ["light"], **who}),
        (f"/api/shop-time/away/{uuid4()}/back", who),
        (f"{job}/estimates", {"estimate_id": str(uuid4()), "lines": [
            {"sheet": "parts", "key": "", "words": "Paint", "low": "1", "worst": "2", "tax_percent": "20"}], **who}),
        (f"{job}/estimates/{uuid4()}/answer", {"answer": "agreed", "said": "the owner", "on": "2026-01-05", **who}),
        (f"{job}/declined", {"what": "another block", "reason": "dearer", **who}),
        (f"{job}/part-costs", {"part_cost_id": str(uuid4()), "words": "Paint", "money": "2.50", **who}),
        ("/api/part-prices", {"name": "Paint", "money": "2.50", "days": 1, **who}),
        ("/api/money-rules", {"tax_percent": "20", "rounding": "half a cent up", "returns_percent": "0", **who}),
        (f"{job}/orders", {"order_id": str(uuid4()), "kind": "part", "what": "Paint", **who}),
        (f"{job}/orders/{uuid4()}/moves", {"kind": "in", **who}),
        (f"{job}/route/schools", {"question": "plate", "side": "hone without", "reason": "stiff", **who}),
        ("/api/schools", {"question": "plate", "side": "hone without", **who}),
        (f"{job}/strip-record/findings", {"finding_id": str(uuid4()), "kind": "condition", "hole": 2, "word": "sound",
         **who}),
        (f"{job}/preparation/steps", {"prep_step_id": str(uuid4()), "kind": "plugs in", "place": "bores", "count": 6,
         **who}),
        (f"{job}/preparation/inspections", {"inspection_id": str(uuid4()), "kind": "corner of the ledge", "hole": 2,
         "outcome": "sound", "radius": "0.4", **who}),
        (f"{job}/block-plan/try", {"holes": [{"hole": 5, "lock": "cut it", "shim": "0.10", "target": "0.1"}]}),
        (f"{job}/block-plan", {"rule": "best", "datum": "deck", **who}),
        (f"{job}/options/5", {"option_choice_id": str(uuid4()), "option": "cut and shim", "reason": "agreed", **who}),
        ("/api/prices", {"kind": "a skim of the deck", "hours": 5, "money": 10, "days": 4, **who}),
        (f"{job}/causes/experiments", {"experiment_id": str(uuid4()), "matter": "heights", "holes": [2], "change": "t",
         "expected": "60 less", **who}),
        (f"{job}/causes/experiments/{uuid4()}", {"value": "1", "minutes": 3, "words": "none", **who}),
        (f"{job}/causes/cases", {"case_id": str(uuid4()), "matter": "heights", "symptom": "one low", "cause": "a lip",
         **who}),
        ("/api/causes", {"name": "paint", "shows": "low", "pattern": "every hole alike", "low": "-60", "high": "-20",
                         "in_a_hundred": 2, **who}),
        ("/api/causes/checks", {"name": "scrape", "minutes": 3, "asks": "how thick", "at": "the block",
                                "finds": ["zero of the gauge moved"], "standard": "2", **who}),
        ("/api/compute/causes", {"holes": [{"hole": 1, "residual_m": 0.0, "u_m": 3e-6, "make": "A"},
                                           {"hole": 2, "residual_m": -9e-5, "u_m": 3e-6, "make": "B"}]}),
        (f"{job}/matching", {"order": ["L1"], "locked": [1], "goals": ["holes outside"], "cuts": True, **who}),
        (f"{hole_url}/cut-runs", {"run_id": str(uuid4()), "hold_reason": "as told", **who}),
        (f"{hole_url}/cut-runs/{uuid4()}/passes", {"pass_id": str(uuid4()), "number": 1, **who}),
        (f"{hole_url}/cut-runs/{uuid4()}/undo", {"number": 1, **who}),
        (f"{hole_url}/cut-runs/{uuid4()}/marks", {"run_mark_id": str(uuid4()), "kind": "collar locked", **who}),
        (f"{hole_url}/cut-runs/{uuid4()}/finish", {"note": "done", **who}),
        ("/api/cutters", {"name": "Another", "graduation": "0.02", "stop_accuracy": "0.03", **who}),
        (f"/api/cutters/{uuid4()}/services", {"kind": "sharpened", "done_on": "2026-11-02", **who}),
        ("/api/shelf/lots", {"shim_lot_id": str(uuid4()), "size": "0.30", "count": 4, **who}),
        ("/api/shelf/moves", {"shim_move_id": str(uuid4()), "shim_lot_id": str(uuid4()), "kind": "ordered", "count": 2,
         **who}),
        ("/api/pass-switch", {"url": "socket://127.0.0.1:9"}),
        ("/api/compute/swap-effects", {"readings": [{"hole": "1", "liner": "A", "protrusion_m": 9e-5, "u_m": 3e-6}],
                                       "present": {"1": "A"}, "bench": ["B"]}),
        ("/api/compute/block-plan", {
            "holes": [{"hole": 1, "present_depths_m": [8.85e-3, 8.86e-3], "flange_m": 8.9e-3, "protrusion_m": 4e-5}],
            "shims": [{"size_m": 1e-4, "stock": 2}], "target_protrusion_m": 1e-4, "min_protrusion_m": 7.5e-5,
            "max_protrusion_m": 1.25e-4, "min_cleanup_cut_m": 2.5e-5}),
        ("/api/compute/learned-cutter", {"runs": [{"passes": 10, "change_m": 2.03e-4, "off_m": 3e-6, "pass_s": [60]}]}),
        (f"{job}/strip-record/waivers", {"quantity": "protrusion", "part": "hole-2", "reason": "a stud", **who}),
        (f"{job}/tape/{block['readings'][0]['event']}/strikes", {"struck": True, **who}),
        (f"{job}/undo", {"event": 1, **who}),
        (f"/api/holes/{hole['hole_id']}/fittings", {"fitting_id": str(uuid4()), "liner_mark": "L6", "shims":
         [{"nominal": "0.1"}], **who}),
        (f"/api/holes/{hole['hole_id']}/cuts", {"cut_id": str(uuid4()), "depth": "8.898", "passes": 2, "shim": "0.1",
         **who}),
        (f"/api/spec-cards/{version['spec_card_id']}/versions", {"card": card, "based_on_version": 1, **who}),
        ("/api/spec-cards", {"card": card, **who}),
        ("/api/jobs", {"number": "9", "name": "Nine", "spec_card_id": version["spec_card_id"], **who}),
        ("/api/room", {"mean": "18", "standard": "4", **who}),
        (f"/api/gauges/{setup['gauge']['gauge_id']}/links", {"url": "socket://127.0.0.1:9", "unit": "mm"}),
        (f"/api/gauges/{setup['gauge']['gauge_id']}/tip", {"job_id": bench.job_id, "hole": 1, "hour": 6,
         "quantity": "protrusion"}),
        ("/api/network/devices", {"code": "2345-6789", "device": "Phone"}),
        ("/api/network/codes", {"role": "machinist"}),
        ("/api/network/links", {"job_id": bench.job_id, "name": "Harbour board", "days": 7}),
        ("/api/network/readers", {"token": "no link at all"}),
        ("/api/passwords", {"of": who["person_id"], "role": "machinist", "password": ""}),
        ("/api/passwords/own", {"present": "nobody is signed in", "password": "some other sentence"}),
        ("/api/sign-in", {"of": who["person_id"], "password": "nobody has one"}),
        ("/api/people", {"name": "Somebody"}),
        ("/api/gauges", gauge),
        (f"/api/gauges/{setup['gauge']['gauge_id']}/versions", {**gauge, "based_on_version": 1}),
        ("/api/compute/parse", {"text": "2", "bare_unit": "thou"}),
        ("/api/compute/plane", {"angles_deg": [0, 90, 180], "readings_m": [0, 0, 0]}),
        ("/api/compute/stack", {"flange_m": 1e-2, "depth_m": 1e-2}),
        ("/api/compute/decision", {"value_m": 0, "U_m": 0}),
        ("/api/compute/cut-plan", plan),
        ("/api/compute/to-20C", {"ring_20C_m": 0.1, "deviation_m": 3e-5, "part_alpha": 1e-5, "part_c": 32}),
        ("/api/compute/budget", {"ring_m": 0.1, "u_ring_m": 3e-7, "step_m": 1e-6, "u_repeatability_m": 1e-6,
         "repeats": 5}),
        ("/api/compute/gauge-study", {"readings_um": [[[1, 2], [2, 2]], [[4, 5], [5, 6]]], "tolerance_um": 20}),
        ("/api/compute/bore-set", {"diameters_m": [[0.1, 0.1001, 0.1]], "axes_deg": [0, 60, 120], "depths_m": [0.01]}),
        (f"{job}/surveys/block bore/hole-1/unreadable", {"place": {"level_um": 1000, "axis_deg": 0},
         "unreadable": True, "reason": "a port", **who}),
        (f"{job}/surveys/block bore/hole-1/stamps", {"letters": "B", **who}),
        (f"{job}/zero-checks", {"quantity": "protrusion", "text": "1", "bare_unit": "µm", **who}),
        (f"{job}/zero-checks/{uuid4()}/settle", {"how": "strike", **who}),
        (f"{job}/temperatures", {"temperature_id": str(uuid4()), "body": "room", "text": "21", **who}),
        ("/api/setting-masters", {"name": "Ring 100", "size": "100.0003", "expanded": "0.6"}),
        (f"/api/setting-masters/{uuid4()}/versions", {"name": "Ring 100", "size": "100.0003", "expanded": "0.6"}),
        (f"/api/gauges/{setup['gauge']['gauge_id']}/services", {"kind": "oiled", "done_on": "2026-01-05", **who}),
        ("/api/gauge-studies", {"gauge_id": setup["gauge"]["gauge_id"], "what": "protrusion", "parts": 2, "trials": 2,
         "people": everybody, **who}),
        (f"/api/gauge-studies/{uuid4()}/readings", {"reading_id": str(uuid4()), "part": 0, "place": 0, "trial": 0,
         "text": "2", "bare_unit": "µm"}),
        (f"/api/gauge-studies/{uuid4()}/adoption", who),
        (f"/api/gauge-studies/{uuid4()}/tip", {"part": 0}),
        ("/api/thermometers", {"name": "Probe", "lies_on": "part", "url": "socket://127.0.0.1:9"}),
        ("/api/materials", {"name": "bronze", "alpha": "18.2", "source": "a book", **who}),
        (f"/api/setting-masters/{uuid4()}/readings", {"reading_id": str(uuid4()),
         "gauge_id": setup["gauge"]["gauge_id"], "text": "5.0001", "bare_unit": "inch", **who}),
        (f"{job}/filing", {"away": True, "words": "sold", **who}),
        ("/api/compute/pasted", {"text": "5 6h 1.6", "holes": [5], "hours": [12, 3, 6, 9]}),
        ("/api/spec-cards/plans", {"quantity": "block bore", "construction": "dry sleeve, plain", "unit": "mm",
         "bore": "100", "bore_pitch": "140", "in_row": 4}),
        ("/api/practice/attempts", {"attempt_id": str(uuid4()), "exercise": "read-dials", "seed": 7, **who}),
        (f"/api/practice/attempts/{uuid4()}/moves", {"place": 0, "name": "answer", "given": {"size": "1 in"},
         "at_s": 0.0, "bare_unit": "thou", **who}),
        ("/api/practice/own", {"own_id": str(uuid4()), "job_id": bench.job_id, "title": "Heights", "words": "Which?",
         "lesson": "Read it again.", **who}),
    ]  # fmt: skip


def _leaves(body: Any, path: tuple[Any, ...] = ()) -> Iterator[tuple[Any, ...]]:
    if isinstance(body, dict):
        for key, value in body.items():
            yield from _leaves(value, (*path, key))
    elif isinstance(body, list):
        yield path
        for index, value in enumerate(body[:1]):
            yield from _leaves(value, (*path, index))
    else:
        yield path


def _with(body: dict[str, Any], path: tuple[Any, ...], value: Any) -> dict[str, Any]:
    changed: Any = copy.deepcopy(body)
    place = changed
    for step in path[:-1]:
        place = place[step]
    place[path[-1]] = value
    return dict(changed)


def test_every_address_that_takes_a_body_has_an_example(client: TestClient) -> None:
    bodies = {
        path
        for _, path, operation in operations()
        # Files are tried in test_imports.py.
        if "application/json" in operation.get("requestBody", {}).get("content", {})
    }
    examples = [url for url, _ in _examples(Bench.at_demo(client))]
    assert len(examples) == len(bodies)


SHARES = 16


@pytest.mark.parametrize("share", range(SHARES))
def test_nothing_that_can_be_sent_breaks_an_endpoint(client: TestClient, share: int) -> None:
    for url, body in _examples(Bench.at_demo(client))[share::SHARES]:
        paths = list(_leaves(body))
        # Of the card, every fourth field: they are all read by the same walk.
        for at, path in enumerate(paths if len(paths) < 40 else paths[::4]):
            # All of them meet every endpoint; in an ordinary run they take turns at its fields.
            for value in NASTY if DEEP else NASTY[at % 4 :: 4]:
                response = client.post(url, json=_with(body, path, value))
                assert response.status_code < 500, (url, path, value, response.text)
                if response.status_code >= 400:
                    assert_refusal_shape(response)
        # Guessing at what is asked for is refused after a while; a link cannot be given while only this machine asks.
        assert client.post(url, json=body).status_code in (200, 201, 401, 404, 409, 422, 429), url


@pytest.mark.parametrize(
    "content", [b"", b"{", b"[]", b"null", b'"\\ud800"', b"\xff\xfe", b'{"name": "\\ud800"}', b'{"name": 1e999}']
)
def test_a_body_that_is_no_json_object_is_refused(client: TestClient, content: bytes) -> None:
    response = client.post("/api/people", content=content, headers={"content-type": "application/json"})
    assert 400 <= response.status_code < 500
    assert_refusal_shape(response)


def test_nothing_is_at_an_address_that_is_not_there(client: TestClient) -> None:
    for method, path in (("GET", "/api/nothing"), ("DELETE", "/api/jobs"), ("POST", "/assets/x.js")):
        response = client.request(method, path)
        assert response.status_code in (404, 405)
        assert_refusal_shape(response)


def test_headers_keep_the_browser_at_home(client: TestClient) -> None:
    for path in ("/", "/api/jobs", "/api/nothing", "/healthz"):
        policy = client.get(path).headers["content-security-policy"]
        assert "default-src 'none'" in policy
        assert "http:" not in policy
        assert "unsafe" not in policy
    bench = Bench.at_demo(client)
    proof = client.get(f"/api/jobs/{bench.job_id}/proof.html")
    assert "script-src" not in proof.headers["content-security-policy"]
    assert "http://" not in proof.text.replace("http://www.w3.org/2000/svg", "")
    assert "https://" not in proof.text


def test_health_tells_version_database_and_schema(client: TestClient) -> None:
    health = client.get("/healthz").json()
    assert health["database"] == "up"
    assert health["schema_version"] >= 1
    assert health["version"]


def test_a_database_that_is_away_is_503_everywhere() -> None:
    away = Settings(dsn="host=127.0.0.1 port=1 dbname=none connect_timeout=1", database_patience_s=1)
    with at_this_machine(away) as client:
        assert client.get("/healthz").json() == {"version": "0.1.0", "database": "stopped", "schema_version": None}
        response = client.get("/api/jobs")
        assert response.status_code == 503
        assert_refusal_shape(response)
        assert json.loads(response.text)["code"] == "unavailable"


def test_text_from_people_stays_text_in_the_proof(client: TestClient) -> None:
    bench = Bench.at_demo(client)
    version = bench.block()["card"]["version"]
    evil = '<script>alert(1)</script>"\\'
    new = {"number": "66", "name": evil, "complaint": evil, "spec_card_id": version["spec_card_id"],
           "person_id": bench.person_id}  # fmt: skip
    job_id = client.post("/api/jobs", json=new).json()["job_id"]
    html = client.get(f"/api/jobs/{job_id}/proof.html").text
    assert "<script" not in html
    assert client.get(f"/api/jobs/{job_id}/proof.pdf?person_id={bench.person_id}").status_code == 200
