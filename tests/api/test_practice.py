"""The practice bench over HTTP: begun, played to its end, judged, kept apart from every job."""

from typing import Any
from uuid import uuid4

import psycopg
import pytest
from fastapi.testclient import TestClient

from tests.api.bench import Bench
from tests.core.practice.all_players import PLAYERS
from tests.core.practice.players import Player, typed
from vallostasis.core.practice.catalogue import EXERCISES

PERFECT = [player for player in PLAYERS if player.is_perfect]


@pytest.fixture
def who(client: TestClient) -> str:
    return Bench.at_demo(client).person_id


def begin(client: TestClient, who: str, exercise: str, seed: int = 7) -> dict[str, Any]:
    body = {"attempt_id": str(uuid4()), "exercise": exercise, "seed": seed, "person_id": who}
    answer = client.post("/api/practice/attempts", json=body)
    assert answer.status_code == 201, answer.text
    begun: dict[str, Any] = answer.json()
    return begun


def play(client: TestClient, who: str, player: Player, seed: int = 7) -> dict[str, Any]:
    attempt = begin(client, who, player.exercise.name, seed)
    truth = player.exercise.truth(seed)
    moves = player.play(truth)
    for place, move in enumerate(moves):
        given = typed(player.exercise.position(truth, moves[:place]), move)
        body = {"place": place, "name": move.name, "given": given, "at_s": move.at_s, "person_id": who}
        answer = client.post(f"/api/practice/attempts/{attempt['attempt_id']}/moves", json=body)
        assert answer.status_code == 201, answer.text
        attempt = answer.json()
    return attempt


@pytest.mark.parametrize("player", PERFECT, ids=lambda one: one.exercise.name)
def test_every_exercise_can_be_played_to_full_marks(client: TestClient, who: str, player: Player) -> None:
    ended = play(client, who, player)
    assert ended["judged"]["points"] == ended["judged"]["of"] > 0
    assert ended["judged"]["traps"] == []
    assert client.get(f"/api/practice/attempts/{ended['attempt_id']}").json() == ended
    row = next(
        one
        for one in client.get("/api/practice", params={"person_id": who}).json()["exercises"]
        if one["name"] == player.exercise.name
    )
    assert row["best"] == row["best_of"] == ended["judged"]["of"]
    assert {skill["name"] for skill in row["skills"] if skill["last"] == [True]} == set(player.exercise.skills)


def test_what_was_missed_comes_next_and_is_sure_after_three(client: TestClient, who: str) -> None:
    first = client.get("/api/practice", params={"person_id": who}).json()["next"]
    assert (first["exercise"], first["why"]) == (EXERCISES[0].name, "not tried yet")
    by_name = {(player.exercise.name, player.name): player for player in PLAYERS}
    missed = play(client, who, by_name["read-dials", "T18"])
    assert [met["trap"] for met in missed["judged"]["traps"]] == ["T18"]
    assert missed["judged"]["traps"][0]["check"]
    following = client.get("/api/practice", params={"person_id": who}).json()["next"]
    assert (following["exercise"], following["why"]) == ("read-dials", "missed last time: sizes off dials")
    for seed in (1, 2, 3):
        play(client, who, by_name["read-dials", "perfect"], seed)
    now = client.get("/api/practice", params={"person_id": who}).json()
    skill = next(one for one in now["exercises"] if one["name"] == "read-dials")["skills"][0]
    assert (skill["last"], skill["is_sure"]) == ([False, True, True, True], True)
    other = next(one for one in client.get("/api/people").json() if one["person_id"] != who)["person_id"]
    rows = client.get("/api/practice", params={"person_id": other}).json()["exercises"]
    assert {row["tried"] for row in rows} == {0}


def test_the_truth_stays_in_the_house_until_the_end(client: TestClient, who: str) -> None:
    begun = begin(client, who, "rock-a-bore-gauge")
    assert begun["judged"] is None
    shown = str(begun["position"])
    assert "widest at" not in shown
    assert "truth" not in shown


