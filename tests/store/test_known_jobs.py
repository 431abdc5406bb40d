"""What is known of a job is what stands in the database, whoever wrote it and however it ended."""

from collections.abc import Iterator
from uuid import UUID, uuid4

import psycopg
import pytest

from vallostasis.core.records.rows import Quantity, Reading
from vallostasis.services import readings, shop
from vallostasis.store import gauges, jobs
from vallostasis.store.job_facts import load_job_facts, lock_job_facts, read_job_facts
from vallostasis.store.revisions import present_revision
from vallostasis.store.rows import Conn, NotFound


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
    assert load_job_facts(other, job) == read_job_facts(other, job)


def test_a_row_in_place_of_one_taken_back_is_told_from_it(bench: Conn, other: Conn, job: UUID, person: UUID) -> None:
    """As many rows as before, but not the same ones: only kinds of facts that changed are read anew."""
    with bench.transaction():
        lock_job_facts(bench, job)
        with pytest.raises(ZeroDivisionError), bench.transaction():
            taken = _take(bench, job, person, hour=12.0)
            assert taken in read_job_facts(bench, job).readings
            raise ZeroDivisionError
        instead = _take(bench, job, person, hour=6.0)
        read_again = read_job_facts(bench, job)
        assert instead in read_again.readings
        assert taken not in read_again.readings
    assert read_job_facts(other, job) == read_again


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
