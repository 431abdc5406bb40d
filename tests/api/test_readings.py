"""Readings over HTTP: taken, asked back, refused at the right field, on disk once acknowledged."""

from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace
from datetime import datetime, timedelta
from uuid import uuid4

import psycopg
import pytest
from fastapi.testclient import TestClient

from tests.api.bench import Bench, assert_refusal_shape, field_of
from tests.core.facts import WHEN, Story
from vallostasis.api.tape_models import reading_rows
from vallostasis.core.records.rows import Quantity


@pytest.fixture
def bench(client: TestClient) -> Bench:
    return Bench.at_demo(client)


def test_a_reading_is_on_disk_when_it_is_acknowledged(bench: Bench, demo_dsn: str) -> None:
    taken = bench.take("8.5", hole=1, hour=1.5)
    assert taken.status_code == 201
    with psycopg.connect(demo_dsn) as other:
        row = other.execute(
            "SELECT typed, value_um FROM reading WHERE reading_id = %s", (taken.json()["reading_id"],)
        ).fetchone()
    assert row is not None
    assert (row[0], int(row[1])) == ("8.5", 85)


def test_the_tape_says_of_each_reading_what_it_is_of(bench: Bench) -> None:
    rows = bench.block()["readings"]

    def named(quantity: str) -> set[tuple[bool, bool]]:
        return {(row["hole"] is not None, row["liner_mark"] != "") for row in rows if row["quantity"] == quantity}

    # A ledge is of its hole, a flange of its liner wherever that is, a protrusion of the two together.
    assert named("counterbore depth") == {(True, False)}
    assert named("flange thickness") == {(False, True)}
    assert named("protrusion") == {(True, True)}


def test_a_reading_recorded_by_a_clock_that_went_back_is_marked() -> None:
    story = Story(holes=1)
    fitting = story.fit(1, story.liner("L1"))
    story.read(Quantity.PROTRUSION, fitting, (80, 82))
    facts = story.facts()
    assert [row.clock_went_back for row in reading_rows(facts)] == [False] * len(facts.readings)
    back = tuple(replace(one, recorded_at=WHEN - timedelta(days=3)) for one in facts.readings)
    assert [row.clock_went_back for row in reading_rows(replace(facts, readings=back))] == [True] * len(back)


def test_sending_the_same_reading_again_does_not_double_it(bench: Bench) -> None:
    body = bench.reading("8.5", hole=1, hour=1.5)
    url = f"/api/jobs/{bench.job_id}/readings"
    first, again = bench.client.post(url, json=body), bench.client.post(url, json=body)
    assert (first.status_code, again.status_code) == (201, 201)
    assert first.json() == again.json()
    other = bench.client.post(url, json={**body, "text": "8.6"})
    assert (other.status_code, field_of(other)) == (409, "reading_id")


@pytest.mark.parametrize(
    ("text", "fields", "status", "field", "words"),
    [
        ("", {}, 422, "text", "Nothing was typed"),
        ("abc", {}, 422, "text", "not understood"),
        ("8.6 mm", {}, 422, "text", "did you mean"),
        ("219", {}, 422, "text", "far from what is expected"),
        ("a hair", {}, 422, "text", "not a measure"),
        ("8.6", {"hole": 9}, 422, "hole", "no hole 9"),
        ("8.6", {"hole": 99}, 422, "hole", "at most 16"),
        ("8.6", {"hole": None}, 422, "hole", "Which hole"),
        ("8.6", {"hour": None}, 422, "hour", "clock position"),
        ("8.6", {"hour": 13}, 422, "hour", "at most 12"),
        ("8\x00", {}, 422, "text", "cannot be kept"),
        ("8.6", {"quantity": "bore"}, 422, "quantity", "Choose one of"),
        ("8.6", {"bare_unit": "furlong"}, 422, "bare_unit", "Choose one of"),
        ("8.6", {"person_id": str(uuid4())}, 404, "", "person"),
        ("8.6", {"person_id": "Wren"}, 422, "person_id", "no id"),
        ("8.9", {"quantity": "flange thickness", "liner_mark": "L99"}, 422, "liner_mark", "no liner marked L99"),
        ("8.9", {"quantity": "flange thickness", "liner_mark": " "}, 422, "liner_mark", "Say which liner by its mark"),
        ("8.6", {"hour": 12}, 409, "text", "repeat, or does it correct"),
    ],
)
def test_bad_input_is_named_at_its_field(
    bench: Bench, text: str, fields: dict[str, object], status: int, field: str, words: str
) -> None:
    events = bench.block()["event"]
    refused = bench.take(text, **{"hole": 1, "hour": 1.5, **fields})
    assert refused.status_code == status, refused.text
    assert_refusal_shape(refused)
    assert words in refused.json()["message"]
    if field:
        assert field_of(refused) == field
    assert bench.block()["event"] == events