def test_wrong_moves_are_refused_at_their_field_and_nothing_is_lost(client: TestClient, who: str) -> None:
    attempt = begin(client, who, "rock-a-bore-gauge")
    at = f"/api/practice/attempts/{attempt['attempt_id']}/moves"

    def refused(**body: Any) -> tuple[str, str]:
        answer = client.post(at, json={"place": 0, "given": {}, "person_id": who, **body})
        assert answer.status_code in (409, 422), answer.text
        problem = answer.json()["problems"][0]
        return problem["field"], problem["message"]

    place = {"gauge": "two-point", "level": "middle", "axis": "45"}
    assert refused(name="take", given={"tilt": "0"})[0] == "name"
    assert refused(name="set", given={**place, "axis": "44"})[0] == "given.axis"
    assert refused(name="set", given={"gauge": "two-point"})[1] == "This is needed: fill it in."
    assert refused(name="ring", place=3)[0] == "place"
    answers = {"size": "1 thou", "out of round": "a few", "widest": "30", "taper": "0", "lobes": "none"}
    assert refused(name="answer", given=answers)[0] == "given.out of round"
    assert refused(name="answer", given={**answers, "out of round": "1", "widest": "north"}) == (
        "given.widest",
        "Type a number here.",
    )
    assert refused(name="answer", given={**answers, "out of round": "1", "size": "9 in"})[0] == "given.size"
    other = next(one for one in client.get("/api/people").json() if one["person_id"] != who)["person_id"]
    assert refused(name="ring", person_id=other)[1] == "This exercise is Wren's: begin one of your own."
    made = {"place": 0, "name": "set", "given": place, "at_s": 5, "person_id": who}
    assert client.post(at, json=made).status_code == 201
    again = client.post(at, json=made)
    assert (again.status_code, again.json()["moves"]) == (201, 1)
    assert refused(name="ring", place=0)[0] == "place"
    assert refused(name="ring", place=1, at_s=4)[0] == "at_s"


def test_nothing_of_practice_touches_a_job(client: TestClient, who: str) -> None:
    counts = (
        "SELECT (SELECT count(*) FROM reading), (SELECT count(*) FROM reading_set), (SELECT max(event) FROM reading)"
    )
    with psycopg.connect(client.app.state.settings.dsn) as conn:  # type: ignore[attr-defined]
        before = conn.execute(counts).fetchone()
        stamps = conn.execute("SELECT * FROM revision ORDER BY 1").fetchall()
        play(client, who, PERFECT[0])
        assert conn.execute(counts).fetchone() == before
        assert conn.execute("SELECT * FROM revision ORDER BY 1").fetchall() == stamps
        own = "SELECT conrelid::regclass::text, confrelid::regclass::text FROM pg_constraint WHERE contype = 'f'"
        for table, refers_to in conn.execute(own):
            if table.startswith("practice_"):
                assert refers_to.startswith("practice_") or refers_to == "person"
            else:
                assert not refers_to.startswith("practice_")


def test_an_own_exercise_comes_from_a_job_without_its_names(client: TestClient, who: str) -> None:
    bench = Bench.at_demo(client)
    body = {"own_id": str(uuid4()), "job_id": bench.job_id, "title": "Six heights", "words": "How does each stand?",
            "lesson": "At a limit the ± decides.", "person_id": who}  # fmt: skip
    job = bench.block()["job"]
    for field in ("title", "words", "lesson"):
        refused = client.post("/api/practice/own", json={**body, field: f"As on {job['name']}"})
        assert (refused.status_code, refused.json()["problems"][0]["field"]) == (422, field)
    kept = client.post("/api/practice/own", json=body)
    assert kept.status_code == 201, kept.text
    assert client.post("/api/practice/own", json=body).status_code == 201
    own = [one for one in client.get("/api/practice").json()["exercises"] if one["area"] == "own"]
    assert [one["title"] for one in own] == ["Six heights"]
    begun = begin(client, who, own[0]["name"])
    text = str(begun)
    for name in (job["name"], job["number"], job["customer"]):
        assert name not in text
    assert len(begun["position"]["pictures"]) == 2
    without = next(strip["job"]["job_id"] for strip in client.get("/api/jobs").json()
                   if strip["job"]["name"] == "Hill Tractor Marram")  # fmt: skip
    few = client.post("/api/practice/own", json={**body, "own_id": str(uuid4()), "job_id": without})
    assert (few.status_code, few.json()["problems"][0]["field"]) == (422, "job_id")
    assert client.post("/api/practice/own", json={**body, "job_id": str(uuid4())}).status_code == 404
