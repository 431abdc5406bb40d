"""Readings appended in one statement, or with the job locked: what is known of a job is always what stands."""

import threading
from collections.abc import Iterator
from typing import Any
from uuid import UUID, uuid4

import psycopg
import pytest
from fastapi.testclient import TestClient
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.api.bench import Bench
from tests.conftest import at_this_machine, copy_of_demo
from vallostasis.services import readings
from vallostasis.settings import Settings
from vallostasis.store import job_facts

# The application runs in this process: its threads draw random numbers of their own while examples are made.
pytestmark = pytest.mark.filterwarnings("ignore:Do not use the .random. module inside strategies")


@pytest.fixture(scope="module")
def dsn(server: str, demo_template: str) -> Iterator[str]:
    with copy_of_demo(server, demo_template) as dsn:
        yield dsn


@pytest.fixture(scope="module")
def benches(dsn: str) -> Iterator[tuple[Bench, Bench]]:
    """Two running applications on one database."""
    with at_this_machine(Settings(dsn=dsn)) as first, at_this_machine(Settings(dsn=dsn)) as second:
        yield Bench.at_demo(first), Bench.at_demo(second)


STEPS = st.lists(
    st.tuples(st.integers(0, 1), st.sampled_from(["repeat", "correct", "strike", "new pass"]), st.integers(1, 6),
              st.sampled_from([12, 3, 6, 9])), min_size=1, max_size=8)  # fmt: skip


@given(STEPS)
@settings(max_examples=20, deadline=None)
def test_whatever_is_done_what_is_known_is_what_stands(
    benches: tuple[Bench, Bench], dsn: str, steps: list[tuple[int, str, int, int]]
) -> None:
    for which, what, hole, hour in steps:
        bench = benches[which]
        if what == "strike":
            last = bench.block()["readings"][-1]
            struck = {"struck": not last["struck"], "person_id": bench.person_id}
            answer = bench.client.post(bench.tape_url(last["event"]), json=struck)
        else:
            answers = {"new_pass": True} if what == "new pass" else {"read_before": what}
            answer = bench.take("8.5", hole=hole, hour=hour, confirmed=True, **answers)
        assert answer.status_code == 201, answer.text
    job = UUID(benches[0].job_id)
    with psycopg.connect(dsn, autocommit=True) as conn:
        assert job_facts.load_job_facts(conn, job) == job_facts.read_job_facts(conn, job)


def test_most_readings_need_no_lock(client: TestClient, monkeypatch: pytest.MonkeyPatch) -> None:
    """The one statement does the work once the job is known; a first reading of its set needs the lock."""
    bench = Bench.at_demo(client)
    locked: list[str] = []
    take = readings.take_reading
    monkeypatch.setattr(readings, "take_reading", lambda *a: locked.append("locked") or take(*a))
    for number in range(6):
        taken = bench.take(f"8.{number}", hole=1, hour=12, read_before="repeat")
        assert taken.status_code == 201
        assert taken.json()["taken_by"] == "Wren"
    assert len(locked) <= 1
    assert bench.take("8.5", hole=1, hour=12, new_pass=True).status_code == 201
    assert bench.take("8.5", hole=1, hour=12, read_before="correct").status_code == 201
    assert len(locked) <= 3
    assert locked


def test_sent_by_two_benches_at_once_it_is_there_once(benches: tuple[Bench, Bench]) -> None:
    """One id from both, and two firsts at one position: one is taken, the other is known or asked about."""
    one = {"reading_id": str(uuid4()), "hole": 2, "hour": 12, "read_before": "repeat", "confirmed": True}
    firsts = [{"hole": 3, "hour": 4.5, "confirmed": True} for _ in benches]
    for bodies in ((one, one), tuple(firsts)):
        codes: list[int] = []

        def send(bench: Bench, body: dict[str, Any], codes: list[int] = codes) -> None:
            codes.append(bench.take("8.0", **body).status_code)

        threads = [threading.Thread(target=send, args=pair) for pair in zip(benches, bodies, strict=True)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        assert sorted(codes) == ([201, 201] if bodies[0] is one else [201, 409])
    rows = benches[0].block()["readings"]
    assert sum(row["reading_id"] == one["reading_id"] for row in rows) == 1
    assert sum(row["hour"] == 4.5 for row in rows) == 1


def test_somebody_unknown_and_an_id_used_elsewhere_are_refused(client: TestClient) -> None:
    bench = Bench.at_demo(client)
    bench.take("8.5", hole=1, hour=12, read_before="repeat")
    unknown = bench.take("8.5", hole=1, hour=12, read_before="repeat", person_id=str(uuid4()))
    assert unknown.status_code == 404
    other = next(
        strip["job"]["job_id"] for strip in client.get("/api/jobs").json() if strip["job"]["number"] == "26-044"
    )
    used = client.get(f"/api/jobs/{other}/block").json()["readings"][0]["reading_id"]
    refused = bench.take("8.5", hole=1, hour=12, read_before="repeat", reading_id=used)
    assert refused.status_code == 409
    assert "used for another reading" in refused.json()["message"]