def test_an_unknown_job_is_not_found(bench: Bench) -> None:
    refused = bench.client.post(f"/api/jobs/{uuid4()}/readings", json=bench.reading("8.6", hole=1, hour=1.5))
    assert refused.status_code == 404
    assert_refusal_shape(refused)


def test_a_body_of_64_kb_is_refused_before_it_is_read(bench: Bench) -> None:
    refused = bench.take("8" * 64_000, hole=1, hour=1.5)
    assert refused.status_code == 413
    assert_refusal_shape(refused)


def test_a_liner_thickness_can_be_read_on_the_land_named(bench: Bench) -> None:
    taken = bench.take("8.991", quantity="flange thickness", liner_mark="L7", land="lip", bare_unit="mm")
    assert taken.status_code == 201
    liner = next(one for one in bench.block()["liners"] if one["liner"]["mark"] == "L7")
    by_land = {flange["land"]: flange["thickness_m"] for flange in liner["flange"]}
    assert by_land == {"flat land": None, "lip": pytest.approx(8.991e-3)}


def test_block_shows_a_strike_and_its_undoing(bench: Bench) -> None:
    url = bench.tape_url(bench.block()["readings"][-1]["event"])
    assert bench.client.post(url, json={"struck": True, "person_id": bench.person_id}).status_code == 201
    assert bench.hole(6)["state"] == "not measured"
    assert bench.block()["readings"][-1]["struck"]
    assert bench.client.post(url, json={"struck": False, "person_id": bench.person_id}).status_code == 201
    assert bench.hole(6)["state"] == "cannot tell"


def test_many_benches_at_once_lose_nothing(bench: Bench) -> None:
    bodies = [bench.reading(f"8.{number % 10}", hole=1, hour=1.5, read_before="repeat") for number in range(24)]
    url = f"/api/jobs/{bench.job_id}/readings"
    with ThreadPoolExecutor(8) as pool:
        # Each is sent twice, as after a lost answer.
        answers = list(pool.map(lambda body: bench.client.post(url, json=body), bodies * 2))
    assert {answer.status_code for answer in answers} == {201}
    taken = [row for row in bench.block()["readings"] if row["hour"] == 1.5]
    assert sorted(row["reading_id"] for row in taken) == sorted(body["reading_id"] for body in bodies)
    assert len({row["set_id"] for row in taken}) == 1


def test_what_waited_keeps_the_order_in_which_one_person_took_it(bench: Bench) -> None:
    """A reading that was long on the way is not given a time before the one that its taker took first."""
    people = [bench.client.post("/api/people", json={"name": name}).json()["person_id"] for name in ("Ash", "Birch")]
    ash, birch = ({"hole": 1, "read_before": "repeat", "person_id": one} for one in people)
    first, later = bench.take("8.5", hour=1.5, waited_s=100, **ash), bench.take("8.6", hour=4.5, waited_s=300, **ash)
    other = bench.take("8.5", hour=7.5, waited_s=300, **birch)
    now = bench.take("8.5", hour=10.5, **ash)
    times = [datetime.fromisoformat(one.json()["taken_at"]) for one in (other, first, later, now)]
    assert times[0] < times[1] == times[2] < times[3]
    assert times[3] - times[1] >= timedelta(seconds=100)


def test_a_position_that_is_none_once_it_is_rounded_is_refused_and_breaks_nothing(bench: Bench) -> None:
    refused = bench.take("8.5", hole=1, hour=0.001)
    assert refused.status_code == 422
    assert_refusal_shape(refused)
    assert bench.take("8.5", hole=1, hour=1.5).status_code == 201
