"""The second main path whole, over HTTP: worn bore, decided, bored, clamped, honed, piston in, proof sheet of bores.

A hidden bore does what it is asked to: the tool takes nine tenths of its dial, stones take so much a stroke. Who works
knows nothing of that and follows the answers.
"""

from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient

from tests.api.bench import Bench, job_called

INCH, THOU = 0.0254, 25.4e-6
HOLE, TAKES, PER_STROKE = 3, 0.9, {"rough": 0.03 * THOU, "fine": 0.012 * THOU, "brush": 0.001 * THOU}
RING_M = 3.75004 * INCH
CLAMPED = "torque plate on, gasket in; main caps torqued"
STUDS, GASKET = "head studs of the engine", "copper and composition, new"


class Shop:
    """Somebody who works hole three of the tractor, and the bore as it really is. [m]"""

    def __init__(self, client: TestClient) -> None:
        self.bench = Bench(client, job_called(client, "Hill Tractor Marram"), Bench.at_demo(client).person_id)
        self.size_m = 0.0

    def get(self, path: str) -> dict[str, Any]:
        answer = self.bench.client.get(f"/api/jobs/{self.bench.job_id}/{path}")
        assert answer.status_code == 200, answer.text
        found: dict[str, Any] = answer.json()
        return found

    def post(self, path: str, **body: Any) -> dict[str, Any]:
        answer = self.bench.client.post(f"/api/jobs/{self.bench.job_id}/{path}",
                                        json={"person_id": self.bench.person_id, **body})  # fmt: skip
        assert answer.status_code in (200, 201), f"{path}: {answer.text}"
        found: dict[str, Any] = answer.json()
        return found

    def mark(self, operation: str, **more: Any) -> None:
        self.post("route/marks", operation=operation, kind="done", hold_reason="told", **more)

    def read_bore(self) -> None:
        """Every place of the survey by the gauge that is set on the ring, true to a hundredth of a thou."""
        survey = self.get(f"surveys/block bore/hole-{HOLE}")
        for row in survey["places"]:
            text = f"{(self.size_m - RING_M) / THOU:.2f}"
            taken = self.bench.take(text, quantity="block bore", part=f"hole-{HOLE}", bare_unit="thou", confirmed=True,
                                    **row["place"])  # fmt: skip
            assert taken.status_code == 201, taken.text

    def decide(self) -> None:
        self.post("bore-decisions", decision_id=str(uuid4()), hole=HOLE, choice="bore to a step", oversize_um="1016",
                  reason="it clears at forty with what the score asks", concession="", profile="stock")  # fmt: skip
        self.mark("decide", words="agreed by telephone")
        self.mark("plug", words="galleries", count=4)

    def bore(self) -> None:
        """Trial, then whatever the screen says, until nothing is left to bore."""
        now = self.get(f"boring/{HOLE}")
        self.size_m = now["ledger"]["start"]["value_m"]
        dial = 50e-6
        for turn in range(12):
            self.size_m += 2 * TAKES * dial
            now = self.post(f"boring/{HOLE}/passes", pass_id=str(uuid4()), kind="trial cut" if turn == 0 else "cut",
                            dial=f"{dial / THOU:.2f}", diameter=f"{self.size_m / INCH:.5f}", bare_unit="thou",
                            minutes="15", confirmed=True, hold_reason="the worst one")  # fmt: skip
            dial = now["ledger"]["next_dial_m"]
            if dial is None:
                break
        assert now["ledger"]["to_go_m"] == pytest.approx(0, abs=now["ledger"]["within_m"])
        self.mark("bore", hole=HOLE, words="carbide, three thou left")

    def clamp(self) -> None:
        now = self.post("clamping", tightening_id=str(uuid4()), clamp="torque plate", bolts=10, stages="",
                        gasket=GASKET, fasteners=STUDS)  # fmt: skip
        one = now["tightenings"][-1]
        while one["bolt"] is not None:
            kind = "held" if one["is_trial"] else "turned"
            now = self.post(f"clamping/{one['tightening_id']}/bolts", bolt_mark_id=str(uuid4()), bolt=one["bolt"],
                            kind=kind)  # fmt: skip
            one = now["tightenings"][-1]
        assert (one["state"], one["differs"]) == ("on", [])

    def hone(self) -> dict[str, Any]:
        """Rounds as the screen asks for them, each read after it, until it says that the bore is done."""
        self.post(f"honing/{HOLE}/settings", setting_id=str(uuid4()), aim="piston", method="oil",
                  drive="honing machine", rough_grit=70, fine_grit=220, fine_stock="1.2", brush_stock="0",
                  length="6.4", stone="2.5", below="", turns="160", strokes="", angle="45",
                  bare_unit="thou")  # fmt: skip
        for _ in range(25):
            now = self.get(f"honing/{HOLE}")
            if now["state"] == "measure":
                self.read_bore()
                continue
            if now["state"] != "ready":
                break
            strokes = now["ahead"][0]["strokes"] if now["ahead"] else 20
            round_id = str(uuid4())
            self.post(f"honing/{HOLE}/rounds", round_id=round_id, stage=now["stage"], aim="piston",
                      hold_reason="other pistons are not read yet")  # fmt: skip
            self.post(f"honing/{HOLE}/rounds/{round_id}/stop", hone_mark_id=str(uuid4()), strokes=strokes)
            self.size_m += strokes * PER_STROKE[now["stage"]]
        return self.get(f"honing/{HOLE}")

    def fit_piston(self) -> None:
        gauges = self.bench.client.get("/api/gauges").json()
        blades = next(one for one in gauges if one["name"] == "Feeler blades")
        self.post("setups", quantity="piston clearance", gauge_id=blades["gauge_id"], zeroed_on="datum",
                  method="feeler, piston against the other wall")  # fmt: skip
        taken = self.bench.take("3.5", quantity="piston clearance", part=f"piston-{HOLE}", bare_unit="thou",
                                confirmed=True)  # fmt: skip
        assert taken.status_code == 201, taken.text
        self.post(f"pistons/{HOLE}/matches", match_id=str(uuid4()), mark="3F", faces="arrow to the front")


