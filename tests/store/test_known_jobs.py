"""What is known of a job is what stands in the database, whoever wrote it and however it ended."""

import threading
from collections.abc import Iterator
from uuid import UUID, uuid4

import psycopg
import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from vallostasis.core.records import Quantity, Reading
from vallostasis.services import readings, shop
from vallostasis.services.refused import Refused
from vallostasis.store import gauges, jobs
from vallostasis.store.job_facts import _read_job_facts, load_job_facts, lock_job_facts
from vallostasis.store.revisions import present_revision
from vallostasis.store.rows import Conn, NotFound

HOURS = (12.0, 3.0, 6.0, 9.0)


@pytest.fixture
def bench(demo_dsn: str) -> Iterator[Conn]:
    """A connection as the application has it: every statement a transaction of its own."""
    with psycopg.connect(demo_dsn, autocommit=True) as conn:
        yield conn


@pytest.fixture
def other(demo_dsn: str) -> Iterator[Conn]:
    with psycopg.connect(demo_dsn, autocommit=True) as conn:
        yield conn


@pytest.fixture
def job(bench: Conn) -> UUID:
    return jobs.list_jobs(bench)[0].job_id


@pytest.fixture
def person(bench: Conn) -> UUID:
    row = bench.execute("SELECT person_id FROM person WHERE name = 'Wren'").fetchone()
    assert row is not None
    return UUID(str(row[0]))


def _take(conn: Conn, job: UUID, person: UUID, hole: int = 1, hour: float = 12.0, answer: str = "repeat") -> Reading:
    ask = readings.ReadingToTake(uuid4(), Quantity.PROTRUSION, hole, hour, "", "", "8.5", "0.01 mm", True, answer,
                                 False, None)  # fmt: skip
    return readings.take_reading(conn, job, ask, person)


def test_what_another_connection_wrote_is_seen_at_once(bench: Conn, other: Conn, job: UUID, person: UUID) -> None:
    before = load_job_facts(bench, job)
    assert load_job_facts(bench, job) is before, "known, not read again"
    taken = _take(other, job, person)
    assert load_job_facts(bench, job).reading(taken.reading_id) == taken
    mine = _take(bench, job, person)
    assert load_job_facts(other, job).reading(mine.reading_id) == mine


def test_what_was_taken_back_is_not_known(bench: Conn, other: Conn, job: UUID, person: UUID) -> None:
    before = load_job_facts(bench, job)
    with pytest.raises(ZeroDivisionError), bench.transaction():
        taken = _take(bench, job, person)
        assert load_job_facts(bench, job).reading(taken.reading_id) == taken
        lock_job_facts(bench, job)
        raise ZeroDivisionError
    for conn in (bench, other):
        assert load_job_facts(conn, job).readings == before.readings
    assert load_job_facts(other, job) == _read_job_facts(other, job)


def test_a_gauge_saved_anew_makes_every_job_read_again(bench: Conn, job: UUID) -> None:
    before = load_job_facts(bench, job)
    sled = next(gauge for gauge in gauges.list_gauges(bench) if gauge.name == "Depth sled 2")
    with bench.transaction():
        shop.save_gauge(bench, sled.gauge_id, 1, shop.GaugeEntry(sled.name, sled.kind, "1", "1"))
    after = load_job_facts(bench, job)
    assert after.newest_gauge(sled.gauge_id).version == 2
    assert before.newest_gauge(sled.gauge_id).version == 1


def test_a_revision_is_never_met_twice_and_none_is_settled_while_writing(bench: Conn, job: UUID, person: UUID) -> None:
    seen = {present_revision(bench, job)}
    for _ in range(5):
        _take(bench, job, person)
        seen.add(present_revision(bench, job))
    assert len(seen) == 6
    with bench.transaction():
        jobs.lock_job(bench, job)
        assert present_revision(bench, job) is None
    with pytest.raises(NotFound):
        present_revision(bench, uuid4())


@pytest.fixture(scope="module")
def shared(server: str, demo_template: str) -> Iterator[tuple[Conn, Conn]]:
    from tests.conftest import make_database

    dsn = make_database(server, "known_jobs", demo_template)
    with psycopg.connect(dsn, autocommit=True) as first, psycopg.connect(dsn, autocommit=True) as second:
        yield first, second


STEPS = st.lists(
    st.tuples(st.integers(0, 1), st.sampled_from(["repeat", "correct", "undo", "strike", "new pass"]),
              st.integers(1, 6), st.sampled_from(HOURS)), min_size=1, max_size=8)  # fmt: skip


@given(STEPS)
@settings(max_examples=25, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
def test_whatever_is_done_what_is_known_is_what_stands(
    shared: tuple[Conn, Conn], steps: list[tuple[int, str, int, float]]
) -> None:
    """Two connections by turns, some of it undone: both know what a fresh look at the rows gives."""
    job = jobs.list_jobs(shared[0])[0].job_id
    row = shared[0].execute("SELECT person_id FROM person WHERE name = 'Wren'").fetchone()
    assert row is not None
    for which, what, hole, hour in steps:
        conn = shared[which]
        if what == "undo":
            with pytest.raises(ZeroDivisionError), conn.transaction():
                _take(conn, job, row[0], hole, hour)
                raise ZeroDivisionError
        elif what == "strike":
            with conn.transaction():
                last = load_job_facts(conn, job).readings[-1].reading_id
                struck = last in load_job_facts(conn, job).struck
                readings.strike(conn, last, not struck, "", row[0])
        else:
            _take(conn, job, row[0], hole, hour, what if what != "new pass" else "repeat")
    for conn in shared:
        assert load_job_facts(conn, job) == _read_job_facts(conn, job)


def test_a_reading_sent_by_two_benches_at_once_is_there_once(bench: Conn, other: Conn, job: UUID, person: UUID) -> None:
    """One id from two connections, and two firsts at one position: one is taken, the other is known or asked about."""
    load_job_facts(bench, job)
    ask = readings.ReadingToTake(uuid4(), Quantity.PROTRUSION, 2, 12.0, "", "", "8.0", "0.01 mm", True, "repeat",
                                 False, None)  # fmt: skip
    firsts = [
        readings.ReadingToTake(uuid4(), Quantity.PROTRUSION, 3, 4.5, "", "", "8.0", "0.01 mm", True, "", False, None)
        for _ in range(2)
    ]
    asked: list[str] = []

    def send(conn: Conn, reading: readings.ReadingToTake) -> None:
        try:
            readings.take_reading(conn, job, reading, person)
        except Refused as refused:
            asked.append(refused.code.value)

    for pair in ((ask, ask), tuple(firsts)):
        threads = [threading.Thread(target=send, args=(c, r)) for c, r in zip((bench, other), pair, strict=True)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
    facts = _read_job_facts(bench, job)
    assert sum(reading.reading_id == ask.reading_id for reading in facts.readings) == 1
    assert sum(reading.hour == 4.5 for reading in facts.readings) == 1
    assert asked == ["read before"]
