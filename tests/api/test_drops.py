"""A drop over HTTP, on the demo's fire pump: begun, run by the clock, felt, home, held; heights and refusals."""

import time
from collections.abc import Iterator
from datetime import datetime, timedelta
from typing import Any
from uuid import uuid4

import httpx2
import pytest
from fastapi.testclient import TestClient

from tests.api.bench import field_of, job_called
from tests.clips import clips

READY = ("liner, hole and front marked", "hole, seat and liner clean and dry", "block and liner soaked through",
         "gloves and shields on, nobody under the load", "clamp within reach")  # fmt: skip
STEPS = ("bag off", "wiped and dried", "compound or grease on", "over the hole, square", "enters")
PATIENCE_S = 60


class Drops:
    """Somebody at the oven of the fire pump."""

    def __init__(self, client: TestClient) -> None:
        self.client = client
        self.job = job_called(client, "Pump No. 4")
        self.who = {"person_id": client.get("/api/people").json()[0]["person_id"]}

    def path(self, hole: int) -> str:
        return f"/api/jobs/{self.job}/heat/{hole}/run"

    def page(self, hole: int) -> dict[str, Any]:
        answer: dict[str, Any] = self.client.get(self.path(hole)).json()
        return answer

    def note(self, hole: int, kind: str, **more: Any) -> httpx2.Response:
        run = self.page(hole)["drop"]["heat_run_id"]
        body = {"heat_mark_id": str(uuid4()), "kind": kind, **self.who, **more}
        return self.client.post(f"{self.path(hole)}/{run}/marks", json=body)

    def noted(self, hole: int, kind: str, **more: Any) -> dict[str, Any]:
        answer = self.note(hole, kind, **more)
        assert answer.status_code == 201, answer.text
        page: dict[str, Any] = answer.json()
        return page

    def begin(self, hole: int, liner: str, **tried: Any) -> httpx2.Response:
        body = {
            "heat_run_id": str(uuid4()), "liner_mark": liner, "block_c": 80, "liner_c": -18, "wanted_m": 38e-6,
            "air_c": 21, "humidity": 0.5, "enter_s": 40, "home_s": 5, "block_kg": 30, "hold_reason": "a test",
            **self.who, **tried,
        }  # fmt: skip
        return self.client.post(self.path(hole), json=body)

    def refused(self, answer: httpx2.Response, field: str, words: str) -> None:
        assert answer.status_code in (409, 422), answer.text
        assert words in answer.json()["message"], answer.text
        assert field_of(answer) == field, answer.text


@pytest.fixture
def drops(client: TestClient) -> Drops:
    return Drops(client)


def test_the_demo_has_one_that_needed_a_push_and_one_that_is_ready(drops: Drops) -> None:
    first = drops.page(2)["drop"]
    assert (first["state"], first["home"]) == ("let go", "pushed")
    assert first["felt"]["is_harder"] is False
    assert any("later than planned" in one for one in first["felt"]["looks"])
    assert first["heights"]["settles"] == "lifted off its seat"
    ready = drops.page(3)
    assert ready["drop"]["state"] == "ready to come out of the cold"
    assert [(one["hole"], one["liner"], one["is_in"]) for one in ready["tray"]] == [
        (1, "P1", False), (2, "P2", True), (3, "P3", False), (4, "P4", False)]  # fmt: skip
    assert drops.page(4)["drop"] is None


def test_from_the_cold_to_home_held_let_go_and_its_heights(drops: Drops) -> None:
    out = drops.noted(3, "liner out of the cold")["drop"]
    assert out["state"] == "out of the cold"
    assert out["next_step"] == "bag off"
    for step in STEPS:
        page = drops.noted(3, step)
    assert page["drop"]["state"] == "in the hole"
    assert page["drop"]["entered_s"] < PATIENCE_S
    # The window is that of one that entered at once.
    assert page["drop"]["window"]["enter_s"] == pytest.approx(page["drop"]["entered_s"])
    home = drops.noted(3, "dropped")
    assert home["is_filled"]
    assert home["drop"]["felt"]["expected"] == "drops freely"
    assert home["drop"]["hold"]["until_s"] > 600
    drops.noted(3, "held down")
    drops.refused(drops.note(3, "let go"), "words", "within 5 K of the room")
    drops.refused(drops.note(3, "height cold", height="2.1", bare_unit="thou"), "words", "not that of a cold block")
    drops.refused(drops.note(3, "height at once"), "height", "Type the height")
    drops.refused(drops.note(3, "height at once", height="2.1 furlongs"), "height", "")
    assert drops.noted(3, "height at once", height="2.1", bare_unit="thou")["drop"]["heights"]["warm_m"] == (
        pytest.approx(2.1 * 25.4e-6))  # fmt: skip
    drops.refused(drops.note(3, "block read", celsius="warm"), "celsius", "A temperature is a number")
    assert drops.noted(3, "block read", celsius="72 F")["drop"]["hold"]["is_cold"]
    assert drops.noted(3, "let go")["drop"]["state"] == "let go"
    drops.refused(drops.note(3, "dropped"), "kind", "this drop is let go")


def test_undo_takes_home_and_fitting_back_as_the_one_step_that_they_are(drops: Drops) -> None:
    drops.noted(3, "liner out of the cold")
    for step in STEPS:
        drops.noted(3, step)
    drops.noted(3, "dropped")
    block = drops.client.get(f"/api/jobs/{drops.job}/block").json()
    step = next(one for one in block["undo"] if one["by"] == drops.client.get("/api/people").json()[0]["name"])
    body = {"event": step["event"], **drops.who}
    assert drops.client.post(f"/api/jobs/{drops.job}/undo", json=body).status_code in (200, 201)
    page = drops.page(3)
    assert page["drop"]["state"] == "in the hole"
    assert not page["is_filled"]