def test_a_worn_bore_is_decided_bored_honed_and_gets_its_piston(client: TestClient) -> None:
    shop = Shop(client)
    clean_up = shop.get("clean-up")
    assert next(one for one in clean_up["holes"] if one["hole"] == HOLE)
    shop.decide()
    target = shop.get(f"boring/{HOLE}")["target"]
    shop.bore()
    assert shop.size_m == pytest.approx(target["bored"]["value_m"], abs=5e-6)
    shop.clamp()
    gauges = client.get("/api/gauges").json()
    gauge = next(one for one in gauges if one["name"] == "Long bore gauge")
    ring = next(one for one in client.get("/api/setting-masters").json() if one["name"] == "Ring 3.750")
    shop.post("setups", quantity="block bore", gauge_id=gauge["gauge_id"], zeroed_on="setting master", load=CLAMPED,
              setting_master_id=ring["setting_master_id"], master_temp="20", hold_down=STUDS,
              hold_down_torque="95")  # fmt: skip
    shop.post("temperatures", temperature_id=str(uuid4()), body="part", part="", text="20")
    shop.read_bore()
    honed = shop.hone()
    assert honed["state"] == "done", honed["state"]
    assert shop.size_m == pytest.approx(target["finished"]["value_m"], abs=honed["left"]["expanded_m"] + 3e-6)
    shop.fit_piston()
    row = next(one for one in shop.get("pistons")["rows"] if one["hole"] == HOLE)
    assert (row["agree"], row["state"], row["match"]["mark"]) == (True, "in", "3F")
    assert row["by_sizes"]["stated"]["value_m"] == pytest.approx(
        3.5 * THOU, abs=row["by_sizes"]["stated"]["expanded_m"]
    )
    proof = client.get(f"/api/jobs/{shop.bench.job_id}/proof.html?unit=thou").text
    for title in ("Bored, pass by pass", "Plate and caps, bolt by bolt", "Honed, round by round",
                  "Pistons in their holes", "bore to a step"):  # fmt: skip
        assert title in proof, title