def test_what_cannot_begin_says_why_at_its_field(drops: Drops) -> None:
    drops.refused(drops.begin(3, "P4"), "hole", "under way in hole 3")
    drops.refused(drops.begin(2, "P4"), "hole", "A liner is in hole 2 already")
    drops.refused(drops.begin(4, "P2"), "liner_mark", "P2 is in hole 2")
    drops.refused(drops.begin(4, "P3"), "liner_mark", "P3 is marked for hole 3")
    drops.refused(drops.begin(1, "P1"), "liner_mark", "never guessed")
    drops.refused(drops.begin(4, "P4", block_c=22, liner_c=20), "block_c", "touches as it leaves the cold")
    drops.refused(drops.begin(4, "P4", liner_c=-78.5, pocket_wet=True), "liner_mark", "blow it dry first")
    body = {"heat_run_id": str(uuid4())}
    first, again = drops.begin(4, "P4", **body), drops.begin(4, "P4", **body)
    assert (first.status_code, again.status_code) == (201, 201)
    assert again.json()["drop"]["heat_run_id"] == body["heat_run_id"]


def test_first_it_is_looked_at_and_only_one_clock_runs(drops: Drops) -> None:
    assert drops.begin(4, "P4").status_code == 201
    drops.refused(drops.note(4, "liner out of the cold"), "kind", "Look first: liner, hole and front marked.")
    for kind in READY:
        drops.noted(4, kind)
    drops.refused(drops.note(4, READY[0]), "kind", "noted already")
    drops.noted(3, "liner out of the cold")
    drops.refused(drops.note(4, "liner out of the cold"), "kind", "hole 3 is on its way")
    drops.refused(drops.note(3, "dropped"), "kind", "this drop is out of the cold")
    drops.noted(3, "enters")
    drops.refused(drops.note(3, "stuck"), "words", "Say what happened")
    stuck = drops.noted(3, "stuck", words="stands 20 mm out")
    assert stuck["drop"]["state"] == "stuck"
    assert stuck["stuck"]
    assert drops.noted(3, "taken back out", words="by hand")["drop"] is None
    assert drops.noted(4, "liner out of the cold")["drop"]["state"] == "out of the cold"


def test_a_moment_that_waited_for_the_link_keeps_its_own_time(drops: Drops) -> None:
    now = datetime.fromisoformat(drops.page(3)["now"])
    mark = {"heat_mark_id": str(uuid4()), "at": (now - timedelta(seconds=30)).isoformat()}
    drops.noted(3, "liner out of the cold", **mark)
    # Sent again after a lost answer it is the same moment.
    assert drops.noted(3, "liner out of the cold", **mark)["drop"]["out_at"] is not None
    drops.noted(3, "bag off", at=(now - timedelta(seconds=12)).isoformat())
    sheet = drops.page(3)["drop"]["sheet"]
    assert sheet[0]["done_s"] == pytest.approx(18.0, abs=0.01)
    drops.refused(drops.note(3, "wiped and dried", at=(now + timedelta(hours=1)).isoformat()), "at", "its clock is off")
    assert drops.note(3, "wiped and dried", at="2026-11-29T10:00:00").status_code == 422


@pytest.fixture
def thermometers(drops: Drops) -> Iterator[None]:
    with clips(lambda path, body: drops.client.post(path, json=body).status_code):
        yield


def _read_until(drops: Drops, parts: tuple[str, ...], many: int) -> dict[str, Any]:
    """Ask as the page does until so many readings of each part are on record."""
    deadline = time.monotonic() + PATIENCE_S
    run = drops.page(3)["drop"]["heat_run_id"]
    while True:
        page: dict[str, Any] = drops.client.post(f"{drops.path(3)}/{run}/temperatures", json=drops.who).json()
        if all(len(page["drop"][part]) >= many for part in parts):
            return page
        assert time.monotonic() < deadline, page


@pytest.mark.usefixtures("thermometers")
def test_thermometers_are_written_down_and_move_the_window(drops: Drops) -> None:
    planned = drops.page(3)["drop"]
    rested = _read_until(drops, ("liner_reads", "block_reads"), 1)["drop"]
    assert rested["learned"]["block_c"] == pytest.approx(78.0, abs=0.3)
    assert rested["learned"]["liner_c"] == pytest.approx(-16.0, abs=0.3)
    assert rested["window"]["home_by_s"] < planned["window"]["home_by_s"] or rested["window"]["low_m"][0] < (
        planned["window"]["high_m"][0])  # fmt: skip
    assert rested["learned"]["liner_within_k"] < planned["learned"]["liner_within_k"] / 2
    drops.noted(3, "liner out of the cold")
    out = _read_until(drops, ("liner_reads",), 2)["drop"]
    # Asked all the time it is written down once in four seconds.
    assert len(out["liner_reads"]) == 2
    assert out["learned"]["liner_reads"] >= 1
    drops.noted(3, "enters")
    run = out["heat_run_id"]
    after = drops.client.post(f"{drops.path(3)}/{run}/temperatures", json=drops.who).json()["drop"]
    assert len(after["liner_reads"]) == 2, "a liner in its hole is not read"
